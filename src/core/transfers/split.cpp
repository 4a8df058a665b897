#include "core/transfers/split.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/base/units.h"

namespace orthema {

std::vector<int> least_ink_path(const AlphaMap& alpha, bool upright, int lo, int hi, const std::vector<Through>& through) {
    const int steps = upright ? alpha.height : alpha.width;
    const int wide = hi - lo;
    if (steps <= 0 || wide <= 0) return {};
    std::vector<int> forced(static_cast<std::size_t>(steps), -1);
    for (const Through& t : through) {
        if (t.along < 0 || t.along >= steps || t.across < lo || t.across >= hi) return {};
        forced[static_cast<std::size_t>(t.along)] = t.across - lo;
    }
    const auto ink = [&](int along, int across) { return upright ? alpha.at(across, along) : alpha.at(along, across); };
    // Ink first, then steps aside: both in one whole number, so that ties go to the straighter path.
    using Cost = std::int64_t;
    constexpr Cost ink_unit = 1 << 20, far = std::numeric_limits<Cost>::max() / 4;
    std::vector<Cost> now(static_cast<std::size_t>(wide)), before(static_cast<std::size_t>(wide));
    std::vector<std::int8_t> from(static_cast<std::size_t>(steps) * static_cast<std::size_t>(wide));
    const auto barred = [&](int along, int a) {
        return forced[static_cast<std::size_t>(along)] >= 0 && forced[static_cast<std::size_t>(along)] != a;
    };
    for (int a = 0; a < wide; ++a) before[static_cast<std::size_t>(a)] = barred(0, a) ? far : ink(0, a + lo) * ink_unit;
    for (int s = 1; s < steps; ++s) {
        std::int8_t* came = &from[static_cast<std::size_t>(s) * static_cast<std::size_t>(wide)];
        for (int a = 0; a < wide; ++a) {
            Cost best = before[static_cast<std::size_t>(a)];
            std::int8_t step = 0;
            if (a > 0 && before[static_cast<std::size_t>(a) - 1] + 1 < best) {
                best = before[static_cast<std::size_t>(a) - 1] + 1;
                step = -1;
            }
            if (a + 1 < wide && before[static_cast<std::size_t>(a) + 1] + 1 < best) {
                best = before[static_cast<std::size_t>(a) + 1] + 1;
                step = 1;
            }
            came[a] = step;
            now[static_cast<std::size_t>(a)] = barred(s, a) || best >= far ? far : best + ink(s, a + lo) * ink_unit;
        }
        std::swap(now, before);
    }
    // of equal ends the one nearest the middle
    int end = -1;
    for (int a = 0; a < wide; ++a) {
        const Cost c = before[static_cast<std::size_t>(a)];
        if (c >= far) continue;
        const Cost least = end < 0 ? far : before[static_cast<std::size_t>(end)];
        if (c < least || (c == least && std::abs(2 * a - wide) < std::abs(2 * end - wide))) end = a;
    }
    if (end < 0) return {};
    std::vector<int> path(static_cast<std::size_t>(steps));
    for (int s = steps - 1; s >= 0; --s) {
        path[static_cast<std::size_t>(s)] = end + lo;
        if (s > 0) end += from[static_cast<std::size_t>(s) * static_cast<std::size_t>(wide) + static_cast<std::size_t>(end)];
    }
    return path;
}

long path_ink(const AlphaMap& alpha, bool upright, const std::vector<int>& path) {
    long sum = 0;
    for (std::size_t i = 0; i < path.size(); ++i)
        sum += upright ? alpha.at(path[i], static_cast<int>(i)) : alpha.at(static_cast<int>(i), path[i]);
    return sum;
}

namespace {

/// The strip that seam `i` of `n` − 1 may run in, so that no part is wider than `most`: as wide as it can be, and equal
/// for all.
struct Strip {
    double lo = 0, hi = 0;
};
Strip strip_of(int i, int n, double whole, double most) {
    const double room = std::min((n * most - whole) / (n - 1), most);
    const double lo = (i + 1) * (most - room);
    return {std::max(0.0, lo), std::min(whole, lo + room)};
}

struct Grid {
    int columns = 1, rows = 1;
    double width = 0, height = 0;  ///< the most of a part, lap taken off
};

int pieces_for(double whole, double most) { return most >= whole ? 1 : std::max(2, static_cast<int>(std::ceil(whole / most - 1e-9))); }

/// Best straight cut in the strip: the column with least ink.
long straight_ink(const AlphaMap& alpha, bool upright, int lo, int hi) {
    long best = std::numeric_limits<long>::max();
    const int steps = upright ? alpha.height : alpha.width;
    for (int a = lo; a < hi; ++a) best = std::min(best, path_ink(alpha, upright, std::vector<int>(static_cast<std::size_t>(steps), a)));
    return best;
}

constexpr double far_out = 60;  ///< shares of the plane reach this far past the ink box, mm

/// The part of the plane between two seams; nothing stands for the edge.
Region between(const Seam* a, const Seam* b, const Rect& all, bool upright) {
    Ring ring;
    const auto ends = [&](const Seam* s, double edge) {
        Ring line;
        if (s == nullptr) {
            line = upright ? Ring{{edge, all.y0}, {edge, all.y1}} : Ring{{all.x0, edge}, {all.x1, edge}};
        } else {
            line = s->line;
            const Point first = line.front(), last = line.back();
            line.insert(line.begin(), upright ? Point{first.x, all.y0} : Point{all.x0, first.y});
            line.push_back(upright ? Point{last.x, all.y1} : Point{all.x1, last.y});
        }
        return line;
    };
    ring = ends(a, upright ? all.x0 : all.y0);
    Ring back = ends(b, upright ? all.x1 : all.y1);
    ring.insert(ring.end(), back.rbegin(), back.rend());
    return {Polygon{std::move(ring), {}}};
}

void count_heat(SplitPlan& plan, const SplitRule& rule, const Rect& ink) {
    if (rule.platen_width <= 0 || rule.platen_height <= 0) return;
    const Region box = box_region(ink);
    std::vector<Rect> under;
    under.reserve(plan.parts.size());
    for (const SplitPart& p : plan.parts) {
        const Point c = bounds(intersect(p.reach, box)).centre();
        under.push_back(
            {c.x - rule.platen_width / 2, c.y - rule.platen_height / 2, c.x + rule.platen_width / 2, c.y + rule.platen_height / 2});
    }
    for (std::size_t i = 0; i < plan.parts.size(); ++i)
        for (std::size_t later = i + 1; later < plan.parts.size(); ++later) {
            const Region hot = intersect(intersect(plan.parts[i].own, box), box_region(under[later]));
            if (area(hot) > 1) ++plan.parts[i].heated;
        }
}

}  // namespace

Result<SplitPlan> split(const AlphaMap& alpha, double width, const SplitRule& rule) {
    if (alpha.width < 2 || alpha.height < 2 || !(width > 0)) return Error{"There is no ink to split."};
    const double mm = width / alpha.width;
    const double height = mm * alpha.height;
    const double lap = rule.join == Join::lap ? rule.lap : 0;

    std::vector<Grid> grids;
    for (const PieceLimit& l : rule.limits) {
        if (l.width <= 2 * lap + 5 || l.height <= 2 * lap + 5) continue;
        Grid g;
        g.columns = l.width >= width ? 1 : pieces_for(width, l.width - lap);
        g.rows = l.height >= height ? 1 : pieces_for(height, l.height - lap);
        g.width = g.columns == 1 ? l.width : l.width - lap;
        g.height = g.rows == 1 ? l.height : l.height - lap;
        if (g.columns <= 12 && g.rows <= 12) grids.push_back(g);
    }
    if (grids.empty())
        return Error{"The design is too large to be split into at most 12 × 12 pieces: use a wider medium or a larger platen."};
    int fewest = 1000;
    for (const Grid& g : grids) fewest = std::min(fewest, g.columns * g.rows);

    std::optional<SplitPlan> best;
    std::string fault;
    for (const Grid& g : grids) {
        if (g.columns * g.rows != fewest) continue;
        SplitPlan plan;
        plan.columns = g.columns;
        plan.rows = g.rows;
        bool sound = true;
        for (const bool upright : {true, false}) {
            const int n = upright ? g.columns : g.rows;
            const int across_px = upright ? alpha.width : alpha.height;
            for (int i = 0; i + 1 < n && sound; ++i) {
                const Strip strip = strip_of(i, n, upright ? width : height, upright ? g.width : g.height);
                const int lo = std::clamp(static_cast<int>(std::ceil(strip.lo / mm - 1e-9)), 0, across_px - 1);
                const int hi = std::clamp(static_cast<int>(std::floor(strip.hi / mm + 1e-9)), lo + 1, across_px);
                std::vector<Through> through;
                for (const SeamPoint& p : rule.points)
                    if (p.upright == upright && p.seam == i) {
                        const double along = (upright ? p.at.y : p.at.x) * width / mm, across = (upright ? p.at.x : p.at.y) * width / mm;
                        const int last = (upright ? alpha.height : alpha.width) - 1;  // a seam taken by its end may be let go past it
                        through.push_back({std::clamp(static_cast<int>(along), 0, last), static_cast<int>(across)});
                    }
                const std::vector<int> path = least_ink_path(alpha, upright, lo, hi, through);
                if (path.empty()) {
                    fault = "The seam cannot pass there: it must keep between " + mm_text(strip.lo, 0) + " and " + mm_text(strip.hi, 0) +
                            " mm from the " + (upright ? "left" : "top") +
                            " so that every piece fits, and its points must not ask for a turn sharper than 45°.";
                    sound = false;
                    break;
                }
                Seam seam;
                seam.upright = upright;
                for (std::size_t k = 0; k < path.size(); ++k) {
                    const double along = (static_cast<double>(k) + 0.5) * mm, across = (path[k] + 0.5) * mm;
                    seam.line.push_back(upright ? Point{across, along} : Point{along, across});
                }
                seam.line = simplified_line(seam.line, 0.15);
                seam.ink = static_cast<double>(path_ink(alpha, upright, path)) / 255 * mm;
                seam.straight = static_cast<double>(straight_ink(alpha, upright, lo, hi)) / 255 * mm;
                plan.ink_cut += seam.ink;
                plan.seams.push_back(std::move(seam));
            }
        }
        if (sound && (!best || plan.ink_cut < best->ink_cut - 1e-9)) best = std::move(plan);
    }
    if (!best) return Error{fault};

    const Rect ink{0, 0, width, height};
    const Rect all = ink.grown(far_out);
    const auto seam = [&](bool upright, int i) -> const Seam* {
        const int n = upright ? best->columns : best->rows;
        if (i < 0 || i + 1 >= n) return nullptr;
        return &best->seams[static_cast<std::size_t>(upright ? i : best->columns - 1 + i)];
    };
    for (int row = 0; row < best->rows; ++row)
        for (int column = 0; column < best->columns; ++column) {
            SplitPart part;
            part.own = intersect(between(seam(true, column - 1), seam(true, column), all, true),
                                 between(seam(false, row - 1), seam(false, row), all, false));
            part.reach = part.own;
            best->parts.push_back(std::move(part));
        }
    if (lap > 0)
        for (std::size_t i = 0; i < best->parts.size(); ++i) {
            const Region grown = offset(best->parts[i].own, lap, 0.05);
            for (std::size_t later = i + 1; later < best->parts.size(); ++later)
                best->parts[i].reach = unite(best->parts[i].reach, intersect(grown, best->parts[later].own));
        }
    count_heat(*best, rule, ink);
    return std::move(*best);
}

}  // namespace orthema
