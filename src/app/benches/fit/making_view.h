// The making of the chosen decoration: its pieces as they lie on their media, and what it looks like pressed. Seams are
// dragged, cups are turned.
#pragma once

#include "app/widgets/canvas.h"
#include "app/session/workroom.h"

namespace orthema::app {

class MakingView : public Canvas {
    Q_OBJECT
public:
    explicit MakingView(Workroom& room, QWidget* parent = nullptr);
    /// A seam was dragged: it must pass this point.
    std::function<void(SeamPoint)> seam_moved;
    /// Where a point of the reading frame is on the widget, on the pressed side.
    [[nodiscard]] QPoint place_of(Point reading) const;
    [[nodiscard]] double turned() const { return turn_; }

protected:
    Drawing draw(double width, double height) override;
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct Grip {
        bool upright = true;
        int seam = 0;
        Point at;  ///< reading frame
    };
    [[nodiscard]] const MakingOf* making() const;
    [[nodiscard]] const JigSheet* board() const;
    void draw_pieces(Drawing& d, const Rect& room, const std::vector<const Transfer*>& pieces);
    void draw_cup(Drawing& d, const Rect& room, const MakingOf& made, Colour cloth);
    [[nodiscard]] std::optional<Grip> seam_near(Point screen) const;
    Workroom& room_;
    Affine pressed_;  ///< from the reading frame to the widget
    std::optional<Grip> grip_;
    double turn_ = 0;  ///< mm along the wall that face the viewer
    double turn_from_ = 0, press_x_ = 0, mm_per_px_ = 0;
    bool turning_ = false, cup_shown_ = false;
    Rect cup_;
    QImage cup_image_;
    std::string cup_key_;
};

}  // namespace orthema::app
