// Lengths as people read and type them.
#include "core/base/units.h"

#include <cmath>
#include <random>

namespace orthema {
namespace {

double mm_of(const char* text, Unit unit = Unit::mm) {
    const auto length = parse_length(text, unit);
    EXPECT_TRUE(length) << text;
    return length ? length->mm() : NAN;
}

TEST(Units, ReadsWhatPeopleType) {
    EXPECT_DOUBLE_EQ(mm_of("78"), 78);
    EXPECT_DOUBLE_EQ(mm_of("78 mm", Unit::inch), 78);
    EXPECT_DOUBLE_EQ(mm_of("7.8cm"), 78);
    EXPECT_DOUBLE_EQ(mm_of("7,8 cm"), 78);
    EXPECT_DOUBLE_EQ(mm_of("0.5 m"), 500);
    EXPECT_DOUBLE_EQ(mm_of("3 1/16", Unit::inch), 49 * 25.4 / 16);
    EXPECT_DOUBLE_EQ(mm_of("3-1/16 in"), 49 * 25.4 / 16);
    EXPECT_DOUBLE_EQ(mm_of("3.06in"), 3.06 * 25.4);
    EXPECT_DOUBLE_EQ(mm_of("1/2\""), 12.7);
    EXPECT_DOUBLE_EQ(mm_of("2 ft"), 609.6);
    EXPECT_DOUBLE_EQ(mm_of(" -1/4 ", Unit::inch), -6.35);
    EXPECT_DOUBLE_EQ(mm_of("+5"), 5);
}

TEST(Units, RefusesWhatIsNoLengthWithASentence) {
    for (const char* bad : {"", "abc", "1/0", "3 1/", "12 parsecs", "--4", "1 2 3", "9999999", "nan", "1e5", "3 1/16 1/16"}) {
        const auto length = parse_length(bad, Unit::mm);
        EXPECT_FALSE(length) << bad;
        if (!length) EXPECT_GT(length.sentence().size(), 20u) << bad;
    }
}

TEST(Units, ShowsSixteenthsReduced) {
    const auto inches = [](double v) { return length_text(Length::from_inches(v), Unit::inch); };
    EXPECT_EQ(inches(3.0625), "3 1/16 in");
    EXPECT_EQ(inches(3.5), "3 1/2 in");
    EXPECT_EQ(inches(0.125), "1/8 in");
    EXPECT_EQ(inches(0), "0 in");
    EXPECT_EQ(inches(-1.25), "-1 1/4 in");
    EXPECT_EQ(inches(2.999), "3 in");
    EXPECT_EQ(inches(-0.001), "0 in");
    EXPECT_EQ(length_text(Length::from_mm(77.6), Unit::mm), "78 mm");
    EXPECT_EQ(length_text(Length::from_mm(-0.2), Unit::mm, false), "0");
}

TEST(Units, WhatIsShownReadsBackToTheNearestTick) {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> any(-900, 900);
    for (int i = 0; i < 2000; ++i) {
        const Length length = Length::from_mm(any(random));
        for (const Unit unit : {Unit::mm, Unit::inch}) {
            const auto back = parse_length(length_text(length, unit), unit);
            ASSERT_TRUE(back);
            EXPECT_NEAR(back->mm(), length.mm(), unit == Unit::mm ? 0.5 + 1e-9 : 25.4 / 32 + 1e-9);
        }
    }
}

TEST(Units, MillimetresForFilesCarryNoTrailingZeros) {
    EXPECT_EQ(mm_text(12.500), "12.5");
    EXPECT_EQ(mm_text(12.0), "12");
    EXPECT_EQ(mm_text(-0.0001), "0");
    EXPECT_EQ(mm_text(1.23456, 3), "1.235");
}

TEST(Units, FindingsPutTheirNumbersIntoTheSentence) {
    Finding f;
    f.numbers = {{"short", 25.4}, {"ideal", 50.8}};
    f.sentence = "{short} short of {ideal}, {unknown} stays.";
    EXPECT_EQ(finding_text(f, Unit::inch), "1 in short of 2 in, {unknown} stays.");
    EXPECT_EQ(finding_text(f, Unit::mm), "25 mm short of 51 mm, {unknown} stays.");
}

TEST(Standing, IsTheWorstThatIsSaidOfTheStage) {
    const auto finding = [](Severity s, const char* stage) {
        Finding f;
        f.severity = s;
        f.about.stage = stage;
        return f;
    };
    const Findings all{finding(Severity::note, "art"), finding(Severity::caution, "fit"), finding(Severity::stop, "order"),
                       finding(Severity::caution, "order")};
    EXPECT_EQ(standing_of(all, "art"), Standing::settled);
    EXPECT_EQ(standing_of(all, "fit"), Standing::look);
    EXPECT_EQ(standing_of(all, "order"), Standing::blocked);
    EXPECT_TRUE(has_stop(all));
    EXPECT_FALSE(has_stop({all[0], all[1]}));
}

}  // namespace
}  // namespace orthema
