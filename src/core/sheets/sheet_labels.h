// Labels on a sheet: a few words beside every contour, in what will be thrown away, so that look-alikes can be sorted.
#pragma once

#include <string>
#include <vector>

#include "core/sheets/sheets.h"

namespace orthema {

struct SheetLabel {
    std::size_t copy = 0;  ///< of the sheet's copies
    std::string text;
    Rect box;              ///< that the words stay in; page frame, mm
    bool upright = false;  ///< reads upwards
    double size = 0;       ///< of the letters
    std::string code;      ///< of the square before the words; empty: none
    Point from, to;        ///< a tick that joins it to its own contour
};

/// Side of a label's square code, mm: modules of a third of a millimetre, which film and paper hold.
constexpr double label_code_side = 11;

struct SheetLabels {
    std::vector<SheetLabel> labels;
    int without = 0;  ///< copies that have no room beside them for the shortest label
};

/// With the order's label_codes, first of all with a square code that leads back to the decoration and size. One for every copy that has
/// room: the longest wording that fits within 8 mm of its contour, else a shorter one, else smaller. No label touches a contour or another
/// label, or leaves the sheet. Widths are on the safe side.
SheetLabels sheet_labels(const Order& order, const Sheet& sheet, const TransferSet& set);

}  // namespace orthema
