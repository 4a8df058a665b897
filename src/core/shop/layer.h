// Layer: one sheet of a stack.
#pragma once

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

}  // namespace orthema
