// Lots: parting garments of one blank and colour so that they can carry different art, and joining them again.
#pragma once

#include "core/order/order.h"

namespace orthema {

/// What goes over into a lot of its own: so many of a size, of whoever they are for unless `note` names one.
struct Parting {
    std::string name;
    std::vector<SizeCount> pieces;
    std::string note = {};
};

/// The order with those pieces in a new lot, which carries copies of the run's designs to begin with, so that nothing that is
/// printed changes by parting alone but by the sizes that now stand together. More than there are: all there are. Nothing is
/// parted where that would leave a lot empty. `made` gets the new lot's key.
Order with_lot_parted(const Order& order, const RunKey& run, const Parting& parting, RunKey* made = nullptr);

/// Every name or number in the list's notes a lot of its own; what has none, and the first name, stays.
Order with_lots_by_note(const Order& order, const RunKey& run);
/// Every piece a lot of its own, named by its number.
Order with_lots_by_piece(const Order& order, const RunKey& run);

/// The lot's garments back in the usual lot of their blank and colour; the designs of the lot go.
Order with_lot_joined(const Order& order, const RunKey& run);

/// With another name for the lot.
Order with_lot_named(const Order& order, const std::string& lot, const std::string& name);

}  // namespace orthema
