// Making: what is done to a placed design before it lies on a sheet. All of it is the artist's decision and part of the
// order; the pieces that come of it are worked out in core/transfers.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/colour.h"
#include "core/base/length.h"
#include "core/geometry/geometry.h"

namespace orthema {

/// One sheet of a stack: printed, or cut from a medium of one colour.
struct Layer {
    std::string name;              ///< "print", "backing", "navy"
    std::string medium;            ///< empty: the decoration's own
    bool printed = false;          ///< the art itself; otherwise a flat sheet in `tint`
    std::optional<Colour> colour;  ///< of the separated art: this layer is that colour's part only
    Colour tint;                   ///< of the sheet
    Length grow;                   ///< past the layer above it; negative: choked
    bool operator==(const Layer&) const = default;
};

enum class Join { lap, butt };

/// A point that a seam must pass through, in ink widths from the ink box's top left.
struct SeamPoint {
    bool upright = true;  ///< of an upright seam; else of a level one
    int seam = 0;         ///< from the left or the top
    Point at;
    bool operator==(const SeamPoint&) const = default;
};

struct Making {
    // Layers
    std::vector<Layer> layers;  ///< top first; empty: one printed layer
    Corner corner = Corner::round;
    Length fill_holes;                   ///< holes narrower than this are filled in grown layers
    bool bridges = false;                ///< islands of a cut layer are joined
    Length bridge = Length::from_mm(2);  ///< how wide
    Length overlap;                      ///< of colours under the ones above; 0: knocked out
    std::optional<Length> white;         ///< a white underbase as its own picture, choked by this
    double shrink = 0;                   ///< of the sheet in the heat, per cent
    // Oversize
    bool split = false;
    Join split_join = Join::lap;
    Length split_lap = Length::from_mm(3);
    std::vector<SeamPoint> seam_points;
    // Wraps
    Join wrap_join = Join::butt;
    Length wrap_lap;  ///< past the blank's circumference; negative: a gap is left
    Length seam_at;   ///< on the wall, from the line opposite the handle or the usual seam, to the viewer's right
    // Two sides and hard blanks
    bool two_sided = false;             ///< the back beside the front across a fold
    Length fold = Length::from_mm(20);  ///< between the blank's edge and the fold line
    bool cover = false;                 ///< ink past every edge of the blank
    Length bleed = Length::from_mm(3);
    Length misplaced = Length::from_mm(1.5);  ///< the worst that a hand misses by
    std::string jig;                          ///< laid into a jig's slots; empty: not
    bool operator==(const Making&) const = default;
};

/// Slots on a backer board, rows × columns at a pitch, for blanks that are pressed together.
struct Jig {
    std::string id;
    std::string name;
    int rows = 1, columns = 1;
    Length pitch_x, pitch_y;         ///< from slot to slot
    Length slot_width, slot_height;  ///< 0: the blank's own outline
    Length slot_corner;              ///< radius; half the width makes a round slot
    Length backer_width, backer_height;
    Length margin;                      ///< kept free along the backer's edges
    std::vector<std::string> assigned;  ///< decoration by slot, row by row; empty: in turn
    bool operator==(const Jig&) const = default;
};

/// A sentence on what is impossible about a jig, for a blank of this size: slots that overlap, or leave the backer.
std::optional<std::string> jig_fault(const Jig& jig, double blank_width, double blank_height);

/// Middle of a slot on the backer, mm from its top left; row by row from the top left.
Point slot_middle(const Jig& jig, int slot);

/// The slot that lies behind this one when the backer's sheet is folded over along an upright line: its row, the
/// columns in reverse.
int slot_behind(const Jig& jig, int slot);

}  // namespace orthema
