#include "core/fitting/fit_findings.h"

#include <algorithm>
#include <cmath>

namespace orthema {

std::string who(const Order& order, const Decoration& d, const std::string& size) {
    return "“" + d.name + "” on " + run_name(order, d.run) + (size.empty() ? "" : " " + size);
}

Subject about(const Decoration& d, const std::string& size) {
    Subject s;
    s.stage = "fit";
    s.decoration = d.id;
    s.size = size;
    return s;
}

void say_size(const Order& order, const Decoration& d, const Panel& panel, const std::vector<Clash>& clashes, const SizeFit& s,
              Findings& findings) {
    for (const Clash& c : clashes) {
        if (c.over)
            findings.push_back({Severity::stop,
                                "ink-over",
                                about(d, s.size),
                                {{"short", c.short_by}},
                                who(order, d, s.size) + " lies over the " + c.with + ": move it by {short}, or make it smaller."});
        else
            findings.push_back({Severity::caution,
                                "ink-too-close",
                                about(d, s.size),
                                {{"short", c.short_by}},
                                who(order, d, s.size) + " is {short} too close to the " + c.with + ": move it, or make it smaller."});
    }
    for (const Feature& f : panel.features) {
        if (f.kind != Feature::Kind::cover) continue;
        double hidden = 0;
        for (const Polygon& p : f.place) {
            const Rect r = bounds(p.outer);
            if (r.meets(s.ink)) hidden = std::max(hidden, std::min(r.y1, s.ink.y1) - std::max(r.y0, s.ink.y0));
        }
        if (hidden > 1)
            findings.push_back({Severity::caution,
                                "ink-hidden",
                                about(d, s.size),
                                {{"hidden", hidden}},
                                who(order, d, s.size) + ": the " + f.name +
                                    " lies over {hidden} of it. Lower it, or accept that it shows only " + "when the " + f.name +
                                    " is out of the way."});
    }
    const Art* art = d.meetings.empty() ? nullptr : find_art(order, d.art);
    for (const Meeting& m : d.meetings) {
        if (art == nullptr) break;
        const auto mark = std::find_if(art->marks.begin(), art->marks.end(), [&](const NamedMark& n) { return n.name == m.mark; });
        const Landmark* line = find_landmark(panel, m.landmark);
        if (mark == art->marks.end() || line == nullptr) {
            findings.push_back({Severity::caution,
                                "mark-unknown",
                                about(d, s.size),
                                {},
                                who(order, d, s.size) + ": “" + m.mark + "” should meet the " + m.landmark +
                                    ", but one of them is not there. Set the mark on the Art bench, or take the meeting out."});
            continue;
        }
        const double at = line->level ? s.ink.y0 + mark->at.y * s.width : s.ink.x0 + mark->at.x * s.width;
        const double off = at - line->at;
        if (std::abs(off) < 1) continue;
        const char* way = line->level ? (off > 0 ? "up" : "down") : (off > 0 ? "to your left" : "to your right");
        findings.push_back(
            {Severity::caution,
             "mark-missed",
             about(d, s.size),
             {{"off", std::abs(off)}},
             who(order, d, s.size) + ": “" + m.mark + "” misses the " + m.landmark + " by {off}. Move the design " + way + "."});
    }
    if (s.band >= 0 && s.limit < 0.8 * s.ideal)
        findings.push_back({Severity::caution,
                            "short-of-ideal",
                            about(d, s.size),
                            {{"limit", s.limit}, {"ideal", s.ideal}},
                            who(order, d, s.size) + ": the " + s.limit_by + " holds it to {limit}, ideal {ideal}. Move it, or leave " +
                                s.size + " to a band of its own."});
}

namespace {

void say_platen(const Order& order, const Decoration& d, const DecorationFit& fit, Findings& findings) {
    const Press* press = find_press(order, d.press);
    if (press == nullptr) return;
    const Face face = location_face(d.location);
    if (!takes(press->kind, face)) {
        findings.push_back({Severity::caution,
                            "press-unsuited",
                            about(d, ""),
                            {},
                            who(order, d, "") + ": the " + press->name + " does not take this kind of blank. Choose another press."});
        return;
    }
    if (press->kind != PressKind::flat) {
        const Platen p = largest_platen(*press);
        for (const SizeFit& s : fit.sizes) {
            const double over =
                std::max(s.width + 2 * press->margin.mm() - p.width.mm(), s.height + 2 * press->margin.mm() - p.height.mm());
            if (over <= 0.5) continue;
            findings.push_back(
                {Severity::stop,
                 "off-platen",
                 about(d, s.size),
                 {{"over", over}},
                 who(order, d, s.size) + " is {over} too large for the " + press->name + ": make it smaller, or choose another press."});
        }
        return;
    }
    // One sentence for all sizes that are pressed the same way.
    struct Said {
        std::string sizes, words;
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
            said.push_back({s.size, platen_words(s.platen, *press, order.unit), norm(s.platen.shift), s.platen.way, &s});
        }
    }
    for (const Said& one : said) {
        const std::string begin = who(order, d, "") + ", " + one.sizes + ": ";
        switch (one.way) {
        case PlatenWay::as_is: break;
        case PlatenWay::shifted:
        case PlatenWay::other_platen:
        case PlatenWay::pad: {
            const char* code = one.way == PlatenWay::shifted ? "platen-shifted" : one.way == PlatenWay::pad ? "platen-pad" : "platen-other";
            const bool differs = one.most > norm(one.first->platen.shift) + 0.5;
            findings.push_back(
                {Severity::note,
                 code,
                 about(d, one.first->size),
                 {{"shift", one.most}},
                 begin + (one.way == PlatenWay::shifted ? "" : "press ") + one.words + (differs ? "; up to {shift} on the others." : ".")});
            break;
        }
        case PlatenWay::several:
            findings.push_back({Severity::caution,
                                "platen-several",
                                about(d, one.first->size),
                                {},
                                begin + "larger than any platen of the " + press->name + ". Plan " + one.words + ", or make it smaller."});
            break;
        case PlatenWay::none:
            findings.push_back(
                {one.first->platen.because == "size" ? Severity::stop : Severity::caution,
                 one.first->platen.because == "size" ? "off-platen" : "platen-none",
                 about(d, one.first->size),
                 {},
                 begin + one.words + ". Move the design, choose another press, or give this press a smaller platen or pad."});
            break;
        }
    }
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
                    {Severity::note,
                     "feature-loose",
                     about(d, fit.sizes[i].size),
                     {},
                     who(order, d, "") + ": lay the " + f.name + " aside before the press closes; it hangs over the ink."});
                return;
            }
        }
}

}  // namespace

void say_decoration(const Order& order, const Decoration& d, const ArtFacts& facts, DecorationFit& fit) {
    say_platen(order, d, fit, fit.findings);
    say_loose(order, d, fit);
    const Medium* medium = find_medium(order, d.medium);
    if (medium != nullptr && !fit.sizes.empty()) {
        const auto least =
            std::min_element(fit.sizes.begin(), fit.sizes.end(), [](const SizeFit& a, const SizeFit& b) { return a.width < b.width; });
        const double stroke = facts.thin_stroke * least->width, gap = facts.narrow_gap * least->width;
        if (facts.thin_stroke > 0 && stroke < medium->min_stroke.mm() - 1e-6)
            fit.findings.push_back({Severity::caution,
                                    "thin-stroke",
                                    about(d, least->size),
                                    {{"stroke", stroke}, {"least", medium->min_stroke.mm()}},
                                    who(order, d, least->size) + ": its thinnest stroke is " + mm_text(stroke, 2) + " mm, and " +
                                        medium->method + " holds " + mm_text(medium->min_stroke.mm(), 2) +
                                        " mm. Thicken it in the picture, or print it larger."});
        if (facts.narrow_gap > 0 && gap < medium->min_gap.mm() - 1e-6)
            fit.findings.push_back({Severity::caution,
                                    "narrow-gap",
                                    about(d, least->size),
                                    {{"gap", gap}, {"least", medium->min_gap.mm()}},
                                    who(order, d, least->size) + ": its narrowest gap is " + mm_text(gap, 2) + " mm, and " +
                                        medium->method + " closes below " + mm_text(medium->min_gap.mm(), 2) +
                                        " mm. Open it in the picture, or print it larger."});
    }
    const double vanishing = vanishing_share(facts, run_colour(order, d.run));
    if (vanishing >= 0.2) {
        const std::string share = std::to_string(static_cast<int>(std::lround(vanishing * 100))) + " %";
        fit.findings.push_back({Severity::caution,
                                "art-contrast",
                                about(d, ""),
                                {{"share", vanishing}},
                                who(order, d, "") + ": " + share +
                                    " of its ink is nearly the colour of the cloth and vanishes. Give it an outline, or another colour."});
    }
}

void gather_findings(const Order& order, const ArtFactsById& facts, FitPlan& plan) {
    std::map<std::string, double> widest;  // of each art
    for (const DecorationFit& one : plan.decorations) {
        const Decoration* d = find_decoration(order, one.decoration);
        double& most = widest[d->art];
        for (const SizeFit& s : one.sizes) most = std::max(most, s.width);
        plan.findings.insert(plan.findings.end(), one.findings.begin(), one.findings.end());
    }
    for (const Art& art : order.art) {
        const auto at = facts.find(art.id);
        if (at == facts.end()) continue;
        std::optional<Length> width;
        if (widest.contains(art.id)) width = Length::from_mm(widest[art.id]);
        const Findings found = art_findings(at->second, art.id, art.name, width);
        plan.findings.insert(plan.findings.end(), found.begin(), found.end());
    }
}

}  // namespace orthema
