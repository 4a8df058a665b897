// What needs libraries that are slow to load: packing orders, reading spreadsheets. It lives in a module of its own that
// is loaded when the first of these is wanted, since loading them takes longer than showing the window.
#pragma once

#include "files/list.h"
#include "files/order_file.h"

namespace orthema::heavy {

Result<OrderPackage> open_order(const std::string& path);
Result<Done> save_order(const std::string& path, const Order& order, const ArtBytes& art, const OrderRecords& records);
Result<std::vector<SheetRows>> read_spreadsheet(const std::string& bytes);

/// The module's one door.
struct Door {
    decltype(&heavy::open_order) open_order;
    decltype(&heavy::save_order) save_order;
    decltype(&heavy::read_spreadsheet) read_spreadsheet;
};

}  // namespace orthema::heavy
