// Settling a large layout part by part: the runs of a roll each by itself, a long strip in stretches. What is gained at the end of
// each run is filled from the last one, so that the last is not the only one that gets shorter.
#pragma once

#include <functional>

#include "core/nesting/nest.h"

namespace orthema {

/// Goes on from a whole and sound layout and hands each that it finds to `offer`, which judges it. Uses all the time, or the rounds,
/// of the options. The same for any number of threads where rounds are counted.
void settle_parts(const NestProblem& problem, std::vector<NestPlacement> placements, const NestOptions& options, const Task& task,
                  const std::function<bool(const std::vector<NestPlacement>&)>& offer);

/// Whether a layout is better settled so than as one.
bool has_parts(const NestProblem& problem, const std::vector<NestPlacement>& placements, int bins);

}  // namespace orthema
