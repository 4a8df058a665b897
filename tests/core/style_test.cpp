// Styles of one's own: features, runs, search, corrected charts.
#include "core/blanks/style.h"

#include "core/blanks/panel.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

StyleFeature pocket(double across, double width) {
    StyleFeature f;
    f.kind = FeatureKind::pocket;
    f.across = Length::from_mm(across);
    f.down = Length::from_mm(400);
    f.width = Length::from_mm(width);
    f.height = Length::from_mm(150);
    f.raised = Length::from_mm(2);
    f.clearance = Length::from_mm(10);
    return f;
}

TEST(StyleFeatures, TwoOfAKindMakeAPair) {
    BlankStyle apron = test::library_style("canvas-apron");
    apron.features.clear();
    apron = with_feature(apron, pocket(0, 200));
    EXPECT_EQ(apron.features[0].across, Length{});
    apron = with_feature(apron, pocket(0, 200));
    ASSERT_EQ(apron.features.size(), 2u);
    EXPECT_DOUBLE_EQ(apron.features[0].across.mm(), -112) << "0.56 of its width, so that they do not touch";
    EXPECT_DOUBLE_EQ(apron.features[1].across.mm(), 112);
    // one that is set aside already is mirrored, with its own figures
    BlankStyle tee = test::library_style("adult-tee");
    tee = with_feature(tee, pocket(90, 110));
    tee = with_feature(tee, pocket(0, 70));
    EXPECT_DOUBLE_EQ(tee.features[1].across.mm(), -90);
    EXPECT_DOUBLE_EQ(tee.features[1].width.mm(), 110);
    // another kind stands alone
    StyleFeature zip = pocket(0, 20);
    zip.kind = FeatureKind::zip;
    EXPECT_EQ(with_feature(tee, zip).features.back().across, Length{});
}

TEST(StyleFeatures, GrowAsTheySay) {
    // a pocket of 200 mm on M, chest 508; on 2XL, chest 660: fixed, or 200 × 660 / 508 = 259.8
    BlankStyle tee = test::library_style("adult-tee");
    tee.sample_size = "M";
    for (const double growth : {0.0, 1.0}) {
        tee.features = {pocket(0, 200)};
        tee.features[0].growth = growth;
        const auto wide = [&](const char* size) {
            for (const Feature& f : panel_of(tee, size, Face::front).features)
                if (f.name == "pocket") return bounds(f.place).width();
            return 0.0;
        };
        EXPECT_NEAR(wide("M"), 200, 1);
        EXPECT_NEAR(wide("2XL"), growth == 0 ? 200 : 200 * 660.0 / 508, 1.5) << growth;
    }
}

TEST(StyleRun, KeepsWhatStaysAndContinuesWhatIsNew) {
    BlankStyle tee = test::library_style("adult-tee");
    tee = with_readings(tee, "L", Measure::chest, {Length::from_mm(570), Length::from_mm(572)}, "2027-05-01");
    const BlankStyle next = with_sizes(tee, {"M", "L", "XL", "2XL", "3XL", "4XL", "5XL", "6XL"});
    EXPECT_EQ(next.chart.at("L").at(Measure::chest), tee.chart.at("L").at(Measure::chest));
    EXPECT_EQ(next.chart.at("L").at(Measure::chest).readings.size(), 2u);
    EXPECT_FALSE(next.chart.contains("S"));
    // 762 on 4XL and 812 on 5XL: the step goes on to 862
    EXPECT_NEAR(next.chart.at("6XL").at(Measure::chest).value.mm(), 862, 1e-6);
    EXPECT_FALSE(style_fault(next));
}

TEST(StyleSearch, EveryWordMustBeFoundSomewhere) {
    const BlankStyle apron = test::library_style("canvas-apron");
    for (const char* words : {"", "apron", "CANVAS", "kitchen apron", "cotton slate", "stall"}) EXPECT_TRUE(matches(apron, words)) << words;
    for (const char* words : {"mug", "apron mug", "kitchen tee"}) EXPECT_FALSE(matches(apron, words)) << words;
}

TEST(StyleChart, CorrectingWhatWasPublishedKeepsTheTape) {
    BlankStyle tee = test::library_style("adult-tee");
    tee = with_reading(tee, "S", Measure::chest, Length::from_mm(466), "2027-05-01");
    tee = with_reading(tee, "L", Measure::chest, Length::from_mm(567), "2027-05-01");
    ASSERT_EQ(tee.chart.at("M").at(Measure::chest).source, Source::graded);
    const double graded = tee.chart.at("M").at(Measure::chest).value.mm();
    // published S 470, M 508, L 559: M lies at 38/89 of the way, so 466 + 101 × 38/89 = 509.1
    EXPECT_NEAR(graded, 466 + 101.0 * 38 / 89, 1e-6);
    tee = with_published(tee, "M", Measure::chest, Length::from_mm(514.5));
    // now half way: 516.5
    EXPECT_NEAR(tee.chart.at("M").at(Measure::chest).value.mm(), 516.5, 1e-6);
    EXPECT_EQ(tee.chart.at("S").at(Measure::chest).value.mm(), 466);
    tee = with_readings(tee, "S", Measure::chest, {}, "");
    EXPECT_EQ(tee.chart.at("S").at(Measure::chest).source, Source::published);
    EXPECT_EQ(tee.chart.at("M").at(Measure::chest).source, Source::published) << "nothing to grade between any more";
}

}  // namespace TESTED
}  // namespace orthema
