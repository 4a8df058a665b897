// Photographs to measure from.
#include <cmath>

#include "reader/reader.h"

namespace orthema::reader {

namespace {

/// Each pixel the mean of four.
PixelImage halved(const PixelImage& from) {
    PixelImage out{from.width / 2, from.height / 2, {}};
    out.rgba.resize(4 * out.count());
    for (int y = 0; y < out.height; ++y)
        for (int x = 0; x < out.width; ++x) {
            std::uint8_t* to = out.at(x, y);
            for (std::size_t k = 0; k < 4; ++k)
                to[k] = static_cast<std::uint8_t>((from.at(2 * x, 2 * y)[k] + from.at(2 * x + 1, 2 * y)[k] + from.at(2 * x, 2 * y + 1)[k] +
                                                   from.at(2 * x + 1, 2 * y + 1)[k] + 2) /
                                                  4);
        }
    return out;
}

}  // namespace

Result<Photo> photograph(const Bytes& bytes, const std::string& name) {
    const auto kind = kind_of(*bytes);
    if (!kind) return no_picture(name);
    auto pixels = decode_pixels(*kind, *bytes, name);
    if (!pixels) return pixels.error();
    Photo out;
    out.image = {pixels->width, pixels->height, std::move(pixels->rgba)};
    while (static_cast<long>(out.image.count()) > most_photo_pixels) out.image = halved(out.image);
    for (std::size_t i = 0; i < out.image.count(); ++i) {  // what is see-through, on white
        std::uint8_t* p = out.image.rgba.data() + 4 * i;
        if (p[3] == 255) continue;
        for (std::size_t k = 0; k < 3; ++k) p[k] = static_cast<std::uint8_t>((p[k] * p[3] + 255 * (255 - p[3])) / 255);
        p[3] = 255;
    }
    // told as of film of 36 × 24 mm, by the diagonal
    if (const double focal = exif_focal(*kind, *bytes); focal > 0)
        out.focal_px = focal / std::hypot(36, 24) * std::hypot(out.image.width, out.image.height);
    return out;
}

}  // namespace orthema::reader
