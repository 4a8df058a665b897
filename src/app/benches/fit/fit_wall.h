// The size wall on screen: drag the design, its corners, or a band's end; arrows nudge.
#pragma once

#include "app/benches/fit/wall.h"
#include "app/widgets/canvas.h"
#include "app/session/workroom.h"
#include "core/fitting/adjust.h"
#include "core/fitting/snap.h"

class QMenu;

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
    /// All lots of the rule one below the other, or the chosen lot alone; the key L turns it.
    void show_all_lots(bool on);
    [[nodiscard]] bool shows_all_lots() const { return all_lots_; }
    /// The chosen size fills the wall, or all sizes stand on it again: a double click, Enter, Escape.
    void show_large(bool on);
    [[nodiscard]] bool is_large() const { return large_; }
    /// How near the wall is seen: 1 shows all of it.
    [[nodiscard]] double zoom() const { return large_ ? 0 : zoom_; }
    /// The lines that the design in hand lies on, by name.
    [[nodiscard]] const std::vector<SnapLine>& snap_lines() const { return snap_lines_; }
    /// Offers what can be done with the chosen design.
    std::function<void(QMenu&)> fill_menu;
    [[nodiscard]] const Wall& wall() const { return wall_; }
    /// Decorations that stand on the wall, a floor line each where there are several.
    [[nodiscard]] const std::vector<std::string>& lots() const { return lots_; }
    /// Centre of the chosen lot's design on a size, and one end of a band's rail, on the widget.
    [[nodiscard]] QPoint design_at(const std::string& size) const;
    [[nodiscard]] QPoint corner_at(const std::string& size) const;
    [[nodiscard]] QPoint rail_end(int band, bool right) const;

    /// The sizes that stand on it.
    [[nodiscard]] std::vector<CanvasItem> items() override;

protected:
    Drawing draw(double width, double height) override;
    std::string backdrop_key() override;
    Drawing draw_backdrop(double width, double height) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    bool event(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;

private:
    enum class Hold { nothing, design, corner, rail_start, rail_end, ground };
    struct Grip {
        Hold hold = Hold::nothing;
        int slot = -1;  ///< into the wall's stands
        int lot = 0;
        int band = -1;
        int corner = 0;
    };
    [[nodiscard]] Grip grip_at(Point p) const;
    [[nodiscard]] const SizeFit* size_of(const WallSlot& slot) const;
    [[nodiscard]] const WallSlot* stand_of(const std::string& size) const;  ///< of the chosen lot; null where it stands nowhere
    void drag_to(Point p, Reach reach, bool loose);
    void move_design(Point p, Reach reach, bool loose);
    void zoom_by(double factor, Point about);
    void draw_snaps(Drawing& d) const;
    void lay_out(double width, double height);
    /// Makes the lot and size that were pointed at the chosen ones.
    void choose(int lot, const std::string& size);
    /// Takes a size into the hand beside those that are there, or puts it back.
    void choose_also(const std::string& size);
    [[nodiscard]] std::vector<WallLot> standing() const;
    [[nodiscard]] int chosen_lot() const;
    Workroom& room_;
    Reach reach_ = Reach::every_size;
    Wall wall_;
    WallLook look_;
    bool all_lots_ = false;
    int first_lot_ = 0;                                      ///< of those that stand, the topmost in sight
    std::string followed_;                                   ///< chosen decoration that was last brought into sight
    std::vector<std::string> lots_;                          ///< decorations in sight
    std::vector<std::shared_ptr<const GroundRun>> grounds_;  ///< that the backdrop was painted from
    std::string ground_key_;
    int ground_round_ = 0;
    double zoom_ = 1;
    Point pan_;  ///< pixels
    bool large_ = false;
    std::vector<SnapLine> snap_lines_;
    Grip held_;
    Point from_;
    Decoration decoration_then_;
    DecorationFit fit_then_;
    SizeFit size_then_;
};

}  // namespace orthema::app
