#include "app/window/job_line.h"

#include <QPainter>
#include <QPainterPath>
#include <QVBoxLayout>

#include "app/widgets/speech.h"
#include "app/widgets/theme.h"
#include "core/drawing/drawing.h"

namespace orthema::app {

namespace {

QColor colour_of(Standing s) {
    switch (s) {
    case Standing::settled: return to_qt(palette::moss);
    case Standing::look: return to_qt(palette::ochre);
    case Standing::blocked: return to_qt(palette::carmine);
    }
    return Qt::black;
}

}  // namespace

StageButton::StageButton(const QString& name, int number, QWidget* parent) : QAbstractButton(parent) {
    setText(name);
    setObjectName(name);
    setFixedHeight(56);
    setMinimumWidth(96);
    setFocusPolicy(Qt::TabFocus);
    setToolTip(tr("%1 (Ctrl+%2)").arg(name).arg(number));
    setCursor(Qt::PointingHandCursor);
}

namespace {

/// The card of a stage that is chosen, and the dots of the one that the keys are at.
void paint_ground(QPainter& p, QSizeF size, bool chosen, bool focus) {
    if (chosen) {
        p.setPen(to_qt(palette::rule));
        p.setBrush(to_qt(palette::light));
        p.drawRoundedRect(QRectF(0.5, 1.5, size.width() - 5, size.height() - 3), 6, 6);
        p.fillRect(QRectF(0, 1, 4, size.height() - 2), to_qt(palette::verdigris));
    }
    if (focus) {
        p.setPen(QPen(to_qt(palette::verdigris), 1, Qt::DotLine));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(QRectF(3.5, 4.5, size.width() - 12, size.height() - 9), 5, 5);
    }
}

}  // namespace

DeskButton::DeskButton(QWidget* parent) : QAbstractButton(parent) {
    setText(tr("Desk"));
    setObjectName(QStringLiteral("Desk"));
    setAccessibleName(tr("Desk, the shop's orders"));
    setFixedHeight(40);
    setMinimumWidth(96);
    setFocusPolicy(Qt::TabFocus);
    setToolTip(tr("The shop's orders (Ctrl+0)"));
    setCursor(Qt::PointingHandCursor);
}

void DeskButton::show_chosen(bool chosen) {
    chosen_ = chosen;
    update();
}

/// A few cards lying on one another.
void DeskButton::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    paint_ground(p, size(), chosen_, hasFocus());
    const double y = height() / 2.0;
    p.setPen(QPen(to_qt(palette::ink), 1.2));
    p.setBrush(to_qt(palette::paper));
    p.drawRect(QRectF(13.5, y - 8.5, 12, 9));
    p.setBrush(to_qt(palette::light));
    p.drawRect(QRectF(19.5, y - 2.5, 13, 10));
    QFont name = font();
    name.setPixelSize(13);
    name.setBold(chosen_);
    p.setFont(name);
    p.setPen(to_qt(palette::ink));
    p.drawText(QPointF(41, y + 5), text());
}

void StageButton::show_state(Standing standing, bool waiting, int count, const QString& word, bool chosen) {
    standing_ = standing;
    waiting_ = waiting;
    count_ = count;
    word_ = word;
    chosen_ = chosen;
    const QString says = waiting                         ? tr("waiting")
                         : standing == Standing::settled ? tr("settled")
                         : standing == Standing::look    ? tr("needs a look")
                                                         : tr("blocked");
    setAccessibleName(QStringLiteral("%1, %2, %3").arg(text(), says, word));
    update();
    parentWidget()->update();
}

void StageButton::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    paint_ground(p, size(), chosen_, hasFocus());
    const QPointF c(23, height() / 2.0);
    const QColor colour = colour_of(standing_);
    QFont small = font();
    small.setPixelSize(11);
    small.setBold(true);
    if (waiting_) {
        p.setPen(QPen(to_qt(palette::quiet), 2));
        p.setBrush(to_qt(palette::paper));
        p.drawEllipse(c, 8, 8);
    } else if (standing_ == Standing::settled) {
        p.setPen(Qt::NoPen);
        p.setBrush(colour);
        p.drawEllipse(c, 9, 9);
        p.setPen(QPen(Qt::white, 2, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
        p.drawPolyline(QPolygonF({c + QPointF(-4, 0), c + QPointF(-1, 3), c + QPointF(4, -3)}));
    } else if (standing_ == Standing::look) {
        p.setPen(Qt::NoPen);
        p.setBrush(colour);
        p.drawPolygon(QPolygonF({c + QPointF(0, -10), c + QPointF(11, 9), c + QPointF(-11, 9)}));
        p.setPen(Qt::white);
        p.setFont(small);
        p.drawText(QRectF(c.x() - 10, c.y() - 5, 20, 14), Qt::AlignCenter, QString::number(count_));
    } else {
        p.setPen(Qt::NoPen);
        p.setBrush(colour);
        p.drawRoundedRect(QRectF(c.x() - 9, c.y() - 9, 18, 18), 3, 3);
        p.setPen(Qt::white);
        p.setFont(small);
        p.drawText(QRectF(c.x() - 9, c.y() - 9, 18, 18), Qt::AlignCenter, QString::number(count_));
    }
    QFont name = font();
    name.setPixelSize(13);
    name.setBold(chosen_);
    p.setFont(name);
    p.setPen(to_qt(palette::ink));
    p.drawText(QPointF(41, height() / 2.0 - 2), text());
    QFont under = font();
    under.setPixelSize(11);
    p.setFont(under);
    p.setPen(to_qt(palette::quiet));
    p.drawText(QPointF(41, height() / 2.0 + 13), QFontMetrics(under).elidedText(word_, Qt::ElideRight, width() - 46));
}

JobLine::JobLine(const QStringList& stages, QWidget* parent) : QWidget(parent) {
    setFixedWidth(language_spoken() == nullptr ? 104 : 112);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 10, 4, 10);
    column->setSpacing(18);  // all of it is seen in a window of 700 pixels
    desk_ = new DeskButton(this);
    column->addWidget(desk_);
    for (int i = 0; i < stages.size(); ++i) {
        auto* b = new StageButton(stages[i], i + 1, this);
        connect(b, &QAbstractButton::clicked, this, [this, i] { emit chosen(i); });
        column->addWidget(b);
        stages_.push_back(b);
    }
    column->addStretch(1);
}

/// The stitches between the stages, in the colour of the one they lead from.
void JobLine::paintEvent(QPaintEvent*) {
    QPainter p(this);
    for (std::size_t i = 0; i + 1 < stages_.size(); ++i) {
        const double from = stages_[i]->geometry().center().y() + 16, to = stages_[i + 1]->geometry().center().y() - 16;
        p.setPen(
            QPen(stages_[i]->waiting() ? to_qt(palette::rule) : colour_of(stages_[i]->standing()), 3, Qt::CustomDashLine, Qt::FlatCap));
        QPen pen = p.pen();
        pen.setDashPattern({2, 1.4});
        p.setPen(pen);
        p.drawLine(QPointF(23, from), QPointF(23, to));
    }
}

}  // namespace orthema::app
