// The least straight move that parts a design from what it lies on: the figure of a remedy.
#pragma once

#include <optional>

#include "core/geometry/geometry.h"

namespace orthema {

/// The least move up, down, left or right (mm) after which `ink` no longer overlaps `from`; nothing where none of at most
/// `at_most` does it. Exact: on every line along a direction both are rows of stretches, and the ends of a stretch move
/// evenly between one vertex and the next, so the moves that overlap are a union of few intervals.
std::optional<Point> escape(const Region& ink, const Region& from, double at_most);

}  // namespace orthema
