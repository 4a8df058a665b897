#include "core/transfers/wrap_view.h"

namespace orthema {

double view_height(const CupWall& wall) { return wall.height + view_tilt * std::max(wall.top_diameter, wall.bottom_diameter) / 2; }

Seen seen_at(const CupWall& wall, double turn, Point on_wall) {
    const Point3 p = rolled(wall, {on_wall.x - turn, on_wall.y});
    return {{p.x, p.y + view_tilt * p.z}, p.z >= 0};
}

void rolled_view(const WordView& atlas, double atlas_k, const CupWall& wall, double turn, double k, std::uint32_t* to, int width,
                 int height) {
    const double around = wall.middle_circumference();
    const auto radius = [&](double down) {
        return (wall.top_diameter + (wall.bottom_diameter - wall.top_diameter) * down / wall.height) / 2;
    };
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x, ++to) {
            const double across = (x + 0.5 - width / 2.0) / k, seen = (y + 0.5) / k;
            // seen = down + tilt·z, z = √(r² − across²), and r hangs on how far down it is
            double down = seen, r = radius(seen);
            for (int i = 0; i < 3; ++i) {
                down = seen - view_tilt * std::sqrt(std::max(0.0, r * r - across * across));
                r = radius(std::clamp(down, 0.0, wall.height));
            }
            // soft at the silhouette: by how much of a pixel lies inside
            const double cover = std::min({(r - std::abs(across)) * k, (down + 0.5 / k) * k, (wall.height - down + 0.5 / k) * k, 1.0});
            if (cover <= 0) {
                *to = 0;
                continue;
            }
            const double angle = std::asin(std::clamp(across / r, -1.0, 1.0));
            double u = angle * around / (2 * M_PI) + turn;
            u -= around * std::floor(u / around + 0.5);
            const double v = std::clamp(down, 0.0, wall.height) * wall.slant() / wall.height;
            const std::uint32_t p = sampled(atlas, (u + around / 2) * atlas_k, v * atlas_k);
            const double light = (0.80 + 0.20 * std::cos(angle + 0.5)) * cover;
            std::uint32_t out = static_cast<std::uint32_t>((p >> 24) * cover) << 24;
            for (int c = 0; c < 24; c += 8) out |= static_cast<std::uint32_t>(((p >> c) & 255) * light) << c;
            *to = out;
        }
}

}  // namespace orthema
