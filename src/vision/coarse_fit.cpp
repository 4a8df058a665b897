#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "vision/panel_fit.h"

namespace orthema::vision {

namespace {

constexpr int figures = 6;  ///< x and y of its middle, angle, factor, right sleeve, left sleeve

Measures scaled(const Measures& from, double by) {
    Measures out = from;
    for (auto& [m, figure] : out) figure.value = Length::from_mm(figure.value.mm() * by);
    return out;
}

class Laying {
public:
    Laying(const Silhouette& cells, const BlankAsked& asked, Point middle) : cells_(cells), asked_(asked), middle_(middle) {
        seen_ = cv::Mat(cells.height, cells.width, CV_8U, const_cast<std::uint8_t*>(cells.cells.data()));
        whole_ = cv::countNonZero(seen_);
    }
    [[nodiscard]] double overlap(const std::array<double, figures>& v) {
        Lying lying;
        if (has_sleeves(asked_.family)) lying = {v[4], v[5]};
        std::vector<std::vector<cv::Point>> rings;
        constexpr int shift = 4;
        for (const Ring& ring : seen_outline(asked_, asked_.expected, lying)) {
            rings.emplace_back();
            for (const Point& q : ring) {
                const Point p = (q - middle_) * v[3];  // about its middle: what turns it then moves it little
                const Point on = Point{v[0], v[1]} + turned(p, v[2]);
                rings.back().emplace_back(static_cast<int>(std::lround(((on.x - cells_.area.x0) / cells_.cell - 0.5) * (1 << shift))),
                                          static_cast<int>(std::lround(((on.y - cells_.area.y0) / cells_.cell - 0.5) * (1 << shift))));
            }
        }
        drawn_ = cv::Mat::zeros(seen_.rows, seen_.cols, CV_8U);
        cv::fillPoly(drawn_, rings, cv::Scalar(1), cv::LINE_8, shift);
        const int drawn = cv::countNonZero(drawn_);
        cv::bitwise_and(drawn_, seen_, drawn_);
        const int both = cv::countNonZero(drawn_);
        return both / static_cast<double>(std::max(1, drawn + whole_ - both));
    }

private:
    const Silhouette& cells_;
    const BlankAsked& asked_;
    Point middle_;
    cv::Mat seen_, drawn_;
    int whole_ = 0;
};

}  // namespace

std::vector<CoarseFit> coarse_fits(const Silhouette& cells, const BlankAsked& asked) {
    double mx = 0, my = 0, n = 0;
    for (int y = 0; y < cells.height; ++y)
        for (int x = 0; x < cells.width; ++x)
            if (cells.cells[cells.index(x, y)] != 0) {
                mx += x + 0.5;
                my += y + 0.5;
                n += 1;
            }
    const Point middle{cells.area.x0 + mx / n * cells.cell, cells.area.y0 + my / n * cells.cell};
    Point own;
    double whole = 0;
    for (const Ring& ring : seen_outline(asked, asked.expected, {})) {  // middle of its area
        double a = 0;
        Point m;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point p = ring[i], q = ring[(i + 1) % ring.size()];
            const double k = cross(p, q);
            a += k / 2;
            m = m + (p + q) * (k / 6);
        }
        own = own + m;
        whole += a;
    }
    own = own * (1 / whole);
    const double factor = std::clamp(std::sqrt(n * cells.cell * cells.cell / std::abs(whole)), 0.8, 1.25);
    Laying laying(cells, asked, own);
    struct Tried {
        double overlap;
        std::array<double, figures> at;
    };
    std::vector<Tried> tried;
    for (int k = 0; k < 24; ++k) {
        const double angle = k * M_PI / 12;
        const std::array<double, figures> at{middle.x, middle.y, angle, factor, 0, 0};
        tried.push_back({laying.overlap(at), at});
    }
    std::sort(tried.begin(), tried.end(), [](const Tried& a, const Tried& b) { return a.overlap > b.overlap; });
    tried.resize(4);
    for (Tried& t : tried) {
        std::array<double, figures> step{20, 20, 0.12, 0.04, 0.2, 0.2};
        const std::size_t count = has_sleeves(asked.family) ? 6 : 4;
        for (int round = 0; round < 40 && step[0] > 0.4; ++round) {
            bool any = false;
            for (std::size_t k = 0; k < count; ++k)
                for (const double way : {1.0, -1.0}) {
                    auto to = t.at;
                    to[k] += way * step[k];
                    if (std::abs(to[4]) > 0.8 || std::abs(to[5]) > 0.8) continue;
                    const double then = laying.overlap(to);
                    if (then <= t.overlap) continue;
                    t = {then, to};
                    any = true;
                    break;
                }
            if (!any)
                for (double& s : step) s /= 2;
        }
    }
    // near the drawn way up, where two fit alike: people lay blanks as the card's arrow says
    const auto up = [](double angle) { return std::cos(angle); };
    std::sort(tried.begin(), tried.end(), [&](const Tried& a, const Tried& b) {
        if (std::abs(a.overlap - b.overlap) > 0.012) return a.overlap > b.overlap;
        return up(a.at[2]) > up(b.at[2]);
    });
    std::vector<CoarseFit> out;
    for (const Tried& t : tried) {
        const auto& v = t.at;
        const Point at = Point{v[0], v[1]} - turned(own * v[3], v[2]);
        const CoarseFit fit{{at, v[2], {v[4], v[5]}, scaled(asked.expected, v[3])}, t.overlap};
        const bool same = std::any_of(out.begin(), out.end(), [&](const CoarseFit& o) {
            return std::abs(std::remainder(o.guess.angle - fit.guess.angle, 2 * M_PI)) < 0.04 &&
                   std::abs(o.guess.lying.right_sleeve - fit.guess.lying.right_sleeve) < 0.08 &&
                   std::abs(o.guess.lying.left_sleeve - fit.guess.lying.left_sleeve) < 0.08;
        });
        if (!same && out.size() < 3 && (out.empty() || t.overlap > out.front().overlap - 0.15)) out.push_back(fit);
    }
    return out;
}

}  // namespace orthema::vision
