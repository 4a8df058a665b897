#include "app/photos/photo_view.h"

#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"

namespace orthema::app {

namespace {

constexpr double grip = 10;  ///< pixels

}  // namespace

PhotoView::PhotoView(Workroom& room, QWidget* parent) : Canvas(room.art(), parent), room_(room) {
    setObjectName(QStringLiteral("Photo view"));
    setAccessibleName(tr("The photograph with the outline that was found"));
    setFocusPolicy(Qt::StrongFocus);
    setToolTip(tr("Where the outline lies wrong, drag it to the blank's edge; the wheel makes the picture larger"));
    setMouseTracking(true);
}

void PhotoView::show_photo(const TapedPhoto* photo) {
    if (photo != photo_ || (photo != nullptr && middle_ == Point{})) {
        zoom_ = 1;
        middle_ = photo == nullptr ? Point{} : Point{photo->width / 2.0, photo->height / 2.0};
        chosen_ = -1;
        held_.reset();
    }
    photo_ = photo;
    if (photo_ != nullptr && chosen_ >= static_cast<int>(photo_->by_hand.size())) chosen_ = -1;
    refresh();
}

Affine PhotoView::map() const {
    if (photo_ == nullptr || photo_->width <= 0) return {};
    const double k = zoom_ * std::min((width() - 8.0) / photo_->width, (height() - 8.0) / photo_->height);
    return Affine::shift(width() / 2.0, height() / 2.0).after(Affine::scale(k, k)).after(Affine::shift(-middle_.x, -middle_.y));
}

Point PhotoView::on_widget(Point pixel) const { return map()(pixel); }
Point PhotoView::pixel_at(Point p) const {
    const Affine m = map();
    return {(p.x - m.tx) / m.a, (p.y - m.ty) / m.d};
}

int PhotoView::hand_at(Point p) const {
    if (photo_ == nullptr) return -1;
    for (std::size_t i = 0; i < photo_->by_hand.size(); ++i)
        if (norm(on_widget(photo_->by_hand[i]) - p) <= grip) return static_cast<int>(i);
    return -1;
}

bool PhotoView::near_outline(Point p) const {
    if (photo_ == nullptr || !photo_->blank) return false;
    for (const Ring& r : photo_->blank->outline)
        for (std::size_t i = 0; i < r.size(); ++i)
            if (norm(p - nearest_on(p, on_widget(r[i]), on_widget(r[(i + 1) % r.size()]))) <= grip) return true;
    return false;
}

const QImage* PhotoView::ground(double ratio) {
    if (photo_ == nullptr || photo_->picture.isNull()) return nullptr;
    const Affine m = map();
    const std::string key = photo_->path.toStdString() + " " + std::to_string(photo_->picture.cacheKey()) + " " + std::to_string(m.a) +
                            " " + std::to_string(m.tx) + " " + std::to_string(m.ty) + " " + std::to_string(width()) + "x" +
                            std::to_string(height()) + " " + std::to_string(ratio);
    if (key != ground_key_) {
        ground_key_ = key;
        ground_ = QImage(int(std::lround(width() * ratio)), int(std::lround(height() * ratio)), QImage::Format_ARGB32_Premultiplied);
        ground_.setDevicePixelRatio(ratio);
        ground_.fill(QColor(0xE9, 0xE4, 0xD9));
        QPainter p(&ground_);
        p.setRenderHint(QPainter::SmoothPixmapTransform);
        const Point a = m({0, 0}), b = m({double(photo_->width), double(photo_->height)});
        p.drawImage(QRectF(a.x, a.y, b.x - a.x, b.y - a.y), photo_->picture);
    }
    return &ground_;
}

Drawing PhotoView::draw(double w, double h) {
    Drawing d;
    d.width = w;
    d.height = h;
    if (photo_ == nullptr) return d;
    const auto closed = [&](const Ring& ring) {
        Ring out;
        for (const Point& p : ring) out.push_back(on_widget(p));
        out.push_back(out.front());
        return out;
    };
    if (photo_->blank) {
        const BlankSeen& seen = *photo_->blank;
        for (const Ring& ring : seen.outline) {
            d.line(closed(ring), {{1, 1, 1, 0.85}, 4, {}});
            d.line(closed(ring), {palette::verdigris, 1.8, {}});
        }
        for (const auto& [m, f] : photo_->design ? std::map<Measure, FigureSeen>{} : seen.figures) {
            const Point a = on_widget(f.from), b = on_widget(f.to), way = b - a;
            const double long_px = norm(way);
            if (long_px < 60) continue;
            d.line({a, b}, {{1, 1, 1, 0.75}, 3, {}});
            d.line({a, b}, {palette::brick, 1.1, {}});
            const std::string words = length_text(Length::from_mm(f.mm), room_.order().unit);
            const double wide = 7.0 * static_cast<double>(words.size()) + 8;
            const Point mid = a + way * (std::abs(way.x) > std::abs(way.y) ? 0.34 : 0.62);
            d.rect({mid.x - wide / 2, mid.y - 9, mid.x + wide / 2, mid.y + 8}, Colour{0.984, 0.98, 0.965, 0.92});
            d.text({mid.x, mid.y + 4.5}, words, 12.5, palette::brick_text, Align::centre, true);
        }
    }
    if (photo_->design) {
        const DesignSeen& seen = *photo_->design;
        d.line(closed(seen.planned), {{1, 1, 1, 0.75}, 3, {}});
        d.line(closed(seen.planned), {palette::ink, 1.2, {6, 4}});
        d.line(closed(seen.box), {{1, 1, 1, 0.75}, 3.4, {}});
        d.line(closed(seen.box), {palette::brick, 1.6, {}});
        for (const auto& [rings, colour] : {std::pair(&seen.missing, palette::carmine), std::pair(&seen.more, palette::ochre)})
            for (const Ring& ring : *rings) {
                d.line(closed(ring), {{1, 1, 1, 0.85}, 4, {}});
                d.line(closed(ring), {colour, 2, {}});
            }
    }
    for (std::size_t i = 0; i < photo_->by_hand.size(); ++i) {
        const bool is = static_cast<int>(i) == chosen_;
        const Point p = is && held_ && !fresh_ ? *held_ : on_widget(photo_->by_hand[i]);
        d.fill({disc_ring(p, is ? 8 : 6.5)}, palette::white);
        d.fill({disc_ring(p, is ? 6.5 : 5)}, palette::brick);
    }
    if (held_ && fresh_) {
        d.fill({disc_ring(*held_, 8)}, palette::white);
        d.fill({disc_ring(*held_, 6.5)}, palette::brick);
    }
    return d;
}

void PhotoView::put(Point pixel) {
    std::vector<Point> points = photo_->by_hand;
    points.push_back(pixel);
    if (by_hand) by_hand(std::move(points));
}

void PhotoView::move(int point, Point pixel) {
    std::vector<Point> points = photo_->by_hand;
    points[std::size_t(point)] = pixel;
    if (by_hand) by_hand(std::move(points));
}

void PhotoView::take_off(int point) {
    std::vector<Point> points = photo_->by_hand;
    points.erase(points.begin() + point);
    if (by_hand) by_hand(std::move(points));
}

void PhotoView::mousePressEvent(QMouseEvent* event) {
    const Point p = to_point(event->position());
    if (event->button() == Qt::MiddleButton) pan_ = p;
    if (event->button() != Qt::LeftButton || photo_ == nullptr || photo_->busy) return;
    chosen_ = hand_at(p);
    if (chosen_ >= 0) {
        held_ = p;
        fresh_ = false;
    } else if (near_outline(p)) {
        held_ = p;
        fresh_ = true;
    } else if (zoom_ > 1) {
        pan_ = p;
    }
    refresh();
}

void PhotoView::mouseMoveEvent(QMouseEvent* event) {
    const Point p = to_point(event->position());
    if (held_) {
        held_ = p;
        refresh();
    } else if (pan_) {
        const double k = map().a;
        middle_ = middle_ - (p - *pan_) * (1 / k);
        pan_ = p;
        refresh();
    } else {
        setCursor(hand_at(p) >= 0 || near_outline(p) ? Qt::CrossCursor : Qt::ArrowCursor);
    }
}

void PhotoView::mouseReleaseEvent(QMouseEvent*) {
    pan_.reset();
    if (!held_) return;
    const Point pixel = pixel_at(*held_);
    held_.reset();
    if (fresh_) {
        put(pixel);
    } else if (chosen_ >= 0 && norm(on_widget(photo_->by_hand[std::size_t(chosen_)]) - on_widget(pixel)) > 2) {
        move(chosen_, pixel);
    }
    refresh();
}

void PhotoView::wheelEvent(QWheelEvent* event) {
    if (photo_ == nullptr) return;
    const Point at = to_point(event->position()), before = pixel_at(at);
    zoom_ = std::clamp(zoom_ * std::pow(1.2, wheel_steps(*event)), 1.0, 12.0);
    const Point after = pixel_at(at);
    middle_ = zoom_ <= 1 ? Point{photo_->width / 2.0, photo_->height / 2.0} : middle_ + before - after;
    refresh();
}

void PhotoView::keyPressEvent(QKeyEvent* event) {
    const int n = photo_ == nullptr ? 0 : static_cast<int>(photo_->by_hand.size());
    const Point arrow = arrow_of(*event);
    if (n > 0 && (event->key() == Qt::Key_PageDown || event->key() == Qt::Key_PageUp)) {
        chosen_ = (chosen_ + (event->key() == Qt::Key_PageDown ? 1 : n + (chosen_ < 0 ? 1 : -1))) % n;
        refresh();
    } else if (chosen_ >= 0 && (event->key() == Qt::Key_Delete || event->key() == Qt::Key_Backspace)) {
        take_off(chosen_);
    } else if (chosen_ >= 0 && arrow != Point{}) {
        move(chosen_, photo_->by_hand[std::size_t(chosen_)] + arrow * (event->modifiers().testFlag(Qt::ShiftModifier) ? 16 : 2));
    } else {
        Canvas::keyPressEvent(event);
    }
}

void PhotoView::contextMenuEvent(QContextMenuEvent* event) {
    if (photo_ == nullptr || photo_->busy) return;
    const Point p = to_point(event->pos());
    QMenu menu(this);
    if (const int i = hand_at(p); i >= 0) {
        menu.addAction(tr("Take this point away"), this, [this, i] { take_off(i); });
    } else {
        menu.addAction(tr("The outline runs here"), this, [this, pixel = pixel_at(p)] { put(pixel); });
    }
    menu.exec(event->globalPos());
}

}  // namespace orthema::app
