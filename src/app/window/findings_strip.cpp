#include "app/window/findings_strip.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPainter>
#include <QToolButton>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "app/widgets/theme.h"
#include "core/drawing/drawing.h"

namespace orthema::app {

FindingsStrip::FindingsStrip(Workroom& room, QWidget* parent) : QFrame(parent), room_(room) {
    setProperty("card", true);
    setObjectName(QStringLiteral("Findings"));
    setAccessibleName(tr("Findings"));
    setFocusPolicy(Qt::TabFocus);
    setCursor(Qt::PointingHandCursor);
    setFixedHeight(40);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(36, 2, 8, 2);
    text_ = new QLabel;
    text_->setMinimumWidth(50);
    row->addWidget(text_, 1);
    const auto tool = [&](const QString& t, const QString& why) {
        auto* b = new QToolButton;
        b->setText(t);
        b->setToolTip(why);
        b->setAccessibleName(why);
        b->setAutoRaise(true);
        row->addWidget(b);
        return b;
    };
    mend_ = tool(tr("Mend it"), tr("Mends the picture so that this is no longer said; the file stays as it is"));
    mend_->setObjectName(QStringLiteral("Mend it"));
    back_ = tool(QStringLiteral("‹"), tr("The finding before"));
    count_ = tool({}, tr("All findings, folded (F7). F8 goes to the next, Shift+F8 to the one before"));
    on_ = tool(QStringLiteral("›"), tr("The next finding"));
    connect(back_, &QToolButton::clicked, this, [this] { step(-1); });
    connect(on_, &QToolButton::clicked, this, [this] { step(1); });
    connect(count_, &QToolButton::clicked, this, &FindingsStrip::all_wanted);
    connect(mend_, &QToolButton::clicked, this, [this] {
        if (offer_) emit mending_wanted(MendingOffer(*offer_));
    });
}

void FindingsStrip::refresh() {
    const Findings& all = room_.findings();
    const int n = int(all.size());
    at_ = std::clamp(at_, 0, std::max(0, n - 1));
    any_ = n > 0;
    severity_ = any_ ? all[std::size_t(at_)].severity : Severity::note;
    full_ = any_                  ? qt(finding_text(all[std::size_t(at_)], room_.order().unit))
            : room_.catching_up() ? tr("Working it out.")
                                  : tr("Nothing to mend.");
    offer_ = any_ ? mending_for(room_.order(), room_.plan(), all[std::size_t(at_)]) : std::nullopt;
    mend_->setVisible(offer_.has_value());
    const int room = std::max(80, width() - (offer_ ? 330 : 262));
    // Two lines of a smaller hand where one of the usual does not hold it. The strip's own font judges: the label's is the
    // smaller one already where it wrapped before.
    const bool wraps = fontMetrics().horizontalAdvance(full_) > room;
    if (wraps != text_->wordWrap()) {
        text_->setWordWrap(wraps);
        text_->setStyleSheet(wraps ? QStringLiteral("font-size:12px;") : QString());
        text_->ensurePolished();
    }
    text_->setText(wraps ? text_->fontMetrics().elidedText(full_, Qt::ElideRight, room * 19 / 10) : full_);
    setToolTip(full_);
    count_->setText(any_ ? tr("%1 of %2").arg(at_ + 1).arg(n) : QString());
    for (QToolButton* b : {back_, count_, on_}) b->setVisible(any_);
    setAccessibleDescription(full_);
    update();
}

void FindingsStrip::resizeEvent(QResizeEvent*) { refresh(); }

void FindingsStrip::step(int by) {
    const int n = int(room_.findings().size());
    if (n > 0) at_ = (at_ + by + n) % n;
    refresh();
}

void FindingsStrip::show_at(int finding) {
    at_ = finding;
    refresh();
    go();
}

void FindingsStrip::step_and_go(int by) {
    const Findings& all = room_.findings();
    for (std::size_t k = 0; k < all.size(); ++k) {
        step(by);
        if (!away || !away(all[std::size_t(at_)])) return go();
    }
}

void FindingsStrip::go() {
    if (at_ < int(room_.findings().size())) emit wanted(room_.findings()[std::size_t(at_)].about);
}

void FindingsStrip::mousePressEvent(QMouseEvent*) { go(); }

void FindingsStrip::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
    case Qt::Key_Return:
    case Qt::Key_Enter:
    case Qt::Key_Space: go(); return;
    case Qt::Key_Left: step(-1); return;
    case Qt::Key_Right: step(1); return;
    default: QFrame::keyPressEvent(event);
    }
}

void FindingsStrip::paintEvent(QPaintEvent* event) {
    QFrame::paintEvent(event);
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const QPointF c(20, height() / 2.0);
    if (any_) return draw_severity(p, c, severity_);
    p.setPen(Qt::NoPen);
    p.setBrush(to_qt(palette::moss));
    p.drawEllipse(c, 6, 6);
}

}  // namespace orthema::app
