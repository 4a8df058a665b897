#include "app/widgets/fitting_label.h"

#include <QHelpEvent>
#include <QToolTip>

namespace orthema::app {

void FittingLabel::say(const QString& text) {
    if (text == whole_) return;
    whole_ = text;
    setToolTip(text);
    updateGeometry();
    fit();
}

QSize FittingLabel::sizeHint() const { return {fontMetrics().horizontalAdvance(whole_) + 2, fontMetrics().height()}; }

QSize FittingLabel::minimumSizeHint() const { return {std::min(40, sizeHint().width()), fontMetrics().height()}; }

void FittingLabel::resizeEvent(QResizeEvent* event) {
    QLabel::resizeEvent(event);
    fit();
}

void FittingLabel::fit() {
    if (!wordWrap()) {
        setText(fontMetrics().elidedText(whole_, Qt::ElideRight, width()));
        return;
    }
    const auto holds = [&](const QString& text) {
        const QRect need = fontMetrics().boundingRect(QRect(0, 0, std::max(1, width()), 10000), Qt::TextWordWrap, text);
        return need.height() <= height() && need.width() <= width();
    };
    QString text = whole_;
    while (!text.isEmpty() && !holds(text)) {
        const qsizetype space = text.lastIndexOf(QLatin1Char(' '));
        text = space <= 0 ? QString() : text.left(space) + QChar(0x2026);
        if (text.size() > 1 && text.at(text.size() - 2) == QLatin1Char(' ')) text.remove(text.size() - 2, 1);
    }
    setText(text);
}

bool whole_in_tip(QWidget& of, QEvent& tip_asked, const QString& whole, const QString& shown) {
    if (shown == whole) return false;
    QToolTip::showText(static_cast<QHelpEvent&>(tip_asked).globalPos(), whole + '\n' + of.toolTip(), &of);
    return true;
}

}  // namespace orthema::app
