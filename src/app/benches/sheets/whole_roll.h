// The whole roll in small under the ribbon.
#pragma once

#include "app/benches/sheets/ribbon.h"

namespace orthema::app {

/// The whole roll in small, and how the film used fell over time.
class WholeRoll : public Canvas {
    Q_OBJECT
public:
    WholeRoll(Workroom& room, Ribbon& ribbon, QWidget* parent = nullptr);

protected:
    Drawing draw(double width, double height) override;
    std::string backdrop_key() override;
    Drawing draw_backdrop(double width, double height) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;

private:
    void go(double x);
    Workroom& room_;
    Ribbon& ribbon_;
};

}  // namespace orthema::app
