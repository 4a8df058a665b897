// A picture with what was found in it: ink box, outline, optical centre, marked centre.
#pragma once

#include "app/widgets/canvas.h"
#include "app/session/workroom.h"

namespace orthema::app {

class ArtView : public Canvas {
    Q_OBJECT
public:
    explicit ArtView(Workroom& room, QWidget* parent = nullptr);
    void set_marking(bool on);
    /// The next click sets a named mark.
    void set_naming(bool on);
    /// Shows the whole of a clipped picture; clicks set what must stay inside.
    void set_subject(bool on);
    void set_cloth(std::optional<Colour> cloth);
    /// Where a point of the art's unit frame is on the widget.
    [[nodiscard]] QPoint place_of(Point unit) const;

    std::function<void(std::optional<Point>)> marked;
    std::function<void(Point)> named;
    std::function<void(Point)> kept_inside;

protected:
    Drawing draw(double width, double height) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void draw_words(Drawing& d, const Art& lettering, double aspect) const;
    [[nodiscard]] std::string shown_id() const;
    [[nodiscard]] const LoadedArt* shown() const;
    [[nodiscard]] Affine map(double width, double height) const;
    Workroom& room_;
    bool marking_ = false, naming_ = false, subject_ = false;
    std::optional<Colour> cloth_;
};

}  // namespace orthema::app
