// The largest clear design against an independent raster, and what is left against small steps.
#include "core/fitting/clear_area.h"

#include <cmath>
#include <random>

#include "core/fitting/exactness.h"
#include "files/library.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

/// Whether any sample of the design at this width lies within an obstacle: a grid over the design's own frame, each
/// sample mapped to the panel and looked up by winding. Knows nothing of rays or edges.
bool raster_hits(const Polygon& design, Point about, const std::vector<Polygon>& walls, Point anchor, double width, int cells) {
    const Rect box = bounds(design.outer);
    for (int i = 0; i <= cells; ++i)
        for (int k = 0; k <= cells; ++k) {
            const Point u{box.x0 + box.width() * i / cells, box.y0 + box.height() * k / cells};
            if (!test::winds_around(design, u)) continue;
            const Point at = anchor + (u - about) * width;
            for (const Polygon& w : walls)
                if (test::winds_around(w, at)) return true;
        }
    return false;
}

/// A star-shaped design about a point: it equals its own star hull, so that a raster of it can judge the answer.
Polygon random_design(std::mt19937& random) {
    Polygon p = test::random_star(random, 0.5, 9 + static_cast<int>(random() % 14));
    for (Point& q : p.outer) q = q + Point{0.5, 0.5};
    return p;
}

TEST(ClearArea, LargestDesignAgainstARasterOnRandomOutlines) {
    std::mt19937 random(20);
    std::uniform_real_distribution<double> place(-220, 220), size(20, 90);
    int judged = 0;
    for (int round = 0; round < test::rounds(12, 100); ++round) {
        const Polygon design = random_design(random);
        const StarHull hull({design}, {0.5, 0.5});
        std::vector<Polygon> walls;
        ClearArea area;
        for (int i = 0; i < 5; ++i) {
            Polygon w = test::random_star(random, size(random), 7);
            const Point at{place(random), place(random)};
            for (Point& q : w.outer) q = q + at;
            walls.push_back(w);
            area.push_back(obstacle_of("wall " + std::to_string(i), {w}, 0));
        }
        const ClearLimit limit = widest_clear(hull, area, {0, 0}, 900);
        if (!limit.anyway.empty()) {
            EXPECT_TRUE(std::any_of(walls.begin(), walls.end(), [](const Polygon& w) {
                return test::winds_around(w, {0, 0}) || distance(w, box_region({-1, -1, 1, 1})[0]) < 0.01;
            }));
            continue;
        }
        ++judged;
        // a little smaller, and much smaller: free. A little larger: not. The raster sees corners only to its cell.
        for (const double k : {0.3, 0.7, 0.97, 0.9995})
            EXPECT_FALSE(raster_hits(design, {0.5, 0.5}, walls, {0, 0}, limit.width * k, 80)) << round << " at " << k;
        if (limit.width < 900) {
            EXPECT_FALSE(limit.by.empty());
            bool hit = false;
            for (const int cells : {110, 330})  // a thin corner may lie between the samples of a coarse grid; a hit is a hit
                for (double k = 1.0005; k < 1.08 && !hit; k *= 1.004)
                    hit = raster_hits(design, {0.5, 0.5}, walls, {0, 0}, limit.width * k, cells);
            EXPECT_TRUE(hit) << round << " is not tight at " << limit.width;
        }
    }
    EXPECT_GT(judged, 8);
}

TEST(ClearArea, IsExactWhereItCanBeWorkedOutByHand) {
    // a square grown about its middle, a wall at x = 60 with 10 mm clearance: half of the width is 50. The grown wall may lie
    // 0.05 mm nearer than the clearance, never farther.
    const Region square{Polygon{{{0, 0}, {1, 0}, {1, 1}, {0, 1}}, {}}};
    const Region wall = box_region({60, -500, 4000, 500});
    EXPECT_NEAR(widest_clear(StarHull(square, {0.5, 0.5}), {obstacle_of("wall", wall, 10)}, {0, 0}, 900).width, 99.95, 0.051);
    // hung from its top at y = 0 over a floor at 80, without clearance: 80 high
    const Region floor = box_region({-900, 80, 900, 4000});
    EXPECT_NEAR(widest_clear(StarHull(square, {0.5, 0}), {obstacle_of("floor", floor, 0)}, {0, 0}, 900).width, 80, 1e-6);
    // a disc reaches a corner wall later than its box would
    Polygon disc;
    for (int i = 0; i < 360; ++i) disc.outer.push_back({0.5 + 0.5 * std::cos(i * M_PI / 180), 0.5 + 0.5 * std::sin(i * M_PI / 180)});
    const Region corner{Polygon{{{50, 50}, {400, 50}, {400, 400}, {50, 400}}, {}}};
    const ClearLimit round = widest_clear(StarHull({disc}, {0.5, 0.5}), {obstacle_of("corner", corner, 0)}, {0, 0}, 900);
    EXPECT_NEAR(round.width, 100 * std::sqrt(2.0), 0.02);
    EXPECT_EQ(round.by, "corner");
    EXPECT_NEAR(widest_clear(StarHull(square, {0.5, 0.5}), {obstacle_of("corner", corner, 0)}, {0, 0}, 900).width, 100, 1e-6);
    // an anchor on a feature is the place's fault at any size
    const ClearLimit on = widest_clear(StarHull(square, {0.5, 0.5}), {obstacle_of("zip", box_region({-5, -100, 5, 100}), 3)}, {2, 0}, 900);
    EXPECT_EQ(on.anyway, (std::vector<std::string>{"zip"}));
    EXPECT_EQ(on.width, 900);
    // inside a ring: the area round a tag is met from within, all smaller ones fit
    const Region outside = subtract(box_region({-500, -500, 500, 500}), box_region({-40, -40, 40, 40}));
    EXPECT_NEAR(widest_clear(StarHull(square, {0.5, 0.5}), {obstacle_of("edge", outside, 4)}, {0, 0}, 900).width, 71.95, 0.051);
}

TEST(ClearArea, WhatLiesFarOffIsLeftOutWithoutAChange) {
    std::mt19937 random(11);
    int compared = 0;
    for (const BlankStyle& style : starting_library().styles)
        for (const Location l : locations_of(style)) {
            const Panel panel = panel_for(style, style.sizes.back(), l);
            const StarHull hull({test::random_star(random, 1, 9)}, {0, 0});
            const Point anchor{anchor_x(l, panel), panel.length * 0.4};
            const ClearLimit quick = widest_clear(hull, clear_area(l, panel), anchor, 900);
            double whole = 900;
            for (const Feature& f : keepouts(l, panel)) {
                const ClearLimit one = widest_clear(hull, {obstacle_of(f.name, f.place, f.clearance_mm)}, anchor, 900);
                if (one.anyway.empty()) whole = std::min(whole, one.width);
            }
            EXPECT_NEAR(quick.width, whole, 0.01) << style.id << " " << location_key(l);
            for (const double most : {0.5, 0.98, 1.0})
                EXPECT_NEAR(widest_clear(hull, clear_area(l, panel), anchor, whole * most).width, whole * most, 0.01);
            ++compared;
        }
    EXPECT_GT(compared, 120);
}

TEST(ClearArea, WhatIsLeftIsTheWayToTheFirstTouch) {
    std::mt19937 random(5);
    for (int round = 0; round < 25; ++round) {
        Ground ground;
        std::uniform_real_distribution<double> at(30, 70);
        ground.area = {obstacle_of("right", box_region({at(random), -400, 900, 400}), 3),
                       obstacle_of("below", box_region({-400, at(random), 400, 900}), 0),
                       obstacle_of("star", {test::random_star(random, 20, 8)}, 0)};
        for (Ring& r : ground.area[2].grown)
            for (Point& p : r) p = p + Point{-55, 5};
        ground.area[2].boxes = {bounds(ground.area[2].grown[0])};
        DecorationFit fit;
        fit.hull = {{0, 0}, {1, 0.1}, {0.8, 1}, {0.1, 0.7}};
        SizeFit s;
        s.width = 40;
        s.ink = {-20, -20, 20, 20};
        const Slack slack = slack_of(ground, fit, s);
        const auto touches = [&](double dx, double dy) {
            const Ring ink = mapped(fit.hull, Affine{40, 0, 0, 40, -20 + dx, -20 + dy});
            for (const Obstacle& o : ground.area)
                for (const Ring& r : o.grown)
                    if (area(intersect({Polygon{ink, {}}}, {Polygon{r, {}}})) > 1e-3) return true;
            return false;
        };
        for (const auto& [dx, dy, way] :
             {std::tuple{1.0, 0.0, slack.right}, {-1.0, 0.0, slack.left}, {0.0, 1.0, slack.down}, {0.0, -1.0, slack.up}}) {
            EXPECT_FALSE(touches(dx * (way - 0.05), dy * (way - 0.05)));
            if (way < 50) EXPECT_TRUE(touches(dx * (way + 0.3), dy * (way + 0.3)));
        }
        const Exactness e = exactness_of(slack);
        EXPECT_LE(e.sideways, std::max(1.0, std::min(slack.left, slack.right) / 2));
        EXPECT_LE(e.level, std::max(1.0, std::min(slack.up, slack.down) / 2));
        EXPECT_GE(std::min(e.level, e.sideways), 1);
    }
}

TEST(ClearArea, HullsHoldWhatTheyAreOf) {
    std::mt19937 random(8);
    for (int round = 0; round < 20; ++round) {
        const Polygon star = test::random_star(random, 30, 15);
        const Ring hull = convex_hull({star});
        EXPECT_GT(signed_area(hull), 0);
        for (std::size_t i = 0; i < hull.size(); ++i) {
            const Point a = hull[i], b = hull[(i + 1) % hull.size()];
            for (const Point p : star.outer) EXPECT_GE(cross(b - a, p - a), -1e-9);
        }
    }
}

TEST(ClearArea, TheMoveOfARemedyEndsItsFindingAndALittleLessDoesNot) {
    std::mt19937 random(31);
    std::uniform_real_distribution<double> place(-70, 70), size(20, 60), need(0, 25);
    int judged = 0;
    for (int round = 0; round < test::rounds(60, 600); ++round) {
        const auto shape = [&](double scale, Point at) {
            Polygon p = test::random_star(random, scale, 8 + static_cast<int>(random() % 9));
            for (Point& q : p.outer) q = q + at;
            return Region{p};
        };
        const Region ink = shape(size(random), {place(random), place(random)});
        const ClearArea area{obstacle_of("pocket", shape(size(random), {0, 0}), round % 4 == 0 ? 0 : need(random))};
        const auto said = clashes(area, ink);
        if (said.empty()) continue;
        ASSERT_TRUE(said[0].move);
        const Point by = *said[0].move;
        EXPECT_TRUE(by.x == 0 || by.y == 0);
        const auto after = [&](double share, double slack) {
            return clashes(area, mapped(ink, Affine::shift(by.x * share, by.y * share)), slack);
        };
        EXPECT_TRUE(after(1, 0.2).empty());
        if (norm(by) < 3) continue;
        ++judged;
        EXPECT_FALSE(after(1 - 1.0 / norm(by), 0).empty()) << "a millimetre less";
    }
    EXPECT_GT(judged, 20);
}

}  // namespace TESTED
}  // namespace orthema
