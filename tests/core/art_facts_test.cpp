// What is found in pixels, against counts of the pixels themselves.
#include "core/artwork/art_facts.h"

#include <cmath>
#include <random>

#include "support/support.h"

namespace orthema {
namespace TESTED {

using test::Canvas;

TEST(ArtFacts, InkBoxIsExactToAPixel) {
    std::mt19937 random(4);
    std::uniform_int_distribution<int> any(0, 39);
    for (int round = 0; round < 60; ++round) {
        Canvas c(41, 43);
        int x0 = 99, y0 = 99, x1 = -1, y1 = -1;
        for (int k = 0; k < 12; ++k) {
            const int x = any(random), y = any(random);
            const int alpha = k % 3 == 0 ? ink_alpha - 1 : ink_alpha + 10 * k;
            c.set(x, y, 10, 20, 30, alpha);
        }
        for (int y = 0; y < c.height; ++y)
            for (int x = 0; x < c.width; ++x)
                if (c.at(x, y)[3] >= ink_alpha) {
                    x0 = std::min(x0, x);
                    y0 = std::min(y0, y);
                    x1 = std::max(x1, x + 1);
                    y1 = std::max(y1, y + 1);
                }
        const ArtFacts f = look_at(c.view(), false);
        EXPECT_EQ(f.ink_px, (Rect{double(x0), double(y0), double(x1), double(y1)}));
        EXPECT_DOUBLE_EQ(f.aspect, double(y1 - y0) / (x1 - x0));
    }
}

TEST(ArtFacts, OutlineAreaIsThePixelCount) {
    std::mt19937 random(6);
    std::bernoulli_distribution ink(0.55);
    for (int round = 0; round < 40; ++round) {
        Canvas c(30, 24);
        c.fill([&](double, double) { return ink(random); });
        const Region outline = pixel_outline(c.view(), ink_alpha);
        EXPECT_DOUBLE_EQ(area(outline), c.count(ink_alpha));
        for (int y = 0; y < c.height; ++y)
            for (int x = 0; x < c.width; ++x) ASSERT_EQ(inside(outline, {x + 0.5, y + 0.5}), c.at(x, y)[3] >= ink_alpha);
    }
}

TEST(ArtFacts, OutlineOfADiscWithAHoleIsCloseAfterSimplifying) {
    Canvas c(400, 400);
    c.fill([](double x, double y) {
        const double r = std::hypot(x - 200, y - 200);
        return r < 180 && r > 80;
    });
    const ArtFacts f = look_at(c.view(), false);
    ASSERT_EQ(f.outline.size(), 1u);
    ASSERT_EQ(f.outline[0].holes.size(), 1u);
    const double unit = f.ink_px.width();
    EXPECT_NEAR(area(f.outline) * unit * unit, c.count(ink_alpha), c.count(ink_alpha) * 0.01);
    EXPECT_LT(f.outline[0].outer.size() * 3, pixel_outline(c.view(), ink_alpha)[0].outer.size());
    EXPECT_NEAR(f.optical_centre.x, 0.5, 1e-3);
}

TEST(ArtFacts, OpticalCentreIsTheMeanOfTheInk) {
    Canvas c(100, 50);
    c.fill([](double x, double) { return x < 20; }, 0, 0, 0, 255);
    c.fill([](double x, double y) { return x > 60 && y > 30; }, 0, 0, 0, 128);
    double w = 0, wx = 0, wy = 0;
    for (int y = 0; y < 50; ++y)
        for (int x = 0; x < 100; ++x) {
            const int a = c.at(x, y)[3];
            w += a;
            wx += a * (x + 0.5);
            wy += a * (y + 0.5);
        }
    const ArtFacts f = look_at(c.view(), false);
    EXPECT_NEAR(f.optical_centre.x * f.ink_px.width() + f.ink_px.x0, wx / w, 1e-9);
    EXPECT_NEAR(f.optical_centre.y * f.ink_px.width() + f.ink_px.y0, wy / w, 1e-9);
}

TEST(ArtFacts, AnAntialiasedEdgeIsNoHaloButASoftOneIs) {
    Canvas hard(200, 200), soft(200, 200);
    for (int y = 0; y < 200; ++y)
        for (int x = 0; x < 200; ++x) {
            const double r = std::hypot(x + 0.5 - 100, y + 0.5 - 100);
            hard.set(x, y, 0, 0, 0, int(std::clamp(80.5 - r, 0.0, 1.0) * 255));
            soft.set(x, y, 0, 0, 0, int(std::clamp((90 - r) / 40, 0.0, 1.0) * 255));
        }
    EXPECT_LT(look_at(hard.view(), false).half_transparent, 0.005);
    EXPECT_GT(look_at(soft.view(), false).half_transparent, 0.3);
}

TEST(ArtFacts, FlatBackgroundIsSeenAndItsColourNamed) {
    Canvas c(60, 60);
    c.fill([](double, double) { return true; }, 250, 250, 248);
    c.fill([](double x, double y) { return std::hypot(x - 30, y - 30) < 15; }, 10, 80, 90);
    const ArtFacts f = look_at(c.view(), false);
    EXPECT_TRUE(f.flat_background);
    EXPECT_NEAR(f.background.r, 250 / 255.0, 1e-9);
    c.set(0, 30, 10, 80, 90, 255);
    EXPECT_FALSE(look_at(c.view(), false).flat_background) << "ink that reaches the edge is no background";
}

TEST(ArtFacts, AnEmptyPictureIsAStop) {
    const ArtFacts f = look_at(Canvas(10, 10).view(), false);
    EXPECT_TRUE(f.empty());
    const Findings said = art_findings(f, "blank", "Blank", std::nullopt);
    ASSERT_EQ(said.size(), 1u);
    EXPECT_EQ(said[0].severity, Severity::stop);
}

TEST(ArtFacts, ResolutionAtTheLargestUse) {
    Canvas c(300, 100);
    c.fill([](double, double) { return true; });
    const ArtFacts f = look_at(c.view(), false);
    EXPECT_NEAR(*resolution(f, Length::from_inches(2)), 150, 1e-9);
    const auto low = [&](double inches) {
        for (const Finding& x : art_findings(f, "a", "A", Length::from_inches(inches)))
            if (x.code == "art-resolution") return true;
        return false;
    };
    EXPECT_FALSE(low(2));
    EXPECT_TRUE(low(2.05));
    EXPECT_FALSE(resolution(look_at(c.view(), true), Length::from_inches(2))) << "vector art has no resolution";
}

}  // namespace TESTED
}  // namespace orthema
