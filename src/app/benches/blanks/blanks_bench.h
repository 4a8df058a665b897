// The Blanks bench: the blanks of the order and the shop, their figures and where each came from, a measuring session
// that says where to put the tape, and the editor that makes a style of one's own.
#pragma once

#include "app/widgets/speech.h"
#include "app/benches/bench.h"
#include "core/blanks/measuring.h"

class QLabel;
class QLineEdit;
class QPushButton;

namespace orthema::app {

class ChipRow;
class FigurePanel;
class MeasurePage;
class FiguresPage;
class FeaturesPage;
class StylePage;
class Segments;
class TapeDrawing;
class PhotoView;
class PhotoPage;

class BlanksBench : public Bench {
    Q_OBJECT
public:
    explicit BlanksBench(Workroom& room);
    QWidget* figures() override;
    void refresh() override;
    QWidget* first_focus() override;
    [[nodiscard]] QString word() const override;
    [[nodiscard]] QString help() const override;
    [[nodiscard]] TapeDrawing* drawing() const { return drawing_; }
    void go(const Subject& about) override;

    // For the pages of its figures panel.
    [[nodiscard]] const BlankStyle* style() const;
    [[nodiscard]] std::string size() const;
    /// Keeps a changed style in the order; refuses with a notice where it cannot be drawn.
    bool keep(const QString& what, const BlankStyle& next, const QString& gesture = {});
    /// What was typed for a figure of the chosen size: a reading of the tape, or what is published.
    void typed(Measure measure, Length value);
    void bring_in_chart(const QString& path);
    /// Measures the chosen blank and size from photographs.
    bool take_pictures(const QStringList& paths) override;
    /// The photographs in place of the drawing.
    void show_photos(bool shown);
    [[nodiscard]] PhotoView* photo_view() const { return photo_view_; }
    [[nodiscard]] PhotoPage* photos() const { return photos_; }
    void choose_size(const std::string& size);
    void choose_style(const std::string& id);
    [[nodiscard]] bool published_mode() const;
    [[nodiscard]] std::vector<ToMeasure> to_measure() const;

private:
    void show_page(int page);
    void new_blank(Family family);
    ChipRow *styles_, *sizes_;
    std::string own_size_;  ///< the size shown of a blank that no run of the order is selected for
    QLineEdit* search_;
    QPushButton *all_, *archived_;
    TapeDrawing* drawing_;
    FigurePanel* panel_;
    QLabel *title_, *fabric_;
    Segments* page_;
    MeasurePage* measure_;
    FiguresPage* figures_;
    FeaturesPage* features_;
    StylePage* style_;
    PhotoView* photo_view_;
    PhotoPage* photos_;
    bool photos_shown_ = false;
};

}  // namespace orthema::app
