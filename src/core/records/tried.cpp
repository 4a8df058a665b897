#include "core/records/tried.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace orthema {

namespace {

constexpr double borne = 0.05;  ///< share of faults that nobody changes a recipe for

bool puts_on(StepKind k) {
    RecipeStep s;
    s.kind = k;
    return applies(s);
}

}  // namespace

const ActDone* main_act(const PressRecord& r) {
    const ActDone* best = nullptr;
    for (const ActDone& a : r.acts)
        if (puts_on(a.kind) && (best == nullptr || a.seconds >= best->seconds)) best = &a;
    return best;
}

bool of_the_recipe(Outcome o) { return o == Outcome::good || as_trial(o) != TrialResult::released_clean; }

TrialResult as_trial(Outcome o) {
    switch (o) {
    case Outcome::not_released: return TrialResult::not_released;
    case Outcome::lifted: return TrialResult::lifted;
    case Outcome::ghosted: return TrialResult::ghosted;
    case Outcome::scorched:
    case Outcome::dye_migrated: return TrialResult::scorched;  // both by too much heat
    case Outcome::cracked: return TrialResult::lifted;         // both by too little of it
    default: return TrialResult::released_clean;
    }
}

std::vector<Tried> tried_of(const std::vector<PressRecord>& all, const std::vector<std::size_t>& which) {
    std::map<std::array<int, 3>, Tried> at;
    std::map<std::array<int, 3>, std::array<int, outcome_count>> faults;
    for (const std::size_t i : which) {
        const PressRecord& r = all[i];
        const ActDone* act = main_act(r);
        if (act == nullptr || !of_the_recipe(r.outcome)) continue;
        const std::array<int, 3> key{static_cast<int>(std::lround(act->asked / 2)), static_cast<int>(std::lround(act->seconds)),
                                     static_cast<int>(act->pressure)};
        Tried& t = at[key];
        if (t.tries == 0) {
            t.celsius = act->asked;
            t.seconds = std::round(act->seconds);
            t.pressure = act->pressure;
        }
        ++t.tries;
        t.records.push_back(i);
        if (r.outcome == Outcome::good)
            ++t.clean;
        else
            ++faults[key][static_cast<std::size_t>(r.outcome)];
    }
    std::vector<Tried> out;
    for (auto& [key, t] : at) {
        t.share = share_interval(t.clean, t.tries);
        if (const auto f = faults.find(key); f != faults.end())
            t.mostly = static_cast<Outcome>(std::max_element(f->second.begin(), f->second.end()) - f->second.begin());
        out.push_back(std::move(t));
    }
    return out;
}

std::vector<Proposal> try_next(const std::vector<RecipeStep>& recipe, const std::vector<PressRecord>& all,
                               const std::vector<std::size_t>& which, double most_celsius, bool fahrenheit) {
    const std::vector<Tried> tried = tried_of(all, which);
    const auto of = [&](const std::vector<RecipeStep>& steps) -> const Tried* {
        const RecipeStep* main = main_step(steps);
        if (main == nullptr) return nullptr;
        for (const Tried& t : tried)
            if (std::abs(t.celsius - main->celsius) < 1.5 && std::abs(t.seconds - main->seconds) < 1 && t.pressure == main->pressure)
                return &t;
        return nullptr;
    };
    std::vector<Proposal> out;
    const Tried* now = of(recipe);
    if (now == nullptr || now->mostly == Outcome::good) return out;
    // one case is an anecdote: the faults must be more than what would be borne
    if (share_interval(now->tries - now->clean, now->tries, 0.9).low < borne) return out;
    for (NextTry& next : next_tries(recipe, as_trial(now->mostly), most_celsius, fahrenheit)) {
        const Tried* there = of(next.steps);
        // a change of peel is the same point: it is told apart by nothing here
        if (there != nullptr && there != now && there->clean * now->tries <= now->clean * there->tries) continue;
        out.push_back({std::move(next), now->mostly, now->tries, now->tries - now->clean});
    }
    return out;
}

CleanShare clean_share(const std::vector<PressRecord>& all, const std::vector<std::size_t>& which) {
    CleanShare out;
    for (const std::size_t i : which) {
        if (!of_the_recipe(all[i].outcome)) continue;
        ++out.tries;
        out.clean += all[i].outcome == Outcome::good ? 1 : 0;
    }
    out.share = share_interval(out.clean, out.tries);
    return out;
}

}  // namespace orthema
