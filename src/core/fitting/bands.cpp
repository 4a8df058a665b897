#include "core/fitting/bands.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace orthema {

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

std::vector<Partition> optimal_partitions(const std::vector<BandMember>& members, double step_mm) {
    const int n = static_cast<int>(members.size());
    const auto at = [](int i) { return static_cast<std::size_t>(i); };
    // cost[first][last) of one band
    std::vector<std::vector<double>> cost(at(n + 1), std::vector<double>(at(n + 1), 0));
    for (int first = 0; first < n; ++first)
        for (int last = first + 1; last <= n; ++last) {
            const double width = band_width(members, first, last, step_mm);
            double sum = 0;
            for (int i = first; i < last; ++i) {
                const double short_by = (members[at(i)].ideal_mm - width) / members[at(i)].ideal_mm;
                sum += members[at(i)].quantity * short_by * short_by;
            }
            cost[at(first)][at(last)] = sum;
        }
    const double inf = std::numeric_limits<double>::infinity();
    // best[k][j]: the first j members in k bands
    std::vector<std::vector<double>> best(at(n + 1), std::vector<double>(at(n + 1), inf));
    std::vector<std::vector<int>> from(at(n + 1), std::vector<int>(at(n + 1), 0));
    best[0][0] = 0;
    for (int k = 1; k <= n; ++k)
        for (int j = k; j <= n; ++j)
            for (int i = k - 1; i < j; ++i) {
                const double total = best[at(k - 1)][at(i)] + cost[at(i)][at(j)];
                if (total < best[at(k)][at(j)]) {
                    best[at(k)][at(j)] = total;
                    from[at(k)][at(j)] = i;
                }
            }
    std::vector<Partition> out;
    for (int k = 1; k <= n; ++k) {
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

Partition best_partition(const std::vector<Partition>& by_count, double price) {
    Partition best;
    double least = std::numeric_limits<double>::infinity();
    for (std::size_t k = 0; k < by_count.size(); ++k) {
        const double total = by_count[k].cost + price * static_cast<double>(k + 1);
        if (total < least - 1e-12) {
            least = total;
            best = by_count[k];
        }
    }
    return best;
}

}  // namespace orthema
