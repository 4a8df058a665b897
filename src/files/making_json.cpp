// How a decoration is made, as JSON. What is as usual is left out.
#include "files/shop_json.h"

namespace orthema {

namespace {

const char* join_key(Join j) { return j == Join::lap ? "lap" : "butt"; }
const char* corner_key(Corner c) { return c == Corner::round ? "round" : "square"; }

}  // namespace

Making read_making(const In& in) {
    Making m;
    if (in.has("layers")) in["layers"].each(12, [&](const In& e) { m.layers.push_back(read_layer(e)); });
    if (in.has("corner")) m.corner = in["corner"].one_of<Corner>(2, corner_key);
    if (in.has("fill_holes_mm")) m.fill_holes = in["fill_holes_mm"].length(0);
    if (in.has("bridges")) m.bridges = in["bridges"].flag();
    if (in.has("bridge_mm")) m.bridge = in["bridge_mm"].length(0);
    if (in.has("overlap_mm")) m.overlap = in["overlap_mm"].length(0);
    if (in.has("white_choke_mm")) m.white = in["white_choke_mm"].length(0);
    if (in.has("shrink_per_cent")) m.shrink = in["shrink_per_cent"].number(0, 50);
    if (in.has("split")) m.split = in["split"].flag();
    if (in.has("split_join")) m.split_join = in["split_join"].one_of<Join>(2, join_key);
    if (in.has("split_lap_mm")) m.split_lap = in["split_lap_mm"].length(0);
    if (in.has("seam_points"))
        in["seam_points"].each(400, [&](const In& e) {
            m.seam_points.push_back({e["upright"].flag(), e["seam"].whole(0, 20), {e["x"].number(-10, 1000), e["y"].number(-10, 1000)}});
        });
    if (in.has("wrap_join")) m.wrap_join = in["wrap_join"].one_of<Join>(2, join_key);
    if (in.has("wrap_lap_mm")) m.wrap_lap = in["wrap_lap_mm"].length();
    if (in.has("seam_at_mm")) m.seam_at = in["seam_at_mm"].length();
    if (in.has("two_sided")) m.two_sided = in["two_sided"].flag();
    if (in.has("fold_mm")) m.fold = in["fold_mm"].length(0);
    if (in.has("cover")) m.cover = in["cover"].flag();
    if (in.has("bleed_mm")) m.bleed = in["bleed_mm"].length(0);
    if (in.has("misplaced_mm")) m.misplaced = in["misplaced_mm"].length(0);
    if (in.has("jig")) m.jig = in["jig"].text();
    if (in.has("snip_gap_mm")) m.snip_gap = in["snip_gap_mm"].length(0);
    return m;
}

json to_json(const Making& m) {
    const Making usual;
    json j = json::object();
    for (const Layer& l : m.layers) j["layers"].push_back(to_json(l));
    if (m.corner != usual.corner) j["corner"] = corner_key(m.corner);
    if (m.bridges) j["bridges"] = true;
    if (m.split) j["split"] = true;
    if (m.split_join != usual.split_join) j["split_join"] = join_key(m.split_join);
    if (m.wrap_join != usual.wrap_join) j["wrap_join"] = join_key(m.wrap_join);
    if (m.two_sided) j["two_sided"] = true;
    if (m.cover) j["cover"] = true;
    if (m.white) j["white_choke_mm"] = m.white->mm();
    if (m.shrink != usual.shrink) j["shrink_per_cent"] = m.shrink;
    if (!m.jig.empty()) j["jig"] = m.jig;
    const auto length = [&](const char* key, Length Making::*which) {
        if (m.*which != usual.*which) j[key] = (m.*which).mm();
    };
    length("fill_holes_mm", &Making::fill_holes);
    length("bridge_mm", &Making::bridge);
    length("overlap_mm", &Making::overlap);
    length("split_lap_mm", &Making::split_lap);
    length("wrap_lap_mm", &Making::wrap_lap);
    length("seam_at_mm", &Making::seam_at);
    length("fold_mm", &Making::fold);
    length("bleed_mm", &Making::bleed);
    length("misplaced_mm", &Making::misplaced);
    length("snip_gap_mm", &Making::snip_gap);
    for (const SeamPoint& p : m.seam_points)
        j["seam_points"].push_back({{"upright", p.upright}, {"seam", p.seam}, {"x", p.at.x}, {"y", p.at.y}});
    return j;
}

}  // namespace orthema
