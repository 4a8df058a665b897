// What cloth is meant by a colour's name, where a blank has no such colour of its own.
#pragma once

#include <optional>
#include <string>

#include "core/blanks/style.h"

namespace orthema {

/// By the last of its words that is known: "dark navy", "heather grey", "Schwarz". Nothing where none is.
std::optional<Colour> usual_cloth(const std::string& name);
/// The blank's own colour of that name, else the usual one.
std::optional<Colour> told_colour(const BlankStyle& style, const std::string& name);

}  // namespace orthema
