// Canvas: a widget that shows a Drawing (in its own pixels) through the one painter. Benches derive from it and answer
// the mouse and keys.
#pragma once

#include <QImage>
#include <QWidget>

#include "app/widgets/access.h"
#include "core/base/units.h"
#include "core/drawing/drawing.h"
#include "files/art_file.h"

namespace orthema::app {

class Canvas : public QWidget {
    Q_OBJECT
public:
    /// `art` must outlive the canvas.
    explicit Canvas(const LoadedArtById& art, QWidget* parent = nullptr);
    /// The drawing is made anew before the next paint.
    void refresh();
    [[nodiscard]] QSize sizeHint() const override { return {400, 300}; }
    /// All that it shows now, from the bottom up, but for pictures that lie under it.
    [[nodiscard]] Drawing shown();
    /// What a screen reader walks through. Usually all words that are drawn, in their order; canvases of things that are chosen say those.
    [[nodiscard]] virtual std::vector<CanvasItem> items();
    /// Those of what is drawn now.
    [[nodiscard]] const std::vector<CanvasItem>& listed();

protected:
    /// What to show in a widget of this size, in device-independent pixels.
    virtual Drawing draw(double width, double height) = 0;
    /// What lies under it and seldom changes; painted again only when the key does. No key: nothing lies under it.
    virtual std::string backdrop_key() { return {}; }
    virtual Drawing draw_backdrop(double /*width*/, double /*height*/) { return {}; }
    /// What the drawing is laid over, of the widget's size; null: plain paper. Asked after draw().
    virtual const QImage* ground(double ratio);
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    [[nodiscard]] const LoadedArtById& art() const { return art_; }
    /// As much of a text as fits, with an ellipsis where some is left out.
    [[nodiscard]] std::string fitting(const std::string& text, double width, double size, bool bold = false) const;

private:
    const LoadedArtById& art_;
    QImage image_, backdrop_;
    std::string backdrop_key_;
    bool stale_ = true;
    std::optional<std::vector<CanvasItem>> listed_;
    QString told_;          ///< of what is chosen, to who listens
    bool by_keys_ = false;  ///< reached with Tab: a frame shows where the keys go
};

/// Paints a drawing into an image of `width` × `height` device-independent pixels, on paper or over another image of
/// that size.
void paint_image(QImage& image, const Drawing& drawing, const LoadedArtById& art, int width, int height, double ratio,
                 const QImage* over = nullptr);

/// The image as a PNG file's bytes.
std::string png_of(const QImage& image);

inline Point to_point(QPointF p) { return {p.x(), p.y()}; }

/// One step to where an arrow key points, y down; {0, 0} for other keys.
Point arrow_of(const QKeyEvent& event);
/// What an arrow key moves by, mm: 1 mm or 1/16 in, eight times that with Shift.
double nudge_mm(const QKeyEvent& event, Unit unit);
/// Notches that a wheel was turned, away from the hand above 0; to the side where it turns that way.
double wheel_steps(const QWheelEvent& event);

}  // namespace orthema::app
