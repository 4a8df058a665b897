// The Press bench: the plan as lanes of time, the step card of a running shift, and what each load needs.
#pragma once

#include "app/widgets/speech.h"
#include "app/benches/bench.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QStackedWidget;

class QShortcut;

namespace orthema::app {

class FigurePanel;
class HeatPage;
class HeldRuns;
class LanesView;
class MeasureCard;
class PickList;
class PlanPage;
class PressDesk;
class RecipePage;
class Segments;
class StepCard;

class PressBench : public Bench {
    Q_OBJECT
public:
    explicit PressBench(Workroom& room);
    ~PressBench() override;
    QWidget* figures() override;
    void refresh() override;
    QWidget* first_focus() override;
    [[nodiscard]] QString word() const override;
    [[nodiscard]] QString help() const override;
    [[nodiscard]] PressDesk& desk() { return *desk_; }
    [[nodiscard]] LanesView* lanes() const { return lanes_; }
    [[nodiscard]] StepCard* card() const { return card_; }
    [[nodiscard]] MeasureCard* measure() const { return measure_; }

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    void show_view(int view);
    void show_summary();
    void begin();
    void fault_menu();
    PressDesk* desk_;
    LanesView* lanes_;
    StepCard* card_;
    PickList* picks_;
    QStackedWidget* middle_;
    Segments *views_, *pages_;
    QLabel* summary_;
    QComboBox* speed_;
    QPushButton *begin_, *go_on_, *take_in_, *better_, *next_, *back_, *pause_, *skip_, *fault_;
    HeldRuns* held_;
    MeasureCard* measure_;
    QComboBox *hand_, *rule_;
    QLineEdit* marks_;
    QWidget* keys_;
    std::vector<QShortcut*> card_keys_;
    FigurePanel* panel_;
    PlanPage* plan_page_;
    RecipePage* recipe_page_;
    HeatPage* heat_page_;
    int page_ = 0;
};

}  // namespace orthema::app
