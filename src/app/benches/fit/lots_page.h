// The fourth page of figures beside the size wall: which lots carry the design, under what rule, and with what base figures.
#pragma once

#include "app/session/workroom.h"
#include "app/widgets/figures.h"

class QCheckBox;
class QComboBox;
class QMenu;

namespace orthema::app {

class LotTicks;

class LotsPage : public FigurePanel {
    Q_OBJECT
public:
    explicit LotsPage(Workroom& room, QWidget* parent = nullptr);
    void refresh();
    [[nodiscard]] LotTicks* ticks() const { return ticks_; }
    /// What can be done with the chosen design over lots, for the menu on the wall.
    void fill(QMenu& menu);

private:
    enum class Which { all, of_class, of_family };
    void put_on(Which which);
    void show_bases(const DesignRule* rule, const Decoration& d);
    Workroom& room_;
    QLabel* says_;
    QCheckBox* own_;
    QComboBox *picture_, *base_size_;
    FigurePanel* bases_;
    FigurePanel* base_rows_ = nullptr;
    std::vector<LengthField*> base_fields_;
    std::vector<GarmentClass> base_classes_;
    LotTicks* ticks_;
    QPushButton *all_, *class_, *family_, *one_rule_, *off_;
};

}  // namespace orthema::app
