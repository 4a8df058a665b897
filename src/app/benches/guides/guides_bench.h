// The Guides bench: the card and the 1:1 template of each size and location, as they will print.
#pragma once

#include <memory>

#include "app/widgets/speech.h"
#include "app/benches/bench.h"

class QCheckBox;
class QLabel;
class QPrinter;
class QPushButton;

namespace orthema::app {

class ChipRow;
class FigurePanel;
class GuideView;
class LengthField;
class Segments;
class ValueField;

class GuidesBench : public Bench {
    Q_OBJECT
public:
    explicit GuidesBench(Workroom& room);
    QWidget* figures() override;
    void refresh() override;
    QWidget* first_focus() override;
    [[nodiscard]] QString word() const override;
    [[nodiscard]] QString help() const override;
    /// Prints what is shown, on a thread.
    void print_on(std::shared_ptr<QPrinter> printer);

private:
    /// What would be printed of what is shown now, and in how many columns it is laid out on the screen.
    [[nodiscard]] std::vector<GuidePage> pages_shown(const Decoration& decoration, const DecorationFit& fit, const SizeFit& size,
                                                     int& columns) const;
    /// The chosen size, or the middle of the run where it has no such size.
    [[nodiscard]] const SizeFit* shown_size() const;
    /// The chosen size's platen map, large, to show beside its page.
    [[nodiscard]] std::function<void(Drawing&, const Rect&)> map_beside(const Decoration& d, const SizeFit& on, const Ground& ground) const;
    [[nodiscard]] std::vector<GuidePage> photo_cards() const;
    void write_photo_cards();
    void setup(const QString& what, const std::function<void(GuideSetup&)>& by);
    std::optional<QString> scanned(const QString& text);
    void print_shown();
    ChipRow *decorations_, *sizes_;
    Segments *what_, *paper_;
    GuideView* view_;
    FigurePanel* panel_;
    QLabel *title_, *pages_, *lines_, *stale_;
    LengthField* measured_;
    QCheckBox *large_, *short_, *windows_, *codes_;
    ValueField* scan_;
    QPushButton *write_, *print_;
};

}  // namespace orthema::app
