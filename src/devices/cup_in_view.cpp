#include "devices/cup_in_view.h"

#include <algorithm>
#include <cmath>

namespace orthema {

Vec unit(const Vec& v) {
    const double n = std::sqrt(dot(v, v));
    return n > 0 ? v * (1 / n) : v;
}

Cup::Cup(const CupWall& wall, Point rim, double angle, bool standing, double gap, bool handle)
    : length_(wall.height), rim_radius_(wall.top_diameter / 2), base_radius_(wall.bottom_diameter / 2) {
    const Vec along{-std::sin(angle), std::cos(angle), 0}, across{std::cos(angle), std::sin(angle), 0};
    // on its side a tapered wall lies on the table with a line of its surface: its axis leans by half the taper's angle
    const double slant = std::hypot(length_, rim_radius_ - base_radius_);
    const double lean = standing ? 0 : std::asin((rim_radius_ - base_radius_) / slant);
    axis_ = along * std::cos(lean) + Vec{0, 0, std::sin(lean)};
    const double high = standing ? std::max(rim_radius_, base_radius_) + gap : rim_radius_ * std::cos(lean);
    const double off = standing ? 0 : rim_radius_ * std::sin(lean);
    rim_ = Vec{rim.x, rim.y, -high} + along * off;
    if (handle) {
        // on its side the cup rolls until its handle touches the table
        const double out = 0.75 * rim_radius_, thick = 0.13 * rim_radius_;
        const double middle = 0.5 * (rim_radius_ + base_radius_);
        const double down = standing ? 0 : std::asin(std::clamp((middle - thick) / (middle + out), 0.0, 1.0));
        const Vec way = across * std::cos(down) + Vec{0, 0, std::sin(down)};
        constexpr int balls = 28;
        for (int k = 0; k <= balls; ++k) {
            const double t = M_PI * k / balls;
            handle_.push_back(
                {rim_ + axis_ * (length_ * (0.5 - 0.3 * std::cos(t))) + way * (middle - thick + (out + thick) * std::sin(t)), thick});
        }
    }
    for (const Ball& b : handle_) about_handle_.at = about_handle_.at + b.at * (1.0 / static_cast<double>(handle_.size()));
    for (const Ball& b : handle_) {
        const Vec d = b.at - about_handle_.at;
        about_handle_.radius = std::max(about_handle_.radius, std::sqrt(dot(d, d)) + b.radius);
    }
    seen_from_above_ = {1e9, 1e9, -1e9, -1e9};
    const double wide = std::max(rim_radius_, base_radius_);
    const auto with = [&](const Vec& p, double by) {
        seen_from_above_ = {std::min(seen_from_above_.x0, p.x - by), std::min(seen_from_above_.y0, p.y - by),
                            std::max(seen_from_above_.x1, p.x + by), std::max(seen_from_above_.y1, p.y + by)};
    };
    with(rim_, wide);
    with(rim_ + axis_ * length_, wide);
    for (const Ball& b : handle_) with(b.at, b.radius);
}

std::optional<CupHit> Cup::hit(const Vec& from, const Vec& way) const {
    std::optional<CupHit> best;
    const auto take = [&](double t, const Vec& normal, bool inside) {
        if (t > 1e-6 && (!best || t < best->far)) best = CupHit{t, normal, inside};
    };
    const Vec w = from - rim_;
    const double y0 = dot(w, axis_), yd = dot(way, axis_), k = (base_radius_ - rim_radius_) / length_, r0 = rim_radius_ + k * y0;
    // |w|² less its part along the axis is the square of the radius there
    const double a = dot(way, way) - yd * yd - k * k * yd * yd, b = dot(w, way) - y0 * yd - k * yd * r0, c = dot(w, w) - y0 * y0 - r0 * r0;
    const double root = b * b - a * c;
    if (root > 0 && std::abs(a) > 1e-12)
        for (const double sign : {-1.0, 1.0}) {
            const double t = (-b + sign * std::sqrt(root)) / a, y = y0 + t * yd;
            if (y < 0 || y > length_) continue;
            const Vec out = w + way * t - axis_ * y;
            const Vec normal = unit(unit(out) - axis_ * k);
            take(t, normal, dot(normal, way) > 0);
        }
    if (std::abs(yd) > 1e-12) {
        const double t = (length_ - y0) / yd;
        const Vec on = w + way * t - axis_ * length_;
        if (dot(on, on) <= base_radius_ * base_radius_) take(t, yd < 0 ? axis_ : axis_ * -1, yd > 0);
    }
    const auto passes = [&](const Ball& ball) {
        const Vec q = from - ball.at;
        const double along = dot(q, way);
        return along * along - dot(way, way) * (dot(q, q) - ball.radius * ball.radius) <= 0;
    };
    if (handle_.empty() || passes(about_handle_)) return best;
    for (const Ball& ball : handle_) {
        const Vec q = from - ball.at;
        const double qa = dot(way, way), qb = dot(q, way), qc = dot(q, q) - ball.radius * ball.radius, qr = qb * qb - qa * qc;
        if (qr <= 0) continue;
        const double t = (-qb - std::sqrt(qr)) / qa;
        take(t, unit(q + way * t), false);
    }
    return best;
}

bool Cup::near(Point p, double by) const { return seen_from_above_.grown(by).contains(p); }

}  // namespace orthema
