#include "core/fitting/fit.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <set>

namespace orthema {

const char* placing_school_name(PlacingSchool s) {
    switch (s) {
    case PlacingSchool::collar_drop: return "collar drop";
    case PlacingSchool::pit_line: return "pit line";
    case PlacingSchool::body_fraction: return "body share";
    }
    return "";
}

const char* sizing_school_name(SizingSchool s) {
    switch (s) {
    case SizingSchool::one_size: return "one size";
    case SizingSchool::bands: return "bands";
    case SizingSchool::graded: return "graded";
    }
    return "";
}

Garment garment_for(const BlankStyle& style, const std::string& size, Location location) {
    return garment_of(style.family, style.chart.at(size), location_side(location));
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

namespace {

/// Everything about one decoration that does not change from size to size.
struct Rule {
    const Order& order;
    const Decoration& decoration;
    const BlankStyle& style;
    const ArtFacts& facts;
    double aspect = 1;
    double centre_x = 0.5;  ///< the point of the ink that is put on the anchor, in ink widths
    double base_measure = 0, base_body = 0;
};

double ratio_to(double value, double base, double exponent) { return base > 0 && value > 0 ? std::pow(value / base, exponent) : 1.0; }

/// Top of ink under a school, for an ink box of this height.
double top_of_ink(const Rule& r, const Garment& g, PlacingSchool school, double offset, double share, double height) {
    const double grown = offset * ratio_to(g.body_length, r.base_body, r.decoration.placing.growth);
    switch (school) {
    case PlacingSchool::collar_drop: return g.collar_seam_y + grown;
    case PlacingSchool::pit_line: return g.pit_y - grown;
    case PlacingSchool::body_fraction: return share * g.body_length - height / 2;
    }
    return 0;
}

Rect ink_at(const Rule& r, const Garment& g, double width, const SizePin* pin) {
    const PlacingRule& p = r.decoration.placing;
    const double height = width * r.aspect;
    double x = anchor_x(r.decoration.location, g) + p.across.mm() - r.centre_x * width;
    double y = top_of_ink(r, g, p.school, p.offset.mm(), p.share, height);
    if (pin != nullptr) {
        x += pin->across.value_or(Length{}).mm();
        y += pin->down.value_or(Length{}).mm();
    }
    return {x, y, x + width, y + height};
}

struct Limit {
    double mm = 0;
    std::string by;
    std::vector<Clash> anyway;  ///< kept at no width, however small: the place is wrong, not the size
};

/// The widest ink box that keeps every clearance at the rule's place. Bisection: wider only ever comes closer.
Limit clear_limit(const Rule& r, const Garment& g, const SizePin* pin) {
    Limit limit;
    limit.anyway = clashes(r.decoration.location, g, ink_at(r, g, 1.0, pin));
    std::set<std::string> ignored;
    for (const Clash& c : limit.anyway) ignored.insert(c.with);
    const auto binding = [&](double width) -> std::string {
        double worst = 0;
        std::string by;
        for (const Clash& c : clashes(r.decoration.location, g, ink_at(r, g, width, pin)))
            if (!ignored.contains(c.with) && c.short_by > worst) {
                worst = c.short_by;
                by = c.with;
            }
        return by;
    };
    double low = 1.0, high = 2 * g.chest;
    limit.by = binding(high);
    if (limit.by.empty()) {
        limit.mm = high;
        return limit;
    }
    for (int i = 0; i < 40 && high - low > 1e-4; ++i) {
        const double mid = (low + high) / 2;
        const std::string by = binding(mid);
        if (by.empty()) {
            low = mid;
        } else {
            high = mid;
            limit.by = by;
        }
    }
    limit.mm = low;
    return limit;
}

void lower(Limit& limit, double mm, const char* by) {
    if (mm < limit.mm) {
        limit.mm = std::max(1.0, mm);
        limit.by = by;
    }
}

Limit limit_of(const Rule& r, const Garment& g, const SizePin* pin) {
    Limit limit = clear_limit(r, g, pin);
    if (const Press* press = find_press(r.order, r.decoration.press)) {
        lower(limit, press->platen_width.mm() - 2 * press->margin.mm(), "platen");
        lower(limit, (press->platen_height.mm() - 2 * press->margin.mm()) / r.aspect, "platen");
    }
    if (const Medium* medium = find_medium(r.order, r.decoration.medium)) {
        // A couple of millimetres each side for the cutting contour round the ink.
        const double across = medium->width.mm() - 2 * medium->margin.mm() - 4;
        const double along = medium->length.mm() - 2 * medium->margin.mm() - 4;
        const double upright = std::min(across, along / r.aspect);
        const double turned = medium->quarter_turns ? std::min(along, across / r.aspect) : 0;
        lower(limit, std::max(upright, turned), "medium width");
    }
    return limit;
}

/// Splits the members at the starts given by hand; unknown sizes are passed over.
std::vector<int> starts_by_hand(const SizingRule& rule, const std::vector<std::string>& sizes) {
    std::set<int> starts{0};
    for (const std::string& s : rule.band_starts) {
        const auto at = std::find(sizes.begin(), sizes.end(), s);
        if (at != sizes.end()) starts.insert(static_cast<int>(at - sizes.begin()));
    }
    return {starts.begin(), starts.end()};
}

void size_them(const Rule& r, DecorationFit& out) {
    const SizingRule& rule = r.decoration.sizing;
    const double step = rule.step.mm();
    std::vector<BandMember> members;
    std::vector<std::size_t> where;
    std::vector<std::string> names;
    for (std::size_t i = 0; i < out.sizes.size(); ++i) {
        SizeFit& s = out.sizes[i];
        const SizePin* pin = find_pin(r.decoration, s.size);
        if (pin != nullptr && pin->width) {
            s.width = pin->width->mm();
            s.limited_by = "pinned by hand";
            continue;
        }
        members.push_back({s.ideal, s.limit, s.quantity});
        where.push_back(i);
        names.push_back(s.size);
    }
    if (members.empty()) return;
    const int n = static_cast<int>(members.size());
    const auto by_count = optimal_partitions(members, step);
    for (const Partition& p : by_count) out.cost_by_count.push_back(p.cost);
    std::vector<int> starts;
    switch (rule.school) {
    case SizingSchool::one_size: starts = {0}; break;
    case SizingSchool::graded:
        for (int i = 0; i < n; ++i) starts.push_back(i);
        break;
    case SizingSchool::bands:
        if (!rule.band_starts.empty())
            starts = starts_by_hand(rule, names);
        else if (rule.band_count > 0)
            starts = by_count[static_cast<std::size_t>(std::min(rule.band_count, n) - 1)].starts;
        else
            starts = best_partition(by_count, rule.price).starts;
        break;
    }
    for (std::size_t b = 0; b < starts.size(); ++b) {
        const int first = starts[b];
        const int last = b + 1 < starts.size() ? starts[b + 1] : n;
        BandFit band;
        band.first = static_cast<int>(where[static_cast<std::size_t>(first)]);
        band.last = static_cast<int>(where[static_cast<std::size_t>(last - 1)]);
        band.width = band_width(members, first, last, step);
        double least = std::numeric_limits<double>::infinity();
        for (int i = first; i < last; ++i) {
            const BandMember& m = members[static_cast<std::size_t>(i)];
            if (std::min(m.ideal_mm, m.limit_mm) < least) {
                least = std::min(m.ideal_mm, m.limit_mm);
                band.set_by = names[static_cast<std::size_t>(i)];
            }
            band.quantity += m.quantity;
        }
        for (int i = first; i < last; ++i) {
            SizeFit& s = out.sizes[where[static_cast<std::size_t>(i)]];
            s.band = static_cast<int>(out.bands.size());
            s.width = band.width;
            const double own = rounded_down(std::min(s.ideal, s.limit), step);
            if (own > s.width + 1e-9)
                s.limited_by = (rule.school == SizingSchool::one_size ? "smallest (" : "band (") + band.set_by + ")";
            else
                s.limited_by = s.ideal <= s.limit ? "ideal" : s.limit_by;
        }
        out.bands.push_back(band);
    }
}

void measure_by_hand(const Rule& r, const Garment& g, SizeFit& s) {
    s.height = s.width * r.aspect;
    s.ink = ink_at(r, g, s.width, find_pin(r.decoration, s.size));
    s.collar_to_ink = s.ink.y0 - g.collar_seam_y;
    s.ink_to_pit = g.pit_y - s.ink.y0;
    s.ink_to_hem = g.hem_y - s.ink.y1;
    // To the side seam, at the ink's own height where that is below the pit line, else at the pit line.
    const double half = body_half_width(g, std::clamp(s.ink.centre().y, g.pit_y, g.hem_y));
    s.left_margin = s.ink.x0 + half;
    s.right_margin = half - s.ink.x1;
    for (const Feature& f : g.features)
        if (f.name == "pouch seam") s.ink_to_pouch = bounds(f.place).y0 - s.ink.y1;
    const AgeGroup group = family_group(r.style.family);
    for (std::size_t k = 0; k < 3; ++k) {
        const auto school = static_cast<PlacingSchool>(k);
        const double usual = default_offset(r.decoration.location, school, group);
        s.school_tops[k] = school == r.decoration.placing.school ? s.ink.y0 : top_of_ink(r, g, school, usual, usual, s.height);
    }
}

void say(const Rule& r, const Garment& g, const Limit& limit, const SizeFit& s, Findings& findings) {
    const std::string who = "“" + r.decoration.name + "” on " + run_name(r.order, r.decoration.run) + " " + s.size;
    Subject about;
    about.stage = "fit";
    about.decoration = r.decoration.id;
    about.size = s.size;
    for (const Clash& c : clashes(r.decoration.location, g, s.ink)) {
        // Rounding and bisection leave hairs; half a millimetre is less than anyone presses to.
        if (c.short_by < 0.5) continue;
        findings.push_back({Severity::stop,
                            "ink-too-close",
                            about,
                            {{"short", c.short_by}},
                            who + " is {short} too close to the " + c.with + ": move it, or make it smaller."});
    }
    if (const Press* press = find_press(r.order, r.decoration.press)) {
        const double over = std::max(s.width + 2 * press->margin.mm() - press->platen_width.mm(),
                                     s.height + 2 * press->margin.mm() - press->platen_height.mm());
        if (over > 0.5)
            findings.push_back(
                {Severity::stop,
                 "off-platen",
                 about,
                 {{"over", over}},
                 who + " is {over} too large for the platen of the " + press->name + ": make it smaller, or choose another press."});
    }
    if (s.band >= 0 && limit.mm < 0.8 * s.ideal)
        findings.push_back(
            {Severity::caution,
             "short-of-ideal",
             about,
             {{"limit", limit.mm}, {"ideal", s.ideal}},
             who + ": the " + limit.by + " holds it to {limit}, ideal {ideal}. Move it, or leave " + s.size + " to a band of its own."});
}

}  // namespace

std::optional<DecorationFit> fit_decoration(const Order& order, const Decoration& d, const ArtFacts& facts) {
    const BlankStyle* style = find_style(order, d.run.style);
    if (style == nullptr || facts.empty() || style_fault(*style)) return std::nullopt;
    const auto counts = counts_of(order, d.run);
    if (counts.empty()) return std::nullopt;
    Rule r{order, d, *style, facts};
    r.aspect = facts.aspect;
    if (d.placing.centre == Centre::optical) r.centre_x = facts.optical_centre.x;
    if (d.placing.centre == Centre::marked)
        if (const Art* art = find_art(order, d.art); art != nullptr && art->marked_centre) r.centre_x = art->marked_centre->x;
    const std::string base = size_index(*style, d.sizing.base_size) >= 0 ? d.sizing.base_size : counts.front().size;
    r.base_measure = measure_mm(style->chart.at(base), d.sizing.measure);
    r.base_body = measure_mm(style->chart.at(base), Measure::body_length);

    DecorationFit out;
    out.decoration = d.id;
    out.aspect = r.aspect;
    std::vector<Garment> garments;
    std::vector<Limit> limits;
    for (const SizeCount& c : counts) {
        SizeFit s;
        s.size = c.size;
        s.quantity = c.quantity;
        const SizePin* pin = find_pin(d, c.size);
        s.pinned = pin != nullptr;
        s.ideal = std::max(1.0, d.sizing.base_width.mm() *
                                    ratio_to(measure_mm(style->chart.at(c.size), d.sizing.measure), r.base_measure, d.sizing.exponent));
        garments.push_back(garment_for(*style, c.size, d.location));
        limits.push_back(limit_of(r, garments.back(), pin));
        s.limit = limits.back().mm;
        s.limit_by = limits.back().by;
        out.sizes.push_back(std::move(s));
    }
    size_them(r, out);
    for (std::size_t i = 0; i < out.sizes.size(); ++i) {
        measure_by_hand(r, garments[i], out.sizes[i]);
        say(r, garments[i], limits[i], out.sizes[i], out.findings);
    }
    return out;
}

namespace {

/// The plan's findings: each decoration's own, and those of the art at its largest use.
void gather_findings(const Order& order, const ArtFactsById& facts, FitPlan& plan) {
    std::map<std::string, double> widest;  // of each art
    for (const DecorationFit& one : plan.decorations) {
        const Decoration* d = find_decoration(order, one.decoration);
        for (const SizeFit& s : one.sizes) widest[d->art] = std::max(widest[d->art], s.width);
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

}  // namespace

FitPlan refit(const Order& order, const ArtFactsById& facts, const Order& before, const FitPlan& then) {
    const bool same_ground = order.styles == before.styles && order.lines == before.lines && order.media == before.media &&
                             order.presses == before.presses && order.art == before.art;
    FitPlan plan;
    for (const Decoration& d : order.decorations) {
        if (same_ground)
            if (const Decoration* was = find_decoration(before, d.id); was != nullptr && *was == d)
                if (const DecorationFit* known = find_fit(then, d.id)) {
                    plan.decorations.push_back(*known);
                    continue;
                }
        const auto art = facts.find(d.art);
        if (art == facts.end()) continue;
        if (auto one = fit_decoration(order, d, art->second)) plan.decorations.push_back(std::move(*one));
    }
    gather_findings(order, facts, plan);
    return plan;
}

FitPlan fit(const Order& order, const ArtFactsById& facts) { return refit(order, facts, Order{}, FitPlan{}); }

}  // namespace orthema
