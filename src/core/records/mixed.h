// Mixed: causes told apart. A measured figure is a mean, what a few causes add to it (press, hands, blank, size: each level its
// own, drawn about nought), and chance. Source: Henderson's mixed model equations, 1975; variances by restricted likelihood.
#pragma once

#include <cstddef>
#include <vector>

#include "core/records/statistics.h"

namespace orthema {

/// For each row which level of a cause it is of, from 0.
struct Factor {
    std::vector<int> level;
    int levels = 0;
};

/// What is known of a cause's spread beforehand, as if `weight` levels had shown `spread`: few levels say little about it.
struct SpreadBefore {
    double spread = 1, weight = 0.5;
};

struct MixedFit {
    std::vector<double> fixed;                 ///< one for each column
    Square fixed_cov;                          ///< of those
    std::vector<std::vector<double>> effects;  ///< by random factor and level
    std::vector<double> factor_spread;         ///< by random factor
    double spread = 0;                         ///< of chance
    double df = 0;                             ///< rows less fixed columns
    bool ok = false;
};

/// Rows of fixed columns `x` (all of one length) and figures `y`; equal lengths. Not ok where the columns do not stand apart or no
/// row is left over to show the spread.
MixedFit mixed_fit(const std::vector<double>& y, const std::vector<std::vector<double>>& x, const std::vector<Factor>& random,
                   const SpreadBefore& before = {});
/// The same with the spreads given, by factor and of chance: Henderson's equations alone.
MixedFit mixed_solve(const std::vector<double>& y, const std::vector<std::vector<double>>& x, const std::vector<Factor>& random,
                     const std::vector<double>& factor_spread, double spread);

/// Whether two causes cannot be told apart: each level of the one goes with one of the other.
bool aliased(const Factor& a, const Factor& b);

}  // namespace orthema
