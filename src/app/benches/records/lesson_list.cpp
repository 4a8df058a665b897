#include "app/benches/records/lesson_list.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"

namespace orthema::app {

LessonList::LessonList(Workroom& room) : room_(room) {
    setObjectName(QStringLiteral("Lessons"));
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    auto* inside = new QWidget;
    rows_ = new QVBoxLayout(inside);
    rows_->setContentsMargins(4, 4, 10, 4);
    rows_->setSpacing(8);
    remark_ = new QLineEdit;
    remark_->setObjectName(QStringLiteral("New lesson"));
    remark_->setAccessibleName(tr("A remark to come back to"));
    remark_->setPlaceholderText(tr("What is to be remembered next time, about what the filters above name; Return"));
    connect(remark_, &QLineEdit::returnPressed, this, [this] {
        if (remark_->text().trimmed().isEmpty()) return;
        const std::string words = remark_->text().trimmed().toStdString();
        remark_->clear();
        room_.records().remark(words, about_);
    });
    rows_->addWidget(remark_);
    rows_->addStretch(1);
    setWidget(inside);
}

QWidget* LessonList::card(const QString& title, const QString& reason, const QString& state) {
    auto* frame = new QFrame;
    frame->setProperty("card", true);
    auto* column = new QVBoxLayout(frame);
    column->setContentsMargins(12, 8, 12, 10);
    column->setSpacing(4);
    auto* head = new QHBoxLayout;
    auto* name = new QLabel(title);
    name->setWordWrap(true);
    name->setProperty("strong", true);
    head->addWidget(name, 1);
    auto* mark = new QLabel(state);
    mark->setProperty("quiet", true);
    head->addWidget(mark);
    column->addLayout(head);
    if (!reason.isEmpty()) {
        auto* why = new QLabel(reason);
        why->setWordWrap(true);
        column->addWidget(why);
    }
    rows_->insertWidget(rows_->count() - 1, frame);
    cards_.push_back(frame);
    return frame;
}

void LessonList::show_lessons(const std::vector<Correction>& proposals, const RecordFilter& about) {
    about_ = about;
    const Order& order = room_.order();
    QString now = QString::number(int(Unit(order.unit)));
    for (const Correction& c : proposals) now += qt(c.id) + QString::number(c.by) + QString::number(c.pieces);
    for (const Lesson& l : room_.records().lessons())
        now += qt(l.correction.id) + QString::number(l.version) + QString::number(room_.records().all().size());
    if (now == shown_) return;  // what is under the pointer stays where it is
    shown_ = now;
    for (QWidget* w : cards_) {
        w->hide();
        w->deleteLater();
    }
    cards_.clear();
    for (const Correction& c : proposals) {
        QWidget* frame = card(qt(proposal_words(c, order)), qt(capitalised(proposal_reason(c, order.unit))), tr("▲ proposed"));
        auto* keys = new QHBoxLayout;
        auto* take = push(tr("Take it"), tr("Acts where it says, from now on; undo takes it back"), true);
        auto* leave = push(tr("Decline"), tr("It is remembered, and comes again only when it rests on twice as many pieces"));
        connect(take, &QPushButton::clicked, this, [this, c] { room_.records().take(c); });
        connect(leave, &QPushButton::clicked, this, [this, c] { room_.records().decline(c); });
        keys->addWidget(take);
        keys->addWidget(leave);
        keys->addStretch(1);
        static_cast<QVBoxLayout*>(frame->layout())->addLayout(keys);
    }
    const auto& lessons = room_.records().lessons();
    for (std::size_t i = lessons.size(); i-- > 0;) {  // the latest first
        const Lesson& l = lessons[i];
        const bool remark = l.correction.id.rfind(remark_prefix, 0) == 0;
        QString reason = remark ? QString() : qt(capitalised(proposal_reason(l.correction, order.unit)));
        if (l.state == LessonState::taken) {
            reason = qt(capitalised(taken_words(l.correction, order.unit))) + QStringLiteral(".");
            const Followed f = followed(l, room_.records().all());
            if (f.enough)
                reason += tr(" Since then %1 measured: %2 off on the mean, where it was %3.")
                              .arg(counted(std::size_t(f.pieces), "piece"),
                                   qt(length_text(Length::from_mm(std::round(f.after * 10) / 10), order.unit)),
                                   qt(length_text(Length::from_mm(std::round(f.before * 10) / 10), order.unit)));
            else if (l.correction.kind == CorrectionKind::loading_marks)
                reason += tr(" Too few measured since to say whether it helped.");
        }
        static const char* const marks[] = {noted("○ open"), noted("■ taken"), noted("– declined"), noted("↶ taken back")};
        QWidget* frame = card(qt(proposal_words(l.correction, order)), reason, tr(marks[std::size_t(l.state)]));
        if (l.state == LessonState::taken || !remark) continue;
        if (l.state == LessonState::open) {
            auto* done = push(tr("Done with"), tr("It was heeded"));
            connect(done, &QPushButton::clicked, this, [this, c = l.correction] { room_.records().decline(c); });
            auto* keys = new QHBoxLayout;
            keys->addWidget(done);
            keys->addStretch(1);
            static_cast<QVBoxLayout*>(frame->layout())->addLayout(keys);
        }
    }
}

}  // namespace orthema::app
