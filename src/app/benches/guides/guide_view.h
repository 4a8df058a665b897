// A guide on the screen: its pages as they will print, beside the garment; tiles as they are joined; a template at real size.
#pragma once

#include <functional>
#include <optional>

#include "app/session/workroom.h"
#include "app/widgets/canvas.h"
#include "core/guides/guides.h"

namespace orthema::app {

/// Pages of the Guides bench, in the order of its buttons.
enum GuidePageKind { card = 0, tiles = 1, real_size = 2, maps = 3, master = 4, aid = 5, chart = 6, photo_card = 7 };

/// Shows a guide's pages: the card with the garment, the tiles as they are joined, or one tile at real size.
class GuideView : public Canvas {
public:
    explicit GuideView(Workroom& room);
    /// Pages of another kind of guide, or words where there are none.
    /// `beside` draws next to them into a box of pixels.
    void show_pages(std::vector<GuidePage> pages, int columns, QString why_none, int what,
                    std::function<void(Drawing&, const Rect&)> beside = {});
    void show_guide(std::optional<Guide> guide, std::optional<Panel> garment, Colour cloth, int what);

protected:
    Drawing draw(double width, double height) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void pan_to(Point p);
    /// The card beside the garment with the whole template laid on it.
    void draw_card(Drawing& d, double width, double height);
    /// The tiles' paper over the garment.
    void draw_paper(Drawing& d, const Affine& map, double opacity);
    void draw_pages(Drawing& d, double width, double height);
    void draw_tiles(Drawing& d, double width, double height);
    void draw_real(Drawing& d, double width, double height);
    std::optional<Guide> guide_;
    std::vector<GuidePage> pages_;
    std::function<void(Drawing&, const Rect&)> beside_;
    int columns_ = 1;
    QString why_none_;
    std::optional<Panel> garment_;
    Colour cloth_;
    int what_ = card;
    Point shift_, from_;
};

}  // namespace orthema::app
