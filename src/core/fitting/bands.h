// Bands: neighbouring sizes that share one transfer, chosen so that the quantity-weighted squared relative shortfall
// from the ideal widths is least.
#pragma once

#include <vector>

#include "core/base/length.h"

namespace orthema {

struct BandMember {
    double ideal_mm = 0;  ///< > 0
    double limit_mm = 0;
    int quantity = 0;
};

struct Partition {
    std::vector<int> starts;  ///< index of each band's first member, ascending, starts[0] == 0
    double cost = 0;          ///< Σ quantity × ((ideal − band width) / ideal)²
};

/// Rounds down to the step; a width below one step stays as it is.
double rounded_down(double mm, double step_mm);

/// Width of the band [first, last): least min(ideal, limit) of its members, rounded down to the step.
double band_width(const std::vector<BandMember>& members, int first, int last, double step_mm);

/// The cheapest contiguous partition for every number of bands 1 … n, by dynamic programming. Exact. Entry k − 1
/// holds k bands. Time O(n³).
std::vector<Partition> optimal_partitions(const std::vector<BandMember>& members, double step_mm);

/// The cheapest of those with `price` added for each band; ties go to fewer bands.
Partition best_partition(const std::vector<Partition>& by_count, double price);

}  // namespace orthema
