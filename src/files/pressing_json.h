// Recipes, trials, how an order is pressed and how its guides are printed, as JSON: parts of the order's and the library's files.
#pragma once

#include "core/order/order.h"
#include "files/json_in.h"

namespace orthema {

RecipeStep read_step(const In& in);
json to_json(const RecipeStep& step);
FabricRule read_fabric_rule(const In& in);
json to_json(const FabricRule& rule);
Correction read_correction(const In& in);
json to_json(const Correction& correction);
Trial read_trial(const In& in);
json to_json(const Trial& trial);
PressRun read_press_run(const In& in);
json to_json(const PressRun& run);
Reprint read_reprint(const In& in);
json to_json(const Reprint& reprint);
Pricing read_pricing(const In& in);
json to_json(const Pricing& pricing);
Approval read_approval(const In& in);
json to_json(const Approval& approval);
GuideSetup read_guide_setup(const In& in);
json to_json(const GuideSetup& setup);

}  // namespace orthema
