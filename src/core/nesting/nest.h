// Nesting: irregular pieces on a strip or on sheets. One engine for the window and the command line; structs in,
// structs out, progress and stop as callbacks. Lengths in mm, angles in degrees (Affine::turn), x along the strip.
#pragma once

#include <cmath>
#include <functional>
#include <limits>
#include <memory>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/base/task.h"
#include "core/geometry/geometry.h"

namespace orthema {

class CastStore;

/// Mm that may be shaved off each of two pieces before they count as lying over each other, where at gap 0 all pieces are put together
/// again by their edges. Their outlines were rounded one by one (files give 1/10,000 mm) and are a hair more than their sum.
constexpr double touching = 0.002;

struct NestPiece {
    std::string id;
    int count = 1;
    std::vector<double> rotations{0};  ///< allowed turns about the piece's own origin
    Polygon outline;
    bool crosses = false;  ///< may lie over the seams of the medium: it is longer than what lies beside them
};

struct NestPlacement {
    int piece = 0;  ///< index into NestProblem::pieces
    int copy = 0;
    int bin = 0;  ///< sheet, or run of the roll
    double rotation = 0;
    double x = 0, y = 0;  ///< turned about its origin, then moved by this
    bool locked = false;
};

struct NestProblem {
    double width = 0;                                             ///< across the strip
    double gap = 0;                                               ///< least distance between two pieces
    double margin = 0;                                            ///< kept free along every edge
    double max_length = std::numeric_limits<double>::infinity();  ///< of one bin
    std::vector<NestPiece> pieces;
    std::vector<NestPlacement> locked;  ///< copies that stay where they are, also where they lie too close to each other
    std::vector<NestPlacement> start;   ///< a layout to go on from, where it is sound and whole
    std::vector<Polygon> blocked;       ///< areas of every bin that pieces keep the gap from
    std::vector<Polygon> seams;         ///< such areas for all pieces but those that cross them: where sheets are taped together
};

struct NestOptions {
    double seconds = 2;  ///< stop after this time …
    int rounds = 0;      ///< … or after this many rounds of 25 sweeps, when > 0: then the result depends on the seed only
    unsigned seed = 1;
    int threads = 1;
    double gather = 0;  ///< when > 0: up to this share of the time goes to getting by with one run less, and all is settled as one
    std::shared_ptr<CastStore> casts;  ///< what was cast before; none: nothing was
};

struct NestSolution {
    std::vector<NestPlacement> placements;
    int bins = 0;
    double length = 0;       ///< of the longest bin, margins included
    double last_length = 0;  ///< of the last bin
    double others = 0;       ///< lengths of all bins but the last, added
    double density = 0;      ///< pieces' area over the area of all bins, the last one up to its own length
    double seconds = 0;
    int rounds = 0;
};

/// Whether one layout is better: fewest bins, then the shortest last one, then the shortest others: what gets free at their ends is film,
/// too. Of anything that has the three.
template <class Laid>
bool shorter(const Laid& a, const Laid& b) {
    if (a.bins != b.bins) return a.bins < b.bins;
    if (std::abs(a.last_length - b.last_length) > 1e-9) return a.last_length < b.last_length;
    return a.others < b.others - 0.1;
}

/// Lays out every copy. Calls `better` (from any of its threads, one at a time) with each valid layout that beats the
/// one before; the first comes at once. Fails with a sentence when a piece fits nowhere or an outline is degenerate.
/// Method: first-fit on a bit grid for a layout at once, then jostling (jostle.h) in ever shorter rooms: large steps first,
/// ever smaller ones in the last third of the time. Every layout that is handed out has passed the exact check; what was
/// put together again by its edges, the one with `touching` forgiven.
Result<NestSolution> nest(const NestProblem& problem, const NestOptions& options, const Task& task = {},
                          const std::function<void(const NestSolution&)>& better = {});

/// What is said of a piece that no engine can lay.
Error larger_than_medium(const NestPiece& piece);

/// Check: every copy there once, at an allowed turn, inside its bin, no two
/// nearer than the gap. One sentence a fault; `tolerance` mm is forgiven. With tolerance 0 the answer is exact (see exact.h); what leaves
/// the medium by less than half a grid unit is rounding. Unless `whole`, copies may be missing.
std::vector<std::string> nest_faults(const NestProblem& problem, const std::vector<NestPlacement>& placements, double tolerance = 1e-3,
                                     bool whole = true);

/// What one piece keeps off.
std::vector<const Polygon*> kept_off(const NestProblem& problem, const NestPiece& piece);

/// The outline of a placement where it lies.
Polygon placed_outline(const NestProblem& problem, const NestPlacement& placement);

/// True when the two areas are nearer than `gap` (or overlap, at gap 0), by more than `tolerance`; exactly with 0.
bool too_close(const Polygon& a, const Polygon& b, double gap, double tolerance = 1e-3);

/// How far `moving` may slide along the unit axis direction (dx, dy in {-1, 0, 1}, one of them 0) before it is `gap`
/// from any of `others`; at most `most`. `moving` must be clear of them to begin with.
double slide(const Polygon& moving, const std::vector<const Polygon*>& others, double gap, int dx, int dy, double most);

/// Fills bins, length, last_length and density from the placements.
void measure_solution(const NestProblem& problem, NestSolution& solution);

}  // namespace orthema
