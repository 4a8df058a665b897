#include "app/window/findings_panel.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QTreeWidget>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "app/window/over.h"
#include "app/widgets/theme.h"
#include "app/window/all_known.h"
#include "core/drawing/drawing.h"

namespace orthema::app {

namespace {

QIcon severity_icon(Severity s) {
    QPixmap map(18, 18);
    map.fill(Qt::transparent);
    QPainter p(&map);
    p.setRenderHint(QPainter::Antialiasing);
    draw_severity(p, {9, 9}, s);
    return QIcon(map);
}

}  // namespace

FindingsPanel::FindingsPanel(Workroom& room, QWidget* parent) : QFrame(parent), room_(room) {
    make_over(this, "FindingsPanel", tr("All findings"));
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(14, 10, 14, 10);
    auto* head = new QHBoxLayout;
    head->addWidget(head_label(tr("All there is to say")));
    says_ = new QLabel;
    says_->setObjectName(QStringLiteral("Findings count"));
    says_->setProperty("quiet", true);
    head->addWidget(says_, 1);
    filter_ = new QLineEdit;
    filter_->setObjectName(QStringLiteral("Filter findings"));
    filter_->setAccessibleName(tr("Filter findings"));
    filter_->setPlaceholderText(tr("only with this word"));
    filter_->setFixedWidth(180);
    head->addWidget(filter_);
    all_ = new QCheckBox(tr("seen ones too"));
    all_->setObjectName(QStringLiteral("Seen too"));
    head->addWidget(all_);
    auto* seen = push(tr("Seen"), tr("Puts the chosen notes away until their figures change (S)"));
    head->addWidget(seen);
    auto* close = push(tr("Close"), tr("Back to the bench (Escape)"));
    head->addWidget(close);
    rows->addLayout(head);
    list_ = new QTreeWidget;
    list_->setObjectName(QStringLiteral("Findings list"));
    list_->setColumnCount(2);
    list_->setHeaderHidden(true);
    list_->header()->setStretchLastSection(false);
    list_->header()->setSectionResizeMode(0, QHeaderView::Stretch);
    list_->header()->setSectionResizeMode(1, QHeaderView::ResizeToContents);
    list_->setSelectionMode(QAbstractItemView::ExtendedSelection);
    rows->addWidget(list_, 1);
    connect(filter_, &QLineEdit::textChanged, this, &FindingsPanel::fill);
    connect(all_, &QCheckBox::toggled, this, &FindingsPanel::fill);
    connect(seen, &QPushButton::clicked, this, &FindingsPanel::mark_seen);
    connect(close, &QPushButton::clicked, this, &QWidget::hide);
    connect(list_, &QTreeWidget::itemDoubleClicked, this,
            [this](QTreeWidgetItem* item) { emit chosen(item->data(0, Qt::UserRole).toInt()); });
    hide();
}

bool FindingsPanel::seen(const Finding& finding) const {
    return finding.severity == Severity::note && seen_.contains(qt(finding_text(finding, Unit::mm)));
}

void FindingsPanel::showEvent(QShowEvent*) {
    fill();
    list_->setFocus();
}

void FindingsPanel::refresh() {
    if (isVisible() && (shown_ != room_.findings() || unit_ != room_.order().unit)) fill();
}

void FindingsPanel::fill() {
    shown_ = room_.findings();
    unit_ = room_.order().unit;
    list_->clear();
    std::size_t stops = 0, cautions = 0, notes = 0, away = 0;
    const QString word = filter_->text().trimmed();
    for (const FoldedFindings& group : folded(shown_)) {
        std::vector<std::size_t> of;
        for (const std::size_t i : group.of) {
            const bool put_away = seen(shown_[i]);
            away += put_away ? 1 : 0;
            if (put_away && !all_->isChecked()) continue;
            if (!word.isEmpty() && !qt(finding_text(shown_[i], unit_)).contains(word, Qt::CaseInsensitive)) continue;
            of.push_back(i);
        }
        if (of.empty()) continue;
        (group.severity == Severity::stop ? stops : group.severity == Severity::caution ? cautions : notes) += of.size();
        const auto line = [&](std::size_t i) {
            auto* item = new QTreeWidgetItem({qt(finding_text(shown_[i], unit_)), stage_name(qt(group.stage))});
            item->setData(0, Qt::UserRole, int(i));
            item->setIcon(0, severity_icon(group.severity));
            item->setToolTip(0, said(severity_name(group.severity)) + ": " + item->text(0));
            return item;
        };
        auto* first = line(of.front());
        list_->addTopLevelItem(first);
        if (of.size() < 2) continue;
        first->setText(1, tr("%1 alike · %2").arg(of.size()).arg(first->text(1)));
        for (std::size_t k = 1; k < of.size(); ++k) first->addChild(line(of[k]));
    }
    QStringList parts;
    if (stops > 0) parts << counted(stops, "stop");
    if (cautions > 0) parts << counted(cautions, "caution");
    if (notes > 0) parts << counted(notes, "note");
    if (away > 0) parts << tr("%1 seen").arg(away);
    says_->setText(parts.isEmpty() ? tr("nothing to mend") : parts.join(QStringLiteral(", ")));
    if (list_->topLevelItemCount() > 0) list_->setCurrentItem(list_->topLevelItem(0));
}

void FindingsPanel::mark_seen() {
    for (const QTreeWidgetItem* item : list_->selectedItems()) {
        const auto take = [&](const QTreeWidgetItem* one) {
            const Finding& f = shown_[std::size_t(one->data(0, Qt::UserRole).toInt())];
            if (f.severity == Severity::note) seen_.insert(qt(finding_text(f, Unit::mm)));
        };
        take(item);
        for (int k = 0; !item->isExpanded() && k < item->childCount(); ++k) take(item->child(k));
    }
    fill();
}

void FindingsPanel::keyPressEvent(QKeyEvent* event) {
    const QTreeWidgetItem* item = list_->currentItem();
    switch (event->key()) {
    case Qt::Key_Escape: return hide();
    case Qt::Key_S: return mark_seen();
    case Qt::Key_Return:
    case Qt::Key_Enter:
        if (item != nullptr) emit chosen(item->data(0, Qt::UserRole).toInt());
        return;
    default: QFrame::keyPressEvent(event);
    }
}

}  // namespace orthema::app
