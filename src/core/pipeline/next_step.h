// What next: the one thing that moves the order on, as seen from a bench; on the desk, the order that comes first.
#pragma once

#include <functional>
#include <optional>

#include "core/pipeline/order_card.h"

namespace orthema {

/// What is done about it: a bench is gone to, or the window begins something there.
enum class Deed { go, list, pictures, put_on, settle, send_out, shift, lessons, take_up, buy };

struct NextStep {
    Words words;  ///< of the button
    Words why;
    std::optional<Finding> finding;  ///< that it is about: says why in place of `why`
    Deed deed = Deed::go;
    Subject about;  ///< its stage is where the deed is done
    bool operator==(const NextStep&) const = default;
};

/// What the order itself does not hold.
struct NextAsked {
    std::string stage;                                      ///< of the bench that is looked at
    bool running = false;                                   ///< a shift
    std::function<bool()> sent_out = [] { return false; };  ///< exported as it is now; asked only where it matters, and so the next
    std::function<bool()> pressed = [] { return false; };   ///< its records have begun
    int lessons = 0;                                        ///< corrections that the records propose
    std::function<bool(const Finding&)> seen = {};          ///< put away as seen; none: nothing is
};

/// In this order: what is lacking or stopped, in the order of the stages; what the stage that is looked at is cautioned of, then those
/// after it; then the order goes out, is pressed, and teaches. Nothing where there is nothing left to do.
std::optional<NextStep> next_step(const Order& order, const Work& work, const NextAsked& asked);

/// Of the orders that are not put away: the one that lies first on the desk is taken up; but first what it lacks is bought. Those that lie
/// in a gang are made with it. Nothing where there is no order.
std::optional<NextStep> next_order(const std::vector<OrderCard>& cards, const std::function<bool(const std::string& job)>& lacks);

}  // namespace orthema
