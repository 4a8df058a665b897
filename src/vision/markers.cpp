#include "vision/markers.h"

#include <apriltag/apriltag.h>
#include <apriltag/tag36h11.h>

#include <algorithm>
#include <cmath>
#include <memory>
#include <opencv2/imgproc.hpp>
#include <optional>

#include "core/drawing/fiducial.h"

namespace orthema::vision {

double Grey::at(double x, double y) const {
    const double fx = std::clamp(x - 0.5, 0.0, width - 1.001), fy = std::clamp(y - 0.5, 0.0, height - 1.001);
    const int ix = static_cast<int>(fx), iy = static_cast<int>(fy);
    const double tx = fx - ix, ty = fy - iy;
    const std::uint8_t* p = rows.data() + static_cast<std::size_t>(iy) * static_cast<std::size_t>(width) + static_cast<std::size_t>(ix);
    const std::uint8_t* q = p + (iy + 1 < height ? width : 0);
    const int right = ix + 1 < width ? 1 : 0;
    return (p[0] * (1 - tx) + p[right] * tx) * (1 - ty) + (q[0] * (1 - tx) + q[right] * tx) * ty;
}

Grey grey_of(const PixelImage& image) {
    Grey out{image.width, image.height, std::vector<std::uint8_t>(image.count())};
    const cv::Mat from(image.height, image.width, CV_8UC4, const_cast<std::uint8_t*>(image.rgba.data()));
    cv::Mat to(image.height, image.width, CV_8UC1, out.rows.data());
    cv::cvtColor(from, to, cv::COLOR_RGBA2GRAY);
    return out;
}

namespace {

struct Line {
    Point at, along;
};

/// The line along a marker's edge from `a` to `b`, about where it is; `outward` is white.
std::optional<Line> edge_line(const Grey& grey, Point a, Point b, Point outward, double cell) {
    const Point d = b - a;
    const double length = norm(d), reach = std::min(0.7 * cell, 8.0);
    if (length < 10 || reach < 1.2) return std::nullopt;
    const int steps = std::clamp(static_cast<int>(length / 1.5), 8, 60);
    constexpr double fine = 0.25;
    const int n = static_cast<int>(std::ceil(reach / fine));
    std::vector<Point> found;
    std::vector<double> profile(static_cast<std::size_t>(2 * n + 1));
    for (int k = 0; k < steps; ++k) {
        const Point on = a + d * (0.08 + 0.84 * (k + 0.5) / steps);
        for (int i = -n; i <= n; ++i) {
            const Point p = on + outward * (i * fine);
            profile[static_cast<std::size_t>(i + n)] = grey.at(p.x, p.y);
        }
        // the middle of the step: where half of its height is passed, which a blur alike to both sides does not move
        const double low = *std::min_element(profile.begin(), profile.end()), high = *std::max_element(profile.begin(), profile.end());
        if (high - low < 25) continue;
        const int q = std::max(1, n / 3);
        double inside = 0, out = 0;
        for (int i = 0; i < q; ++i) {
            inside += profile[static_cast<std::size_t>(i)] / q;
            out += profile[profile.size() - 1 - static_cast<std::size_t>(i)] / q;
        }
        if (out - inside < 20) continue;
        const double level = (inside + out) / 2;
        double best = 1e9;
        for (int i = 0; i < 2 * n; ++i) {
            const double v = profile[static_cast<std::size_t>(i)], w = profile[static_cast<std::size_t>(i) + 1];
            if (v <= level && w > level) {
                const double s = (i - n + (level - v) / (w - v)) * fine;
                if (std::abs(s) < std::abs(best)) best = s;
            }
        }
        if (best < 1e8) found.push_back(on + outward * best);
    }
    if (found.size() < 6) return std::nullopt;
    // total least squares, those farthest off left out
    Line line;
    std::vector<double> weight(found.size(), 1);
    for (int pass = 0; pass < 4; ++pass) {
        double sum = 0, xx = 0, xy = 0, yy = 0;
        Point middle;
        for (std::size_t i = 0; i < found.size(); ++i) {
            middle = middle + found[i] * weight[i];
            sum += weight[i];
        }
        middle = middle * (1 / sum);
        for (std::size_t i = 0; i < found.size(); ++i) {
            const Point p = found[i] - middle;
            xx += weight[i] * p.x * p.x;
            xy += weight[i] * p.x * p.y;
            yy += weight[i] * p.y * p.y;
        }
        const double angle = 0.5 * std::atan2(2 * xy, xx - yy);
        line = {middle, {std::cos(angle), std::sin(angle)}};
        for (std::size_t i = 0; i < found.size(); ++i) {
            const double off = std::abs(cross(line.along, found[i] - middle)) / 0.3;
            weight[i] = off <= 1 ? 1 : 1 / (off * off);
        }
    }
    return line;
}

std::optional<Point> meeting(const Line& a, const Line& b) {
    const double det = cross(a.along, b.along);
    if (std::abs(det) < 0.2) return std::nullopt;
    return a.at + a.along * (cross(b.at - a.at, b.along) / det);
}

/// The corners from the picture itself; false where an edge is not seen well.
bool refine(const Grey& grey, std::array<Point, 4>& corners) {
    const Point middle = (corners[0] + corners[1] + corners[2] + corners[3]) * 0.25;
    std::array<std::optional<Line>, 4> lines;
    for (std::size_t k = 0; k < 4; ++k) {
        const Point a = corners[k], b = corners[(k + 1) % 4], d = b - a;
        Point outward = Point{d.y, -d.x} * (1 / std::max(1e-9, norm(d)));
        if (dot(outward, middle - a) > 0) outward = outward * -1;
        lines[k] = edge_line(grey, a, b, outward, norm(d) / fiducial_cells);
        if (!lines[k]) return false;
    }
    std::array<Point, 4> out;
    for (std::size_t k = 0; k < 4; ++k) {
        const auto p = meeting(*lines[(k + 3) % 4], *lines[k]);
        if (!p || norm(*p - corners[k]) > 6) return false;
        out[k] = *p;
    }
    corners = out;
    return true;
}

struct Detections {
    zarray_t* all;
    explicit Detections(zarray_t* found) : all(found) {}
    Detections(const Detections&) = delete;
    Detections& operator=(const Detections&) = delete;
    ~Detections() { apriltag_detections_destroy(all); }
};

}  // namespace

std::vector<MarkerSeen> find_markers(const Grey& grey, int threads) {
    std::vector<MarkerSeen> out;
    if (grey.width < 40 || grey.height < 40) return out;
    const std::unique_ptr<apriltag_family_t, decltype(&tag36h11_destroy)> family(tag36h11_create(), &tag36h11_destroy);
    const std::unique_ptr<apriltag_detector_t, decltype(&apriltag_detector_destroy)> detector(apriltag_detector_create(),
                                                                                              &apriltag_detector_destroy);
    apriltag_detector_add_family_bits(detector.get(), family.get(), 1);
    detector->nthreads = threads;
    detector->quad_decimate = 1;
    detector->refine_edges = false;           // refine() does it on the whole picture
    detector->qtp.min_white_black_diff = 20;  // and asks as much of an edge: the grain of cloth and table is no marker
    detector->qtp.min_cluster_pixels = 24;
    const cv::Mat whole(grey.height, grey.width, CV_8UC1, const_cast<std::uint8_t*>(grey.rows.data()));
    // smaller first: a marker of 80 pixels is still 25 there; where that finds little, closer
    const int longest = std::max(grey.width, grey.height);
    int before = 0;
    for (const int side : {1300, 2000, longest}) {
        const int k = std::max(1, (longest + side / 2) / side);  // whole pixels into one are several times faster than parts of them
        if (k == before) continue;
        before = k;
        cv::Mat small = whole;
        if (k > 1)
            cv::resize(whole(cv::Rect(0, 0, grey.width / k * k, grey.height / k * k)), small, {grey.width / k, grey.height / k}, 0, 0,
                       cv::INTER_AREA);
        image_u8_t view{small.cols, small.rows, static_cast<int>(small.step), small.data};
        const Detections found(apriltag_detector_detect(detector.get(), &view));
        out.clear();
        for (int i = 0; i < zarray_size(found.all); ++i) {
            apriltag_detection_t* d = nullptr;
            zarray_get(found.all, i, &d);
            const auto of = mark_of(d->id);
            if (!of || d->decision_margin < 25) continue;
            MarkerSeen m{*of, {}};
            // the library lists them from the bottom left, against the clock as seen with y up
            const std::array<int, 4> order{3, 2, 1, 0};
            for (std::size_t c = 0; c < 4; ++c) m.corners[c] = Point{d->p[order[c]][0], d->p[order[c]][1]} * k;
            if (refine(grey, m.corners)) out.push_back(m);
        }
        if (out.size() >= 10) break;
    }
    return out;
}

}  // namespace orthema::vision
