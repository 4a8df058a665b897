// What the tape teaches of photographs, against worlds that are made.
#include <gtest/gtest.h>

#include <random>

#include "core/records/lessons.h"
#include "core/records/photo_scale.h"

namespace orthema {
namespace TESTED {

namespace {

const Measure taped[] = {Measure::chest, Measure::body_length, Measure::hem_width, Measure::rib_height};

/// A blank of so many sizes, each piece taped and photographed; photographs come out `long_by` per cent longer.
BlankStyle both_ways(int sizes, double long_by, std::mt19937& random, const std::string& date = "2027-06-01") {
    std::normal_distribution<double> tape(0, 1.5), seen(0, 0.6), scale(0, 0.08);
    BlankStyle style;
    style.id = "tee";
    style.family = Family::adult_tee;
    for (int k = 0; k < sizes; ++k) {
        const std::string size = "S" + std::to_string(k);
        style.sizes.push_back(size);
        const double picture = scale(random);
        for (const Measure m : taped) {
            const double mm = m == Measure::rib_height ? 20 : 450.0 + 40 * k;
            Figure& f = style.chart[size][m];
            f.source = Source::measured;
            f.date = date;
            f.readings = {Length::from_mm(mm + tape(random)), Length::from_mm(mm * (1 + (long_by + picture) / 100) + seen(random))};
            f.errors = {Length(), Length::from_mm(1.5)};
            f.value = Length::from_mm((f.readings[0].mm() + f.readings[1].mm()) / 2);
        }
    }
    return style;
}

}  // namespace

TEST(PhotoScale, TheIntervalHoldsTheTruthAsOftenAsItSays) {
    std::mt19937 random(11);
    int covered = 0, said = 0, falsely = 0;
    constexpr int worlds = 600;
    for (int k = 0; k < worlds; ++k) {
        const double truth = k % 2 == 0 ? 0 : 0.8;
        const auto found = photo_scale({both_ways(6, truth, random)}, {});
        ASSERT_TRUE(found);
        EXPECT_EQ(found->sizes, 6);
        EXPECT_EQ(found->figures, 18) << "a rib says nothing of a scale";
        covered += found->sure.low <= truth && truth <= found->sure.high ? 1 : 0;
        said += truth > 0 && found->differs ? 1 : 0;
        falsely += truth == 0 && found->differs ? 1 : 0;
    }
    EXPECT_NEAR(covered / static_cast<double>(worlds), 0.95, 0.03);
    EXPECT_GT(said, 0.9 * worlds / 2);
    EXPECT_LT(falsely, 0.02 * worlds / 2);
}

TEST(PhotoScale, WithoutErrorsItIsTheScaleItself) {
    BlankStyle style;
    style.id = "tee";
    for (const auto& [size, mm] : {std::pair{"S", 400.0}, std::pair{"M", 500.0}, std::pair{"L", 600.0}}) {
        Figure& f = style.chart[size][Measure::chest];
        f.readings = {Length::from_mm(mm), Length::from_mm(mm * 1.004)};
        f.errors = {Length(), Length::from_mm(1)};
        f.date = "2027-06-01";
    }
    const auto found = photo_scale({style}, {});
    ASSERT_TRUE(found && found->differs);
    EXPECT_NEAR(found->by, 0.4, 1e-9);
    EXPECT_FALSE(photo_scale({style}, "2027-06-01T12:00:00")) << "what was measured before it was taken says nothing of how it is now";
    style.chart.erase("M");
    EXPECT_FALSE(photo_scale({style}, {})->differs) << "two sizes are an anecdote";
    style.chart.erase("S");
    EXPECT_FALSE(photo_scale({style}, {}));
}

TEST(PhotoScale, TheLessonIsProposedTakenAndActsOnce) {
    std::mt19937 random(3);
    Order order;
    order.styles.push_back(both_ways(6, 0.8, random));
    const auto found = proposals({}, {}, {}, order);
    ASSERT_EQ(found.size(), 1U);
    EXPECT_EQ(found[0].kind, CorrectionKind::photo_scale);
    EXPECT_NEAR(found[0].by, 0.8, 0.3);
    EXPECT_NE(proposal_words(found[0], order).find("% longer"), std::string::npos);
    const Order taken = with_correction(order, found[0], "2027-06-02T09:00:00");
    ASSERT_EQ(taken.corrections.size(), 1U);
    EXPECT_NEAR(photo_factor(taken.corrections.all()), 1 + found[0].by / 100, 1e-12);
    const std::vector<Lesson> known{{found[0], LessonState::taken, 1, "2027-06-02T09:00:00", ""}};
    EXPECT_TRUE(proposals({}, {}, known, taken).empty());
    // photographs that were measured since, still short by that: what is taken off adds up
    Order later = taken;
    for (const double more : {0.0, -0.6}) {
        later.styles = {};
        later.styles.push_back(both_ways(6, more, random, "2027-07-01"));
        EXPECT_EQ(proposals({}, {}, known, later).empty(), more == 0);
    }
}

}  // namespace TESTED
}  // namespace orthema
