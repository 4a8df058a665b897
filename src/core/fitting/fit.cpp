#include "core/fitting/fit.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>
#include <numeric>
#include <set>

#include "core/fitting/coverage.h"
#include "core/fitting/fit_findings.h"

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

Region placed_outline(const Region& outline, const SizeFit& s) {
    return mapped(outline, Affine{s.width, 0, 0, s.width, s.ink.x0, s.ink.y0});
}

bool on_one_panel(const Decoration& a, const Decoration& b) {
    return a.run == b.run && location_face(a.location) == location_face(b.location) &&
           (a.location == Location::reverse_front || a.location == Location::reverse_back) ==
               (b.location == Location::reverse_front || b.location == Location::reverse_back);
}

namespace {

/// By what a convex hull's points move, for each mm that it is grown: each corner's arc is replaced by its two end
/// tangents' polygon, which encloses it. Two for each point.
Ring push_of(const Ring& hull) {
    Ring out;
    const std::size_t n = hull.size();
    for (std::size_t i = 0; i < n; ++i) {
        const Point a = hull[(i + n - 1) % n], v = hull[i], b = hull[(i + 1) % n];
        const Point d1 = (v - a) * (1 / norm(v - a)), d2 = (b - v) * (1 / norm(b - v));
        const Point n1{d1.y, -d1.x}, n2{d2.y, -d2.x};  // outward: the hull runs anticlockwise in a y-up frame
        const double t = std::tan(std::acos(std::clamp(dot(n1, n2), -1.0, 1.0)) / 4);
        out.push_back(n1 + d1 * t);
        out.push_back(n2 - d2 * t);
    }
    return out;
}

/// Everything about one decoration that does not change from size to size.
struct Rule {
    const Order& order;
    const Decoration& decoration;
    const BlankStyle& style;
    const ArtFacts& facts;
    double aspect = 1;
    double centre_x = 0.5;  ///< the point of the ink that is put on the anchor, in ink widths
    double base_measure = 0, base_length = 0;
    StarHull hull = {};
    double other_limit = 3000;  ///< of platen, medium and resolution, mm
    std::string other_by = {};
};

double ratio_to(double value, double base, double exponent) {
    if (exponent == 0 || base <= 0 || value <= 0 || value == base) return 1.0;
    return std::pow(value / base, exponent);
}

struct Hang {
    double y = 0;      ///< where the fixed point of the ink lies
    double point = 0;  ///< that point, as a share of the ink's height: 0 its top, 0.5 its middle, 1 its foot
};

/// What a school hangs the ink from. Nothing where the panel lacks it.
std::optional<Hang> hang_of(const Panel& p, PlacingSchool school, double offset, double share, const std::string& landmark) {
    switch (school) {
    case PlacingSchool::collar_drop: return Hang{p.top_y + offset, 0};
    case PlacingSchool::pit_line:
        if (!p.pit_y) return std::nullopt;
        return Hang{*p.pit_y - offset, 0};
    case PlacingSchool::body_fraction: return Hang{share * p.length, 0.5};
    case PlacingSchool::feature: {
        const Landmark* at = find_landmark(p, landmark);
        if (at == nullptr || !at->level) return std::nullopt;
        // The pit line is measured to the top of ink whoever hangs from it.
        if (at->ink_above && at->name != "pit line") return Hang{at->at - offset, 1};
        return Hang{at->at + (at->ink_above ? -offset : offset), 0};
    }
    }
    return std::nullopt;
}

Hang rule_hang(const Rule& r, const Panel& p, double growth) {
    const PlacingRule& rule = r.decoration.placing;
    const double offset = rule.offset.mm() * growth;
    if (const auto h = hang_of(p, rule.school, offset, rule.share, rule.landmark)) return *h;
    // A panel without that landmark: the middle of it, until a school that fits is chosen.
    return {0.5 * p.length, 0.5};
}

struct Place {
    Point anchor;      ///< of the ink's fixed point
    double point = 0;  ///< share of the ink's height
};

Place place_on(const Rule& r, const Panel& p, double growth, const SizePin* pin) {
    const Hang hang = rule_hang(r, p, growth);
    Place place{{anchor_x(r.decoration.location, p) + r.decoration.placing.across.mm(), hang.y}, hang.point};
    if (pin != nullptr) {
        place.anchor.x += pin->across.value_or(Length{}).mm();
        place.anchor.y += pin->down.value_or(Length{}).mm();
    }
    return place;
}

Rect ink_at(const Rule& r, const Place& place, double width) {
    const double height = width * r.aspect;
    const double x = place.anchor.x - r.centre_x * width, y = place.anchor.y - place.point * height;
    return {x, y, x + width, y + height};
}

void lower(double& limit, std::string& by, double mm, const char* what) {
    if (mm < limit) {
        limit = std::max(1.0, mm);
        by = what;
    }
}

/// The limits that no panel has a say in.
void find_other_limit(Rule& r) {
    const Decoration& d = r.decoration;
    const bool whole = !d.making.split;  // a split design is limited piece by piece, not as a whole
    if (const Press* press = find_press(r.order, d.press); whole && press != nullptr && !d.sizing.past_platen && !press->platens.empty()) {
        double most = 0;
        for (const Platen& p : press->platens)
            most = std::max(most, std::min(p.width.mm() - 2 * press->margin.mm(), (p.height.mm() - 2 * press->margin.mm()) / r.aspect));
        lower(r.other_limit, r.other_by, most, "platen");
    }
    if (const Medium* medium = find_medium(r.order, d.medium); whole && medium != nullptr) {
        const auto within = [&](double across, double along) {
            const double upright = std::min(across, along / r.aspect);
            const double turned = medium->quarter_turns ? std::min(along, across / r.aspect) : 0;
            return std::max(upright, turned);
        };
        // A couple of millimetres each side for the cutting contour round the ink.
        lower(r.other_limit, r.other_by,
              within(medium->width.mm() - 2 * medium->margin.mm() - 4, medium->length.mm() - 2 * medium->margin.mm() - 4), "medium width");
        if (medium->cut_width.mm() > 0 && medium->cut_length.mm() > 0)
            lower(r.other_limit, r.other_by, within(medium->cut_width.mm() - 4, medium->cut_length.mm() - 4), "cutter");
    }
    if (const auto dpi = resolution(r.facts, Length::from_inches(1)))
        lower(r.other_limit, r.other_by, *dpi / resolution_floor_dpi * 25.4, "resolution floor");
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

constexpr int curve_length = 12;  ///< of the cost curve: more bands than this nobody prints

std::vector<int> starts_of(const SizingRule& rule, const BandCosts& costs, const std::vector<std::string>& names) {
    const int n = costs.size();
    switch (rule.school) {
    case SizingSchool::one_size: return {0};
    case SizingSchool::graded: {
        std::vector<int> all(static_cast<std::size_t>(n));
        std::iota(all.begin(), all.end(), 0);
        return all;
    }
    case SizingSchool::bands:
        if (!rule.band_starts.empty()) return starts_by_hand(rule, names);
        if (rule.band_count > 0) return optimal_partitions(costs, rule.band_count).back().starts;
        return best_partition(costs, rule.price).starts;
    }
    return {0};
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
    const BandCosts costs(members, step);
    const std::vector<int> starts = starts_of(rule, costs, names);
    for (std::size_t b = 0; b < starts.size(); ++b) {
        const int first = starts[b];
        const int last = b + 1 < starts.size() ? starts[b + 1] : n;
        BandFit band;
        band.first = static_cast<int>(where[static_cast<std::size_t>(first)]);
        band.last = static_cast<int>(where[static_cast<std::size_t>(last - 1)]);
        band.width = costs.width(first, last);
        for (const SharedWidth& w : rule.shared)
            if (w.first == names[static_cast<std::size_t>(first)] && w.width.mm() <= band.width + 1e-9) {
                band.shared = w.width.mm() < band.width - 1e-9;
                band.width = w.width.mm();
            }
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
            if (band.shared)
                s.limited_by = "shared with another blank";
            else if (own > s.width + 1e-9)
                s.limited_by = (rule.school == SizingSchool::one_size ? "smallest (" : "band (") + band.set_by + ")";
            else
                s.limited_by = s.ideal <= s.limit ? "ideal" : s.limit_by;
        }
        out.bands.push_back(band);
    }
}

/// Every size its own width: the least at which the ink reaches past all edges by the bleed, laid middle on middle.
void cover_them(const Rule& r, const GroundRun& ground, DecorationFit& out, std::vector<Place>& places) {
    Region ink = r.facts.outline;
    for (Polygon& p : ink) p.outer = simplified(p.outer, 0.001);
    const Point middle = bounds(ink).centre();
    for (std::size_t i = 0; i < out.sizes.size(); ++i) {
        SizeFit& s = out.sizes[i];
        const Region& outline = ground.sizes[i].panel.outline;
        const SizePin* pin = find_pin(r.decoration, s.size);
        const Rect box = bounds(outline);
        const auto least = covering_scale(ink, outline, r.decoration.making.bleed.mm());
        s.width = s.ideal = s.limit =
            pin != nullptr && pin->width ? pin->width->mm() : least.value_or(box.width() + 2 * r.decoration.making.bleed.mm());
        s.limited_by = s.limit_by = pin != nullptr && pin->width ? "pinned by hand" : "covering the blank";
        s.band = static_cast<int>(out.bands.size());
        out.bands.push_back({static_cast<int>(i), static_cast<int>(i), s.width, s.size, s.quantity, false});
        places[i] = {box.centre() + Point{(r.centre_x - middle.x) * s.width, 0}, middle.y / r.aspect};
        if (pin != nullptr)
            places[i].anchor = places[i].anchor + Point{pin->across.value_or(Length{}).mm(), pin->down.value_or(Length{}).mm()};
    }
}

void measure_by_hand(const Rule& r, const Panel& p, const Place& place, AgeGroup group, SizeFit& s) {
    s.height = s.width * r.aspect;
    s.ink = ink_at(r, place, s.width);
    s.top_to_ink = s.ink.y0 - p.top_y;
    if (p.pit_y) s.ink_to_pit = *p.pit_y - s.ink.y0;
    s.ink_to_bottom = p.bottom_y - s.ink.y1;
    const double y = margin_height(p, s.ink);
    s.left_margin = s.ink.x0 - left_edge_x(p, y);
    s.right_margin = right_edge_x(p, y) - s.ink.x1;
    double nearest = std::numeric_limits<double>::infinity();
    for (const Landmark& l : p.landmarks) {
        if (!l.level || !l.ink_above || l.name == "pit line" || l.name == p.bottom_name) continue;
        const double gap = l.at - s.ink.y1;
        if (gap >= -1 && gap < nearest) {
            nearest = gap;
            s.below = l.name;
            s.ink_to_below = gap;
        }
    }
    s.balance = (r.facts.optical_centre.x - 0.5) * s.width;
    const PlacingRule& rule = r.decoration.placing;
    for (std::size_t k = 0; k < placing_school_count; ++k) {
        const auto school = static_cast<PlacingSchool>(k);
        if (school == rule.school) {
            s.school_tops[k] = s.ink.y0;
            continue;
        }
        const double usual = usual_offset(r.decoration.location, school, group, p);
        const std::string landmark = usual_landmark(r.decoration.location, p);
        if (const auto h = hang_of(p, school, usual, usual, landmark)) s.school_tops[k] = h->y - h->point * s.height;
    }
}

std::shared_ptr<const GroundRun> ground_for(const BlankStyle& style, Location location, const std::vector<SizeCount>& counts) {
    auto run = std::make_shared<GroundRun>();
    run->style = style;
    run->location = location;
    for (const SizeCount& c : counts) {
        Ground g;
        g.size = c.size;
        g.panel = panel_for(style, c.size, location);
        g.area = clear_area(location, g.panel);
        g.raised = raised_boxes(g.panel);
        run->sizes.push_back(std::move(g));
    }
    return run;
}

bool still_holds(const GroundRun& run, const BlankStyle& style, Location location, const std::vector<SizeCount>& counts, bool same_style) {
    if (run.location != location || run.sizes.size() != counts.size()) return false;
    for (std::size_t i = 0; i < counts.size(); ++i)
        if (run.sizes[i].size != counts[i].size) return false;
    return same_style || run.style == style;
}

/// The designs ahead that matter by their box, as obstacles on one size.
void add_ahead(const std::vector<const DecorationFit*>& ahead, const Order& order, std::size_t place, const std::string& size, double apart,
               ClearArea& area, const std::function<bool(const Rect&)>& matters) {
    for (const DecorationFit* other : ahead) {
        // one run, so its sizes stand in the same places
        const SizeFit* at = place < other->sizes.size() && other->sizes[place].size == size ? &other->sizes[place] : nullptr;
        if (at == nullptr || other->hull.size() < 3 || !matters(at->ink.grown(apart * 1.42))) continue;
        const Decoration* d = find_decoration(order, other->decoration);
        Obstacle o;
        o.name = "design “" + (d == nullptr ? other->decoration : d->name) + "”";
        o.clearance = apart;
        const Ring hull = mapped(other->hull, Affine{at->width, 0, 0, at->width, at->ink.x0, at->ink.y0});
        Ring& grown = o.grown.emplace_back();
        grown.reserve(2 * hull.size());
        for (std::size_t k = 0; k < other->hull_push.size(); ++k) grown.push_back(hull[k / 2] + other->hull_push[k] * apart);
        o.find_boxes();
        o.place = {Polygon{hull, {}}};
        area.push_back(std::move(o));
    }
}

/// `same_style`: the known ground was made of this style as it is now.
std::optional<DecorationFit> fit_one(const Order& order, const Decoration& d, const ArtFacts& facts,
                                     const std::vector<const DecorationFit*>& ahead, std::shared_ptr<const GroundRun> known,
                                     bool same_style) {
    const BlankStyle* style = find_style(order, d.run.style);
    if (style == nullptr || facts.empty()) return std::nullopt;
    const auto counts = counts_of(order, d.run);
    if (counts.empty()) return std::nullopt;
    if (known == nullptr || !still_holds(*known, *style, d.location, counts, same_style)) {
        if (style_fault(*style)) return std::nullopt;
        const auto faces = family_faces(style->family);
        if (std::find(faces.begin(), faces.end(), location_face(d.location)) == faces.end()) return std::nullopt;
        known = ground_for(*style, d.location, counts);
    }
    DecorationFit out;
    out.decoration = d.id;
    out.ground = known;
    Rule r{order, d, *style, facts, facts.aspect};
    if (d.placing.centre == Centre::optical) r.centre_x = facts.optical_centre.x;
    if (d.placing.centre == Centre::marked)
        if (const Art* art = find_art(order, d.art); art != nullptr && art->marked_centre) r.centre_x = art->marked_centre->x;
    const std::string base = size_index(*style, d.sizing.base_size) >= 0 ? d.sizing.base_size : counts.front().size;
    r.base_measure = measure_mm(style->chart.at(base), d.sizing.measure);
    for (const Ground& g : known->sizes)
        if (g.size == base) r.base_length = g.panel.length;
    if (r.base_length == 0) r.base_length = panel_for(*style, base, d.location).length;
    find_other_limit(r);
    out.aspect = r.aspect;
    const double point = rule_hang(r, known->sizes.front().panel, 1).point;
    r.hull = StarHull(facts.outline, {r.centre_x, point * r.aspect});
    out.hull = convex_hull(facts.outline);
    out.hull_push = push_of(out.hull);

    std::vector<Place> places;
    std::vector<ClearLimit> clear;
    double guess = r.other_limit;
    out.sizes.reserve(counts.size());
    for (std::size_t i = 0; i < counts.size(); ++i) {
        const SizeCount& c = counts[i];
        const Ground& ground = known->sizes[i];
        SizeFit s;
        s.size = c.size;
        s.quantity = c.quantity;
        const SizePin* pin = find_pin(d, c.size);
        s.pinned = pin != nullptr;
        s.ideal = std::max(1.0, d.sizing.base_width.mm() *
                                    ratio_to(measure_mm(style->chart.at(c.size), d.sizing.measure), r.base_measure, d.sizing.exponent));
        s.length = ground.panel.length;
        s.growth = ratio_to(s.length, r.base_length, d.placing.growth);
        if (d.placing.school == PlacingSchool::feature)
            if (const Landmark* at = find_landmark(ground.panel, d.placing.landmark)) s.hangs_above = at->ink_above;
        places.push_back(place_on(r, ground.panel, s.growth, pin));
        // The size before tells about how wide it will be: what lies farther needs no look, unless that was a wrong guess.
        ClearLimit limit = widest_clear(r.hull, ground.area, places.back().anchor, std::min(guess, r.other_limit));
        if (limit.by.empty() && guess < r.other_limit) limit = widest_clear(r.hull, ground.area, places.back().anchor, r.other_limit);
        guess = limit.width * 1.1 + 5;
        if (!ahead.empty()) {
            ClearArea near;
            add_ahead(ahead, order, i, c.size, d.apart.mm(), near, [&](const Rect& box) {
                const double reach = limit.width * r.hull.reach_towards(box, places.back().anchor);
                return distance2(box, places.back().anchor) < reach * reach;
            });
            const ClearLimit more = widest_clear(r.hull, near, places.back().anchor, limit.width);
            if (!more.by.empty()) limit.by = more.by;
            limit.width = more.width;
            limit.anyway.insert(limit.anyway.end(), more.anyway.begin(), more.anyway.end());
        }
        s.limit = std::max(1.0, limit.width);
        s.limit_by = limit.by.empty() ? r.other_by : limit.by;
        clear.push_back(std::move(limit));
        out.sizes.push_back(std::move(s));
    }
    if (d.making.cover)
        cover_them(r, *known, out, places);
    else
        size_them(r, out);
    const AgeGroup group = family_group(style->family);
    const Press* press = find_press(order, d.press);
    const bool pressed = press != nullptr && press->kind == PressKind::flat && takes(press->kind, location_face(d.location));
    for (std::size_t i = 0; i < out.sizes.size(); ++i) {
        SizeFit& s = out.sizes[i];
        const Ground& ground = known->sizes[i];
        measure_by_hand(r, ground.panel, places[i], group, s);
        if (pressed && !d.making.split) s.platen = platen_fit(*press, s.ink, ground.raised);
        std::vector<Clash> found;
        // What is within its limit keeps clear of everything: only the rest needs a closer look.
        if (d.making.cover) {
            // it is meant to reach past every edge
        } else if (s.width > clear[i].width + 1e-6 || !clear[i].anyway.empty()) {
            const Region ink = placed_outline(facts.outline, s);
            found = clashes(ground.area, ink);
            ClearArea others;
            add_ahead(ahead, order, i, s.size, d.apart.mm(), others, [](const Rect&) { return true; });
            const auto more = clashes(others, ink);
            found.insert(found.end(), more.begin(), more.end());
        }
        say_size(order, d, ground.panel, found, s, out.findings);
    }
    say_decoration(order, d, facts, out);
    return out;
}

}  // namespace

std::optional<DecorationFit> fit_decoration(const Order& order, const Decoration& d, const ArtFacts& facts,
                                            const std::vector<const DecorationFit*>& ahead, std::shared_ptr<const GroundRun> known) {
    return fit_one(order, d, facts, ahead, std::move(known), false);
}

std::vector<double> cost_curve(const Decoration& decoration, const DecorationFit& fit) {
    std::vector<BandMember> members;
    for (const SizeFit& s : fit.sizes)
        if (s.band >= 0) members.push_back({s.ideal, s.limit, s.quantity});
    std::vector<double> out;
    for (const Partition& p : optimal_partitions(BandCosts(members, decoration.sizing.step.mm()), curve_length)) out.push_back(p.cost);
    return out;
}

FitPlan refit(const Order& order, const ArtFactsById& facts, const Order& before, const FitPlan& then) {
    const bool same_styles = order.styles == before.styles;
    const bool same_ground = same_styles && order.lines == before.lines && order.media == before.media && order.presses == before.presses &&
                             order.art == before.art;
    FitPlan plan;
    plan.decorations.reserve(order.decorations.size());
    std::set<std::string> anew;  // decorations that were not taken over
    for (const Decoration& d : order.decorations) {
        const DecorationFit* known = find_fit(then, d.id);
        std::vector<const DecorationFit*> ahead;
        bool ahead_stays = true;
        for (const Decoration& other : order.decorations) {
            if (other.id == d.id) break;
            if (!on_one_panel(other, d)) continue;
            const DecorationFit* fitted = find_fit(plan, other.id);
            if (fitted != nullptr) ahead.push_back(fitted);
            ahead_stays = ahead_stays && !anew.contains(other.id);
        }
        if (same_ground && known != nullptr && ahead_stays) {
            const Decoration* was = find_decoration(before, d.id);
            // the same designs must have lain ahead of it then
            std::size_t lay_ahead = 0;
            for (const Decoration& other : before.decorations) {
                if (other.id == d.id) break;
                if (on_one_panel(other, d) && find_fit(then, other.id) != nullptr) ++lay_ahead;
            }
            if (was != nullptr && *was == d && lay_ahead == ahead.size()) {
                plan.decorations.push_back(*known);
                continue;
            }
        }
        anew.insert(d.id);
        const auto art = facts.find(d.art);
        if (art == facts.end()) continue;
        if (auto one = fit_one(order, d, art->second, ahead, known == nullptr ? nullptr : known->ground, same_styles))
            plan.decorations.push_back(std::move(*one));
    }
    gather_findings(order, facts, plan);
    return plan;
}

FitPlan fit(const Order& order, const ArtFactsById& facts) { return refit(order, facts, Order{}, FitPlan{}); }

}  // namespace orthema
