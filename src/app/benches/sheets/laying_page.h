// How the pieces of the chosen medium are laid and cut, what is kept free, and which sizes of it are on the shelf: two pages of
// the Sheets bench's figures.
#pragma once

#include <map>
#include <optional>
#include <tuple>

#include "app/widgets/figures.h"
#include "app/session/workroom.h"

class QCheckBox;
class QComboBox;

namespace orthema::app {

/// The medium that is chosen, changed as one step.
void change_medium(Workroom& room, const QString& what, const std::function<void(Medium&)>& how);

class LayingPage : public FigurePanel {
    Q_OBJECT
public:
    explicit LayingPage(Workroom& room);
    void refresh();

private:
    void show_exclusion();
    void keep_free();
    Workroom& room_;
    Segments *cutting_, *turns_, *stages_;
    FigurePanel *for_trimmer_, *for_contour_, *for_sheet_, *for_roll_;
    QComboBox *together_, *excluded_;
    LengthField *waste_, *gap_, *margin_, *offset_, *fingers_;
    QCheckBox* registers_;
    ValueField *name_, *place_, *size_;
    QPushButton *add_, *remove_;
    std::optional<std::tuple<std::string, int, std::size_t, Exclusion, Unit>> shown_;  ///< what the fields of a free place are of
};

class StockPage : public FigurePanel {
    Q_OBJECT
public:
    explicit StockPage(Workroom& room);
    void refresh();
    std::function<int()> sheet;  ///< that is in view: whose left-over is kept

private:
    void change_item(const QString& what, const std::function<void(StockItem&)>& how);
    void keep_left_over();
    [[nodiscard]] QString counted_text() const;
    std::optional<QString> count_sheets(int n);
    [[nodiscard]] std::map<std::string, int> used() const;  ///< sheets of the layout by stock item
    void fill();
    [[nodiscard]] std::vector<std::pair<std::string, QString>> fillers() const;
    Workroom& room_;
    QComboBox *items_, *filler_;
    ValueField *name_, *size_, *price_, *on_hand_, *batch_;
    QPushButton *add_, *remove_, *keep_, *fill_, *empty_, *from_shelf_;
    QLabel *needs_, *filled_;
    NumberField* value_;
    std::string item_;
};

}  // namespace orthema::app
