// Snapping: the nearest line that an eye sees, against all lines looked at one by one.
#include "core/fitting/snap.h"

#include <random>

#include "support/support.h"

namespace orthema {
namespace TESTED {

TEST(Snap, GoesToTheNearestLineWithinReachAndNoFarther) {
    const Order order = test::small_order();
    const Panel panel = panel_for(order.styles[0], "L", Location::full_front);
    std::mt19937 random(3);
    std::uniform_real_distribution<double> x(-150, 150), y(60, 400), size(20, 180), reach(0.5, 12);
    int across = 0, down = 0, none = 0;
    for (int round = 0; round < 2000; ++round) {
        const auto box = [&] {
            const double left = x(random), top = y(random), w = size(random), h = size(random);
            return Rect{left, top, left + w, top + h};
        };
        const Rect ink = box();
        std::vector<Beside> others;
        for (auto k = random() % 3; k > 0; --k) others.push_back({box(), "other"});
        const double within = reach(random), line = ink.x0 + 0.4 * ink.width();
        const Snapped s = snapped(ink, line, 0, panel, others, within);
        // every line there is, as how far the ink would have to go
        const double level = margin_height(panel, ink);
        std::vector<double> right{-line, (left_edge_x(panel, level) + right_edge_x(panel, level)) / 2 - ink.centre().x}, lower;
        for (const Beside& o : others) {
            for (const double d : {o.ink.x0 - ink.x0, o.ink.x1 - ink.x1, o.ink.centre().x - ink.centre().x}) right.push_back(d);
            for (const double d : {o.ink.y0 - ink.y0, o.ink.y1 - ink.y1, o.ink.centre().y - ink.centre().y}) lower.push_back(d);
        }
        const auto nearest = [&](const std::vector<double>& all) {
            double best = within + 1;
            for (const double d : all) best = std::min(best, std::abs(d));
            return best;
        };
        int upright = 0, flat = 0;
        for (const SnapLine& l : s.lines) ++(l.upright ? upright : flat);
        EXPECT_EQ(upright, nearest(right) <= within ? 1 : 0);
        EXPECT_EQ(flat, nearest(lower) <= within ? 1 : 0);
        if (upright == 1) EXPECT_NEAR(std::abs(s.right), nearest(right), 1e-9);
        if (flat == 1) EXPECT_NEAR(std::abs(s.down), nearest(lower), 1e-9);
        if (upright == 0) EXPECT_EQ(s.right, 0);
        across += upright;
        down += flat;
        none += s.lines.empty() ? 1 : 0;
    }
    EXPECT_GT(across, 50);
    EXPECT_GT(down, 50);
    EXPECT_GT(none, 50);
}

}  // namespace TESTED
}  // namespace orthema
