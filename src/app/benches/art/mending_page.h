// The page of mendings: what is done to a picture instead of its file, each with its figures, taken back singly.
#pragma once

#include "app/session/workroom.h"
#include "app/widgets/chips.h"
#include "app/widgets/figures.h"

class QCheckBox;

namespace orthema::app {

class ArtView;

class MendingPage : public FigurePanel {
    Q_OBJECT
public:
    MendingPage(Workroom& room, ArtView& view);
    void refresh();
    /// The view goes back to what it shows without this page.
    void leave();

private:
    void change(const QString& what, const Mending& mending);
    void change(MendKind kind, const QString& what, const std::function<void(Mending&)>& how);
    [[nodiscard]] const Art* art() const;
    struct Row {
        QCheckBox* on = nullptr;
        FigurePanel* figures = nullptr;
    };
    Row& row(MendKind kind) { return ways_[static_cast<std::size_t>(kind)]; }
    LengthField* held(MendKind kind, const QString& name, const QString& why);
    Workroom& room_;
    ArtView& view_;
    Row ways_[mend_kinds];
    QLabel* says_;
    NumberField *degrees_, *tolerance_, *threshold_, *dpi_;
    QCheckBox* counters_;
    QPushButton *level_, *keep_;
    LengthField *least_[mend_kinds] = {}, *at_, *apart_;
    FigurePanel* wide_;
};

}  // namespace orthema::app
