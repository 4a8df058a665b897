// Layers: offsets against raster dilation, bridges, weeding; colours taken apart; coverage against random shifts.
#include "core/transfers/layers.h"

#include <gtest/gtest.h>

#include <random>

#include "core/fitting/coverage.h"
#include "core/transfers/separation.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

Region star(unsigned seed, double radius, int arms) {
    std::mt19937 random(seed);
    return {test::random_star(random, radius, arms)};
}

TEST(Layers, AnOffsetIsWhatDilationOfTheRasterGives) {
    for (const double by : {2.0, -1.5, 0.7})
        for (const unsigned seed : {1u, 2u, 3u}) {
            const Region shape = star(seed, 30, 7);
            const auto layer = layer_shape(shape, {by, Corner::round, 0, false, 2});
            ASSERT_TRUE(layer);
            // a point belongs to the grown shape when the shape comes as near as `by`: counted on a grid
            int wrong = 0, all = 0;
            const Rect box = bounds(shape).grown(4);
            for (double y = box.y0; y < box.y1; y += 0.9)
                for (double x = box.x0; x < box.x1; x += 0.9) {
                    const bool in = test::winds_around(shape[0], {x, y});
                    double edge = 1e9;
                    for (std::size_t i = 0; i < shape[0].outer.size(); ++i) {
                        const Point a = shape[0].outer[i], d = shape[0].outer[(i + 1) % shape[0].outer.size()] - a;
                        const double t = std::clamp(dot(Point{x, y} - a, d) / dot(d, d), 0.0, 1.0);
                        edge = std::min(edge, norm(Point{x, y} - (a + d * t)));
                    }
                    const bool wanted = by > 0 ? in || edge <= by : in && edge >= -by;
                    if (std::abs(edge - std::abs(by)) < 0.08) continue;  // too near the edge to tell
                    ++all;
                    wrong += inside(*layer, {x, y}) != wanted ? 1 : 0;
                }
            EXPECT_GT(all, 1000);
            EXPECT_EQ(wrong, 0) << by << " " << seed;
        }
}

TEST(Layers, SquareCornersReachFartherThanRoundOnes) {
    const Region box = box_region({0, 0, 20, 10});
    EXPECT_NEAR(area(*layer_shape(box, {2, Corner::square, 0, false, 2})), 24 * 14, 0.01);
    EXPECT_NEAR(area(*layer_shape(box, {2, Corner::round, 0, false, 2})), 24 * 14 - (4 - M_PI) * 4, 2.2) << "its arcs are circumscribed";
}

TEST(Layers, SmallHolesAreFilledAndLargeOnesKept) {
    Region plate = box_region({0, 0, 60, 40});
    plate[0].holes = {box_region({5, 5, 8, 8})[0].outer, box_region({20, 10, 45, 30})[0].outer};
    const auto filled_in = layer_shape(plate, {0, Corner::round, 5, false, 2});
    ASSERT_EQ((*filled_in)[0].holes.size(), 1u);
    EXPECT_NEAR(area(*filled_in), 60 * 40 - 25 * 20, 1e-6);
}

TEST(Layers, ChokingThatSwallowsTheShapeIsASentence) {
    const auto gone = layer_shape(box_region({0, 0, 60, 3}), {-2, Corner::round, 0, false, 2});
    ASSERT_FALSE(gone);
    EXPECT_NE(gone.sentence().find("swallows"), std::string::npos);
    EXPECT_FALSE(layer_shape({}, {1, Corner::round, 0, false, 2}));
}

TEST(Layers, BridgesJoinAllIslandsByTheShortestWays) {
    Region islands;
    for (const double x : {0.0, 14.0, 40.0}) islands.push_back(box_region({x, 0, x + 10, 10})[0]);
    const Region joined = bridged(islands, 2);
    ASSERT_EQ(joined.size(), 1u);
    // gaps of 4 and 16 mm bridged 2 mm wide; never from the first to the last
    EXPECT_NEAR(area(joined) - area(islands), 2 * (4 + 16), 0.5);
    EXPECT_EQ(area(subtract(islands, joined)), 0);
}

TEST(Layers, WeedingFindsTheSliverTheGapAndTheIsland) {
    Region r = box_region({0, 0, 40, 20});
    r = unite(r, box_region({40, 9.8, 60, 10.2}));    // a sliver 0.4 wide
    r = subtract(r, box_region({10, -1, 10.3, 15}));  // a gap 0.3 wide
    r.push_back(box_region({70, 0, 71, 1})[0]);
    int kinds[3] = {0, 0, 0};
    for (const WeedFault& f : weed_faults(r, 1, 0.8, 2)) ++kinds[static_cast<int>(f.kind)];
    EXPECT_EQ(kinds[0], 1);
    EXPECT_EQ(kinds[1], 1);
    EXPECT_EQ(kinds[2], 1);
    EXPECT_TRUE(weed_faults(box_region({0, 0, 40, 20}), 1, 0.8, 2).empty());
}

TEST(Layers, ASheetThatShrinksComesOutAsDrawn) {
    for (const double s : {0.0, 0.5, 4.0}) EXPECT_NEAR(shrink_factor(s) * (1 - s / 100), 1, 1e-12);
}

TEST(Separation, TakesTwoColoursApartWithoutAThirdBetween) {
    test::Canvas c(120, 80);
    for (int y = 0; y < 80; ++y)
        for (int x = 0; x < 120; ++x) {
            // navy on the left, sun on the right, a soft edge of three pixels between, clear below
            const double t = std::clamp((x - 58.5) / 3, 0.0, 1.0);
            c.set(x, y, static_cast<int>(34 + t * (233 - 34)), static_cast<int>(48 + t * (180 - 48)), static_cast<int>(74 + t * (76 - 74)),
                  y < 70 ? 255 : 0);
        }
    const Separation s = separate(c.view(), 6, 14);
    ASSERT_EQ(s.colours.size(), 2u);
    const Region a = colour_shape(s, 0), b = colour_shape(s, 1);
    EXPECT_NEAR((area(a) + area(b)) * 120 * 120, 120 * 70, 1) << "knocked out: every pixel of ink once";
    EXPECT_EQ(a.size(), 1u);
    EXPECT_EQ(b.size(), 1u);
    EXPECT_LT(area(intersect(a, b)), 1e-6);
    EXPECT_LT(s.unsure, 0.05);
}

TEST(Coverage, BareExactlyWhereSomeShiftBaresIt) {
    std::mt19937 random(5);
    const auto real = [&](double a, double b) { return a + (b - a) * static_cast<double>(random() % 10000) / 10000; };
    for (int round = 0; round < 12; ++round) {
        // a tile with a notch and round corners under a picture that is off centre
        Region blank = offset(box_region({-30, -20, 30, 20}), 4);
        blank = subtract(blank, box_region({-6, 14, 6, 30}));
        const double grow = real(0.5, 3.5);
        const Region ink = mapped(offset(box_region({-34, -24, 34, 24}), grow), Affine::shift(real(-1, 1), real(-1, 1)));
        const double t = real(0.2, 3);
        const Coverage proof = coverage(ink, blank, t);
        bool some_bare = false;
        for (int i = 0; i < 400; ++i) {
            const double angle = real(0, 2 * M_PI);
            const Point shift{t * std::cos(angle), t * std::sin(angle)};
            // by raster: any point of the shifted blank without ink
            for (const Polygon& p : blank)
                for (const Point& q : p.outer) some_bare = some_bare || !inside(ink, q + shift);
        }
        if (proof.worst > t + 0.02) EXPECT_FALSE(some_bare);
        if (proof.worst < t - 0.15) EXPECT_TRUE(some_bare);
        EXPECT_EQ(proof.bare.empty(), proof.worst >= t - 0.02) << proof.worst << " " << t;
    }
}

TEST(Coverage, TheLeastScaleCoversAndAnythingLessDoesNot) {
    const Region blank = {Polygon{disc({3, 4}, 16, 90), {}}}, ink = star(9, 10, 5);
    const auto k = covering_scale(ink, blank, 2);
    ASSERT_TRUE(k);
    const auto covers = [&](double scale) {
        const Point a = bounds(ink).centre(), b = bounds(blank).centre();
        const Region scaled = mapped(ink, Affine::shift(b.x, b.y).after(Affine::scale(scale, scale)).after(Affine::shift(-a.x, -a.y)));
        for (int i = 0; i < 720; ++i)
            if (!inside(scaled, b + Point{18 * std::cos(i * M_PI / 360), 18 * std::sin(i * M_PI / 360)})) return false;
        return true;
    };
    EXPECT_TRUE(covers(*k * 1.002));
    EXPECT_FALSE(covers(*k * 0.99));
    Region ring = {Polygon{disc({0, 0}, 10, 60), {disc({0, 0}, 6, 60)}}};
    EXPECT_FALSE(covering_scale(ring, blank, 0)) << "nothing covers through a hole";
}

}  // namespace TESTED
}  // namespace orthema
