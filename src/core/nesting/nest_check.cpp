// What a layout is: where pieces lie, whether they may lie so, and how much it uses.
#include <algorithm>
#include <cmath>
#include <map>

#include "core/nesting/exact.h"
#include "core/nesting/nest.h"

namespace orthema {

Polygon placed_outline(const NestProblem& problem, const NestPlacement& p) {
    return mapped(problem.pieces[static_cast<std::size_t>(p.piece)].outline, Affine::shift(p.x, p.y).after(Affine::turn(p.rotation)));
}

bool too_close(const Polygon& a, const Polygon& b, double gap, double tolerance) {
    if (!bounds(a.outer).grown(gap).meets(bounds(b.outer))) return false;
    if (tolerance <= 0) return !exactly_apart(on_grid(a), on_grid(b), std::llround(gap * grid_per_mm));
    if (gap > 0) return nearer_than(a, b, gap - tolerance);
    // At gap 0 pieces may touch: only a common area that survives shaving the tolerance off counts.
    return area(intersect(offset({a}, -tolerance), offset({b}, -tolerance))) > 0;
}

std::vector<std::string> nest_faults(const NestProblem& problem, const std::vector<NestPlacement>& placements, double tolerance,
                                     bool whole) {
    const double slack = std::max(tolerance, 0.5 / grid_per_mm);
    std::vector<std::string> faults;
    std::map<std::pair<int, int>, int> seen;
    struct Lying {
        Polygon outline;
        GridShape grid;  ///< where the answer is to be exact
        Rect box;
        int bin;
        std::string name;
    };
    std::vector<Lying> all;
    for (const NestPlacement& p : placements) {
        if (p.piece < 0 || p.piece >= static_cast<int>(problem.pieces.size())) {
            faults.emplace_back("a placement names a piece that is not there");
            continue;
        }
        const NestPiece& piece = problem.pieces[static_cast<std::size_t>(p.piece)];
        const std::string name = piece.id + " (" + std::to_string(p.copy + 1) + ")";
        if (++seen[{p.piece, p.copy}] > 1) faults.push_back(name + " is placed twice");
        const bool allowed = std::any_of(piece.rotations.begin(), piece.rotations.end(),
                                         [&](double r) { return std::abs(std::remainder(r - p.rotation, 360.0)) < 1e-9; });
        if (!allowed) faults.push_back(name + " is turned by an angle it may not have");
        Lying lying{placed_outline(problem, p), {}, {}, p.bin, name};
        if (tolerance <= 0) lying.grid = on_grid(lying.outline);
        lying.box = bounds(lying.outline.outer);
        if (lying.box.x0 < problem.margin - slack || lying.box.y0 < problem.margin - slack ||
            lying.box.y1 > problem.width - problem.margin + slack || lying.box.x1 > problem.max_length - problem.margin + slack)
            faults.push_back(name + " leaves the medium");
        for (const Polygon* area : kept_off(problem, piece))
            if (too_close(lying.outline, *area, problem.gap, tolerance)) faults.push_back(name + " lies on what is kept free");
        all.push_back(std::move(lying));
    }
    for (std::size_t i = 0; whole && i < problem.pieces.size(); ++i)
        for (int c = 0; c < problem.pieces[i].count; ++c)
            if (!seen.contains({static_cast<int>(i), c}))
                faults.push_back(problem.pieces[i].id + " (" + std::to_string(c + 1) + ") is not placed");
    std::vector<std::size_t> order(all.size());
    for (std::size_t i = 0; i < order.size(); ++i) order[i] = i;
    std::sort(order.begin(), order.end(), [&](auto a, auto b) { return all[a].box.x0 < all[b].box.x0; });
    for (std::size_t i = 0; i < order.size(); ++i)
        for (std::size_t j = i + 1; j < order.size(); ++j) {
            const Lying& a = all[order[i]];
            const Lying& b = all[order[j]];
            if (b.box.x0 > a.box.x1 + problem.gap) break;
            if (a.bin != b.bin) continue;
            if (tolerance <= 0 ? !exactly_apart(a.grid, b.grid, std::llround(problem.gap * grid_per_mm))
                               : too_close(a.outline, b.outline, problem.gap, tolerance))
                faults.push_back(a.name + " and " + b.name + " are nearer than the gap");
        }
    return faults;
}

std::vector<const Polygon*> kept_off(const NestProblem& problem, const NestPiece& piece) {
    std::vector<const Polygon*> out;
    for (const Polygon& area : problem.blocked) out.push_back(&area);
    if (!piece.crosses)
        for (const Polygon& area : problem.seams) out.push_back(&area);
    return out;
}

void measure_solution(const NestProblem& problem, NestSolution& s) {
    std::map<int, double> ends;
    double used = 0;
    for (const NestPlacement& p : s.placements) {
        const Polygon outline = placed_outline(problem, p);
        used += area(outline);
        ends[p.bin] = std::max(ends[p.bin], bounds(outline.outer).x1 + problem.margin);
    }
    s.bins = ends.empty() ? 0 : ends.rbegin()->first + 1;
    s.length = 0;
    double total = 0;
    for (const auto& [bin, end] : ends) {
        s.length = std::max(s.length, end);
        total += end;
        s.last_length = end;
    }
    s.others = total - s.last_length;
    if (s.bins > 1 && std::isfinite(problem.max_length)) total = problem.max_length * (s.bins - 1) + s.last_length;
    s.density = total > 0 ? used / (total * problem.width) : 0;
}

}  // namespace orthema
