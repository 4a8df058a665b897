#include "app/benches/press/held_runs.h"

#include <QHBoxLayout>
#include <QLabel>

#include "app/widgets/speech.h"
#include "app/benches/press/press_desk.h"
#include "app/widgets/figures.h"

namespace orthema::app {

HeldRuns::HeldRuns(Workroom& room, PressDesk& desk) : room_(room), desk_(desk) {
    setObjectName(QStringLiteral("Held runs"));
    setProperty("card", true);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(12, 8, 12, 8);
    column->setSpacing(6);
    says_ = new QLabel;
    says_->setWordWrap(true);
    says_->setProperty("strong", true);
    column->addWidget(says_);
    row_ = new QHBoxLayout;
    column->addLayout(row_);
    go_on_ = push(tr("Go on as it is"), tr("What waits for the trial is pressed by the same figures, knowingly"));
    go_on_->setFocusPolicy(Qt::TabFocus);
    row_->addStretch(1);
    row_->addWidget(go_on_);
    connect(go_on_, &QPushButton::clicked, this, [this] { desk_.go_on_knowingly(trial_); });
    hide();
}

void HeldRuns::refresh() {
    const bool any = desk_.running() && !desk_.shift().held().empty();
    setVisible(any);
    if (!any) {
        shown_.clear();
        return;
    }
    const HeldRun& held = desk_.shift().held().front();
    const std::string now = held.trial + press_fault_name(held.fault);
    if (now == shown_) return;
    shown_ = now;
    trial_ = held.trial;
    const Load* load = find_load(desk_.shift().plan(), held.trial);
    const std::string name = load == nullptr ? held.trial : load_words(room_.order(), *load);
    const auto tries = desk_.tries_for(held);
    says_->setText(
        tr("%1 came out %2: what waits for it is held. %3")
            .arg(qt(name), said(press_fault_name(held.fault)),
                 tries.empty() ? tr("No figure of its recipe mends that.") : tr("Make the trial again with one figure changed:")));
    for (QPushButton* b : tries_) b->deleteLater();
    tries_.clear();
    for (const NextTry& t : tries) {
        auto* b = push(capitalised(worded(t.words, room_.order().unit)).c_str(), tr("One figure at a time, so that what helped is known"),
                       tries_.empty());
        connect(b, &QPushButton::clicked, this, [this, t] { desk_.try_again(trial_, t); });
        b->setFocusPolicy(Qt::TabFocus);
        row_->insertWidget(int(tries_.size()), b);
        tries_.push_back(b);
    }
}

}  // namespace orthema::app
