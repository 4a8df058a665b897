#include "app/widgets/chips.h"

#include <QKeyEvent>
#include <QPainter>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "app/widgets/theme.h"
#include "core/drawing/drawing.h"

namespace orthema::app {

namespace {
constexpr int tall = 42, flat = 28, gap = 6;
}

ChipButton::ChipButton(QWidget* parent) : QAbstractButton(parent) {
    setFocusPolicy(Qt::TabFocus);
    setCursor(Qt::PointingHandCursor);
}

QSize ChipButton::sizeHint() const {
    QFont bold = font();
    bold.setBold(true);
    QFont small = font();
    small.setPixelSize(11);
    int w = std::max(QFontMetrics(bold).horizontalAdvance(chip_.name), QFontMetrics(small).horizontalAdvance(chip_.under)) + 24;
    if (!chip_.picture.isNull()) w += 38;
    if (chip_.standing != Standing::settled) w += 16;
    return {std::clamp(w, 46, 220), chip_.under.isEmpty() && chip_.picture.isNull() ? flat : tall};
}

void ChipButton::show_chip(const Chip& chip, bool chosen) {
    chip_ = chip;
    chosen_ = chosen;
    setText(chip.name);
    setObjectName(QStringLiteral("chip ") + qt(chip.id));
    const QString stands = chip.standing == Standing::settled ? QString()
                           : chip.standing == Standing::look  ? tr(", needs a look")
                                                              : tr(", blocked");
    setAccessibleName(chip.name + (chip.under.isEmpty() ? QString() : ", " + chip.under) + stands + (chosen ? tr(", chosen") : QString()));
    setToolTip(chip.name + (chip.under.isEmpty() ? QString() : ", " + chip.under) + stands);
    update();
}

void ChipButton::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(to_qt(chosen_ ? palette::verdigris : palette::rule), chosen_ ? 2 : 1));
    p.setBrush(chosen_ ? QColor(Qt::white) : to_qt(palette::light));
    p.drawRoundedRect(QRectF(1, 1, width() - 2, height() - 2), 5, 5);
    if (hasFocus()) {
        p.setPen(QPen(to_qt(palette::ink), 1, Qt::DotLine));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(QRectF(3.5, 3.5, width() - 7, height() - 7), 4, 4);
    }
    int x = 12;
    if (!chip_.picture.isNull()) {
        QSizeF size = QSizeF(chip_.picture.size()).scaled(30, 30, Qt::KeepAspectRatio);
        if (chip_.behind) {
            p.setPen(Qt::NoPen);
            p.setBrush(to_qt(*chip_.behind));
            p.drawRoundedRect(QRectF(x - 3, height() / 2.0 - 17, 36, 34), 4, 4);
        }
        p.setRenderHint(QPainter::SmoothPixmapTransform);
        p.drawImage(QRectF(x + (30 - size.width()) / 2, (height() - size.height()) / 2, size.width(), size.height()), chip_.picture);
        x += 38;
    }
    int right = width() - 8;
    if (chip_.standing != Standing::settled) {
        const QPointF c(width() - 13, height() / 2.0);
        p.setPen(Qt::NoPen);
        if (chip_.standing == Standing::look) {
            p.setBrush(to_qt(palette::ochre));
            p.drawPolygon(QPolygonF({c + QPointF(0, -6), c + QPointF(6, 5), c + QPointF(-6, 5)}));
        } else {
            p.setBrush(to_qt(palette::carmine));
            p.drawRoundedRect(QRectF(c.x() - 5, c.y() - 5, 10, 10), 2, 2);
        }
        right -= 14;
    }
    QFont bold = font();
    bold.setBold(true);
    p.setFont(bold);
    p.setPen(to_qt(palette::ink));
    const bool two = !chip_.under.isEmpty();
    const int room = right - x;
    p.drawText(QRectF(x, 0, room, two ? height() / 2.0 + 2 : height()), (two ? Qt::AlignBottom : Qt::AlignVCenter) | Qt::AlignLeft,
               QFontMetrics(bold).elidedText(chip_.name, Qt::ElideRight, room));
    if (two) {
        QFont small = font();
        small.setPixelSize(11);
        p.setFont(small);
        p.setPen(to_qt(palette::quiet));
        p.drawText(QRectF(x, height() / 2.0 + 2, room, height() / 2.0), Qt::AlignTop | Qt::AlignLeft,
                   QFontMetrics(small).elidedText(chip_.under, Qt::ElideRight, room));
    }
}

ChipRow::ChipRow(const QString& name, QWidget* parent) : QWidget(parent), name_(name) {
    setAccessibleName(name);
    setFixedHeight(flat);
}

void ChipRow::show_chips(const std::vector<Chip>& chips, const std::string& now) {
    now_ = now;
    while (buttons_.size() > chips.size()) {
        buttons_.back()->deleteLater();
        buttons_.back()->hide();
        buttons_.pop_back();
    }
    while (buttons_.size() < chips.size()) {
        auto* b = new ChipButton(this);
        connect(b, &QAbstractButton::clicked, this, [this, b] {
            unfolded_ = false;
            if (chosen) chosen(b->id());
        });
        b->show();
        buttons_.push_back(b);
    }
    for (std::size_t i = 0; i < chips.size(); ++i) buttons_[i]->show_chip(chips[i], chips[i].id == now);
    arrange();
}

ChipButton* ChipRow::chip(const std::string& id) const {
    for (ChipButton* b : buttons_)
        if (b->id() == id) return b;
    return nullptr;
}

void ChipRow::fold(int rows) {
    most_rows_ = rows;
    if (all_ != nullptr) return;
    all_ = push(QString(), tr("Shows the others, or fewer of them"));
    all_->setParent(this);
    all_->setObjectName(name_ + QStringLiteral(", all"));
    connect(all_, &QPushButton::clicked, this, [this] {
        unfolded_ = !unfolded_;
        arrange();
    });
}

void ChipRow::arrange() {
    // rows of chips; where some are folded away the last of each leaves room for the button that shows them
    std::vector<std::size_t> begins;
    const auto break_up = [&](int room) {
        begins.clear();
        int x = 0;
        for (std::size_t i = 0; i < buttons_.size(); ++i) {
            const int w = buttons_[i]->sizeHint().width();
            if (begins.empty() || x + w > room) {
                begins.push_back(i);
                x = 0;
            }
            x += w + gap;
        }
    };
    break_up(width());
    const bool folds = most_rows_ > 0 && int(begins.size()) > most_rows_;
    if (all_ != nullptr) {
        all_->setVisible(folds);
        if (folds) {
            all_->setText(unfolded_ ? tr("fewer") : tr("all %1").arg(buttons_.size()));
            all_->setAccessibleName(name_ + ": " + all_->text());
            break_up(width() - all_->sizeHint().width() - gap);
        }
    }
    const int rows = int(begins.size()), shown = folds && !unfolded_ ? most_rows_ : rows;
    int now = 0;
    for (std::size_t i = 0; i < buttons_.size(); ++i)
        if (buttons_[i]->id() == now_)
            for (int r = 0; r < rows; ++r)
                if (begins[std::size_t(r)] <= i) now = r;
    first_row_ = std::clamp(first_row_, std::max(0, now - shown + 1), now);
    first_row_ = std::clamp(first_row_, 0, std::max(0, rows - shown));
    int y = 0, line = flat;
    for (int r = 0; r < rows; ++r) {
        const std::size_t end = r + 1 < rows ? begins[std::size_t(r) + 1] : buttons_.size();
        const bool seen = r >= first_row_ && r < first_row_ + shown;
        int x = 0;
        for (std::size_t i = begins[std::size_t(r)]; i < end; ++i) {
            const QSize s = buttons_[i]->sizeHint();
            buttons_[i]->setVisible(seen);
            if (!seen) continue;
            line = s.height();
            buttons_[i]->setGeometry(x, y, s.width(), s.height());
            x += s.width() + gap;
        }
        if (seen) y += line + gap;
    }
    const int tall_enough = std::max(y - gap, line);
    if (folds && all_ != nullptr)
        all_->setGeometry(width() - all_->sizeHint().width(), tall_enough - std::min(line, 30), all_->sizeHint().width(),
                          std::min(line, 30));
    if (height() != tall_enough) setFixedHeight(tall_enough);
}

void ChipRow::resizeEvent(QResizeEvent*) { arrange(); }

void ChipRow::keyPressEvent(QKeyEvent* event) {
    const int by = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (by == 0 || buttons_.empty()) return QWidget::keyPressEvent(event);
    for (std::size_t i = 0; i < buttons_.size(); ++i)
        if (buttons_[i]->id() == now_) {
            const auto next = std::size_t(std::clamp(int(i) + by, 0, int(buttons_.size()) - 1));
            if (chosen) chosen(buttons_[next]->id());  // which brings its row into view
            buttons_[next]->setFocus();
            return;
        }
}

}  // namespace orthema::app
