// A photograph that a blank or a pressed piece is measured from: the outline that was found lies over it and can be put right by hand; of a
// pressed piece, where its design lies and where it should.
#pragma once

#include "app/photos/taped_photo.h"
#include "app/session/workroom.h"
#include "app/widgets/canvas.h"

namespace orthema::app {

class PhotoView : public Canvas {
    Q_OBJECT
public:
    explicit PhotoView(Workroom& room, QWidget* parent = nullptr);
    /// Null: nothing yet. Must outlive the view, or be taken from it.
    void show_photo(const TapedPhoto* photo);
    /// Where a point of the photograph lies on the widget, and back.
    [[nodiscard]] Point on_widget(Point pixel) const;
    [[nodiscard]] Point pixel_at(Point on_widget) const;
    /// The chosen point by hand, or −1.
    [[nodiscard]] int chosen() const { return chosen_; }

    /// Points were put on the outline, moved or taken off: all of them now, pixels of the photograph.
    std::function<void(std::vector<Point> points)> by_hand;

protected:
    Drawing draw(double width, double height) override;
    const QImage* ground(double ratio) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;

private:
    [[nodiscard]] Affine map() const;  ///< photograph pixels to the widget
    void put(Point pixel);
    void move(int point, Point pixel);
    void take_off(int point);
    [[nodiscard]] int hand_at(Point on_widget) const;
    [[nodiscard]] bool near_outline(Point on_widget) const;
    Workroom& room_;
    const TapedPhoto* photo_ = nullptr;
    QImage ground_;
    std::string ground_key_;
    double zoom_ = 1;
    Point middle_;  ///< of what is seen, pixels of the photograph
    int chosen_ = -1;
    std::optional<Point> held_;  ///< where the point lies while it is dragged, on the widget
    bool fresh_ = false;         ///< that it is a new one
    std::optional<Point> pan_;
};

}  // namespace orthema::app
