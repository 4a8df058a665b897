// Shop: what the shop owns and has promised, as it is now: a snapshot that the stages are handed. Media, presses, methods and recipes that
// an order uses are in the order.
#pragma once

#include <map>
#include <string>

#include "core/base/shared.h"
#include "core/shop/stock.h"

namespace orthema {

struct Shop {
    Shared<Stock> stock;                         ///< null: nothing is counted
    SharedList<OpenOrder> open;                  ///< that are still to be pressed
    std::string today;                           ///< ISO date; empty: not said, and nothing is past its time
    std::map<std::string, double> spoiled = {};  ///< share of a blank style that is usually spoiled, by its id
    bool operator==(const Shop&) const = default;
};

inline const Stock& stock_in(const Shop& shop) {
    static const Stock none;
    return shop.stock ? *shop.stock : none;
}

}  // namespace orthema
