#include "core/guides/platen_map.h"

#include <algorithm>
#include <cmath>

#include "core/base/dates.h"
#include "core/guides/panel_drawing.h"

namespace orthema {

std::optional<PlatenMap> platen_map(const Order& order, const Decoration& dec, const SizeFit& size, const Ground& ground,
                                    const std::string& hands, int field) {
    const Press* press = find_press(order, dec.press);
    if (press == nullptr || press->kind != PressKind::flat || size.platen.presses.empty() || press->platens.empty()) return std::nullopt;
    PlatenMap out;
    const std::vector<Rect>& fields = size.platen.presses;
    out.field = std::clamp(field, 0, static_cast<int>(fields.size()) - 1);
    out.platen = fields[static_cast<std::size_t>(out.field)];
    out.press = press->name;
    const auto index = static_cast<std::size_t>(std::clamp(size.platen.platen, 0, static_cast<int>(press->platens.size()) - 1));
    out.platen_name = press->platens[index].name;
    // what was learned of this platen: the garment lies further over, so the platen lies the other way under it
    const MarksMoved moved = marks_moved(order.corrections, press->id, out.platen_name, hands);
    out.platen = {out.platen.x0 - moved.aside, out.platen.y0 - moved.down, out.platen.x1 - moved.aside, out.platen.y1 - moved.down};
    if (moved.aside != 0)
        out.lines.push_back({phrase(moved.aside > 0 ? "map-marks-right" : "map-marks-left", order.unit), std::abs(moved.aside)});
    if (moved.down != 0)
        out.lines.push_back({phrase(moved.down > 0 ? "map-marks-near" : "map-marks-far", order.unit), std::abs(moved.down)});
    if (moved.any())
        out.lines.push_back(
            {phrase("map-marks-since", order.unit, {{"day", day_text(moved.since.substr(0, 10), order.unit)}, {"n", moved.pieces}}), {}});
    const Panel& p = ground.panel;
    const Rect& plate = out.platen;
    if (fields.size() > 1) {
        out.lines.push_back({phrase("map-field-of", order.unit, {{"k", out.field + 1}, {"n", static_cast<int>(fields.size())}}), {}});
        if (out.field > 0) {
            const Rect& last = fields[static_cast<std::size_t>(out.field) - 1];
            if (std::abs(plate.x0 - last.x0) > 0.05)
                out.lines.push_back(
                    {phrase(plate.x0 > last.x0 ? "map-field-right-by" : "map-field-left-by", order.unit), std::abs(plate.x0 - last.x0)});
            if (std::abs(plate.y0 - last.y0) > 0.05)
                out.lines.push_back(
                    {phrase(plate.y0 > last.y0 ? "map-field-down-by" : "map-field-up-by", order.unit), std::abs(plate.y0 - last.y0)});
        }
    }
    const double top = p.top_y - plate.y0;
    out.lines.push_back({phrase(top >= 0 ? "map-top-below" : "map-top-over", order.unit, {{"top", Term{p.top_name}}}), std::abs(top)});
    const double across = -plate.centre().x;
    if (std::abs(across) < 0.05)
        out.lines.push_back({phrase("page-centre-line-on-the-platen", order.unit), {}});
    else
        out.lines.push_back(
            {phrase(across > 0 ? "map-centre-line-right-of-the" : "map-centre-line-left-of-the", order.unit), std::abs(across)});
    if (p.pit_y)
        out.lines.push_back({phrase(*p.pit_y >= plate.y0 ? "map-pit-line-below-the-platen" : "map-pit-line-above-the-platen", order.unit),
                             std::abs(*p.pit_y - plate.y0)});
    if (p.shoulder_point.x > 0)
        out.lines.push_back(
            {phrase(p.shoulder_point.x >= plate.x1 ? "map-shoulder-past-the-platen-s" : "map-shoulder-inside-the-platen-s", order.unit),
             std::abs(p.shoulder_point.x - plate.x1)});
    // of a later field the ink begins beyond its edges: there the last field says where it lies
    if (size.ink.y0 >= plate.y0 || out.field == 0)
        out.lines.push_back({phrase("page-top-of-ink-below-the", order.unit), size.ink.y0 - plate.y0});
    if (size.ink.x0 >= plate.x0 || out.field == 0)
        out.lines.push_back({phrase("page-ink-right-of-the-platen", order.unit), size.ink.x0 - plate.x0});
    const BlankStyle* style = find_style(order, dec.run.style);
    if (style != nullptr && is_hard(style->family) && find_jig(order, dec.making.jig) == nullptr) {
        const Rect box = bounds(p.outline);
        const PlatenGrid g = platen_grid(press->platens[index], press->margin.mm(), box.width(), box.height(), 6);
        out.columns = g.columns;
        out.rows = g.rows;
        out.pitch_x = g.pitch_x;
        out.pitch_y = g.pitch_y;
        out.turned = g.turned;
        if (g.count() > 1) {
            out.lines.clear();
            out.lines.push_back({phrase("page-from-blank-to-blank-across", order.unit), g.pitch_x});
            out.lines.push_back({phrase("page-from-blank-to-blank-down", order.unit), g.pitch_y});
        }
    }
    return out;
}

void draw_platen_map(Drawing& to, const Order& order, const Decoration& dec, const SizeFit& size, const Ground& ground, const PlatenMap& m,
                     const Rect& box, double hair, double text_size, double* told) {
    const Rect plate = m.platen;
    const Rect shown = plate.grown(0.14 * std::max(plate.width(), plate.height()));
    const double k = std::min(box.width() / shown.width(), box.height() / shown.height());
    if (told != nullptr) *told = k;
    const Affine map{k, 0, 0, k, box.centre().x - k * shown.centre().x, box.centre().y - k * shown.centre().y};
    const auto on = [&](const Rect& r) {
        const Point a = map({r.x0, r.y0}), b = map({r.x1, r.y1});
        return Rect{a.x, a.y, b.x, b.y};
    };
    const Colour steel{0.29, 0.36, 0.45, 1};
    to.marks.emplace_back(PathMark{{round_rect(on(plate), 4 * hair)}, true, Colour{0.88, 0.87, 0.83, 1}, Stroke{steel, hair * 1.6, {}}});
    to.clip(on(shown));
    if (m.columns * m.rows > 1) {
        const Rect blank = bounds(ground.panel.outline);
        PlatenGrid g;
        g.columns = m.columns;
        g.rows = m.rows;
        g.pitch_x = m.pitch_x;
        g.pitch_y = m.pitch_y;
        for (int i = 0; i < g.count(); ++i) {
            Affine there = Affine::shift(-blank.centre().x, -blank.centre().y);
            if (m.turned) there = Affine::turn(90).after(there);
            there = map.after(Affine::shift(plate.centre().x + g.middle(i).x, plate.centre().y + g.middle(i).y).after(there));
            draw_panel(to, ground.panel, there, cloth_of(order, dec), hair);
            draw_design(to, dec, size, there);
        }
        to.unclip();
    } else {
        draw_panel(to, ground.panel, map, cloth_of(order, dec), hair);
        draw_landmarks(to, ground.panel, map, hair);
        draw_design(to, dec, size, map);
        to.unclip();
        draw_fields(to, size.platen.presses, m.field, shown, map, hair, text_size);
        PlatenFit fit = size.platen;
        fit.presses = {plate};
        draw_platen(to, fit, ground.raised, shown, map, hair);
        DimensionStyle style;
        style.hair = hair;
        style.text_size = text_size;
        std::vector<Rect> plates;
        style.taken = &plates;
        const auto figure = [&](double mm) { return length_text(Length::from_mm(std::abs(mm)), order.unit, false); };
        const double x = plate.x0 + 0.14 * plate.width();
        if (std::abs(ground.panel.top_y - plate.y0) > 2)  // where it hangs far over, as far as is shown
            draw_dimension(to, map({x, plate.y0}), map({x, std::max(ground.panel.top_y, shown.y0 + 0.02 * shown.height())}),
                           figure(ground.panel.top_y - plate.y0), style);
        if (size.ink.y0 - plate.y0 > 2)
            draw_dimension(to, map({size.ink.centre().x, plate.y0}), map({size.ink.centre().x, size.ink.y0}),
                           figure(size.ink.y0 - plate.y0), style);
        style.aside = {-1, 0};
        if (size.ink.x0 - plate.x0 > 2)
            draw_dimension(to, map({plate.x0, size.ink.centre().y}), map({size.ink.x0, size.ink.centre().y}),
                           figure(size.ink.x0 - plate.x0), style);
    }
    const Point mid = map({plate.centre().x, plate.y0});
    to.line({mid - Point{0, 5 * hair}, mid + Point{0, 5 * hair}}, {steel, hair * 2, {}});
}

std::string map_words(const MapLine& l, Reading reading) {
    return l.what + (l.mm ? ": " + length_text(Length::from_mm(*l.mm), reading) : std::string());
}

}  // namespace orthema
