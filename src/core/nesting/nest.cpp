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
#include "core/nesting/glue.h"
#include "core/nesting/grid_packer.h"
#include "core/nesting/jostle.h"
#include "core/nesting/parts.h"
#include "core/nesting/patterned.h"
#include "core/nesting/rect_nest.h"

namespace orthema {

Error larger_than_medium(const NestPiece& piece) {
    const Rect box = bounds(piece.outline.outer);
    return Error{"“{piece}” ({width} × {height}) is larger than the medium: choose a wider one, or make it smaller.",
                 {{"piece", piece.id}, {"width", Length::from_mm(box.width())}, {"height", Length::from_mm(box.height())}}};
}

namespace {

using Clock = std::chrono::steady_clock;

constexpr std::size_t most_jostled = 3000;  ///< copies; every pair has a weight
constexpr double search_hair = 0.002;       ///< mm that the search keeps beyond the gap, for its single precision

std::optional<Error> problem_fault(const NestProblem& problem) {
    if (!(problem.width > 2 * problem.margin) || !(problem.width < 1e6) || !(problem.gap >= 0) || !(problem.gap < 1e4) ||
        !(problem.margin >= 0) || !(problem.max_length > 2 * problem.margin))
        return Error{"The medium's width, margin or gap is not usable: check its figures."};
    long copies = 0;
    for (const NestPiece& p : problem.pieces) {
        const auto sound = [](const Ring& ring) {
            return ring.size() >= 3 && std::all_of(ring.begin(), ring.end(), [](Point q) {
                       return std::isfinite(q.x) && std::isfinite(q.y) && std::abs(q.x) < 1e5 && std::abs(q.y) < 1e5;
                   });
        };
        if (!sound(p.outline.outer) || std::abs(signed_area(p.outline.outer)) < 1e-6 ||
            !std::all_of(p.outline.holes.begin(), p.outline.holes.end(), sound))
            return Error{"The outline of “{piece}” is empty or broken: draw it again.", {{"piece", p.id}}};
        if (p.rotations.empty()) return Error{"“{piece}” has no allowed turn.", {{"piece", p.id}}};
        if (p.count < 0) return Error{"“{piece}” has a negative count.", {{"piece", p.id}}};
        copies += p.count;
    }
    if (copies > 20000) return Error{"More than 20,000 pieces at once: split the order."};
    return std::nullopt;
}

/// One call of nest(): what has been found, and how much is left to spend.
class Settling {
public:
    Settling(const NestProblem& problem, const NestOptions& options, const Task& task,
             const std::function<void(const NestSolution&)>& better, bool glues = true)
        : problem_(problem), options_(options), task_(task), better_(better), glues_(glues) {
        std::set<std::pair<int, int>> fixed;
        for (const NestPlacement& p : problem.locked) fixed.insert({p.piece, p.copy});
        for (std::size_t i = 0; i < problem.pieces.size(); ++i)
            for (int c = 0; c < problem.pieces[i].count; ++c)
                if (!fixed.contains({static_cast<int>(i), c})) copies_.push_back({static_cast<int>(i), c});
        std::vector<double> size;
        for (const NestPiece& p : problem.pieces) {
            const Rect box = bounds(p.outline.outer);
            size.push_back(area(p.outline) + 0.3 * box.width() * box.height());
        }
        std::stable_sort(copies_.begin(), copies_.end(), [&](const Copy& a, const Copy& b) {
            return size[static_cast<std::size_t>(a.piece)] > size[static_cast<std::size_t>(b.piece)];
        });
        // what the artist locked stays as it lies, even where it lies too close
        for (const std::string& fault : nest_faults(problem, problem.locked, 0, false)) of_locked_.insert(fault);
        sweeps_left_ = options.rounds > 0 ? options.rounds * sweeps_a_round : -1;
    }

    Result<NestSolution> go() {
        if (auto fault = begin()) return *fault;
        if (!copies_.empty() && !over()) better_it();
        best_->seconds = elapsed();
        best_->rounds = options_.rounds;
        return *best_;
    }

private:
    static constexpr int sweeps_a_round = 25;
    const NestProblem& problem_;
    const NestOptions& options_;
    const Task& task_;
    const std::function<void(const NestSolution&)>& better_;
    bool glues_ = true;
    Clock::time_point begun_ = Clock::now();
    std::vector<Copy> copies_;
    std::set<std::string> of_locked_;  ///< faults that only locked copies have with each other, or with the edge
    std::optional<NestSolution> best_;
    long sweeps_left_ = -1;
    unsigned seed_ = options_.seed;
    int idle_ = 0;                        ///< attempts in a row that found nothing to do
    static constexpr int most_idle = 20;  ///< then the last bin is as short as its longest piece, and that is that
    // jostling
    std::vector<std::vector<Cast>> casts_;
    std::vector<std::vector<MatePlace>> mates_;
    std::vector<int> fixed_kinds_;  ///< of locked copies, then of blocked areas, then of seams
    double by_ = 0;
    double used_ = 0;

    [[nodiscard]] double elapsed() const { return std::chrono::duration<double>(Clock::now() - begun_).count(); }
    [[nodiscard]] bool over() const { return task_.stopped() || (options_.rounds > 0 ? sweeps_left_ == 0 : elapsed() >= options_.seconds); }
    /// How much of what may be spent is spent, 0 to 1.
    [[nodiscard]] double spent() const {
        if (options_.rounds > 0) return 1 - static_cast<double>(sweeps_left_) / (options_.rounds * sweeps_a_round);
        return std::min(1.0, elapsed() / std::max(1e-3, options_.seconds));
    }

    /// Takes a layout when it is sound, by exact arithmetic or with so much forgiven, and beats the best.
    bool offer(std::vector<NestPlacement> placements, double forgiven = 0) {
        NestSolution s;
        s.placements = std::move(placements);
        measure_solution(problem_, s);
        if (best_ && !shorter(s, *best_)) return false;
        const auto faults = nest_faults(problem_, s.placements, forgiven);
        if (!std::all_of(faults.begin(), faults.end(), [&](const std::string& fault) { return of_locked_.contains(fault); })) return false;
        s.seconds = elapsed();
        best_ = std::move(s);
        if (better_) better_(*best_);
        return true;
    }

    void better_it() {
        if (best_->bins == 1 && all_rectangles(problem_) && in_rectangles()) return;
        if (options_.gather <= 0 && has_parts(problem_, best_->placements, best_->bins))
            in_parts();
        else if (copies_.size() <= most_jostled)
            jostle_apart();
    }

    /// The first layouts: coarse cells at once, fine ones better, with what was slid taken when it is sound.
    std::optional<Error> begin() {
        // coarser where there are many pieces: the first layout is wanted at once
        const double many = std::clamp(std::sqrt(static_cast<double>(copies_.size()) / 200), 1.0, 2.0);
        const double coarse = std::clamp(problem_.width / 140.0, 0.5, 8.0) * many;
        const auto lay = [&](const GridPacker& packer, const Task& stop) {
            auto placements = packer.pack(copies_, stop);
            return placements.size() == copies_.size() + problem_.locked.size() ? placements : std::vector<NestPlacement>{};
        };
        const auto offer_slid = [&](std::vector<NestPlacement> placements) {
            if (placements.empty()) return;
            slide_back(problem_, placements, options_.threads);
            offer(std::move(placements));
        };
        // else a first layout is all there will be
        const auto is_bettered = [&] { return copies_.size() <= most_jostled || has_parts(problem_, best_->placements, best_->bins); };
        if (!problem_.start.empty() && offer(problem_.start) && is_bettered()) return std::nullopt;
        const GridPacker quick(problem_, coarse, options_.threads);
        if (!best_ && quick.misfit() < 0) {
            const double before = elapsed();
            auto first = lay(quick, {});
            const double took = elapsed() - before;
            const bool laid = !first.empty() && offer(first);  // at once; sliding takes as long again
            const bool rows = laid && !over() && can_pattern(problem_) && in_patterns(coarse / 2) && rows_enough();
            if (laid && !over() && !rows) {
                // Finer cells take some three times as long for each halving: worth it where that is little of the time. Over several
                // bins jostling gains slowly, so more of it goes there.
                const double share = best_->bins > 1 ? 0.4 : 0.1;
                if (options_.rounds <= 0)
                    for (const double finer : {8.0, 4.0, 2.0})
                        if (std::pow(finer, 1.6) * took < share * options_.seconds) {
                            auto fine = lay(GridPacker(problem_, coarse / finer, options_.threads), Task{{}, task_.cancelled});
                            if (!fine.empty()) first = std::move(fine);
                            break;
                        }
                offer_slid(std::move(first));
            }
        }
        if (best_ && (over() || is_bettered())) return std::nullopt;
        const GridPacker fine(problem_, coarse / 4, options_.threads);
        if (const int misfit = fine.misfit(); misfit >= 0) return larger_than_medium(problem_.pieces[static_cast<std::size_t>(misfit)]);
        auto placements = lay(fine, best_ ? Task{{}, task_.cancelled} : Task{});
        if (!placements.empty() && offer(placements) && over()) return std::nullopt;
        offer_slid(std::move(placements));
        if (!best_) return "The pieces could not be laid out: an outline crosses itself. Draw it again.";
        return std::nullopt;
    }

    /// No more of the time for rows, or for closing them up.
    [[nodiscard]] bool rows_enough() const { return options_.rounds <= 0 && elapsed() > 0.3 * options_.seconds; }

    /// Many copies of one kind in rows that repeat; whether that beats the best.
    bool in_patterns(double cell) {
        auto placements = patterned(
            problem_, copies_, best_->density, cell, [&] { return rows_enough(); }, Task{{}, task_.cancelled});
        if (placements.size() != copies_.size()) return false;
        const bool better = offer(placements);
        if (rows_enough()) return better;
        slide_back(problem_, placements, options_.threads);
        return offer(std::move(placements)) || better;
    }

    /// False where one lies across the strip only: then it is a search like any other.
    bool in_rectangles() {
        std::mutex guard;
        return nest_rectangles(
            problem_, copies_, options_, [&] { return task_.stopped() || (options_.rounds <= 0 && elapsed() >= options_.seconds); },
            [&](std::vector<NestPlacement> found) {
                const std::scoped_lock lock(guard);
                offer(std::move(found));
                task_.say(spent(), "settling");
            });
    }

    void in_parts() {
        NestOptions left = options_;
        left.seconds = options_.seconds - elapsed();
        settle_parts(problem_, best_->placements, left, task_, [&](const std::vector<NestPlacement>& found) { return offer(found); });
    }

    /// Casts of every kind at every turn, and of what stays where it is.
    void cast_pieces() {
        by_ = problem_.gap / 2 + search_hair;
        const auto tolerance = [&](const Polygon& p) {
            const Rect box = bounds(p.outer);
            const double size = std::hypot(box.width(), box.height());
            return problem_.gap > 0 ? std::clamp(0.001 * size, 0.02, 0.2) : std::min(0.02, 0.0002 * size);
        };
        CastStore own;
        CastStore& store = options_.casts ? *options_.casts : own;
        for (const NestPiece& p : problem_.pieces) casts_.push_back(store.of(p.outline, by_, tolerance(p.outline), p.rotations));
        if (problem_.gap == 0) {  // a gap parts what fitted
            std::vector<Polygon> outlines;
            for (const NestPiece& p : problem_.pieces) outlines.push_back(p.outline);
            mates_ = mates_of(outlines, casts_);
        }
        for (const NestPlacement& p : problem_.locked) {
            fixed_kinds_.push_back(static_cast<int>(casts_.size()));
            const Polygon& outline = problem_.pieces[static_cast<std::size_t>(p.piece)].outline;
            casts_.push_back(store.of(outline, by_, tolerance(outline), {p.rotation}));
        }
        for (const Polygon& p : kept_free()) {
            fixed_kinds_.push_back(static_cast<int>(casts_.size()));
            casts_.push_back(store.of(p, by_, 0.02, {0}));
        }
        for (const Copy& c : copies_) used_ += area(problem_.pieces[static_cast<std::size_t>(c.piece)].outline);
        for (const NestPlacement& p : problem_.locked) used_ += area(problem_.pieces[static_cast<std::size_t>(p.piece)].outline);
    }

    [[nodiscard]] std::vector<Polygon> kept_free() const {
        std::vector<Polygon> out = problem_.blocked;
        out.insert(out.end(), problem_.seams.begin(), problem_.seams.end());
        return out;
    }

    [[nodiscard]] JostleRoom room_for(int bins, double last_length) const {
        JostleRoom r;
        r.x0 = r.y0 = problem_.margin - by_;
        r.y1 = problem_.width - problem_.margin + by_;
        r.x1 = (std::isfinite(problem_.max_length) ? problem_.max_length : last_length) - problem_.margin + by_;
        r.last_x1 = last_length - problem_.margin + by_;
        r.bins = bins;
        return r;
    }

    [[nodiscard]] JostledPiece jostled(const NestPlacement& p) const {
        const auto& turns = casts_[static_cast<std::size_t>(p.piece)];
        std::size_t t = 0;
        while (t + 1 < turns.size() && std::abs(std::remainder(turns[t].turn - p.rotation, 360)) > 1e-6) ++t;
        return {p.piece,
                static_cast<int>(t),
                p.x + turns[t].middle.x,
                p.y + turns[t].middle.y,
                p.bin,
                false,
                false,
                problem_.pieces[static_cast<std::size_t>(p.piece)].crosses};
    }

    /// The best layout as pieces to jostle: free copies in the order of copies_, then what is fixed.
    [[nodiscard]] std::vector<JostledPiece> pieces_of_best(int bins) const {
        std::map<std::pair<int, int>, const NestPlacement*> at;
        for (const NestPlacement& p : best_->placements) at[{p.piece, p.copy}] = &p;
        std::vector<JostledPiece> out;
        for (const Copy& c : copies_) {
            out.push_back(jostled(*at.at({c.piece, c.copy})));
        }
        std::size_t k = 0;
        for (const NestPlacement& p : problem_.locked) {
            const Cast& c = casts_[static_cast<std::size_t>(fixed_kinds_[k])][0];
            out.push_back({fixed_kinds_[k++], 0, p.x + c.middle.x, p.y + c.middle.y, p.bin, true});
        }
        for (; k < fixed_kinds_.size(); ++k) {
            const Cast& c = casts_[static_cast<std::size_t>(fixed_kinds_[k])][0];
            const bool seamed = k >= problem_.locked.size() + problem_.blocked.size();
            for (int bin = 0; bin < bins; ++bin) out.push_back({fixed_kinds_[k], 0, c.middle.x, c.middle.y, bin, true, seamed});
        }
        return out;
    }

    [[nodiscard]] std::vector<NestPlacement> placements_of(const std::vector<JostledPiece>& pieces) const {
        std::vector<NestPlacement> out = problem_.locked;
        for (std::size_t i = 0; i < copies_.size(); ++i) {
            const JostledPiece& p = pieces[i];
            const Cast& c = casts_[static_cast<std::size_t>(p.kind)][static_cast<std::size_t>(p.turn)];
            out.push_back({copies_[i].piece, copies_[i].copy, p.bin, c.turn, p.x - c.middle.x, p.y - c.middle.y, false});
        }
        return out;
    }

    bool separate(Jostle& j, int without_gain, int strikes, double until) {
        JostleLimits limits{without_gain, strikes, -1, {}};
        if (options_.rounds > 0) limits.sweeps = std::max(0L, sweeps_left_ - std::lround((1 - until) * options_.rounds * sweeps_a_round));
        const long had = limits.sweeps;
        const std::uint64_t swept = j.sweeps();
        limits.stop = [&] { return task_.stopped() || (options_.rounds <= 0 && spent() >= until); };
        const bool apart = j.separate(limits);
        if (options_.rounds > 0) sweeps_left_ -= had - limits.sweeps;
        task_.say(spent(), "settling");
        const bool gain = apart && offer(placements_of(j.pieces()));
        idle_ = gain || j.sweeps() > swept ? 0 : idle_ + 1;
        return gain;
    }

    /// Two threads work on one layout; more of them on others beside it, each from a seed of its own.
    void jostle_apart() {
        cast_pieces();
        if (glues_ && best_->bins == 1 && can_glue(problem_, mates_)) nest_glued();
        const int groups = std::max(1, options_.threads / 2);
        std::vector<Settling> others(static_cast<std::size_t>(groups - 1), *this);
        std::vector<std::thread> threads;
        for (std::size_t k = 0; k < others.size(); ++k) {
            others[k].seed_ += 7919 * (static_cast<unsigned>(k) + 1);
            threads.emplace_back([&other = others[k]] { other.jostle(); });
        }
        jostle();
        for (std::thread& t : threads) t.join();
        for (Settling& other : others)
            if (shorter(*other.best_, *best_)) best_ = other.best_;
    }

    /// Pieces that were cut from one another: all put together again, where that gives a layout; else compounds of some, each
    /// for a short while.
    void nest_glued() {
        std::mt19937 random(seed_ * 131 + 7);
        if (lay_whole(glued(problem_, casts_, mates_, copies_.size(), true, random), random)) return;
        constexpr double part = 0.1;  // of what may be spent
        for (const std::size_t most : {copies_.size(), std::size_t{8}, std::size_t{4}}) {
            if (over()) return;
            const std::vector<Compound> compounds = glued(problem_, casts_, mates_, most, false, random);
            if (compounds.size() == copies_.size()) return;
            NestProblem p = problem_;
            p.pieces.clear();
            p.start.clear();
            for (const Compound& c : compounds) p.pieces.push_back(c.piece);
            NestOptions o = options_;
            o.seed = static_cast<unsigned>(random());
            o.seconds = part * options_.seconds;
            if (o.rounds > 0) {
                o.rounds = std::max(1, static_cast<int>(std::lround(part * o.rounds)));
                sweeps_left_ = std::max(0L, sweeps_left_ - static_cast<long>(o.rounds) * sweeps_a_round);
            }
            const std::function<void(const NestSolution&)> nobody;
            const Task quiet{{}, task_.cancelled};
            const auto laid = Settling(p, o, quiet, nobody, false).go();
            if (!laid) continue;
            std::vector<NestPlacement> placements;
            for (const NestPlacement& c : laid->placements)
                for (const NestPlacement& m : taken_apart(compounds[static_cast<std::size_t>(c.piece)], c)) placements.push_back(m);
            offer(std::move(placements));
            task_.say(spent(), "settling");
        }
    }

    /// Placements moved together into the strip's corner.
    [[nodiscard]] std::vector<NestPlacement> in_the_corner(const std::map<std::pair<int, int>, NestPlacement>& at) const {
        std::vector<NestPlacement> out;
        Point low{std::numeric_limits<double>::infinity(), std::numeric_limits<double>::infinity()};
        for (const auto& [copy, p] : at) {
            const Rect box = bounds(placed_outline(problem_, p).outer);
            low = {std::min(low.x, box.x0), std::min(low.y, box.y0)};
            out.push_back(p);
        }
        for (NestPlacement& p : out) {
            p.x += problem_.margin - low.x;
            p.y += problem_.margin - low.y;
        }
        return out;
    }

    /// Compounds one after the other along the strip, each as short as it lies, and jostled apart as pieces. Where they are too
    /// wide for the strip by a search_hair, what stands out goes to the end. Whether a layout came of it that beats the best.
    bool lay_whole(std::vector<Compound> compounds, std::mt19937& random) {
        const double across = problem_.width - 2 * problem_.margin;
        std::stable_sort(compounds.begin(), compounds.end(),
                         [](const Compound& a, const Compound& b) { return area(a.piece.outline) > area(b.piece.outline); });
        std::map<std::pair<int, int>, NestPlacement> at;
        double end = 0;
        for (const Compound& c : compounds) {
            NestPlacement lies;
            double least = std::numeric_limits<double>::infinity();
            for (const double turn : c.piece.rotations) {
                const Rect box = bounds(mapped(c.piece.outline.outer, Affine::turn(turn)));
                if (box.height() > across + 1 || box.width() >= least) continue;
                least = box.width();
                lies = {0, 0, 0, turn, problem_.margin + end - box.x0, problem_.margin - box.y0, false};
            }
            if (!std::isfinite(least)) return false;
            end += least;
            for (const NestPlacement& m : taken_apart(c, lies)) at[{m.piece, m.copy}] = m;
        }
        if (compounds.size() == 1 && offer(in_the_corner(at), touching)) return true;
        std::vector<JostledPiece> pieces;
        for (const Copy& c : copies_) pieces.push_back(jostled(at.at({c.piece, c.copy})));
        const auto apart = [&](double length) {
            length = std::min(length + 2 * problem_.margin, problem_.max_length);
            if (length >= best_->last_length || over()) return false;
            Jostle j(casts_, mates_, pieces, room_for(1, length), seed_, std::min(2, options_.threads));
            j.set_room(room_for(1, length));  // what stands out is pushed in
            return separate(j, 100, 1, spent() + 0.05);
        };
        if (apart(end * 1.001 + 0.5)) return true;
        constexpr double spread = 1.001;  // more than the casts are grown by, over the width of a piece
        const JostleRoom room = room_for(1, end * spread);
        double out = 0;
        std::vector<JostledPiece*> outside;
        for (JostledPiece& p : pieces) {
            const Cast& c = casts_[static_cast<std::size_t>(p.kind)][static_cast<std::size_t>(p.turn)];
            p.x *= spread;
            p.y *= spread;
            if (p.y + c.y1 <= room.y1) continue;
            outside.push_back(&p);
            out += area(problem_.pieces[static_cast<std::size_t>(p.kind)].outline);
        }
        constexpr double loosely = 0.6;  // of the room that they find at the end
        const double more = out / loosely / across;
        std::uniform_real_distribution<double> share(0, 1);
        for (JostledPiece* p : outside) {
            p->x = end * spread + more * share(random);
            p->y = problem_.width * share(random);
        }
        return apart(end * spread + more) || apart(end * spread + 1.3 * more);
    }

    void jostle() {
        int locked_bins = 0;
        for (const NestPlacement& p : problem_.locked) locked_bins = std::max(locked_bins, p.bin + 1);
        // A whole bin less, while that is not hopeless.
        int attempt = 0;
        while (best_->bins > std::max(1, locked_bins) && !over()) {
            const double room = (problem_.max_length - 2 * problem_.margin) * (problem_.width - 2 * problem_.margin) * (best_->bins - 1);
            if (used_ > 0.9 * room || spent() > std::max(0.5, options_.gather)) break;
            Jostle j(casts_, mates_, with_last_bin_spread(attempt), room_for(best_->bins - 1, problem_.max_length), seed_,
                     std::min(2, options_.threads));
            const double until = options_.gather > 0 ? options_.gather : std::min(0.6, spent() + (used_ > 0.62 * room ? 0.1 : 0.25));
            if (!separate(j, 60, 2, until) && (options_.gather <= 0 || ++attempt > most_idle)) break;
        }
        if (options_.gather > 0 && best_->bins > std::max(1, locked_bins)) return;  // it was asked for nothing else
        Jostle j(casts_, mates_, pieces_of_best(best_->bins), room_for(best_->bins, best_->last_length), seed_,
                 std::min(2, options_.threads));
        std::mt19937 random(seed_ * 9176U + 3);
        // many pieces never come to an end of exploring: small steps gain more
        explore(j, random, copies_.size() > 200 ? 0.35 : 0.7);
        compress(j, random);
    }

    /// The best layout with what lies in the last bin strewn over the others.
    [[nodiscard]] std::vector<JostledPiece> with_last_bin_spread(int attempt) const {
        const int bins = best_->bins - 1;
        std::vector<JostledPiece> pieces = pieces_of_best(bins);
        std::mt19937 random(seed_ + 7919U * static_cast<unsigned>(attempt));
        const JostleRoom r = room_for(bins, problem_.max_length);
        const auto share = [&] { return static_cast<double>(random()) / 4294967296.0; };
        for (JostledPiece& p : pieces) {
            if (p.fixed || p.bin < bins) continue;
            p.bin = static_cast<int>(random() % static_cast<unsigned>(bins));
            p.x = r.x0 + share() * (r.x1 - r.x0);
            p.y = r.y0 + share() * (r.y1 - r.y0);
        }
        return pieces;
    }

    void back_to_best(Jostle& j) const {
        // it goes on with as many pieces as it was made of: what is blocked was counted in each bin that there was then
        const std::size_t blocked = problem_.blocked.size() + problem_.seams.size();
        const int bins =
            blocked == 0 ? best_->bins : static_cast<int>((j.pieces().size() - copies_.size() - problem_.locked.size()) / blocked);
        j.set_pieces(pieces_of_best(bins));
        j.set_room(room_for(best_->bins, best_->last_length));
    }

    /// Large steps, halved where they fail; where small ones fail, from the least overlapping failures with two pieces swapped.
    void explore(Jostle& j, std::mt19937& random, double until) {
        struct Failure {
            double overlap = 0;
            std::vector<JostledPiece> pieces;
        };
        std::vector<Failure> failures;
        constexpr double least_step = 0.001, most_step = 0.04;
        double step = problem_.start.empty() ? most_step : 0.01;  // what was settled before has less to give
        const auto shorten = [&] {
            const double usable = j.room().last_x1 - j.room().x0;
            j.shorten(usable * step, j.room().x0 + usable * (static_cast<double>(random()) / 4294967296.0));
        };
        shorten();
        while (!over() && spent() < until && idle_ < most_idle) {
            const std::uint64_t before = j.sweeps();
            if (separate(j, 100, 2, until)) {
                failures.clear();
                if (j.sweeps() - before > 40)
                    step = std::max(least_step, step / 2);
                else if (j.sweeps() - before < 10)
                    step = std::min(most_step, step * 1.5);
                back_to_best(j);
                shorten();
                continue;
            }
            if (over() || spent() >= until) break;
            if (step > 2 * least_step) {
                step = std::max(least_step, step / 2);
                back_to_best(j);
                shorten();
                continue;
            }
            failures.push_back({j.total_overlap(), j.pieces()});
            std::sort(failures.begin(), failures.end(), [](const Failure& a, const Failure& b) { return a.overlap < b.overlap; });
            const double r = static_cast<double>(random()) / 4294967296.0;
            j.set_pieces(failures[static_cast<std::size_t>(r * r * static_cast<double>(failures.size()))].pieces);
            j.shake();
        }
    }

    /// Ever smaller steps from the best.
    void compress(Jostle& j, std::mt19937& random) {
        double step = 5e-4;
        while (!over() && idle_ < most_idle) {
            back_to_best(j);
            const double usable = j.room().last_x1 - j.room().x0;
            j.shorten(usable * step, j.room().x0 + usable * (static_cast<double>(random()) / 4294967296.0));
            step = separate(j, 60, 2, 1) ? std::min(2e-3, step * 1.25) : std::max(1e-5, step * 0.7);
        }
    }
};

}  // namespace

Result<NestSolution> nest(const NestProblem& problem, const NestOptions& options, const Task& task,
                          const std::function<void(const NestSolution&)>& better) {
    if (const auto fault = problem_fault(problem)) return *fault;
    // layouts come from several threads: one at a time, and only those that beat what was handed out before
    std::mutex guard;
    std::optional<NestSolution> handed;
    const std::function<void(const NestSolution&)> in_turn = [&](const NestSolution& s) {
        const std::scoped_lock lock(guard);
        if (!better || (handed && !shorter(s, *handed))) return;
        handed = s;
        better(s);
    };
    return Settling(problem, options, task, in_turn).go();
}

}  // namespace orthema
