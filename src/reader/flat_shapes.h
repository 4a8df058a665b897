// Vector art as flat shapes: what librsvg or poppler draws, taken down by cairo as a plain list of paths and flattened.
#pragma once

#include <cairo.h>

#include <functional>
#include <optional>
#include <vector>

#include "drawing/painter.h"

namespace orthema::reader {

/// What `draw` paints on a canvas of `width` × `height`, from the bottom up. Curves and round strokes are kept within
/// 1/20 of the canvas's unit. Nothing where it paints more than paths of one colour: gradients, pictures, masks, dashes.
/// Method: cairo's SVG surface writes few kinds of element; every kind that is not known here ends the reading, so that
/// nothing is left out of what is drawn.
std::optional<std::vector<FlatShape>> flat_shapes_of(double width, double height, const std::function<void(cairo_t*)>& draw);

}  // namespace orthema::reader
