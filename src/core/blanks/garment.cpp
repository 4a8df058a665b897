#include "core/blanks/garment.h"

#include <algorithm>

namespace orthema {

namespace {

/// Clearances from seams and soft parts: usual starting values.
constexpr double pouch_clearance = 13;
constexpr double snap_clearance = 13;

Ring reversed_mirror(const Ring& right) {
    Ring left(right.rbegin(), right.rend());
    for (Point& p : left) p.x = -p.x;
    return left;
}

Ring mirrored_ring(const Ring& right) {
    Ring left = right;
    for (Point& p : left) p.x = -p.x;
    return left;
}

void both_sides(std::vector<Ring>& lines, const Ring& right) {
    lines.push_back(right);
    lines.push_back(mirrored_ring(right));
}

/// The collar seam from the centre line out to HPS.
Ring collar_seam(double half_neck, double drop) {
    Ring line{{0, drop}};
    curve_to(line, {half_neck * 0.62, drop}, {half_neck * 0.96, drop * 0.5}, {half_neck, 0});
    return line;
}

struct Sleeve {
    Point top, bottom;  ///< ends of the opening
};

Sleeve sleeve_of(Family family, const Measures& m, Point shoulder) {
    // How far a sleeve hangs when the garment lies flat: short sleeves stand out, long ones are folded down.
    const double angle = (family == Family::hooded_fleece ? 68.0 : 38.0) * M_PI / 180;
    const Point along{std::cos(angle), std::sin(angle)};
    const Point across{-along.y, along.x};
    const Point top = shoulder + along * measure_mm(m, Measure::sleeve_length);
    return {top, top + across * measure_mm(m, Measure::sleeve_opening)};
}

void add_pouch(Garment& g, const Measures& m) {
    const double top = measure_mm(m, Measure::pouch_top);
    const double bottom = top + measure_mm(m, Measure::pouch_height);
    const double half = measure_mm(m, Measure::pouch_width) / 2;
    const double half_top = half * 0.62;
    const double bend = top + (bottom - top) * 0.7;
    const Ring shape{{-half_top, top}, {half_top, top}, {half, bend}, {half, bottom}, {-half, bottom}, {-half, bend}};
    g.features.push_back({"pouch seam", {Polygon{shape, {}}}, 4, pouch_clearance, true});
    Ring closed = shape;
    closed.push_back(shape.front());
    g.seams.push_back(closed);
}

void add_hood(Garment& g, const Measures& m, double half_neck, double drop) {
    const double hood = measure_mm(m, Measure::hood_height);
    if (g.side == Side::front) {
        // the hood stands above the collar; its opening faces the viewer
        Ring right{{0, -hood * 0.62}};
        curve_to(right, {half_neck * 1.1, -hood * 0.62}, {half_neck * 1.75, -hood * 0.25}, {half_neck * 1.02, 0});
        Ring shape = reversed_mirror(right);
        shape.insert(shape.end(), right.begin(), right.end());
        const Ring seam = collar_seam(half_neck, drop);
        shape.insert(shape.end(), seam.rbegin(), seam.rend());
        const Ring other = mirrored_ring(seam);
        shape.insert(shape.end(), other.begin(), other.end());
        g.outline = unite(g.outline, {Polygon{shape, {}}});
        Ring face{{0, drop * 0.95}};
        curve_to(face, {half_neck * 0.75, drop * 0.4}, {half_neck * 0.95, -hood * 0.42}, {0, -hood * 0.46});
        both_sides(g.details, face);
        both_sides(g.details, {{half_neck * 0.3, drop * 0.9}, {half_neck * 0.34, drop + 90}});
        const double cord = half_neck * 0.34;
        g.features.push_back({"drawcord", box_region({-cord - 4, drop, cord + 4, drop + 95}), 5, 0, false});
    } else {
        Ring right{{0, hood * 0.66}};
        curve_to(right, {half_neck * 1.2, hood * 0.66}, {half_neck * 1.6, hood * 0.25}, {half_neck * 1.02, 0});
        Ring shape = reversed_mirror(right);
        shape.insert(shape.end(), right.begin(), right.end());
        g.features.push_back({"hood", {Polygon{shape, {}}}, 8, 0, false});
        g.outline = unite(g.outline, {Polygon{shape, {}}});
        Ring line = mirrored_ring(right);
        std::reverse(line.begin(), line.end());
        line.insert(line.end(), right.begin(), right.end());
        g.details.push_back(line);
    }
}

/// Right half of a bodysuit below the pit: side, leg opening, snap closure.
void bodysuit_bottom(Ring& right, const Measures& m) {
    const double length = measure_mm(m, Measure::body_length);
    const double half_hem = measure_mm(m, Measure::hem_width) / 2;
    const double half_snap = measure_mm(m, Measure::snap_width) / 2;
    const double leg_y = length - half_hem * 0.95;
    right.push_back({half_hem, leg_y});
    curve_to(right, {half_hem * 0.62, leg_y + (length - leg_y) * 0.35}, {half_snap * 1.25, length * 0.97}, {half_snap, length});
    right.push_back({0, length});
}

}  // namespace

Garment garment_of(Family family, const Measures& m, Side side) {
    Garment g;
    g.side = side;
    const double half_neck = measure_mm(m, Measure::neck_width) / 2;
    const double drop = measure_mm(m, side == Side::front ? Measure::front_neck_drop : Measure::back_neck_drop);
    const double rib = measure_mm(m, Measure::rib_height);
    g.body_length = measure_mm(m, Measure::body_length);
    g.chest = measure_mm(m, Measure::chest);
    g.collar_seam_y = drop;
    g.pit_y = measure_mm(m, Measure::armhole_depth);
    g.hem_y = g.body_length;
    g.hps = {half_neck, 0};
    g.shoulder_point = {measure_mm(m, Measure::across_shoulder) / 2, measure_mm(m, Measure::shoulder_slope)};
    const Point pit{g.chest / 2, g.pit_y};
    const Sleeve sleeve = sleeve_of(family, m, g.shoulder_point);

    g.neck_edge = collar_seam(half_neck, drop);

    Ring armhole{g.shoulder_point};
    const double in = std::min(g.shoulder_point.x, pit.x) - 14;
    curve_to(armhole, {in, g.shoulder_point.y + (pit.y - g.shoulder_point.y) * 0.45}, {in, pit.y - 12}, pit);
    g.body_edge = armhole;

    Ring below;  // from the pit down to the centre of the hem
    if (family == Family::infant_bodysuit)
        bodysuit_bottom(below, m);
    else
        below = {{measure_mm(m, Measure::hem_width) / 2, g.hem_y}, {0, g.hem_y}};
    g.body_edge.insert(g.body_edge.end(), below.begin(), below.end() - 1);

    Ring right = g.neck_edge;
    right.push_back(g.shoulder_point);
    right.push_back(sleeve.top);
    right.push_back(sleeve.bottom);
    right.push_back(pit);
    right.insert(right.end(), below.begin(), below.end());
    Ring shape = right;
    Ring left = reversed_mirror(right);
    shape.insert(shape.end(), left.begin() + 1, left.end() - 1);
    // A long sleeve overlaps the body where it is folded down: the union is the silhouette.
    g.outline = unite({Polygon{shape, {}}}, {});

    both_sides(g.seams, armhole);
    const double inset = family == Family::hooded_fleece ? rib : 18;
    const Point back = (g.shoulder_point - sleeve.top) * (inset / std::max(1.0, norm(g.shoulder_point - sleeve.top)));
    both_sides(g.seams, {sleeve.top + back, sleeve.bottom + back});
    if (family != Family::infant_bodysuit) {
        const double hem = measure_mm(m, Measure::hem_width) / 2;
        g.seams.push_back({{-hem, g.hem_y - inset}, {hem, g.hem_y - inset}});
    }

    if (family == Family::hooded_fleece) {
        add_hood(g, m, half_neck, drop);
        if (side == Side::front) add_pouch(g, m);
    } else {
        // the rib stands above the collar seam
        const Ring inner = [&] {
            Ring line = collar_seam(std::max(4.0, half_neck - rib * 0.9), std::max(2.0, drop - rib));
            return line;
        }();
        Ring band = g.neck_edge;
        band.insert(band.end(), inner.rbegin(), inner.rend());
        const Ring other = mirrored_ring(band);
        g.rib = unite({Polygon{band, {}}}, {Polygon{other, {}}});
        g.outline = unite(g.outline, g.rib);
    }
    if (family == Family::infant_bodysuit) {
        const double half = measure_mm(m, Measure::snap_width) / 2;
        const double tall = measure_mm(m, Measure::snap_height);
        g.features.push_back({"snap tabs", box_region({-half, g.hem_y - tall, half, g.hem_y}), 3, snap_clearance, true});
        g.seams.push_back({{-half * 1.1, g.hem_y - tall}, {half * 1.1, g.hem_y - tall}});
        for (const double x : {-0.6, 0.0, 0.6})
            g.details.push_back({{half * x - 3, g.hem_y - tall / 2}, {half * x + 3, g.hem_y - tall / 2}});
    }
    return g;
}

std::vector<TapeLine> tape_lines(Family family, const Measures& m, Side side) {
    const auto mm = [&](Measure which) { return measure_mm(m, which); };
    const double neck = mm(Measure::neck_width) / 2, shoulder = mm(Measure::across_shoulder) / 2;
    const double slope = mm(Measure::shoulder_slope), pit = mm(Measure::armhole_depth), length = mm(Measure::body_length);
    const bool bodysuit = family == Family::infant_bodysuit;
    const double hem_y = bodysuit ? length - mm(Measure::hem_width) / 2 * 0.95 : length;
    const Point point{shoulder, slope};
    const Sleeve sleeve = sleeve_of(family, m, point);
    std::vector<TapeLine> out;
    if (side == Side::back) {
        out.push_back({Measure::across_shoulder, {-shoulder, slope}, point});
        out.push_back({Measure::back_neck_drop, {0, 0}, {0, mm(Measure::back_neck_drop)}});
        out.push_back({Measure::armhole_depth, {-shoulder * 0.8, 0}, {-shoulder * 0.8, pit}});
        out.push_back({Measure::hem_width, {-mm(Measure::hem_width) / 2, hem_y}, {mm(Measure::hem_width) / 2, hem_y}});
        if (family == Family::hooded_fleece)
            out.push_back({Measure::hood_height, {neck * 1.9, 0}, {neck * 1.9, mm(Measure::hood_height) * 0.66}});
        out.push_back({Measure::shoulder_slope, {shoulder, 0}, point});
        return out;
    }
    out.push_back({Measure::body_length, {neck, 0}, {neck, length}});
    out.push_back({Measure::chest, {-mm(Measure::chest) / 2, pit}, {mm(Measure::chest) / 2, pit}});
    out.push_back({Measure::neck_width, {-neck, 0}, {neck, 0}});
    out.push_back({Measure::front_neck_drop, {0, 0}, {0, mm(Measure::front_neck_drop)}});
    out.push_back({Measure::sleeve_length, point, sleeve.top});
    out.push_back({Measure::sleeve_opening, sleeve.top, sleeve.bottom});
    if (family == Family::hooded_fleece) {
        const double top = mm(Measure::pouch_top), tall = mm(Measure::pouch_height), half = mm(Measure::pouch_width) / 2;
        out.push_back({Measure::pouch_top, {-neck, 0}, {-neck, top}});
        out.push_back({Measure::pouch_width, {-half, top + tall}, {half, top + tall}});
        // the rib of a fleece is at its hem and cuffs
        out.push_back({Measure::rib_height, {-neck * 1.3, length - mm(Measure::rib_height)}, {-neck * 1.3, length}});
        out.push_back({Measure::pouch_height, {-half * 0.62, top}, {-half * 0.62, top + tall}});
    } else {
        const double rib = mm(Measure::rib_height);
        const double drop = mm(Measure::front_neck_drop);
        out.push_back({Measure::rib_height, {-neck * 0.3, drop - rib}, {-neck * 0.3, drop}});
    }
    if (bodysuit) {
        const double half = mm(Measure::snap_width) / 2, tall = mm(Measure::snap_height);
        out.push_back({Measure::snap_width, {-half, length}, {half, length}});
        out.push_back({Measure::snap_height, {-half, length - tall}, {-half, length}});
    }
    return out;
}

double body_half_width(const Garment& g, double y) {
    for (std::size_t i = 0; i + 1 < g.body_edge.size(); ++i) {
        const Point a = g.body_edge[i];
        const Point b = g.body_edge[i + 1];
        if (y >= std::min(a.y, b.y) && y <= std::max(a.y, b.y) && a.y != b.y) return a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y);
    }
    return 0;
}

double neckline_y(const Garment& g, double x) {
    x = std::abs(x);
    for (std::size_t i = 0; i + 1 < g.neck_edge.size(); ++i) {
        const Point a = g.neck_edge[i];
        const Point b = g.neck_edge[i + 1];
        if (x >= a.x && x <= b.x && b.x > a.x) return a.y + (b.y - a.y) * (x - a.x) / (b.x - a.x);
    }
    const double span = g.shoulder_point.x - g.hps.x;
    const double t = span > 0 ? std::clamp((x - g.hps.x) / span, 0.0, 1.0) : 1.0;
    return g.shoulder_point.y * t;
}

}  // namespace orthema
