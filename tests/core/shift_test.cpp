// A shift: counts only under heat, waits are kept, faults change the plan, nothing is lost.
#include "core/pressing/shift.h"

#include <random>

#include "files/order_file.h"
#include "support/support.h"

namespace orthema {
namespace {

struct AtWork {
    Order order;
    ArtFactsById facts;
    FitPlan fitted;
    TransferSet set;
    PressPlan plan;
    explicit AtWork(int pieces = 4, bool trials = false) : order(test::small_order()) {
        order.press_run.trials = trials;
        order.lines.resize(1);
        order.lines[0].quantity = pieces;
        facts = facts_of(load_all_art(order, test::small_art(), nullptr));
        fitted = fit(order, facts);
        set = transfers(order, fitted, facts);
        ScheduleOptions options;
        options.tries = 20;
        plan = press_plan(order, fitted, set, options);
    }
    [[nodiscard]] int press() const {
        for (const Slot& s : plan.schedule.places)
            if (s.machine >= 0) return s.machine;
        return -1;
    }
    [[nodiscard]] double celsius() const { return plan.shop.tasks.front().state.celsius; }
};

/// Goes on as soon as it may, the plate at its heat; seconds it took, or nothing when it never ended.
std::optional<double> work_off(Shift& shift, double now, const std::function<void(double)>& meanwhile = {}) {
    for (int k = 0; k < 40000; ++k) {
        if (shift.over()) return now;
        if (meanwhile) meanwhile(now);
        if (!shift.next(now)) now += 0.5;
        shift.tick(now);
    }
    return std::nullopt;
}

TEST(Shift, WorksTheWholePlanOffInItsOrder) {
    AtWork w;
    Shift shift(w.plan);
    std::vector<std::pair<int, int>> seen;
    double now = 0;
    while (!shift.over() && now < 1e5) {
        const auto card = shift.card();
        if (card && shift.next(now))
            seen.emplace_back(card->task, card->phase);
        else
            now += 0.25;
        shift.tick(now);
    }
    EXPECT_EQ(shift.loads_done(), 4);
    std::map<int, int> last;
    std::size_t acts = 0;
    for (const auto& [task, phase] : seen)
        if (phase >= 0) {
            EXPECT_EQ(last[task]++, phase) << "phases of a task in their order";
            ++acts;
        }
    std::size_t all = 0;
    for (const Job& j : w.plan.shop.tasks) all += j.phases.size();
    EXPECT_EQ(acts, all);
}

TEST(Shift, AColdPressLetsOthersGoFirstButNoTaskSkipsAPhase) {
    auto package = open_order(test::source("demo/marrow-hill"));
    const ArtFactsById facts = facts_of(load_all_art(package->order, package->art, nullptr));
    const FitPlan fitted = fit(package->order, facts);
    ScheduleOptions options;
    options.tries = 0;
    const PressPlan plan = press_plan(package->order, fitted, transfers(package->order, fitted, facts), options);
    Shift shift(plan);
    const auto first = shift.card();
    ASSERT_TRUE(first);
    shift.reading(first->machine, 20, 0);
    std::map<int, int> done;
    double now = 0;
    for (int k = 0; k < 60; ++k) {
        const auto card = shift.card();
        ASSERT_TRUE(card);
        if (!shift.next(now)) {
            now += 1;
            shift.tick(now);
            continue;
        }
        EXPECT_NE(card->machine, first->machine) << "its plate is cold";
        if (card->phase >= 0) EXPECT_EQ(done[card->task]++, card->phase);
    }
    EXPECT_GT(done.size(), 3u);
}

TEST(Shift, CountsOnlyOnceThePlateIsHot) {
    AtWork w;
    Shift shift(w.plan);
    const int m = w.press();
    shift.reading(m, w.celsius(), 0);
    double now = 0;
    while (shift.card()->kind != ActKind::press) {
        if (!shift.next(now)) now += 1;
        ASSERT_LT(now, 2000);
    }
    shift.reading(m, 100, now);  // it fell while it was being loaded
    ASSERT_TRUE(shift.next(now));
    ASSERT_EQ(shift.counting().size(), 1u);
    const double seconds = shift.counting()[0].seconds;
    shift.tick(now + 1000);
    EXPECT_DOUBLE_EQ(Shift::left(shift.counting()[0], now + 1000), seconds) << "not a second has counted";
    EXPECT_NE(shift.waits_for(now + 1000), "");
    shift.reading(m, w.celsius() - 2, now + 1000);
    shift.tick(now + 1000 + seconds / 2);
    EXPECT_NEAR(Shift::left(shift.counting()[0], now + 1000 + seconds / 2), seconds / 2, 1e-9);
    shift.tick(now + 1000 + seconds);
    EXPECT_TRUE(shift.counting().empty());
}

TEST(Shift, ACoolPeelWaitsUntilItIsCool) {
    AtWork w(1);
    Shift shift(w.plan);
    double now = 0;
    while (shift.card()->kind != ActKind::peel) {
        if (!shift.next(now)) now += 0.5;
        shift.tick(now);
        ASSERT_LT(now, 2000);
    }
    EXPECT_NE(shift.waits_for(now).find("cools"), std::string::npos);
    EXPECT_FALSE(shift.next(now));
    EXPECT_TRUE(shift.next(now + 30));
}

TEST(Shift, NotReleasedGoesBackUnderHeatAndIsPeeledAgain) {
    AtWork w(2);
    Shift shift(w.plan);
    double now = 0;
    while (shift.card()->kind != ActKind::peel || !shift.waits_for(now).empty()) {
        if (!shift.next(now)) now += 0.5;
        shift.tick(now);
        ASSERT_LT(now, 2000);
    }
    const int load = shift.plan().tasks[static_cast<std::size_t>(shift.card()->task)].load;
    const std::size_t tasks = shift.plan().shop.tasks.size();
    EXPECT_TRUE(shift.report(PressFault::not_released, w.order, now).empty());
    EXPECT_EQ(shift.plan().shop.tasks.size(), tasks + 2);
    EXPECT_TRUE(schedule_faults(shift.plan().shop, shift.plan().schedule).size() < 40);
    bool pressed_again = false, peeled_again = false;
    const auto end = work_off(shift, now, [&](double) {
        const auto card = shift.card();
        if (!card || shift.plan().tasks[static_cast<std::size_t>(card->task)].load != load || card->task < static_cast<int>(tasks)) return;
        pressed_again = pressed_again || card->kind == ActKind::press;
        peeled_again = peeled_again || (card->kind == ActKind::peel && pressed_again);
    });
    ASSERT_TRUE(end);
    EXPECT_TRUE(pressed_again && peeled_again);
    EXPECT_EQ(shift.loads_done(), 2);
}

TEST(Shift, ASpoiledPieceIsPrintedAgainAndTheRestGoesOn) {
    AtWork w(3);
    Shift shift(w.plan);
    double now = 0;
    while (shift.card()->kind != ActKind::unload) {
        if (!shift.next(now)) now += 0.5;
        shift.tick(now);
        ASSERT_LT(now, 2000);
    }
    const auto lost = shift.report(PressFault::scorched, w.order, now);
    ASSERT_EQ(lost.size(), 1u);
    EXPECT_EQ(lost[0].copies, 1);
    EXPECT_EQ(lost[0].cause, "scorched");
    ASSERT_TRUE(work_off(shift, now));
    // the order asks for one more, and a later plan presses it
    Order next = w.order;
    next.reprints = lost;
    const TransferSet set = transfers(next, w.fitted, w.facts);
    int before = 0, after = 0;
    for (const Transfer& t : w.set.transfers) before += t.count();
    for (const Transfer& t : set.transfers) after += t.count();
    EXPECT_EQ(after, before + 1);
    const PressPlan again = press_problem(next, w.fitted, set);
    EXPECT_EQ(again.loads.size(), w.plan.loads.size() + 1);
    EXPECT_TRUE(again.loads.back().replacement);
    // a spare that lies ready is used first
    next.decorations[0].spares = 1;
    const TransferSet spared = transfers(next, w.fitted, w.facts);
    Order without = next;
    without.reprints.clear();
    int with_spare = 0, plain = 0;
    for (const Transfer& t : spared.transfers) with_spare += t.count();
    for (const Transfer& t : transfers(without, w.fitted, w.facts).transfers) plain += t.count();
    EXPECT_EQ(with_spare, plain);
}

TEST(Shift, TheRestIsPlannedAnewFromWhereItStands) {
    std::mt19937 random(4);
    for (int round = 0; round < 12; ++round) {
        AtWork w(6);
        Shift shift(w.plan);
        double now = 0;
        const int until = 3 + static_cast<int>(random() % 30);
        for (int k = 0; k < until; ++k) {
            if (!shift.next(now)) now += 2;
            shift.tick(now);
        }
        now += 200;  // somebody rang
        shift.tick(now);
        const Progress progress = shift.progress(now);
        ScheduleOptions options;
        options.tries = 5;
        const Schedule s = schedule(shift.plan().shop, options, {}, {}, &progress);
        for (std::size_t i = 0; i < s.places.size(); ++i)
            if (!progress.done[i]) EXPECT_GE(s.places[i].start, now - 1e-6) << round;
        shift.take(s);
        ASSERT_TRUE(work_off(shift, now)) << round;
        EXPECT_EQ(shift.loads_done(), 6) << round;
    }
}

TEST(Shift, SkipBackAndPause) {
    AtWork w(3);
    Shift shift(w.plan);
    double now = 0;
    ASSERT_TRUE(shift.next(now));
    const auto second = shift.card();
    ASSERT_TRUE(shift.next(now));
    ASSERT_TRUE(shift.again());
    EXPECT_EQ(shift.card()->task, second->task);
    EXPECT_EQ(shift.card()->phase, second->phase);
    shift.pause(now);
    EXPECT_FALSE(shift.next(now));
    shift.resume(now);
    EXPECT_TRUE(shift.next(now));
    shift.skip(now);
    ASSERT_TRUE(work_off(shift, now));
    EXPECT_EQ(shift.notes().size(), 3u);
    int left_out = 0;
    for (const ShiftNote& n : shift.notes()) left_out += n.what == "left out" ? 1 : 0;
    EXPECT_EQ(left_out, 1);
}

}  // namespace
}  // namespace orthema
