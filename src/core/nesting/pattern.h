// Patterns: many copies of one shape in rows that repeat, each row alike and moved on by the same step. Found by the shape alone, so that
// three hundred of one lie as closely as its best pair allows, which piece by piece a search comes near only slowly.
// Method: lattices of one shape, or of it and its half turn (as in Kuperberg's double lattices), over where they touch.
#pragma once

#include <optional>
#include <vector>

#include "core/nesting/nest.h"

namespace orthema {

struct PatternMember {
    double turn = 0;
    double x = 0, y = 0;  ///< of the piece's own origin
    bool operator==(const PatternMember&) const = default;
};

/// Rows run along the strip or across it; a row repeats its members every `period`, and row k lies k times (shift, pitch) further.
struct Pattern {
    bool across = false;                 ///< rows run across the strip: as columns of it
    std::vector<PatternMember> members;  ///< in the strip's frame
    Point period, step;                  ///< from one period to the next, from one row to the next
    double density = 0;                  ///< piece's area over the area that it takes in an endless strip of the width
};

/// The densest for a strip of this usable width (mm, margins off), at the turns that the piece is allowed; none where a piece is wider.
/// Of many turns some are tried.
std::optional<Pattern> best_pattern(const NestPiece& piece, double gap, double width, double hair);

struct PatternPlaces {
    std::vector<PatternMember> places;  ///< from x = 0 on and in that order
    double length = 0;                  ///< that they reach
};

/// `count` places of the pattern in a strip of this usable width; every box inside [0, width] across. What would reach past `most_length`
/// is left out.
PatternPlaces pattern_places(const Pattern& pattern, const NestPiece& piece, int count, double width, double most_length);

}  // namespace orthema
