// Jigs: boards with slots for blanks that are pressed together.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/length.h"
#include "core/base/words.h"
#include "core/geometry/geometry.h"

namespace orthema {

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

/// What is impossible about a jig, for a blank of this size: slots that overlap, or leave the backer.
std::optional<Words> jig_fault(const Jig& jig, double blank_width, double blank_height);

/// Middle of a slot on the backer, mm from its top left; row by row from the top left.
Point slot_middle(const Jig& jig, int slot);

/// The slot that lies behind this one when the backer's sheet is folded over along an upright line: its row, the
/// columns in reverse.
int slot_behind(const Jig& jig, int slot);

}  // namespace orthema
