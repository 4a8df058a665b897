#include "app/benches/fit/wall.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "app/widgets/speech.h"
#include "core/base/units.h"

namespace orthema::app {

namespace {

constexpr double pill_room = 27, rail_room = 25, head_room = 8;
constexpr double pill_gap = 4, rail_foot = 7;

const Panel& panel_at(const DecorationFit& fit, int i) { return fit.ground->sizes[static_cast<std::size_t>(i)].panel; }

void draw_handles(Drawing& d, const Rect& ink, const Affine& map) {
    const double r = std::clamp(std::min(ink.width(), ink.height()) * map.a / 9, 2.5, 4.5);  // small ones on a small design
    for (const Point p : {Point{ink.x0, ink.y0}, Point{ink.x1, ink.y0}, Point{ink.x0, ink.y1}, Point{ink.x1, ink.y1}}) {
        d.fill({disc(map(p), r, 16)}, palette::white);
        Ring ring = disc(map(p), r, 16);
        ring.push_back(ring.front());
        d.line(ring, {palette::verdigris, 1.6, {}});
    }
}

}  // namespace

Colour band_colour(int band) {
    static const Colour colours[] = {palette::verdigris, palette::plum, palette::olive, {0.33, 0.45, 0.64, 1}, {0.62, 0.36, 0.48, 1}};
    return colours[static_cast<std::size_t>(std::max(0, band)) % 5];
}

Colour school_colour(PlacingSchool school) {
    switch (school) {
    case PlacingSchool::collar_drop: return {0.25, 0.41, 0.56, 1};
    case PlacingSchool::pit_line: return palette::brick;
    case PlacingSchool::body_fraction: return palette::plum;
    case PlacingSchool::feature: return palette::olive;
    }
    return palette::quiet;
}

namespace {

int stands_in(const DecorationFit& fit) {
    return fit.ground == nullptr ? 0 : static_cast<int>(std::min(fit.sizes.size(), fit.ground->sizes.size()));
}

void stand_lot(Wall& wall, const DecorationFit& fit, int lot, int each, int first_row, double row_height, double cell, double head,
               const std::vector<Rect>& boxes) {
    const int n = stands_in(fit);
    for (int i = 0; i < n; ++i) {
        const int row = first_row + i / each, column = i % each;
        const double floor = (row + 1) * row_height - pill_room - rail_room;
        const Rect& box = boxes[static_cast<std::size_t>(i)];
        const double x = (column + 0.5) * cell;
        WallSlot s;
        s.lot = lot;
        s.size = i;
        s.row = row;
        s.cell = {column * cell, row * row_height + (head > head_room ? head - head_room : 0), (column + 1) * cell, (row + 1) * row_height};
        s.map = {wall.scale, 0, 0, wall.scale, x - wall.scale * box.centre().x, floor - wall.scale * box.y1};
        const double half = std::max(21.0, text_width_guess(size_at(fit, i).size, 12.5) / 2 + 9);
        s.pill = {x - 17 - half, floor + pill_gap, x - 17 + half, floor + pill_gap + 20};
        wall.stands.push_back(s);
    }
    const int rows = (n + each - 1) / each;
    for (std::size_t b = 0; b < fit.bands.size(); ++b) {
        const BandFit& band = fit.bands[b];
        for (int row = 0; row < rows; ++row) {
            const int first = std::max(band.first, row * each), last = std::min(band.last, std::min(n, (row + 1) * each) - 1);
            if (first > last) continue;
            WallRail rail;
            rail.lot = lot;
            rail.band = static_cast<int>(b);
            rail.x0 = (first - row * each) * cell + 12;
            rail.x1 = (last - row * each + 1) * cell - 12;
            rail.y = (first_row + row + 1) * row_height - rail_foot;
            rail.begins = first == band.first;
            rail.ends = last == band.last;
            wall.rails.push_back(rail);
        }
    }
}

}  // namespace

Wall wall_of(const std::vector<WallLot>& lots, double width, double height) {
    Wall wall;
    int most = 0;
    double wide = 1, tall = 1;
    std::vector<std::vector<Rect>> boxes(lots.size());
    for (std::size_t l = 0; l < lots.size(); ++l) {
        const int n = stands_in(*lots[l].fit);
        most = std::max(most, n);
        for (int i = 0; i < n; ++i) {
            boxes[l].push_back(drawn_box(panel_at(*lots[l].fit, i)));
            wide = std::max(wide, boxes[l].back().width());
            tall = std::max(tall, boxes[l].back().height());
        }
    }
    if (most == 0) return wall;
    const bool several = lots.size() > 1;
    const double head = several ? head_room + 15 : head_room;
    int rows = several ? static_cast<int>(lots.size()) : 1;
    double best = 0;
    for (int r = rows; r <= (several ? rows : std::min(most, 8)); ++r) {
        const int each = several ? most : (most + r - 1) / r;
        const double k = std::min((width / each - 12) / wide, (height / r - pill_room - rail_room - head) / tall);
        if (k > best * 1.02) {
            best = k;
            rows = r;
        }
    }
    wall.scale = std::max(best, 0.01);
    const int each = several ? most : (most + rows - 1) / rows;
    for (std::size_t l = 0; l < lots.size(); ++l) {
        const int row = static_cast<int>(l);
        stand_lot(wall, *lots[l].fit, row, each, row, height / rows, width / each, head, boxes[l]);
        if (several) wall.names.push_back({10, row * height / rows + 15});
    }
    return wall;
}

Wall seen_nearer(Wall wall, double zoom, Point pan) {
    const Affine by{zoom, 0, 0, zoom, pan.x, pan.y};
    wall.scale *= zoom;
    for (WallSlot& s : wall.stands) {
        const Point floor = by({s.pill.centre().x, s.pill.y0 - pill_gap});
        const double half = s.pill.width() / 2, tall = s.pill.height();
        s.pill = {floor.x - half, floor.y + pill_gap, floor.x + half, floor.y + pill_gap + tall};
        const Point a = by({s.cell.x0, s.cell.y0}), b = by({s.cell.x1, s.cell.y1 - pill_room - rail_room});
        s.cell = {a.x, a.y, b.x, b.y + pill_room + rail_room};
        s.map = by.after(s.map);
    }
    for (WallRail& r : wall.rails) {
        const double over = pill_room + rail_room - rail_foot;  // of the floor line
        r.y = by({0, r.y - over}).y + over;
        r.x0 = by({r.x0, 0}).x;
        r.x1 = by({r.x1, 0}).x;
    }
    for (Point& n : wall.names) n = by(n);
    return wall;
}

std::pair<double, Point> filling(const Wall& wall, const Rect& garment, const WallSlot& slot, double width, double height) {
    const double room = height - pill_room - rail_room - 2 * head_room;
    const double zoom = std::max(1.0, std::min(0.94 * width / (garment.width() * wall.scale), room / (garment.height() * wall.scale)));
    const Point middle = slot.map({garment.centre().x, garment.y1});
    return {zoom, {width / 2 - zoom * middle.x, height - pill_room - rail_room - zoom * middle.y}};
}

Drawing wall_backdrop(const Order& order, const std::vector<WallLot>& lots, const Wall& wall, double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    int floor_row = -1;
    for (const WallSlot& s : wall.stands) {
        if (s.row != floor_row) {
            floor_row = s.row;
            d.line({{0, s.pill.y0 - 4}, {width, s.pill.y0 - 4}}, {palette::rule, 1.2, {}});
        }
        const WallLot& lot = lots[static_cast<std::size_t>(s.lot)];
        const Panel& g = panel_at(*lot.fit, s.size);
        draw_panel(d, g, s.map, cloth_of(order, *lot.decoration), 0.9);
        draw_landmarks(d, g, s.map, 0.9);
    }
    return d;
}

namespace {

/// The other schools' places: a dashed line at the top of ink with its key and how far off it is; on the chosen size the
/// whole ghost.
void draw_ghosts(Drawing& d, const Panel& g, const Decoration& decoration, const SizeFit& size, const WallSlot& slot, bool chosen,
                 bool figures, Reading reading) {
    std::vector<Rect> taken;
    if (chosen) {  // the margin's own figure stands there
        const Point margin = slot.map({size.ink.x1, margin_height(g, size.ink)});
        taken.push_back({margin.x, margin.y - 27, slot.cell.x1, margin.y + 10});
        const Point top = slot.map({size.ink.centre().x, (g.top_y + size.ink.y0) / 2});
        taken.push_back({top.x, top.y - 11, slot.cell.x1, top.y + 11});
    }
    for (std::size_t k = 0; k < placing_school_count; ++k) {
        const auto school = static_cast<PlacingSchool>(k);
        if (school == decoration.placing.school || !size.school_tops[k]) continue;
        const double top = *size.school_tops[k], off = top - size.ink.y0;
        if (std::abs(off) < 1) continue;
        const Colour colour = school_colour(school);
        const Point a = slot.map({size.ink.x0, top}), b = slot.map({size.ink.x1, top + size.height});
        if (chosen)
            d.line({a, {b.x, a.y}, b, {a.x, b.y}, a}, {colour, 1.1, {4, 3}});
        else
            d.line({a, {b.x, a.y}}, {colour, 1.3, {3, 2}});
        if (!figures) continue;
        const std::string text =
            std::to_string(k + 1) + (off > 0 ? "  ↓" : "  ↑") + length_text(Length::from_mm(std::abs(off)), reading, false);
        const double w = text_width_guess(text, 11) + 8;
        const double x = std::min(b.x + 3, slot.cell.x1 - w - 1);
        Rect plate{x, a.y - 8, x + w, a.y + 7};
        for (int tries = 0; tries < 6; ++tries)
            for (const Rect& t : taken)
                if (t.meets(plate)) {
                    plate.y1 += t.y1 + 1 - plate.y0;
                    plate.y0 = t.y1 + 1;
                }
        taken.push_back(plate);
        d.fill({round_rect(plate, 3)}, Colour{1, 1, 1, 0.85});
        d.text({plate.x0 + 4, plate.y1 - 4}, text, 11, colour, Align::left, true);
    }
}

}  // namespace

Drawing wall_drawing(const Order& order, const FitPlan& plan, const std::vector<WallLot>& lots, const Wall& wall, const WallLook& look,
                     double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    const auto draw = [&](const Decoration& dec, const SizeFit& size, const Affine& map, double opacity) {
        if (look.person == nullptr || look.words == nullptr) return draw_design(d, dec, size, map, opacity);
        draw_design(d, dec, dressed(order, dec, size, *look.person, *look.words), map, opacity);
    };
    for (const WallSlot& s : wall.stands) {
        const Decoration& decoration = *lots[static_cast<std::size_t>(s.lot)].decoration;
        const SizeFit& size = size_at(*lots[static_cast<std::size_t>(s.lot)].fit, s.size);
        // what else this blank wears on the same panel
        for (const Decoration& other : order.decorations) {
            if (other.id == decoration.id || !on_one_panel(other, decoration)) continue;
            const DecorationFit* worn = find_fit(plan, other.id);
            const SizeFit* at = worn == nullptr ? nullptr : find_size(*worn, size.size);
            if (at != nullptr) draw(other, *at, s.map, 0.6);
        }
        draw(decoration, size, s.map, 1);
    }
    const double cell_width = wall.stands.empty() ? 0 : wall.stands.front().cell.width();
    for (const WallSlot& s : wall.stands) {
        const Decoration& decoration = *lots[static_cast<std::size_t>(s.lot)].decoration;
        const DecorationFit& fit = *lots[static_cast<std::size_t>(s.lot)].fit;
        const SizeFit& size = size_at(fit, s.size);
        const bool chosen = size.size == look.chosen && s.lot == look.chosen_lot;
        const bool in_hand = chosen || (s.lot == look.chosen_lot && look.also.contains(size.size));
        if (look.platen && s.size < static_cast<int>(fit.ground->sizes.size()))
            draw_platen(d, size.platen, fit.ground->sizes[static_cast<std::size_t>(s.size)].raised,
                        bounds(panel_at(fit, s.size).outline).grown(6 / wall.scale), s.map, 0.9);
        if (look.ghosts) draw_ghosts(d, panel_at(fit, s.size), decoration, size, s, chosen, cell_width > 60, order.unit);
        if (chosen) {
            const Panel& g = panel_at(fit, s.size);
            const Point a = s.map({size.ink.x0, size.ink.y0}), b = s.map({size.ink.x1, size.ink.y1});
            d.rect({a.x, a.y, b.x, b.y}, {}, Stroke{palette::verdigris, 1.6, {}});
            DimensionStyle style;
            style.hair = 1.1;
            style.text_size = 12;
            draw_handles(d, size.ink, s.map);
            draw_hand_measurements(d, g, size, s.map, order.unit, style);
            if (look.balance) draw_balance(d, size, s.map, order.unit, style);
        }
        if (in_hand && !chosen) {
            const Point a = s.map({size.ink.x0, size.ink.y0}), b = s.map({size.ink.x1, size.ink.y1});
            d.rect({a.x, a.y, b.x, b.y}, {}, Stroke{palette::verdigris, 1.6, {}});
        }
        const bool trouble = std::any_of(fit.findings.begin(), fit.findings.end(),
                                         [&](const Finding& f) { return f.about.size == size.size && f.severity == Severity::stop; });
        const Colour line = trouble ? palette::carmine : palette::ink;
        d.marks.emplace_back(PathMark{{round_rect(s.pill, 10)}, true, in_hand ? line : palette::light, Stroke{line, 1.2, {}}});
        d.text({s.pill.centre().x, s.pill.centre().y + 4.6}, size.size, 12.5, in_hand ? palette::white : line, Align::centre, true);
        std::string count = "× " + std::to_string(size.quantity);
        if (size.pinned) count += spoken(" pinned");
        d.text({s.pill.x1 + 6, s.pill.centre().y + 4.6}, count, 12, size.pinned ? palette::brick_text : palette::quiet);
    }
    for (const WallRail& r : wall.rails) {
        const DecorationFit& fit = *lots[static_cast<std::size_t>(r.lot)].fit;
        const Colour colour = band_colour(r.band);
        const BandFit& band = fit.bands[static_cast<std::size_t>(r.band)];
        d.rect({r.x0, r.y - 2.5, r.x1, r.y + 2.5}, colour);
        const auto knob = [&](double x) {
            const Rect box{x - 3.5, r.y - 6.5, x + 3.5, r.y + 6.5};
            d.marks.emplace_back(PathMark{{round_rect(box, 2)},
                                          true,
                                          look.hot_rail == r.band && look.chosen_lot == r.lot ? colour : palette::white,
                                          Stroke{colour, 1.6, {}}});
        };
        if (r.begins) knob(r.x0);
        if (r.ends) knob(r.x1);
        std::string text = length_text(Length::from_mm(band.width), order.unit) + spoken(" wide");
        if (!r.begins)
            text += spoken(", from the row above");
        else if (!r.ends)
            text += spoken(", on to ") + size_at(fit, band.last).size;
        if (text_width_guess(text, 11.5) > r.x1 - r.x0 - 12) text = length_text(Length::from_mm(band.width), order.unit, false);
        d.text({r.x0 + 9, r.y - 6}, text, 11.5, Colour{colour.r * 0.8, colour.g * 0.8, colour.b * 0.8, 1}, Align::left, true);
    }
    for (std::size_t l = 0; l < wall.names.size(); ++l) {
        const Decoration& decoration = *lots[l].decoration;
        const bool chosen = static_cast<int>(l) == look.chosen_lot;
        const std::string name = run_name(order, decoration.run);
        d.text(wall.names[l], name, 12.5, chosen ? palette::verdigris_text : palette::ink, Align::left, true);
        if (decoration.departs)
            d.text({wall.names[l].x + text_width_guess(name, 12.5) + 10, wall.names[l].y}, spoken("figures of its own"), 12,
                   palette::brick_text);
    }
    return d;
}

std::string schools_disagree(const DecorationFit& fit, PlacingSchool school, Reading reading) {
    std::string out;
    if (fit.ground == nullptr || fit.ground->sizes.empty()) return out;
    for (std::size_t k = 0; k < placing_school_count; ++k) {
        if (k == static_cast<std::size_t>(school)) continue;
        double least = std::numeric_limits<double>::infinity(), most = -least;
        for (const SizeFit& s : fit.sizes) {
            if (!s.school_tops[k]) continue;
            least = std::min(least, s.ink.y0 - *s.school_tops[k]);
            most = std::max(most, s.ink.y0 - *s.school_tops[k]);
        }
        if (most < least) continue;
        const auto text = [&](double mm) { return length_text(Length::from_mm(std::abs(mm)), reading, false); };
        const std::string u = reading == Unit::mm ? " mm" : " in";
        const auto range = [&](double a, double b) { return text(a) == text(b) ? text(a) : text(a) + spoken(" to ") + text(b); };
        std::string where;
        if (std::max(std::abs(least), std::abs(most)) < 1)
            where = spoken("in the same place");
        else if (least >= 0)
            where = range(least, most) + u + spoken(" higher");
        else if (most <= 0)
            where = range(most, least) + u + spoken(" lower");
        else
            where = text(least) + u + spoken(" lower to ") + text(most) + u + spoken(" higher");
        out += (out.empty() ? "" : "; ") + std::to_string(k + 1) + " " +
               spoken(school_name(static_cast<PlacingSchool>(k), fit.ground->sizes[0].panel)) + " " + where;
    }
    return out;
}

}  // namespace orthema::app
