// What jobs cost: parts that add up to the whole, whatever they are.
#include "core/costing/costs.h"

#include <numeric>
#include <random>

#include "core/pipeline/gang.h"
#include "support/random_case.h"

namespace orthema {
namespace TESTED {

TEST(Costs, PartsAddUpAndAreAsNearAsWholeNumbersCome) {
    std::mt19937 random(3);
    for (int round = 0; round < 2000; ++round) {
        const auto total = static_cast<Pence>(random() % 100000);
        std::vector<double> weights(1 + random() % 12);
        for (double& w : weights) w = random() % 4 == 0 ? 0 : static_cast<double>(random() % 1000) / 7;
        const std::vector<Pence> parts = parted(total, weights);
        ASSERT_EQ(std::accumulate(parts.begin(), parts.end(), Pence{0}), total);
        const double sum = std::accumulate(weights.begin(), weights.end(), 0.0);
        for (std::size_t i = 0; sum > 0 && i < parts.size(); ++i)
            ASSERT_LT(std::abs(static_cast<double>(parts[i]) - static_cast<double>(total) * weights[i] / sum), 1) << round;
    }
    EXPECT_TRUE(parted(100, {}).empty());
    EXPECT_EQ(parted(7, {0, 0}), (std::vector<Pence>{7, 0}));
}

TEST(Costs, OfAGangJobsAddUpToTheWholeToTheLastPenny) {
    for (unsigned round = 0; round < static_cast<unsigned>(test::rounds(6, 60)); ++round) {
        std::vector<Order> orders;
        std::vector<std::pair<std::string, Shared<KnownArt>>> art;
        for (unsigned k = 0; k < 4; ++k) {
            test::Case c = test::random_case(700 + 4 * round + k);
            c.order.job = "job-" + std::to_string(k);
            c.order.hourly = 23.5;
            for (BlankStyle& s : c.order.styles) s.price = 3.33;
            const Work w = work(c.order, {}, c.art);
            test::lay_anyhow(c.order, w.transfer_set(), 3);
            orders.push_back(c.order);
            art.emplace_back(c.order.job, c.art);
        }
        const Shared<KnownArt> known = gang_art(*ganged(orders, "gang", "All"), art);
        const Order gang = *ganged_and_laid(orders, "gang", "All", known);
        const Work w = work(gang, {}, known);
        const Costs all = costs_of(gang, w.transfer_set(), w.sheet_plan(), w.press_plan());
        Pence film = 0, blanks = 0, work_cost = 0;
        int pieces = 0;
        double sheets = 0;
        for (const JobCost& c : all.jobs) {
            film += c.film;
            blanks += c.blanks;
            work_cost += c.work;
            pieces += c.pieces;
            EXPECT_GE(c.total(), 0);
            if (c.pieces == 0) EXPECT_EQ(c.blanks, 0);
        }
        EXPECT_EQ(film, all.film);
        EXPECT_EQ(blanks, all.blanks);
        EXPECT_EQ(work_cost, all.work);
        EXPECT_EQ(pieces, garments_in(gang));
        for (const MediumPlan& m : w.sheet_plan().media) sheets += m.cost;
        EXPECT_NEAR(static_cast<double>(all.film), 100 * sheets, static_cast<double>(w.sheet_plan().media.size()))
            << "the same price as on the Sheets bench";
        EXPECT_EQ(all.work, std::llround(100 * 23.5 * gang.press_run.hands * w.press_plan().schedule.end / 3600));
    }
}

TEST(Costs, AnOrderThatIsNoGangPaysForAllOfIt) {
    test::Case c = test::random_case(12);
    c.order.hourly = 20;
    const Work w = work(c.order, {}, c.art);
    const Costs all = costs_of(c.order, w.transfer_set(), w.sheet_plan(), w.press_plan());
    ASSERT_EQ(all.jobs.size(), 1u);
    EXPECT_EQ(all.jobs[0].job, "");
    EXPECT_EQ(all.jobs[0].total(), all.total());
}

}  // namespace TESTED
}  // namespace orthema
