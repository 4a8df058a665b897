// Coverage of hard blanks: ink past every edge, notch and corner included, at the worst misplacement of the hand.
#pragma once

#include <optional>

#include "core/geometry/geometry.h"

namespace orthema {

struct Coverage {
    Region bare;       ///< of the blank grown by the misplacement, what no ink reaches: some shift bares each point of it
    double worst = 0;  ///< the largest misplacement at which nothing is bare, mm; negative: bare where it lies
};

/// Some shift of at most `misplaced` bares the blank exactly where the blank grown by that leaves the ink. Pure
/// geometry, no sampling; `ink` and `blank` in one frame.
Coverage coverage(const Region& ink, const Region& blank, double misplaced);

/// The least scale about its own middle at which the ink, laid middle on middle, covers the blank grown by `reach`.
/// Nothing where no scale up to 64 does: the ink has a hole or is clear in the middle.
std::optional<double> covering_scale(const Region& ink, const Region& blank, double reach);

/// Whether the ink stands along both upright sides of its box, for half their height and more: a picture that is meant to
/// meet itself on a wall, not a motif.
bool fills_its_sides(const Region& ink);

}  // namespace orthema
