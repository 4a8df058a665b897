// From a photograph of a pressed piece to where its design lies.
#include <algorithm>
#include <functional>
#include <numbers>
#include <opencv2/imgproc.hpp>

#include "vision/design.h"

namespace orthema::vision {

namespace {

constexpr double about = 70;  ///< mm round its place that a design is looked for
constexpr double most_cells = 520;
constexpr double least_alike = 0.4, least_explained = 0.5;
constexpr double least_patch = 12;  ///< mm²: of what is missing, or more

/// Outlines of what is marked, smaller than `least` cells left out.
std::vector<Ring> patches(const cv::Mat& marked, double least, const std::function<Point(Point)>& to_pixel) {
    cv::Mat opened;
    cv::morphologyEx(marked, opened, cv::MORPH_OPEN, cv::getStructuringElement(cv::MORPH_RECT, {3, 3}));
    std::vector<std::vector<cv::Point>> rings;
    cv::findContours(opened, rings, cv::RETR_EXTERNAL, cv::CHAIN_APPROX_SIMPLE);
    std::vector<Ring> out;
    for (const auto& ring : rings) {
        if (cv::contourArea(ring) < least) continue;
        Ring r;
        for (const cv::Point& p : ring) r.push_back(to_pixel({p.x + 0.0, p.y + 0.0}));
        out.push_back(std::move(r));
    }
    return out;
}

}  // namespace

Result<DesignSeen> find_design(const Photo& photo, const TableSeen& table, const BlankSeen& blank, const DesignAsked& asked,
                               const Task& task) {
    if (asked.picture.width < 2 || asked.picture.height < 2 || asked.planned.width() < 5 || asked.planned.height() < 5)
        return Error{"The design is too small to be looked for in a photograph."};
    if (table.cards.empty() || blank.outline.empty()) return Error{"The blank has to be found before its design is."};
    const Rect area = asked.planned.grown(about);
    const double cell = std::clamp(std::max(area.width(), area.height()) / most_cells, 1 / std::max(0.5, table.cards[0].px_a_mm), 3.0);
    const Flat flat = flattened(photo, table, blank, area, cell, asked.thickness, 3);
    if (cv::countNonZero(flat.cloth) < 400)
        return Error{"The place of the design is not in the picture: take it so that the whole piece shows."};
    cv::Vec3f cloth;
    double noise = 1;
    const cv::Mat unlike = unlike_cloth(flat, asked.planned, cloth, noise);
    DesignPlace planned{asked.planned.centre(), 0, asked.planned.width(), asked.planned.height(), false};
    const std::vector<DesignFound> found = coarse_places(unlike, flat, asked.picture, cloth, planned, noise);
    const Error none{
        "The design is not to be seen near its place: choose the piece that was photographed, or light it so that ink and cloth differ."};
    if (found.empty() || found[0].alike < least_alike) return none;
    // a design that reads nearly the same both ways is taken as it should read
    const auto worth = [](const DesignFitted& f) {
        return f.explained + (f.place.mirrored || std::abs(std::remainder(f.place.angle, 2 * std::numbers::pi)) > 1 ? 0 : 0.01);
    };
    std::optional<DesignFitted> best;
    for (const DesignFound& f : found) {
        if (f.alike < 0.8 * found[0].alike || task.stopped()) continue;
        DesignFitted fitted = fine_place(unlike, flat, asked.picture, f.place, noise);
        if (!best || worth(fitted) > worth(*best)) best = std::move(fitted);
    }
    if (!best) return none;
    DesignSeen out;
    out.middle = best->place.middle;
    out.angle = std::remainder(best->place.angle, 2 * std::numbers::pi);
    out.width = best->place.width;
    out.height = best->place.height;
    out.mirrored = best->place.mirrored;
    // the panel it is measured on, the lens and what light does at ink's edge: what no cell knows of, by some sixty simulated pieces
    const auto with = [](double error, double least) { return std::hypot(error, least); };
    out.middle_error = {with(best->errors[0], 0.45), with(best->errors[1], 0.8)};
    out.angle_error = with(best->errors[2], 0.18 * std::numbers::pi / 180);
    out.width_error = with(best->errors[3], 0.5 + 0.0025 * out.width);
    out.height_error = with(best->errors[4], 0.5 + 0.0025 * out.height);
    out.match = std::clamp(best->explained, 0.0, 1.0);
    const auto pixel = [&](Point on_panel) { return pixel_of(table, blank, on_panel, asked.thickness); };
    for (const Point& p : corners_of(best->place)) out.box.push_back(pixel(p));
    for (const Point& p : corners_of(planned)) out.planned.push_back(pixel(p));
    if (out.match < least_explained)
        out.refused = "What is seen there is not this design, or too much of it is missing: choose the piece that was photographed.";

    // what is not as the design has it
    double strong = 0, inked = 0, bare = 0;
    cv::Mat missing(unlike.size(), CV_8U, cv::Scalar(0)), more(unlike.size(), CV_8U, cv::Scalar(0));
    for (int y = 0; y < unlike.rows; ++y)
        for (int x = 0; x < unlike.cols; ++x)
            if (best->ink.at<float>(y, x) > 0.6F) {
                strong += cv::norm(best->model.at<cv::Vec3f>(y, x));
                ++inked;
            }
    strong = inked > 0 ? strong / inked : 1;
    cv::Mat near_ink;
    cv::dilate(best->ink, near_ink, cv::getStructuringElement(cv::MORPH_RECT, {5, 5}));
    const Rect box = bounds(corners_of(best->place)).grown(25);
    for (int y = 0; y < unlike.rows; ++y)
        for (int x = 0; x < unlike.cols; ++x) {
            if (flat.cloth.at<std::uint8_t>(y, x) == 0 || !box.contains(flat.at(x, y))) continue;
            const auto& seen = unlike.at<cv::Vec3f>(y, x);
            const auto& model = best->model.at<cv::Vec3f>(y, x);
            const double own = model.dot(model);
            if (best->ink.at<float>(y, x) > 0.6F && own > 9 * noise * noise) {
                if (static_cast<double>(seen.dot(model)) < 0.4 * own) {
                    missing.at<std::uint8_t>(y, x) = 255;
                    ++bare;
                }
            } else if (near_ink.at<float>(y, x) < 0.05F && cv::norm(seen) > std::max(0.5 * strong, 8 * noise)) {
                more.at<std::uint8_t>(y, x) = 255;
            }
        }
    out.missing_share = inked > 0 ? bare / inked : 0;
    const auto to_pixel = [&](Point p) { return pixel(flat.at(p.x, p.y)); };
    out.missing = patches(missing, least_patch / (cell * cell), to_pixel);
    out.more = patches(more, least_patch / (cell * cell), to_pixel);
    return out;
}

}  // namespace orthema::vision
