// Making: what is done to a placed design before it lies on a sheet. All of it is the artist's decision and part of the
// order; the pieces that come of it are worked out in core/transfers.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/length.h"
#include "core/geometry/geometry.h"
#include "core/shop/layer.h"

namespace orthema {

enum class Join { lap, butt };

/// A point that a seam must pass through, in ink widths from the ink box's top left.
struct SeamPoint {
    bool upright = true;  ///< of an upright seam; else of a level one
    int seam = 0;         ///< from the left or the top
    Point at;
    bool operator==(const SeamPoint&) const = default;
};

constexpr Length usual_snip_gap = Length::from_mm(1.5);

/// The marks that the sheets of a stack are laid on one another by, left and right of it; trimmed off before pressing. mm.
constexpr double stack_mark_radius = 1.5;
constexpr double stack_mark_off = 7;  ///< from the stack's edge to the mark's middle

struct Making {
    // Layers
    std::vector<Layer> layers;  ///< top first; empty: one printed layer
    Corner corner = Corner::round;
    Length fill_holes;                   ///< holes narrower than this are filled in grown layers
    bool bridges = false;                ///< islands of a cut layer are joined
    Length bridge = Length::from_mm(2);  ///< how wide
    Length overlap;                      ///< of colours under the ones above; 0: knocked out
    std::optional<Length> white;         ///< a white underbase as its own picture, choked by this
    double shrink = 0;                   ///< of the sheet in the heat, per cent
    // Oversize
    bool split = false;
    Join split_join = Join::lap;
    Length split_lap = Length::from_mm(3);
    std::vector<SeamPoint> seam_points;
    // Wraps
    Join wrap_join = Join::butt;
    Length wrap_lap;  ///< past the blank's circumference; negative: a gap is left
    Length seam_at;   ///< on the wall, from the line opposite the handle or the usual seam, to the viewer's right
    // Two sides and hard blanks
    bool two_sided = false;             ///< the back beside the front across a fold
    Length fold = Length::from_mm(20);  ///< between the blank's edge and the fold line
    bool cover = false;                 ///< ink past every edge of the blank; on a full wrap: right round, as wide as the wall
    Length bleed = Length::from_mm(3);
    Length misplaced = Length::from_mm(1.5);  ///< the worst that a hand misses by
    std::string jig;                          ///< laid into a jig's slots; empty: not
    // Domed blanks
    Length snip_gap;  ///< film may stand off the form by this once it is snipped; 0: not snipped
    bool operator==(const Making&) const = default;
};

}  // namespace orthema
