#include "vision/panel_fit.h"

#include <Eigen/Cholesky>
#include <algorithm>
#include <array>
#include <cmath>
#include <set>

#include "vision/doubt.h"

namespace orthema::vision {

namespace {

/// How far from `on` along `normal` the nearest crossing with the lines lies; nothing within reach.
std::optional<double> crossing(const std::vector<Ring>& lines, bool closed, Point on, Point normal, double reach) {
    std::optional<double> best;
    for (const Ring& line : lines) {
        const std::size_t n = line.size();
        for (std::size_t i = 0; i + (closed ? 0 : 1) < n; ++i) {
            const Point a = line[i] - on, b = line[i + 1 < n ? i + 1 : 0] - on;
            const double ca = cross(normal, a), cb = cross(normal, b);
            if ((ca > 0) == (cb > 0)) continue;
            const double t = ca / (ca - cb), s = dot(normal, a) + t * (dot(normal, b) - dot(normal, a));
            if (std::abs(s) <= reach && (!best || std::abs(s) < std::abs(*best))) best = s;
        }
    }
    return best;
}

/// Tapes of a panel by measure, on whatever face they are taken.
std::map<Measure, TapeLine> tapes_of(const BlankAsked& asked, const PanelGuess& g) {
    std::map<Measure, TapeLine> out;
    const auto add = [&](const Panel& p) {
        for (const TapeLine& t : p.tapes) out.emplace(t.measure, t);
    };
    add(lying_panel(asked.family, g.measures, asked.face, asked.other_side, g.lying));
    if (family_build(asked.family) == Build::upper_body) add(lying_panel(asked.family, g.measures, Face::back, asked.other_side, g.lying));
    return out;
}

struct Drawn {
    Eigen::VectorXd step;
    Eigen::MatrixXd covariance;
    std::vector<double> off;  ///< of each edge afterwards, mm
};

/// The figures' step that brings the outline to the edges: robust linear least squares on how far each of its points moves outwards with
/// each figure, which is measured on panels made with a little more and a little less.
Drawn draw_nearer(const Shape& shape, const Eigen::VectorXd& v, const std::vector<Seen>& seen, double reach) {
    const long n = static_cast<long>(seen.size()), m = shape.count();
    Eigen::MatrixXd moves = Eigen::MatrixXd::Zero(n, m);
    const PanelGuess now = shape.at(v);
    for (long k = 0; k < m; ++k) {
        const double h = k >= 3 && k < shape.first_measure() ? 0.015 : 0.05;  // a long sleeve swings far
        std::array<Lines, 2> lines;
        std::array<PanelGuess, 2> guesses;
        for (const std::size_t side : {0u, 1u}) {
            Eigen::VectorXd w = v;
            w[k] += side == 0 ? -h : h;
            guesses[side] = shape.at(w);
            if (k >= 3) lines[side] = shape.lines(guesses[side]);
        }
        for (long i = 0; i < n; ++i) {
            const Seen& s = seen[static_cast<std::size_t>(i)];
            if (k < 3) {  // the panel as it is, elsewhere
                const auto there = [&](const PanelGuess& g) { return turned(g.at + turned(s.near, g.angle) - now.at, -now.angle); };
                moves(i, k) = dot(there(guesses[1]) - there(guesses[0]), s.normal) / (2 * h);
                continue;
            }
            std::array<std::optional<double>, 2> at;
            for (const std::size_t side : {0u, 1u}) {
                const auto inner = static_cast<std::size_t>(std::max(0, s.inner));
                if (s.inner >= 0 && inner >= lines[side].inner.size()) continue;
                at[side] = s.inner < 0 ? crossing(lines[side].outline, true, s.near, s.normal, 12)
                                       : crossing({lines[side].inner[inner]}, false, s.near, s.normal, 12);
            }
            if (at[0] && at[1] && std::abs(*at[1] - *at[0]) < 8) moves(i, k) = (*at[1] - *at[0]) / (2 * h);
        }
    }
    Eigen::VectorXd weight = Eigen::VectorXd::Ones(n), want(n);
    for (long i = 0; i < n; ++i) want[i] = seen[static_cast<std::size_t>(i)].off;
    Drawn out;
    Eigen::MatrixXd normal;
    Eigen::VectorXd left;
    for (int pass = 0; pass < 8; ++pass) {
        normal = Eigen::MatrixXd::Zero(m, m);
        Eigen::VectorXd right = Eigen::VectorXd::Zero(m);
        for (long i = 0; i < n; ++i) {
            const double w = weight[i] / (edge_mm * edge_mm) * (seen[static_cast<std::size_t>(i)].by_hand ? 30 : 1);
            normal += w * moves.row(i).transpose() * moves.row(i);
            right += w * want[i] * moves.row(i).transpose();
        }
        for (long k = 3; k < m; ++k) {  // the chart, and how sleeves are drawn: weakly
            const double w = k < shape.first_measure() ? 0.1 : 1;
            normal(k, k) += w;
            right[k] -= w * v[k];
        }
        out.step = normal.ldlt().solve(right);
        left = want - moves * out.step;
        std::vector<double> sizes;
        for (long i = 0; i < n; ++i) sizes.push_back(std::abs(left[i]));
        std::nth_element(sizes.begin(), sizes.begin() + static_cast<long>(sizes.size() / 2), sizes.end());
        const double scale = std::clamp(2.2 * 1.4826 * sizes[sizes.size() / 2], 1.0, std::max(1.0, reach));
        for (long i = 0; i < n; ++i) {
            const double u = left[i] / scale;
            weight[i] = seen[static_cast<std::size_t>(i)].by_hand ? 1 : 1 / std::pow(1 + u * u / 4, 2);
        }
    }
    out.covariance = normal.ldlt().solve(Eigen::MatrixXd::Identity(m, m));
    out.off.assign(left.data(), left.data() + n);
    return out;
}

/// Leaves out lines within the outline that are not seen for most of their length, or not where one line of the family's shape could run.
void keep_sound(std::vector<bool>& with, std::size_t stitched, const std::vector<int>& asked, const std::vector<Seen>& seen,
                const std::vector<double>& off, double near) {
    for (std::size_t k = 0; k < with.size() && k < asked.size(); ++k) {
        int found = 0, fit = 0;
        for (std::size_t i = 0; i < seen.size(); ++i)
            if (seen[i].inner == static_cast<int>(k)) {
                ++found;
                if (std::abs(off[i]) < near) ++fit;
            }
        if (found < 0.6 * asked[k] || fit < 0.8 * found) with[k] = false;
    }
    // of a pair that mirror each other neither is believed alone
    for (std::size_t k = stitched; k + 1 < with.size(); k += 2) with[k] = with[k + 1] = with[k] && with[k + 1];
}

/// A point that somebody put on the outline, in the panel's frame, as an edge.
std::optional<Seen> hand_point(const Lines& lines, Point on) {
    std::optional<Seen> out;
    double least = 60;
    for (const Ring& r : lines.outline)
        for (std::size_t k = 0; k < r.size(); ++k) {
            const Point a = r[k], d = r[(k + 1) % r.size()] - a;
            const double length = norm(d);
            if (length < 1e-9) continue;
            const Point near = nearest_on(on, a, a + d);
            if (norm(on - near) >= least) continue;
            least = norm(on - near);
            const Point normal = Point{d.y, -d.x} * ((signed_area(r) > 0 ? 1 : -1) / length);
            out = Seen{near, normal, dot(on - near, normal), -1, true};
        }
    return out;
}

/// What of the cells' rim lies well off the outline as found (pixels).
struct RimOff {
    double beyond = 0, within = 0;  ///< shares of it: beyond the outline, and within, where cloth may be like the table
    double astray = 0;              ///< mm of it farther beyond than a garment's shadow falls
};
RimOff beside(const Silhouette& cells, const std::vector<Ring>& outline, const TableSeen& table, double height) {
    std::vector<Ring> rings;
    for (const Ring& r : outline) {
        rings.emplace_back();
        for (const Point& p : r) rings.back().push_back(on_table(table.camera, p, height));
    }
    const auto is = [&](int x, int y) {
        return x >= 0 && y >= 0 && x < cells.width && y < cells.height && cells.cells[cells.index(x, y)] != 0;
    };
    constexpr double shadow_mm = 25;
    const double far = std::max(7.0, 2.2 * cells.cell);
    int rim = 0;
    RimOff off;
    for (int y = 0; y < cells.height; ++y)
        for (int x = 0; x < cells.width; ++x) {
            if (!is(x, y) || (is(x - 1, y) && is(x + 1, y) && is(x, y - 1) && is(x, y + 1))) continue;
            ++rim;
            const Point p{cells.area.x0 + (x + 0.5) * cells.cell, cells.area.y0 + (y + 0.5) * cells.cell};
            double least = 1e9;
            bool in = false;  // even-odd
            for (const Ring& r : rings)
                for (std::size_t k = 0; k < r.size(); ++k) {
                    const Point a = r[k], b = r[(k + 1) % r.size()];
                    least = std::min(least, norm(p - nearest_on(p, a, b)));
                    if ((a.y > p.y) != (b.y > p.y) && p.x < (b.x - a.x) * (p.y - a.y) / (b.y - a.y) + a.x) in = !in;
                }
            if (least > far) ++(in ? off.within : off.beyond);
            if (!in && least > shadow_mm) off.astray += cells.cell;
        }
    off.beyond /= std::max(1, rim);
    off.within /= std::max(1, rim);
    return off;
}

/// As fine_fit(), with some measures held; `odd`: those that came out as no piece of that kind is cut.
Result<BlankSeen> fit_with(const Photo& photo, const TableSeen& table, const Silhouette& cells, const BlankAsked& asked,
                           const PanelGuess& guess, double wide, const std::set<Measure>& held, std::set<Measure>& odd, const Task& task) {
    const Rect box = bounds(lying_panel(asked.family, guess.measures, asked.face, asked.other_side, guess.lying).outline);
    const double size = std::sqrt(box.width() * box.height());
    const double far = std::clamp(0.05 * size, 4.0, 28.0), close = std::max(2.5, 0.12 * far);
    const Shape shape(asked, guess, held);
    Eigen::VectorXd v = shape.start();
    std::vector<Seen> seen;
    Drawn drawn;
    std::vector<double> off;
    int wanted = 0;
    // the outline first, then what lies within it, then only those lines within that agree with themselves
    std::vector<bool> with;
    std::size_t stitched_from = 0;
    int round = 0;
    for (const double reach :
         {wide * far, (1 + wide) / 2 * far, far, 0.6 * far, 0.4 * far, 0.4 * far, std::max(close, 0.25 * far), close, close, close}) {
        ++round;
        if (task.stopped()) return Error{"Stopped."};
        const PanelGuess now = shape.at(v);
        const Lines lines = shape.lines(now);
        stitched_from = lines.stitched;
        if (round == 5) with.assign(lines.inner.size(), true);
        EdgesSeen edges = edges_near(photo, table, cells, asked, now, lines, with, reach);
        seen = std::move(edges.seen);
        wanted = edges.asked;
        const auto rim = static_cast<double>(std::count_if(seen.begin(), seen.end(), [](const Seen& s) { return s.inner < 0; }));
        if (rim < 24 || rim < 0.5 * wanted)
            return Error{
                "The blank's edges are not seen well enough against the table: lay it on a table of another colour, in even light."};
        for (const Point& p : asked.on_outline) {  // by hand: firm, and what was seen beside it was wrong
            const Point on = turned(on_table(table.camera, p, asked.thickness) - now.at, -now.angle);
            const auto firm = hand_point(lines, on);
            if (!firm) continue;
            std::erase_if(seen, [&](const Seen& s) { return !s.by_hand && s.inner < 0 && norm(s.near - firm->near) < 0.08 * size; });
            seen.push_back(*firm);
        }
        drawn = draw_nearer(shape, v, seen, reach);
        v += drawn.step;
        off = drawn.off;
        if (round >= 7) keep_sound(with, lines.stitched, edges.asked_within, seen, off, std::max(0.7, 0.0015 * size));
    }
    // stitched lines are believed where the outline alone does not say otherwise: a crease beside a seam looks like one
    std::vector<Seen> plain_seen = seen;
    std::erase_if(plain_seen, [&](const Seen& s) { return s.inner >= 0 && static_cast<std::size_t>(s.inner) >= stitched_from; });
    if (plain_seen.size() < seen.size()) {
        Drawn plain = draw_nearer(shape, v, plain_seen, close);
        const double worth = agreement(plain_seen, plain.off);
        for (long k = shape.first_measure(); k < shape.count(); ++k)
            if (std::abs(plain.step[k]) > 3 * std::sqrt(plain.covariance(k, k) * worth)) {
                v += plain.step;
                off = plain.off;
                seen = plain_seen;
                drawn = std::move(plain);
                break;
            }
    }
    const PanelGuess g = shape.at(v);
    BlankSeen out;
    out.at = g.at;
    out.angle = g.angle;
    out.lying = g.lying;
    std::vector<double> sizes;
    for (std::size_t i = 0; i < seen.size(); ++i)
        if (seen[i].inner < 0 && !seen[i].by_hand) sizes.push_back(std::abs(off[i]));
    std::sort(sizes.begin(), sizes.end());
    double square = 0;  // of the nine tenths that are not far out
    const std::size_t most = sizes.size() * 9 / 10;
    for (std::size_t i = 0; i < most; ++i) square += sizes[i] * sizes[i];
    out.residual_mm = std::sqrt(square / static_cast<double>(std::max<std::size_t>(1, most))) * 1.2;
    out.seen = static_cast<double>(sizes.size()) / std::max(1, wanted);
    for (const Ring& ring : shape.lines(g).outline) {
        out.outline.emplace_back();
        for (const Point& p : ring) out.outline.back().push_back(seen_at(table.camera, g.at + turned(p, g.angle), asked.thickness));
    }
    // as no piece of that kind is cut: the outline has found something else
    const Measure main = main_measure(asked.family);
    const double factor = measure_mm(g.measures, main) / std::max(1.0, measure_mm(asked.expected, main));
    odd.clear();
    for (const Measure m : shape.measures()) {
        const double likely = factor * measure_mm(asked.expected, m);
        if (std::abs(measure_mm(g.measures, m) - likely) > 4 * usual_doubt(likely)) odd.insert(m);
    }
    const RimOff rim = beside(cells, out.outline, table, asked.thickness);
    // cloth nearly of the table's colour has a rim of its own within the outline, and a shadow one beyond it: edges that are seen all
    // round and lie right say more
    const bool sound = out.seen > 0.95 && out.residual_mm < 0.45;
    constexpr double usual_shadows = 0.13;
    const double most_beyond = out.seen < 0.85 ? 0.03
                               : sound         ? 0.3
                                               : usual_shadows,
                 most_off = out.seen > 0.9 && out.residual_mm < 0.4 ? 0.3 : most_beyond;
    // a sleeve that was ended at its cuff's seam leaves the cuff out, which is far and little; a table that looks like cloth is much
    const bool cut_short = rim.astray > 40 && rim.beyond < usual_shadows;
    const bool elsewhere = asked.on_outline.empty() && (rim.beyond > most_beyond || rim.beyond + rim.within > most_off || cut_short);
    if (!odd.empty() || elsewhere || out.residual_mm > std::max(2.5, 0.012 * size)) {
        out.refused = "The outline does not lie on this blank: smooth it, choose its kind and size, or drag the outline to where it runs.";
        return out;
    }
    const double looks = is_hard(asked.family) ? hard_looks_mm : looks_mm;
    const double grown = agreement(seen, off) * std::max(0.15, out.residual_mm * out.residual_mm / (edge_mm * edge_mm));
    const std::map<Measure, TapeLine> tapes = tapes_of(asked, g);
    for (std::size_t k = 0; k < shape.measures().size(); ++k) {
        const Measure m = shape.measures()[k];
        const auto tape = tapes.find(m);
        if (tape == tapes.end()) continue;
        const long at = shape.first_measure() + static_cast<long>(k);
        const double spread = shape.unit_of(k);  // of the search
        const double own = drawn.covariance(at, at);
        if (own > 0.25) continue;  // the picture says little of it
        const Point a = g.at + turned(tape->second.from, g.angle), b = g.at + turned(tape->second.to, g.angle);
        const double mm = measure_mm(g.measures, m);
        const double cloth = mm * 0.5 / std::max(100.0, std::abs(table.camera.move[2]));  // half a millimetre nearer or farther
        const double variance = own * spread * spread * grown +
                                camera_variance(table, {a, asked.thickness}, {b, asked.thickness}) * std::pow(tape->second.share, -2) +
                                cloth * cloth + looks * looks;
        const double error = 1.96 * std::sqrt(variance);
        if (error > std::max(4.0, 0.01 * mm)) continue;  // a tape does better
        out.figures[m] = {mm, error, seen_at(table.camera, a, asked.thickness), seen_at(table.camera, b, asked.thickness)};
    }
    if (out.figures.empty()) return Error{"The picture says too little of this blank's figures: go nearer, in even light."};
    return out;
}

}  // namespace

Result<BlankSeen> fine_fit(const Photo& photo, const TableSeen& table, const Silhouette& cells, const BlankAsked& asked,
                           const PanelGuess& guess, double wide, const Task& task) {
    std::set<Measure> odd, still;
    auto out = fit_with(photo, table, cells, asked, guess, wide, {}, odd, task);
    // one line has taken another's edge (a back neck the front collar's, where the cloth within is like the table): without it
    if (!out || out->refused.empty() || odd.empty() || odd.size() > 2 || odd.contains(main_measure(asked.family))) return out;
    auto without = fit_with(photo, table, cells, asked, guess, wide, odd, still, task);
    return without && without->refused.empty() ? without : out;
}

}  // namespace orthema::vision
