#include "core/fitting/together.h"

#include "core/fitting/clear_area.h"
#include "core/order/roster.h"

namespace orthema {

namespace {

ClearArea kept_clear(const PutTogether& print, const BlankStyle& style) {
    Panel panel = fitting_panel(style, print.size, print.face);
    // every face has an edge, hard ones too
    std::erase_if(panel.features, [](const Feature& f) { return f.kind == Feature::Kind::edge; });
    const Region face = print.face == Face::wrap || print.bleed.mm() < 0 ? ground_shape(print, style) : panel.outline;
    panel.features.push_back({"edge", subtract(box_region(bounds(face).grown(1000)), face), 0, 0, 0, Feature::Kind::edge});
    for (Feature& f : panel.features) f.clearance_mm = f.small_mm = print.clear.mm();
    return clear_area(print.face == Face::wrap ? Location::wrap_full : Location::whole_front, panel);
}

}  // namespace

Findings together_findings(const Order& order, const ArtFactsById& facts, const Art& art) {
    Findings out;
    if (!art.together) return out;
    const PutTogether& print = *art.together;
    Subject of;
    of.art = art.id;
    const auto gone = [&](const std::string& id) {
        const Art* own = find_art(order, id);
        return own == nullptr || own->together;
    };
    bool any_gone = !print.ground.empty() && gone(print.ground);
    for (const LaidOver& o : print.over) any_gone = any_gone || gone(o.picture);
    if (any_gone) out.push_back(finding("together-gone", of, {{"art", art.name}}));
    const BlankStyle* style = find_style(order, print.style);
    if (!face_there(print, style)) return out;  // the picture cannot be made, and says so
    const ClearArea area = kept_clear(print, *style);
    const Rect face = face_box(print, *style);
    const double clear = print.clear.mm(), bleed = print.face == Face::wrap ? 0 : std::max(0.0, print.bleed.mm());
    for (const LaidOver& o : print.over) {
        const auto known = facts.find(drawn_id(order, o.picture));
        if (gone(o.picture) || known == facts.end() || known->second.empty()) continue;
        const Region ink = mapped(known->second.outline, place_over(o, known->second.aspect, face));
        for (const Clash& c : clashes(area, ink, 0.3)) {
            const auto say = [&](const char* code, Arguments args) {
                args.insert(args.end(), {{"art", art.name}, {"design", find_art(order, o.picture)->name}});
                out.push_back(finding(code, of, std::move(args)));
            };
            const auto edge = std::find_if(area.begin(), area.end(), [&](const Obstacle& it) { return it.name == c.with && it.edge; });
            if (!c.over)
                say("together-near", {{"by", Fine{c.short_by}}, {"feature", Term{c.with}}});
            else if (edge == area.end())
                say("together-over", {{"feature", Term{c.with}}});
            else if (const double past = c.short_by - clear; past < bleed || bleed == 0)  // else it runs off on purpose, with the ground
                say("together-off", {{"by", Fine{past}}});
        }
    }
    return out;
}

}  // namespace orthema
