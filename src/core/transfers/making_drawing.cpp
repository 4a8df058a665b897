#include "core/transfers/making_drawing.h"

#include <algorithm>

#include "core/drawing/text_width.h"

namespace orthema {

void draw_transfer(Drawing& to, const Transfer& t, const Affine& map, const Reading& reading) {
    for (const Mark& m : t.picture) {
        to.marks.push_back(mapped(m, map));
        if (auto* words = std::get_if<TextMark>(&to.marks.back())) words->text = said(reading, words->text);
    }
}

void draw_on_medium(Drawing& to, const Transfer& t, const Affine& map, double hair, const Reading& reading) {
    to.region(mapped(Region{t.contour}, map), Colour{0.93, 0.945, 0.95, 1}, {});
    if (!t.white.empty()) to.region(mapped(t.white, map), palette::white, {});
    draw_transfer(to, t, map, reading);
    to.region(mapped(Region{t.contour}, map), {}, Stroke{palette::quiet, hair, {}});
    if (!t.cut.empty()) to.region(mapped(t.cut, map), {}, Stroke{palette::brick, hair, {}});
    for (const Ring& snip : t.snips) to.line(mapped(snip, map), {palette::brick, hair * 1.4, {}});
}

void draw_reading_arrow(Drawing& to, Point at, double length, bool mirrored, double hair) {
    const double tip = mirrored ? at.x : at.x + length, tail = mirrored ? at.x + length : at.x;
    const double back = mirrored ? length * 0.2 : -length * 0.2;
    const Stroke line{palette::brick, hair * 1.6, {}};
    to.line({{tail, at.y}, {tip, at.y}}, line);
    to.line({{tip + back, at.y - length * 0.13}, {tip, at.y}, {tip + back, at.y + length * 0.13}}, line);
}

namespace {

Region blank_outline(const Made& m) { return panel_for(m.input.style, m.input.size, m.input.location).outline; }

void draw_seams(Drawing& to, const Made& m, const Affine& map, double hair, const Reading& reading) {
    const SplitPlan& plan = *m.split;
    for (const Seam& s : plan.seams) {
        to.line(mapped(s.line, map), {{1, 1, 1, 0.75}, hair * 3.5, {}});
        to.line(mapped(s.line, map), {palette::brick, hair * 1.6, {7 * hair, 3 * hair}});
    }
    for (const SeamPoint& p : m.input.making.seam_points) {
        const Point at = map(p.at * m.input.width);
        to.fill({disc(at, 6 * hair)}, palette::white);
        to.fill({disc(at, 4 * hair)}, palette::brick);
    }
    const Rect ink = m.pieces.empty() ? Rect{} : m.pieces.front().ink;
    for (std::size_t i = 0; i < plan.parts.size(); ++i) {
        const Point c = map(bounds(intersect(plan.parts[i].own, box_region(ink))).centre());
        std::string words = std::to_string(i + 1);
        if (plan.parts[i].heated > 1) words += phrase("part-heated", reading, {{"n", plan.parts[i].heated}});
        const double w = text_width_guess(words, 12 * hair, true) + 12 * hair;
        to.fill({round_rect({c.x - w / 2, c.y - 10 * hair, c.x + w / 2, c.y + 9 * hair}, 5 * hair)}, Colour{1, 1, 1, 0.9});
        to.text({c.x, c.y + 4 * hair}, words, 12 * hair, palette::brick_text, Align::centre, true);
    }
}

}  // namespace

Rect pressed_box(const Made& m) {
    if (m.input.on_blank && !m.sector) {
        Rect box = bounds(blank_outline(m));
        if (m.input.making.two_sided) box.x1 += 2 * m.input.making.fold.mm() + box.width();
        return box.grown(m.input.making.cover ? m.input.making.bleed.mm() : 0);
    }
    Rect box = m.pieces.empty() ? Rect{0, 0, 10, 10} : m.pieces.front().ink;
    for (const Region& shape : m.layers) box = united(box, bounds(shape));
    return box.grown(8);  // of cloth around it
}

void draw_pressed(Drawing& to, const Made& m, Colour cloth, const Affine& map, double hair, const Reading& reading) {
    if (m.pieces.empty()) return;
    const Rect ink = m.pieces.front().ink;
    if (m.input.on_blank) {
        const Region blank = mapped(blank_outline(m), map);
        const Stroke edge{palette::quiet, hair, {}};
        to.region(blank, cloth, edge);
        if (m.input.making.two_sided) {
            const Rect box = bounds(blank_outline(m));
            const Affine over = map.after({-1, 0, 0, 1, 2 * (box.x1 + m.input.making.fold.mm()), 0});
            to.region(mapped(blank_outline(m), over), cloth, edge);
            to.marks.push_back(mapped(Mark{art_in(m.input.art, ink)}, map));
            ArtMark back = art_in(m.input.art, ink);
            back.place = over.after(back.place);
            to.marks.emplace_back(std::move(back));
            return;
        }
        to.clip(blank);
        to.marks.push_back(mapped(Mark{art_in(m.input.art, ink)}, map));
        to.unclip();
        to.region(blank, {}, edge);
        if (!m.bare.empty()) to.region(mapped(m.bare, map), Colour{palette::carmine.r, palette::carmine.g, palette::carmine.b, 0.55}, {});
        return;
    }
    to.rect(bounds(mapped(box_region(pressed_box(m))[0].outer, map)), cloth, Stroke{palette::rule, hair, {}});
    // the lowest layer first, each without its marks: they have been trimmed off
    std::vector<Layer> layers = m.input.making.layers;
    if (layers.empty()) layers.push_back({"", "", m.pieces.front().printed, {}, m.pieces.front().tint, {}});
    for (std::size_t i = std::min(layers.size(), m.layers.size()); i-- > 0;) {
        if (layers[i].printed)
            to.marks.push_back(mapped(Mark{art_in(m.input.art, ink)}, map));
        else if (i == 0 && m.layers.size() > 1 && is_foil(m.input.method))  // it comes away where nothing holds it
            to.region(mapped(intersect(m.layers[0], m.layers[1]), map), layers[i].tint, {});
        else
            to.region(mapped(m.layers[i], map), layers[i].tint, {});
    }
    if (m.split) draw_seams(to, m, map, hair, reading);
}

Drawing wall_picture(const Made& m, Colour cloth, double k) {
    Drawing d;
    const auto wall = wall_of(m.input.style.family, m.input.style.chart.at(m.input.size));
    if (!wall || m.pieces.empty()) return d;
    const double around = wall->middle_circumference(), tall = wall->slant();
    d.width = around * k;
    d.height = tall * k;
    const Affine map = Affine::scale(k, k).after(Affine::shift(around / 2, 0));
    d.rect({0, 0, d.width, d.height}, cloth);
    const bool whole = m.input.location == Location::wrap_full;
    const WrapSpan span = whole ? wrap_span(m.input.style, m.input.size, m.input.making) : WrapSpan{-around / 2, around / 2};
    // what the sheet holds, laid round: a copy of the sheet for each turn that reaches into the picture
    for (const int turn : {-1, 0, 1}) {
        d.clip(mapped(box_region({span.from + turn * around, 0, span.to + turn * around, tall}), map));
        for (const int copy : {-1, 0, 1}) {
            ArtMark art = art_in(m.input.art, m.input.ink);
            art.place = map.after(Affine::shift((turn + copy) * around, 0)).after(art.place);
            d.marks.emplace_back(std::move(art));
        }
        d.unclip();
    }
    return d;
}

void draw_board_pressed(Drawing& to, const Order& order, const FitPlan& plan, const JigSheet& sheet, bool back, const Affine& map,
                        double hair) {
    const Jig* jig = find_jig(order, sheet.jig);
    if (jig == nullptr) return;
    to.region(mapped(box_region({0, 0, jig->backer_width.mm(), jig->backer_height.mm()}), map), Colour{0.87, 0.83, 0.74, 1},
              Stroke{palette::quiet, hair, {}});
    for (int s = 0; s < jig->rows * jig->columns; ++s) {
        const auto i = static_cast<std::size_t>(s);
        if (i >= sheet.front.size()) break;  // the jig was edited since the sheet was made
        const SlotFill& front = sheet.front[i];
        const SlotFill& fill = back ? sheet.back[i] : front;
        const Decoration* under = find_decoration(order, front.decoration);
        const BlankStyle* style = under == nullptr ? nullptr : find_style(order, under->run.style);
        if (style == nullptr || !style->chart.contains(front.size)) continue;
        const Panel panel = panel_of(*style, front.size, back ? Face::back : Face::front);
        // seen from behind the board is turned over: its last column comes first
        const Point c = slot_middle(*jig, back ? slot_behind(*jig, s) : s), m = bounds(panel.outline).centre();
        const Affine own = map.after(Affine::shift(c.x - m.x, c.y - m.y));
        to.region(mapped(panel.outline, own), run_colour(order, under->run), Stroke{palette::quiet, hair, {}});
        const Decoration* d = find_decoration(order, fill.decoration);
        const DecorationFit* fit = d == nullptr ? nullptr : find_fit(plan, d->id);
        const SizeFit* size = fit == nullptr ? nullptr : find_size(*fit, fill.size);
        if (size == nullptr) continue;
        if (d->making.cover) to.clip(mapped(panel.outline, own));
        to.marks.push_back(mapped(Mark{art_in(d->art, size->ink)}, own));
        if (d->making.cover) to.unclip();
    }
}

}  // namespace orthema
