// How much two casts overlap, cheaply. Discs prove most collisions and measure them all; edges are looked at only where
// no discs meet.
#pragma once

#include "core/nesting/cast.h"

namespace orthema {

/// Discs against discs. `sum` grows with how deep they lie in each other and fades with their distance, so that a
/// search feels its way out; `hit` where two of them meet.
struct DiscMeeting {
    float sum = 0;
    bool hit = false;
};
DiscMeeting discs_meeting(const Cast& a, const Cast& b, float dx, float dy, float fade);

/// Whether an edge of `a` touches one of `b`, which is moved by (dx, dy), or one lies inside the other's area.
bool outlines_meet(const Cast& a, const Cast& b, float dx, float dy);

/// The measure that the search lessens; 0 exactly where they keep apart. `fade` is about a hundredth of a piece's size.
float overlap(const Cast& a, const Cast& b, float dx, float dy, float fade);
inline float overlap_of(const DiscMeeting& m, const Cast& a, const Cast& b, float fade) {
    return __builtin_sqrtf(m.sum + fade * fade) * a.bulk * b.bulk;
}

/// Boxes of all pieces as the search keeps them, for one look at all neighbours at once.
struct Boxes {
    std::vector<float> x0, y0, x1, y1;
    std::vector<int> bin;  ///< padding has bin -1
    void resize(std::size_t n);
};
/// Indices of the boxes of `bin` that meet the box, ascending, into `out`; how many.
int boxes_meeting(const Boxes& boxes, float x0, float y0, float x1, float y1, int bin, int* out);

}  // namespace orthema
