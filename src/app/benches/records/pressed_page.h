// Pressed page: where a pressed piece's design landed, from a photograph of it; kept with its record when somebody says so.
#pragma once

#include "app/photos/photo_view.h"
#include "app/widgets/figures.h"
#include "core/records/press_record.h"

namespace orthema::app {

class PressedPage : public FigurePanel {
    Q_OBJECT
public:
    PressedPage(Workroom& room, PhotoView& view);
    /// Looks for the record's design on the piece in the photograph. A sentence where it cannot be looked for.
    std::optional<QString> look(const PressRecord& record, const QString& path);
    /// Shows the picture that was kept of this record's piece; false where none was.
    bool look_at_kept(const PressRecord& record);
    /// Shows what there is; nothing where nothing was asked.
    void refresh();
    [[nodiscard]] bool any() const { return photo_.has_value(); }
    [[nodiscard]] const TapedPhoto* photo() const { return photo_ ? &*photo_ : nullptr; }
    /// Where the design landed, once it was found.
    [[nodiscard]] const std::optional<Landing>& landing() const { return landing_; }

    std::function<void()> left;

private:
    void measure();
    void found(const TapedPhoto& photo);
    void keep();
    void put_away();
    Workroom& room_;
    PhotoView& view_;
    std::optional<TapedPhoto> photo_;
    PressRecord record_;
    std::optional<Landing> landing_;
    QLabel *of_, *says_, *aside_, *down_, *tilt_, *width_, *wider_, *beyond_, *differs_, *sure_;
    FigurePanel* figures_;
    QPushButton *keep_, *again_, *away_, *small_;
};

}  // namespace orthema::app
