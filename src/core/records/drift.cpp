#include "core/records/drift.h"

#include <algorithm>
#include <cmath>

#include "core/records/statistics.h"

namespace orthema {

namespace {

constexpr double slip = 2;            ///< in spreads, that the rule is made for
constexpr double known_odds = 6.2;    ///< logarithm: where the centre is known
constexpr double unknown_odds = 6.0;  ///< where it is the run's own
constexpr std::size_t farthest = 40;  ///< pieces back that a slip is looked for

/// Whether a straight line explains the figures better than a step at `at`.
bool creeps(const std::vector<double>& y, std::size_t from, std::size_t at, std::size_t to) {
    const auto about = [&](std::size_t a, std::size_t b) {
        const std::vector<double> part(y.begin() + static_cast<std::ptrdiff_t>(a), y.begin() + static_cast<std::ptrdiff_t>(b));
        const double s = spread_of(part);
        return part.size() < 2 ? 0.0 : s * s * static_cast<double>(part.size() - 1);
    };
    const double n = static_cast<double>(to - from), step = about(from, at) + about(at, to);
    double xx = 0, xy = 0;
    for (std::size_t i = from; i < to; ++i) {
        const double x = static_cast<double>(i - from) - (n - 1) / 2;
        xx += x * x;
        xy += x * y[i];
    }
    return n >= 6 && about(from, to) - xy * xy / xx < step;
}

}  // namespace

std::vector<Drift> drifts(const std::vector<double>& y, const RunBefore& before) {
    std::vector<Drift> out;
    const double known = before.spread * before.spread * before.weight;
    std::size_t begin = 0;
    // sums to the left of each piece
    std::vector<double> sum(y.size() + 1), squares(y.size() + 1);
    for (std::size_t i = 0; i < y.size(); ++i) {
        sum[i + 1] = sum[i] + y[i];
        squares[i + 1] = squares[i] + y[i] * y[i];
    }
    const auto about_mean = [&](std::size_t from, std::size_t to) {
        const double n = static_cast<double>(to - from), s = sum[to] - sum[from];
        return n < 1 ? 0.0 : std::max(0.0, squares[to] - squares[from] - s * s / n);
    };
    for (std::size_t i = begin; i < y.size(); ++i) {
        const std::size_t least = before.centre ? 0 : static_cast<std::size_t>(least_before);
        double best = 0;
        Drift found;
        for (std::size_t from = i + 1; from-- > begin + least && i - from < farthest;) {
            const double n0 = static_cast<double>(from - begin), n1 = static_cast<double>(i + 1 - from);
            const double mean1 = (sum[i + 1] - sum[from]) / n1;
            const double mean0 = before.centre ? *before.centre : (sum[from] - sum[begin]) / n0;
            const double about0 = before.centre ? squares[from] - squares[begin] - 2 * mean0 * (sum[from] - sum[begin]) + n0 * mean0 * mean0
                                                : about_mean(begin, from);
            const double free = before.weight + (before.centre ? n0 : n0 - 1) + n1 - 1;
            const double s = std::sqrt((known + about0 + about_mean(from, i + 1)) / free);
            const double error = before.centre ? 1 / n1 : 1 / n1 + 1 / n0;
            const double odds = (slip * std::abs(mean1 - mean0) / s - slip * slip / 2) / error;
            if (odds > best) {
                best = odds;
                found = {static_cast<int>(i), static_cast<int>(from), mean1 - mean0, false};
            }
        }
        if (best <= (before.centre ? known_odds : unknown_odds)) continue;
        found.creeps = creeps(y, begin, static_cast<std::size_t>(found.began_at), i + 1);
        out.push_back(found);
        begin = i + 1;
    }
    return out;
}

}  // namespace orthema
