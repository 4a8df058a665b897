#include "core/nesting/rect_nest.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <thread>

#include "core/nesting/exact.h"
#include "core/nesting/rect_strip.h"

namespace orthema {

bool all_rectangles(const NestProblem& problem) {
    if (!problem.locked.empty() || !problem.blocked.empty() || !problem.seams.empty()) return false;
    return std::all_of(problem.pieces.begin(), problem.pieces.end(), [](const NestPiece& p) {
        const Rect box = bounds(p.outline.outer);
        const bool upright = std::all_of(p.rotations.begin(), p.rotations.end(), [](double r) { return std::fmod(r, 90) == 0; });
        return upright && p.outline.holes.empty() && p.outline.outer.size() == 4 &&
               std::abs(area(p.outline) - box.width() * box.height()) < 1e-9 * area(p.outline);
    });
}

bool nest_rectangles(const NestProblem& problem, const std::vector<Copy>& copies, const NestOptions& options,
                     const std::function<bool()>& stop, const std::function<void(std::vector<NestPlacement>)>& offer) {
    // on the exact check's grid, rounded up, so that neighbours may touch and never overlap
    const auto up = [](double mm) { return static_cast<std::int64_t>(std::ceil(mm * grid_per_mm - 1e-6)); };
    std::vector<StripRect> rects;
    std::vector<std::array<double, 2>> turns;  // level, and a quarter over
    for (const Copy& c : copies) {
        const NestPiece& p = problem.pieces[static_cast<std::size_t>(c.piece)];
        const Rect box = bounds(p.outline.outer);
        double level = -1, quarter = -1;
        for (const double r : p.rotations) (std::fmod(r, 180) == 0 ? level : quarter) = r;
        StripRect rect{up(box.height() + problem.gap) + 1, up(box.width() + problem.gap) + 1, level >= 0 && quarter >= 0};
        if (level < 0) std::swap(rect.across, rect.along);
        rects.push_back(rect);
        turns.push_back(level < 0 ? std::array{quarter, quarter} : std::array{level, quarter});
    }
    const auto width = static_cast<std::int64_t>((problem.width - 2 * problem.margin + problem.gap) * grid_per_mm + 1e-6);
    if (std::any_of(rects.begin(), rects.end(), [&](const StripRect& r) { return r.across > width && (!r.may_turn || r.along > width); }))
        return false;
    const auto work = [&](unsigned k) {
        const long packings = options.rounds > 0 ? options.rounds * 400L : -1;
        pack_rects(rects, width, options.seed * 31 + k, packings, stop, [&](const StripPacking& packing) {
            std::vector<NestPlacement> placements;
            for (std::size_t i = 0; i < copies.size(); ++i) {
                const StripPlace& at = packing.places[i];
                const double turn = turns[i][at.turned ? 1 : 0];
                const NestPiece& p = problem.pieces[static_cast<std::size_t>(copies[i].piece)];
                const Rect box = bounds(mapped(p.outline.outer, Affine::turn(turn)));
                placements.push_back({copies[i].piece, copies[i].copy, 0, turn,
                                      problem.margin + static_cast<double>(at.x) / grid_per_mm - box.x0,
                                      problem.margin + static_cast<double>(at.y) / grid_per_mm - box.y0, false});
            }
            offer(std::move(placements));
        });
    };
    std::vector<std::thread> threads;
    for (int k = 1; k < options.threads; ++k) threads.emplace_back(work, static_cast<unsigned>(k));
    work(0);
    for (std::thread& t : threads) t.join();
    return true;
}

}  // namespace orthema
