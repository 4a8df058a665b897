#include "core/transfers/snips.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

namespace orthema {

namespace {

using Spans = std::vector<std::pair<double, double>>;

/// Where a line runs inside a region, even-odd: level at y, or upright at x.
Spans film_spans(const Region& region, double at, bool level) {
    std::vector<double> cuts;
    const auto take = [&](const Ring& ring) {
        for (std::size_t i = 0, n = ring.size(); i < n; ++i) {
            Point a = ring[i], b = ring[(i + 1) % n];
            if (!level) {
                std::swap(a.x, a.y);
                std::swap(b.x, b.y);
            }
            if ((a.y <= at) != (b.y <= at)) cuts.push_back(a.x + (b.x - a.x) * (at - a.y) / (b.y - a.y));
        }
    };
    for (const Polygon& p : region) {
        take(p.outer);
        for (const Ring& h : p.holes) take(h);
    }
    std::sort(cuts.begin(), cuts.end());
    Spans out;
    for (std::size_t i = 0; i + 1 < cuts.size(); i += 2) out.emplace_back(cuts[i], cuts[i + 1]);
    return out;
}

bool within(const Spans& spans, double at) {
    return std::any_of(spans.begin(), spans.end(), [&](const auto& s) { return at >= s.first && at <= s.second; });
}

/// How long a row of the form is, `way` from the film's middle line, in lengths of the film's.
double row_share(double bend, double way) { return std::cos(std::min(bend * way, M_PI / 2)); }

/// One side of the film, from its middle line (row 0) to its edge.
struct HalfFilm {
    double left = 0;                       ///< x of column 0
    std::vector<Spans> film;               ///< by row
    std::vector<double> rise_of, allowed;  ///< by row: of a strip's length; how wide one may be
    std::vector<int> edge, reach;          ///< by column: outermost row with film, innermost that a cut gets to; edge −1: no film
    [[nodiscard]] double x(int column) const { return left + column * snip_step; }
    [[nodiscard]] int columns() const { return static_cast<int>(edge.size()); }
    [[nodiscard]] int rows() const { return static_cast<int>(film.size()); }
};

/// Of each cut the innermost row, by column.
using Cuts = std::map<int, int>;

HalfFilm half_film(const Polygon& film, const Region& keep, double bend, double gap, bool upper) {
    const Rect box = bounds(film.outer);
    const double middle = box.centre().y;
    HalfFilm s;
    s.left = box.x0 + snip_step / 2;
    const int columns = static_cast<int>(box.width() / snip_step), rows = static_cast<int>(std::ceil(box.height() / 2 / snip_step));
    s.edge.assign(static_cast<std::size_t>(std::max(0, columns)), -1);
    std::vector<std::vector<char>> open;  // by row and column
    std::vector<std::vector<char>> there;
    for (int r = 0; r < rows; ++r) {
        const double way = (r + 0.5) * snip_step, y = upper ? middle - way : middle + way;
        s.film.push_back(film_spans({film}, y, true));
        s.rise_of.push_back(rise(row_share(bend, way + snip_step / 2)));
        s.allowed.push_back(widest_strip(bend, way + snip_step / 2, gap));
        // a cut passes the whole height of its row: both of its ends must be free
        const Spans a = film_spans(keep, y - snip_step / 2, true), b = film_spans(keep, y, true),
                    c = film_spans(keep, y + snip_step / 2, true);
        open.emplace_back();
        there.emplace_back();
        for (int k = 0; k < columns; ++k) {
            const double x = s.x(k);
            const bool on = within(s.film.back(), x);
            there.back().push_back(on ? 1 : 0);
            open.back().push_back(on && !within(a, x) && !within(b, x) && !within(c, x) ? 1 : 0);
            if (on) s.edge[static_cast<std::size_t>(k)] = r;
        }
    }
    for (int k = 0; k < columns; ++k) {
        int r = s.edge[static_cast<std::size_t>(k)];
        while (r >= 0 && open[static_cast<std::size_t>(r)][static_cast<std::size_t>(k)] != 0) --r;
        s.reach.push_back(r + 1);
    }
    return s;
}

/// The cuts that pass a row between two places, as places, with those at its ends.
std::vector<double> ends_in(const HalfFilm& s, const Cuts& cuts, int row, const std::pair<double, double>& span) {
    std::vector<double> out{span.first};
    for (const auto& [column, depth] : cuts)
        if (depth <= row && row <= s.edge[static_cast<std::size_t>(column)] && s.x(column) > span.first && s.x(column) < span.second)
            out.push_back(s.x(column));
    out.push_back(span.second);
    return out;
}

bool can_pass(const HalfFilm& s, int column, int row) {
    const auto k = static_cast<std::size_t>(column);
    return s.edge[k] >= row && s.reach[k] <= row;
}

/// Whether a cut at x is worth its way: it makes both parts narrow enough, or parts off more than a sliver.
bool worth(double from, double x, double to, double most) {
    const double a = x - from, b = to - x;
    if (a <= 1e-9 || b <= 1e-9) return false;
    return std::max(a, b) <= most + 1e-9 || std::min(a, b) >= most / 4;
}

/// Columns that narrow a strip from `from` to `to`: none reaches there → none. As few as can be, evenly where that costs none.
std::vector<int> added(const HalfFilm& s, int row, double from, double to, const std::vector<int>* only) {
    const double most = s.allowed[static_cast<std::size_t>(row)];
    std::vector<int> free;
    const auto offer = [&](int k) {
        if (s.x(k) > from + 1e-9 && s.x(k) < to - 1e-9 && can_pass(s, k, row)) free.push_back(k);
    };
    if (only != nullptr)
        for (const int k : *only) offer(k);
    else
        for (int k = 0; k < s.columns(); ++k) offer(k);
    const auto walk = [&](bool even) {
        std::vector<int> out;
        double at = from;
        while (to - at > most + 1e-9) {
            const double left = std::ceil((to - at) / most - 1e-9), wish = even ? at + (to - at) / left : at + most;
            int best = -1, next = -1;
            for (const int k : free) {
                const double x = s.x(k);
                if (!worth(at, x, to, most)) continue;
                if (x <= at + most + 1e-9) {
                    if (best < 0 || std::abs(x - wish) < std::abs(s.x(best) - wish)) best = k;
                } else if (next < 0) {
                    next = k;
                }
            }
            if (best < 0) best = next;  // ink is in the way: as near beyond it as can be
            if (best < 0) break;
            out.push_back(best);
            at = s.x(best);
        }
        return out;
    };
    auto far = walk(false), even = walk(true);
    return even.size() <= far.size() ? even : far;
}

/// Every strip of every row is narrow enough, or nothing could part it further.
bool lies(const HalfFilm& s, const Cuts& cuts) {
    for (int r = 0; r < s.rows(); ++r)
        for (const auto& span : s.film[static_cast<std::size_t>(r)]) {
            const auto ends = ends_in(s, cuts, r, span);
            for (std::size_t i = 0; i + 1 < ends.size(); ++i)
                if (ends[i + 1] - ends[i] > s.allowed[static_cast<std::size_t>(r)] + 1e-9)
                    for (int k = 0; k < s.columns(); ++k)
                        if (can_pass(s, k, r) && worth(ends[i], s.x(k), ends[i + 1], s.allowed[static_cast<std::size_t>(r)])) return false;
        }
    return true;
}

void grow(const HalfFilm& s, Cuts& cuts, int row, const std::vector<int>* only) {
    for (const auto& span : s.film[static_cast<std::size_t>(row)]) {
        const auto ends = ends_in(s, cuts, row, span);
        for (std::size_t i = 0; i + 1 < ends.size(); ++i)
            for (const int k : added(s, row, ends[i], ends[i + 1], only)) {
                const auto [at, fresh] = cuts.try_emplace(k, row);
                if (!fresh) at->second = std::min(at->second, row);
            }
    }
}

Cuts from_the_middle(const HalfFilm& s) {
    Cuts cuts;
    for (int r = 0; r < s.rows(); ++r) grow(s, cuts, r, nullptr);
    return cuts;
}

/// Places by the rows at the edge, which need most; then each as deep as rows further in need it.
Cuts from_the_edge(const HalfFilm& s) {
    Cuts all;
    for (int r = s.rows() - 1; r >= 0; --r) {
        Cuts here;  // those that could come as far
        for (const auto& [column, depth] : all)
            if (can_pass(s, column, r)) here[column] = r;
        grow(s, here, r, nullptr);
        for (const auto& [column, depth] : here) all.try_emplace(column, r);
    }
    std::vector<int> places;
    for (const auto& [column, depth] : all) places.push_back(column);
    Cuts cuts;
    for (int r = 0; r < s.rows(); ++r) grow(s, cuts, r, &places);
    return lies(s, cuts) ? cuts : from_the_middle(s);
}

/// Left out what can be, and shortened what can be.
void trim(const HalfFilm& s, Cuts& cuts) {
    for (bool changed = true; changed;) {
        changed = false;
        for (auto it = cuts.begin(); it != cuts.end();) {
            Cuts fewer = cuts;
            fewer.erase(it->first);
            if (lies(s, fewer)) {
                const int next = it->first;
                cuts = std::move(fewer);
                it = cuts.upper_bound(next);
                changed = true;
                continue;
            }
            while (it->second < s.edge[static_cast<std::size_t>(it->first)]) {
                ++it->second;
                if (lies(s, cuts)) {
                    changed = true;
                    continue;
                }
                --it->second;
                break;
            }
            ++it;
        }
    }
}

int length_of(const HalfFilm& s, const Cuts& cuts) {
    int sum = 0;
    for (const auto& [column, depth] : cuts) sum += s.edge[static_cast<std::size_t>(column)] - depth + 1;
    return sum;
}

}  // namespace

double rise(double share) {
    if (share >= 1) return 0;
    // an arc of length 1 over a chord of `share`: sin(a)/a = share, a half its angle
    double low = 0, high = M_PI;
    for (int i = 0; i < 60; ++i) {
        const double a = (low + high) / 2;
        (std::sin(a) / a > share ? low : high) = a;
    }
    return (1 - std::cos(low)) / (2 * low);
}

double widest_strip(double bend, double way, double gap) {
    const double up = rise(row_share(bend, std::abs(way)));
    return up > 0 ? gap / up : std::numeric_limits<double>::infinity();
}

double stands_whole(const Polygon& film, double bend) {
    const Rect box = bounds(film.outer);
    return box.width() * rise(row_share(bend, box.height() / 2));
}

SnipPlan snips(const Polygon& film, const Region& ink, double bend, double gap, double clear) {
    SnipPlan plan;
    const Rect box = bounds(film.outer);
    if (!(bend > 0) || !(gap > 0) || !(box.width() > 0)) return plan;
    if (std::max(box.width(), box.height()) > widest_snipped) {
        plan.stands = stands_whole(film, bend);
        plan.at = {box.centre().x, box.y0};
        return plan;
    }
    const Region keep = ink.empty() ? Region{} : offset(ink, clear);
    for (const bool upper : {true, false}) {
        const HalfFilm s = half_film(film, keep, bend, gap, upper);
        Cuts cuts = from_the_edge(s), other = from_the_middle(s);
        trim(s, cuts);
        trim(s, other);
        if (std::pair(other.size(), length_of(s, other)) < std::pair(cuts.size(), length_of(s, cuts))) cuts = std::move(other);
        const double middle = box.centre().y, sign = upper ? -1 : 1;
        for (const auto& [column, depth] : cuts) {
            const double x = s.x(column), tip = middle + sign * depth * snip_step;
            double from = tip;
            for (const auto& [low, high] : film_spans({film}, x, false)) from = upper ? std::min(from, low) : std::max(from, high);
            plan.snips.push_back({{x, from}, {x, tip}});
        }
        for (int r = 0; r < s.rows(); ++r)
            for (const auto& span : s.film[static_cast<std::size_t>(r)]) {
                const auto ends = ends_in(s, cuts, r, span);
                for (std::size_t i = 0; i + 1 < ends.size(); ++i) {
                    const double stands = (ends[i + 1] - ends[i]) * s.rise_of[static_cast<std::size_t>(r)];
                    if (stands <= plan.stands) continue;
                    plan.stands = stands;
                    plan.at = {(ends[i] + ends[i + 1]) / 2, middle + sign * (r + 0.5) * snip_step};
                }
            }
    }
    return plan;
}

}  // namespace orthema
