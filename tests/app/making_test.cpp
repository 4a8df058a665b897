// Making in the window: methods, layers, seams dragged, cups turned, jigs edited, letters filled.
#include <QCheckBox>

#include <cmath>

#include "app/benches/art/art_bench.h"
#include "app/benches/art/art_view.h"
#include "app/benches/fit/fit_bench.h"
#include "app/benches/fit/making_view.h"
#include "app/widgets/chips.h"
#include "app/widgets/figures.h"
#include "core/order/rules.h"
#include "files/order_file.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::Window;

/// The blanks of the demo that wear one decoration, at Fit, with its making in view.
struct MakingWindow : Window {
    explicit MakingWindow(const char* decoration) {
        auto demo = open_order(test::source("demo/marrow-hill"));
        Order& o = demo->order;
        const RunKey run = find_decoration(o, decoration)->run;
        std::erase_if(o.lines.own(), [&](const OrderLine& l) { return run_of(l) != run; });
        std::erase_if(o.decorations, [&](const Decoration& d) { return d.run != run; });
        o.lots.clear();
        o.layouts.clear();
        EXPECT_TRUE(save_order(data("one.orthema"), followed(o), demo->art));
        open(data("one.orthema"));
        go(4);
        Selection s = room().selection();
        s.decoration = decoration;
        s.run = find_decoration(order(), decoration)->run;
        room().select(s);
        wait();
        click(find<QPushButton>("Look at/making"));
        wait();
    }
    MakingView* view() { return bench<FitBench>("fit")->making(); }
    const Decoration& d() { return *room().decoration(); }
    void page(const char* name) { click(find<QPushButton>(QStringLiteral("Making page/") + QLatin1String(name))); }
    const Made& made() { return *find_making(room().transfer_set(), d().id, room().selection().size)->made; }
    std::vector<const Transfer*> pieces() {
        return pieces_of(room().transfer_set(), *find_making(room().transfer_set(), d().id, room().selection().size));
    }
    bool says(const std::string& code) {
        return std::any_of(room().findings().begin(), room().findings().end(),
                           [&](const Finding& f) { return f.code == code && f.about.decoration == d().id; });
    }
};

TEST(MakingBench, ASeamIsDraggedAndFindsItsWayAnew) {
    MakingWindow w("crew-hill");
    w.page("Split");
    ASSERT_TRUE(w.made().split);
    const SplitPlan before = *w.made().split;
    EXPECT_EQ(w.find<QLabel>("Parts")->text(), QStringLiteral("%1 × %2").arg(before.columns).arg(before.rows));
    ASSERT_FALSE(before.seams.empty());
    const Seam& seam = before.seams.back();
    const Point from = (seam.line.front() + seam.line.back()) * 0.5;
    const Point to = from + (seam.upright ? Point{14, 0} : Point{0, 14});
    w.drag(w.view(), w.view()->place_of(from), w.view()->place_of(to));
    w.wait();
    ASSERT_EQ(w.d().making.seam_points.size(), 1u);
    const SplitPlan after = *w.made().split;
    EXPECT_GE(after.ink_cut, before.ink_cut - 1e-6);
    double nearest = 1e9;
    const Point asked = w.d().making.seam_points[0].at * w.made().input.width;
    const Polygon dot{{asked, asked + Point{1e-6, 0}, asked + Point{0, 1e-6}}, {}};
    const Ring& line = after.seams.back().line;
    for (std::size_t i = 0; i + 1 < line.size(); ++i)
        nearest = std::min(nearest, distance(Polygon{{line[i], line[i + 1], line[i + 1] + Point{0, 1e-6}}, {}}, dot));
    EXPECT_LT(nearest, 0.5) << "it passes where it was dropped";
    w.click(w.find<QPushButton>("Back to least ink"));
    w.wait();
    EXPECT_NEAR(w.made().split->ink_cut, before.ink_cut, 1e-9);
    w.click(w.find<QCheckBox>("Split it where there is least ink"));
    w.wait();
    EXPECT_FALSE(w.made().split);
    EXPECT_EQ(w.pieces().size(), 1u);
    w.undo();
    w.wait();
    EXPECT_TRUE(w.made().split);
}

TEST(MakingBench, LayersByColourWithABacking) {
    MakingWindow w("tote-kites");
    ASSERT_EQ(w.pieces().size(), 3u);
    w.page("Layers");
    w.choose(w.find<QComboBox>("Layer"), "backing");
    w.type(w.find<QLineEdit>("Larger than above by"), "2.5 mm");
    w.wait();
    EXPECT_NEAR(w.d().making.layers.back().grow.mm(), 2.5, 1e-9);
    w.click(w.find<QPushButton>("Corners/square"));
    w.wait();
    EXPECT_EQ(w.d().making.corner, Corner::square);
    w.type(w.find<QLineEdit>("Larger than above by"), "-30");
    w.wait();
    EXPECT_TRUE(w.says("layer-swallowed")) << "it is said, and nothing is lost";
    EXPECT_EQ(w.d().making.layers.size(), 3u);
    w.undo();
    w.wait();
    EXPECT_FALSE(w.says("layer-swallowed"));
    w.click(w.find<QPushButton>("Split by colour"));
    w.wait();
    EXPECT_EQ(w.d().making.layers.size(), 3u) << "two colours, and the backing stays";
    // saved, opened again, the same
    const std::string path = w.data("o.orthema");
    w.room().keeper().save(QString::fromStdString(path));
    w.wait();
    EXPECT_EQ(open_order(path)->order.decorations, w.order().decorations);
}

TEST(MakingBench, AnUnsuitableMethodSaysWhyAndTheOthersCost) {
    MakingWindow w("pilot-rose");  // on navy cotton
    auto* sublimation = w.find<QPushButton>("Method sublimation");
    EXPECT_TRUE(sublimation->text().startsWith(QStringLiteral("✕")));
    w.click(sublimation);
    w.wait();
    EXPECT_EQ(find_medium(w.order(), w.d().medium)->method, "sublimation");
    EXPECT_TRUE(w.says("method-unsuited"));
    w.click(w.find<QPushButton>("Method direct-to-film"));
    w.wait();
    EXPECT_FALSE(w.says("method-unsuited"));
}

TEST(MakingBench, ABottlesWrapIsTurnedAndItsLapIsSaid) {
    MakingWindow w("bottle-stripes");
    w.page("Shape");
    ASSERT_TRUE(w.made().sector);
    const double width = bounds(w.pieces()[0]->contour.outer).width();
    w.type(w.find<QLineEdit>("Past the wall"), "0.5");
    w.wait();
    EXPECT_TRUE(w.says("lap-short"));
    EXPECT_LT(bounds(w.pieces()[0]->contour.outer).width(), width);
    w.click(w.find<QPushButton>("Wrap join/butt"));
    w.wait();
    EXPECT_TRUE(w.says("butt-line"));
    const QPoint middle(int(w.view()->width() * 0.8), w.view()->height() / 2);
    w.drag(w.view(), middle, middle + QPoint(-50, 0));
    EXPECT_GT(w.view()->turned(), 5);
}

TEST(MakingBench, AnEnamelMugsSheetEndsAtItsHandle) {
    MakingWindow w("mug-frieze");
    w.page("Shape");
    ASSERT_TRUE(w.made().sector);
    EXPECT_TRUE(w.made().sector->straight());
    // by tape 254 round, the handle takes 34, the wall is 78 high
    const Rect sheet = bounds(w.pieces()[0]->contour.outer);
    EXPECT_NEAR(sheet.width(), 220, 1e-6);
    EXPECT_NEAR(sheet.height(), 78 + 9, 1e-6) << "and a tab past the rim";
    EXPECT_EQ(w.find<QLabel>("Sheet")->text(), "220 × 78 mm");
    EXPECT_FALSE(w.find<QLineEdit>("Past the wall")->isEnabled()) << "its ends do not meet";
    w.key(w.view(), Qt::Key_Right);
    EXPECT_GT(w.view()->turned(), 0) << "turned by keys, too";
    // other media are tried by keys
    w.page("Method");
    w.choose(w.find<QComboBox>("Medium"), "Sublimation A3");
    w.wait();
    EXPECT_EQ(w.pieces()[0]->medium, "sublimation-a3");
    w.choose(w.find<QComboBox>("Medium"), "Sublimation A4");
    w.wait();
    EXPECT_EQ(w.pieces()[0]->medium, "sublimation-a4");
    EXPECT_TRUE(w.d().making.layers.empty()) << "no layers of a method passed by on the way";
}

TEST(MakingBench, TheShopsFiguresAreEditedAndKept) {
    MakingWindow w("tote-kites");
    w.page("Shop");
    w.choose(w.find<QComboBox>("This method"), "Cut vinyl");
    w.type(w.find<QLineEdit>("Thinnest stroke"), "40 mm");
    w.wait();
    EXPECT_NEAR(find_method(w.order(), "cut vinyl")->min_stroke.mm(), 40, 1e-9);
    EXPECT_TRUE(w.says("weed-sliver")) << "nothing in it is as thick as that";
    w.undo();
    w.wait();
    EXPECT_FALSE(w.says("weed-sliver"));
    w.click(w.find<QPushButton>("Usual layers as here"));
    w.wait();
    EXPECT_EQ(find_method(w.order(), "cut vinyl")->layers, w.d().making.layers) << "two colours and a backing";
    w.type(w.find<QLineEdit>("Fabrics it takes"), "silk");
    w.wait();
    EXPECT_TRUE(w.says("method-unsuited"));
    w.click(w.find<QPushButton>("Reads/as printed"));
    w.wait();
    EXPECT_TRUE(std::any_of(w.room().findings().begin(), w.room().findings().end(), [](const Finding& f) {
        return f.code == "mirror-parity";
    })) << "the media still mirror";
    w.click(w.find<QPushButton>("Keep it in the library"));
    w.wait();
    const auto& kept = w.room().library().content().methods;
    const auto at = std::find_if(kept.begin(), kept.end(), [](const Method& m) { return m.id == "cut vinyl"; });
    ASSERT_NE(at, kept.end());
    EXPECT_EQ(at->fabrics, std::vector<std::string>{"silk"});
    w.click(w.find<QPushButton>("Shop data/film or paper"));
    w.choose(w.find<QComboBox>("This medium"), "Vinyl roll navy");
    w.click(w.find<QPushButton>("Who mirrors/nobody"));
    w.wait();
    EXPECT_EQ(find_medium(w.order(), "vinyl-navy")->mirror, MirrorBy::nobody);
    for (const Transfer* t : w.pieces()) EXPECT_EQ(t->mirrored, t->medium != "vinyl-navy");
}

TEST(MakingBench, AMediumAndItsMethodAreMadeInTheWindowAndUsed) {
    MakingWindow w("tile-evening");
    w.page("Shop");
    w.choose(w.find<QComboBox>("This method"), "Sublimation");
    w.click(w.find<QPushButton>("Another method"));
    w.type(w.find<QLineEdit>("Method’s name"), "Slow sublimation");
    w.click(w.find<QPushButton>("Afterwards it is/trimmed"));
    w.wait();
    EXPECT_EQ(w.order().methods.back().name, "Slow sublimation");
    EXPECT_EQ(w.order().methods.back().handling, Handling::trimmed);
    EXPECT_EQ(find_method(w.order(), "sublimation")->handling, Handling::none) << "the one it was copied from stays";
    w.type(w.find<QLineEdit>("Method’s name"), "Sublimation");
    EXPECT_EQ(w.order().methods.back().name, "Slow sublimation") << "two of one name cannot be told apart";
    w.click(w.find<QPushButton>("Shop data/film or paper"));
    w.choose(w.find<QComboBox>("This medium"), "Sublimation A4");
    w.click(w.find<QPushButton>("Another film or paper"));
    w.type(w.find<QLineEdit>("Medium’s name"), "Tile paper");
    w.choose(w.find<QComboBox>("Its method"), "Slow sublimation");
    w.type(w.find<QLineEdit>("Width"), "230");
    w.wait();
    const Medium own = w.order().media.back();
    EXPECT_EQ(own.name, "Tile paper");
    EXPECT_EQ(own.method, w.order().methods.back().id);
    w.page("Method");
    w.choose(w.find<QComboBox>("Medium"), "Tile paper");
    w.wait();
    EXPECT_EQ(w.d().medium, own.id);
    ASSERT_EQ(w.pieces().size(), 1u);
    EXPECT_EQ(w.pieces()[0]->medium, own.id);
    w.page("Shop");
    w.click(w.find<QPushButton>("Keep it in the library"));
    w.wait();
    EXPECT_EQ(w.room().library().content().media.back().name, "Tile paper");
}

TEST(MakingBench, AHandPressIsMadeInTheWindow) {
    MakingWindow w("tile-evening");
    w.page("Shop");
    w.click(w.find<QPushButton>("Shop data/press"));
    w.click(w.find<QPushButton>("Another press"));
    w.type(w.find<QLineEdit>("Press’s name"), "Hand press");
    w.type(w.find<QLineEdit>("Platen’s name"), "sole");
    w.type(w.find<QLineEdit>("Platen width"), "130");
    w.type(w.find<QLineEdit>("Platen height"), "9cm");
    w.type(w.find<QLineEdit>("Platen height"), "9 km");
    w.type(w.find<QLineEdit>("Ink keeps inside"), "4");
    w.wait();
    const Press own = w.order().presses.back();
    EXPECT_EQ(own.name, "Hand press");
    ASSERT_FALSE(own.platens.empty());
    EXPECT_EQ(own.platens[0].name, "sole");
    EXPECT_EQ(own.platens[0].width, Length::from_mm(130));
    EXPECT_EQ(own.platens[0].height, Length::from_mm(90));
    EXPECT_EQ(own.margin, Length::from_mm(4));
    const std::size_t had = own.platens.size();
    w.click(w.find<QPushButton>("Another platen"));
    w.wait();
    EXPECT_EQ(w.order().presses.back().platens.size(), had + 1);
    for (std::size_t k = 0; k < had + 2; ++k) w.click(w.find<QPushButton>("Out with this platen"));
    w.wait();
    EXPECT_EQ(w.order().presses.back().platens.size(), 1U) << "a press keeps one";
    const std::size_t pads = own.pads.size();
    w.click(w.find<QPushButton>("Another pad"));
    w.type(w.find<QLineEdit>("Pad thickness"), "12");
    w.wait();
    ASSERT_EQ(w.order().presses.back().pads.size(), pads + 1);
    EXPECT_EQ(w.order().presses.back().pads.back().thickness, Length::from_mm(12));
    w.click(w.find<QPushButton>("Kind of press/cap"));
    w.click(w.find<QPushButton>("Keep it in the library"));
    w.wait();
    EXPECT_EQ(w.order().presses.back().kind, PressKind::cap);
    EXPECT_EQ(w.room().library().content().presses.back().name, "Hand press");
}

TEST(MakingBench, ATilesRimIsProvenCovered) {
    MakingWindow w("tile-evening");
    w.page("Shape");
    EXPECT_TRUE(w.made().bare.empty());
    EXPECT_NEAR(w.made().spare, 3, 0.1) << "as far as its bleed";
    w.type(w.find<QLineEdit>("A hand misses by"), "4");
    w.wait();
    EXPECT_TRUE(w.says("rim-bare"));
    ASSERT_FALSE(w.made().bare.empty());
    // bare is a rim of the tile, notch and all, and never its middle
    const Region tile = panel_of(*find_style(w.order(), "notched-tile"), "OS", Face::front).outline;
    EXPECT_LT(area(subtract(w.made().bare, tile)), 0.01);
    EXPECT_LT(area(intersect(w.made().bare, offset(tile, -1.05))), 0.01);
    w.type(w.find<QLineEdit>("Bleed"), "5");
    w.wait();
    EXPECT_FALSE(w.says("rim-bare"));
}

TEST(MakingBench, TagsLieInAJigAndTheJigIsEdited) {
    MakingWindow w("tag-badge");
    ASSERT_EQ(w.room().transfer_set().jigs.size(), 1u);
    EXPECT_EQ(w.room().transfer_set().jigs[0].count, 2) << "thirty tags, fifteen slots";
    w.page("Shop");
    w.click(w.find<QPushButton>("Shop data/jig"));
    w.type(w.find<QLineEdit>("Columns"), "4");
    w.wait();
    EXPECT_EQ(find_jig(w.order(), "jig-tags-round")->columns, 4);
    int boards = 0;
    for (const JigSheet& s : w.room().transfer_set().jigs) boards += s.count;
    EXPECT_EQ(boards, 3) << "twelve slots a board";
    w.type(w.find<QLineEdit>("Columns"), "9");
    w.wait();
    EXPECT_TRUE(w.says("jig-impossible"));
    EXPECT_EQ(find_jig(w.order(), "jig-tags-round")->columns, 9) << "it is kept as typed, to be mended";
    w.undo();
    w.wait();
    w.choose(w.find<QComboBox>("Slot"), "row 1, column 2");
    w.choose(w.find<QComboBox>("Holds"), QString::fromStdString("Crescent badge, Metal tag, white"));
    w.wait();
    EXPECT_EQ(find_jig(w.order(), "jig-tags-round")->assigned.at(1), "tag-badge");
}

TEST(MakingBench, APennantHasItsBackAcrossTheFold) {
    MakingWindow w("pennant-hill");
    w.page("Shape");
    const double width = bounds(w.pieces()[0]->contour.outer).width();
    w.click(w.find<QCheckBox>("Back beside the front"));
    w.wait();
    EXPECT_FALSE(w.d().making.two_sided);
    EXPECT_LT(bounds(w.pieces()[0]->contour.outer).width(), width / 2);
    w.click(w.find<QCheckBox>("Ink past every edge"));
    w.wait();
    EXPECT_TRUE(w.d().making.cover);
    EXPECT_EQ(binding_text(w.room().fit()->sizes[0].limited_by), "covering the blank");
}

TEST(MakingBench, LettersAreFilledAndTheSubjectStaysInside) {
    Window w;
    w.drop({test::source("demo/src/cloud-kite.png")});
    w.go(3);
    w.wait();
    const std::string id = w.room().selection().art;
    w.click(w.find<QPushButton>("Art page/Clip it"));
    w.click(w.find<QPushButton>("Clip to/letters"));
    w.wait();
    ASSERT_TRUE(find_art(w.order(), id)->clip);
    w.type(w.find<QLineEdit>("Letters"), "OO");
    w.wait();
    EXPECT_EQ(find_art(w.order(), id)->clip->word, "OO");
    const double wide = w.room().facts().at(id).aspect;
    EXPECT_LT(wide, 0.8) << "two letters side by side";
    w.click(w.find<QPushButton>("Mark the subject"));
    auto* view = w.bench<ArtBench>("art")->view();
    w.click(view, view->place_of({0.5, 0.3}));
    w.wait();
    EXPECT_EQ(find_art(w.order(), id)->subject.size(), 1u);
    w.key(view, Qt::Key_Delete);
    w.wait();
    EXPECT_TRUE(find_art(w.order(), id)->subject.empty());
    w.click(w.find<QPushButton>("Clip to/all of it"));
    w.wait();
    EXPECT_FALSE(find_art(w.order(), id)->clip);
    EXPECT_NE(w.room().facts().at(id).aspect, wide);
    w.undo();
    w.wait();
    EXPECT_EQ(w.room().facts().at(id).aspect, wide);
}

TEST(MakingBench, ACapsFilmIsSnippedByATick) {
    MakingWindow w("cap-badge");
    w.page("Shape");
    EXPECT_TRUE(w.pieces().front()->snips.empty());
    w.click(w.find<QCheckBox>("Snip the film to lie round it"));
    w.wait();
    EXPECT_EQ(w.d().making.snip_gap, usual_snip_gap);
    const std::size_t usual = w.pieces().front()->snips.size();
    EXPECT_GT(usual, 0U);
    w.type(w.find<LengthField>("May stand off"), "0.6 mm");
    w.wait();
    EXPECT_GT(w.pieces().front()->snips.size(), usual) << "nearer to the cap takes more of them";
    w.undo();
    w.undo();
    w.wait();
    EXPECT_TRUE(w.pieces().front()->snips.empty());
}

}  // namespace TESTED
}  // namespace orthema
