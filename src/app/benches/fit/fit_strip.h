// The strip under the wall: ladder, cost of bands, or drift of the schools.
#pragma once

#include "app/widgets/canvas.h"
#include "app/session/workroom.h"

namespace orthema::app {

class FitStrip : public Canvas {
    Q_OBJECT
public:
    enum class Show { ladder, cost, drift };
    explicit FitStrip(Workroom& room);
    void set_show(Show show);
    std::function<void(int bands)> count_wanted;  ///< a column of the cost curve was clicked

protected:
    Drawing draw(double width, double height) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    Workroom& room_;
    Show show_ = Show::ladder;
};

}  // namespace orthema::app
