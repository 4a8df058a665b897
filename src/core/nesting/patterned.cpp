#include "core/nesting/patterned.h"

#include <algorithm>
#include <cmath>

#include "core/nesting/pattern.h"

namespace orthema {

namespace {
constexpr double hair = 0.004;  ///< mm beyond the gap: outlines are grown by arcs
}

bool can_pattern(const NestProblem& problem) {
    return problem.locked.empty() && problem.blocked.empty() &&
           std::any_of(problem.pieces.begin(), problem.pieces.end(), [](const NestPiece& p) { return p.count >= least_patterned; });
}

std::vector<NestPlacement> patterned(const NestProblem& problem, const std::vector<Copy>& order, double than, double cell,
                                     const std::function<bool()>& enough, const Task& task) {
    NestProblem with_rows = problem;
    std::vector<Copy> rest;
    const double width = problem.width - 2 * problem.margin, length = problem.max_length - 2 * problem.margin;
    int bin = 0;
    double x = 0;
    for (std::size_t from = 0, to = 0; from < order.size(); from = to) {
        for (to = from; to < order.size() && order[to].piece == order[from].piece;) ++to;
        const NestPiece& piece = problem.pieces[static_cast<std::size_t>(order[from].piece)];
        std::size_t next = from;
        if (task.stopped()) return {};
        if (to - from >= static_cast<std::size_t>(least_patterned) && !enough())
            if (const auto pattern = best_pattern(piece, problem.gap, width, hair))
                while (next < to) {
                    const auto places = pattern_places(*pattern, piece, static_cast<int>(to - next), width, length - x);
                    if (places.empty() && x == 0) break;
                    double end = x;
                    for (const PatternMember& m : places)
                        end = std::max(end, x + m.x + bounds(mapped(piece.outline.outer, Affine::turn(m.turn))).x1);
                    if (next == from && area(piece.outline) * static_cast<double>(places.size()) < than * width * (end - x)) break;
                    for (const PatternMember& m : places) {
                        with_rows.locked.push_back(
                            {order[next].piece, order[next].copy, bin, m.turn, problem.margin + x + m.x, problem.margin + m.y, false});
                        ++next;
                    }
                    x = end + problem.gap;
                    if (next < to) {
                        ++bin;
                        x = 0;
                    }
                }
        rest.insert(rest.end(), order.begin() + static_cast<std::ptrdiff_t>(next), order.begin() + static_cast<std::ptrdiff_t>(to));
    }
    if (with_rows.locked.empty()) return {};
    return GridPacker(with_rows, cell).pack(rest, task);
}

}  // namespace orthema
