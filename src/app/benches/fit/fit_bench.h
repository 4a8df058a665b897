// The Fit bench: the size wall, the strips under it, and the figures and rule of what is chosen.
#pragma once

#include "app/widgets/speech.h"
#include "app/benches/bench.h"
#include "core/fitting/sharing.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QPushButton;

namespace orthema::app {

class ChipRow;
class FigurePanel;
class FitWall;
class FittingLabel;
class FitStrip;
class LotsPage;
class MakingPages;
class MakingView;
class LengthField;
class NumberField;
class PersonRow;
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
    [[nodiscard]] LotsPage* lots_page() const { return lots_page_; }
    [[nodiscard]] FitStrip* strip() const { return strip_; }
    [[nodiscard]] MakingView* making() const { return making_; }

private:
    void build_size();
    void build_place();
    void build_press();
    void show_page(int page);
    /// The size wall, or the making of the chosen decoration.
    void show_making(bool on);
    void refresh_size(const Decoration& d, const DecorationFit& fit, const SizeFit& on);
    void refresh_place(const Decoration& d, const DecorationFit& fit, const SizeFit& on);
    void refresh_press(const Decoration& d, const DecorationFit& fit, const SizeFit& on);
    /// Changes the chosen decoration.
    void change(const QString& what, const std::function<void(Decoration&)>& how);
    /// Moves the sizes in hand, each by what it is given, mm to the right and down.
    void move_by(const std::function<Point(const SizeFit&)>& by, bool pin);
    [[nodiscard]] const SizeFit* chosen_size() const;
    [[nodiscard]] const Panel* chosen_panel() const;
    ChipRow *runs_, *decorations_;
    QLabel* school_;
    FittingLabel* disagree_;
    QPushButton *lots_look_, *ghosts_, *platen_look_, *balance_look_;
    FitWall* wall_;
    FitStrip* strip_;
    Segments *strip_choice_, *look_;
    MakingView* making_;
    MakingPages* making_pages_;
    QWidget *wall_side_, *wall_figures_;
    bool making_shown_ = false;
    FigurePanel* panel_;
    FigurePanel* pages_[3];
    LotsPage* lots_page_;
    PersonRow* person_;
    QLabel* title_;
    Segments *reach_, *page_;
    // size
    QLabel *height_, *held_, *short_, *bands_says_, *share_says_;
    LengthField *width_, *base_width_, *step_;
    Segments* sizing_;
    QComboBox* measure_;
    NumberField *exponent_, *within_, *count_, *spares_;
    QPushButton *unpin_, *share_;
    // place
    QLabel *sides_, *bottom_, *below_, *balance_, *exact_, *meet_says_, *no_marks_;
    FigurePanel* meetings_;
    LengthField *top_, *pit_, *across_, *offset_, *apart_;
    Segments *placing_, *centre_;
    NumberField* growth_;
    QComboBox *landmark_, *meet_mark_, *meet_line_;
    QPushButton *meet_, *meet_now_, *part_;
    // press
    QComboBox *location_, *medium_, *press_;
    QComboBox* picture_ = nullptr;
    QLabel* follows_ = nullptr;
    QLabel *platen_says_, *pad_says_;
    QCheckBox* past_platen_;
    std::vector<Location> locations_;
    std::optional<SharingProposal> proposal_;
};

}  // namespace orthema::app
