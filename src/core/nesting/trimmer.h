// The cut list of a trimmer: from where pieces lie to the cuts that part them, each from edge to edge of what is cut.
// Worked out from the layout alone, so that it also holds for what was moved by hand. Strip frame, mm.
#pragma once

#include <vector>

#include "core/base/result.h"
#include "core/nesting/nest.h"

namespace orthema {

/// A part of the sheet: what is cut, or what stays.
struct TrimPart {
    Rect box;
    int piece = -1;  ///< index of the box that it holds, when it holds one alone and is done; -1: cut on, or waste
    bool waste = false;
};

struct TrimCut {
    int part = 0;           ///< index into TrimPlan::parts; the first is the sheet
    bool across = true;     ///< the blade lies across the feed; else along it
    double at = 0;          ///< where, in the sheet's frame
    double fence = 0;       ///< from the part's near edge: what the fence is set to
    int near = 0, far = 0;  ///< the parts that it leaves
    int stage = 0;          ///< from 1: how often the direction has changed; a trim of one piece's cell counts as none
};

struct TrimPlan {
    std::vector<TrimPart> parts;
    std::vector<TrimCut> cuts;
    int stages = 0;
};

/// Cuts that part the boxes, each with `clearance` left around it, in the order in which they are made: parallel cuts of
/// one part one after the other, then each slab for itself. Fewest stages; fails with a sentence where no line from edge to edge
/// parts some of the boxes.
Result<TrimPlan> trim_plan(const std::vector<Rect>& boxes, const Rect& sheet, double clearance);

/// Whether the boxes of a layout can be parted so, in at most `stages` stages (0: any number), on every bin.
bool trimmable(const NestProblem& problem, const std::vector<NestPlacement>& placements, int stages);

}  // namespace orthema
