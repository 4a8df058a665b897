// The Fit bench: the size wall, the ladder under it, and the figures and rule of what is chosen.
#pragma once

#include "app/shell/bench.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QPushButton;

namespace orthema::app {

class ChipRow;
class FigurePanel;
class FitWall;
class Ladder;
class LengthField;
class NumberField;
class Segments;

class FitBench : public Bench {
    Q_OBJECT
public:
    explicit FitBench(Workroom& room);
    QWidget* figures() override;
    void refresh() override;
    QWidget* first_focus() override;
    [[nodiscard]] QString word() const override;
    [[nodiscard]] QString help() const override;
    [[nodiscard]] FitWall* wall() const { return wall_; }

private:
    void build_figures();
    void build_rule();
    void build_made_with();
    /// Changes the chosen decoration.
    void change(const QString& what, const std::function<void(Decoration&)>& how);
    void move_by(double right, double down, bool pin);
    ChipRow *runs_, *decorations_;
    QLabel *school_, *disagree_;
    FitWall* wall_;
    Ladder* ladder_;
    FigurePanel* panel_;
    QLabel *title_, *height_, *sides_, *hem_, *held_, *short_;
    LengthField *width_, *collar_, *pit_;
    Segments *reach_, *sizing_, *placing_, *centre_;
    LengthField *base_width_, *step_;
    NumberField *exponent_, *price_, *growth_, *spares_;
    QLabel* bands_says_;
    QComboBox *medium_, *press_, *location_;
    QPushButton* unpin_;
};

}  // namespace orthema::app
