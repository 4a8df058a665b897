#include "core/transfers/separation.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <deque>

namespace orthema {

namespace {

Colour colour_at(const std::uint8_t* p) { return {p[0] / 255.0, p[1] / 255.0, p[2] / 255.0, 1}; }

struct Bin {
    double r = 0, g = 0, b = 0;
    long count = 0;
    [[nodiscard]] Colour mean() const {
        const double n = 255.0 * static_cast<double>(std::max(1L, count));
        return {r / n, g / n, b / n, 1};
    }
};

}  // namespace

Separation separate(const PixelView& px, int colours, double tolerance) {
    Separation s;
    s.width = px.width;
    s.height = px.height;
    const auto count = static_cast<std::size_t>(px.width) * static_cast<std::size_t>(px.height);
    s.label.assign(count, Separation::none);
    std::vector<Bin> bins(32 * 32 * 32);
    long ink = 0;
    const auto solid = [&](std::size_t i) { return px.rgba[i * 4 + 3] >= 128; };
    const auto bin_of = [&](std::size_t i) -> std::size_t {
        const std::uint8_t* p = px.rgba + i * 4;
        return static_cast<std::size_t>(p[0] >> 3) << 10 | static_cast<std::size_t>(p[1] >> 3) << 5 | static_cast<std::size_t>(p[2] >> 3);
    };
    const auto w = static_cast<std::size_t>(px.width);
    // A colour is one where it lies still: the steps of a soft edge are not.
    const auto still = [&](std::size_t i) {
        const auto like = [&](std::size_t n) {
            for (std::size_t c = 0; c < 3; ++c)
                if (std::abs(px.rgba[i * 4 + c] - px.rgba[n * 4 + c]) > 10) return false;
            return solid(n);
        };
        const std::size_t x = i % w;
        return (x == 0 || like(i - 1)) && (x + 1 == w || like(i + 1)) && (i < w || like(i - w)) && (i + w >= count || like(i + w));
    };
    for (std::size_t i = 0; i < count; ++i) {
        if (!solid(i)) continue;
        ++ink;
        if (!still(i)) continue;
        const std::uint8_t* p = px.rgba + i * 4;
        Bin& b = bins[bin_of(i)];
        b.r += p[0];
        b.g += p[1];
        b.b += p[2];
        ++b.count;
    }
    std::erase_if(bins, [](const Bin& b) { return b.count == 0; });
    std::sort(bins.begin(), bins.end(), [](const Bin& a, const Bin& b) { return a.count > b.count; });
    for (const Bin& b : bins) {
        if (static_cast<int>(s.colours.size()) >= std::clamp(colours, 1, 200)) break;
        const Colour c = b.mean();
        if (std::all_of(s.colours.begin(), s.colours.end(), [&](Colour o) { return colour_difference(o, c) > std::max(2.0, tolerance); }))
            s.colours.push_back(c);
    }
    if (s.colours.empty()) return s;

    // Sure pixels first, by a table over the bins; then outwards from them over the ink.
    std::array<std::uint8_t, 32 * 32 * 32> table{};
    std::array<bool, 32 * 32 * 32> known{};
    std::deque<std::size_t> edge;
    long sure = 0;
    for (std::size_t i = 0; i < count; ++i) {
        if (!solid(i)) continue;
        const std::size_t b = bin_of(i);
        if (!known[b]) {
            known[b] = true;
            table[b] = Separation::none;
            double best = tolerance;
            for (std::size_t k = 0; k < s.colours.size(); ++k)
                if (const double d = colour_difference(s.colours[k], colour_at(px.rgba + i * 4)); d <= best) {
                    best = d;
                    table[b] = static_cast<std::uint8_t>(k);
                }
        }
        s.label[i] = table[b];
        if (table[b] == Separation::none) continue;
        ++sure;
        edge.push_back(i);
    }
    s.unsure = ink > 0 ? 1 - static_cast<double>(sure) / static_cast<double>(ink) : 0;
    while (!edge.empty()) {
        const std::size_t i = edge.front();
        edge.pop_front();
        const std::size_t x = i % w;
        const auto reach = [&](std::size_t n) {
            if (!solid(n) || s.label[n] != Separation::none) return;
            s.label[n] = s.label[i];
            edge.push_back(n);
        };
        if (x > 0) reach(i - 1);
        if (x + 1 < w) reach(i + 1);
        if (i >= w) reach(i - w);
        if (i + w < count) reach(i + w);
    }
    return s;
}

Region colour_shape(const Separation& s, std::size_t colour) {
    std::vector<std::uint8_t> mask(s.label.size() * 4, 0);
    for (std::size_t i = 0; i < s.label.size(); ++i)
        if (s.label[i] == colour) mask[i * 4 + 3] = 255;
    Region out = pixel_outline({mask.data(), s.width, s.height}, 128);
    const double unit = 1.0 / s.width;
    for (Polygon& p : out) {
        p.outer = simplified(p.outer, 1.0);
        for (Ring& h : p.holes) h = simplified(h, 1.0);
        p = mapped(p, Affine::scale(unit, unit));
    }
    // a speck of a few pixels is dust, not a shape
    std::erase_if(out, [&](const Polygon& p) { return area(p) < 6 * unit * unit; });
    return out;
}

}  // namespace orthema
