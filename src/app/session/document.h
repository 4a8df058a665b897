// Document: the order on the table and its earlier values. Editing is giving it another order; undo is the earlier one.
#pragma once

#include <QObject>
#include <QString>

#include <vector>

#include "core/order/order.h"

namespace orthema::app {

class Document : public QObject {
    Q_OBJECT
public:
    using QObject::QObject;
    [[nodiscard]] const Order& order() const { return order_; }
    /// Replaces the order. Edits of the same non-empty gesture are one step for undo, until end_gesture().
    void edit(const QString& what, Order next, const QString& gesture = {});
    void end_gesture() { gesture_.clear(); }
    [[nodiscard]] bool can_undo() const { return !past_.empty(); }
    [[nodiscard]] bool can_redo() const { return !future_.empty(); }
    [[nodiscard]] QString undo_what() const { return past_.empty() ? QString() : past_.back().what; }
    void undo() { step(past_, future_); }
    void redo() { step(future_, past_); }

    [[nodiscard]] bool changed_since_saved() const { return order_ != saved_; }
    void saved_as(Order order) { saved_ = std::move(order); }
    /// Another order altogether, without a past. `saved` is what it is on disk.
    void take_over(Order order, Order saved);

signals:
    /// Before the order is another one; the gesture says who asks.
    void about_to_change(const QString& gesture);
    void changed(const Order& before);
    /// An edit that would make more of the order than it holds.
    void refused(const QString& sentence);

private:
    struct Step {
        Order order;
        QString what;
    };
    void step(std::vector<Step>& from, std::vector<Step>& to);
    Order order_, saved_;
    std::vector<Step> past_, future_;
    QString gesture_;
};

}  // namespace orthema::app
