// Walls of mugs, glasses and sleeves, unrolled. A straight wall unrolls to a rectangle, a tapered one to a ring sector:
// slant s = √(h² + ((D − d)/2)²), outer radius R = s·D/(D − d), inner R − s, angle = π·D/R. The centre line lies
// opposite the handle, or opposite the seam where there is no handle.
#include <algorithm>

#include "core/blanks/panel.h"

namespace orthema {

namespace {

using M = Measure;

void side_landmarks(Panel& p, double printable) {
    p.landmarks = {{"centre line", false, 0, false},
                   {"rim", true, 0, false},
                   {"base", true, p.bottom_y, true},
                   {"front of the handle", false, -printable / 4, false},
                   {"back of the handle", false, printable / 4, false}};
}

Panel straight_wall(Family family, double around, double gap, double h) {
    Panel p;
    const double w = around - gap;
    p.face = Face::wrap;
    p.width = w;
    p.length = h;
    p.bottom_y = h;
    p.outline = box_region({-around / 2, 0, around / 2, h});
    p.right_edge = {{w / 2, 0}, {w / 2, h}};
    p.left_edge = {{-w / 2, 0}, {-w / 2, h}};
    if (gap > 0) {
        add_side_edges(p, "handle", p.right_edge, 0, 0, 40);
        both_sides(p.seams, {{w / 2, 0}, {w / 2, h}});
        Ring grip{{around / 2 - gap / 2, h * 0.22}};
        curve_to(grip, {around / 2 + 26, h * 0.18}, {around / 2 + 26, h * 0.82}, {around / 2 - gap / 2, h * 0.78});
        p.details.push_back(grip);
    } else {
        const bool sewn = family == Family::can_sleeve;
        add_side_edges(p, "seam", p.right_edge, sewn ? 6 : 0, sewn ? 6 : 0, sewn ? 2 : 0);
    }
    if (family == Family::tapered_tumbler) return p;  // it is taped by its diameters, on the unrolled wall
    p.tapes = {{M::circumference, {-around / 2, h * 0.5}, {around / 2, h * 0.5}}, {M::wall_height, {w * 0.3, 0}, {w * 0.3, h}}};
    if (gap > 0) p.tapes.push_back({M::handle_gap, {w / 2, h * 0.9}, {around / 2, h * 0.9}, 0.5});
    return p;
}

Panel tapered_wall(const Measures& m) {
    const auto mm = [&](M which) { return measure_mm(m, which); };
    Panel p;
    p.face = Face::wrap;
    double top = mm(M::top_diameter), bottom = mm(M::bottom_diameter);
    const double h = mm(M::wall_height);
    const double slant = std::hypot(h, (top - bottom) / 2);
    if (std::abs(top - bottom) < 0.05) top = bottom + 0.05;  // nearly straight: a very large radius
    const bool wide_top = top > bottom;
    const double big = std::max(top, bottom), small = std::min(top, bottom);
    const double outer = slant * big / (big - small), inner = outer - slant, angle = M_PI * big / outer;
    const double gap_angle = angle * mm(M::handle_gap) / (M_PI * big);
    p.width = M_PI * top * (1 - gap_angle / angle);
    p.length = slant;
    p.bottom_y = slant;
    // the sector's apex lies below a wall that narrows downwards, above one that widens
    const auto at = [&](double radius, double turn) {
        return wide_top ? Point{radius * std::sin(turn), outer - radius * std::cos(turn)}
                        : Point{radius * std::sin(turn), radius * std::cos(turn) - inner};
    };
    const double top_radius = wide_top ? outer : inner, base_radius = wide_top ? inner : outer;
    constexpr int steps = 48;
    const auto sector = [&](double r0, double r1, double half) {
        Ring ring;
        for (int i = -steps; i <= steps; ++i) ring.push_back(at(r0, half * i / steps));
        for (int i = steps; i >= -steps; --i) ring.push_back(at(r1, half * i / steps));
        return ring;
    };
    p.outline = unite({Polygon{sector(top_radius, base_radius, angle / 2), {}}}, {});
    const double half = (angle - gap_angle) / 2;
    p.right_edge = {at(top_radius, half), at(base_radius, half)};
    p.left_edge = mirrored_ring(p.right_edge);
    // the printable band: everything outside it is rim, base, or where the ends meet
    const double sign = wide_top ? -1 : 1;
    const double rim = top_radius + sign * mm(M::rim_margin), base = base_radius - sign * mm(M::base_margin);
    const Rect room = bounds(p.outline).grown(500);
    const auto beyond = [&](const std::string& name, const Ring& keep) {
        p.features.push_back({name, subtract(box_region(room), {Polygon{keep, {}}}), 0, 0, 0, Feature::Kind::edge});
    };
    const double far_base = wide_top ? std::max(1.0, inner - 400) : outer + 400;
    const double far_top = wide_top ? outer + 400 : std::max(1.0, inner - 400);
    const double open = std::min(half + 300 / outer, 3.0);
    beyond("rim", sector(rim, far_base, open));
    beyond("base", sector(far_top, base, open));
    beyond(mm(M::handle_gap) > 0 ? "handle" : "seam", sector(far_top, far_base, half));
    for (const double radius : {rim, base}) {
        Ring line;
        for (int i = -steps; i <= steps; ++i) line.push_back(at(radius, half * i / steps));
        p.seams.push_back(line);
    }
    const Point left = at(top_radius, -angle / 2), right = at(top_radius, angle / 2);
    const Point low_left = at(base_radius, -angle / 2), low_right = at(base_radius, angle / 2);
    p.tapes = {{M::top_diameter, left, right, norm(right - left) / mm(M::top_diameter)},
               {M::bottom_diameter, low_left, low_right, norm(low_right - low_left) / mm(M::bottom_diameter)},
               {M::wall_height, {0, 0}, {0, slant}, slant / h},
               {M::rim_margin, {p.width * 0.1, 0}, {p.width * 0.1, mm(M::rim_margin)}},
               {M::base_margin, {p.width * 0.1, slant - mm(M::base_margin)}, {p.width * 0.1, slant}}};
    if (mm(M::handle_gap) > 0) {
        const Point a = at(top_radius, half), b = at(top_radius, angle / 2);
        p.tapes.push_back({M::handle_gap, a, b, norm(b - a) / mm(M::handle_gap)});
    }
    return p;
}

}  // namespace

namespace {

/// What rim and base are the same for on every wall; `level`: rim and base are straight lines.
void finish_wall(Panel& p, const Measures& m, bool level) {
    const double rim = measure_mm(m, M::rim_margin), base = measure_mm(m, M::base_margin);
    p.top_name = "rim";
    p.bottom_name = "base";
    p.side_name = measure_mm(m, M::handle_gap) > 0 ? "handle" : "seam";
    if (level) {
        const double h = p.length;
        add_edge(p, "rim", {{-far_out, rim}, {-far_out, -far_out}, {far_out, -far_out}, {far_out, rim}}, 0, 0);
        add_edge(p, "base", {{-far_out, h - base}, {far_out, h - base}, {far_out, far_out}, {-far_out, far_out}}, 0, 0);
        p.seams.push_back({{-p.width / 2, rim}, {p.width / 2, rim}});
        p.seams.push_back({{-p.width / 2, h - base}, {p.width / 2, h - base}});
        if (!p.tapes.empty()) {
            p.tapes.push_back({M::rim_margin, {-p.width * 0.1, 0}, {-p.width * 0.1, rim}});
            p.tapes.push_back({M::base_margin, {-p.width * 0.1, h - base}, {-p.width * 0.1, h}});
        }
    }
    side_landmarks(p, p.width);
}

}  // namespace

Panel wrap_panel(Family family, const Measures& m) {
    const bool tapered = family == Family::tapered_tumbler;
    Panel p = tapered ? tapered_wall(m)
                      : straight_wall(family, measure_mm(m, M::circumference), measure_mm(m, M::handle_gap), measure_mm(m, M::wall_height));
    finish_wall(p, m, !tapered);
    return p;
}

std::optional<CupWall> wall_of(Family family, const Measures& m) {
    if (family_build(family) != Build::wrap) return std::nullopt;
    const double h = measure_mm(m, M::wall_height);
    if (family == Family::tapered_tumbler) return CupWall{measure_mm(m, M::top_diameter), measure_mm(m, M::bottom_diameter), h};
    const double d = measure_mm(m, M::circumference) / M_PI;
    return CupWall{d, d, h};
}

Panel fitting_panel(const BlankStyle& style, const std::string& size, Face face) {
    Panel whole = panel_of(style, size, face);
    if (style.family != Family::tapered_tumbler || face != Face::wrap) return whole;
    const Measures& m = style.chart.at(size);
    const CupWall wall = *wall_of(style.family, m);
    // the handle's gap is taped where the wall is widest
    const double gap =
        measure_mm(m, M::handle_gap) * wall.middle_circumference() / (M_PI * std::max(wall.top_diameter, wall.bottom_diameter));
    Panel p = straight_wall(style.family, wall.middle_circumference(), gap, wall.slant());
    finish_wall(p, m, true);
    for (Feature& f : whole.features)
        if (f.kind != Feature::Kind::edge) p.features.push_back(std::move(f));
    return p;
}

}  // namespace orthema
