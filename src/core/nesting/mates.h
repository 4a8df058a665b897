// Mates: pieces whose edges fit each other, as parts do that were cut from one another, or the same shape laid against
// itself. Found once, offered to a search as places worth a look; whether a place is free is for others to say.
#pragma once

#include <vector>

#include "core/nesting/cast.h"

namespace orthema {

/// Where a piece at `turn` lies against another of `other` at `other_turn`: its middle from the other's, mm.
struct MatePlace {
    int turn = 0, other = 0, other_turn = 0;
    float dx = 0, dy = 0;
    float edge_x = 0, edge_y = 0;  ///< the same with the true outlines edge on edge: the casts overlap there by what they are grown
    float apart = 0;               ///< mm that the casts had to go apart
    float shared = 0;              ///< of the shorter outline, the part along which they lie edge on edge
};

/// By kind. `outlines[kind]` is the true outline of `casts[kind]`, which has it at each turn; edges fit where one is the
/// other's reverse to some micrometres. The casts of a place do not overlap. At most `most` places for each turn of a kind, those
/// that share most.
std::vector<std::vector<MatePlace>> mates_of(const std::vector<Polygon>& outlines, const std::vector<std::vector<Cast>>& casts,
                                             std::size_t most = 12);

}  // namespace orthema
