// The whole job through the window: a list and pictures come in, a rule is set by drag and by typing, pieces are
// settled and moved, files are written, the order is saved, closed, opened again and is the same.
#include <algorithm>
#include <cmath>
#include <numeric>

#include "app/benches/art/art_bench.h"
#include "app/benches/fit/fit_bench.h"
#include "app/benches/fit/fit_wall.h"
#include "app/benches/order/list_preview.h"
#include "app/benches/order/order_bench.h"
#include "app/benches/sheets/ribbon.h"
#include "app/benches/sheets/sheets_bench.h"
#include "app/window/export_panel.h"
#include "app/widgets/figures.h"
#include "core/sheets/by_hand.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::Window;

std::string list_of_crew() {
    return "Product,Colour,Size,Qty\nAdult Tee,Ash,S,3\nAdult Tee,Ash,M,5\nAdult Tee,Ash,L,6\nAdult Tee,Ash,XXL,2\nAdult Tee,Ash,Jumbo,1\n";
}

TEST(WholeJob, FromAListToFilesAndBack) {
    Window w;
    const std::string list = w.data("crew.csv");
    test::spill(list, list_of_crew());

    // a list is dropped on the window; its preview shows what is kept out
    w.drop({list});
    auto* order_bench = w.bench<OrderBench>("order");
    ListPreview* preview = order_bench->preview();
    ASSERT_NE(preview, nullptr);
    w.wait();
    EXPECT_EQ(preview->result().garments, 16);
    ASSERT_EQ(preview->result().bad.size(), 1u);
    EXPECT_NE(preview->result().bad[0].reason.sentence.find("Jumbo"), std::string::npos);
    w.click(preview->accept_button());
    w.wait();
    EXPECT_EQ(garments_in(w.order()), 16);
    w.type(w.find<QLineEdit>("Order name"), "Crew of the fair");
    EXPECT_EQ(w.order().name, "Crew of the fair");

    // pictures: one drawn, one of pixels
    w.drop({test::source("demo/src/long-tail-kite.svg"), test::source("demo/src/crescent-badge.svg")});
    ASSERT_EQ(w.order().art.size(), 2u) << w.notice();
    EXPECT_EQ(w.window().current(), 2) << "the Art bench shows them";
    for (const Art& a : w.order().art) {
        ASSERT_TRUE(w.room().facts().contains(a.id));
        EXPECT_TRUE(w.room().facts().at(a.id).vector);
    }
    auto* run = w.find<QComboBox>("Run");
    ASSERT_NE(run, nullptr);
    EXPECT_EQ(run->currentText(), "Adult tee, ash");
    w.click(w.find<QPushButton>("Put it on"));
    ASSERT_EQ(w.order().decorations.size(), 1u);
    EXPECT_EQ(w.window().current(), 3) << "and leads to Fit";

    // the rule, by drag: the design on L goes down, and every size follows
    FitWall* wall = w.bench<FitBench>("fit")->wall();
    w.click(wall, wall->design_at("L"));
    const DecorationFit before = w.room().plan().decorations[0];
    const double k = wall->wall().scale;
    const QPoint from = wall->design_at("L");
    w.drag(wall, from, from + QPoint(0, 12));
    const DecorationFit moved = w.room().plan().decorations[0];
    const double by = find_size(moved, "L")->ink.y0 - find_size(before, "L")->ink.y0;
    EXPECT_NEAR(by, 12 / k, 1.0);
    EXPECT_NEAR(find_size(moved, "L")->top_to_ink, std::round(find_size(moved, "L")->top_to_ink), 1e-6) << "as the tape would read it";
    for (const SizeFit& s : moved.sizes) EXPECT_GT(s.ink.y0, find_size(before, s.size)->ink.y0 + by / 2) << s.size;
    EXPECT_TRUE(w.order().decorations[0].pins.empty());
    w.undo();
    EXPECT_EQ(find_size(w.room().plan().decorations[0], "L")->ink, find_size(before, "L")->ink) << "one drag is one step";
    w.key(&w.window(), Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    EXPECT_EQ(find_size(w.room().plan().decorations[0], "L")->ink, find_size(moved, "L")->ink);

    // with the modifier, only that size
    const QPoint on_m = wall->design_at("M");
    w.drag(wall, on_m, on_m + QPoint(0, -9), Qt::ControlModifier);
    ASSERT_EQ(w.order().decorations[0].pins.size(), 1u);
    EXPECT_EQ(w.order().decorations[0].pins[0].size, "M");
    EXPECT_EQ(find_size(w.room().plan().decorations[0], "L")->ink, find_size(moved, "L")->ink);

    // the rule, by typing: 3 1/16 in below the collar on the chosen size, whatever the unit shown
    w.click(wall, wall->design_at("L"));
    w.click(w.find<QPushButton>("Figures page/Place"));
    w.type(w.find<QLineEdit>("Top to ink"), "3 1/16 in");
    EXPECT_NEAR(find_size(w.room().plan().decorations[0], "L")->top_to_ink, 49 * 25.4 / 16, 1e-6);
    w.click(w.find<QPushButton>("Figures page/Size"));
    w.type(w.find<QLineEdit>("Ink width"), "24cm");
    EXPECT_NEAR(find_size(w.room().plan().decorations[0], "L")->ideal, 240, 1e-6);
    w.type(w.find<QLineEdit>("Ink width"), "nonsense");
    EXPECT_NEAR(find_size(w.room().plan().decorations[0], "L")->ideal, 240, 1e-6) << "what is no length changes nothing";
    w.type(w.find<QLineEdit>("Ink width"), "200");

    // sheets: settle, then move a piece by hand
    w.wait();
    w.go(5);
    w.type(w.find<QLineEdit>("Settle for (s)"), "0.3");
    w.click(w.find<QPushButton>("Settle"));
    w.wait();
    Ribbon* ribbon = w.bench<SheetsBench>("sheets")->ribbon();
    ASSERT_EQ(copies_of(w.room()).size(), 16u);
    ASSERT_FALSE(w.room().sheets().media.at(0).stale);
    // the pieces that reach farthest: behind them the film is free, unless one is hooked into its neighbour
    const Medium& medium = *find_medium(w.room().order(), w.room().selection().medium);
    const auto boxes = laid_boxes(medium, w.room().transfer_set(), copies_of(w.room()));
    std::vector<int> order(16);
    std::iota(order.begin(), order.end(), 0);
    std::sort(order.begin(), order.end(), [&](int a, int b) { return boxes[std::size_t(a)].x1 > boxes[std::size_t(b)].x1; });
    ribbon->show_from(boxes[std::size_t(order[0])].x1 - 400);
    int last = order[0];
    PlacedCopy lay;
    for (const int i : {order[0], order[1], order[2], order[3]}) {
        last = i;
        lay = copies_of(w.room())[std::size_t(i)];
        const QPoint at = ribbon->place_of(i);
        w.drag(ribbon, at, at + QPoint(45, 0));
        if (copies_of(w.room())[std::size_t(i)] != lay) break;
    }
    w.wait();
    EXPECT_EQ(ribbon->chosen(), last);
    const PlacedCopy lies = copies_of(w.room())[std::size_t(last)];
    EXPECT_TRUE(lies.x != lay.x || lies.y != lay.y);
    EXPECT_FALSE(w.room().sheets().media.at(0).stale) << "and lies on no other";
    w.key(ribbon, Qt::Key_L);
    EXPECT_TRUE(copies_of(w.room())[std::size_t(last)].locked);
    w.wait();

    // export, in one action
    ExportPanel* panel = w.window().show_export();
    w.type(panel->findChild<QLineEdit*>("Folder"), QString::fromStdString(w.data("out")));
    panel->findChild<QCheckBox*>("Gang sheets as PNG with alpha")->setChecked(false);
    w.click(panel->findChild<QPushButton*>("Write the files"));
    w.wait();
    EXPECT_NE(panel->findChild<QLabel*>("Export says")->text().indexOf("18 files written"), -1)
        << panel->findChild<QLabel*>("Export says")->text().toStdString();
    const std::string stem = w.data("out/crew-of-the-fair");
    EXPECT_EQ(test::run("qpdf --check '" + stem + "_film-roll-559_sheet-1.pdf'").code, 0);
    EXPECT_EQ(test::run("qpdf --check '" + stem + "_templates.pdf'").code, 0);
    EXPECT_EQ(test::run("xmllint --noout '" + stem + "_film-roll-559_sheet-1_cut.svg'").code, 0);
    const std::string pieces = test::slurp(stem + "_pieces.csv");
    EXPECT_EQ(std::count(pieces.begin(), pieces.end(), '\n'), 17);
    panel->hide();

    // save, close, open again: the same
    w.room().keeper().save(QString::fromStdString(w.data("crew.orthema")));
    w.wait();
    EXPECT_FALSE(w.room().document().changed_since_saved());
    const Order saved = w.order();
    w.close();
    Window second(&w);
    second.open(w.data("crew.orthema"));
    EXPECT_EQ(second.order(), saved);
    EXPECT_FALSE(second.room().document().changed_since_saved());
    EXPECT_EQ(second.room().keeper().recent().front(), QString::fromStdString(w.data("crew.orthema")));
    second.go(5);
    EXPECT_FALSE(second.room().sheets().media.at(0).stale);
    EXPECT_EQ(copies_of(second.room()).size(), 16u);
}

}  // namespace TESTED
}  // namespace orthema
