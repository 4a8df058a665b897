#include "core/artwork/resample.h"

#include <array>

namespace orthema {

namespace {

constexpr int phases = 256;
constexpr int one = 128;  ///< a weight of 1; a colour times it, and the sum of all positive ones, fits 16 bits

struct Weights {
    std::array<std::array<int, 4>, phases> of{};
    Weights() {
        for (int i = 0; i < phases; ++i) {
            const double f = static_cast<double>(i) / phases;
            auto& w = of[static_cast<std::size_t>(i)];
            w[0] = static_cast<int>(std::lround(one * ((-0.5 * f + 1.0) * f - 0.5) * f));
            w[2] = static_cast<int>(std::lround(one * ((-1.5 * f + 2.0) * f + 0.5) * f));
            w[3] = static_cast<int>(std::lround(one * (0.5 * f - 0.5) * f * f));
            w[1] = one - w[0] - w[2] - w[3];
        }
    }
};
const Weights weights;

/// Four bytes to four lanes of 16 bits: blue and red, then green and alpha.
std::uint64_t lanes(std::uint32_t p) {
    const std::uint64_t even = p & 0x00ff00ffu, odd = (p >> 8) & 0x00ff00ffu;
    return even | odd << 32;
}

}  // namespace

std::uint32_t sampled(const WordView& from, double x, double y) {
    const double fx = std::floor(x - 0.5), fy = std::floor(y - 0.5);
    const int x0 = static_cast<int>(fx) - 1, y0 = static_cast<int>(fy) - 1;
    const auto& wx = weights.of[static_cast<std::size_t>((x - 0.5 - fx) * phases)];
    const auto& wy = weights.of[static_cast<std::size_t>((y - 0.5 - fy) * phases)];
    const bool whole = x0 >= 0 && y0 >= 0 && x0 + 3 < from.width && y0 + 3 < from.height;
    int sum[4] = {0, 0, 0, 0};
    for (int j = 0; j < 4; ++j) {
        const int sy = y0 + j;
        if (sy < 0 || sy >= from.height) continue;
        const std::uint32_t* row = from.words + static_cast<std::size_t>(sy) * static_cast<std::size_t>(from.width);
        // the outer two weights are never positive, the inner two never negative
        std::uint64_t inner = 0, outer = 0;
        if (whole) {
            row += x0;
            inner = lanes(row[1]) * static_cast<std::uint64_t>(wx[1]) + lanes(row[2]) * static_cast<std::uint64_t>(wx[2]);
            outer = lanes(row[0]) * static_cast<std::uint64_t>(-wx[0]) + lanes(row[3]) * static_cast<std::uint64_t>(-wx[3]);
        } else {
            for (int i = 0; i < 4; ++i) {
                const int sx = x0 + i;
                if (sx < 0 || sx >= from.width) continue;
                const auto w = static_cast<std::uint64_t>(std::abs(wx[static_cast<std::size_t>(i)]));
                (i == 1 || i == 2 ? inner : outer) += lanes(row[sx]) * w;
            }
        }
        for (int c = 0; c < 4; ++c)
            sum[c] += wy[static_cast<std::size_t>(j)] *
                      (static_cast<int>((inner >> (16 * c)) & 0xffff) - static_cast<int>((outer >> (16 * c)) & 0xffff));
    }
    constexpr int half = one * one / 2;
    const auto byte = [](int v, int most) { return static_cast<std::uint32_t>(std::clamp((v + half) / (one * one), 0, most)); };
    const std::uint32_t alpha = byte(sum[3], 255);
    const int most = static_cast<int>(alpha);
    // lanes: 0 blue, 1 red, 2 green, 3 alpha
    return alpha << 24 | byte(sum[1], most) << 16 | byte(sum[2], most) << 8 | byte(sum[0], most);
}

}  // namespace orthema
