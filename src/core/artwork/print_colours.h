// What of a picture's colours four inks cannot print as bright as a screen shows them, in words. The body of colours that inks reach is
// that of usual process inks on a white ground; what a shop's own printer reaches is seen on a trial.
#pragma once

#include <string>

#include "core/artwork/art_facts.h"

namespace orthema {

/// How far a colour lies outside of what the inks reach, along its own lightness: CIELAB chroma. 0 within.
double beyond_inks(Colour colour);

/// "blue", "orange": how a colour is called.
const char* hue_name(Colour colour);

/// The hues of its main colours (5 % of the ink and more) that print clearly duller, most ink first: "blue and green". Empty: none.
std::string dulled_hues(const ArtFacts& facts);

}  // namespace orthema
