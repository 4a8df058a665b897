// The joining guide: where single digits stand when a number is put together at the press.
#pragma once

#include "core/guides/guides.h"

namespace orthema {

/// Every number of every lettering of single digits, by size, with the left edge of each digit from the centre line. None where no
/// lettering is put together so.
std::vector<GuidePage> joining_pages(const Order& order, const FitPlan& plan);

}  // namespace orthema
