// Selection: what the artist has in hand.
#pragma once

#include <set>
#include <string>

#include "core/pipeline/work.h"

namespace orthema::app {

struct Selection {
    RunKey run;
    std::string decoration, size, art, medium, style;
    std::string job;             ///< of a gang the one that is looked at; empty: all
    int person = -1;             ///< line of the roster whose garment is shown; -1: on each size who is the hardest to fit
    std::set<std::string> also;  ///< sizes that are in hand beside `size`
    /// Whether what is of that job is looked at.
    [[nodiscard]] bool shows(const std::string& of_job) const { return job.empty() || job == of_job; }
    bool operator==(const Selection&) const = default;
};

/// All sizes in hand.
inline std::set<std::string> sizes_in_hand(const Selection& s) {
    std::set<std::string> out = s.also;
    out.insert(s.size);
    return out;
}

/// The runs that are looked at: of a gang those of one job, where one is chosen.
std::vector<RunKey> runs_shown(const Order& order, const Selection& selection);

/// Parts that the order no longer has are replaced by the nearest that it has.
Selection tidied(Selection selection, const Order& order, const TransferSet& set);

}  // namespace orthema::app
