// Bin page: a wall of bins and the panel of the one that is chosen: what the desk's pages of the stock and the shelf have alike.
#pragma once

#include <QWidget>

#include "app/desk/bin_wall.h"
#include "app/session/workroom.h"

class QLabel;
class QPushButton;

namespace orthema::app {

class FigurePanel;
class ValueField;

class BinPage : public QWidget {
    Q_OBJECT
public:
    [[nodiscard]] FigurePanel* figures() const { return panel_; }
    [[nodiscard]] BinWall* wall() const { return wall_; }
    virtual void refresh() = 0;

protected:
    /// The wall by its name and what it says when it is empty; the panel under this head. Those that derive lay the rest out.
    BinPage(Workroom& room, const QString& name, const QString& empty_words, const QString& head);
    virtual void show_chosen() = 0;
    void add_on_hand(const QString& why);
    void add_place(const QString& why);
    /// One is spoiled; and what takes the bin away.
    void add_deeds(const QString& remove, const QString& why);
    /// A field for a text of the chosen entry.
    ValueField* text_field(FigurePanel* on, const QString& name, const QString& why, std::string StockEntry::*part);
    /// The chosen entry, where it is counted.
    void change(const std::function<void(StockEntry&)>& how);
    Workroom& room_;
    BinWall* wall_;
    FigurePanel *panel_, *one_;  ///< of the page; of the chosen bin
    QLabel* title_;
    ValueField *on_hand_ = nullptr, *place_ = nullptr;
    QPushButton *spoiled_ = nullptr, *remove_ = nullptr;

private:
    std::optional<QString> count(const Bin& bin, const QString& text);
};

/// What a count is called: pieces, metres, or the supply's own unit.
QString count_text(const StockEntry& entry, double n, Reading reading);
/// As many of these names as are read.
QString some(const QStringList& names);

}  // namespace orthema::app
