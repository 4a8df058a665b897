// What must never be lost: opening that fails, orders put aside, autosave, hostile files; and the shell around it.
#include "app/session/workroom.h"

#include <sys/stat.h>

#include "app/window/findings_strip.h"
#include "app/window/job_line.h"
#include "app/window/notice_bar.h"
#include "files/order_file.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::Window;

void save_small(const std::string& path, const std::string& name = "Small order") {
    Order order = test::small_order();
    order.name = name;
    ASSERT_TRUE(save_order(path, order, test::small_art()));
}

Order renamed(const Order& order, const std::string& name) {
    Order next = order;
    next.name = name;
    return next;
}

TEST(Workroom, OpeningWhatCannotBeOpenedLosesNothing) {
    Window w;
    save_small(w.data("a.orthema"));
    w.open(w.data("a.orthema"));
    w.room().edit("name", renamed(w.order(), "Changed by hand"));
    const Order now = w.order();
    test::spill(w.data("bad.orthema"), "PK\x03\x04 not really");
    for (const std::string& path : {w.data("bad.orthema"), w.data("missing.orthema"), w.data()}) {
        w.open(path);
        EXPECT_EQ(w.order(), now);
        EXPECT_TRUE(w.room().document().can_undo());
        EXPECT_FALSE(w.notice().empty());
        EXPECT_EQ(w.room().keeper().path().toStdString(), w.data("a.orthema"));
    }
}

TEST(Workroom, AnUnsavedOrderIsPutAsideAndCanBeBroughtBack) {
    Window w;
    save_small(w.data("a.orthema"));
    w.drop({test::source("demo/src/wind-rose.svg")});
    w.room().edit("name", renamed(w.order(), "Half done"));
    w.open(w.data("a.orthema"));
    EXPECT_EQ(w.order().name, "Small order");
    EXPECT_NE(w.notice().find("put aside"), std::string::npos) << w.notice();
    w.click(w.window().notices()->action());
    w.wait();
    EXPECT_EQ(w.order().name, "Half done");
    EXPECT_EQ(w.order().art.size(), 1u);
    EXPECT_TRUE(w.room().document().changed_since_saved()) << "it still is not saved";
    EXPECT_TRUE(w.room().keeper().path().isEmpty());
}

/// Takes what a start offers from before.
void bring_back(Window& w) {
    w.room().keeper().offer_put_aside();
    ASSERT_NE(w.notice().find("not saved"), std::string::npos) << w.notice();
    w.click(w.window().notices()->action());
    w.wait();
}

TEST(Workroom, ClosingKeepsWhatIsUnsavedForTheNextStart) {
    Window w;
    w.drop({test::source("demo/src/wind-rose.svg")});
    w.room().edit("name", renamed(w.order(), "Closed in a hurry"));
    w.close();
    Window second(&w);
    bring_back(second);
    EXPECT_EQ(second.order().name, "Closed in a hurry");
    // once saved, nothing is offered any more
    second.room().keeper().save(QString::fromStdString(second.data("kept.orthema")));
    second.wait();
    EXPECT_FALSE(second.room().document().changed_since_saved());
    second.close();
    Window third(&w);
    third.room().keeper().offer_put_aside();
    EXPECT_EQ(third.notice(), "");
}

TEST(Workroom, WhatCannotBePutAsideInItsPlaceIsKeptInAnotherAndSaid) {
    Window w;
    test::spill(w.data("data/aside"), "a file where the folder should be");
    w.drop({test::source("demo/src/wind-rose.svg")});
    w.room().edit("name", renamed(w.order(), "On a bad disk"));
    EXPECT_EQ(w.room().keeper().put_aside_now(), Keeper::Kept::kept);
    EXPECT_NE(w.notice().find("meanwhile"), std::string::npos) << w.notice();
    EXPECT_FALSE(w.room().keeper().kept_nowhere());
    w.close();
    Window second(&w);
    bring_back(second);
    EXPECT_EQ(second.order().name, "On a bad disk");
    EXPECT_EQ(second.order().art.size(), 1U);
}

TEST(Workroom, ADamagedShopLibraryOffersItsCopy) {
    Window w;
    BlankStyle style = w.room().library().content().styles[0];
    style.name = "Ours";
    w.room().library().keep(style);
    w.wait();
    w.close();
    { Window again(&w); }  // a start copies what it could read
    test::spill(w.data("data/shop.sqlite"), "SQLite format 3" + std::string(300, 'x'));
    Window third(&w);
    ASSERT_NE(third.notice().find("There is a copy"), std::string::npos) << third.notice();
    third.click(third.window().notices()->action());
    third.wait();
    const auto& styles = third.room().library().content().styles;
    EXPECT_TRUE(std::any_of(styles.begin(), styles.end(), [](const BlankStyle& s) { return s.name == "Ours"; }));
    EXPECT_TRUE(std::filesystem::exists(w.data("data/shop.sqlite.damaged-1")));
}

TEST(Workroom, WorkThatIsKeptNowhereIsSaidAndNothingTakesItAway) {
    Window w;
    save_small(w.data("a.orthema"));
    for (const char* place : {"data/aside", "state"}) {
        std::filesystem::remove_all(w.data(place));
        test::spill(w.data(place), "a file where the folder should be");
    }
    w.drop({test::source("demo/src/wind-rose.svg")});
    w.room().edit("name", renamed(w.order(), "Nowhere to go"));
    EXPECT_EQ(w.room().keeper().put_aside_now(), Keeper::Kept::nowhere);
    EXPECT_NE(w.notice().find("kept nowhere"), std::string::npos) << w.notice();
    w.open(w.data("a.orthema"));
    EXPECT_EQ(w.order().name, "Nowhere to go") << "another order does not push it off the table";
    const auto answer = [&](const QString& with) {
        QTimer::singleShot(200, &w.window(), [with] {
            for (QWidget* top : QApplication::topLevelWidgets())
                for (QPushButton* b : top->findChildren<QPushButton*>())
                    if (top->objectName() == QStringLiteral("Kept nowhere") && b->text() == with) b->click();
        });
        return w.window().close();
    };
    EXPECT_FALSE(answer("Stay here"));
    EXPECT_TRUE(w.window().isVisible());
    // mended, it is said once, and closing asks nothing
    std::filesystem::remove(w.data("data/aside"));
    EXPECT_EQ(w.room().keeper().put_aside_now(), Keeper::Kept::kept);
    EXPECT_NE(w.notice().find("again"), std::string::npos) << w.notice();
    EXPECT_FALSE(w.room().keeper().kept_nowhere());
    EXPECT_TRUE(w.window().close());
}

TEST(Workroom, TwoProgramsOnOneOrderLoseNobodysWork) {
    for (const char* choice : {"Save beside", "Take theirs", "Stay here"}) {
        Window w;
        save_small(w.data("a.orthema"));
        w.open(w.data("a.orthema"));
        w.room().edit("name", renamed(w.order(), "Mine"));
        save_small(w.data("a.orthema"), "Theirs");
        bool asked = false;
        QTimer hand;
        QObject::connect(&hand, &QTimer::timeout, [&] {
            for (QWidget* top : QApplication::topLevelWidgets())
                for (QPushButton* b : top->findChildren<QPushButton*>())
                    if (top->objectName() == QStringLiteral("Written by another") && b->text() == choice) {
                        asked = true;
                        b->click();
                    }
        });
        hand.start(50);
        w.room().keeper().save(w.room().keeper().path());
        w.wait();
        hand.stop();
        EXPECT_TRUE(asked) << choice;
        EXPECT_EQ(open_order(w.data("a.orthema"))->order.name, "Theirs") << "whatever is chosen, theirs stays";
        const std::string what = choice;
        EXPECT_EQ(w.order().name, what == "Take theirs" ? "Theirs" : "Mine");
        if (what == "Save beside") {
            EXPECT_EQ(open_order(w.data("a (2).orthema"))->order.name, "Mine");
            w.room().edit("name", renamed(w.order(), "Mine again"));
            w.room().keeper().save(w.room().keeper().path());  // its own file now: nobody is asked
            w.wait();
            EXPECT_EQ(open_order(w.data("a (2).orthema"))->order.name, "Mine again");
        }
        if (what == "Take theirs") EXPECT_NE(w.notice().find("later state"), std::string::npos) << w.notice() << " (mine)";
        w.room().edit("name", renamed(w.order(), "Small order"));
    }
}

TEST(Workroom, TwoProgramsKeepTheirUnsavedStatesApart) {
    Window w;
    save_small(w.data("a.orthema"));
    w.open(w.data("a.orthema"));
    w.room().edit("name", renamed(w.order(), "Mine"));
    EXPECT_EQ(w.room().keeper().put_aside_now(), Keeper::Kept::kept);
    const std::string beside = autosave_path(w.data("a.orthema"));
    const auto aside = [&] {
        std::set<std::string> names;
        if (std::filesystem::exists(w.data("data/aside")))
            for (const auto& f : std::filesystem::directory_iterator(w.data("data/aside")))
                if (f.path().extension() == ".orthema") names.insert(open_order(f.path().string())->order.name);
        return names;
    };
    {
        Window other(&w);
        other.open(w.data("a.orthema"));
        other.room().edit("name", renamed(other.order(), "Theirs"));
        EXPECT_EQ(other.room().keeper().put_aside_now(), Keeper::Kept::kept);
        EXPECT_EQ(open_order(beside)->order.name, "Mine");
        EXPECT_EQ(aside(), std::set<std::string>{"Theirs"});
        other.room().keeper().save(other.room().keeper().path());
        other.wait();
        EXPECT_EQ(aside(), std::set<std::string>{"Mine"}) << "moved to where it is offered; their own is saved, and gone";
    }
    // and this one goes on under its own name
    w.room().edit("name", renamed(w.order(), "Mine still"));
    EXPECT_EQ(w.room().keeper().put_aside_now(), Keeper::Kept::kept);
    EXPECT_EQ(open_order(beside)->order.name, "Mine still");
    w.room().edit("name", renamed(w.order(), "Small order"));
}

TEST(Workroom, AnEarlierWritingNeverTakesTheLaterOnesPlace) {
    Window w;
    save_small(w.data("a.orthema"));
    w.open(w.data("a.orthema"));
    const std::string beside = autosave_path(w.data("a.orthema"));
    Keeper& keeper = w.room().keeper();
    for (int k = 0; k < 20; ++k) {
        const std::string later = "Later " + std::to_string(k);
        w.room().edit("name", renamed(w.order(), "Earlier"));
        keeper.autosave();
        w.room().edit("name", renamed(w.order(), later));
        ASSERT_EQ(keeper.put_aside_now(), Keeper::Kept::kept);
        w.wait();
        ASSERT_EQ(open_order(beside)->order.name, later);
    }
    w.room().edit("name", renamed(w.order(), "Saved"));
    keeper.autosave();
    keeper.save(keeper.path());
    w.wait();
    EXPECT_EQ(open_order(w.data("a.orthema"))->order.name, "Saved");
    EXPECT_FALSE(std::filesystem::exists(beside));
    EXPECT_TRUE(!std::filesystem::exists(w.data("data/aside")) || std::filesystem::is_empty(w.data("data/aside")));
}

TEST(Workroom, AnOrderTakesNoMoreThanItCanBeOpenedWith) {
    Window w;
    save_small(w.data("a.orthema"));
    w.open(w.data("a.orthema"));
    const Order before = w.order();
    Order more = before;
    for (int k = 0; k < 20001; ++k) more.lines.push_back(before.lines[0]);
    w.room().edit("lines", more);
    EXPECT_EQ(w.order(), before);
    EXPECT_NE(w.notice().find("at most 20,000"), std::string::npos) << w.notice();
    more = before;
    more.name = std::string(4001, 'n');
    w.room().edit("name", more);
    EXPECT_EQ(w.order(), before);
    EXPECT_FALSE(w.room().document().can_undo());
}

TEST(Workroom, AnAutosaveBesideAFileIsOfferedWhenItIsOpened) {
    Window w;
    save_small(w.data("a.orthema"));
    save_small(autosave_path(w.data("a.orthema")), "Later state");
    w.open(w.data("a.orthema"));
    EXPECT_EQ(w.order().name, "Small order");
    ASSERT_NE(w.notice().find("later state"), std::string::npos) << w.notice();
    w.click(w.window().notices()->action());
    w.wait();
    EXPECT_EQ(w.order().name, "Later state");
    EXPECT_TRUE(w.room().document().changed_since_saved());
    w.room().keeper().save(w.room().keeper().path());
    w.wait();
    EXPECT_EQ(open_order(w.data("a.orthema"))->order.name, "Later state");
    EXPECT_FALSE(std::filesystem::exists(autosave_path(w.data("a.orthema")))) << "and gone once it is saved";
}

TEST(Workroom, SavingWhereItCannotIsSaidAndStaysUnsaved) {
    Window w;
    save_small(w.data("a.orthema"));
    w.open(w.data("a.orthema"));
    w.room().edit("name", renamed(w.order(), "More"));
    w.room().keeper().save(QStringLiteral("/proc/nowhere/x.orthema"));
    w.wait();
    EXPECT_NE(w.notice().find("cannot be written"), std::string::npos) << w.notice();
    EXPECT_TRUE(w.room().document().changed_since_saved());
    EXPECT_EQ(w.room().keeper().path().toStdString(), w.data("a.orthema"));
    EXPECT_EQ(open_order(w.data("a.orthema"))->order.name, "Small order");
}

TEST(Workroom, UndoneSavedAndRedoneKnowsWhetherItChanged) {
    Window w;
    save_small(w.data("a.orthema"));
    w.open(w.data("a.orthema"));
    EXPECT_FALSE(w.room().document().changed_since_saved());
    w.room().edit("name", renamed(w.order(), "B"));
    EXPECT_TRUE(w.room().document().changed_since_saved());
    w.undo();
    EXPECT_FALSE(w.room().document().changed_since_saved());
    w.room().document().redo();
    w.room().keeper().save(w.room().keeper().path());
    w.wait();
    EXPECT_FALSE(w.room().document().changed_since_saved());
    w.undo();
    EXPECT_TRUE(w.room().document().changed_since_saved()) << "undo reaches behind a save";
}

TEST(Workroom, GesturesMergeAndEnd) {
    Window w;
    for (const char* name : {"a", "ab", "abc"}) w.room().edit("name", renamed(w.order(), name), "typing");
    w.room().end_gesture();
    w.room().edit("name", renamed(w.order(), "abcd"), "typing");
    w.undo();
    EXPECT_EQ(w.order().name, "abc");
    w.undo();
    EXPECT_EQ(w.order().name, "New order");
    EXPECT_FALSE(w.room().document().can_undo());
}

TEST(Workroom, AnUnpackedOrderIsNeverWrittenOver) {
    Window w;
    w.open(test::source("demo/marrow-hill"));
    EXPECT_EQ(w.order().name, "Marrow Hill Kite Fair");
    EXPECT_TRUE(w.room().keeper().path().isEmpty()) << "saving asks for a name";
    EXPECT_FALSE(w.room().document().changed_since_saved());
}

TEST(Workroom, RecentOrdersForgetWhatIsGone) {
    Window w;
    save_small(w.data("a.orthema"));
    save_small(w.data("b.orthema"));
    w.open(w.data("a.orthema"));
    w.open(w.data("b.orthema"));
    ASSERT_EQ(w.room().keeper().recent().size(), 2);
    EXPECT_EQ(w.room().keeper().recent().front().toStdString(), w.data("b.orthema"));
    std::filesystem::remove(w.data("b.orthema"));
    EXPECT_EQ(w.room().keeper().recent().size(), 1);
}

TEST(Shell, TheJobLineShowsHowEachStageStands) {
    Window w;
    w.open(test::source("demo/marrow-hill"));
    auto* line = w.window().findChild<JobLine*>();
    EXPECT_EQ(line->stage(0)->standing(), Standing::settled);
    EXPECT_EQ(line->stage(1)->standing(), Standing::look) << "a taped figure differs";
    EXPECT_EQ(line->stage(2)->standing(), Standing::look) << "a picture has soft edges";
    EXPECT_EQ(line->stage(3)->standing(), Standing::settled);
    EXPECT_EQ(line->stage(4)->standing(), Standing::settled);
    EXPECT_TRUE(line->stage(1)->accessibleName().contains("needs a look"));
    EXPECT_EQ(w.find<QLabel>("Readiness")->text(), "5 of 7 settled");
}

TEST(Shell, EveryBenchOpensByKeysAndByTheLine) {
    Window w;
    w.open(test::source("demo/marrow-hill"));
    for (int i = 1; i <= 6; ++i) w.go(i);
    auto* line = w.window().findChild<JobLine*>();
    for (int i = 0; i < 6; ++i) {
        w.click(line->stage(i));
        EXPECT_EQ(w.window().current(), i);
        w.key(&w.window(), Qt::Key_F1);
        auto* text = w.window().findChild<QTextBrowser*>("Text of the manual");
        ASSERT_NE(text, nullptr);
        EXPECT_TRUE(text->isVisible());
        EXPECT_EQ(text->source().fileName(), QString::fromLatin1(stages()[std::size_t(i)].key) + ".md");
        EXPECT_GT(text->toPlainText().size(), 400);
        w.key(text->window(), Qt::Key_Escape);
        EXPECT_FALSE(text->isVisible());
    }
}

TEST(Shell, EverythingThatTakesKeysHasANameAndEveryButtonATip) {
    Window w;
    w.open(test::source("demo/marrow-hill"));
    for (int i = 1; i <= 6; ++i) {
        w.go(i);
        for (QWidget* child : w.window().findChildren<QWidget*>()) {
            if (!child->isVisible() || child->focusPolicy() == Qt::NoFocus || child->objectName().startsWith("qt_")) continue;
            if (qobject_cast<QAbstractScrollArea*>(child) != nullptr || qobject_cast<QScrollBar*>(child) != nullptr) continue;
            if (qobject_cast<QComboBox*>(child->parentWidget()) != nullptr) continue;  // an editable box's own field
            EXPECT_FALSE(child->accessibleName().isEmpty()) << child->metaObject()->className() << " " << child->objectName().toStdString();
        }
    }
}

TEST(Shell, NothingIsCutOffAtTheUsualSize) {
    Window w;
    w.open(test::source("demo/marrow-hill"));
    w.window().resize(1280, 800);
    for (int i = 1; i <= 6; ++i) {
        w.go(i);
        w.wait();
        for (QAbstractButton* b : w.window().findChildren<QAbstractButton*>()) {
            if (!b->isVisible() || b->width() == 0) continue;
            EXPECT_GE(b->width(), b->fontMetrics().horizontalAdvance(b->text()) / 2) << b->objectName().toStdString();
            const QRect in_window(b->mapTo(&w.window(), QPoint(0, 0)), b->size());
            EXPECT_TRUE(w.window().rect().contains(in_window)) << "stage " << i << " " << b->objectName().toStdString();
        }
        for (QLineEdit* f : w.window().findChildren<QLineEdit*>()) {
            if (!f->isVisible()) continue;
            const QRect in_window(f->mapTo(&w.window(), QPoint(0, 0)), f->size());
            EXPECT_TRUE(w.window().rect().contains(in_window)) << "stage " << i << " " << f->objectName().toStdString();
            EXPECT_GE(f->width() - 12, f->fontMetrics().horizontalAdvance(f->text()))
                << f->objectName().toStdString() << " " << f->text().toStdString();
        }
    }
}

TEST(Shell, TheFindingsStripStepsAndLeads) {
    Window w;
    w.open(test::source("demo/marrow-hill"));
    auto* strip = w.window().findChild<FindingsStrip*>();
    ASSERT_GE(w.room().findings().size(), 2u);
    w.key(strip, Qt::Key_Right);
    EXPECT_EQ(strip->shown(), 1);
    w.key(strip, Qt::Key_Return);
    EXPECT_EQ(w.window().bench(QString::fromStdString(w.room().findings()[1].about.stage))->isVisible(), true);
}

TEST(Shell, AFindingIsShownTheSameWayHoweverOftenItIsRefreshed) {
    Window w;
    w.open(test::source("demo/marrow-hill"));
    auto* strip = w.window().findChild<FindingsStrip*>();
    auto* text = strip->findChild<QLabel*>();
    int wrapped = 0, whole = 0;
    for (int width = 500; width < 1400; width += 10) {
        strip->resize(width, strip->height());
        strip->refresh();
        const bool wraps = text->wordWrap();
        const QString said = text->text();
        strip->refresh();
        EXPECT_EQ(text->wordWrap(), wraps) << "at " << width;
        EXPECT_EQ(text->text(), said) << "at " << width;
        ++(wraps ? wrapped : whole);
    }
    EXPECT_GT(whole, 0);
    EXPECT_GT(wrapped, 0);
}

TEST(Shell, UnitsAreSwitchedEverywhereAtOnce) {
    Window w;
    w.open(test::source("demo/marrow-hill"));
    w.go(4);
    const QString mm = w.find<QLineEdit>("Ink width")->text();
    w.click(w.find<QPushButton>("Units/in"));
    const QString inches = w.find<QLineEdit>("Ink width")->text();
    EXPECT_NE(mm, inches);
    EXPECT_NEAR(parse_length(inches.toStdString(), Unit::inch)->mm(), mm.toDouble(), 0.8);
    w.undo();
    EXPECT_EQ(w.find<QLineEdit>("Ink width")->text(), mm);
}

}  // namespace TESTED
}  // namespace orthema
