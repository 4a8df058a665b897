// Measure this one: the pressed piece drawn with a field on each line that a tape is laid along; and what the run of them says.
#pragma once

#include <QFrame>

#include <array>
#include <functional>

#include "core/records/of_load.h"

class QGridLayout;
class QHBoxLayout;
class QLabel;
class QPushButton;

namespace orthema::app {

class GarmentView;
class LengthField;
class ShiftRecorder;
class Workroom;

class MeasureCard : public QFrame {
    Q_OBJECT
public:
    MeasureCard(Workroom& room, ShiftRecorder& recorder);
    /// Shows the piece that waits, or the warning, or hides.
    void refresh();
    /// Where the keys go once a piece is measured, or is not to be.
    std::function<void()> done = [] {};
    [[nodiscard]] LengthField* field(TapeAt at) const { return fields_[static_cast<std::size_t>(at)]; }

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void keep();
    bool arrange();  ///< true where it changed
    Workroom& room_;
    ShiftRecorder& recorder_;
    QLabel *title_, *warning_, *hint_;
    QWidget* work_;
    GarmentView* view_;
    std::array<LengthField*, tape_at_count> fields_{};
    std::array<QLabel*, tape_at_count> names_{};
    QPushButton *keep_, *skip_, *looked_;
    QGridLayout* grid_;
    QHBoxLayout *head_, *line_, *foot_;
    std::optional<bool> low_;
    std::string shown_;
    Taped typed_;
};

}  // namespace orthema::app
