#include "app/window/notice_bar.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"

namespace orthema::app {

NoticeBar::NoticeBar(QWidget* parent) : QFrame(parent) {
    setObjectName(QStringLiteral("Notice"));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(12, 5, 6, 5);
    text_ = new QLabel;
    text_->setWordWrap(true);
    row->addWidget(text_, 1);
    action_ = push({}, {});
    row->addWidget(action_);
    auto* close = push(tr("Put away"), tr("Close this line"));
    row->addWidget(close);
    connect(action_, &QPushButton::clicked, this, [this] {
        const auto act = act_;
        next();
        if (act) act();
    });
    connect(close, &QPushButton::clicked, this, &NoticeBar::next);
    away_.setSingleShot(true);
    connect(&away_, &QTimer::timeout, this, &NoticeBar::next);
    hide();
}

void NoticeBar::hang_over(QWidget* ground, int up) {
    ground_ = ground;
    up_ = up;
    ground->installEventFilter(this);
    place();
}

bool NoticeBar::eventFilter(QObject* of, QEvent* event) {
    if (of == ground_ && (event->type() == QEvent::Resize || event->type() == QEvent::Move)) place();
    return QFrame::eventFilter(of, event);
}

void NoticeBar::place() {
    if (ground_ == nullptr || isHidden()) return;
    const int width = std::min(ground_->width() - 16, 620);
    const int height = hasHeightForWidth() ? std::max(heightForWidth(width), minimumSizeHint().height()) : sizeHint().height();
    const QPoint corner = ground_->mapTo(parentWidget(), QPoint(8, ground_->height() - up_ - height));
    setGeometry(QRect(corner, QSize(width, height)));
    raise();
}

QString NoticeBar::text() const { return isHidden() ? QString() : text_->text(); }

/// What was said before and not put away waits behind, when something can be done about it.
void NoticeBar::show_notice(const Notice& notice) {
    if (!isHidden() && act_) waiting_.push_back({text_->text(), false, action_->text(), act_});
    text_->setText(notice.text);
    setStyleSheet(notice.bad ? QStringLiteral("#Notice { background:#F6E3E4; border:1px solid #A32035; border-radius:6px; }")
                             : QStringLiteral("#Notice { background:#E3EDEB; border:1px solid #2F7F79; border-radius:6px; }"));
    act_ = notice.act;
    action_->setText(notice.action);
    action_->setVisible(!notice.action.isEmpty());
    setAccessibleName(notice.text);
    away_.stop();
    if (!notice.bad && !notice.act) away_.start(6000);
    show();
    place();
}

void NoticeBar::next() {
    act_ = {};
    hide();
    if (waiting_.empty()) return;
    const Notice again = waiting_.back();
    waiting_.pop_back();
    show_notice(again);
}

}  // namespace orthema::app
