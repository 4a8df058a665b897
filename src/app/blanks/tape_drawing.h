// A blank, front and back, with every point of measure as a tape line: a figure is clicked and typed on the drawing.
#pragma once

#include "app/shell/canvas.h"
#include "app/shell/workroom.h"
#include "core/blanks/garment.h"

namespace orthema::app {

class LengthField;

class TapeDrawing : public Canvas {
    Q_OBJECT
public:
    explicit TapeDrawing(Workroom& room, QWidget* parent = nullptr);
    /// Opens the field on a figure.
    void type_on(Measure measure);
    [[nodiscard]] QPoint figure_place(Measure measure) const;
    [[nodiscard]] LengthField* field() const { return field_; }
    /// The figure under the pointer or being typed is drawn in verdigris.
    [[nodiscard]] std::optional<Measure> chosen() const { return chosen_; }

    std::function<void(Measure, Length)> taped;

protected:
    Drawing draw(double width, double height) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct Label {
        Measure measure;
        Rect plate;
    };
    [[nodiscard]] std::optional<Measure> at(Point p) const;
    [[nodiscard]] bool is_hot(Measure m) const { return over_ == m || chosen_ == m; }
    void draw_run(Drawing& d, const BlankStyle& style, const Rect& room) const;
    Workroom& room_;
    LengthField* field_;
    std::vector<Label> labels_;
    std::optional<Measure> chosen_, over_;
};

}  // namespace orthema::app
