#include "core/fitting/bands.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace orthema {

namespace {
constexpr double rounding = 1e-9;  // running sums cancel to about this

/// The bands' starts, walked back from the last: `from` is where the band that ends there starts.
template <class State>
std::vector<int> starts_of(const std::vector<State>& best) {
    std::vector<int> starts;
    for (std::size_t end = best.size() - 1; end > 0; end = static_cast<std::size_t>(best[end].from)) starts.push_back(best[end].from);
    std::reverse(starts.begin(), starts.end());
    return starts;
}

}  // namespace

double rounded_down(double mm, double step_mm) {
    if (step_mm <= 0) return mm;
    const double steps = std::floor(mm / step_mm + 1e-9);
    return steps >= 1 ? steps * step_mm : mm;
}

double band_width(const std::vector<BandMember>& members, int first, int last, double step_mm) {
    double least = std::numeric_limits<double>::infinity();
    for (int i = first; i < last; ++i) {
        const auto& m = members[static_cast<std::size_t>(i)];
        least = std::min({least, m.ideal_mm, m.limit_mm});
    }
    return rounded_down(least, step_mm);
}

BandCosts::BandCosts(std::vector<BandMember> members, double step_mm)
    : n_(static_cast<int>(members.size())), step_mm_(step_mm), members_(std::move(members)) {
    cost_.assign(static_cast<std::size_t>(n_ + 1) * static_cast<std::size_t>(n_ + 1), 0);
    for (int first = 0; first < n_; ++first) {
        double least = std::numeric_limits<double>::infinity();
        double q = 0, q1 = 0, q2 = 0, w = 0;
        for (int last = first + 1; last <= n_; ++last) {
            const BandMember& m = members_[static_cast<std::size_t>(last - 1)];
            if (const double cap = std::min(m.ideal_mm, m.limit_mm); cap < least) {
                least = cap;
                w = rounded_down(least, step_mm);
            }
            q += m.quantity;
            q1 += m.quantity / m.ideal_mm;
            q2 += m.quantity / (m.ideal_mm * m.ideal_mm);
            cost_[at(first, last)] = std::max(0.0, q - 2 * w * q1 + w * w * q2);
        }
    }
}

std::vector<Partition> optimal_partitions(const BandCosts& costs, int most) {
    const int n = costs.size();
    most = std::min(most, n);
    const auto at = [](int i) { return static_cast<std::size_t>(i); };
    const double inf = std::numeric_limits<double>::infinity();
    // best[k][j]: the first j members in k bands
    std::vector<std::vector<double>> best(at(most + 1), std::vector<double>(at(n + 1), inf));
    std::vector<std::vector<int>> from(at(most + 1), std::vector<int>(at(n + 1), 0));
    best[0][0] = 0;
    for (int k = 1; k <= most; ++k)
        for (int j = k; j <= n; ++j)
            for (int i = j - 1; i >= k - 1; --i) {
                const double band = costs.cost(i, j), total = best[at(k - 1)][at(i)] + band;
                if (band > best[at(k)][at(j)] + rounding) break;
                if (total <= best[at(k)][at(j)]) {
                    best[at(k)][at(j)] = total;
                    from[at(k)][at(j)] = i;
                }
            }
    std::vector<Partition> out;
    for (int k = 1; k <= most; ++k) {
        Partition p;
        p.cost = best[at(k)][at(n)];
        for (int level = k, end = n; level > 0; --level) {
            end = from[at(level)][at(end)];
            p.starts.push_back(end);
        }
        std::reverse(p.starts.begin(), p.starts.end());
        out.push_back(std::move(p));
    }
    return out;
}

Partition best_partition(const BandCosts& costs, double price) {
    const int n = costs.size();
    struct State {
        double total = std::numeric_limits<double>::infinity();
        int bands = 0, from = 0;
    };
    std::vector<State> best(static_cast<std::size_t>(n + 1));
    best[0] = {0, 0, 0};
    for (int j = 1; j <= n; ++j)
        for (int i = j - 1; i >= 0; --i) {
            const State& before = best[static_cast<std::size_t>(i)];
            State& here = best[static_cast<std::size_t>(j)];
            if (costs.cost(i, j) + price > here.total + rounding) break;
            const double total = before.total + costs.cost(i, j) + price;
            if (total < here.total - 1e-12 || (total < here.total + 1e-12 && before.bands + 1 < here.bands))
                here = {total, before.bands + 1, i};
        }
    Partition p;
    if (n == 0) return p;
    p.cost = best.back().total - price * best.back().bands;
    p.starts = starts_of(best);
    return p;
}

bool BandCosts::keeps(int first, int last, double within) const {
    const double w = width(first, last);
    for (int i = first; i < last; ++i) {
        const BandMember& m = members_[static_cast<std::size_t>(i)];
        if (w < (1 - within) * m.ideal_mm - rounding && w < width(i, i + 1) - rounding) return false;
    }
    return true;
}

Partition within_partition(const BandCosts& costs, double within) {
    const int n = costs.size();
    struct State {
        int bands = std::numeric_limits<int>::max(), from = 0;
        double cost = 0;
    };
    std::vector<State> best(static_cast<std::size_t>(n + 1));
    best[0] = {0, 0, 0};
    for (int j = 1; j <= n; ++j)
        for (int i = j - 1; i >= 0; --i) {
            // taking in more at the small end only narrows it: what does not keep here keeps in no wider band
            if (!costs.keeps(i, j, within)) break;
            const State& before = best[static_cast<std::size_t>(i)];
            State& here = best[static_cast<std::size_t>(j)];
            const double cost = before.cost + costs.cost(i, j);
            if (before.bands + 1 < here.bands || (before.bands + 1 == here.bands && cost < here.cost - 1e-12))
                here = {before.bands + 1, i, cost};
        }
    Partition p;
    if (n == 0) return p;
    p.cost = best.back().cost;
    p.starts = starts_of(best);
    return p;
}

Shortfall shortfall(const std::vector<BandMember>& members, const Partition& partition, double step_mm) {
    Shortfall out;
    double pieces = 0;
    for (std::size_t b = 0; b < partition.starts.size(); ++b) {
        const int first = partition.starts[b];
        const int last = b + 1 < partition.starts.size() ? partition.starts[b + 1] : static_cast<int>(members.size());
        const double w = band_width(members, first, last, step_mm);
        for (int i = first; i < last; ++i) {
            const BandMember& m = members[static_cast<std::size_t>(i)];
            const double lack = std::max(0.0, 1 - w / m.ideal_mm);
            out.worst = std::max(out.worst, lack);
            out.mean += lack * m.quantity;
            out.squares += m.quantity * w * w;
            pieces += m.quantity;
        }
    }
    if (pieces > 0) out.mean /= pieces;
    return out;
}

}  // namespace orthema
