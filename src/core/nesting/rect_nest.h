// Nesting of nothing but upright rectangles: on the strip packer, by threads of different seeds.
#pragma once

#include <functional>
#include <vector>

#include "core/nesting/grid_packer.h"

namespace orthema {

/// Plain rectangles at quarter turns, with nothing in their way.
bool all_rectangles(const NestProblem& problem);

/// Hands each shorter layout to `offer`, from any of the options' threads, until `stop` or the rounds are over. False, and nothing done,
/// where one fits across the strip in neither way that it may lie. Pre: all_rectangles, an endless strip or one bin.
bool nest_rectangles(const NestProblem& problem, const std::vector<Copy>& copies, const NestOptions& options,
                     const std::function<bool()>& stop, const std::function<void(std::vector<NestPlacement>)>& offer);

}  // namespace orthema
