// A cast: one piece at one turn, as the search feels it. The outline is grown by half the gap, simplified outwards,
// and kept as edges and as inscribed discs, in arrays that wide registers read. Single precision, about the middle of
// its own box: a search may be a hair wrong, the exact check has the last word.
#pragma once

#include <mutex>
#include <vector>

#include "core/geometry/geometry.h"

namespace orthema {

constexpr int lane_count = 8;  ///< arrays are padded to whole registers of this many

struct Cast {
    double turn = 0;                        ///< degrees
    Point middle;                           ///< of the box, in the turned piece's frame: what placements add back
    float x0 = 0, y0 = 0, x1 = 0, y1 = 0;   ///< the box, about the middle
    float span = 0;                         ///< its diagonal
    float bulk = 0;                         ///< fourth root of the convex hull's area: large pieces weigh more
    int edges = 0, discs = 0;               ///< padded counts
    std::vector<float> ax, ay, bx, by;      ///< edges
    std::vector<float> gx0, gy0, gx1, gy1;  ///< boxes of each lane_count edges in a row, which lie together along the outline
    std::vector<float> dx, dy, dr;          ///< inscribed discs, none over another's middle
    float inner_x = 0, inner_y = 0;         ///< a point inside: the largest disc's middle
};

/// The outline that a search keeps others out of: grown by `by`, then simplified so that it only gains, by at most
/// `tolerance`. Holes stay while something could lie in them.
Polygon search_outline(const Polygon& outline, double by, double tolerance);

/// `grown` turned by each of `turns`.
std::vector<Cast> casts_of(const Polygon& grown, const std::vector<double>& turns);

/// Casts that were made before, by what they were made of: parts of one problem are settled again and again, and making the casts of a few
/// dozen outlines takes as long as settling a run for a moment. Asked by several threads.
class CastStore {
public:
    /// As search_outline() and casts_of() make them.
    std::vector<Cast> of(const Polygon& outline, double by, double tolerance, const std::vector<double>& turns);

private:
    struct Made {
        Polygon outline;
        double by = 0, tolerance = 0;
        Polygon grown;
        std::vector<Cast> casts;  ///< at the turns that were asked for so far
    };
    std::mutex guard_;
    std::vector<Made> made_;
};

/// A ring simplified so that the area to its left only grows: vertices that stand in are dropped, edges that stand out
/// are replaced by the corner where their neighbours meet. Pre: anticlockwise outer ring, clockwise hole (y up).
Ring simplified_outwards(const Ring& ring, double tolerance);

}  // namespace orthema
