// Cups from the side, against the simulated camera, whose truth is known.
#include <gtest/gtest.h>

#include <cmath>

#include "devices/cup_in_view.h"
#include "scenes.h"
#include "vision/camera.h"

namespace orthema {
namespace {

Measures cup(double top, double bottom, double height, double handle) {
    Measures m;
    const auto set = [&](Measure k, double mm) { m[k].value = Length::from_mm(mm); };
    if (top == bottom)
        set(Measure::circumference, M_PI * top);
    else {
        set(Measure::top_diameter, top);
        set(Measure::bottom_diameter, bottom);
    }
    set(Measure::wall_height, height);
    set(Measure::handle_gap, handle);
    return m;
}

BlankSeen seen_of(const Scene& s, unsigned seed, double off = 0.03) {
    const Photo photo = simulated_photo(s, seed);
    const auto table = vision::find_table(photo, {});
    EXPECT_TRUE(table) << table.sentence();
    if (!table) return {};
    BlankAsked asked = asked_for(s, off);
    asked.standing = s.standing;
    const auto blank = vision::measure_blank(photo, *table, asked, {});
    EXPECT_TRUE(blank) << seed << ": " << blank.sentence();
    return blank ? *blank : BlankSeen{};
}

TEST(Cup, RaysMeetItsSurfaceAndNothingElse) {
    std::mt19937 random(4);
    const auto between = [&](double a, double b) { return a + (b - a) * static_cast<double>(random()) / 4294967296.0; };
    int all = 0;
    for (int k = 0; k < 300; ++k) {
        const CupWall wall{between(60, 110), between(40, 110), between(80, 220)};
        const bool standing = k % 2 == 0;
        const Cup solid(wall, {between(-50, 50), between(-50, 50)}, between(-3, 3), standing, standing ? between(0, 4) : 0, k % 3 == 0);
        const Vec eye{between(-200, 200), between(-200, 200), -between(500, 900)};
        for (int i = 0; i < 60; ++i) {
            const Vec way = unit(Vec{between(-150, 150), between(-150, 150), 0} - eye);
            const auto hit = solid.hit(eye, way);
            if (!hit) continue;
            ++all;
            const Vec on = eye + way * hit->far;
            EXPECT_LT(on.z, 1e-6) << "nothing of it lies under the table";
            EXPECT_GT(on.z, -2 * (std::max(wall.top_diameter, wall.bottom_diameter) + 4));
            EXPECT_NEAR(dot(hit->normal, hit->normal), 1, 1e-9);
            // from just before it the ray meets it again, from just behind it another surface or none
            EXPECT_NEAR(solid.hit(on - way * 0.5, way).value_or(CupHit{}).far, 0.5, 1e-6);
            EXPECT_TRUE(solid.near({on.x, on.y}, 1e-6));
        }
    }
    EXPECT_GT(all, 2000);
}

TEST(Cup, LyingOnItsSideItTouchesTheTableAllAlong) {
    const CupWall wall{90, 60, 150};
    const Cup solid(wall, {0, 0}, 0, false, 0, false);
    for (const double y : {1.0, 50.0, 100.0, wall.slant() - 1}) {
        const auto from_below = solid.hit({0, y, 100}, {0, 0, -1});
        ASSERT_TRUE(from_below);
        EXPECT_NEAR(from_below->far, 100, 1e-6) << y;
    }
}

TEST(CupTape, HeightAndDiametersComeOutLyingAndStanding) {
    int figures = 0, within = 0, covered = 0;
    for (unsigned seed = 1; seed <= 4; ++seed) {
        const bool mug = seed % 2 == 0;
        const Measures truth = mug ? cup(82, 82, 96, 22) : cup(88, 62, 150, 0);
        Scene s = small_picture(usual_scene(mug ? Family::mug : Family::tapered_tumbler, Face::wrap, truth, seed, 1), 1500);
        s.standing = seed > 2;
        const BlankSeen seen = seen_of(s, seed);
        EXPECT_EQ(seen.refused, "") << seed;
        EXPECT_EQ(seen.figures.size(), mug ? 2U : 3U);
        for (const auto& [m, f] : seen.figures) {
            const double off = std::abs(f.mm - measure_mm(s.measures, m));
            ++figures;
            within += off <= 2 ? 1 : 0;
            covered += off <= f.error ? 1 : 0;
            EXPECT_LT(off, 4) << seed << " " << measure_key(m);
        }
    }
    EXPECT_GE(figures, 10);
    EXPECT_GE(within, figures - 1);
    EXPECT_GE(covered, figures - 1);
}

TEST(CupTape, ADraggedPointHoldsAndAnotherThingIsRefused) {
    Scene s = small_picture(usual_scene(Family::tapered_tumbler, Face::wrap, cup(88, 62, 150, 0), 3, 1), 1600);
    const Photo photo = simulated_photo(s, 3);
    const auto table = vision::find_table(photo, {});
    ASSERT_TRUE(table);
    BlankAsked asked = asked_for(s, 0.02);
    asked.standing = s.standing;
    const auto before = vision::measure_blank(photo, *table, asked, {});
    ASSERT_TRUE(before && before->refused.empty());
    // six millimetres outside the outline somebody says that it runs
    const Ring& ring = before->outline[0];
    const Point on = ring[ring.size() / 2];
    Point middle;
    for (const Point& p : ring) middle = middle + p * (1.0 / static_cast<double>(ring.size()));
    asked.on_outline = {on + (on - middle) * (6 * table->cards[0].px_a_mm / norm(on - middle))};
    const auto after = vision::measure_blank(photo, *table, asked, {});
    ASSERT_TRUE(after);
    double least = 1e9;
    for (std::size_t k = 0; k < after->outline[0].size(); ++k)
        least = std::min(least, norm(asked.on_outline[0] - nearest_on(asked.on_outline[0], after->outline[0][k],
                                                                      after->outline[0][(k + 1) % after->outline[0].size()])));
    EXPECT_LT(least / table->cards[0].px_a_mm, 3);
    // by hand all round: the hand alone says where it runs
    asked.on_outline = ring;
    const auto all = vision::measure_blank(photo, *table, asked, {});
    ASSERT_TRUE(all) << all.sentence();
    EXPECT_EQ(all->figures.empty(), !all->refused.empty());
    // a coaster of about that size is no tumbler
    Measures flat;
    flat[Measure::width].value = Length::from_mm(110);
    flat[Measure::height].value = Length::from_mm(110);
    const Scene other = small_picture(usual_scene(Family::coaster, Face::front, flat, 5, 1), 1600);
    const Photo plain = simulated_photo(other, 5);
    const auto there = vision::find_table(plain, {});
    ASSERT_TRUE(there);
    asked.on_outline.clear();
    const auto none = vision::measure_blank(plain, *there, asked, {});
    EXPECT_TRUE(!none || !none->refused.empty());
}

}  // namespace
}  // namespace orthema
