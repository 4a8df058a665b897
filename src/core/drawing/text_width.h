// How wide words are in the shipped fonts, for plates and pages that are laid out where no font can be asked.
#pragma once

#include <string>

namespace orthema {

/// The width of a line in the unit of `size`, from the fonts' own advances; without kerning, which takes a little off.
double text_width_guess(const std::string& text, double size, bool bold = false);
/// `size`, or by as much less that the line is no wider.
double fitted_size(const std::string& text, double size, double width);
/// The text, or as much of it as is no wider, with an ellipsis. Never ends within a letter.
std::string shortened(const std::string& text, double width, double size);

}  // namespace orthema
