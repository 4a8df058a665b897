// Pieces that were cut from one another: their places are found by their edges, they are put together again, and a
// layout of them loses nothing.
#include <gtest/gtest.h>

#include <random>
#include <set>

#include "core/nesting/glue.h"
#include "core/nesting/overlap.h"

namespace orthema {
namespace TESTED {

const std::vector<double> quarters{0, 90, 180, 270};

/// A rectangle cut into columns × rows by lines that wander, each piece moved to the origin and its corners rounded as
/// files round them. `true_at` is where each lay.
struct Puzzle {
    NestProblem problem;
    std::vector<Point> true_at;
    std::vector<std::vector<Cast>> casts;
    std::vector<std::vector<MatePlace>> mates;
    Puzzle(int columns, int rows, double cell, double wander, unsigned seed, int steps = 4) {  // corners along each side
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> off(-wander, wander);
        // the wandering corners of every side, shared by both its pieces
        const int nx = columns * steps + 1, ny = rows * steps + 1;
        std::vector<Point> grid(static_cast<std::size_t>(nx * ny));
        const auto at = [&](int i, int j) -> Point& { return grid[static_cast<std::size_t>(j * nx + i)]; };
        for (int j = 0; j < ny; ++j)
            for (int i = 0; i < nx; ++i)
                at(i, j) = {cell * i / steps + (i % (nx - 1) == 0 ? 0 : off(random)),
                            cell * j / steps + (j % (ny - 1) == 0 ? 0 : off(random))};
        problem.width = cell * rows;
        for (int j = 0; j < rows; ++j)
            for (int i = 0; i < columns; ++i) {
                Ring ring;
                for (int k = 0; k < steps; ++k) ring.push_back(at(i * steps + k, j * steps));
                for (int k = 0; k < steps; ++k) ring.push_back(at((i + 1) * steps, j * steps + k));
                for (int k = 0; k < steps; ++k) ring.push_back(at((i + 1) * steps - k, (j + 1) * steps));
                for (int k = 0; k < steps; ++k) ring.push_back(at(i * steps, (j + 1) * steps - k));
                const Rect box = bounds(ring);
                for (Point& p : ring) p = {std::round((p.x - box.x0) * 1e4) / 1e4, std::round((p.y - box.y0) * 1e4) / 1e4};
                true_at.push_back({box.x0, box.y0});
                problem.pieces.push_back({"p" + std::to_string(problem.pieces.size()), 1, quarters, Polygon{ring, {}}});
            }
        std::vector<Polygon> outlines;
        for (const NestPiece& p : problem.pieces) {
            outlines.push_back(p.outline);
            casts.push_back(casts_of(search_outline(p.outline, 0.002, 0.005), p.rotations));
        }
        mates = mates_of(outlines, casts);
    }
    [[nodiscard]] Point true_middle(std::size_t k) const { return true_at[k] + casts[k][0].middle; }
};

TEST(Mates, NeighboursFindTheirOldPlaceAndNoneOverlaps) {
    for (unsigned seed = 1; seed < 5; ++seed) {
        const Puzzle z(4, 3, 90, 6, seed);
        for (int j = 0; j < 3; ++j)
            for (int i = 0; i + 1 < 4; ++i) {
                const auto a = static_cast<std::size_t>(j * 4 + i), b = a + 1;
                const Point want = z.true_middle(a) - z.true_middle(b);
                const bool found = std::any_of(z.mates[a].begin(), z.mates[a].end(), [&](const MatePlace& m) {
                    return m.other == static_cast<int>(b) && m.turn == 0 && m.other_turn == 0 &&
                           norm(Point{m.edge_x, m.edge_y} - want) < 1e-3;
                });
                EXPECT_TRUE(found) << a << " beside " << b;
            }
        for (std::size_t k = 0; k < z.mates.size(); ++k)
            for (const MatePlace& m : z.mates[k]) {
                const Cast& mine = z.casts[k][static_cast<std::size_t>(m.turn)];
                const Cast& its = z.casts[static_cast<std::size_t>(m.other)][static_cast<std::size_t>(m.other_turn)];
                EXPECT_EQ(overlap(its, mine, m.dx, m.dy), 0);
                EXPECT_LT(norm(Point{m.dx - m.edge_x, m.dy - m.edge_y}), 8.1);
            }
    }
}

TEST(Mates, ShapesWithoutCommonEdgesHaveNone) {
    std::vector<Polygon> outlines;
    std::vector<std::vector<Cast>> casts;
    for (const double r : {31.0, 37.3, 44.9}) {
        Ring ring;
        for (int i = 0; i < 7; ++i) ring.push_back(Point{r * std::cos(i * 0.897 + r), r * (1 + 0.1 * i) * std::sin(i * 0.897 + r)});
        outlines.push_back({ring, {}});
        casts.push_back(casts_of(search_outline(outlines.back(), 1.5, 0.05), quarters));
    }
    for (const auto& places : mates_of(outlines, casts))
        for (const MatePlace& m : places) EXPECT_GT(m.shared, 0.1F);
    NestProblem p;
    p.width = 300;
    p.gap = 3;
    for (const Polygon& o : outlines) p.pieces.push_back({"x", 2, quarters, o});
    EXPECT_FALSE(can_glue(p, std::vector<std::vector<MatePlace>>(3, {MatePlace{}}))) << "a gap parts them";
}

TEST(Glue, APuzzleComesTogetherAsItWas) {
    for (unsigned seed = 1; seed < 5; ++seed) {
        const Puzzle z(4, 3, 90, 6, seed);
        ASSERT_TRUE(can_glue(z.problem, z.mates));
        std::mt19937 random(seed);
        const auto whole = glued(z.problem, z.casts, z.mates, 100, true, random);
        ASSERT_EQ(whole.size(), 1u) << seed;
        ASSERT_EQ(whole[0].members.size(), 12u);
        // moved and turned back on its first piece, every piece is where it was cut
        const NestPlacement& first = whole[0].members[0];
        const double back = -first.rotation;
        const Affine turn = Affine::turn(back);
        for (const NestPlacement& m : whole[0].members) {
            const Point rel = turn(Point{m.x - first.x, m.y - first.y});
            const Point want = z.true_at[static_cast<std::size_t>(m.piece)] - z.true_at[static_cast<std::size_t>(first.piece)];
            EXPECT_LT(norm(rel - want), 0.01);
            EXPECT_NEAR(std::remainder(m.rotation + back, 360), 0, 1e-9);
        }
    }
}

TEST(Glue, WhatIsTakenApartCoversItsCompoundWhereverThatIsLaid) {
    const Puzzle z(4, 3, 90, 6, 9);
    std::mt19937 random(3);
    for (const std::size_t most : {std::size_t{3}, std::size_t{6}}) {
        std::set<std::pair<int, int>> copies;
        for (const Compound& c : glued(z.problem, z.casts, z.mates, most, false, random)) {
            EXPECT_LE(c.members.size(), most);
            for (const double turn : quarters) {
                const NestPlacement laid{0, 0, 2, turn, 31.5, -12.25, false};
                const Polygon outline = mapped(c.piece.outline, Affine::shift(laid.x, laid.y).after(Affine::turn(turn)));
                double covered = 0;
                std::vector<NestPlacement> apart = taken_apart(c, laid);
                for (const NestPlacement& m : apart) {
                    EXPECT_EQ(m.bin, 2);
                    const Region own{placed_outline(z.problem, m)};
                    covered += area(own);
                    EXPECT_LT(area(subtract(own, Region{outline})), 0.05);
                    copies.insert({m.piece, m.copy});
                }
                EXPECT_NEAR(covered, area(outline), 0.001 * area(outline) + 1);
                // and as one they are sound: no two overlap, exactly
                NestProblem wide = z.problem;
                wide.width = 1e4;
                for (NestPlacement& m : apart) {
                    m.bin = 0;
                    m.x += 2000;
                    m.y += 2000;
                }
                EXPECT_TRUE(nest_faults(wide, apart, 0, false).empty());
            }
        }
        EXPECT_EQ(copies.size(), 12u);
    }
}

TEST(Glue, ShardsOfASheetFillItAgain) {
    const Puzzle z(5, 3, 80, 14, 11, 1);
    double area_in_all = 0;
    for (const NestPiece& p : z.problem.pieces) area_in_all += area(p.outline);
    NestOptions o;
    o.rounds = 20;
    o.seed = 2;
    const auto s = nest(z.problem, o);
    ASSERT_TRUE(s.ok());
    EXPECT_TRUE(nest_faults(z.problem, s->placements, touching).empty());
    EXPECT_NEAR(area_in_all, 400 * 240, 1);
    EXPECT_GT(s->density, 0.98) << "by their edges; without, about 0.8";
}

TEST(Glue, AJigsawWithPointedCornersComesTogetherAgain) {
    // corners of different sharpness: what is shaved off moves the middle of each box by another amount
    for (unsigned seed = 1; seed < 4; ++seed) {
        const Puzzle z(5, 4, 110, 10, seed, 5);
        double area_in_all = 0;
        for (const NestPiece& p : z.problem.pieces) area_in_all += area(p.outline);
        NestOptions o;
        o.rounds = 2;
        o.seed = seed;
        const auto s = nest(z.problem, o);
        ASSERT_TRUE(s.ok());
        EXPECT_NEAR(s->length, 550, 0.01) << seed;
        EXPECT_TRUE(nest_faults(z.problem, s->placements, touching).empty());
        // nothing is hidden under anything: together they cover what they add up to
        Region all;
        for (const NestPlacement& p : s->placements) all = unite(all, Region{placed_outline(z.problem, p)});
        EXPECT_NEAR(area(all), area_in_all, 1);
    }
}

}  // namespace TESTED
}  // namespace orthema
