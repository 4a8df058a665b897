// A print put together, on the face of its blank: what lies over the ground is dragged, enlarged and turned.
#pragma once

#include "app/session/workroom.h"
#include "app/widgets/canvas.h"
#include "files/put_together.h"

namespace orthema::app {

class TogetherView : public Canvas {
    Q_OBJECT
public:
    explicit TogetherView(Workroom& room, QWidget* parent = nullptr);
    void set_cloth(std::optional<Colour> cloth);
    void choose(std::size_t over);
    [[nodiscard]] std::size_t chosen() const { return over_; }
    /// Middle of a picture on the widget, and the handle that makes the chosen one larger.
    [[nodiscard]] QPoint place_of(std::size_t over) const;
    [[nodiscard]] QPoint handle() const;

    std::function<void(std::size_t)> picked;
    std::function<void(std::size_t over, const LaidOver&)> changed;
    std::function<void(std::size_t over)> taken_off;
    std::function<void(std::size_t over, int by)> raised;  ///< over (above 0) or under its neighbour

protected:
    Drawing draw(double width, double height) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;

private:
    enum class Drag { none, move, size };
    [[nodiscard]] const PutTogether* print() const;
    [[nodiscard]] std::shared_ptr<const TogetherLaid> laid() const;
    [[nodiscard]] Affine map() const;  ///< panel millimetres to the widget
    [[nodiscard]] const LoadedArt* picture_of(const LaidOver& over) const;
    [[nodiscard]] LaidOver now(std::size_t over) const;
    /// Its ink box as it lies, on the widget.
    [[nodiscard]] Ring frame(std::size_t over) const;
    [[nodiscard]] std::optional<std::size_t> over_at(Point on_widget) const;
    void change(std::size_t over, const std::function<void(LaidOver&)>& how);
    void draw_over(Drawing& d, std::size_t over, const TogetherLaid& all, const Affine& m) const;
    void snap(LaidOver& over);
    Workroom& room_;
    std::optional<Colour> cloth_;
    std::size_t over_ = 0;
    Drag drag_ = Drag::none;
    Point from_;
    std::optional<LaidOver> held_;
    bool on_middle_[2] = {false, false};  ///< that it was snapped to, across and down
};

}  // namespace orthema::app
