// Decoding of raster files into straight RGBA, with limits, through the usual libraries.
#pragma once

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/result.h"
#include "core/order/order.h"

namespace orthema::reader {

struct Pixels {
    int width = 0, height = 0;
    std::vector<std::uint8_t> rgba;
    bool turned = false;  ///< as the file says that it is to be seen, in its place and its colours, not as its pixels lie
};

constexpr int longest_side = 30000;
constexpr long most_pixels = 120'000'000;

/// How a camera held it: 1 upright, 2 to 8 mirrored or turned, by the first directory of a block in the TIFF manner; 1 where it
/// does not say.
int exif_turn(std::string_view block);
/// As it is to be seen.
Pixels upright(Pixels pixels, int turn);

/// The focal length as of film 36 × 24 mm, in mm, where the file says it; 0 else.
double exif_focal(ArtKind kind, const std::string& bytes);

/// Fails with a sentence that begins with `name`. Turned as the file says.
Result<Pixels> decode_pixels(ArtKind kind, const std::string& bytes, const std::string& name);

}  // namespace orthema::reader
