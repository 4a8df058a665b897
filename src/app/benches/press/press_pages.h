// The Press bench's figures: how the order is to be pressed, the recipe of a design, and the heat that each layer gets.
#pragma once

#include "app/widgets/figures.h"
#include "app/session/workroom.h"

class QCheckBox;
class QComboBox;

namespace orthema::app {

class PlanPage : public FigurePanel {
    Q_OBJECT
public:
    explicit PlanPage(Workroom& room);
    void show_plan(const PressPlan& plan, int load, const std::set<int>& in_hand);
    /// What can be done with the chosen load.
    void offer(QMenu& menu);

private:
    void change(const QString& what, const std::function<void(PressRun&)>& by);
    Workroom& room_;
    ValueField *start_, *due_, *breaks_;
    NumberField* hands_;
    QCheckBox *share_, *trials_, *film_, *fahrenheit_;
    QLabel *ends_, *bound_, *alone_, *load_, *load_about_;
    QComboBox* press_;
    QPushButton *pin_, *loose_;
    std::map<std::string, double> in_hand_;  ///< loads by id, and when each begins
};

class RecipePage : public FigurePanel {
    Q_OBJECT
public:
    explicit RecipePage(Workroom& room);
    void show_decoration(const Decoration* decoration);

private:
    void change(const std::function<void(RecipeStep&)>& by);
    void keep(std::vector<RecipeStep> steps, const QString& what);
    Workroom& room_;
    std::string decoration_;
    int step_ = 0;
    QLabel *title_, *from_, *limit_, *trials_, *how_whole_;
    QComboBox *steps_, *kind_, *pressure_, *peel_, *came_out_;
    NumberField *heat_, *seconds_, *gauge_;
    ValueField *cover_, *how_;
    QCheckBox* protect_;
    QPushButton *add_, *remove_, *own_;
};

class HeatPage : public FigurePanel {
    Q_OBJECT
public:
    explicit HeatPage(Workroom& room);
    void show_garment(const Decoration* decoration, const std::string& size);

private:
    void sooner(int by);
    Workroom& room_;
    std::string decoration_;
    QLabel *title_, *turns_, *lines_;
    QPushButton *up_, *down_;
};

}  // namespace orthema::app
