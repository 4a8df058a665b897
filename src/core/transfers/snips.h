// Snips: cuts from a film's edge inwards between the ink, so that it lies round a domed form. A flat film has more length than a dome at
// some way from its middle line: rows of a ball are cos(way/R) as long. What is over rises as an arch; a snip lets it slide under its
// neighbour instead. Snips stand upright, above and below the film's middle line, and end before the ink.
#pragma once

#include "core/geometry/geometry.h"

namespace orthema {

/// How high a strip of film rises when its row has only `share` of its length, in lengths of the strip: the rise of a circular arc.
double rise(double share);

/// How wide a strip may be, mm, `way` mm from the middle line of a form of this bend (1/mm), to stand off by no more than `gap`.
double widest_strip(double bend, double way, double gap);

/// How far a film stands off that is not snipped, mm: at its upper and lower edge.
double stands_whole(const Polygon& film, double bend);

struct SnipPlan {
    std::vector<Ring> snips;  ///< open lines from the film's edge inwards, upper side first, from the left
    double stands = 0;        ///< mm by which the film still stands off where it does so most
    Point at;                 ///< there
};

constexpr double snips_worth = 6;       ///< mm: a film that would stand off by more is better snipped
constexpr double widest_snipped = 500;  ///< mm, either way: nothing that is domed is larger, and it would take long
constexpr double snip_step = 0.5;       ///< mm: grid of places and depths

/// As few and as short as keep every strip of the film narrow enough, row by row; ink grown by `clear` is never cut, and where it lies in
/// the way the film stands off by more; slivers of a quarter of what a strip may be are not parted off there. No snip can be left out or be
/// a step shorter. Fewest first, then shortest, of two ways to go: from the edge inwards, and from the middle outwards.
SnipPlan snips(const Polygon& film, const Region& ink, double bend, double gap, double clear = 1);

}  // namespace orthema
