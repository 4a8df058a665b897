// Which recipe a decoration is pressed by on its blank and press, and what becomes of it for a stack of layers and for
// parts pressed one after the other.
#pragma once

#include <string>
#include <vector>

#include "core/order/order.h"

namespace orthema {

struct ChosenRecipe {
    std::vector<RecipeStep> steps;
    std::string from;         ///< "your trial of 2 May on the large press", "usual values for direct to film"
    bool tried = false;       ///< a clean trial stands behind it
    double most_celsius = 0;  ///< that the cloth bears; 0: no limit known
    std::string because;
};

/// The last clean trial of the method on this blank and press, or what is to be tried there; else the method's recipe, for an
/// oven its own, as its fabric rule has it. No steps where the medium's method is not known.
ChosenRecipe recipe_for(const Order& order, const Decoration& decoration);

/// Whether the decoration's press is an oven: nothing presses there.
bool in_oven(const Order& order, const Decoration& decoration);

/// Whether a trial is of the decoration's method on its blank and press.
bool is_trial_of(const Trial& trial, const Order& order, const Decoration& decoration);
/// A trial of it, without date and note; nothing where its method is not known.
std::optional<Trial> trial_of(const Order& order, const Decoration& decoration, std::vector<RecipeStep> steps, TrialResult result);

/// What one layer of a stack asks for, bottom first; seconds.
struct LayerNeed {
    double least = 0;  ///< its own press may be this short
    double need = 0;   ///< summed dwell until it holds
    double limit = 0;  ///< summed dwell that it bears; 0: any
};
/// How long each layer's own press takes so that every layer gets what it needs and none more than it bears, with the
/// least total; nothing where there is no way. Exact: a layer's summed dwell is its own and all later presses, so going
/// from the top down the least choice for each is the least for all below it too.
std::optional<std::vector<double>> tack_times(const std::vector<LayerNeed>& bottom_first);

/// One step as it is done on one blank: which layer or part it puts on.
struct PlannedStep {
    RecipeStep step;
    int layer = -1;  ///< from the bottom; -1: none
    int part = -1;   ///< -1: the whole
};
/// The recipe for so many layers and parts: the first tack serves for each lower layer, the last press for the top;
/// parts are laid and pressed one after the other.
std::vector<PlannedStep> planned_steps(const std::vector<RecipeStep>& recipe, int layers, int parts, double bears_seconds);

/// Whether the layers are married beforehand and go on as one.
bool marries(const Method& method);

/// The recipe as it is done for this many layers in one part.
std::vector<RecipeStep> steps_done(const Order& order, const Decoration& decoration);

}  // namespace orthema
