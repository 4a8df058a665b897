// The Blanks bench: the garments of the shop library, their figures and where each came from.
#pragma once

#include <map>

#include "app/shell/bench.h"
#include "core/blanks/style.h"

class QLabel;

namespace orthema::app {

class ChipRow;
class FigurePanel;
class LengthField;
class TapeDrawing;

class BlanksBench : public Bench {
    Q_OBJECT
public:
    explicit BlanksBench(Workroom& room);
    QWidget* figures() override;
    void refresh() override;
    QWidget* first_focus() override;
    [[nodiscard]] QString word() const override;
    [[nodiscard]] QString help() const override;
    [[nodiscard]] TapeDrawing* drawing() const { return drawing_; }

private:
    void tape(Measure measure, Length value);
    void back_to_published();
    ChipRow *styles_, *sizes_;
    TapeDrawing* drawing_;
    FigurePanel* panel_;
    QLabel *title_, *fabric_, *differs_;
    QWidget* rows_;
    std::map<Measure, std::pair<QWidget*, LengthField*>> fields_;
    std::map<Measure, QLabel*> sources_;
};

}  // namespace orthema::app
