#include "app/benches/sheets/strip_tiles.h"

#include <QPainter>

#include <cmath>

#include "app/widgets/canvas.h"
#include "app/widgets/speech.h"
#include "app/widgets/theme.h"
#include "core/transfers/making_drawing.h"

namespace orthema::app {

namespace {

constexpr int side = 512;                // pixels of a square
constexpr std::size_t most_tiles = 220;  // kept, a megabyte each
constexpr std::size_t most_asked = 8;

/// Pixels a mm of a level: two levels double it.
double scale_of(int level) { return std::pow(2.0, level / 2.0); }

Rect area_of(int level, int column, int row) {
    const double mm = side / scale_of(level);
    return {column * mm, row * mm, (column + 1) * mm, (row + 1) * mm};
}

}  // namespace

void draw_piece(Drawing& d, const Transfer& t, const Affine& map, bool chosen, bool locked) {
    const Region contour = mapped(Region{t.contour}, map);
    const Colour line = chosen ? palette::verdigris : locked ? palette::brick : Colour{0.62, 0.64, 0.63, 1};
    if (chosen) d.region(contour, Colour{0.88, 0.94, 0.93, 1}, {});
    draw_transfer(d, t, map, reading_in());
    if (!t.blanks.empty()) d.region(mapped(t.blanks, map), {}, Stroke{palette::brick, 1, {4, 3}});
    d.region(contour, {}, Stroke{line, chosen ? 2.2 : locked ? 1.6 : 0.9, {}});
    for (const Ring& snip : t.snips) d.line(mapped(snip, map), {palette::brick, 1.2, {}});
}

StripTiles::StripTiles(QObject* parent) : QObject(parent) { pool_.setMaxThreadCount(1); }

StripTiles::~StripTiles() {
    pool_.clear();
    pool_.waitForDone();
}

void StripTiles::show(std::vector<Item> items, const LoadedArtById& art) {
    items_ = std::move(items);
    if (!art_ || *art_ != art) {
        art_ = std::make_shared<const LoadedArtById>(art);
        tiles_.clear();
    }
}

std::vector<std::size_t> StripTiles::within(const Rect& r) const {
    std::vector<std::size_t> out;
    for (std::size_t i = 0; i < items_.size(); ++i)
        if (items_[i].box.meets(r)) out.push_back(i);
    return out;
}

std::size_t StripTiles::mark_of(const std::vector<std::size_t>& items) const {
    std::size_t mix = 1469598103934665603ull;
    for (const std::size_t i : items) mix = (mix ^ items_[i].mark) * 1099511628211ull;
    return mix;
}

void StripTiles::ask(const Key& key, const std::vector<std::size_t>& items, std::size_t mark) {
    if (asked_.size() >= most_asked || asked_.contains(key)) return;
    asked_[key] = mark;
    std::vector<Item> own;
    own.reserve(items.size());
    for (const std::size_t i : items) own.push_back(items_[i]);
    pool_.start([this, key, mark, own = std::move(own), art = art_] {
        const auto [level, column, row] = key;
        const double k = scale_of(level);
        const Rect area = area_of(level, column, row);
        const Affine to{k, 0, 0, k, -area.x0 * k, -area.y0 * k};
        Drawing d;
        d.width = d.height = side;
        for (const Item& item : own) draw_piece(d, *item.transfer, to.after(item.map), false, item.locked);
        QImage image(side, side, QImage::Format_ARGB32_Premultiplied);
        image.fill(Qt::transparent);
        cairo_surface_t* surface =
            cairo_image_surface_create_for_data(image.bits(), CAIRO_FORMAT_ARGB32, side, side, int(image.bytesPerLine()));
        cairo_t* cr = cairo_create(surface);
        ScreenArt source(*art);
        orthema::paint(d, cr, &source);
        cairo_destroy(cr);
        cairo_surface_destroy(surface);
        QMetaObject::invokeMethod(
            this,
            [this, key, mark, image] {
                asked_.erase(key);
                tiles_[key] = {image, mark, frame_};
                emit ready();
            },
            Qt::QueuedConnection);
    });
}

/// What another level has of an area, when it has all of it.
bool StripTiles::paint_from(QPainter& painter, int level, const Rect& area, const Rect& view, double zoom, QPointF at) const {
    const double mm = side / scale_of(level), hair = 1e-6 * mm;
    std::vector<std::pair<const QImage*, Rect>> found;
    for (int c = int(std::floor((area.x0 + hair) / mm)); c * mm < area.x1 - hair; ++c)
        for (int r = int(std::floor((area.y0 + hair) / mm)); r * mm < area.y1 - hair; ++r) {
            const auto tile = tiles_.find({level, c, r});
            if (tile == tiles_.end()) return false;
            found.emplace_back(&tile->second.image, area_of(level, c, r));
        }
    const QRectF clip(at.x() + (area.x0 - view.x0) * zoom, at.y() + (area.y0 - view.y0) * zoom, (area.x1 - area.x0) * zoom,
                      (area.y1 - area.y0) * zoom);
    for (const auto& [image, box] : found) {
        const QRectF whole(at.x() + (box.x0 - view.x0) * zoom, at.y() + (box.y0 - view.y0) * zoom, (box.x1 - box.x0) * zoom,
                           (box.y1 - box.y0) * zoom);
        const QRectF part = whole.intersected(clip);
        const double k = side / whole.width();
        painter.drawImage(part, *image,
                          QRectF((part.x() - whole.x()) * k, (part.y() - whole.y()) * k, part.width() * k, part.height() * k));
    }
    return true;
}

void StripTiles::paint(QPainter& painter, const Rect& view, double zoom, QPointF at, double ratio, bool smooth) {
    ++frame_;
    const int level = int(std::ceil(2 * std::log2(zoom * ratio) - 0.02));
    const double mm = side / scale_of(level);
    painter.setRenderHint(QPainter::SmoothPixmapTransform, smooth);
    for (int c = int(std::floor(view.x0 / mm)); c * mm < view.x1; ++c)
        for (int r = int(std::floor(view.y0 / mm)); r * mm < view.y1; ++r) {
            const Rect area = area_of(level, c, r);
            const auto items = within(area);
            if (items.empty()) continue;
            const std::size_t mark = mark_of(items);
            const Key key{level, c, r};
            const auto tile = tiles_.find(key);
            const QRectF to(at.x() + (area.x0 - view.x0) * zoom, at.y() + (area.y0 - view.y0) * zoom, mm * zoom, mm * zoom);
            if (tile == tiles_.end() || tile->second.mark != mark) ask(key, items, mark);
            if (tile != tiles_.end()) {
                tile->second.used = frame_;
                painter.drawImage(to, tile->second.image);
                continue;
            }
            bool stood_in = false;
            for (const int other : {level - 1, level + 1, level - 2, level - 3, level - 4, level + 2})
                if (!stood_in) stood_in = paint_from(painter, other, area, view, zoom, at);
            if (stood_in) continue;
            painter.save();
            painter.setClipRect(to, Qt::IntersectClip);
            for (const std::size_t i : items) {
                const Rect& b = items_[i].box;
                painter.fillRect(
                    QRectF(at.x() + (b.x0 - view.x0) * zoom, at.y() + (b.y0 - view.y0) * zoom, b.width() * zoom, b.height() * zoom),
                    QColor(216, 219, 216));
            }
            painter.restore();
        }
    // the longest unused go
    while (tiles_.size() > most_tiles) {
        const auto oldest =
            std::min_element(tiles_.begin(), tiles_.end(), [](const auto& a, const auto& b) { return a.second.used < b.second.used; });
        tiles_.erase(oldest);
    }
}

}  // namespace orthema::app
