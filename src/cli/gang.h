// The commands that lay orders together and take one out again.
#pragma once

#include <string>
#include <vector>

namespace orthema {

/// Both give the program's exit code.
int gang_orders(const std::vector<std::string>& orders, const std::string& out, const std::string& name, bool as_json);
int take_job_out(const std::string& gang, const std::string& job, const std::string& out, const std::string& rest, bool as_json);
/// What each job of an order comes to.
int print_costs(const std::string& order, bool as_json);

}  // namespace orthema
