#include "seen.h"

#include <QtWidgets>

#include "app/widgets/canvas.h"
#include "app/widgets/chips.h"
#include "app/widgets/fitting_label.h"
#include "app/window/findings_panel.h"
#include "app/window/notice_bar.h"
#include "support/words.h"

namespace orthema::test {

namespace {

std::string named(const QWidget& w, const QString& text) {
    return std::string(w.metaObject()->className()) + " " + w.objectName().toStdString() + " “" + text.simplified().toStdString() + "”";
}

QString plain(const QString& text) {
    if (!Qt::mightBeRichText(text)) return text;
    QTextDocument document;
    document.setHtml(text);
    return document.toPlainText();
}

/// Of the window or of what floats over it on purpose.
bool floats(const QWidget* w) {
    for (; w != nullptr; w = w->parentWidget())
        if (qobject_cast<const app::NoticeBar*>(w) != nullptr || qobject_cast<const app::FindingsPanel*>(w) != nullptr) return true;
    return false;
}

QScrollArea* scrolled_by(const QWidget* w) {
    for (QWidget* p = w->parentWidget(); p != nullptr && !p->isWindow(); p = p->parentWidget())
        if (auto* area = qobject_cast<QScrollArea*>(p)) return area;
    return nullptr;
}

/// The text that a widget shows and whether its own size holds it.
bool fits(const QWidget& w, QString& text) {
    if (const auto* l = qobject_cast<const app::FittingLabel*>(&w)) {
        text = l->text();
        return l->toolTip() == l->whole();  // shortened on purpose; its tip says all
    }
    if (const auto* l = qobject_cast<const QLabel*>(&w)) {
        text = plain(l->text());
        if (text.isEmpty()) return true;
        if (l->wordWrap()) {
            if (l->heightForWidth(l->width()) > l->height() + 1) return false;
            for (const QString& word : text.split(QRegularExpression(QStringLiteral("[\\s\\-/]+"))))
                if (l->fontMetrics().horizontalAdvance(word) > l->contentsRect().width() + 1) return false;
            return true;
        }
        return l->sizeHint().width() <= l->width() + 1 && l->sizeHint().height() <= l->height() + 1;
    }
    if (const auto* b = qobject_cast<const app::ChipButton*>(&w)) {
        text = b->text();
        return true;  // shortened with an ellipsis on purpose; its tip says all
    }
    if (const auto* b = qobject_cast<const QAbstractButton*>(&w)) {
        text = b->text();
        QString bare = text;
        bare.remove('&');
        int need = 0;
        for (const QString& line : bare.split('\n')) need = std::max(need, b->fontMetrics().horizontalAdvance(line));
        if (qobject_cast<const QCheckBox*>(&w) != nullptr || qobject_cast<const QRadioButton*>(&w) != nullptr) need += 22;
        return need <= b->width() + 1 && b->fontMetrics().height() * (1 + bare.count('\n')) <= b->height() + 2;
    }
    if (const auto* f = qobject_cast<const QLineEdit*>(&w)) {
        text = f->text().isEmpty() ? f->placeholderText() : f->text();
        if (f->text().contains(',') && f->width() > 200) return true;  // a list that scrolls, from its beginning
        return f->fontMetrics().horizontalAdvance(text) + 8 <= f->width();
    }
    if (const auto* c = qobject_cast<const QComboBox*>(&w)) {
        text = c->currentText();
        QStyleOptionComboBox option;
        option.initFrom(c);
        option.editable = c->isEditable();
        const QRect room = c->style()->subControlRect(QStyle::CC_ComboBox, &option, QStyle::SC_ComboBoxEditField, c);
        return c->fontMetrics().horizontalAdvance(text) <= room.width() + 1;
    }
    if (const auto* g = qobject_cast<const QGroupBox*>(&w)) {
        text = g->title();
        return g->fontMetrics().horizontalAdvance(text) <= g->width();
    }
    text.clear();
    return true;
}

}  // namespace

std::vector<std::string> seen_troubles(QWidget& top) {
    std::vector<std::string> out;
    const QRect whole = top.rect();
    for (QWidget* w : top.findChildren<QWidget*>()) {
        if (!w->isVisibleTo(&top) || w->window() != &top || w->width() <= 0 || w->height() <= 0) continue;
        if (w->objectName().startsWith(QStringLiteral("qt_"))) continue;
        const QRect place(w->mapTo(&top, QPoint(0, 0)), w->size());
        QScrollArea* scroll = scrolled_by(w);
        if (scroll != nullptr) {
            const QRect view(scroll->viewport()->mapTo(&top, QPoint(0, 0)), scroll->viewport()->size());
            if (!view.intersects(place)) continue;  // scrolled away
            if (place.left() < view.left() - 1 || place.right() > view.right() + 1)
                out.push_back("out of what scrolls, to the side: " + named(*w, {}));
        } else if (!whole.contains(place)) {
            out.push_back("out of the window: " + named(*w, {}));
        }
        if (qobject_cast<QComboBox*>(w) != nullptr || qobject_cast<QAbstractButton*>(w) != nullptr ||
            qobject_cast<QLineEdit*>(w) != nullptr)
            for (const QWidget* p = w->parentWidget(); p != nullptr && p != &top; p = p->parentWidget()) {
                const int from = w->mapTo(p, QPoint(0, 0)).x();
                if (from < -1 || from + w->width() > p->width() + 1) {
                    out.push_back("cut at its side: " + named(*w, {}));
                    break;
                }
            }
        QString text;
        if (!fits(*w, text))
            out.push_back("does not fit: " + named(*w, text) + " in " + std::to_string(w->width()) + " x " + std::to_string(w->height()));
        if (!text.isEmpty() && scroll == nullptr && !floats(w)) {
            int hidden = 0;
            for (const double at : {0.15, 0.5, 0.85}) {
                const QPoint p = w->mapTo(&top, QPoint(int(w->width() * at), w->height() / 2));
                const QWidget* there = top.childAt(p);
                if (there != nullptr && there != w && !w->isAncestorOf(there) && !floats(there)) ++hidden;
            }
            if (hidden > 0) out.push_back("covered: " + named(*w, text));
        }
        if (auto* table = qobject_cast<QTableWidget*>(w))
            for (int r = 0; r < table->rowCount(); ++r)
                for (int c = 0; c < table->columnCount(); ++c)
                    if (const QTableWidgetItem* item = table->item(r, c); item != nullptr && !table->isColumnHidden(c))
                        if (table->fontMetrics().horizontalAdvance(item->text()) + 6 > table->columnWidth(c))
                            out.push_back("does not fit its column: " + named(*table, item->text()));
        if (auto* canvas = qobject_cast<app::Canvas*>(w))
            for (const std::string& t : word_troubles(canvas->shown(), {0, 0, double(canvas->width()), double(canvas->height())})) {
                if (canvas->objectName() == QStringLiteral("Ribbon") && t.starts_with("cut by the edge")) continue;  // it goes on there
                out.push_back(named(*canvas, {}) + ": " + t);
            }
    }
    return out;
}

}  // namespace orthema::test
