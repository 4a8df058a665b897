// The lots of the order as small garments to tick: those that carry a design, those that could, and why the others cannot.
#pragma once

#include "app/session/workroom.h"
#include "app/widgets/canvas.h"

namespace orthema::app {

class LotTicks : public Canvas {
    Q_OBJECT
public:
    explicit LotTicks(Workroom& room, QWidget* parent = nullptr);
    /// Makes room for all lots; call before refresh().
    void count_lots();
    /// Middle of a lot's tick, for tests.
    [[nodiscard]] QPoint tick_at(const RunKey& run) const;
    std::function<void(const RunKey&, bool on)> ticked;

protected:
    Drawing draw(double width, double height) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

private:
    void turn(int row);
    Workroom& room_;
    int caret_ = 0;
};

/// The decoration on a run that is of the same design: under the same rule, or loose with the same art at the same place.
const Decoration* same_design_on(const Order& order, const Decoration& decoration, const RunKey& run);

}  // namespace orthema::app
