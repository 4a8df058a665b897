// The pages of the Blanks bench's figures panel: measuring, all figures, features, and the style itself.
#pragma once

#include <map>

#include "app/widgets/figures.h"
#include "core/blanks/measuring.h"

class QComboBox;

namespace orthema::app {

class BlanksBench;
class Workroom;

class MeasurePage : public FigurePanel {
    Q_OBJECT
public:
    MeasurePage(BlanksBench& bench, Workroom& room);
    void refresh();
    [[nodiscard]] bool published() const { return mode_->choice() == 1; }
    /// Goes on to the next figure of a session that runs.
    void next();
    [[nodiscard]] bool session() const;

private:
    [[nodiscard]] Measure shown(const BlankStyle& style) const;  ///< the figure that the page is about
    void take(const ToMeasure& what);
    BlanksBench& bench_;
    Workroom& room_;
    Segments* mode_;
    QPushButton* start_;
    std::vector<QPushButton*> first_;
    std::vector<ToMeasure> list_;
    QLabel *more_, *chosen_, *published_, *taped_, *differs_, *pieces_, *readings_;
    QPushButton *last_back_, *back_, *photo_;
};

class FiguresPage : public FigurePanel {
    Q_OBJECT
public:
    FiguresPage(BlanksBench& bench, Workroom& room);
    void refresh();

private:
    BlanksBench& bench_;
    Workroom& room_;
    std::map<Measure, std::pair<QWidget*, LengthField*>> fields_;
    std::map<Measure, QLabel*> sources_;
    QLabel* differs_;
};

class FeaturesPage : public FigurePanel {
    Q_OBJECT
public:
    FeaturesPage(BlanksBench& bench, Workroom& room);
    void refresh();
    void choose(int feature);
    [[nodiscard]] int chosen() const { return now_; }
    void drag(int feature, Length right, Length down);

private:
    void change(const QString& what, const std::function<void(StyleFeature&)>& how, const QString& gesture = {});
    BlanksBench& bench_;
    Workroom& room_;
    FigurePanel* one_;  ///< the figures of the chosen feature
    QComboBox *kind_, *which_, *face_;
    QPushButton *add_, *out_;
    LengthField *across_, *down_, *width_, *height_, *raised_, *clearance_;
    NumberField* growth_;
    QLabel* says_;
    int now_ = 0;
};

class StylePage : public FigurePanel {
    Q_OBJECT
public:
    StylePage(BlanksBench& bench, Workroom& room);
    void refresh();

private:
    void bring_in_chart();
    BlanksBench& bench_;
    Workroom& room_;
    ValueField *name_, *sizes_, *fabric_, *batch_, *tags_, *colours_;
    NumberField* price_;
    LengthField* tolerance_;
    QCheckBox *shrinks_, *other_side_;
    QPushButton* archive_;
    QLabel* says_;
};

}  // namespace orthema::app
