// What cloth is meant by a colour's name, where a blank has no such colour of its own.
#pragma once

#include <optional>
#include <string_view>

#include "core/base/colour.h"

namespace orthema {

/// By the last of its words that is known: "dark navy", "heather grey", "Schwarz". Nothing where none is.
std::optional<Colour> usual_cloth(std::string_view name);

}  // namespace orthema
