// Lanes: time from left to right, a lane for each press that is used, for each pair of hands, and for what is cooling.
#pragma once

#include <functional>
#include <map>
#include <set>

#include "app/widgets/canvas.h"
#include "app/session/workroom.h"

namespace orthema::app {

class LanesView : public Canvas {
    Q_OBJECT
public:
    explicit LanesView(Workroom& room);
    /// `now` is where the shift stands, negative where none runs; with another schedule than the room's where one runs.
    void show_plan(const PressPlan* plan, double now);
    void choose(int load);
    [[nodiscard]] int chosen() const { return chosen_; }
    /// The chosen load, and those that Shift and a click, or Shift and an arrow, took in hand with it.
    [[nodiscard]] std::set<int> in_hand() const;
    /// Loads were dragged along their lanes to begin at these seconds.
    std::function<void(const std::map<int, double>& starts)> moved;
    std::function<void(int load)> picked;
    /// Where a load's first visit is drawn, for tests.
    [[nodiscard]] QPoint place_of(int load) const;

    /// The loads of the plan.
    [[nodiscard]] std::vector<CanvasItem> items() override;

protected:
    Drawing draw(double width, double height) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct Row {
        double y = 0, height = 0;
    };
    [[nodiscard]] double x_of(double seconds) const { return left + (seconds - from_) * scale(); }
    [[nodiscard]] double scale() const { return (width() - left - 14) / std::max(1.0, span_); }
    [[nodiscard]] std::vector<int> used_machines() const;
    [[nodiscard]] Row row(std::size_t index, std::size_t count) const;
    [[nodiscard]] int load_at(QPointF at) const;
    void look(double from, double span);
    static constexpr double left = 118, top = 30;
    Workroom& room_;
    const PressPlan* plan_ = nullptr;
    double now_ = -1, from_ = 0, span_ = 1;
    double shown_end_ = 0;
    int chosen_ = -1;
    std::set<int> also_;
    QPointF pressed_;
    double pressed_from_ = 0, drag_ = 0;
    bool dragging_load_ = false, panning_ = false;
};

/// The tone that a decoration has on the lanes and in the lists.
Colour lane_tone(const Order& order, const std::string& decoration);

}  // namespace orthema::app
