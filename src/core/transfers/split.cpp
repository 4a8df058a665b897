#include "core/transfers/split.h"

#include <algorithm>
#include <cmath>
#include <limits>

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

/// The pixels [lo, hi) that a seam may run in.
struct Strip {
    int lo = 0, hi = 0;
};

/// The parallel seams that cut a design `whole` pixels wide into `n` parts of at most `most`. The least n that will do:
/// then no two seams can meet, since each has less than a part's width to move in.
struct Comb {
    int n = 1, whole = 0, most = 0;
    [[nodiscard]] int first(int i) const { return std::max(0, whole - (n - 1 - i) * most); }  ///< that seam i may touch
    [[nodiscard]] int last(int i) const { return std::min(whole, (i + 1) * most) - 1; }
    /// A strip that begins there ends where the part after it has its full width.
    [[nodiscard]] int end_after(int lo_before) const { return std::min(whole, lo_before + most + 1); }
    [[nodiscard]] std::vector<Strip> equal() const {
        std::vector<Strip> strips;
        const double room = std::min((static_cast<double>(n) * most - whole) / (n - 1), static_cast<double>(most));
        for (int i = 0; i + 1 < n; ++i) {
            const double lo = std::max(0.0, (i + 1) * (most - room));
            const int from = std::clamp(static_cast<int>(std::ceil(lo - 1e-9)), 0, whole - 1);
            strips.push_back({from, std::clamp(static_cast<int>(std::floor(lo + room + 1e-9)), from + 1, whole)});
        }
        return strips;
    }
};

constexpr int coarse_side = 300;     ///< pixels of the picture on which strips are chosen
constexpr int most_beginnings = 64;  ///< of a strip that are tried

/// Mean alpha of blocks of `by` × `by` pixels; what is left over at the edges counts with the last block.
AlphaMap coarser(const AlphaMap& alpha, int by) {
    AlphaMap out{std::max(1, alpha.width / by), std::max(1, alpha.height / by), {}};
    out.ink.reserve(static_cast<std::size_t>(out.width) * static_cast<std::size_t>(out.height));
    for (int y = 0; y < out.height; ++y)
        for (int x = 0; x < out.width; ++x) {
            long sum = 0;
            for (int j = 0; j < by; ++j)
                for (int i = 0; i < by; ++i) sum += alpha.at(std::min(x * by + i, alpha.width - 1), std::min(y * by + j, alpha.height - 1));
            out.ink.push_back(static_cast<std::uint8_t>(sum / (by * by)));
        }
    return out;
}

/// The strips whose seams together cut least ink: a wider strip for one leaves less for the next. Exact for pictures
/// that need no coarsening and strips with no more beginnings than are tried. Method: dynamic programming over where
/// each strip begins.
std::vector<Strip> least_ink_strips(const AlphaMap& full, bool upright, const Comb& comb,
                                    const std::vector<std::vector<Through>>& through) {
    const int by = std::max(1, (std::max(full.width, full.height) + coarse_side - 1) / coarse_side);
    const AlphaMap small = by > 1 ? coarser(full, by) : AlphaMap{};
    const AlphaMap& alpha = by > 1 ? small : full;
    const int across = upright ? alpha.width : alpha.height, along = upright ? alpha.height : alpha.width;
    constexpr long far = std::numeric_limits<long>::max() / 4;
    const auto ink = [&](int seam, Strip s) {
        const int lo = std::clamp(s.lo / by, 0, across - 1), hi = std::clamp(s.hi / by, lo + 1, across);
        std::vector<Through> points = through[static_cast<std::size_t>(seam)];
        for (Through& t : points) t = {std::min(t.along / by, along - 1), std::min(t.across / by, across - 1)};
        const auto path = least_ink_path(alpha, upright, lo, hi, points);
        return path.empty() ? far : path_ink(alpha, upright, path);
    };
    struct Begin {
        int lo = 0, hi = 0;
        long cost = 0;
        int before = -1;
    };
    std::vector<std::vector<Begin>> seams;
    for (int i = 0; i + 1 < comb.n; ++i) {
        std::vector<Begin> begins;
        const int a = comb.first(i), b = std::max(a, comb.last(i));
        // the last seam has nobody after it to leave room for
        const int count = i + 2 == comb.n ? 1 : std::min(b - a + 1, most_beginnings);
        for (int k = 0; k < count; ++k) {
            Begin begin{a + (count > 1 ? static_cast<int>(static_cast<long>(b - a) * k / (count - 1)) : 0), 0, far, -1};
            const auto take = [&](int hi, long so_far, int before) {
                if (begin.lo >= hi || so_far >= far) return;
                const long cost = so_far + ink(i, {begin.lo, hi});
                if (cost < begin.cost) begin = {begin.lo, hi, cost, before};
            };
            if (i == 0)
                take(std::min(comb.whole, comb.most), 0, -1);
            else
                for (std::size_t p = 0; p < seams.back().size(); ++p)
                    take(comb.end_after(seams.back()[p].lo), seams.back()[p].cost, static_cast<int>(p));
            begins.push_back(begin);
        }
        seams.push_back(std::move(begins));
    }
    const auto last =
        std::min_element(seams.back().begin(), seams.back().end(), [](const Begin& a, const Begin& b) { return a.cost < b.cost; });
    if (last->cost >= far) return {};
    std::vector<Strip> strips(seams.size());
    int at = static_cast<int>(last - seams.back().begin());
    for (std::size_t i = seams.size(); i-- > 0;) {
        const Begin& begin = seams[i][static_cast<std::size_t>(at)];
        strips[i] = {begin.lo, begin.hi};
        at = begin.before;
    }
    return strips;
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

/// The points of each seam, in pixels.
std::vector<std::vector<Through>> points_of(const SplitRule& rule, const AlphaMap& alpha, bool upright, int n) {
    std::vector<std::vector<Through>> out(static_cast<std::size_t>(n - 1));
    for (const SeamPoint& p : rule.points) {
        if (p.upright != upright || p.seam < 0 || p.seam + 1 >= n) continue;
        const double along = (upright ? p.at.y : p.at.x) * alpha.width, across = (upright ? p.at.x : p.at.y) * alpha.width;
        const int last = (upright ? alpha.height : alpha.width) - 1;  // a seam taken by its end may be let go past it
        out[static_cast<std::size_t>(p.seam)].push_back({std::clamp(static_cast<int>(along), 0, last), static_cast<int>(across)});
    }
    return out;
}

struct Seams {
    std::vector<std::vector<int>> paths;
    std::vector<Strip> strips;
    int fault = 0;  ///< the seam that there is no path for
    explicit operator bool() const { return !paths.empty(); }
};

/// Least ink over the jointly chosen strips and over equal ones: the choice is made on a coarser picture.
Seams best_seams(const AlphaMap& alpha, bool upright, const Comb& comb, const std::vector<std::vector<Through>>& through) {
    Seams best;
    long least = 0;
    std::vector<std::vector<Strip>> ways = {comb.equal()};
    if (comb.n > 2) ways.push_back(least_ink_strips(alpha, upright, comb, through));
    for (const auto& strips : ways) {
        Seams seams{{}, strips, 0};
        long ink = 0;
        for (std::size_t i = 0; i < strips.size(); ++i) {
            auto path = least_ink_path(alpha, upright, strips[i].lo, strips[i].hi, through[i]);
            if (path.empty()) {
                best.fault = static_cast<int>(i);
                break;
            }
            ink += path_ink(alpha, upright, path);
            seams.paths.push_back(std::move(path));
        }
        const bool whole = !strips.empty() && seams.paths.size() == strips.size();
        if (whole && (best.paths.empty() || ink < least)) {
            best = std::move(seams);
            least = ink;
        }
    }
    return best;
}

constexpr double far_away = 60;  ///< shares of the plane reach this far past the ink box, mm

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
    Error fault{""};
    for (const Grid& g : grids) {
        if (g.columns * g.rows != fewest) continue;
        SplitPlan plan;
        plan.columns = g.columns;
        plan.rows = g.rows;
        bool sound = true;
        for (const bool upright : {true, false}) {
            const Comb comb{upright ? g.columns : g.rows, upright ? alpha.width : alpha.height,
                            static_cast<int>(std::floor((upright ? g.width : g.height) / mm + 1e-9))};
            if (comb.n < 2 || !sound) continue;
            auto seams = best_seams(alpha, upright, comb, points_of(rule, alpha, upright, comb.n));
            if (!seams) {
                fault = Words{"seam-cannot",
                              {{"first", Length::from_mm(comb.first(seams.fault) * mm)},
                               {"last", Length::from_mm((comb.last(seams.fault) + 1) * mm)},
                               {"edge", upright ? "left" : "top"}}};
                sound = false;
                break;
            }
            for (std::size_t i = 0; i < seams.paths.size(); ++i) {
                Seam seam;
                seam.upright = upright;
                for (std::size_t k = 0; k < seams.paths[i].size(); ++k) {
                    const double along = (static_cast<double>(k) + 0.5) * mm, across = (seams.paths[i][k] + 0.5) * mm;
                    seam.line.push_back(upright ? Point{across, along} : Point{along, across});
                }
                seam.line = simplified_line(seam.line, 0.15);
                seam.ink = static_cast<double>(path_ink(alpha, upright, seams.paths[i])) / 255 * mm;
                seam.straight = static_cast<double>(straight_ink(alpha, upright, seams.strips[i].lo, seams.strips[i].hi)) / 255 * mm;
                plan.ink_cut += seam.ink;
                plan.seams.push_back(std::move(seam));
            }
        }
        if (sound && (!best || plan.ink_cut < best->ink_cut - 1e-9)) best = std::move(plan);
    }
    if (!best) return fault;

    const Rect ink{0, 0, width, height};
    const Rect all = ink.grown(far_away);
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
            // Past its own right and lower edges alone: where seams cross, a lap to the left or upwards would be over the
            // limit, and the neighbours' own laps lie there.
            const Rect box = bounds(intersect(best->parts[i].own, box_region(ink)));
            const Rect onwards{static_cast<int>(i) % best->columns == 0 ? all.x0 : box.x0,
                               static_cast<int>(i) < best->columns ? all.y0 : box.y0, all.x1, all.y1};
            const Region grown = intersect(offset(best->parts[i].own, lap, 0.05), box_region(onwards));
            for (std::size_t later = i + 1; later < best->parts.size(); ++later)
                best->parts[i].reach = unite(best->parts[i].reach, intersect(grown, best->parts[later].own));
        }
    count_heat(*best, rule, ink);
    return std::move(*best);
}

}  // namespace orthema
