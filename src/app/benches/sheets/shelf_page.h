// Shelf page: finished transfers that lie there for this order, in place of printing them; and what this order leaves over for the next.
#pragma once

#include "app/session/workroom.h"
#include "app/widgets/figures.h"

namespace orthema::app {

class ShelfPage : public FigurePanel {
    Q_OBJECT
public:
    explicit ShelfPage(Workroom& room);
    void refresh();

private:
    /// What the chosen job would leave there.
    [[nodiscard]] std::vector<LeftOver> off() const;
    Workroom& room_;
    QLabel *offered_, *promised_, *left_, *called_off_says_;
    QPushButton *use_, *back_, *near_, *lay_, *lay_off_;
    QComboBox *near_which_, *job_;
    FigurePanel *near_part_, *off_part_;
};

}  // namespace orthema::app
