// Jigs: designs assigned to the slots of a backer board, front and back, one sheet 1:1 to the board.
#pragma once

#include <string>
#include <vector>

#include "core/fitting/fit.h"
#include "core/transfers/make.h"

namespace orthema {

/// What lies in one slot.
struct SlotFill {
    std::string decoration;  ///< empty: nothing
    std::string size;
    bool operator==(const SlotFill&) const = default;
};

/// One distinct board: what its slots hold, and how many boards are loaded so. The back's slots are named by the blank
/// that lies there: back[i] goes on the blank in front slot i.
struct JigSheet {
    std::string jig;
    std::string medium;
    std::string job = {};  ///< whose, in a gang: a board is one job's
    std::vector<SlotFill> front, back;
    int count = 0;
    Piece piece;      ///< reading frame: the front board, and beside it across the fold the back one where there are backs
    double fold = 0;  ///< x of the fold line; 0: no back
};

/// The edge of a slot whose middle lies at `at`: of its own size where it has one, else of the blank that lies in it, whose
/// holes and notches face the other way from the back. Empty where neither is known.
std::vector<Ring> slot_edge(const Jig& jig, const Panel* blank, Point at, bool back = false);

/// Fills the jigs of the order: copies in the order of the decorations and their sizes, or by the jig's own
/// assignment of slots, until every ordered blank has a slot. Findings name jigs that cannot be.
std::vector<JigSheet> jig_sheets(const Order& order, const FitPlan& plan, const ArtFactsById& facts, Findings& findings);

/// Folds the sheet of a board over and says which back lies behind which front, by where they lie alone: for every front
/// slot the index of the back design whose place on the sheet falls on it, -1 where none does.
std::vector<int> folded_pairs(const Jig& jig, const JigSheet& sheet);

}  // namespace orthema
