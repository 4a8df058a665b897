// The Sheets bench through mouse and keys: settling, pieces under the hand, laying, stock, the trimmer's cuts, devices.
#include <cmath>
#include <map>

#include "app/benches/sheets/ribbon.h"
#include "app/widgets/canvas.h"
#include "app/benches/sheets/sheets_bench.h"
#include "app/widgets/chips.h"
#include "app/window/export_panel.h"
#include "app/widgets/figures.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::SmallWindow;

struct SheetsWindow : SmallWindow {
    SheetsWindow() : SmallWindow(5) {
        type(find<QLineEdit>("Settle for (s)"), "0.2");
        click(find<QPushButton>("Settle"));
        wait();
    }
    Ribbon* ribbon() { return bench<SheetsBench>("sheets")->ribbon(); }
    const std::vector<PlacedCopy>& copies() { return copies_of(room()); }
    const Medium& medium() { return *find_medium(order(), room().selection().medium); }
    MediumLayout layout() { return layout_of(order(), room().selection().medium); }
    const MediumPlan& plan() { return room().sheets().media.at(0); }
    void page(const char* name) { click(find<QPushButton>(QString("Figures of/") + name)); }
    void settle(const char* seconds = "0.3") {
        page("Sheets");
        type(find<QLineEdit>("Settle for (s)"), seconds);
        click(find<QPushButton>("Settle"));
        wait();
    }
    /// The medium as sheets of this size.
    void as_sheets(double width, double length) {
        Order next = order();
        for (Medium& m : next.media)
            if (m.id == room().selection().medium) {
                m.shape = MediumShape::sheet;
                m.width = Length::from_mm(width);
                m.length = Length::from_mm(length);
                m.price = 3;
            }
        room().edit("sheets", next);
        wait();
    }
    bool sound() {
        wait();
        return !room().sheets().media.at(0).stale;
    }
};

TEST(SheetsBench, SettlesEveryPieceAndSaysWhatItTakes) {
    SheetsWindow w;
    EXPECT_EQ(w.copies().size(), std::size_t(garments_in(w.order())));
    EXPECT_TRUE(w.sound());
    EXPECT_GE(w.room().settler().curve().size(), 2u);
    for (std::size_t i = 1; i < w.room().settler().curve().size(); ++i)
        EXPECT_GE(w.room().settler().curve()[i].density + 1e-9, w.room().settler().curve()[i - 1].density);
    const QString used = w.find<QLabel>("Film used")->text();
    EXPECT_TRUE(used.endsWith(" mm") || used.endsWith(" m")) << used.toStdString();
    EXPECT_NE(w.find<QLabel>("Cost a piece")->text(), "–");
    w.undo();
    EXPECT_TRUE(w.copies().empty()) << "settling is one step";
}

TEST(SheetsBench, LockedPiecesStayWhileTheOthersSettle) {
    SheetsWindow w;
    int piece = 0;  // one that is in sight
    while (!w.ribbon()->rect().adjusted(4, 4, -100, -60).contains(w.ribbon()->place_of(piece))) ++piece;
    const QPoint at = w.ribbon()->place_of(piece);
    w.click(w.ribbon(), at);
    ASSERT_EQ(w.ribbon()->chosen(), piece);
    w.key(w.ribbon(), Qt::Key_L);
    const PlacedCopy locked = w.copies()[std::size_t(piece)];
    EXPECT_TRUE(locked.locked);
    w.drag(w.ribbon(), at, at + QPoint(80, 40));
    EXPECT_EQ(w.copies()[std::size_t(piece)], locked) << "it cannot be dragged";
    w.wait();
    w.click(w.find<QPushButton>("Settle"));  // the same button, now "Settle more"
    w.wait();
    EXPECT_TRUE(std::find(w.copies().begin(), w.copies().end(), locked) != w.copies().end());
    EXPECT_TRUE(w.sound());
}

TEST(SheetsBench, SettlingMoreNeverMakesItWorse) {
    SheetsWindow w;
    w.type(w.find<QLineEdit>("Settle for (s)"), "1.5");
    w.click(w.find<QPushButton>("Settle"));
    w.wait();
    w.type(w.find<QLineEdit>("Settle for (s)"), "0.2");
    for (int k = 0; k < 4; ++k) {
        const double length = w.room().sheets().media.at(0).length;
        w.click(w.find<QPushButton>("Settle"));
        w.wait();
        EXPECT_LE(w.room().sheets().media.at(0).length, length + 1e-6);
        EXPECT_TRUE(w.sound());
    }
}

TEST(SheetsBench, APieceTurnsNudgesAndNeverOverlaps) {
    SheetsWindow w;
    std::mt19937 random(2);
    for (int k = 0; k < 25; ++k) {
        const int i = int(random() % w.copies().size());
        const QPoint at = w.ribbon()->place_of(i);
        if (!w.ribbon()->rect().adjusted(10, 30, -10, -10).contains(at)) continue;
        w.drag(w.ribbon(), at, QPoint(20 + int(random() % 800), 40 + int(random() % 400)));
        if (k % 5 == 0) w.key(w.ribbon(), Qt::Key_R);
        if (k % 3 == 0) w.key(w.ribbon(), Qt::Key_Right, Qt::ShiftModifier);
    }
    EXPECT_TRUE(w.sound());
}

TEST(SheetsBench, TurningWithoutRoomIsSaid) {
    SheetsWindow w;
    Order next = w.order();
    for (Medium& m : next.media)
        if (m.id == w.room().selection().medium) m.quarter_turns = false;
    w.room().edit("grain", next);
    w.wait();
    w.ribbon()->choose(0);
    w.key(w.ribbon(), Qt::Key_R);
    EXPECT_NE(w.notice().find("no room"), std::string::npos) << w.notice();
}

TEST(SheetsBench, FreelyTurnedPiecesSettleAndStaySound) {
    SheetsWindow w;
    w.page("Laying");
    w.click(w.find<QPushButton>("Pieces may be turned/freely"));
    w.wait();
    const std::string medium = w.room().selection().medium;
    EXPECT_TRUE(find_medium(w.order(), medium)->free_turns);
    w.page("Sheets");
    w.type(w.find<QLineEdit>("Settle for (s)"), "4");
    const auto turned = [&] {
        const auto& copies = w.copies();
        return std::any_of(copies.begin(), copies.end(), [](const PlacedCopy& c) { return c.turn % 90 != 0; });
    };
    for (int n = 0; n < 4 && !turned(); ++n) {  // on a busy machine one go may find nothing better
        w.click(w.find<QPushButton>("Settle"));
        w.wait();
    }
    EXPECT_TRUE(w.sound());
    EXPECT_TRUE(turned());
    w.page("Laying");
    w.click(w.find<QPushButton>("Pieces may be turned/not"));
    w.wait();
    EXPECT_FALSE(find_medium(w.order(), medium)->quarter_turns);
    EXPECT_FALSE(w.sound()) << "what lies turned may no longer lie so";
}

TEST(SheetsBench, AWiderGapMakesTheLayoutStaleUntilSettledAgain) {
    SheetsWindow w;
    w.page("Laying");
    w.type(w.find<QLineEdit>("Gap between pieces"), "9");
    EXPECT_FALSE(w.sound());
    EXPECT_EQ(standing_of(w.room().findings(), "sheets"), Standing::blocked);
    w.click(w.find<QPushButton>("Settle"));
    w.wait();
    EXPECT_TRUE(w.sound());
    w.type(w.find<QLineEdit>("Margin"), "400");
    EXPECT_NE(find_medium(w.order(), w.room().selection().medium)->margin.mm(), 400) << "no room would be left";
}

TEST(SheetsBench, ZoomsAndScrollsByKeys) {
    SheetsWindow w;
    Ribbon* r = w.ribbon();
    const double span = r->last_mm() - r->first_mm();
    w.key(r, Qt::Key_Plus);
    EXPECT_LT(r->last_mm() - r->first_mm(), span);
    w.key(r, Qt::Key_End);
    EXPECT_GT(r->first_mm(), 0);
    w.key(r, Qt::Key_Home);
    EXPECT_EQ(r->first_mm(), 0);
    w.key(r, Qt::Key_N);
    EXPECT_EQ(r->chosen(), 0);
}

TEST(SheetsBench, SeveralPiecesMoveLockAndGoToAnotherSheet) {
    SheetsWindow w;
    Ribbon* r = w.ribbon();
    w.key(r, Qt::Key_Minus);
    w.key(r, Qt::Key_Minus);
    const std::vector<PlacedCopy> before = w.copies();
    // three that are seen and that no other is hooked over in their middle
    std::vector<std::size_t> three;
    for (int i = 0; i < int(before.size()) && three.size() < 3; ++i) {
        if (!r->rect().contains(r->place_of(i))) continue;
        w.click(r, r->place_of(i));
        if (r->chosen() == i) three.push_back(std::size_t(i));
    }
    ASSERT_EQ(three.size(), 3u);
    const auto place = [&](std::size_t k) { return r->place_of(int(three[k])); };
    w.click(r, place(0));
    w.click(r, place(1), Qt::ShiftModifier);
    w.click(r, place(2), Qt::ShiftModifier);
    ASSERT_EQ(r->all_chosen().size(), 3u);
    w.click(r, place(2), Qt::ShiftModifier);
    ASSERT_EQ(r->all_chosen().size(), 2u);
    w.key(r, Qt::Key_PageDown);
    w.wait();
    EXPECT_EQ(w.copies()[three[0]].sheet, 1);
    EXPECT_EQ(w.copies()[three[1]].sheet, 1);
    EXPECT_EQ(w.copies()[three[2]], before[three[2]]);
    EXPECT_TRUE(w.sound());
    w.key(r, Qt::Key_L);
    EXPECT_TRUE(w.copies()[three[0]].locked && w.copies()[three[1]].locked);
    w.key(r, Qt::Key_PageUp);
    EXPECT_NE(w.notice().find("locked"), std::string::npos);
    w.key(r, Qt::Key_L);
    w.undo();
    w.undo();
    w.undo();
    EXPECT_EQ(w.copies(), before);
    // a rope around everything, with Shift
    w.key(r, Qt::Key_Escape);
    EXPECT_TRUE(r->all_chosen().empty());
    w.key(r, Qt::Key_A);
    EXPECT_EQ(r->all_chosen().size(), w.copies().size());
}

TEST(SheetsBench, TwoPiecesSwapAndARopeChooses) {
    SheetsWindow w;
    Ribbon* r = w.ribbon();
    const std::size_t n = w.copies().size();
    std::size_t other = 1;
    while (other < n && w.copies()[other].transfer == w.copies()[0].transfer) ++other;
    ASSERT_LT(other, n);
    const auto boxes = laid_boxes(w.medium(), w.room().transfer_set(), w.copies());
    r->choose_all({0, int(other)});
    w.click(w.find<QPushButton>("Swap"));
    w.wait();
    const auto after = laid_boxes(w.medium(), w.room().transfer_set(), w.copies());
    const bool swapped = norm(after[0].centre() - boxes[other].centre()) < 60.1;
    EXPECT_TRUE(swapped || w.notice().find("fit into each other") != std::string::npos);
    EXPECT_TRUE(w.sound());
    r->choose(-1);
    const int h = r->height();
    w.drag(r, QPoint(r->width() - 3, h - 3), QPoint(8, 26), Qt::ShiftModifier);
    EXPECT_GT(r->all_chosen().size(), 1u);
    w.key(r, Qt::Key_F);
    EXPECT_LE(r->first_mm(), 10);
}

TEST(SheetsBench, TwoLayoutsAreComparedAndChangedOver) {
    SheetsWindow w;
    const auto first = w.copies();
    w.click(w.find<QPushButton>("Keep beside"));
    w.ribbon()->choose(3);
    w.key(w.ribbon(), Qt::Key_PageDown);
    w.wait();
    EXPECT_TRUE(w.find<QLabel>("Kept layout")->text().contains("1 sheet,"));
    const QImage plain = w.ribbon()->grab().toImage();
    w.click(w.find<QCheckBox>("Its outlines over this one"));
    EXPECT_NE(w.ribbon()->grab().toImage(), plain);
    const auto second = w.copies();
    w.click(w.find<QPushButton>("Swap with kept"));
    EXPECT_EQ(w.copies(), first);
    EXPECT_TRUE(w.find<QLabel>("Kept layout")->text().contains("2 sheets,"));
    w.click(w.find<QPushButton>("Swap with kept"));
    EXPECT_EQ(w.copies(), second);
}

TEST(SheetsBench, TheTrimmersCutsAreReplayedAndExported) {
    SheetsWindow w;
    w.page("Laying");
    w.click(w.find<QPushButton>("Parted/trimmer"));
    w.wait();
    w.settle();
    ASSERT_TRUE(w.sound());
    const auto cuts = cuts_of_sheet(w.room(), 0);
    ASSERT_TRUE(cuts);
    auto* says = w.find<QLabel>("Cut says");
    EXPECT_TRUE(says->text().contains("cut 1 of " + QString::number(cuts->cuts.size()))) << says->text().toStdString();
    const QImage before = w.ribbon()->grab().toImage();
    for (std::size_t i = 0; i < cuts->cuts.size(); ++i) w.click(w.find<QPushButton>("Make this cut ▸"));
    EXPECT_TRUE(says->text().contains("cuts made"));
    EXPECT_NE(w.ribbon()->grab().toImage(), before);
    w.click(w.find<QPushButton>("◂ Cut back"));
    EXPECT_TRUE(says->text().contains("fence at"));
    ExportPanel* panel = w.window().show_export();
    for (QCheckBox* box : panel->findChildren<QCheckBox*>()) box->setChecked(box->objectName().startsWith("Cut lines"));
    const QString folder = QString::fromStdString(w.data("cuts"));
    w.type(panel->findChild<QLineEdit*>("Folder"), folder);
    w.click(panel->findChild<QPushButton*>("Write the files"));
    w.wait();
    const QStringList files = QDir(folder).entryList({"*.pdf", "*.csv"}, QDir::Files);
    ASSERT_EQ(files.size(), 2) << files.join(" ").toStdString();
    const std::string pdf = (folder + "/" + files.filter("_cuts.pdf").value(0)).toStdString();
    EXPECT_EQ(test::run("qpdf --check '" + pdf + "'").code, 0);
    const std::string text = test::run("pdftotext -layout '" + pdf + "' -").out;
    EXPECT_NE(text.find("Cut list"), std::string::npos);
    // every fence of the list is on the page
    for (const TrimCut& c : cuts->cuts)
        EXPECT_NE(text.find(length_text(Length::from_mm(c.fence), w.order().unit)), std::string::npos) << c.fence;
    const std::string csv = test::slurp((folder + "/" + files.filter("_cuts.csv").value(0)).toStdString());
    EXPECT_EQ(std::count(csv.begin(), csv.end(), '\n'), std::ptrdiff_t(cuts->cuts.size()) + 1);
}

TEST(SheetsBench, LayingIsTypedAndKept) {
    SheetsWindow w;
    w.page("Laying");
    w.type(w.find<QLineEdit>("Ink to cut line"), "3.5");
    w.click(w.find<QCheckBox>("Register marks for the cutter"));
    w.choose(w.find<QComboBox>("Together"), "each size");
    w.type(w.find<QLineEdit>("Called"), "clamp");
    w.type(w.find<QLineEdit>("Begins at"), "40 x 100 mm");
    emit w.room().updated();  // something else was worked out meanwhile: what was typed stays
    w.type(w.find<QLineEdit>("Size"), "5 × 3 cm");
    w.click(w.find<QPushButton>("Keep free"));
    w.click(w.find<QPushButton>("Pieces may be turned/halves"));
    w.wait();
    const Medium& m = w.medium();
    EXPECT_EQ(m.cut_offset.mm(), 3.5);
    EXPECT_TRUE(m.laying.registers);
    EXPECT_EQ(m.laying.together, Together::sizes);
    ASSERT_EQ(m.laying.excluded.size(), 1u);
    const Exclusion clamp{"clamp", Length::from_mm(40), Length::from_mm(100), Length::from_mm(50), Length::from_mm(30)};
    EXPECT_EQ(m.laying.excluded[0], clamp);
    EXPECT_TRUE(m.laying.grain);
    w.settle();
    EXPECT_TRUE(w.sound());
    const HandLayout hand(w.medium(), w.room().transfer_set(), w.layout());
    for (const Polygon& p : hand.outlines()) EXPECT_GT(distance(p, box_region({40, 100, 90, 130})[0]), w.medium().gap.mm() - 0.01);
    w.page("Laying");
    w.click(w.find<QPushButton>("Keep free"));
    EXPECT_NE(w.notice().find("two lengths"), std::string::npos);
    w.choose(w.find<QComboBox>("Kept free"), "clamp");
    w.click(w.find<QPushButton>("Give back"));
    EXPECT_TRUE(w.medium().laying.excluded.empty());
}

TEST(SheetsBench, StockIsTypedChosenAndCountedDown) {
    SheetsWindow w;
    w.as_sheets(330, 480);
    w.page("Stock");
    w.click(w.find<QPushButton>("One more size"));
    w.type(w.find<QLineEdit>("Name"), "Great sheet");
    w.type(w.find<QLineEdit>("Measures"), "480 × 660 mm");
    w.type(w.find<QLineEdit>("Price"), "0,5");
    w.type(w.find<QLineEdit>("On hand"), "40");
    w.wait();
    ASSERT_EQ(w.medium().laying.stock.size(), 1u);
    const StockItem item = w.medium().laying.stock[0];
    EXPECT_EQ(item.name, "Great sheet");
    EXPECT_EQ(item.length.mm(), 660);
    EXPECT_EQ(item.price, 0.5);
    const auto on_hand = [&](const std::string& stock) {
        w.room().stock().flush();
        w.wait();
        const StockEntry* e = find_entry(w.room().stock().stock(), sheets_id(w.medium().id, stock));
        return e == nullptr ? -1 : e->on_hand;
    };
    EXPECT_EQ(on_hand(item.id), 40);
    w.settle("1");
    EXPECT_TRUE(w.sound());
    for (const Sheet& s : w.plan().sheets) EXPECT_EQ(s.stock, item.id) << "larger and cheaper";
    EXPECT_NEAR(w.plan().cost, 0.5 * double(w.plan().sheets.size()), 1e-9);
    // one piece alone on a sheet: what is left of it goes on the shelf, takes the next, and comes from it
    Order one = w.order();
    one.lines.resize(1);
    one.lines[0].quantity = 1;
    w.room().edit("one piece", one);
    w.wait();
    w.settle("0.5");
    w.ribbon()->choose(int(w.copies().size()) - 1);
    w.page("Stock");
    w.click(w.find<QPushButton>("Keep this sheet's left-over"));
    w.wait();
    ASSERT_NE(w.notice().find("is kept"), std::string::npos) << w.notice();
    w.click(w.find<QPushButton>("As the shop has them"));
    w.wait();
    std::string offcut;
    for (const StockItem& s : w.medium().laying.stock)
        if (!s.shape.empty()) offcut = s.id;
    ASSERT_FALSE(offcut.empty());
    const auto used = [&] {
        return std::any_of(w.plan().sheets.begin(), w.plan().sheets.end(), [&](const Sheet& s) { return s.stock == offcut; });
    };
    w.settle("0.5");
    EXPECT_TRUE(w.sound());
    EXPECT_TRUE(used());
    EXPECT_EQ(on_hand(offcut), 1);
    w.page("Print");
    w.click(w.find<QPushButton>("Print this sheet"));
    w.wait();
    EXPECT_EQ(on_hand(offcut), 0) << "it is used up: " << w.find<QLabel>("Device says")->text().toStdString();
}

TEST(SheetsBench, WhatIsLeftIsFilledByWorth) {
    SheetsWindow w;
    w.as_sheets(600, 900);
    w.settle();
    w.ribbon()->choose(0);  // a sheet with one piece has room, however close the others came to lie
    w.ribbon()->send_chosen(sheet_count(w.copies()));
    ASSERT_TRUE(w.sound());
    const std::size_t ordered = w.copies().size();
    w.page("Stock");
    w.type(w.find<QLineEdit>("One more is worth"), "2");
    w.wait();
    w.click(w.find<QPushButton>("Fill"));
    w.wait();
    ASSERT_EQ(w.layout().fill.size(), 1u);
    EXPECT_GT(w.layout().fill[0].copies, 0) << w.notice();
    EXPECT_EQ(w.copies().size(), ordered + std::size_t(w.layout().fill[0].copies));
    EXPECT_TRUE(w.sound());
    w.click(w.find<QPushButton>("Take fillings out"));
    w.wait();
    EXPECT_EQ(w.copies().size(), ordered);
    EXPECT_TRUE(w.sound());
}

TEST(SheetsBench, AFailedPrintLeavesTheRestToBeSettled) {
    SheetsWindow w;
    const auto all = int(w.copies().size());
    w.page("Print");
    w.click(w.find<QPushButton>("Cut this sheet"));
    w.wait();
    EXPECT_TRUE(w.find<QLabel>("Device says")->text().contains("no line crosses ink"));
    w.click(w.find<QCheckBox>("The printer mirrors by itself"));
    w.click(w.find<QPushButton>("Print this sheet"));
    w.wait();
    EXPECT_TRUE(w.find<QLabel>("Device says")->text().contains("mirrored already"));
    w.click(w.find<QCheckBox>("The printer mirrors by itself"));
    w.click(w.find<QCheckBox>("Rehearse a failure"));
    w.type(w.find<QLineEdit>("It stops after"), QString::number(w.plan().length * 0.6));
    w.click(w.find<QPushButton>("Print this sheet"));
    w.wait();
    EXPECT_TRUE(w.find<QLabel>("Device says")->text().contains("are whole"));
    const int printed = w.plan().printed;
    EXPECT_GT(printed, 0);
    EXPECT_EQ(w.plan().asked, all - printed);
    w.settle();
    EXPECT_TRUE(w.sound());
    EXPECT_EQ(int(w.copies().size()), all - printed);
    w.page("Print");
    w.click(w.find<QCheckBox>("Rehearse a failure"));
    w.click(w.find<QPushButton>("Print this sheet"));
    w.wait();
    EXPECT_TRUE(w.find<QLabel>("Device says")->text().contains("ml of ink"));
    const int keeps = method_of(w.order(), w.order().decorations[0])->keeps_days;
    ASSERT_GT(keeps, 0);
    EXPECT_TRUE(
        w.find<QLabel>("Device says")->text().contains(QDate::currentDate().addDays(keeps).toString(QStringLiteral("d MMMM yyyy"))));
    w.click(w.find<QPushButton>("Print all of it anew"));
    w.wait();
    EXPECT_EQ(w.plan().asked, all);
}

TEST(SheetsBench, ManyPiecesLookAsTheyDoWhenDrawn) {
    SheetsWindow w;
    Order next = w.order();
    for (OrderLine& l : next.lines) l.quantity *= 9;
    w.room().edit("more", next);
    w.wait();
    w.settle("0.2");
    ASSERT_GE(w.copies().size(), 100u);
    Ribbon* r = w.ribbon();
    // until every square is drawn and the view rests
    QImage laid;
    for (int k = 0; k < 60; ++k) {
        QTest::qWait(50);
        const QImage now = r->grab().toImage();
        if (k > 10 && now == laid) break;
        laid = now;
    }
    // the same, each piece drawn: as one that is chosen and a little apart from the others is
    Drawing d;
    d.width = r->width();
    d.height = r->height();
    const double zoom = (r->width() - 0.0) / (r->last_mm() - r->first_mm());
    for (const PlacedCopy& c : w.copies())
        if (const Transfer* t = find_transfer(w.room().transfer_set(), c.transfer); t != nullptr && c.sheet == 0)
            draw_piece(d, *t, Affine{zoom, 0, 0, zoom, 6, 24}.after(copy_map(c)), false, false);
    QImage drawn;
    paint_image(drawn, d, w.room().art(), r->width(), r->height(), 1);
    long off = 0, ink = 0;
    for (int y = 40; y < laid.height() - 20; y += 3)
        for (int x = 20; x < laid.width() - 20; x += 3) {
            const QColor a = laid.pixelColor(x, y), b = drawn.pixelColor(x, y);
            if (b.saturation() < 60 || a.saturation() + b.saturation() == 0) continue;
            ++ink;
            off += std::abs(a.hue() - b.hue()) > 25 && std::abs(a.hue() - b.hue()) < 335 && a.lightness() < 225 ? 1 : 0;
        }
    EXPECT_GT(ink, 200);
    EXPECT_LT(off, ink / 12) << "labels cover some, and squares are scaled a little";
    // scrolled and zoomed it shows something else, and back again the same
    r->show_from(400);
    EXPECT_NE(r->grab().toImage(), laid);
    w.key(r, Qt::Key_Plus);
    w.key(r, Qt::Key_Down);
    w.key(r, Qt::Key_0);
    w.key(r, Qt::Key_Home);
    EXPECT_EQ(r->first_mm(), 0);
    for (int k = 0; k < 100 && r->grab().toImage() != laid; ++k) QTest::qWait(50);
    EXPECT_EQ(r->grab().toImage(), laid);
}

TEST(SheetsBench, BlanksLieOnTheSheetAndGroupsOneAfterTheOther) {
    SheetsWindow w;
    w.page("Laying");
    w.choose(w.find<QComboBox>("Together"), "each size");
    w.wait();
    const auto said_mixed = [&] {
        return std::any_of(w.room().findings().begin(), w.room().findings().end(),
                           [](const Finding& f) { return f.code == "groups-mixed"; });
    };
    EXPECT_TRUE(said_mixed());
    w.settle("0.05");  // hardly shorter than what is there, and yet taken
    EXPECT_TRUE(w.sound());
    EXPECT_FALSE(said_mixed());
    std::map<std::string, Rect> groups;
    const auto boxes = laid_boxes(w.medium(), w.room().transfer_set(), w.copies());
    for (std::size_t i = 0; i < boxes.size(); ++i) {
        Rect box = boxes[i];  // run after run, as they come from the roll: a hurried layout may take a second one
        const double before = w.copies()[i].sheet * 1e5;
        box.x0 += before;
        box.x1 += before;
        Rect& all = groups.emplace(sizes_text(*find_transfer(w.room().transfer_set(), w.copies()[i].transfer)), box).first->second;
        all = united(all, box);
    }
    for (const auto& [a, ra] : groups)
        for (const auto& [b, rb] : groups)
            if (a < b)
                EXPECT_TRUE(ra.x1 < rb.x0 || rb.x1 < ra.x0)
                    << a << " and " << b << ": " << ra.x0 << " to " << ra.x1 << ", " << rb.x0 << " to " << rb.x1;
    w.page("Laying");
    w.choose(w.find<QComboBox>("Together"), "nothing");
    w.click(w.find<QPushButton>("Parted/on sheet"));
    w.wait();
    // tees are larger than the film: that is said, and nothing is lost
    const auto before = w.copies();
    w.settle("0.3");
    EXPECT_NE(w.notice().find("larger than the medium"), std::string::npos) << w.notice();
    EXPECT_EQ(w.copies(), before);
    for (const Transfer& t : w.room().transfer_set().transfers) EXPECT_FALSE(t.blanks.empty());
}

TEST(SheetsBench, EveryMediumIsSettledOneAfterTheOther) {
    test::Window w;
    w.open(test::source("demo/marrow-hill"));
    Order bare = w.order();
    std::erase_if(bare.layouts.own(), [](const MediumLayout& l) { return l.medium != "film-559"; });  // the longest stays as it lies
    w.room().edit(QStringLiteral("nothing laid"), bare);
    w.wait();
    w.go(5);
    w.type(w.find<QLineEdit>("Settle for (s)"), "0.2");
    w.click(w.find<QPushButton>("Settle all"));
    w.wait();
    EXPECT_FALSE(w.room().settler().running());
    for (const MediumPlan& m : w.room().sheets().media) {
        EXPECT_EQ(m.placed, m.asked) << m.medium;
        EXPECT_FALSE(m.stale) << m.medium;
    }
}

}  // namespace TESTED
}  // namespace orthema
