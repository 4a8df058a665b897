// First layouts at once: first-fit on a bit grid that over-covers every grown outline, so that what it accepts cannot
// overlap; then exact sliding towards the start.
#pragma once

#include <vector>

#include "core/base/task.h"
#include "core/nesting/bit_grid.h"
#include "core/nesting/nest.h"

namespace orthema {

struct Copy {
    int piece = 0, copy = 0;
};

class GridPacker {
public:
    /// `cell` mm. Of many turns only a few are tried.
    GridPacker(const NestProblem& problem, double cell, int threads = 1);
    /// Index of a piece that fits nowhere, or -1.
    [[nodiscard]] int misfit() const;
    /// First fit in the order given; empty when stopped. What fits into none of the first `most_bins` is left out.
    [[nodiscard]] std::vector<NestPlacement> pack(const std::vector<Copy>& order, const Task& task,
                                                  std::size_t most_bins = std::numeric_limits<std::size_t>::max()) const;

private:
    /// One shape at one turn, with its cells.
    struct Turned {
        double rotation = 0;
        CellShape cells;
        double width = 0;
    };
    [[nodiscard]] Region grow(const Polygon& outline) const;
    const NestProblem& problem_;
    double cell_;
    int threads_;
    int rows_ = 0;
    int columns_ = -1;
    std::vector<std::vector<Turned>> turns_;
};

/// Slides every piece towards the start and then towards the near edge, exactly, from the front to the back: takes
/// back what the grid's cells gave away. Never makes a layout worse. Each bin by itself, so many at once as there are threads.
void slide_back(const NestProblem& problem, std::vector<NestPlacement>& placements, int threads = 1);

}  // namespace orthema
