// Looking pixels up backwards through a map: for every pixel of the target, where it lies in the source.
#pragma once

#include <cstdint>
#include <thread>
#include <vector>

#include "core/geometry/geometry.h"

namespace orthema {

/// Premultiplied ARGB words, rows without padding.
struct WordView {
    const std::uint32_t* words = nullptr;
    int width = 0, height = 0;
};

/// The picture at a point (pixel middles lie at .5), by the cubic that passes through the pixels (Catmull and Rom), its
/// weights in 1/128; clear outside. Colour never exceeds alpha.
std::uint32_t sampled(const WordView& from, double x, double y);

/// `where` takes the middle of a target pixel, in pixels, to a point of the source. It is asked on a grid of 16 pixels
/// and taken as straight between: of a smooth map, an arc of radius r pixels, that is off by 32 / r pixels at most. Runs
/// on as many threads as there are cores; `where` must bear that.
template <class Where>
void resample(const WordView& from, std::uint32_t* to, int width, int height, Where where) {
    constexpr int cell = 16;
    const auto band = [&](int first, int last) {
        const int columns = width / cell + 2;
        std::vector<Point> upper(static_cast<std::size_t>(columns)), lower(static_cast<std::size_t>(columns));
        const auto line = [&](std::vector<Point>& at, int y) {
            for (int i = 0; i < columns; ++i) at[static_cast<std::size_t>(i)] = where(i * cell + 0.5, y + 0.5);
        };
        for (int y0 = first; y0 < last; y0 += cell) {
            line(upper, y0);
            line(lower, y0 + cell);
            for (int y = y0; y < std::min(y0 + cell, last); ++y) {
                const double v = static_cast<double>(y - y0) / cell;
                std::uint32_t* out = to + static_cast<std::size_t>(y) * static_cast<std::size_t>(width);
                for (int x = 0; x < width; ++x) {
                    const auto i = static_cast<std::size_t>(x / cell);
                    const double u = static_cast<double>(x % cell) / cell;
                    const Point a = upper[i] + (upper[i + 1] - upper[i]) * u, b = lower[i] + (lower[i + 1] - lower[i]) * u;
                    const Point at = a + (b - a) * v;
                    *out++ = at.x < -1 || at.y < -1 || at.x > from.width + 1 || at.y > from.height + 1 ? 0u : sampled(from, at.x, at.y);
                }
            }
        }
    };
    const int threads = std::clamp(static_cast<int>(std::thread::hardware_concurrency()), 1, std::max(1, height / 64));
    const int each = (height / threads / cell + 1) * cell;
    std::vector<std::thread> others;
    for (int first = each; first < height; first += each) others.emplace_back(band, first, std::min(first + each, height));
    band(0, std::min(each, height));
    for (std::thread& t : others) t.join();
}

}  // namespace orthema
