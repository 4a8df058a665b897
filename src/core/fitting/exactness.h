// How exactly a design must land: the way that is left before it meets something, in each direction.
#pragma once

#include "core/fitting/fit.h"

namespace orthema {

/// Millimetres that the ink may slip before a clearance is broken; at most 50.
struct Slack {
    double up = 50, down = 50, left = 50, right = 50;
};

/// By the convex hull of the ink against the grown obstacles: never more than the true way. The hull and the obstacles
/// are followed vertex by vertex along each direction.
Slack slack_of(const Ground& ground, const DecorationFit& fit, const SizeFit& size);

/// What a guide says: half of what is left, so that the press and the eye share it, between 1 and 6 mm sideways and 1
/// and 12 mm up and down, whole half millimetres.
struct Exactness {
    double level = 1;  ///< of what is measured up and down
    double sideways = 1;
};
Exactness exactness_of(const Slack& slack);

}  // namespace orthema
