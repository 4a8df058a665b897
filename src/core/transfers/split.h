// Oversize designs: cut where there is least ink, into as few pieces as the medium and the platen allow.
#pragma once

#include <string>
#include <vector>

#include "core/artwork/art_facts.h"
#include "core/base/result.h"
#include "core/order/making.h"

namespace orthema {

/// The most that one piece may measure, mm.
struct PieceLimit {
    double width = 0, height = 0;
};

struct SplitRule {
    Join join = Join::lap;
    double lap = 3;                              ///< the piece that is pressed first reaches this far under the next one
    std::vector<SeamPoint> points;               ///< that seams must pass through
    std::vector<PieceLimit> limits;              ///< a piece must keep one of these
    double platen_width = 0, platen_height = 0;  ///< 0: nothing is heated twice
};

struct Seam {
    bool upright = true;
    Ring line;            ///< open, mm from the ink box's top left; from edge to edge of it
    double ink = 0;       ///< length of ink that it cuts, mm, half-transparent ink by its share
    double straight = 0;  ///< what the best straight cut within the same limits would cut
};

struct SplitPart {
    Region own;      ///< its share of the plane, without the lap
    Region reach;    ///< with the lap
    int heated = 1;  ///< how often it is under the platen until all are pressed
};

struct SplitPlan {
    int columns = 1, rows = 1;
    std::vector<Seam> seams;       ///< upright ones first, each kind from the left or the top
    std::vector<SplitPart> parts;  ///< in press order
    double ink_cut = 0;
};

/// Splits a design `width` mm wide. Of all grids of columns and rows whose parts keep a limit, those with the fewest
/// parts; of these, the one whose seams cut least ink. Fails with a sentence where no grid of up to 12 × 12 does, where
/// a point lies outside the strip a seam may run in, or two points of a seam are too near each other to be joined.
/// Method: dynamic programming over the alpha, one pixel onwards and at most one aside a step; ties go to the straighter.
Result<SplitPlan> split(const AlphaMap& alpha, double width, const SplitRule& rule);

/// One least-ink path through the columns [lo, hi) of an alpha map, from its first row to its last: a column for each
/// row. `upright` false: through rows, a row for each column. `through` are (along, across) pixels that it must pass.
/// Empty where they cannot be joined.
struct Through {
    int along = 0, across = 0;
};
std::vector<int> least_ink_path(const AlphaMap& alpha, bool upright, int lo, int hi, const std::vector<Through>& through = {});
/// Σ alpha along a path, 0..255 each.
long path_ink(const AlphaMap& alpha, bool upright, const std::vector<int>& path);

}  // namespace orthema
