#include "core/order/sense.h"

#include <algorithm>
#include <cmath>

#include "core/base/dates.h"

namespace orthema {

namespace {

/// The first step that cannot be meant.
const RecipeStep* absurd(const std::vector<RecipeStep>& steps) {
    const auto it = std::find_if(steps.begin(), steps.end(), [](const RecipeStep& s) {
        return s.celsius > hottest || (s.seconds > longest_step && s.kind != StepKind::wait && s.kind != StepKind::peel);
    });
    return it == steps.end() ? nullptr : &*it;
}

/// Minutes of the day's pressing, from its begin to when it is due, that no break takes.
int free_minutes(const PressRun& run) {
    std::vector<PressBreak> breaks = run.breaks;
    std::sort(breaks.begin(), breaks.end(), [](const PressBreak& a, const PressBreak& b) { return a.from < b.from; });
    int free = 0, at = run.start;
    for (const PressBreak& b : breaks) {
        free += std::max(0, std::min(b.from, run.due) - at);
        at = std::max(at, b.to);
    }
    return free + std::max(0, run.due - at);
}

}  // namespace

Findings sense_findings(const Order& order) {
    Findings out;
    const auto add = [&](const char* code, Subject about, Arguments args) {
        out.push_back(finding(code, std::move(about), std::move(args)));
    };
    if (!order.due.empty() && !day_number(order.due)) add("due-no-date", {}, {{"due", order.due}});
    if (order.press_run.due > order.press_run.start && !order.press_run.breaks.empty() && free_minutes(order.press_run) == 0)
        add("breaks-all-day", {}, {});
    for (const Medium& m : order.media) {
        if (!m.method.empty() && find_method(order, m.method) == nullptr)
            add("method-unknown", {}, {{"medium", m.name}, {"method", m.method}});
        const double narrow = m.shape == MediumShape::roll ? m.width.mm() : std::min(m.width.mm(), m.length.mm());
        if (narrow < least_medium) add("medium-absurd", {}, {{"medium", m.name}, {"wide", Length::from_mm(narrow)}});
    }
    const auto step = [&](const std::string& whose, const std::vector<RecipeStep>& steps) {
        if (const RecipeStep* s = absurd(steps))
            add("step-absurd", {},
                {{"whose", whose},
                 {"step", step_words(*s, order.press_run.fahrenheit)},
                 {"hottest", heat_words(hottest, order.press_run.fahrenheit)}});
    };
    for (const Method& m : order.methods) {
        step(m.name, m.recipe);
        step(m.name, m.oven_recipe);
    }
    for (const Trial& t : order.trials) {
        const Method* m = find_method(order, t.method);
        step(m == nullptr ? t.method : m->name, t.steps);
    }
    for (const Decoration& d : order.decorations) {
        Subject about;
        about.decoration = d.id;
        const int ordered = garments_in(order, d.run);
        if (d.spares > 20 && d.spares > ordered) add("spares-many", about, {{"design", d.name}, {"n", d.spares}, {"ordered", ordered}});
        if (!d.making.jig.empty() && find_jig(order, d.making.jig) == nullptr) add("jig-unknown", about, {{"design", d.name}});
        const BlankStyle* style = find_style(order, d.run.style);
        if (style != nullptr && !d.sizing.base_size.empty() && size_index(*style, d.sizing.base_size) < 0)
            add("base-size-unknown", about, {{"design", d.name}, {"size", d.sizing.base_size}, {"blank", style->name}});
    }
    return out;
}

}  // namespace orthema
