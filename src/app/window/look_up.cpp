#include "app/window/look_up.h"

#include <QApplication>
#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QPainter>
#include <QStyledItemDelegate>
#include <QVBoxLayout>

#include <algorithm>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "app/widgets/theme.h"
#include "app/window/over.h"
#include "core/drawing/drawing.h"

namespace orthema::app {

namespace {

constexpr std::size_t most_shown = 40;
constexpr int widest = 620, most_tall = 440;

/// Small letters without their accents.
QString folded(const QString& text) {
    QString out;
    for (const QChar c : text.normalized(QString::NormalizationForm_KD))
        if (c.category() != QChar::Mark_NonSpacing) out += c.toCaseFolded();
    return out;
}

QStringList words_of(const QString& text) { return text.split(QLatin1Char(' '), Qt::SkipEmptyParts); }

/// 4: a word of it begins so and ends so, 3: begins so, 1: holds it, 0: not there.
int holds(const QString& text, const QString& word) {
    int best = 0;
    for (qsizetype at = text.indexOf(word); at >= 0; at = text.indexOf(word, at + 1)) {
        const bool begins = at == 0 || !text.at(at - 1).isLetterOrNumber();
        const qsizetype end = at + word.size();
        const bool ends = end == text.size() || !text.at(end).isLetterOrNumber();
        best = std::max(best, begins ? (ends ? 4 : 3) : 1);
    }
    return best;
}

/// The text at the left, quietly at the right what it is.
class Line : public QStyledItemDelegate {
public:
    using QStyledItemDelegate::QStyledItemDelegate;
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const bool on = option.state.testFlag(QStyle::State_Selected);
        if (on) painter->fillRect(option.rect, QColor(0xDC, 0xEB, 0xE9));
        const QRect in = option.rect.adjusted(10, 0, -10, 0);
        const QString where = index.data(Qt::UserRole).toString();
        const int aside = option.fontMetrics.horizontalAdvance(where);
        painter->setFont(option.font);
        painter->setPen(to_qt(palette::quiet));
        painter->drawText(in, Qt::AlignVCenter | Qt::AlignRight, where);
        painter->setPen(to_qt(palette::ink));
        painter->drawText(in, Qt::AlignVCenter | Qt::AlignLeft,
                          option.fontMetrics.elidedText(index.data().toString(), Qt::ElideRight, in.width() - aside - 16));
    }
    QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex&) const override {
        return {100, option.fontMetrics.height() + 12};
    }
};

}  // namespace

std::optional<int> fitness(const QString& typed, const QString& text, const QString& also) {
    const QString in = folded(text), beside = folded(also);
    int sum = 0;
    for (const QString& word : words_of(folded(typed))) {
        const int here = 3 * holds(in, word), there = here > 0 ? 0 : holds(beside, word);
        if (here + there == 0) return std::nullopt;
        sum += here + there;
    }
    const QString whole = folded(typed).trimmed();
    if (!whole.isEmpty() && in.startsWith(whole)) sum += in.size() == whole.size() ? 8 : 4;
    return sum;
}

std::vector<std::size_t> looked_up(const QString& typed, const std::vector<Known>& known, std::size_t most) {
    struct Found {
        std::size_t at;
        int fit;
    };
    std::vector<Found> found;
    for (std::size_t i = 0; i < known.size(); ++i)
        if (const auto fit = fitness(typed, known[i].text, known[i].where + QLatin1Char(' ') + known[i].also)) found.push_back({i, *fit});
    std::stable_sort(found.begin(), found.end(), [&](const Found& a, const Found& b) {
        if (a.fit != b.fit) return a.fit > b.fit;
        if (known[a.at].weight != known[b.at].weight) return known[a.at].weight > known[b.at].weight;
        return !typed.trimmed().isEmpty() && known[a.at].text.size() < known[b.at].text.size();
    });
    std::vector<std::size_t> out;
    for (const Found& f : found)
        if (out.size() < most) out.push_back(f.at);
    return out;
}

LookUp::LookUp(QWidget* parent) : QFrame(parent) {
    make_over(this, "LookUp", tr("Look up"));
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(10, 10, 10, 10);
    field_ = new QLineEdit;
    field_->setObjectName(QStringLiteral("Look up"));
    field_->setAccessibleName(tr("Look up"));
    field_->setPlaceholderText(tr("A bench, a deed, a figure, a design, a size, a person, a finding"));
    field_->setMinimumHeight(32);
    rows->addWidget(field_);
    list_ = new QListWidget;
    list_->setObjectName(QStringLiteral("Looked up"));
    list_->setAccessibleName(tr("What was found"));
    list_->setItemDelegate(new Line(list_));
    list_->setFocusPolicy(Qt::NoFocus);
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    rows->addWidget(list_, 1);
    field_->installEventFilter(this);
    connect(field_, &QLineEdit::textChanged, this, &LookUp::fill);
    connect(list_, &QListWidget::itemClicked, this, &LookUp::go);
    hide();
}

void LookUp::rise() {
    before_ = QApplication::focusWidget();
    known_ = all ? all() : std::vector<Known>{};
    field_->clear();
    fill();
    show();
    raise();
    field_->setFocus();
}

void LookUp::fill() {
    shown_ = looked_up(field_->text(), known_, most_shown);
    list_->clear();
    for (const std::size_t i : shown_) {
        auto* item = new QListWidgetItem(known_[i].text, list_);
        item->setData(Qt::UserRole, known_[i].where);
        item->setData(Qt::AccessibleTextRole, known_[i].text + QStringLiteral(", ") + known_[i].where);
        item->setToolTip(known_[i].text);
    }
    if (shown_.empty()) {
        auto* none = new QListWidgetItem(tr("Nothing here is called so."), list_);
        none->setFlags(Qt::NoItemFlags);
    } else {
        list_->setCurrentRow(0);
    }
    // no taller than what it lists
    const int rows = list_->count(), row = list_->sizeHintForRow(0);
    lay_over(this, widest, std::min(most_tall, field_->height() + 42 + rows * row));
}

void LookUp::go() {
    const int row = list_->currentRow();
    if (row < 0 || row >= int(shown_.size())) return;
    const auto act = known_[shown_[std::size_t(row)]].go;
    hide();
    if (before_) before_->setFocus();
    if (act) act();
}

bool LookUp::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::FocusOut && isVisible() && watched == field_) {
        hide();
        return false;
    }
    if (event->type() != QEvent::KeyPress) return QFrame::eventFilter(watched, event);
    const int key = static_cast<QKeyEvent*>(event)->key();
    const int rows = int(shown_.size());
    switch (key) {
    case Qt::Key_Escape:
        hide();
        if (before_) before_->setFocus();
        return true;
    case Qt::Key_Return:
    case Qt::Key_Enter: go(); return true;
    case Qt::Key_Down:
    case Qt::Key_Up:
    case Qt::Key_PageDown:
    case Qt::Key_PageUp: {
        if (rows == 0) return true;
        const int step = key == Qt::Key_Down ? 1 : key == Qt::Key_Up ? -1 : key == Qt::Key_PageDown ? 8 : -8;
        list_->setCurrentRow(std::clamp(list_->currentRow() + step, 0, rows - 1));
        return true;
    }
    default: return QFrame::eventFilter(watched, event);
    }
}

}  // namespace orthema::app
