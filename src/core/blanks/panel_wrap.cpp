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

/// A wrap's clip takes more of the wall than its handle.
bool clipped(const Measures& m) { return measure_mm(m, M::clip_gap) > measure_mm(m, M::handle_gap); }

/// The printable field, where the wall has one.
std::optional<Rect> patch_of(const Measures& m) {
    const double w = measure_mm(m, M::patch_width), h = measure_mm(m, M::patch_height), top = measure_mm(m, M::patch_top);
    if (w <= 0 || h <= 0) return std::nullopt;
    return Rect{-w / 2, top, w / 2, top + h};
}

/// `clip`: what the ends keep apart is a clip, not a handle.
Panel straight_wall(Family family, double around, double gap, bool clip, double h) {
    Panel p;
    const double w = around - gap;
    p.face = Face::wrap;
    p.width = w;
    p.length = h;
    p.bottom_y = h;
    p.outline = box_region({-around / 2, 0, around / 2, h});
    p.right_edge = {{w / 2, 0}, {w / 2, h}};
    p.left_edge = {{-w / 2, 0}, {-w / 2, h}};
    if (gap > 0 && clip) {
        add_side_edges(p, "clip", p.right_edge, 0, 0, 12);
        both_sides(p.seams, {{w / 2, 0}, {w / 2, h}});
    } else if (gap > 0) {
        add_side_edges(p, "handle", p.right_edge, 0, 0, 40);
        both_sides(p.seams, {{w / 2, 0}, {w / 2, h}});
        Ring grip{{around / 2 - gap / 2, h * 0.22}};
        curve_to(grip, {around / 2 + 26, h * 0.18}, {around / 2 + 26, h * 0.82}, {around / 2 - gap / 2, h * 0.78});
        p.details.push_back(grip);
    } else {
        const bool sewn = family == Family::can_sleeve;
        add_side_edges(p, "seam", p.right_edge, sewn ? 6 : 0, sewn ? 6 : 0, sewn ? 2 : 0);
    }
    if (is_tapered(family)) return p;  // it is taped by its diameters, on the unrolled wall
    p.tapes = {{M::circumference, {-around / 2, h * 0.5}, {around / 2, h * 0.5}}, {M::wall_height, {w * 0.3, 0}, {w * 0.3, h}}};
    if (gap > 0) p.tapes.push_back({clip ? M::clip_gap : M::handle_gap, {w / 2, h * 0.9}, {around / 2, h * 0.9}, 0.5});
    return p;
}

/// What the ends of a print stop at.
const char* ends_name(const Measures& m) {
    if (ends_gap(m) <= 0) return "seam";
    return clipped(m) ? "clip" : "handle";
}

/// The handle's or clip's gap at half the slant: it is taped where the wall is widest.
double middle_gap(const CupWall& wall, const Measures& m) {
    return ends_gap(m) * wall.middle_circumference() / (M_PI * std::max(wall.top_diameter, wall.bottom_diameter));
}

Panel tapered_wall(const Measures& m) {
    const auto mm = [&](M which) { return measure_mm(m, which); };
    Panel p;
    p.face = Face::wrap;
    const CupWall wall = *wall_of(Family::tapered_tumbler, m);
    const RingSector sheet = *unrolled(wall);
    const double slant = sheet.slant, around = wall.middle_circumference(), gap = middle_gap(wall, m), half = (around - gap) / 2;
    p.width = M_PI * wall.top_diameter * (1 - gap / around);
    p.length = slant;
    p.bottom_y = slant;
    constexpr int steps = 48;
    const auto arc = [&](double v, double reach) {
        Ring line;
        for (int i = -steps; i <= steps; ++i) line.push_back(sheet.bent(Point{reach * i / steps, v}));
        return line;
    };
    const auto sector = [&](double from, double to, double reach) {
        Ring ring = arc(from, reach);
        const Ring back = arc(to, reach);
        ring.insert(ring.end(), back.rbegin(), back.rend());
        return ring;
    };
    p.outline = unite({Polygon{sector(0, slant, around / 2), {}}}, {});
    p.right_edge = {sheet.bent({half, 0}), sheet.bent({half, slant})};
    p.left_edge = mirrored_ring(p.right_edge);
    // the printable band: everything outside it is rim, base, or where the ends meet
    const double rim = mm(M::rim_margin), base = slant - mm(M::base_margin);
    const Rect room = bounds(p.outline).grown(500);
    const auto beyond = [&](const std::string& name, const Ring& keep) {
        p.features.push_back({name, subtract(box_region(room), {Polygon{keep, {}}}), 0, 0, 0, Feature::Kind::edge});
    };
    // far past rim and base, but not past the sector's apex, nor round it
    double far_top = -400, far_base = slant + 400, open = half + 300;
    if (!sheet.straight()) {
        (sheet.narrows() ? far_base : far_top) =
            sheet.narrows() ? std::min(far_base, sheet.rim_radius - 1) : std::max(far_top, 1 - sheet.rim_radius);
        const double outer = std::max(sheet.rim_radius, sheet.base_radius);
        open = sheet.middle_radius() * std::min(half / sheet.middle_radius() + 300 / outer, 3.0);
    }
    beyond("rim", sector(rim, far_base, open));
    beyond("base", sector(far_top, base, open));
    beyond(ends_name(m), sector(far_top, far_base, half));
    p.seams = {arc(rim, half), arc(base, half)};
    if (const auto patch = patch_of(m)) {
        Ring edge = sector(patch->y0, patch->y1, patch->x1);
        beyond("patch", edge);
        edge.push_back(edge.front());
        p.seams.push_back(edge);
    }
    const Point left = sheet.bent({-around / 2, 0}), right = sheet.bent({around / 2, 0});
    const Point low_left = sheet.bent({-around / 2, slant}), low_right = sheet.bent({around / 2, slant});
    p.tapes = {{M::top_diameter, left, right, norm(right - left) / mm(M::top_diameter)},
               {M::bottom_diameter, low_left, low_right, norm(low_right - low_left) / mm(M::bottom_diameter)},
               {M::wall_height, {0, 0}, {0, slant}, slant / wall.height},
               {M::rim_margin, {p.width * 0.1, 0}, {p.width * 0.1, mm(M::rim_margin)}},
               {M::base_margin, {p.width * 0.1, slant - mm(M::base_margin)}, {p.width * 0.1, slant}}};
    if (const double ends = ends_gap(m); ends > 0) {
        const Point a = sheet.bent({half, 0}), b = right;
        p.tapes.push_back({clipped(m) ? M::clip_gap : M::handle_gap, a, b, norm(b - a) / ends});
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
    p.side_name = ends_name(m);
    if (level) {
        const double h = p.length;
        add_edge(p, "rim", {{-far_out, rim}, {-far_out, -far_out}, {far_out, -far_out}, {far_out, rim}}, 0, 0);
        add_edge(p, "base", {{-far_out, h - base}, {far_out, h - base}, {far_out, far_out}, {-far_out, far_out}}, 0, 0);
        p.seams.push_back({{-p.width / 2, rim}, {p.width / 2, rim}});
        p.seams.push_back({{-p.width / 2, h - base}, {p.width / 2, h - base}});
        if (const auto patch = patch_of(m)) {
            const Region room = box_region({-far_out, -far_out, far_out, far_out});
            p.features.push_back({"patch", subtract(room, box_region(*patch)), 0, 0, 0, Feature::Kind::edge});
            Ring edge = box_region(*patch)[0].outer;
            edge.push_back(edge.front());
            p.seams.push_back(edge);
        }
        if (!p.tapes.empty()) {
            p.tapes.push_back({M::rim_margin, {-p.width * 0.1, 0}, {-p.width * 0.1, rim}});
            p.tapes.push_back({M::base_margin, {-p.width * 0.1, h - base}, {-p.width * 0.1, h}});
        }
    }
    if (const auto patch = patch_of(m)) {
        p.tapes.push_back({M::patch_width, {patch->x0, patch->y1}, {patch->x1, patch->y1}});
        p.tapes.push_back({M::patch_height, {patch->x1, patch->y0}, {patch->x1, patch->y1}});
        p.tapes.push_back({M::patch_top, {0, 0}, {0, patch->y0}});
    }
    side_landmarks(p, p.width);
}

}  // namespace

Rect printable_box(const Panel& p, const Measures& m) {
    if (p.face != Face::wrap) return bounds(p.outline);
    Rect box{-p.width / 2, measure_mm(m, M::rim_margin), p.width / 2, p.length - measure_mm(m, M::base_margin)};
    if (const auto patch = patch_of(m))
        box = {std::max(box.x0, patch->x0), std::max(box.y0, patch->y0), std::min(box.x1, patch->x1), std::min(box.y1, patch->y1)};
    return box;
}

Panel wrap_panel(Family family, const Measures& m) {
    const bool tapered = is_tapered(family);
    Panel p = tapered ? tapered_wall(m)
                      : straight_wall(family, measure_mm(m, M::circumference), ends_gap(m), clipped(m), measure_mm(m, M::wall_height));
    finish_wall(p, m, !tapered);
    return p;
}

std::optional<CupWall> wall_of(Family family, const Measures& m) {
    if (family_build(family) != Build::wrap) return std::nullopt;
    const double h = measure_mm(m, M::wall_height);
    if (is_tapered(family)) return CupWall{measure_mm(m, M::top_diameter), measure_mm(m, M::bottom_diameter), h};
    const double d = measure_mm(m, M::circumference) / M_PI;
    return CupWall{d, d, h};
}

Panel fitting_panel(const BlankStyle& style, const std::string& size, Face face) {
    Panel whole = panel_of(style, size, face);
    if (!is_tapered(style.family) || face != Face::wrap) return whole;
    const Measures& m = style.chart.at(size);
    const CupWall wall = *wall_of(style.family, m);
    Panel p = straight_wall(style.family, wall.middle_circumference(), middle_gap(wall, m), clipped(m), wall.slant());
    finish_wall(p, m, true);
    for (Feature& f : whole.features)
        if (f.kind != Feature::Kind::edge) p.features.push_back(std::move(f));
    return p;
}

}  // namespace orthema
