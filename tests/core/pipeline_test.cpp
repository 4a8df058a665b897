// The chain: what it keeps is what would be made from nothing, whichever field of an order changes, and no stage misses
// what was blanked for it.
#include "core/pipeline/work.h"

#include <random>

#include "core/guides/guides.h"
#include "core/order/edit.h"
#include "files/library.h"
#include "files/order_file.h"
#include "support/each_field.h"
#include "support/random_case.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

using test::Case;
using test::random_case;

std::string told(const Finding& f) {
    return f.code + " " + f.about.stage + " " + f.about.decoration + " " + f.about.size + ": " + finding_text(f, Unit::inch);
}

/// Every figure that matters of a work, and every finding, in words.
std::string told(const Work& w) {
    std::string out;
    const auto add = [&](double v) { out += mm_text(v, 4) + " "; };
    for (const DecorationFit& d : w.plan().decorations) {
        out += "\n" + d.decoration + ": ";
        for (const SizeFit& s : d.sizes) {
            out += s.size + " " + binding_text(s.limited_by) + " " + binding_text(s.limit_by) + " ";
            for (const double v : {s.width, s.ideal, s.limit, s.ink.x0, s.ink.y0, s.top_to_ink, s.balance, s.platen.shift.x}) add(v);
        }
    }
    for (const Transfer& t : w.transfer_set().transfers) {
        out += "\n" + t.id + " " + t.name + " " + t.medium + " ";
        for (const double v : {t.width, area(t.contour), area(t.shape), static_cast<double>(t.count()), t.mirrored ? 1.0 : 0.0}) add(v);
    }
    for (const MediumPlan& m : w.sheet_plan().media) {
        out += "\n" + m.medium + (m.stale ? " stale " : " ");
        for (const double v : {static_cast<double>(m.asked), static_cast<double>(m.placed), m.length, m.density, m.cost}) add(v);
    }
    out += "\n";
    for (const double v : {w.press_plan().schedule.end, w.press_plan().bound, w.press_plan().one_by_one}) add(v);
    for (const Finding& f : w.findings) out += "\n" + told(f);
    return out;
}

TEST(Fields, TheListCountsEveryMember) {
    struct Three {
        std::optional<Length> a;
        std::vector<int> b;
        std::string c;
    };
    static_assert(member_count<Three>() == 3);
    static_assert(member_count<SizePin>() == 4);
    static_assert(member_count<PressRun>() == 11);
    int n = 0;
    const Order order;
    each_field(order, [&](const char*, const auto&) { ++n; });
    EXPECT_EQ(n, static_cast<int>(member_count<Order>()));
}

TEST(Pipeline, WhicheverFieldChangesTheKeptWorkIsThatMadeFromNothing) {
    const Case c = random_case(11);
    ASSERT_FALSE(c.order.decorations.empty());
    const Work before = work(c.order, {}, c.art);
    int changed = 0, differs = 0;
    for (int n = 0;; ++n) {
        Order next = c.order;
        test::Nth nth{n, {}};
        each_field(next, [&](const char* name, auto& part) { nth.walk(part, name); });
        if (nth.path.empty()) break;
        ASSERT_FALSE(next == c.order) << nth.path << " was not changed";
        ++changed;
        const Work kept = work(next, {}, c.art, &before), fresh = work(next, {}, c.art);
        ASSERT_EQ(told(kept), told(fresh)) << "after a change of " << nth.path;
        differs += told(fresh) != told(before) ? 1 : 0;
    }
    EXPECT_GT(changed, 200);
    EXPECT_GT(differs, 30) << "changes show";
}

TEST(Pipeline, NoStageMissesWhatWasBlankedForIt) {
    for (unsigned seed = 1; seed <= static_cast<unsigned>(test::rounds(25, 300)); ++seed) {
        const Case c = random_case(seed);
        const Work w = work(c.order, {}, c.art);
        const FitPlan plan = fit(c.order, c.art->facts);
        const TransferSet set = transfers(c.order, plan, c.art->facts);
        const SheetPlan sheets = sheet_plan(c.order, set);
        ScheduleOptions quick;
        quick.tries = 0;
        const PressPlan press = press_plan(c.order, plan, set, quick);
        std::multiset<std::string> by_stages, by_chain;
        for (const Findings& list :
             {order_findings(c.order), plan.findings, set.findings, sheets.findings, press.findings, stale_guides(c.order, plan)})
            for (const Finding& f : list) by_stages.insert(told(f));
        for (const Finding& f : w.findings) by_chain.insert(told(f));
        EXPECT_EQ(by_chain, by_stages) << "seed " << seed;
        ASSERT_EQ(w.transfer_set().transfers.size(), set.transfers.size());
        for (std::size_t i = 0; i < set.transfers.size(); ++i) {
            EXPECT_EQ(w.transfer_set().transfers[i].id, set.transfers[i].id);
            EXPECT_EQ(w.transfer_set().transfers[i].contour, set.transfers[i].contour);
        }
        EXPECT_EQ(w.press_plan().schedule.end, press.schedule.end);
    }
}

TEST(Pipeline, WhatNothingTouchedIsNotMadeAgain) {
    const Case c = random_case(11);
    const Work before = work(c.order, {}, c.art);
    Order next = c.order;
    next.unit = Unit::inch;
    next.name = "Another name";
    const Work named = work(next, {}, c.art, &before);
    EXPECT_EQ(named.fit.out, before.fit.out);
    EXPECT_EQ(named.transfers.out, before.transfers.out);
    EXPECT_EQ(named.press.out, before.press.out);
    next = c.order;
    next.press_run.hands += 1;
    const Work handed = work(next, {}, c.art, &before);
    EXPECT_EQ(handed.transfers.out, before.transfers.out);
    EXPECT_NE(handed.press.out, before.press.out);
    // through the fit alone, what follows stays as it was
    next.decorations[0].sizing.base_width += Length::from_mm(-20);
    const Work fitted = work(next, {}, c.art, &before, {}, HowFar::fit);
    EXPECT_TRUE(fitted.behind);
    EXPECT_NE(fitted.fit.out, before.fit.out);
    EXPECT_EQ(fitted.transfers.out, before.transfers.out);
}

TEST(Pipeline, EveryLengthIsSaidInTheReadersUnit) {
    const auto package = open_order(test::source("demo/marrow-hill"));
    ASSERT_TRUE(package);
    auto known = std::make_shared<KnownArt>();
    known->facts = facts_of(load_all_art(package->order, package->art, &known->faults));
    const Work w = work(package->order, {}, Shared<KnownArt>(known));
    int lengths = 0;
    for (const Finding& f : w.findings) {
        const std::string mm = finding_text(f, Unit::mm), inch = finding_text(f, Unit::inch);
        EXPECT_EQ(inch.find(" mm"), std::string::npos) << inch;
        EXPECT_EQ(mm.find(" in,"), std::string::npos) << mm;
        lengths += mm != inch ? 1 : 0;
    }
    EXPECT_GT(lengths, 10);
    for (const Stage& s : stages()) {
        const StageState state = stage_state(s, package->order, w);
        EXPECT_FALSE(state.waiting) << s.key;
    }
    EXPECT_EQ(stage_index("sheets"), 4);
    EXPECT_EQ(stage_index("nothing"), -1);
}

}  // namespace TESTED
}  // namespace orthema
