// Selection: what the artist has in hand.
#pragma once

#include <set>
#include <string>

#include "core/pipeline/work.h"

namespace orthema::app {

struct Selection {
    RunKey run;
    std::string decoration, size, art, medium, style;
    std::set<std::string> also;  ///< sizes that are in hand beside `size`
    bool operator==(const Selection&) const = default;
};

/// All sizes in hand.
inline std::set<std::string> sizes_in_hand(const Selection& s) {
    std::set<std::string> out = s.also;
    out.insert(s.size);
    return out;
}

/// Parts that the order no longer has are replaced by the nearest that it has.
Selection tidied(Selection selection, const Order& order, const TransferSet& set);

}  // namespace orthema::app
