// What lies over the ground of a print put together, against the face that it is made for. Pictures of one print may lie over one another.
#pragma once

#include "core/fitting/fit.h"

namespace orthema {

/// Who reaches past the face by less than the bleed, comes nearer to an edge, a loop or a seam than the print keeps clear, or lies on one;
/// pictures that are gone.
Findings together_findings(const Order& order, const ArtFactsById& facts, const Art& art);

}  // namespace orthema
