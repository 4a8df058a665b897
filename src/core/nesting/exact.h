// The last word on whether two pieces may lie as they do: whole-number arithmetic, without a tolerance. Outlines are
// rounded once to a grid of 1/10,000 mm; on that grid every answer is exact.
#pragma once

#include <cstdint>
#include <vector>

#include "core/geometry/geometry.h"

namespace orthema {

struct GridPoint {
    std::int64_t x = 0, y = 0;
    bool operator==(const GridPoint&) const = default;
};

constexpr double grid_per_mm = 10000;

/// An outline and its holes on the grid, the area to the left of every edge (in a y-up frame), however they came.
struct GridShape {
    std::vector<std::vector<GridPoint>> rings;
    GridPoint low, high;
};

/// Coordinates up to 100 m.
GridShape on_grid(const Polygon& polygon);

/// Whether no two points of the areas are nearer than `gap` units. With gap 0, whether they share no inner point:
/// they may touch along edges and at corners.
bool exactly_apart(const GridShape& a, const GridShape& b, std::int64_t gap);

}  // namespace orthema
