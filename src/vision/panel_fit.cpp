#include "vision/panel_fit.h"

#include <Eigen/Cholesky>
#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace orthema::vision {

std::vector<Ring> seen_outline(const BlankAsked& asked, const Measures& measures, const Lying& lying) {
    Region seen = lying_panel(asked.family, measures, asked.face, asked.other_side, lying).outline;
    if (family_build(asked.family) == Build::upper_body && asked.face == Face::front)
        seen = unite(seen, lying_panel(asked.family, measures, Face::back, asked.other_side, lying).outline);
    std::vector<Ring> out;
    for (const Polygon& p : seen) {
        out.push_back(p.outer);
        out.insert(out.end(), p.holes.begin(), p.holes.end());
    }
    return out;
}

namespace {

/// Within what a search begins: the chart's figure may be off by so much, one standard deviation.
double usual_doubt(double mm) { return 0.05 * mm + 6; }

/// Whether a point lies on a right half's line or its mirror.
bool on_line(Point q, const Ring& right) {
    q.x = std::abs(q.x);
    for (std::size_t i = 0; i + 1 < right.size(); ++i) {
        const Point d = right[i + 1] - right[i];
        const double t = std::clamp(dot(q - right[i], d) / std::max(1e-9, dot(d, d)), 0.0, 1.0);
        if (norm(q - right[i] - d * t) < 0.3) return true;
    }
    return false;
}

/// Lines within the outline: the edge of the front's rib over the inside of the back, and the seam that joins it to the body.
std::vector<Ring> collar_lines(const BlankAsked& asked, const Panel& panel) {
    if (family_build(asked.family) != Build::upper_body || asked.face != Face::front || has_hood(asked.family) || panel.rib.empty())
        return {};
    Ring edge;
    for (const Polygon& p : panel.rib)
        for (const Point& q : p.outer)
            if (std::abs(q.x) < panel.hps.x * 0.8 && q.y > 1 && q.y < panel.top_y - 2 && !on_line(q, panel.neck_edge)) edge.push_back(q);
    std::sort(edge.begin(), edge.end(), [](Point a, Point b) { return a.x < b.x; });
    edge.erase(std::unique(edge.begin(), edge.end(), [](Point a, Point b) { return std::abs(a.x - b.x) < 0.5; }), edge.end());
    Ring seam = reversed_mirror(panel.neck_edge);
    seam.insert(seam.end(), panel.neck_edge.begin() + 1, panel.neck_edge.end());
    return {edge, seam};
}

/// Stitched seams that say where measures end: the armholes, where a sleeve is sewn on.
std::vector<Ring> stitched_lines(const BlankAsked& asked, const Panel& panel) {
    // a long sleeve leaves the shoulder nearly straight: there a crease beside the seam would be believed
    if (family_build(asked.family) != Build::upper_body || !has_sleeves(asked.family) || is_long_sleeved(asked.family) || !panel.pit_y)
        return {};
    Ring armhole;
    for (const Point& p : panel.right_edge)
        if (p.y >= panel.shoulder_point.y - 1e-9 && p.y <= *panel.pit_y + 1e-9 && p.x > panel.hps.x) armhole.push_back(p);
    if (armhole.size() < 3) return {};
    return {armhole, mirrored_ring(armhole)};
}

struct Lines {
    std::vector<Ring> outline;  ///< closed
    std::vector<Ring> inner;    ///< open, each by itself
    std::size_t stitched = 0;   ///< index of the first of `inner` that is a dark line rather than a step
};

/// The figures that are sought, each as a number of about one.
class Shape {
public:
    Shape(const BlankAsked& asked, const PanelGuess& guess) : asked_(asked), guess_(guess) {
        const Lines before = lines(guess);
        for (const Measure m : family_measures(asked.family)) {
            const double mm = measure_mm(guess.measures, m);
            if (mm <= 0) continue;
            PanelGuess other = guess;
            other.measures[m].value = Length::from_mm(mm + 3);
            const Lines after = lines(other);
            if (moved(before.outline, after.outline) || moved(before.inner, after.inner)) {
                measures_.push_back(m);
                // what is sought is far from the chart only where the chart is wrong
                doubts_.push_back(usual_doubt(measure_mm(asked.expected, m)));
            }
        }
        sleeves_ = has_sleeves(asked.family) && family_build(asked.family) == Build::upper_body;
    }
    [[nodiscard]] long count() const { return 3 + (sleeves_ ? 2 : 0) + static_cast<long>(measures_.size()); }
    [[nodiscard]] const std::vector<Measure>& measures() const { return measures_; }
    [[nodiscard]] long first_measure() const { return 3 + (sleeves_ ? 2 : 0); }
    [[nodiscard]] double unit_of(std::size_t k) const { return doubts_[k]; }
    [[nodiscard]] Eigen::VectorXd start() const {
        Eigen::VectorXd v = Eigen::VectorXd::Zero(count());
        for (std::size_t k = 0; k < measures_.size(); ++k)
            v[first_measure() + static_cast<long>(k)] =
                (measure_mm(guess_.measures, measures_[k]) - measure_mm(asked_.expected, measures_[k])) / doubts_[k];
        return v;
    }
    [[nodiscard]] PanelGuess at(const Eigen::VectorXd& v) const {
        PanelGuess out = guess_;
        out.at = guess_.at + Point{v[0], v[1]} * 10;
        out.angle = guess_.angle + v[2] * 0.03;
        if (sleeves_) out.lying = {guess_.lying.right_sleeve + v[3] * 0.2, guess_.lying.left_sleeve + v[4] * 0.2};
        for (std::size_t k = 0; k < measures_.size(); ++k)
            out.measures[measures_[k]].value = Length::from_mm(
                std::max(1.0, measure_mm(asked_.expected, measures_[k]) + doubts_[k] * v[first_measure() + static_cast<long>(k)]));
        return out;
    }
    [[nodiscard]] Lines lines(const PanelGuess& g) const {
        const Panel panel = lying_panel(asked_.family, g.measures, asked_.face, asked_.other_side, g.lying);
        Lines out{seen_outline(asked_, g.measures, g.lying), collar_lines(asked_, panel), 0};
        out.stitched = out.inner.size();
        for (Ring& r : stitched_lines(asked_, panel)) out.inner.push_back(std::move(r));
        return out;
    }

private:
    const BlankAsked& asked_;
    PanelGuess guess_;
    std::vector<Measure> measures_;
    std::vector<double> doubts_;
    bool sleeves_ = false;

    /// Whether any point of one lies off the other.
    static bool moved(const std::vector<Ring>& a, const std::vector<Ring>& b) {
        if (a.size() != b.size()) return true;
        for (std::size_t k = 0; k < a.size(); ++k) {
            if (a[k].size() != b[k].size()) return true;
            for (std::size_t i = 0; i < a[k].size(); ++i)
                if (norm(a[k][i] - b[k][i]) > 0.05) return true;
        }
        return false;
    }
};

struct Seen {
    Point near;      ///< a point of the outline, in the panel's frame
    Point normal;    ///< of the outline there, outwards
    double off = 0;  ///< how far outwards of it the edge lies, mm
    int inner = -1;  ///< index of the line within, or −1: the outline
    bool by_hand = false;
    double along = 0;  ///< mm from the first along the outline
};

Point turned(Point p, double angle) {
    const double c = std::cos(angle), s = std::sin(angle);
    return {c * p.x - s * p.y, s * p.x + c * p.y};
}

/// How far from `on` along `normal` the nearest crossing with the lines lies; nothing within reach.
std::optional<double> crossing(const std::vector<Ring>& lines, bool closed, Point on, Point normal, double reach) {
    std::optional<double> best;
    for (const Ring& line : lines) {
        const std::size_t n = line.size();
        for (std::size_t i = 0; i + (closed ? 0 : 1) < n; ++i) {
            const Point a = line[i] - on, b = line[i + 1 < n ? i + 1 : 0] - on;
            const double ca = cross(normal, a), cb = cross(normal, b);
            if ((ca > 0) == (cb > 0)) continue;
            const double t = ca / (ca - cb), s = dot(normal, a) + t * (dot(normal, b) - dot(normal, a));
            if (std::abs(s) <= reach && (!best || std::abs(s) < std::abs(*best))) best = s;
        }
    }
    return best;
}

class Edges {
public:
    Edges(const Photo& photo, const TableSeen& table, const Silhouette& cells, const BlankAsked& asked)
        : photo_(photo), table_(table), cells_(cells), asked_(asked) {
        for (std::size_t c = 0; c < 3; ++c) apart_[c] = cells.cloth[c] - cells.table[c];
        const double size = std::sqrt(apart_[0] * apart_[0] + apart_[1] * apart_[1] + apart_[2] * apart_[2]);
        contrast_ = size;
        for (double& a : apart_) a /= std::max(1.0, size);
        px_mm_ = table.cards[0].px_a_mm;
    }

    /// Edges within `reach` mm of the outline, and of those lines within that are asked for.
    [[nodiscard]] std::vector<Seen> find(const PanelGuess& g, const Lines& lines, const std::vector<bool>& with, double reach) {
        asked_within_.assign(lines.inner.size(), 0);
        asked_count_ = 0;
        std::vector<Seen> out;
        double total = 0;
        for (const Ring& r : lines.outline) total += perimeter({Polygon{r, {}}});
        const double step = std::clamp(total / 320, 1.5, 8.0);
        double along = 0;
        for (const Ring& ring : lines.outline) walk(g, ring, true, -1, step, reach, along, out);
        for (std::size_t k = 0; k < lines.inner.size(); ++k)
            if (lines.inner[k].size() > 2 && k < with.size() && with[k])
                walk(g, lines.inner[k], false, static_cast<int>(k), std::min(step, 3.0), std::min(reach, k < lines.stitched ? 7.0 : 10.0),
                     along, out, k >= lines.stitched);
        return out;
    }
    /// How many places of the outline, and of each line within, were looked at.
    [[nodiscard]] int asked_for() const { return asked_count_; }
    [[nodiscard]] const std::vector<int>& asked_within() const { return asked_within_; }

private:
    const Photo& photo_;
    const TableSeen& table_;
    const Silhouette& cells_;
    const BlankAsked& asked_;
    std::array<double, 3> apart_{};
    double contrast_ = 0, px_mm_ = 1;
    int asked_count_ = 0;
    std::vector<int> asked_within_;

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

    void walk(const PanelGuess& g, const Ring& line, bool closed, int inner, double step, double reach, double& along,
              std::vector<Seen>& out, bool dark = false) {
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
                ++(inner < 0 ? asked_count_ : asked_within_[static_cast<std::size_t>(inner)]);
                const Point near = a + way * next;
                if (auto s = look(g, near, normal, way, inner, reach, dark)) {
                    s->along = along + next;
                    out.push_back(*s);
                }
            }
            next -= length;
            along += length;
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
            if (inner >= 0 || contrast_ < 25) return size;
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
            const double score = here * std::exp(-0.5 * s * s / (0.45 * reach * 0.45 * reach));
            if (score > best_score) {
                best_score = score;
                at = s;
                any = true;
            }
        }
        if (!any) return std::nullopt;
        return Seen{near, normal, at, inner, false, 0};
    }
};

/// By how much more neighbours' errors agree than if each were its own: what a row of them is worth is less by this.
double agreement(const std::vector<Seen>& seen, const std::vector<double>& off) {
    double square = 0;
    for (const double o : off) square += o * o;
    square /= static_cast<double>(std::max<std::size_t>(1, off.size()));
    if (square <= 0) return 1;
    double sum = 1;
    for (std::size_t lag = 1; lag < 25; ++lag) {
        double with = 0;
        std::size_t n = 0;
        for (std::size_t i = 0; i + lag < off.size(); ++i)
            if (seen[i].inner < 0 && seen[i + lag].inner < 0) {
                with += off[i] * off[i + lag];
                ++n;
            }
        const double r = n > 0 ? with / static_cast<double>(n) / square : 0;
        if (r < 0.05) break;
        sum += 2 * r;
    }
    return std::clamp(sum, 1.0, 25.0);
}

/// Tapes of a panel by measure, on whatever face they are taken.
std::map<Measure, TapeLine> tapes_of(const BlankAsked& asked, const PanelGuess& g) {
    std::map<Measure, TapeLine> out;
    const auto add = [&](const Panel& p) {
        for (const TapeLine& t : p.tapes) out.emplace(t.measure, t);
    };
    add(lying_panel(asked.family, g.measures, asked.face, asked.other_side, g.lying));
    if (family_build(asked.family) == Build::upper_body) add(lying_panel(asked.family, g.measures, Face::back, asked.other_side, g.lying));
    return out;
}

/// Variance of a tape's length from what is not known of the camera, mm².
double camera_variance(const TableSeen& table, double height, Point a, Point b) {
    const Point pa = seen_at(table.camera, a, height), pb = seen_at(table.camera, b, height);
    const CameraVector v = figures_of(table.camera);
    CameraVector slope;
    for (int k = 0; k < camera_figures; ++k) {
        const double h = k < 2 ? 1e-5 : k < 5 ? 1e-6 : 1e-3;
        const auto length = [&](double by) {
            CameraVector w = v;
            w[k] += by;
            const CameraPose c = camera_of(w, table.camera.width, table.camera.height);
            return norm(on_table(c, pb, height) - on_table(c, pa, height));
        };
        slope[k] = (length(h) - length(-h)) / (2 * h);
    }
    const Eigen::Map<const Eigen::Matrix<double, camera_figures, camera_figures>> cov(table.covariance.data());
    return std::max(0.0, slope.dot(cov * slope));
}

constexpr double edge_mm = 0.6;  ///< that an edge may lie off, one standard deviation

struct Drawn {
    Eigen::VectorXd step;
    Eigen::MatrixXd covariance;
    std::vector<double> off;  ///< of each edge afterwards, mm
};

/// The figures' step that brings the outline to the edges: robust linear least squares on how far each of its points moves outwards with
/// each figure, which is measured on panels made with a little more and a little less.
Drawn draw_nearer(const Shape& shape, const Eigen::VectorXd& v, const std::vector<Seen>& seen, double reach) {
    const long n = static_cast<long>(seen.size()), m = shape.count();
    Eigen::MatrixXd moves = Eigen::MatrixXd::Zero(n, m);
    for (long k = 0; k < m; ++k) {
        const double h = k >= 3 && k < shape.first_measure() ? 0.015 : 0.05;  // a long sleeve swings far
        std::array<Lines, 2> lines;
        std::array<PanelGuess, 2> guesses;
        for (const std::size_t side : {0u, 1u}) {
            Eigen::VectorXd w = v;
            w[k] += side == 0 ? -h : h;
            guesses[side] = shape.at(w);
            if (k >= 3) lines[side] = shape.lines(guesses[side]);
        }
        const PanelGuess now = shape.at(v);
        for (long i = 0; i < n; ++i) {
            const Seen& s = seen[static_cast<std::size_t>(i)];
            if (k < 3) {  // the panel as it is, elsewhere
                const auto there = [&](const PanelGuess& g) { return turned(g.at + turned(s.near, g.angle) - now.at, -now.angle); };
                moves(i, k) = dot(there(guesses[1]) - there(guesses[0]), s.normal) / (2 * h);
                continue;
            }
            std::array<std::optional<double>, 2> at;
            for (const std::size_t side : {0u, 1u}) {
                const auto inner = static_cast<std::size_t>(std::max(0, s.inner));
                if (s.inner >= 0 && inner >= lines[side].inner.size()) continue;
                at[side] = s.inner < 0 ? crossing(lines[side].outline, true, s.near, s.normal, 12)
                                       : crossing({lines[side].inner[inner]}, false, s.near, s.normal, 12);
            }
            if (at[0] && at[1] && std::abs(*at[1] - *at[0]) < 8) moves(i, k) = (*at[1] - *at[0]) / (2 * h);
        }
    }
    Eigen::VectorXd weight = Eigen::VectorXd::Ones(n), want(n);
    for (long i = 0; i < n; ++i) want[i] = seen[static_cast<std::size_t>(i)].off;
    Drawn out;
    Eigen::MatrixXd normal;
    Eigen::VectorXd left;
    for (int pass = 0; pass < 8; ++pass) {
        normal = Eigen::MatrixXd::Zero(m, m);
        Eigen::VectorXd right = Eigen::VectorXd::Zero(m);
        for (long i = 0; i < n; ++i) {
            const double w = weight[i] / (edge_mm * edge_mm) * (seen[static_cast<std::size_t>(i)].by_hand ? 30 : 1);
            normal += w * moves.row(i).transpose() * moves.row(i);
            right += w * want[i] * moves.row(i).transpose();
        }
        for (long k = 3; k < m; ++k) {  // the chart, and how sleeves are drawn: weakly
            const double w = k < shape.first_measure() ? 0.1 : 1;
            normal(k, k) += w;
            right[k] -= w * v[k];
        }
        out.step = normal.ldlt().solve(right);
        left = want - moves * out.step;
        std::vector<double> sizes;
        for (long i = 0; i < n; ++i) sizes.push_back(std::abs(left[i]));
        std::nth_element(sizes.begin(), sizes.begin() + static_cast<long>(sizes.size() / 2), sizes.end());
        const double scale = std::clamp(2.2 * 1.4826 * sizes[sizes.size() / 2], 1.0, std::max(1.0, reach));
        for (long i = 0; i < n; ++i) {
            const double u = left[i] / scale;
            weight[i] = seen[static_cast<std::size_t>(i)].by_hand ? 1 : 1 / std::pow(1 + u * u / 4, 2);
        }
    }
    out.covariance = normal.ldlt().solve(Eigen::MatrixXd::Identity(m, m));
    out.off.assign(left.data(), left.data() + n);
    return out;
}

/// Leaves out lines within the outline that are not seen for most of their length, or not where one line of the family's shape could run.
void keep_sound(std::vector<bool>& with, std::size_t stitched, const std::vector<int>& asked, const std::vector<Seen>& seen,
                const std::vector<double>& off, double near) {
    for (std::size_t k = 0; k < with.size() && k < asked.size(); ++k) {
        int found = 0, fit = 0;
        for (std::size_t i = 0; i < seen.size(); ++i)
            if (seen[i].inner == static_cast<int>(k)) {
                ++found;
                if (std::abs(off[i]) < near) ++fit;
            }
        if (found < 0.6 * asked[k] || fit < 0.8 * found) with[k] = false;
    }
    // of a pair that mirror each other neither is believed alone
    for (std::size_t k = stitched; k + 1 < with.size(); k += 2) with[k] = with[k + 1] = with[k] && with[k + 1];
}

/// A point that somebody put on the outline, in the panel's frame, as an edge.
std::optional<Seen> hand_point(const Lines& lines, Point on) {
    std::optional<Seen> out;
    double least = 60;
    for (const Ring& r : lines.outline)
        for (std::size_t k = 0; k < r.size(); ++k) {
            const Point a = r[k], d = r[(k + 1) % r.size()] - a;
            const double length = norm(d);
            if (length < 1e-9) continue;
            const double t = std::clamp(dot(on - a, d) / (length * length), 0.0, 1.0);
            const Point near = a + d * t;
            if (norm(on - near) >= least) continue;
            least = norm(on - near);
            const Point normal = Point{d.y, -d.x} * ((signed_area(r) > 0 ? 1 : -1) / length);
            out = Seen{near, normal, dot(on - near, normal), -1, true, 0};
        }
    return out;
}

/// Share of the cells' rim that lies well off the outline as found (pixels).
double beside(const Silhouette& cells, const std::vector<Ring>& outline, const TableSeen& table, double height) {
    std::vector<Ring> rings;
    for (const Ring& r : outline) {
        rings.emplace_back();
        for (const Point& p : r) rings.back().push_back(on_table(table.camera, p, height));
    }
    const auto is = [&](int x, int y) {
        return x >= 0 && y >= 0 && x < cells.width && y < cells.height && cells.cells[cells.index(x, y)] != 0;
    };
    const double far = std::max(7.0, 2.2 * cells.cell);
    int rim = 0, off = 0;
    for (int y = 0; y < cells.height; ++y)
        for (int x = 0; x < cells.width; ++x) {
            if (!is(x, y) || (is(x - 1, y) && is(x + 1, y) && is(x, y - 1) && is(x, y + 1))) continue;
            ++rim;
            const Point p{cells.area.x0 + (x + 0.5) * cells.cell, cells.area.y0 + (y + 0.5) * cells.cell};
            double least = 1e9;
            for (const Ring& r : rings)
                for (std::size_t k = 0; k < r.size(); ++k) {
                    const Point d = r[(k + 1) % r.size()] - r[k];
                    const double t = std::clamp(dot(p - r[k], d) / std::max(1e-9, dot(d, d)), 0.0, 1.0);
                    least = std::min(least, norm(p - r[k] - d * t));
                }
            if (least > far) ++off;
        }
    return off / static_cast<double>(std::max(1, rim));
}

}  // namespace

Result<BlankSeen> fine_fit(const Photo& photo, const TableSeen& table, const Silhouette& cells, const BlankAsked& asked, PanelGuess guess,
                           double wide, const Task& task) {
    Edges edges(photo, table, cells, asked);
    const Rect box = bounds(lying_panel(asked.family, guess.measures, asked.face, asked.other_side, guess.lying).outline);
    const double size = std::sqrt(box.width() * box.height());
    const double far = std::clamp(0.05 * size, 4.0, 28.0), close = std::max(2.5, 0.12 * far);
    const Shape shape(asked, guess);
    Eigen::VectorXd v = shape.start();
    std::vector<Seen> seen;
    Drawn drawn;
    std::vector<double> off;
    int wanted = 0;
    // the outline first, then what lies within it, then only those lines within that agree with themselves
    std::vector<bool> with;
    std::size_t stitched_from = 0;
    int round = 0;
    for (const double reach :
         {wide * far, (1 + wide) / 2 * far, far, 0.6 * far, 0.4 * far, 0.4 * far, std::max(close, 0.25 * far), close, close, close}) {
        ++round;
        if (task.stopped()) return Error{"Stopped."};
        const PanelGuess now = shape.at(v);
        const Lines lines = shape.lines(now);
        stitched_from = lines.stitched;
        if (round == 5) with.assign(lines.inner.size(), true);
        seen = edges.find(now, lines, with, reach);
        wanted = edges.asked_for();
        const auto rim = static_cast<double>(std::count_if(seen.begin(), seen.end(), [](const Seen& s) { return s.inner < 0; }));
        if (rim < 24 || rim < 0.5 * wanted)
            return Error{
                "The blank's edges are not seen well enough against the table: lay it on a table of another colour, in even light."};
        for (const Point& p : asked.on_outline) {  // by hand: firm, and what was seen beside it was wrong
            const Point on = turned(on_table(table.camera, p, asked.thickness) - now.at, -now.angle);
            const auto firm = hand_point(lines, on);
            if (!firm) continue;
            std::erase_if(seen, [&](const Seen& s) { return !s.by_hand && s.inner < 0 && norm(s.near - firm->near) < 0.08 * size; });
            seen.push_back(*firm);
        }
        drawn = draw_nearer(shape, v, seen, reach);
        v += drawn.step;
        off = drawn.off;
        if (round >= 7) keep_sound(with, lines.stitched, edges.asked_within(), seen, off, std::max(0.7, 0.0015 * size));
    }
    // stitched lines are believed where the outline alone does not say otherwise: a crease beside a seam looks like one
    std::vector<Seen> plain_seen = seen;
    std::erase_if(plain_seen, [&](const Seen& s) { return s.inner >= 0 && static_cast<std::size_t>(s.inner) >= stitched_from; });
    if (plain_seen.size() < seen.size()) {
        Drawn plain = draw_nearer(shape, v, plain_seen, close);
        const double worth = agreement(plain_seen, plain.off);
        for (long k = shape.first_measure(); k < shape.count(); ++k)
            if (std::abs(plain.step[k]) > 3 * std::sqrt(plain.covariance(k, k) * worth)) {
                v += plain.step;
                off = plain.off;
                seen = plain_seen;
                drawn = std::move(plain);
                break;
            }
    }
    const PanelGuess g = shape.at(v);
    BlankSeen out;
    out.at = g.at;
    out.angle = g.angle;
    out.lying = g.lying;
    std::vector<double> sizes;
    for (std::size_t i = 0; i < seen.size(); ++i)
        if (seen[i].inner < 0 && !seen[i].by_hand) sizes.push_back(std::abs(off[i]));
    std::sort(sizes.begin(), sizes.end());
    double square = 0;  // of the nine tenths that are not far out
    const std::size_t most = sizes.size() * 9 / 10;
    for (std::size_t i = 0; i < most; ++i) square += sizes[i] * sizes[i];
    out.residual_mm = std::sqrt(square / static_cast<double>(std::max<std::size_t>(1, most))) * 1.2;
    out.seen = static_cast<double>(sizes.size()) / std::max(1, wanted);
    for (const Ring& ring : shape.lines(g).outline) {
        out.outline.emplace_back();
        for (const Point& p : ring) out.outline.back().push_back(seen_at(table.camera, g.at + turned(p, g.angle), asked.thickness));
    }
    // as no piece of that kind is cut: the outline has found something else
    const Measure main = main_measure(asked.family);
    const double factor = measure_mm(g.measures, main) / std::max(1.0, measure_mm(asked.expected, main));
    const bool odd = std::any_of(shape.measures().begin(), shape.measures().end(), [&](Measure m) {
        const double likely = factor * measure_mm(asked.expected, m);
        return std::abs(measure_mm(g.measures, m) - likely) > 4 * usual_doubt(likely);
    });
    const double off_cells = beside(cells, out.outline, table, asked.thickness);
    if (odd || out.residual_mm > std::max(2.5, 0.012 * size) || (asked.on_outline.empty() && off_cells > (out.seen < 0.85 ? 0.03 : 0.13))) {
        out.refused = "The outline does not lie on this blank: smooth it, choose its kind and size, or drag the outline to where it runs.";
        return out;
    }
    const double grown = agreement(seen, off) * std::max(0.15, out.residual_mm * out.residual_mm / (edge_mm * edge_mm));
    const std::map<Measure, TapeLine> tapes = tapes_of(asked, g);
    for (std::size_t k = 0; k < shape.measures().size(); ++k) {
        const Measure m = shape.measures()[k];
        const auto tape = tapes.find(m);
        if (tape == tapes.end()) continue;
        const long at = shape.first_measure() + static_cast<long>(k);
        const double spread = shape.unit_of(k);  // of the search
        const double own = drawn.covariance(at, at);
        if (own > 0.25) continue;  // the picture says little of it
        const Point a = g.at + turned(tape->second.from, g.angle), b = g.at + turned(tape->second.to, g.angle);
        const double mm = measure_mm(g.measures, m);
        const double cloth = mm * 0.5 / std::max(100.0, std::abs(table.camera.move[2]));  // half a millimetre nearer or farther
        const double variance = own * spread * spread * grown +
                                camera_variance(table, asked.thickness, a, b) * std::pow(tape->second.share, -2) + cloth * cloth +
                                0.35 * 0.35;
        const double error = 1.96 * std::sqrt(variance);
        if (error > std::max(4.0, 0.01 * mm)) continue;  // a tape does better
        out.figures[m] = {mm, error, seen_at(table.camera, a, asked.thickness), seen_at(table.camera, b, asked.thickness)};
    }
    if (out.figures.empty()) return Error{"The picture says too little of this blank's figures: go nearer, in even light."};
    return out;
}

Result<TableSeen> find_table(const Photo& photo, const Task& task) {
    (void)task;
    if (photo.image.width < 300 || photo.image.height < 300)
        return Error{"The picture is too small to measure from: take it with at least two million pixels."};
    return table_of(find_markers(grey_of(photo.image), 2), photo.image.width, photo.image.height, photo.focal_px);
}

Result<BlankSeen> measure_blank(const Photo& photo, const TableSeen& table, const BlankAsked& asked, const Task& task) {
    if (family_build(asked.family) == Build::wrap)
        return Error{"A wall is measured with a tape round it: its figures cannot be taken from a photograph."};
    double expected = 0;
    for (const Ring& r : seen_outline(asked, asked.expected, {})) expected += signed_area(r);
    const auto cells = silhouette(photo, table, asked.thickness, std::abs(expected));
    if (!cells) return Error{cells.sentence()};
    // from where it lies best, then with a wider look about, then from where it lies nearly as well
    std::optional<Result<BlankSeen>> best;
    for (const CoarseFit& coarse : coarse_fits(*cells, asked))
        for (const double wide : {1.0, 1.7}) {
            if (coarse.overlap < 0.72 || task.stopped()) continue;
            auto found = fine_fit(photo, table, *cells, asked, coarse.guess, wide, task);
            if (found && found->refused.empty()) return found;
            if (!best || (!*best && found)) best = std::move(found);
        }
    if (best) return *best;
    return Error{"What lies there has not the shape of this kind of blank: smooth it, choose its kind, or take other things away."};
}

}  // namespace orthema::vision
