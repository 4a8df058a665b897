// What commands begin with: an order with its work; and how they refuse.
#pragma once

#include <string>

#include "files/order_file.h"

namespace orthema {

/// Says it on the error stream; the exit code for bad usage or unreadable input.
int complain(const std::string& sentence);

/// An order with its work.
struct OrderRun {
    OrderPackage package;
    ReadArt pictures;
    Work work;
};
Result<OrderRun> run_order(const std::string& path);

}  // namespace orthema
