// The way of a blade over a sheet: every ring once, what lies inside another before it, with little idle travel.
#pragma once

#include <vector>

#include "core/geometry/geometry.h"

namespace orthema {

struct CutStep {
    Ring ring;            ///< begins where the blade comes down, and ends there
    bool inside = false;  ///< lies within another ring: a hole, or a piece in one
    bool open = false;    ///< a snip: from a piece's edge inwards, it does not come back
};

/// Rings in the order in which they are cut, from `start`. A ring comes after all that lie inside it, or what is cut out
/// would shift first. Method: the nearest ring that may be cut next, then single rings moved to where they save travel.
std::vector<CutStep> cut_path(const std::vector<Polygon>& contours, Point start = {});

/// With snips: each before the contour that it begins at, from the blade's side on.
std::vector<CutStep> with_snips(std::vector<CutStep> path, const std::vector<Ring>& snips);

/// Way with the blade up, mm, from `start` to the first ring and from ring to ring.
double idle_travel(const std::vector<CutStep>& path, Point start = {});

}  // namespace orthema
