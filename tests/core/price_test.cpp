// What a piece costs and is sold for, what was approved: against sums and a figure worked out by hand.
#include "core/costing/price.h"

#include "core/order/edit.h"
#include "core/papers/approval.h"
#include "core/papers/papers.h"
#include "core/pipeline/work.h"
#include "support/laid_order.h"
#include "support/random_case.h"

namespace orthema {
namespace TESTED {

using test::Case;
using test::LaidOrder;

Quote quoted(const Order& order, const Work& w, const std::map<std::string, double>& spoiled = {}) {
    return quote_of(order, w.transfer_set(), w.sheet_plan(), w.press_plan(), spoiled);
}

TEST(Price, PiecesOfAllLinesCostWhatTheOrderCosts) {
    int looked_at = 0;
    for (unsigned seed = 0; seed < 15; ++seed) {
        Case c = test::random_case(seed);
        c.order.hourly = 30;
        for (Decoration& d : c.order.decorations) d.spares = 0;
        c.order.reprints.clear();
        const Work first = work(c.order, {}, c.art);
        test::lay_anyhow(c.order, first.transfer_set(), 2);
        for (MediumLayout& l : c.order.layouts) l.fill.clear(), l.printed.clear();
        const Work w = work(c.order, {}, c.art);
        if (w.press_plan().loads.empty()) continue;
        const Costs all = costs_of(c.order, w.transfer_set(), w.sheet_plan(), w.press_plan());
        const Quote q = quoted(c.order, w);
        double blanks = 0, work_and_set_up = 0;
        for (const LinePrice& l : q.lines) {
            blanks += l.cost.blank * l.pieces;
            work_and_set_up += (l.cost.work + l.cost.set_up) * l.pieces;
            EXPECT_EQ(l.cost.spoilage, 0);
        }
        EXPECT_EQ(q.pieces(), garments_in(c.order));
        EXPECT_NEAR(100 * blanks, static_cast<double>(all.blanks), 1);
        EXPECT_GE(100 * work_and_set_up + 1, static_cast<double>(all.work) * 0.5);
        EXPECT_GT(q.cost, 0);
        EXPECT_NEAR(q.margin(), 0.4, 0.05) << "as it was asked, but for whole pence";
        ++looked_at;
    }
    EXPECT_GT(looked_at, 5);
}

TEST(Price, ByHand) {
    LaidOrder job("film-559");
    Order& o = job.order;
    o.hourly = 0;
    o.styles[0].price = 4;
    for (BlankStyle& s : o.styles) s.price = 4;
    for (Method& m : o.methods) m.ink_cost = 0;
    for (Medium& m : o.media) m.price = 0;
    o.decorations[0].spares = 0;
    const SheetPlan sheets = sheet_plan(o, job.set);
    const int pieces = garments_in(o);
    o.pricing.margin = 20;
    Quote q = quote_of(o, job.set, sheets, {});
    for (const LinePrice& l : q.lines) EXPECT_EQ(l.each, 500) << "4.00 is four fifths of it";
    q = quote_of(o, job.set, sheets, {}, {{o.lines.all()[0].style, 0.25}});
    for (const LinePrice& l : q.lines) EXPECT_EQ(l.each, 625) << "a quarter of the blanks is spoiled";
    o.pricing.by_steps = true;
    o.pricing.on_blank = 50;
    o.pricing.prints = {{o.decorations[0].location, 3}};
    o.pricing.steps = {{1, 0}, {pieces, 10}, {pieces + 1, 50}};
    o.pricing.set_up = 12.5;
    o.pricing.tax = 20;
    q = quote_of(o, job.set, sheets, {});
    for (const LinePrice& l : q.lines) EXPECT_EQ(l.each, 810) << "(6.00 + 3.00) less a tenth";
    EXPECT_EQ(q.before_tax(), 810 * pieces + 1250);
    EXPECT_EQ(q.total(), q.before_tax() + (q.before_tax() * 20 + 50) / 100);
}

TEST(Price, OtherwiseIsAnotherOrderOfTheSameGarments) {
    LaidOrder job("film-559");
    const auto ways = otherwise(job.order, fit(job.order, job.facts), job.facts);
    std::set<std::string> names;
    for (const Otherwise& way : ways) {
        names.insert(way.name);
        EXPECT_FALSE(way.order == job.order);
        if (way.name == "twice as many")
            EXPECT_EQ(garments_in(way.order), 2 * garments_in(job.order));
        else if (way.name == "as it is")
            EXPECT_TRUE(way.order.layouts.empty());
        else if (way.name != "half as many")
            EXPECT_EQ(way.order.lines, job.order.lines) << way.name;
        const Work w = work(way.order, {}, std::make_shared<const KnownArt>(KnownArt{job.facts, {}}));
        EXPECT_GT(quoted(way.order, w).cost, 0) << way.name;
    }
    EXPECT_EQ(names.size(), ways.size());
    for (const char* name : {"one width for all sizes", "each size its own width", "twice as many", "half as many"})
        EXPECT_TRUE(names.contains(name)) << name;
}

TEST(Approval, WhateverTheCustomerWouldSeeOtherwiseIsNamed) {
    LaidOrder job("film-559");
    const auto plan = [&](const Order& o) { return fit(o, job.facts); };
    const Order given = with_approval(job.order, plan(job.order), "The rowers", "2027-06-01");
    EXPECT_TRUE(approval_state(given, plan(given)).holds());
    EXPECT_FALSE(approval_state(job.order, plan(job.order)).given);
    EXPECT_TRUE(approval_findings(job.order, plan(job.order)).empty());
    const auto codes = [&](const Order& o) {
        std::set<std::string> out;
        for (const Finding& f : approval_findings(o, plan(o))) out.insert(f.code);
        return out;
    };
    using Codes = std::set<std::string>;
    Order next = given;
    next.press_run.hands = 2;  // nobody's business but the workshop's
    next.decorations[0].spares += 2;
    next.layouts.clear();
    EXPECT_EQ(codes(next), Codes{});
    next.lines[0].quantity += 1;
    EXPECT_EQ(codes(next), Codes{"approval-list"});
    next = given;
    next.art[0].hash = std::string(64, 'a');
    EXPECT_EQ(codes(next), Codes{"approval-design"});
    next = given;
    next.decorations[0].pins.push_back({given.lines.all()[0].size, std::nullopt, Length::from_mm(20), std::nullopt});
    const auto changed = approval_state(next, plan(next)).changed;
    ASSERT_EQ(changed.size(), 1u);
    EXPECT_EQ(changed[0].second, given.lines.all()[0].size) << "and only the size that moved";
    next = given;
    next.decorations.clear();
    EXPECT_EQ(codes(next), Codes{"approval-gone"});
    EXPECT_EQ(codes(with_approval(next, plan(next), "", "")), Codes{}) << "taken back";
}

TEST(Papers, ABagsCodeLeadsBackToIt) {
    EXPECT_EQ(bag_from_code(bag_code("bag/job-1/kite@2900")), "bag/job-1/kite@2900");
    EXPECT_FALSE(bag_from_code("orthema:crew-kite/M/7KQ2MA"));
    EXPECT_FALSE(bag_from_code("orthema-bag:"));
}

}  // namespace TESTED
}  // namespace orthema
