#include "app/widgets/canvas.h"

#include <QBuffer>
#include <QFocusEvent>
#include <QKeyEvent>
#include <QPainter>
#include <QWheelEvent>

#include <cmath>
#include <cstring>
#include <utility>

#include "app/widgets/theme.h"

namespace orthema::app {

Canvas::Canvas(const LoadedArtById& art, QWidget* parent) : QWidget(parent), art_(art) {
    setAttribute(Qt::WA_OpaquePaintEvent);
    setFocusPolicy(Qt::StrongFocus);
}

std::string Canvas::fitting(const std::string& text, double width, double size, bool bold) const {
    QFont f = font();
    f.setPixelSize(int(std::lround(size)));
    f.setBold(bold);
    return QFontMetricsF(f).elidedText(QString::fromStdString(text), Qt::ElideRight, width).toStdString();
}

void Canvas::refresh() {
    stale_ = true;
    listed_.reset();
    update();
}

Drawing Canvas::shown() {
    Drawing top = draw(width(), height());
    if (backdrop_key().empty()) return top;
    Drawing all = draw_backdrop(width(), height());
    all.marks.insert(all.marks.end(), top.marks.begin(), top.marks.end());
    return all;
}

std::vector<CanvasItem> Canvas::items() {
    std::vector<CanvasItem> out;
    const Drawing d = shown();
    for (const Mark& m : d.marks) {
        const auto* text = std::get_if<TextMark>(&m);
        if (text == nullptr || text->text.empty()) continue;
        const double wide = double(text->text.size()) * text->size * 0.55;  // near enough to be pointed at
        const double from = text->at.x - (text->align == Align::centre ? wide / 2 : text->align == Align::right ? wide : 0);
        out.push_back(
            {QString::fromStdString(text->text), QRectF(from, text->at.y - text->size, wide, text->size * 1.3).toRect(), false, {}});
    }
    return out;
}

const std::vector<CanvasItem>& Canvas::listed() {
    if (!listed_) listed_ = items();
    return *listed_;
}

void Canvas::resizeEvent(QResizeEvent*) { refresh(); }
void Canvas::focusInEvent(QFocusEvent* event) {
    by_keys_ = event->reason() == Qt::TabFocusReason || event->reason() == Qt::BacktabFocusReason;
    update();
}
void Canvas::focusOutEvent(QFocusEvent*) { update(); }

void paint_image(QImage& image, const Drawing& drawing, const LoadedArtById& art, int width, int height, double ratio, const QImage* over) {
    const QSize size(std::max(1, int(std::ceil(width * ratio))), std::max(1, int(std::ceil(height * ratio))));
    if (image.size() != size) image = QImage(size, QImage::Format_ARGB32_Premultiplied);
    image.setDevicePixelRatio(ratio);
    if (over != nullptr && over->sizeInBytes() == image.sizeInBytes())
        std::memcpy(image.bits(), over->constBits(), std::size_t(image.sizeInBytes()));
    else
        image.fill(to_qt(palette::paper));
    cairo_surface_t* surface =
        cairo_image_surface_create_for_data(image.bits(), CAIRO_FORMAT_ARGB32, size.width(), size.height(), int(image.bytesPerLine()));
    cairo_surface_set_device_scale(surface, ratio, ratio);
    cairo_t* cr = cairo_create(surface);
    ScreenArt source(art);
    paint(drawing, cr, &source);
    cairo_destroy(cr);
    cairo_surface_destroy(surface);
}

const QImage* Canvas::ground(double ratio) {
    std::string key = backdrop_key();
    if (key.empty()) return nullptr;
    key += " " + std::to_string(width()) + " " + std::to_string(height()) + " " + std::to_string(ratio);
    if (key != backdrop_key_) {
        paint_image(backdrop_, draw_backdrop(width(), height()), art_, width(), height(), ratio);
        backdrop_key_ = key;
    }
    return &backdrop_;
}

void Canvas::paintEvent(QPaintEvent*) {
    if (stale_ || image_.devicePixelRatio() != devicePixelRatioF()) {
        // drawn first: drawing may lay out what the backdrop shows
        const Drawing top = draw(width(), height());
        listed_.reset();  // it may have been asked for before what it tells was laid out
        const QImage* over = ground(devicePixelRatioF());
        paint_image(image_, top, art_, width(), height(), devicePixelRatioF(), over);
        if (std::exchange(stale_, false)) tell_chosen(*this, told_);
    }
    QPainter painter(this);
    painter.drawImage(0, 0, image_);
    if (hasFocus() && by_keys_) {
        painter.setPen(QPen(to_qt(palette::verdigris), 1, Qt::DotLine));
        painter.drawRect(QRectF(0.5, 0.5, width() - 1.0, height() - 1.0));
    }
}

std::string png_of(const QImage& image) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    image.save(&buffer, "PNG");
    return bytes.toStdString();
}

Point arrow_of(const QKeyEvent& event) {
    const int key = event.key();
    return {key == Qt::Key_Right ? 1.0 : key == Qt::Key_Left ? -1.0 : 0.0, key == Qt::Key_Down ? 1.0 : key == Qt::Key_Up ? -1.0 : 0.0};
}

double nudge_mm(const QKeyEvent& event, Unit unit) {
    return (unit == Unit::mm ? 1 : 25.4 / 16) * (event.modifiers().testFlag(Qt::ShiftModifier) ? 8 : 1);
}

double wheel_steps(const QWheelEvent& event) {
    return (event.angleDelta().y() != 0 ? event.angleDelta().y() : event.angleDelta().x()) / 120.0;
}

}  // namespace orthema::app
