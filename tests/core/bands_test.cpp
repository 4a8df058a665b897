// The exact partition against every partition there is.
#include "core/fitting/bands.h"

#include <limits>
#include <random>

namespace orthema {
namespace TESTED {

std::vector<BandMember> random_members(std::mt19937& random, int n) {
    std::uniform_real_distribution<double> step(2, 40), shift(-30, 60);
    std::uniform_int_distribution<int> quantity(1, 30);
    std::vector<BandMember> out;
    double ideal = 150;
    for (int i = 0; i < n; ++i) {
        out.push_back({ideal, ideal + shift(random), quantity(random)});
        ideal += step(random);
    }
    return out;
}

double cost_of(const std::vector<BandMember>& members, unsigned cuts, double step) {
    double total = 0;
    const int n = static_cast<int>(members.size());
    for (int first = 0; first < n;) {
        int last = first + 1;
        while (last < n && (cuts >> (last - 1) & 1u) == 0) ++last;
        double width = std::numeric_limits<double>::infinity();
        for (int i = first; i < last; ++i)
            width = std::min({width, members[static_cast<std::size_t>(i)].ideal_mm, members[static_cast<std::size_t>(i)].limit_mm});
        width = std::floor(width / step + 1e-9) * step;
        for (int i = first; i < last; ++i) {
            const BandMember& m = members[static_cast<std::size_t>(i)];
            total += m.quantity * std::pow((m.ideal_mm - width) / m.ideal_mm, 2);
        }
        first = last;
    }
    return total;
}

TEST(Bands, OptimalAgainstBruteForceOnRandomRuns) {
    std::mt19937 random(42);
    for (int round = 0; round < 120; ++round) {
        const int n = 1 + round % 11;
        const auto members = random_members(random, n);
        const double step = round % 2 == 0 ? 5 : 6.35;
        std::vector<double> best(static_cast<std::size_t>(n) + 1, std::numeric_limits<double>::infinity());
        for (unsigned cuts = 0; cuts < 1u << (n - 1); ++cuts) {
            const auto k = static_cast<std::size_t>(__builtin_popcount(cuts) + 1);
            best[k] = std::min(best[k], cost_of(members, cuts, step));
        }
        const BandCosts costs(members, step);
        const auto found = optimal_partitions(costs, n);
        ASSERT_EQ(found.size(), static_cast<std::size_t>(n));
        for (int k = 1; k <= n; ++k) {
            const Partition& p = found[static_cast<std::size_t>(k) - 1];
            EXPECT_NEAR(p.cost, best[static_cast<std::size_t>(k)], 1e-9);
            ASSERT_EQ(p.starts.size(), static_cast<std::size_t>(k));
            unsigned cuts = 0;
            for (std::size_t i = 1; i < p.starts.size(); ++i) {
                EXPECT_LT(p.starts[i - 1], p.starts[i]);
                cuts |= 1u << (p.starts[i] - 1);
            }
            EXPECT_NEAR(cost_of(members, cuts, step), p.cost, 1e-9);
        }
        for (const double price : {0.0, 0.01, 0.3, 5.0}) {
            const Partition chosen = best_partition(costs, price);
            for (int k = 1; k <= n; ++k)
                EXPECT_LE(chosen.cost + price * static_cast<double>(chosen.starts.size()),
                          best[static_cast<std::size_t>(k)] + price * k + 1e-9);
        }
    }
}

TEST(Bands, MoreBandsNeverCostMoreAndTheCostNeedsNoPrice) {
    std::mt19937 random(9);
    const BandCosts costs(random_members(random, 14), 5);
    const auto found = optimal_partitions(costs, 14);
    for (std::size_t k = 1; k < found.size(); ++k) EXPECT_LE(found[k].cost, found[k - 1].cost + 1e-12);
    EXPECT_EQ(best_partition(costs, 1e9).starts.size(), 1u);
}

TEST(Bands, ACutShortCurveIsTheBeginningOfTheWholeOne) {
    std::mt19937 random(3);
    const BandCosts costs(random_members(random, 60), 5);
    const auto whole = optimal_partitions(costs, 60), begun = optimal_partitions(costs, 7);
    ASSERT_EQ(begun.size(), 7u);
    for (std::size_t k = 0; k < 7; ++k) EXPECT_EQ(begun[k].starts, whole[k].starts);
    // what the price chooses is the least of the whole curve
    for (const double price : {0.001, 0.02, 0.4}) {
        double least = 1e18;
        for (std::size_t k = 0; k < whole.size(); ++k) least = std::min(least, whole[k].cost + price * static_cast<double>(k + 1));
        const Partition p = best_partition(costs, price);
        EXPECT_NEAR(p.cost + price * static_cast<double>(p.starts.size()), least, 1e-9);
    }
}

TEST(Bands, RoundsDownOnly) {
    EXPECT_DOUBLE_EQ(rounded_down(299.9, 5), 295);
    EXPECT_DOUBLE_EQ(rounded_down(300, 5), 300);
    EXPECT_DOUBLE_EQ(rounded_down(3 * 6.35, 6.35), 3 * 6.35);
    EXPECT_DOUBLE_EQ(rounded_down(3, 5), 3);
    EXPECT_DOUBLE_EQ(rounded_down(123.4, 0), 123.4);
}

TEST(Bands, WidthIsTheLeastOfIdealsAndLimits) {
    const std::vector<BandMember> members{{300, 400, 1}, {320, 310, 1}, {340, 288, 1}};
    EXPECT_DOUBLE_EQ(band_width(members, 0, 3, 5), 285);
    EXPECT_DOUBLE_EQ(band_width(members, 0, 2, 5), 300);
    EXPECT_DOUBLE_EQ(band_width(members, 1, 2, 5), 310);
}

TEST(Bands, TheFewestThatKeepWithinAgainstBruteForce) {
    std::mt19937 random(43);
    std::uniform_real_distribution<double> share(0.02, 0.3);
    for (int round = 0; round < 120; ++round) {
        const int n = 1 + round % 12;
        const auto members = random_members(random, n);
        const double step = round % 2 == 0 ? 5 : 6.35, within = share(random);
        const auto width = [&](int first, int last) {
            double w = 1e9;
            for (int i = first; i < last; ++i)
                w = std::min({w, members[static_cast<std::size_t>(i)].ideal_mm, members[static_cast<std::size_t>(i)].limit_mm});
            return std::floor(w / step + 1e-9) * step;
        };
        int fewest = n + 1;
        double least = 1e18;
        for (unsigned cuts = 0; cuts < 1u << (n - 1); ++cuts) {
            bool keeps = true;
            for (int first = 0; first < n && keeps;) {
                int last = first + 1;
                while (last < n && (cuts >> (last - 1) & 1u) == 0) ++last;
                for (int i = first; i < last; ++i)
                    keeps = keeps && (width(first, last) >= (1 - within) * members[static_cast<std::size_t>(i)].ideal_mm - 1e-9 ||
                                      width(first, last) >= width(i, i + 1) - 1e-9);
                first = last;
            }
            const int bands = __builtin_popcount(cuts) + 1;
            const double cost = cost_of(members, cuts, step);
            if (keeps && (bands < fewest || (bands == fewest && cost < least))) {
                fewest = bands;
                least = cost;
            }
        }
        const Partition p = within_partition(BandCosts(members, step), within);
        EXPECT_EQ(static_cast<int>(p.starts.size()), fewest) << round;
        EXPECT_NEAR(p.cost, least, 1e-9) << round;
        EXPECT_GE(shortfall(members, p, step).worst, shortfall(members, p, step).mean);
    }
}

}  // namespace TESTED
}  // namespace orthema
