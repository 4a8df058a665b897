// A first layout in patterns: kinds of which there are many lie in rows of their own, what is left is filled in between and after.
#pragma once

#include <functional>
#include <vector>

#include "core/nesting/grid_packer.h"

namespace orthema {

/// Fewer copies of one kind are not worth rows of their own.
constexpr int least_patterned = 12;

/// Whether any kind comes often enough, and nothing lies in the way.
bool can_pattern(const NestProblem& problem);

/// Every copy of `order` (largest first); none where it was stopped, something fits nowhere, or no kind's rows fill more than the share
/// `than` of their length: loose rows waste what other kinds would fill. `cell` mm, of the grid that the others are filled in by. Whether
/// it is sound is for the exact check to say. Once `enough` says so no more kinds get rows.
std::vector<NestPlacement> patterned(const NestProblem& problem, const std::vector<Copy>& order, double than, double cell,
                                     const std::function<bool()>& enough, const Task& task);

}  // namespace orthema
