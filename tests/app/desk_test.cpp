// The desk and the gang, through the window: orders found again, laid together, looked at one by one, taken out again.
#include "app/benches/order/list_preview.h"
#include "app/benches/order/order_bench.h"
#include "app/benches/order/run_picture.h"
#include "app/desk/card_wall.h"
#include "app/desk/desk.h"
#include "app/widgets/chips.h"
#include "core/order/gang.h"
#include "files/order_file.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::Window;

/// The neighbours' small orders in a folder of the shop.
struct Shop : Window {
    std::vector<std::string> paths;
    Shop() {
        std::filesystem::create_directories(data("orders"));
        for (const char* name : {"millrace-rowers", "quay-bakery", "lantern-walk"}) {
            paths.push_back(data(std::string("orders/") + name + ".orthema"));
            std::filesystem::copy_file(test::source(std::string("demo/neighbours/") + name + ".orthema"), paths.back());
        }
    }
    Desk* to_desk() {
        key(&window(), Qt::Key_0, Qt::ControlModifier);
        wait();
        EXPECT_TRUE(window().at_desk());
        window().desk()->set_today("2027-06-13");
        window().desk()->refresh();
        return window().desk();
    }
    CardWall* wall() { return window().desk()->wall(); }
    std::vector<std::string> names() {
        std::vector<std::string> out;
        for (const KnownOrder& k : wall()->cards()) out.push_back(k.card.name);
        return out;
    }
    void click_card(int index, Qt::KeyboardModifiers modifiers = {}) {
        click(wall()->viewport(), wall()->card_rect(index).center(), modifiers);
    }
};

TEST(Desk, AListBeginsAnOrderOfItsOwnThoughAnotherIsOpen) {
    Shop s;
    s.open(s.paths[2]);
    s.wait();
    ASSERT_FALSE(s.order().lines.empty());
    s.to_desk();
    const std::string list = s.data("ferry.csv");
    test::spill(list, "Ferry hands\n\nProduct,Colour,Size,Qty\nAdult Tee,Ash,M,5\n");
    s.window().desk()->begin_with(QString::fromStdString(list));
    s.wait();
    EXPECT_TRUE(s.order().lines.empty()) << "nothing of the other order is in it";
    s.click(s.bench<OrderBench>("order")->preview()->accept_button());
    s.wait();
    EXPECT_EQ(s.order().name, "Ferry hands");
    EXPECT_EQ(garments_in(s.order()), 5);
}

TEST(Desk, OrdersAreFoundAgainTheLateOnesFirst) {
    Shop s;
    s.to_desk();
    EXPECT_NE(s.find<QPushButton>("A list…"), nullptr) << "nothing lies there yet: ways to begin";
    s.open(s.paths[2]);
    s.wait();
    EXPECT_FALSE(s.window().at_desk());
    s.to_desk();
    s.wait();  // what lies in the same folder is found
    ASSERT_EQ(s.names(), (std::vector<std::string>{"Millrace rowers", "Quay bakery", "Lantern walk"})) << "by day and hour";
    const KnownOrder* opened = s.room().orders().find("job-lantern");
    ASSERT_NE(opened, nullptr);
    EXPECT_FALSE(opened->picture.empty());
    EXPECT_EQ(opened->card.stages.size(), stages().size());
    EXPECT_FALSE(s.room().orders().find("job-quay")->picture.empty());
    EXPECT_EQ(due_words(s.wall()->cards()[0].card, "2027-06-13").toStdString(), "12 June, 1 day late");
    EXPECT_EQ(due_words(s.wall()->cards()[2].card, "2027-06-13").toStdString(), "13 June, today");
    s.type(s.find<QLineEdit>("Find an order"), "bakery quay");
    EXPECT_EQ(s.names(), (std::vector<std::string>{"Quay bakery"}));
    s.find<QLineEdit>("Find an order")->clear();

    // what comes first is taken up from anywhere on the desk
    auto* next = s.find<QPushButton>("What next");
    EXPECT_EQ(next->accessibleName(), "What next: Millrace rowers");
    s.window().desk()->show_page(1);
    s.click(next);
    s.wait();
    EXPECT_EQ(s.order().name, "Millrace rowers");
    EXPECT_FALSE(s.window().at_desk());
    s.to_desk();
    s.window().desk()->show_page(0);
    s.click(next);
    EXPECT_FALSE(s.window().at_desk()) << "it lies there already";
    s.to_desk();

    // the keys go along the cards; Enter opens
    s.click_card(0);
    s.key(s.wall(), Qt::Key_Right);
    EXPECT_EQ(s.wall()->current()->card.name, "Quay bakery");
    s.key(s.wall(), Qt::Key_Return);
    s.wait();
    EXPECT_EQ(s.order().name, "Quay bakery");
    EXPECT_FALSE(s.window().at_desk());

    // put away and back; a second window of the shop sees it
    s.to_desk();
    s.click_card(2);
    s.click(s.find<QPushButton>("Put away"));
    EXPECT_EQ(s.names().size(), 2u);
    s.wait();
    {
        Window other(&s);
        other.wait();
        ASSERT_NE(other.room().orders().find("job-lantern"), nullptr);
        EXPECT_TRUE(other.room().orders().find("job-lantern")->away);
    }
    s.click(s.find<QPushButton>("Put away too"));
    ASSERT_EQ(s.names().size(), 3u);
    EXPECT_EQ(s.names().back(), "Lantern walk");

    // another like it: the same lines, nothing printed, no day
    s.click_card(0);
    s.click(s.find<QPushButton>("Begin another like it"));
    s.wait();
    EXPECT_EQ(s.order().name, "Millrace rowers again");
    EXPECT_EQ(garments_in(s.order()), 14);
    EXPECT_NE(s.order().job, "job-millrace");
    EXPECT_TRUE(s.order().due.empty());
    EXPECT_TRUE(s.room().keeper().path().isEmpty());
}

TEST(Desk, AnOrderThatWasMovedSaysSo) {
    Shop s;
    s.open(s.paths[0]);
    s.wait();
    std::filesystem::remove(s.paths[0]);
    s.to_desk();
    s.click_card(0);
    EXPECT_FALSE(s.find<QPushButton>("Open")->isEnabled());
    s.click(s.find<QPushButton>("Take off the desk"));
    EXPECT_EQ(s.room().orders().find("job-millrace"), nullptr);
}

TEST(Gang, OrdersOfTheDeskBecomeOneAndGoOutAgainAsTheyWere) {
    Shop s;
    std::vector<Order> alone;
    for (const std::string& p : s.paths) alone.push_back(open_order(p)->order);
    s.open(s.paths[0]);
    s.wait();
    s.to_desk();
    s.wait();
    s.click_card(0);
    s.click_card(1, Qt::ControlModifier);
    s.click(s.find<QPushButton>("Gang these orders"));
    s.wait();
    ASSERT_EQ(s.order().jobs.size(), 2u);
    EXPECT_EQ(garments_in(s.order()), 22);
    EXPECT_EQ(s.order().name, "Millrace rowers and Quay bakery");
    EXPECT_TRUE(s.room().document().changed_since_saved());
    for (const MediumPlan& m : s.room().sheets().media) EXPECT_FALSE(m.stale) << "both lie as they lay";

    // one more, by name; then all of it is looked at by job
    s.room().gang_table().bring_in(QString::fromStdString(s.paths[2]));
    s.wait();
    ASSERT_EQ(s.order().jobs.size(), 3u);
    auto* jobs = s.find<ChipRow>("Job chips");
    ASSERT_NE(jobs, nullptr);
    s.go(1);
    s.click(jobs->chip("job-lantern"));
    EXPECT_EQ(s.room().selection().job, "job-lantern");
    ASSERT_EQ(s.room().runs().size(), 1u);
    EXPECT_EQ(s.room().runs()[0].style, "youth-tee");
    EXPECT_EQ(s.room().selection().run.job, "job-lantern");
    for (int bench = 1; bench <= 8; ++bench) {  // every bench shows it
        s.go(bench);
        s.wait();
    }
    s.go(1);

    // its page says and changes whose it is
    s.click(s.find<QPushButton>("Figures of/Jobs"));
    s.type(s.find<QLineEdit>("Customer"), "The school's parents");
    EXPECT_EQ(find_job(s.order(), "job-lantern")->customer, "The school's parents");
    s.type(s.find<QLineEdit>("Done by"), "11:15");
    EXPECT_EQ(find_job(s.order(), "job-lantern")->due_at, 11 * 60 + 15);
    s.type(s.find<QLineEdit>("Done by"), "noon");
    EXPECT_EQ(find_job(s.order(), "job-lantern")->due_at, 11 * 60 + 15);
    s.key(s.find<QLineEdit>("Done by"), Qt::Key_Escape);
    s.undo();
    s.undo();

    // a quantity typed on the picture is that job's
    s.click(s.find<QPushButton>("Figures of/Order"));
    RunPicture* picture = s.bench<OrderBench>("order")->picture();
    s.click(picture, picture->slot_centre(s.room().runs()[0], "M"));
    QTest::keyClicks(picture, "9");
    s.key(picture, Qt::Key_Return);
    s.wait();
    EXPECT_EQ(garments_in(s.order()), 40 + 4);
    s.undo();
    s.wait();

    // out again: the file is the order that it was, the others stay; undo brings it back
    const Order before = s.order();
    const std::string out = s.data("orders/out.orthema");
    s.room().gang_table().take_out("job-lantern", QString::fromStdString(out));
    s.wait();
    ASSERT_EQ(s.order().jobs.size(), 2u);
    EXPECT_EQ(garments_in(s.order()), 22);
    const auto apart = open_order(out);
    ASSERT_TRUE(apart) << apart.sentence();
    EXPECT_EQ(apart->order, alone[2]);
    EXPECT_EQ(apart->art.size(), 1u);
    s.undo();
    EXPECT_EQ(s.order(), before);

    // saved and opened it is the same gang, and the desk shows which orders lie in it
    const std::string path = s.data("orders/saturday.orthema");
    s.room().keeper().save(QString::fromStdString(path));
    s.wait();
    s.open(path);
    s.wait();
    EXPECT_EQ(s.order(), before);
    s.to_desk();
    const KnownOrder* card = s.room().orders().find(before.job);
    ASSERT_NE(card, nullptr);
    EXPECT_EQ(card->card.jobs.size(), 3u);
    EXPECT_EQ(s.wall()->name_of("job-quay"), before.name);
}

TEST(Gang, TheSameOrderTwiceIsRefused) {
    Shop s;
    s.open(s.paths[0]);
    s.wait();
    const Order before = s.order();
    s.room().gang_table().bring_in(QString::fromStdString(s.paths[0]));
    s.wait();
    EXPECT_EQ(s.order(), before);
    EXPECT_NE(s.notice().find("already"), std::string::npos) << s.notice();
}

}  // namespace TESTED
}  // namespace orthema
