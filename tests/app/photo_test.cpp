// Measuring a blank from photographs on the Blanks bench, and the cards that the Guides bench prints.
#include "app/benches/blanks/blanks_bench.h"
#include "app/benches/blanks/photo_page.h"
#include "devices/camera.h"
#include "window.h"

#include "files/library.h"
#include "files/order_json.h"

namespace orthema {
namespace TESTED {

using namespace app;

struct PhotoWindow : test::SmallWindow {
    PhotoWindow() : SmallWindow(2) {}
    BlanksBench* blanks() { return bench<BlanksBench>("blanks"); }
    /// A photograph of a piece of that size which is larger than its chart says, as a file.
    std::string photograph(const std::string& name, const std::string& size, unsigned seed, double larger = 1.02) {
        Measures truth = blanks()->style()->chart.at(size);
        for (auto& [m, f] : truth) f.value = f.value * larger;
        const Family family = blanks()->style()->family;
        scene = usual_scene(family, family_faces(family).front(), truth, seed, 1);
        scene.standing = false;
        scene.lens = with_width(scene.lens, 2400);
        const Photo photo = simulated_photo(scene, seed);
        const QImage image(photo.image.rgba.data(), photo.image.width, photo.image.height, QImage::Format_RGBX8888);
        EXPECT_TRUE(image.convertToFormat(QImage::Format_RGB32).save(QString::fromStdString(data(name)), "JPEG", 92));
        return data(name);
    }
    const TapedPhoto& last() { return blanks()->photos()->photos().back(); }
    Scene scene;
};

TEST(PhotoBench, APhotographGivesFiguresThatAreTaken) {
    PhotoWindow w;
    w.blanks()->choose_size("M");
    const Length before = w.blanks()->style()->chart.at("M").at(Measure::chest).value;
    w.drop({w.photograph("piece.jpg", "M", 2)});
    w.wait();
    ASSERT_TRUE(w.last().blank) << w.last().fault.toStdString();
    EXPECT_EQ(w.last().size, "M");
    const auto& found = w.last().blank->figures;
    for (const Measure m : {Measure::chest, Measure::body_length, Measure::hem_width}) {
        ASSERT_TRUE(found.contains(m));
        EXPECT_NEAR(found.at(m).mm, measure_mm(w.scene.measures, m), std::max(3.0, 0.006 * measure_mm(w.scene.measures, m)));
    }
    // one that is not wanted
    w.click(w.find<QCheckBox>("photo hem_width"));
    w.click(w.find<QPushButton>("Take these figures"));
    const Figure chest = w.blanks()->style()->chart.at("M").at(Measure::chest);
    EXPECT_EQ(chest.source, Source::measured);
    EXPECT_TRUE(photographed(chest));
    EXPECT_NEAR(chest.value.mm(), found.at(Measure::chest).mm, 0.06);
    ASSERT_EQ(chest.errors.size(), 1U);
    EXPECT_NEAR(chest.errors[0].mm(), found.at(Measure::chest).error, 0.06);
    EXPECT_EQ(w.blanks()->style()->chart.at("M").at(Measure::hem_width).source, Source::published);
    EXPECT_FALSE(w.find<QPushButton>("Take these figures")->isEnabled()) << "a piece counts once";
    // a second piece by tape: their mean, and the error stays with its reading
    w.click(w.find<QPushButton>("Back to the tape"));
    w.blanks()->typed(Measure::chest, chest.value + Length::from_mm(4));
    const Figure mean = w.blanks()->style()->chart.at("M").at(Measure::chest);
    EXPECT_EQ(mean.readings.size(), 2U);
    EXPECT_NEAR(mean.value.mm(), chest.value.mm() + 2, 1e-6);
    EXPECT_EQ(mean.errors.size(), 1U);
    // kept with the order, and taken back
    const auto again = order_from_json(to_json(w.order()));
    ASSERT_TRUE(again);
    EXPECT_EQ(*again, w.order());
    w.undo();
    w.undo();
    EXPECT_EQ(w.blanks()->style()->chart.at("M").at(Measure::chest).value, before);
    // it was another size after all
    w.click(w.find<QPushButton>("From a photograph"));
    w.blanks()->choose_size("S");
    w.click(w.find<QPushButton>("Measure as chosen"));
    w.wait();
    EXPECT_EQ(w.last().size, "S");
    ASSERT_TRUE(w.last().blank);
    EXPECT_NEAR(w.last().blank->figures.at(Measure::chest).mm, measure_mm(w.scene.measures, Measure::chest), 3)
        << "whatever the chart says";
}

TEST(PhotoBench, MeasuringIsStoppedAndBegunAgain) {
    PhotoWindow w;
    w.blanks()->choose_size("M");
    w.window().bring_in({QString::fromStdString(w.photograph("piece.jpg", "M", 2))});
    auto* away = w.find<QPushButton>("Put away");
    ASSERT_TRUE(w.last().busy);
    EXPECT_EQ(away->text(), "Stop");
    w.click(away);
    w.wait();
    EXPECT_FALSE(w.last().blank);
    EXPECT_EQ(w.last().fault, "Stopped before it was measured.");
    EXPECT_EQ(away->text(), "Put away");
    w.click(w.find<QPushButton>("Measure as chosen"));
    w.wait();
    EXPECT_TRUE(w.last().blank) << w.last().fault.toStdString();
}

TEST(PhotoBench, AnOutlineThatIsPutRightByHandIsHeld) {
    PhotoWindow w;
    w.blanks()->choose_size("M");
    w.drop({w.photograph("piece.jpg", "M", 4)});
    w.wait();
    ASSERT_TRUE(w.last().blank) << w.last().fault.toStdString();
    const double hem = w.last().blank->figures.at(Measure::body_length).mm;
    PhotoView* view = w.blanks()->photo_view();
    // the middle of the hem, dragged 20 mm down: nobody's edge lies there, so the hand must have been believed
    const Point middle = on_table(w.scene.blank, {0, measure_mm(w.scene.measures, Measure::body_length)}),
                lower = on_table(w.scene.blank, {0, measure_mm(w.scene.measures, Measure::body_length) + 20});
    const auto on_view = [&](Point p) {
        const Point at = view->on_widget(seen_at(w.scene.lens, p, w.scene.thickness));
        return QPoint(int(std::lround(at.x)), int(std::lround(at.y)));
    };
    w.drag(view, on_view(middle), on_view(lower));
    w.wait();
    ASSERT_EQ(w.last().by_hand.size(), 1U);
    ASSERT_TRUE(w.last().blank) << w.last().fault.toStdString();
    EXPECT_GT(w.last().blank->figures.at(Measure::body_length).mm, hem + 1);
    w.click(view, on_view(lower));  // chosen, and taken away by key
    w.key(view, Qt::Key_Delete);
    w.wait();
    EXPECT_TRUE(w.last().by_hand.empty());
    EXPECT_NEAR(w.last().blank->figures.at(Measure::body_length).mm, hem, 0.01);
    w.click(w.find<QPushButton>("Put away"));
    EXPECT_FALSE(w.blanks()->photos()->any());
}

TEST(PhotoBench, ACupIsMeasuredFromItsSide) {
    PhotoWindow w;
    Order next = w.order();
    for (const BlankStyle& s : starting_library().styles)
        if (s.id == "mug") next.styles.push_back(s);
    w.room().edit("a mug", next);
    w.blanks()->choose_style("mug");
    const std::string size = w.blanks()->size();
    w.drop({w.photograph("cup.jpg", size, 10)});
    w.wait();
    ASSERT_TRUE(w.last().blank) << w.last().fault.toStdString();
    const double round = w.last().blank->figures.at(Measure::circumference).mm;
    EXPECT_NEAR(round, measure_mm(w.scene.measures, Measure::circumference), 3);
    // it was not standing: taken for that, it lies farther from the card and is smaller
    auto* how = w.find<QComboBox>("The cup");
    ASSERT_TRUE(how->isVisible());
    w.key(how, Qt::Key_Down);
    w.wait();
    EXPECT_TRUE(w.last().standing);
    ASSERT_TRUE(w.last().blank) << w.last().fault.toStdString();
    w.key(how, Qt::Key_Up);
    w.wait();
    EXPECT_NEAR(w.last().blank->figures.at(Measure::circumference).mm, round, 0.01);
    w.click(w.find<QPushButton>("Take these figures"));
    EXPECT_NEAR(w.blanks()->style()->chart.at(size).at(Measure::circumference).value.mm(), round, 0.06);
}

TEST(PhotoBench, ASmallPictureIsKeptWithTheOrder) {
    PhotoWindow w;
    w.blanks()->choose_size("M");
    Order lacking = w.order();
    lacking.photographs.push_back({w.blanks()->style()->id, "M", "", "2027-06-08", std::string(64, 'b')});
    w.room().edit("one whose picture did not come along", lacking);
    EXPECT_FALSE(w.blanks()->photos()->any()) << "there is nothing to look at";
    w.undo();
    w.drop({w.photograph("piece.jpg", "M", 2)});
    w.wait();
    w.click(w.find<QPushButton>("Keep it small with the order"));
    ASSERT_EQ(w.order().photographs.size(), 1U);
    w.undo();
    EXPECT_TRUE(w.order().photographs.empty());
    w.click(w.find<QPushButton>("Keep it small with the order"));
    w.click(w.find<QPushButton>("Put away"));
    w.room().keeper().save(QString::fromStdString(w.data("kept.orthema")));
    w.wait();
    const std::string entry = "photographs/" + w.order().photographs[0].hash + ".jpg";
    const test::Answer file = test::run("unzip -p '" + w.data("kept.orthema") + "' " + entry + " > '" + w.data("small.jpg") +
                                        "' && file '" + w.data("small.jpg") + "'");
    EXPECT_NE(file.out.find("JPEG"), std::string::npos) << file.out;
    EXPECT_LT(test::slurp(w.data("small.jpg")).size(), 300000U);
    w.open(w.data("kept.orthema"));
    w.go(2);
    w.click(w.find<QPushButton>("From a photograph"));
    w.wait();
    ASSERT_TRUE(w.blanks()->photos()->any());
    EXPECT_TRUE(w.last().kept && !w.last().blank && w.last().fault.isEmpty());
    EXPECT_EQ(w.last().picture.width(), 1000);
    auto* keep = w.find<QPushButton>("Keep it small with the order");
    EXPECT_EQ(keep->text(), "Take it out of the order");
    w.click(keep);
    EXPECT_TRUE(w.order().photographs.empty());
}

TEST(PhotoBench, WhatTheTapeTeachesIsTakenOffPhotographs) {
    PhotoWindow w;
    Order next = w.order();
    BlankStyle style = *w.blanks()->style();
    const std::vector<std::string> sizes = style.sizes;
    for (const std::string& size : sizes)
        for (const Measure m : {Measure::chest, Measure::body_length}) {
            const double mm = measure_mm(style.chart.at(size), m);
            style = with_reading(style, size, m, Length::from_mm(mm), "2025-06-01");
            style = with_reading(style, size, m, Length::from_mm(mm * 1.008), "2025-06-01", Length::from_mm(1));
        }
    ASSERT_GE(sizes.size(), 3U);
    for (BlankStyle& s : next.styles)
        if (s.id == style.id) s = style;
    w.room().edit("measured both ways", next);
    w.blanks()->choose_size("M");
    w.drop({w.photograph("piece.jpg", "M", 2)});
    w.wait();
    ASSERT_TRUE(w.last().blank) << w.last().fault.toStdString();
    auto* learn = w.find<QPushButton>("Take that off photographs");
    w.click(learn);
    ASSERT_EQ(w.order().corrections.size(), 1U);
    EXPECT_NEAR(w.order().corrections.all()[0].by, 0.8, 0.026);
    EXPECT_FALSE(learn->isVisible());
    w.click(w.find<QPushButton>("Take these figures"));
    const double taken = w.blanks()->style()->chart.at("M").at(Measure::chest).readings.back().mm();
    EXPECT_NEAR(taken, w.last().blank->figures.at(Measure::chest).mm / 1.008, 0.06);
    w.undo();
    w.undo();
    EXPECT_TRUE(w.order().corrections.empty());
}

TEST(PhotoBench, OddPicturesGetASentence) {
    PhotoWindow w;
    const Order before = w.order();
    QImage(1, 1, QImage::Format_RGB32).save(QString::fromStdString(w.data("dot.png")));
    QImage wide(30000, 320, QImage::Format_RGB32);
    wide.fill(Qt::gray);
    wide.save(QString::fromStdString(w.data("wide.png")));
    QImage plain(1200, 900, QImage::Format_RGB32);
    plain.fill(QColor(120, 130, 140));
    plain.save(QString::fromStdString(w.data("plain.png")));
    const std::string whole = test::slurp(w.photograph("whole.jpg", "M", 5));
    test::spill(w.data("cut.jpg"), whole.substr(0, 2000));
    test::spill(w.data("words.jpg"), "no picture");
    for (const auto& [name, says] : {std::pair{"dot.png", "too small"}, std::pair{"plain.png", "card"}, std::pair{"wide.png", "card"},
                                     std::pair{"cut.jpg", "cut.jpg"}, std::pair{"words.jpg", "words.jpg"}}) {
        w.drop({w.data(name)});
        w.wait();
        EXPECT_FALSE(w.last().blank) << name;
        EXPECT_NE(w.last().fault.toStdString().find(says), std::string::npos) << name << ": " << w.last().fault.toStdString();
        EXPECT_FALSE(w.find<QPushButton>("Take these figures")->isEnabled());
    }
    EXPECT_EQ(w.order(), before);
}

TEST(PhotoBench, AFolderIsWatchedForPicturesThatAreWhole) {
    PhotoWindow w;
    w.blanks()->choose_size("M");
    const QString folder = QString::fromStdString(w.data("telephone"));
    QDir().mkpath(folder);
    const std::string whole = test::slurp(w.photograph("piece.jpg", "M", 2));
    test::spill(w.data("telephone/old.jpg"), whole);
    PhotoPage* page = w.blanks()->photos();
    page->folder().watch(folder);
    QTest::qWait(300);
    test::spill(w.data("telephone/new.jpg"), whole.substr(0, 5000));  // still being sent
    test::spill(w.data("telephone/words.txt"), "no picture");
    QTest::qWait(1300);
    EXPECT_FALSE(page->any());
    test::spill(w.data("telephone/new.jpg"), whole);
    QTRY_VERIFY_WITH_TIMEOUT(page->any(), 6000);
    w.wait();
    ASSERT_EQ(page->photos().size(), 1U) << "what lay there before is nobody's business";
    EXPECT_TRUE(w.last().path.endsWith("new.jpg"));
    EXPECT_TRUE(w.last().blank) << w.last().fault.toStdString();
    QDir(folder).removeRecursively();
    QTRY_VERIFY_WITH_TIMEOUT(page->folder().folder().isEmpty(), 6000);
    EXPECT_NE(w.notice().find("telephone"), std::string::npos);
}

}  // namespace TESTED
}  // namespace orthema
