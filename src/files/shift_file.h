// A shift under way as it is kept on disk, so that neither a lost program nor the end of the day loses what is pressed.
#pragma once

#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/pressing/shift.h"

namespace orthema {

struct KeptShift {
    std::string order;                ///< whose it is, by name
    std::string id;                   ///< tells it from every other shift: its records bear it
    std::vector<std::string> trials;  ///< loads of it that were trials: the plan was split so
    bool rehearsal = false;
    double speed = 1;
    int loads = 0, loads_done = 0;
    ShiftRecord record;
};

/// As JSON; docs/order-format.md has its form.
std::string shift_json(const KeptShift& shift);
/// Fails with a sentence where the text is no shift, or damaged.
Result<KeptShift> shift_from(const std::string& text);

}  // namespace orthema
