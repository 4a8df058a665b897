#include "vision/silhouette.h"

#include <Eigen/Cholesky>
#include <Eigen/Core>
#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "vision/camera.h"

namespace orthema::vision {

namespace {

using Basis = Eigen::Matrix<double, 6, 1>;

Basis basis_at(double x, double y) {
    Basis b;
    b << 1, x, y, x * x, x * y, y * y;
    return b;
}

/// The table's colour everywhere, from the cells that show it, and by how much it varies.
struct TableColour {
    std::array<Basis, 3> surface;
    std::array<double, 3> spread{};
    void fit(const cv::Mat& lab, const cv::Mat& seeds) {
        struct Seed {
            Basis b;
            cv::Vec3f c;
        };
        std::vector<Seed> all;
        for (int y = 0; y < lab.rows; ++y)
            for (int x = 0; x < lab.cols; ++x)
                if (seeds.at<std::uint8_t>(y, x) != 0)
                    all.push_back({basis_at(2.0 * x / lab.cols - 1, 2.0 * y / lab.rows - 1), lab.at<cv::Vec3f>(y, x)});
        for (std::size_t c = 0; c < 3; ++c) {
            std::vector<double> off(all.size());
            double width = 1e9;
            for (int pass = 0; pass < 6; ++pass) {
                Eigen::Matrix<double, 6, 6> normal = Eigen::Matrix<double, 6, 6>::Identity() * 1e-3;
                Basis right = Basis::Zero();
                for (std::size_t i = 0; i < all.size(); ++i) {
                    const double u = pass == 0 ? 0 : off[i] / width;
                    if (std::abs(u) >= 1) continue;
                    const double w = (1 - u * u) * (1 - u * u);
                    normal += w * all[i].b * all[i].b.transpose();
                    right += w * all[i].b * static_cast<double>(all[i].c[static_cast<int>(c)]);
                }
                surface[c] = normal.ldlt().solve(right);
                std::vector<double> sizes(all.size());
                for (std::size_t i = 0; i < all.size(); ++i) {
                    off[i] = static_cast<double>(all[i].c[static_cast<int>(c)]) - surface[c].dot(all[i].b);
                    sizes[i] = std::abs(off[i]);
                }
                std::nth_element(sizes.begin(), sizes.begin() + static_cast<long>(sizes.size() / 2), sizes.end());
                spread[c] = std::max(1.2, 1.4826 * sizes[sizes.size() / 2]);
                width = 5 * spread[c];
            }
        }
    }
    [[nodiscard]] double unlike(const cv::Vec3f& c, const Basis& b) const {
        double sum = 0;
        for (std::size_t k = 0; k < 3; ++k) {
            const double d = (static_cast<double>(c[static_cast<int>(k)]) - surface[k].dot(b)) / spread[k];
            // a shadow is the table, darker
            sum += (k == 0 && d < 0 ? 0.5 : 1.0) * d * d;
        }
        return std::sqrt(sum);
    }
};

/// The cells that lie so many within what is seen.
cv::Mat inside_of(const cv::Mat& seen, int by) {
    cv::Mat out;
    cv::copyMakeBorder(seen, out, 1, 1, 1, 1, cv::BORDER_CONSTANT, cv::Scalar(0));
    cv::erode(out, out, cv::getStructuringElement(cv::MORPH_RECT, {2 * by + 1, 2 * by + 1}));
    return out({1, 1, seen.cols, seen.rows});
}

}  // namespace

Result<Silhouette> silhouette(const Photo& photo, const TableSeen& table, double height, double expected) {
    const CameraPose& camera = table.camera;
    Silhouette out;
    constexpr double limit = 3000;
    out.area = {1e9, 1e9, -1e9, -1e9};
    const int w = photo.image.width, h = photo.image.height;
    for (int k = 0; k <= 20; ++k)
        for (const Point p : {Point{w * k / 20.0, 0}, Point{w * k / 20.0, h * 1.0}, Point{0, h * k / 20.0}, Point{w * 1.0, h * k / 20.0}}) {
            const Point on = on_table(camera, p, height);
            out.area.x0 = std::min(out.area.x0, std::max(-limit, on.x));
            out.area.y0 = std::min(out.area.y0, std::max(-limit, on.y));
            out.area.x1 = std::max(out.area.x1, std::min(limit, on.x));
            out.area.y1 = std::max(out.area.y1, std::min(limit, on.y));
        }
    out.cell = std::max(out.area.width(), out.area.height()) / 480;
    out.width = static_cast<int>(out.area.width() / out.cell) + 1;
    out.height = static_cast<int>(out.area.height() / out.cell) + 1;
    const double shrink = std::max(1.0, table.cards[0].px_a_mm * out.cell);
    cv::Mat rgb, small, lab;
    const cv::Mat whole(h, w, CV_8UC4, const_cast<std::uint8_t*>(photo.image.rgba.data()));
    cv::resize(whole, small, {}, 1 / shrink, 1 / shrink, cv::INTER_AREA);
    cv::cvtColor(small, rgb, cv::COLOR_RGBA2RGB);
    cv::Mat mx(out.height, out.width, CV_32F), my(out.height, out.width, CV_32F), valid(out.height, out.width, CV_8U, cv::Scalar(0));
    const double kx = static_cast<double>(rgb.cols) / w, ky = static_cast<double>(rgb.rows) / h;
    for (int y = 0; y < out.height; ++y)
        for (int x = 0; x < out.width; ++x) {
            const Point p = seen_at(camera, {out.area.x0 + (x + 0.5) * out.cell, out.area.y0 + (y + 0.5) * out.cell}, height);
            mx.at<float>(y, x) = static_cast<float>(p.x * kx - 0.5);
            my.at<float>(y, x) = static_cast<float>(p.y * ky - 0.5);
            if (p.x > 2 && p.y > 2 && p.x < w - 2 && p.y < h - 2) valid.at<std::uint8_t>(y, x) = 1;
        }
    cv::Mat flat;
    cv::remap(rgb, flat, mx, my, cv::INTER_LINEAR, cv::BORDER_REPLICATE);
    cv::Mat real;
    flat.convertTo(real, CV_32FC3, 1.0 / 255);
    cv::GaussianBlur(real, real, {5, 5}, 1.2);
    cv::cvtColor(real, lab, cv::COLOR_RGB2Lab);
    // cards hide the table
    cv::Mat cards(out.height, out.width, CV_8U, cv::Scalar(0));
    for (const CardSeen& c : table.cards) {
        const Rect paper = card_paper(c.size).grown(5);
        std::vector<cv::Point> ring;
        for (const Point p : {Point{paper.x0, paper.y0}, Point{paper.x1, paper.y0}, Point{paper.x1, paper.y1}, Point{paper.x0, paper.y1}}) {
            const Point on = c.at + turned(p, c.angle);
            ring.emplace_back(static_cast<int>(std::lround((on.x - out.area.x0) / out.cell)),
                              static_cast<int>(std::lround((on.y - out.area.y0) / out.cell)));
        }
        cv::fillPoly(cards, std::vector<std::vector<cv::Point>>{ring}, cv::Scalar(1));
    }
    // the rim of what is seen
    cv::Mat inner, seeds;
    const int rim = std::max(3, static_cast<int>(std::lround(28 / out.cell)));
    inner = inside_of(valid, rim);
    seeds = (valid != 0) & (inner == 0) & (cards == 0);
    if (cv::countNonZero(seeds) < 200)
        return Error{"Too little of the table is seen round the blank: take the picture from a little farther."};
    TableColour colour;
    cv::Mat unlike(out.height, out.width, CV_32F), blank;
    const double least = expected / (out.cell * out.cell);
    int label = 0, area = 0;
    cv::Mat labels;
    for (int pass = 0; pass < 3; ++pass) {
        colour.fit(lab, seeds);
        for (int y = 0; y < out.height; ++y)
            for (int x = 0; x < out.width; ++x)
                unlike.at<float>(y, x) =
                    valid.at<std::uint8_t>(y, x) == 0 || cards.at<std::uint8_t>(y, x) != 0
                        ? 0
                        : static_cast<float>(std::min(
                              40.0, colour.unlike(lab.at<cv::Vec3f>(y, x), basis_at(2.0 * x / out.width - 1, 2.0 * y / out.height - 1))));
        cv::Mat bytes;
        unlike.convertTo(bytes, CV_8U, 255.0 / 40);
        cv::Mat hard;
        const double otsu = cv::threshold(bytes, hard, 0, 1, cv::THRESH_BINARY | cv::THRESH_OTSU) * 40 / 255;
        blank = unlike > std::clamp(0.7 * otsu, 4.0, 12.0);
        cv::morphologyEx(blank, blank, cv::MORPH_OPEN, cv::getStructuringElement(cv::MORPH_ELLIPSE, {3, 3}));
        cv::morphologyEx(blank, blank, cv::MORPH_CLOSE, cv::getStructuringElement(cv::MORPH_ELLIPSE, {7, 7}));
        cv::Mat stats, middles;
        const int n = cv::connectedComponentsWithStats(blank, labels, stats, middles, 8);
        label = area = 0;
        for (int k = 1; k < n; ++k)
            if (stats.at<int>(k, cv::CC_STAT_AREA) > area) {
                area = stats.at<int>(k, cv::CC_STAT_AREA);
                label = k;
            }
        cv::Mat near;
        cv::dilate(labels == label, near, cv::getStructuringElement(cv::MORPH_ELLIPSE, {11, 11}));
        seeds = (valid != 0) & (cards == 0) & (near == 0);
        if (label == 0 || cv::countNonZero(seeds) < 200) break;
    }
    if (label == 0 || area < 0.45 * least)
        return Error{"The blank cannot be told from the table: lay it on a table of another colour, in even light."};
    if (area > 2.2 * least)
        return Error{"What lies on the table is much larger than this size: choose the right size, or take other things away."};
    out.cells.assign(static_cast<std::size_t>(out.width) * static_cast<std::size_t>(out.height), 0);
    const int edge = std::max(1, static_cast<int>(std::lround(3 / out.cell)));
    const cv::Mat at_edge = inside_of(valid, edge);
    int leaves = 0, cloth = 0, bare = 0;
    for (int y = 0; y < out.height; ++y)
        for (int x = 0; x < out.width; ++x) {
            const bool is = labels.at<int>(y, x) == label;
            out.cells[out.index(x, y)] = is ? 1 : 0;
            const auto& c = flat.at<cv::Vec3b>(y, x);
            if (is) ++cloth;
            if (is && at_edge.at<std::uint8_t>(y, x) == 0) ++leaves;
            const bool table_cell = seeds.at<std::uint8_t>(y, x) != 0;
            if (table_cell) ++bare;
            for (std::size_t k = 0; k < 3; ++k) {
                if (is) out.cloth[k] += c[static_cast<int>(k)];
                if (table_cell) out.table[k] += c[static_cast<int>(k)];
            }
        }
    if (leaves * out.cell > 12) return Error{"The blank leaves the picture: take it from a little farther, all of it in the picture."};
    for (std::size_t k = 0; k < 3; ++k) {
        out.cloth[k] /= std::max(1, cloth);
        out.table[k] /= std::max(1, bare);
    }
    return out;
}

}  // namespace orthema::vision
