// Simulated presses over their line, and ten fault drills: nothing is lost, and each is said in a sentence.
#include <filesystem>
#include <thread>

#include "core/pressing/shift.h"
#include "devices/press.h"
#include "files/order_file.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

TEST(PressModel, LagsRecoversAndHolds) {
    PressModel p(30, 6);
    EXPECT_EQ(p.answer("SET 150"), "OK");
    p.pass(60);
    EXPECT_GT(p.plate(), 30);
    EXPECT_LT(p.plate(), 60) << "30 degrees a minute, no more";
    p.pass(1200);
    for (int k = 0; k < 100; ++k) {  // swings about what is asked, by a few degrees
        p.pass(1);
        EXPECT_NEAR(p.plate(), 150, 4);
    }
    EXPECT_EQ(p.answer("LOAD 2"), "OK");
    EXPECT_EQ(p.answer("CLOSE"), "OK");
    double lowest = 150;
    for (int k = 0; k < 60; ++k) {
        p.pass(0.5);
        lowest = std::min(lowest, p.plate());
    }
    EXPECT_LT(lowest, 148) << "a cold load takes heat out of it";
    p.pass(120);
    EXPECT_NEAR(p.plate(), 150, 4) << "and it recovers";
    const auto r = reading_from(*p.answer("READ"));
    ASSERT_TRUE(r);
    EXPECT_TRUE(r->closed);
    EXPECT_NEAR(r->closed_for, 150, 1);
    EXPECT_DOUBLE_EQ(r->asked, 150);
}

TEST(PressModel, AnswersNonsenseWithASentence) {
    PressModel p;
    for (const char* line :
         {"", "SET", "SET x", "SET 9999", "SET nan", "SET -4", "PRESSURE huge", "LOAD -1", "FAULT fire", "\x01\x02", "READX"})
        EXPECT_EQ(p.answer(line)->rfind("ERROR", 0), 0u) << line;
    EXPECT_EQ(p.answer(std::string(5000, 'A'))->rfind("ERROR", 0), 0u);
    EXPECT_EQ(p.answer("CLOSE"), "OK");
    EXPECT_EQ(p.answer("CLOSE")->rfind("ERROR", 0), 0u);
    for (const char* line : {"", "READING", "READING a b open 0", "OK", "READING 1 2"}) EXPECT_FALSE(reading_from(line)) << line;
}

/// A press on a socket of its own, served by a thread.
struct Served {
    test::Folder folder;
    std::string path = folder / "press";
    PressModel model{600, 60};
    bool stop = false;
    std::thread thread;
    explicit Served(double speed = 200) {
        thread = std::thread([this, speed] { (void)serve_press(path, model, speed, stop); });
    }
    ~Served() {
        stop = true;
        thread.join();
    }
    std::unique_ptr<PressLine> line() {
        for (int k = 0; k < 200; ++k) {
            if (auto l = connect_press(path)) return std::move(*l);
            std::this_thread::sleep_for(std::chrono::milliseconds(10));
        }
        return nullptr;
    }
};

std::string ask(PressLine& line, const std::string& words) {
    line.send(words);
    for (int k = 0; k < 300; ++k) {
        if (const auto a = line.receive()) return *a;
        std::this_thread::sleep_for(std::chrono::milliseconds(5));
    }
    return "nothing";
}

TEST(PressLine, SpeaksOverALocalSocket) {
    Served served;
    auto line = served.line();
    ASSERT_TRUE(line);
    EXPECT_EQ(ask(*line, "HELLO"), "PRESS 1");
    EXPECT_EQ(ask(*line, "SET 120"), "OK");
    double celsius = 0;
    for (int k = 0; k < 200 && celsius < 117; ++k) {
        const auto r = reading_from(ask(*line, "READ"));
        ASSERT_TRUE(r);
        celsius = r->celsius;
        std::this_thread::sleep_for(std::chrono::milliseconds(10));
    }
    EXPECT_GE(celsius, 117);
    EXPECT_EQ(ask(*line, "ERRR").rfind("ERROR", 0), 0u);
    // the newest caller has the line; the old one learns that it is gone
    auto other = served.line();
    EXPECT_EQ(ask(*other, "HELLO"), "PRESS 1");
    for (int k = 0; k < 100 && line->alive(); ++k) {
        (void)line->receive();
        std::this_thread::sleep_for(std::chrono::milliseconds(5));
    }
    EXPECT_FALSE(line->alive());
    EXPECT_FALSE(line->send("READ"));
}

TEST(PressLine, NobodyThereIsASentence) {
    test::Folder folder;
    EXPECT_NE(connect_press(folder / "none").sentence().find("No press answers"), std::string::npos);
    EXPECT_FALSE(connect_press(folder / std::string(300, 'x')).ok());
    PressModel model;
    EXPECT_FALSE(serve_press("/nowhere/at/all", model, 1, false).ok());
    const test::Folder mine;
    test::spill(mine / "diary", "kept for years");
    const auto refused = serve_press(mine / "diary", model, 1, true);
    ASSERT_FALSE(refused.ok());
    EXPECT_NE(refused.sentence().find("stays as it is"), std::string::npos);
    EXPECT_EQ(test::slurp(mine / "diary"), "kept for years");
}

/// A shift of three pieces with one simulated press stepped by hand, so that a drill is the same each time.
struct Drill {
    Order order;
    ArtFactsById facts;
    PressPlan plan;
    std::optional<Shift> shift;
    PressModel model{60, 12};
    int press = -1;
    double now = 0;
    bool line_up = true;
    double asked = 0;
    std::vector<std::string> said;
    bool closed = false;

    Drill() : order(test::small_order()) {
        order.press_run.trials = false;
        order.lines.resize(1);
        order.lines[0].quantity = 3;
        facts = facts_of(load_all_art(order, test::small_art(), nullptr));
        const FitPlan fitted = fit(order, facts);
        const TransferSet set = transfers(order, fitted, facts);
        ScheduleOptions options;
        options.tries = 10;
        plan = press_plan(order, fitted, set, options);
        for (const Slot& s : plan.schedule.places) press = std::max(press, s.machine);
        shift.emplace(plan);
    }
    /// One second of press, line and hand.
    void second() {
        now += 1;
        model.pass(1);
        const auto card = shift->card();
        if (line_up && card && card->machine == press && shift->asked(*card) != asked && shift->counting().empty()) {
            asked = shift->asked(*card);
            (void)model.answer("SET " + std::to_string(asked));
        }
        const bool counts = !shift->counting().empty();
        if (line_up && counts != closed) {
            (void)model.answer(counts ? "LOAD 1" : "LOAD 0");
            (void)model.answer(counts ? "CLOSE" : "OPEN");
            closed = counts;
        }
        const auto answer = line_up ? model.answer("READ") : std::nullopt;
        const auto reading = answer ? reading_from(*answer) : std::nullopt;
        if (reading)
            shift->reading(press, reading->celsius, now);
        else
            shift->lost(press, now);
        shift->tick(now);
        if (const std::string f = shift->press_fault(now); !f.empty() && (said.empty() || said.back() != f)) said.push_back(f);
        (void)shift->next(now);
    }
    bool until(const std::function<bool()>& there, int most = 20000) {
        for (int k = 0; k < most; ++k) {
            if (there()) return true;
            second();
        }
        return there();
    }
    bool counting() const {
        return std::any_of(shift->counting().begin(), shift->counting().end(), [](const Countdown& c) { return c.began >= 0; });
    }
    /// All three pieces are pressed in the end, and the fault was named.
    void ends_well(const std::string& word) {
        EXPECT_TRUE(until([&] { return shift->over(); }));
        EXPECT_EQ(shift->loads_done(), 3);
        EXPECT_EQ(shift->notes().size(), 3u);
        EXPECT_TRUE(std::any_of(said.begin(), said.end(),
                                [&](const std::string& s) { return s.find(word) != std::string::npos && s.back() == '.'; }) ||
                    (!said.empty() && said.back().find(word) != std::string::npos))
            << (said.empty() ? "nothing was said" : said.back());
    }
    void fault(const char* which) { (void)model.answer(std::string("FAULT ") + which); }
};

TEST(FaultDrill, PowerIsLostWhileItHeats) {
    Drill d;
    d.until([&] { return d.now > 60; });
    d.fault("power-lost");
    d.until([&] { return d.now > 400; });
    EXPECT_EQ(d.shift->loads_done(), 0);
    d.fault("none");
    d.ends_well("does not answer");
}

TEST(FaultDrill, PowerIsLostUnderHeat) {
    Drill d;
    ASSERT_TRUE(d.until([&] { return d.counting(); }));
    d.fault("power-lost");
    for (int k = 0; k < 60; ++k) d.second();
    d.fault("none");
    d.ends_well("open it by hand");
}

TEST(FaultDrill, OverheatsUnderHeat) {
    Drill d;
    ASSERT_TRUE(d.until([&] { return d.counting(); }));
    d.fault("overheats");
    ASSERT_TRUE(d.until([&] { return !d.said.empty(); }, 400));
    d.fault("none");
    d.ends_well("too hot");
}

TEST(FaultDrill, OverheatsBeforeALoadAndNothingCountsUnderIt) {
    Drill d;
    ASSERT_TRUE(d.until([&] { return d.model.plate() > 140; }));
    d.fault("overheats");
    for (int k = 0; k < 300; ++k) d.second();
    EXPECT_EQ(d.shift->loads_done(), 0);
    EXPECT_FALSE(d.counting());
    EXPECT_NE(d.shift->waits_for(d.now), "");
    d.fault("none");
    d.ends_well("too hot");
}

TEST(FaultDrill, NeverReachesItsHeat) {
    Drill d;
    d.fault("never-reaches");
    d.until([&] { return d.now > 2000; });
    EXPECT_EQ(d.shift->loads_done(), 0);
    d.fault("none");
    d.ends_well("does not reach");
}

TEST(FaultDrill, DriftsAwayUnderHeat) {
    Drill d;
    ASSERT_TRUE(d.until([&] { return d.shift->loads_done() >= 1; }));
    d.fault("drifts");
    for (int k = 0; k < 1500; ++k) d.second();
    d.said.emplace_back(d.shift->waits_for(d.now));
    EXPECT_LT(d.shift->loads_done(), 3) << "a drifting plate is not pressed with";
    d.fault("none");
    d.ends_well("must be at");
}

TEST(FaultDrill, TheLineDiesMidStep) {
    Drill d;
    ASSERT_TRUE(d.until([&] { return d.counting(); }));
    const double left = Shift::left(d.shift->counting()[0], d.now);
    d.line_up = false;
    d.second();
    EXPECT_NEAR(Shift::left(d.shift->counting().empty() ? Countdown{0, 0, 0, left, d.now - 1} : d.shift->counting()[0], d.now), left - 1,
                1.01)
        << "what counts goes on counting: the press is closed";
    for (int k = 0; k < 30; ++k) d.second();
    d.line_up = true;
    d.ends_well("does not answer");
}

TEST(FaultDrill, TheLineDiesBeforeTheFirstLoad) {
    Drill d;
    d.line_up = false;
    for (int k = 0; k < 200; ++k) d.second();
    EXPECT_EQ(d.shift->loads_done(), 0);
    d.line_up = true;
    d.ends_well("does not answer");
}

TEST(FaultDrill, ItSaysNothing) {
    Drill d;
    ASSERT_TRUE(d.until([&] { return d.shift->loads_done() >= 1; }));
    d.fault("silent");
    for (int k = 0; k < 100; ++k) d.second();
    d.fault("none");
    d.ends_well("does not answer");
}

TEST(FaultDrill, AFaultAndAScorchedPieceAtOnce) {
    Drill d;
    ASSERT_TRUE(d.until([&] { return d.counting(); }));
    d.fault("overheats");
    ASSERT_TRUE(d.until([&] { return !d.said.empty(); }, 400));
    const auto lost = d.shift->report(PressFault::scorched, d.order, d.now);
    EXPECT_EQ(lost.size(), 1u);
    d.fault("none");
    EXPECT_TRUE(d.until([&] { return d.shift->over(); }));
    int pressed = 0, scorched = 0;
    for (const ShiftNote& n : d.shift->notes()) {
        pressed += n.what == "pressed" ? 1 : 0;
        scorched += n.what == "scorched" ? 1 : 0;
    }
    EXPECT_EQ(pressed, 2);
    EXPECT_EQ(scorched, 1);
}

}  // namespace TESTED
}  // namespace orthema
