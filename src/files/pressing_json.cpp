#include "files/pressing_json.h"

namespace orthema {

namespace {

std::string short_text(const In& in, std::size_t most = 200) {
    std::string s = in.text();
    if (s.size() > most) in.fail("is too long");
    return s;
}

Pressure read_pressure(const In& in) { return in.one_of<Pressure>(4, pressure_name); }

}  // namespace

RecipeStep read_step(const In& in) {
    RecipeStep s;
    if (in.has("step"))
        s.kind = in["step"].one_of<StepKind>(step_kind_count, step_name);
    else  // version 3 and older: free words
        s = step_from_words(short_text(in["what"]));
    if (in.has("celsius")) s.celsius = in["celsius"].number(0, 400);
    if (in.has("seconds")) s.seconds = in["seconds"].number(0, 36000);
    if (in.has("least_seconds")) s.least_seconds = in["least_seconds"].number(0, 36000);
    if (in.has("pressure")) s.pressure = read_pressure(in["pressure"]);
    if (in.has("gauge_bar")) s.gauge_bar = in["gauge_bar"].number(0, 100);
    if (in.has("peel")) s.peel = in["peel"].one_of<Peel>(3, peel_name);
    if (in.has("cover")) s.cover = short_text(in["cover"]);
    if (in.has("base")) s.base = short_text(in["base"]);
    if (in.has("pad")) s.pad = short_text(in["pad"]);
    if (in.has("protect_other")) s.protect_other = in["protect_other"].flag();
    if (in.has("how")) s.how = short_text(in["how"]);
    return s;
}

json to_json(const RecipeStep& s) {
    json j{{"step", step_name(s.kind)}, {"celsius", s.celsius}, {"seconds", s.seconds}, {"pressure", pressure_name(s.pressure)}};
    if (s.least_seconds > 0) j["least_seconds"] = s.least_seconds;
    if (s.gauge_bar > 0) j["gauge_bar"] = s.gauge_bar;
    if (s.kind == StepKind::peel) j["peel"] = peel_name(s.peel);
    if (!s.cover.empty()) j["cover"] = s.cover;
    if (!s.base.empty()) j["base"] = s.base;
    if (!s.pad.empty()) j["pad"] = s.pad;
    if (s.protect_other) j["protect_other"] = true;
    if (!s.how.empty()) j["how"] = s.how;
    return j;
}

FabricRule read_fabric_rule(const In& in) {
    FabricRule r;
    r.fabric = short_text(in["fabric"]);
    if (in.has("darker_than")) r.darker_than = in["darker_than"].number(0, 100);
    if (in.has("celsius")) r.celsius = in["celsius"].number(0, 400);
    if (in.has("longer")) r.longer = in["longer"].number(0.05, 20);
    if (in.has("pressure")) r.pressure = read_pressure(in["pressure"]);
    if (in.has("most_celsius")) r.most_celsius = in["most_celsius"].number(0, 400);
    if (in.has("because")) r.because = short_text(in["because"]);
    return r;
}

json to_json(const FabricRule& r) {
    json j{{"fabric", r.fabric}, {"darker_than", r.darker_than},   {"celsius", r.celsius},
           {"longer", r.longer}, {"most_celsius", r.most_celsius}, {"because", r.because}};
    if (r.pressure) j["pressure"] = pressure_name(*r.pressure);
    return j;
}

Trial read_trial(const In& in) {
    Trial t;
    t.method = in["method"].text();
    t.style = in["blank"].text();
    t.press = in["press"].text();
    in["steps"].each(40, [&](const In& e) { t.steps.push_back(read_step(e)); });
    t.result = in["result"].one_of<TrialResult>(trial_result_count, trial_result_name);
    if (in.has("date")) t.date = short_text(in["date"], 40);
    if (in.has("note")) t.note = short_text(in["note"], 1000);
    return t;
}

json to_json(const Trial& t) {
    json j{{"method", t.method}, {"blank", t.style}, {"press", t.press}, {"steps", json::array()}, {"result", trial_result_name(t.result)}};
    for (const RecipeStep& s : t.steps) j["steps"].push_back(to_json(s));
    if (!t.date.empty()) j["date"] = t.date;
    if (!t.note.empty()) j["note"] = t.note;
    return j;
}

namespace {

/// What a correction says in words and in figures, by the names that files have for it.
constexpr std::pair<const char*, std::string Correction::*> correction_words[] = {
    {"press", &Correction::press}, {"platen", &Correction::platen}, {"hands", &Correction::hands},   {"blank", &Correction::style},
    {"size", &Correction::size},   {"method", &Correction::method}, {"design", &Correction::design}, {"batch", &Correction::batch},
    {"words", &Correction::words}, {"since", &Correction::since}};
constexpr std::pair<const char*, double Correction::*> correction_figures[] = {{"aside_mm", &Correction::aside},
                                                                               {"down_mm", &Correction::down},
                                                                               {"by", &Correction::by},
                                                                               {"low", &Correction::low},
                                                                               {"high", &Correction::high}};

}  // namespace

Correction read_correction(const In& in) {
    Correction c;
    c.id = in["id"].text();
    c.kind = in["kind"].one_of<CorrectionKind>(correction_kind_count, correction_key);
    for (const auto& [key, part] : correction_words)
        if (in.has(key)) c.*part = in[key].text();
    for (const auto& [key, part] : correction_figures)
        if (in.has(key)) c.*part = in[key].number(-10000, 10000);
    if (in.has("pieces")) c.pieces = in["pieces"].whole(0, 100000000);
    if (in.has("records")) in["records"].each(most<std::string>, [&](const In& e) { c.records.push_back(e.text()); });
    return c;
}

json to_json(const Correction& c) {
    json j{{"id", c.id}, {"kind", correction_key(c.kind)}};
    for (const auto& [key, part] : correction_words)
        if (!(c.*part).empty()) j[key] = c.*part;
    for (const auto& [key, part] : correction_figures)
        if (c.*part != 0) j[key] = c.*part;
    if (c.pieces != 0) j["pieces"] = c.pieces;
    if (!c.records.empty()) j["records"] = c.records;
    return j;
}

PressRun read_press_run(const In& in) {
    PressRun r;
    constexpr int week = 7 * 24 * 60;
    if (in.has("start_minute")) r.start = in["start_minute"].whole(0, week);
    if (in.has("due_minute")) r.due = in["due_minute"].whole(0, week);
    if (in.has("hands")) r.hands = in["hands"].whole(1, 40);
    if (in.has("share_presses")) r.share_presses = in["share_presses"].flag();
    if (in.has("trials")) r.trials = in["trials"].flag();
    if (in.has("fahrenheit")) r.fahrenheit = in["fahrenheit"].flag();
    if (in.has("makes_film")) r.makes_film = in["makes_film"].flag();
    if (in.has("breaks"))
        in["breaks"].each(40, [&](const In& e) {
            const PressBreak b{e["from_minute"].whole(0, week), e["to_minute"].whole(0, week)};
            if (b.to <= b.from) e.fail("ends before it begins");
            r.breaks.push_back(b);
        });
    if (in.has("pins"))
        in["pins"].each(most<LoadPin>, [&](const In& e) {
            LoadPin p{e["load"].text(), {}, -1};
            if (e.has("press")) p.press = e["press"].text();
            if (e.has("start_seconds")) p.start = e["start_seconds"].number(0, 60.0 * week);
            r.pins.push_back(p);
        });
    if (in.has("order")) in["order"].each(1000, [&](const In& e) { r.order.push_back(e.text()); });
    if (in.has("accepted")) {
        const In& a = in["accepted"];
        r.accepted.revision = a["revision"].text();
        a["turns"].each(most<PlanTurn>, [&](const In& e) {
            r.accepted.turns.push_back({e["stage"].text(), e.has("press") ? e["press"].text() : std::string(),
                                        e.has("ahead_seconds") ? e["ahead_seconds"].number(-1e6, 1e6) : 0});
        });
        if (a.has("woven")) r.accepted.woven = a["woven"].flag();
        if (a.has("fill")) r.accepted.fill = a["fill"].number(0, 1000);
        if (a.has("keep"))
            a["keep"].each(most<PlanKeep>, [&](const In& e) {
                r.accepted.keep.push_back({e["press"].text(), e["seconds"].number(0, 1e6)});
            });
    }
    return r;
}

json to_json(const PressRun& r) {
    json j{{"start_minute", r.start},          {"due_minute", r.due}, {"hands", r.hands},
           {"share_presses", r.share_presses}, {"trials", r.trials},  {"fahrenheit", r.fahrenheit}};
    if (r.makes_film) j["makes_film"] = true;
    for (const PressBreak& b : r.breaks) j["breaks"].push_back({{"from_minute", b.from}, {"to_minute", b.to}});
    for (const LoadPin& p : r.pins) {
        json e{{"load", p.load}};
        if (!p.press.empty()) e["press"] = p.press;
        if (p.start >= 0) e["start_seconds"] = p.start;
        j["pins"].push_back(e);
    }
    if (!r.order.empty()) j["order"] = r.order;
    if (r.accepted != AcceptedPlan{}) {
        json turns = json::array();
        for (const PlanTurn& t : r.accepted.turns) {
            turns.push_back({{"stage", t.stage}});
            if (!t.press.empty()) turns.back()["press"] = t.press;
            if (t.ahead != 0) turns.back()["ahead_seconds"] = t.ahead;
        }
        j["accepted"] = {{"revision", r.accepted.revision}, {"turns", std::move(turns)}};
        if (r.accepted.woven) j["accepted"]["woven"] = true;
        if (r.accepted.fill != 0) j["accepted"]["fill"] = r.accepted.fill;
        for (const PlanKeep& k : r.accepted.keep) j["accepted"]["keep"].push_back({{"press", k.press}, {"seconds", k.seconds}});
    }
    return j;
}

Reprint read_reprint(const In& in) {
    Reprint r{in["decoration"].text(), in["size"].text(), in["copies"].whole(1, 100000), {}};
    if (in.has("cause")) r.cause = short_text(in["cause"]);
    if (in.has("word")) r.word = in["word"].text();
    return r;
}

json to_json(const Reprint& r) {
    json j{{"decoration", r.decoration}, {"size", r.size}, {"copies", r.copies}, {"cause", r.cause}};
    if (!r.word.empty()) j["word"] = r.word;
    return j;
}

GuideSetup read_guide_setup(const In& in) {
    GuideSetup g;
    if (in.has("measured_mm")) g.measured = Length::from_mm(in["measured_mm"].number(80, 120));
    if (in.has("windows")) g.windows = in["windows"].flag();
    if (in.has("short_templates")) g.short_templates = in["short_templates"].flag();
    if (in.has("large_paper")) g.large_paper = in["large_paper"].flag();
    if (in.has("label_codes")) g.label_codes = in["label_codes"].flag();
    if (in.has("printed"))
        in["printed"].each(most<PrintedGuide>, [&](const In& e) {
            g.printed.push_back({e["decoration"].text(), e["size"].text(), short_text(e["revision"], 20)});
        });
    return g;
}

json to_json(const GuideSetup& g) {
    json j{{"measured_mm", g.measured.mm()}, {"windows", g.windows}, {"label_codes", g.label_codes}};
    if (g.short_templates) j["short_templates"] = true;
    if (g.large_paper) j["large_paper"] = true;
    for (const PrintedGuide& p : g.printed)
        j["printed"].push_back({{"decoration", p.decoration}, {"size", p.size}, {"revision", p.revision}});
    return j;
}

Pricing read_pricing(const In& in) {
    Pricing p;
    if (in.has("by_steps")) p.by_steps = in["by_steps"].flag();
    if (in.has("margin_per_cent")) p.margin = in["margin_per_cent"].number(0, 95);
    if (in.has("on_blank_per_cent")) p.on_blank = in["on_blank_per_cent"].number(-100, 1000);
    if (in.has("set_up")) p.set_up = in["set_up"].number(0, 1e6);
    if (in.has("tax_per_cent")) p.tax = in["tax_per_cent"].number(0, 100);
    if (in.has("promise")) p.promise = in["promise"].text();
    if (in.has("prints"))
        in["prints"].each(location_count, [&](const In& e) {
            const auto location = location_from_key(e["location"].text());
            if (!location) e["location"].fail("is not known");
            p.prints.push_back({*location, e["price"].number(0, 1e6)});
        });
    if (in.has("steps"))
        in["steps"].each(50, [&](const In& e) { p.steps.push_back({e["from"].whole(1, 1000000), e["off_per_cent"].number(0, 100)}); });
    return p;
}

json to_json(const Pricing& p) {
    json j{{"by_steps", p.by_steps},
           {"margin_per_cent", p.margin},
           {"on_blank_per_cent", p.on_blank},
           {"set_up", p.set_up},
           {"tax_per_cent", p.tax}};
    if (!p.promise.empty()) j["promise"] = p.promise;
    for (const LocationPrice& l : p.prints) j["prints"].push_back({{"location", location_key(l.location)}, {"price", l.price}});
    for (const QuantityStep& s : p.steps) j["steps"].push_back({{"from", s.from}, {"off_per_cent", s.off}});
    return j;
}

Approval read_approval(const In& in) {
    Approval a;
    a.by = short_text(in["by"]);
    a.at = short_text(in["at"], 40);
    if (in.has("lines")) a.lines = short_text(in["lines"], 20);
    if (in.has("designs"))
        in["designs"].each(most<PrintedGuide>, [&](const In& e) {
            a.designs.push_back({e["decoration"].text(), e["size"].text(), short_text(e["revision"], 20)});
        });
    return a;
}

json to_json(const Approval& a) {
    json j{{"by", a.by}, {"at", a.at}, {"lines", a.lines}};
    for (const PrintedGuide& p : a.designs)
        j["designs"].push_back({{"decoration", p.decoration}, {"size", p.size}, {"revision", p.revision}});
    return j;
}

}  // namespace orthema
