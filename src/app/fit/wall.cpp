#include "app/fit/wall.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/base/units.h"

namespace orthema::app {

namespace {

constexpr double pill_room = 27, rail_room = 25, head_room = 8;

double nice_step(double span, int about) {
    const double raw = span / about;
    const double ten = std::pow(10, std::floor(std::log10(raw)));
    for (const double k : {1.0, 2.0, 5.0, 10.0})
        if (k * ten >= raw) return k * ten;
    return raw;
}

/// The rule that the other schools' ghosts and the lines of the ladder share.
const SizeFit& size_at(const DecorationFit& fit, int i) { return fit.sizes[static_cast<std::size_t>(i)]; }

void draw_handles(Drawing& d, const Rect& ink, const Affine& map) {
    for (const Point p : {Point{ink.x0, ink.y0}, Point{ink.x1, ink.y0}, Point{ink.x0, ink.y1}, Point{ink.x1, ink.y1}}) {
        d.fill({disc(map(p), 4.5, 16)}, palette::white);
        Ring ring = disc(map(p), 4.5, 16);
        ring.push_back(ring.front());
        d.line(ring, {palette::verdigris, 1.6, {}});
    }
}

}  // namespace

Colour band_colour(int band) {
    static const Colour colours[] = {palette::verdigris, palette::plum, palette::olive, {0.33, 0.45, 0.64, 1}, {0.62, 0.36, 0.48, 1}};
    return colours[static_cast<std::size_t>(std::max(0, band)) % 5];
}

std::vector<Garment> wall_garments(const Order& order, const Decoration& decoration, const DecorationFit& fit) {
    std::vector<Garment> out;
    const BlankStyle* style = find_style(order, decoration.run.style);
    if (style == nullptr) return out;
    for (const SizeFit& s : fit.sizes) out.push_back(garment_for(*style, s.size, decoration.location));
    return out;
}

Wall wall_of(const DecorationFit& fit, const std::vector<Garment>& garments, double width, double height) {
    Wall wall;
    const int n = static_cast<int>(std::min(fit.sizes.size(), garments.size()));
    if (n == 0) return wall;
    double wide = 1, tall = 1;
    std::vector<Rect> boxes;
    for (int i = 0; i < n; ++i) {
        boxes.push_back(bounds(garments[static_cast<std::size_t>(i)].outline));
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
        s.pill = {x - 38, floor + 4, x + 4, floor + 24};
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

Drawing wall_backdrop(const Order& order, const Decoration& decoration, const std::vector<Garment>& garments, const Wall& wall,
                      double width, double height) {
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
        const Garment& g = garments[static_cast<std::size_t>(s.size)];
        draw_garment(d, g, s.map, cloth, 0.9);
        draw_landmarks(d, g, s.map, 0.9);
    }
    return d;
}

Drawing wall_drawing(const Order& order, const FitPlan& plan, const Decoration& decoration, const DecorationFit& fit,
                     const std::vector<Garment>& garments, const Wall& wall, const WallLook& look, double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    const Side side = location_side(decoration.location);
    for (const WallSlot& s : wall.stands) {
        const SizeFit& size = size_at(fit, s.size);
        // what else this garment wears on the same side
        for (const Decoration& other : order.decorations) {
            if (other.id == decoration.id || other.run != decoration.run || location_side(other.location) != side) continue;
            const DecorationFit* worn = find_fit(plan, other.id);
            const SizeFit* at = worn == nullptr ? nullptr : find_size(*worn, size.size);
            if (at != nullptr) draw_design(d, other.art, at->ink, s.map, 0.55);
        }
        draw_design(d, decoration.art, size.ink, s.map);
    }
    for (const WallSlot& s : wall.stands) {
        const SizeFit& size = size_at(fit, s.size);
        const bool chosen = size.size == look.chosen;
        if (chosen) {
            const Garment& g = garments[static_cast<std::size_t>(s.size)];
            if (look.ghosts)
                for (std::size_t k = 0; k < 3; ++k) {
                    if (k == static_cast<std::size_t>(decoration.placing.school)) continue;
                    const double top = size.school_tops[k];
                    if (std::abs(top - size.ink.y0) < 3) continue;
                    const Point a = s.map({size.ink.x0, top}), b = s.map({size.ink.x1, top + size.height});
                    d.line({a, {b.x, a.y}, b, {a.x, b.y}, a}, {palette::quiet, 0.9, {4, 3}});
                }
            const Point a = s.map({size.ink.x0, size.ink.y0}), b = s.map({size.ink.x1, size.ink.y1});
            d.rect({a.x, a.y, b.x, b.y}, {}, Stroke{palette::verdigris, 1.6, {}});
            DimensionStyle style;
            style.hair = 1.1;
            style.text_size = 12;
            draw_hand_measurements(d, g, size, s.map, order.unit, style);
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

Drawing ladder_drawing(const Order& order, const Decoration&, const DecorationFit& fit, const std::string& chosen, double width,
                       double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    const Rect card{0.5, 0.5, width - 0.5, height - 0.5};
    d.marks.emplace_back(PathMark{{round_rect(card, 6)}, true, palette::light, Stroke{palette::rule, 1, {}}});
    d.text({12, 19}, "Ladder", 13.5, palette::ink, Align::left, true);
    d.text({62, 19}, "width by size", 12, palette::quiet);
    const int n = static_cast<int>(fit.sizes.size());
    if (n == 0) return d;
    double low = std::numeric_limits<double>::infinity(), high = 0, most = 1, ideal_high = 0;
    for (const SizeFit& s : fit.sizes) {
        low = std::min({low, s.ideal, s.width, s.limit});
        high = std::max({high, s.ideal, s.width});
        ideal_high = std::max(ideal_high, s.limit);
        most = std::max(most, static_cast<double>(s.quantity));
    }
    high = std::min(std::max(high, ideal_high), high * 1.3);
    if (high - low < 20) {
        high += 10;
        low -= 10;
    }
    const Rect plot{58, 30, width - 18, height - 20};
    const double cell = plot.width() / n;
    const auto x_of = [&](int i) { return plot.x0 + (i + 0.5) * cell; };
    const auto y_of = [&](double mm) { return plot.y1 - 6 - (std::min(mm, high) - low) / (high - low) * (plot.height() - 12); };
    const double unit = order.unit == Unit::inch ? 25.4 : 1;
    const double step = std::max(nice_step((high - low) / unit, 4), order.unit == Unit::inch ? 0.25 : 1) * unit;
    for (double v = std::ceil(low / step) * step; v <= high; v += step) {
        d.line({{plot.x0, y_of(v)}, {plot.x1, y_of(v)}}, {palette::rule, 0.8, {}});
        d.text({plot.x0 - 8, y_of(v) + 4}, length_text(Length::from_mm(v), order.unit, false), 11.5, palette::quiet, Align::right);
    }
    Ring ideal, limit;
    for (int i = 0; i < n; ++i) {
        const SizeFit& s = size_at(fit, i);
        ideal.push_back({x_of(i), y_of(s.ideal)});
        limit.push_back({x_of(i), y_of(s.limit)});
        const double tall = 18.0 * s.quantity / most, half = std::min(7.0, cell / 4);
        d.rect({x_of(i) - half, plot.y1 - tall, x_of(i) + half, plot.y1}, s.size == chosen ? palette::ink : palette::rule);
        d.text({x_of(i), height - 6}, s.size, 11.5, s.size == chosen ? palette::ink : palette::quiet, Align::centre, s.size == chosen);
    }
    d.line(limit, {palette::carmine, 1.3, {6, 4}});
    d.line(ideal, {palette::ink, 1.5, {}});
    for (std::size_t b = 0; b < fit.bands.size(); ++b) {
        const BandFit& band = fit.bands[b];
        const double y = y_of(band.width);
        d.rect({x_of(band.first) - cell * 0.42, y - 2.5, x_of(band.last) + cell * 0.42, y + 2.5}, band_colour(static_cast<int>(b)));
    }
    for (int i = 0; i < n; ++i)
        if (size_at(fit, i).band < 0) d.fill({disc({x_of(i), y_of(size_at(fit, i).width)}, 4)}, palette::brick);
    // the legend, beside the name
    double x = 160;
    const auto key = [&](const std::string& text, const Stroke& stroke) {
        d.line({{x, 15}, {x + 22, 15}}, stroke);
        d.text({x + 28, 19}, text, 12, palette::quiet);
        x += 40 + text_width_guess(text, 12);
    };
    key("ideal", {palette::ink, 1.5, {}});
    std::string by;
    for (const SizeFit& s : fit.sizes)
        if (by.find(s.limit_by) == std::string::npos) by += (by.empty() ? "" : ", ") + s.limit_by;
    if (text_width_guess(by, 12) > width - x - 320) by = "the nearest";
    key("limit: " + by, {palette::carmine, 1.3, {6, 4}});
    key("chosen", {palette::verdigris, 5, {}});
    d.rect({x, 8, x + 8, 20}, palette::rule);
    d.text({x + 14, 19}, "pieces", 12, palette::quiet);
    return d;
}

std::string schools_disagree(const DecorationFit& fit, PlacingSchool school, Unit unit) {
    std::string out;
    for (std::size_t k = 0; k < 3; ++k) {
        if (k == static_cast<std::size_t>(school) || fit.sizes.empty()) continue;
        double least = std::numeric_limits<double>::infinity(), most = -least;
        for (const SizeFit& s : fit.sizes) {
            least = std::min(least, s.ink.y0 - s.school_tops[k]);
            most = std::max(most, s.ink.y0 - s.school_tops[k]);
        }
        const auto text = [&](double mm) { return length_text(Length::from_mm(std::abs(mm)), unit, false); };
        const char* u = unit == Unit::mm ? " mm" : " in";
        std::string where;
        if (least >= 0)
            where = text(least) + " to " + text(most) + u + " higher";
        else if (most <= 0)
            where = text(most) + " to " + text(least) + u + " lower";
        else
            where = text(least) + u + " lower to " + text(most) + u + " higher";
        if (std::max(std::abs(least), std::abs(most)) < 1) where = "in the same place";
        out += (out.empty() ? "" : "; ") + std::string(placing_school_name(static_cast<PlacingSchool>(k))) + " would sit " + where;
    }
    return out;
}

}  // namespace orthema::app
