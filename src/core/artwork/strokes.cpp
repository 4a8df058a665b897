#include "core/artwork/strokes.h"

#include <algorithm>
#include <cmath>

namespace orthema {

namespace {

constexpr int longest = 1400;       // a larger picture is looked at in reduced size
constexpr double widest_half = 12;  // pixels: what is wider than twice this is not thin

struct Grid {
    int w = 0, h = 0;
    std::vector<char> solid;
    [[nodiscard]] std::size_t at(int x, int y) const {
        return static_cast<std::size_t>(y) * static_cast<std::size_t>(w) + static_cast<std::size_t>(x);
    }
};

/// Distance in pixels from each cell that is `of` to the nearest that is not; cells beyond the grid count as clear
/// ground, and as far away when it is the ground that is measured.
std::vector<float> distances(const Grid& g, char of) {
    const float far = 1e12F;
    const bool ring = of == 1;
    std::vector<float> d(g.solid.size());
    // down and up each column
    for (int x = 0; x < g.w; ++x) {
        float run = ring ? 0 : far;
        for (int y = 0; y < g.h; ++y) {
            run = g.solid[g.at(x, y)] == of ? run + 1 : 0;
            d[g.at(x, y)] = run;
        }
        run = ring ? 0 : far;
        for (int y = g.h - 1; y >= 0; --y) {
            run = g.solid[g.at(x, y)] == of ? run + 1 : 0;
            d[g.at(x, y)] = std::min(d[g.at(x, y)], run);
        }
    }
    // along each row: the lower envelope of parabolas
    const int n = g.w + 2;
    std::vector<float> f(static_cast<std::size_t>(n)), z(static_cast<std::size_t>(n + 1));
    std::vector<int> v(static_cast<std::size_t>(n));
    const auto i = [](int k) { return static_cast<std::size_t>(k); };
    for (int y = 0; y < g.h; ++y) {
        f[0] = f[i(n - 1)] = ring ? 0 : far;
        for (int x = 0; x < g.w; ++x) {
            const float c = d[g.at(x, y)];
            f[i(x + 1)] = c > 1e5F ? far : c * c;
        }
        int k = 0;
        v[0] = 0;
        z[0] = -far;
        z[1] = far;
        for (int q = 1; q < n; ++q) {
            const auto meet = [&](int p) {
                return ((f[i(q)] + static_cast<float>(q * q)) - (f[i(p)] + static_cast<float>(p * p))) / static_cast<float>(2 * q - 2 * p);
            };
            float s = meet(v[i(k)]);
            while (k > 0 && s <= z[i(k)]) s = meet(v[i(--k)]);
            v[i(++k)] = q;
            z[i(k)] = s;
            z[i(k + 1)] = far;
        }
        k = 0;
        for (int x = 0; x < g.w; ++x) {
            const int q = x + 1;
            while (z[i(k + 1)] < static_cast<float>(q)) ++k;
            const auto off = static_cast<float>(q - v[i(k)]);
            d[g.at(x, y)] = std::sqrt(off * off + f[i(v[i(k)])]);
        }
    }
    return d;
}

/// A cell on the ridge of the distance, which it is from the nearest edge.
struct Spot {
    float d;
    int x, y;
};

/// Visits the parts that keep their width for a while, the thinnest first: width in cells, the cells of its ridge, and the distance of
/// every cell on any ridge (0 off them). Ends where `visit` says so.
template <class Visit>
void each_thin_part(const Grid& g, char of, Visit visit) {
    const std::vector<float> d = distances(g, of);
    std::vector<Spot> ridge;
    // Beyond the ink box there is only ground, and no end to it.
    const float beyond = of == 1 ? 0.0F : 1e9F;
    const auto value = [&](int x, int y) { return x < 0 || y < 0 || x >= g.w || y >= g.h ? beyond : d[g.at(x, y)]; };
    for (int y = 0; y < g.h; ++y)
        for (int x = 0; x < g.w; ++x) {
            const float here = d[g.at(x, y)];
            if (here <= 0 || here > widest_half) continue;
            static constexpr int axes[4][2] = {{1, 0}, {0, 1}, {1, 1}, {1, -1}};
            for (const auto& a : axes) {
                const float before = value(x - a[0], y - a[1]), next = value(x + a[0], y + a[1]);
                if (here >= before && here >= next && (here > before || here > next)) {
                    ridge.push_back({here, x, y});
                    break;
                }
            }
        }
    std::vector<float> ridges(g.solid.size(), 0);
    for (const Spot& s : ridge) ridges[g.at(s.x, s.y)] = s.d;
    // What has something wider beside it is the rim of that, not a thin part.
    std::vector<Spot> held;
    for (const Spot& s : ridge) {
        const int reach = static_cast<int>(std::ceil(2.5F * s.d)) + 1;
        const float most = 1.15F * s.d + 0.6F;
        bool keeps = true;
        for (int y = std::max(0, s.y - reach); keeps && y <= std::min(g.h - 1, s.y + reach); ++y)
            for (int x = std::max(0, s.x - reach); x <= std::min(g.w - 1, s.x + reach); ++x)
                if (d[g.at(x, y)] > most) {
                    keeps = false;
                    break;
                }
        if (keeps) held.push_back(s);
    }
    // One cell's distance is only good to half a cell; the mean of its neighbours along the ridge is better.
    std::vector<float> fine(g.solid.size(), 0), raw(g.solid.size(), 0);
    for (const Spot& s : held) raw[g.at(s.x, s.y)] = s.d;
    for (Spot& s : held) {
        float sum = 0;
        int count = 0;
        for (int y = std::max(0, s.y - 4); y <= std::min(g.h - 1, s.y + 4); ++y)
            for (int x = std::max(0, s.x - 4); x <= std::min(g.w - 1, s.x + 4); ++x)
                if (raw[g.at(x, y)] > 0) {
                    sum += raw[g.at(x, y)];
                    ++count;
                }
        s.d = sum / static_cast<float>(count);
        fine[g.at(s.x, s.y)] = s.d;
    }
    // Two curves that meet leave a notch that narrows to nothing: only a run that holds one width over several times that
    // width is a stroke or a gap.
    std::vector<int> mark(g.solid.size(), 0);
    int round = 0;
    for (float level = 1; level <= static_cast<float>(widest_half); level += 0.5F) {
        ++round;
        for (const Spot& s : held)
            if (s.d >= level - 0.01F && s.d <= 1.15F * level + 0.5F) mark[g.at(s.x, s.y)] = round;
        for (const Spot& s : held) {
            if (mark[g.at(s.x, s.y)] != round) continue;
            int x0 = s.x, x1 = s.x, y0 = s.y, y1 = s.y;
            double sum = 0;
            int count = 0;
            std::vector<std::pair<int, int>> todo{{s.x, s.y}};
            std::vector<Spot> run;
            mark[g.at(s.x, s.y)] = 0;
            while (!todo.empty()) {
                const auto [cx, cy] = todo.back();
                todo.pop_back();
                run.push_back({fine[g.at(cx, cy)], cx, cy});
                sum += static_cast<double>(fine[g.at(cx, cy)]);
                ++count;
                x0 = std::min(x0, cx), x1 = std::max(x1, cx), y0 = std::min(y0, cy), y1 = std::max(y1, cy);
                for (int y = std::max(0, cy - 2); y <= std::min(g.h - 1, cy + 2); ++y)
                    for (int x = std::max(0, cx - 2); x <= std::min(g.w - 1, cx + 2); ++x)
                        if (mark[g.at(x, y)] == round) {
                            mark[g.at(x, y)] = 0;
                            todo.emplace_back(x, y);
                        }
            }
            if (std::hypot(x1 - x0, y1 - y0) < 8 * static_cast<double>(level) + 12) continue;
            if (!visit(std::max(1.0, 2 * sum / count - 0.5), run, ridges)) return;
        }
    }
}

/// Width of the thinnest part, in cells; 0 where none is thin.
double thinnest(const Grid& g, char of) {
    double width = 0;
    each_thin_part(g, of, [&](double is, const std::vector<Spot>&, const std::vector<float>&) {
        width = is;
        return false;
    });
    return width;
}

/// The solid ink within the box, in a grid of `scale` pixels to a cell; empty where the box is next to nothing.
Grid solid_ink(const PixelView& px, const Rect& box, double& scale) {
    const int w = static_cast<int>(box.width()), h = static_cast<int>(box.height());
    Grid g;
    if (w <= 2 || h <= 2) return g;
    scale = std::max(1.0, std::max(w, h) / static_cast<double>(longest));
    g.w = std::max(1, static_cast<int>(w / scale));
    g.h = std::max(1, static_cast<int>(h / scale));
    g.solid.assign(static_cast<std::size_t>(g.w) * static_cast<std::size_t>(g.h), 0);
    for (int y = 0; y < g.h; ++y)
        for (int x = 0; x < g.w; ++x) {
            const int sx = static_cast<int>(box.x0) + static_cast<int>((x + 0.5) * scale),
                      sy = static_cast<int>(box.y0) + static_cast<int>((y + 0.5) * scale);
            g.solid[g.at(x, y)] = px.at(std::min(sx, px.width - 1), std::min(sy, px.height - 1))[3] >= 128 ? 1 : 0;
        }
    return g;
}

}  // namespace

StrokeWidths stroke_widths(const PixelView& px, const Rect& box) {
    StrokeWidths out;
    double scale = 1;
    const Grid g = solid_ink(px, box, scale);
    if (g.solid.empty()) return out;
    out.stroke_px = thinnest(g, 1) * scale;
    out.gap_px = thinnest(g, 0) * scale;
    return out;
}

std::vector<ThinPart> thin_parts(const PixelView& px, const Rect& box, ThinOf of, double least_px) {
    std::vector<ThinPart> out;
    double scale = 1;
    const Grid g = solid_ink(px, box, scale);
    if (g.solid.empty()) return out;
    const double least = least_px / scale;
    std::vector<char> taken(g.solid.size(), 0);
    const auto visit = [&](double width, std::vector<Spot> part, const std::vector<float>& ridges) {
        if (width > 1.4 * least + 2) return false;  // parts come by their level, which is only nearly their width
        if (width >= least) return true;
        ThinPart thin;
        thin.width_px = width * scale;
        // Towards its ends, and where it runs into something wider, it goes on as long as it is thin.
        const double far = 2 * least + 6;
        const std::vector<Spot> begun = part;
        std::vector<std::size_t> from(part.size());
        for (std::size_t i = 0; i < part.size(); ++i) from[i] = i;
        for (const Spot& s : part) taken[g.at(s.x, s.y)] = 1;
        for (std::size_t i = 0; i < part.size(); ++i) {
            const Spot s = part[i];
            thin.ridge.push_back({box.x0 + (s.x + 0.5) * scale, box.y0 + (s.y + 0.5) * scale});
            for (int y = std::max(0, s.y - 2); y <= std::min(g.h - 1, s.y + 2); ++y)
                for (int x = std::max(0, s.x - 2); x <= std::min(g.w - 1, s.x + 2); ++x) {
                    const float d = ridges[g.at(x, y)];
                    const Spot& root = begun[from[i]];
                    if (d <= 0 || 2 * static_cast<double>(d) >= least || taken[g.at(x, y)] != 0 || std::hypot(x - root.x, y - root.y) > far)
                        continue;
                    taken[g.at(x, y)] = 1;
                    part.push_back({d, x, y});
                    from.push_back(from[i]);
                }
        }
        out.push_back(std::move(thin));
        return true;
    };
    each_thin_part(g, of == ThinOf::strokes ? 1 : 0, visit);
    return out;
}

}  // namespace orthema
