// A design as pixels: what is looked for on a pressed piece, and what the simulated camera presses on.
#pragma once

#include "core/artwork/pixel_image.h"
#include "core/fitting/fit.h"
#include "files/art_file.h"

namespace orthema {

/// The design as it is to be read on its blank at that size, its ink box and no more.
PixelImage design_picture(const Decoration& decoration, const SizeFit& size, const LoadedArtById& art, double px_a_mm);

}  // namespace orthema
