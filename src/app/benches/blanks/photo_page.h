// The page of the Blanks bench's figures panel that goes with photographs: what each showed, and what of it is taken.
#pragma once

#include <list>

#include "app/photos/photo_folder.h"
#include "app/photos/photo_view.h"
#include "app/widgets/figures.h"

namespace orthema::app {

class BlanksBench;

class PhotoPage : public FigurePanel {
    Q_OBJECT
public:
    PhotoPage(BlanksBench& bench, Workroom& room, PhotoView& view);
    /// Measures the chosen blank and size from these, one after the other.
    void bring_in(const QStringList& paths);
    void refresh();
    [[nodiscard]] const std::list<TapedPhoto>& photos() const { return photos_; }
    /// Photographs of this session, or kept ones of the chosen blank.
    [[nodiscard]] bool any() const { return !photos_.empty() || !kept_here().empty(); }
    /// Asks which.
    void ask();
    [[nodiscard]] PhotoFolder& folder() { return folder_; }

    std::function<void()> left;     ///< back to the drawing
    std::function<void()> changed;  ///< the list has more, or fewer

private:
    void measure(TapedPhoto& photo);
    void take();
    void show_one(const QString& id);
    [[nodiscard]] std::vector<KeptPhoto> kept_here() const;
    [[nodiscard]] TapedPhoto* shown();
    BlanksBench& bench_;
    Workroom& room_;
    PhotoView& view_;
    PhotoFolder folder_;
    std::list<TapedPhoto> photos_;
    QString shown_;
    std::string job_;  ///< of the order that the photographs lie with
    /// What the tape has taught of photographs, where that is worth a change; nothing otherwise.
    [[nodiscard]] std::optional<Correction> lesson() const;
    [[nodiscard]] QString scale_words() const;
    QComboBox *which_, *cup_;
    QLabel *of_, *says_, *sure_, *scale_;
    std::map<Measure, QCheckBox*> ticks_;
    QPushButton *take_, *learn_, *anew_, *again_, *away_, *back_, *watch_, *another_, *keep_;
    FigurePanel *list_, *cups_;
};

}  // namespace orthema::app
