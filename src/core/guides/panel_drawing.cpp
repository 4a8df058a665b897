#include "core/guides/panel_drawing.h"

#include <algorithm>

namespace orthema {

namespace {

Colour darker(Colour c, double k) { return {c.r * k, c.g * k, c.b * k, c.a}; }
double luma(Colour c) { return 0.3 * c.r + 0.59 * c.g + 0.11 * c.b; }

}  // namespace

void draw_panel(Drawing& to, const Panel& g, const Affine& map, Colour cloth, double hair) {
    const bool dark = luma(cloth) < 0.45;
    const Colour line = dark ? Colour{cloth.r * 0.5 + 0.38, cloth.g * 0.5 + 0.38, cloth.b * 0.5 + 0.38, 1} : darker(cloth, 0.66);
    to.region(mapped(g.outline, map), cloth, Stroke{line, hair * 1.3, {}});
    if (!g.rib.empty()) to.region(mapped(g.rib, map), darker(cloth, dark ? 0.85 : 0.94), Stroke{line, hair * 0.8, {}});
    for (const Ring& seam : g.seams) to.line(mapped(seam, map), {line, hair * 0.8, {}});
    for (const Ring& detail : g.details) to.line(mapped(detail, map), {line, hair * 1.2, {}});
    if (g.neck_edge.empty()) return;
    Ring collar = reversed_mirror(g.neck_edge);
    collar.insert(collar.end(), g.neck_edge.begin(), g.neck_edge.end());
    to.line(mapped(collar, map), {line, hair, {}});
}

void draw_design(Drawing& to, const std::string& art_id, const Rect& ink, const Affine& map, double opacity) {
    ArtMark art = art_in(art_id, ink);
    art.place = map.after(art.place);
    art.opacity = opacity;
    to.marks.emplace_back(std::move(art));
}

void draw_design(Drawing& to, const Decoration& dec, const SizeFit& size, const Affine& map, double opacity) {
    draw_design(to, shown_art(dec, size), shown_ink(size), map, opacity);
}

void draw_pressed_design(Drawing& to, const Panel& garment, const Decoration& dec, const SizeFit& size, const Affine& map) {
    if (dec.making.cover) to.clip(mapped(garment.outline, map));
    draw_design(to, dec, size, map);
    if (dec.making.cover) to.unclip();
}

void draw_landmarks(Drawing& to, const Panel& g, const Affine& map, double hair) {
    if (g.pit_y) {
        const double half = g.width / 2;
        const Colour pit{palette::brick.r, palette::brick.g, palette::brick.b, 0.85};
        to.line({map({-half, *g.pit_y}), map({half, *g.pit_y})}, {pit, hair, {3 * hair, 3 * hair}});
    }
    const Colour fold{palette::quiet.r, palette::quiet.g, palette::quiet.b, 0.55};
    to.line({map({0, g.top_y}), map({0, g.bottom_y})}, {fold, hair, {2 * hair, 4 * hair}});
}

void draw_dimension(Drawing& to, Point a, Point b, const std::string& figure, const DimensionStyle& s) {
    const Stroke stroke{s.colour, s.hair, {}};
    const Point d = b - a;
    const double len = norm(d);
    if (len <= 0) return;
    const Point n = Point{-d.y, d.x} * (s.text_size * 0.32 / len);
    to.line({a, b}, {{s.plate.r, s.plate.g, s.plate.b, 0.6}, s.hair * 3, {}});  // or it drowns in a dark cloth
    to.line({a, b}, stroke);
    to.line({a - n, a + n}, stroke);
    to.line({b - n, b + n}, stroke);
    const double w = text_width_guess(figure, s.text_size) + s.text_size * 0.6;
    const double h = s.text_size * 1.35;
    const bool level = std::abs(d.x) > std::abs(d.y);
    Point middle = (a + b) * 0.5;
    if (level && s.aside.x != 0 && len < w + s.text_size * 0.3)
        middle.x = s.aside.x > 0 ? std::max(a.x, b.x) + w / 2 + s.hair * 2 : std::min(a.x, b.x) - w / 2 - s.hair * 2;
    else if (level && len < w + s.text_size)
        middle.y += s.aside.y > 0 ? h * 0.7 : -h;
    if (!level && len < h + s.text_size * 0.8) middle.x += w / 2 + s.text_size * 0.5;  // beside it
    if (s.taken != nullptr) {                                                          // where it lies free: along its line, then beside it
        const auto plate = [&](Point at) { return Rect{at.x - w / 2, at.y - h / 2, at.x + w / 2, at.y + h / 2}; };
        std::vector<Point> places{middle, a + d * 0.28, a + d * 0.72};
        for (const double off : {1.0, -1.0, 2.0, -2.0})
            places.push_back(middle + (level ? Point{0, off * h * 1.05} : Point{off * (w / 2 + s.text_size * 0.5), 0}));
        for (const Point& at : places)
            if (std::none_of(s.taken->begin(), s.taken->end(), [&](const Rect& r) { return r.meets(plate(at)); })) {
                middle = at;
                break;
            }
        s.taken->push_back(plate(middle));
    }
    to.fill({round_rect({middle.x - w / 2, middle.y - h / 2, middle.x + w / 2, middle.y + h / 2}, h * 0.25)}, s.plate);
    to.text({middle.x, middle.y + s.text_size * 0.35}, figure, s.text_size, s.colour, Align::centre, true);
}

void draw_hand_measurements(Drawing& to, const Panel& g, const SizeFit& fit, const Affine& map, Reading reading, const DimensionStyle& s) {
    const auto figure = [&](double mm) { return length_text(Length::from_mm(mm), reading, false); };
    const Rect& ink = fit.ink;
    const Point c = ink.centre();
    const double middle = margin_height(g, ink);
    const double left = left_edge_x(g, middle), right = right_edge_x(g, middle);
    std::vector<Rect> plates;
    DimensionStyle own = s;
    if (own.taken == nullptr) own.taken = &plates;
    if (fit.top_to_ink > 0.5) draw_dimension(to, map({c.x, g.top_y}), map({c.x, ink.y0}), figure(fit.top_to_ink), own);
    DimensionStyle side = own;
    side.aside = {-1, 0};
    if (fit.left_margin > 0.5) draw_dimension(to, map({left, middle}), map({ink.x0, middle}), figure(fit.left_margin), side);
    side.aside = {1, 0};
    if (fit.right_margin > 0.5) draw_dimension(to, map({ink.x1, middle}), map({right, middle}), figure(fit.right_margin), side);
    const double below = 9 * s.hair;
    Point from = map({ink.x0, ink.y1});
    Point till = map({ink.x1, ink.y1});
    from.y += below;
    till.y += below;
    DimensionStyle chosen = own;
    chosen.colour = palette::verdigris;
    chosen.aside = {0, 1};
    draw_dimension(to, from, till, figure(fit.width), chosen);
}

void draw_balance(Drawing& to, const SizeFit& fit, const Affine& map, Reading reading, const DimensionStyle& s) {
    if (std::abs(fit.balance) < 0.5) return;
    const double middle = fit.ink.centre().x;
    const Point box = map({middle, fit.ink.y0}), eye = map({middle + fit.balance, fit.ink.y0});
    const double tall = 9 * s.hair;
    to.line({box - Point{0, tall}, box + Point{0, tall}}, {palette::quiet, s.hair * 1.4, {}});
    to.line({eye - Point{0, tall}, eye + Point{0, tall}}, {palette::plum, s.hair * 1.8, {}});
    to.line({box, eye}, {palette::plum, s.hair, {}});
    const std::string words = said(reading, "eye ") + length_text(Length::from_mm(std::abs(fit.balance)), reading, false) +
                              said(reading, fit.balance > 0 ? " right" : " left");
    const double w = text_width_guess(words, s.text_size * 0.9) + s.text_size * 0.5, h = s.text_size * 1.2;
    const Point at{eye.x + (fit.balance > 0 ? 1 : -1) * (w / 2 + 4 * s.hair), eye.y - tall};
    to.fill({round_rect({at.x - w / 2, at.y - h / 2, at.x + w / 2, at.y + h / 2}, h * 0.25)}, s.plate);
    to.text({at.x, at.y + s.text_size * 0.32}, words, s.text_size * 0.9, palette::plum, Align::centre, true);
}

void draw_fields(Drawing& to, const std::vector<Rect>& fields, int now, const Rect& window, const Affine& map, double hair,
                 double text_size) {
    if (fields.size() < 2) return;
    const auto corners = [&](const Rect& r) {
        const Point a = map({r.x0, r.y0}), b = map({r.x1, r.y1});
        return Rect{a.x, a.y, b.x, b.y};
    };
    to.clip(corners(window));
    for (std::size_t k = 0; k < fields.size(); ++k) {
        const Rect r = corners(fields[k]);
        const bool own = static_cast<int>(k) == now;
        to.rect(r, own ? Colour{palette::verdigris.r, palette::verdigris.g, palette::verdigris.b, 0.18} : Colour{1, 1, 1, 0.04},
                Stroke{own ? palette::verdigris : palette::quiet, hair * (own ? 2 : 1), {5 * hair, 3 * hair}});
        // the number stands where the other fields leave room: towards the corner that looks away from the middle of all
        const double size = text_size * 1.15;
        const Rect seen{std::max(r.x0, corners(window).x0), std::max(r.y0, corners(window).y0), std::min(r.x1, corners(window).x1),
                        std::min(r.y1, corners(window).y1)};
        if (seen.width() < 2 * size || seen.height() < 2 * size) continue;
        const Point at{seen.centre().x, seen.y1 - size};
        to.fill({disc({at.x, at.y - size * 0.36}, size * 0.8)}, own ? palette::verdigris : Colour{1, 1, 1, 0.85});
        to.text(at, std::to_string(k + 1), size, own ? palette::white : palette::ink, Align::centre, true);
    }
    to.unclip();
}

void draw_platen(Drawing& to, const PlatenFit& platen, const std::vector<RaisedBox>& raised, const Rect& window, const Affine& map,
                 double hair) {
    const Colour steel{0.29, 0.36, 0.45, 1};
    const auto corners = [&](const Rect& r) {
        const Point a = map({r.x0, r.y0}), b = map({r.x1, r.y1});
        return Rect{a.x, a.y, b.x, b.y};
    };
    to.clip(corners(window));
    for (const Rect& r : platen.presses) {
        for (const RaisedBox& b : raised) {
            const Rect in{std::max(r.x0, b.box.x0), std::max(r.y0, b.box.y0), std::min(r.x1, b.box.x1), std::min(r.y1, b.box.y1)};
            if (in.width() <= 0 || in.height() <= 0) continue;
            to.rect(corners(in), Colour{palette::ochre.r, palette::ochre.g, palette::ochre.b, 0.35});
        }
        to.rect(corners(r), Colour{1, 1, 1, 0.05}, Stroke{{1, 1, 1, 0.7}, hair * 3, {}});  // or it drowns in a dark cloth
        to.rect(corners(r), {}, Stroke{steel, hair * 1.4, {7 * hair, 3 * hair}});
    }
    if (platen.pad_place) {
        const Rect r = corners(*platen.pad_place);
        to.marks.emplace_back(PathMark{{round_rect(r, 6 * hair)},
                                       true,
                                       Colour{palette::moss.r, palette::moss.g, palette::moss.b, 0.16},
                                       Stroke{palette::moss, hair * 1.4, {}}});
    }
    to.unclip();
}

}  // namespace orthema
