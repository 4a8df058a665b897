// The Order bench: what is to be pressed, as a picture of the run; lists brought in, lines typed.
#pragma once

#include <QPointer>

#include "app/widgets/speech.h"
#include "app/benches/bench.h"

class QComboBox;
class QLabel;
class QPushButton;

namespace orthema::app {

class FigurePanel;
class JobsPage;
class ListPreview;
class NumberField;
class PapersPage;
class PricePage;
class RosterView;
class RunPicture;
class Segments;
class ValueField;

class OrderBench : public Bench {
    Q_OBJECT
public:
    explicit OrderBench(Workroom& room);
    QWidget* figures() override;
    void refresh() override;
    QWidget* first_focus() override;
    [[nodiscard]] QString word() const override;
    [[nodiscard]] QString help() const override;
    void go(const Subject& about) override;
    /// Asks which list, and shows its preview.
    void ask_for_list();
    /// Reads a list and shows its preview.
    void bring_in_list(const QString& path);
    [[nodiscard]] RunPicture* picture() const { return picture_; }
    [[nodiscard]] ListPreview* preview() const;
    [[nodiscard]] RosterView* roster() const { return roster_; }

private:
    void add_run();
    void show_colours();
    void build_lots();
    void part_lot();
    void run_menu(QPoint at);
    RunPicture* picture_;
    void show_page(int page);
    /// The run by size, or its roster.
    void show_roster(bool on);
    QLabel* title_;
    Segments* views_;
    QWidget* by_size_;
    RosterView* roster_;
    FigurePanel *whole_, *panel_;
    Segments* pages_;
    JobsPage* jobs_;
    PricePage* price_;
    PapersPage* papers_;
    NumberField* hourly_;
    ValueField *name_, *due_, *currency_;
    Segments* paper_;
    QLabel *chosen_, *total_, *notes_;
    NumberField* quantity_;
    QComboBox *blank_, *colour_;
    QComboBox* parting_ = nullptr;
    ValueField* lot_name_ = nullptr;
    QPushButton *part_ = nullptr, *join_ = nullptr, *take_out_ = nullptr;
    FigurePanel* kept_out_ = nullptr;
    QLabel* kept_out_says_ = nullptr;
    QPointer<ListPreview> preview_;
};

}  // namespace orthema::app
