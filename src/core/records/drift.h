// Drift: a run that leaves its place, told while it can still be mended. Rules on the pieces in order.
#pragma once

#include <optional>
#include <string>
#include <vector>

namespace orthema {

/// What is known of the run's centre and spread before its first piece.
struct RunBefore {
    std::optional<double> centre;
    double spread = 3;   ///< mm; the usual one where nothing is known
    double weight = 20;  ///< as if so many pieces had shown that spread
};

struct Drift {
    int seen_at = 0;      ///< index of the piece at which it is said
    int began_at = 0;     ///< index of the first piece that lies off, as near as can be told
    double by = 0;        ///< against before
    bool creeps = false;  ///< grew piece by piece
};

/// All that the rules say of the figures in order; after each the rule begins anew with what came after. Method: for each piece at
/// which the run may have left its place, the odds of a slip of two spreads against none (Page's test, 1954; where the centre is not
/// known, for the difference of the means before and after, whose uncertainty counts). The spread is that of the pieces
/// themselves about both means, together with what was known of it.
std::vector<Drift> drifts(const std::vector<double>& in_order, const RunBefore& before = {});

constexpr int least_before = 12;

}  // namespace orthema
