#include "core/nesting/parts.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <map>
#include <mutex>
#include <numeric>
#include <random>
#include <set>
#include <thread>

#include "core/nesting/cast.h"
#include "core/nesting/fill.h"

namespace orthema {

namespace {

using Clock = std::chrono::steady_clock;
using Placements = std::vector<NestPlacement>;

constexpr std::size_t least_in_run = 25;   ///< copies; fewer gain more from going from one to the other
constexpr std::size_t most_in_one = 800;   ///< copies, of a strip that is settled as one
constexpr std::size_t in_a_stretch = 250;  ///< copies

/// Some placements as a problem of their own, from x = 0.
struct Part {
    NestProblem problem;
    std::vector<std::vector<int>> copies;  ///< by its piece, numbers in the whole
    std::vector<int> kinds;                ///< by its piece, the piece in the whole
    double from = 0;                       ///< where it begins in the whole
    int bin = 0;
    double share = 1;  ///< of the time
};

Part part_of(const NestProblem& whole, const Placements& own, int bin, double from) {
    Part part;
    part.problem = whole;
    part.problem.pieces.clear();
    part.problem.locked.clear();
    part.problem.start.clear();
    part.from = from;
    part.bin = bin;
    std::map<int, int> number;
    for (const NestPlacement& p : own) {
        const auto [it, fresh] = number.try_emplace(p.piece, static_cast<int>(part.kinds.size()));
        if (fresh) {
            part.kinds.push_back(p.piece);
            part.copies.emplace_back();
            part.problem.pieces.push_back(whole.pieces[static_cast<std::size_t>(p.piece)]);
        }
        auto& copies = part.copies[static_cast<std::size_t>(it->second)];
        NestPlacement q = p;
        q.piece = it->second;
        q.copy = static_cast<int>(copies.size());
        q.bin = 0;
        q.x -= from;
        copies.push_back(p.copy);
        part.problem.start.push_back(q);
        if (q.locked) part.problem.locked.push_back(q);
    }
    for (std::size_t i = 0; i < part.kinds.size(); ++i) part.problem.pieces[i].count = static_cast<int>(part.copies[i].size());
    part.share = static_cast<double>(own.size());
    return part;
}

Placements in_whole(const Part& part, const Placements& found) {
    Placements out;
    for (const NestPlacement& p : found) {
        NestPlacement q = p;
        q.piece = part.kinds[static_cast<std::size_t>(p.piece)];
        q.copy = part.copies[static_cast<std::size_t>(p.piece)][static_cast<std::size_t>(p.copy)];
        q.bin = part.bin + p.bin;  // what found no place is in one of its own
        q.x += part.from;
        out.push_back(q);
    }
    return out;
}

int count_of_bins(const Placements& all) {
    int bins = 0;
    for (const NestPlacement& p : all) bins = std::max(bins, p.bin + 1);
    return bins;
}

class InParts {
public:
    InParts(const NestProblem& problem, const NestOptions& options, const Task& task, const std::function<bool(const Placements&)>& offer)
        : problem_(problem), options_(options), task_(task), offer_(offer) {
        if (!options_.casts) options_.casts = std::make_shared<CastStore>();
    }

    /// Each run by itself, and what gets free at their ends is filled from the last; then some more of the last into each, as much as
    /// its pieces make room for.
    void runs(Placements all) {
        constexpr double alone = 0.6;  // of the time
        // what filling takes: a guess
        const double fills =
            options_.rounds > 0 ? 0 : std::min(0.2, 2.5e-4 * static_cast<double>(all.size()) / std::max(1e-3, options_.seconds));
        const int bins = count_of_bins(all);
        std::vector<Part> full;
        for (int bin = 0; bin + 1 < bins; ++bin) full.push_back(part_of(problem_, of_bin(all, bin), bin, 0));
        shown_with_ = of_bin(all, bins - 1);
        all = joined(settled(full, (alone - fills) * (bins - 1) / bins), shown_with_);
        shown_with_.clear();
        if (!over()) fill_from_last(all);
        all = last_settled(all, alone);
        offer_(all);
        std::vector<double> more(static_cast<std::size_t>(bins), 0.004);  // of a run's area, that is tried next
        constexpr int rounds = 4;
        for (int round = 0; round < rounds && !over() && count_of_bins(all) > 1; ++round) {
            const double until = alone + (1 - alone) * (round + 1) / rounds;
            all = squeezed(all, more, round, until - (until - spent()) / count_of_bins(all));
            all = last_settled(all, until);
            offer_(all);
        }
    }

    /// A strip in stretches, each settled from where it begins; then in others, which have the seams in their middle.
    void stretches(Placements all) {
        constexpr int rounds = 2;
        for (int round = 0; round < rounds && !over(); ++round) {
            std::sort(all.begin(), all.end(), [&](const NestPlacement& a, const NestPlacement& b) { return middle(a) < middle(b); });
            const std::size_t count = std::max<std::size_t>(2, all.size() / in_a_stretch);
            std::vector<Part> parts;
            for (std::size_t k = 0; k <= count; ++k) {
                const auto cut = [&](double stretch) {
                    return static_cast<std::ptrdiff_t>(std::clamp(stretch / static_cast<double>(count), 0.0, 1.0) *
                                                       static_cast<double>(all.size()));
                };
                const double off = round % 2 == 0 ? 0 : -0.5;
                const Placements own(all.begin() + cut(static_cast<double>(k) + off), all.begin() + cut(static_cast<double>(k) + 1 + off));
                if (own.empty()) continue;
                double from = std::numeric_limits<double>::infinity();
                for (const NestPlacement& p : own) from = std::min(from, box(p).x0);
                parts.push_back(part_of(problem_, own, 0, from - problem_.margin));
            }
            const std::vector<Placements> found = settled_apart(parts, (round + 1.0) / rounds);
            all.clear();
            for (const Placements& part : found) append_close(all, part);
            offer_(all);
        }
    }

private:
    const NestProblem& problem_;
    NestOptions options_;
    const Task& task_;
    const std::function<bool(const Placements&)>& offer_;
    Clock::time_point begun_ = Clock::now();
    double rounds_spent_ = 0;  ///< share
    Placements shown_with_;    ///< while runs are settled side by side: the last one, which each layout that is handed out ends with

    [[nodiscard]] double spent() const {
        if (options_.rounds > 0) return rounds_spent_;
        return std::chrono::duration<double>(Clock::now() - begun_).count() / std::max(1e-3, options_.seconds);
    }
    [[nodiscard]] bool over() const { return task_.stopped() || spent() >= 1; }

    [[nodiscard]] Rect box(const NestPlacement& p) const { return bounds(placed_outline(problem_, p).outer); }
    [[nodiscard]] double middle(const NestPlacement& p) const {
        const Rect b = box(p);
        return (b.x0 + b.x1) / 2;
    }

    static Placements of_bin(const Placements& all, int bin) {
        Placements out;
        std::copy_if(all.begin(), all.end(), std::back_inserter(out), [&](const NestPlacement& p) { return p.bin == bin; });
        return out;
    }
    static Placements without_bin(const Placements& all, int bin) {
        Placements out;
        std::copy_if(all.begin(), all.end(), std::back_inserter(out), [&](const NestPlacement& p) { return p.bin != bin; });
        return out;
    }
    static Placements joined(Placements a, const Placements& b) {
        a.insert(a.end(), b.begin(), b.end());
        return a;
    }

    Placements settled(std::vector<Part> parts, double until) {
        Placements out;
        for (const Placements& p : settled_apart(std::move(parts), until)) out.insert(out.end(), p.begin(), p.end());
        return out;
    }

    /// What a thread does for a part: from which share of what is to be spent to which.
    struct Slice {
        std::size_t part = 0;
        double from = 0, to = 1;
    };

    /// Every part gets what it is due, whatever there are of threads and parts: laid end to end over the threads, a part that lies across
    /// the end of one is begun on the next and goes on at that end (McNaughton's rule; it is never at both).
    static std::vector<std::vector<Slice>> parted(const std::vector<Part>& parts, double whole, std::size_t threads) {
        std::vector<std::vector<Slice>> out(threads);
        double at = 0;  // thread, and how far along it
        constexpr double least = 0.02;
        for (std::size_t k = 0; k < parts.size(); ++k) {
            double left = std::min(1.0, parts[k].share / whole * static_cast<double>(threads));
            while (left > 1e-9) {
                const auto thread = std::min(threads - 1, static_cast<std::size_t>(at + 1e-9));
                const double from = std::max(0.0, at - static_cast<double>(thread)), takes = std::min(left, 1 - from);
                if (takes > least || left <= least) out[thread].push_back({k, from, from + takes});
                at += takes;
                left -= takes;
                if (takes <= 0) break;
            }
        }
        return out;
    }

    /// Every part, side by side, all of them by the given share of what may be spent.
    std::vector<Placements> settled_apart(std::vector<Part> parts, double until, double gather = 0) {
        std::vector<Placements> out(parts.size());
        if (parts.empty()) return out;
        std::mutex guard;
        // what each part has come to is seen while the others are at work; where rounds are counted the outcome is to depend on nothing
        // else
        std::vector<Placements> now;
        auto seen = Clock::now();
        const bool shows = !shown_with_.empty() && options_.rounds <= 0;
        for (std::size_t k = 0; k < parts.size(); ++k) {
            out[k] = in_whole(parts[k], parts[k].problem.start);
            if (shows) now.push_back(out[k]);
        }
        const auto show = [&](std::size_t k, const NestSolution& found) {
            const std::scoped_lock lock(guard);
            if (found.bins == 1) now[k] = in_whole(parts[k], found.placements);
            if (Clock::now() - seen < std::chrono::seconds(1)) return;
            seen = Clock::now();
            Placements all = shown_with_;
            for (const Placements& p : now) all = joined(std::move(all), p);
            offer_(all);
        };
        const std::size_t threads = std::clamp<std::size_t>(parts.size(), 1, static_cast<std::size_t>(std::max(1, options_.threads)));
        const double begun = spent(), share = until - begun;
        double whole = 0;
        for (const Part& p : parts) whole += p.share;
        const auto settle = [&](const Slice& slice) {
            const std::size_t k = slice.part;
            NestOptions o = options_;
            o.threads = std::max(1, options_.threads / static_cast<int>(threads));
            o.seconds = std::max(0.0, (begun + share * slice.to - spent()) * options_.seconds);
            if (o.rounds > 0) o.rounds = std::max(1, static_cast<int>(std::lround(share * o.rounds * parts[k].share / whole)));
            o.seed = options_.seed + 131 * static_cast<unsigned>(k) + (slice.from > 0 ? 17 : 0);
            o.gather = gather;
            std::function<void(const NestSolution&)> better;
            if (shows) better = [&, k](const NestSolution& s) { show(k, s); };
            const auto found = nest(parts[k].problem, o, Task{{}, task_.cancelled}, better);
            if (found && (gather > 0 || found->bins == 1)) {
                out[k] = in_whole(parts[k], found->placements);
                parts[k].problem.start = found->placements;  // from there it goes on
            }
            if (task_.report) {
                const std::scoped_lock lock(guard);
                task_.say(std::min(1.0, spent()), "settling");
            }
        };
        std::vector<std::vector<Slice>> slices = parted(parts, whole, threads);
        if (options_.rounds > 0) {
            slices.assign(threads, {});
            for (std::size_t k = 0; k < parts.size(); ++k) slices[k % threads].push_back({k, 0, 1});
        }
        std::vector<std::mutex> at_work(parts.size());  // the second half of a part waits for its first
        const auto work = [&](std::size_t thread) {
            for (const Slice& s : slices[thread]) {
                const std::scoped_lock lock(at_work[s.part]);
                settle(s);
            }
        };
        std::vector<std::thread> others;
        for (std::size_t t = 1; t < threads; ++t) others.emplace_back(work, t);
        work(0);
        for (std::thread& t : others) t.join();
        if (options_.rounds > 0) rounds_spent_ = until;
        return out;
    }

    Placements last_settled(const Placements& all, double until) {
        const int last = count_of_bins(all) - 1;
        return joined(settled({again_at_once(part_of(problem_, of_bin(all, last), last, 0))}, until), without_bin(all, last));
    }

    /// Some pieces of the last run into each other one, where its own make room for them in time.
    Placements squeezed(const Placements& all, std::vector<double>& more, int round, double until) {
        const int bins = count_of_bins(all);
        Placements loose;
        for (const NestPlacement& p : of_bin(all, bins - 1))
            if (!p.locked) loose.push_back(p);
        std::mt19937 random(options_.seed * 31 + static_cast<unsigned>(round));
        std::shuffle(loose.begin(), loose.end(), random);
        std::vector<Part> parts;
        std::vector<std::size_t> own;
        const double room = (problem_.max_length - 2 * problem_.margin) * (problem_.width - 2 * problem_.margin);
        for (int bin = 0; bin + 1 < bins; ++bin) {
            Placements with = of_bin(all, bin);
            own.push_back(with.size());
            double left = more[static_cast<std::size_t>(bin)] * room;
            for (auto p = loose.begin(); p != loose.end() && left > 0;) {
                const double size = area(problem_.pieces[static_cast<std::size_t>(p->piece)].outline);
                if (size > 1.5 * left) {
                    ++p;
                    continue;
                }
                left -= size;
                with.push_back(*p);
                p = loose.erase(p);
            }
            parts.push_back(part_of(problem_, with, bin, 0));
            for (std::size_t i = own.back(); i < with.size(); ++i) parts.back().problem.start[i].bin = 1;
        }
        const std::vector<Placements> found = settled_apart(parts, until, 0.8);
        Placements out;
        std::set<std::pair<int, int>> there;
        for (std::size_t k = 0; k < found.size(); ++k) {
            const bool all_in =
                std::all_of(found[k].begin(), found[k].end(), [&](const NestPlacement& p) { return p.bin == parts[k].bin; });
            if (parts[k].problem.start.size() > own[k]) more[k] *= all_in ? 1.4 : 0.6;
            const Placements taken = all_in ? found[k] : of_bin(all, parts[k].bin);
            for (const NestPlacement& p : taken) there.insert({p.piece, p.copy});
            out.insert(out.end(), taken.begin(), taken.end());
        }
        for (const NestPlacement& p : of_bin(all, bins - 1))
            if (!there.contains({p.piece, p.copy})) out.push_back(p);
        return out;
    }

    /// What remains of the last run, laid out at once, where that is shorter than what was left lying.
    [[nodiscard]] Part again_at_once(Part part) const {
        NestProblem fresh = part.problem;
        fresh.start.clear();
        NestOptions quick = options_;
        quick.seconds = 0;
        quick.rounds = 0;
        const auto laid = nest(fresh, quick, Task{{}, task_.cancelled});
        NestSolution now;
        now.placements = part.problem.start;
        measure_solution(part.problem, now);
        if (laid && laid->bins == 1 && laid->last_length < now.last_length) part.problem.start = laid->placements;
        return part;
    }

    /// Pieces of the last run to where there is room in the others, the largest first and where most is free first; of the run
    /// before it once it is empty.
    void fill_from_last(Placements& all) const {
        const int bins = count_of_bins(all);
        std::vector<double> end(static_cast<std::size_t>(bins), 0);
        for (const NestPlacement& p : all) end[static_cast<std::size_t>(p.bin)] = std::max(end[static_cast<std::size_t>(p.bin)], box(p).x1);
        std::vector<int> to(static_cast<std::size_t>(bins));
        std::iota(to.begin(), to.end(), 0);
        std::stable_sort(to.begin(), to.end(),
                         [&](int a, int b) { return end[static_cast<std::size_t>(a)] < end[static_cast<std::size_t>(b)]; });
        int giver = bins - 1;
        for (const int bin : to)
            while (bin < giver && !task_.stopped() && give(all, giver, bin)) --giver;
    }

    /// Whether the giver has nothing left.
    bool give(Placements& all, int giver, int bin) const {
        std::vector<std::vector<int>> there(problem_.pieces.size());
        std::size_t left = 0;
        for (const NestPlacement& p : all) {
            if (p.bin != giver) continue;
            ++left;
            if (!p.locked) there[static_cast<std::size_t>(p.piece)].push_back(p.copy);
        }
        if (left == 0) return true;
        NestProblem own = problem_;
        own.start.clear();
        own.locked = of_bin(all, bin);
        std::vector<int> lying(problem_.pieces.size(), 0);
        for (NestPlacement& p : own.locked) {
            p.bin = 0;
            p.copy = lying[static_cast<std::size_t>(p.piece)]++;
            p.locked = true;
        }
        std::vector<FillOffer> offers;
        for (std::size_t i = 0; i < there.size(); ++i) {
            own.pieces[i].count = lying[i] + static_cast<int>(there[i].size());
            if (!there[i].empty())
                offers.push_back(
                    {static_cast<int>(i), lying[i], static_cast<int>(there[i].size()), std::pow(area(own.pieces[i].outline), 1.5)});
        }
        for (const NestPlacement& p : fill_rest(own, offers, 1, false, 1, Task{{}, task_.cancelled})) {
            const auto kind = static_cast<std::size_t>(p.piece);
            const int copy = there[kind][static_cast<std::size_t>(p.copy - lying[kind])];
            NestPlacement& moved =
                *std::find_if(all.begin(), all.end(), [&](const NestPlacement& q) { return q.piece == p.piece && q.copy == copy; });
            moved = p;
            moved.copy = copy;
            moved.bin = bin;
            moved.locked = false;
            --left;
        }
        return left == 0;
    }

    /// A stretch as close behind what lies there as it goes without turning or moving any of it by itself.
    void append_close(Placements& all, Placements part) const {
        constexpr double beyond = 1.0;
        double end = problem_.margin - problem_.gap, begin = std::numeric_limits<double>::infinity(), widest = 0;
        for (const NestPlacement& p : all) end = std::max(end, box(p).x1);
        for (const NestPlacement& p : part) begin = std::min(begin, box(p).x0);
        for (const NestPiece& p : problem_.pieces) {
            const Rect b = bounds(p.outline.outer);
            widest = std::max(widest, std::hypot(b.width(), b.height()));
        }
        const double to = all.empty() ? problem_.margin : end + problem_.gap + beyond;
        for (NestPlacement& p : part) p.x += to - begin;
        if (!all.empty()) {
            std::vector<Polygon> near;
            for (const NestPlacement& p : all)
                if (box(p).x1 > end - widest) near.push_back(placed_outline(problem_, p));
            std::vector<const Polygon*> others;
            others.reserve(near.size());
            for (const Polygon& p : near) others.push_back(&p);
            double room = std::min(widest, to - problem_.margin);
            for (const NestPlacement& p : part)
                if (box(p).x0 < to + widest) room = slide(placed_outline(problem_, p), others, problem_.gap, -1, 0, room);
            for (NestPlacement& p : part) p.x -= std::max(0.0, room - 0.01);
        }
        all.insert(all.end(), part.begin(), part.end());
    }
};

}  // namespace

bool has_parts(const NestProblem& problem, const std::vector<NestPlacement>& placements, int bins) {
    const std::size_t copies = placements.size();
    if (bins > 1) return copies >= least_in_run * static_cast<std::size_t>(bins);
    return copies > most_in_one && problem.locked.empty() && problem.blocked.empty() && problem.seams.empty();
}

void settle_parts(const NestProblem& problem, std::vector<NestPlacement> placements, const NestOptions& options, const Task& task,
                  const std::function<bool(const std::vector<NestPlacement>&)>& offer) {
    InParts parts(problem, options, task, offer);
    if (count_of_bins(placements) > 1)
        parts.runs(std::move(placements));
    else
        parts.stretches(std::move(placements));
}

}  // namespace orthema
