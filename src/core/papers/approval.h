// Approval: what the customer agreed to, and what of it has changed since. Like printed guides, by revisions.
#pragma once

#include "core/fitting/fit.h"

namespace orthema {

/// What the customer of the order, or of that job of a gang, agreed to. A job's is kept with the job, under its own names: it comes with
/// it into a gang and leaves with it.
const Approval& approval_of(const Order& order, const std::string& job = {});

/// The order, or a job of it, as approved now by somebody on that day; `by` empty: by nobody any more. Of a gang without a job: each.
Order with_approval(Order order, const FitPlan& plan, const std::string& by, const std::string& at, const std::string& job = {});

struct ApprovalState {
    bool given = false;
    bool list_changed = false;
    std::vector<std::pair<std::string, std::string>> changed;  ///< decoration, and the sizes that differ or came after
    int gone = 0;                                              ///< designs that were approved and are not there any more
    [[nodiscard]] bool holds() const { return given && !list_changed && changed.empty() && gone == 0; }
};
/// Of the order, or of a job of a gang.
ApprovalState approval_state(const Order& order, const FitPlan& plan, const std::string& job = {});
/// What differs from what was approved; nothing where nobody was asked.
Findings approval_findings(const Order& order, const FitPlan& plan);

}  // namespace orthema
