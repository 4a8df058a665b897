// Layer: one sheet of a stack.
#pragma once

#include <algorithm>
#include <optional>
#include <string>

#include "core/base/colour.h"
#include "core/base/length.h"

namespace orthema {

/// One sheet of a stack: printed, or cut from a medium of one colour.
struct Layer {
    std::string name;              ///< "print", "backing", "navy"
    std::string medium;            ///< empty: the decoration's own
    bool printed = false;          ///< the art itself; otherwise a flat sheet in `tint`
    std::optional<Colour> colour;  ///< of the separated art: this layer is that colour's part only
    Colour tint;                   ///< of the sheet
    Length grow;                   ///< past the layer above it; negative: choked
    bool operator==(const Layer&) const = default;
};

/// By how much a sheet is cut larger that shrinks by so many per cent in the heat.
inline double shrink_factor(double per_cent) { return 1 / (1 - std::clamp(per_cent, 0.0, 50.0) / 100); }

}  // namespace orthema
