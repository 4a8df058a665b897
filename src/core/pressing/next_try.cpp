#include "core/pressing/next_try.h"

#include <cmath>

#include "core/base/units.h"

namespace orthema {

namespace {

constexpr double heat_by = 5;         ///< °C
constexpr double time_share = 0.2;    ///< of a press's seconds
constexpr double least_seconds = 1;   ///< that a change is worth
constexpr double least_celsius = 80;  ///< below it nothing melts or goes over

}  // namespace

const RecipeStep* main_step(const std::vector<RecipeStep>& steps) {
    const RecipeStep* best = nullptr;
    for (const RecipeStep& s : steps)
        if (applies(s) && (best == nullptr || s.seconds >= best->seconds)) best = &s;
    return best;
}

std::vector<NextTry> next_tries(const std::vector<RecipeStep>& recipe, TrialResult came_out, double most_celsius, bool fahrenheit) {
    std::vector<NextTry> out;
    const RecipeStep* main = main_step(recipe);
    if (main == nullptr) return out;
    const RecipeStep& was = *main;
    const auto at = static_cast<std::size_t>(main - recipe.data());
    const Term name{step_name(was.kind)};
    const auto add = [&](std::size_t step, RecipeStep s, Words words) {
        NextTry t{recipe, std::move(words)};
        t.steps[step] = std::move(s);
        if (t.steps != recipe) out.push_back(std::move(t));
    };
    const auto heat = [&](double by) {
        RecipeStep s = was;
        s.celsius += by;
        if (s.celsius < least_celsius || (most_celsius > 0 && s.celsius > most_celsius)) return;
        add(at, s,
            {"{step} at {now}, not {before}",
             {{"step", name}, {"now", heat_words(s.celsius, fahrenheit)}, {"before", heat_words(was.celsius, fahrenheit)}}});
    };
    const auto time = [&](double way) {
        RecipeStep s = was;
        s.seconds = std::round(was.seconds + way * std::max(least_seconds, was.seconds * time_share));
        if (s.seconds < 1) return;
        add(at, s, {"{step} {now} s, not {before} s", {{"step", name}, {"now", Number{s.seconds}}, {"before", Number{was.seconds, 1}}}});
    };
    const auto pressure = [&](int way) {
        const int p = static_cast<int>(was.pressure) + way;
        if (p < 0 || p > static_cast<int>(Pressure::heavy)) return;
        RecipeStep s = was;
        s.pressure = static_cast<Pressure>(p);
        add(at, s, {"{now} pressure, not {before}", {{"now", pressure_name(s.pressure)}, {"before", pressure_name(was.pressure)}}});
    };
    const auto cooler_peel = [&] {
        for (std::size_t i = recipe.size(); i-- > at;)
            if (recipe[i].kind == StepKind::peel && recipe[i].peel != Peel::cool) {
                RecipeStep s = recipe[i];
                s.peel = s.peel == Peel::hot ? Peel::warm : Peel::cool;
                s.seconds = std::max(s.seconds, s.peel == Peel::warm ? 8.0 : 30.0);
                add(i, s, {"peel {now}, not {before}", {{"now", peel_name(s.peel)}, {"before", peel_name(recipe[i].peel)}}});
                return;
            }
    };
    switch (came_out) {
    case TrialResult::scorched:
        heat(-heat_by);
        time(-1);
        break;
    case TrialResult::ghosted:  // the sheet moved while the ink was still going over
        time(-1);
        heat(-heat_by);
        pressure(1);
        break;
    case TrialResult::not_released:
        time(1);
        cooler_peel();
        heat(heat_by);
        break;
    case TrialResult::lifted:
        pressure(1);
        time(1);
        heat(heat_by);
        break;
    case TrialResult::released_clean:
    case TrialResult::crooked:
    case TrialResult::to_try: break;
    }
    if (out.size() > 3) out.resize(3);
    return out;
}

}  // namespace orthema
