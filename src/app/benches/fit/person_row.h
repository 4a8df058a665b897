// Whose garment is shown: the persons of a lot's roster, the hardest to fit first.
#pragma once

#include "app/session/workroom.h"
#include "app/widgets/figures.h"

namespace orthema::app {

class PersonRow : public FigurePanel {
    Q_OBJECT
public:
    explicit PersonRow(Workroom& room);
    /// Comes and goes with the roster of the lot that is in hand.
    void refresh();

private:
    void step(int by);
    void show_person(int line);
    Workroom& room_;
    QComboBox* who_;
    LengthField* letters_;
};

}  // namespace orthema::app
