// What cannot be meant is said, each by a finding of its own and none of them where nothing is wrong; and how much an order holds.
#include "core/order/sense.h"

#include <gtest/gtest.h>

#include <functional>

#include "core/order/edit.h"
#include "core/order/limits.h"
#include "files/library.h"
#include "files/order_file.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

std::string codes(const Order& order) {
    std::string out;
    for (const Finding& f : sense_findings(order)) out += f.code + " ";
    return out;
}

TEST(Sense, EachThingThatCannotBeMeantIsSaid) {
    Order plain = test::small_order();
    adopt_library(plain, starting_library());
    ASSERT_EQ(codes(plain), "");
    const std::pair<const char*, std::function<void(Order&)>> cases[] = {
        {"due-no-date ", [](Order& o) { o.due = "next friday"; }},
        {"due-no-date ", [](Order& o) { o.due = "2027-02-30"; }},
        {"breaks-all-day ",
         [](Order& o) {
             o.press_run.breaks = {{0, 7 * 24 * 60}};
         }},
        {"breaks-all-day ",
         [](Order& o) {
             o.press_run.breaks = {{700, 1020}, {480, 720}};
         }},
        {"",
         [](Order& o) {
             o.press_run.breaks = {{480, 720}, {721, 1020}};
         }},
        {"method-unknown ", [](Order& o) { o.media.own()[0].method = "none such"; }},
        {"medium-absurd ", [](Order& o) { o.media.own()[0].width = Length::from_mm(1); }},
        {"jig-unknown ", [](Order& o) { o.decorations[0].making.jig = "none such"; }},
        {"base-size-unknown ", [](Order& o) { o.decorations[0].sizing.base_size = "9XL"; }},
        {"spares-many ", [](Order& o) { o.decorations[0].spares = 10000; }},
        {"step-absurd ", [](Order& o) { o.methods.own()[0].recipe.at(0).celsius = 400; }},
        {"step-absurd ", [](Order& o) { o.methods.own()[0].recipe.at(0).seconds = 36000; }},
    };
    for (const auto& [code, change] : cases) {
        Order order = plain;
        change(order);
        EXPECT_EQ(codes(order), code);
    }
}

TEST(Limits, ListsAndTextsAndWhatIsDeepInAnOrder) {
    const Order order = test::small_order();
    EXPECT_FALSE(over_limit(order));
    const auto said = [](const Order& o) {
        const auto words = over_limit(o);
        return words ? worded(*words, Unit::mm) : std::string();
    };
    Order full = order;
    full.lines.own().resize(most<OrderLine>, order.lines[0]);
    EXPECT_EQ(said(full), "");
    full.lines.own().push_back(order.lines[0]);
    EXPECT_NE(said(full).find("20,000"), std::string::npos) << said(full);
    EXPECT_FALSE(over_limit(full, &full)) << "what is shared with what was there is not looked through again";
    Order art = order;
    art.art.resize(501, order.art[0]);
    EXPECT_NE(said(art).find("500"), std::string::npos);
    Order deep = order;
    deep.decorations[0].pins = {{std::string(4001, 'x'), {}, {}, {}}};
    EXPECT_NE(said(deep).find("xxxx"), std::string::npos) << said(deep);
    deep.decorations[0].pins[0].size.pop_back();
    EXPECT_EQ(said(deep), "");
}

TEST(Limits, ThreeHundredRunsOfEightSizesWithFourDesignsOpenAndWork) {
    Order order = test::small_order();
    const int runs = 300;
    BlankStyle style = order.styles[0];
    style.sizes.clear();
    while (style.colours.size() < std::size_t(runs)) {
        BlankColour c = style.colours[0];
        c.name = "colour " + std::to_string(style.colours.size());
        style.colours.push_back(c);
    }
    const auto chart = style.chart.begin()->second;
    style.chart.clear();
    for (int k = 0; k < 8; ++k) {
        style.sizes.push_back("size " + std::to_string(k));
        style.chart[style.sizes.back()] = chart;
    }
    style.sample_size = style.sizes[0];
    order = with_style(order, style);
    const OrderLine line = order.lines[0];
    const Decoration design = order.decorations[0];
    order.lines = {};
    order.decorations = {};
    order.rules.clear();
    for (int r = 0; r < runs; ++r) {
        for (const std::string& size : style.sizes) {
            OrderLine l = line;
            l.colour = style.colours[std::size_t(r)].name;
            l.size = size;
            l.quantity = 2;
            order.lines.own().push_back(l);
        }
        for (int k = 0; k < 4; ++k) {
            Decoration d = design;
            d.id = "d" + std::to_string(4 * r + k);
            d.rule.clear();
            d.run.colour = style.colours[std::size_t(r)].name;
            d.sizing.base_size = style.sizes[0];
            d.location = std::array{Location::full_front, Location::full_back, Location::left_chest, Location::upper_back}[std::size_t(k)];
            order.decorations.push_back(d);
        }
    }
    ASSERT_FALSE(over_limit(order));
    const test::Folder folder;
    const ArtBytes art = test::small_art();
    ASSERT_TRUE(save_order(folder / "large.orthema", order, art));
    const auto back = open_order(folder / "large.orthema");
    ASSERT_TRUE(back) << back.sentence();
    EXPECT_EQ(back->order, order);
    const FitPlan plan = fit(back->order, facts_of(load_all_art(order, art, nullptr)));
    EXPECT_EQ(plan.decorations.size(), std::size_t(4 * runs));
    for (const DecorationFit& f : plan.decorations) ASSERT_EQ(f.sizes.size(), 8u);
}

}  // namespace TESTED
}  // namespace orthema
