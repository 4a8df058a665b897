#include "core/artwork/background.h"

#include "core/artwork/joined.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <thread>

namespace orthema {

namespace {

using Rgb = std::array<double, 3>;

/// Each channel as a surface of second degree over the picture, x and y from −1 to 1.
struct Ground {
    int width = 1, height = 1;
    std::array<std::array<double, 6>, 3> of{};

    [[nodiscard]] static std::array<double, 6> terms(double u, double v) { return {1, u, v, u * u, u * v, v * v}; }
    [[nodiscard]] double u(int x) const { return 2.0 * x / std::max(1, width - 1) - 1; }
    [[nodiscard]] double v(int y) const { return 2.0 * y / std::max(1, height - 1) - 1; }
    [[nodiscard]] Rgb at(int x, int y) const {
        const auto t = terms(u(x), v(y));
        Rgb out{};
        for (std::size_t c = 0; c < 3; ++c)
            for (std::size_t k = 0; k < 6; ++k) out[c] += of[c][k] * t[k];
        return out;
    }
};

double length(const Rgb& a) { return std::sqrt(a[0] * a[0] + a[1] * a[1] + a[2] * a[2]); }
Rgb minus(const Rgb& a, const Rgb& b) { return {a[0] - b[0], a[1] - b[1], a[2] - b[2]}; }
double dot(const Rgb& a, const Rgb& b) { return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]; }
Rgb colour(const PixelImage& p, int x, int y) {
    const std::uint8_t* c = p.at(x, y);
    return {double(c[0]), double(c[1]), double(c[2])};
}

/// Least squares by the normal equations, a little held to nought so that a flat row of samples has an answer.
class Fit {
public:
    void add(const std::array<double, 6>& t, const Rgb& c) {
        for (std::size_t i = 0; i < 6; ++i) {
            for (std::size_t k = 0; k < 6; ++k) left_[i][k] += t[i] * t[k];
            for (std::size_t ch = 0; ch < 3; ++ch) right_[ch][i] += t[i] * c[ch];
        }
        ++count_;
    }
    [[nodiscard]] long count() const { return count_; }
    void solve(Ground& g) const {
        for (std::size_t ch = 0; ch < 3; ++ch) {
            auto a = left_;
            auto b = right_[ch];
            for (std::size_t i = 1; i < 6; ++i) a[i][i] += 1e-6 * double(count_) + 1e-9;
            for (std::size_t i = 0; i < 6; ++i) {
                std::size_t best = i;
                for (std::size_t r = i + 1; r < 6; ++r)
                    if (std::abs(a[r][i]) > std::abs(a[best][i])) best = r;
                std::swap(a[i], a[best]);
                std::swap(b[i], b[best]);
                if (std::abs(a[i][i]) < 1e-12) continue;
                for (std::size_t r = 0; r < 6; ++r) {
                    if (r == i) continue;
                    const double f = a[r][i] / a[i][i];
                    for (std::size_t k = i; k < 6; ++k) a[r][k] -= f * a[i][k];
                    b[r] -= f * b[i];
                }
            }
            for (std::size_t i = 0; i < 6; ++i) g.of[ch][i] = std::abs(a[i][i]) < 1e-12 ? 0 : b[i] / a[i][i];
        }
    }

private:
    std::array<std::array<double, 6>, 6> left_{};
    std::array<std::array<double, 6>, 3> right_{};
    long count_ = 0;
};

std::vector<std::pair<int, int>> edge_of(const PixelImage& p) {
    std::vector<std::pair<int, int>> out;
    for (int x = 0; x < p.width; ++x) {
        out.emplace_back(x, 0);
        out.emplace_back(x, p.height - 1);
    }
    for (int y = 1; y + 1 < p.height; ++y) {
        out.emplace_back(0, y);
        out.emplace_back(p.width - 1, y);
    }
    return out;
}

/// The colour of the picture's edge as it runs round it; nothing where most of the edge is of other colours, or is clear.
std::optional<Ground> ground_at_edge(const PixelImage& p, double near) {
    std::vector<std::pair<int, int>> edge = edge_of(p);
    std::erase_if(edge, [&](const auto& e) { return p.at(e.first, e.second)[3] < 240; });
    if (edge.size() < 8) return std::nullopt;
    Rgb middle{};
    for (std::size_t c = 0; c < 3; ++c) {
        std::vector<std::uint8_t> all;
        all.reserve(edge.size());
        for (const auto& [x, y] : edge) all.push_back(p.at(x, y)[c]);
        std::nth_element(all.begin(), all.begin() + static_cast<std::ptrdiff_t>(all.size() / 2), all.end());
        middle[c] = all[all.size() / 2];
    }
    Ground g;
    g.width = p.width;
    g.height = p.height;
    for (std::size_t c = 0; c < 3; ++c) g.of[c][0] = middle[c];
    double within = 60;  // of the first guess; then of the surface
    std::size_t held = 0;
    for (int round = 0; round < 4; ++round) {
        Fit fit;
        for (const auto& [x, y] : edge)
            if (length(minus(colour(p, x, y), g.at(x, y))) <= within) fit.add(Ground::terms(g.u(x), g.v(y)), colour(p, x, y));
        if (fit.count() < 8) return std::nullopt;
        held = static_cast<std::size_t>(fit.count());
        fit.solve(g);
        within = std::max(1.5 * near, within / 2);
    }
    return held * 2 < edge.size() ? std::nullopt : std::optional(g);
}

constexpr std::size_t glint = 12;  ///< pixels: a closed place with fewer is none

constexpr long grain = 24;  ///< … and what stands alone with no more is grain, where it differs little

enum Belongs : std::uint8_t { subject = 0, ground = 1, tried = 2 };

/// The pixels that may be of the ground by their colour: 1, the others 0.
std::vector<std::uint8_t> alike(const PixelImage& p, const Ground& g, double near) {
    std::vector<std::uint8_t> out(p.count());
    const auto band = [&](int from, int to) {
        for (int y = from; y < to; ++y) {
            const double v = g.v(y);
            std::array<std::array<double, 3>, 3> row{};  // of each channel, by powers of u
            for (std::size_t c = 0; c < 3; ++c)
                row[c] = {g.of[c][0] + g.of[c][2] * v + g.of[c][5] * v * v, g.of[c][1] + g.of[c][4] * v, g.of[c][3]};
            for (int x = 0; x < p.width; ++x) {
                const std::uint8_t* at = p.at(x, y);
                const double u = g.u(x);
                double off = 0;
                for (std::size_t c = 0; c < 3; ++c) {
                    const double d = at[c] - (row[c][0] + u * (row[c][1] + u * row[c][2]));
                    off += d * d;
                }
                out[p.index(x, y)] = at[3] < ink_alpha || off <= near * near ? 1 : 0;
            }
        }
    };
    const int threads = std::clamp(static_cast<int>(std::thread::hardware_concurrency()), 1, std::max(1, p.height / 64));
    const int each = p.height / threads + 1;
    std::vector<std::jthread> others;
    for (int from = each; from < p.height; from += each) others.emplace_back(band, from, std::min(from + each, p.height));
    band(0, std::min(each, p.height));
    return out;
}

/// From the given pixels on, all that is alike the ground and joined to it. Returns how many; the first of them go into `few`.
std::size_t flood(const PixelImage& p, const std::vector<std::uint8_t>& like, std::vector<std::pair<int, int>> todo,
                  std::vector<std::uint8_t>& marks, std::vector<std::size_t>* few = nullptr) {
    std::size_t count = 0;
    const auto open = [&](int x, int y) { return marks[p.index(x, y)] == subject && like[p.index(x, y)] != 0; };
    while (!todo.empty()) {
        const auto [sx, y] = todo.back();
        todo.pop_back();
        if (!open(sx, y)) continue;
        int from = sx, to = sx;
        while (from > 0 && open(from - 1, y)) --from;
        while (to + 1 < p.width && open(to + 1, y)) ++to;
        for (int x = from; x <= to; ++x) {
            marks[p.index(x, y)] = ground;
            if (few != nullptr && few->size() < glint) few->push_back(p.index(x, y));
        }
        count += static_cast<std::size_t>(to - from + 1);
        for (const int v : {y - 1, y + 1}) {
            if (v < 0 || v >= p.height) continue;
            bool before = false;
            for (int x = from; x <= to; ++x) {
                const bool now = open(x, v);
                if (now && !before) todo.emplace_back(x, v);
                before = now;
            }
        }
    }
    return count;
}

/// What stands alone where `ink` is, is small, and differs from the ground by little is its grain; or by little against what stands beside
/// it: then it is what a lossy file leaves about an edge, within its blocks of eight pixels. The runs of pixels that are.
template <class Ink>
std::vector<Joined::Run> grains(const PixelImage& p, const Ground& g, double near, Ink ink) {
    constexpr int block = 8;
    constexpr long crumb = 4;                                            // pixels
    const auto beside = [](long n) { return n <= crumb ? 0.6 : 0.35; };  // the smaller, the less it is to be trusted
    const auto stands_out = [&](int x, int y) { return length(minus(colour(p, x, y), g.at(x, y))) * p.at(x, y)[3] / 255; };
    const Joined all = joined_pixels(p.width, p.height, ink);
    std::vector<long> size(all.boxes.size(), 0);
    for (const Joined::Run& r : all.runs) size[r.piece] += r.to - r.from;
    std::vector<double> most(size.size(), 0);
    for (const Joined::Run& r : all.runs)
        for (int x = r.from; x < r.to && size[r.piece] <= grain; ++x) most[r.piece] = std::max(most[r.piece], stands_out(x, r.y));
    for (std::size_t k = 0; k < size.size(); ++k) {
        if (size[k] == 0 || size[k] > grain || most[k] <= 3 * near) continue;
        const Rect& box = all.boxes[k];
        double strongest = 0;
        for (int y = std::max(0, int(box.y0) - block); y < std::min(p.height, int(box.y1) + block); ++y)
            for (int x = std::max(0, int(box.x0) - block); x < std::min(p.width, int(box.x1) + block); ++x)
                if (ink(x, y)) strongest = std::max(strongest, stands_out(x, y));
        if (most[k] > beside(size[k]) * strongest) size[k] = grain + 1;
    }
    std::vector<Joined::Run> out;
    for (const Joined::Run& r : all.runs)
        if (size[r.piece] <= grain) out.push_back(r);
    return out;
}

/// How many pixels inwards colours go on changing at the rim, in the middle of many places.
int rim_width(const PixelImage& p, const Ground& g, const std::vector<std::uint8_t>& marks) {
    constexpr int widest = 12;
    static constexpr int ways[8][2] = {{1, 0}, {-1, 0}, {0, 1}, {0, -1}, {1, 1}, {1, -1}, {-1, 1}, {-1, -1}};
    std::array<long, widest + 2> ends{};
    long all = 0;
    const int by = std::max(1, static_cast<int>(p.count() / 4'000'000));
    for (int y = 1; y + 1 < p.height; y += by)
        for (int x = 1; x + 1 < p.width; ++x) {
            if (marks[p.index(x, y)] != ground) continue;
            for (const auto& w : ways) {
                if (marks[p.index(x + w[0], y + w[1])] == ground) continue;
                double last = 0;
                int k = 1;
                for (; k <= widest; ++k) {
                    const int u = x + w[0] * k, v = y + w[1] * k;
                    if (u < 0 || v < 0 || u >= p.width || v >= p.height || marks[p.index(u, v)] == ground) break;
                    const double now = length(minus(colour(p, u, v), g.at(u, v)));
                    if (k > 1 && now - last < std::max(4.0, 0.06 * last)) break;
                    last = now;
                }
                ++ends[static_cast<std::size_t>(std::min(k, widest + 1))];
                ++all;
            }
        }
    long sum = 0;
    for (int k = 1; k <= widest; ++k)
        if (2 * (sum += ends[static_cast<std::size_t>(k)]) >= all) return std::clamp(k, 2, widest);
    return widest;
}

}  // namespace

Result<Done> take_background_out(PixelImage& p, double tolerance, bool counters) {
    if (p.width < 3 || p.height < 3) return Error{"it is too small to have a background"};
    double near = std::max(6.0, tolerance * 255);
    auto surface = ground_at_edge(p, near);
    if (!surface) return Error{"its edge is of no one colour, so there is no background to take out: crop it to where there is one"};
    Ground& g = *surface;
    std::vector<std::uint8_t> marks(p.count(), subject);
    flood(p, alike(p, g, near), edge_of(p), marks);
    {  // the surface from all of the ground that is joined to the edge
        Fit fit;
        const int by = std::max(1, static_cast<int>(std::sqrt(static_cast<double>(p.count()) / 200'000)));
        for (int y = 0; y < p.height; y += by)
            for (int x = 0; x < p.width; x += by)
                if (marks[p.index(x, y)] == ground && p.at(x, y)[3] >= 240) fit.add(Ground::terms(g.u(x), g.v(y)), colour(p, x, y));
        if (fit.count() >= 60) fit.solve(g);
        // a grainy background is as wide as its grain: so that hardly one of its pixels is left standing
        double off = 0;
        long count = 0;
        for (int y = 0; y < p.height; y += by)
            for (int x = 0; x < p.width; x += by)
                if (marks[p.index(x, y)] == ground && p.at(x, y)[3] >= 240) {
                    const double d = length(minus(colour(p, x, y), g.at(x, y)));
                    off += d * d;
                    ++count;
                }
        if (count > 0) near = std::max(near, 3 * std::sqrt(off / static_cast<double>(count)));
    }
    std::fill(marks.begin(), marks.end(), subject);
    const std::vector<std::uint8_t> like = alike(p, g, near);
    flood(p, like, edge_of(p), marks);
    if (counters) {
        std::vector<std::size_t> few;
        for (int y = 0; y < p.height; ++y)
            for (int x = 0; x < p.width; ++x) {
                if (marks[p.index(x, y)] != subject || like[p.index(x, y)] == 0) continue;
                few.clear();
                if (flood(p, like, {{x, y}}, marks, &few) < glint)
                    for (const std::size_t i : few) marks[i] = tried;
            }
    }
    for (const Joined::Run& r : grains(p, g, near, [&](int x, int y) { return marks[p.index(x, y)] != ground; }))
        std::fill_n(marks.begin() + static_cast<std::ptrdiff_t>(p.index(r.from, r.y)), r.to - r.from, std::uint8_t{ground});
    const int rim = rim_width(p, g, marks);
    // what the rim's pixels become, beside them, since each looks at its neighbours as they were
    struct Rim {
        std::size_t at;
        std::array<std::uint8_t, 4> rgba;
    };
    std::vector<Rim> rims;
    std::vector<std::uint8_t> close(static_cast<std::size_t>(p.width));
    for (int y = 0; y < p.height; ++y) {
        // of this row, which pixels have ground within the rim
        std::fill(close.begin(), close.end(), 0);
        for (int v = std::max(0, y - rim); v <= std::min(p.height - 1, y + rim); ++v) {
            const int reach = static_cast<int>(std::sqrt(double(rim * rim - (v - y) * (v - y))));
            int until = -1;
            for (int x = 0; x < p.width; ++x)
                if (marks[p.index(x, v)] == ground)
                    for (int u = std::max(until + 1, x - reach); u <= std::min(p.width - 1, x + reach); ++u) {
                        close[static_cast<std::size_t>(u)] = 1;
                        until = u;
                    }
        }
        for (int x = 0; x < p.width; ++x) {
            if (close[static_cast<std::size_t>(x)] == 0 || marks[p.index(x, y)] == ground) continue;
            const Rgb b = g.at(x, y), c = minus(colour(p, x, y), b);
            const double own = length(c);
            Rgb best = c;
            double most = own;
            for (int v = std::max(0, y - rim); v <= std::min(p.height - 1, y + rim); ++v)
                for (int u = std::max(0, x - rim); u <= std::min(p.width - 1, x + rim); ++u) {
                    if (marks[p.index(u, v)] == ground || (u - x) * (u - x) + (v - y) * (v - y) > rim * rim) continue;
                    const Rgb f = minus(colour(p, u, v), b);
                    const double far = length(f);
                    if (far <= most) continue;
                    const double along = dot(c, f) / far;
                    if (std::sqrt(std::max(0.0, own * own - along * along)) > 6 + 0.08 * own + 0.12 * far) continue;
                    best = f;
                    most = far;
                }
            const double cover = most <= 0 ? 1 : std::clamp(dot(c, best) / (most * most), 0.0, 1.0);
            if (cover > 0.985) continue;
            // its own colour: what is left when the ground is taken off, as far as that can be known
            Rim r{p.index(x, y), {}};
            const double sure = std::clamp((cover - 0.2) / 0.4, 0.0, 1.0);
            for (std::size_t k = 0; k < 3; ++k) {
                const double own_colour = b[k] + c[k] / std::max(cover, 0.05), neighbour = b[k] + best[k];
                r.rgba[k] = static_cast<std::uint8_t>(std::lround(std::clamp(sure * own_colour + (1 - sure) * neighbour, 0.0, 255.0)));
            }
            r.rgba[3] = static_cast<std::uint8_t>(std::lround(cover * p.at(x, y)[3]));
            rims.push_back(r);
        }
    }
    for (const Rim& r : rims) std::copy(r.rgba.begin(), r.rgba.end(), p.rgba.begin() + static_cast<std::ptrdiff_t>(4 * r.at));
    for (std::size_t i = 0; i < marks.size(); ++i)
        if (marks[i] == ground) std::fill_n(p.rgba.begin() + static_cast<std::ptrdiff_t>(4 * i), 4, std::uint8_t{0});
    // crumbs that the rim left beside itself
    for (const Joined::Run& r : grains(p, g, near, [&](int x, int y) { return p.at(x, y)[3] >= ink_alpha; }))
        std::fill_n(p.at(r.from, r.y), 4 * (r.to - r.from), std::uint8_t{0});
    return Done{};
}

}  // namespace orthema
