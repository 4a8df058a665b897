// PNG, put together from its parts.
#pragma once

#include <string>

#include "core/artwork/pixel_image.h"

namespace orthema::reader {

void put_number(std::string& to, std::uint32_t v);  ///< most significant byte first
std::string png_chunk(const std::string& name, const std::string& data);

/// What a file of 8-bit RGBA begins with.
std::string png_head(int width, int height);

/// A whole file of 8-bit RGBA, deflated on all cores.
std::string png_of(const PixelImage& picture);

}  // namespace orthema::reader
