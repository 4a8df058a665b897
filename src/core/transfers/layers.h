// Shapes of layers: grown or choked from the one above, holes filled, islands bridged, and what a weeding hand would lose.
#pragma once

#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/geometry/geometry.h"

namespace orthema {

struct LayerRule {
    double grow = 0;  ///< past the layer above, mm; negative: choked
    Corner corner = Corner::round;
    double fill_holes = 0;  ///< holes narrower than this are filled
    bool bridges = false;   ///< islands are joined
    double bridge = 2;      ///< how wide
};

/// The shape of the layer under `above`. Fails with a sentence where choking swallows it. The correction for shrinking
/// is not in it (shrink_factor), so that layers can be grown from one another.
Result<Region> layer_shape(const Region& above, const LayerRule& rule);

/// All islands joined by straight bridges `width` wide, each island to what is nearest: the least total length (the
/// minimum spanning tree over the islands).
Region bridged(const Region& region, double width);

/// What would tear, close or be lost when the sheet is weeded, each with its place.
struct WeedFault {
    enum class Kind { sliver, gap, island } kind = Kind::sliver;
    Point at;
    double mm = 0;  ///< length of the sliver or gap, the island's larger side
};
/// Method: opening by half the least stroke takes slivers away, closing by half the least gap fills gaps; islands by box.
std::vector<WeedFault> weed_faults(const Region& region, double least_stroke, double least_gap, double least_island);

}  // namespace orthema
