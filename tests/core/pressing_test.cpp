// Recipes, heat ledger and press plan, against figures worked out by hand and against their own rules.
#include "core/pressing/press_plan.h"

#include "core/guides/run_sheet.h"
#include "core/pressing/film_making.h"
#include "core/pressing/next_try.h"
#include "core/transfers/choices.h"

#include <random>
#include <set>

#include "files/library.h"
#include "files/order_file.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

RecipeStep step(StepKind kind, double celsius, double seconds) {
    RecipeStep s;
    s.kind = kind;
    s.celsius = celsius;
    s.seconds = seconds;
    return s;
}

TEST(Recipe, OldWordsBecomeSteps) {
    EXPECT_EQ(step_from_words("pre-press").kind, StepKind::pre_press);
    const RecipeStep peel = step_from_words("peel warm");
    EXPECT_EQ(peel.kind, StepKind::peel);
    EXPECT_EQ(peel.peel, Peel::warm);
    const RecipeStep second = step_from_words("second press under a cover");
    EXPECT_EQ(second.kind, StepKind::second_press);
    EXPECT_FALSE(second.cover.empty());
    const RecipeStep foil = step_from_words("press the foil");
    EXPECT_EQ(foil.kind, StepKind::press);
    EXPECT_EQ(foil.how, "the foil");
    EXPECT_EQ(step_from_words("marry print and adhesive").kind, StepKind::marry);
}

TEST(Recipe, TacksAreTheShortestThatHold) {
    // hand-worked: top 15 s; the middle has 15 of the 20 it needs, so 5 of its own; the bottom's least is 2: 22 in all
    const auto times = tack_times({{2, 10, 30}, {1, 20, 30}, {15, 15, 30}});
    ASSERT_TRUE(times);
    EXPECT_EQ(*times, (std::vector<double>{2, 5, 15}));
    EXPECT_FALSE(tack_times({{2, 10, 21}, {1, 20, 30}, {15, 15, 30}}));  // the bottom bears 21 and gets 22
    // against every choice of whole seconds
    std::mt19937 random(7);
    for (int round = 0; round < 300; ++round) {
        std::vector<LayerNeed> needs;
        for (int k = 0; k < 3; ++k)
            needs.push_back(
                {1.0 + static_cast<double>(random() % 4), static_cast<double>(random() % 9), 3.0 + static_cast<double>(random() % 12)});
        double least = 1e9;
        for (int a = 0; a <= 15; ++a)
            for (int b = 0; b <= 15; ++b)
                for (int c = 0; c <= 15; ++c) {
                    const double own[] = {double(a), double(b), double(c)};
                    bool holds = true;
                    double above = 0;
                    for (std::size_t k = 3; k-- > 0;) {
                        above += own[k];
                        holds = holds && own[k] >= needs[k].least && above >= needs[k].need && above <= needs[k].limit;
                    }
                    if (holds) least = std::min(least, above);
                }
        const auto found = tack_times(needs);
        EXPECT_EQ(found.has_value(), least < 1e9) << round;
        if (found) EXPECT_DOUBLE_EQ((*found)[0] + (*found)[1] + (*found)[2], least) << round;
    }
}

TEST(Recipe, StepsForStacksAndParts) {
    RecipeStep tack = step(StepKind::tack, 150, 5);
    tack.least_seconds = 2;
    const std::vector<RecipeStep> recipe{step(StepKind::pre_press, 150, 3), tack, step(StepKind::press, 150, 15),
                                         step(StepKind::peel, 0, 8)};
    const auto three = planned_steps(recipe, 3, 1, 30);
    std::vector<int> layers;
    double heat = 0;
    for (const PlannedStep& s : three)
        if (s.layer >= 0) {
            layers.push_back(s.layer);
            heat += s.step.seconds;
        }
    EXPECT_EQ(layers, (std::vector<int>{0, 1, 2}));
    EXPECT_DOUBLE_EQ(heat, 19);                             // two tacks as short as hold, and the press
    EXPECT_EQ(planned_steps(recipe, 1, 1, 30).size(), 3u);  // one layer needs no tack
    int presses = 0, warmings = 0;
    for (const PlannedStep& s : planned_steps(recipe, 1, 3, 30)) {
        presses += s.step.kind == StepKind::press ? 1 : 0;
        warmings += s.step.kind == StepKind::pre_press ? 1 : 0;
    }
    EXPECT_EQ(presses, 3);
    EXPECT_EQ(warmings, 1);
}

int place_count_of(const SizeFit& size) { return std::max(1, static_cast<int>(size.platen.presses.size())); }

struct Job_ {
    Order order;
    ArtFactsById facts;
    FitPlan plan;
    TransferSet set;
    explicit Job_(Order o, const ArtBytes& art = test::small_art())
        : order(std::move(o)),
          facts(facts_of(load_all_art(order, art, nullptr))),
          plan(fit(order, facts)),
          set(transfers(order, plan, facts)) {}
};

/// Read and looked at once for all tests.
Job_ demo() {
    static const Job_ kept = [] {
        auto loaded = open_order(test::source("demo/marrow-hill"));
        return Job_(loaded->order, loaded->art);
    }();
    return kept;
}

TEST(Recipe, NoPressOfARecipeIsLostAndPlanLedgerAndListsAreOne) {
    std::mt19937 random(12);
    for (int round = 0; round < test::rounds(12, 80); ++round) {
        Order order = test::small_order();
        order.press_run.trials = round % 2 == 0;
        Method& method = order.methods.at(0);
        method.fabric_rules.clear();
        method.bears_seconds = method.bears_heats = 0;
        method.recipe.clear();
        // any row of steps that ends in a press: "press, turn, press" among them
        const StepKind kinds[] = {StepKind::pre_press, StepKind::tack, StepKind::press,        StepKind::turn,
                                  StepKind::wait,      StepKind::peel, StepKind::second_press, StepKind::hover_cure};
        if (round == 0) method.recipe = {step(StepKind::press, 150, 7), step(StepKind::turn, 0, 0)};
        for (int k = 0; round > 0 && k < 5; ++k)
            method.recipe.push_back(step(kinds[random() % 8], random() % 2 == 0 ? 150 : 165, 4.0 + static_cast<double>(random() % 9)));
        method.recipe.push_back(step(StepKind::press, 150, 11));
        for (RecipeStep& s : method.recipe)
            if (!heats(s)) s.celsius = 0;
        const Job_ job(order);
        ScheduleOptions quick;
        quick.tries = 0;
        const PressPlan plan = press_plan(job.order, job.plan, job.set, quick);
        ASSERT_FALSE(plan.loads.empty());
        double wanted = 0, kept = 0;  // seconds under heat of the recipe without the tacks that one layer can do without
        int putting = 0;
        for (const RecipeStep& s : method.recipe) putting += applies(s) ? 1 : 0;
        for (const RecipeStep& s : method.recipe) {
            const bool spared = s.kind == StepKind::tack && putting > 1;
            if (spared) --putting;
            if (heats(s) && !spared) wanted += s.seconds;
        }
        for (const RecipeStep& s : steps_done(job.order, job.order.decorations[0]))
            if (heats(s)) kept += s.seconds;
        EXPECT_DOUBLE_EQ(kept, wanted) << "what the card says";
        for (const Load& load : plan.loads) {
            double pressed = 0;
            const int places = place_count_of(*find_size(job.plan.decorations[0], load.size));
            for (const int t : load.tasks)
                for (std::size_t k = 0; k < plan.tasks[static_cast<std::size_t>(t)].acts.size(); ++k)
                    if (plan.tasks[static_cast<std::size_t>(t)].acts[k].kind == ActKind::press)
                        pressed += plan.shop.tasks[static_cast<std::size_t>(t)].phases[k].seconds;
            EXPECT_EQ(places, 1);
            EXPECT_DOUBLE_EQ(pressed, wanted) << "what the plan does";
            double said = 0;
            for (const PlannedStep& p : load.steps)
                if (heats(p.step)) said += p.step.seconds;
            EXPECT_DOUBLE_EQ(said, wanted) << "what the run sheet says";
        }
        const std::string size = plan.loads[0].size;
        double before = 0;  // heat before the design lies there is none of its own
        for (const PlannedStep& p : plan.loads[0].steps) {
            if (p.layer >= 0) break;
            if (heats(p.step)) before += p.step.seconds;
        }
        const auto ledger = heat_ledger(job.order, job.plan, job.set, size, {&job.order.decorations[0]});
        ASSERT_EQ(ledger.size(), 1u);
        EXPECT_DOUBLE_EQ(ledger[0].seconds, wanted - before) << "what the ledger counts";
    }
}

TEST(Recipe, TheFabricThenTheShopsOwnTrialDecide) {
    Order order = demo().order;
    const Decoration& race = *find_decoration(order, "race-rose");  // dark polyester mesh
    const ChosenRecipe generic = recipe_for(order, race);
    EXPECT_FALSE(generic.tried);
    EXPECT_DOUBLE_EQ(generic.steps[1].celsius, 135);
    EXPECT_GT(generic.most_celsius, 0);
    EXPECT_DOUBLE_EQ(recipe_for(order, *find_decoration(order, "crew-kite")).steps[1].celsius, 150);
    std::vector<RecipeStep> mine = generic.steps;
    mine[1].celsius = 130;
    const std::string method = find_medium(order, race.medium)->method;
    order.trials.push_back({method, race.run.style, race.press, mine, TrialResult::ghosted, "2026-05-02", ""});
    EXPECT_FALSE(recipe_for(order, race).tried) << "a trial that failed changes nothing";
    order.trials.push_back({method, race.run.style, race.press, mine, TrialResult::released_clean, "2026-05-03", ""});
    EXPECT_TRUE(recipe_for(order, race).tried);
    EXPECT_DOUBLE_EQ(recipe_for(order, race).steps[1].celsius, 130);
    Decoration elsewhere = race;
    elsewhere.press = "press-square";
    EXPECT_FALSE(recipe_for(order, elsewhere).tried) << "another press is another trial";
}

TEST(Heat, AFrontAndABackByHand) {
    // front 12 s and 5 s after a 4 s pre-press; then the back the same: through the garment half of 4 + 12 + 5
    Order order = test::small_order();
    Decoration back = order.decorations[0];
    back.id = "back";
    back.name = "Back";
    back.location = Location::full_back;
    order.decorations.push_back(back);
    Method& method = order.methods.at(0);
    method.recipe = {step(StepKind::pre_press, 150, 4), step(StepKind::press, 150, 12), step(StepKind::peel, 0, 30),
                     step(StepKind::second_press, 150, 5)};
    method.fabric_rules.clear();
    method.bears_seconds = 27;
    method.bears_heats = 0;
    const auto lines_of = [&](const Order& o) {
        const Job_ job(o);
        return heat_ledger(job.order, job.plan, job.set, "M", {&job.order.decorations[0], &job.order.decorations[1]});
    };
    auto lines = lines_of(order);
    ASSERT_EQ(lines.size(), 2u);
    EXPECT_DOUBLE_EQ(lines[0].seconds, 12 + 5 + 0.5 * 21);
    EXPECT_DOUBLE_EQ(lines[1].seconds, 17);
    EXPECT_FALSE(lines[0].holds());
    EXPECT_TRUE(lines[1].holds());
    const Job_ job(order);
    const Findings said = heat_findings(job.order, job.plan, job.set);
    EXPECT_TRUE(std::any_of(said.begin(), said.end(), [](const Finding& f) { return f.code == "heated-too-long"; }));
    // a sheet between keeps most of it off
    order.methods.at(0).recipe[1].protect_other = true;
    lines = lines_of(order);
    EXPECT_DOUBLE_EQ(lines[0].seconds, 17 + 0.2 * 21);
    EXPECT_TRUE(lines[0].holds());
}

TEST(Heat, ThreeLayersByHand) {
    // tacks of 2 and 2 s, then 15 s: the bottom has 19 s, the middle 17, the top 15
    const Job_ job = demo();
    const Decoration& tote = *find_decoration(job.order, "tote-kites");
    Order order = job.order;
    for (Method& m : order.methods)
        if (m.id == "cut vinyl") {
            m.recipe[1].least_seconds = 2;
            m.bears_seconds = 18;
        }
    const auto lines = heat_ledger(order, job.plan, job.set, "large", {&tote});
    ASSERT_EQ(lines.size(), 3u);
    EXPECT_DOUBLE_EQ(lines[0].seconds, 21) << "no tacks hold the limit, so they stay as the recipe has them: 3 + 3 + 15";
    order.methods[1].bears_seconds = 19;
    const auto held = heat_ledger(order, job.plan, job.set, "large", {&tote});
    EXPECT_DOUBLE_EQ(held[0].seconds, 19);
    EXPECT_DOUBLE_EQ(held[1].seconds, 17);
    EXPECT_DOUBLE_EQ(held[2].seconds, 15);
    EXPECT_EQ(held[0].heats, 3);
    EXPECT_NE(held[0].name.find("backing"), std::string::npos);
}

TEST(Heat, SmallBeforeLargeAndAsTheArtistSaysOtherwise) {
    Job_ job = demo();
    const RunKey crew{"adult-tee", "ash"};
    auto turns = press_turns(job.order, job.plan, job.set, crew);
    ASSERT_EQ(turns.size(), 2u);
    EXPECT_EQ(turns[0].decoration->id, "crew-badge");
    EXPECT_NE(turns[0].reason.find("small before large"), std::string::npos);
    job.order.press_run.order = {"crew-kite", "crew-badge"};
    turns = press_turns(job.order, job.plan, job.set, crew);
    EXPECT_EQ(turns[0].decoration->id, "crew-kite");
}

TEST(PressPlan, AnAcceptedPlanIsThatPlanUntilSomethingInItChanges) {
    Job_ job = demo();
    ScheduleOptions long_search, quick;
    long_search.tries = 40;
    quick.tries = 0;
    const PressPlan found = press_plan(job.order, job.plan, job.set, long_search);
    const PressPlan at_once = press_plan(job.order, job.plan, job.set, quick);
    ASSERT_NE(found.revision, at_once.revision) << "or there is nothing to show";
    const auto other = [](const PressPlan& p) {
        return std::any_of(p.findings.begin(), p.findings.end(), [](const Finding& f) { return f.code == "press-plan-other"; });
    };
    job.order.press_run.accepted = accepted_from(found);
    const PressPlan again = press_plan(job.order, job.plan, job.set, quick);
    EXPECT_DOUBLE_EQ(again.schedule.end, found.schedule.end);
    EXPECT_EQ(again.revision, found.revision);
    EXPECT_FALSE(other(again));
    // what is not pressed changes nothing; a hand less does, and is said
    job.order.name = "another name";
    job.order.guide_setup.windows = true;
    EXPECT_EQ(press_plan(job.order, job.plan, job.set, quick).revision, found.revision);
    job.order.press_run.hands = job.order.press_run.hands == 1 ? 2 : 1;
    EXPECT_TRUE(other(press_plan(job.order, job.plan, job.set, quick)));
}

TEST(PressPlan, WhatATrialIsLookedAtIsNoPartOfItsRow) {
    const Job_ job = demo();
    ScheduleOptions quick;
    quick.tries = 0;
    const PressPlan plan = press_plan(job.order, job.plan, job.set, quick);
    int trials = 0;
    for (const PickRow& r : pick_rows(job.order, job.plan, plan)) {
        if (!r.trial) continue;
        ++trials;
        EXPECT_LT(r.end - r.start, 45 * 60) << r.transfer;
    }
    EXPECT_GT(trials, 0);
}

TEST(PressPlan, ATrialThatComesBackHasARowForEachOfItsVisits) {
    const Job_ job = demo();
    ScheduleOptions quick;
    quick.tries = 0;
    const PressPlan plan = press_plan(job.order, job.plan, job.set, quick);
    std::map<int, int> rows, visits;
    for (const PickRow& r : pick_rows(job.order, job.plan, plan))
        if (r.trial) {
            ++rows[r.load_ids.front()];
            EXPECT_EQ(r.pieces == 0, r.again) << r.transfer;
        }
    int back = 0;
    for (std::size_t i = 0; i < plan.loads.size(); ++i) {
        if (!plan.loads[i].trial) continue;
        for (const int t : plan.loads[i].tasks) visits[int(i)] += plan.shop.tasks[std::size_t(t)].machines.empty() ? 0 : 1;
        EXPECT_EQ(rows[int(i)], visits[int(i)]) << plan.loads[i].id;
        back += visits[int(i)] > 1 ? 1 : 0;
    }
    EXPECT_GT(back, 0) << "or there is nothing to show";
}

TEST(PressPlan, FilmThatIsMadeOnTheDayIsCutApartBeforeItIsPressed) {
    Job_ job = demo();
    ScheduleOptions quick;
    quick.tries = 0;
    job.order.layouts.clear();
    job.order.press_run.makes_film = true;
    std::set<std::string> powdered;
    for (const Transfer& t : job.set.transfers)
        if (find_method(job.order, find_medium(job.order, t.medium)->method)->powder) powdered.insert(t.medium);
    const auto unlaid = press_plan(job.order, job.plan, job.set, quick).findings;
    EXPECT_EQ(std::count_if(unlaid.begin(), unlaid.end(), [](const Finding& f) { return f.code == "film-not-laid"; }),
              std::ssize(powdered));
    test::lay_anyhow(job.order, job.set, 2);
    const PressPlan plan = press_plan(job.order, job.plan, job.set, quick);
    EXPECT_TRUE(schedule_faults(plan.shop, plan.schedule).empty());
    const auto slot = [&](int task) { return plan.schedule.places[std::size_t(task)]; };
    std::map<std::string, double> made;  // by medium: when all of it lies cut apart
    double printer = 0;
    int films = 0;
    for (const Load& l : plan.loads) {
        if (l.film.sheet == 0) continue;
        ++films;
        ASSERT_EQ(l.tasks.size(), 3u);
        EXPECT_GE(slot(l.tasks[0]).start, printer - 1e-6) << "one printer";
        printer = slot(l.tasks[0]).end;
        EXPECT_LE(slot(l.tasks[1]).start - printer, FilmTimes{}.powder_by + 1e-6) << "the ink dries";
        made[l.film.medium] = std::max(made[l.film.medium], slot(l.tasks[2]).end);
        EXPECT_NE(load_words(job.order, l).find("run " + std::to_string(l.film.sheet)), std::string::npos);
    }
    EXPECT_EQ(films, 2 * std::ssize(powdered));
    // every decoration of that film waits for the sheet that its size lies on; two sheets, so some begin before the last is made
    int early = 0, late = 0;
    for (const Load& l : plan.loads) {
        const Decoration* d = find_decoration(job.order, l.decoration);
        if (l.makes_film() || !made.contains(d->medium)) continue;
        const double begins = slot(l.tasks.front()).start;
        double ready = 1e9;
        for (const Load& f : plan.loads)
            if (f.film.medium == d->medium) ready = std::min(ready, slot(f.tasks[2]).end);
        EXPECT_GE(begins, ready - 1e-6) << l.id;
        ++(begins < made[d->medium] - 1e-6 ? early : late);
    }
    EXPECT_GT(late, 0);
    job.order.press_run.makes_film = false;
    for (const Load& l : press_plan(job.order, job.plan, job.set, quick).loads) EXPECT_EQ(l.film.sheet, 0);
}

TEST(PressPlan, TheDemoInFarLessTimeThanOneAfterTheOther) {
    const Job_ job = demo();
    ScheduleOptions options;
    options.tries = 30;
    const PressPlan plan = press_plan(job.order, job.plan, job.set, options);
    EXPECT_TRUE(schedule_faults(plan.shop, plan.schedule).empty());
    EXPECT_GE(plan.schedule.end, plan.bound - 1e-6);
    EXPECT_LE(plan.schedule.end, 0.75 * plan.one_by_one);
    // every ordered design is pressed once on every piece
    std::map<std::string, int> pieces;
    for (const Load& l : plan.loads) pieces[l.decoration + "/" + l.size] += l.pieces;
    for (const DecorationFit& fit : job.plan.decorations)
        for (const SizeFit& s : fit.sizes) EXPECT_EQ(pieces[fit.decoration + "/" + s.size], s.quantity) << fit.decoration << s.size;
    // the trial of each recipe is over before any other load of it begins
    for (std::size_t i = 0; i < plan.loads.size(); ++i) {
        const Load& trial = plan.loads[i];
        if (!trial.trial) continue;
        const Decoration& d = *find_decoration(job.order, trial.decoration);
        const double over = plan.schedule.places[static_cast<std::size_t>(trial.tasks.back())].end;
        for (std::size_t k = 0; k < plan.loads.size(); ++k) {
            const Decoration& other = *find_decoration(job.order, plan.loads[k].decoration);
            if (k == i || other.run.style != d.run.style || other.press != d.press ||
                find_medium(job.order, other.medium)->method != find_medium(job.order, d.medium)->method)
                continue;
            EXPECT_GE(plan.schedule.places[static_cast<std::size_t>(plan.loads[k].tasks.front())].start, over - 1e-6) << plan.loads[k].id;
        }
    }
    // no piece is at two places at once
    std::map<std::string, std::vector<std::pair<double, double>>> at;
    for (const Load& l : plan.loads) {
        const RunKey run = find_decoration(job.order, l.decoration)->run;
        for (int piece = l.parts[0].first; piece < l.parts[0].first + l.pieces; ++piece)
            at[run.style + run.colour + l.size + std::to_string(piece)].emplace_back(
                plan.schedule.places[static_cast<std::size_t>(l.tasks.front())].start,
                plan.schedule.places[static_cast<std::size_t>(l.tasks.back())].end);
    }
    for (auto& [piece, times] : at) {
        std::sort(times.begin(), times.end());
        for (std::size_t k = 1; k < times.size(); ++k) EXPECT_GE(times[k].first, times[k - 1].second - 1e-6) << piece;
    }
}

TEST(PressPlan, ClothThatShrinksIsPressedBareOnceAsHotAndLongAsItWillBe) {
    Order order = test::small_order();
    Decoration back = new_decoration(order, order.decorations[0].run, Location::full_back, order.art[0]);
    back.id = "back";
    order.decorations.push_back(back);
    for (BlankStyle& s : order.styles) s.shrinks = s.id == "adult-tee";
    const Job_ job(order);
    ScheduleOptions quick;
    quick.tries = 0;
    const PressPlan plan = press_plan(job.order, job.plan, job.set, quick);
    EXPECT_TRUE(schedule_faults(plan.shop, plan.schedule).empty());
    int bare = 0;
    for (const Load& l : plan.loads) {
        bool first = true;
        double hottest = 0, longest = 0;
        for (const PlannedStep& s : l.steps)
            if (applies(s.step)) hottest = std::max(hottest, s.step.celsius), longest = std::max(longest, s.step.seconds);
        for (const PlannedStep& s : l.steps) {
            if (s.step.kind == StepKind::pre_shrink) {
                bare += l.pieces;
                EXPECT_TRUE(first) << "before anything else";
                EXPECT_EQ(s.step.celsius, hottest);
                EXPECT_EQ(s.step.seconds, longest);
            }
            first = false;
        }
    }
    EXPECT_EQ(bare, garments_in(order)) << "each garment once, and not again for its other side";
    for (BlankStyle& s : order.styles) s.shrinks = false;
    EXPECT_EQ(recipe_words(recipe_for(order, order.decorations[0]).steps).find("pre-shrink"), std::string::npos);
}

TEST(PressPlan, TransfersAreMarriedManyAtOnceBeforeTheyMeetTheirBlanks) {
    Order order = test::small_order();
    adopt_library(order, starting_library());
    order.decorations[0] = with_medium(order, order.decorations[0], "dark-letter");
    order.decorations[0].sizing.base_width = Length::from_mm(90);
    order.reprints = {{order.decorations[0].id, "M", 1, "crooked"}};
    const Job_ job(order);
    ScheduleOptions quick;
    quick.tries = 0;
    const PressPlan plan = press_plan(job.order, job.plan, job.set, quick);
    EXPECT_TRUE(schedule_faults(plan.shop, plan.schedule).empty());
    const Press& press = *find_press(job.order, order.decorations[0].press);
    std::map<std::pair<std::string, int>, double> married;  // when each piece's transfer is ready
    int apart = 0, pieces = 0;
    for (const Load& l : plan.loads) {
        if (!l.apart) continue;
        ++apart;
        double room = 0;
        for (const LoadPart& p : l.parts) {
            const SizeFit& s = *find_size(job.plan.decorations[0], p.size);
            room += p.pieces * s.width * s.height;
            pieces += p.pieces;
            for (int k = p.first; k < p.first + p.pieces; ++k) {
                EXPECT_FALSE(married.contains({p.size, k})) << "each once";
                married[{p.size, k}] = plan.schedule.places[static_cast<std::size_t>(l.tasks.back())].end;
            }
        }
        const Platen& platen =
            press.platens[static_cast<std::size_t>(plan.shop.tasks[static_cast<std::size_t>(l.tasks.front())].platens.front())];
        EXPECT_LT(room, platen.width.mm() * platen.height.mm()) << "they lie on the platen";
        EXPECT_EQ(load_words(job.order, l).find(std::to_string(l.pieces) + " transfers to marry"), 0u);
        // backing off while it is hot: at the press, then trimmed at the table
        const auto& at_press = plan.tasks[static_cast<std::size_t>(l.tasks.front())].acts;
        EXPECT_TRUE(std::any_of(at_press.begin(), at_press.end(), [](const ActInfo& a) { return a.kind == ActKind::peel; }));
    }
    EXPECT_EQ(pieces, garments_in(order));
    EXPECT_GT(apart, 0);
    EXPECT_LT(apart, garments_in(order) / 3) << "many at once";
    for (const Load& l : plan.loads) {
        if (l.apart) continue;
        const bool marries_itself =
            std::any_of(l.steps.begin(), l.steps.end(), [](const PlannedStep& p) { return p.step.kind == StepKind::marry; });
        EXPECT_EQ(marries_itself, l.replacement) << "one that is printed again is married by itself";
        const auto cool =
            std::find_if(l.steps.rbegin(), l.steps.rend(), [](const PlannedStep& p) { return p.step.kind == StepKind::peel; });
        ASSERT_NE(cool, l.steps.rend());
        EXPECT_EQ(cool->step.peel, Peel::cool) << "the second peel stands";
        if (!l.replacement)
            EXPECT_GE(plan.schedule.places[static_cast<std::size_t>(l.tasks.front())].start, married.at({l.size, l.parts[0].first}) - 1e-6);
    }
}

TEST(NextTry, ChangesOneFigureOfOneStepAndNeverPastWhatTheClothBears) {
    std::vector<RecipeStep> recipe{step(StepKind::pre_press, 150, 4), step(StepKind::press, 150, 12), step(StepKind::peel, 0, 8)};
    recipe[2].peel = Peel::warm;
    const auto changed = [&](const NextTry& t) {
        int steps = 0, figures = 0;
        for (std::size_t i = 0; i < recipe.size(); ++i) {
            const RecipeStep &a = recipe[i], &b = t.steps[i];
            steps += a == b ? 0 : 1;
            figures += (a.celsius != b.celsius) + (a.kind != StepKind::peel && a.seconds != b.seconds) + (a.pressure != b.pressure) +
                       (a.peel != b.peel);
        }
        return steps == 1 && figures == 1 && t.steps.size() == recipe.size();
    };
    for (int r = 0; r < trial_result_count; ++r) {
        const auto result = static_cast<TrialResult>(r);
        const auto tries = next_tries(recipe, result, 152);
        const bool mended = result == TrialResult::scorched || result == TrialResult::ghosted || result == TrialResult::not_released ||
                            result == TrialResult::lifted;
        EXPECT_EQ(!tries.empty(), mended) << trial_result_name(result);
        EXPECT_LE(tries.size(), 3u);
        for (const NextTry& t : tries) {
            EXPECT_TRUE(changed(t)) << worded(t.words, Unit::mm);
            EXPECT_LE(t.steps[1].celsius, 152) << worded(t.words, Unit::mm);
            if (result == TrialResult::scorched) EXPECT_LT(t.steps[1].celsius * t.steps[1].seconds, 150 * 12) << "milder";
        }
    }
    const auto scorched = next_tries(recipe, TrialResult::scorched, 0);
    EXPECT_EQ(worded(scorched[0].words, Unit::mm), "press at 145 °C, not 150 °C");
    EXPECT_EQ(worded(next_tries(recipe, TrialResult::scorched, 0, true)[0].words, Unit::mm), "press at 293 °F, not 302 °F");
}

TEST(Recipe, WhatWasTriedAndFailedIsNotPressedByAgain) {
    Order order = test::small_order();
    const Decoration d = order.decorations[0];
    const auto usual = recipe_for(order, d).steps;
    auto hotter = usual;
    hotter[1].celsius += 5;
    order.trials.push_back(*trial_of(order, d, hotter, TrialResult::to_try));
    EXPECT_EQ(recipe_for(order, d).steps, hotter);
    order.trials.push_back(*trial_of(order, d, hotter, TrialResult::crooked));
    EXPECT_EQ(recipe_for(order, d).steps, hotter) << "it lay crooked: that says nothing of the figures";
    order.trials.push_back(*trial_of(order, d, hotter, TrialResult::scorched));
    EXPECT_EQ(recipe_for(order, d).steps, usual);
}

TEST(PressPlan, HardBlanksFillThePlatenAboutItsMiddle) {
    const Platen platen{"p", Length::from_mm(230), Length::from_mm(305)};
    const PlatenGrid g = platen_grid(platen, 8, 32, 45, 6);
    // (214 + 6) / 38 = 5 columns, (289 + 6) / 51 = 5 rows; turned: 220 / 51 = 4 and 295 / 38 = 7: 28
    EXPECT_EQ(g.count(), 28);
    EXPECT_TRUE(g.turned);
    Point sum;
    for (int k = 0; k < g.count(); ++k) {
        sum = sum + g.middle(k);
        EXPECT_LE(std::abs(g.middle(k).x) + 45 / 2.0, 107 + 1e-9);
        EXPECT_LE(std::abs(g.middle(k).y) + 32 / 2.0, 144.5 + 1e-9);
    }
    EXPECT_NEAR(norm(sum), 0, 1e-9);
    EXPECT_EQ(platen_grid(platen, 8, 500, 500, 6).count(), 1);
}

TEST(PressPlan, AnOvenTakesItsTrayAtOnceForItsOwnTime) {
    Job_ job = demo();
    adopt_library(job.order, starting_library());
    const Press& oven = *find_press(job.order, "oven-wrap");
    ASSERT_EQ(oven.kind, PressKind::oven);
    Decoration mugs = *find_decoration(job.order, "mug-kite");
    mugs.press = oven.id;
    job.order.decorations = {mugs};
    for (OrderLine& l : job.order.lines)
        if (l.style == mugs.run.style) l.quantity = 30;
    const FitPlan fitted = fit(job.order, job.facts);
    std::size_t loads = 0;
    for (const SizeFit& s : fitted.decorations.at(0).sizes) {
        ASSERT_GT(s.quantity, oven.pieces);
        const int others = s.quantity - (loads == 0 ? 1 : 0);  // one is the trial
        loads += static_cast<std::size_t>((loads == 0 ? 1 : 0) + (others + oven.pieces - 1) / oven.pieces);
    }
    ScheduleOptions options;
    options.tries = 5;
    const PressPlan plan = press_plan(job.order, fitted, transfers(job.order, fitted, job.facts), options);
    EXPECT_TRUE(schedule_faults(plan.shop, plan.schedule).empty());
    EXPECT_EQ(plan.loads.size(), loads) << "by the tray";
    const ChosenRecipe recipe = recipe_for(job.order, job.order.decorations[0]);
    EXPECT_NE(recipe.from.find("in an oven"), std::string::npos);
    const double baked = recipe.steps.at(0).seconds;
    EXPECT_GE(baked, 300) << "minutes, where a press takes seconds; and no rule for ceramic lengthens it";
    EXPECT_EQ(recipe.steps.at(0).celsius, 190);
    double under = 0;
    for (const ShopTask& j : plan.shop.tasks)
        for (const Phase& p : j.phases) under += !p.hand && p.seconds == baked ? p.seconds : 0;
    EXPECT_DOUBLE_EQ(under, baked * static_cast<double>(plan.loads.size()));
    EXPECT_GE(plan.bound, under) << "one oven";
}

TEST(PressPlan, LateAndWithoutARecipeIsSaid) {
    Job_ job = demo();
    job.order.press_run.due = job.order.press_run.start + 30;
    find_decoration(job.order, "crew-kite")->press.clear();
    ScheduleOptions options;
    options.tries = 0;
    const PressPlan plan = press_plan(job.order, job.plan, job.set, options);
    std::set<std::string> codes;
    for (const Finding& f : plan.findings) codes.insert(f.code);
    EXPECT_TRUE(codes.contains("press-late"));
    EXPECT_TRUE(codes.contains("not-in-press-plan"));
    EXPECT_TRUE(std::none_of(plan.loads.begin(), plan.loads.end(), [](const Load& l) { return l.decoration == "crew-kite"; }));
}

TEST(PressPlan, SharedPressesAreNoSlower) {
    Job_ job = demo();
    ScheduleOptions options;
    options.tries = 60;
    job.order.press_run.hands = 4;
    const PressPlan own = press_plan(job.order, job.plan, job.set, options);
    job.order.press_run.share_presses = true;
    const PressPlan shared = press_plan(job.order, job.plan, job.set, options);
    EXPECT_TRUE(schedule_faults(shared.shop, shared.schedule).empty());
    EXPECT_LE(shared.bound, own.bound + 1e-6);
    EXPECT_LE(shared.schedule.end, own.schedule.end * 1.02);
}

TEST(Words, TimesAndTemperaturesAsPeopleSayThem) {
    PressRun run;
    run.start = 8 * 60 + 5;
    EXPECT_EQ(time_of_day(run, 0), "8:05");
    EXPECT_EQ(time_of_day(run, 29), "8:05");
    EXPECT_EQ(time_of_day(run, 3 * 3600 + 55 * 60), "12:00");
    EXPECT_EQ(time_of_day(run, 16 * 3600), "0:05 (+1 d)");
    EXPECT_EQ(duration_words(48), "48 s");
    EXPECT_EQ(duration_words(59.6), "1 min") << "not 60 s";
    EXPECT_EQ(duration_words(95), "1 min 35 s");
    EXPECT_EQ(duration_words(1205), "20 min");
    EXPECT_EQ(duration_words(3600), "1 h");
    EXPECT_EQ(duration_words(4320), "1 h 12 min");
    EXPECT_EQ(heat_words(150), "150 °C");
    EXPECT_EQ(heat_words(150, true), "302 °F");
    EXPECT_DOUBLE_EQ(fahrenheit_of(-40), -40);
}

TEST(Words, AnOvenIsAskedForNoPressure) {
    RecipeStep s = step(StepKind::press, 190, 420);
    s.pressure = Pressure::light;
    EXPECT_EQ(step_words(s), "press 420 s at 190 °C, light");
    EXPECT_EQ(step_words(s, false, true), "heat 420 s at 190 °C");
    EXPECT_EQ(recipe_words({s, step(StepKind::wait, 0, 60)}, false, true), "heat 420 s at 190 °C · wait 60 s");
}

TEST(Recipe, HotMustBePeeledBeforeItGripsAgainAndCoolCanWait) {
    RecipeStep peel = step(StepKind::peel, 0, 4);
    peel.peel = Peel::hot;
    const PeelWindow hot = peel_window(peel);
    peel.peel = Peel::warm;
    const PeelWindow warm = peel_window(peel);
    peel.peel = Peel::cool;
    const PeelWindow cool = peel_window(peel);
    EXPECT_EQ(hot.least, 4);
    ASSERT_TRUE(hot.most && warm.most);
    EXPECT_GT(*hot.most, hot.least);
    EXPECT_GT(*warm.most, *hot.most);
    EXPECT_FALSE(cool.most);
}

}  // namespace TESTED
}  // namespace orthema
