#include "devices/camera.h"

#include <algorithm>
#include <cmath>
#include <random>
#include <thread>

#include "core/drawing/fiducial.h"
#include "devices/cup_in_view.h"

namespace orthema {

namespace {

struct Rgb {
    float r = 0, g = 0, b = 0;
    Rgb operator*(float k) const { return {r * k, g * k, b * k}; }
    Rgb operator+(const Rgb& o) const { return {r + o.r, g + o.g, b + o.b}; }
    [[nodiscard]] Rgb mixed(const Rgb& o, float share) const {
        return {r + (o.r - r) * share, g + (o.g - g) * share, b + (o.b - b) * share};
    }
};
Rgb rgb_of(const Colour& c) { return {static_cast<float>(c.r), static_cast<float>(c.g), static_cast<float>(c.b)}; }

/// How much of each cell an area covers: a grid over a box, read between the cells.
class Cover {
public:
    Cover(const std::vector<Ring>& rings, const Rect& box, double cell) : box_(box), cell_(cell) {
        w_ = static_cast<int>(std::ceil(box.width() / cell)) + 1;
        h_ = static_cast<int>(std::ceil(box.height() / cell)) + 1;
        cells_.assign(static_cast<std::size_t>(w_) * static_cast<std::size_t>(h_), 0);
        constexpr int lines = 4;
        std::vector<double> xs;
        std::vector<float> row(static_cast<std::size_t>(w_));
        for (int y = 0; y < h_; ++y) {
            std::fill(row.begin(), row.end(), 0.0F);
            for (int k = 0; k < lines; ++k) {
                const double at = box.y0 + (y + (k + 0.5) / lines) * cell;
                xs.clear();
                for (const Ring& ring : rings)
                    for (std::size_t i = 0; i < ring.size(); ++i) {
                        const Point a = ring[i], b = ring[(i + 1) % ring.size()];
                        if ((a.y <= at) != (b.y <= at)) xs.push_back(((a.x + (b.x - a.x) * (at - a.y) / (b.y - a.y)) - box.x0) / cell);
                    }
                std::sort(xs.begin(), xs.end());
                for (std::size_t i = 0; i + 1 < xs.size(); i += 2) {
                    const double from = std::max(0.0, xs[i]), to = std::min<double>(w_, xs[i + 1]);
                    for (int x = static_cast<int>(from); x < to; ++x)
                        row[static_cast<std::size_t>(x)] +=
                            static_cast<float>(std::min<double>(x + 1, to) - std::max<double>(x, from)) / lines;
                }
            }
            for (int x = 0; x < w_; ++x)
                cells_[static_cast<std::size_t>(y) * static_cast<std::size_t>(w_) + static_cast<std::size_t>(x)] =
                    static_cast<std::uint8_t>(std::lround(255 * std::min(1.0F, row[static_cast<std::size_t>(x)])));
        }
    }
    [[nodiscard]] float at(double x, double y) const {
        const double fx = (x - box_.x0) / cell_ - 0.5, fy = (y - box_.y0) / cell_ - 0.5;
        const int ix = static_cast<int>(std::floor(fx)), iy = static_cast<int>(std::floor(fy));
        if (ix < 0 || iy < 0 || ix + 1 >= w_ || iy + 1 >= h_) return 0;
        const auto tx = static_cast<float>(fx - ix), ty = static_cast<float>(fy - iy);
        const std::uint8_t* p = cells_.data() + static_cast<std::size_t>(iy) * static_cast<std::size_t>(w_) + static_cast<std::size_t>(ix);
        const float top = static_cast<float>(p[0]) * (1 - tx) + static_cast<float>(p[1]) * tx;
        const float low = static_cast<float>(p[w_]) * (1 - tx) + static_cast<float>(p[w_ + 1]) * tx;
        return (top * (1 - ty) + low * ty) / 255;
    }
    /// Softened by repeated means over so many mm.
    [[nodiscard]] Cover soft(double by) const {
        Cover out = *this;
        const int r = std::max(1, static_cast<int>(by / cell_ / 2));
        for (int pass = 0; pass < 4; ++pass) {
            const bool level = pass % 2 == 0;
            const int n = level ? w_ : h_, m = level ? h_ : w_;
            std::vector<int> sum(static_cast<std::size_t>(n) + 1);
            for (int k = 0; k < m; ++k) {
                const auto cell = [&](int i) -> std::uint8_t& {
                    return out.cells_[level ? static_cast<std::size_t>(k) * static_cast<std::size_t>(w_) + static_cast<std::size_t>(i)
                                            : static_cast<std::size_t>(i) * static_cast<std::size_t>(w_) + static_cast<std::size_t>(k)];
                };
                for (int i = 0; i < n; ++i) sum[static_cast<std::size_t>(i) + 1] = sum[static_cast<std::size_t>(i)] + cell(i);
                for (int i = 0; i < n; ++i) {
                    const int from = std::max(0, i - r), to = std::min(n, i + r + 1);
                    cell(i) =
                        static_cast<std::uint8_t>((sum[static_cast<std::size_t>(to)] - sum[static_cast<std::size_t>(from)]) / (2 * r + 1));
                }
            }
        }
        return out;
    }

private:
    Rect box_;
    double cell_;
    int w_ = 0, h_ = 0;
    std::vector<std::uint8_t> cells_;
};

/// A number between −1 and 1 for a place in a grid.
float hashed(int x, int y, unsigned seed) {
    std::uint32_t h = static_cast<std::uint32_t>(x) * 374761393U + static_cast<std::uint32_t>(y) * 668265263U + seed * 2246822519U;
    h = (h ^ (h >> 13U)) * 1274126177U;
    h ^= h >> 16U;
    return static_cast<float>(h & 0xFFFFU) / 32767.5F - 1;
}

/// Smooth noise with hills about one unit apart.
float smooth_noise(double x, double y, unsigned seed) {
    const int ix = static_cast<int>(std::floor(x)), iy = static_cast<int>(std::floor(y));
    const auto ease = [](double t) { return static_cast<float>(t * t * (3 - 2 * t)); };
    const float tx = ease(x - ix), ty = ease(y - iy);
    const float top = hashed(ix, iy, seed) * (1 - tx) + hashed(ix + 1, iy, seed) * tx;
    const float low = hashed(ix, iy + 1, seed) * (1 - tx) + hashed(ix + 1, iy + 1, seed) * tx;
    return top * (1 - ty) + low * ty;
}

std::vector<Ring> rings_of_outline(const Region& region) {
    std::vector<Ring> out;
    for (const Polygon& p : region) {
        out.push_back(p.outer);
        out.insert(out.end(), p.holes.begin(), p.holes.end());
    }
    return out;
}

/// Lines as thin areas, so that they can be covered like any.
std::vector<Ring> stitched(const std::vector<Ring>& lines, double width) {
    std::vector<Ring> out;
    for (const Ring& line : lines)
        for (std::size_t i = 0; i + 1 < line.size(); ++i) {
            const Point d = line[i + 1] - line[i];
            const double n = norm(d);
            if (n < 1e-9) continue;
            const Point side = Point{-d.y, d.x} * (width / 2 / n);
            out.push_back({line[i] + side, line[i + 1] + side, line[i + 1] - side, line[i] - side});
        }
    return out;
}

/// The lens's own axes in the table's frame, z towards the table, and where it stands.
struct Stand {
    std::array<Vec, 3> axes;
    Vec eye;
};

Stand stand_of(const Lens& lens) {
    // upright over the table: x to the right, y down the table, z into it; then tilted, leaned, rolled
    const double ct = std::cos(lens.tilt), st = std::sin(lens.tilt), cl = std::cos(lens.lean), sl = std::sin(lens.lean),
                 cr = std::cos(lens.roll), sr = std::sin(lens.roll);
    const Vec x{cl, 0, -sl}, z{sl * ct, st, cl * ct};
    const Vec y{z.y * x.z - z.z * x.y, z.z * x.x - z.x * x.z, z.x * x.y - z.y * x.x};
    Stand out;
    out.axes = {Vec{x.x * cr + y.x * sr, x.y * cr + y.y * sr, x.z * cr + y.z * sr},
                Vec{y.x * cr - x.x * sr, y.y * cr - x.y * sr, y.z * cr - x.z * sr}, z};
    out.eye = {lens.aim.x - z.x * lens.distance, lens.aim.y - z.y * lens.distance, -z.z * lens.distance};
    return out;
}

/// Of what lies on the table: from the table's to its own.
class Frame {
public:
    explicit Frame(const OnTable& at) : at_{at.x, at.y}, cos_(std::cos(at.angle)), sin_(std::sin(at.angle)) {}
    [[nodiscard]] Point local(Point p) const {
        const Point d = p - at_;
        return {cos_ * d.x + sin_ * d.y, -sin_ * d.x + cos_ * d.y};
    }

private:
    Point at_;
    double cos_, sin_;
};

class Film {
public:
    Film(const Scene& scene, unsigned seed) : s_(scene), seed_(seed), stand_(stand_of(scene.lens)), blank_(scene.blank) {
        std::mt19937 random(seed);
        const auto unit = [&] { return static_cast<double>(random()) / 4294967296.0; };
        for (int k = 0; k < 5; ++k) {
            const Point at{unit() * 500 - 250, unit() * 600};
            const double angle = unit() * M_PI, width = 15 + 30 * unit();
            creases_.push_back({at, {std::cos(angle), std::sin(angle)}, width, unit() < 0.5 ? 1.0 : -1.0});
        }
        for (const CardOnTable& c : s_.cards) {
            PrintedCard& card = cards_.emplace_back(PrintedCard{Frame(c.at), card_marks(c.size), {}});
            for (int place = 0; place < marks_on_card; ++place) card.bits.push_back(fiducial(mark_id(c.size, c.card, place)));
        }
        if (s_.face == Face::wrap) {
            cup_ = std::make_unique<Cup>(*wall_of(s_.family, s_.measures), Point{s_.blank.x, s_.blank.y}, s_.blank.angle, s_.standing,
                                         s_.behind, measure_mm(s_.measures, Measure::handle_gap) > 0);
            return;
        }
        const Panel panel = lying_panel(s_.family, s_.measures, s_.face, s_.other_side, s_.lying);
        box_ = bounds(panel.outline).grown(20);
        const bool upper = family_build(s_.family) == Build::upper_body && s_.face == Face::front;
        if (upper) {
            const Panel back = lying_panel(s_.family, s_.measures, Face::back, s_.other_side, s_.lying);
            const Rect other = bounds(back.outline).grown(20);
            box_ = {std::min(box_.x0, other.x0), std::min(box_.y0, other.y0), std::max(box_.x1, other.x1), std::max(box_.y1, other.y1)};
            under_ = std::make_unique<Cover>(rings_of_outline(back.outline), box_, cell);
        }
        over_ = std::make_unique<Cover>(rings_of_outline(panel.outline), box_, cell);
        seams_ = std::make_unique<Cover>(stitched(panel.seams, 1.2), box_, cell);
        if (!panel.rib.empty()) rib_ = std::make_unique<Cover>(rings_of_outline(panel.rib), box_, cell);
        shadow_ = std::make_unique<Cover>((under_ ? *under_ : *over_).soft(9));
    }

    [[nodiscard]] Photo photo() const {
        const int w = s_.lens.width, h = s_.lens.height;
        const auto n = static_cast<std::size_t>(w) * static_cast<std::size_t>(h);
        std::vector<float> light(3 * n);
        in_bands(h, [&](int from, int to) {
            for (int y = from; y < to; ++y)
                for (int x = 0; x < w; ++x) {
                    const Rgb c = pixel(x, y);
                    float* p = light.data() + 3 * (static_cast<std::size_t>(y) * static_cast<std::size_t>(w) + static_cast<std::size_t>(x));
                    p[0] = c.r;
                    p[1] = c.g;
                    p[2] = c.b;
                }
        });
        blur(light, w, h);
        Photo out;
        out.image.width = w;
        out.image.height = h;
        out.image.rgba.resize(4 * n);
        if (s_.lens.says_focal) out.focal_px = s_.lens.focal;
        in_bands(h, [&](int from, int to) {
            std::mt19937 random(seed_ * 7919U + static_cast<unsigned>(from));
            std::normal_distribution<float> noise(0, static_cast<float>(s_.lens.noise));
            for (std::size_t i = static_cast<std::size_t>(from) * static_cast<std::size_t>(w);
                 i < static_cast<std::size_t>(to) * static_cast<std::size_t>(w); ++i) {
                for (std::size_t k = 0; k < 3; ++k)
                    out.image.rgba[4 * i + k] =
                        static_cast<std::uint8_t>(std::lround(std::clamp(255 * light[3 * i + k] + noise(random), 0.0F, 255.0F)));
                out.image.rgba[4 * i + 3] = 255;
            }
        });
        return out;
    }

private:
    static constexpr double cell = 0.4;           ///< of the blank's covers, mm
    static constexpr double reach_of_card = 190;  ///< from its middle, mm
    struct Crease {
        Point at, across;
        double width, way;
    };
    const Scene& s_;
    unsigned seed_;
    Stand stand_;
    Rect box_;
    std::unique_ptr<Cover> under_, over_, seams_, rib_, shadow_;
    std::unique_ptr<Cup> cup_;
    struct PrintedCard {
        Frame frame;
        std::vector<CardMark> marks;
        std::vector<std::vector<std::vector<bool>>> bits;  ///< of each mark
    };
    std::vector<PrintedCard> cards_;
    Frame blank_;
    std::vector<Crease> creases_;

    template <class Work>
    static void in_bands(int rows, const Work& work) {
        std::thread other([&] { work(rows / 2, rows); });
        work(0, rows / 2);
        other.join();
    }

    /// The way that a pixel looks, in the table's frame.
    [[nodiscard]] Vec ray(double px, double py) const {
        const Lens& l = s_.lens;
        const double xd = (px - l.width / 2.0) / l.focal, yd = (py - l.height / 2.0) / l.focal, rd = std::hypot(xd, yd);
        double r = rd;
        for (int k = 0; k < 6; ++k) r = rd / (1 + l.distortion * r * r);
        const double k = rd > 0 ? r / rd : 1;
        const auto& [ax, ay, az] = stand_.axes;
        return ax * (xd * k) + ay * (yd * k) + az;
    }
    /// Where a pixel's ray meets the height above the table.
    [[nodiscard]] Point point_at(double px, double py, double height) const { return point_at(ray(px, py), height); }
    [[nodiscard]] Point point_at(const Vec& d, double height) const {
        const double t = (-height - stand_.eye.z) / d.z;
        return {stand_.eye.x + d.x * t, stand_.eye.y + d.y * t};
    }

    [[nodiscard]] float lit(Point p) const {
        const Point d = p - s_.lens.aim;
        return static_cast<float>(1 + s_.light * (0.7 * d.x + 0.4 * d.y) / 1000 - s_.light * (d.x * d.x + d.y * d.y) / 2e6);
    }

    [[nodiscard]] Rgb table_at(Point p) const {
        const Rgb plain = rgb_of(s_.table);
        float k = 1;
        switch (s_.top) {
        case TableTop::plain: k += 0.01F * smooth_noise(p.x / 3, p.y / 3, seed_ + 1); break;
        case TableTop::wood:
            k += 0.10F * smooth_noise(p.x / 220, p.y / 7, seed_ + 1) + 0.05F * smooth_noise(p.x / 60, p.y / 1.6, seed_ + 2);
            break;
        case TableTop::cloth:
            k += 0.05F * smooth_noise(p.x / 1.1, p.y / 1.1, seed_ + 1) + 0.03F * smooth_noise(p.x / 40, p.y / 40, seed_ + 2);
            break;
        }
        return plain * k;
    }

    /// The card's paper there, and whether it is there at all.
    [[nodiscard]] bool card_at(double px, double py, Rgb& out) const {
        const Point flat = point_at(px, py, 0);
        for (std::size_t c = 0; c < s_.cards.size(); ++c) {
            const CardOnTable& card = s_.cards[c];
            if (norm(flat - Point{card.at.x, card.at.y}) > reach_of_card) continue;
            Point q = cards_[c].frame.local(flat) * (1 / card.scale);
            if (card.fold)  // where it stands up the ray meets it sooner
                for (int pass = 0; pass < 4; ++pass)
                    q = cards_[c].frame.local(point_at(px, py, std::max(0.0, (q.x - card.fold->at) * card.fold->rise))) * (1 / card.scale);
            const Rect paper = card.size == CardSize::large ? Rect{-105, -148.5, 105, 148.5} : Rect{-74, -105, 74, 105};
            if (!paper.contains(q)) continue;
            out = {0.93F, 0.93F, 0.91F};
            for (const CardMark& m : cards_[c].marks) {
                if (!m.box.contains(q)) continue;
                const double side = m.box.width() / fiducial_cells;
                const auto x = static_cast<std::size_t>(std::min(7.0, (q.x - m.box.x0) / side)),
                           y = static_cast<std::size_t>(std::min(7.0, (q.y - m.box.y0) / side));
                if (cards_[c].bits[static_cast<std::size_t>(m.place)][y][x]) out = {0.09F, 0.09F, 0.10F};
            }
            if (card.dusk) out = out * static_cast<float>(1 - card.dusk->less / (1 + std::exp((card.dusk->at - q.x) / 1.5)));
            return true;
        }
        return false;
    }

    [[nodiscard]] Rgb cloth_at(Point q, bool inside) const {
        const Rgb plain = rgb_of(s_.cloth) * (inside ? 0.8F : 1.0F);
        float k = 1 + static_cast<float>(s_.knit) *
                          (smooth_noise(q.x / 0.9, q.y / 1.4, seed_ + 3) + 0.6F * smooth_noise(q.x / 12, q.y / 12, seed_ + 4));
        for (const Crease& c : creases_) {
            const Point d = q - c.at;
            const double across = dot(c.across, d) / c.width;
            if (std::abs(across) < 6) k += static_cast<float>(s_.creases * c.way * across * std::exp(-across * across));
        }
        Rgb out = plain * k;
        if (s_.heather > 0)
            out = out.mixed({0.95F, 0.95F, 0.95F},
                            static_cast<float>(s_.heather) * std::max(0.0F, smooth_noise(q.x / 1.2, q.y / 4, seed_ + 5)));
        return out;
    }

    /// The blank's print there, over the cloth.
    void press(Point q, Rgb& out) const {
        for (const PressedOn& p : s_.pressed) {
            const Point middle = p.box.centre(), d = q - middle;
            const double c = std::cos(p.angle), s = std::sin(p.angle);
            const double u = (c * d.x + s * d.y) / p.box.width() + 0.5, v = (-s * d.x + c * d.y) / p.box.height() + 0.5;
            if (u < 0 || v < 0 || u >= 1 || v >= 1) continue;
            const std::uint8_t* ink = p.picture.at(static_cast<int>(u * p.picture.width), static_cast<int>(v * p.picture.height));
            const Rgb colour{static_cast<float>(ink[0]) / 255, static_cast<float>(ink[1]) / 255, static_cast<float>(ink[2]) / 255};
            out = out.mixed(colour, static_cast<float>(ink[3]) / 255);
        }
    }

    /// The table there and the cards on it, so much in the shade.
    [[nodiscard]] Rgb ground(int x, int y, Point on, float dark) const {
        Rgb card, sum{};
        int hits = 0;
        const bool card_near = std::any_of(s_.cards.begin(), s_.cards.end(), [&](const CardOnTable& c) {
            return norm(on - Point{c.at.x, c.at.y}) < reach_of_card;
        });
        for (const double dx : {0.25, 0.75})
            for (const double dy : {0.25, 0.75})
                if (card_near && card_at(x + dx, y + dy, card)) {
                    ++hits;
                    sum = sum + card;
                }
        Rgb out = table_at(on) * (1 - dark);
        if (hits > 0) out = out.mixed(sum * (1.0F / static_cast<float>(hits)), static_cast<float>(hits) / 4);
        return out;
    }

    /// What of the light reaches a point of the table past the cup, which is as wide as a window is.
    [[nodiscard]] float shade_of_cup(Point on) const {
        float dark = 0;
        for (const double aside : {0.0, 0.12})
            for (const double along : {0.0, 0.12})
                if (cup_->hit({on.x, on.y, -0.01}, unit({-0.45 + aside, -0.5 + along, -0.8}))) dark += 0.25F;
        return dark;
    }

    [[nodiscard]] Rgb cup_colour(const CupHit& hit, const Vec& way) const {
        const Vec light = unit({-0.4, -0.45, -0.8}), half = unit(light - unit(way));
        const double lit_by = std::max(0.0, dot(hit.normal, light));
        const Rgb plain = rgb_of(s_.cloth) * (hit.inside ? 0.5F : 1.0F);
        const auto gloss = static_cast<float>(0.35 * std::pow(std::max(0.0, dot(hit.normal, half)), 60.0));
        return (plain * static_cast<float>(0.62 + 0.38 * lit_by)).mixed({1, 1, 1}, gloss);
    }

    [[nodiscard]] Rgb cup_pixel(int x, int y, Point on) const {
        if (!cup_->near(on, 150)) return ground(x, y, on, 0);
        Rgb sum{};
        int hits = 0;
        constexpr int rays = 3;
        for (int row = 0; row < rays; ++row)
            for (int column = 0; column < rays; ++column) {
                const Vec way = ray(x + (column + 0.5) / rays, y + (row + 0.5) / rays);
                if (const auto hit = cup_->hit(stand_.eye, way)) {
                    sum = sum + cup_colour(*hit, way);
                    ++hits;
                }
            }
        const float covered = static_cast<float>(hits) / (rays * rays);
        const Rgb behind = hits == rays * rays ? Rgb{} : ground(x, y, on, static_cast<float>(s_.shadow) * shade_of_cup(on));
        return hits == 0 ? behind : behind.mixed(sum * (1.0F / static_cast<float>(hits)), covered);
    }

    [[nodiscard]] Rgb pixel(int x, int y) const {
        const Vec way = ray(x + 0.5, y + 0.5);
        const Point on = point_at(way, 0);
        for (const Thumb& t : s_.thumbs)
            if (norm(on - t.at) < t.radius) return Rgb{0.78F, 0.58F, 0.48F} * lit(on);
        if (cup_) return cup_pixel(x, y, on) * lit(on);
        const Point raised = point_at(way, s_.thickness);
        Point q = blank_.local(raised);
        // edges run beside the panel's: the cloth is pulled a little this way and that
        q = q + Point{smooth_noise(q.x / 90, q.y / 90, seed_ + 6), smooth_noise(q.x / 90, q.y / 90, seed_ + 7)} * s_.waves;
        const bool near = box_.contains(q);
        const float over = near ? over_->at(q.x, q.y) : 0, under = near && under_ ? under_->at(q.x, q.y) : 0;
        Rgb out;
        if (over < 0.999F) {
            out = ground(x, y, on, near ? static_cast<float>(s_.shadow) * shadow_->at(q.x - 4, q.y - 5) : 0);
            if (under > 0) out = out.mixed(cloth_at(q, true), under);
        }
        if (over > 0) {
            Rgb cloth = cloth_at(q, false);
            if (rib_) cloth = cloth.mixed(cloth * 0.93F, rib_->at(q.x, q.y));
            cloth = cloth.mixed(cloth * 0.72F, seams_->at(q.x, q.y));
            press(q, cloth);
            out = out.mixed(cloth, over);
        }
        return out * lit(on);
    }

    static void add_to(float* to, const float* from, float weight, std::size_t n) {
        for (std::size_t i = 0; i < n; ++i) to[i] += weight * from[i];
    }

    void blur(std::vector<float>& light, int w, int h) const {
        const double sigma = s_.lens.blur;
        if (sigma <= 0) return;
        const int r = static_cast<int>(std::ceil(3 * sigma));
        std::vector<float> kernel;
        float sum = 0;
        for (int k = -r; k <= r; ++k) sum += kernel.emplace_back(static_cast<float>(std::exp(-k * k / (2 * sigma * sigma))));
        for (float& k : kernel) k /= sum;
        const std::size_t row = 3 * static_cast<std::size_t>(w), rim = 3 * static_cast<std::size_t>(r);
        const auto line = [&](std::vector<float>& of, int y) {
            return of.data() + row * static_cast<std::size_t>(std::clamp(y, 0, h - 1));
        };
        std::vector<float> along(light.size());
        in_bands(h, [&](int first, int last) {
            std::vector<float> wide(row + 2 * rim);  // with the ends said again
            for (int y = first; y < last; ++y) {
                const float* from = line(light, y);
                std::copy_n(from, row, wide.begin() + static_cast<long>(rim));
                for (std::size_t i = 0; i < rim; ++i) {
                    wide[i] = from[i % 3];
                    wide[rim + row + i] = from[row - 3 + i % 3];
                }
                for (std::size_t k = 0; k < kernel.size(); ++k) add_to(line(along, y), wide.data() + 3 * k, kernel[k], row);
            }
        });
        in_bands(h, [&](int first, int last) {
            for (int y = first; y < last; ++y) {
                float* to = line(light, y);
                std::fill_n(to, row, 0.0F);
                for (int k = -r; k <= r; ++k) add_to(to, line(along, y + k), kernel[static_cast<std::size_t>(k + r)], row);
            }
        });
    }
};

}  // namespace

Point on_table(const OnTable& at, Point p) {
    const double c = std::cos(at.angle), s = std::sin(at.angle);
    return {at.x + c * p.x - s * p.y, at.y + s * p.x + c * p.y};
}

Lens with_width(Lens lens, int width) {
    lens.focal *= static_cast<double>(width) / lens.width;
    lens.width = width;
    lens.height = width * 3 / 4;
    return lens;
}

Point seen_at(const Lens& lens, Point p, double height) {
    const Stand stand = stand_of(lens);
    const Vec d{p.x - stand.eye.x, p.y - stand.eye.y, -height - stand.eye.z};
    const auto along = [&](const Vec& a) { return a.x * d.x + a.y * d.y + a.z * d.z; };
    const double z = along(stand.axes[2]), u = along(stand.axes[0]) / z, v = along(stand.axes[1]) / z;
    const double k = lens.focal * (1 + lens.distortion * (u * u + v * v));
    return {lens.width / 2.0 + u * k, lens.height / 2.0 + v * k};
}

Photo simulated_photo(const Scene& scene, unsigned seed) { return Film(scene, seed).photo(); }

namespace {

class SimulatedCamera : public Camera {
public:
    SimulatedCamera(std::vector<Scene> scenes, unsigned seed) : scenes_(std::move(scenes)), seed_(seed) {}
    Result<Photo> take() override {
        if (next_ >= scenes_.size()) return Error{"The camera has no more pictures."};
        const Scene& scene = scenes_[next_];
        return simulated_photo(scene, seed_ + static_cast<unsigned>(next_++));
    }

private:
    std::vector<Scene> scenes_;
    unsigned seed_;
    std::size_t next_ = 0;
};

}  // namespace

std::unique_ptr<Camera> simulated_camera(std::vector<Scene> scenes, unsigned seed) {
    return std::make_unique<SimulatedCamera>(std::move(scenes), seed);
}

}  // namespace orthema
