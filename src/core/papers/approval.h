// Approval: what the customer agreed to, and what of it has changed since. Like printed guides, by revisions.
#pragma once

#include "core/fitting/fit.h"

namespace orthema {

/// What a customer sees of a design on one size, in six letters: picture, place, size, garment and its colour.
std::string seen_revision(const Order& order, const Decoration& decoration, const SizeFit& size);
/// What is ordered, of the order or of one job.
std::string list_revision(const Order& order);

/// The order as approved now by somebody on that day; `by` empty: by nobody any more.
Order with_approval(Order order, const FitPlan& plan, const std::string& by, const std::string& at);

struct ApprovalState {
    bool given = false;
    bool list_changed = false;
    std::vector<std::pair<std::string, std::string>> changed;  ///< decoration, and the sizes that differ or came after
    int gone = 0;                                              ///< designs that were approved and are not there any more
    [[nodiscard]] bool holds() const { return given && !list_changed && changed.empty() && gone == 0; }
};
ApprovalState approval_state(const Order& order, const FitPlan& plan);
/// What differs from what was approved; nothing where nobody was asked.
Findings approval_findings(const Order& order, const FitPlan& plan);

}  // namespace orthema
