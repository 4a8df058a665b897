#include "core/nesting/nest.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <map>
#include <mutex>
#include <optional>
#include <random>
#include <set>
#include <thread>

#include "core/base/units.h"
#include "core/nesting/bit_grid.h"

namespace orthema {

Polygon placed_outline(const NestProblem& problem, const NestPlacement& p) {
    return mapped(problem.pieces[static_cast<std::size_t>(p.piece)].outline, Affine::shift(p.x, p.y).after(Affine::turn(p.rotation)));
}

bool too_close(const Polygon& a, const Polygon& b, double gap, double tolerance) {
    if (!bounds(a.outer).grown(gap).meets(bounds(b.outer))) return false;
    if (gap > 0) return nearer_than(a, b, gap - tolerance);
    // At gap 0 pieces may touch: only a common area that survives shaving the tolerance off counts.
    return area(intersect(offset({a}, -tolerance), offset({b}, -tolerance))) > 0;
}

std::vector<std::string> nest_faults(const NestProblem& problem, const std::vector<NestPlacement>& placements, double tolerance) {
    std::vector<std::string> faults;
    std::map<std::pair<int, int>, int> seen;
    struct Lying {
        Polygon outline;
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
        Lying lying{placed_outline(problem, p), {}, p.bin, name};
        lying.box = bounds(lying.outline.outer);
        if (lying.box.x0 < problem.margin - tolerance || lying.box.y0 < problem.margin - tolerance ||
            lying.box.y1 > problem.width - problem.margin + tolerance || lying.box.x1 > problem.max_length - problem.margin + tolerance)
            faults.push_back(name + " leaves the medium");
        for (const Polygon& area : problem.blocked)
            if (too_close(lying.outline, area, problem.gap, tolerance)) faults.push_back(name + " lies on what is kept free");
        all.push_back(std::move(lying));
    }
    for (std::size_t i = 0; i < problem.pieces.size(); ++i)
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
            if (a.bin == b.bin && too_close(a.outline, b.outline, problem.gap, tolerance))
                faults.push_back(a.name + " and " + b.name + " are nearer than the gap");
        }
    return faults;
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
    if (s.bins > 1 && std::isfinite(problem.max_length)) total = problem.max_length * (s.bins - 1) + s.last_length;
    s.density = total > 0 ? used / (total * problem.width) : 0;
}

namespace {

struct Edge {
    Point a, b;  ///< in order across the direction of travel
};

/// Free way of one outline towards another along an axis: the least gap between facing edges, seen level. `sign` is the
/// direction of travel; an edge up to `slack` behind counts as touched. Only what lies in `window`, which the moving
/// outline sweeps, is looked at.
double facing_gap(const Ring& moving, const Ring& still, bool along_x, int sign, double slack, const Rect& window, double best) {
    const auto along = [&](Point p) { return sign * (along_x ? p.x : p.y); };
    const auto across = [&](Point p) { return along_x ? p.y : p.x; };
    const auto edges_of = [&](const Ring& ring) {
        std::vector<Edge> out;
        for (std::size_t i = 0, n = ring.size(); i < n; ++i) {
            Point p = ring[i];
            Point q = ring[(i + 1) % n];
            if (!window.meets({std::min(p.x, q.x), std::min(p.y, q.y), std::max(p.x, q.x), std::max(p.y, q.y)})) continue;
            if (across(p) > across(q)) std::swap(p, q);
            out.push_back({p, q});
        }
        return out;
    };
    const auto ray = [&](const Ring& points, const std::vector<Edge>& edges, double flip) {
        for (const Point& p : points) {
            if (!window.contains(p)) continue;
            const double c = across(p);
            for (const Edge& e : edges) {
                if (c < across(e.a) || c > across(e.b)) continue;
                double reach = 0;
                if (across(e.b) - across(e.a) < 1e-12) {
                    reach = flip > 0 ? std::min(along(e.a), along(e.b)) : std::max(along(e.a), along(e.b));
                } else {
                    reach = along(e.a) + (along(e.b) - along(e.a)) * (c - across(e.a)) / (across(e.b) - across(e.a));
                }
                const double gap = flip * (reach - along(p));
                if (gap > -slack && gap < best) best = std::max(0.0, gap);
            }
        }
    };
    ray(moving, edges_of(still), 1);
    ray(still, edges_of(moving), -1);
    return best;
}

}  // namespace

double slide(const Polygon& moving, const std::vector<const Polygon*>& others, double gap, int dx, int dy, double most) {
    if (most <= 0) return 0;
    const bool along_x = dx != 0;
    const int sign = along_x ? dx : dy;
    const Region grown = gap > 0 ? offset({moving}, gap, 0.03) : Region{moving};
    // The grown outline may dip into a neighbour by its arcs' excess: that still is contact, not a way through.
    const double slack = gap > 0 ? 0.1 : 1e-6;
    double free = most;
    Rect way = bounds(grown);
    (along_x ? (sign < 0 ? way.x0 : way.x1) : (sign < 0 ? way.y0 : way.y1)) += sign * most;
    const Rect window = way.grown(slack);
    for (const Polygon* other : others) {
        const Rect box = bounds(other->outer);
        if (!way.meets(box)) continue;
        // of the sweep, only what passes this neighbour
        const Rect near{std::max(window.x0, box.x0 - (along_x ? most : slack)), std::max(window.y0, box.y0 - (along_x ? slack : most)),
                        std::min(window.x1, box.x1 + (along_x ? most : slack)), std::min(window.y1, box.y1 + (along_x ? slack : most))};
        for (const Polygon& g : grown) {
            const auto against = [&](const Ring& still) {
                free = facing_gap(g.outer, still, along_x, sign, slack, near, free);
                for (const Ring& hole : g.holes) free = facing_gap(hole, still, along_x, sign, slack, near, free);
            };
            against(other->outer);
            for (const Ring& hole : other->holes) against(hole);
        }
    }
    return std::max(0.0, free - 1e-4);
}

namespace {

using Clock = std::chrono::steady_clock;

/// One shape at one turn, with its cells.
struct Turned {
    double rotation = 0;
    Polygon outline;  ///< turned
    CellShape cells;
    double width = 0;
};

struct Copy {
    int piece = 0, copy = 0;
};

class Packer {
public:
    Packer(const NestProblem& problem, double cell) : problem_(problem), cell_(cell) {
        rows_ = static_cast<int>(std::floor((problem.width - 2 * problem.margin + problem.gap) / cell + 1e-9));
        if (std::isfinite(problem.max_length))
            columns_ = static_cast<int>(std::floor((problem.max_length - 2 * problem.margin + problem.gap) / cell + 1e-9));
        for (const NestPiece& piece : problem.pieces) {
            std::vector<Turned> turns;
            for (const double r : piece.rotations) {
                Turned t;
                t.rotation = r;
                t.outline = mapped(piece.outline, Affine::turn(r));
                const Region grown = grow(t.outline);
                const Rect box = bounds(grown);
                t.cells = covered_cells(grown, cell, box.x0, box.y0);
                t.width = box.width();
                if (t.cells.height <= rows_ && (columns_ < 0 || t.cells.width() <= columns_)) turns.push_back(std::move(t));
            }
            turns_.push_back(std::move(turns));
        }
    }

    /// Index of a piece that fits nowhere, or -1.
    [[nodiscard]] int misfit() const {
        for (std::size_t i = 0; i < turns_.size(); ++i)
            if (turns_[i].empty() && problem_.pieces[i].count > 0) return static_cast<int>(i);
        return -1;
    }

    /// First fit in the order given.
    std::vector<NestPlacement> pack(const std::vector<Copy>& order, const Task& task) const {
        std::vector<BitGrid> bins;
        std::vector<NestPlacement> out = problem_.locked;
        const auto stamp = [&](BitGrid& bin, const Polygon& outline) {
            const Region grown = grow(outline);
            const double origin = problem_.margin - problem_.gap / 2;
            const Rect box = bounds(grown);
            const int cx = static_cast<int>(std::floor((box.x0 - origin) / cell_));
            const int cy = static_cast<int>(std::floor((box.y0 - origin) / cell_));
            bin.stamp(covered_cells(grown, cell_, origin + cx * cell_, origin + cy * cell_), cx, cy);
        };
        const auto open_bin = [&] {
            bins.emplace_back(rows_);
            for (const Polygon& area : problem_.blocked) stamp(bins.back(), area);
        };
        for (const NestPlacement& p : problem_.locked) {
            while (static_cast<int>(bins.size()) <= p.bin) open_bin();
            stamp(bins[static_cast<std::size_t>(p.bin)], placed_outline(problem_, p));
        }
        // A place that was full for one copy is full for the next copy of the same piece: start where it ended.
        std::map<std::tuple<int, std::size_t, std::size_t>, int> from;
        for (const Copy& copy : order) {
            if (task.stopped()) return {};
            const auto& turns = turns_[static_cast<std::size_t>(copy.piece)];
            bool placed = false;
            for (std::size_t b = 0; !placed; ++b) {
                if (b == bins.size()) open_bin();
                double best = std::numeric_limits<double>::infinity();
                std::size_t best_turn = 0;
                int best_x = 0, best_y = 0;
                for (std::size_t t = 0; t < turns.size(); ++t) {
                    int& start = from[{copy.piece, t, b}];
                    int x = 0, y = 0;
                    if (start == std::numeric_limits<int>::max()) continue;
                    if (!bins[b].first_fit(turns[t].cells, start, columns_, x, y)) {
                        start = std::numeric_limits<int>::max();
                        continue;
                    }
                    start = x;
                    const double end = x * cell_ + turns[t].width + y * 1e-4;
                    if (end < best) {
                        best = end;
                        best_turn = t;
                        best_x = x;
                        best_y = y;
                    }
                }
                if (!std::isfinite(best)) continue;
                const Turned& t = turns[best_turn];
                bins[b].stamp(t.cells, best_x, best_y);
                const double origin = problem_.margin - problem_.gap / 2;
                out.push_back({copy.piece, copy.copy, static_cast<int>(b), t.rotation, origin + best_x * cell_ - t.cells.x0,
                               origin + best_y * cell_ - t.cells.y0, false});
                placed = true;
            }
        }
        return out;
    }

private:
    [[nodiscard]] Region grow(const Polygon& outline) const {
        return problem_.gap > 0 ? offset({outline}, problem_.gap / 2, 0.02) : Region{outline};
    }
    const NestProblem& problem_;
    double cell_;
    int rows_ = 0;
    int columns_ = -1;
    std::vector<std::vector<Turned>> turns_;
};

/// Slides every piece towards the start and then towards the near edge, exactly, from the front to the back: takes
/// back what the grid's cells gave away. Never makes a layout worse.
void settle(const NestProblem& problem, std::vector<NestPlacement>& placements) {
    std::vector<Polygon> outlines;
    std::vector<Rect> boxes;
    for (const NestPlacement& p : placements) {
        outlines.push_back(placed_outline(problem, p));
        boxes.push_back(bounds(outlines.back().outer));
    }
    std::vector<std::size_t> order(placements.size());
    for (std::size_t i = 0; i < order.size(); ++i) order[i] = i;
    for (int pass = 0; pass < 2; ++pass) {
        std::sort(order.begin(), order.end(), [&](auto a, auto b) { return boxes[a].x0 < boxes[b].x0; });
        for (const std::size_t i : order) {
            if (placements[i].locked) continue;
            for (const bool along_x : {true, false}) {
                const double most = (along_x ? boxes[i].x0 : boxes[i].y0) - problem.margin;
                if (most <= 1e-6) continue;
                Rect way = boxes[i].grown(problem.gap + 0.05);
                const double reach = std::min(most, 40.0);
                (along_x ? way.x0 : way.y0) -= reach;
                std::vector<const Polygon*> others;
                for (std::size_t j = 0; j < outlines.size(); ++j)
                    if (j != i && placements[j].bin == placements[i].bin && way.meets(boxes[j])) others.push_back(&outlines[j]);
                for (const Polygon& area : problem.blocked) others.push_back(&area);
                const double by = slide(outlines[i], others, problem.gap, along_x ? -1 : 0, along_x ? 0 : -1, reach);
                if (by <= 1e-6) continue;
                const Point shift = along_x ? Point{-by, 0} : Point{0, -by};
                placements[i].x += shift.x;
                placements[i].y += shift.y;
                outlines[i] = placed_outline(problem, placements[i]);
                boxes[i] = bounds(outlines[i].outer);
            }
        }
    }
}

struct Score {
    int bins = std::numeric_limits<int>::max();
    double last = 0, spread = 0;
    auto operator<=>(const Score&) const = default;
};

Score score_of(const NestSolution& s) {
    double spread = 0;
    for (const NestPlacement& p : s.placements) spread += p.x;
    return {s.bins, s.last_length, spread};
}

std::optional<std::string> problem_fault(const NestProblem& problem) {
    if (!(problem.width > 2 * problem.margin) || !(problem.width < 1e6) || !(problem.gap >= 0) || !(problem.gap < 1e4) ||
        !(problem.margin >= 0) || !(problem.max_length > 2 * problem.margin))
        return "The medium's width, margin or gap is not usable: check its figures.";
    long copies = 0;
    for (const NestPiece& p : problem.pieces) {
        const auto sound = [](const Ring& ring) {
            return ring.size() >= 3 && std::all_of(ring.begin(), ring.end(), [](Point q) {
                       return std::isfinite(q.x) && std::isfinite(q.y) && std::abs(q.x) < 1e5 && std::abs(q.y) < 1e5;
                   });
        };
        if (!sound(p.outline.outer) || std::abs(signed_area(p.outline.outer)) < 1e-6 ||
            !std::all_of(p.outline.holes.begin(), p.outline.holes.end(), sound))
            return "The outline of “" + p.id + "” is empty or broken: draw it again.";
        if (p.rotations.empty()) return "“" + p.id + "” has no allowed turn.";
        if (p.count < 0) return "“" + p.id + "” has a negative count.";
        copies += p.count;
    }
    if (copies > 20000) return "More than 20,000 pieces at once: split the order.";
    return std::nullopt;
}

/// Shared by the threads of one run.
struct Best {
    std::mutex guard;
    std::atomic<bool> any = false;
    NestSolution solution;
    Score score;
};

}  // namespace

Result<NestSolution> nest(const NestProblem& problem, const NestOptions& options, const Task& task,
                          const std::function<void(const NestSolution&)>& better) {
    const auto begun = Clock::now();
    if (const auto fault = problem_fault(problem)) return Error{*fault};
    std::set<std::pair<int, int>> fixed;
    for (const NestPlacement& p : problem.locked) fixed.insert({p.piece, p.copy});
    std::vector<Copy> copies;
    for (std::size_t i = 0; i < problem.pieces.size(); ++i)
        for (int c = 0; c < problem.pieces[i].count; ++c)
            if (!fixed.contains({static_cast<int>(i), c})) copies.push_back({static_cast<int>(i), c});

    const auto elapsed = [&] { return std::chrono::duration<double>(Clock::now() - begun).count(); };
    const double coarse = std::clamp(problem.width / 140.0, 0.5, 8.0);
    // Coarse cells give a layout at once, fine ones a better one.
    std::vector<Packer> levels;
    levels.emplace_back(problem, coarse);
    Packer fine(problem, coarse / 4);
    if (const int misfit = fine.misfit(); misfit >= 0) {
        const Rect box = bounds(problem.pieces[static_cast<std::size_t>(misfit)].outline.outer);
        return Error{"“" + problem.pieces[static_cast<std::size_t>(misfit)].id + "” (" + mm_text(box.width(), 0) + " × " +
                     mm_text(box.height(), 0) + " mm) is larger than the medium: choose a wider one, or make it smaller."};
    }
    const bool coarse_fits = levels[0].misfit() < 0;

    std::vector<double> size(problem.pieces.size());
    for (std::size_t i = 0; i < size.size(); ++i) {
        const Rect box = bounds(problem.pieces[i].outline.outer);
        size[i] = area(problem.pieces[i].outline) + 0.3 * box.width() * box.height();
    }
    std::stable_sort(copies.begin(), copies.end(), [&](const Copy& a, const Copy& b) {
        return size[static_cast<std::size_t>(a.piece)] > size[static_cast<std::size_t>(b.piece)];
    });

    Best best;
    std::vector<Best> by_thread(static_cast<std::size_t>(std::max(1, options.threads)));
    const auto consider = [&](std::vector<NestPlacement> placements, Best& own) {
        NestSolution s;
        s.placements = placements;
        settle(problem, s.placements);
        measure_solution(problem, s);
        Score score = score_of(s);
        bool gain = score < own.score;
        // The grid's layout is sound by construction; what was slid by floating point is checked before it counts.
        if (gain && !nest_faults(problem, s.placements).empty()) {
            s.placements = std::move(placements);
            measure_solution(problem, s);
            score = score_of(s);
            gain = score < own.score;
        }
        if (gain) {
            own.score = score;
            own.solution = s;
        }
        const std::scoped_lock lock(best.guard);
        if (score < best.score) {
            best.score = score;
            best.any = true;
            s.seconds = elapsed();
            best.solution = s;
            if (better) better(best.solution);
        }
        return gain;
    };
    const auto out_of_time = [&] { return task.stopped() || (options.rounds <= 0 && elapsed() >= options.seconds); };

    if (coarse_fits || copies.empty()) {
        auto first = levels[0].pack(copies, {});
        consider(std::move(first), by_thread[0]);
    }
    const auto work = [&](int thread) {
        Best& own = by_thread[static_cast<std::size_t>(thread)];
        std::mt19937 random(options.seed * 9176u + static_cast<unsigned>(thread));
        std::vector<Copy> order = copies;
        std::vector<Copy> kept = order;
        for (int round = 0; options.rounds <= 0 || round < options.rounds; ++round) {
            if (out_of_time() && best.any) break;
            if (round > 0 || thread > 0) {
                order = kept;
                const std::size_t moves = 1 + random() % 4;
                for (std::size_t k = 0; k < moves && order.size() > 1; ++k) {
                    const std::size_t a = random() % order.size();
                    const std::size_t b = std::min(order.size() - 1, random() % 3 == 0 ? random() % order.size() : a + 1 + random() % 8);
                    std::swap(order[a], order[b]);
                }
            }
            // The very first layout must come even when the time is short; later ones may be broken off.
            const std::atomic<bool>* stop = best.any ? task.cancelled : nullptr;
            auto placements = fine.pack(order, Task{{}, stop});
            if (placements.size() != copies.size() + problem.locked.size()) break;
            if (consider(std::move(placements), own)) kept = order;
            ++own.solution.rounds;
            if (thread == 0)
                task.say(options.rounds > 0 ? static_cast<double>(round + 1) / options.rounds
                                            : std::min(1.0, elapsed() / std::max(0.01, options.seconds)),
                         "settling");
        }
    };
    if (!copies.empty()) {
        std::vector<std::thread> threads;
        for (int t = 1; t < options.threads; ++t) threads.emplace_back(work, t);
        work(0);
        for (std::thread& t : threads) t.join();
    }
    // By thread order, so that the same seed and rounds give the same answer whatever the timing.
    NestSolution result = best.solution;
    Score least;
    int rounds = 0;
    for (const Best& own : by_thread) {
        rounds += own.solution.rounds;
        if (own.score < least) {
            least = own.score;
            result = own.solution;
        }
    }
    result.seconds = elapsed();
    result.rounds = rounds;
    return result;
}

}  // namespace orthema
