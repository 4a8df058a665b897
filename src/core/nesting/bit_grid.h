// BitGrid: a strip as columns of bits, and pieces as columns of runs that over-cover their outline. A piece whose
// cells are free in the grid cannot overlap anything that was stamped into it.
#pragma once

#include <cstdint>
#include <vector>

#include "core/geometry/geometry.h"

namespace orthema {

struct Run {
    int from = 0, to = 0;  ///< cells [from, to)
};

/// Columns of runs, starting at the grown outline's least x and y.
struct CellShape {
    std::vector<std::vector<Run>> columns;
    int height = 0;
    double x0 = 0, y0 = 0;  ///< where cell (0, 0) begins in the outline's frame
    [[nodiscard]] int width() const { return static_cast<int>(columns.size()); }
};

/// Every cell that the polygon touches (touching a cell's edge alone does not count). `x0`, `y0`: where the cells
/// begin; the polygon must not lie before them.
CellShape covered_cells(const Region& region, double cell, double x0, double y0);

class BitGrid {
public:
    explicit BitGrid(int rows);
    /// The least x >= from (and below limit - shape width + 1) at which the shape fits, with its least y; false when
    /// there is none. limit < 0: no end.
    bool first_fit(const CellShape& shape, int from, int limit, int& x, int& y) const;
    void stamp(const CellShape& shape, int x, int y);

private:
    /// All least y of the shape at x that something stamped is in the way of; its columns are looked at in that order until all are.
    void blocked_at(const CellShape& shape, const std::vector<int>& order, int x, std::vector<std::uint64_t>& blocked) const;
    int rows_;
    std::size_t words_;
    std::size_t level_;  ///< words of a level: as many again and one more are zeros to shift in
    int levels_;         ///< of spans: 1, 2, 4, … rows, up to all of them
    /// Only as many as were stamped; each by its levels: bit y says whether any cell of the span that begins there is stamped.
    std::vector<std::vector<std::uint64_t>> columns_;
};

}  // namespace orthema
