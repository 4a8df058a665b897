// What people type: days and times of day, in the ways that they write them.
#pragma once

#include <QString>

#include <optional>

namespace orthema::app {

/// "2027-06-12", "12 June 2027", "12.6.2027" as an ISO date; empty for no date; nothing where it is none.
std::optional<QString> iso_date(const QString& text);

/// "8:00" or "8" as minutes from midnight; nothing where it is no time.
std::optional<int> minutes_from(const QString& text);
/// And back: "8:00".
QString clock_words(int minutes);

}  // namespace orthema::app
