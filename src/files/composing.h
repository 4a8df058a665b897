// A canvas that pictures are laid on to become one: word pictures, prints put together; also that a clipped picture is drawn on.
#pragma once

#include "files/art_file.h"

namespace orthema {

struct ComposingCanvas {
    double k = 1;  ///< pixels to the unit of what is composed
    Affine to;     ///< from there to the canvas
    int width = 0, height = 0;
};

constexpr double most_composed = 60e6;  ///< pixels of what is composed

/// A canvas for what lies in `box`, with as many pixels to the unit as its sharpest picture has, within what one canvas may have.
ComposingCanvas composing_canvas(const Rect& box, double sharpest, double most_area = most_composed);

/// A picture on the canvas within `shape` (pixels): its ink `width` wide about `middle`, turned, both in the unit of what is composed.
Filling filling_of(const ComposingCanvas& canvas, const std::string& picture, const ArtFacts& facts, Region shape, double width,
                   Point middle, double degrees);

/// All of it as one picture, which may still be told more of. `coarsest`: pixels to the unit of what is least sharp.
Result<std::shared_ptr<LoadedArt>> composed_art(const ComposingCanvas& canvas, const LoadedArtById& pictures,
                                                const std::vector<Filling>& fillings, double coarsest, const std::string& name);

}  // namespace orthema
