// Splitting: the seam with least ink, against every path there is.
#include "core/transfers/split.h"

#include <gtest/gtest.h>

#include <functional>
#include <limits>
#include <random>

namespace orthema {
namespace TESTED {

AlphaMap noise(std::mt19937& random, int w, int h) {
    AlphaMap a{w, h, {}};
    for (int i = 0; i < w * h; ++i) a.ink.push_back(random() % 3 == 0 ? 0 : static_cast<std::uint8_t>(random() % 256));
    return a;
}

/// A disc that fades out towards its edge.
AlphaMap soft_disc(int w, int h) {
    AlphaMap a{w, h, {}};
    for (int y = 0; y < h; ++y)
        for (int x = 0; x < w; ++x) {
            const double r = std::hypot((x + 0.5 - w / 2.0) / w * 2, (y + 0.5 - h / 2.0) / h * 2);
            const double petals = 0.55 + 0.45 * std::sin(7 * std::atan2(y - h / 2.0, x - w / 2.0));
            a.ink.push_back(static_cast<std::uint8_t>(255 * std::clamp((1.05 - r) * 3, 0.0, 1.0) * petals));
        }
    return a;
}

/// Every path, one step aside at most, by plain recursion.
long least_by_brute_force(const AlphaMap& a, bool upright, int lo, int hi) {
    const int steps = upright ? a.height : a.width;
    const std::function<long(int, int)> from = [&](int along, int across) -> long {
        const long here = upright ? a.at(across, along) : a.at(along, across);
        if (along + 1 == steps) return here;
        long best = std::numeric_limits<long>::max();
        for (int to = std::max(lo, across - 1); to <= std::min(hi - 1, across + 1); ++to) best = std::min(best, from(along + 1, to));
        return here + best;
    };
    long best = std::numeric_limits<long>::max();
    for (int x = lo; x < hi; ++x) best = std::min(best, from(0, x));
    return best;
}

TEST(Split, TheSeamHasTheLeastInkOfAllPaths) {
    std::mt19937 random(7);
    for (int round = 0; round < 60; ++round) {
        const int w = 4 + static_cast<int>(random() % 4), h = 4 + static_cast<int>(random() % 4);
        const AlphaMap a = noise(random, w, h);
        for (const bool upright : {true, false}) {
            const int across = upright ? w : h, steps = upright ? h : w;
            const int lo = static_cast<int>(random() % 2), hi = across - static_cast<int>(random() % 2);
            const auto path = least_ink_path(a, upright, lo, hi);
            ASSERT_EQ(static_cast<int>(path.size()), steps);
            for (std::size_t i = 0; i < path.size(); ++i) {
                EXPECT_GE(path[i], lo);
                EXPECT_LT(path[i], hi);
                if (i > 0) EXPECT_LE(std::abs(path[i] - path[i - 1]), 1);
            }
            EXPECT_EQ(path_ink(a, upright, path), least_by_brute_force(a, upright, lo, hi));
        }
    }
}

TEST(Split, TwoSeamsTogetherCutLeastOfAllPairs) {
    // every pair of paths whose three parts are narrow enough, against the joint choice of strips
    std::mt19937 random(5);
    int better_than_equal = 0;
    for (int round = 0; round < 30; ++round) {
        const int w = 7, h = 3, most = 3;
        const AlphaMap a = noise(random, w, h);
        std::vector<std::vector<int>> paths;
        const std::function<void(std::vector<int>)> grow = [&](const std::vector<int>& path) {
            if (static_cast<int>(path.size()) == h) return paths.push_back(path);
            for (int x = path.empty() ? 0 : std::max(0, path.back() - 1); x <= (path.empty() ? w - 1 : std::min(w - 1, path.back() + 1));
                 ++x) {
                auto next = path;
                next.push_back(x);
                grow(next);
            }
        };
        grow({});
        long least = std::numeric_limits<long>::max();
        for (const auto& p : paths)
            for (const auto& q : paths) {
                const auto [p0, p1] = std::minmax_element(p.begin(), p.end());
                const auto [q0, q1] = std::minmax_element(q.begin(), q.end());
                if (*p1 + 0.5 > most || *q1 - *p0 > most || w - (*q0 + 0.5) > most) continue;
                least = std::min(least, path_ink(a, true, p) + path_ink(a, true, q));
            }
        SplitRule rule;
        rule.join = Join::butt;
        rule.limits = {{most * 10.0, 1000}};
        const auto plan = split(a, w * 10.0, rule);
        ASSERT_TRUE(plan) << plan.sentence();
        ASSERT_EQ(plan->seams.size(), 2u);
        EXPECT_NEAR(plan->ink_cut, static_cast<double>(least) / 255 * 10, 1e-6);
        // with equal strips either seam has only the pixels 2 and 4, or thereabouts, to itself
        const long equal = path_ink(a, true, least_ink_path(a, true, 2, 3)) + path_ink(a, true, least_ink_path(a, true, 4, 5));
        better_than_equal += least < equal ? 1 : 0;
    }
    EXPECT_GT(better_than_equal, 5);
}

TEST(Split, ASeamPassesItsPointsOrSaysThatItCannot) {
    std::mt19937 random(11);
    const AlphaMap a = noise(random, 40, 60);
    const auto free = least_ink_path(a, true, 0, 40);
    const auto tied = least_ink_path(a, true, 0, 40, {{10, 5}, {40, 30}});
    ASSERT_EQ(tied.size(), 60u);
    EXPECT_EQ(tied[10], 5);
    EXPECT_EQ(tied[40], 30);
    EXPECT_GE(path_ink(a, true, tied), path_ink(a, true, free));
    EXPECT_TRUE(least_ink_path(a, true, 0, 40, {{10, 5}, {12, 30}}).empty()) << "no path turns that sharply";
    EXPECT_TRUE(least_ink_path(a, true, 10, 40, {{10, 5}}).empty()) << "it lies outside the strip";
}

SplitRule rule_of(double w, double h) {
    SplitRule r;
    r.limits = {{w, h}};
    r.platen_width = r.platen_height = 380;
    return r;
}

TEST(Split, EveryPartFitsNoneIsMissingAndStraightCutsAreNeverBetter) {
    for (const Join join : {Join::lap, Join::butt})
        for (const auto& limit : {PieceLimit{290, 360}, PieceLimit{200, 1000}, PieceLimit{1000, 150}, PieceLimit{150, 160}}) {
            const AlphaMap a = soft_disc(190, 270);
            SplitRule rule = rule_of(limit.width, limit.height);
            rule.join = join;
            const auto plan = split(a, 380, rule);
            ASSERT_TRUE(plan) << plan.sentence();
            const double lap = join == Join::lap ? rule.lap : 0;
            const auto least = [&](double whole, double most) {
                return whole <= most ? 1 : static_cast<int>(std::ceil(whole / (most - lap)));
            };
            EXPECT_EQ(plan->columns, least(380, limit.width));
            EXPECT_EQ(plan->rows, least(540, limit.height));
            for (const Seam& s : plan->seams) EXPECT_LE(s.ink, s.straight + 1e-9);
            const Region ink = box_region({0, 0, 380, 540});
            double sum = 0;
            for (const SplitPart& p : plan->parts) {
                const Rect box = bounds(intersect(p.reach, ink));
                EXPECT_LE(box.width(), limit.width + 0.5);
                EXPECT_LE(box.height(), limit.height + 0.5);
                sum += area(intersect(p.own, ink));
                for (const SplitPart& q : plan->parts)
                    if (&p != &q) EXPECT_LT(area(intersect(p.own, q.own)), 0.05);
            }
            EXPECT_NEAR(sum, 380.0 * 540, 1);
        }
}

TEST(Split, TheFirstPartReachesUnderTheNextByTheLap) {
    SplitRule rule = rule_of(290, 1000);
    rule.lap = 4;
    const auto plan = split(soft_disc(100, 100), 380, rule);
    ASSERT_TRUE(plan);
    ASSERT_EQ(plan->parts.size(), 2u);
    EXPECT_NEAR(area(intersect(plan->parts[0].reach, plan->parts[1].own)) / 500, 4, 0.8) << "a strip as wide as the lap along the seam";
    EXPECT_EQ(area(subtract(plan->parts[1].reach, plan->parts[1].own)), 0);
    EXPECT_EQ(plan->parts[0].heated, 2) << "it lies under the platen again when the second is pressed";
    EXPECT_EQ(plan->parts[1].heated, 1);
}

TEST(Split, WhatCannotBeIsASentence) {
    EXPECT_FALSE(split(AlphaMap{}, 300, rule_of(100, 100)));
    EXPECT_NE(split(soft_disc(50, 50), 3000, rule_of(40, 40)).sentence().find("12 × 12"), std::string::npos);
    SplitRule rule = rule_of(290, 1000);
    rule.points = {{true, 0, {0.05, 0.5}}};
    const auto far = split(soft_disc(100, 100), 380, rule);
    ASSERT_FALSE(far);
    EXPECT_NE(far.sentence().find("must keep between"), std::string::npos);
}

}  // namespace TESTED
}  // namespace orthema
