// Ganging: several orders made as one, each still its own: every line, lot and decoration says whose it is, and a job goes out again as
// the order that it was, with what was changed on it meanwhile. Layouts of a gang are laid by core/sheets/ganged.h.
#pragma once

#include "core/base/result.h"
#include "core/order/ids.h"

namespace orthema {

/// Whether the order is a gang of jobs.
inline bool is_gang(const Order& order) { return !order.jobs.empty(); }
/// The order's own id, then those of its jobs.
std::vector<std::string> job_ids(const Order& order);
/// Of a gang the ids of its jobs; else "" alone, which is the order.
std::vector<std::string> jobs_apart(const Order& order);
/// Whether it is the order, or a job of it, that has this id.
inline bool holds_job(const Order& order, const std::string& id) { return order.job == id || find_job(order, id) != nullptr; }

/// These orders as one gang, or the first, which is a gang already, with the others in it. What several have alike is there once; of things
/// that differ under one id both stay, the later under another id (see unlike_copies). A gang's jobs are brought in one by one. Fails where
/// a job is there already. Layouts stay with their jobs; a new gang has none yet.
Result<Order> ganged(const std::vector<Order>& orders, const std::string& id, const std::string& name);

/// A job as an order of its own: with the lines, designs, blanks and media that it has now, its settings of before, and its layouts as
/// they were when it came in. Equal to what it was where nothing was changed. Nothing where there is no such job.
std::optional<Order> job_taken_out(const Order& gang, const std::string& job);

/// The gang without the job and without what it alone brought; of a gang of one the order of its own settings with nothing in it.
Order without_job(const Order& gang, const std::string& job);

/// The job's things by the names that they have in the gang, and back.
struct JobNames {
    std::map<std::string, std::string> to_gang[id_kind_count], to_job[id_kind_count];
};
JobNames names_of(const Job& job);
/// With every id by the map of its kind; ids that a map lacks stay.
Order with_names(Order order, const std::map<std::string, std::string> (&names)[id_kind_count]);

/// Two copies of one thing that jobs brought and that are not alike.
struct UnlikeCopies {
    IdKind kind = IdKind::style;
    std::string first, second;  ///< their ids in the gang
    std::string name;           ///< of the second
    std::string job;            ///< id of the job that brought it
    bool operator==(const UnlikeCopies&) const = default;
};
std::vector<UnlikeCopies> unlike_copies(const Order& gang);
/// With `keep` in place of `drop` for every job.
Order with_one_copy(const Order& gang, IdKind kind, const std::string& keep, const std::string& drop);

/// The gang with other words for a job: name, customer, due, note.
Order with_job_said(const Order& gang, const Job& job);

/// What the gang is to say of its jobs.
Findings gang_findings(const Order& gang);

}  // namespace orthema
