// Sharing: the same picture on several blanks can be one transfer where the widths are made equal. Proposed where it
// costs less than a distinct transfer is worth.
#pragma once

#include "core/fitting/fit.h"

namespace orthema {

struct SharingProposal {
    std::string decoration;   ///< whose band is made narrower
    int band = 0;             ///< of its fit
    std::string with;         ///< the decoration that has that width already
    double from = 0, to = 0;  ///< widths, mm
    int quantity = 0;         ///< pieces that become narrower
    double cost = 0;          ///< Σ quantity × ((ideal − to) / ideal)² less the same with `from`
    double worth = 0;         ///< the price of one distinct transfer
};

/// Cheapest first; for each band the best partner only.
std::vector<SharingProposal> sharing_proposals(const Order& order, const FitPlan& plan);

/// The order with a proposal taken: its decoration's bands are set by hand as they are, that one at the shared width.
Order with_sharing(const Order& order, const FitPlan& plan, const SharingProposal& proposal);

}  // namespace orthema
