#include "core/fitting/fit_findings.h"

#include <algorithm>
#include <cmath>
#include <tuple>

#include "core/fitting/together.h"
#include "core/order/roster.h"

namespace orthema {

Phrases who(const Order& order, const Decoration& d, const std::string& size) {
    if (size.empty()) return {{{"who", {{"design", d.name}, {"run", run_name(order, d.run)}}}}};
    return {{{"who-size", {{"design", d.name}, {"run", run_name(order, d.run)}, {"size", size}}}}};
}

Subject about(const Decoration& d, const std::string& size) {
    Subject s;
    s.decoration = d.id;
    s.size = size;
    return s;
}

namespace {

/// What lifts a limit.
const char* limit_remedy(Binding by) {
    switch (by) {
    case Binding::platen: return "mend-platen";
    case Binding::medium: return "mend-medium";
    case Binding::cutter: return "mend-cutter";
    case Binding::resolution: return "mend-picture";
    default: return "mend-place";
    }
}

}  // namespace

void say_size(const Order& order, const Decoration& d, const Panel& panel, const std::vector<Clash>& clashes, const SizeFit& s,
              Findings& findings) {
    const auto say = [&](const char* code, Arguments args) {
        args.emplace_back("who", who(order, d, s.size));
        findings.push_back(finding(code, about(d, s.size), std::move(args)));
    };
    if (const Rect blank = bounds(panel.outline); blank.width() > 0 && !s.ink.meets(blank)) {
        // not on it at all: what it would clash with there is beside the point
        const bool aside = s.ink.x1 < blank.x0 || s.ink.x0 > blank.x1;
        const double by = aside ? std::max(blank.x0 - s.ink.x0, s.ink.x1 - blank.x1) : std::max(blank.y0 - s.ink.y0, s.ink.y1 - blank.y1);
        const char* way = aside ? (s.ink.x1 < blank.x0 ? "onto-right" : "onto-left") : (s.ink.y1 < blank.y0 ? "onto-down" : "onto-up");
        say("ink-off-blank", {{"mend", Phrases{{{way, {{"by", AtLeast{by}}}}}}}});
        return;
    }
    for (const Clash& c : clashes) {
        Words mend{"mend-smaller", {}};
        if (c.move && norm(*c.move) > 0) {
            const Point by = *c.move;
            mend = {by.y < 0 ? "mend-up" : by.y > 0 ? "mend-down" : by.x < 0 ? "mend-left" : "mend-right", {{"by", AtLeast{norm(by)}}}};
        }
        say(c.over ? "ink-over" : "ink-too-close", {{"feature", Term{c.with}}, {"short", AtLeast{c.short_by}}, {"mend", Phrases{{mend}}}});
    }
    for (const Feature& f : panel.features) {
        if (f.kind != Feature::Kind::cover) continue;
        double hidden = 0;
        for (const Polygon& p : f.place) {
            const Rect r = bounds(p.outer);
            if (r.meets(s.ink)) hidden = std::max(hidden, std::min(r.y1, s.ink.y1) - std::max(r.y0, s.ink.y0));
        }
        if (hidden > 1) say("ink-hidden", {{"feature", Term{f.name}}, {"hidden", Length::from_mm(hidden)}});
    }
    const Art* art = d.meetings.empty() ? nullptr : find_art(order, d.art);
    for (const Meeting& m : d.meetings) {
        if (art == nullptr) break;
        const auto mark = std::find_if(art->marks.begin(), art->marks.end(), [&](const NamedMark& n) { return n.name == m.mark; });
        const Landmark* line = find_landmark(panel, m.landmark);
        if (mark == art->marks.end() || line == nullptr) {
            say("mark-unknown", {{"mark", m.mark}, {"landmark", Term{m.landmark}}});
            continue;
        }
        const double at = line->level ? s.ink.y0 + mark->at.y * s.width : s.ink.x0 + mark->at.x * s.width;
        const double off = at - line->at;
        if (std::abs(off) < 1) continue;
        const char* way = line->level ? (off > 0 ? "way-up" : "way-down") : (off > 0 ? "way-left" : "way-right");
        say("mark-missed",
            {{"mark", m.mark}, {"landmark", Term{m.landmark}}, {"off", Length::from_mm(std::abs(off))}, {"way", Phrases{{{way, {}}}}}});
    }
    if (s.band >= 0 && s.limit < 0.8 * s.ideal)
        say("short-of-ideal", {{"by", Phrases{{binding_words(s.limit_by)}}},
                               {"limit", AtMost{s.limit}},
                               {"ideal", Length::from_mm(s.ideal)},
                               {"mend", Phrases{{{limit_remedy(s.limit_by.what), {}}}}}});
}

namespace {

void say_platen(const Order& order, const Decoration& d, const DecorationFit& fit, Findings& findings) {
    const Press* press = find_press(order, d.press);
    if (press == nullptr) return;
    const Face face = location_face(d.location);
    if (!takes(press->kind, face)) {
        findings.push_back(finding("press-unsuited", about(d, ""), {{"who", who(order, d, "")}, {"press", press->name}}));
        return;
    }
    if (press->kind != PressKind::flat) {
        const Platen p = largest_platen(*press);
        for (const SizeFit& s : fit.sizes) {
            const double over =
                std::max(s.width + 2 * press->margin.mm() - p.width.mm(), s.height + 2 * press->margin.mm() - p.height.mm());
            if (over <= 0.5) continue;
            const Words way{"way-too-large", {{"over", AtLeast{over}}, {"press", press->name}}};
            findings.push_back(
                finding("off-platen", about(d, s.size), {{"who", who(order, d, "")}, {"sizes", s.size}, {"way", Phrases{{way}}}}));
        }
        return;
    }
    // One sentence for all sizes that are pressed the same way.
    struct Said {
        std::string sizes;
        double most = 0;
        PlatenWay way;
        const SizeFit* first;
    };
    std::vector<Said> said;
    for (const SizeFit& s : fit.sizes) {
        if (s.platen.way == PlatenWay::as_is) continue;
        const auto same = std::find_if(said.begin(), said.end(), [&](const Said& one) {
            const PlatenFit& p = one.first->platen;
            return one.way == s.platen.way && p.platen == s.platen.platen && p.pad == s.platen.pad && p.because == s.platen.because &&
                   p.presses.size() == s.platen.presses.size();
        });
        if (same != said.end()) {
            same->sizes += ", " + s.size;
            same->most = std::max(same->most, norm(s.platen.shift));
        } else {
            said.push_back({s.size, norm(s.platen.shift), s.platen.way, &s});
        }
    }
    for (const Said& one : said) {
        Arguments args{{"who", who(order, d, "")}, {"sizes", one.sizes}, {"way", Phrases{{platen_words(one.first->platen, *press)}}}};
        const auto say = [&](const char* code) { findings.push_back(finding(code, about(d, one.first->size), std::move(args))); };
        switch (one.way) {
        case PlatenWay::as_is: break;
        case PlatenWay::shifted:
        case PlatenWay::other_platen:
        case PlatenWay::pad:
            args.emplace_back(
                "others", part_if(one.most > norm(one.first->platen.shift) + 0.5, "shift-others", {{"shift", Length::from_mm(one.most)}}));
            say(one.way == PlatenWay::shifted ? "platen-shifted" : one.way == PlatenWay::pad ? "platen-pad" : "platen-other");
            break;
        case PlatenWay::several:
            args.emplace_back("press", press->name);
            say("platen-several");
            break;
        case PlatenWay::none: say(one.first->platen.because == "size" ? "off-platen" : "platen-none"); break;
        }
    }
}

/// The layer that reaches out from under the ink; null where the cloth shows round it.
const Layer* backing_of(const Decoration& d) {
    double grown = 0;
    bool under = false;
    for (const Layer& l : d.making.layers) {
        grown += under && !l.printed && !l.colour ? l.grow.mm() : 0;
        if (under && !l.printed && !l.colour && grown > 0) return &l;
        under = under || l.printed || l.colour;
    }
    return nullptr;
}

/// What must be laid aside before the press closes, once for the whole run.
void say_loose(const Order& order, const Decoration& d, DecorationFit& fit) {
    if (fit.ground == nullptr) return;
    for (std::size_t i = 0; i < fit.sizes.size() && i < fit.ground->sizes.size(); ++i)
        for (const Feature& f : fit.ground->sizes[i].panel.features) {
            if (f.kind != Feature::Kind::loose) continue;
            for (const Polygon& p : f.place) {
                if (!bounds(p.outer).meets(fit.sizes[i].ink)) continue;
                fit.findings.push_back(
                    finding("feature-loose", about(d, fit.sizes[i].size), {{"who", who(order, d, "")}, {"feature", Term{f.name}}}));
                return;
            }
        }
}

/// A design that hangs from the centre line and lies beside it by so little that it may be a slip.
void say_off_centre(const Order& order, const Decoration& d, DecorationFit& fit) {
    constexpr double slip = 0.03;  // of the panel's width there
    if (is_sided(d.location) || fit.ground == nullptr) return;
    for (std::size_t i = 0; i < fit.sizes.size() && i < fit.ground->sizes.size(); ++i) {
        const SizeFit& s = fit.sizes[i];
        const Panel& panel = fit.ground->sizes[i].panel;
        const double off = across_on(d, s.size).mm();
        const double y = margin_height(panel, s.ink), width = right_edge_x(panel, y) - left_edge_x(panel, y);
        if (std::abs(off) < 0.5 || std::abs(off) >= slip * width) continue;
        fit.findings.push_back(finding("off-centre", about(d, s.size),
                                       {{"who", who(order, d, s.size)},
                                        {"off", Length::from_mm(std::abs(off))},
                                        {"side", Phrases{{{off < 0 ? "side-left-of" : "side-right-of", {}}}}}}));
        return;  // the others lie so by the same rule
    }
}

}  // namespace

void say_decoration(const Order& order, const Decoration& d, const ArtFacts& facts, DecorationFit& fit) {
    say_platen(order, d, fit, fit.findings);
    say_loose(order, d, fit);
    say_off_centre(order, d, fit);
    const Medium* medium = find_medium(order, d.medium);
    if (medium != nullptr && !fit.sizes.empty()) {
        const auto least =
            std::min_element(fit.sizes.begin(), fit.sizes.end(), [](const SizeFit& a, const SizeFit& b) { return a.width < b.width; });
        const double stroke = facts.thin_stroke * least->width, gap = facts.narrow_gap * least->width;
        const auto say = [&](const char* code, double is, Length least_held) {
            fit.findings.push_back(finding(code, about(d, least->size),
                                           {{"who", who(order, d, least->size)},
                                            {"is", Fine{is, 2}},
                                            {"least", Fine{least_held.mm(), 2}},
                                            {"method", medium->method}}));
        };
        if (facts.thin_stroke > 0 && stroke < medium->min_stroke.mm() - 1e-6) say("thin-stroke", stroke, medium->min_stroke);
        if (facts.narrow_gap > 0 && gap < medium->min_gap.mm() - 1e-6) say("narrow-gap", gap, medium->min_gap);
    }
    const Layer* backing = backing_of(d);
    const double vanishing = vanishing_share(facts, backing != nullptr ? backing->tint : cloth_of(order, d));
    if (vanishing >= 0.2 && (backing != nullptr || told_colour(order, d.run)))
        fit.findings.push_back(
            finding("art-contrast", about(d, ""),
                    {{"who", who(order, d, "")},
                     {"share", Share{vanishing}},
                     {"ground", Phrases{{backing == nullptr ? Words{"the-cloth", {}} : Words{"the-layer", {{"layer", backing->name}}}}}}}));
}

namespace {

/// The same design on the same blank that differs between lots although nobody pinned it or gave it figures of its own.
void say_differences(const Order& order, FitPlan& plan) {
    struct One {
        const Decoration* d;
        const DecorationFit* fit;
    };
    std::map<std::tuple<std::string, Location, std::string>, std::vector<One>> alike;
    for (const DecorationFit& f : plan.decorations) {
        const Decoration* d = find_decoration(order, f.decoration);
        if (d != nullptr && !d->departs) alike[{d->art, d->location, d->run.style}].push_back({d, &f});
    }
    for (const auto& [key, of] : alike)
        for (std::size_t k = 1; k < of.size(); ++k) {
            const One &a = of.front(), &b = of[k];
            if (a.d->run == b.d->run) continue;
            const SizeFit *worst = nullptr, *there = nullptr;
            double most = 0.5, placed = 0;
            for (const SizeFit& s : b.fit->sizes) {
                const SizeFit* t = find_size(*a.fit, s.size);
                if (t == nullptr || s.pinned || t->pinned) continue;
                const double wide = std::abs(s.width - t->width);
                const double apart = norm(Point{(s.ink.x0 + s.ink.x1 - t->ink.x0 - t->ink.x1) / 2, s.ink.y0 - t->ink.y0});
                if (std::max(wide, apart) <= most) continue;
                most = std::max(wide, apart);
                placed = wide > 0.5 ? 0 : apart;
                worst = &s;
                there = t;
            }
            if (worst == nullptr) continue;
            const Words way =
                placed > 0 ? Words{"differs-place", {{"apart", Length::from_mm(placed)}}}
                           : Words{"differs-width", {{"here", Length::from_mm(worst->width)}, {"there", Length::from_mm(there->width)}}};
            plan.findings.push_back(
                finding("same-differs", about(*b.d, worst->size),
                        {{"who", who(order, *b.d, worst->size)}, {"other", run_name(order, a.d->run)}, {"way", Phrases{{way}}}}));
        }
}

/// What of a roster cannot be set, or not as it should be: each word once.
void say_letterings(const Order& order, const ArtFactsById& facts, FitPlan& plan) {
    for (const Art& art : order.art) {
        if (!art.lettering) continue;
        for (const std::string& word : words_of(order, art)) {
            const auto known = facts.find(word_art(art.id, word));
            if (known == facts.end() || !known->second.lettered) continue;
            const Lettered& how = *known->second.lettered;
            Subject of;
            of.art = art.id;
            const auto percent = [](double share) { return static_cast<int>(std::lround(share * 100)); };
            std::string letters;
            for (const std::string& m : how.missing) letters += (letters.empty() ? "“" : ", “") + m + "”";
            if (!letters.empty())
                plan.findings.push_back(finding("lettering-missing", of, {{"design", art.name}, {"letters", letters}, {"word", word}}));
            if (art.lettering->digits && how.in_field.width() > 1.001)
                plan.findings.push_back(finding("lettering-joined-wide", of, {{"design", art.name}, {"word", word}}));
            if (percent(how.scale) < 100)
                plan.findings.push_back(
                    finding("lettering-small", of, {{"design", art.name}, {"word", word}, {"percent", percent(how.scale)}}));
            if (percent(how.squeezed) < 100)
                plan.findings.push_back(
                    finding("lettering-narrow", of, {{"design", art.name}, {"word", word}, {"percent", percent(how.squeezed)}}));
        }
    }
}

}  // namespace

void gather_findings(const Order& order, const ArtFactsById& facts, FitPlan& plan) {
    std::map<std::string, double> widest;  // of each art
    for (const DecorationFit& one : plan.decorations) {
        const Decoration* d = find_decoration(order, one.decoration);
        double& most = widest[d->art];
        for (const SizeFit& s : one.sizes) most = std::max(most, s.width);
        plan.findings.insert(plan.findings.end(), one.findings.begin(), one.findings.end());
    }
    say_differences(order, plan);
    say_letterings(order, facts, plan);
    for (const Art& art : order.art) {
        append(plan.findings, together_findings(order, facts, art));
        const auto at = facts.find(art.id);
        if (at == facts.end()) continue;
        std::optional<Length> width;
        if (widest.contains(art.id)) width = Length::from_mm(widest[art.id]);
        Findings found = art_findings(at->second, art.id, art.name, width);
        // a ground fills its face: what lies behind it in its picture is meant
        if (!width &&
            std::any_of(order.art.begin(), order.art.end(), [&](const Art& a) { return a.together && a.together->ground == art.id; }))
            std::erase_if(found, [](const Finding& f) { return f.code == "art-background"; });
        // what nothing was put into says so itself
        if (art.together || art.word_picture) std::erase_if(found, [](const Finding& f) { return f.code == "art-empty"; });
        append(plan.findings, found);
    }
}

}  // namespace orthema
