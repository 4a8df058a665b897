// Several orders as one and apart again: nothing is lost, mixed up or counted twice.
#include "core/pipeline/gang.h"

#include <random>

#include "core/order/edit.h"
#include "core/order/lots.h"
#include "core/order/order_fields.h"
#include "core/order/pieces.h"
#include "core/order/rules.h"
#include "core/papers/approval.h"
#include "core/records/of_load.h"
#include "core/sheets/ganged.h"
#include "core/sheets/lay_out.h"
#include "support/random_case.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

using test::Case;

/// A random order that differs from its neighbours in all that orders of one shop differ in.
Case job_case(unsigned seed) {
    std::mt19937 random(seed);
    Case c = test::random_case(seed);
    Order& o = c.order;
    o.job = "job-" + std::to_string(seed);
    o.name = "Order " + std::to_string(seed);
    o.customer = seed % 2 == 0 ? "Millrace rowers" : "";
    o.due = "2027-06-" + std::to_string(10 + seed % 9);
    o.press_run.due = 600 + static_cast<int>(seed % 7) * 60;
    if (random() % 2 == 0) o.styles[random() % o.styles.size()].tolerance = Length::from_mm(3 + static_cast<double>(random() % 3));
    if (random() % 3 == 0) o.media[0].gap = Length::from_mm(6);
    if (random() % 3 == 0) o.media[1].price += 1;
    if (random() % 3 == 0) std::reverse(o.media.begin(), o.media.end());
    if (random() % 2 == 0)
        o.trials.push_back(
            {o.media.all()[0].method, o.styles.all()[0].id, o.presses.all()[0].id, {}, {}, "2027-01-0" + std::to_string(1 + seed % 9), {}});
    for (const RunKey& run : runs_of(o)) {
        if (random() % 2 == 0) o = with_lot_parted(o, run, {"lot", {{counts_of(o, run).front().size, 1}}});
        if (random() % 2 == 0 && !why_not(o, run, Location::full_front)) o = with_new_design(o, run, Location::full_front, o.art[0]);
    }
    if (random() % 4 == 0) o.art.erase(o.art.begin() + 1);
    std::erase_if(o.decorations, [&](const Decoration& d) { return find_art(o, d.art) == nullptr; });
    std::erase_if(o.guide_setup.printed, [&](const PrintedGuide& p) { return find_decoration(o, p.decoration) == nullptr; });
    std::erase_if(o.reprints, [&](const Reprint& r) { return find_decoration(o, r.decoration) == nullptr; });
    o = numbered(o);
    const Work w = work(o, {}, c.art);
    test::lay_anyhow(o, w.transfer_set(), 2 + static_cast<int>(seed % 3));
    for (MediumLayout& l : o.layouts) {
        if (l.copies.size() < 3 || random() % 2 == 0) continue;
        l.printed.push_back({l.copies.back().transfer, 1});
        l.copies.back().locked = true;
        std::erase_if(l.copies, [&](const PlacedCopy& p) {
            return p.transfer == l.printed.back().transfer && p.copy + 1 >= find_transfer(w.transfer_set(), p.transfer)->count();
        });
        if (random() % 2 == 0) l.kept = LaidSheets{l.copies, {}};
    }
    if (seed % 3 != 0) o = with_approval(o, w.plan(), "Whoever ordered " + o.name, "2027-06-01");
    return c;
}

struct Gang {
    std::vector<Case> cases;
    Order order;
    Shared<KnownArt> art;
    Work work;
};
Gang gang_of(unsigned first, int n) {
    Gang g;
    std::vector<Order> orders;
    std::vector<std::pair<std::string, Shared<KnownArt>>> art;
    for (int k = 0; k < n; ++k) {
        g.cases.push_back(k + 1 < n ? job_case(first + static_cast<unsigned>(k)) : g.cases.front());
        if (k + 1 == n) g.cases.back().order.job = "job-twin";  // shares every transfer that can be shared
        orders.push_back(g.cases.back().order);
        art.emplace_back(orders.back().job, g.cases.back().art);
    }
    const Shared<KnownArt> all = gang_art(*ganged(orders, "gang", "Saturday"), art);
    g.order = *ganged_and_laid(orders, "gang", "Saturday", all);
    g.art = all;
    g.work = work(g.order, {}, all);
    return g;
}

/// The first field in which two orders differ; "" where they are equal.
std::string difference(const Order& a, const Order& b) {
    std::string out;
    std::apply([&](const auto&... f) { ((out.empty() && !(a.*f.part == b.*f.part) ? out = f.name : out), ...); }, FieldsOf<Order>::list);
    return out;
}

TEST(Gang, TwelveOrdersGangedAndPartedAreWhatTheyWere) {
    for (int round = 0; round < test::rounds(3, 40); ++round) {
        const Gang g = gang_of(1 + 12 * static_cast<unsigned>(round), 12);
        EXPECT_EQ(g.order.jobs.size(), 12u);
        int garments = 0;
        for (const Case& c : g.cases) {
            garments += garments_in(c.order);
            const auto apart = job_apart(g.order, c.order.job, g.work.transfer_set());
            ASSERT_TRUE(apart);
            EXPECT_EQ(difference(*apart, c.order), "") << c.order.name;
        }
        EXPECT_EQ(garments_in(g.order), garments);
    }
}

TEST(Gang, EveryCopyIsOneJobsAndEachJobHasWhatItHadAlone) {
    for (int round = 0; round < test::rounds(3, 40); ++round) {
        const Gang g = gang_of(200 + 12 * static_cast<unsigned>(round), 12);
        std::map<std::string, int> by_job, laid, alone, laid_alone;
        bool shared = false;
        for (const Transfer& t : g.work.transfer_set().transfers) {
            shared = shared || t.shares.size() > 1;
            const MediumLayout layout = layout_of(g.order, t.medium);
            for (const CopyOwner& o : copy_owners(t, layout)) by_job[o.job] += o.copies;
        }
        for (const MediumLayout& l : g.order.layouts.all()) {
            std::set<std::pair<std::string, int>> seen;
            const CopyJobs jobs(g.work.transfer_set(), l);
            for (const PlacedCopy& c : l.copies) {
                const Transfer* t = find_transfer(g.work.transfer_set(), c.transfer);
                ASSERT_NE(t, nullptr);
                EXPECT_TRUE(seen.insert({c.transfer, c.copy}).second) << c.transfer << " " << c.copy << " lies twice";
                const std::string job = jobs.of(c.transfer, c.copy);
                EXPECT_NE(find_job(g.order, job), nullptr);
                ++laid[job];
            }
        }
        for (const Case& c : g.cases) {
            const Work w = work(c.order, {}, c.art);
            for (const Transfer& t : w.transfer_set().transfers) alone[c.order.job] += copies_asked(t, layout_of(c.order, t.medium));
            for (const MediumLayout& l : c.order.layouts.all()) laid_alone[c.order.job] += static_cast<int>(l.copies.size());
        }
        std::erase_if(by_job, [](const auto& n) { return n.second == 0; });
        std::erase_if(alone, [](const auto& n) { return n.second == 0; });
        std::erase_if(laid_alone, [](const auto& n) { return n.second == 0; });
        EXPECT_EQ(by_job, alone);
        EXPECT_EQ(laid, laid_alone);
        EXPECT_TRUE(shared || round > 0);
    }
}

TEST(Gang, WhatACustomerApprovedStaysApprovedUntilThatJobChanges) {
    Gang g = gang_of(500, 6);
    const auto states = [&](const Order& order) {
        const Work w = work(order, {}, g.art);
        std::map<std::string, bool> out;
        for (const Job& j : order.jobs.all()) {
            const ApprovalState state = approval_state(order, w.plan(), j.id);
            if (state.given) out[j.id] = state.holds();
        }
        return out;
    };
    const auto as_it_came = states(g.order);
    EXPECT_EQ(as_it_came.size(), 4u) << "all but every third";
    for (const auto& [job, holds] : as_it_came) EXPECT_TRUE(holds) << job;
    for (const auto& [job, holds] : as_it_came) {
        Order next = g.order;
        const auto line = std::find_if(next.lines.begin(), next.lines.end(), [&job = job](const OrderLine& l) { return l.job == job; });
        ASSERT_NE(line, next.lines.end());
        line->quantity += 1;
        auto expected = as_it_came;
        expected[job] = false;
        EXPECT_EQ(states(next), expected);
        const Work w = work(next, {}, g.art);
        const Order again = with_approval(next, w.plan(), "Somebody else", "2027-06-02", job);
        EXPECT_EQ(states(again), as_it_came);
        EXPECT_EQ(approval_of(*job_apart(again, job, w.transfer_set())).by, "Somebody else") << "and goes out with it";
    }
}

TEST(Gang, WhatIsTakenAwayLeavesTheOthersAsTheyWere) {
    for (unsigned round = 0; round < static_cast<unsigned>(test::rounds(4, 60)); ++round) {
        Gang g = gang_of(500 + 5 * round, 5);
        std::vector<std::string> left;
        for (const Case& c : g.cases) left.push_back(c.order.job);
        std::mt19937 random(round);
        std::shuffle(left.begin(), left.end(), random);
        Order rest = g.order;
        Shared<KnownArt> art = g.work.fit.in.art;
        while (left.size() > 1) {
            rest = gang_without(rest, left.back(), work(rest, {}, art).transfer_set());
            left.pop_back();
            const Work w = work(rest, {}, art);
            for (const Case& c : g.cases) {
                if (std::find(left.begin(), left.end(), c.order.job) == left.end()) continue;
                const auto apart = job_apart(rest, c.order.job, w.transfer_set());
                ASSERT_TRUE(apart);
                ASSERT_EQ(difference(*apart, c.order), "") << c.order.name << " after " << left.size() << " are left";
            }
        }
    }
}

TEST(Gang, WhatIsChangedInTheGangGoesOutWithTheJobAndWithNoOther) {
    const Gang g = gang_of(900, 3);
    Order changed = g.order;
    const RunKey run = runs_of(changed).front();
    const std::string size = counts_of(changed, run).front().size;
    changed = with_quantity(changed, run, size, 77);
    Job said = *find_job(changed, run.job);
    said.customer = "The bakery on the quay";
    said.due = "2027-05-01";
    changed = with_job_said(changed, said);
    EXPECT_EQ(changed.due, "2027-05-01") << "the earliest";
    for (const Case& c : g.cases) {
        const auto apart = job_apart(changed, c.order.job, work(changed, {}, g.work.fit.in.art).transfer_set());
        if (c.order.job != run.job) {
            Order laid = *apart;
            laid.layouts = c.order.layouts;  // more copies of a transfer that both have: the sheets are to be settled again
            EXPECT_EQ(difference(laid, c.order), "");
            continue;
        }
        EXPECT_EQ(apart->customer, "The bakery on the quay");
        EXPECT_EQ(apart->due, "2027-05-01");
        RunKey alone = run;
        alone.job.clear();
        alone.style = names_of(*find_job(changed, run.job)).to_job[static_cast<std::size_t>(IdKind::style)].at(run.style);
        if (!run.lot.empty()) alone.lot = names_of(*find_job(changed, run.job)).to_job[static_cast<std::size_t>(IdKind::lot)].at(run.lot);
        EXPECT_EQ(counts_of(*apart, alone).front().quantity, 77);
    }
}

TEST(Gang, UnlikeCopiesOfOneThingStayUntilOneIsChosen) {
    Order a = test::small_order(), b = a;
    a.job = "a";
    b.job = "b";
    b.name = "Second";
    b.media[0].gap = a.media[0].gap + Length::from_mm(4);
    Order gang = *ganged({a, b}, "gang", "Both");
    ASSERT_EQ(unlike_copies(gang).size(), 1u);
    const UnlikeCopies u = unlike_copies(gang).front();
    EXPECT_EQ(u.kind, IdKind::medium);
    EXPECT_EQ(u.job, "b");
    EXPECT_NE(find_medium(gang, u.second), nullptr);
    EXPECT_TRUE(std::any_of(gang.decorations.begin(), gang.decorations.end(), [&](const Decoration& d) { return d.medium == u.second; }));
    const Findings said = order_findings(gang);
    EXPECT_TRUE(std::any_of(said.begin(), said.end(), [](const Finding& f) { return f.code == "copies-unlike"; }));
    const Order one = with_one_copy(gang, u.kind, u.first, u.second);
    EXPECT_TRUE(unlike_copies(one).empty());
    for (const Decoration& d : one.decorations) EXPECT_EQ(d.medium, a.media.all()[0].id);
    const auto apart = job_taken_out(one, "b");
    ASSERT_TRUE(apart);
    EXPECT_EQ(apart->media.all()[0].gap, a.media.all()[0].gap) << "what was chosen goes out with it";
    EXPECT_FALSE(ganged({a, a}, "gang", "Twice").ok());
    Order c = a;
    c.job = "c";
    const Order more = *ganged({gang, c}, gang.job, gang.name);
    EXPECT_EQ(more.jobs.size(), 3u);
    EXPECT_EQ(more.job, "gang");
}

/// Two small orders of one shop, each laid out by itself.
Gang two_small() {
    Gang g;
    std::vector<Order> orders;
    std::vector<std::pair<std::string, Shared<KnownArt>>> art;
    for (const char* job : {"a", "b"}) {
        Case c{test::small_order(), {}};
        c.order.job = job;
        c.order.name = job;
        c.order.due = "2027-06-12";
        auto known = std::make_shared<KnownArt>();
        known->facts[c.order.art[0].id] = test::plain_facts();
        c.art = Shared<KnownArt>(std::move(known));
        c.order.art[0].hash[0] = job[0];  // each its own design
        const Work w = work(c.order, {}, c.art);
        for (const Transfer& t : w.transfer_set().transfers) {
            NestOptions quick;
            quick.seconds = 0.3;
            c.order =
                with_layout(c.order, t.medium, lay_out(*find_medium(c.order, t.medium), w.transfer_set(), {t.medium, {}}, quick)->sheets);
            break;  // one medium
        }
        orders.push_back(c.order);
        art.emplace_back(job, c.art);
        g.cases.push_back(c);
    }
    const Shared<KnownArt> all = gang_art(*ganged(orders, "gang", "Both"), art);
    g.order = *ganged_and_laid(orders, "gang", "Both", all);
    g.work = work(g.order, {}, all);
    return g;
}

bool says(const Findings& findings, const std::string& code) {
    return std::any_of(findings.begin(), findings.end(), [&](const Finding& f) { return f.code == code; });
}

TEST(Gang, JobsThatLieApartAskToBeSettledAndThenTakeNoMoreFilm) {
    const Gang g = two_small();
    ASSERT_EQ(g.work.sheet_plan().media.size(), 1u);
    const MediumPlan& apart = g.work.sheet_plan().media[0];
    EXPECT_FALSE(apart.stale);
    EXPECT_TRUE(says(g.work.findings, "jobs-apart"));
    const Medium& medium = *find_medium(g.order, apart.medium);
    NestOptions quick;
    quick.seconds = 1.5;
    const auto laid = lay_out(medium, g.work.transfer_set(), layout_of(g.order, medium.id), quick);
    ASSERT_TRUE(laid);
    const Order settled = with_layout(g.order, medium.id, laid->sheets);
    const Work after = work(settled, {}, g.work.fit.in.art);
    EXPECT_LT(after.sheet_plan().media[0].length, apart.length);
    EXPECT_FALSE(says(after.findings, "jobs-apart"));
    EXPECT_FALSE(after.sheet_plan().media[0].stale);
    // and each still has its own
    for (const char* job : {"a", "b"}) {
        int copies = 0;
        for (const PlacedCopy& c : laid->sheets.copies)
            copies += CopyJobs(after.transfer_set(), layout_of(settled, medium.id)).of(c.transfer, c.copy) == job ? 1 : 0;
        EXPECT_EQ(copies, garments_in(g.cases[0].order));
    }
}

TEST(Gang, EqualTransfersAreOneUnlessEachJobIsKeptTogether) {
    Order a = test::small_order(), b = a;
    a.job = "a";
    b.job = "b";
    auto known = std::make_shared<KnownArt>();
    known->facts[a.art[0].id] = test::plain_facts();
    const Shared<KnownArt> art(std::move(known));
    Order gang = *ganged({a, b}, "gang", "Both");
    const Work one = work(gang, {}, art);
    for (const Transfer& t : one.transfer_set().transfers) {
        ASSERT_EQ(t.shares.size(), 2u) << "printed once for both";
        EXPECT_EQ(t.shares[0].count() + t.shares[1].count(), t.count());
    }
    for (Medium& m : gang.media) m.laying.together = Together::jobs;
    const Work two = work(gang, {}, art);
    EXPECT_EQ(two.transfer_set().transfers.size(), 2 * one.transfer_set().transfers.size());
    const Medium& medium = *find_medium(gang, two.transfer_set().transfers[0].medium);
    NestOptions quick;
    quick.seconds = 1;
    const auto laid = lay_out(medium, two.transfer_set(), {medium.id, {}}, quick);
    ASSERT_TRUE(laid);
    EXPECT_TRUE(groups_parted(medium, two.transfer_set(), {medium.id, laid->sheets.copies}));
    const Order out = with_layout(gang, medium.id, laid->sheets);
    EXPECT_FALSE(work(out, {}, art).sheet_plan().media[0].stale);
}

TEST(Gang, WhatIsPressedIsRecordedForWhoseItIs) {
    const Gang g = two_small();
    std::map<std::string, int> pieces;
    for (const Load& l : g.work.press_plan().loads) {
        const PressRecord r = record_of(g.order, g.work.plan(), g.work.press_plan(), l);
        if (!l.replacement) pieces[r.job] += r.pieces;
    }
    EXPECT_EQ(pieces, (std::map<std::string, int>{{"a", garments_in(g.cases[0].order)}, {"b", garments_in(g.cases[1].order)}}));
}

TEST(Gang, NoPictureStaysBehindWithItsJob) {
    Order a = test::small_order(), b = a;
    a.job = "a";
    b.job = "b";
    b.art.push_back(b.art[0]);
    b.art.back().name = "another";
    b.art.back().hash = std::string(64, 'e');
    b.art.front().id = "used";
    for (Decoration& d : b.decorations) d.art = "used";
    // the one nobody uses has the id of another order's
    const Order gang = *ganged({a, b}, "gang", "Both");
    std::set<std::string> hashes;
    for (const Art& art : gang.art) hashes.insert(art.hash);
    EXPECT_TRUE(hashes.contains(std::string(64, 'e'))) << "its file lies with the gang's";
    EXPECT_EQ(difference(*job_taken_out(gang, "b"), b), "");
}

TEST(Gang, WhoCannotBeDoneInTimeIsNamed) {
    Gang g = two_small();
    const auto late = [&](int a, int b) {
        for (Job& j : g.order.jobs.own()) j.due_at = g.order.press_run.start + (j.id == "a" ? a : b);
        const Work w = work(g.order, {}, g.work.fit.in.art);
        std::set<std::string> out;
        for (const Finding& f : w.findings)
            if (f.code == "job-late") out.insert(f.about.job);
        EXPECT_FALSE(says(w.findings, "press-late")) << "jobs have their own";
        EXPECT_EQ(w.press_plan().jobs.size(), 2u);
        if (says(w.findings, "jobs-cannot-all")) out.insert("cannot");
        return out;
    };
    EXPECT_TRUE(late(600, 600).empty());
    EXPECT_EQ(late(600, 1), (std::set<std::string>{"b", "cannot"}));
    EXPECT_EQ(late(1, 600), (std::set<std::string>{"a", "cannot"}));
    EXPECT_EQ(late(1, 1), (std::set<std::string>{"a", "b", "cannot"}));
    g.order.jobs.own()[1].due = "2027-06-13";  // a day later, whatever the hour
    EXPECT_EQ(late(600, 1), (std::set<std::string>{}));
}

}  // namespace TESTED
}  // namespace orthema
