// Decoding of raster files into straight RGBA, with limits, through the usual libraries.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/order/order.h"

namespace orthema {

struct Pixels {
    int width = 0, height = 0;
    std::vector<std::uint8_t> rgba;
};

constexpr int longest_side = 30000;
constexpr long most_pixels = 120'000'000;

/// Fails with a sentence that begins with `name`.
Result<Pixels> decode_pixels(ArtKind kind, const std::string& bytes, const std::string& name);

}  // namespace orthema
