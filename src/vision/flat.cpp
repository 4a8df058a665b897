#include "vision/flat.h"

#include <Eigen/Cholesky>
#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace orthema::vision {

Point pixel_of(const TableSeen& table, const BlankSeen& blank, Point on_panel, double thickness) {
    return seen_at(table.camera, turned(on_panel, blank.angle) + blank.at, thickness);
}

Point panel_of(const TableSeen& table, const BlankSeen& blank, Point pixel, double thickness) {
    return turned(on_table(table.camera, pixel, thickness) - blank.at, -blank.angle);
}

Flat flattened(const Photo& photo, const TableSeen& table, const BlankSeen& blank, const Rect& area, double cell, double thickness,
               double within) {
    Flat out;
    out.area = area;
    out.cell = cell;
    const int width = std::max(1, static_cast<int>(area.width() / cell)), height = std::max(1, static_cast<int>(area.height() / cell));
    const int w = photo.image.width, h = photo.image.height;
    // only what is needed of the picture, shrunk to about a cell a pixel
    cv::Mat places(height, width, CV_32FC2);
    Rect needed{1e9, 1e9, -1e9, -1e9};
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x) {
            const Point p = pixel_of(table, blank, out.at(x, y), thickness);
            places.at<cv::Vec2f>(y, x) = {static_cast<float>(p.x), static_cast<float>(p.y)};
            needed = united(needed, {p.x, p.y, p.x, p.y});
        }
    const auto within_picture = [](double v, int least, int most) {
        return v > least ? static_cast<int>(std::min(v, static_cast<double>(most))) : least;  // also where it is no number
    };
    const int x0 = within_picture(needed.x0 - 8, 0, w - 1), y0 = within_picture(needed.y0 - 8, 0, h - 1);
    const int x1 = within_picture(needed.x1 + 9, x0 + 1, w), y1 = within_picture(needed.y1 + 9, y0 + 1, h);
    const cv::Mat whole(h, w, CV_8UC4, const_cast<std::uint8_t*>(photo.image.rgba.data()));
    const double shrink = std::max(1.0, table.cards[0].px_a_mm * cell);
    cv::Mat small, rgb;
    cv::resize(whole({x0, y0, x1 - x0, y1 - y0}), small, {}, 1 / shrink, 1 / shrink, cv::INTER_AREA);
    cv::cvtColor(small, rgb, cv::COLOR_RGBA2RGB);
    const double kx = static_cast<double>(rgb.cols) / (x1 - x0), ky = static_cast<double>(rgb.rows) / (y1 - y0);
    out.cloth = cv::Mat(height, width, CV_8U, cv::Scalar(0));
    std::vector<std::vector<cv::Point>> rings;
    const auto cell_of = [&](double v) { return v > -1e5 ? static_cast<int>(std::lround(std::min(v, 1e5))) : -100000; };
    for (const Ring& ring : blank.outline) {
        if (ring.size() < 3) continue;
        auto& r = rings.emplace_back();
        for (const Point& pixel : ring) {
            const Point q = panel_of(table, blank, pixel, thickness);
            r.emplace_back(cell_of((q.x - area.x0) / cell - 0.5), cell_of((q.y - area.y0) / cell - 0.5));
        }
    }
    cv::fillPoly(out.cloth, rings, cv::Scalar(255));
    if (const int by = static_cast<int>(within / cell); by > 0) {
        cv::Mat framed;
        cv::copyMakeBorder(out.cloth, framed, 1, 1, 1, 1, cv::BORDER_REPLICATE);
        cv::erode(framed, framed, cv::getStructuringElement(cv::MORPH_RECT, {2 * by + 1, 2 * by + 1}));
        framed({1, 1, width, height}).copyTo(out.cloth);
    }
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x) {
            cv::Vec2f& p = places.at<cv::Vec2f>(y, x);
            const bool seen = p[0] >= 2 && p[1] >= 2 && p[0] <= static_cast<float>(w - 2) && p[1] <= static_cast<float>(h - 2);
            if (!seen) {
                out.cloth.at<std::uint8_t>(y, x) = 0;
                p = {0, 0};
                continue;
            }
            p = {static_cast<float>((static_cast<double>(p[0]) - x0) * kx - 0.5),
                 static_cast<float>((static_cast<double>(p[1]) - y0) * ky - 0.5)};
        }
    cv::Mat flat;
    cv::remap(rgb, flat, places, cv::noArray(), cv::INTER_LINEAR, cv::BORDER_REPLICATE);
    flat.convertTo(out.rgb, CV_32FC3);
    return out;
}

cv::Mat unlike_cloth(const Flat& flat, const Rect& ink, cv::Vec3f& cloth, double& noise) {
    cv::Mat out(flat.rgb.size(), CV_32FC3, cv::Scalar(0, 0, 0));
    struct Cell {
        Eigen::Vector3d basis;
        cv::Vec3f colour;
        bool beside;
    };
    std::vector<Cell> cells;
    const int step = std::max(1, static_cast<int>(std::sqrt(static_cast<double>(flat.rgb.total()) / 20000)));
    for (int y = 0; y < flat.rgb.rows; y += step)
        for (int x = 0; x < flat.rgb.cols; x += step)
            if (flat.cloth.at<std::uint8_t>(y, x) != 0)
                cells.push_back({{1, 2.0 * x / flat.rgb.cols - 1, 2.0 * y / flat.rgb.rows - 1},
                                 flat.rgb.at<cv::Vec3f>(y, x),
                                 !ink.contains(flat.at(x, y))});
    noise = 1;
    if (cells.size() < 50) return out;
    // cloth and ink are told apart by all three colours at once: the middle of the most crowded colours is the cloth
    std::array<int, 4096> crowd{};
    const auto bin = [](const cv::Vec3f& c) {
        const auto part = [](float v) { return static_cast<std::size_t>(std::clamp(v, 0.0F, 255.0F)) / 16; };
        return part(c[0]) * 256 + part(c[1]) * 16 + part(c[2]);
    };
    for (const Cell& c : cells) crowd[bin(c.colour)] += c.beside ? 8 : 1;
    const std::size_t most = static_cast<std::size_t>(std::max_element(crowd.begin(), crowd.end()) - crowd.begin());
    std::array<Eigen::Vector3d, 3> plane;
    for (std::size_t c = 0; c < 3; ++c) plane[c] = {static_cast<double>((most >> (8 - 4 * c)) & 15) * 16 + 8, 0, 0};
    double width = 40;
    for (int pass = 0; pass < 8; ++pass) {
        Eigen::Matrix3d normal = Eigen::Matrix3d::Identity() * 1e-3;
        Eigen::Matrix3d right = Eigen::Matrix3d::Zero();
        std::vector<double> sizes;
        for (const Cell& c : cells) {
            double off = 0;
            for (std::size_t k = 0; k < 3; ++k) {
                const double d = static_cast<double>(c.colour[static_cast<int>(k)]) - plane[k].dot(c.basis);
                off += d * d;
            }
            off = std::sqrt(off);
            if (off < width) sizes.push_back(off);
            const double u = off / width;
            if (u >= 1) continue;
            const double w = (1 - u * u) * (1 - u * u);
            normal += w * c.basis * c.basis.transpose();
            for (int k = 0; k < 3; ++k) right.col(k) += w * c.basis * static_cast<double>(c.colour[k]);
        }
        if (sizes.size() < 30) break;
        for (int k = 0; k < 3; ++k) plane[static_cast<std::size_t>(k)] = normal.ldlt().solve(right.col(k));
        std::nth_element(sizes.begin(), sizes.begin() + static_cast<long>(sizes.size() / 2), sizes.end());
        noise = std::max(1.0, sizes[sizes.size() / 2] / 1.54);  // of three parts: the middle of a chi with three degrees
        width = std::clamp(5 * noise, 10.0, 40.0);
    }
    for (int k = 0; k < 3; ++k) cloth[k] = static_cast<float>(plane[static_cast<std::size_t>(k)][0]);
    for (int y = 0; y < out.rows; ++y)
        for (int x = 0; x < out.cols; ++x) {
            if (flat.cloth.at<std::uint8_t>(y, x) == 0) continue;
            const Eigen::Vector3d b{1, 2.0 * x / flat.rgb.cols - 1, 2.0 * y / flat.rgb.rows - 1};
            const auto& c = flat.rgb.at<cv::Vec3f>(y, x);
            for (int k = 0; k < 3; ++k) out.at<cv::Vec3f>(y, x)[k] = c[k] - static_cast<float>(plane[static_cast<std::size_t>(k)].dot(b));
        }
    return out;
}

}  // namespace orthema::vision
