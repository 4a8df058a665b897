// What to measure first, and what looks wrong on a chart.
#include "core/blanks/measuring.h"

#include "files/library.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

Length mm(double v) { return Length::from_mm(v); }

TEST(Measuring, NothingIsDoubtfulInTheShippedCharts) {
    for (const BlankStyle& s : starting_library().styles)
        for (const DoubtfulFigure& d : doubtful_figures(s))
            ADD_FAILURE() << s.name << " " << d.size << " " << measure_name(d.measure) << " " << d.value << " against " << d.expected;
}

TEST(Measuring, FindsUnitSlipsSwapsAndRunsOutOfStep) {
    const BlankStyle tee = test::library_style("adult-tee");
    // 20 in typed as 20 cm: 508 mm comes out as 200
    const auto slip = doubt_about(tee, "M", Measure::chest, mm(measure_mm(tee.chart.at("M"), Measure::chest) / 2.54));
    ASSERT_TRUE(slip);
    EXPECT_EQ(slip->doubt, Doubt::unit_slip);
    EXPECT_NEAR(slip->factor, 2.54, 1e-9);
    EXPECT_NE(finding_text(doubt_finding(tee, *slip), Unit::mm).find("inches taken for centimetres"), std::string::npos);
    // chest and body length exchanged
    BlankStyle swapped = tee;
    std::swap(swapped.chart["L"][Measure::chest].value, swapped.chart["L"][Measure::body_length].value);
    bool found = false;
    for (const DoubtfulFigure& d : doubtful_figures(swapped))
        if (d.doubt == Doubt::swapped && d.size == "L") found = found || (d.measure == Measure::body_length && d.other == Measure::chest);
    EXPECT_TRUE(found);
    // an L that is smaller than the M, though by too little for any of the others
    BlankStyle step = tee;
    step.chart["L"][Measure::chest].value = step.chart["M"][Measure::chest].value - mm(4);
    found = false;
    for (const DoubtfulFigure& d : doubtful_figures(step))
        found = found || (d.doubt == Doubt::out_of_step && d.size == "L" && d.measure == Measure::chest);
    EXPECT_TRUE(found);
    // far from the grading without any such reason
    BlankStyle off = tee;
    off.chart["XL"][Measure::sleeve_length].value = off.chart["XL"][Measure::sleeve_length].value * 1.45;
    found = false;
    for (const DoubtfulFigure& d : doubtful_figures(off))
        found = found || (d.doubt == Doubt::off_the_grading && d.size == "XL" && d.measure == Measure::sleeve_length);
    EXPECT_TRUE(found);
    // plausible figures raise nothing
    for (const char* size : {"S", "L", "3XL"})
        for (const double by : {-12.0, 6.0, 14.0})
            EXPECT_FALSE(doubt_about(tee, size, Measure::chest, tee.chart.at(size).at(Measure::chest).value + mm(by)));
}

TEST(Measuring, AsksForTheSmallestOfEachBandThenForWhatDisagrees) {
    const BlankStyle tee = test::library_style("adult-tee");
    const std::vector<std::string> ordered{"S", "M", "L", "XL", "2XL"};
    auto list = what_to_measure(tee, ordered, {"S", "L"});
    ASSERT_GE(list.size(), 4u);
    EXPECT_EQ(list[0].size, "S");
    EXPECT_EQ(list[0].measure, Measure::chest);
    EXPECT_EQ(list[1].size, "L");
    EXPECT_NE(list[0].why.find("width of its band"), std::string::npos);
    for (const ToMeasure& t : list) EXPECT_NE(t.size, "3XL") << "nobody ordered it";
    // once taped as published, it is off the list
    const BlankStyle one = with_reading(tee, "S", Measure::chest, tee.chart.at("S").at(Measure::chest).value, "2026-11-25");
    for (const ToMeasure& t : what_to_measure(one, ordered, {"S", "L"})) EXPECT_FALSE(t.size == "S" && t.measure == Measure::chest);
    // far off the published figure: a second piece, and the size beside it
    const BlankStyle two = with_reading(tee, "L", Measure::chest, tee.chart.at("L").at(Measure::chest).value - mm(20), "2026-11-25");
    list = what_to_measure(two, ordered, {"S"});
    const auto has = [&](const char* size, Measure m, const char* why) {
        return std::any_of(list.begin(), list.end(),
                           [&](const ToMeasure& t) { return t.size == size && t.measure == m && t.why.find(why) != std::string::npos; });
    };
    EXPECT_TRUE(has("L", Measure::chest, "second piece"));
    EXPECT_TRUE(has("M", Measure::chest, "beside a size"));
    EXPECT_TRUE(has("2XL", Measure::chest, "largest: those between"));
}

TEST(Measuring, OfABlankThatShrinksOnlyPressedPiecesCount) {
    Order order = test::small_order();
    BlankStyle& tee = *std::find_if(order.styles.begin(), order.styles.end(), [](const BlankStyle& s) { return s.id == "adult-tee"; });
    for (const double v : {500.0, 504.0}) tee = with_reading(tee, "S", Measure::chest, mm(v), "2026-05-01");
    const auto said = [&] {
        for (const Finding& f : order_findings(order))
            if (f.code == "measure-pressed") return finding_text(f, Unit::mm);
        return std::string();
    };
    const auto asked = [&](const std::string& size) {
        const auto list = what_to_measure(tee, {"S", "M"}, {"S"});
        return std::any_of(list.begin(), list.end(), [&](const ToMeasure& t) { return t.size == size && t.why.rfind("shrinks", 0) == 0; });
    };
    EXPECT_EQ(said(), "");
    EXPECT_FALSE(asked("S"));
    tee.shrinks = true;
    EXPECT_NE(said().find("10 figures"), std::string::npos) << "two of each of five sizes: " << said();
    EXPECT_TRUE(asked("S"));
    EXPECT_TRUE(asked("M"));
    // the pressed piece begins anew; a second adds to it
    tee = with_reading(tee, "S", Measure::chest, mm(488), "2026-05-02");
    EXPECT_EQ(tee.chart.at("S").at(Measure::chest).value, mm(488));
    tee = with_reading(tee, "S", Measure::chest, mm(490), "2026-05-02");
    EXPECT_EQ(tee.chart.at("S").at(Measure::chest).value, mm(489));
    EXPECT_NE(said().find("9 figures"), std::string::npos) << said();
    tee = with_reading(tee, "S", main_measure(tee.family), mm(489), "2026-05-02");
    for (const Measure m : {length_measure(tee.family), Measure::front_neck_drop, Measure::armhole_depth})
        tee = with_reading(tee, "S", m, tee.chart.at("S").at(m).value, "2026-05-02");
    EXPECT_FALSE(asked("S"));
    EXPECT_TRUE(asked("M"));
}

TEST(NewStyle, ContinuesTheRunOfItsPattern) {
    const BlankStyle tee = test::library_style("adult-tee");
    const BlankStyle made = new_style(tee, "made", "Made", {"S", "M", "L", "6XL", "7XL"});
    const auto chest = [&](const BlankStyle& s, const char* size) { return measure_mm(s.chart.at(size), Measure::chest); };
    EXPECT_EQ(chest(made, "M"), chest(tee, "M"));
    EXPECT_FALSE(style_fault(made));
    // by hand: 6XL follows L in this run, so it takes the place of XL; 7XL that of 2XL
    EXPECT_NEAR(chest(made, "6XL"), chest(tee, "XL"), 1e-9);
    EXPECT_NEAR(chest(made, "7XL"), chest(tee, "2XL"), 1e-9);
    const BlankStyle longer = with_sizes(tee, {"XS", "S", "M", "L", "XL", "2XL", "3XL", "4XL", "5XL", "6XL"});
    EXPECT_NEAR(chest(longer, "6XL"), 2 * chest(tee, "5XL") - chest(tee, "4XL"), 1e-9) << "by the last step";
    const BlankStyle strange = new_style(tee, "x", "X", {"one", "two", "three"});
    EXPECT_FALSE(style_fault(strange));
    EXPECT_LT(chest(strange, "one"), chest(strange, "three"));
    EXPECT_TRUE(matches(test::library_style("canvas-apron"), "APRON stall"));
    EXPECT_FALSE(matches(test::library_style("canvas-apron"), "apron zip"));
}

}  // namespace TESTED
}  // namespace orthema
