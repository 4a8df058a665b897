// The desk's pages of what the shop has: the stock, the shelf of finished transfers, and what is to be bought.
#pragma once

#include <QWidget>

#include <map>
#include <set>

#include "app/desk/bin_wall.h"
#include "app/session/workroom.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QTableWidget;

namespace orthema::app {

class FigurePanel;
class ValueField;

class StockDesk : public QWidget {
    Q_OBJECT
public:
    explicit StockDesk(Workroom& room);
    [[nodiscard]] FigurePanel* figures() const { return panel_; }
    [[nodiscard]] BinWall* wall() const { return wall_; }
    void refresh();
    /// A code was scanned, or a name typed: the bin is chosen, and counted where that is wanted. False where none has it.
    bool found(const QString& text, bool count_one);

private:
    void show_chosen();
    [[nodiscard]] std::vector<BinRow> rows() const;
    [[nodiscard]] BinRow blanks_row(const BlankStyle& style, const std::string& colour) const;
    std::optional<QString> count(const Bin& bin, const QString& text);
    void change(const std::function<void(StockEntry&)>& how);
    void new_roll();
    void new_supply();
    Workroom& room_;
    BinWall* wall_;
    FigurePanel *panel_, *one_, *supply_, *names_;
    QLabel *title_, *wanted_, *spoiled_says_, *note_;
    ValueField *on_hand_, *place_, *code_, *name_, *uses_;
    QPushButton *spoiled_, *remove_, *roll_, *jar_;
    QComboBox *style_, *colour_, *medium_;
    std::vector<std::pair<std::string, std::string>> shown_;   ///< runs that are to be counted in, beside those that are
    std::set<std::pair<std::string, std::string>> uncounted_;  ///< runs that orders want of and nobody counts
    std::map<std::string, double> wanted_of_, lacking_of_;
    std::map<std::string, QStringList> wanted_by_;
};

class ShelfDesk : public QWidget {
    Q_OBJECT
public:
    explicit ShelfDesk(Workroom& room);
    [[nodiscard]] FigurePanel* figures() const { return panel_; }
    [[nodiscard]] BinWall* wall() const { return wall_; }
    void refresh();

private:
    void show_chosen();
    void print_labels(const QString& path);
    std::optional<QString> count(const Bin& bin, const QString& text);
    Workroom& room_;
    BinWall* wall_;
    FigurePanel *panel_, *one_;
    QLabel *title_, *width_, *printed_, *until_, *from_, *held_, *note_;
    ValueField *on_hand_, *place_;
    QPushButton *spoiled_, *remove_, *labels_;
};

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
