// A blank's faces with every point of measure as a tape line: a figure is clicked and typed on the drawing, a feature of
// the style's own is dragged.
#pragma once

#include "app/widgets/canvas.h"
#include "app/session/workroom.h"
#include "core/blanks/panel.h"

namespace orthema::app {

class LengthField;

class TapeDrawing : public Canvas {
    Q_OBJECT
public:
    explicit TapeDrawing(Workroom& room, QWidget* parent = nullptr);
    /// Opens the field on a figure.
    void type_on(Measure measure);
    [[nodiscard]] QPoint figure_place(Measure measure) const;
    /// Middle of one of the style's own features on the widget.
    [[nodiscard]] QPoint feature_place(int feature) const;
    [[nodiscard]] LengthField* field() const { return field_; }
    /// The figure under the pointer or being typed is drawn in verdigris.
    [[nodiscard]] std::optional<Measure> chosen() const { return chosen_; }
    void choose(std::optional<Measure> measure);
    void set_feature(int feature);
    /// The faces that are drawn, in order.
    static std::vector<Face> drawn_faces(Family family);

    std::function<std::string()> size_shown;  ///< set before the first use
    std::function<void(Measure, Length)> typed;
    std::function<void(Measure)> figure_chosen;
    std::function<void(int)> feature_chosen;
    /// A feature was dragged by so much, mm on the sample size.
    std::function<void(int, Length right, Length down)> feature_dragged;
    std::function<void()> drag_ended;

    /// Its figures.
    [[nodiscard]] std::vector<CanvasItem> items() override;

protected:
    Drawing draw(double width, double height) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct Label {
        Measure measure;
        Rect plate;
    };
    struct OwnFeature {
        int index;
        Rect place;     ///< on the widget
        double kx, ky;  ///< mm of the sample size for a pixel
    };
    [[nodiscard]] std::optional<Measure> at(Point p) const;
    [[nodiscard]] bool is_hot(Measure m) const { return over_ == m || chosen_ == m; }
    void draw_face(Drawing& d, const BlankStyle& style, const std::string& size, const Panel& panel, const Affine& map, Colour cloth);
    void draw_run(Drawing& d, const BlankStyle& style, const Rect& room) const;
    Workroom& room_;
    LengthField* field_;
    std::vector<Label> labels_;
    std::vector<OwnFeature> own_;
    std::optional<Measure> chosen_, over_;
    int feature_ = -1, held_ = -1;
    Point from_;
};

}  // namespace orthema::app
