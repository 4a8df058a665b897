// The size wall on screen: drag the design, its corners, or a band's end; arrows nudge.
#pragma once

#include "app/benches/fit/wall.h"
#include "app/widgets/canvas.h"
#include "app/session/workroom.h"
#include "core/fitting/adjust.h"

namespace orthema::app {

class FitWall : public Canvas {
    Q_OBJECT
public:
    explicit FitWall(Workroom& room, QWidget* parent = nullptr);
    /// For whom a drag, nudge or typed figure counts when no key is held.
    void set_reach(Reach reach) { reach_ = reach; }
    [[nodiscard]] Reach reach() const { return reach_; }
    /// Which overlays lie on the wall; the keys G, P and B turn them as well.
    [[nodiscard]] WallLook& look() { return look_; }
    std::function<void()> look_changed;
    std::function<void(PlacingSchool)> school_wanted;
    [[nodiscard]] const Wall& wall() const { return wall_; }
    /// Centre of the design on a size, and one end of a band's rail, on the widget.
    [[nodiscard]] QPoint design_at(const std::string& size) const;
    [[nodiscard]] QPoint corner_at(const std::string& size) const;
    [[nodiscard]] QPoint rail_end(int band, bool right) const;

protected:
    Drawing draw(double width, double height) override;
    std::string backdrop_key() override { return wall_.stands.empty() ? std::string() : ground_key_ + " " + std::to_string(ground_round_); }
    Drawing draw_backdrop(double width, double height) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    enum class Hold { nothing, design, corner, rail_start, rail_end };
    struct Grip {
        Hold hold = Hold::nothing;
        int slot = -1;  ///< into the wall's stands
        int band = -1;
        int corner = 0;
    };
    [[nodiscard]] Grip grip_at(Point p) const;
    [[nodiscard]] const SizeFit* size_of(const WallSlot& slot) const;
    void drag_to(Point p, Reach reach);
    void lay_out(double width, double height);
    Workroom& room_;
    Reach reach_ = Reach::every_size;
    Wall wall_;
    WallLook look_;
    std::shared_ptr<const GroundRun> ground_;  ///< that the backdrop was painted from
    std::string ground_key_;
    int ground_round_ = 0;
    Grip held_;
    Point from_;
    Decoration decoration_then_;
    DecorationFit fit_then_;
    SizeFit size_then_;
};

}  // namespace orthema::app
