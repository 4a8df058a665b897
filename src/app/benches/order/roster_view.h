// The roster of a lot: who wears which garment, typed, pasted, or as the list brought it.
#pragma once

#include <QWidget>

#include "app/session/workroom.h"

class QLabel;
class QPushButton;
class QTableWidget;

namespace orthema::app {

class ChipRow;

class RosterView : public QWidget {
    Q_OBJECT
public:
    explicit RosterView(Workroom& room);
    void refresh();
    [[nodiscard]] QTableWidget* grid() const { return grid_; }
    /// Persons from text, one a line.
    void take_text(const QString& text);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void take_cell(int row, int column);
    void show_rows();
    Workroom& room_;
    ChipRow* runs_;
    QLabel* says_;
    QTableWidget* grid_;
    QPushButton *each_, *paste_;
    std::vector<std::size_t> lines_;  ///< of the order, row by row
    bool filling_ = false;
};

}  // namespace orthema::app
