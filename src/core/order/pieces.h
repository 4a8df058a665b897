// Pieces: every garment of an order has a number among those of its blank, colour and size (in a gang, of its job), which it keeps while it
// is ordered: lots are parted and joined, quantities change, and what was recorded of a piece is still of that piece.
#pragma once

#include "core/order/order.h"

namespace orthema {

/// With a number for the pieces of every line that has none, or has one that an earlier line uses. Numbers that are there stay.
Order numbered(Order order);

/// The numbers of a lot's pieces in one size, in the order of its lines; counted up from 1 where lines are not numbered.
std::vector<int> piece_numbers(const Order& order, const RunKey& run, const std::string& size);

}  // namespace orthema
