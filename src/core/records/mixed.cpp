#include "core/records/mixed.h"

#include <algorithm>
#include <cmath>

namespace orthema {

namespace {

/// The normal equations without the causes' own spreads: fixed columns first, then the levels of each factor.
struct Normal {
    Square lhs;
    std::vector<double> rhs;
    std::vector<std::size_t> first;  ///< where each factor's levels begin; its end last
    double yy = 0;
    std::size_t rows = 0, fixed = 0;
};

Normal normal_of(const std::vector<double>& y, const std::vector<std::vector<double>>& x, const std::vector<Factor>& random) {
    Normal out;
    out.rows = y.size();
    out.fixed = x.empty() ? 0 : x.front().size();
    std::size_t size = out.fixed;
    for (const Factor& f : random) {
        out.first.push_back(size);
        size += static_cast<std::size_t>(f.levels);
    }
    out.first.push_back(size);
    out.lhs = Square(size);
    out.rhs.assign(size, 0);
    std::vector<std::pair<std::size_t, double>> row;
    for (std::size_t i = 0; i < y.size(); ++i) {
        row.clear();
        for (std::size_t k = 0; k < out.fixed; ++k)
            if (x[i][k] != 0) row.emplace_back(k, x[i][k]);
        for (std::size_t f = 0; f < random.size(); ++f) row.emplace_back(out.first[f] + static_cast<std::size_t>(random[f].level[i]), 1.0);
        for (const auto& [a, va] : row) {
            out.rhs[a] += va * y[i];
            for (const auto& [b, vb] : row) out.lhs(a, b) += va * vb;
        }
        out.yy += y[i] * y[i];
    }
    return out;
}

/// Solves for given ratios of chance to cause; `inverse` is of the whole, and is scaled by the spread of chance.
bool solve(const Normal& n, const std::vector<double>& ratio, Square& inverse, std::vector<double>& solution) {
    inverse = n.lhs;
    for (std::size_t f = 0; f + 1 < n.first.size(); ++f)
        for (std::size_t k = n.first[f]; k < n.first[f + 1]; ++k) inverse(k, k) += ratio[f];
    if (!invert(inverse)) return false;
    solution.assign(n.rhs.size(), 0);
    for (std::size_t i = 0; i < solution.size(); ++i)
        for (std::size_t j = 0; j < solution.size(); ++j) solution[i] += inverse(i, j) * n.rhs[j];
    return true;
}

MixedFit fit_from(const Normal& n, const std::vector<double>& factor_spread, double spread, const Square& inverse,
                  const std::vector<double>& solution) {
    MixedFit out;
    out.fixed.assign(solution.begin(), solution.begin() + static_cast<std::ptrdiff_t>(n.fixed));
    out.fixed_cov = Square(n.fixed);
    for (std::size_t i = 0; i < n.fixed; ++i)
        for (std::size_t j = 0; j < n.fixed; ++j) out.fixed_cov(i, j) = inverse(i, j) * spread * spread;
    for (std::size_t f = 0; f + 1 < n.first.size(); ++f)
        out.effects.emplace_back(solution.begin() + static_cast<std::ptrdiff_t>(n.first[f]),
                                 solution.begin() + static_cast<std::ptrdiff_t>(n.first[f + 1]));
    out.factor_spread = factor_spread;
    out.spread = spread;
    out.df = static_cast<double>(n.rows) - static_cast<double>(n.fixed);
    out.ok = true;
    return out;
}

}  // namespace

MixedFit mixed_solve(const std::vector<double>& y, const std::vector<std::vector<double>>& x, const std::vector<Factor>& random,
                     const std::vector<double>& factor_spread, double spread) {
    const Normal n = normal_of(y, x, random);
    std::vector<double> ratio, solution;
    for (const double s : factor_spread) ratio.push_back(spread * spread / std::max(1e-12, s * s));
    Square inverse;
    if (!solve(n, ratio, inverse, solution)) return {};
    return fit_from(n, factor_spread, spread, inverse, solution);
}

MixedFit mixed_fit(const std::vector<double>& y, const std::vector<std::vector<double>>& x, const std::vector<Factor>& random,
                   const SpreadBefore& before) {
    const Normal n = normal_of(y, x, random);
    if (n.rows <= n.fixed || n.fixed == 0) return {};
    double chance = std::max(1e-12, spread_of(y) * spread_of(y));
    std::vector<double> cause(random.size(), before.spread * before.spread), ratio(random.size()), solution;
    Square inverse;
    for (int round = 0; round < 60; ++round) {
        for (std::size_t f = 0; f < random.size(); ++f) ratio[f] = chance / cause[f];
        if (!solve(n, ratio, inverse, solution)) return {};
        double left = n.yy;
        for (std::size_t i = 0; i < solution.size(); ++i) left -= solution[i] * n.rhs[i];
        const double was = chance;
        chance = std::max(1e-12, left / static_cast<double>(n.rows - n.fixed));
        double moved = std::abs(chance - was) / was;
        for (std::size_t f = 0; f < random.size(); ++f) {
            double square = 0, trace = 0;
            const auto from = n.first[f], to = n.first[f + 1];
            for (std::size_t k = from; k < to; ++k) {
                square += solution[k] * solution[k];
                trace += inverse(k, k);
            }
            const double next =
                (square + was * trace + before.weight * before.spread * before.spread) / (static_cast<double>(to - from) + before.weight);
            moved = std::max(moved, std::abs(next - cause[f]) / cause[f]);
            cause[f] = std::max(1e-12, next);
        }
        if (moved < 1e-3) break;
    }
    std::vector<double> spreads;
    spreads.reserve(cause.size());
    for (const double c : cause) spreads.push_back(std::sqrt(c));
    for (std::size_t f = 0; f < random.size(); ++f) ratio[f] = chance / cause[f];
    if (!solve(n, ratio, inverse, solution)) return {};
    return fit_from(n, spreads, std::sqrt(chance), inverse, solution);
}

bool aliased(const Factor& a, const Factor& b) {
    if (a.level.size() != b.level.size()) return false;
    std::vector<int> goes(static_cast<std::size_t>(a.levels), -1), comes(static_cast<std::size_t>(b.levels), -1);
    for (std::size_t i = 0; i < a.level.size(); ++i) {
        int& to = goes[static_cast<std::size_t>(a.level[i])];
        int& from = comes[static_cast<std::size_t>(b.level[i])];
        if ((to >= 0 && to != b.level[i]) || (from >= 0 && from != a.level[i])) return false;
        to = b.level[i];
        from = a.level[i];
    }
    return true;
}

}  // namespace orthema
