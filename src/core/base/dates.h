// Dates as days, without a clock: orders say theirs as ISO text.
#pragma once

#include <optional>
#include <string>

namespace orthema {

/// Days since 1970 of "2027-06-12"; nothing where that is no date.
std::optional<long> day_number(const std::string& iso);
/// And back.
std::string iso_day(long number);

}  // namespace orthema
