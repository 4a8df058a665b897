// Order, Art and Guides benches, each through mouse and keys.
#include <QPrinter>

#include <cmath>

#include "app/benches/art/art_bench.h"
#include "app/benches/art/art_view.h"
#include "app/benches/guides/guides_bench.h"
#include "core/drawing/code2d.h"
#include "app/benches/order/list_preview.h"
#include "app/benches/order/order_bench.h"
#include "app/benches/order/run_picture.h"
#include "app/widgets/chips.h"
#include "app/widgets/figures.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::SmallWindow;
using test::Window;

TEST(OrderBench, QuantitiesAreTypedStraightOnThePicture) {
    SmallWindow w(1);
    RunPicture* picture = w.bench<OrderBench>("order")->picture();
    w.click(picture, picture->slot_centre({"adult-tee", "ash"}, "2XL"));
    EXPECT_EQ(w.room().selection().size, "2XL");
    w.key(picture, Qt::Key_1);
    w.key(picture, Qt::Key_2);
    EXPECT_EQ(w.quantity("2XL"), 12);
    w.key(picture, Qt::Key_Backspace);
    EXPECT_EQ(w.quantity("2XL"), 1);
    w.key(picture, Qt::Key_Plus);
    EXPECT_EQ(w.quantity("2XL"), 2);
    w.key(picture, Qt::Key_Left);
    EXPECT_EQ(w.room().selection().size, "XL");
    w.key(picture, Qt::Key_Delete);
    EXPECT_EQ(w.quantity("XL"), 0);
    w.undo();
    EXPECT_EQ(w.quantity("XL"), 3);
    w.undo();
    EXPECT_EQ(w.quantity("2XL"), 0) << "typing one quantity is one step";
}

TEST(OrderBench, ARunIsAddedAndTakenOut) {
    SmallWindow w(1);
    auto* blank = w.find<QComboBox>("Blank");
    blank->setFocus();
    w.key(blank, Qt::Key_End);
    const std::string style = blank->currentData().toString().toStdString();
    w.click(w.find<QPushButton>("Add the run"));
    ASSERT_EQ(runs_of(w.order()).size(), 2u);
    EXPECT_EQ(w.room().selection().run.style, style);
    w.type(w.find<QLineEdit>("Quantity"), "7");
    EXPECT_EQ(garments_in(w.order(), w.room().selection().run), 7);
    w.type(w.find<QLineEdit>("Quantity"), "many");
    EXPECT_EQ(garments_in(w.order(), w.room().selection().run), 7);
    w.click(w.find<QPushButton>("Take this run out"));
    EXPECT_EQ(runs_of(w.order()).size(), 1u);
    w.type(w.find<QLineEdit>("Due date"), "12 June 2027");
    EXPECT_EQ(w.order().due, "2027-06-12");
    w.type(w.find<QLineEdit>("Due date"), "someday");
    EXPECT_EQ(w.order().due, "2027-06-12");
}

TEST(OrderBench, ColumnsCanBeMappedByHand) {
    SmallWindow w(1);
    // two columns could be the size: the guess takes the first, the user the second
    test::spill(w.data("l.tsv"), "Product\tSize of box\tFits\tCount\nAdult Tee ash\tM\tXXL\t4\nAdult Tee ash\tM\tL\t2\n");
    w.drop({w.data("l.tsv")});
    ListPreview* preview = w.bench<OrderBench>("order")->preview();
    ASSERT_NE(preview, nullptr);
    EXPECT_EQ(preview->result().lines.at(0).size, "M");
    preview->column(1)->setCurrentIndex(0);
    preview->column(2)->setCurrentText("size");
    w.wait();
    ASSERT_EQ(preview->result().lines.size(), 2u);
    EXPECT_EQ(preview->result().lines[0].size, "2XL");
    const Order before = w.order();
    w.click(preview->accept_button());
    EXPECT_EQ(w.quantity("2XL"), 4);
    w.wait();
    w.undo();
    EXPECT_EQ(w.order(), before);
}

TEST(OrderBench, AListThatIsNoneIsSaidAndNothingIsLost) {
    SmallWindow w(1);
    const Order before = w.order();
    test::spill(w.data("empty.csv"), "");
    w.drop({w.data("empty.csv")});
    EXPECT_NE(w.notice().find("empty.csv"), std::string::npos) << w.notice();
    EXPECT_EQ(w.bench<OrderBench>("order")->preview(), nullptr);
    EXPECT_EQ(w.order(), before);
}

TEST(ArtBench, TheCentreIsMarkedWithAClick) {
    SmallWindow w(3);
    ArtView* view = w.bench<ArtBench>("art")->view();
    w.click(view, view->place_of({0.6, 0.3}));
    EXPECT_FALSE(w.order().art[0].marked_centre) << "a click alone marks nothing";
    w.click(w.find<QPushButton>("Mark the centre"));
    w.click(view, view->place_of({0.6, 0.3}));
    ASSERT_TRUE(w.order().art[0].marked_centre);
    EXPECT_NEAR(w.order().art[0].marked_centre->x, 0.6, 0.01);
    EXPECT_NEAR(w.order().art[0].marked_centre->y, 0.3, 0.01);
    w.key(view, Qt::Key_Right);
    EXPECT_GT(w.order().art[0].marked_centre->x, 0.6);
    w.key(view, Qt::Key_Delete);
    EXPECT_FALSE(w.order().art[0].marked_centre);
}

TEST(ArtBench, BrokenPicturesAreSaidAndTheOthersComeIn) {
    SmallWindow w(3);
    test::spill(w.data("half.png"), test::slurp(test::source("demo/src/cloud-kite.png")).substr(0, 9000));
    w.drop({w.data("half.png"), test::source("demo/src/wind-rose.svg")});
    EXPECT_EQ(w.order().art.size(), 2u);
    EXPECT_NE(w.notice().find("half.png"), std::string::npos) << w.notice();
    w.undo();
    EXPECT_EQ(w.order().art.size(), 1u);
    w.drop({test::source("demo/src/cloud-kite.png")});
    ASSERT_EQ(w.order().art.size(), 2u);
    EXPECT_GT(w.room().facts().at(w.order().art[1].id).half_transparent, 0.05);
}

TEST(ArtBench, APictureGoesOnAnotherLocationToo) {
    SmallWindow w(3);
    auto* location = w.find<QComboBox>("Location");
    w.choose(location, "upper back (nape)");
    w.click(w.find<QPushButton>("Put it on"));
    ASSERT_EQ(w.order().decorations.size(), 2u);
    EXPECT_EQ(w.order().decorations[1].location, Location::upper_back);
    EXPECT_EQ(w.room().selection().decoration, w.order().decorations[1].id);
    w.go(3);
    w.click(w.find<QPushButton>("Take this picture out"));
    EXPECT_TRUE(w.order().decorations.empty());
    w.undo();
    EXPECT_EQ(w.order().decorations.size(), 2u);
}

TEST(GuidesBench, ShowsCardTemplateAndRealSizeForEverySize) {
    SmallWindow w(6);
    auto* view = w.find("Guide view");
    QImage last;
    for (const char* show : {"Show/card", "Show/template", "Show/at real size"}) {
        w.click(w.find<QPushButton>(show));
        const QImage now = view->grab().toImage();
        EXPECT_NE(now, last) << show;
        last = now;
    }
    for (const char* size : {"S", "3XL"}) {
        for (ChipButton* chip : w.window().findChildren<ChipButton*>("chip " + QString(size)))
            if (chip->isVisible()) w.click(chip);
        EXPECT_EQ(w.room().selection().size, size);
    }
    w.click(w.find<QPushButton>("Paper for guides/letter"));
    EXPECT_EQ(w.order().paper, Paper::letter);
}

TEST(GuidesBench, MapsMastersBoardsAndChartsAreShown) {
    SmallWindow w(6);
    auto* view = w.find("Guide view");
    QImage last;
    EXPECT_EQ(w.find<QPushButton>("Show/aid")->text(), "aid") << "a tee needs none";
    for (const char* show : {"Show/platen map", "Show/master", "Show/aid", "Show/wall chart"}) {
        w.click(w.find<QPushButton>(show));
        const QImage now = view->grab().toImage();
        EXPECT_NE(now, last) << show;
        last = now;
    }
}

TEST(GuidesBench, WhatIsShownPrintsAtItsTrueSize) {
    SmallWindow w(6);
    auto* bench = w.bench<GuidesBench>("guides");
    w.click(w.find<QPushButton>("Show/template"));
    const std::string path = w.data("printed.pdf");
    auto printer = std::make_shared<QPrinter>(QPrinter::HighResolution);
    printer->setOutputFormat(QPrinter::PdfFormat);
    printer->setOutputFileName(QString::fromStdString(path));
    bench->print_on(std::move(printer));
    w.wait();
    const DecorationFit& fit = *w.room().fit();
    const SizeFit& size =
        *find_size(fit, w.room().selection().size.empty() ? fit.sizes[fit.sizes.size() / 2].size : w.room().selection().size);
    const Decoration& d = w.order().decorations[0];
    const Guide guide = guide_for(w.order(), d, fit, size, w.room().facts().at(d.art).outline);
    const std::string info = test::run("pdfinfo '" + path + "'").out;
    EXPECT_NE(info.find("Pages:           " + std::to_string(guide.tiles.size())), std::string::npos) << info;
    EXPECT_EQ(printed_as(w.order(), d, size), Printed::current) << "it is noted as printed";
    // the ink's left corner bracket on the first page
    const test::Canvas page = test::render_pdf(path, 1, 254);
    EXPECT_NEAR(page.width / 10.0, guide.tiles[0].drawing.width, 0.3);
    int least = page.width;
    for (int y = 0; y < page.height; ++y)
        for (int x = 0; x < page.width; ++x) {
            const std::uint8_t* p = page.at(x, y);
            if (p[0] < 90 && p[1] > 100 && p[1] < 150 && p[2] > 95 && p[2] < 145) least = std::min(least, x);
        }
    EXPECT_NEAR(least / 10.0, size.ink.x0 - guide.layout.area.x0 + 10 - 0.25, 0.3);
}

TEST(GuidesBench, CorrectionWindowsAndCodesAreTyped) {
    SmallWindow w(6);
    w.type(w.find<QLineEdit>("100 mm prints as"), "99.2");
    EXPECT_DOUBLE_EQ(w.order().guide_setup.measured.mm(), 99.2);
    w.type(w.find<QLineEdit>("100 mm prints as"), "9.2");
    EXPECT_DOUBLE_EQ(w.order().guide_setup.measured.mm(), 99.2) << "no printer is that far off";
    w.click(w.find<QCheckBox>("Larger paper too"), QPoint(8, 8));
    EXPECT_TRUE(w.order().guide_setup.large_paper);
    w.click(w.find<QCheckBox>("Cut-out windows"), QPoint(8, 8));
    EXPECT_TRUE(w.order().guide_setup.windows);
    const DecorationFit& fit = *w.room().fit();
    const SizeFit& last = fit.sizes.back();
    ASSERT_NE(w.room().selection().size, last.size);
    w.type(w.find<QLineEdit>("Code"),
           QString::fromStdString(code_text({fit.decoration, last.size, guide_revision(w.order(), w.order().decorations[0], last)})));
    EXPECT_EQ(w.room().selection().size, last.size);
    w.type(w.find<QLineEdit>("Code"), "orthema:nothing/M/XXXXXX");
    EXPECT_EQ(w.room().selection().size, last.size);
}

TEST(GuidesBench, AGuideThatNoLongerHoldsIsMarked) {
    SmallWindow w(6);
    w.room().exporter().guides_printed();
    w.wait();
    EXPECT_NE(w.find<QLabel>("Guide revision")->text().indexOf("still holds"), -1);
    Order next = w.order();
    next.decorations[0].placing.offset = Length::from_mm(47);
    w.room().edit("lower", next);
    w.wait();
    EXPECT_NE(w.find<QLabel>("Guide revision")->text().indexOf("stale"), -1);
    EXPECT_TRUE(
        std::any_of(w.room().findings().begin(), w.room().findings().end(), [](const Finding& f) { return f.code == "guide-stale"; }));
    ExportChoice choice;
    choice.sheets_pdf = choice.sheets_png = choice.cut_lines = choice.tables = choice.press = false;
    w.room().exporter().export_to(QString::fromStdString(w.data("out")), choice);
    w.wait();
    EXPECT_NE(w.notice().find("other figures"), std::string::npos);
    EXPECT_NE(w.find<QLabel>("Guide revision")->text().indexOf("still holds"), -1) << "printed anew";
    w.undo();
    w.undo();
    w.wait();
    EXPECT_NE(w.find<QLabel>("Guide revision")->text().indexOf("still holds"), -1) << "back to what was printed first";
}

TEST(GuidesBench, FiguresFollowTheFit) {
    SmallWindow w(6);
    const auto text = [&] {
        QString all;
        for (QLabel* l : w.bench<GuidesBench>("guides")->figures()->findChildren<QLabel*>()) all += l->text();
        return all;
    };
    const QString before = text();
    Order next = w.order();
    next.decorations[0].placing.offset = Length::from_mm(41);
    next.decorations[0].placing.growth = 0;
    w.room().edit("offset", next);
    EXPECT_NE(text(), before);
    EXPECT_TRUE(text().contains(QStringLiteral("41") + QChar(0xA0) + "mm"));
}

TEST(OrderBench, ALotIsPartedGetsAnotherPictureAndIsJoinedAgain) {
    SmallWindow w(1);
    const RunKey run{"adult-tee", "ash"};
    const int all = garments_in(w.order(), run);
    auto* picture = w.bench<app::OrderBench>("order")->picture();
    w.click(picture, picture->slot_centre(run, "L"));
    w.choose(w.find<QComboBox>("Part off"), "all of this size");
    w.click(w.find<QPushButton>("Part"));
    ASSERT_EQ(w.order().lots.size(), 1U);
    const RunKey lot{"adult-tee", "ash", w.order().lots[0].id};
    EXPECT_EQ(w.room().selection().run, lot) << "the new lot is in hand";
    EXPECT_EQ(garments_in(w.order(), lot), 5);
    EXPECT_EQ(garments_in(w.order(), run), all - 5);
    w.type(w.find<QLineEdit>("Lot name"), "Pilots");
    EXPECT_EQ(run_name(w.order(), lot), "Adult tee, ash · Pilots");
    // its design is its own: taken off, the other stays
    w.wait();
    w.go(4);
    int chosen = 0;
    for (const auto* chip : w.window().findChildren<ChipButton*>())
        if (chip->isVisible() && chip->accessibleName().contains("Adult tee") && chip->accessibleName().endsWith("chosen")) ++chosen;
    EXPECT_EQ(chosen, 1) << "one lot is in hand, not every lot of the blank";
    w.click(w.find<QPushButton>("Figures page/Press"));
    w.click(w.find<QPushButton>("Take this design off"));
    ASSERT_EQ(w.order().decorations.size(), 1U);
    EXPECT_EQ(w.order().decorations[0].run, run);
    w.undo();
    w.wait();
    int cards = 0;
    for (const DecorationFit& f : w.room().plan().decorations) cards += int(f.sizes.size());
    EXPECT_EQ(cards, 5) << "four sizes in one lot, one in the other";
    w.room().keeper().save(QString::fromStdString(w.data("lots.orthema")));
    w.wait();
    const Order before = w.order();
    w.open(w.data("lots.orthema"));
    EXPECT_EQ(w.order(), before);
    w.go(1);
    w.click(picture, picture->slot_centre(lot, "L"));
    w.click(w.find<QPushButton>("Join again"));
    EXPECT_EQ(garments_in(w.order(), run), all);
    EXPECT_TRUE(w.order().lots.empty());
}

}  // namespace TESTED
}  // namespace orthema
