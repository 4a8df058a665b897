// The Sheets bench: pieces settle on film or sheets; they are moved, turned and locked by hand.
#pragma once

#include "app/widgets/speech.h"
#include "app/benches/bench.h"

class QCheckBox;
class QLabel;
class QPushButton;

namespace orthema::app {

class ChipRow;
class FigurePanel;
class FittingLabel;
class LayingPage;
class Segments;
class NumberField;
class PieceList;
class PrintPage;
class Ribbon;
class ShelfPage;
class StockPage;
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
    /// Every medium, each for as long as is chosen.
    void settle_all();
    [[nodiscard]] Ribbon* ribbon() const { return ribbon_; }

private:
    void show_piece();
    void show_page(int page);
    void refresh_page();
    void show_cuts();
    void step_cut(int by);
    void show_compared();
    void send_menu();
    [[nodiscard]] int sheet_in_view() const;  ///< of the chosen piece, or the first that is seen
    ChipRow* media_;
    FittingLabel *title_, *about_, *piece_;
    QLabel* cut_says_;
    QPushButton *settle_, *settle_all_, *turn_, *lock_, *swap_, *send_, *back_, *next_;
    QWidget* cut_bar_;
    Ribbon* ribbon_;
    WholeRoll* roll_;
    FigurePanel *panel_, *sheet_page_;
    LayingPage* laying_;
    StockPage* stock_;
    PrintPage* print_;
    ShelfPage* shelf_;
    Segments* pages_;
    PieceList* pieces_;
    QLabel *used_, *density_, *cut_, *left_, *from_, *cost_, *each_, *reads_, *kept_;
    QPushButton *keep_, *change_over_;
    QCheckBox* kept_outlines_;
    NumberField* seconds_;
    double settle_seconds_ = 8;
    int page_ = 0;
    int cut_sheet_ = 0, cut_at_ = 0;  ///< of the replay
};

}  // namespace orthema::app
