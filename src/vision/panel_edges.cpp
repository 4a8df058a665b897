#include "vision/panel_edges.h"

#include <algorithm>
#include <cmath>

namespace orthema::vision {

namespace {

class Edges {
public:
    Edges(const Photo& photo, const TableSeen& table, const Silhouette& cells, const BlankAsked& asked, bool any_step)
        : photo_(photo), table_(table), asked_(asked), any_step_(any_step) {
        for (std::size_t c = 0; c < 3; ++c) apart_[c] = cells.cloth[c] - cells.table[c];
        const double size = std::sqrt(apart_[0] * apart_[0] + apart_[1] * apart_[1] + apart_[2] * apart_[2]);
        contrast_ = size;
        for (double& a : apart_) a /= std::max(1.0, size);
        px_mm_ = table.cards[0].px_a_mm;
    }

    [[nodiscard]] EdgesSeen find(const PanelGuess& g, const Lines& lines, const std::vector<bool>& with, double reach) const {
        EdgesSeen out;
        out.asked_within.assign(lines.inner.size(), 0);
        double total = 0;
        for (const Ring& r : lines.outline) total += perimeter({Polygon{r, {}}});
        const double step = std::clamp(total / 320, 1.5, 8.0);
        for (const Ring& ring : lines.outline) walk(g, ring, true, -1, step, reach, out);
        for (std::size_t k = 0; k < lines.inner.size(); ++k)
            if (lines.inner[k].size() > 2 && k < with.size() && with[k])
                walk(g, lines.inner[k], false, static_cast<int>(k), std::min(step, 3.0), std::min(reach, k < lines.stitched ? 7.0 : 10.0),
                     out, k >= lines.stitched);
        return out;
    }

private:
    const Photo& photo_;
    const TableSeen& table_;
    const BlankAsked& asked_;
    bool any_step_;
    std::array<double, 3> apart_{};
    double contrast_ = 0, px_mm_ = 1;

    [[nodiscard]] Point to_table(const PanelGuess& g, Point p) const { return g.at + turned(p, g.angle); }

    [[nodiscard]] bool on_card(Point on) const {
        return std::any_of(table_.cards.begin(), table_.cards.end(),
                           [&](const CardSeen& c) { return card_paper(c.size).grown(3).contains(turned(on - c.at, -c.angle)); });
    }

    /// Colour there, over a little of the edge's length.
    [[nodiscard]] std::array<double, 3> colour(Point at, Point along) const {
        std::array<double, 3> out{};
        for (const double k : {-1.0, 0.0, 1.0}) {
            const double x = std::clamp(at.x + along.x * k - 0.5, 0.0, photo_.image.width - 1.001),
                         y = std::clamp(at.y + along.y * k - 0.5, 0.0, photo_.image.height - 1.001);
            const int ix = static_cast<int>(x), iy = static_cast<int>(y);
            const double tx = x - ix, ty = y - iy;
            const std::uint8_t *p = photo_.image.at(ix, iy), *q = photo_.image.at(ix, std::min(iy + 1, photo_.image.height - 1));
            const int right = ix + 1 < photo_.image.width ? 4 : 0;
            for (std::size_t c = 0; c < 3; ++c) {
                const auto k4 = static_cast<std::size_t>(right) + c;
                out[c] += ((p[c] * (1 - tx) + p[k4] * tx) * (1 - ty) + (q[c] * (1 - tx) + q[k4] * tx) * ty) / 3;
            }
        }
        return out;
    }

    void walk(const PanelGuess& g, const Ring& line, bool closed, int inner, double step, double reach, EdgesSeen& out,
              bool dark = false) const {
        const std::size_t n = line.size();
        const bool left_hand = !closed || signed_area(line) > 0;
        const auto bend_at = [&](std::size_t i) {  // how sharp the corner at a point is
            if (!closed && (i == 0 || i + 1 == n)) return 1.0;
            const Point a = line[i] - line[(i + n - 1) % n], b = line[(i + 1) % n] - line[i];
            const double size = norm(a) * norm(b);
            return size > 0 ? std::abs(cross(a, b)) / size : 0;
        };
        double next = step / 2;
        for (std::size_t i = 0; i + (closed ? 0 : 1) < n; ++i) {
            const Point a = line[i], b = line[(i + 1) % n], d = b - a;
            const double length = norm(d);
            if (length < 1e-9) continue;
            const Point way = d * (1 / length);
            const Point normal = left_hand ? Point{way.y, -way.x} : Point{-way.y, way.x};
            for (; next < length; next += step) {
                constexpr double sharp = 0.4;
                const double keep = std::min(4.0, length / 4);
                if ((bend_at(i) > sharp && next < keep) || (bend_at((i + 1) % n) > sharp && length - next < keep)) continue;
                ++(inner < 0 ? out.asked : out.asked_within[static_cast<std::size_t>(inner)]);
                const Point near = a + way * next;
                if (const auto s = look(g, near, normal, way, inner, reach, dark)) out.seen.push_back(*s);
            }
            next -= length;
        }
    }

    [[nodiscard]] std::optional<Seen> look(const PanelGuess& g, Point near, Point normal, Point way, int inner, double reach,
                                           bool dark) const {
        const double fine = std::max(0.2, 0.5 / px_mm_);
        const double window = std::clamp(1.6, 2 * fine, 4.0);  // what is compared on either side, mm
        const int n = static_cast<int>(std::ceil((reach + window + 1) / fine));
        const double height = asked_.thickness;
        const Point on = to_table(g, near), out_way = turned(normal, g.angle), along_way = turned(way, g.angle);
        if (on_card(on + out_way * (window + 1))) return std::nullopt;
        const Point tangent = seen_at(table_.camera, on + along_way * 1.2, height) - seen_at(table_.camera, on, height);
        std::vector<std::array<double, 3>> profile(static_cast<std::size_t>(2 * n + 1));
        // a straight line on the table is nearly one in the picture over this little
        const Point low = seen_at(table_.camera, on - out_way * (n * fine), height), mid = seen_at(table_.camera, on, height),
                    high = seen_at(table_.camera, on + out_way * (n * fine), height);
        const double w = photo_.image.width, h = photo_.image.height;
        const auto outside = [&](Point p) { return p.x < 1 || p.y < 1 || p.x > w - 1 || p.y > h - 1; };
        if (outside(mid) || outside(high) || outside(low)) return std::nullopt;
        for (int i = -n; i <= n; ++i) {
            const double t = static_cast<double>(i) / n;
            const Point p = mid + (high - low) * (t / 2) + (high + low - mid * 2) * (t * t / 2);
            profile[static_cast<std::size_t>(i + n)] = colour(p, tangent);
        }
        // sums before each place, to compare the means of windows
        std::vector<std::array<double, 3>> sums(profile.size() + 1);
        for (std::size_t i = 0; i < profile.size(); ++i)
            for (std::size_t c = 0; c < 3; ++c) sums[i + 1][c] = sums[i][c] + profile[i][c];
        const int span = std::max(2, static_cast<int>(std::lround(window / fine)));
        const auto step_at = [&](int i) {  // inside less outside, at the boundary before sample i
            std::array<double, 3> out{};
            for (std::size_t c = 0; c < 3; ++c)
                out[c] = (2 * sums[static_cast<std::size_t>(i)][c] - sums[static_cast<std::size_t>(i - span)][c] -
                          sums[static_cast<std::size_t>(i + span)][c]) /
                         span;
            return out;
        };
        const int thin = std::max(1, static_cast<int>(std::lround(0.5 / fine)));
        const auto darkness = [&](int i) {  // of a thin line about there against both sides
            double line = 0, sides = 0;
            const int wide = std::min(span, 4 * thin);
            for (std::size_t c = 0; c < 3; ++c) {
                const auto sum = [&](int from, int to) {
                    return sums[static_cast<std::size_t>(to)][c] - sums[static_cast<std::size_t>(from)][c];
                };
                line += sum(i - thin, i + thin) / (2 * thin);
                sides += std::min(sum(i - wide - thin, i - thin), sum(i + thin, i + wide + thin)) / wide;
            }
            return std::max(0.0, sides - line);
        };
        const auto strength = [&](int i) {
            if (dark) return darkness(i);
            const auto d = step_at(i);
            const double size = std::sqrt(d[0] * d[0] + d[1] * d[1] + d[2] * d[2]);
            if (inner >= 0 || contrast_ < 25 || any_step_) return size;
            return std::max(0.0, d[0] * apart_[0] + d[1] * apart_[1] + d[2] * apart_[2]);
        };
        const int last = static_cast<int>(profile.size());
        std::vector<double> rises(static_cast<std::size_t>(last) + 1, 0);
        double most = 0;
        const int side = dark ? std::min(span, 4 * thin) + thin : span;
        for (int i = side; i + side <= last; ++i) {
            rises[static_cast<std::size_t>(i)] = strength(i);
            most = std::max(most, rises[static_cast<std::size_t>(i)]);
        }
        const double least = dark ? 9 : inner >= 0 ? 3 : std::max(6.0, 0.22 * contrast_);
        if (most < least) return std::nullopt;
        double best_score = 0, at = 0;
        bool any = false;
        for (int i = side + 1; i + side + 1 <= last; ++i) {
            const double before = rises[static_cast<std::size_t>(i) - 1], here = rises[static_cast<std::size_t>(i)],
                         after = rises[static_cast<std::size_t>(i) + 1];
            if (here < before || here <= after || here < least || here < 0.35 * most) continue;
            const double bend = before - 2 * here + after;
            const double s = (i - n - 0.5 + (std::abs(bend) > 1e-9 ? 0.5 * (before - after) / bend : 0)) * fine;
            if (std::abs(s) > reach) continue;
            // into an open rim the inside is seen, of any colour: what ends the cup lies beyond the lip
            const double beyond = any_step_ ? std::exp(0.8 * s / reach) : 1;
            const double score = here * beyond * std::exp(-0.5 * s * s / (0.45 * reach * 0.45 * reach));
            if (score > best_score) {
                best_score = score;
                at = s;
                any = true;
            }
        }
        if (!any) return std::nullopt;
        return Seen{near, normal, at, inner, false};
    }
};

}  // namespace

EdgesSeen edges_near(const Photo& photo, const TableSeen& table, const Silhouette& cells, const BlankAsked& asked, const PanelGuess& guess,
                     const Lines& lines, const std::vector<bool>& with, double reach) {
    return Edges(photo, table, cells, asked, lines.any_step).find(guess, lines, with, reach);
}

}  // namespace orthema::vision
