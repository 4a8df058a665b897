#include "app/widgets/wrapped_label.h"

#include <QEvent>

namespace orthema::app {

WrappedLabel::WrappedLabel(const QString& text, QWidget* parent) : QLabel(text, parent) { setWordWrap(true); }

int WrappedLabel::heightForWidth(int width) const {
    ensurePolished();  // the style may bring another font, of which event() hears
    if (known_of_ != text()) {
        known_of_ = text();
        known_.clear();
    }
    for (const auto& [at, height] : known_)
        if (at == width) return height;
    if (known_.size() >= 8) known_.erase(known_.begin());
    const int height = QLabel::heightForWidth(width);
    known_.emplace_back(width, height);
    return height;
}

bool WrappedLabel::event(QEvent* event) {
    switch (event->type()) {
    case QEvent::FontChange:
    case QEvent::StyleChange:
    case QEvent::ContentsRectChange:
    case QEvent::LayoutDirectionChange: known_.clear(); break;
    default: break;
    }
    return QLabel::event(event);
}

}  // namespace orthema::app
