// What waits for a trial that did not come out: what to try next, one figure changed, or to go on knowingly.
#pragma once

#include <QFrame>

#include <vector>

class QHBoxLayout;
class QLabel;
class QPushButton;

namespace orthema::app {

class PressDesk;
class Workroom;

class HeldRuns : public QFrame {
    Q_OBJECT
public:
    HeldRuns(Workroom& room, PressDesk& desk);
    /// Shows the first run that is held, or hides.
    void refresh();

private:
    Workroom& room_;
    PressDesk& desk_;
    QLabel* says_;
    QHBoxLayout* row_;
    std::vector<QPushButton*> tries_;
    QPushButton* go_on_;
    std::string trial_, shown_;
};

}  // namespace orthema::app
