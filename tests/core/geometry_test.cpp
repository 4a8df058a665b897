// The geometry layer against areas and distances worked out another way.
#include "core/geometry/geometry.h"

#include <cmath>
#include <random>

#include "support/support.h"

namespace orthema {
namespace TESTED {

using test::random_star;
using test::winds_around;

Polygon square(double x, double y, double side) { return {{{x, y}, {x + side, y}, {x + side, y + side}, {x, y + side}}, {}}; }

TEST(Geometry, AreaOfPolygonWithHoleByHand) {
    Polygon p = square(0, 0, 10);
    p.holes.push_back({{2, 2}, {2, 5}, {5, 5}, {5, 2}});
    EXPECT_DOUBLE_EQ(area(p), 91);
    EXPECT_DOUBLE_EQ(perimeter({p}), 52);
    EXPECT_FALSE(inside(p, {3, 3}));
    EXPECT_TRUE(inside(p, {1, 1}));
}

TEST(Geometry, QuarterTurnsAreExact) {
    const Polygon p{{{1.1, 2.7}, {30.3, 4.9}, {8.6, 17.2}}, {}};
    Ring turned = p.outer;
    for (int i = 0; i < 4; ++i) turned = mapped(turned, Affine::turn(90));
    EXPECT_EQ(turned, p.outer);
    EXPECT_EQ(Affine::turn(450)(Point{1, 0}), (Point{0, 1}));
    EXPECT_EQ(Affine::turn(-90)(Point{0, 1}), (Point{1, 0}));
}

TEST(Geometry, AnyTurnKeepsAreaAndComposes) {
    std::mt19937 random(3);
    for (int i = 0; i < 50; ++i) {
        const Polygon p = random_star(random, 40, 9);
        const Affine map = Affine::shift(3, -8).after(Affine::turn(17.0 * i));
        EXPECT_NEAR(area(mapped(p, map)), area(p), 1e-8);
        const Point q{2.5, -1.25};
        const Point stepwise = Affine::shift(3, -8)(Affine::turn(17.0 * i)(q));
        EXPECT_NEAR(norm(map(q) - stepwise), 0, 1e-12);
        EXPECT_NEAR(map.determinant(), 1, 1e-12);
    }
}

TEST(Geometry, InsideAgreesWithTheWindingNumber) {
    std::mt19937 random(11);
    std::uniform_real_distribution<double> any(-45, 45);
    for (int i = 0; i < 60; ++i) {
        Polygon p = random_star(random, 40, 11);
        p.holes.push_back(random_star(random, 8, 7).outer);
        for (int k = 0; k < 60; ++k) {
            const Point q{any(random), any(random)};
            EXPECT_EQ(inside(p, q), winds_around(p, q));
        }
    }
}

TEST(Geometry, GrowingIsNowhereShortAndHardlyTooMuch) {
    std::mt19937 random(5);
    for (int i = 0; i < 40; ++i) {
        const Polygon p = random_star(random, 60, 7 + i % 9);
        for (const double by : {1.5, 2.0, 7.0}) {
            const double tolerance = 0.05;
            for (const Polygon& grown : offset({p}, by, tolerance))
                for (std::size_t k = 0; k < grown.outer.size(); ++k) {
                    // the middles of the edges are where chords of arcs come nearest
                    for (const Point q : {grown.outer[k], (grown.outer[k] + grown.outer[(k + 1) % grown.outer.size()]) * 0.5}) {
                        const double apart = distance(Polygon{{q, q + Point{1e-7, 0}, q + Point{0, 1e-7}}, {}}, p);
                        EXPECT_GE(apart, by - 0.001);
                        EXPECT_LE(apart, by + tolerance + 0.01);
                    }
                }
        }
    }
}

TEST(Geometry, BooleansKeepTheSumOfAreas) {
    std::mt19937 random(8);
    for (int i = 0; i < 40; ++i) {
        const Region a{random_star(random, 50, 9)};
        const Region b{mapped(random_star(random, 50, 12), Affine::shift(30, 10))};
        const double both = area(intersect(a, b));
        EXPECT_NEAR(area(unite(a, b)), area(a) + area(b) - both, 0.01);
        EXPECT_NEAR(area(subtract(a, b)), area(a) - both, 0.01);
    }
}

double sampled_distance(const Polygon& a, const Polygon& b) {
    const auto points = [](const Polygon& p) {
        std::vector<Point> out;
        const auto ring = [&](const Ring& r) {
            for (std::size_t i = 0; i < r.size(); ++i)
                for (int k = 0; k < 40; ++k) out.push_back(r[i] + (r[(i + 1) % r.size()] - r[i]) * (k / 40.0));
        };
        ring(p.outer);
        for (const Ring& h : p.holes) ring(h);
        return out;
    };
    double best = 1e18;
    for (const Point& p : points(a))
        for (const Point& q : points(b)) best = std::min(best, norm(p - q));
    return best;
}

TEST(Geometry, DistanceAgreesWithDenseSampling) {
    std::mt19937 random(21);
    std::uniform_real_distribution<double> far(35, 120);
    for (int i = 0; i < 25; ++i) {
        const Polygon a = random_star(random, 30, 8);
        const Polygon b = mapped(random_star(random, 30, 6), Affine::shift(far(random), far(random)));
        const double d = distance(a, b);
        if (d > 0) EXPECT_NEAR(d, sampled_distance(a, b), 0.35);
        for (const double limit : {d * 0.99, d * 1.01 + 1e-9}) EXPECT_EQ(nearer_than(a, b, limit), d < limit) << i;
    }
}

TEST(Geometry, DistanceIsZeroInsideAndCountsAcrossHoles) {
    Polygon ring = square(0, 0, 100);
    ring.holes.push_back(square(20, 20, 60).outer);
    const Polygon within = square(45, 45, 10);
    EXPECT_DOUBLE_EQ(distance(ring, within), 25);
    EXPECT_TRUE(nearer_than(ring, within, 25.01));
    EXPECT_FALSE(nearer_than(ring, within, 24.99));
    EXPECT_DOUBLE_EQ(distance(square(0, 0, 100), within), 0);
    EXPECT_TRUE(nearer_than(square(0, 0, 100), within, 0.1));
}

TEST(Geometry, SimplifyingStaysWithinItsTolerance) {
    Ring wavy;
    for (int i = 0; i < 720; ++i) {
        const double t = M_PI * i / 360;
        const double r = 50 + 0.4 * std::sin(23 * t);
        wavy.push_back({r * std::cos(t), r * std::sin(t)});
    }
    const Ring plain = simplified(wavy, 0.5);
    EXPECT_LT(plain.size(), wavy.size() / 4);
    const auto to_ring = [&](Point p) {
        double best = 1e18;
        for (std::size_t i = 0; i < plain.size(); ++i) {
            const Point a = plain[i], d = plain[(i + 1) % plain.size()] - a;
            const double t = std::clamp(dot(p - a, d) / dot(d, d), 0.0, 1.0);
            best = std::min(best, norm(p - (a + d * t)));
        }
        return best;
    };
    for (const Point& p : wavy) EXPECT_LE(to_ring(p), 0.5 + 1e-9);
    const Ring triangle{{0, 0}, {10, 0}, {0, 10}};
    EXPECT_EQ(simplified(triangle, 100), triangle);
}

TEST(Geometry, AnInverseUndoesAnyMap) {
    std::mt19937 random(12);
    std::uniform_real_distribution<double> some(-3, 3);
    for (int i = 0; i < 200; ++i) {
        const Affine map{some(random), some(random), some(random), some(random), 50 * some(random), 50 * some(random)};
        if (std::abs(map.a * map.d - map.b * map.c) < 0.05) continue;
        const Point p{20 * some(random), 20 * some(random)};
        EXPECT_LT(norm(inverse(map)(map(p)) - p), 1e-9);
        EXPECT_LT(norm(map(inverse(map)(p)) - p), 1e-9);
    }
}

TEST(Geometry, APenCoversItsWidthAndItsCaps) {
    const Ring line{{0, 0}, {40, 0}};
    EXPECT_NEAR(area(stroked(line, false, 6, Cap::butt, PenJoin::round)[0]), 40 * 6, 1e-6);
    EXPECT_NEAR(area(stroked(line, false, 6, Cap::square, PenJoin::round)[0]), 46 * 6, 1e-6);
    const double round = area(stroked(line, false, 6, Cap::round, PenJoin::round)[0]);
    EXPECT_GE(round, 40 * 6 + M_PI * 9 - 0.4);
    EXPECT_LE(round, 40 * 6 + M_PI * 9 + 0.4);
    // a closed square: outside less inside, by joins
    const Ring ring{{0, 0}, {30, 0}, {30, 30}, {0, 30}};
    const auto whole = [&](PenJoin join) {
        double sum = 0;
        for (const Polygon& p : stroked(ring, true, 4, Cap::butt, join)) sum += area(p);
        return sum;
    };
    EXPECT_NEAR(whole(PenJoin::miter), 34 * 34 - 26 * 26, 1e-6);
    const double bevel = 34 * 34 - 26 * 26 - 4 * 2;  // each corner loses half a 2 mm square
    EXPECT_GE(whole(PenJoin::bevel), bevel) << "never less than what is inked";
    EXPECT_LT(whole(PenJoin::bevel), bevel + 4 * 0.35 * 4) << "and hardly more: 0.35 of the squared half width a corner";
    EXPECT_NEAR(whole(PenJoin::round), 34 * 34 - 26 * 26 - 4 * (4 - M_PI), 0.3);
}

TEST(Geometry, ACurveGoesThroughWhereItsHandlesSay) {
    const Point p0{0, 0}, p1{10, 40}, p2{60, -20}, p3{80, 30};
    Ring ring{p0};
    curve_to(ring, p1, p2, p3, 8);
    ASSERT_EQ(ring.size(), 9u);
    EXPECT_LT(norm(ring.back() - p3), 1e-12);
    for (int k = 0; k <= 8; ++k) {  // by halving lines between lines
        const double t = k / 8.0;
        const auto between = [t](Point a, Point b) { return a + (b - a) * t; };
        const Point a = between(p0, p1), b = between(p1, p2), c = between(p2, p3);
        EXPECT_LT(norm(ring[static_cast<std::size_t>(k)] - between(between(a, b), between(b, c))), 1e-9);
    }
}

TEST(Geometry, ALineIsSimplifiedBetweenItsEnds) {
    std::mt19937 random(5);
    std::uniform_real_distribution<double> hair(-0.04, 0.04);
    for (int round = 0; round < 30; ++round) {
        Ring line;
        for (int k = 0; k <= 200; ++k) line.push_back({0.5 * k, 12 * std::sin(0.05 * k) + hair(random)});
        const Ring less = simplified_line(line, 0.2);
        ASSERT_GE(less.size(), 2u);
        EXPECT_LT(less.size(), line.size() / 3);
        EXPECT_EQ(less.front(), line.front());
        EXPECT_EQ(less.back(), line.back());
        for (const Point& p : line) {
            double least = 1e9;
            for (std::size_t i = 0; i + 1 < less.size(); ++i) least = std::min(least, norm(p - nearest_on(p, less[i], less[i + 1])));
            EXPECT_LE(least, 0.2 + 1e-9);
        }
    }
}

}  // namespace TESTED
}  // namespace orthema
