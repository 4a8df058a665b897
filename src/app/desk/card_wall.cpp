#include "app/desk/card_wall.h"

#include <QContextMenuEvent>
#include <QDate>
#include <QHelpEvent>
#include <QLocale>
#include <QPainter>
#include <QPixmapCache>
#include <QScrollBar>
#include <QToolTip>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "app/widgets/theme.h"

namespace orthema::app {

namespace {

constexpr int card_height = 172, gap = 12, least_width = 268, picture_height = 76, pad = 12;

QColor mark_colour(const StageMark& m) {
    if (m.waiting) return to_qt(palette::rule);
    return to_qt(m.standing == Standing::settled ? palette::moss : m.standing == Standing::look ? palette::ochre : palette::carmine);
}

/// The job line in small: a mark for each stage on its stitches; round is settled, a triangle needs a look, a square is blocked, hollow
/// waits.
void paint_stages(QPainter& p, const std::vector<StageMark>& marks, QRectF box) {
    if (marks.empty()) return;
    const double each = box.width() / double(marks.size()), y = box.center().y();
    QPen stitches(to_qt(palette::rule), 2);
    stitches.setDashPattern({1.6, 1.4});
    p.setPen(stitches);
    p.drawLine(QPointF(box.left() + each / 2, y), QPointF(box.right() - each / 2, y));
    for (std::size_t i = 0; i < marks.size(); ++i) {
        const QPointF c(box.left() + each * (double(i) + 0.5), y);
        const StageMark& m = marks[i];
        p.setPen(m.waiting ? QPen(to_qt(palette::quiet), 1.5) : QPen(Qt::NoPen));
        p.setBrush(m.waiting ? to_qt(palette::light) : mark_colour(m));
        if (m.waiting || m.standing == Standing::settled)
            p.drawEllipse(c, 5, 5);
        else if (m.standing == Standing::look)
            p.drawPolygon(QPolygonF({c + QPointF(0, -6), c + QPointF(6.5, 5), c + QPointF(-6.5, 5)}));
        else
            p.drawRect(QRectF(c.x() - 5, c.y() - 5, 10, 10));
    }
}

}  // namespace

/// Whether its day has gone by.
static bool is_late(const OrderCard& card, const std::string& today) {
    const auto days = days_between(today, card.due);
    return days && *days < 0;
}

QString due_words(const OrderCard& card, const std::string& today) {
    const QDate due = QDate::fromString(qt(card.due), Qt::ISODate);
    const auto days = days_between(today, card.due);
    if (!due.isValid() || !days) return {};
    const QString day = day_text(due);
    if (*days < 0) return tr("%1, %2 late").arg(day, counted(std::size_t(-*days), "day"));
    if (*days == 0) return tr("%1, today").arg(day);
    if (*days == 1) return tr("%1, tomorrow").arg(day);
    return *days < 60 ? tr("%1, in %2 days").arg(day).arg(*days) : day_text(due, true);
}

CardWall::CardWall(QWidget* parent) : QAbstractScrollArea(parent) {
    setObjectName(QStringLiteral("Order cards"));
    setAccessibleName(tr("Orders of the shop. Arrows choose, Space adds to the choice, Enter opens."));
    setFrameShape(QFrame::NoFrame);
    setFocusPolicy(Qt::StrongFocus);
    viewport()->setAutoFillBackground(false);  // the desk is seen between the cards
    setStyleSheet(QStringLiteral("orthema--app--CardWall { background: transparent; }"));
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    verticalScrollBar()->setSingleStep(60);
}

void CardWall::show_cards(std::vector<KnownOrder> cards, const std::string& today, std::map<std::string, QString> lacks) {
    today_ = today;
    lacks_ = std::move(lacks);
    if (cards != cards_) {
        cards_ = std::move(cards);
        std::set<std::string> there;
        for (const KnownOrder& c : cards_) there.insert(c.card.job);
        std::erase_if(chosen_, [&](const std::string& job) { return !there.contains(job); });
        if (!there.contains(current_)) current_ = cards_.empty() ? "" : cards_.front().card.job;
        if (chosen_.empty() && !current_.empty()) chosen_.insert(current_);
        arrange();
    }
    viewport()->update();
}

const KnownOrder* CardWall::current() const {
    for (const KnownOrder& c : cards_)
        if (c.card.job == current_) return &c;
    return nullptr;
}

int CardWall::columns() const { return std::max(1, (viewport()->width() + gap) / (least_width + gap)); }

QRect CardWall::card_rect(int index) const {
    const int n = columns(), width = (viewport()->width() - gap * (n - 1) - 4) / n;
    return {2 + index % n * (width + gap), 2 + index / n * (card_height + gap) - verticalScrollBar()->value(), width, card_height};
}

void CardWall::arrange() {
    const int rows = (int(cards_.size()) + columns() - 1) / columns();
    verticalScrollBar()->setRange(0, std::max(0, rows * (card_height + gap) - gap + 4 - viewport()->height()));
    verticalScrollBar()->setPageStep(viewport()->height());
}

void CardWall::resizeEvent(QResizeEvent*) { arrange(); }

int CardWall::at(QPoint p) const {
    for (int i = 0; i < int(cards_.size()); ++i)
        if (card_rect(i).contains(p)) return i;
    return -1;
}

void CardWall::paintEvent(QPaintEvent*) {
    QPainter p(viewport());
    p.setRenderHint(QPainter::Antialiasing);
    const int n = columns(), first = std::max(0, verticalScrollBar()->value() / (card_height + gap)) * n;
    for (int i = first; i < int(cards_.size()); ++i) {
        const QRect box = card_rect(i);
        if (box.top() > viewport()->height()) break;
        const KnownOrder& card = cards_[std::size_t(i)];
        paint_card(p, card, box, chosen_.contains(card.card.job), hasFocus() && card.card.job == current_);
    }
}

void CardWall::paint_card(QPainter& p, const KnownOrder& known, const QRect& box, bool chosen, bool current) {
    const OrderCard& card = known.card;
    p.setPen(chosen ? QPen(to_qt(palette::verdigris), 2) : QPen(to_qt(palette::rule), 1));
    p.setBrush(to_qt(palette::light));
    p.drawRoundedRect(QRectF(box).adjusted(0.5, 0.5, -0.5, -0.5), 6, 6);
    if (current) {
        p.setPen(QPen(to_qt(palette::verdigris), 1, Qt::DotLine));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(QRectF(box).adjusted(4.5, 4.5, -4.5, -4.5), 4, 4);
    }
    const QString key = qt(spoken("card ") + card.job + card.saved);
    QPixmap garments;
    if (!known.picture.empty() && !QPixmapCache::find(key, &garments)) {
        garments.loadFromData(QByteArray::fromStdString(known.picture));
        QPixmapCache::insert(key, garments);
    }
    const QRect in = box.adjusted(pad, pad, -pad, -pad);
    if (!garments.isNull()) {
        p.setOpacity(known.away ? 0.5 : 1);
        p.drawPixmap(QPoint(in.left(), in.top() - 4), garments, QRect(0, 0, std::min(garments.width(), in.width()), garments.height()));
        p.setOpacity(1);
    }
    QFont font = this->font();
    const auto line = [&](const QRect& where, const QString& text, int size, bool bold, QColor colour, int align = Qt::AlignLeft) {
        font.setPixelSize(size);
        font.setBold(bold);
        p.setFont(font);
        p.setPen(colour);
        p.drawText(where, align | Qt::AlignVCenter, QFontMetrics(font).elidedText(text, Qt::ElideRight, where.width()));
    };
    const QColor ink = to_qt(known.away ? palette::quiet : palette::ink), quiet = to_qt(palette::quiet);
    int y = in.top() + picture_height - 2;
    const QString pieces = counted(std::size_t(card.garments), "piece");
    font.setPixelSize(12);
    font.setBold(false);
    const int pieces_wide = QFontMetrics(font).horizontalAdvance(pieces) + 8;
    line({in.left(), y, in.width() - pieces_wide, 20}, qt(card.name), 14, true, ink);
    line({in.right() - pieces_wide + 1, y, pieces_wide, 20}, pieces, 12, false, quiet, Qt::AlignRight);
    y += 20;
    const QString due = due_words(card, today_);
    const bool late = is_late(card, today_) && !known.away;
    font.setPixelSize(12);
    font.setBold(late);
    const int due_wide = std::min(in.width() * 2 / 3, QFontMetrics(font).horizontalAdvance(due) + 8);
    QString whose = qt(card.customer);
    if (!card.jobs.empty()) whose = tr("%1 together").arg(counted(card.jobs.size(), "order"));
    line({in.left(), y, in.width() - due_wide, 18}, whose, 12, false, quiet);
    line({in.right() - due_wide + 1, y, due_wide, 18}, due, 12, late, late ? QColor(0xA3, 0x20, 0x35) : quiet, Qt::AlignRight);
    y += 20;
    if (!card.stages.empty()) paint_stages(p, card.stages, QRectF(in.left() - 4, y, std::min(in.width() + 8, 230), 16));
    y += 19;
    QString next = known.away ? tr("Put away") : card.stages.empty() ? tr("Not opened here yet") : qt(card.next);
    if (name_of && !known.away)
        if (const std::string gang = name_of(card.job); !gang.empty()) next = tr("Lies in “%1”").arg(qt(gang));
    const auto lacks = known.away ? lacks_.end() : lacks_.find(card.job);
    const bool lacking = lacks != lacks_.end();
    line({in.left(), y, in.width(), 16}, lacking ? lacks->second : next, 11, lacking, lacking ? QColor(0xA3, 0x20, 0x35) : quiet);
}

void CardWall::choose(const std::string& job, bool also) {
    if (also && chosen_.contains(job) && chosen_.size() > 1)
        chosen_.erase(job);
    else {
        if (!also) chosen_.clear();
        chosen_.insert(job);
    }
    current_ = job;
    for (int i = 0; i < int(cards_.size()); ++i)
        if (cards_[std::size_t(i)].card.job == job) {
            const QRect box = card_rect(i);
            if (box.top() < 0) verticalScrollBar()->setValue(verticalScrollBar()->value() + box.top() - gap);
            if (box.bottom() > viewport()->height())
                verticalScrollBar()->setValue(verticalScrollBar()->value() + box.bottom() - viewport()->height() + gap);
        }
    viewport()->update();
    if (changed) changed();
}

void CardWall::mousePressEvent(QMouseEvent* event) {
    const int i = at(event->position().toPoint());
    if (i < 0) return;
    const std::string job = cards_[std::size_t(i)].card.job;
    if (event->button() == Qt::RightButton && chosen_.contains(job)) {
        current_ = job;
        return;
    }
    choose(job, event->modifiers().testFlag(Qt::ControlModifier) || event->modifiers().testFlag(Qt::ShiftModifier));
}

void CardWall::mouseDoubleClickEvent(QMouseEvent* event) {
    const int i = at(event->position().toPoint());
    if (i >= 0 && opened) opened(KnownOrder(cards_[std::size_t(i)]));
}

void CardWall::step(int by, bool also) {
    int i = 0;
    while (i < int(cards_.size()) && cards_[std::size_t(i)].card.job != current_) ++i;
    if (cards_.empty()) return;
    i = std::clamp(i + by, 0, int(cards_.size()) - 1);
    const std::string job = cards_[std::size_t(i)].card.job;
    if (also && chosen_.contains(job))
        current_ = job;
    else
        choose(job, also);
    viewport()->update();
}

void CardWall::keyPressEvent(QKeyEvent* event) {
    const bool also = event->modifiers().testFlag(Qt::ShiftModifier);
    switch (event->key()) {
    case Qt::Key_Left: return step(-1, also);
    case Qt::Key_Right: return step(1, also);
    case Qt::Key_Up: return step(-columns(), also);
    case Qt::Key_Down: return step(columns(), also);
    case Qt::Key_PageUp: return step(-columns() * std::max(1, viewport()->height() / (card_height + gap)), also);
    case Qt::Key_PageDown: return step(columns() * std::max(1, viewport()->height() / (card_height + gap)), also);
    case Qt::Key_Home: return step(-int(cards_.size()), also);
    case Qt::Key_End: return step(int(cards_.size()), also);
    case Qt::Key_Space:
        if (!current_.empty()) choose(std::string(current_), true);
        return;
    case Qt::Key_Return:
    case Qt::Key_Enter:
        if (const KnownOrder* now = current(); now != nullptr && opened) opened(KnownOrder(*now));
        return;
    default: QAbstractScrollArea::keyPressEvent(event);
    }
}

void CardWall::contextMenuEvent(QContextMenuEvent* event) {
    if (asked && current() != nullptr) asked(event->globalPos());
}

bool CardWall::viewportEvent(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        const int i = at(help->pos());
        if (i < 0) return true;
        const KnownOrder& k = cards_[std::size_t(i)];
        QToolTip::showText(help->globalPos(), QStringLiteral("%1\n%2\n%3").arg(qt(k.card.name), qt(k.card.next), qt(k.path)));
        return true;
    }
    return QAbstractScrollArea::viewportEvent(event);
}

}  // namespace orthema::app
