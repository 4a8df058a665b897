#include "core/artwork/edges.h"

#include "core/artwork/joined.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <tuple>

namespace orthema {

namespace {

constexpr int solid_alpha = 240;

/// Half-transparent, and not the edge between solid and clear: as art_facts counts it.
bool is_soft(const std::vector<std::uint8_t>& alpha, int width, int height, int x, int y) {
    const auto at = [&](int u, int v) {
        return alpha[static_cast<std::size_t>(v) * static_cast<std::size_t>(width) + static_cast<std::size_t>(u)];
    };
    const int a = at(x, y);
    if (a < ink_alpha || a >= solid_alpha) return false;
    bool solid = false, clear = x == 0 || y == 0 || x + 1 == width || y + 1 == height;
    for (int v = std::max(0, y - 1); v <= std::min(height - 1, y + 1); ++v)
        for (int u = std::max(0, x - 1); u <= std::min(width - 1, x + 1); ++u) {
            solid = solid || at(u, v) >= solid_alpha;
            clear = clear || at(u, v) < ink_alpha;
        }
    return !(solid && clear);
}

std::vector<std::uint8_t> alphas(const PixelImage& p) {
    std::vector<std::uint8_t> out(p.count());
    for (std::size_t i = 0; i < out.size(); ++i) out[i] = p.rgba[4 * i + 3];
    return out;
}

Joined joined(const PixelView& p) {
    return joined_pixels(p.width, p.height, [&](int x, int y) { return p.at(x, y)[3] >= ink_alpha; });
}

bool is_speck(const Rect& box, double least_px) { return box.x1 > box.x0 && std::max(box.width(), box.height()) < least_px; }

}  // namespace

Rect ink_box(const PixelView& px) {
    Rect box{double(px.width), double(px.height), 0, 0};
    for (int y = 0; y < px.height; ++y)
        for (int x = 0; x < px.width; ++x)
            if (px.at(x, y)[3] >= ink_alpha)
                box = {std::min(box.x0, double(x)), std::min(box.y0, double(y)), std::max(box.x1, x + 1.0), std::max(box.y1, y + 1.0)};
    return box.x1 > box.x0 ? box : Rect{};
}

void harden(PixelImage& p, double threshold) {
    const std::vector<std::uint8_t> was = alphas(p);
    std::vector<std::uint8_t> now(was.size());
    const double level = threshold * 255;
    const auto at = [&](int x, int y) { return double(was[p.index(std::clamp(x, 0, p.width - 1), std::clamp(y, 0, p.height - 1))]); };
    for (int y = 0; y < p.height; ++y)
        for (int x = 0; x < p.width; ++x) {
            const double slope = std::hypot(at(x + 1, y) - at(x - 1, y), at(x, y + 1) - at(x, y - 1)) / 2;
            const double cover = slope < 1 ? (at(x, y) >= level ? 1 : 0) : std::clamp((at(x, y) - level) / slope + 0.5, 0.0, 1.0);
            now[p.index(x, y)] = static_cast<std::uint8_t>(std::lround(255 * cover));
        }
    for (int y = 0; y < p.height; ++y)
        for (int x = 0; x < p.width; ++x) {
            const std::size_t i = p.index(x, y);
            std::uint8_t a = now[i];
            if (is_soft(now, p.width, p.height, x, y)) a = a >= 128 ? 255 : 0;
            p.rgba[4 * i + 3] = a;
        }
}

std::vector<Rect> specks(const PixelView& p, double least_px) {
    std::vector<Rect> out;
    for (const Rect& box : joined(p).boxes)
        if (is_speck(box, least_px)) out.push_back(box);
    return out;
}

std::size_t clean_specks(PixelImage& p, double least_px) {
    const Joined all = joined(p.view());
    std::size_t count = 0;
    for (const Rect& box : all.boxes) count += is_speck(box, least_px) ? 1 : 0;
    for (const Joined::Run& r : all.runs)
        if (is_speck(all.boxes[r.piece], least_px)) std::fill_n(p.at(r.from, r.y), 4 * (r.to - r.from), std::uint8_t{0});
    return count;
}

void break_into_dots(PixelImage& p, double apart_px, double least_px) {
    const std::vector<std::uint8_t> was = alphas(p);
    // a turn by an eighth: the grid's steps are (n, n) and (n, −n) pixels
    const int n = std::max(2, static_cast<int>(std::lround(apart_px / std::numbers::sqrt2)));
    // By a cell's own ranking of its pixels from the middle outwards, the cover is met to one pixel of the cell.
    const int side = 2 * n;
    struct Spot {
        double away;
        std::size_t at;
    };
    std::array<std::vector<Spot>, 2> dots;  // that lie in the square that repeats, and the pixels nearest to each
    const auto round_trip = [&](double d) { return std::min(std::abs(d), side - std::abs(d)); };
    for (int y = 0; y < side; ++y)
        for (int x = 0; x < side; ++x) {
            const double one = std::hypot(round_trip(x + 0.5), round_trip(y + 0.5)), other = std::hypot(x + 0.5 - n, y + 0.5 - n);
            const bool first = one < other || (one == other && (x < n) == (y < n) && x + y < side);
            dots[first ? 0 : 1].push_back({std::min(one, other), static_cast<std::size_t>(y * side + x)});
        }
    std::vector<double> from(static_cast<std::size_t>(side * side), 1);
    for (auto& dot : dots) {
        std::stable_sort(dot.begin(), dot.end(), [](const Spot& a, const Spot& b) { return a.away < b.away; });
        for (std::size_t k = 0; k < dot.size(); ++k) from[dot[k].at] = (static_cast<double>(k) + 0.5) / static_cast<double>(dot.size());
    }
    const double all = 2.0 * n * n, least = std::min(0.5, std::numbers::pi * least_px * least_px / 4 / all);
    for (int y = 0; y < p.height; ++y)
        for (int x = 0; x < p.width; ++x) {
            const std::size_t i = p.index(x, y);
            const bool edge = was[i] >= ink_alpha && !is_soft(was, p.width, p.height, x, y);
            if (edge) continue;
            double cover = was[i] / 255.0;
            if (was[i] < ink_alpha || cover < least / 2)
                cover = 0;
            else if (cover < least)
                cover = least;
            else if (cover > 1 - least / 2)
                cover = 1;
            else if (cover > 1 - least)
                cover = 1 - least;
            p.rgba[4 * i + 3] = cover > from[static_cast<std::size_t>(y % side * side + x % side)] ? 255 : 0;
        }
}

PixelImage scaled(const PixelImage& p, int width, int height) {
    PixelImage out{width, height, {}};
    out.rgba.resize(4 * out.count());
    const double kx = double(p.width) / width, ky = double(p.height) / height;
    for (int y = 0; y < height; ++y) {
        const double y0 = y * ky, y1 = (y + 1) * ky;
        for (int x = 0; x < width; ++x) {
            const double x0 = x * kx, x1 = (x + 1) * kx;
            std::array<double, 4> sum{};
            if (kx >= 1 && ky >= 1) {
                for (int v = int(y0); v < std::min(p.height, int(std::ceil(y1))); ++v)
                    for (int u = int(x0); u < std::min(p.width, int(std::ceil(x1))); ++u) {
                        const double part =
                            (std::min(x1, u + 1.0) - std::max(x0, double(u))) * (std::min(y1, v + 1.0) - std::max(y0, double(v)));
                        const std::uint8_t* c = p.at(u, v);
                        for (std::size_t k = 0; k < 3; ++k) sum[k] += part * c[k] * c[3];
                        sum[3] += part * c[3];
                    }
                for (std::size_t k = 0; k < 3; ++k) sum[k] = sum[3] > 0 ? sum[k] / sum[3] : 0;
                sum[3] /= (x1 - x0) * (y1 - y0);
            } else {  // larger: straight between the four about it
                const double cx = std::clamp((x + 0.5) * kx - 0.5, 0.0, p.width - 1.0),
                             cy = std::clamp((y + 0.5) * ky - 0.5, 0.0, p.height - 1.0);
                const int u = std::min(int(cx), std::max(0, p.width - 2)), v = std::min(int(cy), std::max(0, p.height - 2));
                const double fx = cx - u, fy = cy - v;
                for (const auto& [dx, dy, part] :
                     {std::tuple{0, 0, (1 - fx) * (1 - fy)}, {1, 0, fx * (1 - fy)}, {0, 1, (1 - fx) * fy}, {1, 1, fx * fy}}) {
                    const std::uint8_t* c = p.at(std::min(u + dx, p.width - 1), std::min(v + dy, p.height - 1));
                    for (std::size_t k = 0; k < 3; ++k) sum[k] += part * c[k] * c[3];
                    sum[3] += part * c[3];
                }
                for (std::size_t k = 0; k < 3; ++k) sum[k] = sum[3] > 0 ? sum[k] / sum[3] : 0;
            }
            std::uint8_t* to = out.at(x, y);
            for (std::size_t k = 0; k < 4; ++k) to[k] = static_cast<std::uint8_t>(std::lround(std::clamp(sum[k], 0.0, 255.0)));
        }
    }
    return out;
}

}  // namespace orthema
