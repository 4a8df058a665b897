// Soft ink made firm, as film and knife want it: hardened at a cover, broken into dots, cleaned of specks.
#pragma once

#include "core/artwork/pixel_image.h"

namespace orthema {

/// Ink of that cover and more becomes solid, the rest clear, with an edge one pixel soft where the ink was soft. Afterwards no pixel is
/// half-transparent but those between solid and clear ones. The edge's place within its pixel comes from the cover's slope there.
void harden(PixelImage& picture, double threshold);

/// Takes out what is joined (corners count) and everywhere smaller than `least_px`, across and down. How many.
std::size_t clean_specks(PixelImage& picture, double least_px);

/// The places that `clean_specks` would take out, in pixels.
std::vector<Rect> specks(const PixelView& picture, double least_px);

/// Soft ink as round dots on a grid turned by an eighth, so that as much cloth shows between them as was to shine through. One pixel is one
/// of the print. `apart_px` from dot to dot; the grid is given a whole number of pixels, so no second pattern arises. A dot, or a hole
/// between dots, smaller than `least_px` across is not made: its ink is left out, or full. Solid ink and its edges stay as they are.
void break_into_dots(PixelImage& picture, double apart_px, double least_px);

/// Of another size, pixels averaged by what they cover.
PixelImage scaled(const PixelImage& picture, int width, int height);

}  // namespace orthema
