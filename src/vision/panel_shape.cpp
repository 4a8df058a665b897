#include "vision/panel_shape.h"

#include <algorithm>
#include <cmath>

namespace orthema::vision {

namespace {

std::vector<Ring> seen_outline(const BlankAsked& asked, const Panel& panel, const Measures& measures, const Lying& lying) {
    Region seen = panel.outline;
    if (family_build(asked.family) == Build::upper_body && asked.face == Face::front)
        seen = unite(seen, lying_panel(asked.family, measures, Face::back, asked.other_side, lying).outline);
    std::vector<Ring> out;
    for (const Polygon& p : seen) {
        out.push_back(p.outer);
        out.insert(out.end(), p.holes.begin(), p.holes.end());
    }
    return out;
}

/// Whether a point lies on a right half's line or its mirror.
bool on_line(Point q, const Ring& right) {
    q.x = std::abs(q.x);
    for (std::size_t i = 0; i + 1 < right.size(); ++i)
        if (norm(q - nearest_on(q, right[i], right[i + 1])) < 0.3) return true;
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

/// Whether any point of one lies off the other.
bool moved(const std::vector<Ring>& a, const std::vector<Ring>& b) {
    if (a.size() != b.size()) return true;
    for (std::size_t k = 0; k < a.size(); ++k) {
        if (a[k].size() != b[k].size()) return true;
        for (std::size_t i = 0; i < a[k].size(); ++i)
            if (norm(a[k][i] - b[k][i]) > 0.05) return true;
    }
    return false;
}

}  // namespace

std::vector<Ring> seen_outline(const BlankAsked& asked, const Measures& measures, const Lying& lying) {
    if (const auto wall = wall_of(asked.family, measures)) {  // from the side
        const double rim = wall->top_diameter / 2, base = wall->bottom_diameter / 2;
        return {{{-rim, 0}, {rim, 0}, {base, wall->height}, {-base, wall->height}}};
    }
    return seen_outline(asked, lying_panel(asked.family, measures, asked.face, asked.other_side, lying), measures, lying);
}

double seen_area(const BlankAsked& asked) {
    double area = 0;
    for (const Ring& r : seen_outline(asked, asked.expected, {})) area += signed_area(r);
    return std::abs(area);
}

Shape::Shape(const BlankAsked& asked, const PanelGuess& guess, const std::set<Measure>& held) : asked_(asked), guess_(guess) {
    const Lines before = lines(guess);
    for (const Measure m : family_measures(asked.family)) {
        const double mm = measure_mm(guess.measures, m);
        if (mm <= 0 || held.contains(m)) continue;
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

Eigen::VectorXd Shape::start() const {
    Eigen::VectorXd v = Eigen::VectorXd::Zero(count());
    for (std::size_t k = 0; k < measures_.size(); ++k)
        v[first_measure() + static_cast<long>(k)] =
            (measure_mm(guess_.measures, measures_[k]) - measure_mm(asked_.expected, measures_[k])) / doubts_[k];
    return v;
}

PanelGuess Shape::at(const Eigen::VectorXd& v) const {
    PanelGuess out = guess_;
    out.at = guess_.at + Point{v[0], v[1]} * 10;
    out.angle = guess_.angle + v[2] * 0.03;
    if (sleeves_) out.lying = {guess_.lying.right_sleeve + v[3] * 0.2, guess_.lying.left_sleeve + v[4] * 0.2};
    for (std::size_t k = 0; k < measures_.size(); ++k)
        out.measures[measures_[k]].value = Length::from_mm(
            std::max(1.0, measure_mm(asked_.expected, measures_[k]) + doubts_[k] * v[first_measure() + static_cast<long>(k)]));
    return out;
}

Lines Shape::lines(const PanelGuess& g) const {
    const Panel panel = lying_panel(asked_.family, g.measures, asked_.face, asked_.other_side, g.lying);
    Lines out{seen_outline(asked_, panel, g.measures, g.lying), collar_lines(asked_, panel), 0};
    out.stitched = out.inner.size();
    for (Ring& r : stitched_lines(asked_, panel)) out.inner.push_back(std::move(r));
    return out;
}

}  // namespace orthema::vision
