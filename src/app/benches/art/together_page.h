// The page of a print put together: the blank that it fills, its ground, and what lies over it.
#pragma once

#include "app/benches/art/together_view.h"
#include "app/widgets/figures.h"

class QCheckBox;
class QComboBox;

namespace orthema::app {

class TogetherPage : public FigurePanel {
    Q_OBJECT
public:
    TogetherPage(Workroom& room, TogetherView& view);
    void refresh();
    /// A print for the blank that is chosen, or for the first whose whole face is printed; said where there is none.
    static void begin(Workroom& room);

private:
    [[nodiscard]] const Art* art() const;
    void change(const QString& what, const std::function<void(PutTogether&)>& how);
    void change_over(const QString& what, const std::function<void(LaidOver&)>& how);
    void lay_over();
    void raise(std::size_t over, int by);
    void take_off(std::size_t over);
    void take_blank();
    Workroom& room_;
    TogetherView& view_;
    QComboBox *blank_, *face_, *ground_, *plain_, *add_, *which_, *level_, *upright_, *edge_colour_;
    LengthField *bleed_, *clear_, *width_, *across_, *down_, *edge_;
    NumberField *degrees_, *tint_;
    QCheckBox* through_;
    FigurePanel *chosen_, *letters_;
    QPushButton *lay_, *up_, *under_, *off_;
    QLabel* says_;
};

}  // namespace orthema::app
