// Wraps: the ring sector against its closed form, there and back, rolled up in space.
#include <gtest/gtest.h>

#include <random>

#include "core/geometry/ring_sector.h"
#include "core/transfers/make.h"
#include "core/transfers/wrap_view.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

TEST(RingSector, IsWhatTheFormulaSays) {
    // by hand: D = 88, d = 61, h = 148: s = 148.614, R = 484.374, angle = 0.570760
    const auto s = unrolled({88, 61, 148});
    ASSERT_TRUE(s);
    EXPECT_NEAR(s->slant, 148.614, 1e-3);
    EXPECT_NEAR(s->rim_radius, 484.374, 1e-2);
    EXPECT_NEAR(s->base_radius, 484.374 - 148.614, 1e-2);
    const double around = CupWall{88, 61, 148}.middle_circumference();
    const Point left = s->bent({-around / 2, 0}), right = s->bent({around / 2, 0});
    EXPECT_NEAR(norm(right - left), 2 * 484.374 * std::sin(0.570760 / 2), 0.01);
    // area of the sheet is the cone's
    const Region sheet = s->bent(box_region({-around / 2, 0, around / 2, s->slant}), 0.001);
    EXPECT_NEAR(area(sheet), M_PI * (88 + 61) / 2 * s->slant, 0.5);
}

TEST(RingSector, ThereAndBackAndRolledUpIsWhereItWas) {
    std::mt19937 random(3);
    const auto real = [&](double a, double b) { return a + (b - a) * static_cast<double>(random() % 100000) / 100000; };
    for (int round = 0; round < 300; ++round) {
        const CupWall wall{real(40, 120), real(40, 120), real(50, 250)};
        const auto s = unrolled(wall);
        ASSERT_TRUE(s);
        const double around = wall.middle_circumference();
        const Point p{real(-0.499, 0.499) * around, real(0, 1) * s->slant};
        EXPECT_LT(norm(s->unbent(s->bent(p)) - p), 1e-6);
        EXPECT_LT(norm(off_wall(wall, rolled(wall, p)) - p), 1e-6);
        // unrolling keeps lengths: two near points are as far apart in space as on the sheet
        const Point q = p + Point{real(-0.2, 0.2), real(-0.2, 0.2)};
        if (q.y < 0 || q.y > s->slant) continue;
        const Point3 a = rolled(wall, p), b = rolled(wall, q);
        const double space = std::hypot(a.x - b.x, a.y - b.y, a.z - b.z);
        EXPECT_NEAR(norm(s->bent(p) - s->bent(q)), space, 2e-3);
    }
}

TEST(RingSector, BadMeasuresAreASentenceAndNoTaperIsACylinder) {
    EXPECT_NE(unrolled({0, 60, 100}).sentence().find("diameter"), std::string::npos);
    EXPECT_NE(unrolled({60, 0, 100}).sentence().find("zero"), std::string::npos);
    EXPECT_NE(unrolled({60, 50, 0}).sentence().find("height"), std::string::npos);
    const auto straight = unrolled({60, 60.01, 100});
    ASSERT_TRUE(straight);
    EXPECT_TRUE(straight->straight());
    EXPECT_EQ(straight->bent(Point{12, 7}), (Point{12, 7}));
}

TEST(Resample, KeepsPixelsWhereTheyAreAndRampsStraight) {
    std::mt19937 random(2);
    std::vector<std::uint32_t> picture;
    for (int i = 0; i < 40 * 30; ++i) picture.push_back(0xff000000u | (static_cast<std::uint32_t>(random()) & 0xffffffu));
    std::vector<std::uint32_t> out(picture.size());
    resample({picture.data(), 40, 30}, out.data(), 40, 30, [](double x, double y) { return Point{x, y}; });
    EXPECT_EQ(out, picture) << "the cubic passes through the pixels";
    // a level ramp read half a pixel to the right is half a step on, to a level; mirrored, it is mirrored
    for (int i = 0; i < 40 * 30; ++i)
        picture[static_cast<std::size_t>(i)] = 0xff000000u | static_cast<std::uint32_t>(6 * (i % 40)) * 0x010101u;
    resample({picture.data(), 40, 30}, out.data(), 40, 30, [](double x, double y) { return Point{40 - x, y}; });
    for (int i = 0; i < 40 * 30; ++i)
        EXPECT_EQ(out[static_cast<std::size_t>(i)], picture[static_cast<std::size_t>(i / 40 * 40 + 39 - i % 40)]);
    for (int x = 3; x < 36; ++x) {
        const std::uint32_t p = sampled({picture.data(), 40, 30}, x + 1.0, 15.3);
        EXPECT_NEAR(p & 255, 6 * x + 3, 1);
    }
    EXPECT_EQ(sampled({picture.data(), 40, 30}, -9, 5), 0u) << "clear outside";
}

TEST(WrapView, WhatFacesTheViewerIsInTheMiddle) {
    const CupWall wall{60, 80, 100};
    const double around = wall.middle_circumference(), k = 2;
    // an atlas that tells the place: red grows along the wall
    const int w = static_cast<int>(around * k), h = static_cast<int>(wall.slant() * k);
    std::vector<std::uint32_t> atlas;
    for (int y = 0; y < h; ++y)
        for (int x = 0; x < w; ++x) atlas.push_back(0xff000000u | static_cast<std::uint32_t>(255 * x / w) << 16);
    const int vw = 180, vh = static_cast<int>(view_height(wall) * k) + 1;
    for (const double turn : {-40.0, 0.0, 55.0}) {
        std::vector<std::uint32_t> view(static_cast<std::size_t>(vw * vh));
        rolled_view({atlas.data(), w, h}, k, wall, turn, k, view.data(), vw, vh);
        const std::uint32_t p = view[static_cast<std::size_t>(vh / 2 * vw + vw / 2)];
        EXPECT_EQ(p >> 24, 255u);
        const double light = 0.80 + 0.20 * std::cos(0.5);
        EXPECT_NEAR(((p >> 16) & 255) / light, 255 * (turn / around + 0.5), 4);
        EXPECT_EQ(view[0], 0u) << "nothing beside the cup";
        const Seen seen = seen_at(wall, turn, {turn, 50});
        EXPECT_NEAR(seen.at.x, 0, 1e-9);
        EXPECT_TRUE(seen.front);
        EXPECT_FALSE(seen_at(wall, turn, {turn + around / 2, 50}).front);
    }
}

TEST(WrapSpan, LapsButtsAndHandlesAreAsLongAsTheySay) {
    BlankStyle bottle = test::library_style("tapered-bottle"), mug = test::library_style("enamel-mug");
    const double around = wall_of(bottle.family, bottle.chart.at("500 ml"))->middle_circumference();
    Making m;
    const auto length = [](const WrapSpan& s) { return s.to - s.from; };
    EXPECT_NEAR(length(wrap_span(bottle, "500 ml", m)), around, 1e-9);
    m.wrap_lap = Length::from_mm(4);
    EXPECT_NEAR(length(wrap_span(bottle, "500 ml", m)), around, 1e-9) << "a butt has no lap";
    m.wrap_join = Join::lap;
    m.seam_at = Length::from_mm(10);
    EXPECT_NEAR(length(wrap_span(bottle, "500 ml", m)), around + 4, 1e-9);
    EXPECT_NEAR(wrap_span(bottle, "500 ml", m).from, 10 - around / 2, 1e-9);
    // by tape: 254 round, the handle takes 34
    EXPECT_NEAR(length(wrap_span(mug, "350 ml", m)), 254 - 34, 1e-9);
}

TEST(FittingPanel, ATaperedWallIsFittedOnItsOwnFrame) {
    const BlankStyle bottle = test::library_style("tapered-bottle");
    const Panel p = fitting_panel(bottle, "500 ml", Face::wrap);
    EXPECT_NEAR(p.width, M_PI * (62 + 73) / 2, 1e-6);
    EXPECT_NEAR(p.length, std::hypot(170, 5.5), 1e-6);
    EXPECT_NEAR(area(p.outline), p.width * p.length, 1e-3);
}

}  // namespace TESTED
}  // namespace orthema
