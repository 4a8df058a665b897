// Plot view: shows a plot of records; a click on a dot chooses its record.
#pragma once

#include <functional>

#include "app/widgets/canvas.h"
#include "core/records/plots.h"

namespace orthema::app {

class PlotView : public Canvas {
    Q_OBJECT
public:
    explicit PlotView(const LoadedArtById& art, QWidget* parent = nullptr);
    /// Makes the plot for a widget of this size.
    std::function<Plot(double, double)> make;
    std::function<void(std::size_t)> picked;
    [[nodiscard]] const std::vector<std::pair<Point, std::size_t>>& dots() const { return dots_; }
    /// What a record is, in words, and whether it is chosen.
    std::function<QString(std::size_t)> words;
    std::function<bool(std::size_t)> is_chosen;
    /// The words of the plot, then its dots.
    [[nodiscard]] std::vector<CanvasItem> items() override;

protected:
    Drawing draw(double width, double height) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    [[nodiscard]] std::optional<std::size_t> at(QPointF p) const;
    std::vector<std::pair<Point, std::size_t>> dots_;
    std::size_t last_ = 0;  ///< of the dots, for the keys
};

}  // namespace orthema::app
