// Snips against an independent bending of the film on a ball, and against the fewest that a plain film needs.
#include "core/transfers/snips.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "core/blanks/panel.h"

namespace orthema {
namespace TESTED {

/// How high a strip of film rises that is bent evenly, by its own links, until its ends are `share` of its length apart.
double bent_up(double length, double share) {
    constexpr int links = 400;
    const auto bent = [&](double each) {
        Point at;
        double turn = each * (links - 1) / 2, top = 0;
        for (int i = 0; i < links; ++i) {
            at = at + Point{std::cos(turn), std::sin(turn)} * (length / links);
            turn -= each;
            top = std::max(top, at.y);
        }
        return std::pair(at.x, top);
    };
    double low = 0, high = 2 * M_PI / links;
    for (int i = 0; i < 50; ++i) {
        const double middle = (low + high) / 2;
        (bent(middle).first > length * share ? low : high) = middle;
    }
    return bent(low).second;
}

/// Sorted places at which a level line meets the film's edge or a snip.
std::vector<double> places_at(const Polygon& film, const std::vector<Ring>& snips, double y) {
    std::vector<double> out;
    const Ring& r = film.outer;
    for (std::size_t i = 0; i < r.size(); ++i) {
        const Point a = r[i], b = r[(i + 1) % r.size()];
        if ((a.y < y) != (b.y < y)) out.push_back(a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y));
    }
    for (const Ring& s : snips)
        if ((s[0].y - y) * (s[1].y - y) <= 0) out.push_back(s[0].x);
    std::sort(out.begin(), out.end());
    return out;
}

TEST(Snips, RiseIsThatOfAStripBentByItsLinks) {
    for (const double share : {0.999, 0.98, 0.9, 0.75, 0.6}) EXPECT_NEAR(rise(share), bent_up(1, share), 2e-3) << share;
    EXPECT_EQ(rise(1), 0);
    EXPECT_NEAR(widest_strip(1 / 90.0, 25, 1) * bent_up(1, std::cos(25 / 90.0)), 1, 0.01);
}

TEST(Snips, AreAsFewAsAPlainFilmNeeds) {
    std::mt19937 random(5);
    for (int k = 0; k < 60; ++k) {
        const auto of = [&](double low, double high) { return std::uniform_real_distribution(low, high)(random); };
        const double w = of(40, 140), h = of(20, 70), bend = 1 / of(70, 140), gap = of(0.5, 3);
        const Polygon film = box_region({0, 0, w, h})[0];
        const SnipPlan plan = snips(film, {}, bend, gap);
        const double most = widest_strip(bend, h / 2, gap);
        const auto fewest = [w](double strip) { return static_cast<std::size_t>(std::max(0.0, std::ceil(w / strip) - 1)); };
        EXPECT_GE(plan.snips.size(), 2 * fewest(most + snip_step)) << w << " " << h << " " << most;
        EXPECT_LE(plan.snips.size(), 2 * fewest(std::floor(most / snip_step) * snip_step)) << w << " " << h << " " << most;
        EXPECT_LE(plan.stands, gap + 1e-6);
    }
}

TEST(Snips, LetTheFilmLieRoundABallWithinTheGap) {
    std::mt19937 random(11);
    const auto of = [&](double low, double high) { return std::uniform_real_distribution(low, high)(random); };
    int blocked = 0;
    for (int k = 0; k < 15; ++k) {
        const double radius = of(70, 130), gap = of(0.8, 2.5), w = of(50, 120), h = of(25, 60);
        Region ink;  // letters side by side: round ones, upright bars and a wide bar
        for (double x = 6; x < w - 6;) {
            const double wide = of(6, 22), tall = of(0.4, 1) * h / 2;
            const double middle = x + wide / 2;
            if (k % 3 == 0)
                ink = unite(ink, {Polygon{disc_ring({middle, h / 2}, std::min(wide / 2, tall)), {}}});
            else
                ink = unite(ink, box_region({x, h / 2 - tall + 3, x + wide, h / 2 + tall - 3}));
            x += wide + of(2.5, 7);
        }
        const Polygon film = offset(box_region(bounds(ink)), 3)[0];
        const SnipPlan plan = snips(film, ink, 1 / radius, gap);
        const double middle = bounds(film.outer).centre().y;
        for (const Ring& s : plan.snips) {
            ASSERT_EQ(s.size(), 2U);
            const Region blade = stroked(s, false, 0.01, Cap::butt, PenJoin::miter);
            EXPECT_GE(distance(blade, ink), 1 - 0.06) << "ink is never cut";
            EXPECT_LT(distance(blade, Region{Polygon{film.outer, {}}}), 1e-9);
            EXPECT_FALSE(inside(film.outer, s[0] + (s[0] - s[1]) * (0.02 / norm(s[0] - s[1])))) << "it begins at the edge";
        }
        double worst = 0;
        const Rect box = bounds(film.outer);
        const Region keep = offset(ink, 1);
        for (double y = box.y0 + 0.13; y < box.y1; y += 0.31) {
            const auto places = places_at(film, plan.snips, y);
            for (std::size_t i = 0; i + 1 < places.size(); ++i) {
                const double length = places[i + 1] - places[i], stands = bent_up(length, std::cos((y - middle) / radius));
                worst = std::max(worst, stands);
                if (stands <= gap * 1.02) continue;
                ++blocked;  // then no upright cut gets here past the ink
                const double sliver = widest_strip(1 / radius, y - middle, gap) / 4 + 0.8;
                for (double x = places[i] + sliver; x < places[i + 1] - sliver; x += 0.5) {
                    const double edge = y < middle ? box.y0 - 1 : box.y1 + 1;
                    const Region way = stroked({{x, edge}, {x, y}}, false, snip_step * 2, Cap::square, PenJoin::miter);
                    EXPECT_FALSE(intersect(way, keep).empty()) << "a cut at " << x << " would reach " << y;
                }
            }
        }
        EXPECT_NEAR(plan.stands, worst, 0.15 + 0.05 * worst);
        // no one can be left out or be much shorter
        for (std::size_t s = 0; s < plan.snips.size(); ++s) {
            std::vector<Ring> fewer = plan.snips;
            const Ring cut = fewer[s];
            const double back = cut[1].y < cut[0].y ? 1 : -1;
            if (std::abs(cut[0].y - cut[1].y) > 1.6)
                fewer[s][1].y += back * 1.1;
            else
                fewer.erase(fewer.begin() + static_cast<std::ptrdiff_t>(s));
            double more = 0;
            for (double y = box.y0 + 0.05; y < box.y1; y += 0.1)
                if ((y < middle) == (cut[0].y < middle)) {
                    const auto with = places_at(film, plan.snips, y), without = places_at(film, fewer, y);
                    if (with.size() == without.size()) continue;
                    for (std::size_t i = 0; i + 1 < without.size(); ++i)
                        if (without[i] < cut[0].x && cut[0].x < without[i + 1])
                            more = std::max(more, bent_up(without[i + 1] - without[i], std::cos((y - middle) / radius)));
                }
            EXPECT_GT(more, gap * 0.93) << "snip " << s << " of case " << k << " is not needed";
        }
    }
    EXPECT_GT(blocked, 0) << "some ink lies in the way";
}

TEST(Snips, TheFormComesFromTwoTapes) {
    Measures m;
    // a ball of 90 mm radius: its panel is 150 wide along the bill and 96 high
    m[Measure::crown_width].value = Length::from_mm(150);
    m[Measure::crown_height].value = Length::from_mm(96);
    EXPECT_FALSE(crown_bend(m)) << "not taped";
    m[Measure::crown_middle].value = Length::from_mm(150 * std::cos(48 / 90.0));
    ASSERT_TRUE(crown_bend(m));
    EXPECT_NEAR(1 / *crown_bend(m), 90, 1e-6);
    m[Measure::crown_middle].value = Length::from_mm(150);  // a drum: it bends one way only
    EXPECT_EQ(*crown_bend(m), 0);
    EXPECT_TRUE(snips(box_region({0, 0, 100, 60})[0], {}, 0, 1).snips.empty());
    const SnipPlan absurd = snips(box_region({0, 0, 3000, 2000})[0], {}, 1 / 90.0, 1);
    EXPECT_TRUE(absurd.snips.empty());
    EXPECT_GT(absurd.stands, 100);
}

}  // namespace TESTED
}  // namespace orthema
