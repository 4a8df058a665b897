// Pixels of loaded art: what its readers share.
#pragma once

#include "files/art_file.h"

namespace orthema {

/// Premultiplied native words to straight RGBA bytes.
std::vector<std::uint8_t> straight(const std::vector<std::uint32_t>& from);

/// A cairo surface over those words; the caller destroys it and keeps the words.
cairo_surface_t* image_over(std::vector<std::uint32_t>& pixels, int width, int height);

/// The whole canvas as it is drawn, straight RGBA bytes.
std::vector<std::uint8_t> drawn_pixels(const LoadedArt& art, int width, int height);

/// The ink box at screen size, at most `side` pixels along its longer side, and its halves.
std::vector<ScreenImage> screen_levels(const LoadedArt& art, int side = 1024);

}  // namespace orthema
