// Ganging with layouts: core/order/gang.h for what is ordered and core/sheets/ganged.h for what lies on the sheets, in one.
#pragma once

#include "core/order/gang.h"
#include "core/pipeline/work.h"

namespace orthema {

/// The gang with the sheets of each job that `before` lacks behind those that are there.
Order with_new_jobs_laid(const Order& gang, const Order& before, const Shared<KnownArt>& art);

/// These orders as one gang, each job's sheets behind those of the one before. `art` is that of the gang (its art ids: gang_art).
Result<Order> ganged_and_laid(const std::vector<Order>& orders, const std::string& id, const std::string& name,
                              const Shared<KnownArt>& art);

/// The pictures of several orders under the ids that they have in the gang of them.
Shared<KnownArt> gang_art(const Order& gang, const std::vector<std::pair<std::string, Shared<KnownArt>>>& by_job);

/// A job as an order of its own, with its sheets.
std::optional<Order> job_apart(const Order& gang, const std::string& job, const TransferSet& set);
/// The gang without it: the others' pieces lie where they lay.
Order gang_without(const Order& gang, const std::string& job, const TransferSet& set);

}  // namespace orthema
