#include "core/sheets/lay_out.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <map>
#include <set>
#include <utility>

#include "core/nesting/fill.h"
#include "core/nesting/guillotine.h"
#include "core/sheets/seam.h"

namespace orthema {

namespace {

using Clock = std::chrono::steady_clock;

/// Part of a medium's copies as a problem of its own; its copies are numbered anew.
struct Part {
    NestProblem problem;
    std::vector<std::vector<int>> copies;  ///< by piece, the numbers in the whole
    [[nodiscard]] int count() const {
        int n = 0;
        for (const auto& c : copies) n += static_cast<int>(c.size());
        return n;
    }
};

class LayingOut {
public:
    LayingOut(const Medium& medium, const TransferSet& set, const MediumLayout& now, const NestOptions& options, const Task& task,
              const std::function<void(const LaidOut&)>& better, const StockCounts& counts)
        : medium_(medium), set_(set), options_(options), task_(task), better_(better), counts_(counts) {
        whole_ = sheet_problem({medium, {}}, set, now);
        std::set<int> held;
        if (keeps_whole_sheets())
            for (const PlacedCopy& c : now.copies)
                if (c.locked) held.insert(c.sheet);
        std::map<int, int> to;
        for (const int s : held) to[s] = static_cast<int>(to.size());
        std::set<std::pair<int, int>> lying;
        present_ = to_placements(whole_, now.copies);
        for (const NestPlacement& p : present_) stock_there_.push_back(stock_of(now.stock, p.bin));
        for (const NestPlacement& p : present_)
            if (to.contains(p.bin) && lying.insert({p.piece, p.copy}).second) {
                PlacedCopy c = to_copies(whole_, {p})[0];
                c.sheet = to[p.bin];
                held_.copies.push_back(c);
            }
        for (const int s : held) held_.stock.push_back(stock_of(now.stock, s));
        left_.resize(whole_.pieces.size());
        for (std::size_t i = 0; i < whole_.pieces.size(); ++i)
            for (int c = 0; c < whole_.pieces[i].count; ++c)
                if (!lying.contains({static_cast<int>(i), c})) left_[i].push_back(c);
    }

    Result<LaidOut> go() {
        Result<LaidSheets> laid = LaidSheets{};
        if (!medium_.laying.stock.empty()) {
            laid = on_stock();
        } else if (medium_.laying.together != Together::nothing) {
            constexpr double at_once = 0.08;  // of the time, for a first layout of all groups
            laid = in_groups({medium_, {}}, {}, left_, options_.seconds * at_once, at_once);
            if (!laid) return laid.error();
            offer(with_held(*laid));
            laid = in_groups({medium_, {}}, {}, left_, options_.seconds * (1 - spent()), 1 - at_once);
        } else {
            return plain();
        }
        if (!laid) return laid.error();
        offer(with_held(*laid));
        return *best_;
    }

private:
    const Medium& medium_;
    const TransferSet& set_;
    const NestOptions& options_;
    const Task& task_;
    const std::function<void(const LaidOut&)>& better_;
    const StockCounts& counts_;
    Clock::time_point begun_ = Clock::now();
    NestProblem whole_;
    LaidSheets held_;                     ///< sheets that stay
    std::vector<std::vector<int>> left_;  ///< by piece, the copies that do not lie on them
    std::vector<NestPlacement> present_;  ///< what lies there
    std::vector<std::string> stock_there_;
    std::optional<LaidOut> best_;

    [[nodiscard]] bool keeps_whole_sheets() const {
        return !medium_.laying.stock.empty() || medium_.laying.together != Together::nothing || medium_.laying.cutting == Cutting::trimmer;
    }
    static double since(Clock::time_point then) { return std::chrono::duration<double>(Clock::now() - then).count(); }
    [[nodiscard]] double spent() const { return since(begun_) / std::max(1e-3, options_.seconds); }

    void offer(const LaidSheets& sheets) {
        const LaidOut out = measured(medium_, set_, sheets);
        if (best_ && !beats(medium_, out, *best_)) return;
        best_ = out;
        if (better_) better_(out);
    }

    [[nodiscard]] LaidSheets with_held(const LaidSheets& sheets) const {
        LaidSheets out = held_;
        append(out, sheets);
        if (std::all_of(out.stock.begin(), out.stock.end(), [](const std::string& s) { return s.empty(); })) out.stock.clear();
        return out;
    }

    /// The engine for how it is cut.
    [[nodiscard]] Result<NestSolution> engine(const NestProblem& problem, double seconds, double share, const Task& task,
                                              const std::function<void(const NestSolution&)>& better = {}) const {
        GuillotineOptions o{medium_.laying.stages, options_};
        o.nest.seconds = seconds;
        if (o.nest.rounds > 0) o.nest.rounds = std::max(1, static_cast<int>(std::lround(o.nest.rounds * share)));
        return medium_.laying.cutting == Cutting::trimmer ? nest_guillotine(problem, o, task, better) : nest(problem, o.nest, task, better);
    }

    [[nodiscard]] Part part_of(const Bed& bed, const std::vector<std::vector<int>>& copies) const {
        Part part{whole_, copies};
        const NestProblem sized = sheet_problem(bed, set_, MediumLayout{medium_.id, {}});
        part.problem.width = sized.width;
        part.problem.max_length = sized.max_length;
        part.problem.blocked = sized.blocked;
        part.problem.seams = sized.seams;
        part.problem.locked.clear();
        part.problem.start.clear();
        for (std::size_t i = 0; i < copies.size(); ++i) {
            part.problem.pieces[i].count = static_cast<int>(copies[i].size());
            part.problem.pieces[i].crosses = sized.pieces[i].crosses;
        }
        return part;
    }

    /// Without the pieces that it has none of, which an engine would prepare for nothing.
    [[nodiscard]] Part small_part_of(const Bed& bed, const std::vector<std::vector<int>>& copies) const {
        Part part = part_of(bed, copies);
        std::erase_if(part.problem.pieces, [](const NestPiece& p) { return p.count == 0; });
        std::erase_if(part.copies, [](const std::vector<int>& c) { return c.empty(); });
        return part;
    }

    /// As they lie now, where all of them do and on this stock; on their own first sheet, from its start. The engine looks whether
    /// that is sound.
    void begin_with_present(Part& part, const std::string& stock) const {
        std::map<std::pair<std::string, int>, std::size_t> at;
        for (std::size_t i = 0; i < present_.size(); ++i)
            at[{whole_.pieces[static_cast<std::size_t>(present_[i].piece)].id, present_[i].copy}] = i;
        std::vector<NestPlacement> lying;
        int first = std::numeric_limits<int>::max(), last = -1;
        double begin = std::numeric_limits<double>::infinity();
        for (std::size_t i = 0; i < part.copies.size(); ++i)
            for (std::size_t c = 0; c < part.copies[i].size(); ++c) {
                const auto found = at.find({part.problem.pieces[i].id, part.copies[i][c]});
                if (found == at.end() || stock_there_[found->second] != stock) return;
                NestPlacement p = present_[found->second];
                p.piece = static_cast<int>(i);
                p.copy = static_cast<int>(c);
                first = std::min(first, p.bin);
                last = std::max(last, p.bin);
                begin = std::min(begin, bounds(placed_outline(part.problem, p).outer).x0);
                lying.push_back(p);
            }
        for (NestPlacement& p : lying) {
            p.bin -= first;
            if (first == last) p.x -= begin - part.problem.margin;
        }
        part.problem.start = std::move(lying);
    }

    [[nodiscard]] std::vector<PlacedCopy> copies_of(const Part& part, const std::vector<NestPlacement>& placements,
                                                    int first_sheet = 0) const {
        std::vector<PlacedCopy> out = to_copies(part.problem, placements);
        for (std::size_t k = 0; k < out.size(); ++k) {
            const NestPlacement& p = placements[k];
            out[k].copy = part.copies[static_cast<std::size_t>(p.piece)][static_cast<std::size_t>(p.copy)];
            out[k].sheet += first_sheet;
        }
        return out;
    }

    /// One kind of bed, no groups: the engine alone, going on from what is there.
    Result<LaidOut> plain() {
        Part part = part_of({medium_, {}}, left_);
        if (!keeps_whole_sheets()) {
            part.problem.locked = whole_.locked;
            part.problem.start = whole_.start;
        } else if (held_.copies.empty()) {
            part.problem.start = whole_.start;
        }
        const auto laid = [&](const NestSolution& s) { return measured(medium_, set_, with_held({copies_of(part, s.placements), {}})); };
        const auto solution = engine(part.problem, options_.seconds, 1, task_, [&](const NestSolution& s) {
            if (better_) better_(laid(s));
        });
        if (!solution) return solution.error();
        return laid(*solution);
    }

    // ---- groups

    /// All on one sheet, or the answer that it takes more: that is known after a third of the time.
    Result<NestSolution> on_one(NestProblem problem, double seconds, double share) const {
        constexpr double look = 0.3;
        auto found = engine(problem, seconds * look, share * look, task_);
        if (!found || found->bins > 1) return found;
        problem.start = found->placements;
        auto more = engine(problem, seconds * (1 - look), share * (1 - look), task_);
        return more && more->bins == 1 && more->last_length <= found->last_length ? more : found;
    }

    /// Group after group, all of them in that time; where rounds are counted, in that part of them. What of a group lies there by
    /// itself is gone on from.
    Result<LaidSheets> in_groups(const Bed& bed, const std::string& stock, const std::vector<std::vector<int>>& copies, double seconds,
                                 double part_of_rounds = 1) {
        const Clock::time_point begun = Clock::now();
        const auto left = [&] { return std::max(0.0, seconds - since(begun)); };
        if (medium_.laying.together == Together::nothing) {
            Part part = part_of(bed, copies);
            if (part.count() == 0) return LaidSheets{};
            begin_with_present(part, stock);
            const auto s = engine(part.problem, seconds, part_of_rounds, task_);
            if (!s) return s.error();
            return LaidSheets{copies_of(part, s->placements), {}};
        }
        std::vector<std::string> order;
        std::vector<std::string> of;
        double all = 0;
        for (std::size_t i = 0; i < whole_.pieces.size(); ++i) {
            const Transfer* t = find_transfer(set_, whole_.pieces[i].id);
            of.push_back(t == nullptr ? "" : group_of(medium_, *t));
            if (std::find(order.begin(), order.end(), of.back()) == order.end()) order.push_back(of.back());
            all += area(whole_.pieces[i].outline) * static_cast<double>(copies[i].size());
        }
        LaidSheets out;
        int sheet = 0;
        double end = 0;  // of the pieces on the sheet so far
        double size_left = all;
        for (const std::string& group : order) {
            std::vector<std::vector<int>> own(copies.size());
            double size = 0;
            for (std::size_t i = 0; i < copies.size(); ++i)
                if (of[i] == group) {
                    own[i] = copies[i];
                    size += area(whole_.pieces[i].outline) * static_cast<double>(copies[i].size());
                }
            Part part = small_part_of(bed, own);
            if (part.count() == 0) continue;
            begin_with_present(part, stock);
            const double share = all > 0 ? size / all : 1;
            const double own_end = size_left > 0 ? left() * (1 - size / size_left) : 0;  // what later groups keep
            size_left -= size;
            bool placed = false;
            if (end > 0) {  // on what is left of the sheet, where all of it fits there
                Part rest = part;
                const double offset = end + part.problem.gap - part.problem.margin;
                rest.problem.max_length -= offset;
                const Rect there{part.problem.margin, part.problem.margin, std::min(rest.problem.max_length, 1e5) - part.problem.margin,
                                 part.problem.width - part.problem.margin};
                for (auto* kept : {&rest.problem.blocked, &rest.problem.seams}) {
                    const std::vector<Polygon> before = std::exchange(*kept, {});
                    for (const Polygon& b : before)
                        for (Polygon& p : intersect(mapped(Region{b}, Affine::shift(-offset, 0)), box_region(there)))
                            kept->push_back(std::move(p));
                }
                if (size < (rest.problem.max_length - 2 * rest.problem.margin) * (rest.problem.width - 2 * rest.problem.margin)) {
                    const auto s = on_one(rest.problem, left() - own_end, share * part_of_rounds);
                    if (s && s->bins == 1) {
                        std::vector<PlacedCopy> laid = copies_of(rest, s->placements, sheet);
                        for (PlacedCopy& c : laid) c.x += offset;
                        out.copies.insert(out.copies.end(), laid.begin(), laid.end());
                        end = s->last_length - part.problem.margin + offset;
                        placed = true;
                    }
                }
                if (!placed) {
                    ++sheet;
                    end = 0;
                }
            }
            if (!placed) {
                const auto s = engine(part.problem, left() - own_end, share * part_of_rounds, task_);
                if (!s) return s.error();
                const std::vector<PlacedCopy> laid = copies_of(part, s->placements, sheet);
                out.copies.insert(out.copies.end(), laid.begin(), laid.end());
                sheet += s->bins - 1;
                end = s->last_length - part.problem.margin;
            }
        }
        return out;
    }

    // ---- stock

    struct Choice {
        std::string stock;
        Bed bed;
        std::optional<int> on_hand;
    };

    [[nodiscard]] std::optional<int> counted(const std::string& stock) const {
        const auto at = counts_.find(stock);
        return at == counts_.end() ? std::nullopt : std::optional(at->second);
    }

    [[nodiscard]] std::vector<Choice> whole_sizes() const {
        std::vector<Choice> out;
        if (counted("").value_or(1) > 0) out.push_back({"", {medium_, {}}, counted("")});
        for (const StockItem& s : medium_.laying.stock)
            if (s.shape.empty() && counted(s.id).value_or(1) > 0) out.push_back({s.id, bed_of(medium_, s.id), counted(s.id)});
        for (Choice& c : out)
            if (c.on_hand)
                for (const std::string& used : held_.stock) *c.on_hand -= used == c.stock ? 1 : 0;
        return out;
    }

    static void append(LaidSheets& to, const LaidSheets& more) {
        const int shift = static_cast<int>(to.stock.size());
        for (PlacedCopy c : more.copies) {
            c.sheet += shift;
            to.copies.push_back(c);
        }
        to.stock.insert(to.stock.end(), more.stock.begin(), more.stock.end());
    }

    /// Takes copies that lie on sheets out of those that are left.
    void take_out(std::vector<std::vector<int>>& left, const std::vector<PlacedCopy>& lying) const {
        for (const NestPlacement& p : to_placements(whole_, lying)) std::erase(left[static_cast<std::size_t>(p.piece)], p.copy);
    }

    [[nodiscard]] LaidSheets on_offcuts(std::vector<std::vector<int>>& left) const {
        LaidSheets out;
        std::vector<const StockItem*> offcuts;
        for (const StockItem& s : medium_.laying.stock)
            if (!s.shape.empty() && counted(s.id).value_or(1) > 0 &&
                std::find(held_.stock.begin(), held_.stock.end(), s.id) == held_.stock.end())
                offcuts.push_back(&s);
        std::sort(offcuts.begin(), offcuts.end(), [](const StockItem* a, const StockItem* b) {
            return area(Polygon{a->shape, {}}) < area(Polygon{b->shape, {}});
        });
        for (const StockItem* s : offcuts) {
            const Part part = part_of(bed_of(medium_, s->id), left);
            std::vector<FillOffer> offers;
            for (std::size_t i = 0; i < part.copies.size(); ++i)
                offers.push_back({static_cast<int>(i), 0, part.problem.pieces[i].count, area(part.problem.pieces[i].outline)});
            const auto found = fill_rest(part.problem, offers, 1, medium_.laying.cutting == Cutting::trimmer, 6, task_);
            if (found.empty()) continue;
            const LaidSheets laid{copies_of(part, found), {s->id}};
            take_out(left, laid.copies);
            append(out, laid);
        }
        return out;
    }

    /// All that is left on one size, as far as it is on hand, and the rest on the others.
    Result<LaidSheets> on_size(const Choice& first, const std::vector<Choice>& choices, std::vector<std::vector<int>> left,
                               double seconds) {
        LaidSheets out;
        std::vector<const Choice*> order{&first};
        for (const Choice& c : choices)
            if (c.stock != first.stock) order.push_back(&c);
        std::optional<Error> fault;
        const auto all_laid = [&] { return std::all_of(left.begin(), left.end(), [](const auto& l) { return l.empty(); }); };
        for (const Choice* c : order) {
            if (all_laid()) return out;
            if (c->on_hand && *c->on_hand <= 0) continue;
            auto laid = in_groups(c->bed, c->stock, left, seconds);
            if (!laid) {
                fault = laid.error();
                continue;
            }
            int sheets = sheet_count(laid->copies);
            if (c->on_hand && sheets > *c->on_hand) {
                sheets = *c->on_hand;
                std::erase_if(laid->copies, [&](const PlacedCopy& p) { return p.sheet >= sheets; });
            }
            laid->stock.assign(static_cast<std::size_t>(sheets), c->stock);
            take_out(left, laid->copies);
            append(out, *laid);
        }
        if (all_laid()) return out;
        return fault ? *fault : Error{"The stock on hand does not take all pieces: buy more, or take away what limits it."};
    }

    /// Each sheet's pieces on the cheapest sheet that takes them.
    LaidSheets on_cheaper(const LaidSheets& laid, const std::vector<Choice>& choices, double seconds_for_all) {
        const Clock::time_point begun = Clock::now();
        const auto left_of_it = [&] { return seconds_for_all - since(begun); };
        LaidSheets out = laid;
        std::map<std::string, int> used;
        for (const std::string& s : laid.stock) ++used[s];
        for (int sheet = static_cast<int>(laid.stock.size()) - 1; sheet >= 0; --sheet) {
            std::string& stock = out.stock[static_cast<std::size_t>(sheet)];
            const Bed now = bed_of(medium_, stock);
            if (!now.shape.outer.empty() || now.medium.shape == MediumShape::roll) continue;
            std::vector<std::vector<int>> own(left_.size());
            for (const NestPlacement& p : to_placements(whole_, laid.copies))
                if (p.bin == sheet) own[static_cast<std::size_t>(p.piece)].push_back(p.copy);
            std::vector<const Choice*> cheaper;
            for (const Choice& c : choices)
                if (c.bed.medium.price < now.medium.price && (!c.on_hand || used[c.stock] < *c.on_hand)) cheaper.push_back(&c);
            std::sort(cheaper.begin(), cheaper.end(),
                      [](const Choice* a, const Choice* b) { return a->bed.medium.price < b->bed.medium.price; });
            for (const Choice* c : cheaper) {
                const Part part = small_part_of(c->bed, own);
                if (options_.rounds <= 0 && left_of_it() <= 0) return out;
                const double seconds = std::max(0.05, left_of_it() / (2.0 * (sheet + 1)));
                const auto s = engine(part.problem, seconds, 0.05, task_);
                if (!s || s->bins != 1) continue;
                std::erase_if(out.copies, [&](const PlacedCopy& p) { return p.sheet == sheet; });
                const auto there = copies_of(part, s->placements, sheet);
                out.copies.insert(out.copies.end(), there.begin(), there.end());
                --used[stock];
                ++used[c->stock];
                stock = c->stock;
                break;
            }
        }
        return out;
    }

    Result<LaidSheets> on_stock() {
        auto left = left_;
        const LaidSheets offcuts = on_offcuts(left);
        const std::vector<Choice> choices = whole_sizes();
        struct Tried {
            const Choice* choice;
            LaidOut laid;
        };
        std::vector<Tried> tried;
        std::optional<Error> fault;
        const auto look = [&](const Choice& c, double seconds) {
            constexpr double to_cheaper = 0.15;
            auto laid = on_size(c, choices, left, seconds * (1 - to_cheaper));
            if (!laid) {
                fault = laid.error();
                return;
            }
            LaidSheets all = offcuts;
            append(all, on_cheaper(*laid, choices, seconds * to_cheaper));
            offer(with_held(all));
            tried.push_back({&c, measured(medium_, set_, std::move(all))});
        };
        const double quick = std::max(0.02, options_.seconds * 0.25 / static_cast<double>(choices.size()));
        for (const Choice& c : choices) look(c, quick);
        if (tried.empty()) return fault ? *fault : Error{"No stock is on hand: buy more, or take away what limits it."};
        std::stable_sort(tried.begin(), tried.end(), [](const Tried& a, const Tried& b) { return a.laid.cost < b.laid.cost; });
        // the two cheapest once more, with time
        std::vector<const Choice*> again;
        for (std::size_t i = 0; i < std::min<std::size_t>(2, tried.size()); ++i) again.push_back(tried[i].choice);
        for (std::size_t i = 0; i < again.size(); ++i)
            if (!task_.stopped() && spent() < 1)
                look(*again[i], std::max(0.0, options_.seconds * (1 - spent())) / static_cast<double>(again.size() - i));
        return std::min_element(tried.begin(), tried.end(), [&](const Tried& a, const Tried& b) { return beats(medium_, a.laid, b.laid); })
            ->laid.sheets;
    }
};

}  // namespace

bool beats(const Medium& medium, const LaidOut& a, const LaidOut& b) {
    if (!medium.laying.stock.empty() && std::abs(a.cost - b.cost) > 1e-6 + 1e-6 * std::abs(b.cost)) return a.cost < b.cost;
    if (medium.shape == MediumShape::roll) {  // film is paid by its length: fewer runs are no gain where they take more of it
        const double by = (a.last_length + a.others) - (b.last_length + b.others);
        if (std::abs(by) > 0.1) return by < 0;
    }
    return shorter(a, b);
}

LaidOut measured(const Medium& medium, const TransferSet& set, LaidSheets sheets) {
    LaidOut out;
    std::map<int, double> ends;
    const std::vector<Rect> boxes = laid_boxes(medium, set, sheets.copies);
    std::map<std::string, double> sizes;
    for (const Transfer& t : set.transfers) sizes[t.id] = area(t.contour);
    double used = 0, all = 0;
    for (std::size_t i = 0; i < boxes.size(); ++i) {
        double& end = ends[sheets.copies[i].sheet];
        end = std::max(end, boxes[i].x1 + medium.margin.mm());
        used += sizes[sheets.copies[i].transfer];
    }
    for (const auto& [sheet, end] : ends) {
        const Bed bed = bed_of(medium, stock_of(sheets.stock, sheet));
        const bool roll = bed.medium.shape == MediumShape::roll;
        out.cost += price_of(bed, end);
        out.last_length = end;
        const bool last = sheet == ends.rbegin()->first;
        if (roll && !last) out.others += end;
        all += bed.shape.outer.empty() ? bed.medium.width.mm() * (last || bed.medium.length.mm() <= 0 ? end : bed.medium.length.mm())
                                       : area(bed.shape);
    }
    out.bins = ends.empty() ? 0 : ends.rbegin()->first + 1;
    out.density = all > 0 ? used / all : 0;
    out.sheets = std::move(sheets);
    return out;
}

Result<LaidOut> lay_out(const Medium& medium, const TransferSet& set, const MediumLayout& now, const NestOptions& options, const Task& task,
                        const std::function<void(const LaidOut&)>& better, const StockCounts& counts) {
    auto laid = LayingOut(medium, set, now, options, task, better, counts).go();
    if (laid && medium.taped_at.mm() > 0) {
        MediumLayout layout = now;
        layout.copies = laid->sheets.copies;
        layout.stock = laid->sheets.stock;
        laid->sheets.copies = off_the_seam(medium, set, layout).copies;
    }
    if (laid) return laid;
    const Error error = laid.error();
    if (!error.words) return error;
    Words words = *error.words;
    for (auto& [key, value] : words.args)  // engines know pieces by id, people by name
        if (const auto* id = std::get_if<std::string>(&value); key == "piece" && id != nullptr)
            if (const Transfer* t = find_transfer(set, *id)) value = t->name;
    return Error{std::move(words)};
}

std::optional<StockItem> left_over(const Medium& medium, const TransferSet& set, const Sheet& sheet) {
    constexpr double sliver = 20, least = 40;
    const Bed bed = bed_of(medium, sheet.stock);
    Region left = bed.shape.outer.empty() ? box_region({0, 0, sheet.length, sheet.width}) : Region{bed.shape};
    for (const PlacedCopy& c : sheet.copies)
        if (const Transfer* t = find_transfer(set, c.transfer))
            left = subtract(left, offset({mapped(laid_outline(medium, *t), copy_map(c))}, laid_gap(medium) / 2));
    left = intersect(left, offset(offset(left, -sliver / 2, 0.2), sliver / 2, 0.2));  // an arc may stand out a little
    if (left.empty()) return std::nullopt;
    const Polygon& largest =
        *std::max_element(left.begin(), left.end(), [](const Polygon& a, const Polygon& b) { return area(a) < area(b); });
    const Rect box = bounds(largest.outer);
    if (box.width() < least || box.height() < least) return std::nullopt;
    const Affine to = Affine::shift(-box.x0, -box.y0);
    StockItem out;
    out.width = Length::from_mm(box.height());
    out.length = Length::from_mm(box.width());
    out.shape = simplified(mapped(largest.outer, to), 0.1);
    for (const Ring& hole : largest.holes) out.holes.push_back(simplified(mapped(hole, to), 0.1));
    return out;
}

MediumLayout filled(const Medium& medium, const TransferSet& set, const MediumLayout& layout, const Task& task) {
    MediumLayout out = layout;
    for (FillWish& f : out.fill) f.copies = 0;
    const auto asked = [&](const std::string& id) {
        const Transfer* t = find_transfer(set, id);
        return t == nullptr || t->medium != medium.id ? 0 : copies_asked(*t, out);
    };
    std::erase_if(out.copies, [&](const PlacedCopy& c) { return c.copy >= asked(c.transfer); });
    const int sheets = sheet_count(out.copies);
    // bed by bed, since each has its own size; of a roll only as far as it is used
    std::map<std::string, int> added;
    for (int s = 0; s < sheets && !task.stopped(); ++s) {
        Bed bed = bed_of(medium, stock_of(out.stock, s));
        std::vector<PlacedCopy> lying;
        double end = 0;
        const auto boxes = laid_boxes(medium, set, out.copies);
        for (std::size_t i = 0; i < out.copies.size(); ++i)
            if (out.copies[i].sheet == s) {
                lying.push_back(out.copies[i]);
                lying.back().sheet = 0;
                end = std::max(end, boxes[i].x1 + medium.margin.mm());
            }
        if (bed.medium.shape == MediumShape::roll) bed.medium.length = Length::from_mm(end);
        if (lying.empty()) continue;
        NestProblem p = sheet_problem(bed, set, out);
        p.blocked = kept_free(bed_of(medium, stock_of(out.stock, s)));
        p.locked = to_placements(p, lying);
        std::vector<FillOffer> offers;
        for (const FillWish& f : out.fill)
            for (std::size_t i = 0; i < p.pieces.size(); ++i)
                if (p.pieces[i].id == f.transfer && f.value > 0) {
                    const double room = p.width * std::min(p.max_length, 1e5), one = area(p.pieces[i].outline);
                    offers.push_back({static_cast<int>(i), asked(f.transfer) + added[f.transfer],
                                      static_cast<int>(std::min(400.0, room / one)), f.value});
                }
        for (PlacedCopy c : to_copies(p, fill_rest(p, offers, 1, medium.laying.cutting == Cutting::trimmer, 12, task))) {
            c.sheet = s;
            ++added[c.transfer];
            out.copies.push_back(c);
        }
    }
    for (FillWish& f : out.fill) f.copies = added[f.transfer];
    return out;
}

}  // namespace orthema
