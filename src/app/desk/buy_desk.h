// The desk's page of what is to be bought for all open orders.
#pragma once

#include <QWidget>

#include "app/session/workroom.h"

class QLabel;
class QPushButton;
class QTableWidget;

namespace orthema::app {

class FigurePanel;

class BuyDesk : public QWidget {
    Q_OBJECT
public:
    explicit BuyDesk(Workroom& room);
    [[nodiscard]] FigurePanel* figures() const { return panel_; }
    void refresh();

private:
    Workroom& room_;
    QTableWidget* table_;
    FigurePanel* panel_;
    QLabel *lacks_, *note_;
    QPushButton* out_;
};

}  // namespace orthema::app
