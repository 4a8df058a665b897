#include "core/order/recipes.h"

#include <algorithm>

#include "core/artwork/art_facts.h"

namespace orthema {

bool in_oven(const Order& order, const Decoration& dec) {
    const Press* press = find_press(order, dec.press);
    return press != nullptr && press->kind == PressKind::oven;
}

bool is_trial_of(const Trial& trial, const Order& order, const Decoration& dec) {
    const Method* method = method_of(order, dec);
    return method != nullptr && trial.method == method->id && trial.style == dec.run.style && trial.press == dec.press;
}

std::optional<Trial> trial_of(const Order& order, const Decoration& dec, std::vector<RecipeStep> steps, TrialResult result) {
    const Method* method = method_of(order, dec);
    if (method == nullptr) return std::nullopt;
    return Trial{method->id, dec.run.style, dec.press, std::move(steps), result, {}, {}};
}

namespace {

ChosenRecipe recipe_of_method(const Order& order, const Decoration& dec) {
    ChosenRecipe out;
    const Method* method = method_of(order, dec);
    if (method == nullptr) return out;
    const BlankStyle* style = find_style(order, dec.run.style);
    const std::string fabric = style == nullptr ? "" : style->fabric;
    const double lightness = style == nullptr ? 100 : lab_lightness(cloth_of(order, dec));
    const FabricRule* rule = nullptr;
    for (const FabricRule& r : method->fabric_rules)
        if (rule == nullptr && fabric.find(r.fabric) != std::string::npos && lightness <= r.darker_than) rule = &r;
    if (rule != nullptr) {
        out.most_celsius = rule->most_celsius;
        out.because = rule->because;
    }
    const Trial* best = nullptr;
    const Trial* clean = nullptr;
    for (const Trial& t : order.trials) {
        if (!is_trial_of(t, order, dec)) continue;
        if (t.result == TrialResult::released_clean || t.result == TrialResult::to_try)
            best = &t;
        else if (best != nullptr && best->result == TrialResult::to_try && t.result != TrialResult::crooked && t.steps == best->steps)
            best = clean;  // it was tried, and did not come out
        if (t.result == TrialResult::released_clean) clean = &t;
    }
    if (best != nullptr) {
        out.steps = best->steps;
        out.tried = best->result == TrialResult::released_clean;
        out.from = phrase(out.tried ? "recipe-from-trial" : "recipe-from-figures", order.unit,
                          {{"day", part_if(!best->date.empty(), "taken-day", {{"day", best->date}})}});
        return out;
    }
    const bool oven = in_oven(order, dec) && !method->oven_recipe.empty();
    out.steps = oven ? method->oven_recipe : method->recipe;
    out.from = phrase(oven ? "recipe-from-oven" : "recipe-from-usual", order.unit, {{"method", method->name}});
    if (oven) {
        for (RecipeStep& s : out.steps)
            if (heats(s) && out.most_celsius > 0) s.celsius = std::min(s.celsius, out.most_celsius);
        return out;
    }
    if (rule == nullptr) return out;
    out.from = phrase("recipe-from-fabric", order.unit, {{"method", method->name}, {"fabric", rule->fabric}});
    for (RecipeStep& s : out.steps) {
        if (!heats(s)) continue;
        if (rule->celsius > 0) s.celsius = rule->celsius;
        s.seconds *= rule->longer;
        if (rule->pressure) s.pressure = *rule->pressure;
    }
    return out;
}

}  // namespace

ChosenRecipe recipe_for(const Order& order, const Decoration& dec) {
    ChosenRecipe out = recipe_of_method(order, dec);
    const BlankStyle* style = find_style(order, dec.run.style);
    const auto preshrunk = [](const RecipeStep& s) { return s.kind == StepKind::pre_shrink; };
    if (style == nullptr || !style->shrinks || std::any_of(out.steps.begin(), out.steps.end(), preshrunk)) return out;
    // what makes it shrink is the heat that it will be pressed with
    RecipeStep first;
    first.kind = StepKind::pre_shrink;
    for (const RecipeStep& s : out.steps)
        if (applies(s) && s.celsius * s.seconds > first.celsius * first.seconds) {
            first.celsius = s.celsius;
            first.seconds = s.seconds;
        }
    if (first.celsius <= 0) return out;
    first.pressure = Pressure::light;
    first.how = "bare and flat; let it cool";
    out.steps.insert(out.steps.begin(), first);
    return out;
}

std::optional<std::vector<double>> tack_times(const std::vector<LayerNeed>& layers) {
    std::vector<double> out(layers.size());
    double above = 0;  // what the presses of the layers on top give it
    for (std::size_t i = layers.size(); i-- > 0;) {
        const LayerNeed& l = layers[i];
        out[i] = std::max(l.least, l.need - above);
        above += out[i];
        if (l.limit > 0 && above > l.limit + 1e-9) return std::nullopt;
    }
    return out;
}

std::vector<PlannedStep> planned_steps(const std::vector<RecipeStep>& recipe, int layers, int parts, double bears) {
    // the steps that put a layer on; with fewer of them than layers the first is repeated, with more a tack is left out,
    // and a press that no layer is left for presses what lies there once more
    int tacks = 0, putting = 0;
    for (const RecipeStep& s : recipe) {
        putting += applies(s) ? 1 : 0;
        tacks += s.kind == StepKind::tack ? 1 : 0;
    }
    const int extra = putting == 0 ? 0 : layers - putting, surplus = std::min(std::max(0, -extra), tacks);
    std::vector<PlannedStep> once;
    int layer = 0, skipped = 0;
    for (std::size_t i = 0; i < recipe.size(); ++i) {
        if (recipe[i].kind == StepKind::tack && skipped < surplus) {  // with what belongs to it
            ++skipped;
            while (i + 1 < recipe.size() && (recipe[i + 1].kind == StepKind::peel || recipe[i + 1].kind == StepKind::wait)) ++i;
            continue;
        }
        if (!applies(recipe[i]) || layer >= layers) {
            once.push_back({recipe[i], -1, -1});
            continue;
        }
        std::size_t end = i + 1;
        while (end < recipe.size() && (recipe[end].kind == StepKind::peel || recipe[end].kind == StepKind::wait)) ++end;
        const bool carriers_come_off = end > i + 1;
        for (int k = layer == 0 ? std::max(0, extra) : 0; k >= 0; --k) {
            once.push_back({recipe[i], layer++, -1});
            if (carriers_come_off)
                for (std::size_t j = i + 1; j < end; ++j) once.push_back({recipe[j], -1, -1});
            else if (layer < layers)  // a carrier never stays under the next layer
                once.push_back({RecipeStep{StepKind::peel, 0, 5, 0, Pressure::medium, 0, Peel::warm, {}, {}, {}, false, {}}, -1, -1});
        }
        i = end - 1;
    }
    // tacks as short as hold, where the last press gives the rest
    std::vector<LayerNeed> needs;
    std::vector<std::size_t> where;
    for (std::size_t i = 0; i < once.size(); ++i)
        if (once[i].layer >= 0) {
            const RecipeStep& s = once[i].step;
            const bool tack = s.kind == StepKind::tack;
            needs.push_back({tack && s.least_seconds > 0 ? s.least_seconds : s.seconds, s.seconds, bears});
            where.push_back(i);
        }
    if (const auto times = tack_times(needs))
        for (std::size_t k = 0; k < where.size(); ++k)
            if (once[where[k]].step.kind == StepKind::tack) once[where[k]].step.seconds = (*times)[k];
    if (parts <= 1) return once;
    std::vector<PlannedStep> out;
    for (int part = 0; part < parts; ++part)
        for (const PlannedStep& s : once) {
            if (part > 0 && (prepares(s.step) || s.step.kind == StepKind::marry)) continue;
            // set together once all lie
            if (part + 1 < parts && (s.step.kind == StepKind::second_press || s.step.kind == StepKind::turn)) continue;
            PlannedStep mine = s;
            if (s.layer >= 0 || s.step.kind == StepKind::peel) mine.part = part;
            out.push_back(mine);
        }
    return out;
}

bool marries(const Method& method) {
    return std::any_of(method.recipe.begin(), method.recipe.end(), [](const RecipeStep& s) { return s.kind == StepKind::marry; });
}

std::vector<RecipeStep> steps_done(const Order& order, const Decoration& dec) {
    const Method* method = method_of(order, dec);
    std::vector<RecipeStep> recipe = recipe_for(order, dec).steps;
    if (method == nullptr) return recipe;
    const int layers = marries(*method) ? 1 : std::max(1, static_cast<int>(dec.making.layers.size()));
    std::vector<RecipeStep> out;
    for (const PlannedStep& p : planned_steps(recipe, layers, 1, method->bears_seconds)) out.push_back(p.step);
    return out;
}

}  // namespace orthema
