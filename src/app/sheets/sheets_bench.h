// The Sheets bench: pieces settle on film or sheets; they are moved, turned and locked by hand.
#pragma once

#include "app/shell/bench.h"

class QLabel;
class QPushButton;

namespace orthema::app {

class ChipRow;
class FigurePanel;
class LengthField;
class Segments;
class NumberField;
class PieceList;
class Ribbon;
class WholeRoll;

class SheetsBench : public Bench {
    Q_OBJECT
public:
    explicit SheetsBench(Workroom& room);
    QWidget* figures() override;
    void refresh() override;
    QWidget* first_focus() override;
    [[nodiscard]] QString word() const override;
    [[nodiscard]] QString help() const override;
    [[nodiscard]] Ribbon* ribbon() const { return ribbon_; }

private:
    void change_medium(const QString& what, const std::function<void(Medium&)>& how);
    void show_piece();
    ChipRow* media_;
    QLabel *title_, *about_;
    QPushButton *settle_, *turn_, *lock_;
    Ribbon* ribbon_;
    WholeRoll* roll_;
    FigurePanel* panel_;
    PieceList* pieces_;
    QLabel *used_, *density_, *cut_, *left_, *cost_, *each_, *reads_, *piece_;
    LengthField *gap_, *margin_;
    Segments* turns_;
    NumberField* seconds_;
    double settle_seconds_ = 8;
};

}  // namespace orthema::app
