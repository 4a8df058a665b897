// A shift: counts only under heat, waits are kept, faults change the plan, nothing is lost.
#include "core/pressing/shift.h"

#include <random>
#include <set>

#include "core/transfers/choices.h"
#include "files/library.h"
#include "files/order_file.h"
#include "files/shift_file.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

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

/// Goes on until the card is of this kind; the time then.
double until(Shift& shift, ActKind kind, bool ready = false) {
    double now = 0;
    while (now < 2000 && shift.card() && (shift.card()->kind != kind || (ready && !shift.waits_for(now).empty()))) {
        if (!shift.next(now)) now += 0.5;
        shift.tick(now);
    }
    EXPECT_LT(now, 2000);
    return now;
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
    for (const ShopTask& j : w.plan.shop.tasks) all += j.phases.size();
    EXPECT_EQ(acts, all);
}

/// Some tees with two designs, by any method of the shop, on any presses, with any hands.
PressPlan random_plan(std::mt19937& random, Order& order) {
    order = test::small_order();
    adopt_library(order, starting_library());
    order.lines.resize(1);
    order.lines[0].quantity = 1 + static_cast<int>(random() % 5);
    order.press_run.trials = random() % 2 == 0;
    order.press_run.hands = 1 + static_cast<int>(random() % 2);
    order.press_run.share_presses = random() % 2 == 0;
    Decoration second = order.decorations[0];
    second.id = second.name = "second";
    second.location = Location::full_back;
    order.decorations.push_back(second);
    for (Decoration& d : order.decorations) {
        std::vector<std::string> suited;
        for (const Medium& m : order.media)
            if (m.taped_at.mm() <= 0) suited.push_back(m.id);
        d = with_medium(order, d, suited[random() % suited.size()]);
        d.press = random() % 3 == 0 ? "press-square" : "press-large";
    }
    const ArtFactsById facts = facts_of(load_all_art(order, test::small_art(), nullptr));
    const FitPlan fitted = fit(order, facts);
    ScheduleOptions options;
    options.tries = static_cast<long>(random() % 20);
    options.seed = static_cast<unsigned>(random());
    const TransferSet set = transfers(order, fitted, facts);
    order.press_run.makes_film = random() % 2 == 0;
    test::lay_anyhow(order, set, 1 + static_cast<int>(random() % 2));
    return press_plan(order, fitted, set, options);
}

TEST(Shift, NeverLocksWhateverGoesWrong) {
    std::mt19937 random(5);
    int faults = 0;
    for (int round = 0; round < test::rounds(12, 500); ++round) {
        Order order;
        const PressPlan first_plan = random_plan(random, order);
        Shift shift(first_plan);
        std::vector<double> plate(shift.plan().shop.machines.size(), 20);
        std::vector<double> silent(plate.size(), -1);  // until when a press is not heard of
        double now = 0;
        int stood = 0;
        const auto stands_for = [&](double seconds) {
            now += seconds;
            for (std::size_t m = 0; m < plate.size(); ++m) {
                const auto next = shift.next_on(static_cast<int>(m));
                double want = next ? shift.asked(*next) : 0;
                for (const Countdown& c : shift.counting())
                    if (c.machine == static_cast<int>(m)) want = shift.plan().shop.tasks[static_cast<std::size_t>(c.task)].state.celsius;
                if (want > 0) plate[m] += std::clamp(want - plate[m], -seconds, seconds);
                if (silent[m] > now)
                    shift.lost(static_cast<int>(m), now);
                else
                    shift.reading(static_cast<int>(m), plate[m], now);
            }
            shift.tick(now);
        };
        stands_for(0.1);
        while (!shift.over()) {
            ASSERT_LT(stood, 4000) << "round " << round << ": " << shift.waits_for(now);
            const auto dice = static_cast<unsigned>(random() % 60);
            if (dice == 0 && faults < 4000 && shift.plan().shop.tasks.size() < 400) {
                (void)shift.report(static_cast<PressFault>(random() % press_fault_count), order, now);
                ++faults;
            } else if (dice == 1) {
                (void)shift.again();
            } else if (dice == 2) {
                shift.pause(now);
                stands_for(30);
                shift.resume(now);
            } else if (dice == 3) {
                silent[random() % silent.size()] = now + 20;
            } else if (dice == 4 && random() % 4 == 0) {
                shift.skip(now);
            }
            if (shift.over()) break;
            if (!shift.held().empty() && (random() % 20 == 0 || !shift.card())) {
                const std::string trial = shift.held().front().trial;
                if (shift.card() || random() % 2 == 0) {
                    shift.go_on_knowingly(trial, now);
                } else if (shift.counting().empty()) {  // the trial again, by the plan as it is
                    const ShiftRecord record = shift.record_to_try_again(trial, now);
                    Shift fresh(first_plan);
                    (void)fresh.restore(record);
                    shift = std::move(fresh);
                }
                if (shift.over()) break;
            }
            ASSERT_FALSE(!shift.card() && shift.counting().empty() && shift.held().empty());
            if (shift.next(now)) {
                stood = 0;
                continue;
            }
            EXPECT_FALSE(shift.waits_for(now).empty()) << "what cannot be done names why";
            ++stood;
            stands_for(1);
        }
        for (const Load& load : shift.plan().loads)
            for (const int t : load.tasks) EXPECT_TRUE(t >= 0);
        EXPECT_EQ(shift.loads_done(), static_cast<int>(shift.plan().loads.size()));
    }
    EXPECT_GT(faults, 5);
}

TEST(Shift, AColdPressLetsOthersGoFirstButNoTaskSkipsAPhase) {
    auto package = open_order(test::source("demo/marrow-hill"));
    const ArtFactsById facts = facts_of(load_all_art(package->order, package->art, nullptr));
    const FitPlan fitted = fit(package->order, facts);
    ScheduleOptions options;
    options.tries = 0;
    const PressPlan plan = press_plan(package->order, fitted, transfers(package->order, fitted, facts), options);
    Shift shift(plan);
    double now = 0;
    auto first = shift.card();
    for (int k = 0; first && first->kind != ActKind::load && k < 2000; ++k) {  // past platens and pressures that are changed first
        if (!shift.next(now)) shift.tick(++now);
        first = shift.card();
    }
    ASSERT_TRUE(first);
    shift.reading(first->machine, 20, now);
    std::map<int, int> done;
    for (int k = 0; k < 400; ++k) {
        const auto card = shift.card();
        ASSERT_TRUE(card);
        if (card->machine == first->machine) break;  // its plate is cold: nothing else is left
        if (!shift.next(now)) {
            now += 1;
            shift.tick(now);
            continue;
        }
        if (card->phase >= 0) EXPECT_EQ(done[card->task]++, card->phase);
    }
    EXPECT_GT(done.size(), 20u) << "others went first";
}

TEST(Shift, CountsOnlyOnceThePlateIsHot) {
    AtWork w;
    Shift shift(w.plan);
    const int m = w.press();
    shift.reading(m, w.celsius(), 0);
    const double now = until(shift, ActKind::press);
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
    const double now = until(shift, ActKind::peel);
    EXPECT_NE(shift.waits_for(now).find("cools"), std::string::npos);
    EXPECT_FALSE(shift.next(now));
    EXPECT_TRUE(shift.next(now + 30));
}

TEST(Shift, NotReleasedGoesBackUnderHeatAndIsPeeledAgain) {
    AtWork w(2);
    Shift shift(w.plan);
    const double now = until(shift, ActKind::peel, true);
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
    const double now = until(shift, ActKind::unload);
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

/// By name, what was done to which piece so far; waits are begun again after a stop and do not count.
using Deeds = std::multiset<std::pair<std::string, int>>;

double do_some(Shift& shift, double now, int steps, Deeds& deeds) {
    for (int k = 0; k < steps && !shift.over(); ++k) {
        const auto card = shift.card();
        if (card && shift.next(now)) {
            const Load& load = load_of(shift.plan(), card->task);
            if (card->phase >= 0 && card->kind != ActKind::wait)
                deeds.insert(
                    {load.id, static_cast<int>(std::find(load.tasks.begin(), load.tasks.end(), card->task) - load.tasks.begin()) * 100 +
                                  card->phase});
        } else {
            now += 3;
        }
        shift.tick(now);
    }
    return now;
}

TEST(Shift, WhatIsKeptGoesOnWhereItStoppedAndPressesNothingTwice) {
    std::mt19937 random(7);
    const AtWork w(8);
    for (int round = 0; round < 25; ++round) {
        Shift first(w.plan);
        Deeds deeds;
        const double now = do_some(first, 0, 2 + static_cast<int>(random() % 120), deeds);
        KeptShift kept;
        kept.order = w.order.name;
        kept.record = first.record(now);
        const auto read = shift_from(shift_json(kept));
        ASSERT_TRUE(read.ok()) << read.sentence();
        Shift second(w.plan);
        const auto says = second.restore(read->record);
        EXPECT_EQ(second.loads_done(), first.loads_done()) << round;
        EXPECT_EQ(says.size(), first.counting().empty() || first.counting()[0].machine < 0 ? 0u : 1u) << "what lay under heat is said";
        const Progress progress = second.progress(now);
        for (std::size_t i = 0; i < progress.done.size(); ++i)
            if (!progress.done[i]) EXPECT_GE(second.plan().schedule.places[i].start, now - 1e-6);
        do_some(second, now, 100000, deeds);
        EXPECT_TRUE(second.over()) << round;
        EXPECT_EQ(second.loads_done(), 8) << round;
        for (const auto& deed : deeds) EXPECT_EQ(deeds.count(deed), 1u) << deed.first << " " << deed.second;
    }
}

TEST(Shift, ADamagedRecordIsASentenceAndAStrangeOneHarmless) {
    const AtWork w(3);
    Shift shift(w.plan);
    Deeds deeds;
    KeptShift kept;
    kept.order = "some";
    kept.record = shift.record(do_some(shift, 0, 30, deeds));
    const std::string text = shift_json(kept);
    for (std::size_t n = 0; n < text.size(); n += 7) {
        const auto read = shift_from(text.substr(0, n));
        ASSERT_FALSE(read.ok());
        EXPECT_FALSE(read.sentence().empty());
    }
    EXPECT_FALSE(shift_from(R"({"format":"orthema-shift/2"})").ok());
    // begun by another recipe: it begins anew, and is named
    ShiftRecord strange = kept.record;
    for (ShiftRecord::Piece& p : strange.pieces) p.under_heat = false;
    ASSERT_FALSE(strange.pieces.empty());
    strange.pieces[0].done = {1};
    strange.pieces[0].ended = {-1};
    strange.pieces.push_back({"no-such-load", false, true, {900}, {-1}});
    Shift again(w.plan);
    EXPECT_EQ(again.restore(strange).size(), 1u);
    EXPECT_TRUE(work_off(again, kept.record.at));
    EXPECT_EQ(again.loads_done(), 3);
}

TEST(Shift, ReplacementsAreTakenIntoTheRunningShift) {
    AtWork w(3);
    Shift shift(w.plan);
    const double now = until(shift, ActKind::unload);
    Order next = w.order;
    next.reprints = shift.report(PressFault::scorched, w.order, now);
    EXPECT_EQ(shift.bring_in(w.plan, now), 0) << "nothing new in the old plan";
    ScheduleOptions options;
    options.tries = 0;
    const PressPlan newer = press_plan(next, w.fitted, transfers(next, w.fitted, w.facts), options);
    ASSERT_EQ(shift.missing(newer).size(), 1u);
    EXPECT_EQ(shift.bring_in(newer, now), 1);
    EXPECT_EQ(shift.bring_in(newer, now), 0);
    for (const int t : shift.plan().loads.back().tasks) EXPECT_GE(shift.plan().schedule.places[static_cast<std::size_t>(t)].start, now);
    const auto end = work_off(shift, now);
    ASSERT_TRUE(end);
    const Load& again = shift.plan().loads.back();
    EXPECT_TRUE(again.replacement);
    EXPECT_TRUE(std::any_of(shift.notes().begin(), shift.notes().end(),
                            [&](const ShiftNote& n) { return n.load == again.id && n.what == "pressed"; }));
    // planned anew its stages still have their names
    ScheduleOptions like;
    EXPECT_TRUE(begin_like(like, shift.plan(), accepted_from(shift.plan())));
    EXPECT_EQ(like.turns.order.size(), shift.plan().stages.size());
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

}  // namespace TESTED
}  // namespace orthema
