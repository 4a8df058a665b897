// The exact check against measures that share nothing with it, and the nester against whatever comes.
#include "core/nesting/exact.h"

#include <gtest/gtest.h>

#include <array>
#include <cmath>
#include <random>
#include <set>

#include "core/nesting/jostle.h"
#include "core/nesting/nest.h"
#include "core/nesting/rect_strip.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

using test::random_star;

Polygon placed(const Polygon& p, double x, double y, double turn) { return mapped(p, Affine::shift(x, y).after(Affine::turn(turn))); }

/// Points along the edges, near enough to each other that no sampled distance is off by more than `fine`.
std::vector<Point> along_edges(const Polygon& p, double fine) {
    std::vector<Point> out;
    const auto add = [&](const Ring& r) {
        for (std::size_t i = 0; i < r.size(); ++i) {
            const Point a = r[i], d = r[(i + 1) % r.size()] - a;
            const int n = std::max(1, static_cast<int>(std::ceil(norm(d) / fine)));
            for (int k = 0; k < n; ++k) out.push_back(a + d * (static_cast<double>(k) / n));
        }
    };
    add(p.outer);
    for (const Ring& h : p.holes) add(h);
    return out;
}

TEST(Exact, AgreesWithAreasAndSampledDistancesOnThousandsOfPairs) {
    std::mt19937 random(41);
    const auto share = [&] { return static_cast<double>(random()) / 4294967296.0; };
    int apart = 0, meeting = 0, unsure = 0;
    for (int round = 0; round < test::rounds(3000, 20000); ++round) {
        Polygon a = random_star(random, 20 + 20 * share(), 3 + static_cast<int>(random() % 9));
        if (round % 4 == 0) {  // a ring
            a = {disc({0, 0}, 40, 20), {}};
            Ring hole = disc({0, 0}, 28, 17);
            std::reverse(hole.begin(), hole.end());
            a.holes.push_back(hole);
        }
        const Polygon b = placed(random_star(random, 5 + 20 * share(), 3 + static_cast<int>(random() % 9)), 90 * share() - 45,
                                 90 * share() - 45, 360 * share());
        const double gap = round % 2 == 0 ? 0 : 5 * share();
        const bool exact = exactly_apart(on_grid(a), on_grid(b), std::llround(gap * grid_per_mm));
        EXPECT_EQ(exact, exactly_apart(on_grid(b), on_grid(a), std::llround(gap * grid_per_mm)));
        const double common = area(intersect({a}, {b}));
        double least = 1e9;
        constexpr double fine = 0.5;
        if (common < 1e-6)
            for (const Point& p : along_edges(a, fine))
                for (const Point& q : along_edges(b, fine)) least = std::min(least, norm(p - q));
        if (common > 1e-3) {
            EXPECT_FALSE(exact) << round << " overlap by " << common;
            ++meeting;
        } else if (common < 1e-6 && (gap == 0 ? least > 1e-2 : least - fine > gap)) {
            EXPECT_TRUE(exact) << round << " " << least << " apart, " << gap << " asked for";
            ++apart;
        } else if (gap > 0 && least < gap - 1e-3) {
            EXPECT_FALSE(exact) << round << " " << least << " apart, " << gap << " asked for";
            ++meeting;
        } else {
            ++unsure;  // too near the limit for the measures
        }
    }
    EXPECT_GT(apart, 800);
    EXPECT_GT(meeting, 800);
    EXPECT_LT(unsure, 2000);
}

TEST(Exact, TouchingIsApartAndOneUnitMoreIsNot) {
    const Polygon square = box_region({0, 0, 10, 10})[0];
    const double unit = 1 / grid_per_mm;
    const auto at = [&](double x, double y) { return exactly_apart(on_grid(square), on_grid(placed(square, x, y, 0)), 0); };
    EXPECT_TRUE(at(10, 0));
    EXPECT_TRUE(at(10, 3));
    EXPECT_TRUE(at(10, 10)) << "corner to corner";
    EXPECT_FALSE(at(10 - unit, 0));
    EXPECT_FALSE(at(10 - unit, 10 - unit));
    EXPECT_FALSE(at(0, 0)) << "one on the other";
    EXPECT_FALSE(at(0, 5)) << "edges along each other, areas on the same side";
    const auto with_gap = [&](double x) {
        return exactly_apart(on_grid(square), on_grid(placed(square, x, 0, 0)), std::llround(3 / unit));
    };
    EXPECT_TRUE(with_gap(13));
    EXPECT_FALSE(with_gap(13 - unit));
    // a plug in its hole, and one that is a unit too large
    Polygon ring = box_region({-5, -5, 15, 15})[0];
    Ring hole = square.outer;
    std::reverse(hole.begin(), hole.end());
    ring.holes.push_back(hole);
    EXPECT_TRUE(exactly_apart(on_grid(ring), on_grid(square), 0));
    EXPECT_FALSE(exactly_apart(on_grid(ring), on_grid(box_region({0, 0, 10 + unit, 10})[0]), 0));
    EXPECT_TRUE(exactly_apart(on_grid(ring), on_grid(box_region({2, 2, 8, 8})[0]), std::llround(2 / unit)));
    EXPECT_FALSE(exactly_apart(on_grid(ring), on_grid(box_region({2, 2, 8, 8})[0]), std::llround(2 / unit) + 1));
    // edges that cross only where a corner lies on an edge
    const Polygon diamond{{{10, 0}, {15, 5}, {10, 10}, {5, 5}}, {}};
    EXPECT_FALSE(exactly_apart(on_grid(square), on_grid(diamond), 0));
    EXPECT_TRUE(exactly_apart(on_grid(square), on_grid(placed(diamond, 5, 0, 0)), 0));
}

TEST(Cast, TheSearchOutlineHoldsThePieceAndItsGap) {
    std::mt19937 random(3);
    for (int round = 0; round < 40; ++round) {
        const Polygon p = random_star(random, 40, 5 + round % 30);
        const Polygon s = search_outline(p, 1.5, 0.1);
        EXPECT_LT(area(subtract(offset({p}, 1.5), {s})), 0.3) << "but for rounding along the edges";
        EXPECT_GE(distance(Polygon{s.outer, {}}, Polygon{{{1e4, 1e4}, {1e4 + 1, 1e4}, {1e4, 1e4 + 1}}, {}}), 0);
        for (const Point& q : p.outer) {
            double least = 1e9;
            for (std::size_t i = 0; i < s.outer.size(); ++i)
                least = std::min(least, norm(q - nearest_on(q, s.outer[i], s.outer[(i + 1) % s.outer.size()])));
            EXPECT_GE(least, 1.5 - 1e-3);
        }
        for (const Cast& c : casts_of(s, {0, 90, 33}))
            for (std::size_t k = 0; k < c.dx.size(); ++k) {
                if (c.dr[k] == 0) continue;
                const Polygon turned = mapped(s, Affine::turn(c.turn));
                const Ring round_disc = disc(Point{c.dx[k], c.dy[k]} + c.middle, c.dr[k] * 0.999, 24);
                EXPECT_LT(area(subtract({Polygon{round_disc, {}}}, {turned})), 1e-3) << "discs lie inside";
            }
    }
}

TEST(Cast, WhatWasCastBeforeIsWhatWouldBeCast) {
    std::mt19937 random(5);
    const Polygon one = random_star(random, 40, 12), other = random_star(random, 30, 9);
    CastStore store;
    const auto same = [](const std::vector<Cast>& a, const std::vector<Cast>& b) {
        return std::equal(a.begin(), a.end(), b.begin(), b.end(), [](const Cast& x, const Cast& y) {
            return x.turn == y.turn && x.ax == y.ax && x.by == y.by && x.dx == y.dx && x.dr == y.dr && x.gx1 == y.gx1 && x.bulk == y.bulk;
        });
    };
    using Turns = std::vector<double>;
    for (const Turns& turns : {Turns{0, 90}, Turns{90, 0, 180}, Turns{270}, Turns{0, 90}}) {
        EXPECT_TRUE(same(store.of(one, 1.5, 0.1, turns), casts_of(search_outline(one, 1.5, 0.1), turns)));
        EXPECT_TRUE(same(store.of(other, 1.5, 0.1, turns), casts_of(search_outline(other, 1.5, 0.1), turns)));
        EXPECT_TRUE(same(store.of(one, 2, 0.1, turns), casts_of(search_outline(one, 2, 0.1), turns)));
    }
}

TEST(Overlap, IsNothingExactlyWhereTheCastsKeepApart) {
    std::mt19937 random(17);
    const auto share = [&] { return static_cast<double>(random()) / 4294967296.0; };
    int meeting = 0;
    for (int round = 0; round < 1500; ++round) {
        const Polygon a = random_star(random, 30, 4 + round % 20), b = random_star(random, 8 + 20 * share(), 3 + round % 11);
        const Cast ca = casts_of(a, {0})[0], cb = casts_of(b, {90})[0];
        const Point by{80 * share() - 40, 80 * share() - 40};
        const Polygon lying =
            mapped(b, Affine::shift(ca.middle.x + by.x - cb.middle.x, ca.middle.y + by.y - cb.middle.y).after(Affine::turn(90)));
        const double common = area(intersect({a}, {lying}));
        const bool felt = overlap(ca, cb, static_cast<float>(by.x), static_cast<float>(by.y)) > 0;
        if (common > 1e-2) EXPECT_TRUE(felt) << round << " " << common;
        if (common == 0 && distance(a, lying) > 1e-2) EXPECT_FALSE(felt) << round;
        meeting += felt ? 1 : 0;
    }
    EXPECT_GT(meeting, 300);
}

TEST(RectStrip, FindsTheShortestOfSmallOnes) {
    // against every order and every way of turning, by the skyline's own rule and by a plain one
    std::mt19937 random(23);
    int shortest = 0;
    for (int round = 0; round < 20; ++round) {
        std::vector<StripRect> rects;
        std::int64_t used = 0;
        for (int i = 0; i < 5; ++i) {
            rects.push_back({2 + static_cast<std::int64_t>(random() % 6), 2 + static_cast<std::int64_t>(random() % 6), true});
            used += rects.back().across * rects.back().along;
        }
        constexpr std::int64_t width = 10;
        StripPacking best;
        pack_rects(
            rects, width, 1, 3000, [] { return false; }, [&](const StripPacking& p) { best = p; });
        ASSERT_EQ(best.places.size(), rects.size());
        // sound: inside, and no cell twice
        std::set<std::pair<std::int64_t, std::int64_t>> cells;
        for (std::size_t i = 0; i < rects.size(); ++i) {
            const std::int64_t h = best.places[i].turned ? rects[i].across : rects[i].along,
                               w = best.places[i].turned ? rects[i].along : rects[i].across;
            for (std::int64_t x = 0; x < h; ++x)
                for (std::int64_t y = 0; y < w; ++y) {
                    EXPECT_TRUE(cells.insert({best.places[i].x + x, best.places[i].y + y}).second);
                    EXPECT_LT(best.places[i].y + y, width);
                    EXPECT_LT(best.places[i].x + x, best.length);
                }
        }
        // bottom-left in every order and every turning: an independent upper bound that is often the optimum
        std::vector<int> order = {0, 1, 2, 3, 4};
        std::int64_t least = 1000;
        do {
            for (int turns = 0; turns < 32; ++turns) {
                std::array<std::int64_t, width> top{};
                std::int64_t length = 0;
                bool fits = true;
                for (const int i : order) {
                    const StripRect& r = rects[static_cast<std::size_t>(i)];
                    const std::int64_t w = (turns >> i & 1) != 0 ? r.along : r.across, h = (turns >> i & 1) != 0 ? r.across : r.along;
                    std::int64_t at = -1, level = 1000;
                    for (std::int64_t y = 0; y + w <= width; ++y) {
                        const std::int64_t reach = *std::max_element(top.begin() + y, top.begin() + y + w);
                        if (reach < level) {
                            level = reach;
                            at = y;
                        }
                    }
                    fits = fits && at >= 0;
                    if (!fits) break;
                    for (std::int64_t y = at; y < at + w; ++y) top[static_cast<std::size_t>(y)] = level + h;
                    length = std::max(length, level + h);
                }
                if (fits) least = std::min(least, length);
            }
        } while (std::next_permutation(order.begin(), order.end()));
        EXPECT_GE(best.length * width, used);
        EXPECT_LE(best.length, least + 1);
        shortest += best.length <= least ? 1 : 0;
    }
    EXPECT_GE(shortest, 17);
}

TEST(Nest, WhateverComesGivesASentenceOrASoundLayout) {
    std::mt19937 random(99);
    const auto share = [&] { return static_cast<double>(random()) / 4294967296.0; };
    int laid = 0, refused = 0;
    for (int round = 0; round < 120; ++round) {
        NestProblem p;
        p.width = round % 17 == 0 ? 1e-3 : 60 + 200 * share();
        p.gap = round % 3 == 0 ? 0 : 4 * share();
        p.margin = round % 5 == 0 ? 0 : 6 * share();
        if (round % 4 == 0) p.max_length = 100 + 100 * share();
        for (int k = 0; k < 4; ++k) {
            NestPiece piece{"p" + std::to_string(k),
                            1 + static_cast<int>(random() % 3),
                            {0, 90},
                            random_star(random, 5 + 30 * share(), 3 + static_cast<int>(random() % 8))};
            Ring& r = piece.outline.outer;
            switch (random() % 9) {
            case 0: r.insert(r.begin() + 1, r[0]); break;     // a point twice
            case 1: std::swap(r[0], r[r.size() / 2]); break;  // crosses itself
            case 2: r = {{0, 0}, {10, 0}, {20, 0}}; break;    // no area
            case 3:
                for (Point& q : r) q = q * 1e-4;
                break;  // tiny
            case 4:
                for (Point& q : r) q = q * 1e3;
                break;                                                // huge
            case 5: r.insert(r.begin(), (r[0] + r[1]) * 0.5); break;  // a corner that is none
            case 6: piece.outline.holes.push_back(r); break;          // a hole as large as the piece
            default: break;
            }
            p.pieces.push_back(piece);
        }
        NestOptions options;
        options.rounds = 1;
        options.threads = 1 + round % 2;
        const auto s = nest(p, options);
        if (!s) {
            EXPECT_GT(s.sentence().size(), 20u);
            ++refused;
            continue;
        }
        ++laid;
        EXPECT_TRUE(nest_faults(p, s->placements, 0).empty()) << round << " " << nest_faults(p, s->placements, 0).front();
    }
    EXPECT_GT(laid, 20);
    EXPECT_GT(refused, 20);
}

TEST(Nest, ThreadsDoNotChangeTheLayoutOfOneGroup) {
    // few, and as many as are searched for more at a time
    for (const auto& [copies, rounds] : {std::pair{2, 8}, std::pair{14, 2}}) {
        std::mt19937 random(8);
        NestProblem p;
        p.width = 200;
        p.gap = 2;
        for (int i = 0; i < 8; ++i)
            p.pieces.push_back({"s" + std::to_string(i), copies, {0, 90, 180, 270}, random_star(random, 30, 6 + i)});
        NestOptions options;
        options.rounds = rounds;
        NestSolution by_threads[2];
        for (const int threads : {1, 2}) {
            options.threads = threads;
            const auto s = nest(p, options);
            ASSERT_TRUE(s);
            EXPECT_TRUE(nest_faults(p, s->placements, 0).empty());
            by_threads[threads - 1] = *s;
        }
        ASSERT_EQ(by_threads[0].placements.size(), by_threads[1].placements.size());
        for (std::size_t i = 0; i < by_threads[0].placements.size(); ++i) {
            EXPECT_EQ(by_threads[0].placements[i].x, by_threads[1].placements[i].x);
            EXPECT_EQ(by_threads[0].placements[i].rotation, by_threads[1].placements[i].rotation);
        }
    }
}

TEST(Nest, GoesOnFromALayoutThatIsThere) {
    std::mt19937 random(8);
    NestProblem p;
    p.width = 200;
    p.gap = 2;
    for (int i = 0; i < 8; ++i) p.pieces.push_back({"s" + std::to_string(i), 2, {0, 90, 180, 270}, random_star(random, 30, 6 + i)});
    NestOptions options;
    options.rounds = 12;
    const auto first = nest(p, options);
    ASSERT_TRUE(first);
    p.start = first->placements;
    options.rounds = 1;
    const auto more = nest(p, options);
    ASSERT_TRUE(more);
    EXPECT_LE(more->length, first->length);
    p.start[0].x += 1e4;  // one that is not sound is not gone on from
    const auto anew = nest(p, options);
    ASSERT_TRUE(anew);
    EXPECT_TRUE(nest_faults(p, anew->placements, 0).empty());
    EXPECT_LT(anew->length, 5000);
}

TEST(Nest, LockedCopiesThatLieTooCloseKeepNobodyElseFromBeingLaid) {
    NestProblem p;
    p.width = 200;
    p.gap = 3;
    p.margin = 5;
    p.pieces.push_back({"card", 6, {0, 90}, box_region({0, 0, 60, 40})[0]});
    p.locked = {{0, 0, 0, 0, 20, 20, true}, {0, 1, 0, 0, 82, 20, true}, {0, 2, 0, 90, 2, 100, true}};  // 2 mm apart; over the edge
    NestOptions options;
    options.rounds = 2;
    const auto s = nest(p, options);
    ASSERT_TRUE(s) << s.sentence();
    ASSERT_EQ(s->placements.size(), 6u);
    const auto all = nest_faults(p, s->placements, 0), own = nest_faults(p, p.locked, 0);
    EXPECT_FALSE(all.empty());
    for (const std::string& fault : all) EXPECT_NE(std::find(own.begin(), own.end(), fault), own.end()) << fault;
}

TEST(Nest, SpendsItsTimeOnTheLastSheetAndOnFewerSheets) {
    // sixteen squares that fill one sheet exactly, and one more: never three sheets, and the second nearly empty
    NestProblem p;
    p.width = 400;
    p.max_length = 400;
    p.pieces.push_back({"square", 17, {0}, box_region({0, 0, 99, 99})[0]});
    NestOptions options;
    options.rounds = 20;
    const auto s = nest(p, options);
    ASSERT_TRUE(s);
    EXPECT_EQ(s->bins, 2);
    EXPECT_LT(s->last_length, 100);
}

TEST(Overlap, FindsTheBoxesThatMeetAsLookingAtEachDoes) {
    std::mt19937 random(23);
    std::uniform_real_distribution<float> at(-50, 50), size(0, 30);
    for (int round = 0; round < 200; ++round) {
        const std::size_t n = random() % 70;
        Boxes boxes;
        boxes.resize(n);
        for (std::size_t i = 0; i < n; ++i) {
            boxes.x0[i] = at(random);
            boxes.y0[i] = at(random);
            boxes.x1[i] = boxes.x0[i] + size(random);
            boxes.y1[i] = boxes.y0[i] + size(random);
            boxes.bin[i] = static_cast<int>(random() % 2);
        }
        const float x0 = at(random), y0 = at(random), x1 = x0 + size(random), y1 = y0 + size(random);
        std::vector<int> found(boxes.bin.size() + 1), by_hand;
        found.resize(static_cast<std::size_t>(boxes_meeting(boxes, x0, y0, x1, y1, 1, found.data())));
        for (std::size_t i = 0; i < n; ++i)
            if (boxes.bin[i] == 1 && boxes.x0[i] <= x1 && boxes.x1[i] >= x0 && boxes.y0[i] <= y1 && boxes.y1[i] >= y0)
                by_hand.push_back(static_cast<int>(i));
        EXPECT_EQ(found, by_hand);
    }
}

TEST(Overlap, ADepthThatIsGivenUpLiesBetweenWhatWasAskedAndTheTruth) {
    std::mt19937 random(29);
    std::uniform_real_distribution<float> by(-40, 40);
    for (int round = 0; round < 600; ++round) {
        const Cast a = casts_of(random_star(random, 30, 5 + round % 18), {0})[0],
                   b = casts_of(random_star(random, 22, 4 + round % 9), {0})[0];
        const float dx = by(random), dy = by(random), fade = 0.01F * std::max(a.span, b.span);
        const float whole = discs_depth(a, b, dx, dy, fade, most_overlap);
        EXPECT_GT(whole, 0);
        EXPECT_NEAR(discs_depth(b, a, -dx, -dy, fade, most_overlap), whole, 1e-3F * whole) << "from either side";
        const float enough = whole * 0.4F, given_up = discs_depth(a, b, dx, dy, fade, enough);
        EXPECT_GE(given_up, enough * 0.999F);
        EXPECT_LE(given_up, whole * 1.0001F);
        EXPECT_EQ(discs_depth(a, b, dx, dy, fade, whole * 2), whole) << "not reached: all is measured";
        // further apart is never deeper
        const float away = norm(Point{dx, dy}) > 1 ? 1.2F : 1.0F;
        if (norm(Point{dx, dy}) > 60) EXPECT_LE(discs_depth(a, b, dx * away, dy * away, fade, most_overlap), whole * 1.0001F);
    }
}

}  // namespace TESTED
}  // namespace orthema
