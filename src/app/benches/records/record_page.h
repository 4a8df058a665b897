// Record page: one record in the Figures panel, with what may be added to it later: how it came out, a wash, a remark.
#pragma once

#include <array>

#include "app/widgets/figures.h"
#include "core/records/press_record.h"

namespace orthema::app {

class Workroom;

class RecordPage : public FigurePanel {
    Q_OBJECT
public:
    explicit RecordPage(Workroom& room);
    /// Null hides it.
    void show_record(const PressRecord* record);

    std::function<void()> photograph;  ///< the piece is to be measured from a photograph
    std::function<void()> kept;        ///< the picture that was kept of it is to be shown

private:
    void change(const std::function<void(PressRecord&)>& how);
    Workroom& room_;
    std::string id_;
    QLabel *title_, *when_, *where_, *acts_, *landed_, *kept_;
    QComboBox *outcome_, *mended_, *proof_;
    ValueField *cause_, *remark_, *after_;
    FigurePanel* patches_;
    std::array<QCheckBox*, plate_corner_count> corners_{};
    NumberField *washes_, *aside_, *down_;
    QPushButton* photo_kept_;
};

}  // namespace orthema::app
