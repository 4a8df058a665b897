// The Guides bench: the card and the 1:1 template of each size and location, as they will print.
#pragma once

#include "app/shell/bench.h"

class QLabel;
class QPushButton;

namespace orthema::app {

class ChipRow;
class FigurePanel;
class GuideView;
class Segments;

class GuidesBench : public Bench {
    Q_OBJECT
public:
    explicit GuidesBench(Workroom& room);
    QWidget* figures() override;
    void refresh() override;
    QWidget* first_focus() override;
    [[nodiscard]] QString word() const override;
    [[nodiscard]] QString help() const override;

private:
    ChipRow *decorations_, *sizes_;
    Segments *what_, *paper_;
    GuideView* view_;
    FigurePanel* panel_;
    QLabel *title_, *pages_, *lines_;
    QPushButton* write_;
};

}  // namespace orthema::app
