#include "core/base/dates.h"

#include <array>
#include <chrono>
#include <cstdio>

namespace orthema {

std::optional<long> day_number(const std::string& iso) {
    int y = 0, m = 0, d = 0;
    char rest = 0;
    if (std::sscanf(iso.c_str(), "%4d-%2d-%2d%c", &y, &m, &d, &rest) != 3 || m < 1 || d < 1 || y < 1970 || y > 9999) return std::nullopt;
    const std::chrono::year_month_day date{std::chrono::year(y), std::chrono::month(static_cast<unsigned>(m)),
                                           std::chrono::day(static_cast<unsigned>(d))};
    if (!date.ok()) return std::nullopt;
    return std::chrono::sys_days(date).time_since_epoch().count();
}

std::string iso_day(long number) {
    const std::chrono::year_month_day date{std::chrono::sys_days(std::chrono::days(number))};
    char text[24];
    std::snprintf(text, sizeof text, "%04d-%02u-%02u", static_cast<int>(date.year()), static_cast<unsigned>(date.month()),
                  static_cast<unsigned>(date.day()));
    return text;
}

std::string day_text(const std::string& iso, const Reading& reading) {
    const auto number = day_number(iso);
    if (!number) return iso;
    const std::chrono::year_month_day date{std::chrono::sys_days(std::chrono::days(*number))};
    const std::string month =
        said(reading, std::array{"January", "February", "March", "April", "May", "June", "July", "August", "September", "October",
                                 "November", "December"}[static_cast<unsigned>(date.month()) - 1]);
    return phrase("day", reading,
                  {{"day", std::to_string(static_cast<unsigned>(date.day()))},
                   {"month", month},
                   {"year", std::to_string(static_cast<int>(date.year()))}});
}

}  // namespace orthema
