// What a shop has, as JSON: blanks, media, presses, methods and jigs.
#include "files/order_json.h"
#include "files/laying_json.h"
#include "core/base/utf8.h"
#include "files/pressing_json.h"
#include "files/shop_json.h"

namespace orthema {

namespace {

const char* mirror_key(MirrorBy m) {
    return m == MirrorBy::program ? "program" : m == MirrorBy::printer_software ? "printer-software" : "nobody";
}
const char* press_kind_key(PressKind k) {
    return k == PressKind::flat ? "flat" : k == PressKind::cap ? "cap" : k == PressKind::wrap ? "wrap" : "oven";
}
const char* handling_key(Handling h) { return h == Handling::none ? "none" : h == Handling::trimmed ? "trimmed" : "weeded"; }
json figure_json(const Figure& f) {
    if (f.source == Source::published) return f.value.mm();
    json j{{"mm", f.value.mm()}, {"source", source_name(f.source)}};
    if (f.published) j["published_mm"] = f.published->mm();
    if (!f.readings.empty()) {
        j["readings_mm"] = json::array();
        for (const Length r : f.readings) j["readings_mm"].push_back(r.mm());
    }
    if (!f.errors.empty()) {
        j["errors_mm"] = json::array();
        for (const Length e : f.errors) j["errors_mm"].push_back(e.mm());
    }
    if (!f.date.empty()) j["date"] = f.date;
    if (f.preshrunk) j["preshrunk"] = true;
    if (!f.batch.empty()) j["batch"] = f.batch;
    return j;
}

Figure read_figure(const In& in) {
    Figure f;
    if (in.at.is_number()) {
        f.value = in.length(0);
        return f;
    }
    f.value = in["mm"].length(0);
    f.source = in["source"].one_of<Source>(3, source_name);
    if (in.has("published_mm")) f.published = in["published_mm"].length(0);
    if (in.has("readings_mm"))
        in["readings_mm"].each(200, [&](const In& e) { f.readings.push_back(e.length(0)); });
    else if (in.has("pieces"))  // files of version 1 kept the count only
        f.readings.assign(static_cast<std::size_t>(in["pieces"].whole(0, 200)), f.value);
    if (in.has("errors_mm"))
        in["errors_mm"].each(static_cast<int>(f.readings.size()), [&](const In& e) { f.errors.push_back(e.length(0)); });
    if (in.has("date")) f.date = in["date"].text();
    if (in.has("preshrunk")) f.preshrunk = in["preshrunk"].flag();
    if (in.has("batch")) f.batch = in["batch"].text();
    return f;
}

}  // namespace

BlankStyle read_style(const In& in) {
    BlankStyle s;
    s.id = in["id"].text();
    s.name = in["name"].text();
    const auto family = family_from_key(in["family"].text());
    if (!family) in["family"].fail("is not a family of blanks that is known");
    s.family = *family;
    if (in.has("fabric")) s.fabric = in["fabric"].text();
    if (in.has("tolerance_mm")) s.tolerance = in["tolerance_mm"].length(0);
    in["sizes"].each(400, [&](const In& e) { s.sizes.push_back(e.text()); });
    if (s.sizes.empty()) in["sizes"].fail("names no size");
    in["colours"].each(400, [&](const In& e) {
        s.colours.push_back({e["name"].text(), read_colour(e["rgb"])});
        if (e.has("inside_rgb")) s.colours.back().inside = read_colour(e["inside_rgb"]);
    });
    for (const std::string& size : s.sizes) {
        const In row = in["chart"][size.c_str()];
        for (const auto& [key, value] : row.at.items()) {
            const auto measure = measure_from_key(key);
            if (!measure) row.fail(Phrases{{{"has a measure “{key}” that is not known", {{"key", first_bytes(key, 40)}}}}});
            s.chart[size][*measure] = read_figure({value, row.path + "." + key});
        }
    }
    if (in.has("sample_size")) s.sample_size = in["sample_size"].text();
    if (in.has("features"))
        in["features"].each(60, [&](const In& e) {
            StyleFeature f;
            f.kind = e["kind"].one_of<FeatureKind>(feature_kind_count, feature_kind_name);
            f.face = e["face"].one_of<Face>(face_count, face_key);
            f.across = e["across_mm"].length();
            f.down = e["down_mm"].length();
            f.width = e["width_mm"].length(0);
            f.height = e["height_mm"].length(0);
            f.raised = e["raised_mm"].length(0);
            f.clearance = e["clearance_mm"].length(0);
            if (e.has("growth")) f.growth = e["growth"].number(-4, 4);
            s.features.push_back(f);
        });
    if (in.has("tags")) in["tags"].each(60, [&](const In& e) { s.tags.push_back(e.text()); });
    if (in.has("archived")) s.archived = in["archived"].flag();
    if (in.has("shrinks")) s.shrinks = in["shrinks"].flag();
    if (in.has("batch")) s.batch = in["batch"].text();
    if (in.has("price")) s.price = in["price"].number(0, 1e6);
    if (in.has("other_side")) s.other_side = in["other_side"].flag();
    return completed(std::move(s));
}

Medium read_medium(const In& in) {
    Medium m;
    m.id = in["id"].text();
    m.name = in["name"].text();
    m.method = in["method"].text();
    m.shape = in["shape"].one_of<MediumShape>(2, [](MediumShape s) { return s == MediumShape::roll ? "roll" : "sheet"; });
    m.width = in["width_mm"].length(1);
    m.length = in["length_mm"].length(1);
    m.margin = in["margin_mm"].length(0);
    m.gap = in["gap_mm"].length(0);
    m.mirror = in["mirror"].one_of<MirrorBy>(3, mirror_key);
    m.quarter_turns = in["quarter_turns"].flag();
    if (in.has("free_turns")) m.free_turns = in["free_turns"].flag();
    if (in.has("price")) m.price = in["price"].number(0, 1e6);
    if (in.has("min_stroke_mm")) m.min_stroke = in["min_stroke_mm"].length(0);
    if (in.has("min_gap_mm")) m.min_gap = in["min_gap_mm"].length(0);
    if (in.has("cut_width_mm")) m.cut_width = in["cut_width_mm"].length(0);
    if (in.has("cut_length_mm")) m.cut_length = in["cut_length_mm"].length(0);
    if (in.has("taped_at_mm")) m.taped_at = in["taped_at_mm"].length(0);
    if (in.has("taped_lap_mm")) m.taped_lap = in["taped_lap_mm"].length(0);
    if (in.has("tint")) m.tint = read_colour(in["tint"]);
    if (in.has("cut_offset_mm")) m.cut_offset = in["cut_offset_mm"].length(0);
    if (in.has("laying")) m.laying = read_laying(in["laying"]);
    if (in.has("batch")) m.batch = in["batch"].text();
    return m;
}

Press read_press(const In& in) {
    Press p;
    p.id = in["id"].text();
    p.name = in["name"].text();
    p.margin = in["margin_mm"].length(0);
    if (in.has("kind")) p.kind = in["kind"].one_of<PressKind>(4, press_kind_key);
    if (in.has("platens"))
        in["platens"].each(40, [&](const In& e) {
            p.platens.push_back({e["name"].text(), e["width_mm"].length(1), e["height_mm"].length(1)});
        });
    else  // files of version 1 had one platen
        p.platens.push_back({"platen", in["platen_width_mm"].length(1), in["platen_height_mm"].length(1)});
    if (p.platens.empty()) in["platens"].fail("has no platen");
    if (in.has("heat_rate")) p.heat_rate = in["heat_rate"].number(0.1, 1000);
    if (in.has("cool_rate")) p.cool_rate = in["cool_rate"].number(0.1, 1000);
    if (in.has("platen_seconds")) p.platen_seconds = in["platen_seconds"].number(0, 36000);
    if (in.has("pressure_seconds")) p.pressure_seconds = in["pressure_seconds"].number(0, 36000);
    if (in.has("pieces")) p.pieces = in["pieces"].whole(1, 1000);
    if (in.has("pads"))
        in["pads"].each(40, [&](const In& e) {
            p.pads.push_back({e["name"].text(), e["width_mm"].length(1), e["height_mm"].length(1), e["thickness_mm"].length(0)});
        });
    return p;
}

Layer read_layer(const In& in) {
    Layer l;
    l.name = in["name"].text();
    if (l.name.empty() || l.name.size() > 60) in["name"].fail("must have 1 to 60 letters");
    if (in.has("medium")) l.medium = in["medium"].text();
    if (in.has("printed")) l.printed = in["printed"].flag();
    if (in.has("colour")) l.colour = read_colour(in["colour"]);
    if (in.has("tint")) l.tint = read_colour(in["tint"]);
    if (in.has("grow_mm")) l.grow = in["grow_mm"].length();
    return l;
}

json to_json(const Layer& l) {
    json j{{"name", l.name}, {"printed", l.printed}, {"tint", colour_text(l.tint)}, {"grow_mm", l.grow.mm()}};
    if (!l.medium.empty()) j["medium"] = l.medium;
    if (l.colour) j["colour"] = colour_text(*l.colour);
    return j;
}

Method read_method(const In& in) {
    Method m;
    m.id = in["id"].text();
    m.name = in["name"].text();
    m.read_through = in["read_through"].flag();
    if (in.has("fabrics")) in["fabrics"].each(40, [&](const In& e) { m.fabrics.push_back(e.text()); });
    if (in.has("never")) in["never"].each(40, [&](const In& e) { m.never.push_back(e.text()); });
    if (in.has("lightest")) m.lightest = in["lightest"].number(0, 100);
    if (in.has("flat_colours")) m.flat_colours = in["flat_colours"].flag();
    if (in.has("stretches")) m.stretches = in["stretches"].flag();
    if (in.has("handling")) m.handling = in["handling"].one_of<Handling>(3, handling_key);
    if (in.has("min_stroke_mm")) m.min_stroke = in["min_stroke_mm"].length(0);
    if (in.has("min_gap_mm")) m.min_gap = in["min_gap_mm"].length(0);
    if (in.has("min_island_mm")) m.min_island = in["min_island_mm"].length(0);
    m.powder = in.has("powder") ? in["powder"].flag() : m.id == "direct-to-film";  // earlier files do not say
    if (in.has("keeps_days")) m.keeps_days = in["keeps_days"].whole(0, 10000);
    if (in.has("ink_cost")) m.ink_cost = in["ink_cost"].number(0, 1e6);
    if (in.has("minutes")) m.minutes = in["minutes"].number(0, 1e5);
    if (in.has("shrink_per_cent")) m.shrink = in["shrink_per_cent"].number(0, 50);
    if (in.has("layers")) in["layers"].each(12, [&](const In& e) { m.layers.push_back(read_layer(e)); });
    if (in.has("recipe")) in["recipe"].each(40, [&](const In& e) { m.recipe.push_back(read_step(e)); });
    if (in.has("oven_recipe")) in["oven_recipe"].each(40, [&](const In& e) { m.oven_recipe.push_back(read_step(e)); });
    if (in.has("fabric_rules")) in["fabric_rules"].each(60, [&](const In& e) { m.fabric_rules.push_back(read_fabric_rule(e)); });
    if (in.has("bears_seconds")) m.bears_seconds = in["bears_seconds"].number(0, 36000);
    if (in.has("bears_heats")) m.bears_heats = in["bears_heats"].whole(0, 100);
    if (in.has("care")) m.care = in["care"].text();
    return m;
}

json to_json(const Method& m) {
    json j{{"id", m.id},
           {"name", m.name},
           {"read_through", m.read_through},
           {"fabrics", m.fabrics},
           {"never", m.never},
           {"lightest", m.lightest},
           {"flat_colours", m.flat_colours},
           {"stretches", m.stretches},
           {"handling", handling_key(m.handling)},
           {"min_stroke_mm", m.min_stroke.mm()},
           {"min_gap_mm", m.min_gap.mm()},
           {"min_island_mm", m.min_island.mm()},
           {"powder", m.powder},
           {"keeps_days", m.keeps_days},
           {"ink_cost", m.ink_cost},
           {"minutes", m.minutes},
           {"shrink_per_cent", m.shrink},
           {"layers", json::array()},
           {"recipe", json::array()},
           {"fabric_rules", json::array()},
           {"bears_seconds", m.bears_seconds},
           {"bears_heats", m.bears_heats},
           {"care", m.care}};
    for (const Layer& l : m.layers) j["layers"].push_back(to_json(l));
    for (const RecipeStep& s : m.recipe) j["recipe"].push_back(to_json(s));
    for (const RecipeStep& s : m.oven_recipe) j["oven_recipe"].push_back(to_json(s));
    for (const FabricRule& r : m.fabric_rules) j["fabric_rules"].push_back(to_json(r));
    return j;
}

Jig read_jig(const In& in) {
    Jig g;
    g.id = in["id"].text();
    g.name = in["name"].text();
    g.rows = in["rows"].whole(1, 100);
    g.columns = in["columns"].whole(1, 100);
    g.pitch_x = in["pitch_x_mm"].length(0);
    g.pitch_y = in["pitch_y_mm"].length(0);
    if (in.has("slot_width_mm")) g.slot_width = in["slot_width_mm"].length(0);
    if (in.has("slot_height_mm")) g.slot_height = in["slot_height_mm"].length(0);
    if (in.has("slot_corner_mm")) g.slot_corner = in["slot_corner_mm"].length(0);
    g.backer_width = in["backer_width_mm"].length(1);
    g.backer_height = in["backer_height_mm"].length(1);
    g.margin = in["margin_mm"].length(0);
    if (in.has("slots")) in["slots"].each(10000, [&](const In& e) { g.assigned.push_back(e.text()); });
    return g;
}

json to_json(const Jig& g) {
    json j{{"id", g.id},
           {"name", g.name},
           {"rows", g.rows},
           {"columns", g.columns},
           {"pitch_x_mm", g.pitch_x.mm()},
           {"pitch_y_mm", g.pitch_y.mm()},
           {"slot_width_mm", g.slot_width.mm()},
           {"slot_height_mm", g.slot_height.mm()},
           {"slot_corner_mm", g.slot_corner.mm()},
           {"backer_width_mm", g.backer_width.mm()},
           {"backer_height_mm", g.backer_height.mm()},
           {"margin_mm", g.margin.mm()}};
    if (!g.assigned.empty()) j["slots"] = g.assigned;
    return j;
}

json to_json(const BlankStyle& s) {
    json j{{"id", s.id},
           {"name", s.name},
           {"family", family_key(s.family)},
           {"fabric", s.fabric},
           {"tolerance_mm", s.tolerance.mm()},
           {"sizes", s.sizes},
           {"colours", json::array()},
           {"chart", json::object()}};
    for (const BlankColour& c : s.colours) {
        j["colours"].push_back({{"name", c.name}, {"rgb", colour_text(c.ink)}});
        if (c.inside) j["colours"].back()["inside_rgb"] = colour_text(*c.inside);
    }
    for (const auto& [size, row] : s.chart)
        for (const auto& [measure, figure] : row) j["chart"][size][measure_key(measure)] = figure_json(figure);
    if (!s.sample_size.empty()) j["sample_size"] = s.sample_size;
    for (const StyleFeature& f : s.features)
        j["features"].push_back({{"kind", feature_kind_name(f.kind)},
                                 {"face", face_key(f.face)},
                                 {"across_mm", f.across.mm()},
                                 {"down_mm", f.down.mm()},
                                 {"width_mm", f.width.mm()},
                                 {"height_mm", f.height.mm()},
                                 {"raised_mm", f.raised.mm()},
                                 {"clearance_mm", f.clearance.mm()},
                                 {"growth", f.growth}});
    if (!s.tags.empty()) j["tags"] = s.tags;
    if (s.archived) j["archived"] = true;
    if (s.shrinks) j["shrinks"] = true;
    if (!s.batch.empty()) j["batch"] = s.batch;
    if (s.price > 0) j["price"] = s.price;
    if (s.other_side) j["other_side"] = true;
    return j;
}

json to_json(const Medium& m) {
    json j{{"id", m.id},
           {"name", m.name},
           {"method", m.method},
           {"shape", m.shape == MediumShape::roll ? "roll" : "sheet"},
           {"width_mm", m.width.mm()},
           {"length_mm", m.length.mm()},
           {"margin_mm", m.margin.mm()},
           {"gap_mm", m.gap.mm()},
           {"mirror", mirror_key(m.mirror)},
           {"quarter_turns", m.quarter_turns},
           {"free_turns", m.free_turns},
           {"price", m.price},
           {"min_stroke_mm", m.min_stroke.mm()},
           {"min_gap_mm", m.min_gap.mm()},
           {"cut_width_mm", m.cut_width.mm()},
           {"cut_length_mm", m.cut_length.mm()},
           {"taped_at_mm", m.taped_at.mm()},
           {"taped_lap_mm", m.taped_lap.mm()},
           {"cut_offset_mm", m.cut_offset.mm()},
           {"tint", colour_text(m.tint)}};
    if (!(m.laying == Laying{})) j["laying"] = to_json(m.laying);
    if (!m.batch.empty()) j["batch"] = m.batch;
    return j;
}

json to_json(const Press& p) {
    json j{{"id", p.id},
           {"name", p.name},
           {"kind", press_kind_key(p.kind)},
           {"margin_mm", p.margin.mm()},
           {"platens", json::array()},
           {"heat_rate", p.heat_rate},
           {"cool_rate", p.cool_rate},
           {"platen_seconds", p.platen_seconds},
           {"pressure_seconds", p.pressure_seconds},
           {"pieces", p.pieces}};
    for (const Platen& e : p.platens) j["platens"].push_back({{"name", e.name}, {"width_mm", e.width.mm()}, {"height_mm", e.height.mm()}});
    for (const Pad& e : p.pads)
        j["pads"].push_back(
            {{"name", e.name}, {"width_mm", e.width.mm()}, {"height_mm", e.height.mm()}, {"thickness_mm", e.thickness.mm()}});
    return j;
}

Result<BlankStyle> style_from_json(const json& j) {
    return guarded([&] { return read_style({j, ""}); });
}
Result<Medium> medium_from_json(const json& j) {
    return guarded([&] { return read_medium({j, ""}); });
}
Result<Press> press_from_json(const json& j) {
    return guarded([&] { return read_press({j, ""}); });
}

Result<Method> method_from_json(const json& j) {
    return guarded([&] { return read_method({j, ""}); });
}
Result<Jig> jig_from_json(const json& j) {
    return guarded([&] { return read_jig({j, ""}); });
}

}  // namespace orthema
