// A picture with what was found in it: ink box, outline, optical centre, marked centre.
#pragma once

#include "app/widgets/canvas.h"
#include "app/session/workroom.h"
#include "core/artwork/mend.h"

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
    /// The same for a picture of a word; empty: no more.
    void set_subject_of(const std::string& art);
    /// Shows the file's picture beside the mended one, with a loupe that follows the pointer over both.
    void set_mending(bool on);
    /// What the next drag draws on the file's picture.
    enum class Drawn { nothing, line, box };
    void set_drawing(Drawn what);
    void set_cloth(std::optional<Colour> cloth);
    /// Where a point of the art's unit frame is on the widget.
    [[nodiscard]] QPoint place_of(Point unit) const;

    std::function<void(std::optional<Point>)> marked;
    std::function<void(Point)> named;
    std::function<void(Point)> kept_inside;
    std::function<void(double)> levelled;  ///< degrees clockwise that lay the drawn line level, or stand it upright
    std::function<void(Rect)> kept;        ///< the drawn box, in shares of the straightened canvas
    /// Where a point of the file's canvas, in shares of it, is on the widget while something is drawn.
    [[nodiscard]] QPoint drawing_place_of(Point share) const;

protected:
    Drawing draw(double width, double height) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void draw_words(Drawing& d, const Art& lettering, double aspect) const;
    struct Tile;
    [[nodiscard]] std::vector<Tile> tiles(double width, double height) const;
    void draw_mending(Drawing& d) const;
    void draw_loupes(Drawing& d, const std::vector<Tile>& all) const;
    [[nodiscard]] std::string subject_art() const;
    [[nodiscard]] std::string shown_id() const;
    [[nodiscard]] const LoadedArt* shown() const;
    [[nodiscard]] Affine map(double width, double height) const;
    Workroom& room_;
    bool marking_ = false, naming_ = false, subject_ = false;
    std::string subject_of_;
    std::optional<Colour> cloth_;
    bool mending_ = false;
    Drawn drawn_ = Drawn::nothing;
    std::optional<Point> from_, pointer_;
};

}  // namespace orthema::app
