// Step card: what the hand at the press does now, to be read at two metres: the verb, the piece, the count, the heat, where
// it lies on the platen, and what to mind.
#pragma once

#include "app/widgets/canvas.h"
#include "app/benches/press/press_desk.h"

namespace orthema::app {

class StepCard : public Canvas {
    Q_OBJECT
public:
    StepCard(Workroom& room, const PressDesk& desk);

protected:
    Drawing draw(double width, double height) override;
    Drawing card(double width, double height, bool dark);
    void mousePressEvent(QMouseEvent* event) override;

private:
    double draw_count(Drawing& d, const Countdown& c, double x, double y, double width, bool low);
    void draw_deed(Drawing& d, const Act& card, double width, double height);
    void draw_sheets(Drawing& d, const Load& load, double x, double room, double height);
    void draw_place(Drawing& d, const Act& card, double x, double width, double height);
    Workroom& room_;
    const PressDesk& desk_;
};

/// The caution that stands at this step, or nothing: hot metal, breaking ceramic, fumes.
std::string step_caution(const Order& order, const Load& load, ActKind kind);
/// "Press 12 s", "Peel cool", "Load": the words of a card.
std::string card_words(const PressPlan& plan, const Act& act);
/// What is done there, in a sentence.
std::string card_how(const Order& order, const PressPlan& plan, const Act& act);

}  // namespace orthema::app
