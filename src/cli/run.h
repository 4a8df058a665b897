// What commands begin with: an order with its work; and how they refuse.
#pragma once

#include <string>

#include "files/order_file.h"

namespace orthema {

/// ISO date.
std::string today();

/// Says it on the error stream; the exit code for bad usage or unreadable input.
int complain(const std::string& sentence);
/// … for what could not be written.
int unwritten(const std::string& sentence);

/// What a shop library has and has learned, as of today; nothing of a shop where none is named.
Result<Shop> shop_from(const std::string& library);

/// An order with its work, in the shop whose library is named.
struct OrderRun {
    Shop shop;
    OrderPackage package;
    ReadArt pictures;
    Work work;
};
Result<OrderRun> run_order(const std::string& path, const std::string& library = {}, const Language* language = nullptr);

}  // namespace orthema
