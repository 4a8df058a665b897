// Patterns against what is known of lattices: any triangle and any quadrilateral fills the plane with its half turn, any convex shape at
// least the share √3/2 of it; and whatever is laid passes the exact check.
#include "core/nesting/pattern.h"

#include "core/nesting/patterned.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

namespace {

NestPiece piece_of(Ring ring, int count = 1, std::vector<double> rotations = {0, 180}) {
    if (signed_area(ring) < 0) std::reverse(ring.begin(), ring.end());
    return {"one", count, std::move(rotations), Polygon{std::move(ring), {}}};
}

Ring random_convex(std::mt19937& random, int corners) {
    std::uniform_real_distribution<double> share(0, 1);
    std::vector<double> at;
    for (int i = 0; i < corners; ++i) at.push_back((i + 0.15 + 0.7 * share(random)) / corners * 2 * M_PI);
    const double squeeze = 0.4 + 0.6 * share(random), turn = share(random) * M_PI;
    Ring ring;
    for (const double t : at) ring.push_back(Affine::turn(turn * 180 / M_PI)(Point{30 * std::cos(t), 30 * squeeze * std::sin(t)}));
    return ring;
}

NestProblem strip_of(const NestPiece& piece, double width, double gap) {
    NestProblem p;
    p.width = width;
    p.gap = gap;
    p.pieces = {piece};
    return p;
}

std::vector<NestPlacement> placed(const std::vector<PatternMember>& places) {
    std::vector<NestPlacement> out;
    for (std::size_t i = 0; i < places.size(); ++i)
        out.push_back({0, static_cast<int>(i), 0, places[i].turn, places[i].x, places[i].y, false});
    return out;
}

}  // namespace

TEST(Pattern, ShapesThatTileAreFoundToTile) {
    std::mt19937 random(5);
    for (int round = 0; round < 12; ++round) {
        const NestPiece piece = piece_of(random_convex(random, round % 2 == 0 ? 3 : 4));
        const auto pattern = best_pattern(piece, 0, 3000, 0);
        ASSERT_TRUE(pattern);
        EXPECT_GT(pattern->density, 0.95) << round;  // less what is left along the strip's edges
        EXPECT_LE(pattern->density, 1) << round;
    }
}

TEST(Pattern, AConvexShapeIsPackedAsItsBestPairAllows) {
    std::mt19937 random(6);
    for (int round = 0; round < 12; ++round) {
        const auto pattern = best_pattern(piece_of(random_convex(random, 5 + round % 4)), 0, 3000, 0);
        ASSERT_TRUE(pattern);
        EXPECT_GT(pattern->density, 0.866 * 0.97) << round;
    }
}

TEST(Pattern, WhatIsLaidIsSound) {
    std::mt19937 random(7);
    for (int round = 0; round < 24; ++round) {
        const double gap = round % 3 * 1.5;
        const NestPiece piece = piece_of(test::random_star(random, 20 + 4 * (round % 5), 7).outer, 40,
                                         round % 2 == 0 ? std::vector<double>{0, 90, 180, 270} : std::vector<double>{0});
        const auto pattern = best_pattern(piece, gap, 260, 0.004);
        ASSERT_TRUE(pattern);
        const auto places = pattern_places(*pattern, piece, 40, 260, 1e9).places;
        ASSERT_EQ(places.size(), 40u) << round;
        const NestProblem problem = strip_of(piece, 260, gap);
        const auto faults = nest_faults(problem, placed(places), 0);
        EXPECT_TRUE(faults.empty()) << round << ": " << faults.front();
        // what would reach further is left out, and the rest is laid as before
        const auto some = pattern_places(*pattern, piece, 40, 260, 50).places;
        EXPECT_LT(some.size(), 40u) << round;
        for (const NestPlacement& p : placed(some)) EXPECT_LE(bounds(placed_outline(problem, p).outer).x1, 50 + 1e-6);
    }
}

TEST(Pattern, AHairAcrossTheStripIsLeftToOthers) {
    const NestPiece hair = piece_of({{0, 0}, {0.2, 0}, {900.2, 400}, {900, 400}}, 40);
    const auto pattern = best_pattern(hair, 0, 500, 0);  // and at once, though thousands of them would lie beside each other
    if (pattern) {
        EXPECT_TRUE(nest_faults(strip_of(hair, 500, 0), placed(pattern_places(*pattern, hair, 40, 500, 1e9).places), 0).empty());
    }
}

TEST(Pattern, ManyOfOneKindLieInRowsAndTheOthersBetween) {
    NestPiece kite = piece_of({{0, 0}, {22, 18}, {70, 0}, {22, -18}}, 90);
    NestPiece tag = piece_of({{0, 0}, {24, 0}, {24, 12}, {0, 12}}, 5, {0, 90});
    NestProblem problem = strip_of(kite, 300, 2);
    problem.pieces.push_back(tag);
    problem.pieces[1].id = "tag";
    problem.max_length = 500;
    NestOptions once;
    once.rounds = 1;
    const auto laid = nest(problem, once);
    ASSERT_TRUE(laid);
    EXPECT_TRUE(nest_faults(problem, laid->placements, 0).empty());
    // beside it each copy where it fits first, as finely
    std::vector<Copy> order;
    for (int i = 0; i < 2; ++i)
        for (int c = 0; c < problem.pieces[static_cast<std::size_t>(i)].count; ++c) order.push_back({i, c});
    NestSolution first;
    first.placements = GridPacker(problem, 1).pack(order, {});
    slide_back(problem, first.placements);
    measure_solution(problem, first);
    EXPECT_GT(laid->density, 1.05 * first.density);
    problem.pieces[0].rotations = {0};
    problem.pieces[0].count = least_patterned - 1;
    problem.pieces[1].count = 0;
    EXPECT_FALSE(can_pattern(problem));
}

}  // namespace TESTED
}  // namespace orthema
