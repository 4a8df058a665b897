// Glue: pieces that were cut from one another are put together again, some at a time, and nested as one. What is glued
// wrongly costs time only: the layout is taken apart afterwards and goes on piece by piece.
#pragma once

#include <random>
#include <vector>

#include "core/nesting/mates.h"
#include "core/nesting/nest.h"

namespace orthema {

struct Compound {
    NestPiece piece;                     ///< count 1; id and outline of its own
    std::vector<NestPlacement> members;  ///< how each lies while the compound lies at (0, 0), not turned
};

/// Whether gluing can be tried: quarter turns alone, the same for all, and edges that fit for at least half of the copies.
bool can_glue(const NestProblem& problem, const std::vector<std::vector<MatePlace>>& mates);

/// Every copy once, glued into compounds of at most `most` that still fit the medium: mates that share most come first, with a
/// little chance in it. Copies that find none are compounds of their own. Loosely: edge on edge, so that neighbours may overlap
/// by some hundredths of a millimetre, and the medium may be missed by as much; for what is jostled apart afterwards.
std::vector<Compound> glued(const NestProblem& problem, const std::vector<std::vector<Cast>>& casts,
                            const std::vector<std::vector<MatePlace>>& mates, std::size_t most, bool loosely, std::mt19937& random);

/// The copies where their compound has been laid.
std::vector<NestPlacement> taken_apart(const Compound& compound, const NestPlacement& laid);

}  // namespace orthema
