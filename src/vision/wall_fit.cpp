#include "vision/wall_fit.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "vision/doubt.h"
#include "vision/panel_fit.h"
#include "vision/squares.h"

namespace orthema::vision {

namespace {

constexpr double usual_gap = 1.5;  ///< between a standing cup and the card's plane, mm: it may be off by as much

/// The wall, and over which point of the table its rim's middle lies; its base lies `angle` from straight below that.
struct WallLies {
    CupWall wall;
    Point rim;
    double angle = 0;
};

class Side {
public:
    Side(const TableSeen& table, const BlankAsked& asked) : eye_(eye_of(table.camera)), standing_(asked.standing) {
        const CupWall wall = *wall_of(asked.family, asked.expected);
        height_ =
            standing_ ? std::max(wall.top_diameter, wall.bottom_diameter) / 2 + usual_gap : (wall.top_diameter + wall.bottom_diameter) / 4;
    }
    /// Of the plane that the outline is drawn in, above the table, mm.
    [[nodiscard]] double height() const { return height_; }

    /// Middles of rim and base.
    [[nodiscard]] std::array<Raised, 2> ends(const WallLies& w) const {
        const double top = w.wall.top_diameter / 2, bottom = w.wall.bottom_diameter / 2, lean = lean_of(w.wall);
        const Point base = w.rim + along(w) * (w.wall.height * std::cos(lean));
        if (standing_) return {Raised{w.rim, std::max(top, bottom) + usual_gap}, Raised{base, std::max(top, bottom) + usual_gap}};
        return {Raised{w.rim, top * std::cos(lean)}, Raised{base, bottom * std::cos(lean)}};
    }
    [[nodiscard]] static Point along(const WallLies& w) { return turned({0, 1}, w.angle); }
    [[nodiscard]] static Point across(const WallLies& w) { return turned({1, 0}, w.angle); }

    /// What is seen of it, in the plane at height().
    [[nodiscard]] Ring outline(const WallLies& w) const {
        const double lean = lean_of(w.wall);
        const auto middles = ends(w);
        Ring all;
        constexpr int steps = 60;
        for (const std::size_t end : {0u, 1u}) {
            // corners as far outside the circle as edges run within
            const double r = (end == 0 ? w.wall.top_diameter : w.wall.bottom_diameter) / 2 * (1 + M_PI * M_PI / (4.0 * steps * steps));
            for (int k = 0; k < steps; ++k) {
                const double t = 2 * M_PI * k / steps, up = r * std::sin(t);
                const Point on = middles[end].on + across(w) * (r * std::cos(t)) + along(w) * (std::sin(lean) * up);
                const double high = middles[end].height + std::cos(lean) * up;
                all.push_back(eye_.over + (on - eye_.over) * ((eye_.height - height_) / (eye_.height - high)));
            }
        }
        return convex_hull({Polygon{all, {}}});
    }

private:
    /// On its side a tapered wall lies on a line of its surface, and its axis leans: the rim is the higher end where it is wider.
    [[nodiscard]] double lean_of(const CupWall& w) const {
        return standing_ ? 0 : std::asin((w.top_diameter - w.bottom_diameter) / 2 / w.slant());
    }
    Eye eye_;
    bool standing_;
    double height_ = 0;
};

/// A convex outline as its edges' lines: how far outside the farthest of them a point lies, mm; negative: inside. Beside a corner that is
/// a little less than the distance, but edges are not sought there.
class Fence {
public:
    explicit Fence(const Ring& ring) {
        const double way = signed_area(ring) > 0 ? 1 : -1;
        for (std::size_t k = 0; k < ring.size(); ++k) {
            const Point a = ring[k], d = ring[(k + 1) % ring.size()] - a;
            const double length = norm(d);
            if (length < 1e-9) continue;
            const Point out = Point{d.y, -d.x} * (way / length);
            lines_.push_back({out, dot(out, a)});
        }
    }
    [[nodiscard]] double outside(Point p) const {
        double most = -1e9;
        for (const Line& l : lines_) most = std::max(most, dot(l.out, p) - l.at);
        return most;
    }

private:
    struct Line {
        Point out;
        double at = 0;
    };
    std::vector<Line> lines_;
};

class Sought {
public:
    explicit Sought(const BlankAsked& asked) : expected_(*wall_of(asked.family, asked.expected)), tapered_(is_tapered(asked.family)) {}
    [[nodiscard]] long count() const { return tapered_ ? 6 : 5; }
    [[nodiscard]] Eigen::VectorXd of(const WallLies& w) const {
        Eigen::VectorXd v(count());
        v.head<5>() << w.rim.x, w.rim.y, w.angle * turn_unit, w.wall.height, w.wall.top_diameter;
        if (tapered_) v[5] = w.wall.bottom_diameter;
        return v;
    }
    [[nodiscard]] WallLies at(const Eigen::VectorXd& v) const {
        const double top = std::max(5.0, v[4]), high = std::max(5.0, v[3]);
        // no steeper than a wall can be and still lie
        const double bottom = tapered_ ? std::clamp(v[5], std::max(3.0, top - 1.6 * high), top + 1.6 * high) : top;
        return {{top, bottom, high}, {v[0], v[1]}, v[2] / turn_unit};
    }
    /// How far the figures lie from the chart's, in what those may be off.
    void add_doubts(const Eigen::VectorXd& v, Eigen::VectorXd& out, long from) const {
        const std::array<double, 3> chart{expected_.height, expected_.top_diameter, expected_.bottom_diameter};
        for (long k = 3; k < count(); ++k) {
            const double mm = chart[static_cast<std::size_t>(k) - 3];
            out[from + k - 3] = (v[k] - mm) / usual_doubt(mm);
        }
    }
    [[nodiscard]] bool unlikely(const WallLies& w) const {
        const auto far = [](double mm, double chart) { return std::abs(mm - chart) > 4 * usual_doubt(chart); };
        return far(w.wall.height, expected_.height) || far(w.wall.top_diameter, expected_.top_diameter) ||
               far(w.wall.bottom_diameter, expected_.bottom_diameter);
    }

private:
    static constexpr double turn_unit = 100;
    CupWall expected_;
    bool tapered_;
};

/// Drops what lies far off: a handle's edges, a highlight's.
void keep_near(std::vector<Seen>& seen, std::vector<double>& off) {
    if (off.empty()) return;  // points by hand have taken the place of all
    std::vector<double> sizes;
    sizes.reserve(off.size());
    for (const double o : off) sizes.push_back(std::abs(o));
    std::nth_element(sizes.begin(), sizes.begin() + static_cast<long>(sizes.size() / 2), sizes.end());
    const double most = std::max(0.9, 4 * 1.4826 * sizes[sizes.size() / 2]);
    std::vector<Seen> kept;
    std::vector<double> kept_off;
    for (std::size_t i = 0; i < seen.size(); ++i)
        if (seen[i].by_hand || std::abs(off[i]) <= most) {
            kept.push_back(seen[i]);
            kept_off.push_back(off[i]);
        }
    seen = std::move(kept);
    off = std::move(kept_off);
}

struct Found {
    WallLies lies;
    Eigen::MatrixXd covariance;
    std::vector<Seen> seen;
    std::vector<double> off;
    double share = 0;  ///< of the outline where an edge was found that agrees
};

/// Whether a point of the outline is where a handle on that side (1: the viewer's right as drawn, −1: left, 0: there is none) would be.
bool at_handle(Point p, const WallLies& w, int handle) {
    const Point d = p - w.rim;
    const double along = dot(d, Side::along(w)) / w.wall.height;
    return handle != 0 && dot(d, Side::across(w)) * handle > 0 && along > 0.13 && along < 0.87;
}

/// `handle`: the side where it stands out, whose edges are passed over. `any_step`: edges need not be from the cup's colour to the table's.
std::optional<Found> fit(const Photo& photo, const TableSeen& table, const Silhouette& cells, const BlankAsked& asked, const Side& side,
                         const WallLies& from, int handle, bool any_step, const Task& task) {
    BlankAsked in_plane = asked;
    in_plane.thickness = side.height();
    const Sought sought(asked);
    const double size = std::sqrt(from.wall.height * std::max(from.wall.top_diameter, from.wall.bottom_diameter));
    const double far = std::clamp(0.08 * size, 4.0, 20.0), close = 2.5;
    Found out;
    Eigen::VectorXd v = sought.of(from);
    for (const double reach : {far, far, 0.6 * far, 0.6 * far, std::max(close, 0.3 * far), close, close, close}) {
        if (task.stopped()) return std::nullopt;
        const WallLies now = sought.at(v);
        EdgesSeen edges = edges_near(photo, table, cells, in_plane, {}, {{side.outline(now)}, {}, 0, any_step}, {}, reach);
        out.seen = std::move(edges.seen);
        out.share =
            static_cast<double>(std::count_if(out.seen.begin(), out.seen.end(), [](const Seen& s) { return std::abs(s.off) < 0.7; })) /
            std::max(1, edges.asked);
        std::erase_if(out.seen, [&](const Seen& s) { return at_handle(s.near, now, handle); });
        if (out.seen.size() < 24 || static_cast<double>(out.seen.size()) < 0.4 * edges.asked) return std::nullopt;
        std::vector<Point> firm;
        for (const Point& p : asked.on_outline) {
            firm.push_back(on_table(table.camera, p, side.height()));
            std::erase_if(out.seen, [&](const Seen& s) { return norm(s.near - firm.back()) < 0.08 * size; });
        }
        const auto residuals = [&](const Eigen::VectorXd& x, Eigen::VectorXd& r) {
            const Fence fence(side.outline(sought.at(x)));
            const long n = static_cast<long>(out.seen.size()), m = static_cast<long>(firm.size());
            r.resize(n + m + sought.count() - 3);
            for (long i = 0; i < n; ++i) {
                const Seen& s = out.seen[static_cast<std::size_t>(i)];
                r[i] = fence.outside(s.near + s.normal * s.off) / edge_mm;
            }
            for (long i = 0; i < m; ++i) r[n + i] = fence.outside(firm[static_cast<std::size_t>(i)]) / (edge_mm / 6);
            sought.add_doubts(x, r, n + m);
        };
        Solved solved = least_squares(residuals, v, static_cast<int>(out.seen.size()), 1.5, 4, {1e-4});
        const auto offs = [&] {
            out.off.resize(out.seen.size());
            for (std::size_t i = 0; i < out.seen.size(); ++i) out.off[i] = solved.residuals[static_cast<long>(i)] * edge_mm;
        };
        offs();
        if (reach <= close) {
            keep_near(out.seen, out.off);
            solved = least_squares(residuals, solved.figures, static_cast<int>(out.seen.size()), 1.5, 12, {1e-4});
            offs();
        }
        v = solved.figures;
        out.covariance = solved.covariance;
    }
    out.lies = sought.at(v);
    return out;
}

/// Where to begin: as it was found coarsely; about the same middle with the chart's figures, since a shadow or a handle makes what was
/// found too large; and so a quarter turned, since with its handle a wall is about as wide as it is high.
std::array<WallLies, 3> starts(const CupWall& found, const CupWall& chart, const PanelGuess& at, int handle) {
    const WallLies as_found{found, at.at, at.angle};
    const Point middle = as_found.rim + Side::along(as_found) * (found.height / 2);
    std::array<WallLies, 3> out{as_found, WallLies{chart, {}, at.angle}, WallLies{chart, {}, at.angle + M_PI / 2}};
    for (std::size_t k = 1; k < out.size(); ++k) out[k].rim = middle - Side::along(out[k]) * (chart.height / 2);
    if (handle == 0) return out;
    for (WallLies& w : out) w.rim = w.rim - Side::across(w) * (0.06 * handle * w.wall.top_diameter);
    out[0].wall.top_diameter *= 0.93;  // some of it is the handle
    out[0].wall.bottom_diameter *= 0.93;
    return out;
}

double root_mean_square(const std::vector<double>& off) {
    double square = 0;
    for (const double o : off) square += o * o;
    return std::sqrt(square / static_cast<double>(std::max<std::size_t>(1, off.size())));
}

BlankSeen told(const TableSeen& table, const BlankAsked& asked, const Side& side, const Found& found) {
    const WallLies& w = found.lies;
    BlankSeen out;
    out.at = w.rim;
    out.angle = w.angle;
    out.seen = found.share;
    out.residual_mm = root_mean_square(found.off);
    const Ring ring = side.outline(w);
    out.outline.emplace_back();
    for (std::size_t k = 0; k < ring.size(); ++k) {  // straight lines bend in the lens
        const Point a = ring[k], d = ring[(k + 1) % ring.size()] - a;
        const int steps = std::max(1, static_cast<int>(norm(d) / 4));
        for (int i = 0; i < steps; ++i)
            out.outline.back().push_back(seen_at(table.camera, a + d * (static_cast<double>(i) / steps), side.height()));
    }
    // seen all round, or where it is seen it lies exactly: of those that are neither, one in two has taken another edge for an end
    const bool sound = found.share > 0.95 || out.residual_mm < 0.12;
    if (Sought(asked).unlikely(w) || !sound || found.share < 0.84 || out.residual_mm > 0.9) {
        out.refused =
            "The outline does not lie on this cup: lay or stand it as is chosen, its handle to one side, or drag the outline to where it "
            "runs.";
        return out;
    }
    const double grown = agreement(found.seen, found.off) * std::max(0.15, out.residual_mm * out.residual_mm / (edge_mm * edge_mm));
    const double away = std::max(100.0, eye_of(table.camera).height - side.height());
    const auto [rim, base] = side.ends(w);
    const auto add = [&](Measure m, double mm, long at, Raised a, Raised b, double times) {
        const double nearer = mm / times * (asked.standing ? usual_gap : 0.5) / away;
        const double variance = found.covariance(at, at) * grown + camera_variance(table, a, b) + nearer * nearer + looks_mm * looks_mm;
        const double error = 1.96 * std::sqrt(variance) * times;
        if (error > std::max(4.0, 0.02 * mm)) return;  // a tape does better
        out.figures[m] = {mm, error, seen_at(table.camera, a.on, a.height), seen_at(table.camera, b.on, b.height)};
    };
    const auto breadth = [&](const Raised& end, double diameter) {
        const Point half = Side::across(w) * (diameter / 2);
        return std::pair{Raised{end.on - half, end.height}, Raised{end.on + half, end.height}};
    };
    add(Measure::wall_height, w.wall.height, 3, rim, base, 1);
    if (is_tapered(asked.family)) {
        const auto [a, b] = breadth(rim, w.wall.top_diameter);
        add(Measure::top_diameter, w.wall.top_diameter, 4, a, b, 1);
        const auto [c, d] = breadth(base, w.wall.bottom_diameter);
        add(Measure::bottom_diameter, w.wall.bottom_diameter, 5, c, d, 1);
    } else {
        const auto [a, b] = breadth({(rim.on + base.on) * 0.5, rim.height}, w.wall.top_diameter);
        add(Measure::circumference, M_PI * w.wall.top_diameter, 4, a, b, M_PI);
    }
    return out;
}

}  // namespace

Result<BlankSeen> measure_wall(const Photo& photo, const TableSeen& table, const BlankAsked& asked, const Task& task) {
    const CupWall chart = *wall_of(asked.family, asked.expected);
    if (std::min({chart.height, chart.top_diameter, chart.bottom_diameter}) < 5)
        return Error{"This cup's height or diameter is not known even roughly: type it first."};
    const Side side(table, asked);
    const auto cells = silhouette(photo, table, side.height(), seen_area(asked));
    if (!cells) return Error{cells.sentence()};
    std::optional<Found> best;
    const auto rim_less_base = [](const CupWall& w) { return w.top_diameter - w.bottom_diameter; };
    const std::vector<int> handles = measure_mm(asked.expected, Measure::handle_gap) > 0 ? std::vector<int>{1, -1, 0} : std::vector<int>{0};
    const auto worth = [](const Found& f) { return f.share - root_mean_square(f.off); };
    for (const CoarseFit& coarse : coarse_fits(*cells, asked)) {
        if (coarse.overlap < 0.6 || (best && best->share > 0.85)) break;
        const CupWall wall = *wall_of(asked.family, coarse.guess.measures);
        for (const int handle : handles)
            for (const WallLies& start : starts(wall, chart, coarse.guess, handle))
                for (const bool any_step : {true, false}) {  // what is seen into the rim may be lighter or darker than the table
                    if (best && best->share > 0.97 && worth(*best) > 0.85) break;
                    auto found = fit(photo, table, *cells, asked, side, start, handle, any_step, task);
                    // which end is the rim says the chart alone
                    if (!found || rim_less_base(found->lies.wall) * rim_less_base(wall) < -1) continue;
                    if (!best || worth(*found) > worth(*best)) best = std::move(found);
                }
    }
    if (task.stopped()) return Error{"Stopped."};
    if (!best)
        return Error{
            "What lies there has not the shape of this cup: lay it on its side beside the card, its handle to one side, on a table of "
            "another colour."};
    return told(table, asked, side, *best);
}

}  // namespace orthema::vision
