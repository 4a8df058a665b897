// A picture behind a shape (letters, a blank's outline): the placement that covers the shape and keeps the subject in it.
#pragma once

#include <vector>

#include "core/base/result.h"
#include "core/geometry/geometry.h"

namespace orthema {

struct ClipFit {
    double scale = 1;  ///< picture's width in the shape's unit
    Point at;          ///< where the picture's top left lies
};

/// Places a picture (unit: its width; `aspect` its height) behind `shape`, never stretched. The picture covers the whole
/// shape and every point of `subject` lies in it. With two points or more: at the largest scale that
/// keeps them all inside; with fewer, or where `least` is asked, the least that covers and keeps them is taken, nearest to the middle.
/// Fails with a sentence where the subject cannot be inside, `rim` from its edge, without the picture falling short of the shape. Method:
/// for a scale, the places that keep a mark inside are the shape shifted by that mark; their intersection is exact. The largest scale by
/// descent over a grid of scales, then bisection.
Result<ClipFit> clip_fit(const Region& shape, double aspect, const std::vector<Point>& subject, double rim = 0, bool least = false);

}  // namespace orthema
