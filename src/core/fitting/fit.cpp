#include "core/fitting/fit.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <tuple>

#include "core/fitting/cutting.h"
#include "core/fitting/draft.h"
#include "core/fitting/fit_findings.h"
#include "core/order/roster.h"
#include "core/order/rules.h"

namespace orthema {

const char* sizing_school_name(SizingSchool s) {
    switch (s) {
    case SizingSchool::one_size: return "one size";
    case SizingSchool::bands: return "bands";
    case SizingSchool::graded: return "graded";
    }
    return "";
}

Panel panel_for(const BlankStyle& style, const std::string& size, Location location) {
    return fitting_panel(style, size, location_face(location));
}

const DecorationFit* find_fit(const FitPlan& plan, const std::string& id) {
    for (const DecorationFit& d : plan.decorations)
        if (d.decoration == id) return &d;
    return nullptr;
}

const SizeFit* find_size(const DecorationFit& fit, const std::string& size) {
    for (const SizeFit& s : fit.sizes)
        if (s.size == size) return &s;
    return nullptr;
}

const Ground* find_ground(const DecorationFit& fit, const std::string& size) {
    if (fit.ground == nullptr) return nullptr;
    for (const Ground& g : fit.ground->sizes)
        if (g.size == size) return &g;
    return nullptr;
}

SizeFit with_word(SizeFit s, const Decoration& d, const std::string& word, const ArtFactsById& facts) {
    if (word.empty()) return s;
    const auto picture = facts.find(word_art(d.art, word));
    if (picture == facts.end()) return s;
    s.word = picture->first;
    s.word_ink = word_box(s.ink, picture->second);
    return s;
}

SizeFit dressed(const Order& order, const Decoration& d, SizeFit size, const OrderLine& line, const ArtFactsById& facts) {
    const Lettering* lettering = lettering_of(order, d);
    if (lettering == nullptr || line.size != size.size || run_of(line) != d.run) return size;
    return with_word(std::move(size), d, word_for(*lettering, line), facts);
}

std::vector<int> hardest_to_fit(const Order& order, const RunKey& run, const ArtFactsById& facts) {
    std::vector<std::pair<const Decoration*, const Lettering*>> worn_on;
    for (const Decoration& d : order.decorations)
        if (const Lettering* lettering = d.run == run ? lettering_of(order, d) : nullptr) worn_on.emplace_back(&d, lettering);
    std::vector<std::pair<double, int>> all;
    const auto& lines = order.lines.all();
    for (std::size_t i = 0; i < lines.size(); ++i) {
        if (lines[i].quantity <= 0 || !is_person(lines[i]) || run_of(lines[i]) != run) continue;
        double wide = 0;  // as the face would have it, in fields
        for (const auto& [d, lettering] : worn_on) {
            const auto known = facts.find(word_art(d->art, word_for(*lettering, lines[i])));
            if (known != facts.end() && known->second.lettered) wide = std::max(wide, width_by_nature(*lettering, *known->second.lettered));
        }
        all.emplace_back(wide, static_cast<int>(i));
    }
    std::stable_sort(all.begin(), all.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
    std::vector<int> out;
    out.reserve(all.size());
    for (const auto& [wide, i] : all) out.push_back(i);
    return out;
}

Rect word_box(const Rect& field, const ArtFacts& facts) {
    if (!facts.lettered) return field;
    const Rect& in = facts.lettered->in_field;
    const double w = field.width();
    return {field.x0 + in.x0 * w, field.y0 + in.y0 * w, field.x0 + in.x1 * w, field.y0 + in.y1 * w};
}

Region placed_outline(const Region& outline, const SizeFit& s) {
    return mapped(outline, Affine{s.width, 0, 0, s.width, s.ink.x0, s.ink.y0});
}

bool on_one_panel(const Decoration& a, const Decoration& b) { return a.run == b.run && side_of(a.location) == side_of(b.location); }

Words binding_words(const Bound& b) {
    switch (b.what) {
    case Binding::ideal: return {"binds-ideal", {}};
    case Binding::pinned: return {"binds-pinned", {}};
    case Binding::covering: return {"binds-covering", {}};
    case Binding::obstacle: return {"binds-obstacle", {{"name", Term{b.name}}}};
    case Binding::platen: return {"binds-platen", {}};
    case Binding::medium: return {"binds-medium", {}};
    case Binding::cutter: return {"binds-cutter", {}};
    case Binding::resolution: return {"binds-resolution", {}};
    case Binding::band: return {"binds-band", {{"size", b.name}}};
    case Binding::smallest: return {"binds-smallest", {{"size", b.name}}};
    case Binding::shared: return {"binds-shared", {}};
    case Binding::nothing: break;
    }
    return {"binds-nothing", {}};
}

std::string binding_text(const Bound& b, const Reading& reading) { return worded(binding_words(b), reading); }

namespace {

constexpr int curve_length = 12;  ///< of the cost curve: more bands than this nobody prints

/// Decorations whose widths are cut together: those that follow one rule within one class.
struct Party {
    std::vector<const Decoration*> of;
};

/// The order of fitting: parties by their first member's place. Who is fitted before whom decides who keeps clear of whom.
std::vector<Party> parties(const Order& order) {
    std::vector<Party> out;
    std::map<std::tuple<std::string, AgeGroup, Family>, std::size_t> known;
    for (const Decoration& d : order.decorations) {
        const BlankStyle* style = d.rule.empty() || d.departs || d.making.cover ? nullptr : find_style(order, d.run.style);
        if (style == nullptr) {
            out.push_back({{&d}});
            continue;
        }
        const GarmentClass of = class_of(style->family);
        const auto [at, fresh] = known.try_emplace({d.rule, of.group, of.family}, out.size());
        if (fresh)
            out.push_back({{&d}});
        else
            out[at->second].of.push_back(&d);
    }
    return out;
}

/// For each decoration those before it on the same panel.
std::map<std::string, std::vector<const Decoration*>> those_ahead(const std::vector<Party>& all) {
    std::map<std::string, std::vector<const Decoration*>> out;
    std::map<RunKey, std::vector<const Decoration*>> on_run;
    for (const Party& p : all)
        for (const Decoration* d : p.of) {
            std::vector<const Decoration*>& before = on_run[d->run];
            std::vector<const Decoration*>& mine = out[d->id];
            for (const Decoration* other : before)
                if (on_one_panel(*other, *d)) mine.push_back(other);
            before.push_back(d);
        }
    return out;
}

std::vector<std::string> ids_of(const std::vector<const Decoration*>& of, const std::map<std::string, const DecorationFit*>& fitted) {
    std::vector<std::string> out;
    for (const Decoration* d : of)
        if (fitted.contains(d->id)) out.push_back(d->id);
    return out;
}

std::vector<std::string> ids_of(const Party& party) {
    std::vector<std::string> out;
    for (const Decoration* d : party.of) out.push_back(d->id);
    return out;
}

void set_widths(std::vector<Draft>& drafts) {
    if (drafts.empty()) return;
    if (drafts.front().decoration->making.cover) {
        for (Draft& d : drafts) cover_blank(d);
        return;
    }
    std::vector<CutLot> lots;
    lots.reserve(drafts.size());
    for (Draft& d : drafts) lots.push_back({d.decoration, d.style, &d.fit});
    cut_widths(lots);
}

std::vector<Joining> joinings_of(const Order& order, const Decoration& d, const Lettering& lettering, const SizeFit& s,
                                 const ArtFactsById& facts) {
    std::vector<Joining> out;
    if (!lettering.digits) return out;
    for (const Worn& w : worn(order, lettering, d.run, s.size)) {
        const auto known = facts.find(word_art(d.art, w.word));
        if (printed_as(lettering, w.word).size() < 2 || known == facts.end() || !known->second.lettered) continue;
        if (std::any_of(out.begin(), out.end(), [&](const Joining& j) { return j.number == w.word; })) continue;
        Joining joining{w.word, {}, word_box(s.ink, known->second)};
        for (const double x : known->second.lettered->lefts) joining.lefts.push_back((x - 0.5) * s.width);
        out.push_back(std::move(joining));
    }
    return out;
}

/// Shows on each size what one and the same person wears: whose words are the widest.
void show_widest_words(const Order& order, const ArtFactsById& facts, FitPlan& plan) {
    if (std::none_of(order.art.begin(), order.art.end(), [](const Art& a) { return a.lettering.has_value(); }))
        return;  // at every step of a drag
    std::map<RunKey, std::vector<int>> hardest;
    for (DecorationFit& f : plan.decorations) {
        const Decoration* d = find_decoration(order, f.decoration);
        const Lettering* lettering = d == nullptr ? nullptr : lettering_of(order, *d);
        if (lettering == nullptr) continue;
        const auto [all, fresh] = hardest.try_emplace(d->run);
        if (fresh) all->second = hardest_to_fit(order, d->run, facts);
        for (SizeFit& s : f.sizes) {
            s.joinings = joinings_of(order, *d, *lettering, s, facts);
            s.word.clear();
            for (const int i : all->second) {
                const OrderLine& line = order.lines.all()[static_cast<std::size_t>(i)];
                if (line.size != s.size) continue;
                s = dressed(order, *d, std::move(s), line, facts);
                break;
            }
        }
    }
}

}  // namespace

std::optional<DecorationFit> fit_decoration(const Order& order, const Decoration& d, const ArtFacts& facts,
                                            const std::vector<const DecorationFit*>& ahead, std::shared_ptr<const GroundRun> known) {
    DraftsSoFar so_far;
    auto draft = draft_of(order, d, facts, ahead, std::move(known), false, so_far);
    if (!draft) return std::nullopt;
    std::vector<Draft> one;
    one.push_back(std::move(*draft));
    set_widths(one);
    return finished(std::move(one.front()));
}

std::vector<Shortfall> shortfall_curve(const Decoration& decoration, const DecorationFit& fit) {
    std::vector<Shortfall> out;
    const double step = decoration.sizing.step.mm();
    for (const Partition& p : optimal_partitions(BandCosts(fit.cut_from, step), curve_length))
        out.push_back(shortfall(fit.cut_from, p, step));
    return out;
}

FitPlan refit(const Order& order, const ArtFactsById& facts, const Order& before, const FitPlan& then) {
    const bool same_styles = order.styles == before.styles;
    const bool same_ground = same_styles && order.lines == before.lines && order.media == before.media && order.presses == before.presses &&
                             order.art == before.art;
    const std::vector<Party> all = parties(order), all_before = same_ground ? parties(before) : std::vector<Party>{};
    const auto ahead = those_ahead(all), ahead_before = those_ahead(all_before);
    std::map<std::string, const DecorationFit*> fitted_then, fitted;
    for (const DecorationFit& f : then.decorations) fitted_then[f.decoration] = &f;
    std::map<std::string, std::vector<std::string>> party_then;  // by its first member
    for (const Party& p : all_before) party_then[p.of.front()->id] = ids_of(p);
    std::map<std::string, const Decoration*> was;
    for (const Decoration& d : before.decorations) was[d.id] = &d;

    std::map<std::string, DecorationFit> made;
    DraftsSoFar so_far;
    std::set<std::string> anew;  // decorations that were not taken over
    for (const Party& party : all) {
        const auto stays = [&](const Decoration* d) {
            const auto old = was.find(d->id);
            if (old == was.end() || *old->second != *d || !fitted_then.contains(d->id)) return false;
            // the same designs must have lain ahead of it then, where they lie now
            const auto then_ahead = ahead_before.find(d->id);
            if (then_ahead == ahead_before.end() || ids_of(then_ahead->second, fitted_then) != ids_of(ahead.at(d->id), fitted))
                return false;
            return std::none_of(ahead.at(d->id).begin(), ahead.at(d->id).end(), [&](const Decoration* o) { return anew.contains(o->id); });
        };
        const auto known_party = party_then.find(party.of.front()->id);
        if (same_ground && known_party != party_then.end() && known_party->second == ids_of(party) &&
            std::all_of(party.of.begin(), party.of.end(), stays)) {
            for (const Decoration* d : party.of) fitted[d->id] = &made.emplace(d->id, *fitted_then.at(d->id)).first->second;
            continue;
        }
        std::vector<Draft> drafts;
        for (const Decoration* d : party.of) {
            anew.insert(d->id);
            const auto art = facts.find(d->art);
            if (art == facts.end()) continue;
            std::vector<const DecorationFit*> near;
            for (const Decoration* o : ahead.at(d->id))
                if (const auto at = fitted.find(o->id); at != fitted.end()) near.push_back(at->second);
            const auto known = fitted_then.find(d->id);
            auto draft = draft_of(order, *d, art->second, std::move(near), known == fitted_then.end() ? nullptr : known->second->ground,
                                  same_styles, so_far);
            if (draft) drafts.push_back(std::move(*draft));
        }
        set_widths(drafts);
        for (Draft& d : drafts) {
            const std::string id = d.decoration->id;
            fitted[id] = &made.emplace(id, finished(std::move(d))).first->second;
        }
    }
    FitPlan plan;
    plan.decorations.reserve(made.size());
    for (const Decoration& d : order.decorations)
        if (const auto at = made.find(d.id); at != made.end()) plan.decorations.push_back(std::move(at->second));
    show_widest_words(order, facts, plan);
    gather_findings(order, facts, plan);
    return plan;
}

FitPlan fit(const Order& order, const ArtFactsById& facts) { return refit(order, facts, Order{}, FitPlan{}); }

}  // namespace orthema
