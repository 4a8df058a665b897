// Vinyl by colour: a flat-colour design taken apart into the shapes of its colours.
#pragma once

#include <vector>

#include "core/artwork/art_facts.h"

namespace orthema {

struct Separation {
    int width = 0, height = 0;        ///< of the picture, pixels
    std::vector<Colour> colours;      ///< largest share first
    std::vector<std::uint8_t> label;  ///< index of the colour for each pixel, 255 where there is no ink
    double unsure = 0;                ///< share of the ink that is none of the colours: edges, and tones
    static constexpr std::uint8_t none = 255;
};

/// At most `colours` colours that differ by at least `tolerance` (CIELAB 1976). A pixel within the tolerance of a colour
/// is sure; the rest, the soft edges between colours, go to the nearest sure pixel, so that no third colour creeps in
/// between two. Ink counts from half coverage on.
Separation separate(const PixelView& picture, int colours, double tolerance);

/// The outline of one colour's pixels: unit is the picture's width, origin its top left; simplified by a pixel.
Region colour_shape(const Separation& separation, std::size_t colour);

}  // namespace orthema
