#include "core/pressing/heat.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>
#include <set>
#include <tuple>

#include "core/base/units.h"

namespace orthema {

namespace {

/// Behind a sheet that protects the other side little of the heat is left.
constexpr double protected_share = 0.2;
/// A design on the other side heats this one where the platen covers at least this share of it.
constexpr double covered_from = 0.05;

bool flat_side(const Decoration& d) {
    const Face f = location_face(d.location);
    return f == Face::front || f == Face::back;
}

/// Where heat comes from when a size is pressed: the pad, or each place of the platen; else the ink itself.
std::vector<Rect> heated(const SizeFit& size) {
    if (size.platen.pad_place) return {*size.platen.pad_place};
    if (!size.platen.presses.empty()) return size.platen.presses;
    return {size.ink};
}

double shared(const Rect& a, const Rect& b) {
    const double w = std::min(a.x1, b.x1) - std::max(a.x0, b.x0), h = std::min(a.y1, b.y1) - std::max(a.y0, b.y0);
    return w <= 0 || h <= 0 ? 0 : w * h;
}

bool covers(const std::vector<Rect>& platens, const Rect& ink) {
    double most = 0;
    for (const Rect& p : platens) most = std::max(most, shared(p, ink));
    return most >= covered_from * ink.width() * ink.height();
}

/// By how much of its heat a press of `now` reaches what is there of `then`: 1, a share through the garment, or 0.
double reach(const Decoration& now, const SizeFit& now_at, const Decoration& then, const SizeFit& then_at, bool guarded) {
    if (on_one_panel(now, then)) return covers(heated(now_at), then_at.ink) ? 1 : 0;
    if (now.run != then.run || !flat_side(now) || !flat_side(then)) return 0;
    Rect ink = then_at.ink;
    if (location_face(now.location) != location_face(then.location)) ink = {-ink.x1, ink.y0, -ink.x0, ink.y1};
    return covers(heated(now_at), ink) ? (guarded ? protected_share : through_share) : 0;
}

double ink_area(const FitPlan& plan, const Decoration& d) {
    const DecorationFit* fit = find_fit(plan, d.id);
    if (fit == nullptr || fit->sizes.empty()) return 0;
    const SizeFit& s = fit->sizes[fit->sizes.size() / 2];
    return s.width * s.height;
}

double hottest(const Order& order, const Decoration& d) {
    double most = 0;
    for (const RecipeStep& s : recipe_for(order, d).steps) most = std::max(most, heats(s) ? s.celsius : 0);
    return most;
}

bool off_body(const Decoration& d) {
    switch (location_face(d.location)) {
    case Face::left_sleeve:
    case Face::right_sleeve:
    case Face::left_leg:
    case Face::right_leg:
    case Face::hood: return true;
    default: return false;
    }
}

}  // namespace

Stack stack_of(const Decoration& dec, const TransferSet& set, const std::string& size) {
    Stack out;
    std::vector<Layer> layers = dec.making.layers;
    if (const MakingOf* making = find_making(set, dec.id, size); making != nullptr && making->made != nullptr) {
        const Made& made = *making->made;
        if (layers.empty()) layers = made.input.making.layers;
        out.layers = marries(made.input.method) ? 1 : std::max(1, static_cast<int>(made.layers.size()));
        out.parts = made.split ? std::max(1, static_cast<int>(made.pieces.size()) / out.layers) : 1;
    } else {
        out.layers = std::max(1, static_cast<int>(layers.size()));
    }
    for (int i = out.layers; i-- > 0;)
        out.names.push_back(out.layers > 1 && i < static_cast<int>(layers.size()) ? layers[static_cast<std::size_t>(i)].name : "");
    return out;
}

namespace {

/// A design on one size, as far as heat goes.
struct Heated {
    const Decoration* dec = nullptr;
    const SizeFit* here = nullptr;
    Stack stack;
    double bears_seconds = 0;
    int bears_heats = 0;
    double most_celsius = 0;
    bool guarded = false;
    std::vector<PlannedStep> steps;  ///< those that heat
};

/// Nothing where the design is not on that size.
std::optional<Heated> heated_on(const Order& order, const FitPlan& plan, const TransferSet& set, const Decoration& dec,
                                const std::string& size) {
    const DecorationFit* fit = find_fit(plan, dec.id);
    Heated out;
    out.dec = &dec;
    out.here = fit == nullptr ? nullptr : find_size(*fit, size);
    const Method* method = method_of(order, dec);
    if (out.here == nullptr || method == nullptr) return std::nullopt;
    out.stack = stack_of(dec, set, size);
    out.bears_seconds = method->bears_seconds;
    out.bears_heats = method->bears_heats;
    const ChosenRecipe recipe = recipe_for(order, dec);
    out.most_celsius = recipe.most_celsius;
    for (const RecipeStep& s : recipe.steps) out.guarded = out.guarded || s.protect_other;
    out.steps = planned_steps(recipe.steps, out.stack.layers, out.stack.parts, method->bears_seconds);
    std::erase_if(out.steps, [](const PlannedStep& p) { return !heats(p.step); });
    return out;
}

std::vector<HeatLine> ledger_of(const std::vector<const Heated*>& in_order) {
    std::vector<HeatLine> lines;
    std::vector<const Heated*> whose;                                  // of each line
    std::map<std::tuple<const Heated*, int, int>, std::size_t> index;  // design, layer, part
    const auto heat = [&](HeatLine& line, const std::string& by, const RecipeStep& step, double share) {
        line.seconds += step.seconds * share;
        if (share > protected_share) ++line.heats;
        line.celsius = std::max(line.celsius, step.celsius);
        line.from.push_back({by, step.kind, step.seconds * share, step.celsius, share < 1});
    };
    for (const Heated* now : in_order) {
        const Decoration& dec = *now->dec;
        int lying = -1;  // the layer that was put on last
        // where fields of a large design lap, ink is heated with each of them
        const std::vector<Rect>& fields = now->here->platen.presses;
        const int times = fields.size() < 2 ? 1 : most_fields_over(fields, now->here->ink);
        for (const PlannedStep& p : now->steps) {
            for (std::size_t k = 0; k < lines.size(); ++k)
                if (whose[k] != now)
                    if (const double share = reach(dec, *now->here, *whose[k]->dec, *whose[k]->here, now->guarded); share > 0)
                        heat(lines[k], dec.id, p.step, share);
            if (p.layer >= 0) {
                lying = p.layer;
                if (index.try_emplace({now, p.layer, p.part}, lines.size()).second) {
                    HeatLine line;
                    line.decoration = dec.id;
                    line.layer = p.layer;
                    line.part = p.part;
                    line.name = dec.name;
                    if (now->stack.layers > 1) line.name += ", " + now->stack.names[static_cast<std::size_t>(p.layer)];
                    line.limit = now->bears_seconds;
                    line.most_heats = now->bears_heats;
                    line.most_celsius = now->most_celsius;
                    lines.push_back(std::move(line));
                    whose.push_back(now);
                }
            }
            if (lying < 0) continue;  // before anything lies there
            for (std::size_t k = 0; k < lines.size(); ++k) {
                if (whose[k] != now) continue;
                // of a split design only what lies next to the part is under the platen again
                if (p.part >= 0 && lines[k].part >= 0 && lines[k].part < p.part - 1) continue;
                for (int t = 0; t < times; ++t) heat(lines[k], dec.id, p.step, 1);
            }
        }
    }
    return lines;
}

/// Lines that do not hold, over all sizes; of each size the designs by their place among the run's.
int broken(const std::vector<std::vector<std::optional<Heated>>>& sizes, const std::vector<std::size_t>& way) {
    int out = 0;
    for (const auto& designs : sizes) {
        std::vector<const Heated*> in_order;
        for (const std::size_t i : way)
            if (designs[i]) in_order.push_back(&*designs[i]);
        for (const HeatLine& l : ledger_of(in_order)) out += l.holds() ? 0 : 1;
    }
    return out;
}

}  // namespace

std::vector<HeatLine> heat_ledger(const Order& order, const FitPlan& plan, const TransferSet& set, const std::string& size,
                                  const std::vector<const Decoration*>& in_order) {
    std::vector<std::optional<Heated>> designs;
    designs.reserve(in_order.size());
    for (const Decoration* d : in_order) designs.push_back(heated_on(order, plan, set, *d, size));
    std::vector<const Heated*> there;
    for (const auto& d : designs)
        if (d) there.push_back(&*d);
    std::vector<HeatLine> lines = ledger_of(there);
    for (HeatLine& l : lines)
        if (l.part >= 0) l.name = phrase("{name}, part {n}", order.unit, {{"name", l.name}, {"n", l.part + 1}});
    return lines;
}

std::vector<PressTurn> press_turns(const Order& order, const FitPlan& plan, const TransferSet& set, const RunKey& run) {
    std::vector<PressTurn> out;
    struct Ranked {
        const Decoration* d;
        bool off_body;
        double celsius, area;
        bool back, inside_out;
    };
    std::vector<Ranked> own;
    for (const Decoration& d : order.decorations)
        if (d.run == run && find_fit(plan, d.id) != nullptr)
            own.push_back({&d, off_body(d), hottest(order, d), ink_area(plan, d), location_face(d.location) == Face::back,
                           side_of(d.location).inside_out});
    const auto wished = [&](const Ranked& r) {
        return std::find(order.press_run.order.begin(), order.press_run.order.end(), r.d->id) - order.press_run.order.begin();
    };
    const bool by_hand = std::any_of(
        own.begin(), own.end(), [&](const Ranked& r) { return wished(r) < static_cast<std::ptrdiff_t>(order.press_run.order.size()); });
    const auto hot = [](const Ranked& r) { return std::lround(r.celsius / 25); };  // a few degrees do not matter
    std::stable_sort(own.begin(), own.end(), [&](const Ranked& a, const Ranked& b) {
        return std::tuple(a.inside_out, a.off_body, -hot(a), a.area, a.back) <
               std::tuple(b.inside_out, b.off_body, -hot(b), b.area, b.back);
    });
    if (by_hand) {
        std::stable_sort(own.begin(), own.end(), [&](const Ranked& a, const Ranked& b) { return wished(a) < wished(b); });
    } else if (own.size() > 1 && own.size() <= 6) {
        std::set<std::string> names;
        for (const Ranked& r : own)
            for (const SizeFit& s : find_fit(plan, r.d->id)->sizes) names.insert(s.size);
        std::vector<std::vector<std::optional<Heated>>> sizes;
        for (const std::string& size : names) {
            sizes.emplace_back();
            for (const Ranked& r : own) sizes.back().push_back(heated_on(order, plan, set, *r.d, size));
        }
        std::vector<std::size_t> way(own.size()), best;
        for (std::size_t i = 0; i < way.size(); ++i) way[i] = i;
        // how often the garment is turned inside out, which comes right side out
        const auto turned = [&](const std::vector<std::size_t>& of) {
            int n = 0;
            for (std::size_t i = 0; i < of.size(); ++i) n += own[of[i]].inside_out != (i > 0 && own[of[i - 1]].inside_out) ? 1 : 0;
            return n;
        };
        const std::pair fewest{0, turned(way)};
        std::pair least{1 << 30, 0};
        do {  // in lexicographic order, so the trade's own comes first
            if (const std::pair n{broken(sizes, way), turned(way)}; n < least) {
                least = n;
                best = way;
            }
        } while (least > fewest && std::next_permutation(way.begin(), way.end()));
        std::vector<Ranked> sorted;
        sorted.reserve(best.size());
        for (const std::size_t i : best) sorted.push_back(own[i]);
        own = std::move(sorted);
    }
    for (std::size_t i = 0; i < own.size(); ++i) {
        const Ranked& r = own[i];
        const char* why = nullptr;
        if (own.size() == 1)
            why = "the only design";
        else if (by_hand)
            why = "as you set it";
        else if (i + 1 < own.size() && own[i + 1].off_body && !r.off_body)
            why = "before the sleeves: they lie under the platen's edge";
        else if (r.off_body)
            why = "last: the body lies flat before it is turned";
        else if (i + 1 < own.size() && hot(r) > hot(own[i + 1]))
            why = "first: the hotter press would spoil what is on";
        else if (i + 1 < own.size() && r.area < own[i + 1].area)
            why = "small before large: the large platen heats it once more";
        else if (i + 1 < own.size())
            why = "so that no design is heated past its limit";
        else
            why = "after the others: it is the largest";
        out.push_back({r.d, said(order.unit, why)});
    }
    return out;
}

Findings heat_findings(const Order& order, const FitPlan& plan, const TransferSet& set) {
    Findings out;
    std::set<std::string> said;
    const auto say = [&](const char* code, const Decoration& d, const std::string& size, Arguments args) {
        if (!said.insert(code + d.id).second) return;
        args.emplace_back("design", d.name);
        out.push_back(finding(code, subject_of("press", d, size), std::move(args)));
    };
    for (const RunKey& run : runs_of(order)) {
        const std::vector<PressTurn> turns = press_turns(order, plan, set, run);
        std::vector<const Decoration*> in_order;
        in_order.reserve(turns.size());
        for (const PressTurn& t : turns) in_order.push_back(t.decoration);
        const BlankStyle* style = find_style(order, run.style);
        for (const SizeCount& count : counts_of(order, run)) {
            for (const HeatLine& l : heat_ledger(order, plan, set, count.size, in_order)) {
                const Decoration& d = *find_decoration(order, l.decoration);
                const ChosenRecipe recipe = recipe_for(order, d);
                const bool beside = std::any_of(l.from.begin(), l.from.end(), [&](const HeatSource& s) { return s.decoration != d.id; });
                if (l.most_celsius > 0 && l.celsius > l.most_celsius)
                    say("too-hot-for-cloth", d, count.size,
                        {{"heat", heat_words(l.celsius, order.press_run.fahrenheit)},
                         {"most", heat_words(l.most_celsius, order.press_run.fahrenheit)},
                         {"fabric", style != nullptr ? style->fabric : "this blank"},
                         {"because", Term{recipe.because}}});
                if (l.limit > 0 && l.seconds > l.limit + 1e-9)
                    say("heated-too-long", d, count.size,
                        {{"layer", l.name},
                         {"seconds", Number{l.seconds}},
                         {"limit", Number{l.limit}},
                         {"mend", Phrases{{{beside ? "mend-beside" : "mend-tacks", {}}}}}});
                else if (l.most_heats > 0 && l.heats > l.most_heats)
                    say("heated-too-often", d, count.size, {{"layer", l.name}, {"heats", l.heats}, {"most", l.most_heats}});
                else if (std::any_of(l.from.begin(), l.from.end(), [](const HeatSource& s) { return s.through && s.seconds > 0; }))
                    say("print-behind", d, count.size, {});
            }
        }
        for (const Decoration* d : in_order) {
            const DecorationFit* fit = find_fit(plan, d->id);
            const double celsius = hottest(order, *d);
            if (style != nullptr && celsius > 120 &&
                (style->fabric.find("glued") != std::string::npos || style->fabric.find("neoprene") != std::string::npos))
                say("glued-seams", *d, "", {{"blank", style->name}});
            for (const SizeFit& s : fit->sizes) {
                const Ground* ground = find_ground(*fit, s.size);
                if (ground == nullptr) continue;
                for (const RaisedBox& raised : ground->raised)
                    if (raised.name.find("snap") != std::string::npos && covers(heated(s), raised.box))
                        say("snaps-under-platen", *d, s.size, {});
            }
        }
    }
    return out;
}

}  // namespace orthema
