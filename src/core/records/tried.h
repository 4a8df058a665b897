// Tried: what came out at which heat and time, and what to try next.
#pragma once

#include <string>
#include <vector>

#include "core/pressing/next_try.h"
#include "core/records/press_record.h"
#include "core/records/statistics.h"

namespace orthema {

/// One figure of a recipe and how it came out: all records pressed at this heat, time and pressure of the step that does most.
struct Tried {
    double celsius = 0, seconds = 0;
    Pressure pressure = Pressure::medium;
    int tries = 0, clean = 0;
    Interval share;                  ///< of clean ones, 95 %
    Outcome mostly = Outcome::good;  ///< the commonest fault, where there was one
    std::vector<std::size_t> records;
};

/// The step of what was done that does most: the longest that puts a layer on; null: none.
const ActDone* main_act(const PressRecord& record);
/// Whether the recipe has to answer for it; off its place, crooked and upside down is the hand's.
bool of_the_recipe(Outcome o);

/// By heat, then time. Heat is grouped by 2 °C of what was asked, time by the second.
std::vector<Tried> tried_of(const std::vector<PressRecord>& all, const std::vector<std::size_t>& which);

/// The trial result that a fault asks to be mended as; released_clean where no recipe mends it.
TrialResult as_trial(Outcome o);

/// One step from `recipe` in one figure that was not tried yet, or came out well where it was; with its reason. Nothing where the
/// records ask for no change: no fault beyond what chance brings, 5 % say.
struct Proposal {
    NextTry next;
    Outcome because = Outcome::good;
    int tries = 0, failed = 0;
};
std::vector<Proposal> try_next(const std::vector<RecipeStep>& recipe, const std::vector<PressRecord>& all,
                               const std::vector<std::size_t>& which, double most_celsius, bool fahrenheit = false);

/// Clean ones of all that the recipe answers for.
struct CleanShare {
    int tries = 0, clean = 0;
    Interval share{0, 1};
};
CleanShare clean_share(const std::vector<PressRecord>& all, const std::vector<std::size_t>& which);

}  // namespace orthema
