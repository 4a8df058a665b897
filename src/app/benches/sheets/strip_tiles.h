// The pieces along the ribbon as pictures in squares, drawn on threads of their own: panning and zooming then only lays
// pictures down, however many pieces there are. Until a square is drawn an older picture of it, a coarser one, or plain boxes
// stand in.
#pragma once

#include <QImage>
#include <QObject>
#include <QThreadPool>

#include <map>
#include <memory>
#include <set>
#include <tuple>

#include "app/session/workroom.h"
#include "core/drawing/drawing.h"

class QPainter;

namespace orthema::app {

/// How a piece is shown: its contour filled when chosen, its picture, the blanks on it, and the contour's line.
void draw_piece(Drawing& d, const Transfer& transfer, const Affine& map, bool chosen, bool locked);

class StripTiles : public QObject {
    Q_OBJECT
public:
    explicit StripTiles(QObject* parent);
    ~StripTiles() override;

    struct Item {
        std::shared_ptr<const Transfer> transfer;
        Affine map;  ///< to the ribbon, mm
        Rect box;    ///< there
        bool locked = false;
        std::size_t mark = 0;  ///< changes when any of it does
    };
    /// What lies along the ribbon now. `art` is what their pictures are drawn from.
    void show(std::vector<Item> items, const LoadedArtById& art);

    /// Lays what is seen down: `view` is the part of the ribbon (mm), `zoom` pixels a mm, its corner at `at`, pixels. What is not
    /// there yet is asked for, and ready() comes. Not `smooth`: quicker, for frames of a movement.
    void paint(QPainter& painter, const Rect& view, double zoom, QPointF at, double ratio, bool smooth);

signals:
    void ready();

private:
    using Key = std::tuple<int, int, int>;  ///< level, column, row
    struct Tile {
        QImage image;
        std::size_t mark = 0;
        std::uint64_t used = 0;
    };
    [[nodiscard]] std::vector<std::size_t> within(const Rect& r) const;
    [[nodiscard]] std::size_t mark_of(const std::vector<std::size_t>& items) const;
    void ask(const Key& key, const std::vector<std::size_t>& items, std::size_t mark);
    bool paint_from(QPainter& painter, int level, const Rect& area, const Rect& view, double zoom, QPointF at) const;
    std::vector<Item> items_;
    std::shared_ptr<const LoadedArtById> art_;
    std::map<Key, Tile> tiles_;
    std::map<Key, std::size_t> asked_;
    std::uint64_t frame_ = 0;
    QThreadPool pool_;
};

}  // namespace orthema::app
