#include "core/nesting/patterned.h"

#include <algorithm>

#include "core/nesting/pattern.h"

namespace orthema {

namespace {

constexpr double hair = 0.004;  ///< mm beyond the gap: outlines are grown by arcs

/// Where the next rows begin.
struct Front {
    int bin = 0;
    double x = 0;
};

/// The copies from `from` to `to`, all of one piece, in its rows into `out`; the first that is left. None where the rows fill less than
/// `than`.
std::size_t lay_rows(const NestProblem& problem, const Pattern& pattern, const std::vector<Copy>& order, std::size_t from, std::size_t to,
                     double than, Front& front, std::vector<NestPlacement>& out) {
    const NestPiece& piece = problem.pieces[static_cast<std::size_t>(order[from].piece)];
    const double width = problem.width - 2 * problem.margin, length = problem.max_length - 2 * problem.margin;
    std::size_t next = from;
    while (next < to) {
        const PatternPlaces found = pattern_places(pattern, piece, static_cast<int>(to - next), width, length - front.x);
        if (found.places.empty() && front.x == 0) break;
        if (next == from && area(piece.outline) * static_cast<double>(found.places.size()) < than * width * found.length) break;
        for (const PatternMember& m : found.places) {
            out.push_back(
                {order[next].piece, order[next].copy, front.bin, m.turn, problem.margin + front.x + m.x, problem.margin + m.y, false});
            ++next;
        }
        front.x += found.length + problem.gap;
        if (next < to) front = {front.bin + 1, 0};
    }
    return next;
}

}  // namespace

bool can_pattern(const NestProblem& problem) {
    return problem.locked.empty() && problem.blocked.empty() && problem.seams.empty() &&
           std::any_of(problem.pieces.begin(), problem.pieces.end(), [](const NestPiece& p) { return p.count >= least_patterned; });
}

std::vector<NestPlacement> patterned(const NestProblem& problem, const std::vector<Copy>& order, double than, double cell,
                                     const std::function<bool()>& enough, const Task& task) {
    NestProblem with_rows = problem;
    std::vector<Copy> rest;
    Front front;
    for (std::size_t from = 0, to = 0; from < order.size(); from = to) {
        for (to = from; to < order.size() && order[to].piece == order[from].piece;) ++to;
        if (task.stopped()) return {};
        std::size_t next = from;
        if (to - from >= static_cast<std::size_t>(least_patterned) && !enough())
            if (const auto pattern = best_pattern(problem.pieces[static_cast<std::size_t>(order[from].piece)], problem.gap,
                                                  problem.width - 2 * problem.margin, hair))
                next = lay_rows(problem, *pattern, order, from, to, than, front, with_rows.locked);
        rest.insert(rest.end(), order.begin() + static_cast<std::ptrdiff_t>(next), order.begin() + static_cast<std::ptrdiff_t>(to));
    }
    if (with_rows.locked.empty()) return {};
    return GridPacker(with_rows, cell).pack(rest, task);
}

}  // namespace orthema
