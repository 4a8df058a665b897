// Dates as days, without a clock: orders say theirs as ISO text.
#pragma once

#include <optional>
#include <string>

#include "core/base/words.h"

namespace orthema {

/// Days since 1970 of "2027-06-12"; nothing where that is no date.
std::optional<long> day_number(const std::string& iso);
/// And back.
std::string iso_day(long number);
/// "12 June 2027", in the language that is read; what is no date comes back as it is.
std::string day_text(const std::string& iso, const Reading& reading);

}  // namespace orthema
