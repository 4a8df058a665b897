#include "core/nesting/guillotine.h"

#include <array>
#include <chrono>
#include <cmath>
#include <limits>
#include <mutex>
#include <random>
#include <thread>

#include "core/base/units.h"
#include "core/nesting/exact.h"
#include "core/nesting/slicing.h"
#include "core/nesting/trimmer.h"

namespace orthema {

namespace {

using Clock = std::chrono::steady_clock;
constexpr long steps_a_round = 2000;

/// The largest upright box of the usable area that keeps the gap from everything blocked: it begins and ends along the feed
/// where something blocked does, or the area itself.
Rect largest_free(const NestProblem& p) {
    const double far = std::isfinite(p.max_length) ? p.max_length - p.margin : 1e6;
    const Rect usable{p.margin, p.margin, far, p.width - p.margin};
    std::vector<Rect> blocked;
    const auto add = [&](const Polygon& b) {
        const Rect box = bounds(b.outer).grown(p.gap);
        if (box.meets(usable)) blocked.push_back(box);
    };
    for (const Polygon& b : p.blocked) add(b);
    // one box for all of them: where one has to cross the seams, the box does
    if (std::none_of(p.pieces.begin(), p.pieces.end(), [](const NestPiece& piece) { return piece.crosses && piece.count > 0; }))
        for (const Polygon& b : p.seams) add(b);
    if (blocked.empty()) return usable;
    std::sort(blocked.begin(), blocked.end(), [](const Rect& a, const Rect& b) { return a.y0 < b.y0; });
    std::vector<double> xs{usable.x0, usable.x1};
    for (const Rect& b : blocked) {
        xs.push_back(std::clamp(b.x0, usable.x0, usable.x1));
        xs.push_back(std::clamp(b.x1, usable.x0, usable.x1));
    }
    Rect best{};
    double most = 0;
    for (const double x0 : xs)
        for (const double x1 : xs) {
            if (x1 <= x0) continue;
            double from = usable.y0;  // of the free stretch across, in this part of the feed
            const auto take = [&](double to) {
                if ((x1 - x0) * (to - from) <= most) return;
                most = (x1 - x0) * (to - from);
                best = {x0, from, x1, to};
            };
            for (const Rect& b : blocked) {
                if (b.x0 >= x1 - 1e-9 || b.x1 <= x0 + 1e-9) continue;
                take(std::min(b.y0, usable.y1));
                from = std::max(from, b.y1);
            }
            take(usable.y1);
        }
    return best;
}

struct Free {
    int piece = 0, copy = 0;
    std::array<double, 2> turns{0, 0};  ///< level, and a quarter over
};

}  // namespace

Result<NestSolution> nest_guillotine(const NestProblem& problem, const GuillotineOptions& options, const Task& task,
                                     const std::function<void(const NestSolution&)>& better) {
    const auto begun = Clock::now();
    const auto elapsed = [&] { return std::chrono::duration<double>(Clock::now() - begun).count(); };
    if (!(problem.width > 2 * problem.margin) || !(problem.max_length > 2 * problem.margin) || !(problem.gap >= 0))
        return Error{"The medium's width, margin or gap is not usable: check its figures."};
    const Rect room = largest_free(problem);
    const auto up = [](double mm) { return static_cast<std::int64_t>(std::ceil(mm * grid_per_mm - 1e-6)); };
    const auto width = static_cast<std::int64_t>((room.height() + problem.gap) * grid_per_mm + 1e-6);
    const auto length = static_cast<std::int64_t>((room.width() + problem.gap) * grid_per_mm + 1e-6);
    std::vector<CutBox> boxes;  // with whole sides, gap included
    std::vector<Free> of;       // what each is of
    for (std::size_t i = 0; i < problem.pieces.size(); ++i) {
        const NestPiece& p = problem.pieces[i];
        const Rect box = bounds(p.outline.outer);
        double level = -1, quarter = -1;
        for (const double r : p.rotations) {
            if (std::abs(std::remainder(r, 180)) < 1e-9) {
                if (level < 0) level = r;
            } else if (std::abs(std::remainder(r, 90)) < 1e-9 && quarter < 0) {
                quarter = r;
            }
        }
        if (level < 0 && quarter < 0)
            return Error{"“{piece}” has no turn that a trimmer can part: allow none, or quarters.", {{"piece", p.id}}};
        CutBox cut{up(box.height() + problem.gap) + 1, up(box.width() + problem.gap) + 1, level >= 0 && quarter >= 0};
        if (level < 0) std::swap(cut.across, cut.along);
        const bool fits = (cut.across <= width && cut.along <= length) || (cut.may_turn && cut.along <= width && cut.across <= length);
        if (!fits && p.count > 0) return larger_than_medium(p);
        if (cut.may_turn && (cut.along > width || cut.across > length)) cut.may_turn = false;
        if (cut.across > width || cut.along > length) {
            std::swap(cut.across, cut.along);
            cut.may_turn = false;
            level = quarter;
        }
        for (int c = 0; c < p.count; ++c) {
            boxes.push_back(cut);
            of.push_back({static_cast<int>(i), c, level < 0 ? std::array{quarter, quarter} : std::array{level, quarter}});
        }
    }
    if (boxes.size() > 20000) return Error{"More than 20,000 pieces at once: split the order."};

    const auto solution_of = [&](const SlicingForest& forest) {
        NestSolution s;
        const auto places = forest.places();
        for (std::size_t i = 0; i < places.size(); ++i) {
            const Free& f = of[i];
            const double turn = f.turns[places[i].turned ? 1 : 0];
            const Rect box = bounds(mapped(problem.pieces[static_cast<std::size_t>(f.piece)].outline, Affine::turn(turn)).outer);
            s.placements.push_back({f.piece, f.copy, places[i].bin, turn,
                                    room.x0 + static_cast<double>(places[i].along) / grid_per_mm - box.x0,
                                    room.y0 + static_cast<double>(places[i].across) / grid_per_mm - box.y0, false});
        }
        measure_solution(problem, s);
        s.seconds = elapsed();
        s.rounds = options.nest.rounds;
        return s;
    };
    if (boxes.empty()) return NestSolution{};

    std::mutex guard;
    std::optional<NestSolution> best;
    const auto offer = [&](const SlicingForest& forest) {
        NestSolution s = solution_of(forest);
        const std::scoped_lock lock(guard);
        if (best && (s.bins > best->bins || (s.bins == best->bins && s.last_length >= best->last_length - 1e-9))) return;
        if (best && !nest_faults(problem, s.placements, 0.001).empty()) return;
        best = std::move(s);
        if (better) better(*best);
    };
    const SlicingForest first(boxes, width, length, options.stages);
    offer(first);
    // what lies there already stays while nothing is shorter
    if (problem.start.size() == boxes.size()) {
        NestSolution s;
        s.placements = problem.start;
        measure_solution(problem, s);
        s.seconds = elapsed();
        const bool shorter = s.bins < best->bins || (s.bins == best->bins && s.last_length < best->last_length);
        if (shorter && nest_faults(problem, s.placements, 0).empty() && trimmable(problem, s.placements, options.stages))
            best = std::move(s);
    }
    const auto work = [&](unsigned k) {
        std::mt19937_64 random(options.nest.seed * 7919ULL + k);
        SlicingForest forest = first;
        // one annealing after another, each twice as long, so that little time and much are both used
        const auto n = static_cast<double>(boxes.size());
        const double span = static_cast<double>(std::min<std::int64_t>(first.last_length(), length));
        const double hot = 0.5 * span / n, cold = 1e-4 * hot;
        long left = options.nest.rounds > 0 ? options.nest.rounds * steps_a_round : std::numeric_limits<long>::max();
        for (long cycle = static_cast<long>(1000 * n); left > 0; cycle *= 2) {
            for (long i = 0; i < cycle && left > 0; ++i, --left) {
                const double done = static_cast<double>(i) / static_cast<double>(cycle);
                if (i % 256 == 0) {
                    if (task.stopped() || (options.nest.rounds <= 0 && elapsed() >= options.nest.seconds)) return;
                    if (k == 0 && options.nest.rounds <= 0) task.say(elapsed() / std::max(1e-3, options.nest.seconds), "settling");
                }
                if (forest.step(random, hot * std::pow(cold / hot, done))) offer(forest);
            }
        }
    };
    std::vector<std::thread> threads;
    for (int k = 1; k < options.nest.threads; ++k) threads.emplace_back(work, static_cast<unsigned>(k));
    work(0);
    for (std::thread& t : threads) t.join();
    return *best;
}

}  // namespace orthema
