// The nester: never an overlap, checked here by areas and by a raster, not by the nester's own test.
#include "core/nesting/nest.h"

#include <atomic>
#include <cmath>
#include <random>

#include "core/nesting/bit_grid.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

using test::random_star;

NestProblem stars(unsigned seed, int kinds, double gap, double max_length = std::numeric_limits<double>::infinity()) {
    std::mt19937 random(seed);
    NestProblem p;
    p.width = 300;
    p.gap = gap;
    p.margin = 5;
    p.max_length = max_length;
    for (int i = 0; i < kinds; ++i) {
        NestPiece piece{"star" + std::to_string(i), 2 + i % 3, {0, 90, 180, 270}, random_star(random, 25 + 5 * (i % 6), 7 + i % 5)};
        if (i % 5 == 0) {  // a ring that others may lie in
            piece.outline = random_star(random, 70, 24);
            for (Point& q : piece.outline.outer) q = q * (70 / norm(q));
            Ring hole;
            for (int k = 0; k < 24; ++k) hole.push_back({48 * std::cos(-M_PI * k / 12), 48 * std::sin(-M_PI * k / 12)});
            piece.outline.holes.push_back(hole);
        }
        p.pieces.push_back(piece);
    }
    return p;
}

/// Overlap and nearness by shrinking: two areas that are a gap apart stay apart when each is grown by half of it.
void expect_sound(const NestProblem& p, const NestSolution& s) {
    std::map<std::pair<int, int>, int> seen;
    std::vector<Region> grown;
    for (const NestPlacement& at : s.placements) {
        ++seen[{at.piece, at.copy}];
        const Polygon outline = placed_outline(p, at);
        const Rect box = bounds(outline.outer);
        EXPECT_GE(box.x0, p.margin - 1e-3);
        EXPECT_GE(box.y0, p.margin - 1e-3);
        EXPECT_LE(box.y1, p.width - p.margin + 1e-3);
        EXPECT_LE(box.x1, p.max_length - p.margin + 1e-3);
        // Clipper inscribes its arcs, so this growth is never more than half the gap
        grown.push_back(p.gap > 0.2 ? offset({outline}, p.gap / 2 - 0.05, 0.01) : Region{outline});
    }
    for (std::size_t i = 0; i < p.pieces.size(); ++i)
        for (int c = 0; c < p.pieces[i].count; ++c) EXPECT_EQ((seen[{int(i), c}]), 1) << p.pieces[i].id << " " << c;
    for (std::size_t i = 0; i < grown.size(); ++i)
        for (std::size_t j = i + 1; j < grown.size(); ++j)
            if (s.placements[i].bin == s.placements[j].bin && bounds(grown[i]).meets(bounds(grown[j])))
                EXPECT_LT(area(intersect(grown[i], grown[j])), 0.02) << i << " " << j;
}

TEST(Nest, NeverOverlapsOnRandomProblems) {
    for (unsigned seed = 1; seed <= 6; ++seed) {
        const NestProblem p = stars(seed, 4 + static_cast<int>(seed), seed % 3 * 1.5);
        NestOptions options;
        options.rounds = 2;
        options.seed = seed;
        options.threads = 2;
        const auto s = nest(p, options);
        ASSERT_TRUE(s) << s.sentence();
        expect_sound(p, *s);
        EXPECT_TRUE(nest_faults(p, s->placements).empty());
    }
}

TEST(Nest, SpreadsOverRunsWhenTheRollIsShort) {
    const NestProblem p = stars(9, 8, 2, 260);
    NestOptions options;
    options.rounds = 1;
    const auto s = nest(p, options);
    ASSERT_TRUE(s);
    EXPECT_GT(s->bins, 1);
    expect_sound(p, *s);
}

/// How far the pieces of each run reach.
std::vector<double> ends_of(const NestProblem& p, const NestSolution& s) {
    std::vector<double> out(static_cast<std::size_t>(s.bins), 0);
    for (const NestPlacement& at : s.placements) {
        double& end = out[static_cast<std::size_t>(at.bin)];
        end = std::max(end, bounds(placed_outline(p, at).outer).x1);
    }
    return out;
}

TEST(Nest, RunsAreSettledEachByItselfAndFilledFromTheLast) {
    NestProblem p = stars(9, 8, 2, 420);
    for (NestPiece& piece : p.pieces) piece.count = 16;
    NestOptions options;
    options.seconds = 0;
    const auto first = nest(p, options);
    ASSERT_TRUE(first);
    ASSERT_GT(first->bins, 2);
    options.rounds = 12;
    options.threads = 2;
    const auto two = nest(p, options);
    options.threads = 1;
    const auto one = nest(p, options);
    ASSERT_TRUE(one && two);
    expect_sound(p, *two);
    EXPECT_TRUE(nest_faults(p, two->placements).empty());
    EXPECT_EQ(one->last_length, two->last_length) << "whoever works on it";
    const auto used = [&](const NestSolution& s) { return (s.bins - 1) * p.max_length + s.last_length; };
    EXPECT_LT(used(*two), 0.97 * used(*first));
    // a piece that stays where it is, in the first run and in the last
    NestProblem held = p;
    held.start = two->placements;
    for (const int bin : {0, two->bins - 1}) {
        auto at = std::find_if(held.start.begin(), held.start.end(), [&](const NestPlacement& q) { return q.bin == bin; });
        at->locked = true;
        held.locked.push_back(*at);
    }
    const auto again = nest(held, options);
    ASSERT_TRUE(again);
    expect_sound(held, *again);
    for (const NestPlacement& l : held.locked)
        EXPECT_TRUE(std::any_of(again->placements.begin(), again->placements.end(), [&](const NestPlacement& q) {
            return q.piece == l.piece && q.copy == l.copy && q.bin == l.bin && q.x == l.x && q.y == l.y;
        }));
    EXPECT_LE(used(*again), used(*two) + 1e-9);
}

TEST(Nest, AStripOfManyPiecesIsSettledInStretches) {
    NestProblem p = stars(5, 6, 1);
    for (NestPiece& piece : p.pieces) piece.count = 150;
    NestOptions options;
    options.seconds = 0;
    const auto first = nest(p, options);
    ASSERT_TRUE(first);
    options.rounds = 80;
    options.threads = 2;
    const auto s = nest(p, options);
    ASSERT_TRUE(s);
    expect_sound(p, *s);
    EXPECT_TRUE(nest_faults(p, s->placements).empty());
    EXPECT_LT(s->length, 0.97 * first->length);
}

TEST(Nest, LaysSmallPiecesInsideHoles) {
    NestProblem p;
    p.width = 120;
    p.gap = 2;
    Polygon frame = box_region({0, 0, 116, 100})[0];
    frame.holes.push_back({{10, 10}, {10, 90}, {106, 90}, {106, 10}});
    p.pieces.push_back({"frame", 1, {0}, frame});
    p.pieces.push_back({"card", 2, {0, 90}, box_region({0, 0, 40, 60})[0]});
    NestOptions options;
    options.rounds = 3;
    const auto s = nest(p, options);
    ASSERT_TRUE(s);
    expect_sound(p, *s);
    EXPECT_LT(s->length, 116.5) << "both cards lie in the frame";
}

TEST(Nest, SameSeedAndRoundsGiveTheSameLayout) {
    const NestProblem p = stars(3, 7, 1);
    NestOptions options;
    options.rounds = 3;
    options.threads = 2;
    options.seed = 5;
    const auto a = nest(p, options), b = nest(p, options);
    ASSERT_TRUE(a && b);
    ASSERT_EQ(a->placements.size(), b->placements.size());
    for (std::size_t i = 0; i < a->placements.size(); ++i) {
        EXPECT_EQ(a->placements[i].x, b->placements[i].x);
        EXPECT_EQ(a->placements[i].y, b->placements[i].y);
        EXPECT_EQ(a->placements[i].rotation, b->placements[i].rotation);
    }
}

TEST(Nest, OnlyGetsBetterAndTheFirstComesAtOnce) {
    const NestProblem p = stars(2, 8, 1.5);
    NestOptions options;
    options.rounds = 6;
    std::vector<double> lengths;
    const auto s = nest(p, options, {}, [&](const NestSolution& better) {
        EXPECT_TRUE(nest_faults(p, better.placements).empty());
        lengths.push_back(better.length);
    });
    ASSERT_TRUE(s);
    ASSERT_FALSE(lengths.empty());
    for (std::size_t i = 1; i < lengths.size(); ++i) EXPECT_LE(lengths[i], lengths[i - 1] + 1e-9);
    EXPECT_NEAR(lengths.back(), s->length, 1e-9);
}

TEST(Nest, ACancelledRunStillGivesASoundLayout) {
    const NestProblem p = stars(4, 9, 1);
    const std::atomic<bool> cancelled = true;
    NestOptions options;
    options.seconds = 60;
    const auto s = nest(p, options, Task{{}, &cancelled});
    ASSERT_TRUE(s);
    expect_sound(p, *s);
}

TEST(Nest, LockedCopiesStay) {
    NestProblem p = stars(6, 6, 2);
    p.locked.push_back({1, 0, 0, 90, 150, 150, true});
    NestOptions options;
    options.rounds = 2;
    const auto s = nest(p, options);
    ASSERT_TRUE(s);
    expect_sound(p, *s);
    const auto at =
        std::find_if(s->placements.begin(), s->placements.end(), [](const NestPlacement& q) { return q.piece == 1 && q.copy == 0; });
    ASSERT_NE(at, s->placements.end());
    EXPECT_TRUE(at->locked);
    EXPECT_EQ(at->x, 150);
    EXPECT_EQ(at->y, 150);
    EXPECT_EQ(at->rotation, 90);
}

TEST(Nest, RefusesWhatCannotBeLaidWithASentence) {
    NestProblem p = stars(1, 2, 1);
    p.pieces.push_back({"banner", 1, {0}, box_region({0, 0, 2000, 400})[0]});
    const auto too_wide = nest(p, {});
    ASSERT_FALSE(too_wide);
    EXPECT_NE(too_wide.sentence().find("banner"), std::string::npos);
    p.pieces.back() = {"line", 1, {0}, {{{0, 0}, {10, 0}, {20, 0}}, {}}};
    EXPECT_FALSE(nest(p, {}));
    p.pieces.back() = {"nan", 1, {0}, {{{0, 0}, {NAN, 0}, {20, 5}}, {}}};
    EXPECT_FALSE(nest(p, {}));
    p.pieces.clear();
    p.width = 8;
    EXPECT_FALSE(nest(p, {})) << "no room between the margins";
}

TEST(Nest, FaultsAreFound) {
    NestProblem p;
    p.width = 100;
    p.gap = 2;
    p.margin = 5;
    p.pieces.push_back({"card", 2, {0, 90}, box_region({0, 0, 20, 20})[0]});
    const auto faults = [&](std::vector<NestPlacement> at) { return nest_faults(p, at); };
    const NestPlacement a{0, 0, 0, 0, 5, 5, false};
    EXPECT_TRUE(faults({a, {0, 1, 0, 0, 27, 5, false}}).empty());
    EXPECT_EQ(faults({a, {0, 1, 0, 0, 26.9, 5, false}}).size(), 1u) << "nearer than the gap";
    EXPECT_EQ(faults({a, {0, 1, 0, 45, 60, 30, false}}).size(), 1u) << "a turn it may not have";
    EXPECT_EQ(faults({a, {0, 1, 0, 0, 60, 77, false}}).size(), 1u) << "over the margin";
    EXPECT_EQ(faults({a}).size(), 1u) << "one is missing";
    EXPECT_GE(faults({a, a}).size(), 2u) << "twice the same";
    EXPECT_TRUE(faults({a, {0, 1, 1, 0, 5, 5, false}}).empty()) << "another sheet";
}

TEST(BitGrid, ACoveredShapeMissesNoPointOfThePolygon) {
    std::mt19937 random(17);
    std::uniform_real_distribution<double> any(-40, 40);
    for (int round = 0; round < 60; ++round) {
        Polygon p = random_star(random, 38, 9 + round % 7);
        if (round % 3 == 0) p.holes.push_back(random_star(random, 9, 8).outer);
        const Rect box = bounds(p.outer);
        const double cell = 0.7 + 0.37 * (round % 5);
        const CellShape cells = covered_cells({p}, cell, box.x0, box.y0);
        for (int k = 0; k < 400; ++k) {
            const Point q{any(random), any(random)};
            if (!inside(p, q)) continue;
            const auto column = static_cast<std::size_t>((q.x - box.x0) / cell);
            const double y = (q.y - box.y0) / cell;
            ASSERT_LT(column, cells.columns.size());
            const auto& runs = cells.columns[column];
            EXPECT_TRUE(std::any_of(runs.begin(), runs.end(), [&](const orthema::Run& r) { return y >= r.from && y <= r.to; }));
        }
    }
}

TEST(BitGrid, FirstFitAgreesWithTryingEveryPlace) {
    std::mt19937 random(23);
    std::uniform_int_distribution<int> any(0, 30);
    for (int round = 0; round < 40; ++round) {
        constexpr int rows = 90, columns = 50;
        std::vector<std::vector<bool>> full(columns + 40, std::vector<bool>(rows, false));
        BitGrid grid(rows);
        CellShape block;
        block.columns.assign(3, {{0, 4}});
        block.height = 4;
        for (int k = 0; k < 40; ++k) {
            const int x = any(random), y = any(random) * 2 + 10;
            grid.stamp(block, x, y);
            for (int c = 0; c < 3; ++c)
                for (int r = 0; r < 4; ++r) full[std::size_t(x + c)][std::size_t(y + r)] = true;
        }
        CellShape shape;
        const int low = 1 + any(random), high = 14 + any(random);  // spans of every length
        shape.columns = {{{0, 5}, {9, 14}}, {{2, high}}, {{0, low}}, {{4, 6}, {high - 3, high}}};
        shape.height = std::max(14, std::max(low, high));
        int bx = -1, by = -1;
        for (int x = 0; x < columns && bx < 0; ++x)
            for (int y = 0; y + shape.height <= rows && bx < 0; ++y) {
                bool free = true;
                for (int c = 0; c < 4 && free; ++c)
                    for (const orthema::Run& r : shape.columns[std::size_t(c)])
                        for (int k = r.from; k < r.to; ++k) free = free && !full[std::size_t(x + c)][std::size_t(y + k)];
                if (free) {
                    bx = x;
                    by = y;
                }
            }
        int x = -1, y = -1;
        ASSERT_TRUE(grid.first_fit(shape, 0, -1, x, y));
        EXPECT_EQ(x, bx);
        EXPECT_EQ(y, by);
    }
}

TEST(Slide, StopsAGapBeforeItsNeighbour) {
    const Polygon moving = box_region({0, 0, 10, 10})[0];
    const Polygon wall = box_region({40, -5, 50, 15})[0], aside = box_region({20, 14, 30, 24})[0];
    EXPECT_NEAR(slide(moving, {&wall}, 3, 1, 0, 100), 27, 0.05);
    EXPECT_NEAR(slide(moving, {&wall}, 0, 1, 0, 100), 30, 0.001);
    EXPECT_NEAR(slide(moving, {&wall}, 3, -1, 0, 100), 100, 0.001);
    EXPECT_NEAR(slide(moving, {&aside}, 3, 1, 0, 100), 100, 0.001) << "4 mm aside is past the gap";
    EXPECT_LT(slide(moving, {&aside}, 5, 1, 0, 100), 20) << "but not past 5";
}

}  // namespace TESTED
}  // namespace orthema
