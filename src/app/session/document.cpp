#include "app/session/document.h"

#include <utility>

#include "app/widgets/figures.h"
#include "app/widgets/speech.h"
#include "core/order/limits.h"

namespace orthema::app {

namespace {
constexpr std::size_t most_steps = 200;
}

void Document::edit(const QString& what, Order next, const QString& gesture) {
    next.unit.language = language_spoken();
    if (next == order_) return;
    if (const auto fault = over_limit(next, &order_)) {
        emit refused(qt(worded(*fault, order_.unit)));
        emit changed(order_);  // what was typed is shown no longer
        return;
    }
    emit about_to_change(gesture);
    if (gesture.isEmpty() || gesture != gesture_) {
        past_.push_back({order_, what});
        if (past_.size() > most_steps) past_.erase(past_.begin());
    }
    gesture_ = gesture;
    future_.clear();
    const Order before = std::exchange(order_, std::move(next));
    emit changed(before);
}

/// Takes the last step of one pile and lays the present on the other.
void Document::step(std::vector<Step>& from, std::vector<Step>& to) {
    if (from.empty()) return;
    emit about_to_change({});
    gesture_.clear();
    Step last = std::move(from.back());
    from.pop_back();
    const Order before = std::exchange(order_, std::move(last.order));
    to.push_back({before, last.what});
    emit changed(before);
}

void Document::take_over(Order order, Order saved) {
    order.unit.language = saved.unit.language = language_spoken();
    order_ = std::move(order);
    saved_ = std::move(saved);
    past_.clear();
    future_.clear();
    gesture_.clear();
}

}  // namespace orthema::app
