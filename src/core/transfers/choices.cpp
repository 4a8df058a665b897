#include "core/transfers/choices.h"

#include <algorithm>

#include "core/fitting/coverage.h"
#include "core/order/edit.h"
#include "core/order/roster.h"

namespace orthema {

MethodCase method_case(const Order& order, const Decoration& d, const ArtFacts& facts, const DecorationFit& fit) {
    MethodCase c;
    if (const BlankStyle* style = find_style(order, d.run.style)) c.fabric = style->fabric;
    c.cloth = cloth_of(order, d);
    if (fit.sizes.empty()) return c;
    const auto less = [](const SizeFit& a, const SizeFit& b) { return a.width < b.width; };
    c.least_width = std::min_element(fit.sizes.begin(), fit.sizes.end(), less)->width;
    c.thin_stroke = facts.thin_stroke * c.least_width;
    c.narrow_gap = facts.narrow_gap * c.least_width;
    c.colours = static_cast<int>(std::count_if(facts.inks.begin(), facts.inks.end(), [](const auto& i) { return i.share > 0.01; }));
    c.half_transparent = facts.half_transparent;
    const SizeFit& most =
        *std::max_element(fit.sizes.begin(), fit.sizes.end(), [](const auto& a, const auto& b) { return a.quantity < b.quantity; });
    c.ink_area = area(facts.outline) * most.width * most.width;
    c.box_area = most.width * most.height;
    return c;
}

BandsCost bands_cost(const Order& order, const Decoration& d, const DecorationFit& fit, const ArtFacts& facts, double squares, int widths) {
    BandsCost out;
    const Medium* medium = find_medium(order, d.medium);
    const Method* method = method_of(order, d);
    if (medium == nullptr || method == nullptr) return out;
    out.film = material_price(*method, *medium) * squares * fit.aspect / usual_fill;
    out.print = method->ink_cost * area(facts.outline) * squares / 10000;
    out.sorting = widths * minutes_a_width * minute_cost;
    return out;
}

std::vector<MethodChoice> method_choices(const Order& order, const Decoration& d, const ArtFacts& facts, const DecorationFit& fit) {
    const MethodCase what = method_case(order, d, facts, fit);
    std::vector<MethodChoice> out;
    for (const Method& m : order.methods) {
        MethodChoice choice{m.id, {}, against(m, what), 0};
        const Medium* best = nullptr;
        for (const Medium& medium : order.media) {
            if (medium.method != m.id || medium.taped_at.mm() > 0) continue;
            // the one in use, else the cheapest that is wide enough
            if (medium.id == d.medium) {
                best = &medium;
                break;
            }
            if (best == nullptr || piece_cost(m, medium, what, minute_cost) < piece_cost(m, *best, what, minute_cost)) best = &medium;
        }
        if (best == nullptr)
            choice.against.push_back({"why-no-medium", {}});
        else {
            choice.medium = best->id;
            choice.cost = piece_cost(m, *best, what, minute_cost);
        }
        out.push_back(std::move(choice));
    }
    std::stable_sort(out.begin(), out.end(), [](const MethodChoice& a, const MethodChoice& b) {
        if (a.against.empty() != b.against.empty()) return a.against.empty();
        return a.against.empty() && a.cost < b.cost;
    });
    return out;
}

namespace {

/// For a design that is new on its lot: on the medium it has where its method suits, else on the cheapest that does.
Order with_suited_medium(const Order& order, const std::string& id, const ArtFacts& facts) {
    const Decoration* d = find_decoration(order, id);
    const auto fit = d == nullptr ? std::nullopt : fit_decoration(order, *d, facts, {}, nullptr);
    if (!fit || fit->sizes.empty()) return order;
    const std::vector<MethodChoice> choices = method_choices(order, *d, facts, *fit);
    const Medium* has = find_medium(order, d->medium);
    for (const MethodChoice& c : choices)
        if (has != nullptr && c.method == has->method && c.against.empty()) return order;
    if (choices.empty() || !choices.front().against.empty()) return order;
    return with_decoration(order, with_medium(order, *d, choices.front().medium));
}

/// A print that was put together for this blank fills its face: with its bleed, or as far as it stays inside it, or to the edges of a
/// wall's printable field.
Decoration filling_its_face(const Order& order, Decoration d, const PutTogether& print) {
    const BlankStyle* style = find_style(order, d.run.style);
    if (print.style != d.run.style || location_face(d.location) != print.face || !face_there(print, style)) return d;
    const bool wall = d.location == Location::wrap_full;
    if (!wall && d.location != Location::whole_front && d.location != Location::whole_back) return d;
    const Panel panel = fitting_panel(*style, print.size, print.face);
    const Rect face = bounds(ground_shape(print, *style));
    d.making.cover = wall ? d.making.cover && face.width() > panel.width - 1 : print.bleed.mm() >= 0;
    if (d.making.cover) {
        if (!wall) d.making.bleed = print.bleed;
        return d;
    }
    d.sizing.base_size = print.size;
    d.sizing.base_width = Length::from_mm(face.width());
    d.sizing.step = Length::from_mm(0.1);
    d.placing.school = PlacingSchool::body_fraction;
    d.placing.share = face.centre().y / panel.length;
    return d;
}

}  // namespace

Order with_new_ones_suited(Order next, const Order& before, const ArtFactsById& facts) {
    std::vector<std::string> fresh;
    for (const Decoration& d : next.decorations)
        if (find_decoration(before, d.id) == nullptr) fresh.push_back(d.id);
    for (const std::string& id : fresh) {
        Decoration d = *find_decoration(next, id);
        const auto known = facts.find(d.art);
        if (known == facts.end()) continue;
        if (d.location == Location::wrap_full && !d.making.cover && !is_lettering(next, d) && fills_its_sides(known->second.outline)) {
            d.making.cover = true;
            next = with_decoration(next, d);
        }
        next = with_suited_medium(next, id, known->second);
        const Art* art = find_art(next, d.art);
        if (art != nullptr && art->together)
            next = with_decoration(next, filling_its_face(next, *find_decoration(next, id), *art->together));
    }
    return next;
}

Decoration with_medium(const Order& order, const Decoration& decoration, const std::string& id) {
    Decoration d = decoration;
    const Medium* was = find_medium(order, d.medium);
    const Medium* medium = find_medium(order, id);
    d.medium = id;
    if (medium == nullptr || (was != nullptr && was->method == medium->method)) return d;
    const Method* method = find_method(order, medium->method);
    d.making.layers.clear();
    if (method == nullptr) return d;
    for (Layer l : method->layers) {
        // a layer's own medium may not be in this order: then it is cut from the decoration's
        if (!l.medium.empty() && find_medium(order, l.medium) == nullptr) l.medium.clear();
        d.making.layers.push_back(std::move(l));
    }
    return d;
}

namespace {

/// The cut medium whose sheet comes nearest to a colour.
const Medium* nearest_sheet(const Order& order, Colour colour) {
    const Medium* best = nullptr;
    for (const Medium& m : order.media) {
        const Method* method = find_method(order, m.method);
        if (method == nullptr || method->handling != Handling::weeded || !method->flat_colours || method->layers.size() > 1) continue;
        if (best == nullptr || colour_difference(m.tint, colour) < colour_difference(best->tint, colour)) best = &m;
    }
    return best;
}

Layer first_layer(const Order& order, const Decoration& d) {
    const Medium* m = find_medium(order, d.medium);
    const Method* method = m == nullptr ? nullptr : find_method(order, m->method);
    const bool cut = method != nullptr && method->handling == Handling::weeded && method->flat_colours;
    return {cut ? "cut" : "print", {}, !cut, {}, m == nullptr ? palette::white : m->tint, {}};
}

std::string free_name(const std::vector<Layer>& layers, const std::string& stem) {
    std::vector<std::string> taken;
    taken.reserve(layers.size());
    for (const Layer& l : layers) taken.push_back(l.name);
    return fresh_id(stem, taken);
}

}  // namespace

Decoration with_backing(const Order& order, const Decoration& decoration, Length grow) {
    Decoration d = decoration;
    if (d.making.layers.empty()) d.making.layers.push_back(first_layer(order, d));
    const Medium* white = nearest_sheet(order, palette::white);
    d.making.layers.push_back({free_name(d.making.layers, "backing"),
                               white == nullptr ? "" : white->id,
                               false,
                               {},
                               white == nullptr ? palette::white : white->tint,
                               grow});
    return d;
}

Decoration with_colours(const Order& order, const Decoration& decoration, const ArtFacts& facts, int colours, double tolerance) {
    Decoration d = decoration;
    if (!facts.picture) return d;
    const Separation s = separate(facts.picture->view(), colours, tolerance);
    std::vector<Layer> under;
    for (const Layer& l : d.making.layers)
        if (!l.colour && !l.printed && l.name != "cut") under.push_back(l);
    d.making.layers.clear();
    for (std::size_t k = s.colours.size(); k-- > 0;) {  // the largest share lies lowest
        const Medium* sheet = nearest_sheet(order, s.colours[k]);
        std::string name = sheet == nullptr ? "colour" : sheet->name;
        if (const auto at = name.rfind(' '); sheet != nullptr && at != std::string::npos) name = name.substr(at + 1);
        d.making.layers.push_back({free_name(d.making.layers, name),
                                   sheet == nullptr ? "" : sheet->id,
                                   false,
                                   s.colours[k],
                                   sheet == nullptr ? s.colours[k] : sheet->tint,
                                   {}});
    }
    d.making.layers.insert(d.making.layers.end(), under.begin(), under.end());
    return d;
}

}  // namespace orthema
