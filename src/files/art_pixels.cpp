#include "files/art_pixels.h"

#include <cmath>

namespace orthema {

std::vector<std::uint8_t> straight(const std::vector<std::uint32_t>& from) {
    std::vector<std::uint8_t> out(from.size() * 4);
    for (std::size_t i = 0; i < from.size(); ++i) {
        const std::uint32_t p = from[i];
        const std::uint32_t a = p >> 24;
        const auto div = [a](std::uint32_t c) { return static_cast<std::uint8_t>(a == 0 ? 0 : std::min(255u, (c * 255 + a / 2) / a)); };
        out[i * 4] = div((p >> 16) & 255);
        out[i * 4 + 1] = div((p >> 8) & 255);
        out[i * 4 + 2] = div(p & 255);
        out[i * 4 + 3] = static_cast<std::uint8_t>(a);
    }
    return out;
}

cairo_surface_t* image_over(std::vector<std::uint32_t>& pixels, int width, int height) {
    return cairo_image_surface_create_for_data(reinterpret_cast<unsigned char*>(pixels.data()), CAIRO_FORMAT_ARGB32, width, height,
                                               width * 4);
}

std::vector<std::uint8_t> drawn_pixels(const LoadedArt& art, int width, int height) {
    std::vector<std::uint32_t> canvas(static_cast<std::size_t>(width) * static_cast<std::size_t>(height));
    cairo_surface_t* surface = image_over(canvas, width, height);
    cairo_t* cr = cairo_create(surface);
    art.draw(cr);
    cairo_destroy(cr);
    cairo_surface_destroy(surface);
    return straight(canvas);
}

std::vector<ScreenImage> screen_levels(const LoadedArt& art, int side) {
    std::vector<ScreenImage> levels;
    if (art.facts.empty()) return levels;
    const Rect& ink = art.facts.ink_px;
    const double scale = std::min(1.0, side / std::max(ink.width(), ink.height()));
    ScreenImage top;
    top.width = std::max(1, static_cast<int>(std::lround(ink.width() * scale)));
    top.height = std::max(1, static_cast<int>(std::lround(ink.height() * scale)));
    top.pixels.assign(static_cast<std::size_t>(top.width) * static_cast<std::size_t>(top.height), 0);
    cairo_surface_t* surface = image_over(top.pixels, top.width, top.height);
    cairo_t* cr = cairo_create(surface);
    cairo_scale(cr, top.width / ink.width(), top.height / ink.height());
    cairo_translate(cr, -ink.x0, -ink.y0);
    art.draw(cr);
    cairo_destroy(cr);
    cairo_surface_destroy(surface);
    levels.push_back(std::move(top));
    while (levels.back().width > 48 && levels.back().height > 48) {
        const ScreenImage& from = levels.back();
        ScreenImage half;
        half.width = from.width / 2;
        half.height = from.height / 2;
        half.pixels.resize(static_cast<std::size_t>(half.width) * static_cast<std::size_t>(half.height));
        for (int y = 0; y < half.height; ++y)
            for (int x = 0; x < half.width; ++x) {
                std::uint32_t sum[4] = {};
                for (int k = 0; k < 4; ++k) {
                    const std::uint32_t p = from.pixels[static_cast<std::size_t>((2 * y + k / 2) * from.width + 2 * x + k % 2)];
                    for (int c = 0; c < 4; ++c) sum[c] += (p >> (8 * c)) & 255;
                }
                half.pixels[static_cast<std::size_t>(y * half.width + x)] =
                    ((sum[0] + 2) / 4) | ((sum[1] + 2) / 4) << 8 | ((sum[2] + 2) / 4) << 16 | ((sum[3] + 2) / 4) << 24;
            }
        levels.push_back(std::move(half));
    }
    return levels;
}

}  // namespace orthema
