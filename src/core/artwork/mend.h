// Mending a picture: the list of mendings done to its pixels, or, where the art is drawn, turned into what has to be drawn besides.
#pragma once

#include "core/base/result.h"
#include "core/artwork/mending.h"
#include "core/artwork/pixel_image.h"

namespace orthema {

/// A strip of ink added to a stroke, or taken out to open a gap: discs along its middle, in pixels.
struct MendStrip {
    std::vector<Point> along;
    double radius = 0;
    Colour colour;  ///< of the stroke; a gap has none
};
/// Does `thicken` or `open` to the picture and returns what was added or taken out; nothing where nothing is too thin.
std::vector<MendStrip> mend_thin_parts(PixelImage& picture, const Mending& mending);
/// The area of its discs, smooth, in pixels.
Region strip_area(const MendStrip& strip);

/// The least size that the mending asks for, in pixels of a picture with this ink box.
double least_px(const Mending& mending, const Rect& ink);

struct MendedPixels {
    PixelImage picture;
    Affine from_file;  ///< from the file's canvas to the picture's
};
/// All of them, each on what the one before left. Fails with a sentence where one cannot be done: no background, nothing left, or more than
/// `most_px` pixels.
Result<MendedPixels> mend(PixelImage picture, const std::vector<Mending>& mendings, std::size_t most_px);

/// How straighten and crop place a picture of `width` × `height`: the map from the file's canvas, and the new canvas's size.
struct MendFrame {
    Affine from_file;
    double width = 0, height = 0;
};
MendFrame mend_frame(double width, double height, const std::vector<Mending>& mendings);

}  // namespace orthema
