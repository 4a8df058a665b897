#include "core/pressing/next_try.h"

#include <cmath>
#include <optional>
#include <string_view>

#include "core/base/units.h"

namespace orthema {

namespace {

constexpr double heat_by = 5;         ///< °C
constexpr double time_share = 0.2;    ///< of a press's seconds
constexpr double least_seconds = 1;   ///< that a change is worth
constexpr double least_celsius = 80;  ///< below it nothing melts or goes over

constexpr const char* of_heat = "{step} at {now}, not {before}";
constexpr const char* of_time = "{step} {now} s, not {before} s";
constexpr const char* of_pressure = "{now} pressure, not {before}";
constexpr const char* of_peel = "peel {now}, not {before}";

/// What stands at a saying's places; nothing where it is another's.
std::optional<Arguments> places_in(std::string_view saying, std::string_view kept) {
    Arguments out;
    while (!saying.empty()) {
        if (saying.front() != '{') {
            if (kept.empty() || kept.front() != saying.front()) return std::nullopt;
            saying.remove_prefix(1);
            kept.remove_prefix(1);
            continue;
        }
        const std::size_t close = saying.find('}'), next = saying.find('{', close);
        const std::string_view name = saying.substr(1, close - 1),
                               after = saying.substr(close + 1, next == saying.npos ? next : next - close - 1);
        const std::size_t end = after.empty() ? kept.size() : kept.find(after);
        if (end == kept.npos || end == 0) return std::nullopt;
        out.emplace_back(std::string(name), Term{std::string(kept.substr(0, end))});
        saying.remove_prefix(close + 1);
        kept.remove_prefix(end);
    }
    return kept.empty() ? std::optional(out) : std::nullopt;
}

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
            {of_heat, {{"step", name}, {"now", heat_words(s.celsius, fahrenheit)}, {"before", heat_words(was.celsius, fahrenheit)}}});
    };
    const auto time = [&](double way) {
        RecipeStep s = was;
        s.seconds = std::round(was.seconds + way * std::max(least_seconds, was.seconds * time_share));
        if (s.seconds < 1) return;
        add(at, s, {of_time, {{"step", name}, {"now", Number{s.seconds}}, {"before", Number{was.seconds, 1}}}});
    };
    const auto pressure = [&](int way) {
        const int p = static_cast<int>(was.pressure) + way;
        if (p < 0 || p > static_cast<int>(Pressure::heavy)) return;
        RecipeStep s = was;
        s.pressure = static_cast<Pressure>(p);
        add(at, s, {of_pressure, {{"now", pressure_name(s.pressure)}, {"before", pressure_name(was.pressure)}}});
    };
    const auto cooler_peel = [&] {
        for (std::size_t i = recipe.size(); i-- > at;)
            if (recipe[i].kind == StepKind::peel && recipe[i].peel != Peel::cool) {
                RecipeStep s = recipe[i];
                s.peel = s.peel == Peel::hot ? Peel::warm : Peel::cool;
                s.seconds = std::max(s.seconds, s.peel == Peel::warm ? 8.0 : 30.0);
                add(i, s, {of_peel, {{"now", peel_name(s.peel)}, {"before", peel_name(recipe[i].peel)}}});
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

Argument words_of_try(const std::string& kept) {
    for (const char* saying : {of_heat, of_time, of_pressure, of_peel})
        if (auto places = places_in(saying, kept)) return Phrases{{{saying, std::move(*places)}}};
    return kept;
}

}  // namespace orthema
