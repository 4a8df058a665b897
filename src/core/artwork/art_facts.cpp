#include "core/artwork/art_facts.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

#include "core/artwork/print_colours.h"
#include "core/artwork/soft_edges.h"
#include "core/artwork/strokes.h"

namespace orthema {

namespace {

/// Bit grid of ink with a clear border of one pixel all round, so that no edge test is needed.
struct InkGrid {
    int width, height;
    std::vector<char> ink;
    InkGrid(const PixelView& px, int threshold)
        : width(px.width), height(px.height), ink(static_cast<std::size_t>(px.width + 2) * static_cast<std::size_t>(px.height + 2), 0) {
        for (int y = 0; y < height; ++y)
            for (int x = 0; x < width; ++x) ink[at(x, y)] = px.at(x, y)[3] >= threshold ? 1 : 0;
    }
    [[nodiscard]] std::size_t at(int x, int y) const {
        return static_cast<std::size_t>(y + 1) * static_cast<std::size_t>(width + 2) + static_cast<std::size_t>(x + 1);
    }
    [[nodiscard]] bool operator()(int x, int y) const { return (ink[at(x, y)] & 1) != 0; }
};

constexpr std::uint8_t seen = 2;  ///< its top edge lies in a ring already

/// Follows the boundary that starts with the top edge of the ink pixel (x, y), ink on the right hand, and marks the
/// top edges it passes.
Ring follow(InkGrid& grid, int start_x, int start_y) {
    static constexpr std::array<int, 4> dx = {1, 0, -1, 0};
    static constexpr std::array<int, 4> dy = {0, 1, 0, -1};
    int x = start_x, y = start_y, heading = 0;
    Ring ring;
    do {
        if (heading == 0) grid.ink[grid.at(x, y)] |= seen;
        x += dx[static_cast<std::size_t>(heading)];
        y += dy[static_cast<std::size_t>(heading)];
        bool right = false, left = false;  // the pixels ahead of this corner
        switch (heading) {
        case 0:
            right = grid(x, y);
            left = grid(x, y - 1);
            break;
        case 1:
            right = grid(x - 1, y);
            left = grid(x, y);
            break;
        case 2:
            right = grid(x - 1, y - 1);
            left = grid(x - 1, y);
            break;
        default:
            right = grid(x, y - 1);
            left = grid(x - 1, y - 1);
            break;
        }
        const int before = heading;
        // Where only corners meet, turning right first keeps diagonal pixels apart.
        if (!right)
            heading = (heading + 1) & 3;
        else if (left)
            heading = (heading + 3) & 3;
        if (heading != before) ring.push_back({static_cast<double>(x), static_cast<double>(y)});
    } while (x != start_x || y != start_y || heading != 0);
    return ring;
}

/// A ring along pixel edges, row by row: where its upright edges stand. Made when it is first asked.
struct RowsOf {
    Polygon* polygon;
    Rect box;
    double area;
    int first = 0;
    std::vector<std::vector<int>> crossings = {};
    explicit RowsOf(Polygon& p) : polygon(&p), box(bounds(p.outer)), area(std::abs(signed_area(p.outer))) {}
    bool around(Point q) {
        if (!box.contains(q)) return false;
        const Ring& ring = polygon->outer;
        if (ring.size() <= 16) return inside(ring, q);
        if (crossings.empty()) {
            first = static_cast<int>(box.y0);
            crossings.resize(static_cast<std::size_t>(box.height()) + 1);
            for (std::size_t i = 0; i < ring.size(); ++i) {
                const Point a = ring[i], b = ring[(i + 1) % ring.size()];
                for (int y = static_cast<int>(std::min(a.y, b.y)); y < static_cast<int>(std::max(a.y, b.y)); ++y)
                    crossings[static_cast<std::size_t>(y - first)].push_back(static_cast<int>(a.x));
            }
            for (auto& row : crossings) std::sort(row.begin(), row.end());
        }
        const auto& row = crossings[static_cast<std::size_t>(std::floor(q.y)) - static_cast<std::size_t>(first)];
        return (std::lower_bound(row.begin(), row.end(), q.x) - row.begin()) % 2 == 1;
    }
};

}  // namespace

Region pixel_outline(const PixelView& px, int threshold) {
    InkGrid grid(px, threshold);
    std::vector<Ring> outers;
    std::vector<Ring> holes;
    // Every ring, hole or outer, has top edges of ink (a hole's lie at its bottom), so all are found. With ink on the
    // right hand, outer rings come out positive and holes negative.
    for (int y = 0; y < px.height; ++y)
        for (int x = 0; x < px.width; ++x) {
            if (!grid(x, y) || grid(x, y - 1) || (grid.ink[grid.at(x, y)] & seen) != 0) continue;
            Ring ring = follow(grid, x, y);
            (signed_area(ring) > 0 ? outers : holes).push_back(std::move(ring));
        }
    Region region;
    region.reserve(outers.size());
    for (Ring& ring : outers) region.push_back({std::move(ring), {}});
    std::vector<RowsOf> rows;  // of outers that holes may lie in, the smallest first
    rows.reserve(holes.empty() ? 0 : region.size());
    if (!holes.empty())
        for (Polygon& p : region) rows.emplace_back(p);
    std::stable_sort(rows.begin(), rows.end(), [](const RowsOf& a, const RowsOf& b) { return a.area < b.area; });
    for (Ring& hole : holes) {
        // the smallest outer ring around a point just inside the hole owns it
        const Point a = hole[0];
        const Point b = hole[1];
        const Point d = (b - a) * (1 / norm(b - a));
        const Point probe = a + d * 0.5 + Point{-d.y, d.x} * 0.25;
        const Point other = a + d * 0.5 - Point{-d.y, d.x} * 0.25;
        const Point in_hole = inside(hole, probe) ? probe : other;
        const auto owner = std::find_if(rows.begin(), rows.end(), [&](RowsOf& r) { return r.around(in_hole); });
        if (owner != rows.end()) owner->polygon->holes.push_back(std::move(hole));
    }
    return region;
}

namespace {

/// The colours of solid ink, gathered in cells of 16 levels a channel.
std::vector<ArtFacts::Ink> main_inks(const PixelView& px) {
    struct Cell {
        double r = 0, g = 0, b = 0;
        long count = 0;
    };
    std::vector<Cell> cells(4096);
    long all = 0;
    for (int y = 0; y < px.height; ++y)
        for (int x = 0; x < px.width; ++x) {
            const auto* p = px.at(x, y);
            if (p[3] < 128) continue;
            Cell& c = cells[static_cast<std::size_t>((p[0] >> 4) << 8 | (p[1] >> 4) << 4 | p[2] >> 4)];
            c.r += p[0];
            c.g += p[1];
            c.b += p[2];
            ++c.count;
            ++all;
        }
    std::vector<ArtFacts::Ink> inks;
    for (const Cell& c : cells) {
        if (c.count * 100 < all || c.count == 0) continue;
        const double n = 255.0 * static_cast<double>(c.count);
        inks.push_back({{c.r / n, c.g / n, c.b / n, 1}, static_cast<double>(c.count) / static_cast<double>(all)});
    }
    std::sort(inks.begin(), inks.end(), [](const auto& a, const auto& b) { return a.share > b.share; });
    if (inks.size() > 16) inks.resize(16);
    return inks;
}

}  // namespace

std::array<double, 3> lab_of(Colour c) {
    const auto linear = [](double v) { return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
    const double r = linear(c.r), g = linear(c.g), bl = linear(c.b);
    const auto f = [](double t) { return t > 0.008856 ? std::cbrt(t) : 7.787 * t + 16.0 / 116; };
    const double x = f((0.4124 * r + 0.3576 * g + 0.1805 * bl) / 0.95047), y = f(0.2126 * r + 0.7152 * g + 0.0722 * bl),
                 z = f((0.0193 * r + 0.1192 * g + 0.9505 * bl) / 1.08883);
    return {116 * y - 16, 500 * (x - y), 200 * (y - z)};
}

double colour_difference(Colour a, Colour b) {
    const auto p = lab_of(a), q = lab_of(b);
    return std::hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);
}

double lab_lightness(Colour c) { return lab_of(c)[0]; }

double vanishing_share(const ArtFacts& facts, Colour cloth) {
    // in the dark the eye sees lightness, hardly hue: black on navy is as good as gone
    const auto both_dark = [&](Colour ink) { return lab_lightness(ink) < 30 && lab_lightness(cloth) < 30; };
    double share = 0;
    for (const ArtFacts::Ink& ink : facts.inks)
        if (colour_difference(ink.colour, cloth) < 16 || both_dark(ink.colour)) share += ink.share;
    return share;
}

namespace {

std::shared_ptr<const AlphaMap> alpha_of(const PixelView& px, const Rect& ink) {
    auto map = std::make_shared<AlphaMap>();
    map->width = static_cast<int>(ink.width());
    map->height = static_cast<int>(ink.height());
    map->ink.reserve(static_cast<std::size_t>(map->width) * static_cast<std::size_t>(map->height));
    for (int y = 0; y < map->height; ++y)
        for (int x = 0; x < map->width; ++x) map->ink.push_back(px.at(x + static_cast<int>(ink.x0), y + static_cast<int>(ink.y0))[3]);
    return map;
}

/// Pixels are averaged by what they cover; colours by their ink, so that clear pixels lend none.
std::shared_ptr<const SmallPicture> small_picture(const PixelView& px, const Rect& ink) {
    auto small = std::make_shared<SmallPicture>();
    const int by = std::max(1, static_cast<int>(std::ceil(std::max(ink.width(), ink.height()) / small_side)));
    small->width = static_cast<int>(std::ceil(ink.width() / by));
    small->height = static_cast<int>(std::ceil(ink.height() / by));
    small->rgba.reserve(static_cast<std::size_t>(small->width) * static_cast<std::size_t>(small->height) * 4);
    for (int y = 0; y < small->height; ++y)
        for (int x = 0; x < small->width; ++x) {
            long sum[4] = {0, 0, 0, 0};
            const int sx = static_cast<int>(ink.x0) + x * by, sy = static_cast<int>(ink.y0) + y * by;
            const int ex = std::min(sx + by, static_cast<int>(ink.x1)), ey = std::min(sy + by, static_cast<int>(ink.y1));
            for (int v = sy; v < ey; ++v)
                for (int u = sx; u < ex; ++u) {
                    const std::uint8_t* p = px.at(u, v);
                    for (int c = 0; c < 3; ++c) sum[c] += p[c] * p[3];
                    sum[3] += p[3];
                }
            for (int c = 0; c < 3; ++c) small->rgba.push_back(static_cast<std::uint8_t>(sum[3] == 0 ? 0 : sum[c] / sum[3]));
            small->rgba.push_back(static_cast<std::uint8_t>(sum[3] / (static_cast<long>(ex - sx) * (ey - sy))));
        }
    return small;
}

}  // namespace

ArtFacts look_at(const PixelView& px, bool vector, double tolerance_px) {
    ArtFacts facts;
    facts.width_px = px.width;
    facts.height_px = px.height;
    facts.vector = vector;
    int x0 = px.width, y0 = px.height, x1 = 0, y1 = 0;
    double weight = 0, wx = 0, wy = 0;
    long ink = 0, soft = 0;
    for (int y = 0; y < px.height; ++y)
        for (int x = 0; x < px.width; ++x) {
            const int a = px.at(x, y)[3];
            if (a < ink_alpha) continue;
            x0 = std::min(x0, x);
            x1 = std::max(x1, x + 1);
            y0 = std::min(y0, y);
            y1 = std::max(y1, y + 1);
            weight += a;
            wx += a * (x + 0.5);
            wy += a * (y + 0.5);
            ++ink;
            if (a >= 240) continue;
            // An anti-aliased edge is one pixel of half-transparency between solid and clear: not a fault.
            bool solid = false, clear = x == 0 || y == 0 || x + 1 == px.width || y + 1 == px.height;
            for (int v = std::max(0, y - 1); v <= std::min(px.height - 1, y + 1); ++v)
                for (int u = std::max(0, x - 1); u <= std::min(px.width - 1, x + 1); ++u) {
                    const int n = px.at(u, v)[3];
                    solid = solid || n >= 240;
                    clear = clear || n < ink_alpha;
                }
            if (!(solid && clear)) ++soft;
        }
    if (ink == 0) return facts;
    facts.ink_px = {static_cast<double>(x0), static_cast<double>(y0), static_cast<double>(x1), static_cast<double>(y1)};
    facts.aspect = facts.ink_px.height() / facts.ink_px.width();
    facts.half_transparent = static_cast<double>(soft) / static_cast<double>(ink);
    const double unit = 1.0 / facts.ink_px.width();
    const Affine to_unit{unit, 0, 0, unit, -x0 * unit, -y0 * unit};
    facts.optical_centre = to_unit({wx / weight, wy / weight});

    const StrokeWidths widths = stroke_widths(px, facts.ink_px);
    facts.thin_stroke = widths.stroke_px * unit;
    facts.narrow_gap = widths.gap_px * unit;
    facts.inks = main_inks(px);
    if (!vector) facts.edge_px = sharpest_edges(px);
    facts.picture = small_picture(px, facts.ink_px);

    Region rings = pixel_outline(px, ink_alpha);
    for (Polygon& p : rings) {
        if (tolerance_px > 0) {
            p.outer = simplified(p.outer, tolerance_px);
            for (Ring& h : p.holes) h = simplified(h, tolerance_px);
        }
        p = mapped(p, to_unit);
    }
    facts.outline = std::move(rings);
    facts.alpha = alpha_of(px, facts.ink_px);  // last: of large pictures it takes as much as what the outline was followed in

    // A background nobody removed: the whole border opaque and of one colour.
    const auto* first = px.at(0, 0);
    bool flat = true;
    const auto same = [&](int x, int y) {
        const auto* p = px.at(x, y);
        flat = flat && p[3] >= 240 && std::abs(p[0] - first[0]) <= 10 && std::abs(p[1] - first[1]) <= 10 && std::abs(p[2] - first[2]) <= 10;
    };
    for (int x = 0; x < px.width && flat; ++x) {
        same(x, 0);
        same(x, px.height - 1);
    }
    for (int y = 0; y < px.height && flat; ++y) {
        same(0, y);
        same(px.width - 1, y);
    }
    facts.flat_background = flat;
    facts.background = {first[0] / 255.0, first[1] / 255.0, first[2] / 255.0, 1};
    return facts;
}

std::optional<double> resolution(const ArtFacts& facts, Length width) {
    if (facts.vector || facts.empty() || width.mm() <= 0) return std::nullopt;
    return facts.sharpness * facts.ink_px.width() / width.inches();
}

Findings art_findings(const ArtFacts& facts, const std::string& art_id, const std::string& name, std::optional<Length> width) {
    Findings out;
    const auto add = [&](const char* code, Arguments args = {}) {
        Subject about;
        about.art = art_id;
        args.emplace_back("art", name);
        out.push_back(finding(code, about, std::move(args)));
    };
    if (facts.empty()) {
        add("art-empty");
        return out;
    }
    if (facts.flat_background) add("art-background");
    if (facts.half_transparent > 0.02) add("art-half-transparent", {{"share", Share{facts.half_transparent}}});
    for (const std::string& picture : facts.cut_off) add("word-cut-off", {{"design", picture}});
    for (const std::string& font : facts.missing_fonts) add("art-font-missing", {{"font", font}});
    if (const auto dpi = width ? resolution(facts, *width) : std::nullopt) {
        const double edge = facts.edge_px / *dpi * 25.4;
        if (*dpi < 150)
            add("art-resolution", {{"dpi", Number{*dpi}}, {"width", *width}});
        else if (edge > soft_edge_mm && facts.edge_px > soft_edge_px)
            add("art-soft", {{"edge", Fine{edge}}, {"width", *width}});
    }
    if (width)
        if (const std::string hues = dulled_hues(facts); !hues.empty()) add("art-dull", {{"hues", Term{hues}}});
    return out;
}

}  // namespace orthema
