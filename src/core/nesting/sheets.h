// Sheets: TransferSet -> SheetPlan, the nested gang sheets of each medium, with what they use and cost.
#pragma once

#include <string>
#include <vector>

#include "core/nesting/nest.h"
#include "core/transfers/transfers.h"

namespace orthema {

/// One sheet, or one run of a roll. Strip frame: x along the feed, y across, origin at the start.
struct Sheet {
    std::string medium;
    int number = 0;     ///< from 0, within its medium
    double length = 0;  ///< used, margins included; a cut sheet's own height
    double width = 0;
    double density = 0;
    double cut_length = 0;  ///< of all contours, mm
    std::vector<PlacedCopy> copies;
};

struct MediumPlan {
    std::string medium;
    std::vector<Sheet> sheets;
    int asked = 0, placed = 0;
    double density = 0;
    double length = 0;  ///< of film, all runs; 0 for cut sheets
    double cost = 0;
    bool stale = false;  ///< laid out for other transfers than those of now
};

struct SheetPlan {
    std::vector<MediumPlan> media;
    Findings findings;
};

/// The nesting problem of one medium. Locked copies of the order's layout stay; those that no longer exist do not.
NestProblem sheet_problem(const Medium& medium, const TransferSet& set, const std::vector<PlacedCopy>& layout);

/// Placements as the document keeps them, and back. Copies whose transfer is gone are left out.
std::vector<PlacedCopy> to_copies(const NestProblem& problem, const std::vector<NestPlacement>& placements);
std::vector<NestPlacement> to_placements(const NestProblem& problem, const std::vector<PlacedCopy>& copies);

/// The sheets as the order's layouts say. A layout that lacks copies, has too many, or does not hold the gap is
/// stale: it is shown, and a finding says so.
SheetPlan sheet_plan(const Order& order, const TransferSet& set);

/// Replaces one medium's layout.
Order with_layout(const Order& order, const std::string& medium, std::vector<PlacedCopy> copies);

/// From a transfer's contour frame to the strip.
Affine copy_map(const PlacedCopy& copy);
/// From the strip to the page that is printed: across the page is across the roll, the feed runs down it.
Affine page_map(const Sheet& sheet);

}  // namespace orthema
