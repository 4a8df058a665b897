// How much two casts overlap, cheaply. Discs prove most collisions and measure them all; edges are looked at only where
// no discs meet.
#pragma once

#include "core/nesting/cast.h"

namespace orthema {

/// Whether two discs meet, which proves that the casts do. `b` is moved by (dx, dy).
bool discs_hit(const Cast& a, const Cast& b, float dx, float dy);

/// How deep the casts lie in each other, felt through their discs: grows with depth and fades over `fade` mm of
/// distance, so that a search feels its way out. Large pieces weigh more. Never 0. Once it is known to reach `enough` the
/// rest is not measured: then it is some figure between `enough` and the true one.
constexpr float most_overlap = 1e15F;  ///< larger than any depth, and its square still is a float
float discs_depth(const Cast& a, const Cast& b, float dx, float dy, float fade, float enough);

/// Whether an edge of `a` touches one of `b`, which is moved by (dx, dy), or one lies inside the other's area.
bool outlines_meet(const Cast& a, const Cast& b, float dx, float dy);

/// The measure that the search lessens; 0 exactly where they keep apart.
float overlap(const Cast& a, const Cast& b, float dx, float dy);

/// Boxes of all pieces as the search keeps them, for one look at all neighbours at once.
struct Boxes {
    std::vector<float> x0, y0, x1, y1;
    std::vector<int> bin;        ///< padding has bin -1
    void resize(std::size_t n);  ///< padded to what is looked at in one step
};
/// Indices of the boxes of `bin` that meet the box, ascending, into `out`; how many.
int boxes_meeting(const Boxes& boxes, float x0, float y0, float x1, float y1, int bin, int* out);

}  // namespace orthema
