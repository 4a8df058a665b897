#include "vision/design.h"

#include <Eigen/Cholesky>
#include <algorithm>
#include <numbers>
#include <opencv2/imgproc.hpp>

namespace orthema::vision {

namespace {

/// Ink's cover and its colour times that, each 0 to 1 and 0 to 255, about `cells` wide, with bare cells all round.
struct Ink {
    cv::Mat cover, colour;      ///< one and three floats
    int width = 0, height = 0;  ///< without what is bare
    static constexpr int bare = 4;
};

Ink ink_of(const PixelImage& picture, int width, int height) {
    cv::Mat cover(picture.height, picture.width, CV_32F), colour(picture.height, picture.width, CV_32FC3);
    for (int y = 0; y < picture.height; ++y)
        for (int x = 0; x < picture.width; ++x) {
            const std::uint8_t* p = picture.at(x, y);
            const float a = static_cast<float>(p[3]) / 255;
            cover.at<float>(y, x) = a;
            colour.at<cv::Vec3f>(y, x) = cv::Vec3f(p[0], p[1], p[2]) * a;
        }
    Ink out;
    out.width = std::max(1, width);
    out.height = std::max(1, height);
    const int how = width < picture.width ? cv::INTER_AREA : cv::INTER_LINEAR;
    cv::resize(cover, out.cover, {out.width, out.height}, 0, 0, how);
    cv::resize(colour, out.colour, {out.width, out.height}, 0, 0, how);
    for (cv::Mat* m : {&out.cover, &out.colour}) {
        cv::copyMakeBorder(*m, *m, Ink::bare, Ink::bare, Ink::bare, Ink::bare, cv::BORDER_CONSTANT, cv::Scalar(0, 0, 0));
        cv::GaussianBlur(*m, *m, {3, 3}, 0.7);
    }
    return out;
}

/// From the panel to the design's own cells.
struct Way {
    DesignPlace at;
    double c, s, kx, ky;
    Way(const DesignPlace& place, const Ink& ink)
        : at(place), c(std::cos(place.angle)), s(std::sin(place.angle)), kx(ink.width / place.width), ky(ink.height / place.height) {}
    /// Upright on the design, mm from its middle.
    [[nodiscard]] Point upright(Point q) const {
        const Point d = q - at.middle;
        return {c * d.x + s * d.y, -s * d.x + c * d.y};
    }
    /// Column and row of the padded picture.
    [[nodiscard]] Point cell(Point d, const Ink& ink) const {
        return {(at.mirrored ? -d.x : d.x) * kx + 0.5 * ink.width + Ink::bare - 0.5, d.y * ky + 0.5 * ink.height + Ink::bare - 0.5};
    }
};

/// The design as seen at a place, on a flat of its own about that place: what differs from the cloth.
cv::Mat drawn(const Ink& ink, const DesignPlace& place, double cell, const cv::Vec3f& cloth) {
    const Ring corners = corners_of(place);
    const Rect box = bounds(corners);
    const int w = std::max(1, static_cast<int>(box.width() / cell) | 1), h = std::max(1, static_cast<int>(box.height() / cell) | 1);
    cv::Mat places(h, w, CV_32FC2);
    const Way way(place, ink);
    for (int y = 0; y < h; ++y)
        for (int x = 0; x < w; ++x) {
            const Point q = place.middle + Point{(x - (w - 1) / 2.0) * cell, (y - (h - 1) / 2.0) * cell};
            const Point at = way.cell(way.upright(q), ink);
            places.at<cv::Vec2f>(y, x) = {static_cast<float>(at.x), static_cast<float>(at.y)};
        }
    cv::Mat cover, colour;
    cv::remap(ink.cover, cover, places, cv::noArray(), cv::INTER_LINEAR, cv::BORDER_CONSTANT, cv::Scalar(0));
    cv::remap(ink.colour, colour, places, cv::noArray(), cv::INTER_LINEAR, cv::BORDER_CONSTANT, cv::Scalar(0, 0, 0));
    for (int y = 0; y < h; ++y)
        for (int x = 0; x < w; ++x) colour.at<cv::Vec3f>(y, x) -= cloth * cover.at<float>(y, x);
    return colour;
}

/// By how much more neighbours that err together weigh than if each erred by itself, along rows and columns.
double together(const cv::Mat& off, const cv::Mat& counts) {
    double sum = 1;
    double own = 0;
    std::size_t n = 0;
    for (int y = 0; y < off.rows; ++y)
        for (int x = 0; x < off.cols; ++x)
            if (counts.at<std::uint8_t>(y, x) != 0) {
                own += static_cast<double>(off.at<float>(y, x)) * static_cast<double>(off.at<float>(y, x));
                ++n;
            }
    if (n == 0 || own <= 0) return 1;
    own /= static_cast<double>(n);
    for (int lag = 1; lag <= 8; ++lag) {
        double with = 0;
        std::size_t m = 0;
        for (int y = 0; y < off.rows; ++y)
            for (int x = 0; x + lag < off.cols; ++x)
                if (counts.at<std::uint8_t>(y, x) != 0 && counts.at<std::uint8_t>(y, x + lag) != 0) {
                    with += static_cast<double>(off.at<float>(y, x)) * static_cast<double>(off.at<float>(y, x + lag));
                    ++m;
                }
        const double r = m == 0 ? 0 : with / static_cast<double>(m) / own;
        if (r <= 0.05) break;
        sum += 2 * r;
    }
    return sum * sum;
}

}  // namespace

Ring corners_of(const DesignPlace& place) {
    Ring out;
    for (const Point& p : {Point{-0.5, -0.5}, Point{0.5, -0.5}, Point{0.5, 0.5}, Point{-0.5, 0.5}})
        out.push_back(place.middle + turned({(place.mirrored ? -p.x : p.x) * place.width, p.y * place.height}, place.angle));
    return out;
}

std::vector<DesignFound> coarse_places(const cv::Mat& unlike, const Flat& flat, const PixelImage& picture, const cv::Vec3f& cloth,
                                       const DesignPlace& planned, double noise) {
    // cells of a size at which the design is some sixty across
    const double cell = std::max(flat.cell, std::max(planned.width, planned.height) / 60);
    const double k = flat.cell / cell;
    cv::Mat small, squares;
    cv::resize(unlike, small, {}, k, k, cv::INTER_AREA);
    std::vector<cv::Mat> parts;
    cv::split(small, parts);
    squares = parts[0].mul(parts[0]) + parts[1].mul(parts[1]) + parts[2].mul(parts[2]);
    const Ink ink = ink_of(picture, cvRound(planned.width / cell), cvRound(planned.height / cell));
    std::vector<DesignFound> out;
    for (const bool mirrored : {false, true})
        for (const double half : {0.0, std::numbers::pi}) {
            DesignFound best;
            const int turns = half == 0 ? 5 : 2;
            for (int t = -turns; t <= turns; ++t) {
                DesignPlace place = planned;
                place.mirrored = mirrored;
                place.angle = half + t * 3 * std::numbers::pi / 180;
                const cv::Mat ours = drawn(ink, place, cell, cloth);
                if (ours.cols > small.cols || ours.rows > small.rows) continue;
                cv::Mat like, seen;
                cv::matchTemplate(small, ours, like, cv::TM_CCORR);
                cv::boxFilter(squares, seen, CV_64F, ours.size(), {0, 0}, false, cv::BORDER_CONSTANT);
                const double own = ours.dot(ours), least = 3.0 * noise * noise * static_cast<double>(ours.total());
                for (int y = 0; y < like.rows; ++y)
                    for (int x = 0; x < like.cols; ++x) {
                        const double alike =
                            static_cast<double>(like.at<float>(y, x)) / std::sqrt(own * std::max(least, seen.at<double>(y, x)) + 1e-9);
                        if (alike <= best.alike) continue;
                        best.alike = alike;
                        best.place = place;
                        best.place.middle = {flat.area.x0 + (x + ours.cols / 2.0) * flat.cell * unlike.cols / small.cols,
                                             flat.area.y0 + (y + ours.rows / 2.0) * flat.cell * unlike.rows / small.rows};
                    }
            }
            if (best.alike > 0) out.push_back(best);
        }
    std::stable_sort(out.begin(), out.end(), [](const DesignFound& a, const DesignFound& b) { return a.alike > b.alike; });
    return out;
}

DesignFitted fine_place(const cv::Mat& unlike, const Flat& flat, const PixelImage& picture, const DesignPlace& from, double noise) {
    using Vector = Eigen::Matrix<double, 5, 1>;
    using Matrix = Eigen::Matrix<double, 5, 5>;
    DesignFitted out;
    out.place = from;
    const Ink ink = ink_of(picture, cvRound(from.width / flat.cell), cvRound(from.height / flat.cell));
    std::array<cv::Mat, 4> fields, across, down;  // cover, then the colours
    {
        std::vector<cv::Mat> parts;
        cv::split(ink.colour, parts);
        fields = {ink.cover, parts[0], parts[1], parts[2]};
        for (std::size_t f = 0; f < 4; ++f) {
            const cv::Mat step = (cv::Mat_<float>(1, 3) << -0.5F, 0, 0.5F);
            cv::filter2D(fields[f], across[f], CV_32F, step);
            cv::filter2D(fields[f], down[f], CV_32F, step.t());
        }
    }
    const auto pick = [](const cv::Mat& m, double x, double y) -> double {
        const int i = static_cast<int>(x), j = static_cast<int>(y);
        const double u = x - i, v = y - j;
        const auto* a = m.ptr<float>(j) + i;
        const auto* b = m.ptr<float>(j + 1) + i;
        return (1 - v) * ((1 - u) * static_cast<double>(a[0]) + u * static_cast<double>(a[1])) +
               v * ((1 - u) * static_cast<double>(b[0]) + u * static_cast<double>(b[1]));
    };
    struct Cell {
        int x, y;
        Point q;
    };
    const auto cells_about = [&](const DesignPlace& place, int step) {
        const Rect box = bounds(corners_of(place)).grown(4);
        std::vector<Cell> cells;
        const int x0 = std::max(0, static_cast<int>((box.x0 - flat.area.x0) / flat.cell)),
                  x1 = std::min(flat.rgb.cols - 1, static_cast<int>((box.x1 - flat.area.x0) / flat.cell)),
                  y0 = std::max(0, static_cast<int>((box.y0 - flat.area.y0) / flat.cell)),
                  y1 = std::min(flat.rgb.rows - 1, static_cast<int>((box.y1 - flat.area.y0) / flat.cell));
        for (int y = y0; y <= y1; y += step)
            for (int x = x0; x <= x1; x += step)
                if (flat.cloth.at<std::uint8_t>(y, x) != 0) cells.push_back({x, y, flat.at(x, y)});
        return cells;
    };
    std::array<Eigen::Vector2d, 3> shown;  // how strongly cover and colour show, for each colour
    for (auto& s : shown) s = {0, 1};
    double spread = 4 * noise;
    Matrix normal = Matrix::Identity();
    double of_squares = 0, off_squares = 0, seen_squares = 0;  // the first as they are weighed
    std::size_t counted = 0;
    const auto inside = [&](const Point& p) {
        return p.x >= 0 && p.y >= 0 && p.x < ink.cover.cols - 1.001 && p.y < ink.cover.rows - 1.001;
    };
    for (int round = 0; round < 40; ++round) {
        const std::vector<Cell> cells = cells_about(out.place, round < 12 ? 3 : 1);
        const Way way(out.place, ink);
        struct InkSeen {
            std::array<double, 4> f;
            Point at, upright;
            const Cell* cell;
        };
        std::vector<InkSeen> seen;
        seen.reserve(cells.size());
        std::array<Eigen::Matrix2d, 3> two;
        std::array<Eigen::Vector2d, 3> to;
        for (std::size_t k = 0; k < 3; ++k) {
            two[k] = Eigen::Matrix2d::Identity() * 1e-6;
            to[k].setZero();
        }
        for (const Cell& c : cells) {
            const Point d = way.upright(c.q), p = way.cell(d, ink);
            InkSeen s{{0, 0, 0, 0}, p, d, &c};
            if (inside(p))
                for (std::size_t f = 0; f < 4; ++f) s.f[f] = pick(fields[f], p.x, p.y);
            const auto& seen_there = unlike.at<cv::Vec3f>(c.y, c.x);
            for (std::size_t k = 0; k < 3; ++k) {
                const Eigen::Vector2d b{s.f[0] * 255, s.f[k + 1]};
                const double r = static_cast<double>(seen_there[static_cast<int>(k)]) - shown[k].dot(b);
                const double w = round == 0 || std::abs(r) < 2 * spread ? 1 : 2 * spread / std::abs(r);
                two[k] += w * b * b.transpose();
                to[k] += w * b * static_cast<double>(seen_there[static_cast<int>(k)]);
            }
            seen.push_back(s);
        }
        // colours as they should be are likely: a design of one colour tells cover and colour apart by nothing
        for (std::size_t k = 0; k < 3; ++k) {
            const double weight = 1e-3 * two[k].trace() + 1;
            shown[k] = (two[k] + weight * Eigen::Matrix2d::Identity()).ldlt().solve(to[k] + weight * Eigen::Vector2d{shown[k][0], 1});
        }
        normal.setZero();
        Vector right = Vector::Zero();
        std::vector<double> sizes;
        sizes.reserve(seen.size());
        of_squares = off_squares = seen_squares = 0;
        counted = 0;
        for (const InkSeen& s : seen) {
            const auto& there = unlike.at<cv::Vec3f>(s.cell->y, s.cell->x);
            const bool is = inside(s.at);
            double biggest = 0;
            std::array<double, 3> r{};
            for (std::size_t k = 0; k < 3; ++k) {
                r[k] = static_cast<double>(there[static_cast<int>(k)]) - shown[k][0] * 255 * s.f[0] - shown[k][1] * s.f[k + 1];
                biggest = std::max(biggest, std::abs(r[k]));
            }
            sizes.push_back(biggest);
            const double w = biggest < 2 * spread ? 1 : 2 * spread / biggest;
            for (std::size_t k = 0; k < 3; ++k) {
                of_squares += w * r[k] * r[k];
                off_squares += r[k] * r[k];
                seen_squares += static_cast<double>(there[static_cast<int>(k)]) * static_cast<double>(there[static_cast<int>(k)]);
            }
            ++counted;
            if (!is) continue;
            const double mx = out.place.mirrored ? -way.kx : way.kx;
            for (std::size_t k = 0; k < 3; ++k) {
                const double gx = shown[k][0] * 255 * pick(across[0], s.at.x, s.at.y) + shown[k][1] * pick(across[k + 1], s.at.x, s.at.y);
                const double gy = shown[k][0] * 255 * pick(down[0], s.at.x, s.at.y) + shown[k][1] * pick(down[k + 1], s.at.x, s.at.y);
                const double ux = gx * mx, uy = gy * way.ky;  // by mm upright on the design
                Vector j;
                j << -way.c * ux + way.s * uy, -way.s * ux - way.c * uy, s.upright.y * ux - s.upright.x * uy,
                    -s.upright.x / out.place.width * ux, -s.upright.y / out.place.height * uy;
                normal += w * j * j.transpose();
                right += w * j * r[k];
            }
        }
        if (sizes.size() < 60) break;
        std::nth_element(sizes.begin(), sizes.begin() + static_cast<long>(sizes.size() / 2), sizes.end());
        spread = std::clamp(1.2 * sizes[sizes.size() / 2], noise, round < 4 ? 60.0 : 30.0);
        Matrix damped = normal;
        for (int k = 0; k < 5; ++k) damped(k, k) *= 1.001;
        damped += Matrix::Identity() * 1e-9 * normal.trace();
        Vector step = damped.ldlt().solve(right);
        const double most = std::max(1.0, 2 * flat.cell);
        const double far = std::max({std::abs(step[0]) / most, std::abs(step[1]) / most, std::abs(step[2]) / 0.03,
                                     std::abs(step[3]) / (0.02 * out.place.width), std::abs(step[4]) / (0.02 * out.place.height)});
        if (far > 1) step /= far;
        out.place.middle = out.place.middle + Point{step[0], step[1]};
        out.place.angle += step[2];
        out.place.width = std::clamp(out.place.width + step[3], 0.7 * from.width, 1.4 * from.width);
        out.place.height = std::clamp(out.place.height + step[4], 0.7 * from.height, 1.4 * from.height);
        if (round >= 14 && std::abs(step[0]) + std::abs(step[1]) < 0.003 && std::abs(step[2]) < 2e-5) break;
    }
    out.explained = seen_squares > 0 ? 1 - off_squares / seen_squares : 0;
    // the model everywhere, and how much cells err together
    out.model = cv::Mat(unlike.size(), CV_32FC3, cv::Scalar(0, 0, 0));
    out.ink = cv::Mat(unlike.size(), CV_32F, cv::Scalar(0));
    cv::Mat off(unlike.size(), CV_32F, cv::Scalar(0)), counts(unlike.size(), CV_8U, cv::Scalar(0));
    const Way way(out.place, ink);
    for (const Cell& c : cells_about(out.place, 1)) {
        const Point p = way.cell(way.upright(c.q), ink);
        cv::Vec3f model(0, 0, 0);
        if (inside(p)) {
            const double cover = pick(fields[0], p.x, p.y);
            out.ink.at<float>(c.y, c.x) = static_cast<float>(cover);
            for (std::size_t k = 0; k < 3; ++k)
                model[static_cast<int>(k)] = static_cast<float>(shown[k][0] * 255 * cover + shown[k][1] * pick(fields[k + 1], p.x, p.y));
        }
        out.model.at<cv::Vec3f>(c.y, c.x) = model;
        const cv::Vec3f r = unlike.at<cv::Vec3f>(c.y, c.x) - model;
        off.at<float>(c.y, c.x) = std::clamp(r[0] + r[1] + r[2], static_cast<float>(-6 * spread), static_cast<float>(6 * spread));
        counts.at<std::uint8_t>(c.y, c.x) = 255;
    }
    const double variance =
        of_squares / std::max(1.0, 3.0 * static_cast<double>(counted)) * 2 * together(off, counts);  // colours err together
    const Matrix covariance = normal.ldlt().solve(Matrix::Identity()) * variance;
    for (int k = 0; k < 5; ++k) out.errors[static_cast<std::size_t>(k)] = 2 * std::sqrt(std::max(0.0, covariance(k, k)));
    return out;
}

}  // namespace orthema::vision
