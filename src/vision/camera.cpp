#include "vision/camera.h"

#include <Eigen/Cholesky>
#include <Eigen/Eigenvalues>
#include <Eigen/Geometry>
#include <Eigen/SVD>
#include <algorithm>
#include <cmath>
#include <map>

#include "vision/squares.h"

namespace orthema::vision {

CameraVector figures_of(const CameraPose& c) {
    CameraVector out;
    out << std::log(c.focal), c.distortion, c.turn[0], c.turn[1], c.turn[2], c.move[0], c.move[1], c.move[2];
    return out;
}

CameraPose camera_of(const CameraVector& v, int width, int height) {
    return {std::exp(v[0]), v[1], {v[2], v[3], v[4]}, {v[5], v[6], v[7]}, width, height};
}

namespace {

Eigen::Matrix3d turn_of(const CameraPose& c) {
    const Eigen::Vector3d w(c.turn[0], c.turn[1], c.turn[2]);
    const double angle = w.norm();
    if (angle < 1e-12) return Eigen::Matrix3d::Identity();
    return Eigen::AngleAxisd(angle, w / angle).toRotationMatrix();
}
Eigen::Vector3d move_of(const CameraPose& c) { return {c.move[0], c.move[1], c.move[2]}; }

Point distorted(const CameraPose& c, const Eigen::Vector3d& p) {
    const double u = p.x() / p.z(), v = p.y() / p.z(), k = c.focal * (1 + c.distortion * (u * u + v * v));
    return {c.width / 2.0 + u * k, c.height / 2.0 + v * k};
}

}  // namespace

Point seen_at(const CameraPose& c, Point p, double height) {
    return distorted(c, turn_of(c) * Eigen::Vector3d(p.x, p.y, -height) + move_of(c));
}

Eye eye_of(const CameraPose& c) {
    const Eigen::Vector3d eye = -turn_of(c).transpose() * move_of(c);
    return {{eye.x(), eye.y()}, -eye.z()};
}

Point on_table(const CameraPose& c, Point pixel, double height) {
    const double xd = (pixel.x - c.width / 2.0) / c.focal, yd = (pixel.y - c.height / 2.0) / c.focal, rd = std::hypot(xd, yd);
    double r = rd;
    for (int k = 0; k < 10; ++k) r -= (r * (1 + c.distortion * r * r) - rd) / std::max(0.2, 1 + 3 * c.distortion * r * r);
    const double k = rd > 0 ? r / rd : 1;
    const Eigen::Matrix3d turn = turn_of(c);
    const Eigen::Vector3d eye = -turn.transpose() * move_of(c), ray = turn.transpose() * Eigen::Vector3d(xd * k, yd * k, 1);
    const double t = (-height - eye.z()) / ray.z();
    return {eye.x() + ray.x() * t, eye.y() + ray.y() * t};
}

namespace {

using CardKey = std::pair<CardSize, int>;

/// The plane's map to the picture from its points, by the direct linear method; for a first guess.
Eigen::Matrix3d plane_map(const std::vector<std::pair<Point, Point>>& pairs) {
    Point from, to;
    for (const auto& [a, b] : pairs) {
        from = from + a * (1.0 / static_cast<double>(pairs.size()));
        to = to + b * (1.0 / static_cast<double>(pairs.size()));
    }
    double ka = 0, kb = 0;
    for (const auto& [a, b] : pairs) {
        ka += norm(a - from) / static_cast<double>(pairs.size());
        kb += norm(b - to) / static_cast<double>(pairs.size());
    }
    Eigen::Matrix<double, 9, 9> normal = Eigen::Matrix<double, 9, 9>::Zero();
    for (const auto& [a, b] : pairs) {
        const double x = (a.x - from.x) / ka, y = (a.y - from.y) / ka, u = (b.x - to.x) / kb, v = (b.y - to.y) / kb;
        Eigen::Matrix<double, 2, 9> rows;
        rows << x, y, 1, 0, 0, 0, -u * x, -u * y, -u, 0, 0, 0, x, y, 1, -v * x, -v * y, -v;
        normal += rows.transpose() * rows;
    }
    const Eigen::SelfAdjointEigenSolver<Eigen::Matrix<double, 9, 9>> solver(normal);
    const auto h = solver.eigenvectors().col(0);
    Eigen::Matrix3d m;
    m << h[0], h[1], h[2], h[3], h[4], h[5], h[6], h[7], h[8];
    Eigen::Matrix3d before, after;
    before << 1 / ka, 0, -from.x / ka, 0, 1 / ka, -from.y / ka, 0, 0, 1;
    after << kb, 0, to.x, 0, kb, to.y, 0, 0, 1;
    return after * m * before;
}

/// A pose that has this map with this focal length.
CameraPose first_pose(const Eigen::Matrix3d& map, double focal, int width, int height) {
    Eigen::Matrix3d lens;
    lens << focal, 0, width / 2.0, 0, focal, height / 2.0, 0, 0, 1;
    Eigen::Matrix3d m = lens.inverse() * map;
    m *= 2 / (m.col(0).norm() + m.col(1).norm());
    if (m(2, 2) < 0) m = -m;
    Eigen::Matrix3d turn;
    turn << m.col(0), m.col(1), m.col(0).cross(m.col(1));
    const Eigen::JacobiSVD<Eigen::Matrix3d> svd(turn, Eigen::ComputeFullU | Eigen::ComputeFullV);
    turn = svd.matrixU() * svd.matrixV().transpose();
    const Eigen::AngleAxisd axis(turn);
    const Eigen::Vector3d w = axis.axis() * axis.angle();
    return {focal, 0, {w.x(), w.y(), w.z()}, {m(0, 2), m(1, 2), m(2, 2)}, width, height};
}

Point placed(Point p, const double* at) { return Point{at[0], at[1]} + turned(p, at[2]); }

}  // namespace

Result<TableSeen> table_of(const std::vector<MarkerSeen>& markers, int width, int height, std::optional<double> focal_px) {
    std::map<CardKey, std::vector<const MarkerSeen*>> by_card;
    std::map<std::pair<CardKey, int>, int> times;
    for (const MarkerSeen& m : markers) {
        by_card[{m.of.size, m.of.card}].push_back(&m);
        if (++times[{{m.of.size, m.of.card}, m.of.place}] > 1)
            return Error{"Two cards in the picture have the same number: use cards with different numbers."};
    }
    std::erase_if(by_card, [](const auto& c) { return c.second.size() < 4; });
    if (by_card.empty())
        return Error{markers.empty() ? "No photo card was found in the picture: lay one flat beside the blank, all of it in the picture."
                                     : "Too little of the photo card is seen: lay it flat, all of it in the picture, with nothing on it."};
    // the one with most markers is where the table's frame begins
    std::vector<CardKey> cards;
    cards.reserve(by_card.size());
    for (const auto& [key, seen] : by_card) cards.push_back(key);
    std::stable_sort(cards.begin(), cards.end(), [&](const CardKey& a, const CardKey& b) { return by_card[a].size() > by_card[b].size(); });
    std::map<CardSize, std::vector<CardMark>> marks;
    for (const CardSize s : {CardSize::large, CardSize::small}) marks[s] = card_marks(s);
    struct Corner {
        std::size_t card;
        Point on_card, seen;
    };
    std::vector<Corner> corners;
    for (std::size_t c = 0; c < cards.size(); ++c)
        for (const MarkerSeen* m : by_card[cards[c]]) {
            const Rect& b = marks[cards[c].first][static_cast<std::size_t>(m->of.place)].box;
            const std::array<Point, 4> own{Point{b.x0, b.y0}, Point{b.x1, b.y0}, Point{b.x1, b.y1}, Point{b.x0, b.y1}};
            for (std::size_t k = 0; k < 4; ++k) corners.push_back({c, own[k], m->corners[k]});
        }
    const double longest = std::max(width, height);
    const double usual_focal = focal_px.value_or(0.77 * longest), focal_doubt = focal_px ? 0.03 : 0.12;
    const auto pairs_of = [&](std::size_t card) {
        std::vector<std::pair<Point, Point>> out;
        for (const Corner& c : corners)
            if (c.card == card) out.emplace_back(c.on_card, c.seen);
        return out;
    };
    const CameraPose first = first_pose(plane_map(pairs_of(0)), usual_focal, width, height);
    const int extra = static_cast<int>(cards.size()) - 1, n = camera_figures + 3 * extra;
    Eigen::VectorXd v(n);
    v.head<camera_figures>() = figures_of(first);
    for (int k = 0; k < extra; ++k) {
        const auto pairs = pairs_of(static_cast<std::size_t>(k) + 1);
        Point from, to;
        std::vector<std::pair<Point, Point>> on;
        for (const auto& [a, b] : pairs) {
            on.emplace_back(a, on_table(first, b));
            from = from + a * (1.0 / static_cast<double>(pairs.size()));
            to = to + on.back().second * (1.0 / static_cast<double>(pairs.size()));
        }
        double s = 0, c = 0;
        for (const auto& [a, b] : on) {
            s += cross(a - from, b - to);
            c += dot(a - from, b - to);
        }
        const double angle = std::atan2(s, c);
        v[camera_figures + 3 * k + 2] = angle;
        const std::array<double, 3> still{0, 0, angle};
        const Point turned = placed(from, still.data());
        v[camera_figures + 3 * k] = to.x - turned.x;
        v[camera_figures + 3 * k + 1] = to.y - turned.y;
    }
    const double corner_px = 0.12;
    const int rows = 2 * static_cast<int>(corners.size());
    const Residuals off = [&](const Eigen::VectorXd& x, Eigen::VectorXd& out) {
        const CameraPose camera = camera_of(x.head<camera_figures>(), width, height);
        const Eigen::Matrix3d turn = turn_of(camera);
        const Eigen::Vector3d move = move_of(camera);
        out.resize(rows + 2);
        for (std::size_t i = 0; i < corners.size(); ++i) {
            const Corner& c = corners[i];
            const Point on = c.card == 0 ? c.on_card : placed(c.on_card, x.data() + camera_figures + 3 * (static_cast<long>(c.card) - 1));
            const Point p = distorted(camera, turn * Eigen::Vector3d(on.x, on.y, 0) + move);
            out[2 * static_cast<long>(i)] = (p.x - c.seen.x) / corner_px;
            out[2 * static_cast<long>(i) + 1] = (p.y - c.seen.y) / corner_px;
        }
        out[rows] = (x[0] - std::log(usual_focal)) / focal_doubt;
        out[rows + 1] = x[1] / 0.06;
    };
    const Solved solved = least_squares(off, v, rows, 2.5);
    const CameraPose camera = camera_of(solved.figures.head<camera_figures>(), width, height);
    TableSeen out;
    out.camera = camera;
    double sum = 0;
    std::map<std::size_t, double> of_card;
    for (std::size_t i = 0; i < corners.size(); ++i) {
        const double square = solved.residuals.segment<2>(2 * static_cast<long>(i)).squaredNorm() * corner_px * corner_px;
        sum += square;
        of_card[corners[i].card] += square;
    }
    out.residual_px = std::sqrt(sum / static_cast<double>(corners.size()));
    for (std::size_t c = 0; c < cards.size(); ++c) {
        CardSeen seen;
        seen.size = cards[c].first;
        seen.card = cards[c].second;
        seen.marks = static_cast<int>(by_card[cards[c]].size());
        if (c > 0) {
            const double* at = solved.figures.data() + camera_figures + 3 * (static_cast<long>(c) - 1);
            seen.at = {at[0], at[1]};
            seen.angle = at[2];
        }
        seen.px_a_mm = norm(vision::seen_at(camera, seen.at + Point{0.5, 0}) - vision::seen_at(camera, seen.at - Point{0.5, 0}));
        out.cards.push_back(seen);
    }
    // a pixel seldom lies better than its share of noise says; a bent card does far worse
    const double doubt = std::max(1.0, std::pow(out.residual_px / (corner_px * std::sqrt(2.0)), 2));
    const Eigen::MatrixXd cov = solved.covariance.topLeftCorner(camera_figures, camera_figures) * doubt;
    out.covariance.assign(cov.data(), cov.data() + cov.size());
    if (out.residual_px > std::max(0.9, 0.35 * out.cards[0].px_a_mm))
        return Error{"The photo card does not lie flat, or it was printed distorted: smooth it, and take the picture again."};
    const Eigen::Vector3d down = turn_of(camera).col(2);
    if (down.z() < std::cos(50 * M_PI / 180)) return Error{"The picture was taken too much from the side: hold the camera straight above."};
    if (out.cards[0].px_a_mm < 0.7)
        return Error{"The photo card is too small in the picture: go nearer, or take the picture with more pixels."};
    return out;
}

}  // namespace orthema::vision
