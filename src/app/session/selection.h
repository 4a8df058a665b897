// Selection: what the artist has in hand.
#pragma once

#include <string>

#include "core/pipeline/work.h"

namespace orthema::app {

struct Selection {
    RunKey run;
    std::string decoration, size, art, medium, style;
    bool operator==(const Selection&) const = default;
};

/// Parts that the order no longer has are replaced by the nearest that it has.
Selection tidied(Selection selection, const Order& order, const TransferSet& set);

}  // namespace orthema::app
