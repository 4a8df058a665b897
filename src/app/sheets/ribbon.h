// The film ribbon: sheets of one medium along a rule, with true outlines and the art in them. Pieces are dragged, turned
// and locked here; they glide to their new places while the nester improves.
#pragma once

#include <QVariantAnimation>

#include <map>

#include "app/shell/canvas.h"
#include "app/sheets/ribbon_sheets.h"
#include "app/shell/workroom.h"

namespace orthema::app {

class Ribbon : public Canvas {
    Q_OBJECT
public:
    explicit Ribbon(Workroom& room, QWidget* parent = nullptr);
    void refresh_pieces();      ///< as refresh(), and pieces glide
    void show_from(double mm);  ///< scrolls so that this place is at the left edge
    [[nodiscard]] double first_mm() const { return first_; }
    [[nodiscard]] double last_mm() const;
    void zoom_by(double factor, double at_x);
    void zoom_to_width();
    [[nodiscard]] bool dragging() const { return dragging_; }
    [[nodiscard]] int chosen() const { return chosen_; }
    void choose(int copy);
    void turn_chosen();
    void lock_chosen();
    /// A point of a copy's ink on the widget: somewhere inside its contour.
    [[nodiscard]] QPoint place_of(int copy) const;

signals:
    void moved_view();
    void chosen_changed();

protected:
    Drawing draw(double width, double height) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    [[nodiscard]] const Medium* medium() const;
    [[nodiscard]] Point to_strip(Point p, int& sheet) const;
    [[nodiscard]] Affine strip_map(int sheet) const;
    [[nodiscard]] Point inner_point(const Transfer& t) const;
    void put(const PlacedCopy& copy, const QString& what, const QString& gesture);
    Workroom& room_;
    RibbonSheets sheets_;          ///< as of the last refresh
    double first_ = 0, zoom_ = 0;  ///< mm at the left edge; pixels a mm, 0: the whole width
    int chosen_ = -1;
    bool dragging_ = false, panning_ = false;
    Point grip_;  ///< from the copy's own place to the pointer, mm
    double pan_from_ = 0, pan_first_ = 0;
    std::vector<Polygon> outlines_;  ///< of the copies when the drag began
    std::map<std::pair<std::string, int>, PlacedCopy> shown_, gliding_from_;
    QVariantAnimation glide_;
    std::string shown_medium_;
    mutable std::map<std::string, Point> inner_;
};

}  // namespace orthema::app
