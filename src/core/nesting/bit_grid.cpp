#include "core/nesting/bit_grid.h"

#include <algorithm>
#include <bit>
#include <cmath>

namespace orthema {

namespace {

constexpr double hair = 1e-7;

void add_run(std::vector<Run>& runs, double y0, double y1, double cell) {
    const int from = static_cast<int>(std::floor(y0 / cell + hair));
    const int to = std::max(from + 1, static_cast<int>(std::ceil(y1 / cell - hair)));
    runs.push_back({std::max(0, from), to});
}

}  // namespace

CellShape covered_cells(const Region& region, double cell, double x0, double y0) {
    CellShape shape;
    shape.x0 = x0;
    shape.y0 = y0;
    const Rect box = bounds(region);
    const int n = std::max(1, static_cast<int>(std::ceil((box.x1 - x0) / cell - hair)));
    shape.columns.resize(static_cast<std::size_t>(n));
    std::vector<std::vector<double>> crossings(static_cast<std::size_t>(n));
    const auto edge = [&](Point a, Point b) {
        if (a.x > b.x) std::swap(a, b);
        a = a - Point{x0, y0};
        b = b - Point{x0, y0};
        const int first = std::clamp(static_cast<int>(std::floor(a.x / cell + hair)), 0, n - 1);
        const int last = std::clamp(static_cast<int>(std::ceil(b.x / cell - hair)) - 1, first, n - 1);
        for (int c = first; c <= last; ++c) {
            const double left = std::max(a.x, c * cell);
            const double right = std::min(b.x, (c + 1) * cell);
            const auto y_at = [&](double x) { return b.x > a.x ? a.y + (b.y - a.y) * std::clamp((x - a.x) / (b.x - a.x), 0.0, 1.0) : a.y; };
            double ya = y_at(left);
            double yb = b.x > a.x ? y_at(right) : b.y;
            if (ya > yb) std::swap(ya, yb);
            if (yb - ya > 0 || b.x > a.x) add_run(shape.columns[static_cast<std::size_t>(c)], ya, yb, cell);
            const double mid = (c + 0.5) * cell;
            if (a.x <= mid && mid < b.x) crossings[static_cast<std::size_t>(c)].push_back(y_at(mid));
        }
    };
    for (const Polygon& p : region) {
        const auto ring = [&](const Ring& r) {
            for (std::size_t i = 0; i < r.size(); ++i) edge(r[i], r[(i + 1) % r.size()]);
        };
        ring(p.outer);
        for (const Ring& hole : p.holes) ring(hole);
    }
    // Any point of the polygon in a column can be moved level to the column's middle, or meets an edge on the way:
    // the middle's inside and the edges' cells together cover the column.
    for (std::size_t c = 0; c < shape.columns.size(); ++c) {
        auto& runs = shape.columns[c];
        auto& cuts = crossings[c];
        std::sort(cuts.begin(), cuts.end());
        for (std::size_t i = 0; i + 1 < cuts.size(); i += 2) add_run(runs, cuts[i], cuts[i + 1], cell);
        std::sort(runs.begin(), runs.end(), [](Run a, Run b) { return a.from < b.from; });
        std::vector<Run> merged;
        for (const Run& r : runs) {
            if (!merged.empty() && r.from <= merged.back().to)
                merged.back().to = std::max(merged.back().to, r.to);
            else
                merged.push_back(r);
        }
        runs = std::move(merged);
        for (const Run& r : runs) shape.height = std::max(shape.height, r.to);
    }
    return shape;
}

BitGrid::BitGrid(int rows)
    : rows_(rows),
      words_((static_cast<std::size_t>(rows) + 63) / 64),
      level_(2 * words_ + 1),
      levels_(std::bit_width(static_cast<unsigned>(std::max(1, rows)))) {}

namespace {

/// to |= from >> by (towards lower y), `words` long. `from` goes on in as many words of zeros and one more.
inline void add_shifted(const std::uint64_t* from, std::uint64_t* to, std::size_t words, int by) {
    const std::uint64_t* at = from + by / 64;
    const int bits = by % 64;
    for (std::size_t i = 0; i < words; ++i) to[i] |= (at[i] >> bits) | (at[i + 1] << 1 << (63 - bits));
}

}  // namespace

void BitGrid::blocked_at(const CellShape& shape, const std::vector<int>& order, int x, std::vector<std::uint64_t>& blocked) const {
    const std::size_t w = words_;
    int looked = 0;
    for (const int c : order) {
        ++looked;
        const auto at = static_cast<std::size_t>(x + c);
        if (at >= columns_.size() || columns_[at].empty()) continue;
        for (const Run& run : shape.columns[static_cast<std::size_t>(c)]) {
            // y is blocked when any stamped cell lies in [y + from, y + to): two spans of a power of two that cover it together
            const int length = run.to - run.from, power = std::bit_width(static_cast<unsigned>(length)) - 1;
            const std::uint64_t* spans = columns_[at].data() + static_cast<std::size_t>(power) * level_;
            add_shifted(spans, blocked.data(), w, run.from);
            if (length != 1 << power) add_shifted(spans, blocked.data(), w, run.to - (1 << power));
        }
        if (looked <= 8 || looked % 4 == 0) {
            bool full = true;
            for (std::size_t i = 0; i < w && full; ++i) full = blocked[i] == ~std::uint64_t{0};
            if (full) return;
        }
    }
}

bool BitGrid::first_fit(const CellShape& shape, int from, int limit, int& x, int& y) const {
    const int free_rows = rows_ - shape.height + 1;
    if (free_rows <= 0) return false;
    // columns with the most cells first: a place that is full fails there
    std::vector<int> tall(shape.columns.size(), 0), order(shape.columns.size());
    for (std::size_t c = 0; c < order.size(); ++c) {
        order[c] = static_cast<int>(c);
        for (const Run& r : shape.columns[c]) tall[c] += r.to - r.from;
    }
    std::stable_sort(order.begin(), order.end(),
                     [&](int a, int b) { return tall[static_cast<std::size_t>(a)] > tall[static_cast<std::size_t>(b)]; });
    std::vector<std::uint64_t> start(words_, ~std::uint64_t{0});
    for (int r = 0; r < free_rows; ++r) start[static_cast<std::size_t>(r) / 64] &= ~(std::uint64_t{1} << (r % 64));
    std::vector<std::uint64_t> blocked(words_);
    const int end = limit < 0 ? static_cast<int>(columns_.size()) + 1 : limit - shape.width() + 1;
    for (int at = from; at < end || (limit < 0 && at <= from); ++at) {
        blocked = start;
        blocked_at(shape, order, at, blocked);
        for (std::size_t i = 0; i < words_; ++i) {
            if (blocked[i] == ~std::uint64_t{0}) continue;
            x = at;
            y = static_cast<int>(i) * 64 + std::countr_one(blocked[i]);
            return true;
        }
    }
    return false;
}

void BitGrid::stamp(const CellShape& shape, int x, int y) {
    const auto need = static_cast<std::size_t>(x + shape.width());
    if (columns_.size() < need) columns_.resize(need);
    for (int c = 0; c < shape.width(); ++c) {
        if (x + c < 0) continue;
        auto& column = columns_[static_cast<std::size_t>(x + c)];
        if (column.empty()) column.assign(level_ * static_cast<std::size_t>(levels_), 0);
        for (const Run& run : shape.columns[static_cast<std::size_t>(c)])
            for (int r = std::max(0, run.from + y); r < std::min(rows_, run.to + y); ++r)
                column[static_cast<std::size_t>(r) / 64] |= std::uint64_t{1} << (r % 64);
        for (int k = 1; k < levels_; ++k) {
            const std::uint64_t* half = column.data() + static_cast<std::size_t>(k - 1) * level_;
            std::uint64_t* whole = column.data() + static_cast<std::size_t>(k) * level_;
            std::copy(half, half + words_, whole);
            add_shifted(half, whole, words_, 1 << (k - 1));
        }
    }
}

}  // namespace orthema
