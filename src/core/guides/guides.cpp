#include "core/guides/guides.h"

#include <algorithm>
#include <cmath>

#include "core/base/dates.h"
#include "core/base/utf8.h"
#include "core/drawing/code2d.h"
#include "core/guides/panel_drawing.h"
#include "core/order/recipes.h"
#include "core/order/roster.h"
#include "core/transfers/transfers.h"

namespace orthema {

namespace {

constexpr double paper_margin = 10;
constexpr double overlap = 12;

/// A line on the wall as it lies on the flat sheet.
Ring bent_line(const RingSector& wall, const Ring& through) {
    if (wall.straight()) return through;
    Ring out;
    for (std::size_t i = 0; i < through.size(); ++i) {
        const Point a = through[i], b = through[std::min(i + 1, through.size() - 1)];
        const int steps = std::max(1, static_cast<int>(norm(b - a) / 2));
        for (int k = 0; k < steps; ++k) out.push_back(wall.bent(a + (b - a) * (static_cast<double>(k) / steps)));
    }
    return out;
}

Region bent_box(const RingSector& wall, const Rect& box) { return wall.straight() ? box_region(box) : wall.bent(box_region(box)); }

/// Where the words of a short template begin: in the ink's place, clear of the pit line's own.
double brief_words_at(const SizeFit& size, const Panel& g) {
    const double y = std::max(size.ink.y0, g.top_y) + 24;
    return g.pit_y && *g.pit_y > y - 13 && *g.pit_y < y + 27 ? *g.pit_y + 15 : y;
}

/// The template in the garment's frame, mm; on a tapered wall bent as the wall is.
Drawing template_drawing(const Order& order, const Decoration& dec, const SizeFit& size, const Panel& g, const Region& outline,
                         const RingSector& wall, const Rect& area, bool brief, std::vector<Rect>& needed) {
    Drawing d;
    const auto line = [&](const Ring& through, const Stroke& stroke) { d.line(bent_line(wall, through), stroke); };
    const Stroke solid{palette::ink, 0.35, {}};
    const Stroke thin{palette::quiet, 0.2, {}};
    line({{0, area.y0}, {0, area.y1}}, {palette::ink, 0.25, {4, 2}});
    d.text({1.5, brief ? std::min(size.ink.y0, g.top_y) - 6 : size.ink.y1 + 9},
           phrase(g.pit_y ? "page-centre-fold" : "page-centre-line", order.unit), 3, palette::ink);
    if (g.pit_y) {
        d.line({{area.x0, *g.pit_y}, {area.x1, *g.pit_y}}, {palette::brick, 0.3, {3, 2}});
        d.text({area.x0 + 2, *g.pit_y - 1}, phrase("page-pit-line", order.unit), 3, palette::brick_text);
    }
    // collar notch: the collar seam as far as the paper reaches, to be cut out
    for (const double side : {1.0, -1.0}) {
        Ring seam;
        for (const Point& p : g.neck_edge) seam.push_back({side * p.x, p.y});
        d.line(seam, solid);
    }
    if (g.neck_edge.empty()) {
        line({{area.x0, g.top_y}, {area.x1, g.top_y}}, solid);
        d.text({2, g.top_y - 2}, phrase("page-lay-this-line", order.unit, {{"top", Term{g.top_name}}}), 3, palette::ink);
    } else {
        d.text({2, g.top_y - 2}, phrase("page-cut-along-the-collar-seam", order.unit), 3, palette::ink);
    }
    Region ink = mapped(outline, Affine{size.width, 0, 0, size.width, size.ink.x0, size.ink.y0});
    if (!wall.straight()) ink = wall.bent(ink);
    if (!brief) d.region(ink, {}, thin);
    if (order.guide_setup.windows && !brief) {
        const Rect window = size.ink.grown(3);
        d.region(bent_box(wall, window), Colour{0.9, 0.89, 0.86, 0.6}, Stroke{palette::brick, 0.35, {3, 1.5}});
        d.text({window.x1 - 2, window.y0 + 4}, phrase("page-cut-this-window-out", order.unit), 3, palette::brick_text, Align::right);
        d.region(ink, {}, thin);
    }
    const double arm = std::min({15.0, size.width / 3, size.height / 3});
    const Rect& r = size.ink;
    const auto corner = [&](Point p, double sx, double sy) {
        line({p + Point{sx * arm, 0}, p, p + Point{0, sy * arm}}, {palette::verdigris, 0.5, {}});
    };
    corner({r.x0, r.y0}, 1, 1);
    corner({r.x1, r.y0}, -1, 1);
    if (brief) {  // its upper edge
        line({{r.x0, r.y0}, {r.x1, r.y0}}, {palette::verdigris, 0.25, {3, 2}});
    } else {
        corner({r.x0, r.y1}, 1, -1);
        corner({r.x1, r.y1}, -1, -1);
    }
    // the transfer's own centre tick
    const double tick = dec.placing.centre == Centre::ink_box ? r.centre().x : anchor_x(dec.location, g) + across_on(dec, size.size).mm();
    line({{tick, r.y0 - 5}, {tick, r.y0 + 3}}, {palette::verdigris, 0.5, {}});
    if (!brief) line({{tick, r.y1 - 3}, {tick, r.y1 + 5}}, {palette::verdigris, 0.5, {}});
    // below the ink, which a wall bends down at its sides; of a short one in the ink's place
    const Point label{std::max(area.x0 + 4, r.x0), brief ? brief_words_at(size, g) : std::max(r.y1, bounds(bent_box(wall, r)).y1) + 14};
    if (brief && (r.x0 < area.x0 || r.x1 > area.x1))
        d.text(label + Point{0, -6},
               phrase("page-edges-past-the-paper", order.unit,
                      {{"left", Length::from_mm(std::abs(r.x0))}, {"right", Length::from_mm(std::abs(r.x1))}}),
               3.2, palette::verdigris_text);
    needed.push_back({label.x, label.y - 5, label.x + 104, label.y + 24});
    needed.push_back(brief ? Rect{std::max(r.x0, area.x0), r.y0 - 5, std::min(r.x1, area.x1), r.y0 + arm}
                           : bounds(bent_box(wall, r.grown(4))));
    needed.push_back({-12, g.top_y - 10, 12, std::max(g.top_y + 10, brief ? r.y0 : g.top_y + 10)});
    for (const Point& p : g.neck_edge) needed.push_back(Rect{-p.x, p.y, p.x, p.y}.grown(2));
    d.text(label, dec.name + ", " + run_name(order, dec.run) + " " + size.size, 4.2, palette::ink, Align::left, true);
    d.text(label + Point{0, 5},
           phrase("page-template-says", order.unit,
                  {{"location", location_name(dec.location, family_of(order, dec.run))},
                   {"width", Length::from_mm(size.width)},
                   {"top", Length::from_mm(size.top_to_ink)},
                   {"below", Term{g.top_name}}}),
           3.2, palette::ink);
    calibration_bar(d, label + Point{0, 14}, 100, "100 mm");
    calibration_bar(d, label + Point{0, 22}, 101.6, "4 in");
    return d;
}

std::string tile_name(int column, int row) { return std::string(1, static_cast<char>('A' + row % 26)) + std::to_string(column + 1); }

/// A diamond across a join: the halves of two sheets must close it.
void join_mark(Drawing& d, Point at, const std::string& name) {
    d.line({at + Point{-3, 0}, at + Point{0, -3}, at + Point{3, 0}, at + Point{0, 3}, at + Point{-3, 0}}, {palette::verdigris, 0.3, {}});
    d.text(at + Point{0, 1}, name, 2.4, palette::verdigris_text, Align::centre);
}

/// Where words stand, nearly.
Rect text_box(const TextMark& t) {
    const double w = text_width_guess(t.text, t.size);
    const double x = t.align == Align::left ? 0 : t.align == Align::right ? -w : -w / 2;
    const Affine to = Affine::shift(t.at.x, t.at.y).after(Affine::turn(t.degrees));
    return bounds(mapped(Ring{{x, -t.size}, {x + w, -t.size}, {x + w, 0.3 * t.size}, {x, 0.3 * t.size}}, to));
}

/// The place of the first or second mark on a join from `a` to `b`, as near its fifth and four fifths as words allow: its
/// x on a level join, its y on an upright one.
double free_on_join(const std::vector<Rect>& words, Point a, Point b, int no) {
    const auto at = [&](double t) { return a + (b - a) * t; };
    double best = no == 1 ? 0.2 : 0.8;
    for (const double step : {0.0, 0.05, -0.05, 0.1, -0.1, 0.15, -0.15, -0.18, 0.2, 0.25, 0.3, 0.35, 0.4, 0.45}) {
        const double t = no == 1 ? 0.2 + step : 0.8 - step;
        const Point p = at(t);
        const Rect box = Rect{p.x, p.y, p.x, p.y}.grown(3.4);
        if (std::any_of(words.begin(), words.end(), [&](const Rect& w) { return w.meets(box); })) continue;
        best = t;
        break;
    }
    const Point p = at(best);
    return a.x == b.x ? p.y : p.x;
}

/// Which side is shown, with the wearer's side where there is a wearer.
std::string face_words(Family family, Face face, const Reading& reading) {
    switch (face) {
    case Face::front:
    case Face::back: return phrase("page-seen-from", reading, {{"side", side_words(family, face, reading)}});
    case Face::wrap: return phrase("page-the-wall-unrolled-seen-from", reading);
    default: return phrase("page-seen-from-outside", reading, {{"face", face_name(face)}});
    }
}

std::string centre_words(Family family, Face face, Location location, const Reading& reading) {
    if (face == Face::wrap) return phrase("page-lay-the-transfer-s-centre", reading);
    if (location == Location::whole_front || location == Location::whole_back) return phrase("page-lay-the-blank-square-centre", reading);
    if (family_build(family) != Build::upper_body || (face != Face::front && face != Face::back))
        return phrase("page-fold-or-mark-the-panel", reading);
    return phrase(is_sided(location) ? "page-crease-and-measure" : "page-crease-and-lay", reading);
}

GuidePage card_page(const Order& order, const Decoration& dec, const SizeFit& size, const Panel& g, const Exactness& exact,
                    PaperSize paper) {
    GuidePage page;
    Drawing& d = page.drawing;
    d.width = paper.width;
    d.height = paper.height;
    page.title = dec.name + ", " + run_name(order, dec.run) + " " + size.size;
    const Family family = find_style(order, dec.run.style)->family;  // or it could not have been fitted
    const double x = 16;
    d.text({x, 22}, run_name(order, dec.run) + "  " + size.size, 8, palette::ink, Align::left, true);
    const std::string revision = guide_revision(order, dec, size);
    constexpr double code_side = 21;
    draw_code(d, code_text({dec.id, size.size, revision}), {paper.width - x - code_side + 2, 10}, code_side);
    const double beside = paper.width - x - code_side;
    d.text({beside, 22}, phrase("page-pieces", order.unit, {{"n", size.quantity}}), 6, palette::ink, Align::right, true);
    const std::string what = dec.name + ", " + said(order.unit, location_name(dec.location, family));
    const std::string when = date_line(order);
    const double across = beside - x - 4, due_size = std::clamp(across * 0.44 / text_width_guess(when, 1), 2.6, 3.2);
    const double left = across - std::min(0.44 * across, text_width_guess(when, due_size));
    d.text({x, 30}, what, fitted_size(what, 5, left), palette::ink);
    d.text({beside, 28}, shortened(when, 0.44 * across, due_size), due_size, palette::quiet, Align::right);
    d.text({beside, 32.4}, phrase("page-revision", order.unit, {{"revision", revision}}), 3, palette::quiet, Align::right);
    d.line({{x, 34}, {paper.width - x, 34}}, {palette::rule, 0.4, {}});

    // the garment, as large as it goes, at a stated scale
    const Rect box = drawn_box(g);
    const Rect room{x, 40, paper.width - x, 178};
    const double scale = std::min(room.width() / box.width(), room.height() / box.height());
    const Affine map{scale, 0, 0, scale, room.centre().x - scale * box.centre().x, room.y0 - scale * box.y0};
    draw_panel(d, g, map, cloth_of(order, dec), 0.25);
    draw_landmarks(d, g, map, 0.25);
    draw_pressed_design(d, g, dec, size, map);
    DimensionStyle style;
    style.hair = 0.3;
    style.text_size = 4;
    draw_hand_measurements(d, g, size, map, order.unit, style);
    d.text({paper.width - x, 184}, phrase("page-scale", order.unit, {{"scale", Number{1 / scale, 1}}}), 3, palette::quiet, Align::right);
    d.text({x, 184}, face_words(family, g.face, order.unit), 3, palette::quiet);

    double y = 196;
    const double pitch = is_lettering(order, dec) ? 6.4 : 8;  // the pile wants room under them
    for (const CardLine& line : card_lines(g, size, dec.location, exact, order.unit)) {
        const double free = 92 - text_width_guess(line.figure, 5.4, true) - 4;
        if (const double tall = fitted_size(line.what, 4.2, 0.94 * free); tall > 0.8 * 4.2)  // a screen's letters are a little wider
            d.text({x, y}, line.what, tall, palette::quiet);
        else  // in two lines, about the figure's own
            wrapped(d, {x, y - 1.7}, line.what, 3.2, free, palette::quiet, false, 1.1);
        d.text({x + 92, y}, line.figure, 5.4, palette::ink, Align::right, true);
        d.text({x + 95, y}, line.exact, 4.2, palette::brick_text);
        y += pitch;
    }
    std::string pile;
    for (const Worn& w : pile_of(order, dec, size.size))
        pile += (pile.empty() ? "" : " · ") + (w.word.empty() ? "–" : w.word) + (w.quantity > 1 ? " × " + std::to_string(w.quantity) : "");
    if (!pile.empty()) {  // what lies on which garment, from the top of the pile down
        std::string words = phrase("page-pile", order.unit, {{"words", pile}});
        const auto letters = static_cast<std::size_t>(std::max(1.0, std::floor((paper.height - 33 - y) / 4.8)) * 60);
        if (words.size() > letters) words = first_bytes(words, letters) + phrase("page-rest-on-run-sheet", order.unit);
        wrapped(d, {x, y}, words, 3.4, 116, palette::ink);
    }
    const double right = x + 122;
    const double column = paper.width - x - right;
    double beside_y = 196;
    const auto say = [&](const std::string& words) { beside_y = wrapped(d, {right, beside_y}, words, 3.4, column, palette::ink) + 3; };
    say(centre_words(family, g.face, dec.location, order.unit));
    if (const Press* press = find_press(order, dec.press)) {
        std::string words = press->name;
        if (press->kind == PressKind::flat) words += ": " + worded(platen_words(size.platen, *press), order.unit);
        say(words + ".");
    }
    if (const Medium* medium = find_medium(order, dec.medium))
        say(medium->name + ", " + said(order.unit, reading_direction(*medium)) + ".");
    const ChosenRecipe recipe = recipe_for(order, dec);
    if (!recipe.steps.empty())
        wrapped(
            d, {x, paper.height - 29},
            recipe_words(steps_done(order, dec), order.press_run.fahrenheit, in_oven(order, dec), order.unit) + " (" + recipe.from + ").",
            3, paper.width - 2 * x, palette::ink);
    std::string caution = phrase("caution-card", order.unit);
    if (is_infant_wear(family))
        caution += " " + phrase("caution-card-infant", order.unit);
    else if (is_hard(family))
        caution += " " + phrase("caution-card-hard", order.unit);
    wrapped(d, {x, paper.height - 16}, caution, 3, paper.width - 2 * x, palette::carmine);
    return page;
}

}  // namespace

void calibration_bar(Drawing& d, Point at, double length, const std::string& name) {
    const Stroke line{palette::ink, 0.25, {}};
    d.line({at, at + Point{length, 0}}, line);
    d.line({at - Point{0, 2}, at + Point{0, 2}}, line);
    d.line({at + Point{length, -2}, at + Point{length, 2}}, line);
    d.text(at + Point{length / 2, -1.2}, name, 3, palette::ink, Align::centre);
}

std::string date_line(const std::string& name, const std::string& due, const Reading& reading) {
    return name + (due.empty() ? "" : said(reading, ", due ") + day_text(due, reading));
}

std::string date_line(const Order& order) { return date_line(order.name, order.due, order.unit); }

double wrapped(Drawing& d, Point at, const std::string& words, double size, double width, Colour colour, bool bold, double leading) {
    std::string line;
    std::string word;
    const auto flush = [&] {
        d.text(at, line, size, colour, Align::left, bold);
        at.y += size * leading;
        line.clear();
    };
    for (const char c : words + " ") {
        if (c != ' ') {
            word += c;
            continue;
        }
        if (!line.empty() && text_width_guess(line + " " + word, size, bold) > width) flush();
        line += (line.empty() ? "" : " ") + word;
        word.clear();
    }
    if (!line.empty()) flush();
    return at.y;
}

PaperSize paper_size(Paper paper) { return paper == Paper::a4 ? PaperSize{210, 297} : PaperSize{215.9, 279.4}; }

std::vector<PaperSize> template_papers(const Order& order) {
    std::vector<PaperSize> out{paper_size(order.paper)};
    if (!order.guide_setup.large_paper) return out;
    if (order.paper == Paper::a4)
        out.push_back({297, 420});
    else
        out.insert(out.end(), {{215.9, 355.6}, {279.4, 431.8}});
    return out;
}

const char* paper_name(const PaperSize& p) {
    if (p.width < 212) return "A4";
    if (p.width > 290) return "A3";
    return p.width > 250 ? "tabloid" : p.height > 300 ? "legal" : "letter";
}

std::vector<CardLine> card_lines(const Panel& p, const SizeFit& s, Location location, const Exactness& exact, Reading reading) {
    // what is measured by hand has its tolerance beside it
    const auto text = [&](double mm) { return length_text(Length::from_mm(mm), reading); };
    const std::string level = "± " + text(exact.level), sideways = "± " + text(exact.sideways);
    std::vector<CardLine> lines;
    if (s.top_to_ink >= 0)
        lines.push_back({capitalised(phrase("card-top-to-ink", reading, {{"top", Term{p.top_name}}})), text(s.top_to_ink), level});
    else
        lines.push_back({phrase("card-ink-above-top", reading, {{"top", Term{p.top_name}}}), text(-s.top_to_ink), level});
    if (s.ink_to_pit)
        lines.push_back({phrase(*s.ink_to_pit >= 0 ? "card-above-pit" : "card-below-pit", reading), text(std::abs(*s.ink_to_pit)), level});
    if (is_sided(location))
        lines.push_back({phrase("card-fold-to-ink", reading), text(std::min(std::abs(s.ink.x0), std::abs(s.ink.x1))), sideways});
    const std::string& side = side_name_at(p, margin_height(p, s.ink));
    const auto to_edge = [&](const char* inside, const char* past, const char* what, const std::string& edge, double mm,
                             const std::string& tolerance) {
        lines.push_back({phrase(mm >= 0 ? inside : past, reading, {{what, Term{edge}}}), text(std::abs(mm)), tolerance});
    };
    to_edge("card-ink-to-left", "card-ink-past-left", "side", side, s.left_margin, sideways);
    to_edge("card-ink-to-right", "card-ink-past-right", "side", side, s.right_margin, sideways);
    to_edge("card-ink-to", "card-ink-past", "what", p.bottom_name, s.ink_to_bottom, level);
    if (!s.below.empty()) to_edge("card-ink-to", "card-ink-past", "what", s.below, s.ink_to_below, level);
    lines.push_back({phrase(s.word.empty() ? "card-width" : "card-field-width", reading), text(s.width), ""});
    lines.push_back({phrase(s.word.empty() ? "card-height" : "card-field-height", reading), text(s.height), ""});
    return lines;
}

std::vector<GuidePage> template_tiles(const Drawing& whole, const TemplateLayout& l, const std::string& title, const std::string& footer,
                                      const Reading& reading, const std::vector<Rect>& needed) {
    std::vector<GuidePage> pages;
    // by what each page has that is on no neighbour too
    std::vector<char> wanted;
    for (int row = 0; row < l.rows; ++row)
        for (int column = 0; column < l.columns; ++column) {
            const Point at{l.area.x0 + column * l.step_x, l.area.y0 + row * l.step_y};
            const Rect own{at.x + (column > 0 ? overlap : 0), at.y + (row > 0 ? overlap : 0),
                           at.x + l.tile_width - (column + 1 < l.columns ? overlap : 0),
                           at.y + l.tile_height - (row + 1 < l.rows ? overlap : 0)};
            wanted.push_back(needed.empty() || std::any_of(needed.begin(), needed.end(), [&](const Rect& r) { return r.meets(own); }) ? 1
                                                                                                                                      : 0);
        }
    const auto count = std::count(wanted.begin(), wanted.end(), 1);
    const auto is_made = [&](int column, int row) {
        return column >= 0 && row >= 0 && column < l.columns && row < l.rows &&
               wanted[static_cast<std::size_t>(row * l.columns + column)] != 0;
    };
    std::vector<Rect> words;
    for (const Mark& m : whole.marks)
        if (const auto* t = std::get_if<TextMark>(&m)) words.push_back(text_box(*t));
    const double pw = l.landscape ? l.paper.height : l.paper.width;
    const double ph = l.landscape ? l.paper.width : l.paper.height;
    for (int row = 0; row < l.rows; ++row)
        for (int column = 0; column < l.columns; ++column) {
            if (!is_made(column, row)) continue;
            GuidePage page;
            page.title = title + " " + tile_name(column, row);
            page.drawing.width = pw;
            page.drawing.height = ph;
            const double x0 = l.area.x0 + column * l.step_x;
            const double y0 = l.area.y0 + row * l.step_y;
            const double k = l.scale;
            const Affine to_page{k, 0, 0, k, paper_margin - k * x0, paper_margin - k * y0};
            const Rect window{paper_margin, paper_margin, paper_margin + k * l.tile_width, paper_margin + k * l.tile_height};
            page.drawing.clip(window);
            for (const Mark& m : whole.marks) page.drawing.marks.push_back(mapped(m, to_page));
            // joins: the middle of the overlap with each neighbour
            const auto mark = [&](double gx, double gy, const std::string& name) { join_mark(page.drawing, to_page({gx, gy}), name); };
            const double half = overlap / 2;
            for (const int no : {1, 2}) {
                // along an upright join at x, or a level one at y, where no words stand; the same for both its sheets
                const auto upright = [&](double x, const std::string& name) {
                    mark(x, free_on_join(words, {x, y0}, {x, y0 + l.tile_height}, no), name + "·" + std::to_string(no));
                };
                const auto level = [&](double y, const std::string& name) {
                    mark(free_on_join(words, {x0, y}, {x0 + l.tile_width, y}, no), y, name + "·" + std::to_string(no));
                };
                if (is_made(column - 1, row)) upright(x0 + half, tile_name(column - 1, row));
                if (is_made(column + 1, row)) upright(x0 + l.step_x + half, tile_name(column, row));
                if (is_made(column, row - 1)) level(y0 + half, tile_name(column, row - 1));
                if (is_made(column, row + 1)) level(y0 + l.step_y + half, tile_name(column, row));
            }
            page.drawing.unclip();
            const double third = overlap * k;
            const Stroke cut{palette::rule, 0.2, {1, 1}};
            if (column > 0) page.drawing.line({{window.x0 + third, window.y0}, {window.x0 + third, window.y1}}, cut);
            if (row > 0) page.drawing.line({{window.x0, window.y0 + third}, {window.x1, window.y0 + third}}, cut);
            page.drawing.text(
                {paper_margin, ph - 4.5},
                footer + "  " +
                    phrase("page-tile-foot", reading,
                           {{"tile", tile_name(column, row)}, {"n", static_cast<int>(count)}, {"paper", paper_name(l.paper)}}),
                2.8, palette::quiet);
            pages.push_back(std::move(page));
        }
    return pages;
}

TemplateLayout tile_layout(const Rect& area, const std::vector<PaperSize>& papers, double scale) {
    TemplateLayout best;
    for (const PaperSize& paper : papers)
        for (const bool landscape : {false, true}) {
            TemplateLayout l;
            l.area = area;
            l.landscape = landscape;
            l.paper = paper;
            l.scale = scale;
            l.tile_width = ((landscape ? paper.height : paper.width) - 2 * paper_margin) / scale;
            l.tile_height = ((landscape ? paper.width : paper.height) - 2 * paper_margin) / scale;
            l.step_x = l.tile_width - overlap;
            l.step_y = l.tile_height - overlap;
            const auto need = [](double length, double tile, double step) {
                return length <= tile ? 1 : 1 + static_cast<int>(std::ceil((length - tile) / step - 1e-9));
            };
            l.columns = need(area.width(), l.tile_width, l.step_x);
            l.rows = need(area.height(), l.tile_height, l.step_y);
            if (best.tile_width == 0 || l.pages() < best.pages()) best = l;
        }
    return best;
}

Guide guide_for(const Order& order, const Decoration& dec, const DecorationFit& fit, const SizeFit& size, const Region& outline) {
    Guide guide;
    guide.decoration = fit.decoration;
    guide.size = size.size;
    const BlankStyle* style = find_style(order, dec.run.style);
    const Ground* ground = find_ground(fit, size.size);
    const Panel g = ground != nullptr ? ground->panel : panel_for(*style, size.size, dec.location);
    const Exactness exact = ground != nullptr ? exactness_of(slack_of(*ground, fit, size)) : Exactness{};
    const PaperSize paper = paper_size(order.paper);
    guide.card = card_page(order, dec, size, g, exact, paper);
    // from above the collar seam to below the ink and its labels; wide enough for the centre fold and the ink
    Rect area{std::min(size.ink.x0 - 8, -12.0), std::min(size.ink.y0, g.top_y) - 16, std::max(size.ink.x1 + 8, 12.0),
              std::max(size.ink.y1, g.pit_y.value_or(size.ink.y1)) + 6};
    RingSector sheet;
    if (g.face == Face::wrap && style != nullptr)
        if (const auto wall = wall_of(style->family, style->chart.at(size.size)))
            if (const auto flat = unrolled(*wall)) sheet = *flat;
    if (!sheet.straight()) {  // with the rim's whole arc over the ink
        const Rect bent = bounds(bent_box(sheet, {area.x0, std::min(0.0, size.ink.y0), area.x1, size.ink.y1}));
        area = united(area, bent.grown(4));
    }
    area.y1 = std::max(area.y1, bounds(bent_box(sheet, size.ink)).y1 + 42);
    const bool brief = order.guide_setup.short_templates && g.face != Face::wrap;
    if (brief) {
        const double usable = (paper.width - 2 * paper_margin) / print_correction(order.guide_setup);
        area.y1 = brief_words_at(size, g) + 28;
        if (area.width() > usable && size.ink.x0 < 0 && size.ink.x1 > 0) {  // about the centre line; the edges are said
            area.x0 = -usable / 2;
            area.x1 = usable / 2;
        }
    }
    area.x1 = std::max(area.x1, std::max(area.x0 + 4, size.ink.x0) + 110);
    guide.layout = tile_layout(area, template_papers(order), print_correction(order.guide_setup));
    std::vector<Rect> needed;
    guide.whole = template_drawing(order, dec, size, g, outline, sheet, area, brief, needed);
    guide.revision = guide_revision(order, dec, size);
    guide.tiles =
        template_tiles(guide.whole, guide.layout, guide.card.title,
                       dec.name + ", " + run_name(order, dec.run) + " " + size.size + said(order.unit, ", revision ") + guide.revision,
                       order.unit, needed);
    return guide;
}

double print_correction(const GuideSetup& setup) { return std::clamp(100 / std::max(1.0, setup.measured.mm()), 0.8, 1.25); }

/// From figures, keys and what the shop typed, never from how the program words it.
std::string guide_revision(const Order& order, const Decoration& dec, const SizeFit& s) {
    std::string all = dec.id + "|" + dec.art + "|" + dec.run.style + "|" + dec.run.colour + "|" + s.size + "|" +
                      location_key(dec.location) + "|" + dec.press + "|" + dec.medium;
    if (const std::string words = lettered_words(order, dec, s.size); !words.empty()) all += "|" + words;
    const auto tenth = [&](double mm) { all += "|" + std::to_string(std::lround(mm * 10)); };
    for (const double mm : {s.width, s.height, s.ink.x0, s.ink.y0, s.top_to_ink, s.left_margin, s.right_margin, s.ink_to_bottom}) tenth(mm);
    all +=
        "|" + std::to_string(static_cast<int>(s.platen.way)) + "|" + std::to_string(s.platen.platen) + "|" + std::to_string(s.platen.pad);
    for (const Rect& r : s.platen.presses) {
        tenth(r.x0);
        tenth(r.y0);
    }
    if (const Press* press = find_press(order, dec.press);
        press != nullptr && s.platen.platen >= 0 && s.platen.platen < static_cast<int>(press->platens.size())) {
        const MarksMoved moved = marks_moved(order.corrections, press->id, press->platens[static_cast<std::size_t>(s.platen.platen)].name);
        if (moved.any()) {
            tenth(moved.aside);
            tenth(moved.down);
        }
    }
    for (const RecipeStep& step : recipe_for(order, dec).steps) {
        for (const double v : {static_cast<double>(step.kind), step.celsius, step.seconds, static_cast<double>(step.pressure),
                               step.gauge_bar, static_cast<double>(step.peel), step.protect_other ? 1.0 : 0.0})
            tenth(v);
        all += "|" + step.cover + "|" + step.base + "|" + step.pad + "|" + step.how;
    }
    return revision_of(all);
}

Printed printed_as(const Order& order, const Decoration& dec, const SizeFit& size) {
    for (const PrintedGuide& p : order.guide_setup.printed)
        if (p.decoration == dec.id && p.size == size.size)
            return p.revision == guide_revision(order, dec, size) ? Printed::current : Printed::stale;
    return Printed::never;
}

Order with_guides_printed(Order order, const FitPlan& plan, const std::string& decoration, const std::string& size) {
    for (const DecorationFit& fit : plan.decorations) {
        const Decoration* dec = find_decoration(order, fit.decoration);
        if (dec == nullptr || (!decoration.empty() && decoration != fit.decoration)) continue;
        for (const SizeFit& s : fit.sizes) {
            if (!size.empty() && size != s.size) continue;
            std::erase_if(order.guide_setup.printed, [&](const PrintedGuide& p) { return p.decoration == dec->id && p.size == s.size; });
            order.guide_setup.printed.push_back({dec->id, s.size, guide_revision(order, *dec, s)});
        }
    }
    return order;
}

Findings stale_guides(const Order& order, const FitPlan& plan) {
    Findings out;
    for (const DecorationFit& fit : plan.decorations) {
        const Decoration* dec = find_decoration(order, fit.decoration);
        if (dec == nullptr) continue;
        std::string sizes;
        for (const SizeFit& s : fit.sizes)
            if (printed_as(order, *dec, s) == Printed::stale) sizes += (sizes.empty() ? "" : ", ") + s.size;
        if (sizes.empty()) continue;
        out.push_back(finding("guide-stale", subject_of("guides", *dec), {{"design", dec->name}, {"sizes", sizes}}));
    }
    return out;
}

GuideSet guides(const Order& order, const FitPlan& plan, const ArtFactsById& facts) {
    GuideSet set;
    for (const RunKey& run : runs_of(order))
        for (const DecorationFit& fit : plan.decorations) {
            const Decoration* dec = find_decoration(order, fit.decoration);
            if (dec == nullptr || dec->run != run) continue;
            const auto art = facts.find(dec->art);
            if (art == facts.end()) continue;
            for (const SizeFit& size : fit.sizes) set.guides.push_back(guide_for(order, *dec, fit, size, art->second.outline));
        }
    return set;
}

void number_pages(std::vector<GuidePage>& pages, const PaperSize& paper, double right, const Reading& reading) {
    for (std::size_t i = 0; i < pages.size(); ++i)
        pages[i].drawing.text({right, paper.height - 8},
                              phrase("page-of", reading, {{"i", static_cast<int>(i) + 1}, {"n", static_cast<int>(pages.size())}}), 3,
                              palette::quiet, Align::right);
}

}  // namespace orthema
