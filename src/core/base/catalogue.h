// The catalogue: every finding and phrase that the program says, by code.
#pragma once

#include <string_view>
#include <vector>

#include "core/base/finding.h"

namespace orthema {

struct Entry {
    std::string_view code;
    Severity severity;
    std::string_view stage;  ///< where the finding belongs; empty: a phrase within others
    std::string_view text;
};

const std::vector<Entry>& catalogue();
/// Null where the code is not known.
const Entry* find_entry(std::string_view code);

}  // namespace orthema
