// A wrap as the customer sees it: the wall rolled up, from the front.
#pragma once

#include "core/artwork/resample.h"
#include "core/geometry/ring_sector.h"

namespace orthema {

/// Looks the wall's picture up for a view straight on to the cup. `atlas` is the unrolled wall in its own frame, from
/// −half to +half of the middle circumference, `atlas_k` pixels to the mm; `turn` is the place along the wall (mm) that
/// faces the viewer; the view has `k` pixels to the mm, the rim's middle at (width / 2, 0). The eye is a little above, so
/// that rim and base bulge (`view_tilt`). Light falls from the viewer's left.
constexpr double view_tilt = 0.07;  ///< sine of the eye's height
void rolled_view(const WordView& atlas, double atlas_k, const CupWall& wall, double turn, double k, std::uint32_t* to, int width,
                 int height);

/// Where a point of the wall appears in that view, mm from the rim's middle; `front` false: on the far side.
struct Seen {
    Point at;
    bool front = true;
};
/// Height of the view, mm: the wall and the bulge of its base.
double view_height(const CupWall& wall);
Seen seen_at(const CupWall& wall, double turn, Point on_wall);

}  // namespace orthema
