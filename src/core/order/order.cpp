#include "core/order/order.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <string_view>
#include <unordered_map>

#include "core/blanks/cloth_colours.h"
#include "core/blanks/measuring.h"
#include "core/order/gang.h"
#include "core/order/roster.h"
#include "core/order/sense.h"

namespace orthema {

namespace {

template <class List>
auto* by_id(List& list, const std::string& id) {
    const auto at = std::find_if(list.begin(), list.end(), [&](const auto& item) { return item.id == id; });
    return at == list.end() ? nullptr : &*at;
}

template <class List>
auto* pin_in(List& pins, const std::string& size) {
    const auto at = std::find_if(pins.begin(), pins.end(), [&](const SizePin& p) { return p.size == size; });
    return at == pins.end() ? nullptr : &*at;
}

}  // namespace

const BlankStyle* find_style(const Order& order, const std::string& id) { return by_id(order.styles, id); }
const Art* find_art(const Order& order, const std::string& id) {
    const Art* own = by_id(order.art, id);  // of a word the lettering that it is of
    return own != nullptr ? own : by_id(order.art, art_of_word(id));
}
const Medium* find_medium(const Order& order, const std::string& id) { return by_id(order.media, id); }
const Press* find_press(const Order& order, const std::string& id) { return by_id(order.presses, id); }
const Method* find_method(const Order& order, const std::string& id) { return by_id(order.methods, id); }
const Jig* find_jig(const Order& order, const std::string& id) { return by_id(order.jigs, id); }
const MediumLayout* find_layout(const Order& order, const std::string& medium) {
    const auto at = std::find_if(order.layouts.begin(), order.layouts.end(), [&](const MediumLayout& l) { return l.medium == medium; });
    return at == order.layouts.end() ? nullptr : &*at;
}
const Lot* find_lot(const Order& order, const std::string& id) { return by_id(order.lots, id); }
const DesignRule* find_rule(const Order& order, const std::string& id) { return by_id(order.rules, id); }
DesignRule* find_rule(Order& order, const std::string& id) { return by_id(order.rules, id); }
const Job* find_job(const Order& order, const std::string& id) { return by_id(order.jobs, id); }
RunKey run_of(const OrderLine& line) { return {line.style, line.colour, line.lot, line.job}; }
const Decoration* find_decoration(const Order& order, const std::string& id) { return by_id(order.decorations, id); }
Decoration* find_decoration(Order& order, const std::string& id) { return by_id(order.decorations, id); }

const Method* method_of(const Order& order, const Decoration& decoration) {
    const Medium* medium = find_medium(order, decoration.medium);
    return medium == nullptr ? nullptr : find_method(order, medium->method);
}

Subject subject_of(const std::string& stage, const Decoration& decoration, const std::string& size) {
    Subject about;
    about.stage = stage;
    about.decoration = decoration.id;
    about.size = size;
    about.style = decoration.run.style;
    about.colour = decoration.run.colour;
    about.lot = decoration.run.lot;
    about.job = decoration.run.job;
    return about;
}
SizePin* find_pin(Decoration& d, const std::string& size) { return pin_in(d.pins, size); }
const SizePin* find_pin(const Decoration& d, const std::string& size) { return pin_in(d.pins, size); }

std::vector<RunKey> runs_of(const Order& order) {
    std::vector<RunKey> runs;
    for (const OrderLine& line : order.lines) {
        const RunKey key = run_of(line);
        if (std::find(runs.begin(), runs.end(), key) == runs.end()) runs.push_back(key);
    }
    return runs;
}

std::vector<SizeCount> counts_of(const Order& order, const RunKey& run) {
    std::vector<SizeCount> counts;
    const BlankStyle* style = find_style(order, run.style);
    if (style == nullptr) return counts;
    std::unordered_map<std::string_view, int> ordered;
    for (const OrderLine& line : order.lines)
        if (run_of(line) == run) ordered[line.size] += line.quantity;
    for (const std::string& size : style->sizes)
        if (const auto at = ordered.find(size); at != ordered.end() && at->second > 0) counts.push_back({size, at->second});
    return counts;
}

int garments_in(const Order& order) {
    int total = 0;
    for (const OrderLine& line : order.lines) total += line.quantity;
    return total;
}

int garments_in(const Order& order, const RunKey& run) {
    int total = 0;
    for (const SizeCount& c : counts_of(order, run)) total += c.quantity;
    return total;
}

std::string run_name(const Order& order, const RunKey& run) {
    const BlankStyle* style = find_style(order, run.style);
    std::string name = (style != nullptr ? style->name : run.style) + (run.colour.empty() ? "" : ", " + run.colour);
    if (!run.lot.empty()) {
        const Lot* lot = find_lot(order, run.lot);
        name += (run.colour.empty() ? ", " : " · ") + (lot != nullptr ? lot->name : run.lot);
    }
    if (run.job.empty()) return name;
    const Job* job = find_job(order, run.job);
    return name + " · " + (job != nullptr ? job->name : run.job);
}

Length across_on(const Decoration& decoration, const std::string& size) {
    const SizePin* pin = find_pin(decoration, size);
    return decoration.placing.across + (pin != nullptr ? pin->across.value_or(Length{}) : Length{});
}

Family family_of(const Order& order, const RunKey& run) {
    const BlankStyle* style = find_style(order, run.style);
    return style == nullptr ? Family::adult_tee : style->family;
}

std::optional<Colour> told_colour(const Order& order, const RunKey& run) {
    const BlankStyle* style = find_style(order, run.style);
    return style == nullptr ? usual_cloth(run.colour) : told_colour(*style, run.colour);
}

Colour run_colour(const Order& order, const RunKey& run) { return told_colour(order, run).value_or(Colour{0.89, 0.88, 0.86, 1}); }

Colour cloth_of(const Order& order, const RunKey& run, const Side& side) {
    if (!side.inside_out) return run_colour(order, run);
    if (const BlankStyle* style = find_style(order, run.style))
        if (const BlankColour* own = find_colour(*style, run.colour); own != nullptr && own->inside) return *own->inside;
    return {0.95, 0.95, 0.94, 1};
}

Colour cloth_of(const Order& order, const Decoration& d) { return cloth_of(order, d.run, side_of(d.location)); }

std::string fresh_id(const std::string& stem, const std::vector<std::string>& taken) {
    std::string base;
    for (const char c : stem) {
        if (std::isalnum(static_cast<unsigned char>(c)) != 0)
            base += static_cast<char>(std::tolower(c));
        else if (!base.empty() && base.back() != '-')
            base += '-';
    }
    while (!base.empty() && base.back() == '-') base.pop_back();
    if (base.empty()) base = "item";
    std::string id = base;
    for (int n = 2; std::find(taken.begin(), taken.end(), id) != taken.end(); ++n) id = base + "-" + std::to_string(n);
    return id;
}

Decoration new_decoration(const Order& order, const RunKey& run, Location location, const Art& art) {
    Decoration d;
    d.name = art.name;
    d.id = fresh_id(art.name + " " + run.style + " " + location_key(location) + (run.lot.empty() ? "" : " " + run.lot), order.decorations);
    d.art = art.id;
    d.run = run;
    d.location = location;
    if (!order.media.empty()) d.medium = order.media.front().id;
    const Face face = location_face(location);
    // a press made for such a face before one that merely takes it
    for (const Press& p : order.presses) {
        if (!takes(p.kind, face)) continue;
        const Press* have = find_press(order, d.press);
        if (have == nullptr || (have->kind == PressKind::flat && p.kind != PressKind::flat)) d.press = p.id;
    }
    const BlankStyle* style = find_style(order, run.style);
    if (style != nullptr) d.sizing.base_size = usual_base_size(*style);
    if (style == nullptr || !style->chart.contains(d.sizing.base_size)) return d;
    d.sizing.within = usual_within;
    d.sizing.measure = main_measure(style->family);
    const Panel panel = panel_of(*style, d.sizing.base_size, face);
    const bool inches = order.unit == Unit::inch;
    if (inches) d.sizing.step = Length::from_inches(1.0 / 8);
    if (panel.width < 200)  // a step meant for tees is coarse on a tag or cap
        d.sizing.step = inches ? Length::from_inches(1.0 / 16) : Length::from_mm(1);
    const double step = d.sizing.step.mm();
    d.sizing.base_width = Length::from_mm(std::max(step, std::floor(panel.width * usual_width_share(location) / step) * step));
    d = with_usual_place(d, panel, family_group(style->family), usual_school(location));
    d.placing.growth = 0.5;
    if (inches) d.placing.offset = Length::from_inches(std::round(d.placing.offset.mm() / 25.4 * 8) / 8);
    return d;
}

Decoration with_usual_place(const Decoration& decoration, const Panel& panel, AgeGroup group, PlacingSchool school) {
    Decoration d = decoration;
    d.placing.school = school;
    if (find_landmark(panel, d.placing.landmark) == nullptr) d.placing.landmark = usual_landmark(d.location, panel);
    if (school == PlacingSchool::body_fraction)
        d.placing.share = usual_offset(d.location, school, group, panel);
    else
        d.placing.offset = Length::from_mm(std::round(usual_offset(d.location, school, group, panel)));
    return d;
}

namespace {

void chart_findings(const Order& order, Findings& out) {
    std::set<std::string> used;
    for (const OrderLine& line : order.lines) used.insert(line.style);
    for (const BlankStyle& style : order.styles) {
        if (!used.contains(style.id)) continue;
        Subject about;
        about.style = style.id;
        if (const auto fault = style_fault(style)) {
            out.push_back(finding("blank-figures", about, {{"fault", fault->said()}}));
            continue;
        }
        std::set<std::string> ordered, strange;
        for (const RunKey& run : runs_of(order)) {
            if (run.style != style.id) continue;
            for (const SizeCount& c : counts_of(order, run)) ordered.insert(c.size);
            if (run.colour.empty() || find_colour(style, run.colour) != nullptr || !strange.insert(run.colour).second) continue;
            out.push_back(finding(usual_cloth(run.colour) ? "colour-usual" : "colour-unknown", about,
                                  {{"blank", style.name}, {"colour", run.colour}}));
        }
        for (const std::string& size : style.sizes)
            for (const auto& [measure, figure] : style.chart.at(size)) {
                if (of_other_batch(style, figure) && ordered.contains(size)) {
                    about.size = size;
                    out.push_back(finding("other-batch", about,
                                          {{"blank", style.name},
                                           {"size", size},
                                           {"measure", measure_name(measure)},
                                           {"was", figure.batch},
                                           {"now", style.batch}}));
                }
                if (figure.source != Source::measured || !figure.published) continue;
                const Length off = figure.value - *figure.published;
                if (std::abs(off.mm()) <= style.tolerance.mm()) continue;
                about.size = size;
                out.push_back(finding("measured-differs", about,
                                      {{"blank", style.name},
                                       {"size", size},
                                       {"measure", measure_name(measure)},
                                       {"measured", figure.value},
                                       {"published", *figure.published}}));
            }
        for (const DoubtfulFigure& d : doubtful_figures(style)) out.push_back(doubt_finding(style, d));
        if (style.shrinks) {
            int left = 0;
            Subject where;
            where.style = style.id;
            for (const std::string& size : ordered)
                if (const auto row = style.chart.find(size); row != style.chart.end())
                    for (const Measure m : {main_measure(style.family), length_measure(style.family)})
                        if (const auto f = row->second.find(m); f != row->second.end() && !holds_when_pressed(style, f->second)) {
                            if (left++ == 0) where.size = size;
                        }
            if (left > 0) out.push_back(finding("measure-pressed", where, {{"blank", style.name}, {"n", left}}));
        }
        // A design is sized from the smallest garment that it goes on: that one is worth a tape.
        std::set<std::string> said;
        for (const RunKey& run : runs_of(order)) {
            if (run.style != style.id) continue;
            const auto counts = counts_of(order, run);
            if (counts.empty() || !said.insert(run.colour + "/" + counts.front().size).second) continue;  // once for all its lots
            const auto& chart = style.chart.at(counts.front().size);
            const auto key = chart.find(main_measure(style.family));
            if (key == chart.end() || key->second.source != Source::published) continue;
            about.size = counts.front().size;
            about.colour = run.colour;
            out.push_back(finding("smallest-unmeasured", about, {{"run", run_name(order, run)}, {"size", counts.front().size}}));
        }
    }
}

}  // namespace

Findings order_findings(const Order& order) {
    Findings out;
    const auto add = [&](const char* code, Subject about, Arguments args = {}) {
        out.push_back(finding(code, std::move(about), std::move(args)));
    };
    if (order.lines.empty()) add("order-empty", {});
    for (const OrderLine& line : order.lines) {
        Subject about;
        about.style = line.style;
        about.colour = line.colour;
        about.size = line.size;
        const BlankStyle* style = find_style(order, line.style);
        if (style == nullptr)
            add("line-blank-unknown", about, {{"blank", line.style}});
        else if (size_index(*style, line.size) < 0)
            add("line-size-unknown", about, {{"blank", style->name}, {"size", line.size}});
        if (line.quantity <= 0) add("line-quantity", about);
    }
    if (!order.kept_out.empty())
        add("rows-kept-out", {},
            {{"n", static_cast<int>(order.kept_out.size())},
             {"text", order.kept_out.front().text},
             {"why", order.kept_out.front().reason}});
    std::set<std::string> used_art;
    for (const Decoration& d : order.decorations) {
        used_art.insert(d.art);
        Subject about;
        about.decoration = d.id;
        if (find_art(order, d.art) == nullptr) add("decoration-art", about, {{"design", d.name}});
        if (find_medium(order, d.medium) == nullptr) add("decoration-medium", about, {{"design", d.name}});
        if (counts_of(order, d.run).empty()) add("decoration-run", about, {{"design", d.name}, {"run", run_name(order, d.run)}});
    }
    for (const Art& a : order.art) {
        Subject about;
        about.art = a.id;
        if (a.together) {
            used_art.insert(a.together->ground);
            for (const LaidOver& over : a.together->over) used_art.insert(over.picture);
            if (a.together->ground.empty() && !a.together->plain && a.together->over.empty())
                add("together-empty", about, {{"art", a.name}});
        }
        if (!a.word_picture) continue;
        int empty = 0;
        for (const WordPlace& p : a.word_picture->places) {
            for (const std::string* id : {&p.outline, &p.first.picture, &p.second.picture}) used_art.insert(*id);
            empty += (p.first.picture.empty() ? 1 : 0) + (p.shared && p.second.picture.empty() ? 1 : 0);
        }
        if (empty > 0) add("word-place-empty", about, {{"art", a.name}, {"n", empty}});
    }
    for (const Art& a : order.art)
        if (!used_art.contains(a.id)) {
            Subject about;
            about.art = a.id;
            add("art-unused", about, {{"design", a.name}});
        }
    // a garment that was spoiled is asked for once, however many designs were on it
    std::map<std::pair<RunKey, std::string>, std::map<std::string, int>> spoiled;
    for (const Reprint& r : order.reprints)
        if (const Decoration* d = find_decoration(order, r.decoration); d != nullptr) spoiled[{d->run, r.size}][r.decoration] += r.copies;
    for (const auto& [which, by_design] : spoiled) {
        Subject about;
        about.style = which.first.style;
        about.colour = which.first.colour;
        about.lot = which.first.lot;
        about.job = which.first.job;
        about.size = which.second;
        int n = 0;
        for (const auto& [design, copies] : by_design) n = std::max(n, copies);
        add("blank-again", about, {{"n", n}, {"run", run_name(order, which.first)}, {"size", which.second}});
    }
    chart_findings(order, out);
    append(out, sense_findings(order));
    append(out, gang_findings(order));
    append(out, roster_findings(order));
    return out;
}

}  // namespace orthema
