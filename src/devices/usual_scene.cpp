// Scenes as they come before a camera, by seed.
#include <algorithm>
#include <array>
#include <cmath>
#include <random>

#include "devices/camera.h"

namespace orthema {

Scene usual_scene(Family family, Face face, const Measures& measures, unsigned seed, int cards) {
    std::mt19937 random(seed);
    const auto between = [&](double a, double b) { return a + (b - a) * static_cast<double>(random()) / 4294967296.0; };
    static const std::array<Colour, 8> cloths{Colour{0.93, 0.93, 0.92, 1}, Colour{0.12, 0.13, 0.16, 1}, Colour{0.15, 0.22, 0.42, 1},
                                              Colour{0.62, 0.14, 0.18, 1}, Colour{0.55, 0.57, 0.58, 1}, Colour{0.82, 0.72, 0.32, 1},
                                              Colour{0.25, 0.45, 0.33, 1}, Colour{0.72, 0.79, 0.86, 1}};
    static const std::array<Colour, 5> tables{Colour{0.66, 0.50, 0.34, 1}, Colour{0.78, 0.77, 0.74, 1}, Colour{0.20, 0.21, 0.22, 1},
                                              Colour{0.42, 0.30, 0.20, 1}, Colour{0.50, 0.56, 0.52, 1}};
    Scene s;
    s.family = family;
    s.measures = measures;
    s.face = face;
    const auto far = [](const Colour& a, const Colour& b) { return std::hypot(a.r - b.r, a.g - b.g, a.b - b.b) > 0.25; };
    do {
        s.cloth = cloths[random() % cloths.size()];
        s.table = tables[random() % tables.size()];
    } while (!far(s.cloth, s.table));
    s.top = static_cast<TableTop>(random() % 3);
    const bool hard = is_hard(family);
    s.knit = hard ? 0.005 : between(0.01, 0.05);
    s.heather = !hard && random() % 4 == 0 ? between(0.1, 0.3) : 0;
    s.creases = hard ? 0 : between(0, 0.12);
    s.waves = hard ? 0 : between(0.2, 1.0);
    s.shadow = between(0.05, 0.3);
    s.light = between(0, 0.25);
    s.thickness = hard ? 3 : between(0.5, 1.5);
    if (has_sleeves(family)) s.lying = {between(-0.25, 0.25), between(-0.25, 0.25)};
    Rect box;
    double high = 0;  // of what is nearer to the lens than the table
    if (const auto wall = face == Face::wrap ? wall_of(family, measures) : std::nullopt) {
        const double wide = std::max(wall->top_diameter, wall->bottom_diameter);
        box = {-wide / 2, 0, wide / 2, wall->slant()};
        high = wide;
        s.standing = random() % 3 == 0;
        s.behind = s.standing ? between(0, 3) : 0;
    } else {
        box = bounds(lying_panel(family, measures, s.face, false, s.lying).outline);
    }
    const CardSize size = std::max(box.width(), box.height()) < 250 ? CardSize::small : CardSize::large;
    const Rect paper = card_paper(size);
    s.blank = {-box.centre().x, -box.centre().y, between(-0.12, 0.12)};
    const double gap = between(15, 40) + 0.4 * high;
    Rect all = box;
    const auto lay = [&](int card, Point at, double angle) {
        s.cards.push_back({size, card, {at.x - box.centre().x, at.y - box.centre().y, angle}, 1, {}, {}});
        all = {std::min(all.x0, at.x - paper.x1), std::min(all.y0, at.y - paper.y1), std::max(all.x1, at.x + paper.x1),
               std::max(all.y1, at.y + paper.y1)};
    };
    const double out = box.width() / 2 + gap + paper.x1, up = between(-0.3, 0.3) * box.height();
    const Point c = box.centre();
    const double side = random() % 2 == 0 ? 1 : -1;
    if (cards == 1)
        lay(1 + static_cast<int>(random() % 12), {c.x + side * (out + 20), c.y + up}, between(-0.3, 0.3));
    else {
        const double tall = box.height() / 2 + gap + paper.y1;
        lay(1, {c.x - out - 25, c.y + up}, between(-0.2, 0.2));
        lay(2, {c.x + out + 25, c.y - up}, between(-0.2, 0.2));
        lay(3, {c.x + up / 2, c.y - tall - 25}, between(-0.2, 0.2));
        lay(4, {c.x - up / 2, c.y + tall + 25}, between(-0.2, 0.2));
    }
    Lens& l = s.lens;
    l.focal = l.width * between(0.68, 0.85);
    l.distortion = between(-0.06, 0.06);
    l.tilt = between(-0.22, 0.22);
    l.lean = between(-0.18, 0.18);
    l.roll = between(-0.1, 0.1) + (all.height() > all.width() ? M_PI / 2 : 0);
    l.aim = {all.centre().x - c.x + between(-15, 15), all.centre().y - c.y + between(-15, 15)};
    const double wide = std::max(all.width(), all.height()), narrow = std::min(all.width(), all.height());
    l.distance = between(1.12, 1.3) * l.focal * std::max((wide + 60) / l.width, (narrow + 60) / l.height) + high;
    l.blur = between(0.5, 1.2);
    l.noise = between(1, 5);
    l.says_focal = random() % 3 != 0;
    return s;
}

}  // namespace orthema
