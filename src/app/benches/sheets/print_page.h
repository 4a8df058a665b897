// The simulated film printer and cutter, for the sheet in view: a page of the Sheets bench's figures.
#pragma once

#include "app/widgets/figures.h"
#include "app/session/workroom.h"

class QCheckBox;
class QComboBox;

namespace orthema::app {

class PrintPage : public FigurePanel {
    Q_OBJECT
public:
    explicit PrintPage(Workroom& room);
    void refresh();

private:
    [[nodiscard]] const Sheet* sheet() const;
    Workroom& room_;
    QComboBox *sheets_, *dpi_;
    QCheckBox *mirrors_, *fails_;
    LengthField* after_;
    QPushButton *print_, *cut_, *again_;
    QLabel *says_, *printed_;
    Length fails_after_ = Length::from_mm(300);
};

}  // namespace orthema::app
