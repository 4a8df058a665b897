// What becomes of a lesson that is taken: the order in which it acts, and how the pieces land after it.
#include <algorithm>
#include <cmath>
#include <set>

#include "core/order/recipes.h"
#include "core/records/lessons.h"
#include "core/records/place.h"

namespace orthema {

Order with_correction(Order order, const Correction& c, const std::string& today) {
    Correction taken = c;
    taken.since = today;
    bool acts = false;
    const auto style = [&]() -> BlankStyle* {
        for (BlankStyle& s : order.styles)
            if (s.id == c.style) return &s;
        return nullptr;
    };
    switch (c.kind) {
    case CorrectionKind::loading_marks:
    case CorrectionKind::photo_scale:
    case CorrectionKind::hand_times: acts = true; break;
    case CorrectionKind::neck_drop:
    case CorrectionKind::circumference:
        if (BlankStyle* s = find_style(order, c.style) == nullptr ? nullptr : style();
            s != nullptr && (c.batch.empty() || c.batch == s->batch)) {
            const Measure m = c.kind == CorrectionKind::neck_drop ? Measure::front_neck_drop : Measure::circumference;
            for (const std::string& size : s->sizes) {
                if (!c.size.empty() && c.size != size) continue;
                const auto chart = s->chart.find(size);
                if (chart == s->chart.end()) continue;
                const auto figure = chart->second.find(m);
                if (figure == chart->second.end()) continue;
                const double next = figure->second.value.mm() + c.by;
                if (next <= 0) continue;
                BlankStyle changed = with_readings(*s, size, m, {Length::from_mm(next)}, today.substr(0, 10));
                *s = std::move(changed);
                acts = true;
            }
        }
        break;
    case CorrectionKind::layer_growth:
        for (Decoration& d : order.decorations)
            if (d.id == c.design)
                for (std::size_t i = 1; i < d.making.layers.size(); ++i) {
                    d.making.layers[i].grow = d.making.layers[i].grow + Length::from_mm(c.by);
                    acts = true;
                }
        break;
    case CorrectionKind::shrink:
        for (Decoration& d : order.decorations)  // a figure of its own goes before the method's
            if (const Method* m = method_of(order, d); m != nullptr && m->id == c.method && d.making.shrink > 0)
                d.making.shrink = std::clamp(d.making.shrink + c.by, 0.0, 30.0);
        if (find_method(order, c.method) != nullptr)
            for (Method& m : order.methods)
                if (m.id == c.method) {
                    m.shrink = std::clamp(m.shrink + c.by, 0.0, 30.0);
                    acts = true;
                }
        break;
    case CorrectionKind::recipe:
        for (const Decoration& d : order.decorations) {
            const Method* method = method_of(order, d);
            if (acts || method == nullptr || method->id != c.method || d.run.style != c.style || d.press != c.press) continue;
            const ChosenRecipe recipe = recipe_for(order, d);
            for (int result = 0; result < trial_result_count && !acts; ++result)
                for (const NextTry& n :
                     next_tries(recipe.steps, static_cast<TrialResult>(result), recipe.most_celsius, order.press_run.fahrenheit))
                    if (!acts && worded(n.words, Unit::mm) == c.words)
                        if (auto trial = trial_of(order, d, n.steps, TrialResult::to_try)) {
                            order.trials.push_back(std::move(*trial));
                            acts = true;
                        }
        }
        break;
    case CorrectionKind::spares:
        if (Decoration* d = find_decoration(order, c.design)) {
            d->spares = static_cast<int>(c.by);
            acts = true;
        }
        break;
    case CorrectionKind::look: acts = true; break;
    }
    if (acts) order.corrections.push_back(std::move(taken));
    return order;
}

Followed followed(const Lesson& lesson, const std::vector<PressRecord>& all) {
    const Correction& c = lesson.correction;
    Followed out;
    if (lesson.state != LessonState::taken || (c.kind != CorrectionKind::loading_marks && c.kind != CorrectionKind::neck_drop)) return out;
    const std::set<std::string> rests(c.records.begin(), c.records.end());
    std::vector<double> aside[2], down[2];
    for (const PressRecord& r : all) {
        const bool before = rests.contains(r.id);
        if (!r.landing || (!before && r.at <= lesson.at)) continue;
        if ((!c.press.empty() && r.press != c.press) || (!c.platen.empty() && r.platen != c.platen) ||
            (!c.hands.empty() && r.hands != c.hands) || (!c.style.empty() && r.style != c.style) || (!c.size.empty() && r.size != c.size))
            continue;
        const std::size_t after = before ? 0 : 1;
        if (r.landing->aside) aside[after].push_back(*r.landing->aside);
        if (r.landing->down) down[after].push_back(*r.landing->down);
    }
    out.pieces = static_cast<int>(std::max(aside[1].size(), down[1].size()));
    out.before = std::hypot(mean_of(aside[0]), mean_of(down[0]));
    out.after = std::hypot(mean_of(aside[1]), mean_of(down[1]));
    out.enough = out.pieces >= least_pieces / 2;
    out.better = out.enough && out.after < out.before;
    return out;
}

int spares_for(int wanted, int spoiled, int seen) {
    int spares = 0;
    while (spares < 10 * wanted + 10 && at_most_next(spares, wanted + spares, spoiled, seen) < 0.95) ++spares;
    return spares;
}

}  // namespace orthema
