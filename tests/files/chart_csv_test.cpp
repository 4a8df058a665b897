// Size charts as tables: there and back, turned round, in inches, and broken.
#include "files/chart_csv.h"

#include <cmath>

#include "files/library.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

ChartImport read(const std::string& text, const BlankStyle& like) {
    const auto table = parse_table(text);
    EXPECT_TRUE(table) << table.sentence();
    auto chart = import_chart(*table, like);
    EXPECT_TRUE(chart) << chart.sentence();
    return chart ? *chart : ChartImport{};
}

auto says(const char* word) {
    return [word](const Words& w) { return worded(w, Unit::mm).find(word) != std::string::npos; };
}

double mm(const BlankStyle& s, const char* size, Measure m) { return measure_mm(s.chart.at(size), m); }

TEST(ChartCsv, GoesThereAndBackForEveryBlank) {
    for (const BlankStyle& s : starting_library().styles) {
        BlankStyle taped = with_reading(s, s.sizes.front(), main_measure(s.family),
                                        Length::from_mm(mm(s, s.sizes.front().c_str(), main_measure(s.family)) + 5), "");
        const BlankStyle back = read(chart_csv(taped), s).style;
        EXPECT_EQ(back.sizes, s.sizes);
        for (const std::string& size : s.sizes)
            for (const Measure m : family_measures(s.family)) {
                const Figure &a = taped.chart.at(size).at(m), &b = back.chart.at(size).at(m);
                EXPECT_NEAR(a.value.mm(), b.value.mm(), 0.06 + a.value.mm() * 5e-4) << s.name << size << measure_name(m);
                EXPECT_EQ(a.source, b.source) << s.name << size << measure_name(m);
            }
    }
}

TEST(ChartCsv, ReadsAVendorsChartInInchesWithMeasuresDownTheSide) {
    const BlankStyle tee = test::library_style("adult-tee");
    const ChartImport in = read(
        "Size,Small,Medium,Large,XXL\nWidth (in),18,20,22,26 1/2\nLength (in),28,29,30,\"32,5\"\nSleeve,8,8.5,9,10\nWash,no,no,no,no\n",
        tee);
    EXPECT_EQ(in.style.sizes, (std::vector<std::string>{"S", "M", "L", "2XL"}));
    EXPECT_NEAR(mm(in.style, "S", Measure::chest), 18 * 25.4, 1e-9);
    EXPECT_NEAR(mm(in.style, "2XL", Measure::chest), 26.5 * 25.4, 1e-9);
    EXPECT_NEAR(mm(in.style, "2XL", Measure::body_length), 32.5 * 25.4, 1e-9);
    EXPECT_NEAR(mm(in.style, "M", Measure::sleeve_length), 8.5 * 25.4, 1e-9) << "its unit follows from what sleeves measure";
    // what the chart lacks follows the pattern in proportion to the chest
    const double ratio = mm(in.style, "M", Measure::chest) / mm(tee, "M", Measure::chest);
    EXPECT_NEAR(mm(in.style, "M", Measure::armhole_depth), mm(tee, "M", Measure::armhole_depth) * ratio, 1e-6);
    EXPECT_TRUE(std::any_of(in.said.begin(), in.said.end(), says("Wash")));
    EXPECT_TRUE(std::any_of(in.said.begin(), in.said.end(), says("inches")));
}

TEST(ChartCsv, CentimetresAndAMugsOwnSizes) {
    const ChartImport in =
        read("size;Circumference;Wall height;Handle gap\n325 ML;25,9;9,6;3,9\n440 ml;27,2;11,4;4\n", test::library_style("mug"));
    EXPECT_EQ(in.style.sizes, (std::vector<std::string>{"325 ml", "440 ml"}));
    EXPECT_NEAR(mm(in.style, "325 ml", Measure::circumference), 259, 1e-9);
    EXPECT_NEAR(mm(in.style, "440 ml", Measure::wall_height), 114, 1e-9);
}

TEST(ChartCsv, BadChartsGetASentenceAndGoodRowsStay) {
    const BlankStyle tee = test::library_style("adult-tee");
    const auto said = [&](const std::string& text) {
        const auto table = parse_table(text);
        if (!table) return table.sentence();
        const auto chart = import_chart(*table, tee);
        return chart ? std::string() : chart.sentence();
    };
    EXPECT_NE(said("colour,price\nred,3\n").find("no measure"), std::string::npos);
    EXPECT_NE(said("size,chest\nbanana,20\n").find("no size"), std::string::npos);
    EXPECT_NE(said("size,chest (mm),neck width (mm)\nM,500,900\n").find("contradict"), std::string::npos);
    const ChartImport part = read("size,chest (mm)\nM,510\nbanana,3\nL,wide\nM,600\nXL,999999\n", tee);
    EXPECT_EQ(part.style.sizes, (std::vector<std::string>{"M", "L", "XL"}));
    EXPECT_EQ(mm(part.style, "M", Measure::chest), 510);
    EXPECT_GE(part.said.size(), 4u);
}

}  // namespace TESTED
}  // namespace orthema
