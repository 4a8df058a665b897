// A press plan for other hands: as a table, as a calendar, and as a pick list.
#pragma once

#include <string>

#include "core/guides/run_sheet.h"

namespace orthema {

/// One row a load and visit, in time order: time of day, press, what is done, pieces, heat, pressure, hands.
std::string press_plan_csv(const Order& order, const PressPlan& plan);
/// One row for loads of a design and size in a row: blanks and transfers to lay ready.
std::string pick_csv(const Order& order, const FitPlan& fit, const PressPlan& plan);
/// iCalendar (RFC 5545): the pressing, its breaks and its due time on the due day; nothing without a due date.
std::optional<std::string> press_ics(const Order& order, const FitPlan& fit, const PressPlan& plan);

}  // namespace orthema
