// Stock, shelf, price and papers through the window: counted by typing, held by orders, taken by printing and pressing, given back by undo.
#include "app/benches/order/order_bench.h"
#include "app/benches/press/press_bench.h"
#include "app/benches/press/press_desk.h"
#include "app/benches/press/step_card.h"
#include "app/desk/bin_wall.h"
#include "app/desk/card_wall.h"
#include "app/desk/desk.h"
#include "app/desk/shelf_desk.h"
#include "app/desk/stock_desk.h"
#include "app/widgets/figures.h"
#include "core/pipeline/order_papers.h"
#include "files/order_file.h"
#include "files/shop_backup.h"
#include "window.h"

#include <fstream>

namespace orthema {
namespace TESTED {

using namespace app;
using test::Window;

/// The neighbours' small orders in a folder of the shop.
struct StockShop : Window {
    std::vector<std::string> paths;
    StockShop() {
        std::filesystem::create_directories(data("orders"));
        for (const char* name : {"millrace-rowers", "quay-bakery", "lantern-walk"}) {
            paths.push_back(data(std::string("orders/") + name + ".orthema"));
            std::filesystem::copy_file(test::source(std::string("demo/neighbours/") + name + ".orthema"), paths.back());
        }
        room().stock().set_today("2027-06-01");
        wait();
    }
    void to_desk(const char* page) {
        key(&window(), Qt::Key_0, Qt::ControlModifier);
        wait();
        ASSERT_TRUE(window().at_desk());
        window().desk()->set_today("2027-06-01");
        click(find<QPushButton>(QStringLiteral("Desk/") + page));
        wait();
    }
    StockDesk* stock() { return window().desk()->stock(); }
    /// Chooses a bin with the mouse and types its count.
    void type_count(BinWall* wall, const std::string& id, const char* keys) {
        ASSERT_TRUE(wall->choose(id)) << id;
        click(wall->viewport(), wall->bin_rect(id).center());
        QTest::keyClicks(wall, keys);
        key(wall, Qt::Key_Return);
        wait();
    }
    double on_hand(const std::string& id) {
        wait();
        const StockEntry* e = find_entry(room().stock().stock(), id);
        return e == nullptr ? -1 : e->on_hand;
    }
    [[nodiscard]] bool says(const char* code) {
        return std::any_of(room().findings().begin(), room().findings().end(), [&](const Finding& f) { return f.code == code; });
    }
    /// A roll with so much film on it.
    std::string roll(const char* metres) {
        to_desk("Stock");
        choose(find<QComboBox>("Film"), "Film roll 559");
        click(find<QPushButton>("A new roll"));
        wait();
        const Bin* made = stock()->wall()->current();
        EXPECT_TRUE(made != nullptr && made->entry.kind == StockKind::roll);
        const std::string id = made->entry.id;
        type_count(stock()->wall(), id, metres);
        return id;
    }
    void settle() {
        go(5);
        click(find<QPushButton>("Figures of/Sheets"));
        type(find<QLineEdit>("Settle for (s)"), "0.3");
        click(find<QPushButton>("Settle"));
        wait();
    }
};

TEST(Stock, CountsAreTypedOnTheRunAndAnOrderSaysAtOnceWhatItLacks) {
    StockShop s;
    s.open(s.paths[1]);  // eight aprons
    s.wait();
    const std::string aprons = blanks_id("canvas-apron", "natural", "OS");
    s.to_desk("Stock");
    const Bin* wanted = nullptr;
    for (const BinRow& row : s.stock()->wall()->rows())
        for (const Bin& b : row.bins)
            if (b.entry.id == aprons) wanted = &b;
    ASSERT_NE(wanted, nullptr) << "wanted, and not counted yet";
    EXPECT_EQ(wanted->wanted, 8);
    EXPECT_FALSE(s.says("blanks-lacking")) << "what nobody counts is not lacking";
    s.type_count(s.stock()->wall(), aprons, "6");
    EXPECT_EQ(s.on_hand(aprons), 6);
    EXPECT_TRUE(s.says("blanks-lacking"));
    s.type_count(s.stock()->wall(), aprons, "2.5");  // refused, and stays to be mended
    EXPECT_EQ(s.on_hand(aprons), 6);
    s.key(s.stock()->wall(), Qt::Key_Escape);
    s.type(s.find<QLineEdit>("Lies"), "box 3");
    s.type(s.find<QLineEdit>("Code"), "4006381");
    s.wait();
    EXPECT_EQ(find_entry(s.room().stock().stock(), aprons)->place, "box 3");
    // a scanner types the code and Enter
    s.click(s.find<QCheckBox>("a scan counts one in"));
    s.type(s.find<QLineEdit>("Find an order"), "4006381");
    EXPECT_EQ(s.on_hand(aprons), 7);
    s.click(s.find<QPushButton>("One is spoiled"));
    EXPECT_EQ(s.on_hand(aprons), 6);
    s.click(s.find<QPushButton>("Desk/To buy"));
    s.wait();
    auto* list = s.find<QTableWidget>("To buy list");
    ASSERT_GE(list->rowCount(), 1);
    EXPECT_EQ(list->item(0, 4)->text(), "2");
    EXPECT_EQ(list->item(0, 5)->text(), "Quay bakery");
    s.room().stock().export_to(QString::fromStdString(s.data("buy.csv")), true);
    s.wait();
    EXPECT_NE(test::slurp(s.data("buy.csv")).find("\"Canvas apron, natural OS\",8,0,6,2,pieces,Quay bakery"), std::string::npos)
        << test::slurp(s.data("buy.csv"));
    // fewer are ordered: nothing is lacking any more
    s.click(s.find<QPushButton>("Desk/Orders"));
    s.go(1);
    Order fewer = s.order();
    fewer.lines[0].quantity = 6;
    s.room().edit("fewer", fewer);
    s.wait();
    EXPECT_FALSE(s.says("blanks-lacking"));
    s.undo();
    s.wait();
    EXPECT_TRUE(s.says("blanks-lacking"));
    // from a table, in a second window of the shop
    std::ofstream(s.data("note.csv")) << "Blank,Colour,Size,Count\nCanvas apron,natural,OS,20\n";
    {
        Window other(&s);
        other.wait();
        EXPECT_EQ(find_entry(other.room().stock().stock(), aprons)->on_hand, 6);
        other.room().stock().count_in_from(QString::fromStdString(s.data("note.csv")));
        other.wait();
        other.room().stock().flush();
    }
    s.to_desk("Stock");
    EXPECT_EQ(s.on_hand(aprons), 20);
    EXPECT_FALSE(s.says("blanks-lacking"));
}

TEST(Stock, FromDeskToDesk) {
    StockShop s;
    s.open(s.paths[0]);
    s.wait();
    const std::string roll = s.roll("9");
    EXPECT_EQ(s.on_hand(roll), 9000);
    s.click(s.find<QPushButton>("Desk/Orders"));
    s.wait();
    // two orders that are made together, each with two spares of every width
    CardWall* wall = s.window().desk()->wall();
    s.click(wall->viewport(), wall->card_rect(0).center());
    s.click(wall->viewport(), wall->card_rect(1).center(), Qt::ControlModifier);
    s.click(s.find<QPushButton>("Gang these orders"));
    s.wait();
    ASSERT_EQ(s.order().jobs.size(), 2u);
    Order spared = s.order();
    for (Decoration& d : spared.decorations) d.spares = 2;
    s.room().edit("spares", spared);
    s.wait();
    s.settle();
    const MediumPlan film = s.room().sheets().media.at(0);
    ASSERT_FALSE(film.stale);
    for (const Sheet& sheet : film.sheets) EXPECT_EQ(sheet.stock, roll) << "the one roll that there is";
    EXPECT_EQ(s.find<QLabel>("Printed from")->text(), "Roll 1");
    // printed: the roll has so much less
    s.click(s.find<QPushButton>("Figures of/Print"));
    s.click(s.find<QPushButton>("Print this sheet"));
    s.wait();
    EXPECT_NEAR(s.on_hand(roll), 9000 - film.sheets[0].length, 0.5);
    // pressed, in rehearsal: that counts nothing
    s.go(7);
    auto* speed = s.find<QComboBox>("Speed");
    speed->addItem("test", "3000");
    speed->setCurrentIndex(speed->count() - 1);
    s.click(s.find<QPushButton>("Begin the shift"));
    PressDesk& desk = s.bench<PressBench>("press")->desk();
    QElapsedTimer timer;
    timer.start();
    while (desk.running() && !desk.shift().over() && timer.elapsed() < 60000) {
        s.key(s.bench<PressBench>("press")->card(), Qt::Key_Space);
        QTest::qWait(5);
    }
    EXPECT_TRUE(desk.shift().over());
    desk.end();
    s.wait();
    // what is left over goes to the shelf, each spare in its bag; a second click adds nothing
    s.go(5);
    s.click(s.find<QPushButton>("Figures of/Shelf"));
    int spares = 0;
    for (const Transfer& t : s.room().transfer_set().transfers) spares += t.spares;
    ASSERT_GT(spares, 0);
    for (int n = 0; n < 2; ++n) {
        s.click(s.find<QPushButton>("Lay them on the shelf"));
        s.wait();
    }
    double lying = 0;
    for (const StockEntry& e : s.room().stock().stock().entries) lying += e.kind == StockKind::transfers ? e.on_hand : 0;
    EXPECT_EQ(lying, spares);
    s.to_desk("Shelf");
    EXPECT_FALSE(s.window().desk()->shelf()->wall()->rows().empty());
    // the next order with the same design takes them
    s.open(s.paths[1]);
    s.wait();
    const int asked = garments_in(s.order());
    EXPECT_TRUE(s.says("shelf-has"));
    s.go(5);
    s.click(s.find<QPushButton>("Figures of/Shelf"));
    s.click(s.find<QPushButton>("Use what lies there"));
    s.wait();
    int taken = 0;
    for (const FromShelf& f : from_shelf(s.order(), s.room().transfer_set())) taken += f.copies;
    EXPECT_EQ(taken, 2);
    EXPECT_FALSE(s.says("shelf-has"));
    EXPECT_FALSE(s.says("shelf-gone"));
    s.settle();
    EXPECT_EQ(s.room().sheets().media.at(0).placed, asked - taken) << "only what is missing is laid out";
    EXPECT_FALSE(s.room().sheets().media.at(0).stale);
    // held: nobody else is offered them
    const auto held = [&] {
        s.wait();
        double n = 0;
        for (const StockEntry& e : s.room().stock().stock().entries)
            for (const StockShare& share : e.shares) n += share.held;
        return n;
    };
    EXPECT_EQ(held(), 2);
    s.undo();  // of the settling
    s.undo();
    EXPECT_TRUE(from_shelf(s.order(), s.room().transfer_set()).empty());
    EXPECT_EQ(held(), 0) << "undo gives them back";
    s.key(&s.window(), Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    EXPECT_EQ(held(), 2);
    s.room().keeper().save(QString::fromStdString(s.paths[1]));
    s.wait();
    EXPECT_EQ(open_order(s.paths[1])->order.layouts, s.order().layouts);
    // pressed for good: they are taken, and blanks with them
    const std::string aprons = blanks_id("canvas-apron", "natural", "OS");
    StockEntry blanks;
    blanks.kind = StockKind::blanks;
    blanks.id = aprons;
    blanks.style = "canvas-apron";
    blanks.colour = "natural";
    blanks.size = "OS";
    blanks.name = "Canvas apron, natural OS";
    s.room().stock().count({{blanks, 10}});
    s.wait();
    PressRecord r;
    r.id = "one";
    r.at = "2027-06-01T10:00:00";
    r.job = s.order().job;
    r.design = s.order().decorations[0].id;
    r.style = "canvas-apron";
    r.colour = "natural";
    r.size = "OS";
    r.first = 1;
    r.pieces = 3;
    s.room().records().add({r});
    EXPECT_EQ(s.on_hand(aprons), 7);
    lying = 0;
    for (const StockEntry& e : s.room().stock().stock().entries) lying += e.kind == StockKind::transfers ? e.on_hand : 0;
    EXPECT_EQ(lying, spares - 2);
    EXPECT_FALSE(s.says("shelf-gone")) << "what was pressed was there";
}

TEST(Price, IsTypedAndSaidAndGoesOnPaper) {
    test::SmallWindow w(1);
    w.click(w.find<QPushButton>("Figures of/Price"));
    const auto total = [&] { return w.find<QLabel>("All of it is sold for")->text().section(',', 0, 0).toDouble(); };
    const double at_40 = total();
    EXPECT_GT(at_40, 0);
    w.type(w.find<QLineEdit>("Margin, per cent"), "70");
    EXPECT_NEAR(total(), 2 * at_40, 0.02 * garments_in(w.order())) << "40 % left is cost over 0.6, 70 % over 0.3; whole pence each";
    w.click(w.find<QPushButton>("Price by/by the shop's steps"));
    w.type(w.find<QLineEdit>("On a blank, per cent"), "0");
    w.type(w.find<QLineEdit>("costs"), "5");
    w.type(w.find<QLineEdit>("Less from"), "1: 10 %");
    Order free = w.order();
    for (BlankStyle& s : free.styles) s.price = 0;
    w.room().edit("no price", free);
    w.wait();
    EXPECT_NEAR(total(), 4.5 * garments_in(w.order()), 1e-6);
    w.type(w.find<QLineEdit>("Setting up a design"), "20");
    EXPECT_NEAR(total(), 4.5 * garments_in(w.order()) + 20, 1e-6);
    w.click(w.find<QPushButton>("If it were made otherwise"));
    w.wait();
    EXPECT_TRUE(w.find<QLabel>("Otherwise")->text().contains("twice as many"));

    w.click(w.find<QPushButton>("Figures of/Papers"));
    w.type(w.find<QLineEdit>("Promise"), "ready on Friday");
    EXPECT_EQ(w.order().pricing.promise, "ready on Friday");
    w.type(w.find<QLineEdit>("Approved by"), "The rowers");
    w.click(w.find<QPushButton>("Approved as it is now"));
    w.wait();
    EXPECT_EQ(w.order().approval.by, "The rowers");
    EXPECT_TRUE(w.find<QLabel>("Approval")->text().contains("nothing of it has changed"));
    Order more = w.order();
    more.lines[0].quantity += 1;
    w.room().edit("one more", more);
    w.wait();
    EXPECT_TRUE(w.find<QLabel>("Approval")->text().contains("the list")) << w.find<QLabel>("Approval")->text().toStdString();
    EXPECT_TRUE(
        std::any_of(w.room().findings().begin(), w.room().findings().end(), [](const Finding& f) { return f.code == "approval-list"; }));
    w.undo();
    w.wait();
    EXPECT_TRUE(w.find<QLabel>("Approval")->text().contains("nothing of it has changed"));
    ExportChoice papers{false, false, false, false, false};
    papers.press = false;
    w.room().exporter().export_to(QString::fromStdString(w.data("out")), papers);
    w.wait();
    int pdfs = 0;
    for (const auto& file : std::filesystem::directory_iterator(w.data("out")))
        if (file.path().extension() == ".pdf") {
            ++pdfs;
            QProcess check;
            check.start("qpdf", {"--check", QString::fromStdString(file.path().string())});
            check.waitForFinished();
            EXPECT_EQ(check.exitCode(), 0) << file.path();
            check.start("pdftotext", {"-layout", QString::fromStdString(file.path().string()), "-"});
            check.waitForFinished();
            const QString text = QString::fromUtf8(check.readAllStandardOutput());
            if (file.path().string().ends_with("_quote.pdf")) {
                EXPECT_TRUE(text.contains("ready on Friday"));
                EXPECT_TRUE(text.contains(qt(pence_text(quote_of(w.order(), w.room().work()).total(), w.order().currency))));
            }
            if (file.path().string().ends_with("_approval.pdf")) EXPECT_TRUE(text.contains("approved as shown"));
            if (file.path().string().ends_with("_job-ticket.pdf")) EXPECT_TRUE(text.contains("blanks laid out"));
        }
    EXPECT_EQ(pdfs, 3);
}

TEST(Stock, AWholeShopIsBackedUpAndRestoredElsewhere) {
    StockShop s;
    s.open(s.paths[0]);
    s.wait();
    s.to_desk("Orders");
    s.wait();
    const std::string roll = s.roll("12");
    ASSERT_EQ(s.room().orders().all().size(), 3u);
    const std::string file = s.data("shop.orthema-shop");
    s.room().back_up_shop(QString::fromStdString(file));
    s.wait();
    EXPECT_NE(s.notice().find("3 orders"), std::string::npos) << s.notice();
    // on another machine
    StockShop other;
    EXPECT_EQ(other.room().orders().all().size(), 0u);
    other.room().restore_shop(QString::fromStdString(file), QString::fromStdString(other.data("restored")));
    other.wait();
    other.wait();
    EXPECT_EQ(other.room().orders().all().size(), 3u);
    EXPECT_EQ(other.on_hand(roll), 12000);
    const KnownOrder* quay = other.room().orders().find("job-quay");
    ASSERT_NE(quay, nullptr);
    EXPECT_EQ(test::slurp(quay->path), test::slurp(s.paths[1]));
    // what is no shop changes nothing
    std::ofstream(s.data("none")) << "nothing of the kind";
    other.room().restore_shop(QString::fromStdString(s.data("none")), QString::fromStdString(other.data("restored")));
    other.wait();
    EXPECT_NE(other.notice().find("nothing was changed"), std::string::npos) << other.notice();
    EXPECT_EQ(other.on_hand(roll), 12000);
}

}  // namespace TESTED
}  // namespace orthema
