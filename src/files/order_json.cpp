#include "files/order_json.h"

#include <cmath>

#include "files/art_file.h"

namespace orthema {

using nlohmann::json;

namespace {

const char* mirror_key(MirrorBy m) {
    return m == MirrorBy::program ? "program" : m == MirrorBy::printer_software ? "printer-software" : "nobody";
}
const char* school_key(SizingSchool s) { return s == SizingSchool::one_size ? "one-size" : s == SizingSchool::bands ? "bands" : "graded"; }
const char* school_key(PlacingSchool s) {
    return s == PlacingSchool::collar_drop ? "collar-drop"
           : s == PlacingSchool::pit_line  ? "pit-line"
           : s == PlacingSchool::feature   ? "feature"
                                           : "body-fraction";
}
const char* press_kind_key(PressKind k) { return k == PressKind::flat ? "flat" : k == PressKind::cap ? "cap" : "wrap"; }
const char* centre_key(Centre c) { return c == Centre::ink_box ? "ink-box" : c == Centre::optical ? "optical" : "marked"; }

std::string colour_text(Colour c) {
    char buffer[8];
    const auto byte = [](double v) { return static_cast<unsigned>(std::lround(std::clamp(v, 0.0, 1.0) * 255)); };
    std::snprintf(buffer, sizeof buffer, "#%02x%02x%02x", byte(c.r), byte(c.g), byte(c.b));
    return buffer;
}

/// Thrown inside this file only, and turned into an Error at its edge.
struct Fault {
    std::string sentence;
};

/// A JSON value with its path, so that every complaint says where.
struct In {
    const json& at;
    std::string path;

    [[noreturn]] void fail(const std::string& what) const {
        throw Fault{"The order file is not usable: " + (path.empty() ? "it" : path) + " " + what + "."};
    }
    [[nodiscard]] bool has(const char* key) const { return at.is_object() && at.contains(key) && !at[key].is_null(); }
    [[nodiscard]] In operator[](const char* key) const {
        if (!at.is_object()) fail("is not an object");
        if (!has(key)) fail(std::string("lacks “") + key + "”");
        return {at[key], path.empty() ? key : path + "." + key};
    }
    [[nodiscard]] std::string text() const {
        if (!at.is_string()) fail("is not text");
        const auto& s = at.get_ref<const std::string&>();
        if (s.size() > 4000) fail("is too long");
        return s;
    }
    [[nodiscard]] double number(double low, double high) const {
        if (!at.is_number()) fail("is not a number");
        const double v = at.get<double>();
        if (!(v >= low && v <= high)) fail("is out of range");
        return v;
    }
    [[nodiscard]] int whole(int low, int high) const {
        const double v = number(low, high);
        if (v != std::floor(v)) fail("is not a whole number");
        return static_cast<int>(v);
    }
    [[nodiscard]] bool flag() const {
        if (!at.is_boolean()) fail("is not true or false");
        return at.get<bool>();
    }
    [[nodiscard]] Length length(double low = -100000) const { return Length::from_mm(number(low, 100000)); }
    template <class F>
    void each(std::size_t most, F use) const {
        if (!at.is_array()) fail("is not a list");
        if (at.size() > most) fail("has too many entries");
        for (std::size_t i = 0; i < at.size(); ++i) use(In{at[i], path + "[" + std::to_string(i) + "]"});
    }
    /// One of the enum's values by its key.
    template <class E, class Key>
    [[nodiscard]] E one_of(int count, Key key) const {
        const std::string s = text();
        for (int i = 0; i < count; ++i)
            if (s == key(static_cast<E>(i))) return static_cast<E>(i);
        fail("is “" + s.substr(0, 40) + "”, which is not known");
    }
};

template <class F>
auto guarded(F read) -> Result<decltype(read())> {
    try {
        return read();
    } catch (const Fault& f) {
        return Error{f.sentence};
    } catch (const json::exception&) {
        return Error{"The order file is not usable: it is not in the documented form."};
    }
}

Colour read_colour(const In& in) {
    const std::string s = in.text();
    unsigned v = 0;
    if (s.size() != 7 || s[0] != '#' || std::sscanf(s.c_str() + 1, "%6x", &v) != 1) in.fail("is not a colour like #e3e1da");
    return {((v >> 16) & 255) / 255.0, ((v >> 8) & 255) / 255.0, (v & 255) / 255.0, 1};
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
    if (in.has("date")) f.date = in["date"].text();
    return f;
}

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
    in["colours"].each(400, [&](const In& e) { s.colours.push_back({e["name"].text(), read_colour(e["rgb"])}); });
    for (const std::string& size : s.sizes) {
        const In row = in["chart"][size.c_str()];
        for (const auto& [key, value] : row.at.items()) {
            const auto measure = measure_from_key(key);
            if (!measure) row.fail("has a measure “" + key.substr(0, 40) + "” that is not known");
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
    if (in.has("price")) m.price = in["price"].number(0, 1e6);
    if (in.has("min_stroke_mm")) m.min_stroke = in["min_stroke_mm"].length(0);
    if (in.has("min_gap_mm")) m.min_gap = in["min_gap_mm"].length(0);
    if (in.has("cut_width_mm")) m.cut_width = in["cut_width_mm"].length(0);
    if (in.has("cut_length_mm")) m.cut_length = in["cut_length_mm"].length(0);
    return m;
}

Press read_press(const In& in) {
    Press p;
    p.id = in["id"].text();
    p.name = in["name"].text();
    p.margin = in["margin_mm"].length(0);
    if (in.has("kind")) p.kind = in["kind"].one_of<PressKind>(3, press_kind_key);
    if (in.has("platens"))
        in["platens"].each(40, [&](const In& e) {
            p.platens.push_back({e["name"].text(), e["width_mm"].length(1), e["height_mm"].length(1)});
        });
    else  // files of version 1 had one platen
        p.platens.push_back({"platen", in["platen_width_mm"].length(1), in["platen_height_mm"].length(1)});
    if (p.platens.empty()) in["platens"].fail("has no platen");
    if (in.has("pads"))
        in["pads"].each(40, [&](const In& e) {
            p.pads.push_back({e["name"].text(), e["width_mm"].length(1), e["height_mm"].length(1), e["thickness_mm"].length(0)});
        });
    return p;
}

SizingRule read_sizing(const In& in) {
    SizingRule r;
    r.school = in["school"].one_of<SizingSchool>(3, [](SizingSchool s) { return school_key(s); });
    r.base_size = in["base_size"].text();
    r.base_width = in["base_width_mm"].length(1);
    const auto measure = measure_from_key(in["measure"].text());
    if (!measure) in["measure"].fail("is not a measure that is known");
    r.measure = *measure;
    r.exponent = in["exponent"].number(-4, 4);
    r.step = in["step_mm"].length(0);
    r.price = in["price"].number(0, 1e9);
    r.band_count = in["band_count"].whole(0, 400);
    in["band_starts"].each(400, [&](const In& e) { r.band_starts.push_back(e.text()); });
    if (in.has("shared")) in["shared"].each(60, [&](const In& e) { r.shared.push_back({e["first"].text(), e["width_mm"].length(1)}); });
    if (in.has("past_platen")) r.past_platen = in["past_platen"].flag();
    return r;
}

PlacingRule read_placing(const In& in) {
    PlacingRule r;
    r.school = in["school"].one_of<PlacingSchool>(placing_school_count, [](PlacingSchool s) { return school_key(s); });
    r.offset = in["offset_mm"].length();
    r.share = in["share"].number(-1, 2);
    r.growth = in["growth"].number(-4, 4);
    r.across = in["across_mm"].length();
    if (in.has("landmark")) r.landmark = in["landmark"].text();
    r.centre = in["centre"].one_of<Centre>(3, centre_key);
    return r;
}

Decoration read_decoration(const In& in) {
    Decoration d;
    d.id = in["id"].text();
    d.name = in["name"].text();
    d.art = in["art"].text();
    d.run = {in["blank"].text(), in["colour"].text()};
    const auto location = location_from_key(in["location"].text());
    if (!location) in["location"].fail("is not a print location that is known");
    d.location = *location;
    d.medium = in["medium"].text();
    d.press = in["press"].text();
    d.sizing = read_sizing(in["sizing"]);
    d.placing = read_placing(in["placing"]);
    if (in.has("meetings")) in["meetings"].each(20, [&](const In& e) { d.meetings.push_back({e["mark"].text(), e["landmark"].text()}); });
    if (in.has("apart_mm")) d.apart = in["apart_mm"].length(0);
    if (in.has("pins"))
        in["pins"].each(400, [&](const In& e) {
            SizePin pin{e["size"].text(), {}, {}, {}};
            if (e.has("width_mm")) pin.width = e["width_mm"].length(1);
            if (e.has("down_mm")) pin.down = e["down_mm"].length();
            if (e.has("across_mm")) pin.across = e["across_mm"].length();
            d.pins.push_back(pin);
        });
    if (in.has("spares")) d.spares = in["spares"].whole(0, 10000);
    return d;
}

Art read_art(const In& in) {
    Art a;
    a.id = in["id"].text();
    a.name = in["name"].text();
    const auto kind = kind_from_key(in["kind"].text());
    if (!kind) in["kind"].fail("is not a kind of picture that is known");
    a.kind = *kind;
    a.hash = in["hash"].text();
    if (a.hash.size() != 64 || a.hash.find_first_not_of("0123456789abcdef") != std::string::npos)
        in["hash"].fail("is not a SHA-256 in hexadecimal");
    if (in.has("marked_centre")) {
        std::vector<double> xy;
        in["marked_centre"].each(2, [&](const In& e) { xy.push_back(e.number(-10, 1000)); });
        if (xy.size() != 2) in["marked_centre"].fail("is not two numbers");
        a.marked_centre = Point{xy[0], xy[1]};
    }
    if (in.has("marks"))
        in["marks"].each(40, [&](const In& e) {
            a.marks.push_back({e["name"].text(), {e["x"].number(-10, 1000), e["y"].number(-10, 1000)}});
        });
    return a;
}

Order read_order(const In& in) {
    if (!in.at.is_object() || !in.has("format") || in["format"].text() != "orthema-order")
        throw Fault{"This is not an order file of this program."};
    if (in["version"].whole(1, 1000000) > order_format_version)
        throw Fault{"This order was saved by a newer version of the program: update, then open it again."};
    Order o;
    o.name = in["name"].text();
    if (in.has("due")) o.due = in["due"].text();
    o.unit = in["unit"].one_of<Unit>(2, [](Unit u) { return u == Unit::inch ? "in" : "mm"; });
    o.paper = in["paper"].one_of<Paper>(2, [](Paper p) { return p == Paper::a4 ? "a4" : "letter"; });
    in["lines"].each(20000, [&](const In& e) {
        OrderLine l{e["blank"].text(), e["colour"].text(), e["size"].text(), e["quantity"].whole(0, 100000), {}};
        if (e.has("note")) l.note = e["note"].text();
        o.lines.push_back(std::move(l));
    });
    in["art"].each(500, [&](const In& e) { o.art.push_back(read_art(e)); });
    in["decorations"].each(500, [&](const In& e) { o.decorations.push_back(read_decoration(e)); });
    in["blanks"].each(500, [&](const In& e) { o.styles.push_back(read_style(e)); });
    in["media"].each(200, [&](const In& e) { o.media.push_back(read_medium(e)); });
    in["presses"].each(200, [&](const In& e) { o.presses.push_back(read_press(e)); });
    if (in.has("layouts"))
        in["layouts"].each(200, [&](const In& e) {
            MediumLayout layout{e["medium"].text(), {}};
            e["copies"].each(20000, [&](const In& c) {
                layout.copies.push_back({c["transfer"].text(), c["copy"].whole(0, 100000), c["sheet"].whole(0, 10000),
                                         c["turn"].whole(0, 359), c["x_mm"].number(-1e5, 1e7), c["y_mm"].number(-1e5, 1e7),
                                         c.has("locked") && c["locked"].flag()});
            });
            o.layouts.push_back(std::move(layout));
        });
    return o;
}

json figure_json(const Figure& f) {
    if (f.source == Source::published) return f.value.mm();
    json j{{"mm", f.value.mm()}, {"source", source_name(f.source)}};
    if (f.published) j["published_mm"] = f.published->mm();
    if (!f.readings.empty()) {
        j["readings_mm"] = json::array();
        for (const Length r : f.readings) j["readings_mm"].push_back(r.mm());
    }
    if (!f.date.empty()) j["date"] = f.date;
    return j;
}

}  // namespace

json to_json(const BlankStyle& s) {
    json j{{"id", s.id},
           {"name", s.name},
           {"family", family_key(s.family)},
           {"fabric", s.fabric},
           {"tolerance_mm", s.tolerance.mm()},
           {"sizes", s.sizes},
           {"colours", json::array()},
           {"chart", json::object()}};
    for (const BlankColour& c : s.colours) j["colours"].push_back({{"name", c.name}, {"rgb", colour_text(c.ink)}});
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
    return j;
}

json to_json(const Medium& m) {
    return {{"id", m.id},
            {"name", m.name},
            {"method", m.method},
            {"shape", m.shape == MediumShape::roll ? "roll" : "sheet"},
            {"width_mm", m.width.mm()},
            {"length_mm", m.length.mm()},
            {"margin_mm", m.margin.mm()},
            {"gap_mm", m.gap.mm()},
            {"mirror", mirror_key(m.mirror)},
            {"quarter_turns", m.quarter_turns},
            {"price", m.price},
            {"min_stroke_mm", m.min_stroke.mm()},
            {"min_gap_mm", m.min_gap.mm()},
            {"cut_width_mm", m.cut_width.mm()},
            {"cut_length_mm", m.cut_length.mm()}};
}

json to_json(const Press& p) {
    json j{{"id", p.id}, {"name", p.name}, {"kind", press_kind_key(p.kind)}, {"margin_mm", p.margin.mm()}, {"platens", json::array()}};
    for (const Platen& e : p.platens) j["platens"].push_back({{"name", e.name}, {"width_mm", e.width.mm()}, {"height_mm", e.height.mm()}});
    for (const Pad& e : p.pads)
        j["pads"].push_back(
            {{"name", e.name}, {"width_mm", e.width.mm()}, {"height_mm", e.height.mm()}, {"thickness_mm", e.thickness.mm()}});
    return j;
}

json to_json(const Order& o) {
    json j{{"format", "orthema-order"},
           {"version", order_format_version},
           {"name", o.name},
           {"due", o.due},
           {"unit", o.unit == Unit::inch ? "in" : "mm"},
           {"paper", o.paper == Paper::a4 ? "a4" : "letter"}};
    for (const char* list : {"lines", "art", "decorations", "blanks", "media", "presses", "layouts"}) j[list] = json::array();
    for (const OrderLine& l : o.lines) {
        json e{{"blank", l.style}, {"colour", l.colour}, {"size", l.size}, {"quantity", l.quantity}};
        if (!l.note.empty()) e["note"] = l.note;
        j["lines"].push_back(e);
    }
    for (const Art& a : o.art) {
        json e{{"id", a.id}, {"name", a.name}, {"kind", kind_key(a.kind)}, {"hash", a.hash}};
        if (a.marked_centre) e["marked_centre"] = {a.marked_centre->x, a.marked_centre->y};
        for (const NamedMark& m : a.marks) e["marks"].push_back({{"name", m.name}, {"x", m.at.x}, {"y", m.at.y}});
        j["art"].push_back(e);
    }
    for (const Decoration& d : o.decorations) {
        json pins = json::array();
        for (const SizePin& p : d.pins) {
            json e{{"size", p.size}};
            if (p.width) e["width_mm"] = p.width->mm();
            if (p.down) e["down_mm"] = p.down->mm();
            if (p.across) e["across_mm"] = p.across->mm();
            pins.push_back(e);
        }
        const SizingRule& s = d.sizing;
        const PlacingRule& p = d.placing;
        j["decorations"].push_back({{"id", d.id},
                                    {"name", d.name},
                                    {"art", d.art},
                                    {"blank", d.run.style},
                                    {"colour", d.run.colour},
                                    {"location", location_key(d.location)},
                                    {"medium", d.medium},
                                    {"press", d.press},
                                    {"sizing",
                                     {{"school", school_key(s.school)},
                                      {"base_size", s.base_size},
                                      {"base_width_mm", s.base_width.mm()},
                                      {"measure", measure_key(s.measure)},
                                      {"exponent", s.exponent},
                                      {"step_mm", s.step.mm()},
                                      {"price", s.price},
                                      {"band_count", s.band_count},
                                      {"band_starts", s.band_starts}}},
                                    {"placing",
                                     {{"school", school_key(p.school)},
                                      {"offset_mm", p.offset.mm()},
                                      {"share", p.share},
                                      {"growth", p.growth},
                                      {"across_mm", p.across.mm()},
                                      {"centre", centre_key(p.centre)}}},
                                    {"pins", pins},
                                    {"apart_mm", d.apart.mm()},
                                    {"spares", d.spares}});
        json& last = j["decorations"].back();
        if (!p.landmark.empty()) last["placing"]["landmark"] = p.landmark;
        for (const SharedWidth& w : s.shared) last["sizing"]["shared"].push_back({{"first", w.first}, {"width_mm", w.width.mm()}});
        if (s.past_platen) last["sizing"]["past_platen"] = true;
        for (const Meeting& m : d.meetings) last["meetings"].push_back({{"mark", m.mark}, {"landmark", m.landmark}});
    }
    for (const BlankStyle& s : o.styles) j["blanks"].push_back(to_json(s));
    for (const Medium& m : o.media) j["media"].push_back(to_json(m));
    for (const Press& p : o.presses) j["presses"].push_back(to_json(p));
    for (const MediumLayout& l : o.layouts) {
        json copies = json::array();
        for (const PlacedCopy& c : l.copies) {
            json e{{"transfer", c.transfer}, {"copy", c.copy}, {"sheet", c.sheet}, {"turn", c.turn}, {"x_mm", c.x}, {"y_mm", c.y}};
            if (c.locked) e["locked"] = true;
            copies.push_back(e);
        }
        j["layouts"].push_back({{"medium", l.medium}, {"copies", copies}});
    }
    return j;
}

Result<Order> order_from_json(const json& j) {
    return guarded([&] { return read_order({j, ""}); });
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

Result<json> parse_json(const std::string& text, const std::string& name) {
    // Deep nesting would overflow the parser's stack: no file of ours goes past a handful of levels.
    int depth = 0;
    bool quoted = false;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        if (quoted) {
            if (c == '\\')
                ++i;
            else if (c == '"')
                quoted = false;
        } else if (c == '"') {
            quoted = true;
        } else if (c == '[' || c == '{') {
            if (++depth > 64) return Error{name + " is not usable: it is nested too deep."};
        } else if (c == ']' || c == '}') {
            --depth;
        }
    }
    json j = json::parse(text, nullptr, false);
    if (j.is_discarded()) return Error{name + " is not usable: it is cut short or not JSON."};
    return j;
}

}  // namespace orthema
