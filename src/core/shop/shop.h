// Shop: what the shop owns and has promised, as it is now: a snapshot that the stages are handed. Media, presses, methods and recipes that
// an order uses are in the order.
#pragma once

#include "core/base/shared.h"
#include "core/shop/stock.h"

namespace orthema {

struct Shop {
    Shared<Stock> stock;         ///< null: nothing is counted
    SharedList<OpenOrder> open;  ///< that are still to be pressed
    std::string today;           ///< ISO date; empty: not said, and nothing is past its time
    bool operator==(const Shop&) const = default;
};

inline const Stock& stock_in(const Shop& shop) {
    static const Stock none;
    return shop.stock ? *shop.stock : none;
}

}  // namespace orthema
