// The press plan from the command line.
#pragma once

#include <string>

namespace orthema {

/// When each load goes into which press, after looking for a shorter plan for so many seconds; the order with that plan agreed to goes to
/// `out`, where one is named. The exit code.
int print_plan(const std::string& path, const std::string& out, double seconds, int people, bool as_json);

}  // namespace orthema
