#pragma once

#include "core/pressing/schedule.h"

namespace orthema {

/// Seconds, at least, in which a single pair of hands stands idle before closed presses whatever the plan.
double stood_before(const Workshop& shop);

}  // namespace orthema
