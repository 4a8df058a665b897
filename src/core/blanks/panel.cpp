#include "core/blanks/panel.h"

#include <algorithm>

namespace orthema {

Ring mirrored_ring(const Ring& right) {
    Ring left = right;
    for (Point& p : left) p.x = -p.x;
    return left;
}

Ring reversed_mirror(const Ring& right) {
    Ring left = mirrored_ring(right);
    std::reverse(left.begin(), left.end());
    return left;
}

void both_sides(std::vector<Ring>& lines, const Ring& right) {
    lines.push_back(right);
    lines.push_back(mirrored_ring(right));
}

void add_edge(Panel& p, const std::string& name, Ring beyond, double clearance, double small, double height) {
    p.features.push_back({name, {Polygon{std::move(beyond), {}}}, height, clearance, small, Feature::Kind::edge});
}

void add_side_edges(Panel& p, const std::string& name, const Ring& right, double clearance, double small, double height) {
    Ring beyond = right;
    beyond.push_back({far_out, right.back().y});
    beyond.push_back({far_out, right.front().y});
    Feature f{name, {Polygon{beyond, {}}, Polygon{mirrored_ring(beyond), {}}}, height, clearance, small, Feature::Kind::edge};
    p.features.push_back(std::move(f));
}

Panel family_panel(Family family, const Measures& m, Face face, bool other_side) {
    switch (family_build(family)) {
    case Build::upper_body: return upper_body_panel(family, m, face);
    case Build::trousers: return trousers_panel(m, face);
    case Build::apron: return apron_panel(m);
    case Build::bag: return bag_panel(m, face);
    case Build::cap: return cap_panel(m, face);
    case Build::flat: return flat_panel(family, m, face, other_side);
    case Build::wrap: return wrap_panel(family, m);
    }
    return {};
}

namespace {

void draw_feature(Panel& p, const StyleFeature& f, const Rect& r) {
    const Ring box{{r.x0, r.y0}, {r.x1, r.y0}, {r.x1, r.y1}, {r.x0, r.y1}, {r.x0, r.y0}};
    const double cx = r.centre().x;
    switch (f.kind) {
    case FeatureKind::pocket: {
        const double point = std::min(r.width(), r.height()) * 0.12;
        p.seams.push_back({{r.x0, r.y0}, {r.x1, r.y0}, {r.x1, r.y1 - point}, {cx, r.y1}, {r.x0, r.y1 - point}, {r.x0, r.y0}});
        p.seams.push_back({{r.x0, r.y0 + point}, {r.x1, r.y0 + point}});
        p.landmarks.push_back({"pocket top", true, r.y0, true});
        p.landmarks.push_back({"pocket edge", true, r.y0, false});
        p.landmarks.push_back({"pocket centre", false, cx, false});
        break;
    }
    case FeatureKind::placket:
        p.seams.push_back(box);
        for (double t = 0.2; t < 1; t += 0.3) p.details.push_back({{cx - 3, r.y0 + t * r.height()}, {cx + 3, r.y0 + t * r.height()}});
        p.landmarks.push_back({"placket end", true, r.y1, false});
        p.landmarks.push_back({"placket line", false, cx, false});
        break;
    case FeatureKind::zip:
        p.details.push_back({{cx, r.y0}, {cx, r.y1}});
        p.seams.push_back({{r.x0, r.y0}, {r.x0, r.y1}});
        p.seams.push_back({{r.x1, r.y0}, {r.x1, r.y1}});
        p.landmarks.push_back({"zip line", false, cx, false});
        break;
    case FeatureKind::snaps:
        p.seams.push_back(box);
        for (const double t : {0.2, 0.5, 0.8}) {
            const double x = r.x0 + t * r.width();
            p.details.push_back({{x - 3, r.centre().y}, {x + 3, r.centre().y}});
        }
        p.landmarks.push_back({"snap line", true, r.y0, true});
        break;
    case FeatureKind::tag: p.seams.push_back(box); break;
    case FeatureKind::seam:
        p.seams.push_back({{r.x0, r.centre().y}, {r.x1, r.centre().y}});
        p.landmarks.push_back({"seam, above", true, r.y0, true});
        p.landmarks.push_back({"seam, below", true, r.y1, false});
        break;
    }
}

}  // namespace

Panel panel_of(const BlankStyle& style, const std::string& size, Face face) {
    Panel p = family_panel(style.family, style.chart.at(size), face, style.other_side);
    bool any = false;
    for (const StyleFeature& f : style.features) any = any || f.face == face;
    if (!any) return p;
    const Panel sample = family_panel(style.family, style.chart.at(sample_size(style)), face, style.other_side);
    const double kx = sample.width > 0 ? p.width / sample.width : 1, ky = sample.length > 0 ? p.length / sample.length : 1;
    for (const StyleFeature& f : style.features) {
        if (f.face != face) continue;
        const double w = f.width.mm() * std::pow(kx, f.growth), h = f.height.mm() * std::pow(ky, f.growth);
        // On upper bodies what lies at the collar moves with the collar, the rest with the length.
        const double y = f.down.mm() * ky, x = f.across.mm() * kx;
        const Rect r{x - w / 2, y, x + w / 2, y + h};
        // Only what lies on the panel counts: a zip of the full length ends at the hem.
        Region place = intersect(box_region(r), p.outline);
        if (place.empty()) continue;
        p.features.push_back(
            {feature_kind_name(f.kind), std::move(place), f.raised.mm(), f.clearance.mm(), f.clearance.mm(), Feature::Kind::raised});
        draw_feature(p, f, r);
    }
    return p;
}

namespace {

/// The edge's x at height y: the first segment from the top that spans it.
double edge_x(const Ring& edge, double y) {
    for (std::size_t i = 0; i + 1 < edge.size(); ++i) {
        const Point a = edge[i];
        const Point b = edge[i + 1];
        if (y >= std::min(a.y, b.y) && y <= std::max(a.y, b.y) && a.y != b.y) return a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y);
    }
    return 0;
}

}  // namespace

double right_edge_x(const Panel& p, double y) { return edge_x(p.right_edge, y); }
double left_edge_x(const Panel& p, double y) { return edge_x(p.left_edge, y); }

double margin_height(const Panel& p, const Rect& ink) {
    if (p.right_edge.empty()) return ink.centre().y;
    return std::clamp(ink.centre().y, p.right_edge.front().y, p.right_edge.back().y);
}

const std::string& side_name_at(const Panel& p, double y) {
    const std::string* name = &p.side_name;
    for (const auto& [from, part] : p.side_parts)
        if (y >= from) name = &part;
    return *name;
}

Rect drawn_box(const Panel& panel) {
    Rect box = bounds(panel.outline);
    for (const Ring& detail : panel.details) box = united(box, bounds(detail));
    return box;
}

const Feature* find_feature(const Panel& p, const std::string& name) {
    for (const Feature& f : p.features)
        if (f.name == name) return &f;
    return nullptr;
}

const Landmark* find_landmark(const Panel& p, const std::string& name) {
    for (const Landmark& l : p.landmarks)
        if (l.name == name) return &l;
    return nullptr;
}

}  // namespace orthema
