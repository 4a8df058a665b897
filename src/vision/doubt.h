// How far a figure that was read off a photograph may lie off.
#pragma once

#include "vision/panel_edges.h"

namespace orthema::vision {

constexpr double edge_mm = 0.6;         ///< that an edge may lie off, one standard deviation
constexpr double looks_mm = 0.35;       ///< that a length may be off for how edges look
constexpr double hard_looks_mm = 0.45;  ///< the same of a flat hard blank: its rim stands in its own shadow

/// By how much more neighbours' errors agree than if each were its own: what a row of them is worth is less by this.
double agreement(const std::vector<Seen>& seen, const std::vector<double>& off);

/// A point of the table, or so many mm above it.
struct Raised {
    Point on;
    double height = 0;
};
/// Variance of the length from one to the other for what is not known of the camera, mm².
double camera_variance(const TableSeen& table, Raised a, Raised b);

}  // namespace orthema::vision
