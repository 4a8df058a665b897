#include "core/order/rules.h"

#include <algorithm>
#include <cmath>

#include "core/order/edit.h"

namespace orthema {

namespace {

/// What of a rule's sizing and placing holds for every class.
SizingRule common(SizingRule s) {
    s.base_size.clear();
    s.base_width = {};
    return s;
}
PlacingRule common(PlacingRule p) {
    p.offset = p.across = {};
    p.share = PlacingRule{}.share;
    return p;
}

ClassBase& base_in(DesignRule& rule, const GarmentClass& of) {
    for (ClassBase& b : rule.bases)
        if (b.of == of) return b;
    ClassBase& fresh = rule.bases.emplace_back();
    fresh.of = of;
    return fresh;
}

std::optional<Panel> panel_at(const BlankStyle& style, const std::string& size, Location location) {
    if (!style.chart.contains(size) || style_fault(style)) return std::nullopt;
    return panel_of(style, size, location_face(location));
}

bool has_measure(const BlankStyle& style, Measure m) {
    const auto all = family_measures(style.family);
    return std::find(all.begin(), all.end(), m) != all.end();
}

/// The decoration with the figures that the rule gives its blank.
Decoration following(const Order& order, const DesignRule& rule, const Decoration& d) {
    Decoration out = d;
    out.name = rule.name;
    out.art = rule.art;
    out.location = rule.location;
    out.meetings = rule.meetings;
    out.apart = rule.apart;
    const BlankStyle* style = find_style(order, d.run.style);
    const ClassBase* base = style == nullptr ? nullptr : find_base(rule, class_of(style->family));
    if (base == nullptr) return out;
    out.sizing = rule.sizing;
    out.sizing.base_size = base_size_of(rule, *style);
    out.sizing.base_width = base->width;
    if (!has_measure(*style, rule.sizing.measure)) out.sizing.measure = main_measure(style->family);
    out.placing = rule.placing;
    out.placing.offset = base->offset;
    out.placing.share = base->share;
    out.placing.across = base->across;
    if (rule.placing.school != PlacingSchool::pit_line && rule.placing.school != PlacingSchool::feature) return out;
    const auto panel = panel_at(*style, out.sizing.base_size, rule.location);
    if (!panel) return out;
    const bool hangs =
        rule.placing.school == PlacingSchool::pit_line ? panel->pit_y.has_value() : find_landmark(*panel, rule.placing.landmark) != nullptr;
    if (hangs) return out;
    PlacingSchool school = usual_school(rule.location);
    if (!school_applies(school, *panel) || school == rule.placing.school) school = PlacingSchool::collar_drop;
    out = with_usual_place(out, *panel, family_group(style->family), school);
    return out;
}

void follow(Order& order, const std::string& rule) {
    const DesignRule* r = find_rule(order, rule);
    if (r == nullptr) return;
    for (Decoration& d : order.decorations)
        if (d.rule == rule && !d.departs) d = following(order, *r, d);
}

void drop_orphans(Order& order) {
    std::erase_if(order.rules, [&](const DesignRule& r) {
        return std::none_of(order.decorations.begin(), order.decorations.end(), [&](const Decoration& d) { return d.rule == r.id; });
    });
}

/// A rule with the decoration's own figures, added to the order; the decoration follows it.
std::string found_rule(Order& order, const std::string& decoration) {
    Decoration& d = *find_decoration(order, decoration);
    DesignRule r;
    r.id = fresh_id(d.name + " " + location_key(d.location), order.rules);
    r.name = d.name;
    r.art = d.art;
    r.location = d.location;
    r.sizing = common(d.sizing);
    r.placing = common(d.placing);
    r.meetings = d.meetings;
    r.apart = d.apart;
    if (const BlankStyle* style = find_style(order, d.run.style)) {
        r.bases.push_back({class_of(style->family), d.sizing.base_width, d.placing.offset, d.placing.share, d.placing.across});
        if (d.sizing.base_size != usual_base_size(*style)) r.base_sizes.push_back({style->id, d.sizing.base_size});
    }
    d.rule = r.id;
    d.departs = false;
    order.rules.push_back(r);
    return r.id;
}

/// A blank of that class which the rule is on already.
const BlankStyle* style_of_class(const Order& order, const std::string& rule, const GarmentClass& of) {
    for (const Decoration& d : order.decorations) {
        if (d.rule != rule) continue;
        const BlankStyle* style = find_style(order, d.run.style);
        if (style != nullptr && class_of(style->family) == of) return style;
    }
    return nullptr;
}

/// Rounded down to whole steps of the rule, but to one at least.
Length in_steps(const DesignRule& rule, double mm) {
    const double step = std::max(0.1, rule.sizing.step.mm());
    return Length::from_mm(std::max(step, std::floor(mm / step + 1e-9) * step));
}

/// An offset that holds on one blank in the proportion of the usual ones on another, to the millimetre.
Length carried_offset(const DesignRule& rule, Length offset, const BlankStyle& from, const std::optional<Panel>& there,
                      const BlankStyle& to, const Panel& here) {
    const auto usual = [&](const BlankStyle& style, const Panel& panel) {
        return usual_offset(rule.location, rule.placing.school, family_group(style.family), panel);
    };
    const double theirs = there ? usual(from, *there) : 0, ours = usual(to, here);
    return Length::from_mm(std::round(std::abs(theirs) > 1 ? ours * offset.mm() / theirs : ours));
}

/// Base figures for a class that the rule comes to for the first time: those of a class that it has, in proportion to the measure that
/// designs are sized by and to the usual offsets of the two.
void give_base(const Order& order, DesignRule& rule, const BlankStyle& style, const Decoration& usual) {
    const GarmentClass of = class_of(style.family);
    if (find_base(rule, of) != nullptr) return;
    ClassBase base{of, usual.sizing.base_width, usual.placing.offset, usual.placing.share, {}};
    const ClassBase* known = rule.bases.empty() ? nullptr : &rule.bases.front();
    const BlankStyle* from = known == nullptr ? nullptr : style_of_class(order, rule.id, known->of);
    const std::string size = base_size_of(rule, style);
    const auto panel = panel_at(style, size, rule.location);
    if (from != nullptr && panel) {
        const std::string their_size = base_size_of(rule, *from);
        const Measure m = rule.sizing.measure;
        const auto theirs = panel_at(*from, their_size, rule.location);
        if (has_measure(style, m) && has_measure(*from, m) && from->chart.contains(their_size)) {
            const double ratio = measure_mm(style.chart.at(size), m) / std::max(1.0, measure_mm(from->chart.at(their_size), m));
            base.width = in_steps(rule, known->width.mm() * ratio);
            base.across = Length::from_mm(std::round(known->across.mm() * ratio));
        }
        base.share = known->share;
        if (rule.placing.school != PlacingSchool::body_fraction)
            base.offset = carried_offset(rule, known->offset, *from, theirs, style, *panel);
    }
    rule.bases.push_back(base);
}

/// The usual place of the rule's school on every class but one, in the proportion in which that one has left its usual place.
void carry_school(const Order& order, DesignRule& rule, const GarmentClass& but) {
    const ClassBase chosen = *find_base(rule, but);
    const BlankStyle* mine = style_of_class(order, rule.id, but);
    const auto my_panel = mine == nullptr ? std::nullopt : panel_at(*mine, base_size_of(rule, *mine), rule.location);
    for (ClassBase& b : rule.bases) {
        if (b.of == but) continue;
        const BlankStyle* style = style_of_class(order, rule.id, b.of);
        const auto panel = style == nullptr ? std::nullopt : panel_at(*style, base_size_of(rule, *style), rule.location);
        b.share = chosen.share;
        if (!panel || !my_panel || rule.placing.school == PlacingSchool::body_fraction) continue;
        b.offset = carried_offset(rule, chosen.offset, *mine, my_panel, *style, *panel);
    }
}

}  // namespace

GarmentClass class_of(Family family) {
    const AgeGroup group = family_group(family);
    if (group == AgeGroup::any) return {group, family};
    return {group, {}};
}

std::string class_name(const GarmentClass& of) {
    if (of.group == AgeGroup::any) return family_name(of.family);
    return capitalised(age_group_name(of.group));
}

const DesignRule* rule_of(const Order& order, const Decoration& d) {
    return d.rule.empty() || d.departs ? nullptr : find_rule(order, d.rule);
}

const ClassBase* find_base(const DesignRule& rule, const GarmentClass& of) {
    const auto at = std::find_if(rule.bases.begin(), rule.bases.end(), [&](const ClassBase& b) { return b.of == of; });
    return at == rule.bases.end() ? nullptr : &*at;
}

std::string base_size_of(const DesignRule& rule, const BlankStyle& style) {
    for (const BlankBase& b : rule.base_sizes)
        if (b.style == style.id && size_index(style, b.size) >= 0) return b.size;
    return usual_base_size(style);
}

Order followed(Order order) {
    drop_orphans(order);
    for (Decoration& d : order.decorations)
        if (find_rule(order, d.rule) == nullptr) {
            d.rule.clear();
            d.departs = false;
        }
    for (const DesignRule& r : std::vector(order.rules)) follow(order, r.id);
    return order;
}

Order with_rule_edited(const Order& order, const Decoration& before, const Decoration& d) {
    Order out = order;
    DesignRule* r = find_rule(out, d.rule);
    const BlankStyle* style = find_style(order, d.run.style);
    if (r == nullptr || style == nullptr) return out;
    const Decoration was = following(order, *r, before);
    const GarmentClass of = class_of(style->family);
    const bool hung_otherwise = was.placing.school != r->placing.school || was.placing.landmark != r->placing.landmark;
    if (d.placing != was.placing && hung_otherwise) {
        find_decoration(out, d.id)->departs = true;
        return out;
    }
    r->name = d.name;
    r->art = d.art;
    r->meetings = d.meetings;
    r->apart = d.apart;
    ClassBase& base = base_in(*r, of);
    if (d.sizing != was.sizing) {
        const Measure kept = d.sizing.measure == was.sizing.measure ? r->sizing.measure : d.sizing.measure;
        r->sizing = common(d.sizing);
        r->sizing.measure = kept;
        base.width = d.sizing.base_width;
        if (d.sizing.base_size != was.sizing.base_size) {
            std::erase_if(r->base_sizes, [&](const BlankBase& b) { return b.style == style->id; });
            if (d.sizing.base_size != usual_base_size(*style)) r->base_sizes.push_back({style->id, d.sizing.base_size});
        }
    }
    if (d.placing != was.placing) {
        const bool other_school = d.placing.school != was.placing.school || d.placing.landmark != was.placing.landmark;
        r->placing = common(d.placing);
        base.offset = d.placing.offset;
        base.share = d.placing.share;
        base.across = d.placing.across;
        if (other_school) carry_school(out, *r, of);
    }
    follow(out, d.rule);
    return out;
}

std::optional<Words> why_not(const Order& order, const RunKey& run, Location location) {
    const BlankStyle* style = find_style(order, run.style);
    if (style == nullptr) return Words{"cannot-blank", {}};
    if (style_fault(*style)) return Words{"cannot-figures", {}};
    const auto have = locations_of(*style);
    if (std::find(have.begin(), have.end(), location) == have.end())
        return Words{"cannot-location", {{"location", location_name(location, style->family)}}};
    const Face face = location_face(location);
    if (std::none_of(order.presses.begin(), order.presses.end(), [&](const Press& p) { return takes(p.kind, face); }))
        return Words{"cannot-press", {{"location", location_name(location, style->family)}}};
    return std::nullopt;
}

Words passed_words(const Order& order, const std::vector<PassedOver>& passed) {
    const PassedOver& first = passed.front();
    Arguments args{{"run", run_name(order, first.run)}, {"why", Phrases{{first.why}}}};
    if (passed.size() == 1) return {"passed-over", std::move(args)};
    args.emplace_back("n", static_cast<int>(passed.size()) - 1);
    return {"passed-over-more", std::move(args)};
}

namespace {

/// In a gang each job has rules of its own, unless somebody puts a design on another's garments.
bool serves(const Order& order, const DesignRule& rule, const std::string& job) {
    bool any = false;
    for (const Decoration& d : order.decorations) {
        if (d.rule != rule.id) continue;
        if (d.run.job == job) return true;
        any = true;
    }
    return !any;
}

}  // namespace

Order with_new_design(const Order& order, const RunKey& run, Location location, const Art& art, std::string* made) {
    Order out = order;
    Decoration d = new_decoration(order, run, location, art);
    if (made != nullptr) *made = d.id;
    const BlankStyle* style = find_style(order, run.style);
    for (DesignRule& r : out.rules) {
        if (r.art != art.id || r.location != location || style == nullptr || !serves(order, r, run.job)) continue;
        give_base(out, r, *style, d);
        d.rule = r.id;
        out.decorations.push_back(following(out, r, d));
        return out;
    }
    out.decorations.push_back(d);
    found_rule(out, d.id);
    return out;
}

Order with_design_on(const Order& order, const std::string& decoration, const std::vector<RunKey>& runs, std::vector<PassedOver>* passed) {
    Order out = order;
    if (find_decoration(out, decoration) == nullptr) return out;
    if (find_decoration(out, decoration)->rule.empty()) found_rule(out, decoration);
    const Decoration pattern = *find_decoration(out, decoration);
    DesignRule* r = find_rule(out, pattern.rule);
    const Art* art = r == nullptr ? nullptr : find_art(order, r->art);
    if (art == nullptr) return order;
    for (const RunKey& run : runs) {
        const auto there = std::find_if(out.decorations.begin(), out.decorations.end(), [&](const Decoration& d) {
            return d.run == run && (d.rule == r->id || (d.rule.empty() && d.art == r->art && d.location == r->location));
        });
        if (there != out.decorations.end() && there->rule == r->id) continue;
        if (const auto why = why_not(out, run, r->location)) {
            if (passed != nullptr) passed->push_back({run, *why});
            continue;
        }
        Decoration d = there != out.decorations.end() ? *there : new_decoration(out, run, r->location, *art);
        give_base(out, *r, *find_style(out, run.style), d);
        d.rule = r->id;
        if (there != out.decorations.end()) {
            *there = following(out, *r, d);
            continue;
        }
        d.medium = pattern.medium;
        if (const Press* p = find_press(out, pattern.press); p != nullptr && takes(p->kind, location_face(r->location)))
            d.press = pattern.press;
        d.spares = pattern.spares;
        d.making = pattern.making;
        out.decorations.push_back(following(out, *r, d));
    }
    return out;
}

Order with_design_off(const Order& order, const std::string& decoration, const std::vector<RunKey>& runs) {
    Order out = order;
    const Decoration* d = find_decoration(order, decoration);
    if (d == nullptr) return out;
    std::erase_if(out.decorations, [&](const Decoration& o) {
        return (o.id == d->id || (!d->rule.empty() && o.rule == d->rule)) && std::find(runs.begin(), runs.end(), o.run) != runs.end();
    });
    drop_orphans(out);
    return out;
}

Order with_design_moved(const Order& order, const std::string& decoration, Location location, std::vector<PassedOver>* passed) {
    Order out = order;
    Decoration* d = find_decoration(out, decoration);
    if (d == nullptr || d->location == location) return out;
    if (rule_of(out, *d) == nullptr) found_rule(out, decoration);  // also where it has parted: another place is another design
    const std::string moving = find_decoration(out, decoration)->rule;
    std::vector<std::string> stay;
    for (const Decoration& o : out.decorations) {
        if (o.rule != moving) continue;
        const auto why = why_not(out, o.run, location);
        if (!why && !o.departs) continue;
        if (why && passed != nullptr) passed->push_back({o.run, *why});
        stay.push_back(o.id);
    }
    std::string left_rule;
    for (const std::string& id : stay) {
        if (left_rule.empty()) {
            DesignRule left = *find_rule(out, moving);
            left_rule = left.id = fresh_id(left.id, out.rules);
            out.rules.push_back(left);
        }
        find_decoration(out, id)->rule = left_rule;
    }
    DesignRule& r = *find_rule(out, moving);
    const Location from = r.location;
    r.location = location;
    r.placing = common(PlacingRule{});
    r.placing.growth = find_rule(order, moving) != nullptr ? find_rule(order, moving)->placing.growth : 0.5;
    r.meetings.clear();
    for (ClassBase& b : r.bases) {
        const BlankStyle* style = style_of_class(out, moving, b.of);
        const auto panel = style == nullptr ? std::nullopt : panel_at(*style, base_size_of(r, *style), location);
        if (!panel) continue;
        // as much of the new place as it took of the old one
        if (const auto old = panel_at(*style, base_size_of(r, *style), from); old && old->width > 0) {
            const double share = usual_width_share(location) * panel->width / (usual_width_share(from) * old->width);
            if (std::abs(share - 1) > 0.02) b.width = in_steps(r, b.width.mm() * share);
        }
        Decoration usual;
        usual.location = location;
        usual = with_usual_place(usual, *panel, family_group(style->family), usual_school(location));
        r.placing.school = usual.placing.school;
        if (r.placing.landmark.empty()) r.placing.landmark = usual.placing.landmark;
        b.offset = usual.placing.offset;
        b.share = usual.placing.share;
        b.across = {};
    }
    return followed(std::move(out));
}

Order with_picture(const Order& order, const std::string& decoration, const Art& art, bool everywhere) {
    Order out = order;
    Decoration* d = find_decoration(out, decoration);
    if (d == nullptr || d->art == art.id) return out;
    DesignRule* r = d->departs ? nullptr : find_rule(out, d->rule);
    if (r == nullptr) {
        d->art = art.id;
        d->name = art.name;
        d->meetings.clear();
        return out;
    }
    const auto follows = [&](const Decoration& o) { return o.rule == d->rule && !o.departs; };
    if (everywhere || std::count_if(out.decorations.begin(), out.decorations.end(), follows) == 1) {
        r->art = art.id;
        r->name = art.name;
        r->meetings.clear();
        follow(out, r->id);
        return out;
    }
    const BlankStyle* style = find_style(out, d->run.style);
    const auto same = std::find_if(out.rules.begin(), out.rules.end(), [&](const DesignRule& o) {
        return o.art == art.id && o.location == d->location && style != nullptr && serves(out, o, d->run.job) &&
               find_base(o, class_of(style->family)) != nullptr;
    });
    if (same != out.rules.end()) {
        d->rule = same->id;
    } else {
        DesignRule own = *r;
        own.id = fresh_id(art.name + " " + location_key(own.location), out.rules);
        own.name = art.name;
        own.art = art.id;
        own.meetings.clear();
        d->rule = own.id;
        out.rules.push_back(own);
    }
    follow(out, d->rule);
    return out;
}

Order with_departure(const Order& order, const std::string& decoration) {
    Order out = order;
    if (Decoration* d = find_decoration(out, decoration); d != nullptr && !d->rule.empty()) d->departs = true;
    return out;
}

Order with_return(const Order& order, const std::string& decoration) {
    Order out = order;
    if (Decoration* d = find_decoration(out, decoration)) {
        d->departs = false;
        follow(out, d->rule);
    }
    return out;
}

Order with_one_rule(const Order& order, const std::string& decoration) {
    const Decoration* d = find_decoration(order, decoration);
    if (d == nullptr) return order;
    std::vector<RunKey> runs;
    for (const Decoration& o : order.decorations)
        if (o.rule.empty() && o.art == d->art && o.location == d->location) runs.push_back(o.run);
    return with_design_on(order, decoration, runs);
}

Order with_class_base(const Order& order, const std::string& rule, const ClassBase& base) {
    Order out = order;
    if (DesignRule* r = find_rule(out, rule)) {
        base_in(*r, base.of) = base;
        follow(out, rule);
    }
    return out;
}

Findings rule_findings(const Order& order) {
    Findings out;
    for (const Decoration& d : order.decorations) {
        const DesignRule* r = rule_of(order, d);
        if (r == nullptr || (d.placing.school == r->placing.school && d.placing.landmark == r->placing.landmark)) continue;
        const BlankStyle* style = find_style(order, d.run.style);
        out.push_back(finding("rule-hangs-otherwise", subject_of("fit", d),
                              {{"design", d.name},
                               {"run", run_name(order, d.run)},
                               {"what", r->placing.school == PlacingSchool::pit_line ? Term{"pit line"} : Term{r->placing.landmark}},
                               {"blank", style == nullptr ? d.run.style : style->name}}));
    }
    return out;
}

}  // namespace orthema
