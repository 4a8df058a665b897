// The Press bench through mouse and keys: the plan, recipes, heat, and a whole rehearsal against the simulated press.
#include "app/benches/press/lanes_view.h"
#include "app/benches/press/press_bench.h"
#include "app/benches/press/press_desk.h"
#include "app/benches/press/step_card.h"
#include "app/widgets/figures.h"
#include "files/safe_file.h"
#include "files/shift_file.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::SmallWindow;

struct PressWindow : SmallWindow {
    PressWindow() : SmallWindow(7) {}
    PressBench* press() { return bench<PressBench>("press"); }
    PressDesk& desk() { return press()->desk(); }
    const PressPlan& plan() { return room().press_plan(); }
    void view(const char* name) { click(find<QPushButton>(QString("Press view/") + name)); }
    void page(const char* name) { click(find<QPushButton>(QString("Press figures/") + name)); }
    /// A few pieces only, and no trial.
    void few(int pieces, bool trials = false) {
        Order next = order();
        next.lines.resize(1);
        next.lines[0].quantity = pieces;
        next.press_run.trials = trials;
        room().edit("few", next);
        wait();
    }
    void begin(int speed) {
        auto* box = find<QComboBox>("Speed");
        box->addItem("test", QString::number(speed));
        box->setCurrentIndex(box->count() - 1);
        click(find<QPushButton>("Begin the shift"));
    }
    /// Presses space until the card is of this kind.
    void to_a(ActKind kind) {
        QElapsedTimer timer;
        timer.start();
        while (desk().shift().card()->kind != kind && timer.elapsed() < 30000) {
            key(press()->card(), Qt::Key_Space);
            QTest::qWait(5);
        }
    }
    /// Presses space until so many loads are done.
    void to_loads(int done) {
        QElapsedTimer timer;
        timer.start();
        while (desk().shift().loads_done() < done && timer.elapsed() < 30000) {
            key(press()->card(), Qt::Key_Space);
            QTest::qWait(5);
        }
    }
    /// Presses space until all is done; false when it takes longer than that.
    bool to_the_end(int seconds = 60) {
        QElapsedTimer timer;
        timer.start();
        while (timer.elapsed() < 1000 * seconds) {
            if (!desk().running() || desk().shift().over()) return true;
            key(press()->card(), Qt::Key_Space);
            QTest::qWait(5);
        }
        return false;
    }
};

TEST(PressBench, PlansTheOrderAndFollowsIt) {
    PressWindow w;
    ASSERT_FALSE(w.plan().loads.empty());
    EXPECT_TRUE(schedule_faults(w.plan().shop, w.plan().schedule).empty());
    EXPECT_NE(w.find<QLabel>("Plan summary")->text().indexOf("less than one after the other"), -1);
    const double before = w.plan().schedule.end;
    w.type(w.find<QLineEdit>("People at the presses"), "3");
    w.wait();
    EXPECT_EQ(w.order().press_run.hands, 3);
    EXPECT_LE(w.plan().schedule.end, before + 1);
    w.type(w.find<QLineEdit>("Begins"), "9:30");
    w.wait();
    EXPECT_EQ(w.order().press_run.start, 570);
    w.type(w.find<QLineEdit>("Breaks"), "10:00-10:15, 12:00-12:30");
    w.wait();
    EXPECT_EQ(w.order().press_run.breaks.size(), 2u);
    w.type(w.find<QLineEdit>("Breaks"), "12:30-12:00");
    EXPECT_EQ(w.order().press_run.breaks.size(), 2u) << "a break that ends before it begins is refused";
    w.type(w.find<QLineEdit>("Due by"), "9:40");
    w.wait();
    EXPECT_TRUE(
        std::any_of(w.room().findings().begin(), w.room().findings().end(), [](const Finding& f) { return f.code == "press-late"; }));
    for (int k = 0; k < 4; ++k) w.undo();
    w.wait();
    EXPECT_EQ(w.order().press_run, PressRun{});
}

TEST(PressBench, ALoadIsDraggedAndStaysThere) {
    PressWindow w;
    w.few(5);
    const int load = 2;
    const QPoint at = w.press()->lanes()->place_of(load);
    const double was = w.plan().schedule.places[std::size_t(w.plan().loads[load].tasks.front())].start;
    w.drag(w.press()->lanes(), at, at + QPoint(150, 0));
    w.wait();
    ASSERT_EQ(w.order().press_run.pins.size(), 1u);
    const LoadPin pin = w.order().press_run.pins[0];
    EXPECT_GT(pin.start, was + 10);
    const auto& l = *std::find_if(w.plan().loads.begin(), w.plan().loads.end(), [&](const Load& o) { return o.id == pin.load; });
    EXPECT_DOUBLE_EQ(w.plan().schedule.places[std::size_t(l.tasks.front())].start, pin.start);
    w.click(w.find<QPushButton>("Unpin it"));
    w.wait();
    EXPECT_TRUE(w.order().press_run.pins.empty());
}

TEST(PressBench, SeveralLoadsInHandArePinnedMovedAndLetGoTogether) {
    PressWindow w;
    w.few(5);
    LanesView* lanes = w.press()->lanes();
    const auto start = [&](int load) {
        return w.plan().schedule.places[std::size_t(w.plan().loads[std::size_t(load)].tasks.front())].start;
    };
    QTest::mouseClick(lanes, Qt::LeftButton, {}, lanes->place_of(1));
    QTest::mouseClick(lanes, Qt::LeftButton, Qt::ShiftModifier, lanes->place_of(3));
    w.wait();
    EXPECT_EQ(lanes->in_hand(), (std::set<int>{1, 3}));
    const std::map<std::string, double> were{{w.plan().loads[1].id, start(1)}, {w.plan().loads[3].id, start(3)}};
    w.click(w.find<QPushButton>("Pin it there"));
    w.wait();
    ASSERT_EQ(w.order().press_run.pins.size(), 2U);
    for (const LoadPin& p : w.order().press_run.pins) EXPECT_EQ(p.start, std::round(were.at(p.load))) << p.load;
    w.drag(lanes, lanes->place_of(1), lanes->place_of(1) + QPoint(60, 0));
    w.wait();
    ASSERT_EQ(w.order().press_run.pins.size(), 2U);
    std::set<double> by;
    for (const LoadPin& p : w.order().press_run.pins) by.insert(std::round(p.start - were.at(p.load)));
    EXPECT_EQ(by.size(), 1U) << "both by as much";
    EXPECT_GT(*by.begin(), 5);
    w.click(w.find<QPushButton>("Unpin it"));
    w.wait();
    EXPECT_TRUE(w.order().press_run.pins.empty());
    QTest::keyClick(lanes, Qt::Key_Down, Qt::ShiftModifier);
    EXPECT_GE(lanes->in_hand().size(), 2U);
    QTest::keyClick(lanes, Qt::Key_Down);
    EXPECT_EQ(lanes->in_hand().size(), 1U);
}

TEST(PressBench, PlanningOnNeverMakesItLonger) {
    PressWindow w;
    const double before = w.plan().schedule.end;
    w.click(w.find<QPushButton>("Find a shorter plan"));
    QTest::qWait(400);
    w.click(w.find<QPushButton>("Find a shorter plan"));  // now it stops
    w.wait();
    EXPECT_FALSE(w.room().planner().running());
    EXPECT_LE(w.plan().schedule.end, before + 1e-6);
    EXPECT_TRUE(schedule_faults(w.plan().shop, w.plan().schedule).empty());
}

TEST(PressBench, OwnFiguresForThisBlankAndPress) {
    PressWindow w;
    w.page("Recipe");
    const ChosenRecipe usual = recipe_for(w.order(), w.order().decorations[0]);
    w.type(w.find<QLineEdit>("Seconds"), "17");
    w.wait();
    ChosenRecipe own = recipe_for(w.order(), w.order().decorations[0]);
    EXPECT_FALSE(own.tried);
    EXPECT_TRUE(
        std::any_of(own.steps.begin(), own.steps.end(), [](const RecipeStep& s) { return s.kind == StepKind::press && s.seconds == 17; }));
    EXPECT_NE(w.find<QLabel>("Recipe from")->text().indexOf("not tried"), -1);
    w.click(w.find<QPushButton>("Add a step"));
    w.choose(w.find<QComboBox>("What"), "turn");
    w.wait();
    own = recipe_for(w.order(), w.order().decorations[0]);
    EXPECT_EQ(own.steps.size(), usual.steps.size() + 1);
    EXPECT_TRUE(std::any_of(own.steps.begin(), own.steps.end(), [](const RecipeStep& s) { return s.kind == StepKind::turn; }));
    w.click(w.find<QPushButton>("Back to the usual values"));
    w.wait();
    EXPECT_EQ(recipe_for(w.order(), w.order().decorations[0]).steps, usual.steps);
    w.page("Heat");
    EXPECT_NE(w.find<QLabel>("Heat ledger")->text().indexOf("holds"), -1);
}

TEST(PressBench, AWholeRehearsalAgainstTheSimulatedPress) {
    PressWindow w;
    w.few(4, true);
    ASSERT_TRUE(w.plan().loads[0].trial);
    w.begin(300);
    ASSERT_TRUE(w.desk().running());
    ASSERT_TRUE(w.to_the_end());
    EXPECT_EQ(w.desk().shift().loads_done(), 4);
    EXPECT_TRUE(w.desk().connected());
    const int machine = w.desk().shift().plan().shop.tasks[0].machines[0];
    EXPECT_TRUE(w.desk().shift().reading_of(machine).known);
    EXPECT_NEAR(w.desk().shift().reading_of(machine).celsius, w.desk().shift().plan().shop.tasks[0].state.celsius, 25);
    ASSERT_EQ(w.order().trials.size(), 1u) << "the trial piece was passed";
    EXPECT_EQ(w.order().trials[0].result, TrialResult::released_clean);
    EXPECT_TRUE(recipe_for(w.order(), w.order().decorations[0]).tried);
    w.click(w.find<QPushButton>("Begin the shift"));
    EXPECT_FALSE(w.desk().running());
    // saved and opened again, the trial is still there, and no trial is planned any more
    w.wait();
    EXPECT_FALSE(w.plan().loads[0].trial);
    const std::string path = w.data("pressed.orthema");
    w.room().keeper().save(QString::fromStdString(path));
    w.wait();
    const Order kept = w.order();
    w.open(path);
    EXPECT_EQ(w.order(), kept);
}

TEST(PressBench, FilmIsMadeCardByCardWithTheCautionsOfThatWork) {
    PressWindow t;
    t.few(2);
    Order laid = t.order();
    test::lay_anyhow(laid, t.room().transfer_set(), 1);
    t.room().edit("laid", laid);
    t.wait();
    t.click(t.find<QCheckBox>("Film is made on the day"));
    t.wait();
    ASSERT_TRUE(t.order().press_run.makes_film);
    t.begin(6000);
    std::vector<std::string> cards;
    std::set<std::string> cautions;
    const auto look = [&] {
        const auto card = t.desk().running() ? t.desk().shift().card() : std::nullopt;
        if (!card) return;
        const Load& load = load_of(t.desk().shift().plan(), card->task);
        const std::string words = card_words(t.desk().shift().plan(), *card);
        if (load.film.sheet == 0 || (!cards.empty() && cards.back() == words)) return;
        cards.push_back(words);
        cautions.insert(step_caution(t.order(), load, card->kind));
        EXPECT_NE(card_how(t.order(), t.desk().shift().plan(), *card), "");
    };
    QObject until_then;
    QObject::connect(&t.desk(), &PressDesk::card_changed, &until_then, look);
    QObject::connect(&t.desk(), &PressDesk::ticked, &until_then, look);
    look();
    EXPECT_TRUE(t.to_the_end());
    EXPECT_EQ(cards, (std::vector<std::string>{"Print the film", "Let it print", "Powder the film", "Cure the film", "Cut apart"}));
    const auto said = [&](const char* word) {
        return std::any_of(cautions.begin(), cautions.end(), [&](const std::string& c) { return c.find(word) != std::string::npos; });
    };
    EXPECT_TRUE(said("Mask and gloves") && said("Ventilate") && said("never cooks food"));
    EXPECT_EQ(t.desk().shift().loads_done(), int(t.desk().shift().plan().loads.size()));
}

TEST(PressBench, AScorchedPieceIsPrintedAgain) {
    PressWindow w;
    w.few(3);
    w.begin(300);
    w.to_a(ActKind::unload);
    ASSERT_EQ(w.desk().shift().card()->kind, ActKind::unload);
    QTimer::singleShot(200, [] {  // the menu runs its own loop
        auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
        ASSERT_NE(menu, nullptr);
        for (QAction* a : menu->actions())
            if (a->text() == "Scorched") {
                menu->setActiveAction(a);
                QTest::keyClick(menu, Qt::Key_Return);
                return;
            }
    });
    w.key(w.press()->card(), Qt::Key_F);
    ASSERT_EQ(w.order().reprints.size(), 1u);
    EXPECT_EQ(w.order().reprints[0].cause, "scorched");
    EXPECT_NE(w.notice().find("printed again"), std::string::npos);
    ASSERT_TRUE(w.to_the_end());
    w.wait();
    int asked = 0;
    for (const Transfer& t : w.room().transfer_set().transfers) asked += t.count();
    EXPECT_EQ(asked, 4) << "three pieces and one more";
}

TEST(PressBench, ATrialThatScorchedHoldsItsRunUntilAFigureIsChangedOrItIsToldToGoOn) {
    PressWindow w;
    w.few(3, true);
    w.begin(400);
    w.view("step card");
    const std::string trial = w.desk().shift().plan().loads[0].id;
    ASSERT_TRUE(w.desk().shift().plan().loads[0].trial);
    const double pressed_at = recipe_for(w.order(), w.order().decorations[0]).steps[1].celsius;
    w.to_a(ActKind::check);
    w.desk().report(PressFault::scorched);
    w.wait();
    // nothing of the run is offered, whatever is pressed
    for (int k = 0; k < 20; ++k) w.key(w.press()->card(), Qt::Key_Space);
    ASSERT_EQ(w.desk().shift().held(), (std::vector<HeldRun>{{trial, PressFault::scorched}}));
    EXPECT_FALSE(w.desk().shift().card());
    EXPECT_TRUE(w.desk().shift().coming(3).empty()) << "what is held does not come";
    EXPECT_FALSE(w.desk().shift().over());
    auto* held = w.find<QFrame>("Held runs");
    ASSERT_NE(held, nullptr);
    EXPECT_TRUE(held->findChild<QLabel*>()->text().contains("scorched"));
    // milder, and the trial once more
    QPushButton* milder = nullptr;
    for (QPushButton* b : held->findChildren<QPushButton*>())
        if (b->text().startsWith(QStringLiteral("Press at"))) milder = b;
    ASSERT_NE(milder, nullptr);
    w.click(milder);
    w.wait();
    EXPECT_LT(recipe_for(w.order(), w.order().decorations[0]).steps[1].celsius, pressed_at);
    ASSERT_TRUE(w.desk().shift().card());
    EXPECT_TRUE(w.desk().shift().held().empty());
    EXPECT_EQ(load_of(w.desk().shift().plan(), w.desk().shift().card()->task).id, trial) << "the trial again";
    EXPECT_LT(w.desk().shift().plan().shop.tasks[0].state.celsius, pressed_at) << "at the milder heat";
    // it fails again, and is gone on with knowingly
    w.to_a(ActKind::check);
    w.desk().report(PressFault::lifted);
    w.wait();
    ASSERT_EQ(w.desk().shift().held().size(), 1u);
    w.click(w.find<QPushButton>("Go on as it is"));
    w.wait();
    EXPECT_TRUE(w.to_the_end()) << w.desk().says().toStdString();
    EXPECT_EQ(w.desk().shift().loads_done(), int(w.desk().shift().plan().loads.size()));
    int failed = 0;
    for (const Trial& t : w.order().trials) failed += t.result == TrialResult::scorched || t.result == TrialResult::lifted ? 1 : 0;
    EXPECT_EQ(failed, 2) << "both are kept";
}

TEST(PressBench, AShiftThatEndsEarlyGoesOnLaterAndTakesReplacementsIn) {
    PressWindow w;
    w.few(5);
    auto* go_on = w.window().findChild<QPushButton*>("Go on");
    ASSERT_NE(go_on, nullptr);
    EXPECT_FALSE(go_on->isVisible());
    w.begin(300);
    w.to_loads(2);
    w.desk().report(PressFault::crooked);
    w.wait();
    w.press()->refresh();
    ASSERT_NE(w.find<QPushButton>("Add to the shift"), nullptr);
    const int done = w.desk().shift().loads_done();
    w.click(w.find<QPushButton>("Begin the shift"));
    ASSERT_FALSE(w.desk().running());
    // what is on disk is what a lost program would find
    ASSERT_TRUE(w.desk().kept());
    EXPECT_EQ(w.desk().kept()->loads_done, done);
    ASSERT_TRUE(go_on->isVisible());
    EXPECT_NE(go_on->text().indexOf(QString("%1 of 5").arg(done)), -1);
    w.click(go_on);
    w.wait();
    ASSERT_TRUE(w.desk().running());
    EXPECT_EQ(w.desk().shift().loads_done(), done);
    EXPECT_EQ(w.desk().shift().plan().loads.size(), 6u) << "the replacement is in the plan that it goes on with";
    ASSERT_TRUE(w.to_the_end());
    EXPECT_EQ(w.desk().shift().loads_done(), 6);
    w.click(w.find<QPushButton>("Begin the shift"));
    EXPECT_FALSE(w.desk().kept()) << "all is pressed";
    EXPECT_FALSE(go_on->isVisible());
}

TEST(PressBench, AProgramThatIsLostFindsItsShiftAgain) {
    PressWindow w;
    w.few(8);  // more than can be done while the window comes up
    const std::string path = w.data("lost.orthema");
    w.room().keeper().save(QString::fromStdString(path));
    w.wait();
    w.begin(300);
    w.to_loads(2);
    const int done = w.desk().shift().loads_done();
    ASSERT_GE(done, 2);
    const auto shift_file = [&] {
        for (const auto& f : std::filesystem::directory_iterator(w.room().keeper().data_folder().toStdString() + "/shifts"))
            if (f.path().extension() == ".json") return f.path().string();
        return std::string();
    };
    EXPECT_TRUE(QTest::qWaitFor([&] { return !shift_file().empty(); }, 60000));
    const std::string kept = shift_file();
    EXPECT_NE(kept.find(file_stem(w.order().name)), std::string::npos);
    const auto on_disk = [&] {
        const auto text = read_file(kept);
        const auto shift = text ? shift_from(*text) : Result<KeptShift>(text.error());
        return shift ? shift->loads_done : -1;
    };
    EXPECT_TRUE(QTest::qWaitFor([&] { return on_disk() >= done; }, 60000));
    ASSERT_FALSE(w.desk().shift().over());
    // and then the power goes: no hand is at this window any more
    test::Window second(&w);
    second.open(path);
    second.go(7);
    PressDesk& desk = second.bench<PressBench>("press")->desk();
    ASSERT_TRUE(desk.kept());
    EXPECT_GE(desk.kept()->loads_done, done);
    EXPECT_LE(desk.kept()->loads_done, w.desk().shift().loads_done()) << "what cooled in the meantime";
    EXPECT_EQ(desk.kept()->loads, 8);
    // a damaged record is said, and nothing else is lost by it
    w.click(w.find<QPushButton>("Begin the shift"));
    ASSERT_FALSE(w.desk().running()) << "it does not write any more";
    ASSERT_GE(on_disk(), done);
    ASSERT_TRUE(write_file(kept, "{\"format\":\"orthema-shift/1\",\"order\":").ok());
    test::Window third(&w);
    third.open(path);
    third.go(7);
    EXPECT_NE(third.notice().find("cannot be read"), std::string::npos) << third.notice();
    EXPECT_FALSE(third.bench<PressBench>("press")->desk().kept());
    EXPECT_EQ(third.order().lines, w.order().lines);
}

TEST(StepCard, WordsFollowTheBlankAndThePress) {
    PressWindow w;
    Order order = w.order();
    Act load;
    load.kind = ActKind::load;
    const Load& first = load_of(w.plan(), load.task);
    EXPECT_NE(card_how(order, w.plan(), load).find("Smooth it flat"), std::string::npos);
    EXPECT_NE(step_caution(order, first, ActKind::press).find("unattended"), std::string::npos);
    for (Press& p : order.presses) p.kind = PressKind::oven;
    EXPECT_NE(card_how(order, w.plan(), load).find("tray"), std::string::npos);
    EXPECT_NE(step_caution(order, first, ActKind::press).find("never cooks food"), std::string::npos);
    for (Press& p : order.presses) p.kind = PressKind::flat;
    const std::pair<Family, const char*> others[] = {{Family::cap, "form"}, {Family::mug, "rim up"}, {Family::coaster, "square"}};
    for (const auto& [family, word] : others) {
        for (BlankStyle& s : order.styles) s.family = family;
        EXPECT_NE(card_how(order, w.plan(), load).find(word), std::string::npos) << family_name(family);
    }
}

TEST(PressBench, AReplacementIsTakenIntoTheShiftThatRuns) {
    PressWindow w;
    w.few(2);
    w.begin(300);
    w.to_a(ActKind::unload);
    w.desk().report(PressFault::lifted);
    w.wait();
    w.press()->refresh();
    auto* take_in = w.find<QPushButton>("Add to the shift");
    ASSERT_NE(take_in, nullptr);
    w.click(take_in);
    EXPECT_EQ(w.desk().waiting(), 0);
    EXPECT_FALSE(take_in->isVisible());
    EXPECT_EQ(w.desk().shift().plan().loads.size(), 3u);
    ASSERT_TRUE(w.to_the_end()) << "and space still goes on";
    EXPECT_EQ(w.desk().shift().loads_done(), 3);
}

TEST(PressBench, ALineThatIsPulledOutIsSaidAndNothingIsLost) {
    PressWindow w;
    w.few(2);
    w.begin(300);
    w.to_a(ActKind::press);
    const int machine = w.desk().shift().card()->machine;
    EXPECT_TRUE(w.desk().connected());
    w.desk().cut_line(machine);
    QTest::qWait(100);
    EXPECT_NE(w.desk().says().indexOf("does not answer"), -1);
    w.desk().connect_line(machine);
    ASSERT_TRUE(w.to_the_end());
    EXPECT_EQ(w.desk().shift().loads_done(), 2);
}

}  // namespace TESTED
}  // namespace orthema
