#include "app/window/next_line.h"

#include <QStyleOptionButton>
#include <QStylePainter>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"

namespace orthema::app {

NextLine::NextLine(QWidget* parent) : QPushButton(parent) {
    setObjectName(QStringLiteral("What next"));
    setCursor(Qt::PointingHandCursor);
    connect(this, &QPushButton::clicked, this, [this] {
        if (step_ && wanted) wanted(*step_);
    });
}

void NextLine::show_step(const std::optional<NextStep>& step, bool catching_up, Reading reading) {
    if (!catching_up) step_ = step;
    QString words = step_ ? qt(worded(step_->words, reading)) : tr("Nothing is left to do");
    const QString why = !step_           ? tr("All is settled, written and pressed")
                        : step_->finding ? qt(finding_text(*step_->finding, reading))
                                         : qt(worded(step_->why, reading));
    setEnabled(step_.has_value() && !catching_up);
    if (words == words_ && why == toolTip()) return;
    words_ = words;
    setToolTip(why);
    setAccessibleName(tr("What next: ") + words);
    setAccessibleDescription(why);
    update();
}

/// A quiet caption and what is to be done, as much of it as there is room for.
void NextLine::paintEvent(QPaintEvent*) {
    QStylePainter painter(this);
    QStyleOptionButton option;
    initStyleOption(&option);
    painter.drawControl(QStyle::CE_PushButtonBevel, option);
    const QRect in = rect().adjusted(14, 0, -12, 0);
    painter.setPen(palette().color(QPalette::PlaceholderText));
    const QString caption = tr("Next");
    painter.drawText(in, Qt::AlignVCenter | Qt::AlignLeft, caption);
    QFont bold = font();
    bold.setBold(true);
    painter.setFont(bold);
    painter.setPen(isEnabled() ? QColor(0x27, 0x6C, 0x67) : palette().color(QPalette::PlaceholderText));
    const QRect at = in.adjusted(fontMetrics().horizontalAdvance(caption) + 12, 0, 0, 0);
    painter.drawText(at, Qt::AlignVCenter | Qt::AlignLeft, QFontMetrics(bold).elidedText(words_, Qt::ElideRight, at.width()));
}

}  // namespace orthema::app
