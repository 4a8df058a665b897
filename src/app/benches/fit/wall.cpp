#include "app/benches/fit/wall.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/base/units.h"

namespace orthema::app {

namespace {

constexpr double pill_room = 27, rail_room = 25, head_room = 8;

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

Wall wall_of(const DecorationFit& fit, double width, double height) {
    Wall wall;
    if (fit.ground == nullptr) return wall;
    const int n = static_cast<int>(std::min(fit.sizes.size(), fit.ground->sizes.size()));
    if (n == 0) return wall;
    double wide = 1, tall = 1;
    std::vector<Rect> boxes;
    for (int i = 0; i < n; ++i) {
        boxes.push_back(drawn_box(fit.ground->sizes[static_cast<std::size_t>(i)].panel));
        wide = std::max(wide, boxes.back().width());
        tall = std::max(tall, boxes.back().height());
    }
    int rows = 1;
    double best = 0;
    for (int r = 1; r <= std::min(n, 8); ++r) {
        const int each = (n + r - 1) / r;
        const double k = std::min((width / each - 12) / wide, (height / r - pill_room - rail_room - head_room) / tall);
        if (k > best * 1.02) {
            best = k;
            rows = r;
        }
    }
    wall.scale = std::max(best, 0.01);
    const int each = (n + rows - 1) / rows;
    const double row_height = height / rows, cell = width / each;
    for (int i = 0; i < n; ++i) {
        const int row = i / each, column = i % each;
        const double floor = row * row_height + head_room + (row_height - pill_room - rail_room - head_room);
        const Rect& box = boxes[static_cast<std::size_t>(i)];
        const double x = (column + 0.5) * cell;
        WallSlot s;
        s.size = i;
        s.row = row;
        s.cell = {column * cell, row * row_height, (column + 1) * cell, (row + 1) * row_height};
        s.map = {wall.scale, 0, 0, wall.scale, x - wall.scale * box.centre().x, floor - wall.scale * box.y1};
        const double half = std::max(21.0, text_width_guess(size_at(fit, i).size, 12.5) / 2 + 9);
        s.pill = {x - 17 - half, floor + 4, x - 17 + half, floor + 24};
        wall.stands.push_back(s);
    }
    for (std::size_t b = 0; b < fit.bands.size(); ++b) {
        const BandFit& band = fit.bands[b];
        for (int row = 0; row < rows; ++row) {
            const int first = std::max(band.first, row * each), last = std::min(band.last, std::min(n, (row + 1) * each) - 1);
            if (first > last) continue;
            WallRail rail;
            rail.band = static_cast<int>(b);
            rail.x0 = wall.stands[static_cast<std::size_t>(first)].cell.x0 + 12;
            rail.x1 = wall.stands[static_cast<std::size_t>(last)].cell.x1 - 12;
            rail.y = (row + 1) * row_height - 7;
            rail.begins = first == band.first;
            rail.ends = last == band.last;
            wall.rails.push_back(rail);
        }
    }
    return wall;
}

Drawing wall_backdrop(const Order& order, const Decoration& decoration, const DecorationFit& fit, const Wall& wall, double width,
                      double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    const Colour cloth = run_colour(order, decoration.run);
    int floor_row = -1;
    for (const WallSlot& s : wall.stands) {
        if (s.row != floor_row) {
            floor_row = s.row;
            d.line({{0, s.pill.y0 - 4}, {width, s.pill.y0 - 4}}, {palette::rule, 1.2, {}});
        }
        const Panel& g = panel_at(fit, s.size);
        draw_panel(d, g, s.map, cloth, 0.9);
        draw_landmarks(d, g, s.map, 0.9);
    }
    return d;
}

namespace {

/// The other schools' places: a dashed line at the top of ink with its key and how far off it is; on the chosen size the
/// whole ghost.
void draw_ghosts(Drawing& d, const Panel& g, const Decoration& decoration, const SizeFit& size, const WallSlot& slot, bool chosen,
                 bool figures, Unit unit) {
    std::vector<Rect> taken;
    if (chosen) {  // the margin's own figure stands there
        const Point margin = slot.map({size.ink.x1, margin_height(g, size.ink)});
        taken.push_back({margin.x, margin.y - 27, slot.cell.x1, margin.y + 10});
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
            std::to_string(k + 1) + (off > 0 ? "  ↓" : "  ↑") + length_text(Length::from_mm(std::abs(off)), unit, false);
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

Drawing wall_drawing(const Order& order, const FitPlan& plan, const Decoration& decoration, const DecorationFit& fit, const Wall& wall,
                     const WallLook& look, double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    for (const WallSlot& s : wall.stands) {
        const SizeFit& size = size_at(fit, s.size);
        // what else this blank wears on the same panel
        for (const Decoration& other : order.decorations) {
            if (other.id == decoration.id || !on_one_panel(other, decoration)) continue;
            const DecorationFit* worn = find_fit(plan, other.id);
            const SizeFit* at = worn == nullptr ? nullptr : find_size(*worn, size.size);
            if (at != nullptr) draw_design(d, other.art, at->ink, s.map, 0.6);
        }
        draw_design(d, decoration.art, size.ink, s.map);
    }
    const double cell_width = wall.stands.empty() ? 0 : wall.stands.front().cell.width();
    for (const WallSlot& s : wall.stands) {
        const SizeFit& size = size_at(fit, s.size);
        const bool chosen = size.size == look.chosen;
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
            draw_hand_measurements(d, g, size, s.map, order.unit, style);
            if (look.balance) draw_balance(d, size, s.map, order.unit, style);
            draw_handles(d, size.ink, s.map);
        }
        const bool trouble = std::any_of(fit.findings.begin(), fit.findings.end(),
                                         [&](const Finding& f) { return f.about.size == size.size && f.severity == Severity::stop; });
        const Colour line = trouble ? palette::carmine : palette::ink;
        d.marks.emplace_back(PathMark{{round_rect(s.pill, 10)}, true, chosen ? line : palette::light, Stroke{line, 1.2, {}}});
        d.text({s.pill.centre().x, s.pill.centre().y + 4.6}, size.size, 12.5, chosen ? palette::white : line, Align::centre, true);
        std::string count = "× " + std::to_string(size.quantity);
        if (size.pinned) count += " pinned";
        d.text({s.pill.x1 + 6, s.pill.centre().y + 4.6}, count, 12, size.pinned ? palette::brick : palette::quiet);
    }
    for (const WallRail& r : wall.rails) {
        const Colour colour = band_colour(r.band);
        const BandFit& band = fit.bands[static_cast<std::size_t>(r.band)];
        d.rect({r.x0, r.y - 2.5, r.x1, r.y + 2.5}, colour);
        const auto knob = [&](double x) {
            const Rect box{x - 3.5, r.y - 6.5, x + 3.5, r.y + 6.5};
            d.marks.emplace_back(
                PathMark{{round_rect(box, 2)}, true, look.hot_rail == r.band ? colour : palette::white, Stroke{colour, 1.6, {}}});
        };
        if (r.begins) knob(r.x0);
        if (r.ends) knob(r.x1);
        std::string text = length_text(Length::from_mm(band.width), order.unit) + " wide";
        if (!r.begins)
            text += ", from the row above";
        else if (!r.ends)
            text += ", on to " + size_at(fit, band.last).size;
        if (text_width_guess(text, 11.5) > r.x1 - r.x0 - 12) text = length_text(Length::from_mm(band.width), order.unit, false);
        d.text({r.x0 + 9, r.y - 6}, text, 11.5, Colour{colour.r * 0.8, colour.g * 0.8, colour.b * 0.8, 1}, Align::left, true);
    }
    return d;
}

std::string schools_disagree(const DecorationFit& fit, PlacingSchool school, Unit unit) {
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
        const auto text = [&](double mm) { return length_text(Length::from_mm(std::abs(mm)), unit, false); };
        const char* u = unit == Unit::mm ? " mm" : " in";
        const auto range = [&](double a, double b) { return text(a) == text(b) ? text(a) : text(a) + " to " + text(b); };
        std::string where;
        if (std::max(std::abs(least), std::abs(most)) < 1)
            where = "in the same place";
        else if (least >= 0)
            where = range(least, most) + u + " higher";
        else if (most <= 0)
            where = range(most, least) + u + " lower";
        else
            where = text(least) + u + " lower to " + text(most) + u + " higher";
        out += (out.empty() ? "" : "; ") + std::to_string(k + 1) + " " +
               school_name(static_cast<PlacingSchool>(k), fit.ground->sizes[0].panel) + " " + where;
    }
    return out;
}

}  // namespace orthema::app
