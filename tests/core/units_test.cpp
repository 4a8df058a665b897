// Lengths as people read and type them.
#include "core/base/units.h"

#include <filesystem>
#include <set>
#include <stdexcept>

#include "core/base/catalogue.h"
#include "support/support.h"

#include <cmath>
#include <random>

namespace orthema {
namespace TESTED {

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
    EXPECT_EQ(length_text(Length::from_mm(77.6), Unit::mm), "77.6 mm");
    EXPECT_EQ(length_text(Length::from_mm(-0.04), Unit::mm, false), "0");
}

TEST(Units, ALimitIsNeverPassedAndARemedyIsEnough) {
    std::mt19937 random(8);
    std::uniform_real_distribution<double> any(0, 900);
    for (int i = 0; i < 2000; ++i) {
        const Length length = Length::from_mm(any(random));
        for (const Unit unit : {Unit::mm, Unit::inch}) {
            EXPECT_LE(parse_length(length_text(length, unit, true, Rounding::down), unit)->mm(), length.mm() + 0.001);
            EXPECT_GE(parse_length(length_text(length, unit, true, Rounding::up), unit)->mm(), length.mm() - 0.001);
        }
    }
    EXPECT_EQ(length_text(Length::from_mm(50.96), Unit::mm, true, Rounding::down), "50.9 mm");
    EXPECT_EQ(length_text(Length::from_inches(2), Unit::inch, true, Rounding::down), "2 in") << "a whole figure stays what it is";
}

TEST(Units, WhatWasTypedComesBackAsPreciselyAsItWasTyped) {
    for (const char* typed : {"238.5", "2.5", "236", "0.35", "-12.75", "0"})
        EXPECT_EQ(stored_text(*parse_length(typed, Unit::mm), Unit::mm), typed);
    for (const char* typed : {"3.06", "3 1/8", "7/64", "-2 3/32", "12", "0.3", "11.337"})
        EXPECT_EQ(stored_text(*parse_length(typed, Unit::inch), Unit::inch), typed);
}

TEST(Units, WhatIsShownReadsBackToTheNearestTick) {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> any(-900, 900);
    for (int i = 0; i < 2000; ++i) {
        const Length length = Length::from_mm(any(random));
        for (const Unit unit : {Unit::mm, Unit::inch}) {
            const auto back = parse_length(length_text(length, unit), unit);
            ASSERT_TRUE(back);
            EXPECT_NEAR(back->mm(), length.mm(), unit == Unit::mm ? 0.05 + 1e-9 : 25.4 / 32 + 1e-9);
        }
    }
}

TEST(Units, MillimetresForFilesCarryNoTrailingZeros) {
    EXPECT_EQ(mm_text(12.500), "12.5");
    EXPECT_EQ(mm_text(12.0), "12");
    EXPECT_EQ(mm_text(-0.0001), "0");
    EXPECT_EQ(mm_text(1.23456, 3), "1.235");
}

TEST(Words, LengthsAreSaidInTheReadersUnitAndPluralsByTheirNumber) {
    const Finding crossed = finding("seam-crossed", {}, {{"medium", "Film"}, {"n", 1}});
    EXPECT_EQ(finding_text(crossed, Unit::mm).rfind("Film: 1 piece crosses the taped seam", 0), 0U);
    EXPECT_EQ(crossed.about.stage, "sheets");
    const Finding shortened = finding("short-of-ideal", {},
                                      {{"who", Phrases{{{"who", {{"design", "Kite"}, {"run", "Tee, ash"}}}}}},
                                       {"by", "side seam"},
                                       {"limit", AtMost{25.49}},
                                       {"ideal", Length::from_mm(50.8)},
                                       {"mend", Phrases{{{"mend-place", {}}}}}});
    EXPECT_EQ(finding_text(shortened, Unit::inch),
              "“Kite” on Tee, ash: the side seam holds it to 1 in, ideal 2 in. Move it, or ask for less.");
    EXPECT_NE(finding_text(shortened, Unit::mm).find("to 25.4 mm, ideal 50.8 mm"), std::string::npos);
    EXPECT_EQ(figure_of(shortened, "ideal"), 50.8);
    EXPECT_EQ(worded({"why-stroke", {{"is", Fine{0.254, 2}}, {"least", Fine{0.508}}}}, Unit::inch),
              "strokes of 0.01 in are finer than the 0.02 in it holds");
}

TEST(Words, WhatIsMissingIsABugAndCodesAreNeverTwice) {
    EXPECT_THROW((void)worded({"who", {{"design", "Kite"}}}, Unit::mm), std::logic_error);
    EXPECT_THROW((void)finding("no-such-code", {}), std::logic_error);
    std::set<std::string_view> codes;
    for (const Entry& e : catalogue()) {
        EXPECT_TRUE(codes.insert(e.code).second) << e.code;
        EXPECT_EQ(std::count(e.text.begin(), e.text.end(), '{'), std::count(e.text.begin(), e.text.end(), '}')) << e.code;
    }
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

TEST(Words, EveryCodeThatIsSaidStandsInTheCatalogueAndNoneStandsThereUnsaid) {
    std::string all;
    for (const auto& file : std::filesystem::recursive_directory_iterator(test::source("src")))
        if ((file.path().extension() == ".cpp" || file.path().extension() == ".h") && file.path().filename() != "catalogue.cpp")
            all += test::slurp(file.path().string());
    std::set<std::string> codes;
    for (const Entry& e : catalogue()) {
        EXPECT_TRUE(codes.insert(std::string(e.code)).second) << e.code << " stands there twice";
        EXPECT_NE(all.find("\"" + std::string(e.code) + "\""), std::string::npos) << e.code << " is never said";
    }
    for (const char* said : {"finding(\"", "phrase(\"", "Words{\""})
        for (std::size_t at = all.find(said); at != std::string::npos; at = all.find(said, at + 1)) {
            const std::size_t from = at + std::string(said).size();
            const std::string code = all.substr(from, all.find('"', from) - from);
            if (code.find(' ') != std::string::npos) continue;  // said there alone, it is its own text
            EXPECT_TRUE(codes.contains(code)) << code << " is not in the catalogue";
        }
}

}  // namespace TESTED
}  // namespace orthema
