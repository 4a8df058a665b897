#include "app/desk/bin_wall.h"

#include <QContextMenuEvent>
#include <QPainter>
#include <QPainterPath>
#include <QPixmapCache>
#include <QScrollBar>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "app/widgets/theme.h"

namespace orthema::app {

namespace {

constexpr int bin_width = 86, bag_width = 176, bin_height = 112, head_height = 30, bin_gap = 8, row_gap = 14;

int wide(const Bin& bin) { return bin.entry.kind == StockKind::transfers ? bag_width : bin_width; }

/// A pile of folded pieces, as high as it is full; the dashed line is what is wanted.
void paint_pile(QPainter& p, const Bin& bin, QRectF in) {
    const auto height = [&](double n) { return in.height() * std::clamp(n / bin.full, 0.0, 1.0); };
    const double tall = height(std::max(0.0, bin.count)), half = in.width() * 0.3;
    const QRectF pile(in.center().x() - half, in.bottom() - tall, 2 * half, tall);
    if (tall > 0.5) {
        p.setPen(QPen(to_qt(palette::quiet), 0.8));
        p.setBrush(to_qt(bin.tint));
        p.drawRoundedRect(pile, 3, 3);
        QColor fold = to_qt(palette::ink);
        fold.setAlpha(40);
        p.setPen(QPen(fold, 0.8));
        for (double y = in.bottom() - 5; y > pile.top() + 2; y -= 5) p.drawLine(QPointF(pile.left() + 1, y), QPointF(pile.right() - 1, y));
    }
    p.setPen(QPen(to_qt(palette::rule), 1));
    p.drawLine(QPointF(in.left() + 6, in.bottom()), QPointF(in.right() - 6, in.bottom()));
    if (bin.wanted > 0) {
        p.setPen(QPen(to_qt(bin.lacking > 0 ? palette::carmine : palette::quiet), 1.2, Qt::DashLine));
        const double y = in.bottom() - std::max(1.0, height(bin.wanted));
        p.drawLine(QPointF(in.center().x() - half - 6, y), QPointF(in.center().x() + half + 6, y));
    }
}

/// A roll from its end: as thick as what is left on it.
void paint_roll(QPainter& p, const Bin& bin, QRectF in) {
    const double most = std::min(in.width(), in.height()) / 2 - 1, core = most * 0.3;
    const double share = std::clamp(bin.count / bin.full, 0.0, 1.0);
    const double outer = std::sqrt(core * core + share * (most * most - core * core));
    const QPointF c = in.center();
    p.setPen(QPen(to_qt(palette::rule), 1, Qt::DotLine));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(c, most, most);
    p.setPen(QPen(to_qt(palette::quiet), 0.8));
    p.setBrush(to_qt(bin.tint));
    p.drawEllipse(c, outer, outer);
    QColor turn = to_qt(palette::quiet);
    turn.setAlpha(90);
    p.setPen(QPen(turn, 0.7));
    p.setBrush(Qt::NoBrush);
    for (double r = core + 3; r < outer - 1; r += 3) p.drawEllipse(c, r, r);
    p.setPen(QPen(to_qt(palette::quiet), 0.8));
    p.setBrush(to_qt(palette::paper));
    p.drawEllipse(c, core, core);
}

/// A jar, filled.
void paint_jar(QPainter& p, const Bin& bin, QRectF in) {
    const QRectF jar(in.center().x() - 17, in.top() + 8, 34, in.height() - 8);
    const double tall = jar.height() * std::clamp(bin.count / bin.full, 0.0, 1.0);
    p.setPen(Qt::NoPen);
    p.setBrush(to_qt(bin.tint));
    p.drawRoundedRect(QRectF(jar.left(), jar.bottom() - tall, jar.width(), tall), 3, 3);
    p.setPen(QPen(to_qt(palette::quiet), 1.2));
    p.setBrush(Qt::NoBrush);
    p.drawRoundedRect(jar, 4, 4);
    p.drawLine(jar.topLeft() + QPointF(3, -4), jar.topRight() + QPointF(-3, -4));
}

}  // namespace

BinWall::BinWall(const QString& name, QString empty_words, QWidget* parent)
    : QAbstractScrollArea(parent), empty_words_(std::move(empty_words)) {
    setObjectName(name);
    setAccessibleName(name + tr(": arrows choose, a typed number and Enter count"));
    setFrameShape(QFrame::NoFrame);
    setFocusPolicy(Qt::StrongFocus);
    viewport()->setAutoFillBackground(false);
    setStyleSheet(QStringLiteral("orthema--app--BinWall { background: transparent; }"));
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    verticalScrollBar()->setSingleStep(60);
}

void BinWall::show_rows(std::vector<BinRow> rows) {
    if (rows != rows_) {
        rows_ = std::move(rows);
        arrange();
        if (place_of(current_) == nullptr) current_ = places_.empty() ? "" : rows_[places_[0].row].bins[places_[0].bin].entry.id;
    }
    viewport()->update();
}

const Bin* BinWall::current() const {
    const Place* at = place_of(current_);
    return at == nullptr ? nullptr : &rows_[at->row].bins[at->bin];
}

const BinWall::Place* BinWall::place_of(const std::string& id) const {
    for (const Place& p : places_)
        if (rows_[p.row].bins[p.bin].entry.id == id) return &p;
    return nullptr;
}

QRect BinWall::bin_rect(const std::string& id) const {
    const Place* at = place_of(id);
    return at == nullptr ? QRect() : at->box.translated(0, -verticalScrollBar()->value());
}

bool BinWall::choose(const std::string& id) {
    if (place_of(id) == nullptr) return false;
    if (id != current_) typed_.clear();
    current_ = id;
    show_current();
    viewport()->update();
    if (changed) changed();
    return true;
}

void BinWall::arrange() {
    places_.clear();
    heads_.clear();
    int y = 2;
    const int width = viewport()->width();
    for (std::size_t r = 0; r < rows_.size(); ++r) {
        heads_.push_back(y);
        y += head_height;
        int x = 4;
        for (std::size_t b = 0; b < rows_[r].bins.size(); ++b) {
            const int w = wide(rows_[r].bins[b]);
            if (x > 4 && x + w > width - 4) {
                x = 4;
                y += bin_height + bin_gap;
            }
            places_.push_back({r, b, QRect(x, y, w, bin_height)});
            x += w + bin_gap;
        }
        y += bin_height + row_gap;
    }
    verticalScrollBar()->setRange(0, std::max(0, y - viewport()->height()));
    verticalScrollBar()->setPageStep(viewport()->height());
}

void BinWall::resizeEvent(QResizeEvent*) { arrange(); }

void BinWall::show_current() {
    const Place* at = place_of(current_);
    if (at == nullptr) return;
    QScrollBar* bar = verticalScrollBar();
    if (at->box.top() - head_height < bar->value()) bar->setValue(at->box.top() - head_height);
    if (at->box.bottom() > bar->value() + viewport()->height()) bar->setValue(at->box.bottom() - viewport()->height() + bin_gap);
}

void BinWall::paintEvent(QPaintEvent*) {
    QPainter p(viewport());
    p.setRenderHint(QPainter::Antialiasing);
    QFont font = this->font();
    if (rows_.empty()) {
        font.setPixelSize(14);
        p.setFont(font);
        p.setPen(to_qt(palette::quiet));
        p.drawText(viewport()->rect().adjusted(60, 40, -60, -40), Qt::AlignHCenter | Qt::AlignTop | Qt::TextWordWrap, empty_words_);
        return;
    }
    const int off = verticalScrollBar()->value();
    for (std::size_t r = 0; r < rows_.size(); ++r) {
        const int y = heads_[r] - off;
        if (y > viewport()->height() || y + head_height < 0) continue;
        font.setPixelSize(14);
        font.setBold(true);
        p.setFont(font);
        p.setPen(to_qt(palette::ink));
        const QRect line(4, y, viewport()->width() - 8, head_height - 6);
        p.drawText(line, Qt::AlignLeft | Qt::AlignVCenter, rows_[r].title);
        const int used = QFontMetrics(font).horizontalAdvance(rows_[r].title) + 14;
        font.setPixelSize(12);
        font.setBold(false);
        p.setFont(font);
        p.setPen(to_qt(palette::quiet));
        const QRect rest = line.adjusted(used, 1, 0, 0);
        p.drawText(rest, Qt::AlignLeft | Qt::AlignVCenter, QFontMetrics(font).elidedText(rows_[r].beside, Qt::ElideRight, rest.width()));
    }
    for (const Place& place : places_) {
        const QRect box = place.box.translated(0, -off);
        if (box.bottom() < 0 || box.top() > viewport()->height()) continue;
        const Bin& bin = rows_[place.row].bins[place.bin];
        paint_bin(p, bin, box, bin.entry.id == current_);
    }
}

void BinWall::paint_bin(QPainter& p, const Bin& bin, const QRect& box, bool chosen) {
    p.setPen(chosen ? QPen(to_qt(palette::verdigris), hasFocus() ? 2 : 1.4) : QPen(to_qt(palette::rule), 1));
    p.setBrush(to_qt(palette::light));
    p.drawRoundedRect(QRectF(box).adjusted(0.5, 0.5, -0.5, -0.5), 5, 5);
    const bool bag = bin.entry.kind == StockKind::transfers;
    QRectF picture(box.left() + 6, box.top() + 6, box.width() - 12, 46);
    if (bag) {
        QPixmap drawn;
        const QString key = qt(spoken("bag ") + bin.entry.id + std::to_string(bin.entry.picture.size()));
        if (!bin.entry.picture.empty() && !QPixmapCache::find(key, &drawn)) {
            drawn.loadFromData(QByteArray::fromStdString(bin.entry.picture));
            QPixmapCache::insert(key, drawn);
        }
        if (!drawn.isNull()) {
            const QSizeF size = QSizeF(drawn.size()).scaled(picture.size(), Qt::KeepAspectRatio);
            p.setRenderHint(QPainter::SmoothPixmapTransform);
            p.drawPixmap(QRectF(picture.center() - QPointF(size.width() / 2, size.height() / 2), size), drawn, QRectF(drawn.rect()));
        }
    } else if (bin.entry.kind == StockKind::roll) {
        paint_roll(p, bin, picture);
    } else if (bin.entry.kind == StockKind::supply) {
        paint_jar(p, bin, picture);
    } else {
        paint_pile(p, bin, picture);
    }
    QFont font = this->font();
    const auto line = [&](int y, int height, const QString& text, int size, bool bold, QColor colour) {
        font.setPixelSize(size);
        font.setBold(bold);
        p.setFont(font);
        p.setPen(colour);
        const QRect where(box.left() + 4, box.top() + y, box.width() - 8, height);
        p.drawText(where, Qt::AlignHCenter | Qt::AlignVCenter, QFontMetrics(font).elidedText(text, Qt::ElideRight, where.width()));
    };
    const bool typing = chosen && !typed_.isEmpty();
    line(54, 16, bin.name, 12, chosen, to_qt(palette::ink));
    if (typing) {
        p.setPen(QPen(to_qt(palette::verdigris), 1));
        p.setBrush(Qt::white);
        p.drawRect(QRectF(box.left() + 8, box.top() + 71, box.width() - 16, 19));
    }
    line(71, 19,
         typing          ? typed_ + QChar(0x258F)
         : bin.count < 0 ? QStringLiteral("–")
                         : bin.figure,
         14, true, to_qt(bin.count < 0 && !typing ? palette::quiet : palette::ink));
    line(91, 16, bin.note, 11, bin.bad, to_qt(bin.bad ? palette::carmine : palette::quiet));
}

void BinWall::mousePressEvent(QMouseEvent* event) {
    setFocus();
    const QPoint p = event->pos() + QPoint(0, verticalScrollBar()->value());
    for (const Place& place : places_)
        if (place.box.contains(p)) {
            commit(0);
            choose(std::string(rows_[place.row].bins[place.bin].entry.id));
            return;
        }
}

void BinWall::commit(int then_step) {
    const Bin* now = current();
    if (now != nullptr && !typed_.isEmpty() && counted) {
        const QString text = typed_;
        typed_.clear();
        const Bin bin = *now;
        if (counted(bin, text)) {  // it stays to be mended
            typed_ = text;
            viewport()->update();
            return;
        }
    }
    typed_.clear();
    if (then_step != 0) step(then_step, 0);
    viewport()->update();
}

void BinWall::step(int across, int down) {
    const Place* at = place_of(current_);
    if (at == nullptr) return;
    const auto index = at - places_.data();
    if (across != 0) {
        const auto to = std::clamp<std::ptrdiff_t>(index + across, 0, std::ptrdiff_t(places_.size()) - 1);
        choose(std::string(rows_[places_[std::size_t(to)].row].bins[places_[std::size_t(to)].bin].entry.id));
        return;
    }
    const Place* best = nullptr;  // the nearest of the line above or below
    for (const Place& p : places_) {
        if (down > 0 ? p.box.top() <= at->box.top() : p.box.top() >= at->box.top()) continue;
        const auto far = [&](const Place& q) {
            return std::abs(q.box.top() - at->box.top()) * 100000 + std::abs(q.box.center().x() - at->box.center().x());
        };
        if (best == nullptr || far(p) < far(*best)) best = &p;
    }
    if (best != nullptr) choose(std::string(rows_[best->row].bins[best->bin].entry.id));
}

void BinWall::keyPressEvent(QKeyEvent* event) {
    const QString text = event->text();
    if (counted && current() != nullptr && !text.isEmpty() &&
        (text[0].isDigit() || (!typed_.isEmpty() && QStringLiteral(".,m ").contains(text[0])))) {
        typed_ += text;
        viewport()->update();
        return;
    }
    switch (event->key()) {
    case Qt::Key_Left: commit(-1); return;
    case Qt::Key_Right: commit(1); return;
    case Qt::Key_Return:
    case Qt::Key_Enter: commit(typed_.isEmpty() ? 0 : 1); return;
    case Qt::Key_Up:
        commit(0);
        step(0, -1);
        return;
    case Qt::Key_Down:
        commit(0);
        step(0, 1);
        return;
    case Qt::Key_Backspace:
        typed_.chop(1);
        viewport()->update();
        return;
    case Qt::Key_Escape:
        typed_.clear();
        viewport()->update();
        return;
    default: break;
    }
    QAbstractScrollArea::keyPressEvent(event);
}

void BinWall::focusOutEvent(QFocusEvent* event) {
    commit(0);
    QAbstractScrollArea::focusOutEvent(event);
}

void BinWall::contextMenuEvent(QContextMenuEvent* event) {
    if (asked) asked(event->globalPos());
}

}  // namespace orthema::app
