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

/// What each possible band costs, in O(n²): from running sums of quantity, quantity / ideal and quantity / ideal².
class BandCosts {
public:
    BandCosts(std::vector<BandMember> members, double step_mm);
    [[nodiscard]] int size() const { return n_; }
    [[nodiscard]] double cost(int first, int last) const { return cost_[at(first, last)]; }  ///< of [first, last)
    [[nodiscard]] double width(int first, int last) const { return band_width(members_, first, last, step_mm_); }
    /// Whether no member of [first, last) is short by more than `within` for the sake of the others.
    [[nodiscard]] bool keeps(int first, int last, double within) const;

private:
    [[nodiscard]] std::size_t at(int first, int last) const {
        return static_cast<std::size_t>(last) * static_cast<std::size_t>(n_ + 1) + static_cast<std::size_t>(first);
    }
    int n_;
    double step_mm_;
    std::vector<BandMember> members_;
    std::vector<double> cost_;
};

// A band costs more with every member that it takes in at its small end: each narrows it, none of the others gains. Both
// searches go from the large end down and stop where the band alone costs more than what is found.

/// The cheapest contiguous partition for every number of bands 1 … min(n, most), by dynamic programming. Exact. Entry
/// k − 1 holds k bands. Time O(most · n²).
std::vector<Partition> optimal_partitions(const BandCosts& costs, int most);

/// The cheapest partition with `price` added for each band, of any count; ties go to fewer bands. Exact, O(n²).
Partition best_partition(const BandCosts& costs, double price);

/// The fewest bands in which no member is short of its ideal by more than `within` (0 … 1), but for what its own limit or step
/// takes from it in any band; of those the one with the least cost. Exact, O(n²) bands looked at.
Partition within_partition(const BandCosts& costs, double within);

/// How far the members of a partition are short of their ideals, as shares.
struct Shortfall {
    double worst = 0, mean = 0;  ///< the mean by quantity
    double squares = 0;          ///< Σ quantity × width², mm²: what is printed, but for the design's aspect
};
Shortfall shortfall(const std::vector<BandMember>& members, const Partition& partition, double step_mm);

}  // namespace orthema
