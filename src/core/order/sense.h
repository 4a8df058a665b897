// What an order says that cannot be meant: names of what is not there, heat that no press has, dates that are none.
#pragma once

#include "core/order/order.h"

namespace orthema {

/// No press for this work is set hotter or closed longer; what asks for more is a slip of the hand.
constexpr double hottest = 260, longest_step = 3600;
/// Narrower or shorter than this no medium is fed.
constexpr double least_medium = 20;

Findings sense_findings(const Order& order);

}  // namespace orthema
