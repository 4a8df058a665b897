// Thin strokes and narrow gaps, on pictures drawn with known widths.
#include "core/artwork/strokes.h"

#include <cmath>

#include "support/support.h"

namespace orthema {
namespace TESTED {

Rect all(const test::Canvas& c) { return {0, 0, static_cast<double>(c.width), static_cast<double>(c.height)}; }

TEST(Strokes, WidthOfALineAtAnyAngle) {
    for (const double width : {3.0, 6.0, 11.0})
        for (const double degrees : {0.0, 20.0, 45.0, 77.0, 90.0}) {
            test::Canvas c(300, 300);
            const double t = degrees * M_PI / 180;
            const Point n{-std::sin(t), std::cos(t)}, d{std::cos(t), std::sin(t)};
            c.fill([&](double x, double y) {
                const Point p{x - 150.25, y - 150.25};
                return (std::abs(dot(p, n)) < width / 2 && std::abs(dot(p, d)) < 120) || norm(p) < 40;
            });
            EXPECT_NEAR(stroke_widths(c.view(), all(c)).stroke_px, width, 1.6) << width << " at " << degrees;
        }
}

TEST(Strokes, GapBetweenTwoBlocksAndNoneOutside) {
    for (const int gap : {2, 5, 9}) {
        test::Canvas c(200, 120);
        c.fill([&](double x, double y) { return y > 5 && y < 115 && (x < 100 ? x > 5 : x > 100 + gap && x < 195); });
        const StrokeWidths w = stroke_widths(c.view(), all(c));
        EXPECT_NEAR(w.gap_px, gap, 1.3);
        EXPECT_EQ(w.stroke_px, 0);
    }
}

TEST(Strokes, CornersPointsAndBaysAreNoStrokesOrGaps) {
    // a star whose points taper, and the bays between them
    test::Canvas c(420, 420);
    Polygon star;
    for (int i = 0; i < 14; ++i) {
        const double r = i % 2 == 0 ? 200 : 110, t = i * M_PI / 7;
        star.outer.push_back({210 + r * std::cos(t), 210 + r * std::sin(t)});
    }
    c.fill([&](double x, double y) { return inside(star, {x, y}); });
    const StrokeWidths w = stroke_widths(c.view(), all(c));
    EXPECT_EQ(w.stroke_px, 0);
    EXPECT_EQ(w.gap_px, 0);
}

TEST(Strokes, RoundsThatTouchLeaveNotchesAndNoGap) {
    test::Canvas c(500, 300);
    c.fill([](double x, double y) { return norm(Point{x - 130, y - 150}) < 120 || norm(Point{x - 369.5, y - 150}) < 120; });
    EXPECT_EQ(stroke_widths(c.view(), all(c)).gap_px, 0);
    // a sliver with its point at one end, 6 degrees wide
    test::Canvas wedge(500, 300);
    wedge.fill(
        [](double x, double y) { return x > 5 && x < 480 && y > 5 && y < 295 && (x < 60 || std::abs(y - 150) > (x - 60) * 0.0525); });
    EXPECT_EQ(stroke_widths(wedge.view(), all(wedge)).gap_px, 0);
    // and a slot of one width with a closed end
    test::Canvas slot(500, 300);
    slot.fill([](double x, double y) { return x > 5 && x < 480 && y > 5 && y < 295 && (x < 60 || std::abs(y - 150) > 2); });
    EXPECT_NEAR(stroke_widths(slot.view(), all(slot)).gap_px, 4, 1.3);
}

TEST(Strokes, AFadedEdgeAroundTheInkIsNoGap) {
    test::Canvas c(120, 120);
    c.fill([](double x, double y) { return x > 10 && x < 110 && y > 10 && y < 110; }, 0, 0, 0, 40);
    c.fill([](double x, double y) { return x > 12 && x < 108 && y > 12 && y < 108; });
    const ArtFacts f = look_at(c.view(), false);
    EXPECT_EQ(f.narrow_gap, 0);
    ASSERT_FALSE(f.inks.empty());
    EXPECT_NEAR(f.inks[0].share, 1, 1e-9);
    EXPECT_NEAR(f.inks[0].colour.r, 200 / 255.0, 1e-9);
}

}  // namespace TESTED
}  // namespace orthema
