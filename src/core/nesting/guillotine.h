// Trimmer layouts: boxes on sheets or a roll so that every cut can go from edge to edge. Structs in, structs out, like nest().
#pragma once

#include "core/nesting/nest.h"

namespace orthema {

struct GuillotineOptions {
    int stages = 0;  ///< at most so often a direction of cuts follows another; 0: freely
    NestOptions nest;
};

/// As nest(), for the boxes of the pieces: the gap is kept between boxes, and a cut parts them. Pre: nothing
/// is locked (lay_out.h takes sheets with locked copies out). Blocked areas cost the part of the sheet that is beside the largest free box.
/// Method: shelves by falling height for a layout at once, then annealing of slicing trees (Wong and Liu 1986) whose nodes
/// carry all their undominated sizes (Stockmeyer 1983), so that turns need no search. Deterministic for a seed and rounds.
Result<NestSolution> nest_guillotine(const NestProblem& problem, const GuillotineOptions& options, const Task& task = {},
                                     const std::function<void(const NestSolution&)>& better = {});

}  // namespace orthema
