// A word picture to work on: pictures in their letters, moved, enlarged and turned by hand, and the line along which two share one.
#pragma once

#include "app/widgets/speech.h"
#include "app/session/workroom.h"
#include "app/widgets/canvas.h"
#include "files/word_picture.h"

namespace orthema::app {

class WordView : public Canvas {
    Q_OBJECT
public:
    explicit WordView(Workroom& room, QWidget* parent = nullptr);
    void set_cloth(std::optional<Colour> cloth);
    void choose(std::size_t place);
    [[nodiscard]] std::size_t chosen() const { return place_; }
    /// The middle of a place on the widget, and the middle and end handle of its line.
    [[nodiscard]] QPoint place_of(std::size_t place) const;
    [[nodiscard]] QPoint line_of(std::size_t place, bool end) const;

    std::function<void(std::size_t)> picked;
    std::function<void(std::size_t place, bool second, PictureAt)> placed;
    std::function<void(std::size_t place, SharingLine)> lined;
    std::function<void(std::size_t from, std::size_t to)> swapped;
    std::function<void(std::size_t place, bool second)> taken_out;

protected:
    Drawing draw(double width, double height) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    enum class Drag { none, picture, line, turn, swap };
    [[nodiscard]] const WordPicture* word() const;
    [[nodiscard]] std::shared_ptr<const WordLaid> laid() const;
    [[nodiscard]] Affine map() const;  ///< letter heights to the widget
    [[nodiscard]] const WordPartLaid* part_at(Point on_widget) const;
    [[nodiscard]] const WordPartLaid* chosen_part() const;
    [[nodiscard]] SharingLine line_now(std::size_t place) const;
    void change(const WordPartLaid& part, const std::function<void(PictureAt&)>& how);
    Workroom& room_;
    std::optional<Colour> cloth_;
    std::size_t place_ = 0;
    bool second_ = false;
    Drag drag_ = Drag::none;
    Point from_, now_;
    std::optional<PictureAt> held_;    ///< of the chosen part, while it is dragged
    std::optional<SharingLine> line_;  ///< while it is dragged
};

}  // namespace orthema::app
