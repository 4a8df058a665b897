// Taking in a list: its lines beside those that are there, in their place, or as their newer state; and what that changes.
#pragma once

#include "core/order/order.h"

namespace orthema {

enum class Intake { add, replace, update };

/// The order with the list taken in.
/// add: behind what is there. replace: in place of all lines. update: a line of the list takes the place of the lines with its
/// order number, blank, colour and size; lines whose order number the list no longer has go, as do those of a number that it has
/// but no longer in that size; lines without an order number are matched by their name, and stay where none matches. A line that
/// stays keeps its lot and its pieces' numbers. Designs on runs of which nothing is left stay for undo of the next list.
Order with_list(const Order& order, const std::vector<OrderLine>& list, Intake how);

/// How much of a blank, colour and size is asked for before and after; only where that differs.
struct CountChange {
    RunKey run;  ///< without its lot
    std::string size;
    int before = 0, after = 0;
    bool operator==(const CountChange&) const = default;
};
std::vector<CountChange> list_changes(const Order& before, const Order& after);

}  // namespace orthema
