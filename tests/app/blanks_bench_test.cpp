// The Blanks bench: taping, measuring sessions, charts, and blanks of one's own, through mouse and keys.
#include <cmath>

#include "app/benches/blanks/blanks_bench.h"
#include "app/benches/blanks/tape_drawing.h"
#include "app/benches/fit/fit_bench.h"
#include "app/widgets/chips.h"
#include "app/widgets/figures.h"
#include "app/window/notice_bar.h"
#include "core/blanks/panel.h"
#include "files/order_file.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::SmallWindow;
using test::Window;

struct BlanksWindow : SmallWindow {
    BlanksWindow() : SmallWindow(2) {}
    BlanksBench* blanks() { return bench<BlanksBench>("blanks"); }
    void page(const char* name) { click(find<QPushButton>(QStringLiteral("Blank page/") + QString::fromLatin1(name))); }
    /// From the menu of families.
    void make(const char* family) {
        auto* action = window().findChild<QAction*>(QStringLiteral("new ") + QString::fromLatin1(family));
        ASSERT_NE(action, nullptr);
        action->trigger();
        wait();
    }
    void set(const char* name, const char* text) { type(find<QLineEdit>(QString::fromLatin1(name)), QString::fromUtf8(text)); }
    const BlankStyle& style() { return *find_style(order(), room().selection().style); }
};

TEST(BlanksBench, TheTapeIsTypedOnTheDrawing) {
    BlanksWindow w;
    auto* sizes = w.bench<BlanksBench>("blanks");
    TapeDrawing* drawing = sizes->drawing();
    w.click(w.window().findChild<ChipButton*>("chip L"));
    drawing->repaint();
    const auto figure = [&](const char* size) { return find_style(w.order(), "adult-tee")->chart.at(size).at(Measure::chest); };
    const double published = figure("L").value.mm();
    w.click(drawing, drawing->figure_place(Measure::chest));
    ASSERT_TRUE(drawing->field()->isVisible());
    QTest::keyClick(drawing->field(), Qt::Key_A, Qt::ControlModifier);
    QTest::keyClicks(drawing->field(), "57.2cm");
    QTest::keyClick(drawing->field(), Qt::Key_Return);
    EXPECT_EQ(figure("L").source, Source::measured);
    EXPECT_DOUBLE_EQ(figure("L").value.mm(), 572);
    EXPECT_DOUBLE_EQ(figure("L").published->mm(), published);
    EXPECT_EQ(figure("L").readings.size(), 1u);
    EXPECT_FALSE(drawing->field()->isVisible());
    // taped in the panel on another size, and the one between is graded
    w.click(w.window().findChild<ChipButton*>("chip 2XL"));
    w.click(w.find<QPushButton>("Blank page/Figures"));
    w.type(w.find<QLineEdit>("Chest, pit to pit"), "670");
    EXPECT_EQ(figure("XL").source, Source::graded);
    w.click(w.find<QPushButton>("Blank page/Measure"));
    w.click(w.find<QPushButton>("As published"));
    EXPECT_EQ(figure("2XL").source, Source::published);
    EXPECT_EQ(figure("XL").source, Source::published);
    w.undo();
    EXPECT_EQ(figure("2XL").source, Source::measured);
}

TEST(BlanksBench, AFigureThatContradictsTheOthersIsRefused) {
    BlanksWindow w;
    const Order before = w.order();
    w.click(w.find<QPushButton>("Blank page/Figures"));
    w.type(w.find<QLineEdit>("Neck width"), "900");
    EXPECT_EQ(w.order(), before);
    EXPECT_NE(w.notice().find("contradict"), std::string::npos) << w.notice();
    w.type(w.find<QLineEdit>("Neck width"), "9 m");
    EXPECT_EQ(w.order(), before);
}

TEST(BlanksBench, TheLibraryKeepsABlankForLaterOrders) {
    BlanksWindow w;
    w.click(w.find<QPushButton>("Blank page/Figures"));
    w.type(w.find<QLineEdit>("Chest, pit to pit"), "571");
    const BlankStyle taped = *find_style(w.order(), "adult-tee");
    w.room().library().keep(taped);
    w.wait();
    w.room().library().export_to(QString::fromStdString(w.data("lib.json")));
    w.wait();
    EXPECT_EQ(test::run("python3 -m json.tool '" + w.data("lib.json") + "' > /dev/null").code, 0);
    w.room().keeper().start_new();
    w.wait();
    EXPECT_EQ(*find_style(w.order(), "adult-tee"), taped);
    Window other;
    other.room().library().import_from(QString::fromStdString(w.data("lib.json")));
    other.wait();
    EXPECT_TRUE(std::find(other.room().library().content().styles.begin(), other.room().library().content().styles.end(), taped) !=
                other.room().library().content().styles.end());
    test::spill(w.data("lib.json"), "{\"format\": 3}");
    other.room().library().import_from(QString::fromStdString(w.data("lib.json")));
    other.wait();
    EXPECT_NE(other.notice().find("not a library"), std::string::npos) << other.notice();
}

TEST(BlanksBench, ALongApronWithTwoPocketsIsMadeAndWorn) {
    BlanksWindow w;
    w.make("apron");
    w.set("Name of the blank", "Long waist apron");
    w.set("Size run", "short, long");
    w.set("Colours", "flax #d9cfb4");
    w.page("Figures");
    w.click(w.window().findChild<ChipButton*>("chip long"));
    w.click(w.find<QPushButton>("Blank page/Measure"));
    w.click(w.find<QPushButton>("What you type is/published"));
    w.page("Figures");
    w.set("Height", "105cm");
    EXPECT_NEAR(w.style().chart.at("long").at(Measure::height).value.mm(), 1050, 1e-9);
    w.page("Features");
    w.click(w.find<QPushButton>("Put it on"));
    w.click(w.find<QPushButton>("Put it on"));
    ASSERT_EQ(w.style().features.size(), 2u);
    EXPECT_EQ(w.style().features[0].across, w.style().features[1].across * -1.0) << "two pockets make a pair";
    w.set("Feature width", "200");
    // the second is dragged lower on the drawing, and one undo takes that back
    TapeDrawing* drawing = w.blanks()->drawing();
    drawing->repaint();
    const BlankStyle before = w.style();
    const QPoint at = drawing->feature_place(1);
    w.drag(drawing, at, at + QPoint(0, 30));
    EXPECT_GT(w.style().features[1].down.mm(), before.features[1].down.mm() + 20);
    w.undo();
    EXPECT_EQ(w.style(), before);

    // ordered, and a design put on it: it keeps clear of both pockets by their own clearance
    const std::string id = w.style().id;
    w.go(1);
    w.choose(w.find<QComboBox>("Blank"), "Long waist apron");
    w.click(w.find<QPushButton>("Add the run"));
    w.set("Quantity", "9");
    w.go(3);
    w.choose(w.find<QComboBox>("Run"), "Long waist apron, flax");
    w.click(w.find<QPushButton>("Put it on"));
    w.wait();
    w.go(4);
    const DecorationFit* fit = w.room().fit();
    ASSERT_NE(fit, nullptr);
    ASSERT_EQ(fit->sizes.size(), 1u);
    w.set("Ink width", "600");
    const SizeFit on = w.room().fit()->sizes[0];
    EXPECT_LT(on.width, 600);
    const BlankStyle& apron = *find_style(w.order(), id);
    const orthema::Panel panel = panel_of(apron, on.size, Face::front);
    int pockets = 0;
    for (const Feature& f : panel.features) {
        if (f.name != "pocket") continue;
        ++pockets;
        EXPECT_FALSE(bounds(f.place).grown(f.clearance_mm - 0.5).meets(on.ink)) << "the pocket at " << bounds(f.place).x0;
    }
    EXPECT_EQ(pockets, 2);
    w.room().keeper().save(QString::fromStdString(w.data("apron.orthema")));
    w.wait();
    const Order kept = w.order();
    w.open(w.data("apron.orthema"));
    EXPECT_EQ(w.order(), kept);
}

TEST(BlanksBench, ACurvedHemTunicTakesItsChartFromATable) {
    BlanksWindow w;
    w.make("long_sleeve");
    w.set("Name of the blank", "Tail hem tunic");
    test::spill(w.data("tunic.csv"),
                "measure;XS;S;M;L\n"
                "Chest (half), cm;44;48;52;57\n"
                "Body length, cm;76;78;80;82\n"
                "Hem curve, cm;6;6;7;7\n");
    w.blanks()->bring_in_chart(QString::fromStdString(w.data("tunic.csv")));
    w.wait();
    ASSERT_EQ(w.style().sizes, (std::vector<std::string>{"XS", "S", "M", "L"})) << w.notice();
    EXPECT_NEAR(w.style().chart.at("L").at(Measure::chest).value.mm(), 570, 1e-9);
    EXPECT_NEAR(w.style().chart.at("XS").at(Measure::hem_curve).value.mm(), 60, 1e-9);
    // the outline really curves: lower at the centre line than at the side seam
    const orthema::Panel panel = panel_of(w.style(), "M", Face::front);
    EXPECT_NEAR(panel.bottom_y - panel.right_edge.back().y, 70, 1);
    // a table without figures is refused in a sentence
    const BlankStyle before = w.style();
    test::spill(w.data("none.csv"), "who,when\nMarshal,Saturday\n");
    w.blanks()->bring_in_chart(QString::fromStdString(w.data("none.csv")));
    w.wait();
    EXPECT_EQ(w.style(), before);
    EXPECT_NE(w.notice().find("none.csv"), std::string::npos) << w.notice();
}

TEST(BlanksBench, ASessionGoesFromFigureToFigureAndStopsAtADoubt) {
    BlanksWindow w;
    const auto list = w.blanks()->to_measure();
    ASSERT_GT(list.size(), 2u);
    EXPECT_EQ(list[0].measure, Measure::chest);
    w.click(w.find<QPushButton>("Go through the list"));
    w.wait();
    TapeDrawing* drawing = w.blanks()->drawing();
    ASSERT_TRUE(drawing->field()->isVisible());
    const auto figure = [&](const ToMeasure& t) -> const Figure& { return w.style().chart.at(t.size).at(t.measure); };
    const double first = figure(list[0]).value.mm();
    const auto answer = [&](const QString& text) {
        QTest::keyClick(drawing->field(), Qt::Key_A, Qt::ControlModifier);
        QTest::keyClicks(drawing->field(), text);
        QTest::keyClick(drawing->field(), Qt::Key_Return);
        w.wait();
    };
    answer(QString::number(first - 3));
    EXPECT_EQ(figure(list[0]).source, Source::measured);
    const auto rest = w.blanks()->to_measure();
    ASSERT_FALSE(rest.empty());
    ASSERT_TRUE(drawing->field()->isVisible()) << "Enter goes on to the next";
    EXPECT_EQ(drawing->chosen(), rest[0].measure);
    EXPECT_EQ(w.blanks()->size(), rest[0].size);
    // inches read off the tape, typed as centimetres
    const double likely = figure(rest[0]).value.mm();
    answer(QString::number(likely / 25.4, 'f', 1) + "cm");
    EXPECT_LT(figure(rest[0]).value.mm(), likely / 2) << "what was typed stands until it is corrected";
    auto* bar = w.window().findChild<NoticeBar*>();
    ASSERT_NE(bar, nullptr);
    ASSERT_TRUE(bar->action()->isVisible()) << w.notice();
    w.click(bar->action());
    EXPECT_NEAR(figure(rest[0]).value.mm(), likely, 2);
    EXPECT_EQ(figure(rest[0]).readings.size(), 1u) << "the slip is not kept as a piece";
}

TEST(BlanksBench, FeaturesOfEveryKindAreEditedAndTakenOff) {
    BlanksWindow w;
    w.page("Features");
    auto* kind = w.find<QComboBox>("Kind of feature");
    const int kinds = kind->count();
    EXPECT_EQ(kinds, feature_kind_count);
    for (int i = 0; i < kinds; ++i) {
        w.choose(kind, kind->itemText(i));
        w.click(w.find<QPushButton>("Put it on"));
    }
    ASSERT_EQ(w.style().features.size(), std::size_t(kinds)) << w.notice();
    w.choose(w.find<QComboBox>("Feature"), "1 " + kind->itemText(0));
    w.set("Across", "-4cm");
    w.set("Feature height", "95");
    w.set("Ink keeps away", "1/2in");
    w.set("Size grows by", "0.5");
    w.choose(w.find<QComboBox>("Lies on"), "back");
    const StyleFeature& f = w.style().features[0];
    EXPECT_EQ(f.across.mm(), -40);
    EXPECT_EQ(f.height.mm(), 95);
    EXPECT_EQ(f.clearance.mm(), 12.7);
    EXPECT_EQ(f.growth, 0.5);
    EXPECT_EQ(f.face, Face::back);
    const BlankStyle before = w.style();
    w.set("Feature width", "0");
    EXPECT_EQ(w.style(), before) << "a feature has a width";
    for (int i = kinds; i > 0; --i) w.click(w.find<QPushButton>("Take the feature off"));
    EXPECT_TRUE(w.style().features.empty());
    w.undo();
    EXPECT_EQ(w.style().features.size(), 1u);
}

TEST(BlanksBench, RunsColoursAndTolerancesAreTypedAndCheckedAtOnce) {
    BlanksWindow w;
    w.page("Style");
    const BlankStyle before = w.style();
    for (const char* bad : {"", "S, M, S", "a size with a very long name indeed"}) w.set("Size run", bad);
    for (const char* bad : {"mud", "navy #12"}) w.set("Colours", bad);
    w.set("Name of the blank", "  ");
    w.set("May differ by", "3 m");
    EXPECT_EQ(w.style(), before);
    w.set("Size run", "S M L XL 2XL 3XL 4XL 5XL 6XL");
    EXPECT_EQ(w.style().sizes.size(), 9u);
    EXPECT_EQ(w.style().sizes.back(), "6XL");
    EXPECT_EQ(w.style().chart.at("M"), before.chart.at("M"));
    w.set("Colours", "slate #445566, bone #e8e2d0");
    ASSERT_EQ(w.style().colours.size(), 2u);
    EXPECT_NEAR(w.style().colours[0].ink.b, 0x66 / 255.0, 1e-9);
    w.set("May differ by", "1 in");
    EXPECT_EQ(w.style().tolerance.mm(), 25.4);
}

TEST(BlanksBench, SeveralPiecesGiveAMeanAndASpreadAndOneGoesBack) {
    BlanksWindow w;
    w.click(w.window().findChild<ChipButton*>("chip L"));
    w.page("Figures");
    for (const char* piece : {"566", "570", "574"}) w.set("Chest, pit to pit", piece);
    const auto chest = [&] { return w.style().chart.at("L").at(Measure::chest); };
    EXPECT_EQ(chest().readings.size(), 3u);
    EXPECT_DOUBLE_EQ(chest().value.mm(), 570);
    EXPECT_DOUBLE_EQ(spread(chest()).mm(), 8);
    w.page("Measure");
    w.click(w.find<QPushButton>("Last piece back"));
    EXPECT_DOUBLE_EQ(chest().value.mm(), 568);
    w.click(w.find<QPushButton>("As published"));
    EXPECT_EQ(chest().source, Source::published);
    EXPECT_TRUE(chest().readings.empty());
}

TEST(BlanksBench, AsPublishedTakesBackOneFigureAndShrinkingAsksForThePressedOne) {
    BlanksWindow w;
    const auto figure = [&](Measure m) { return w.style().chart.at("L").at(m); };
    w.click(w.window().findChild<ChipButton*>("chip L"));
    w.page("Figures");
    w.set("Body length, HPS to hem", "751");
    w.set("Chest, pit to pit", "566");
    w.page("Measure");
    w.click(w.find<QPushButton>("As published"));  // of the figure that was typed last
    EXPECT_NE(figure(Measure::chest).source, Source::measured);
    EXPECT_EQ(figure(Measure::body_length).source, Source::measured);
    w.page("Style");
    w.click(w.find<QCheckBox>("Shrinks in the heat"));
    EXPECT_TRUE(w.style().shrinks);
    EXPECT_FALSE(w.window().findChild<QCheckBox*>("On the other side")->isVisible()) << "a tee has no hoist";
    w.page("Figures");
    w.set("Body length, HPS to hem", "738");
    EXPECT_EQ(figure(Measure::body_length).value, Length::from_mm(738)) << "not a mean with the unpressed piece";
    EXPECT_TRUE(figure(Measure::body_length).preshrunk);
    w.undo();
    w.undo();
    EXPECT_FALSE(w.style().shrinks);
}

TEST(BlanksBench, BlanksAreFoundDuplicatedAndArchived) {
    BlanksWindow w;
    const auto shown = [&] {
        QStringList names;
        for (auto* chip : w.window().findChildren<ChipButton*>())
            if (chip->isVisible() && chip->parentWidget()->accessibleName() == "Blanks") names << chip->objectName();
        return names;
    };
    const auto few = shown();
    w.click(w.find<QPushButton>("all blanks"));
    EXPECT_GT(shown().size(), few.size());
    w.click(w.find<QPushButton>("all blanks"));
    auto* search = w.find<QLineEdit>("Find a blank");
    search->setFocus();
    QTest::keyClicks(search, "canvas kitchen");
    w.wait();
    EXPECT_TRUE(shown().contains("chip canvas-apron")) << shown().join(' ').toStdString();
    EXPECT_FALSE(shown().contains("chip mug"));
    w.click(w.window().findChild<ChipButton*>("chip canvas-apron"));
    w.page("Style");
    w.click(w.find<QPushButton>("Duplicate"));
    EXPECT_EQ(w.style().name, "Canvas apron copy");
    EXPECT_EQ(w.style().chart, find_style(w.order(), "canvas-apron")->chart);
    w.set("Tags", "kite-stall");
    w.click(w.find<QPushButton>("Archive"));
    EXPECT_TRUE(w.style().archived);
    const std::string id = w.style().id;
    w.click(w.window().findChild<ChipButton*>("chip canvas-apron"));
    EXPECT_FALSE(shown().contains(QString::fromStdString("chip " + id)));
    w.click(w.find<QPushButton>("archived"));
    QTest::keyClick(search, Qt::Key_A, Qt::ControlModifier);
    QTest::keyClicks(search, "kite-stall");
    w.wait();
    EXPECT_TRUE(shown().contains(QString::fromStdString("chip " + id)));
}

}  // namespace TESTED
}  // namespace orthema
