// Flat blanks: trousers and their legs, aprons, bags, caps' panels, flags, coverings, tags, coasters, tiles, patches.
#include <algorithm>

#include "core/blanks/panel.h"

namespace orthema {

namespace {

using M = Measure;

/// A closed outline of a right half (from the top of the centre line down to its bottom) and its mirror.
Region symmetric(const Ring& right) {
    Ring shape = right;
    const Ring left = reversed_mirror(right);
    shape.insert(shape.end(), left.begin() + (left.front() == right.back() || left.front().x == 0 ? 1 : 0),
                 left.end() - (left.back().x == 0 ? 1 : 0));
    return unite({Polygon{shape, {}}}, {});
}

Ring below_line(double y) { return {{-far_out, y}, {far_out, y}, {far_out, far_out}, {-far_out, far_out}}; }
Ring above_line(double y) { return {{-far_out, y}, {-far_out, -far_out}, {far_out, -far_out}, {far_out, y}}; }

/// The area outside an outline, as one edge that goes all round.
void add_rim(Panel& p, const std::string& name, double clearance, double height = 0) {
    Region outside = subtract(box_region(bounds(p.outline).grown(1000)), p.outline);
    p.features.push_back({name, std::move(outside), height, clearance, clearance, Feature::Kind::edge});
}

void usual_landmarks(Panel& p) {
    p.landmarks.push_back({"centre line", false, 0, false});
    p.landmarks.push_back({p.top_name, true, p.top_y, false});
    p.landmarks.push_back({p.bottom_name, true, p.bottom_y, true});
}

void box_edges(Panel& p, double w, double h) {
    p.right_edge = {{w / 2, 0}, {w / 2, h}};
    p.left_edge = {{-w / 2, 0}, {-w / 2, h}};
}

void add_hole(Panel& p, const std::string& name, Point at, double diameter, double height, double clearance) {
    const Polygon hole{disc_ring(at, diameter / 2), {}};
    p.outline = subtract(p.outline, {hole});
    // A grommet's ring stands round its hole.
    p.features.push_back(
        {name, {Polygon{disc_ring(at, diameter / 2 + (height > 0 ? 3 : 0)), {}}}, height, clearance, clearance, Feature::Kind::raised});
}

}  // namespace

Ring disc_ring(Point centre, double radius) {
    Ring ring;
    for (int i = 0; i < 32; ++i) {
        const double t = 2 * M_PI * i / 32;
        ring.push_back(centre + Point{std::cos(t), std::sin(t)} * radius);
    }
    return ring;
}

Panel trousers_panel(const Measures& m, Face face) {
    const auto mm = [&](M which) { return measure_mm(m, which); };
    const double waist = mm(M::waist_width) / 2, hip = mm(M::hip_width) / 2, crotch = mm(M::hip_depth), length = mm(M::outseam);
    const double leg = mm(M::leg_opening), rib = mm(M::rib_height);
    Panel p;
    p.face = face;
    p.length = length;
    p.bottom_y = length;
    p.top_name = "waist seam";
    p.bottom_name = "leg hem";
    const double in = 12;  // the inseam's distance from the centre line at the hem
    if (face == Face::front) {
        const Ring right{{0, 0}, {waist, 0}, {hip, crotch * 0.75}, {leg + in, length}, {in, length}, {0, crotch}};
        p.outline = symmetric(right);
        p.width = mm(M::hip_width);
        p.right_edge = {right[1], right[2], right[3]};
        p.left_edge = mirrored_ring(p.right_edge);
        p.top_y = rib;
        add_edge(p, "waist seam", above_line(rib), 13, 13, 3);
        add_side_edges(p, "outseam", p.right_edge, 15, 13, 1.5);
        const Ring fork{{0, crotch}, {in, length}, {in, far_out}, {-in, far_out}, {-in, length}};
        add_edge(p, "inseam", fork, 15, 13, 1.5);
        add_edge(p, "leg hem", below_line(length - std::max(18.0, rib)), 15, 15, 1.5);
        p.seams = {{{-waist, rib}, {waist, rib}}, {{0, rib}, {0, crotch}}};
        both_sides(p.seams, {{in, length - rib}, {leg + in, length - rib}});
        p.side_name = "outseam";
        usual_landmarks(p);
        p.tapes = {{M::waist_width, {-waist, 0}, {waist, 0}},
                   {M::hip_width, {-hip, crotch * 0.75}, {hip, crotch * 0.75}},
                   {M::hip_depth, {0, 0}, {0, crotch}},
                   {M::outseam, {-waist - 12, 0}, {-waist - 12, length}},
                   {M::leg_opening, {in, length}, {leg + in, length}},
                   {M::rib_height, {waist * 0.6, 0}, {waist * 0.6, rib}}};
        return p;
    }
    // one leg, turned so that the line between outseam and inseam is the centre line
    const double thigh = std::max(leg, hip * 0.94);
    p.right_edge = {{thigh / 2, 0}, {thigh / 2, crotch}, {leg / 2, length}};
    p.left_edge = mirrored_ring(p.right_edge);
    p.width = thigh;
    p.outline = symmetric({{0, 0}, p.right_edge[0], p.right_edge[1], p.right_edge[2], {0, length}});
    p.top_y = rib;
    p.side_name = "leg seam";
    add_edge(p, "waist seam", above_line(rib), 20, 20, 3);
    add_side_edges(p, "leg seam", p.right_edge, 13, 13, 1.5);
    add_edge(p, "leg hem", below_line(length - std::max(18.0, rib)), 15, 15, 1.5);
    p.seams = {{{-thigh / 2, rib}, {thigh / 2, rib}}, {{-leg / 2, length - rib}, {leg / 2, length - rib}}};
    usual_landmarks(p);
    p.tapes = {{M::outseam, {thigh * 0.3, 0}, {thigh * 0.3, length}}, {M::leg_opening, {-leg / 2, length}, {leg / 2, length}}};
    return p;
}

Panel apron_panel(const Measures& m) {
    const auto mm = [&](M which) { return measure_mm(m, which); };
    const double half = mm(M::width) / 2, top = mm(M::top_width) / 2, bib = mm(M::bib_height), length = mm(M::height);
    const double curve = std::min(mm(M::hem_curve), length - bib - 20);
    Panel p;
    p.width = mm(M::width);
    p.length = length;
    p.top_name = "bib edge";
    p.side_name = "apron edge";
    p.bottom_name = "hem";
    p.bottom_y = length;
    Ring side{{top, 0}};
    curve_to(side, {top, bib * 0.55}, {top + (half - top) * 0.35, bib}, {half, bib});
    side.push_back({half, length - curve});
    p.right_edge = side;
    p.left_edge = mirrored_ring(side);
    Ring right{{0, 0}};
    right.insert(right.end(), side.begin(), side.end());
    for (int i = 11; i > 0 && curve > 0; --i) right.push_back({half * i / 12.0, length - curve * (i / 12.0) * (i / 12.0)});
    right.push_back({0, length});
    p.outline = symmetric(right);
    add_rim(p, "apron edge", 25, 1);
    // The neck strap is sewn to the bib's corners, the ties to the sides.
    Region straps = box_region({top - 30, 0, top, 34});
    straps.push_back(box_region({-top, 0, -top + 30, 34})[0]);
    p.features.push_back({"neck strap seam", straps, 4, 12, 12, Feature::Kind::raised});
    Region ties = box_region({half - 28, bib - 4, half, bib + 26});
    ties.push_back(box_region({-half, bib - 4, -half + 28, bib + 26})[0]);
    p.features.push_back({"tie seam", ties, 4, 12, 12, Feature::Kind::raised});
    both_sides(p.details, {{top - 28, 2}, {top - 28, -46}, {top * 0.5, -78}, {0, -84}});
    both_sides(p.details, {{half, bib + 10}, {half + 48, bib + 34}});
    p.seams = {{{-top, 16}, {top, 16}}};
    usual_landmarks(p);
    p.tapes = {{M::top_width, {-top, 0}, {top, 0}},
               {M::width, {-half, bib + (length - bib) * 0.4}, {half, bib + (length - bib) * 0.4}},
               {M::height, {top * 0.6, 0}, {top * 0.6, length}},
               {M::bib_height, {-top * 0.6, 0}, {-top * 0.6, bib}},
               {M::hem_curve, {half + 10, length - curve}, {half + 10, length}}};
    return p;
}

Panel bag_panel(const Measures& m, Face face) {
    const auto mm = [&](M which) { return measure_mm(m, which); };
    const double w = mm(M::width), h = mm(M::height), apart = mm(M::handle_spacing) / 2;
    Panel p;
    p.face = face;
    p.width = w;
    p.length = h;
    p.top_name = "top edge";
    p.side_name = "side seam";
    p.bottom_name = "bottom seam";
    p.bottom_y = h;
    p.outline = box_region({-w / 2, 0, w / 2, h});
    box_edges(p, w, h);
    add_edge(p, "top hem", above_line(30), 13, 13, 2);
    add_side_edges(p, "side seam", p.right_edge, 20, 13, 2);
    add_edge(p, "bottom seam", below_line(h), 25, 20, 2);
    Region handles = box_region({apart - 14, 0, apart + 14, 46});
    handles.push_back(box_region({-apart - 14, 0, -apart + 14, 46})[0]);
    p.features.push_back({"handle seam", handles, 5, 12, 12, Feature::Kind::raised});
    both_sides(p.details, {{apart - 12, 0}, {apart - 12, -70}, {apart * 0.3, -112}, {0, -116}});
    both_sides(p.details, {{apart + 12, 0}, {apart + 12, -76}, {apart * 0.35, -134}, {0, -138}});
    p.seams = {{{-w / 2, 30}, {w / 2, 30}}};
    usual_landmarks(p);
    p.tapes = {{M::width, {-w / 2, h * 0.75}, {w / 2, h * 0.75}},
               {M::height, {w * 0.36, 0}, {w * 0.36, h}},
               {M::handle_spacing, {-apart, 22}, {apart, 22}}};
    return p;
}

std::optional<double> crown_bend(const Measures& m) {
    const double seam = measure_mm(m, Measure::crown_width), middle = measure_mm(m, Measure::crown_middle),
                 height = measure_mm(m, Measure::crown_height);
    if (middle <= 0 || seam <= 0 || height <= 0) return std::nullopt;
    return 2 * std::acos(std::min(1.0, middle / seam)) / height;
}

Panel cap_panel(const Measures& m, Face face) {
    const auto mm = [&](M which) { return measure_mm(m, which); };
    Panel p;
    p.face = face;
    const auto dome = [&](double w, double h, double shoulder) {
        Ring right{{0, 0}};
        curve_to(right, {w * 0.3, 0}, {w * 0.5, h * shoulder}, {w * 0.5, h});
        right.push_back({0, h});
        p.width = w;
        p.length = h;
        p.bottom_y = h;
        p.outline = symmetric(right);
        p.right_edge = Ring(right.begin(), right.end() - 1);
        p.left_edge = mirrored_ring(p.right_edge);
    };
    p.top_name = "crown top";
    p.side_name = "panel seam";
    p.bottom_name = "sweatband edge";
    switch (face) {
    case Face::cap_front:
        dome(mm(M::crown_width), mm(M::crown_height), 0.35);
        p.bottom_name = "bill seam";
        p.tapes = {{M::crown_width, {-p.width / 2, p.length}, {p.width / 2, p.length}}, {M::crown_height, {0, 0}, {0, p.length}}};
        if (const double across = mm(M::crown_middle), half = right_edge_x(p, p.length / 2); across > 0)
            p.tapes.push_back({M::crown_middle, {-half, p.length / 2}, {half, p.length / 2}, 2 * half / across});
        add_rim(p, "panel seam", 8, 2);
        add_edge(p, "bill seam", below_line(p.length), 10, 10, 4);
        break;
    case Face::cap_left:
    case Face::cap_right:
        dome(mm(M::side_width), mm(M::side_height), 0.4);
        p.tapes = {{M::side_width, {-p.width / 2, p.length}, {p.width / 2, p.length}}, {M::side_height, {0, 0}, {0, p.length}}};
        add_rim(p, "panel seam", 8, 2);
        p.features.push_back({"eyelet", {Polygon{disc_ring({0, p.length * 0.24}, 4), {}}}, 1.5, 6, 6, Feature::Kind::raised});
        p.details.push_back(disc_ring({0, p.length * 0.24}, 3));
        break;
    case Face::cap_back: {
        dome(mm(M::back_width), mm(M::back_height), 0.4);
        const double half = mm(M::arch_width) / 2, tall = mm(M::arch_height), y = p.length;
        Ring arch{{half, y + 1}, {half, y}};
        for (int i = 1; i < 16; ++i) arch.push_back({half * std::cos(M_PI * i / 16), y - tall * std::sin(M_PI * i / 16)});
        arch.push_back({-half, y});
        arch.push_back({-half, y + 1});
        p.outline = subtract(p.outline, {Polygon{arch, {}}});
        add_rim(p, "panel seam", 8, 2);
        p.features.push_back({"closure arch", {Polygon{arch, {}}}, 3, 8, 8, Feature::Kind::raised});
        p.landmarks.push_back({"closure arch", true, y - tall, true});
        p.tapes = {{M::back_width, {-p.width / 2, y - 4}, {p.width / 2, y - 4}},
                   {M::back_height, {-p.width * 0.3, 0}, {-p.width * 0.3, y}},
                   {M::arch_width, {-half, y}, {half, y}},
                   {M::arch_height, {half * 0.3, y - tall}, {half * 0.3, y}}};
        break;
    }
    default: {  // the bill, seen from above, its seam to the crown at the top
        const double w = mm(M::bill_width) / 2, d = mm(M::bill_depth);
        p.width = 2 * w;
        p.length = d;
        p.bottom_y = d;
        const double sag = d * 0.36;  // the seam's own curve
        Ring right{{0, sag}};
        curve_to(right, {w * 0.5, sag}, {w * 0.85, sag * 0.5}, {w, 0});
        const std::size_t seam = right.size();
        curve_to(right, {w * 1.0, d * 0.65}, {w * 0.55, d}, {0, d});
        p.outline = symmetric(right);
        p.right_edge = Ring(right.begin() + static_cast<long>(seam) - 1, right.end());
        p.left_edge = mirrored_ring(p.right_edge);
        p.top_name = "bill seam";
        p.top_y = sag;
        p.side_name = "bill edge";
        p.bottom_name = "bill edge";
        add_rim(p, "bill edge", 8, 3);
        for (const double k : {0.9, 0.8}) {
            Ring stitch;
            for (const Point q : p.right_edge) stitch.push_back({q.x * k, sag * (1 - k) + q.y * k});
            both_sides(p.seams, stitch);
        }
        p.tapes = {{M::bill_width, {-w, 0}, {w, 0}}, {M::bill_depth, {0, 0}, {0, d}}};
        break;
    }
    }
    usual_landmarks(p);
    return p;
}

bool has_sides(Family f) {
    return f == Family::flag || f == Family::pennant || f == Family::tag || f == Family::tile || f == Family::coaster;
}

Panel flat_panel(Family family, const Measures& m, Face face, bool other_side) {
    const auto mm = [&](M which) { return measure_mm(m, which); };
    const double w = mm(M::width), h = mm(M::height), r = std::min({mm(M::corner_radius), w / 2, h / 2});
    Panel p;
    p.face = face;
    p.width = w;
    p.length = h;
    p.bottom_y = h;
    p.top_name = "top edge";
    p.side_name = "edge";
    p.bottom_name = "bottom edge";
    box_edges(p, w, h);
    p.outline = box_region({-w / 2, 0, w / 2, h});
    if (r > 0.1) {
        Ring ring;
        const Point centres[4] = {{w / 2 - r, r}, {w / 2 - r, h - r}, {-w / 2 + r, h - r}, {-w / 2 + r, r}};
        for (int q = 0; q < 4; ++q)
            for (int i = 0; i <= 16; ++i) {
                const double t = (q - 1 + i / 16.0) * M_PI / 2;
                ring.push_back(centres[q] + Point{std::cos(t), std::sin(t)} * r);
            }
        p.outline = unite({Polygon{ring, {}}}, {});
    }
    p.tapes = {{M::width, {-w / 2, h * 0.62}, {w / 2, h * 0.62}}, {M::height, {w * 0.32, 0}, {w * 0.32, h}}};
    if (r > 0.1) p.tapes.push_back({M::corner_radius, {-w / 2, h - r}, {-w / 2 + r, h - r}});
    // On the back of a flag the hoist lies on the other side.
    const double hoist = (face == Face::back) != other_side ? 1 : -1;
    double edge = 0;
    switch (family) {
    case Family::flag: edge = 12; break;
    case Family::pennant: {
        edge = 12;
        p.outline = {Polygon{{{hoist * w / 2, 0}, {-hoist * w / 2, h / 2}, {hoist * w / 2, h}}, {}}};
        if (signed_area(p.outline[0].outer) < 0) std::reverse(p.outline[0].outer.begin(), p.outline[0].outer.end());
        const Ring slant{{-hoist * w / 2, h / 2}, {hoist * w / 2, h}};
        Ring& fly = hoist < 0 ? p.right_edge : p.left_edge;
        fly = {{hoist * w / 2, 0}, slant[0], slant[1]};
        break;
    }
    case Family::face_covering: {
        edge = 12;
        // The pleats' sides are drawn in by the loops.
        Ring right{{0, h * 0.05}};
        curve_to(right, {w * 0.22, 0}, {w * 0.4, h * 0.04}, {w / 2, h * 0.2});
        curve_to(right, {w * 0.47, h * 0.4}, {w * 0.47, h * 0.6}, {w / 2, h * 0.8});
        curve_to(right, {w * 0.36, h * 0.98}, {w * 0.16, h}, {0, h});
        p.outline = symmetric(right);
        p.right_edge = Ring(right.begin() + 14, right.end());
        p.left_edge = mirrored_ring(p.right_edge);
        for (const double s : {1.0, -1.0}) {
            Ring loop{{s * w / 2, h * 0.22}};
            curve_to(loop, {s * w * 0.72, h * 0.1}, {s * w * 0.72, h * 0.9}, {s * w / 2, h * 0.78});
            p.details.push_back(loop);
        }
        Region loops;
        for (const double s : {1.0, -1.0})
            for (const double t : {0.2, 0.8}) loops.push_back({disc_ring({s * (w / 2 - 4), h * t}, 5), {}});
        p.features.push_back({"loop seam", loops, 3, 8, 8, Feature::Kind::raised});
        p.features.push_back({"nose wire", box_region({-w * 0.22, h * 0.03, w * 0.22, h * 0.03 + 9}), 2, 6, 6, Feature::Kind::raised});
        p.seams.push_back({{-w * 0.22, h * 0.03 + 9}, {w * 0.22, h * 0.03 + 9}});
        break;
    }
    case Family::tile:
    case Family::coaster:
        if (mm(M::notch_depth) > 0 && mm(M::notch_width) > 0) {
            const double half = mm(M::notch_width) / 2, deep = mm(M::notch_depth);
            const double edge_at = other_side ? 0 : h, ends = other_side ? deep : h - deep;
            p.outline = subtract(p.outline, box_region({-half, std::min(ends, edge_at - 1), half, std::max(ends, edge_at + 1)}));
            p.tapes.push_back({M::notch_width, {-half, ends}, {half, ends}});
            p.tapes.push_back({M::notch_depth, {-half * 0.6, ends}, {-half * 0.6, edge_at}});
            p.landmarks.push_back({"notch", true, ends, !other_side});
        }
        break;
    case Family::patch: edge = 4; break;
    default: break;
    }
    const double hole = mm(M::hole_diameter), inset = mm(M::hole_inset);
    if (hole > 0 && family == Family::tag) {
        const double at = other_side ? h - inset : inset, inward = other_side ? -1 : 1;
        add_hole(p, "hole", {0, at}, hole, 0, 2);
        p.landmarks.push_back({"hole", true, at + inward * hole / 2, other_side});
        p.tapes.push_back({M::hole_inset, {0, other_side ? h : 0}, {0, at}});
        p.tapes.push_back({M::hole_diameter, {-hole / 2, at}, {hole / 2, at}});
    } else if (hole > 0) {
        const double x = hoist * (w / 2 - inset);
        // A pennant narrows from its hoist: its grommets keep the inset from the slanted edges, too.
        const double y = family == Family::pennant ? inset * (h / 2) / w + inset * std::hypot(w, h / 2) / w : inset;
        add_hole(p, "grommet", {x, y}, hole, 3, 6);
        add_hole(p, "grommet", {x, h - y}, hole, 3, 6);
        p.landmarks.push_back({"grommet line", false, x, false});
        p.tapes.push_back({M::hole_inset, {hoist * w / 2, y}, {x, y}});
        p.tapes.push_back({M::hole_diameter, {x - hole / 2, h - y}, {x + hole / 2, h - y}});
    }
    add_rim(p, family == Family::patch ? "stitched border" : "edge", edge, family == Family::patch ? 1.5 : 0);
    if (edge > 0)
        for (const Polygon& q : offset(p.outline, -edge * 0.7)) {
            Ring line = q.outer;
            line.push_back(line.front());
            p.seams.push_back(line);
        }
    usual_landmarks(p);
    return p;
}

}  // namespace orthema
