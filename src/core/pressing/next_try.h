// What to try next where a trial did not come out: one figure of one step at a time, so that what helped is known.
#pragma once

#include <string>
#include <vector>

#include "core/base/words.h"
#include "core/shop/recipe.h"

namespace orthema {

struct NextTry {
    std::vector<RecipeStep> steps;  ///< the recipe with that one figure changed
    Words words;                    ///< "press at 145 °C, not 150 °C"
};

/// The step that does most: the longest that puts a layer on; null where none does.
const RecipeStep* main_step(const std::vector<RecipeStep>& steps);

/// At most three, the mildest first: less heat or time where it scorched or ghosted, more where it was not released or lifted,
/// never past what the cloth bears (°C; 0: no limit known). None for what no recipe mends.
std::vector<NextTry> next_tries(const std::vector<RecipeStep>& recipe, TrialResult came_out, double most_celsius, bool fahrenheit = false);

/// A try's words that were kept as they are in English, for a reader of any language; what is none of them stays as it is.
Argument words_of_try(const std::string& kept);

}  // namespace orthema
