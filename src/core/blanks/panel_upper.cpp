// Upper bodies: tees, tanks, jerseys, fleece and bodysuits, front and back, their sleeves and hoods.
#include <algorithm>

#include "core/blanks/lying.h"

namespace orthema {

namespace {

using M = Measure;

/// The collar seam from the centre line out to HPS.
Ring collar_seam(double half_neck, double drop) {
    Ring line{{0, drop}};
    curve_to(line, {half_neck * 0.62, drop}, {half_neck * 0.96, drop * 0.5}, {half_neck, 0});
    return line;
}

struct Sleeve {
    Point top, bottom;  ///< ends of the opening
};

Sleeve sleeve_of(Family family, const Measures& m, Point shoulder, double swing) {
    // How far a sleeve hangs when the garment lies flat: short sleeves stand out, long ones are folded down.
    const double angle = (is_long_sleeved(family) ? 68.0 : 38.0) * M_PI / 180 + swing;
    const Point along{std::cos(angle), std::sin(angle)};
    const Point across{-along.y, along.x};
    const Point top = shoulder + along * measure_mm(m, M::sleeve_length);
    return {top, top + across * measure_mm(m, M::sleeve_opening)};
}

void add_pouch(Panel& p, const Measures& m) {
    const double top = measure_mm(m, M::pouch_top);
    const double bottom = top + measure_mm(m, M::pouch_height);
    const double half = measure_mm(m, M::pouch_width) / 2;
    const double half_top = half * 0.62;
    const double bend = top + (bottom - top) * 0.7;
    const Ring shape{{-half_top, top}, {half_top, top}, {half, bend}, {half, bottom}, {-half, bottom}, {-half, bend}};
    p.features.push_back({"pouch seam", {Polygon{shape, {}}}, 4, 13, 13, Feature::Kind::raised});
    p.landmarks.push_back({"pouch seam", true, top, true});
    Ring closed = shape;
    closed.push_back(shape.front());
    p.seams.push_back(closed);
    p.tapes.push_back({M::pouch_top, {-p.hps.x, 0}, {-p.hps.x, top}});
    p.tapes.push_back({M::pouch_width, {-half, bottom}, {half, bottom}});
    p.tapes.push_back({M::pouch_height, {-half_top, top}, {-half_top, bottom}});
}

void add_zip(Panel& p) {
    const Rect r{-10, p.top_y, 10, p.bottom_y};
    p.features.push_back({"zip", box_region(r), 4, 10, 10, Feature::Kind::raised});
    p.landmarks.push_back({"zip line", false, 0, false});
    p.details.push_back({{0, r.y0}, {0, r.y1}});
    both_sides(p.seams, {{r.x1, r.y0}, {r.x1, r.y1}});
}

/// A hood standing above the front or lying on the back.
void add_hood(Panel& p, const Measures& m, double half_neck, double drop, bool zip) {
    const double hood = measure_mm(m, M::hood_height);
    if (p.face == Face::front) {
        Ring right{{0, -hood * 0.62}};
        curve_to(right, {half_neck * 1.1, -hood * 0.62}, {half_neck * 1.75, -hood * 0.25}, {half_neck * 1.02, 0});
        Ring shape = reversed_mirror(right);
        shape.insert(shape.end(), right.begin(), right.end());
        const Ring seam = collar_seam(half_neck, drop);
        shape.insert(shape.end(), seam.rbegin(), seam.rend());
        const Ring other = mirrored_ring(seam);
        shape.insert(shape.end(), other.begin(), other.end());
        p.outline = unite(p.outline, {Polygon{shape, {}}});
        Ring face{{0, drop * 0.95}};
        curve_to(face, {half_neck * 0.75, drop * 0.4}, {half_neck * 0.95, -hood * 0.42}, {0, -hood * 0.46});
        both_sides(p.details, face);
        const double cord = half_neck * 0.34;
        both_sides(p.details, {{cord * 0.9, drop * 0.9}, {cord, drop + 90}});
        const Rect left{-cord - 4, drop, -cord + 4, drop + 95}, right_cord{cord - 4, drop, cord + 4, drop + 95};
        Region cords = box_region(left);
        cords.push_back(box_region(right_cord)[0]);
        if (!zip) p.features.push_back({"drawcord", cords, 5, 0, 0, Feature::Kind::loose});
    } else {
        Ring right{{0, hood * 0.66}};
        curve_to(right, {half_neck * 1.2, hood * 0.66}, {half_neck * 1.6, hood * 0.25}, {half_neck * 1.02, 0});
        Ring shape = reversed_mirror(right);
        shape.insert(shape.end(), right.begin(), right.end());
        p.features.push_back({"hood", {Polygon{shape, {}}}, 8, 0, 0, Feature::Kind::cover});
        p.landmarks.push_back({"hood edge", true, hood * 0.66, false});
        p.outline = unite(p.outline, {Polygon{shape, {}}});
        Ring line = reversed_mirror(right);
        line.insert(line.end(), right.begin(), right.end());
        p.details.push_back(line);
        p.tapes.push_back({M::hood_height, {half_neck * 1.9, 0}, {half_neck * 1.9, hood * 0.66}, 0.66});
    }
}

/// Right half of a bodysuit below the pit: side, leg opening, snap closure.
Ring bodysuit_bottom(const Measures& m) {
    const double length = measure_mm(m, M::body_length);
    const double half_hem = measure_mm(m, M::hem_width) / 2;
    const double half_snap = measure_mm(m, M::snap_width) / 2;
    const double leg_y = length - half_hem * 0.95;
    Ring right{{half_hem, leg_y}};
    curve_to(right, {half_hem * 0.62, leg_y + (length - leg_y) * 0.35}, {half_snap * 1.25, length * 0.97}, {half_snap, length});
    right.push_back({0, length});
    return right;
}

void add_snaps(Panel& p, const Measures& m) {
    const double half = measure_mm(m, M::snap_width) / 2;
    const double tall = measure_mm(m, M::snap_height);
    const double y = p.bottom_y;
    p.features.push_back({"snap tabs", box_region({-half, y - tall, half, y}), 3, 13, 13, Feature::Kind::raised});
    p.landmarks.push_back({"snap line", true, y - tall, true});
    p.seams.push_back({{-half * 1.1, y - tall}, {half * 1.1, y - tall}});
    for (const double x : {-0.6, 0.0, 0.6}) p.details.push_back({{half * x - 3, y - tall / 2}, {half * x + 3, y - tall / 2}});
}

void add_rib(Panel& p, double half_neck, double drop, double rib) {
    const Ring inner = collar_seam(std::max(4.0, half_neck - rib * 0.9), std::max(2.0, drop - rib));
    Ring band = p.neck_edge;
    band.insert(band.end(), inner.rbegin(), inner.rend());
    p.rib = unite({Polygon{band, {}}}, {Polygon{mirrored_ring(band), {}}});
    p.outline = unite(p.outline, p.rib);
}

/// The lower edge from the side seam to the centre line, viewer's right.
Ring hem_line(double half, double y, double curve) {
    Ring line{{half, y - curve}};
    if (curve > 0)
        for (int i = 11; i > 0; --i) {
            const double t = i / 12.0;
            line.push_back({half * t, y - curve * t * t});
        }
    line.push_back({0, y});
    return line;
}

Panel sleeve_panel(Family family, const Measures& m, Face face) {
    Panel p;
    p.face = face;
    p.length = measure_mm(m, M::sleeve_length);
    const double bottom = measure_mm(m, M::sleeve_opening);
    p.width = bottom;
    const double bicep = std::max(bottom, (measure_mm(m, M::armhole_depth) - measure_mm(m, M::shoulder_slope)) * 0.98);
    const double cap = std::min(p.length * 0.12, 40.0);
    Ring top{{0, 0}};
    curve_to(top, {bicep * 0.28, 0}, {bicep * 0.38, cap}, {bicep / 2, cap});
    p.right_edge = {{bicep / 2, cap}, {bottom / 2, p.length}};
    p.left_edge = mirrored_ring(p.right_edge);
    Ring right = top;
    right.push_back({bottom / 2, p.length});
    right.push_back({0, p.length});
    Ring shape = right;
    const Ring left = reversed_mirror(right);
    shape.insert(shape.end(), left.begin() + 1, left.end() - 1);
    p.outline = unite({Polygon{shape, {}}}, {});
    p.top_name = "armhole seam";
    p.bottom_name = is_long_sleeved(family) ? "cuff" : "sleeve hem";
    p.side_name = "sleeve fold";
    p.bottom_y = p.length;
    Ring above = reversed_mirror(top);
    above.insert(above.end(), top.begin() + 1, top.end());
    above.push_back({bicep / 2, -far_out});
    above.push_back({-bicep / 2, -far_out});
    add_edge(p, "armhole seam", above, 20, 20, 1.5);
    const double cuff = is_long_sleeved(family) && family != Family::long_sleeve ? measure_mm(m, M::rib_height) : 18;
    add_edge(p, is_long_sleeved(family) ? "cuff seam" : "sleeve hem",
             {{-far_out, p.length - cuff}, {far_out, p.length - cuff}, {far_out, far_out}, {-far_out, far_out}}, 13, 13, 1.5);
    add_side_edges(p, "sleeve fold", p.right_edge, 10, 10);
    p.seams.push_back({{-bottom / 2, p.length - cuff}, {bottom / 2, p.length - cuff}});
    p.landmarks = {{"centre line", false, 0, false},
                   {"armhole seam", true, 0, false},
                   {is_long_sleeved(family) ? "cuff seam" : "sleeve hem", true, p.length - cuff, true}};
    p.tapes = {{M::sleeve_length, {0, 0}, {0, p.length}}, {M::sleeve_opening, {-bottom / 2, p.length}, {bottom / 2, p.length}}};
    return p;
}

Panel hood_panel(const Measures& m) {
    Panel p;
    p.face = Face::hood;
    p.length = measure_mm(m, M::hood_height);
    p.width = p.length * 0.78;
    const double w = p.width / 2, h = p.length;
    Ring right{{0, 0}};
    curve_to(right, {w * 0.6, 0}, {w, h * 0.22}, {w, h * 0.5});
    right.push_back({w * 0.86, h});
    p.right_edge = right;
    p.left_edge = mirrored_ring(right);
    Ring shape = right;
    const Ring left = reversed_mirror(right);
    shape.insert(shape.end(), left.begin(), left.end() - 1);
    p.outline = unite({Polygon{shape, {}}}, {});
    p.top_name = "hood seam";
    p.bottom_name = "collar seam";
    p.side_name = "hood edge";
    p.bottom_y = h;
    add_side_edges(p, "hood edge", right, 25, 25, 2);
    add_edge(p, "collar seam", {{-far_out, h}, {far_out, h}, {far_out, far_out}, {-far_out, far_out}}, 20, 20, 3);
    p.landmarks = {{"centre line", false, 0, false}, {"hood seam", true, 0, false}, {"collar seam", true, h, true}};
    p.tapes = {{M::hood_height, {0, 0}, {0, h}}};
    return p;
}

Panel upper_body(Family family, const Measures& m, Face face, const Lying& lying) {
    if (face == Face::left_sleeve || face == Face::right_sleeve) return sleeve_panel(family, m, face);
    if (face == Face::hood) return hood_panel(m);
    const auto mm = [&](M which) { return measure_mm(m, which); };
    Panel p;
    p.face = face;
    const bool front = face == Face::front;
    const bool fleece = has_hood(family) || family == Family::crew_fleece;
    const bool bodysuit = family == Family::infant_bodysuit;
    const double half_neck = mm(M::neck_width) / 2;
    const double drop = mm(front ? M::front_neck_drop : M::back_neck_drop);
    const double rib = mm(M::rib_height);
    p.length = mm(M::body_length);
    p.width = mm(M::chest);
    p.top_y = drop;
    p.pit_y = mm(M::armhole_depth);
    p.bottom_y = p.length;
    p.hps = {half_neck, 0};
    p.shoulder_point = {mm(M::across_shoulder) / 2, mm(M::shoulder_slope)};
    const Point pit{p.width / 2, *p.pit_y};
    p.neck_edge = collar_seam(half_neck, drop);

    Ring armhole{p.shoulder_point};
    const double in = std::min(p.shoulder_point.x, pit.x) - 14;
    curve_to(armhole, {in, p.shoulder_point.y + (pit.y - p.shoulder_point.y) * 0.45}, {in, pit.y - 12}, pit);
    // from the pit down to the centre of the hem
    const Ring below = bodysuit ? bodysuit_bottom(m) : hem_line(mm(M::hem_width) / 2, p.bottom_y, mm(M::hem_curve));
    p.right_edge = {p.hps};
    p.right_edge.insert(p.right_edge.end(), armhole.begin(), armhole.end());
    p.side_parts = {{0, "shoulder seam"}, {p.shoulder_point.y, "armhole seam"}, {pit.y, "side seam"}};
    if (bodysuit) p.side_parts.emplace_back(below.front().y, "leg seam");
    if (bodysuit)
        p.right_edge.insert(p.right_edge.end(), below.begin(), below.end() - 1);
    else
        p.right_edge.push_back(below.front());
    p.left_edge = mirrored_ring(p.right_edge);

    const double inset = fleece ? rib : 18;
    // one half from the centre of the collar to the centre of the hem
    const auto half_shape = [&](double swing, bool left) {
        Ring out = p.neck_edge;
        out.push_back(p.shoulder_point);
        if (has_sleeves(family)) {
            const Sleeve sleeve = sleeve_of(family, m, p.shoulder_point, swing);
            out.insert(out.end(), {sleeve.top, sleeve.bottom, pit});
            const Point back = (p.shoulder_point - sleeve.top) * (inset / std::max(1.0, norm(p.shoulder_point - sleeve.top)));
            const Ring seam{sleeve.top + back, sleeve.bottom + back};
            p.seams.push_back(left ? mirrored_ring(seam) : seam);
            if (front && !left) {
                p.tapes.push_back({M::sleeve_length, p.shoulder_point, sleeve.top});
                p.tapes.push_back({M::sleeve_opening, sleeve.top, sleeve.bottom});
            }
        } else {
            out.insert(out.end(), armhole.begin() + 1, armhole.end());
        }
        out.insert(out.end(), below.begin(), below.end());
        return out;
    };
    Ring shape = half_shape(lying.right_sleeve, false);
    const Ring left = reversed_mirror(half_shape(lying.left_sleeve, true));
    shape.insert(shape.end(), left.begin() + 1, left.end() - 1);
    // A long sleeve overlaps the body where it is folded down: the union is the silhouette.
    p.outline = unite({Polygon{shape, {}}}, {});
    both_sides(p.seams, armhole);

    // edges, from the collar down
    Ring collar = reversed_mirror(p.neck_edge);
    collar.insert(collar.end(), p.neck_edge.begin() + 1, p.neck_edge.end());
    collar.push_back({half_neck, -far_out});
    collar.push_back({-half_neck, -far_out});
    add_edge(p, "collar seam", collar, 13, 13, fleece ? 3 : 2);
    const Ring shoulder{p.hps, p.shoulder_point, {p.shoulder_point.x, -far_out}, {p.hps.x, -far_out}};
    p.features.push_back(
        {"shoulder seam", {Polygon{shoulder, {}}, Polygon{mirrored_ring(shoulder), {}}}, 1.5, 13, 13, Feature::Kind::edge});
    add_side_edges(p, "armhole seam", armhole, 25, 13, 1.5);
    add_side_edges(p, "side seam", {pit, below.front()}, 25, 13, 1);
    if (bodysuit) add_side_edges(p, "leg seam", {below.begin(), below.end() - 1}, 20, 13, 1);
    const double hem_clear = fleece ? rib + 20 : 45;  // a sewn hem's own seam lies about 18 mm up
    Ring hem(below.rbegin(), below.rend());
    if (bodysuit) hem = {{0, p.bottom_y}, {mm(M::snap_width) / 2, p.bottom_y}};
    Ring under = reversed_mirror(hem);
    under.insert(under.end(), hem.begin() + 1, hem.end());
    under.push_back({hem.back().x, far_out});
    under.push_back({-hem.back().x, far_out});
    add_edge(p, "hem", under, hem_clear, hem_clear, 1);
    if (!bodysuit) {
        Ring seam = below;
        for (Point& q : seam) q.y -= inset;
        both_sides(p.seams, seam);
    }
    p.landmarks = {{"centre line", false, 0, false},
                   {"collar seam", true, drop, false},
                   {"pit line", true, *p.pit_y, true},
                   {"hem", true, p.bottom_y, true}};

    // tapes
    const double hem_y = bodysuit ? below.front().y : p.bottom_y - mm(M::hem_curve);
    if (front) {
        p.tapes.insert(p.tapes.begin(), {{M::body_length, {half_neck, 0}, {half_neck, p.length}},
                                         {M::chest, {-pit.x, pit.y}, pit},
                                         {M::neck_width, {-half_neck, 0}, {half_neck, 0}},
                                         {M::front_neck_drop, {0, 0}, {0, drop}}});
        // the rib of a fleece is at its hem and cuffs
        if (fleece)
            p.tapes.push_back({M::rib_height, {-half_neck * 1.3, p.bottom_y - rib}, {-half_neck * 1.3, p.bottom_y}});
        else
            p.tapes.push_back({M::rib_height, {-half_neck * 0.3, drop - rib}, {-half_neck * 0.3, drop}});
    } else {
        p.tapes = {{M::across_shoulder, {-p.shoulder_point.x, p.shoulder_point.y}, p.shoulder_point},
                   {M::back_neck_drop, {0, 0}, {0, drop}},
                   {M::armhole_depth, {-p.shoulder_point.x * 0.8, 0}, {-p.shoulder_point.x * 0.8, pit.y}},
                   {M::hem_width, {-mm(M::hem_width) / 2, hem_y}, {mm(M::hem_width) / 2, hem_y}},
                   {M::shoulder_slope, {p.shoulder_point.x, 0}, p.shoulder_point}};
        if (!bodysuit)
            p.tapes.push_back({M::hem_curve, {mm(M::hem_width) / 2, p.bottom_y - mm(M::hem_curve)}, {mm(M::hem_width) / 2, p.bottom_y}});
    }

    if (has_hood(family))
        add_hood(p, m, half_neck, drop, family == Family::zip_hooded_fleece);
    else
        add_rib(p, half_neck, drop, rib);
    if (front && family == Family::hooded_fleece) add_pouch(p, m);
    if (front && family == Family::zip_hooded_fleece) add_zip(p);
    if (bodysuit) {
        add_snaps(p, m);
        if (front) {
            const double half = mm(M::snap_width) / 2;
            p.tapes.push_back({M::snap_width, {-half, p.length}, {half, p.length}});
            p.tapes.push_back({M::snap_height, {-half, p.length - mm(M::snap_height)}, {-half, p.length}});
        }
    }
    return p;
}

}  // namespace

Panel upper_body_panel(Family family, const Measures& m, Face face) { return upper_body(family, m, face, {}); }

Panel lying_panel(Family family, const Measures& m, Face face, bool other_side, const Lying& lying) {
    return family_build(family) == Build::upper_body ? upper_body(family, m, face, lying) : family_panel(family, m, face, other_side);
}

}  // namespace orthema
