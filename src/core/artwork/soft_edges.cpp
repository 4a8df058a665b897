#include "core/artwork/soft_edges.h"

#include <algorithm>
#include <cmath>

namespace orthema {

namespace {

constexpr int least_contrast = 64;  ///< of 255
constexpr std::size_t least_edges = 40;
constexpr int lines_looked_at = 400;  ///< of each direction

int light(const std::uint8_t* p) { return (p[0] * 2 + p[1] * 5 + p[2]) / 8; }

/// Edges along one line of pixels: runs over which it only gets lighter, or only darker.
void edges_along(const PixelView& px, bool row, int at, std::vector<double>& widths) {
    const int n = row ? px.width : px.height;
    const auto pixel = [&](int i) { return row ? px.at(i, at) : px.at(at, i); };
    int from = 0, steepest = 0;
    const auto close = [&](int to) {
        const int contrast = std::abs(light(pixel(to)) - light(pixel(from)));
        if (contrast >= least_contrast && steepest > 0) widths.push_back(static_cast<double>(contrast) / steepest);
    };
    int way = 0;
    for (int i = 1; i < n; ++i) {
        const std::uint8_t *a = pixel(i - 1), *b = pixel(i);
        if (a[3] < 250 || b[3] < 250) {  // the outline, or nothing
            if (way != 0) close(i - 1);
            from = i;
            way = steepest = 0;
            continue;
        }
        const int step = light(b) - light(a), to = step > 0 ? 1 : step < 0 ? -1 : 0;
        if (to != way) {
            if (way != 0) close(i - 1);
            from = i - 1;
            way = to;
            steepest = 0;
        }
        steepest = std::max(steepest, std::abs(step));
    }
    if (way != 0) close(n - 1);
}

}  // namespace

double sharpest_edges(const PixelView& px) {
    std::vector<double> widths;
    for (const bool row : {true, false}) {
        const int n = row ? px.height : px.width, by = std::max(1, n / lines_looked_at);
        for (int at = by / 2; at < n; at += by) edges_along(px, row, at, widths);
    }
    if (widths.size() < least_edges) return 0;
    const auto tenth = widths.begin() + static_cast<std::ptrdiff_t>(widths.size() / 10);
    std::nth_element(widths.begin(), tenth, widths.end());
    return *tenth;
}

}  // namespace orthema
