// The scheduler: plans keep every rule, never beat the bound, and small ones are as short as any.
#include "core/pressing/schedule.h"

#include <functional>
#include <random>

#include "support/support.h"
#include "support/workshop_file.h"

namespace orthema {
namespace TESTED {

ShopTask on_press(std::vector<int> machines, PressState state, std::vector<Phase> phases, std::vector<After> after, int stage) {
    ShopTask j;
    j.machines = std::move(machines);
    j.state = state;
    j.phases = std::move(phases);
    j.after = std::move(after);
    j.stage = stage;
    return j;
}

ShopTask by_hand(double seconds, std::vector<After> after, int stage) {
    return on_press({}, {}, {{seconds, true, 0}}, std::move(after), stage);
}

Machine press(double celsius) {
    Machine m;
    m.name = "press";
    m.now = {celsius, 1, 0};
    m.heat_rate = 1;
    m.cool_rate = 0.5;
    m.platen_seconds = 4;
    m.pressure_seconds = 2;
    return m;
}

/// A random workshop: chains of press, cool, peel and second press on one or two presses.
Workshop workshop(std::mt19937& random, int chains, bool small) {
    const auto below = [&](int n) { return static_cast<int>(random() % static_cast<unsigned>(n)); };
    Workshop w;
    const int machines = 1 + below(2);
    for (int m = 0; m < machines; ++m) w.machines.push_back(press(small ? 3 : 20));
    w.hands = 1 + below(2);
    for (int c = 0; c < chains; ++c) {
        std::vector<int> on{below(machines)};
        if (machines > 1 && below(3) == 0) on = {0, 1};
        const PressState state{3.0 + 2 * below(2), 1, below(3) == 0 ? 1 : 0};
        const auto first = static_cast<int>(w.tasks.size());
        w.tasks.push_back(on_press(on, state, {{1.0 + below(2), true, 0}, {1.0 + below(3), false, 0}, {1, true, 0}}, {}, 3 * c));
        if (below(4) == 0 && c > 0) w.tasks.back().after.push_back({first - 1, 0, {}});
        const int peel = below(3);
        if (peel > 0) {
            After a{first, static_cast<double>(below(4)), {}};
            if (peel == 2) a.most = a.least + 1;
            w.tasks.push_back(by_hand(1, {a}, 3 * c + 1));
            if (!small && below(2) == 0)
                w.tasks.push_back(on_press(on, state, {{1, true, 0}, {2, false, 0}, {1, true, 0}}, {{first + 1, 0, {}}}, 3 * c + 2));
        }
    }
    if (below(3) == 0) w.pauses.push_back({6, 9});
    return w;
}

TEST(Schedule, EveryPlanKeepsTheRulesAndTheBound) {
    std::mt19937 random(5);
    for (int round = 0; round < 150; ++round) {
        const Workshop w = workshop(random, 3 + round % 9, false);
        ScheduleOptions options;
        options.tries = 40;
        options.seed = static_cast<unsigned>(round);
        const Schedule s = schedule(w, options);
        const auto faults = schedule_faults(w, s);
        ASSERT_TRUE(faults.empty()) << round << ": " << faults.front();
        EXPECT_GE(s.end, lower_bound(w) - 1e-6) << round;
        std::vector<int> in_order(w.tasks.size());
        for (std::size_t i = 0; i < in_order.size(); ++i) in_order[i] = static_cast<int>(i);
        EXPECT_LE(s.end, one_by_one(w, in_order) + 1e-6) << round;
    }
}

/// The best of all plans whose tasks begin at whole seconds, a thousand times its lateness and its end: every start of every task,
/// nothing clever.
double shortest(const Workshop& w, double limit, double known = 1e15) {
    double best = std::min(limit + 1, known + 1);
    if (known < 1e15) best = known + 1;
    Schedule s;
    s.places.resize(w.tasks.size());
    struct Use {
        double from, to;
    };
    std::vector<std::vector<std::pair<Use, PressState>>> on(w.machines.size());
    std::vector<Use> hands;
    const auto hands_free = [&](double from, double to) {  // hands are alike: never more at work than there are
        for (double t = from; t < to - 0.25; t += 0.5) {
            int at_work = 0;
            for (const Use& u : hands) at_work += u.from < t + 0.25 && u.to > t + 0.25 ? 1 : 0;
            if (at_work >= w.hands) return false;
        }
        return true;
    };
    const auto judged = [&](std::size_t placed, double end) {
        double late = 0;
        for (std::size_t d = 0; d < w.dues.size(); ++d) {
            double last = 0;
            for (std::size_t k = 0; k < placed; ++k)
                for (const int of : w.tasks[k].dues)
                    if (of == static_cast<int>(d)) last = std::max(last, s.places[k].end);
            late += std::max(0.0, last - w.dues[d]);
        }
        return 1000 * late + end;
    };
    const std::function<void(std::size_t, double)> walk = [&](std::size_t i, double end) {
        if (judged(i, end) >= best) return;
        if (i == w.tasks.size()) {
            // changes between what lies next to each other on each press, with a hand for them
            const auto had = hands.size();
            bool sound = true;
            for (std::size_t m = 0; m < on.size() && sound; ++m) {
                auto line = on[m];
                std::sort(line.begin(), line.end(), [](const auto& a, const auto& b) { return a.first.from < b.first.from; });
                PressState state = w.machines[m].now;
                double free = 0;
                for (const auto& [use, wanted] : line) {
                    const double hand = change_by_hand(w.machines[m], state, wanted);
                    if (use.from < free + change_seconds(w.machines[m], state, wanted) - 1e-9) sound = false;
                    if (hand > 0) {
                        for (const Pause& p : w.pauses)
                            if (use.from - hand < p.to && use.from > p.from) sound = false;
                        if (!hands_free(use.from - hand, use.from)) sound = false;
                        hands.push_back({use.from - hand, use.from});
                    }
                    state = wanted;
                    free = use.to;
                }
            }
            hands.resize(had);
            if (sound) best = judged(i, end);
            return;
        }
        const ShopTask& job = w.tasks[i];
        double from = 0, until = limit;
        for (const After& a : job.after) {
            from = std::max(from, s.places[static_cast<std::size_t>(a.task)].end + a.least);
            if (a.most) until = std::min(until, s.places[static_cast<std::size_t>(a.task)].end + *a.most);
        }
        for (double t = std::ceil(from); t <= until && t + job.seconds() < std::min(best, limit + 1); t += 1) {
            if (std::any_of(w.pauses.begin(), w.pauses.end(), [&](const Pause& p) { return t < p.to && t + job.seconds() > p.from; }))
                continue;
            const auto had = hands.size();
            bool free = true;
            double at = t;
            for (const Phase& p : job.phases) {
                if (p.hand && !(free = free && hands_free(at, at + p.seconds))) break;
                if (p.hand) hands.push_back({at, at + p.seconds});
                at += p.seconds;
            }
            s.places[i].end = t + job.seconds();
            if (free && job.machines.empty()) walk(i + 1, std::max(end, s.places[i].end));
            if (free)
                for (const int m : job.machines) {
                    auto& line = on[static_cast<std::size_t>(m)];
                    if (std::any_of(line.begin(), line.end(),
                                    [&](const auto& u) { return t < u.first.to && t + job.seconds() > u.first.from; }))
                        continue;
                    line.push_back({{t, t + job.seconds()}, job.state});
                    walk(i + 1, std::max(end, s.places[i].end));
                    line.pop_back();
                }
            hands.resize(had);
        }
    };
    walk(0, 0);
    return best;
}

TEST(Schedule, SmallOnesAreAsShortAsAnyPlan) {
    std::mt19937 random(11);
    for (int round = 0; round < 150; ++round) {
        const Workshop w = workshop(random, 2 + round % 2, true);
        const Schedule s = schedule(w, {});
        ASSERT_TRUE(schedule_faults(w, s).empty()) << round << ": " << schedule_faults(w, s).front();
        EXPECT_NEAR(s.end, shortest(w, s.end), 1e-6) << round;
    }
}

TEST(Schedule, DueTimesAreKeptWhereAnyPlanKeepsThem) {
    std::mt19937 random(17);
    int kept = 0, late = 0;
    for (int round = 0; round < test::rounds(120, 600); ++round) {
        Workshop w = workshop(random, 2 + round % 2, true);
        const double end = schedule(w, {}).end;
        for (const double share : {0.5, 0.9}) w.dues.push_back(std::floor(end * share) + round % 4);
        for (std::size_t i = 0; i < w.tasks.size(); ++i) w.tasks[i].dues = {w.tasks[i].stage / 3 % 2};
        const Schedule s = schedule(w, {});
        ASSERT_TRUE(schedule_faults(w, s).empty()) << round;
        double sum = 0;
        for (const double l : lateness(w, s)) sum += l;
        (sum > 0 ? late : kept) += 1;
        EXPECT_LE(least_lateness(w), sum + 1e-6) << round << ": the bound is none";
        EXPECT_NEAR(1000 * sum + s.end, shortest(w, 2 * end + 10, 1000 * sum + s.end), 1e-6) << round;
    }
    EXPECT_GT(kept, 10);
    EXPECT_GT(late, 20);
}

TEST(Schedule, OfLargeOnesWhatIsDueFirstComesFirst) {
    std::mt19937 random(23);
    double late = 0, late_by_time = 0;
    for (int round = 0; round < 12; ++round) {
        Workshop w = workshop(random, 14, false);
        ScheduleOptions options;
        options.tries = 300;
        const Schedule by_time = schedule(w, options);
        w.dues = {by_time.end * 0.5, by_time.end * 1.2};
        for (std::size_t i = 0; i < w.tasks.size(); ++i)
            w.tasks[i].dues = {w.tasks[i].stage % 6 < 3 ? 1 : 0};  // the later half of each pair
        const auto late_of = [&](const Schedule& s) {
            double sum = 0;
            for (const double l : lateness(w, s)) sum += l;
            return sum;
        };
        const Schedule s = schedule(w, options);
        ASSERT_TRUE(schedule_faults(w, s).empty());
        late += late_of(s);
        late_by_time += late_of(by_time);
        EXPECT_GE(late_of(s), least_lateness(w) - 1e-6) << round;
    }
    EXPECT_LT(late, 0.8 * late_by_time);
}

TEST(Schedule, WhatOnePairOfHandsCannotUseIsInTheBound) {
    // two presses, three seconds closed between touches of four: nothing fits between
    Workshop w;
    w.machines = {press(150), press(150)};
    for (int k = 0; k < 4; ++k) w.tasks.push_back(on_press({k % 2}, {150, 1, 0}, {{4, true, 0}, {3, false, 0}, {4, true, 0}}, {}, k));
    EXPECT_NEAR(lower_bound(w), 44, 1e-6);
    EXPECT_NEAR(schedule(w, {}).end, 44, 1e-6);
    // two peels of two seconds fill two of the four waits but for a second each
    for (int k = 0; k < 2; ++k) w.tasks.push_back(by_hand(2, {}, 4));
    EXPECT_NEAR(lower_bound(w), 44, 0.3);
    EXPECT_NEAR(schedule(w, {}).end, 44, 1e-6);

    // never above the shortest of all plans, whatever waits and touches there are
    std::mt19937 random(29);
    const auto one_to = [&](int n) { return 1.0 + static_cast<double>(random() % static_cast<unsigned>(n)); };
    int seen = 0;
    for (int round = 0; round < 120; ++round) {
        Workshop r;
        r.machines = {press(3), press(3)};
        const double a = one_to(4), b = one_to(3), c = one_to(4), d = one_to(4), e = one_to(5), f = one_to(3);
        for (int k = 0; k < 2; ++k) r.tasks.push_back(on_press({k}, {3, 1, 0}, {{a, true, 0}, {b, false, 0}, {c, true, 0}}, {}, k));
        r.tasks.push_back(on_press({round % 2}, {3, 1, 0}, {{d, true, 0}, {e, false, 0}, {f, true, 0}}, {}, 2));
        r.tasks.push_back(by_hand(one_to(4), {}, 3));
        double hands = 0;
        for (const ShopTask& t : r.tasks)
            for (const Phase& p : t.phases) hands += p.hand ? p.seconds : 0;
        const double least = lower_bound(r), best = shortest(r, hands + 2 * b + e);
        EXPECT_LE(least, best + 1e-6) << round;
        seen += least > hands + 0.5 && best > hands + 0.5 ? 1 : 0;
    }
    EXPECT_GT(seen, 20);
}

TEST(Schedule, TheKeptLoadsComeCloseToTheBound) {
    Workshop w = test::kept_workshop(test::source("bench/kite-fair.workshop"));
    ASSERT_EQ(w.tasks.size(), 1171u);
    ScheduleOptions options;
    options.tries = 400;
    for (const auto& [hands, over] : {std::pair{2, 1.10}, std::pair{1, 1.15}}) {
        w.hands = hands;
        const Schedule s = schedule(w, options);
        EXPECT_TRUE(schedule_faults(w, s).empty());
        EXPECT_LE(s.end, over * lower_bound(w)) << hands;
        // half a minute late half way: the rest is found again, and little later
        Progress progress;
        progress.now = s.end / 2 + 30;
        for (const Slot& at : s.places) progress.done.push_back(at.start < s.end / 2 ? std::optional(at) : std::nullopt);
        const Schedule rest = follow(w, s, progress);
        EXPECT_TRUE(schedule_faults(w, rest).empty());
        EXPECT_LE(rest.end, 1.02 * s.end) << hands;
        // put by its turns it is the same again
        const auto again = put(w, s.turns);
        ASSERT_TRUE(again);
        for (std::size_t i = 0; i < s.places.size(); ++i) ASSERT_EQ(again->places[i].start, s.places[i].start) << i;
    }
}

TEST(Schedule, PeelsAndSecondPressesGoBetweenOtherLoads) {
    // four loads of 20 s by hand, 10 s pressed, 5 s by hand, 30 s cooling, 8 s peel: one by one 4 × 73 s
    Workshop w;
    w.machines.push_back(press(150));
    for (int k = 0; k < 4; ++k) {
        w.tasks.push_back(on_press({0}, {150, 1, 0}, {{20, true, 0}, {10, false, 0}, {5, true, 0}}, {}, 0));
        w.tasks.push_back(by_hand(8, {{2 * k, 30, {}}}, 1));
    }
    EXPECT_NEAR(one_by_one(w, {0, 1, 2, 3, 4, 5, 6, 7}), 292, 1e-9);
    ScheduleOptions options;
    options.tries = 200;
    const Schedule s = schedule(w, options);
    // the press is never idle; the last load cools and is peeled: 4 × 35 + 30 + 8
    EXPECT_NEAR(s.end, 178, 1e-9);
    EXPECT_NEAR(lower_bound(w), 178, 1e-9);
}

TEST(Schedule, ALoadStaysWhereItWasPinnedAndWhatIsDoneStays) {
    std::mt19937 random(3);
    for (int round = 0; round < 40; ++round) {
        Workshop w = workshop(random, 5, false);
        w.tasks[0].fixed = 60;
        ScheduleOptions options;
        options.tries = 20;
        const Schedule s = schedule(w, options);
        EXPECT_DOUBLE_EQ(s.places[0].start, 60) << round;
        ASSERT_TRUE(schedule_faults(w, s).empty()) << round;
        // half way through one load takes longer: what is done stays, nothing else begins before now
        Progress progress;
        progress.now = s.end / 2;
        progress.done.resize(w.tasks.size());
        for (std::size_t i = 0; i < w.tasks.size(); ++i)
            if (s.places[i].start < progress.now) progress.done[i] = s.places[i];
        progress.now += 7;
        const Schedule again = schedule(w, options, {}, {}, &progress);
        for (std::size_t i = 0; i < w.tasks.size(); ++i) {
            if (progress.done[i])
                EXPECT_EQ(again.places[i].start, s.places[i].start);
            else if (std::none_of(w.tasks[i].after.begin(), w.tasks[i].after.end(), [](const After& a) { return a.most.has_value(); }))
                EXPECT_GE(again.places[i].start, progress.now - 1e-6);
        }
    }
}

TEST(Schedule, FindsWhatIsWrongWithAPlan) {
    Workshop w;
    w.machines.push_back(press(150));
    w.tasks.push_back(on_press({0}, {150, 1, 0}, {{5, true, 0}}, {}, 0));
    w.tasks.push_back(on_press({0}, {150, 1, 0}, {{5, true, 0}}, {{0, 10, 12.0}}, 0));
    Schedule s = schedule(w, {});
    ASSERT_TRUE(schedule_faults(w, s).empty());
    const Schedule good = s;
    s.places[1].start = s.places[0].end + 5, s.places[1].end = s.places[1].start + 5;
    EXPECT_NE(schedule_faults(w, s).at(0).find("too soon"), std::string::npos);
    s.places[1].start = s.places[0].end + 50, s.places[1].end = s.places[1].start + 5;
    EXPECT_NE(schedule_faults(w, s).at(0).find("too late"), std::string::npos);
    w.tasks[1].after.clear();
    s.places[1] = good.places[0];
    EXPECT_GE(schedule_faults(w, s).size(), 2u);  // the press and the hand, twice at once
    s = good;
    s.places[1].hands = {-1};
    EXPECT_FALSE(schedule_faults(w, s).empty());
}

}  // namespace TESTED
}  // namespace orthema
