#include "app/benches/records/plot_view.h"

#include "app/widgets/speech.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <cmath>

namespace orthema::app {

namespace {

constexpr double near = 11;  ///< pixels from a dot that still are on it

}  // namespace

PlotView::PlotView(const LoadedArtById& art, QWidget* parent) : Canvas(art, parent) {
    setObjectName(QStringLiteral("Plot"));
    setAccessibleName(tr("Records as dots"));
    setToolTip(tr("Click a dot to see its record; the arrow keys go from dot to dot"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
}

std::vector<CanvasItem> PlotView::items() {
    std::vector<CanvasItem> out = Canvas::items();
    for (const auto& [at, record] : dots_)
        out.push_back({words ? words(record) : QString(), QRect(int(at.x) - 6, int(at.y) - 6, 12, 12), is_chosen && is_chosen(record),
                       [this, r = record] {
                           if (picked) picked(r);
                       }});
    return out;
}

Drawing PlotView::draw(double width, double height) {
    if (!make) return {};
    Plot plot = make(width, height);
    dots_ = std::move(plot.dots);
    return std::move(plot.drawing);
}

std::optional<std::size_t> PlotView::at(QPointF p) const {
    std::optional<std::size_t> best;
    double least = near;
    for (std::size_t i = 0; i < dots_.size(); ++i)
        if (const double away = std::hypot(dots_[i].first.x - p.x(), dots_[i].first.y - p.y()); away < least) {
            least = away;
            best = i;
        }
    return best;
}

void PlotView::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    if (const auto dot = at(event->position()); dot && picked) {
        last_ = *dot;
        picked(dots_[*dot].second);
    }
}

void PlotView::mouseMoveEvent(QMouseEvent* event) { setCursor(at(event->position()) ? Qt::PointingHandCursor : Qt::ArrowCursor); }

void PlotView::keyPressEvent(QKeyEvent* event) {
    const int step = event->key() == Qt::Key_Right || event->key() == Qt::Key_Down ? 1
                     : event->key() == Qt::Key_Left || event->key() == Qt::Key_Up  ? -1
                                                                                   : 0;
    if (step == 0 || dots_.empty() || !picked) return Canvas::keyPressEvent(event);
    last_ = (last_ + dots_.size() + std::size_t(step + int(dots_.size()))) % dots_.size();
    picked(dots_[last_].second);
}

}  // namespace orthema::app
