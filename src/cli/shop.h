// Commands about the shop: its stock, what is to be bought, what an order costs the customer, backup and restoring.
#pragma once

#include <string>

namespace orthema {

/// The stock of a shop library; counts in from a table first, where one is named.
int print_stock(const std::string& library, const std::string& count_from, const std::string& out, bool to_buy, bool as_json);
/// What each line costs and is sold for; as a PDF where a file is named.
int print_quote(const std::string& order, const std::string& shop, const std::string& job, const std::string& pdf, bool what_if,
                bool as_json);
int back_up(const std::string& library, const std::string& to, bool as_json);
int restore(const std::string& backup, const std::string& library, const std::string& folder, bool as_json);

}  // namespace orthema
