// The trimmer's cut list as it is printed and read: the sheet with its cuts numbered, and beneath it each cut with its fence.
#pragma once

#include <string>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/sheets/sheets.h"

namespace orthema {

/// "across the feed", or "along the feed".
std::string cut_direction(const TrimCut& cut, const Reading& reading);
/// "sheet", "part 7", "waste", or the piece's name and copy.
std::string part_name(const TrimPlan& plan, int part, const Sheet& sheet, const TransferSet& set, const Reading& reading);

/// Pages on the order's paper, mm. Pre: the plan is sheet_cuts() of that sheet.
std::vector<Drawing> trimmer_pages(const Order& order, const Sheet& sheet, const TransferSet& set, const TrimPlan& plan);

}  // namespace orthema
