// Order card: what a desk shows of an order without opening it.
#pragma once

#include <string>
#include <vector>

#include "core/pipeline/work.h"

namespace orthema {

/// How one stage stood when the order was last saved.
struct StageMark {
    Standing standing = Standing::settled;
    bool waiting = true;
    int count = 0;
    bool operator==(const StageMark&) const = default;
};

struct OrderCard {
    std::string job;  ///< the order's id
    std::string name, customer, due;
    int due_at = 17 * 60;  ///< minutes from midnight
    int garments = 0;
    std::vector<StageMark> stages;  ///< beside stages(); none: not looked at yet
    std::string next;               ///< what is to be done next, as a sentence
    std::vector<Want> wants;        ///< of blanks, film and sheets in all
    std::vector<std::string> jobs;  ///< of a gang: ids of the orders that are in it
    std::string saved;              ///< ISO date and time
    bool operator==(const OrderCard&) const = default;
};

OrderCard card_of(const Order& order, const Work& work, const std::string& saved);

/// What of it counts against the stock.
OpenOrder open_of(const OrderCard& card);

/// Days from one ISO date to another; nothing where either is none.
std::optional<long> days_between(const std::string& from, const std::string& to);

/// The order in which a desk lays its cards: late ones first, then by what is due, then those without a date, the last saved first.
bool lies_before(const OrderCard& a, const OrderCard& b);

}  // namespace orthema
