// Colours as they should look: a picture's own profile is read, and its colours come out in sRGB, which all that follows takes them for.
#pragma once

#include "reader/pixels.h"

namespace orthema::reader {

constexpr std::size_t most_profile = 4u << 20;  ///< bytes; larger ones are passed over

/// The ICC profile inside a PNG, JPEG or WebP; empty where it has none.
std::string embedded_profile(ArtKind kind, const std::string& bytes);

/// Takes the colours from the profile's to sRGB; alpha stays. Whether anything changed: not for a profile that is damaged, of another kind
/// of colours, or sRGB itself.
bool to_srgb(Pixels& pixels, const std::string& profile);

/// Four inks in the place of red, green, blue and alpha, as they lie in a file, become what they look like, solid. `inverted`: 255 is no
/// ink. Without a profile for four inks by the plain rule that black covers.
void inks_to_srgb(Pixels& pixels, const std::string& profile, bool inverted);

}  // namespace orthema::reader
