// How the sheets of the chosen medium lie along the ribbon; shared by the ribbon and the whole roll.
#pragma once

#include <string>
#include <unordered_map>
#include <vector>

#include "app/session/workroom.h"
#include "core/base/colour.h"
#include "core/nesting/trimmer.h"

namespace orthema::app {

constexpr double sheet_gap = 24;                ///< mm between two sheets
constexpr Colour film{0.895, 0.912, 0.918, 1};  // dull enough that white ink shows on it

/// Where the sheets of a medium lie along the ribbon, mm.
struct RibbonSheets {
    std::vector<double> starts, lengths, widths;
    std::vector<Polygon> shapes;     ///< of offcuts; empty: a rectangle
    std::vector<std::string> names;  ///< of what is not of the medium's own size
    double width = 0;                ///< of the widest
    double total = 0;
};
RibbonSheets ribbon_sheets(const Workroom& room);

/// The medium that is chosen, and the sheets of it; null where there are none.
const Medium* medium_of(const Workroom& room);
const MediumPlan* plan_of(const Workroom& room);

/// The copies of the chosen medium as the order has them.
const std::vector<PlacedCopy>& copies_of(const Workroom& room);

/// The trimmer's cuts of one sheet; a sentence where pieces lie so that none can part them, or the sheet is not there.
Result<TrimPlan> cuts_of_sheet(const Workroom& room, int sheet);

/// Transfers by id, for a pass over many copies.
class TransferIndex {
public:
    explicit TransferIndex(const TransferSet& set) {
        for (const Transfer& t : set.transfers) by_id_[t.id] = &t;
    }
    [[nodiscard]] const Transfer* find(const std::string& id) const {
        const auto at = by_id_.find(id);
        return at == by_id_.end() ? nullptr : at->second;
    }

private:
    std::unordered_map<std::string, const Transfer*> by_id_;
};

}  // namespace orthema::app
