// The desk: the shop's orders as cards, and what is done with whole orders: begun, opened, laid together, put away.
#pragma once

#include <QWidget>

#include "app/session/workroom.h"
#include "core/pipeline/next_step.h"

class QCheckBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QStackedWidget;

namespace orthema::app {

class CardWall;
class BuyDesk;
class FigurePanel;
class Segments;
class ShelfDesk;
class StockDesk;

class Desk : public QWidget {
    Q_OBJECT
public:
    explicit Desk(Workroom& room);
    [[nodiscard]] QWidget* figures();
    void refresh();
    /// The order that comes first.
    [[nodiscard]] std::optional<NextStep> next() const;
    /// Lays an order on the table.
    void open(const std::string& job);
    [[nodiscard]] CardWall* wall() const { return wall_; }
    [[nodiscard]] StockDesk* stock() const { return stock_; }
    [[nodiscard]] ShelfDesk* shelf() const { return shelf_; }
    /// Orders, stock, shelf, or what is to be bought.
    void show_page(int page);
    [[nodiscard]] QWidget* first_focus() const;
    [[nodiscard]] QString help() const;
    /// An order of its own from a list or a picture: what is open may be another's.
    void begin_with(const QString& path);
    /// The cards' dates are told from this day (ISO); the clock's own where none is given.
    void set_today(const std::string& iso) { today_ = iso; }

signals:
    /// A new order lies on the table: the benches are wanted.
    void leaving();
    /// A list or pictures are to be brought in.
    void bring_in(const QStringList& paths);

private:
    void show_chosen();
    void scanned();
    [[nodiscard]] std::string today() const;
    void menu(QPoint where);
    void open_current();
    void gang_chosen();
    void begin_like();
    QWidget* build_beginning();
    [[nodiscard]] QStringList chosen_paths() const;
    Workroom& room_;
    CardWall* wall_;
    FigurePanel *panel_, *details_;
    QStackedWidget *stack_, *pages_, *panels_;
    Segments* parts_;
    StockDesk* stock_;
    ShelfDesk* shelf_;
    BuyDesk* buy_;
    QCheckBox* scan_;
    QLineEdit* find_;
    QPushButton *open_, *gang_, *like_, *away_, *forget_, *show_away_, *fresh_;
    QLabel *title_, *customer_, *due_, *pieces_, *where_, *next_, *lacks_, *note_;
    std::string today_;
};

}  // namespace orthema::app
