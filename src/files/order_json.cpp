#include "files/order_json.h"

#include "files/lettering_json.h"
#include "files/mending_json.h"
#include "files/together_json.h"
#include "files/word_json.h"

#include <cmath>

#include "core/order/ids.h"
#include "core/order/pieces.h"
#include "core/order/rules.h"
#include "files/art_file.h"
#include "files/laying_json.h"
#include "files/pressing_json.h"
#include "files/shop_json.h"

namespace orthema {

namespace {

const char* school_key(SizingSchool s) { return s == SizingSchool::one_size ? "one-size" : s == SizingSchool::bands ? "bands" : "graded"; }
const char* school_key(PlacingSchool s) {
    return s == PlacingSchool::collar_drop ? "collar-drop"
           : s == PlacingSchool::pit_line  ? "pit-line"
           : s == PlacingSchool::feature   ? "feature"
                                           : "body-fraction";
}
const char* centre_key(Centre c) { return c == Centre::ink_box ? "ink-box" : c == Centre::optical ? "optical" : "marked"; }

std::string class_key(const GarmentClass& of) {
    return of.group == AgeGroup::any ? std::string(family_key(of.family)) : std::string(age_group_name(of.group));
}

GarmentClass read_class(const In& in) {
    const std::string key = in.text();
    for (int i = 0; i < family_count; ++i)
        if (const GarmentClass of = class_of(static_cast<Family>(i)); class_key(of) == key) return of;
    in.fail("is not a class of garments that is known");
}

/// `of_rule`: without base size and base width, which a rule has for each class.
SizingRule read_sizing(const In& in, bool of_rule) {
    SizingRule r;
    r.school = in["school"].one_of<SizingSchool>(3, [](SizingSchool s) { return school_key(s); });
    if (!of_rule) {
        r.base_size = in["base_size"].text();
        r.base_width = in["base_width_mm"].length(1);
    }
    const auto measure = measure_from_key(in["measure"].text());
    if (!measure) in["measure"].fail("is not a measure that is known");
    r.measure = *measure;
    r.exponent = in["exponent"].number(-4, 4);
    r.step = in["step_mm"].length(0);
    if (in.has("within")) r.within = in["within"].number(0, 1);
    r.price = in["price"].number(0, 1e9);
    r.band_count = in["band_count"].whole(0, 400);
    in["band_starts"].each(400, [&](const In& e) { r.band_starts.push_back(e.text()); });
    if (in.has("shared")) in["shared"].each(60, [&](const In& e) { r.shared.push_back({e["first"].text(), e["width_mm"].length(1)}); });
    if (in.has("past_platen")) r.past_platen = in["past_platen"].flag();
    return r;
}

PlacingRule read_placing(const In& in, bool of_rule) {
    PlacingRule r;
    r.school = in["school"].one_of<PlacingSchool>(placing_school_count, [](PlacingSchool s) { return school_key(s); });
    if (!of_rule) {
        r.offset = in["offset_mm"].length();
        r.share = in["share"].number(-1, 2);
        r.across = in["across_mm"].length();
    }
    r.growth = in["growth"].number(-4, 4);
    if (in.has("landmark")) r.landmark = in["landmark"].text();
    r.centre = in["centre"].one_of<Centre>(3, centre_key);
    return r;
}

/// What a loose decoration and a rule have in common.
template <class Design>
void read_design(const In& in, Design& d, bool of_rule) {
    d.name = in["name"].text();
    d.art = in["art"].text();
    const auto location = location_from_key(in["location"].text());
    if (!location) in["location"].fail("is not a print location that is known");
    d.location = *location;
    d.sizing = read_sizing(in["sizing"], of_rule);
    d.placing = read_placing(in["placing"], of_rule);
    if (in.has("meetings")) in["meetings"].each(20, [&](const In& e) { d.meetings.push_back({e["mark"].text(), e["landmark"].text()}); });
    if (in.has("apart_mm")) d.apart = in["apart_mm"].length(0);
}

DesignRule read_rule(const In& in) {
    DesignRule r;
    r.id = in["id"].text();
    read_design(in, r, true);
    in["bases"].each(60, [&](const In& e) {
        ClassBase b{read_class(e["class"]), e["width_mm"].length(1), e["offset_mm"].length(), e["share"].number(-1, 2),
                    e["across_mm"].length()};
        if (find_base(r, b.of) != nullptr) e["class"].fail("stands there twice");
        r.bases.push_back(b);
    });
    if (in.has("base_sizes"))
        in["base_sizes"].each(500, [&](const In& e) { r.base_sizes.push_back({e["blank"].text(), e["size"].text()}); });
    return r;
}

Decoration read_decoration(const In& in) {
    Decoration d;
    d.id = in["id"].text();
    d.run = {in["blank"].text(), in["colour"].text()};
    if (in.has("lot")) d.run.lot = in["lot"].text();
    if (in.has("job")) d.run.job = in["job"].text();
    if (in.has("rule")) d.rule = in["rule"].text();
    if (in.has("departs")) d.departs = in["departs"].flag();
    d.medium = in["medium"].text();
    d.press = in["press"].text();
    if (d.rule.empty() || d.departs) read_design(in, d, false);
    if (in.has("pins"))
        in["pins"].each(400, [&](const In& e) {
            SizePin pin{e["size"].text(), {}, {}, {}};
            if (e.has("width_mm")) pin.width = e["width_mm"].length(1);
            if (e.has("down_mm")) pin.down = e["down_mm"].length();
            if (e.has("across_mm")) pin.across = e["across_mm"].length();
            d.pins.push_back(pin);
        });
    if (in.has("spares")) d.spares = in["spares"].whole(0, 10000);
    if (in.has("making")) d.making = read_making(in["making"]);
    return d;
}

Art read_art(const In& in) {
    Art a;
    a.id = in["id"].text();
    a.name = in["name"].text();
    const auto kind = kind_from_key(in["kind"].text());
    if (!kind) in["kind"].fail("is not a kind of picture that is known");
    a.kind = *kind;
    if (in.has("hash") || !in.has("together")) a.hash = in["hash"].hash();
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
    if (in.has("clip")) {
        const In c = in["clip"];
        ArtClip clip;
        if (c.has("word")) clip.word = c["word"].text();
        if (clip.word.size() > 120) c["word"].fail("is too long");
        if (c.has("bold")) clip.bold = c["bold"].flag();
        if (c.has("blank")) clip.style = c["blank"].text();
        if (c.has("size")) clip.size = c["size"].text();
        if (c.has("face")) clip.face = c["face"].one_of<Face>(face_count, face_key);
        if (c.has("bleed_mm")) clip.bleed = c["bleed_mm"].length(0);
        a.clip = clip;
    }
    if (in.has("lettering")) a.lettering = read_lettering(in["lettering"]);
    if (in.has("word_picture")) a.word_picture = read_word_picture(in["word_picture"]);
    if (in.has("together")) a.together = read_together(in["together"]);
    if (in.has("mendings")) a.mendings = read_mendings(in["mendings"]);
    if (in.has("subject"))
        in["subject"].each(40, [&](const In& e) { a.subject.push_back({e["x"].number(-10, 1000), e["y"].number(-10, 1000)}); });
    return a;
}

Order read_order(const In& in);

Job read_job(const In& in) {
    Job j;
    j.id = in["id"].text();
    j.name = in["name"].text();
    if (in.has("customer")) j.customer = in["customer"].text();
    if (in.has("due")) j.due = in["due"].text();
    if (in.has("due_minutes")) j.due_at = in["due_minutes"].whole(0, 7 * 24 * 60);
    if (in.has("note")) j.note = in["note"].text();
    if (in.has("own")) {
        Order own = read_order(in["own"]);
        if (!own.jobs.empty()) in["own"].fail("is a gang itself");
        j.own = std::make_shared<const Order>(std::move(own));
    }
    if (in.has("brought"))
        for (const BroughtList& of : brought_lists)
            if (in["brought"].has(of.key))
                in["brought"][of.key].each(most<OrderLine>, [&](const In& e) {
                    std::vector<std::string> ids;
                    e.each(2, [&](const In& id) { ids.push_back(id.text()); });
                    if (ids.size() != 2) e.fail("is not two ids");
                    (j.*of.list).push_back({ids[0], ids[1]});
                });
    return j;
}

Order read_order(const In& in) {
    if (!in.at.is_object() || !in.has("format") || in["format"].text() != "orthema-order")
        throw Fault{"This is not an order file of this program."};
    if (in["version"].whole(1, 1000000) > order_format_version)
        throw Fault{"This order was saved by a newer version of the program: update, then open it again."};
    Order o;
    o.name = in["name"].text();
    if (in.has("job")) o.job = in["job"].text();
    if (in.has("customer")) o.customer = in["customer"].text();
    if (in.has("note")) o.note = in["note"].text();
    if (in.has("due")) o.due = in["due"].text();
    if (in.has("jobs"))
        in["jobs"].each(most<Job>, [&](const In& e) {
            o.jobs.push_back(read_job(e));
            for (std::size_t i = 0; i + 1 < o.jobs.size(); ++i)
                if (o.jobs.all()[i].id == o.jobs.all().back().id) e["id"].fail("stands there twice");
        });
    o.unit = in["unit"].one_of<Unit>(2, [](Unit u) { return u == Unit::inch ? "in" : "mm"; });
    if (in.has("hourly")) o.hourly = in["hourly"].number(0, 1e6);
    if (in.has("currency")) o.currency = in["currency"].text();
    o.paper = in["paper"].one_of<Paper>(2, [](Paper p) { return p == Paper::a4 ? "a4" : "letter"; });
    in["lines"].each(most<OrderLine>, [&](const In& e) {
        OrderLine l{e["blank"].text(), e["colour"].text(), e["size"].text(), e["quantity"].whole(0, 100000), {}};
        if (e.has("note")) l.note = e["note"].text();
        if (e.has("lot")) l.lot = e["lot"].text();
        if (e.has("ref")) l.ref = e["ref"].text();
        if (e.has("job")) l.job = e["job"].text();
        if (e.has("name")) l.name = e["name"].text();
        if (e.has("number")) l.number = e["number"].text();
        if (e.has("first_piece")) l.first = e["first_piece"].whole(0, 1000000);
        o.lines.push_back(std::move(l));
    });
    if (in.has("lots")) in["lots"].each(most<Lot>, [&](const In& e) { o.lots.push_back({e["id"].text(), e["name"].text()}); });
    in["art"].each(most<Art>, [&](const In& e) { o.art.push_back(read_art(e)); });
    if (in.has("rules"))
        in["rules"].each(most<DesignRule>, [&](const In& e) {
            o.rules.push_back(read_rule(e));
            for (std::size_t i = 0; i + 1 < o.rules.size(); ++i)
                if (o.rules[i].id == o.rules.back().id) e["id"].fail("stands there twice");
        });
    in["decorations"].each(most<Decoration>, [&](const In& e) {
        o.decorations.push_back(read_decoration(e));
        if (!o.decorations.back().rule.empty() && find_rule(o, o.decorations.back().rule) == nullptr)
            e["rule"].fail("names no rule of this order");
    });
    in["blanks"].each(most<BlankStyle>, [&](const In& e) { o.styles.push_back(read_style(e)); });
    in["media"].each(most<Medium>, [&](const In& e) { o.media.push_back(read_medium(e)); });
    in["presses"].each(most<Press>, [&](const In& e) { o.presses.push_back(read_press(e)); });
    if (in.has("methods")) in["methods"].each(most<Method>, [&](const In& e) { o.methods.push_back(read_method(e)); });
    if (in.has("trials")) in["trials"].each(most<Trial>, [&](const In& e) { o.trials.push_back(read_trial(e)); });
    if (in.has("corrections")) in["corrections"].each(most<Correction>, [&](const In& e) { o.corrections.push_back(read_correction(e)); });
    if (in.has("press_run")) o.press_run = read_press_run(in["press_run"]);
    if (in.has("kept_out"))
        in["kept_out"].each(most<KeptOut>, [&](const In& e) {
            o.kept_out.push_back({e["row"].whole(0, 100000000), e["text"].text(), e["reason"].text()});
        });
    if (in.has("photographs"))
        in["photographs"].each(most<KeptPhoto>, [&](const In& e) {
            o.photographs.push_back({e["blank"].text(), e["size"].text(), e["record"].text(), e["date"].text(), e["hash"].hash()});
        });
    if (in.has("reprints")) in["reprints"].each(most<Reprint>, [&](const In& e) { o.reprints.push_back(read_reprint(e)); });
    if (in.has("guide_setup")) o.guide_setup = read_guide_setup(in["guide_setup"]);
    if (in.has("pricing")) o.pricing = read_pricing(in["pricing"]);
    if (in.has("approval")) o.approval = read_approval(in["approval"]);
    if (in.has("jigs")) in["jigs"].each(most<Jig>, [&](const In& e) { o.jigs.push_back(read_jig(e)); });
    if (in.has("layouts")) in["layouts"].each(most<MediumLayout>, [&](const In& e) { o.layouts.push_back(read_layout(e)); });
    return followed(numbered(std::move(o)));
}

json sizing_json(const SizingRule& s, bool of_rule) {
    json j{{"school", school_key(s.school)},
           {"measure", measure_key(s.measure)},
           {"exponent", s.exponent},
           {"step_mm", s.step.mm()},
           {"price", s.price},
           {"band_count", s.band_count},
           {"band_starts", s.band_starts}};
    if (!of_rule) {
        j["base_size"] = s.base_size;
        j["base_width_mm"] = s.base_width.mm();
    }
    for (const SharedWidth& w : s.shared) j["shared"].push_back({{"first", w.first}, {"width_mm", w.width.mm()}});
    if (s.within > 0) j["within"] = s.within;
    if (s.past_platen) j["past_platen"] = true;
    return j;
}

json placing_json(const PlacingRule& p, bool of_rule) {
    json j{{"school", school_key(p.school)}, {"growth", p.growth}, {"centre", centre_key(p.centre)}};
    if (!of_rule) {
        j["offset_mm"] = p.offset.mm();
        j["share"] = p.share;
        j["across_mm"] = p.across.mm();
    }
    if (!p.landmark.empty()) j["landmark"] = p.landmark;
    return j;
}

template <class Design>
void write_design(json& j, const Design& d, bool of_rule) {
    j["name"] = d.name;
    j["art"] = d.art;
    j["location"] = location_key(d.location);
    j["sizing"] = sizing_json(d.sizing, of_rule);
    j["placing"] = placing_json(d.placing, of_rule);
    for (const Meeting& m : d.meetings) j["meetings"].push_back({{"mark", m.mark}, {"landmark", m.landmark}});
    j["apart_mm"] = d.apart.mm();
}

json to_json(const DesignRule& r) {
    json j{{"id", r.id}, {"bases", json::array()}};
    write_design(j, r, true);
    for (const ClassBase& b : r.bases)
        j["bases"].push_back({{"class", class_key(b.of)},
                              {"width_mm", b.width.mm()},
                              {"offset_mm", b.offset.mm()},
                              {"share", b.share},
                              {"across_mm", b.across.mm()}});
    for (const BlankBase& b : r.base_sizes) j["base_sizes"].push_back({{"blank", b.style}, {"size", b.size}});
    return j;
}

json to_json(const Decoration& d) {
    json j{{"id", d.id},       {"blank", d.run.style}, {"colour", d.run.colour}, {"medium", d.medium},
           {"press", d.press}, {"spares", d.spares},   {"pins", json::array()}};
    if (!d.run.lot.empty()) j["lot"] = d.run.lot;
    if (!d.run.job.empty()) j["job"] = d.run.job;
    if (!d.rule.empty()) j["rule"] = d.rule;
    if (d.departs) j["departs"] = true;
    if (d.rule.empty() || d.departs) write_design(j, d, false);
    for (const SizePin& p : d.pins) {
        json e{{"size", p.size}};
        if (p.width) e["width_mm"] = p.width->mm();
        if (p.down) e["down_mm"] = p.down->mm();
        if (p.across) e["across_mm"] = p.across->mm();
        j["pins"].push_back(e);
    }
    if (!(d.making == Making{})) j["making"] = to_json(d.making);
    return j;
}

json job_json(const Job& job) {
    json j{{"id", job.id}, {"name", job.name}, {"due", job.due}, {"due_minutes", job.due_at}};
    if (!job.customer.empty()) j["customer"] = job.customer;
    if (!job.note.empty()) j["note"] = job.note;
    if (job.own) j["own"] = to_json(*job.own);
    for (const auto& [key, list] : brought_lists)
        for (const Brought& b : job.*list) j["brought"][key].push_back({b.was, b.is});
    return j;
}

}  // namespace

json to_json(const Order& o) {
    json j{{"format", "orthema-order"},
           {"version", order_format_version},
           {"name", o.name},
           {"job", o.job},
           {"due", o.due},
           {"unit", o.unit == Unit::inch ? "in" : "mm"},
           {"paper", o.paper == Paper::a4 ? "a4" : "letter"}};
    if (!o.customer.empty()) j["customer"] = o.customer;
    if (!o.note.empty()) j["note"] = o.note;
    if (!o.currency.empty()) j["currency"] = o.currency;
    if (o.hourly > 0) j["hourly"] = o.hourly;
    for (const Job& one : o.jobs) j["jobs"].push_back(job_json(one));
    for (const char* list : {"lines", "art", "decorations", "blanks", "media", "presses", "methods", "jigs", "layouts"})
        j[list] = json::array();
    for (const OrderLine& l : o.lines) {
        json e{{"blank", l.style}, {"colour", l.colour}, {"size", l.size}, {"quantity", l.quantity}};
        if (!l.note.empty()) e["note"] = l.note;
        if (!l.lot.empty()) e["lot"] = l.lot;
        if (!l.ref.empty()) e["ref"] = l.ref;
        if (!l.job.empty()) e["job"] = l.job;
        if (!l.name.empty()) e["name"] = l.name;
        if (!l.number.empty()) e["number"] = l.number;
        if (l.first > 0) e["first_piece"] = l.first;
        j["lines"].push_back(e);
    }
    for (const Lot& l : o.lots) j["lots"].push_back({{"id", l.id}, {"name", l.name}});
    for (const Art& a : o.art) {
        json e{{"id", a.id}, {"name", a.name}, {"kind", kind_key(a.kind)}};
        if (!a.together || !a.hash.empty()) e["hash"] = a.hash;
        if (a.marked_centre) e["marked_centre"] = {a.marked_centre->x, a.marked_centre->y};
        for (const NamedMark& m : a.marks) e["marks"].push_back({{"name", m.name}, {"x", m.at.x}, {"y", m.at.y}});
        if (a.clip) {
            e["clip"] = {
                {"word", a.clip->word}, {"bold", a.clip->bold}, {"bleed_mm", a.clip->bleed.mm()}, {"face", face_key(a.clip->face)}};
            if (!a.clip->style.empty()) e["clip"]["blank"] = a.clip->style;
            if (!a.clip->size.empty()) e["clip"]["size"] = a.clip->size;
        }
        if (a.lettering) e["lettering"] = to_json(*a.lettering);
        if (a.word_picture) e["word_picture"] = to_json(*a.word_picture);
        if (a.together) e["together"] = to_json(*a.together);
        for (const Mending& m : a.mendings) e["mendings"].push_back(to_json(m));
        for (const Point& p : a.subject) e["subject"].push_back({{"x", p.x}, {"y", p.y}});
        j["art"].push_back(e);
    }
    for (const DesignRule& r : o.rules) j["rules"].push_back(to_json(r));
    for (const Decoration& d : o.decorations) j["decorations"].push_back(to_json(d));
    for (const BlankStyle& s : o.styles) j["blanks"].push_back(to_json(s));
    for (const Medium& m : o.media) j["media"].push_back(to_json(m));
    for (const Press& p : o.presses) j["presses"].push_back(to_json(p));
    for (const Method& m : o.methods) j["methods"].push_back(to_json(m));
    for (const Trial& t : o.trials) j["trials"].push_back(to_json(t));
    for (const Correction& c : o.corrections) j["corrections"].push_back(to_json(c));
    if (o.press_run != PressRun{}) j["press_run"] = to_json(o.press_run);
    for (const KeptOut& k : o.kept_out) j["kept_out"].push_back({{"row", k.row}, {"text", k.text}, {"reason", k.reason}});
    for (const KeptPhoto& p : o.photographs)
        j["photographs"].push_back({{"blank", p.style}, {"size", p.size}, {"record", p.record}, {"date", p.date}, {"hash", p.hash}});
    for (const Reprint& r : o.reprints) j["reprints"].push_back(to_json(r));
    if (o.guide_setup != GuideSetup{}) j["guide_setup"] = to_json(o.guide_setup);
    if (o.pricing != Pricing{}) j["pricing"] = to_json(o.pricing);
    if (o.approval != Approval{}) j["approval"] = to_json(o.approval);
    for (const Jig& g : o.jigs) j["jigs"].push_back(to_json(g));
    for (const MediumLayout& l : o.layouts) j["layouts"].push_back(to_json(l));
    return j;
}

Result<Order> order_from_json(const json& j) {
    return guarded([&] { return read_order({j, ""}); });
}
Result<json> parse_json(const std::string& text, const std::string& name) {
    // Deep nesting would overflow the parser's stack: no file of ours goes past a handful of levels.
    int depth = 0;
    bool quoted = false;
    std::size_t values = 0;  // a value takes up to a hundred times its letters
    constexpr std::size_t most_values = 6'000'000;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        if (quoted) {
            if (c == '\\')
                ++i;
            else if (c == '"')
                quoted = false;
        } else if (c == '"') {
            quoted = true;
        } else if (c == ',') {
            if (++values > most_values)
                return Error{"{name} is not usable: it holds more values than any order has.", {{"name", Term{name}}}};
        } else if (c == '[' || c == '{') {
            ++values;
            if (++depth > 64) return Error{"{name} is not usable: it is nested too deep.", {{"name", Term{name}}}};
        } else if (c == ']' || c == '}') {
            --depth;
        }
    }
    json j = json::parse(text, nullptr, false);
    if (j.is_discarded()) return Error{"{name} is not usable: it is cut short or not JSON.", {{"name", Term{name}}}};
    return j;
}

}  // namespace orthema
