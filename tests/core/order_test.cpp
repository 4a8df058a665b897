// The order as a value, and what is done to it on the Order bench.
#include "core/order/order.h"

#include "core/order/edit.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

const RunKey ash{"adult-tee", "ash"};

int count(const Order& order, const RunKey& run, const std::string& size) {
    for (const SizeCount& c : counts_of(order, run))
        if (c.size == size) return c.quantity;
    return 0;
}

bool says(const Findings& findings, const std::string& code) {
    return std::any_of(findings.begin(), findings.end(), [&](const Finding& f) { return f.code == code; });
}

TEST(Order, CountsStandInTheOrderOfTheSizeRun) {
    Order order = test::small_order();
    order.lines.insert(order.lines.begin(), OrderLine{"adult-tee", "ash", "2XL", 7, ""});
    std::vector<std::string> sizes;
    for (const SizeCount& c : counts_of(order, ash)) sizes.push_back(c.size);
    EXPECT_EQ(sizes, (std::vector<std::string>{"S", "M", "L", "XL", "2XL", "3XL"}));
    EXPECT_EQ(garments_in(order), 22);
    EXPECT_EQ(run_name(order, ash), "Adult tee, ash");
}

TEST(Order, AColourThatTheBlankHasNotIsTakenByItsNameAndSaid) {
    Order order = test::small_order();
    EXPECT_FALSE(says(order_findings(order), "colour-usual"));
    const RunKey black{"adult-tee", "Heather Black"}, odd{"adult-tee", "zorb"};
    EXPECT_GT(run_colour(order, ash).g, 0.8);
    EXPECT_LT(run_colour(order, black).g, 0.2);
    EXPECT_FALSE(told_colour(order, odd));
    order.lines.push_back({"adult-tee", black.colour, "M", 2, ""});
    EXPECT_TRUE(says(order_findings(order), "colour-usual"));
    EXPECT_FALSE(says(order_findings(order), "colour-unknown"));
    order.lines.push_back({"adult-tee", odd.colour, "M", 2, ""});
    EXPECT_TRUE(says(order_findings(order), "colour-unknown"));
}

TEST(Order, SettingAQuantityKeepsTheLinesThatMakeIt) {
    Order order = test::small_order();
    order.lines.push_back({"adult-tee", "ash", "M", 3, "pilots"});
    order = with_quantity(order, ash, "M", 9);
    EXPECT_EQ(count(order, ash, "M"), 9);
    EXPECT_EQ(order.lines.back().quantity, 5) << "the last line takes the change";
    order = with_quantity(order, ash, "M", 3);
    EXPECT_EQ(count(order, ash, "M"), 3);
    EXPECT_NE(order.lines.back().note, "pilots") << "surplus is taken from the last line first";
    order = with_quantity(order, ash, "M", 0);
    EXPECT_EQ(count(order, ash, "M"), 0);
    order = with_quantity(order, ash, "5XL", 4);
    EXPECT_EQ(count(order, ash, "5XL"), 4);
    EXPECT_EQ(count(with_quantity(order, ash, "5XL", -3), ash, "5XL"), 0);
    EXPECT_EQ(count(with_quantity(order, ash, "5XL", 2000000000), ash, "5XL"), 100000);
}

TEST(Order, TakingOutLeavesNothingBehind) {
    Order order = test::small_order();
    EXPECT_TRUE(without_run(order, ash).lines.empty());
    EXPECT_TRUE(without_run(order, ash).decorations.empty());
    EXPECT_TRUE(without_art(order, "corner").decorations.empty());
    EXPECT_TRUE(without_art(order, "corner").art.empty());
    EXPECT_TRUE(without_decoration(order, "front").decorations.empty());
    EXPECT_EQ(with_marked_centre(order, "corner", Point{0.1, 0.2}).art[0].marked_centre, (Point{0.1, 0.2}));
}

TEST(Order, ANewDecorationBeginsWithUsualFigures) {
    const Order order = test::small_order();
    for (const Location l : locations_of(*find_style(order, "adult-tee"))) {
        const Decoration d = new_decoration(order, ash, l, order.art[0]);
        EXPECT_EQ(d.sizing.base_size, "M") << "of the blank's run, whatever is ordered";
        EXPECT_GT(d.sizing.base_width.mm(), is_sided(l) ? 50 : 80);
        EXPECT_NE(d.id, order.decorations[0].id);
        EXPECT_FALSE(d.medium.empty());
        EXPECT_FALSE(d.press.empty());
    }
}

TEST(Order, FreshIdsAreFresh) {
    EXPECT_EQ(fresh_id("Long-tail Kite!", {}), "long-tail-kite");
    EXPECT_EQ(fresh_id("kite", {"kite", "kite-2"}), "kite-3");
    EXPECT_EQ(fresh_id("***", {}), "item");
}

TEST(Order, FindingsSayWhatIsMissing) {
    EXPECT_TRUE(says(order_findings(Order{}), "order-empty"));
    Order order = test::small_order();
    EXPECT_TRUE(says(order_findings(order), "smallest-unmeasured"));
    order.lines.push_back({"cloak", "red", "M", 1, ""});
    order.lines.push_back({"adult-tee", "ash", "9XL", 1, ""});
    order.lines.push_back({"adult-tee", "ash", "L", 0, ""});
    order.decorations[0].art = "gone";
    order.decorations[0].medium = "gone";
    const Findings all = order_findings(order);
    for (const char* code :
         {"line-blank-unknown", "line-size-unknown", "line-quantity", "decoration-art", "decoration-medium", "art-unused"})
        EXPECT_TRUE(says(all, code)) << code;
    for (const Finding& f : all) EXPECT_FALSE(f.about.stage.empty()) << f.code;
}

TEST(Order, ATapedFigureFarFromThePublishedOneIsAFinding) {
    Order order = test::small_order();
    const BlankStyle style = *find_style(order, "adult-tee");
    const Length published = style.chart.at("S").at(Measure::chest).published.value_or(style.chart.at("S").at(Measure::chest).value);
    order = with_style(order, with_reading(style, "S", Measure::chest, published + style.tolerance + Length::from_mm(1), ""));
    EXPECT_TRUE(says(order_findings(order), "measured-differs"));
    EXPECT_FALSE(says(order_findings(order), "smallest-unmeasured"));
    order = with_style(order, with_reading(style, "S", Measure::chest, published + style.tolerance - Length::from_mm(1), ""));
    const Findings near = order_findings(order);
    EXPECT_FALSE(
        std::any_of(near.begin(), near.end(), [](const Finding& f) { return f.code == "measured-differs" && f.about.size == "S"; }));
}

}  // namespace TESTED
}  // namespace orthema
