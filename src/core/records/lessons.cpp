#include "core/records/lessons.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/order/recipes.h"
#include "core/records/photo_scale.h"
#include "core/records/place.h"

namespace orthema {

namespace {

constexpr int least_gaps = 6;         ///< wraps measured
constexpr double least_gap = 0.5;     ///< mm worth a change
constexpr int least_widths = 8;       ///< widths measured
constexpr double least_shrink = 0.5;  ///< per cent worth a change
constexpr int least_times = 12;
constexpr double least_slower = 0.1;               ///< of the handling
constexpr int least_seen = 60, least_spoiled = 2;  ///< pieces, before spares are proposed
constexpr double rare = 0.001;                     ///< chance that a mean lies so far from nought by itself

double to_half(double mm) { return std::round(mm * 2) / 2; }

std::string key_of(const Correction& c) {
    std::string key = correction_key(c.kind);
    for (const std::string* part : {&c.press, &c.platen, &c.hands, &c.style, &c.size, &c.method, &c.design}) key += '/' + *part;
    if (!c.batch.empty()) key += '/' + c.batch;
    if (c.kind == CorrectionKind::recipe || c.kind == CorrectionKind::look) key += '/' + c.words;
    return key;
}

/// When what this would change was last changed; what was pressed before says nothing of how it is now.
std::string changed_at(const std::vector<Lesson>& known, const Correction& about) {
    std::string at;
    for (const Lesson& l : known) {
        const Correction& c = l.correction;
        if (c.kind != about.kind || c.press != about.press || c.style != about.style || c.method != about.method || c.batch != about.batch)
            continue;
        if ((l.state == LessonState::taken || l.state == LessonState::taken_back) && l.at > at) at = l.at;
    }
    return at;
}

class Proposer {
public:
    Proposer(const std::vector<PressRecord>& all, const std::vector<std::size_t>& which, const std::vector<Lesson>& known,
             const Order& order)
        : all_(all),
          which_(which.end() - static_cast<std::ptrdiff_t>(std::min(which.size(), most_judged)), which.end()),
          known_(known),
          order_(order) {}

    std::vector<Correction> all() {
        place();
        wraps();
        widths();
        recipes();
        proofs();
        times();
        spares();
        photographs();
        return std::move(out_);
    }

private:
    const std::vector<PressRecord>& all_;
    const std::vector<std::size_t> which_;
    const std::vector<Lesson>& known_;
    const Order& order_;
    std::vector<Correction> out_;

    void propose(Correction c) {
        const std::string key = key_of(c);
        int before = 0;
        for (const Lesson& l : known_) {
            if (key_of(l.correction) != key) continue;
            ++before;
            if (l.state == LessonState::declined && c.pieces < 2 * l.correction.pieces) return;
            if (l.state == LessonState::taken && c.kind == CorrectionKind::recipe) return;
        }
        c.id = key + '#' + std::to_string(before + 1);
        if (c.records.size() > 200) c.records.erase(c.records.begin(), c.records.end() - 200);
        out_.push_back(std::move(c));
    }

    void place() {
        const std::vector<const PressRecord*> rows = landings_as_it_is(all_, which_, known_);
        std::map<std::string, Correction> marks;  // both axes of one place are one change
        for (const Displaced& d : displaced(rows)) {
            Correction c;
            c.by = d.by;
            c.low = d.sure.low;
            c.high = d.sure.high;
            c.pieces = d.pieces;
            c.records = d.records;
            const bool of_blank =
                d.cause == Cause::blank || d.cause == Cause::size || (d.cause == Cause::all && d.press.empty() && !d.style.empty());
            if (of_blank && d.axis == Axis::down) {
                c.kind = CorrectionKind::neck_drop;
                c.style = d.style;
                if (d.cause == Cause::size) c.size = d.size;
                c.by = -to_half(d.by);  // it lies too low under a collar that is higher than its figure says
                c.low = -d.sure.high;
                c.high = -d.sure.low;
                propose(std::move(c));
                continue;
            }
            if (of_blank) {
                c.kind = CorrectionKind::look;
                c.style = d.style;
                c.size = d.cause == Cause::size ? d.size : std::string();
                c.words = "its chest";
                propose(std::move(c));
                continue;
            }
            const PressRecord* first = nullptr;
            for (const PressRecord* r : rows)
                if (first == nullptr && r->id == d.records.front()) first = r;
            std::vector<std::pair<std::string, std::string>> on;  // where it acts: one press, or each
            if (d.cause == Cause::press && first != nullptr)
                on.emplace_back(first->press, first->platen);
            else if (d.cause != Cause::hands) {
                std::set<std::pair<std::string, std::string>> all;
                for (const PressRecord* r : rows) all.emplace(r->press, r->platen);
                on.assign(all.begin(), all.end());
            } else
                on.emplace_back();
            for (const auto& [press, platen] : on) {
                Correction m = c;
                m.kind = CorrectionKind::loading_marks;
                m.press = press;
                m.platen = platen;
                if (d.cause == Cause::hands) m.hands = d.hands;
                const auto [at, fresh] = marks.try_emplace(key_of(m), m);
                (d.axis == Axis::aside ? at->second.aside : at->second.down) = to_half(d.by);
                if (!fresh && std::abs(d.by) > std::abs(at->second.by)) {
                    at->second.by = d.by;
                    at->second.low = d.sure.low;
                    at->second.high = d.sure.high;
                }
                for (const Cause other : d.or_else)
                    if (other == Cause::hands) at->second.words = "hands";
            }
        }
        for (auto& [key, c] : marks) propose(std::move(c));
    }

    /// Means of one figure by what it is about, where they stand out.
    template <class Figure, class About>
    void means(CorrectionKind kind, int least, double worth, double step, Figure figure, About about) {
        struct Seen {
            Correction c;
            std::vector<double> values;
        };
        std::map<std::string, Seen> seen;
        for (const std::size_t i : which_) {
            const PressRecord& r = all_[i];
            const std::optional<double> v = figure(r);
            if (!v) continue;
            Correction c;
            c.kind = kind;
            about(r, c);
            if (r.at <= changed_at(known_, c)) continue;
            Seen& s = seen.try_emplace(key_of(c), Seen{c, {}}).first->second;
            s.values.push_back(*v);
            s.c.records.push_back(r.id);
        }
        for (auto& [key, s] : seen) {
            const double n = static_cast<double>(s.values.size()), mean = mean_of(s.values);
            if (s.values.size() < static_cast<std::size_t>(least) || std::abs(mean) < worth) continue;
            const double error = std::max(1e-9, spread_of(s.values) / std::sqrt(n));
            if (2 * (1 - t_cdf(std::abs(mean) / error, n - 1)) > rare) continue;
            const double wide = error * t_quantile(0.975, n - 1);
            s.c.by = std::round(mean / step) * step;
            s.c.low = mean - wide;
            s.c.high = mean + wide;
            s.c.pieces = static_cast<int>(s.values.size());
            propose(std::move(s.c));
        }
    }

    void wraps() {
        means(
            CorrectionKind::circumference, least_gaps, least_gap, 0.5,
            [](const PressRecord& r) { return r.landing ? r.landing->gap : std::optional<double>(); },
            [](const PressRecord& r, Correction& c) {
                c.style = r.style;
                c.size = r.size;
                c.batch = r.box;
            });
    }

    void widths() {
        means(
            CorrectionKind::shrink, least_widths, least_shrink, 0.1,
            [](const PressRecord& r) { return r.landing && r.landing->wider ? std::optional<double>(-*r.landing->wider) : std::nullopt; },
            [](const PressRecord& r, Correction& c) { c.method = r.method; });
        std::map<std::string, std::vector<std::size_t>> by_design;
        for (const std::size_t i : which_) by_design[all_[i].method + '\n' + all_[i].design].push_back(i);
        for (const auto& [key, of] : by_design) {  // a backing that shows
            Correction c;
            c.kind = CorrectionKind::layer_growth;
            c.method = all_[of.front()].method;
            c.design = all_[of.front()].design;
            const std::string changed = changed_at(known_, c);
            int shows = 0, tries = 0;
            for (const std::size_t i : of) {
                if (all_[i].at <= changed) continue;
                ++tries;
                if (all_[i].outcome != Outcome::backing_showing) continue;
                ++shows;
                c.records.push_back(all_[i].id);
            }
            const Interval share = share_interval(shows, tries);
            if (shows < 2 || share.low < 0.03) continue;
            c.by = -0.5;
            c.low = share.low;
            c.high = share.high;
            c.pieces = shows;
            propose(std::move(c));
        }
    }

    void recipes() {
        std::map<std::string, std::vector<std::size_t>> at;
        for (const std::size_t i : which_) at[all_[i].method + '\n' + all_[i].style + '\n' + all_[i].press].push_back(i);
        std::set<std::string> done;
        for (const Decoration& d : order_.decorations) {
            const Method* method = method_of(order_, d);
            if (method == nullptr) continue;
            const std::string key = method->id + '\n' + d.run.style + '\n' + d.press;
            const auto of = at.find(key);
            if (of == at.end() || !done.insert(key).second) continue;
            const ChosenRecipe recipe = recipe_for(order_, d);
            for (Proposal& p : try_next(recipe.steps, all_, of->second, recipe.most_celsius, order_.press_run.fahrenheit)) {
                Correction c;
                c.kind = CorrectionKind::recipe;
                c.method = method->id;
                c.style = d.run.style;
                c.press = d.press;
                c.words = worded(p.next.words, Unit::mm);
                c.pieces = p.tries;
                const Interval share = share_interval(p.failed, p.tries);
                c.by = static_cast<double>(p.failed) / p.tries;
                c.low = share.low;
                c.high = share.high;
                propose(std::move(c));
                break;  // one step in one figure
            }
        }
    }

    void proofs() {
        struct Seen {
            int papers = 0;
            std::array<int, plate_corner_count> dark{};
        };
        std::map<std::string, Seen> seen;
        for (const std::size_t i : which_) {
            const PressRecord& r = all_[i];
            if (r.proof == Proof::none) continue;
            Seen& s = seen[r.press];
            ++s.papers;
            for (unsigned c = 0; c < s.dark.size(); ++c) s.dark[c] += (r.patches >> c & 1U) != 0 ? 1 : 0;
        }
        for (const auto& [press, s] : seen)
            for (std::size_t c = 0; c < s.dark.size(); ++c) {
                if (s.dark[c] < 3 || share_interval(s.dark[c], s.papers).low < 0.15) continue;
                Correction out;
                out.kind = CorrectionKind::look;
                out.press = press;
                out.words = plate_corner_name(static_cast<int>(c));
                out.pieces = s.dark[c];
                out.by = static_cast<double>(s.dark[c]) / s.papers;
                propose(std::move(out));
            }
    }

    void times() {
        Correction c;
        c.kind = CorrectionKind::hand_times;
        const std::string changed = changed_at(known_, c);
        std::vector<double> ratio;
        for (const std::size_t i : which_) {
            const PressRecord& r = all_[i];
            if (r.planned <= 0 || r.took <= 0 || r.at <= changed) continue;
            ratio.push_back(std::log(r.took / r.planned));
            c.records.push_back(r.id);
        }
        if (ratio.size() < least_times) return;
        const double mid = median_of(ratio), error = 1.2533 * robust_spread(ratio) / std::sqrt(static_cast<double>(ratio.size()));
        if (std::abs(std::exp(mid) - 1) < least_slower || std::abs(mid) < 3 * error) return;
        c.by = std::round(std::exp(mid) * 20) / 20;
        c.low = std::exp(mid - 1.96 * error);
        c.high = std::exp(mid + 1.96 * error);
        c.pieces = static_cast<int>(ratio.size());
        propose(std::move(c));
    }

    void photographs() {
        Correction c;
        c.kind = CorrectionKind::photo_scale;
        const auto found = photo_scale(order_.styles, changed_at(known_, c));
        if (!found || !found->differs) return;
        c.by = std::round(found->by * 20) / 20;
        c.low = found->sure.low;
        c.high = found->sure.high;
        c.pieces = found->sizes;
        propose(std::move(c));
    }

    void spares() {
        std::map<std::string, std::pair<int, int>> seen;  // by method and press: spoiled, all
        for (const std::size_t i : which_) {
            auto& [spoiled, all] = seen[all_[i].method];
            all += all_[i].pieces;
            const bool lost = all_[i].mended == Mended::spoiled || all_[i].mended == Mended::printed_again;
            spoiled += lost ? 1 : 0;
        }
        for (const Decoration& d : order_.decorations) {
            const Method* method = method_of(order_, d);
            const auto at = method == nullptr ? seen.end() : seen.find(method->id);
            if (at == seen.end() || at->second.second < least_seen || at->second.first < least_spoiled) continue;
            int wanted = 0;
            for (const SizeCount& c : counts_of(order_, d.run)) wanted = std::max(wanted, c.quantity);
            const int spares = spares_for(wanted, at->second.first, at->second.second);
            if (spares <= d.spares || wanted == 0) continue;
            Correction c;
            c.kind = CorrectionKind::spares;
            c.design = d.id;
            c.by = spares;
            const Interval share = share_interval(at->second.first, at->second.second);
            c.low = share.low;
            c.high = share.high;
            c.pieces = at->second.second;
            propose(std::move(c));
        }
    }
};

}  // namespace

std::vector<const PressRecord*> landings_as_it_is(const std::vector<PressRecord>& all, const std::vector<std::size_t>& which,
                                                  const std::vector<Lesson>& known) {
    const auto of = [](const std::string& about, const std::string& own) { return about.empty() || about == own; };
    const auto moved_since = [&](const PressRecord& r) {
        return std::any_of(known.begin(), known.end(), [&](const Lesson& l) {
            const Correction& c = l.correction;
            if (r.at > l.at || (l.state != LessonState::taken && l.state != LessonState::taken_back)) return false;
            if (c.kind == CorrectionKind::loading_marks) return of(c.press, r.press) && of(c.platen, r.platen) && of(c.hands, r.hands);
            return c.kind == CorrectionKind::neck_drop && c.style == r.style && of(c.size, r.size);
        });
    };
    std::vector<const PressRecord*> out;
    for (const std::size_t i : which)
        if (all[i].landing && !moved_since(all[i])) out.push_back(&all[i]);
    return out;
}

const char* lesson_state_name(LessonState s) {
    static constexpr std::array<const char*, lesson_state_count> names{"open", "taken", "declined", "taken back"};
    return names[static_cast<std::size_t>(s)];
}

std::vector<Correction> proposals(const std::vector<PressRecord>& all, const std::vector<std::size_t>& which,
                                  const std::vector<Lesson>& known, const Order& order) {
    return Proposer(all, which, known, order).all();
}

}  // namespace orthema
