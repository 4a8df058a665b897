#include "core/fitting/draft.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>

#include "core/fitting/coverage.h"
#include "core/fitting/fit_findings.h"

namespace orthema {

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

Hang rule_hang(const Draft& r, const Panel& p, double growth) {
    const PlacingRule& rule = r.decoration->placing;
    const double offset = rule.offset.mm() * growth;
    if (const auto h = hang_of(p, rule.school, offset, rule.share, rule.landmark)) return *h;
    // A panel without that landmark: the middle of it, until a school that fits is chosen.
    return {0.5 * p.length, 0.5};
}

Place place_on(const Draft& r, const Panel& p, double growth, const SizePin* pin) {
    const Hang hang = rule_hang(r, p, growth);
    Place place{{anchor_x(r.decoration->location, p) + r.decoration->placing.across.mm(), hang.y}, hang.point};
    if (pin != nullptr) {
        place.anchor.x += pin->across.value_or(Length{}).mm();
        place.anchor.y += pin->down.value_or(Length{}).mm();
    }
    return place;
}

Rect ink_at(const Draft& r, const Place& place, double width) {
    const double height = width * r.fit.aspect;
    const double x = place.anchor.x - r.centre_x * width, y = place.anchor.y - place.point * height;
    return {x, y, x + width, y + height};
}

void lower(Draft& r, double mm, Binding what) {
    if (mm < r.other_limit) {
        r.other_limit = std::max(1.0, mm);
        r.other_by = {what};
    }
}

/// What the sheet of a layer takes past the ink: its contour, what it is grown by, and the marks of a stack.
struct LayerSheet {
    const Medium* medium;
    double beside, above;  ///< of both sides together, mm
    double grown = 1;      ///< cut larger by this, since it shrinks in the heat
};

std::vector<LayerSheet> layer_sheets(const Order& order, const Decoration& d) {
    std::vector<LayerSheet> out;
    if (d.making.split) return out;
    const Method* method = method_of(order, d);
    const double shrink = d.making.shrink > 0 ? d.making.shrink : method == nullptr ? 0 : method->shrink;
    double grow = 0, widest = 0;  // each layer is grown from the one above it
    for (const Layer& l : d.making.layers) {
        grow = l.printed || l.colour ? 0 : grow + l.grow.mm();
        widest = std::max(widest, grow);
        const Medium* medium = find_medium(order, l.medium.empty() ? d.medium : l.medium);
        if (medium == nullptr) continue;
        const double edge = medium->cut_offset.mm() + 0.5;  // contours round tabs and bays a little wide
        const double past = 2 * (std::max(0.0, grow) + edge);
        out.push_back({medium, past, past, l.printed ? 1 : shrink_factor(shrink)});
    }
    if (d.making.layers.size() > 1)  // the marks stand outside the most grown layer, on every one
        for (LayerSheet& sheet : out)
            sheet.beside = std::max(sheet.beside, 2 * (widest + stack_mark_off + stack_mark_radius + sheet.medium->cut_offset.mm() + 0.5));
    if (const Medium* medium = find_medium(order, d.medium); out.empty() && medium != nullptr)
        out.push_back({medium, 2 * medium->cut_offset.mm(), 2 * medium->cut_offset.mm(),
                       method == nullptr || prints_alone(*method) ? 1 : shrink_factor(shrink)});
    return out;
}

/// The limits that no panel has a say in.
void find_other_limit(Draft& r) {
    const Decoration& d = *r.decoration;
    const bool whole = !d.making.split;  // a split design is limited piece by piece, not as a whole
    if (const Press* press = find_press(*r.order, d.press); whole && press != nullptr && !d.sizing.past_platen && !press->platens.empty()) {
        double most = 0;
        for (const Platen& p : press->platens)
            most = std::max(most, std::min(p.width.mm() - 2 * press->margin.mm(), (p.height.mm() - 2 * press->margin.mm()) / r.fit.aspect));
        lower(r, most, Binding::platen);
    }
    for (const LayerSheet& sheet : layer_sheets(*r.order, d)) {
        const Medium& m = *sheet.medium;
        const auto within = [&](double across, double along) {
            const auto most = [&](double wide, double high) { return std::min(wide - sheet.beside, (high - sheet.above) / r.fit.aspect); };
            return std::max(most(across, along), m.quarter_turns ? most(along, across) : 0) / sheet.grown;
        };
        lower(r, within(m.width.mm() - 2 * m.margin.mm(), m.length.mm() - 2 * m.margin.mm()), Binding::medium);
        if (m.cut_width.mm() > 0 && m.cut_length.mm() > 0) lower(r, within(m.cut_width.mm(), m.cut_length.mm()), Binding::cutter);
    }
    if (const auto dpi = resolution(*r.facts, Length::from_inches(1))) lower(r, *dpi / resolution_floor_dpi * 25.4, Binding::resolution);
}

void measure_by_hand(const Draft& r, const Panel& p, const Place& place, AgeGroup group, SizeFit& s) {
    s.height = s.width * r.fit.aspect;
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
    s.balance = (r.facts->optical_centre.x - 0.5) * s.width;
    const PlacingRule& rule = r.decoration->placing;
    for (std::size_t k = 0; k < placing_school_count; ++k) {
        const auto school = static_cast<PlacingSchool>(k);
        if (school == rule.school) {
            s.school_tops[k] = s.ink.y0;
            continue;
        }
        const double usual = usual_offset(r.decoration->location, school, group, p);
        const std::string landmark = usual_landmark(r.decoration->location, p);
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

constexpr double round_over = 0.2;  ///< mm that a wrap's picture runs over itself, so that no hairline opens where it meets

/// All round a wall, or from one side of its handle to the other, on the middle of the slant.
double wall_width(const Draft& r, std::size_t size) {
    const Measures& m = r.style->chart.at(r.fit.sizes[size].size);
    if (ends_gap(m) > 0) return fitting_panel(*r.style, r.fit.sizes[size].size, Face::wrap).width;
    return wall_of(r.style->family, m).value_or(CupWall{}).middle_circumference();
}

/// A picture that stands along both its sides and all but meets itself: the figure that it misses by.
void say_bare_seam(const Draft& r, std::size_t size, Findings& findings) {
    const SizeFit& s = r.fit.sizes[size];
    if (ends_gap(r.style->chart.at(s.size)) > 0) return;
    const double around = wall_width(r, size), gap = around - s.width;
    if (gap < 0.05 || gap > 0.1 * around || !fills_its_sides(r.facts->outline)) return;
    findings.push_back(finding("wrap-bare", about(*r.decoration, s.size),
                               {{"who", who(*r.order, *r.decoration, s.size)}, {"gap", AtLeast{gap}}, {"around", AtLeast{around}}}));
}

}  // namespace

std::optional<Draft> draft_of(const Order& order, const Decoration& d, const ArtFacts& facts, std::vector<const DecorationFit*> ahead,
                              std::shared_ptr<const GroundRun> known, bool same_style, DraftsSoFar& so_far) {
    const BlankStyle* style = find_style(order, d.run.style);
    if (style == nullptr || facts.empty()) return std::nullopt;
    const auto counts = counts_of(order, d.run);
    if (counts.empty()) return std::nullopt;
    if (known == nullptr || !still_holds(*known, *style, d.location, counts, same_style)) {
        if (style_fault(*style)) return std::nullopt;
        const auto faces = family_faces(style->family);
        if (std::find(faces.begin(), faces.end(), location_face(d.location)) == faces.end()) return std::nullopt;
        std::vector<std::shared_ptr<const GroundRun>>& grounds = so_far.grounds[{style->id, d.location}];
        const auto same =
            std::find_if(grounds.begin(), grounds.end(), [&](const auto& g) { return still_holds(*g, *style, d.location, counts, true); });
        known = same != grounds.end() ? *same : grounds.emplace_back(ground_for(*style, d.location, counts));
    }
    Draft r;
    r.order = &order;
    r.decoration = &d;
    r.style = style;
    r.facts = &facts;
    r.ahead = std::move(ahead);
    r.fit.decoration = d.id;
    r.fit.ground = known;
    r.fit.aspect = facts.aspect;
    if (d.placing.centre == Centre::optical) r.centre_x = facts.optical_centre.x;
    if (d.placing.centre == Centre::marked)
        if (const Art* art = find_art(order, d.art); art != nullptr && art->marked_centre) r.centre_x = art->marked_centre->x;
    const std::string base = size_index(*style, d.sizing.base_size) >= 0 ? d.sizing.base_size : counts.front().size;
    r.base_measure = measure_mm(style->chart.at(base), d.sizing.measure);
    for (const Ground& g : known->sizes)
        if (g.size == base) r.base_length = g.panel.length;
    if (r.base_length == 0) r.base_length = panel_for(*style, base, d.location).length;
    find_other_limit(r);
    const double point = rule_hang(r, known->sizes.front().panel, 1).point;
    auto hull = so_far.hulls.find({&facts, r.centre_x, point});
    if (hull == so_far.hulls.end()) {
        DraftsSoFar::Hull made{StarHull(facts.outline, {r.centre_x, point * r.fit.aspect}), convex_hull(facts.outline), {}};
        made.push = push_of(made.ring);
        hull = so_far.hulls.emplace(std::tuple(&facts, r.centre_x, point), std::move(made)).first;
    }
    r.hull = hull->second.star;
    r.fit.hull = hull->second.ring;
    r.fit.hull_push = hull->second.push;

    double guess = r.other_limit;
    r.fit.sizes.reserve(counts.size());
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
        r.places.push_back(place_on(r, ground.panel, s.growth, pin));
        const Point anchor = r.places.back().anchor;
        // The size before tells about how wide it will be: what lies farther needs no look, unless that was a wrong guess.
        ClearLimit limit = widest_clear(r.hull, ground.area, anchor, std::min(guess, r.other_limit));
        if (limit.by.empty() && guess < r.other_limit) limit = widest_clear(r.hull, ground.area, anchor, r.other_limit);
        guess = limit.width * 1.1 + 5;
        if (!r.ahead.empty()) {
            ClearArea near;
            add_ahead(r.ahead, order, i, c.size, d.apart.mm(), near, [&](const Rect& box) {
                const double reach = limit.width * r.hull.reach_towards(box, anchor);
                return distance2(box, anchor) < reach * reach;
            });
            const ClearLimit more = widest_clear(r.hull, near, anchor, limit.width);
            if (!more.by.empty()) limit.by = more.by;
            limit.width = more.width;
            limit.anyway.insert(limit.anyway.end(), more.anyway.begin(), more.anyway.end());
        }
        s.limit = std::max(1.0, limit.width);
        s.limit_by = limit.by.empty() ? r.other_by : Bound{Binding::obstacle, limit.by};
        r.clear.push_back(std::move(limit));
        r.fit.sizes.push_back(std::move(s));
    }
    return r;
}

void cover_blank(Draft& r) {
    Region ink = r.facts->outline;
    for (Polygon& p : ink) p.outer = simplified(p.outer, 0.001);
    const Point middle = bounds(ink).centre();
    const double bleed = r.decoration->making.bleed.mm();
    const bool right_round = r.decoration->location == Location::wrap_full;
    for (std::size_t i = 0; i < r.fit.sizes.size(); ++i) {
        SizeFit& s = r.fit.sizes[i];
        const Region& outline = r.fit.ground->sizes[i].panel.outline;
        const SizePin* pin = find_pin(*r.decoration, s.size);
        const bool pinned = pin != nullptr && pin->width;
        const Rect box = bounds(outline);
        const std::optional<double> least = right_round ? wall_width(r, i) + round_over : covering_scale(ink, outline, bleed);
        s.width = s.ideal = s.limit = pinned ? pin->width->mm() : least.value_or(box.width() + 2 * bleed);
        s.limited_by = s.limit_by = {pinned ? Binding::pinned : Binding::covering};
        s.band = static_cast<int>(r.fit.bands.size());
        BandFit band;
        band.first = band.last = static_cast<int>(i);
        band.width = s.width;
        band.set_by = s.size;
        band.quantity = s.quantity;
        r.fit.bands.push_back(band);
        if (right_round) continue;  // it hangs as its rule says, and its middle is the wall's
        r.places[i] = {box.centre() + Point{(r.centre_x - middle.x) * s.width, 0}, middle.y / r.fit.aspect};
        if (pin != nullptr)
            r.places[i].anchor = r.places[i].anchor + Point{pin->across.value_or(Length{}).mm(), pin->down.value_or(Length{}).mm()};
    }
}

DecorationFit finished(Draft r) {
    const Order& order = *r.order;
    const Decoration& d = *r.decoration;
    const AgeGroup group = family_group(r.style->family);
    const Press* press = find_press(order, d.press);
    const bool pressed = press != nullptr && press->kind == PressKind::flat && takes(press->kind, location_face(d.location));
    for (std::size_t i = 0; i < r.fit.sizes.size(); ++i) {
        SizeFit& s = r.fit.sizes[i];
        const Ground& ground = r.fit.ground->sizes[i];
        measure_by_hand(r, ground.panel, r.places[i], group, s);
        if (pressed && !d.making.split) {
            s.platen = platen_fit(*press, s.ink, ground.raised);
            if (s.platen.way == PlatenWay::several) {
                const Region ink = mapped(r.facts->outline, Affine::shift(s.ink.x0, s.ink.y0).after(Affine::scale(s.width, s.width)));
                s.platen = platen_fit(*press, s.ink, ground.raised, &ink);
            }
        }
        std::vector<Clash> found;
        // What is within its limit keeps clear of everything: only the rest needs a closer look.
        if (d.location == Location::wrap_full && !d.making.cover) say_bare_seam(r, i, r.fit.findings);
        if (d.making.cover) {
            // it is meant to reach past every edge
        } else if (s.width > r.clear[i].width + 1e-6 || !r.clear[i].anyway.empty()) {
            const Region ink = placed_outline(r.facts->outline, s);
            found = clashes(ground.area, ink);
            ClearArea others;
            add_ahead(r.ahead, order, i, s.size, d.apart.mm(), others, [](const Rect&) { return true; });
            const auto more = clashes(others, ink);
            found.insert(found.end(), more.begin(), more.end());
        }
        say_size(order, d, ground.panel, found, s, r.fit.findings);
    }
    say_decoration(order, d, *r.facts, r.fit);
    return std::move(r.fit);
}

}  // namespace orthema
