// Filling: what finds room beside the pieces that lie already. For offcuts, for the shelf, and for pieces that are sent to
// another sheet.
#pragma once

#include <vector>

#include "core/nesting/grid_packer.h"

namespace orthema {

/// Places for copies on the first `bins` bins beside problem.locked, first fit in the order given, exactly checked; what
/// finds none is left out. In the order placed. Method: GridPacker.
std::vector<NestPlacement> fitted_in(const NestProblem& problem, const std::vector<Copy>& wanted, int bins, const Task& task = {});

/// Copies that may be placed, and what one of them is worth.
struct FillOffer {
    int piece = 0;
    int first_copy = 0;  ///< number of the first
    int most = 0;
    double value = 0;
};

/// Of the offers as much worth as finds room on the first `bins` bins: several orders are tried (by worth for the area, by area, by
/// worth, and shuffled), the best is kept. Copies of one piece are numbered on from first_copy. `edge_to_edge`: only what
/// leaves the bins fit for a trimmer.
std::vector<NestPlacement> fill_rest(const NestProblem& problem, const std::vector<FillOffer>& offers, int bins, bool edge_to_edge,
                                     int tries = 12, const Task& task = {});

}  // namespace orthema
