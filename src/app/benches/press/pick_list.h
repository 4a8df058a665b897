// The pick list: blanks and transfers by load, in the order in which the presses want them.
#pragma once

#include <functional>

#include "app/widgets/canvas.h"
#include "app/session/workroom.h"
#include "core/guides/run_sheet.h"

namespace orthema::app {

class PickList : public Canvas {
    Q_OBJECT
public:
    explicit PickList(Workroom& room);
    void show_rows(std::vector<PickRow> rows, double now);
    std::function<void(int load)> picked;

protected:
    Drawing draw(double width, double height) override;
    void wheelEvent(QWheelEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void scroll(double by);
    [[nodiscard]] int rows_in_view() const;
    static constexpr double row_height = 30, top = 34;
    Workroom& room_;
    std::vector<PickRow> rows_;
    double now_ = -1;
    double first_ = 0;
    int chosen_ = -1;
};

}  // namespace orthema::app
