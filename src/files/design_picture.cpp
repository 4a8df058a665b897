#include "files/design_picture.h"

#include <cmath>

#include "core/guides/panel_drawing.h"
#include "drawing/painter.h"
#include "files/art_pixels.h"

namespace orthema {

PixelImage design_picture(const Decoration& decoration, const SizeFit& size, const LoadedArtById& art, double px_a_mm) {
    const Rect& ink = shown_ink(size);
    PixelImage out;
    out.width = std::max(2, static_cast<int>(std::lround(ink.width() * px_a_mm)));
    out.height = std::max(2, static_cast<int>(std::lround(ink.height() * px_a_mm)));
    Drawing drawing;
    draw_design(drawing, decoration, size,
                Affine::scale(out.width / ink.width(), out.height / ink.height()).after(Affine::shift(-ink.x0, -ink.y0)));
    std::vector<std::uint32_t> pixels(out.count());
    cairo_surface_t* surface = image_over(pixels, out.width, out.height);
    cairo_t* cr = cairo_create(surface);
    ScreenArt source(art);
    paint(drawing, cr, &source);
    cairo_destroy(cr);
    cairo_surface_destroy(surface);
    out.rgba = straight(pixels);
    return out;
}

}  // namespace orthema
