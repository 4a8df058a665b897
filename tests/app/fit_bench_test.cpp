// The Fit bench: rails, corners, pins, schools, figures.
#include "app/benches/fit/fit_bench.h"
#include "core/transfers/choices.h"

#include <cmath>

#include "app/benches/art/art_bench.h"
#include "app/benches/art/art_view.h"
#include "app/benches/fit/fit_strip.h"
#include "app/benches/fit/fit_wall.h"
#include "app/benches/fit/strips.h"
#include "app/widgets/chips.h"
#include "app/widgets/figures.h"
#include "files/order_file.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::SmallWindow;
using test::Window;

struct FitWindow : SmallWindow {
    FitWindow() : SmallWindow(4) {}
    FitWall* wall() { return bench<FitBench>("fit")->wall(); }
    const DecorationFit& fit() { return room().plan().decorations.at(0); }
    const Decoration& d() { return order().decorations.at(0); }
    const SizeFit& size(const char* s) { return *find_size(fit(), s); }
    void page(const char* name) { click(find<QPushButton>(QStringLiteral("Figures page/") + QLatin1String(name))); }
    using Window::choose;
    void choose(const char* s) { click(wall(), wall()->design_at(s)); }
};

TEST(FitBench, ShowsEverySizeOnOneFloorLineAtOneScale) {
    FitWindow w;
    const Wall& wall = w.wall()->wall();
    ASSERT_EQ(wall.stands.size(), 5u);
    for (const WallSlot& s : wall.stands) {
        EXPECT_EQ(s.map.a, wall.scale);
        EXPECT_GE(s.cell.x0, -1e-9);
        EXPECT_LE(s.cell.x1, w.wall()->width() + 1e-9);
        EXPECT_LE(s.cell.y1, w.wall()->height() + 1e-9);
        for (const WallSlot& o : wall.stands)
            if (o.row == s.row) EXPECT_EQ(o.pill.y0, s.pill.y0);
    }
}

TEST(FitBench, ACornerSizesTheRule) {
    FitWindow w;
    w.choose("L");
    const double before = w.size("L").ideal;
    const QPoint corner = w.wall()->corner_at("L");
    w.drag(w.wall(), corner, corner + QPoint(-10, -8));
    EXPECT_LT(w.size("L").ideal, before - 4);
    EXPECT_NEAR(std::remainder(w.size("L").ideal, 5), 0, 1e-6) << "in whole steps";
    EXPECT_LT(w.size("S").ideal, before);
    EXPECT_TRUE(w.d().pins.empty());
}

TEST(FitBench, ARailsEndMovesASizeToTheNextBand) {
    FitWindow w;
    Order next = w.order();
    next.decorations[0].sizing.band_starts = {"L"};
    w.room().edit("two bands", next);
    w.wait();
    QCoreApplication::processEvents();
    w.wall()->repaint();
    ASSERT_EQ(w.fit().bands.size(), 2u);
    EXPECT_EQ(w.fit().bands[0].last, 1);
    const QPoint end = w.wall()->rail_end(0, true);
    ASSERT_NE(end, QPoint());
    // to the middle of S, so that M goes over to the next band
    const WallSlot& s = w.wall()->wall().stands[0];
    w.drag(w.wall(), end, QPoint(int(s.cell.centre().x) + 6, end.y()));
    ASSERT_EQ(w.fit().bands.size(), 2u);
    EXPECT_EQ(w.fit().bands[0].last, 0);
    EXPECT_EQ(w.fit().bands[1].first, 1);
    EXPECT_EQ(w.d().sizing.band_starts, (std::vector<std::string>{"M"}));
    w.undo();
    EXPECT_EQ(w.fit().bands[0].last, 1) << "one drag is one step";
}

TEST(FitBench, ArrowsNudgeByAMillimetreOrASixteenth) {
    FitWindow w;
    w.choose("M");
    const double y = w.size("M").ink.y0;
    w.key(w.wall(), Qt::Key_Down);
    EXPECT_NEAR(w.size("M").ink.y0, y + 1, 1e-9);
    w.key(w.wall(), Qt::Key_Down, Qt::ShiftModifier);
    EXPECT_NEAR(w.size("M").ink.y0, y + 9, 1e-9);
    w.key(w.wall(), Qt::Key_Right, Qt::ControlModifier);
    EXPECT_NEAR(w.size("M").ink.centre().x, 1, 1e-9);
    EXPECT_NEAR(w.size("L").ink.centre().x, 0, 1e-9) << "Ctrl pins this size only";
    w.key(w.wall(), Qt::Key_Delete);
    EXPECT_NEAR(w.size("M").ink.centre().x, 0, 1e-9);
    w.click(w.find<QPushButton>("Units/in"));
    EXPECT_EQ(w.order().unit, Unit::inch);
    w.key(w.wall(), Qt::Key_Up);
    EXPECT_NEAR(w.size("M").ink.y0, y + 9 - 25.4 / 16, 1e-9);
    w.page("Place");
    const auto shown = parse_length(w.find<QLineEdit>("Top to ink")->text().toStdString(), Unit::inch);
    ASSERT_TRUE(shown);
    EXPECT_NEAR(shown->mm(), w.size("M").top_to_ink, 0.02) << "as it is, to the thousandth of an inch";
}

TEST(FitBench, OneGarmentIsMadeLargeWithEverythingEditable) {
    FitWindow w;
    FitWall* wall = w.wall();
    const std::string size = w.fit().sizes[1].size;
    const double scale = wall->wall().scale;
    w.click(wall, wall->design_at(size));
    QTest::mouseDClick(wall, Qt::LeftButton, {}, wall->design_at(size));
    QCoreApplication::processEvents();
    ASSERT_TRUE(wall->is_large());
    wall->grab();
    EXPECT_GT(wall->wall().scale, 1.5 * scale);
    EXPECT_TRUE(wall->rect().contains(wall->design_at(size)));
    // it is still dragged, and the rule follows
    const double top = find_size(w.fit(), size)->top_to_ink;
    w.drag(wall, wall->design_at(size), wall->design_at(size) + QPoint(0, int(30 * wall->wall().scale)), Qt::AltModifier);
    w.wait();
    EXPECT_NEAR(find_size(w.fit(), size)->top_to_ink, top + 30, 1.5);
    // the next size comes to the middle
    w.key(wall, Qt::Key_PageDown);
    wall->grab();
    EXPECT_NEAR(wall->design_at(w.room().selection().size).x(), wall->width() / 2.0, wall->width() / 6.0);
    w.key(wall, Qt::Key_Escape);
    wall->grab();
    EXPECT_NEAR(wall->wall().scale, scale, 1e-9);
    // the wheel zooms about the pointer: what lies under it stays
    const QPoint at = wall->design_at(size);
    QWheelEvent wheel(at, wall->mapToGlobal(at), {}, QPoint(0, 240), Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase, false);
    QApplication::sendEvent(wall, &wheel);
    wall->grab();
    EXPECT_GT(wall->wall().scale, 1.2 * scale);
    EXPECT_LT((wall->design_at(size) - at).manhattanLength(), 3);
}

TEST(FitBench, ADraggedDesignSnapsToTheCentreLineUnlessAltIsHeld) {
    FitWindow w;
    FitWall* wall = w.wall();
    const std::string size = w.fit().sizes[1].size;
    w.click(wall, wall->design_at(size));
    const double k = wall->wall().scale;
    // 3 px beside the centre line: on it; held loose: where the tape says
    const auto pull = [&](int x, Qt::KeyboardModifiers keys) {
        const QPoint from = wall->design_at(size);
        w.drag(wall, from, from + QPoint(x, 0), keys);
        w.wait();
        return w.d().placing.across.mm();
    };
    EXPECT_NEAR(pull(12, {}), 12 / k, 1.5);
    EXPECT_EQ(pull(-9, {}), 0) << "it snaps";
    EXPECT_NEAR(pull(2, Qt::AltModifier), 2 / k, 0.8);
    EXPECT_TRUE(std::any_of(w.room().findings().begin(), w.room().findings().end(), [](const Finding& f) {
        return f.code == "off-centre";
    })) << "a slip is said";
}

TEST(FitBench, PageKeysChooseASize) {
    FitWindow w;
    w.choose("S");
    EXPECT_EQ(w.room().selection().size, "S");
    w.key(w.wall(), Qt::Key_PageDown);
    EXPECT_EQ(w.room().selection().size, "M");
    w.key(w.wall(), Qt::Key_PageUp);
    w.key(w.wall(), Qt::Key_PageUp);
    EXPECT_EQ(w.room().selection().size, "S");
}

TEST(FitBench, TypedFiguresPinOneSizeWithCtrlOrTheSwitch) {
    FitWindow w;
    w.choose("XL");
    const double others = w.size("L").ideal;
    w.type(w.find<QLineEdit>("Ink width"), "150", Qt::ControlModifier);
    EXPECT_EQ(w.size("XL").width, 150);
    EXPECT_EQ(w.size("L").ideal, others);
    EXPECT_EQ(binding_text(w.size("XL").limited_by), "pinned by hand");
    w.click(w.find<QPushButton>("A change is for/this size"));
    w.page("Place");
    w.type(w.find<QLineEdit>("Top to ink"), "99");
    EXPECT_NEAR(w.size("XL").top_to_ink, 99, 1e-9);
    EXPECT_NE(w.size("L").top_to_ink, 99);
    const double xl = w.size("XL").ink.centre().x, l = w.size("L").ink.centre().x;
    w.type(w.find<QLineEdit>("Off its line"), "-7");
    EXPECT_NEAR(w.size("XL").ink.centre().x, xl - 7, 1e-9);
    EXPECT_NEAR(w.size("L").ink.centre().x, l, 1e-9);
    EXPECT_TRUE(w.find<QLineEdit>("Off its line")->text().startsWith("-7"));
    w.page("Size");
    w.click(w.find<QPushButton>("Take the pin away"));
    EXPECT_TRUE(w.d().pins.empty());
}

TEST(FitBench, SeveralSizesInHandArePinnedAtOnceAndLetGo) {
    FitWindow w;
    const auto spot = [&](const char* size) { return w.wall()->design_at(size); };
    const auto click = [&](const char* size, Qt::KeyboardModifiers keys = {}) {
        QTest::mouseClick(w.wall(), Qt::LeftButton, keys, spot(size));
        w.wait();
    };
    click("M");
    click("XL", Qt::ShiftModifier);
    EXPECT_EQ(sizes_in_hand(w.room().selection()), (std::set<std::string>{"M", "XL"}));
    EXPECT_TRUE(w.find<QPushButton>("A change is for/this size")->isChecked());
    EXPECT_EQ(w.find<QPushButton>("A change is for/this size")->text(), "these 2 sizes");
    const double l = w.size("L").width, l_top = w.size("L").top_to_ink;
    w.page("Size");
    w.type(w.find<QLineEdit>("Ink width"), "140");
    for (const char* size : {"M", "XL"}) EXPECT_EQ(w.size(size).width, 140) << size;
    EXPECT_EQ(w.size("L").width, l);
    w.page("Place");
    w.type(w.find<QLineEdit>("Top to ink"), "88");
    for (const char* size : {"M", "XL"}) EXPECT_NEAR(w.size(size).top_to_ink, 88, 1e-9) << size;
    EXPECT_NEAR(w.size("L").top_to_ink, l_top, 1e-9);
    // one of them is dragged: both go
    const QPoint from = spot("M");
    QTest::mousePress(w.wall(), Qt::LeftButton, {}, from);
    QTest::mouseMove(w.wall(), from + QPoint(0, 6));
    QTest::mouseMove(w.wall(), from + QPoint(0, 14));
    QTest::mouseRelease(w.wall(), Qt::LeftButton, {}, from + QPoint(0, 14));
    w.wait();
    EXPECT_GT(w.size("M").top_to_ink, 88.5);
    EXPECT_NEAR(w.size("XL").top_to_ink, w.size("M").top_to_ink, 1e-6);
    w.wall()->setFocus();
    QTest::keyClick(w.wall(), Qt::Key_Delete);
    w.wait();
    EXPECT_TRUE(w.d().pins.empty()) << "the pins of both";
    QTest::keyClick(w.wall(), Qt::Key_PageUp, Qt::ShiftModifier);
    w.wait();
    EXPECT_EQ(sizes_in_hand(w.room().selection()).size(), 3U);
    click("L");
    EXPECT_EQ(sizes_in_hand(w.room().selection()), (std::set<std::string>{"L"}));
}

TEST(FitBench, SchoolsAreOneClick) {
    FitWindow w;
    w.choose("L");
    w.click(w.find<QPushButton>("Sizing/one size"));
    EXPECT_EQ(w.fit().bands.size(), 1u);
    w.click(w.find<QPushButton>("Sizing/graded"));
    EXPECT_EQ(w.fit().bands.size(), 5u);
    w.click(w.find<QPushButton>("Sizing/bands"));
    EXPECT_EQ(w.d().sizing.school, SizingSchool::bands);
    w.page("Place");
    w.click(w.find<QPushButton>("Placing/pit line"));
    EXPECT_EQ(w.d().placing.school, PlacingSchool::pit_line);
    const Rect by_panel = w.size("L").ink;
    w.key(w.wall(), Qt::Key_1);
    EXPECT_EQ(w.d().placing.school, PlacingSchool::collar_drop);
    w.key(w.wall(), Qt::Key_2);
    EXPECT_EQ(w.size("L").ink, by_panel) << "the panel and the key put it in one place";
    w.page("Size");
    w.type(w.find<QLineEdit>("Short by at most, %"), "80");
    EXPECT_EQ(w.fit().bands.size(), 1u);
    w.type(w.find<QLineEdit>("Short by at most, %"), "8");
    for (const SizeFit& s : w.fit().sizes) EXPECT_GE(s.width, std::min(0.92 * s.ideal, rounded_down(std::min(s.ideal, s.limit), 5)) - 1e-6);
    w.type(w.find<QLineEdit>("Number of bands"), "1");
    EXPECT_EQ(w.fit().bands.size(), 1u);
    w.type(w.find<QLineEdit>("And how much"), "not at all");
    for (const SizeFit& s : w.fit().sizes) EXPECT_NEAR(s.ideal, w.d().sizing.base_width.mm(), 1e-9);
    w.page("Place");
    w.click(w.find<QPushButton>("Centred by/optical"));
    EXPECT_GT(w.size("L").ink.centre().x, 5) << "the L is heavier on its left";
}

TEST(FitBench, LocationMediumPressAndSparesAreChosenInPlace) {
    FitWindow w;
    w.page("Press");
    auto* location = w.find<QComboBox>("Location");
    ASSERT_NE(location, nullptr);
    location->setFocus();
    w.key(location, Qt::Key_Down);
    w.key(location, Qt::Key_Down);
    EXPECT_EQ(w.d().location, Location::left_chest);
    EXPECT_GT(w.size("L").ink.centre().x, 0) << "the wearer's left is the viewer's right";
    w.page("Size");
    w.type(w.find<QLineEdit>("Spares a transfer"), "2");
    EXPECT_EQ(w.d().spares, 2);
    w.page("Press");
    auto* press = w.find<QComboBox>("Press");
    press->setFocus();
    w.key(press, Qt::Key_End);
    EXPECT_EQ(w.d().press, "press-hand") << "the last that takes a chest: neither the cap nor the wrap press does";
    auto* medium = w.find<QComboBox>("Medium");
    medium->setFocus();
    w.key(medium, Qt::Key_End);
    EXPECT_EQ(w.d().medium, w.order().media.back().id);
}

TEST(FitBench, ADragThatClashesIsSaidAtTheBottom) {
    FitWindow w;
    w.choose("S");
    w.type(w.find<QLineEdit>("Ink width"), "500", Qt::ControlModifier);
    w.wait();
    EXPECT_TRUE(has_stop(w.room().findings()));
    EXPECT_EQ(standing_of(w.room().findings(), "fit"), Standing::blocked);
    auto* strip = w.find("Findings");
    EXPECT_TRUE(strip->accessibleDescription().contains("lies over")) << strip->accessibleDescription().toStdString();
    w.go(1);
    w.click(strip, QPoint(200, 20));
    EXPECT_EQ(w.window().current(), 3) << "a click leads there";
    EXPECT_EQ(w.room().selection().size, "S");
}

TEST(FitBench, UndoGoesAllTheWayBackAndRedoForth) {
    FitWindow w;
    const Order begun = w.order();
    w.choose("L");
    w.key(w.wall(), Qt::Key_Down);
    w.click(w.find<QPushButton>("Sizing/graded"));
    w.type(w.find<QLineEdit>("Ink width"), "180");
    w.page("Place");
    w.click(w.find<QPushButton>("Placing/share"));
    const Order done = w.order();
    int steps = 0;
    while (w.room().document().can_undo() && steps < 50) {
        w.undo();
        ++steps;
    }
    EXPECT_EQ(w.order(), begun);
    EXPECT_EQ(steps, 4);
    EXPECT_FALSE(w.room().document().changed_since_saved());
    while (w.room().document().can_redo()) w.key(&w.window(), Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    EXPECT_EQ(w.order(), done);
}

TEST(FitBench, SchoolsAndOverlaysAreOneKey) {
    FitWindow w;
    w.choose(w.d().sizing.base_size.c_str());
    EXPECT_FALSE(w.wall()->look().ghosts);
    w.key(w.wall(), Qt::Key_G);
    EXPECT_TRUE(w.wall()->look().ghosts);
    EXPECT_TRUE(w.find<QPushButton>("schools")->isChecked());
    w.click(w.find<QPushButton>("schools"));
    EXPECT_FALSE(w.wall()->look().ghosts);
    w.key(w.wall(), Qt::Key_P);
    w.key(w.wall(), Qt::Key_B);
    EXPECT_TRUE(w.wall()->look().platen && w.wall()->look().balance);
    // the ghost of the pit-line school becomes the place itself
    const std::string base = w.d().sizing.base_size;
    const double ghost = *w.size(base.c_str()).school_tops[static_cast<std::size_t>(PlacingSchool::pit_line)];
    EXPECT_GT(std::abs(ghost - w.size(base.c_str()).ink.y0), 5);
    w.key(w.wall(), Qt::Key_2);
    EXPECT_EQ(w.d().placing.school, PlacingSchool::pit_line);
    EXPECT_NEAR(w.size(base.c_str()).ink.y0, ghost, 1e-6);
    w.key(w.wall(), Qt::Key_3);
    EXPECT_EQ(w.d().placing.school, PlacingSchool::body_fraction);
    w.undo();
    w.undo();
    EXPECT_EQ(w.d().placing.school, PlacingSchool::collar_drop);
}

TEST(FitBench, TheCostCurveIsClickedForACount) {
    FitWindow w;
    w.click(w.find<QPushButton>("Strip/bands"));
    FitStrip* strip = w.bench<FitBench>("fit")->strip();
    for (const int count : {2, 4}) {
        QPoint at;
        for (int x = 0; x < strip->width(); ++x)
            if (bands_at(shortfall_curve(w.d(), w.fit()).size(), x, strip->width()) == count) at = {x, strip->height() / 2};
        ASSERT_FALSE(at.isNull());
        w.click(strip, at - QPoint(6, 0));
        EXPECT_EQ(w.fit().bands.size(), static_cast<std::size_t>(count));
    }
}

TEST(FitBench, AMarkIsSetWatchedAndBroughtToItsLine) {
    FitWindow w;
    w.go(3);
    ArtView* view = w.bench<ArtBench>("art")->view();
    w.click(w.find<QPushButton>("Set a mark"));
    w.click(view, view->place_of({0.25, 0.5}));
    ASSERT_EQ(w.order().art[0].marks.size(), 1u);
    w.type(w.find<QLineEdit>("Name of the mark"), "gap in the L");
    EXPECT_EQ(w.order().art[0].marks[0].name, "gap in the L");
    EXPECT_NEAR(w.order().art[0].marks[0].at.x, 0.25, 0.02);
    w.go(4);
    w.choose("L");
    w.page("Place");
    w.choose(w.find<QComboBox>("Landmark to meet"), "centre line");
    w.click(w.find<QPushButton>("Watch"));
    const auto missed = [&] {
        return std::count_if(w.room().findings().begin(), w.room().findings().end(),
                             [](const Finding& f) { return f.code == "mark-missed"; });
    };
    EXPECT_GT(missed(), 0);
    w.click(w.find<QPushButton>("Bring together"));
    EXPECT_NEAR(w.size("L").ink.x0 + w.order().art[0].marks[0].at.x * w.size("L").width, 0, 0.01);
    w.click(w.find<QPushButton>("Let go"));
    EXPECT_EQ(missed(), 0);
}

TEST(FitBench, OneTransferIsSharedAcrossBlanks) {
    SmallWindow w(4);
    Order order = w.order();
    order.lines.push_back({"crew-fleece", order.styles.front().colours.front().name, "L", 3, ""});
    Decoration other = new_decoration(order, {"crew-fleece", order.lines.back().colour}, Location::full_front, order.art[0]);
    other.sizing.base_size = "L";
    other.sizing.base_width = Length::from_mm(205);
    order.decorations.push_back(other);
    w.room().edit(QStringLiteral("a second blank"), order);
    w.wait();
    Selection s = w.room().selection();
    s.run = other.run;
    s.decoration = other.id;
    w.room().select(s);
    const std::size_t transfers = w.room().transfer_set().transfers.size();
    w.click(w.find<QPushButton>("Figures page/Size"));
    w.click(w.find<QPushButton>("Share that transfer"));
    w.wait();
    EXPECT_EQ(w.room().transfer_set().transfers.size(), transfers - 1);
    w.undo();
    w.wait();
    EXPECT_EQ(w.room().transfer_set().transfers.size(), transfers);
}

TEST(FitBench, HangsFromAFeatureThatIsChosenByName) {
    SmallWindow w(4);
    Order order = w.order();
    order.lines = {{"hooded-fleece", "moss", "M", 3, ""}, {"hooded-fleece", "moss", "L", 3, ""}};
    order.decorations = {new_decoration(order, {"hooded-fleece", "moss"}, Location::full_front, order.art[0])};
    w.room().edit(QStringLiteral("fleece"), order);
    w.wait();
    w.click(w.find<QPushButton>("Figures page/Place"));
    w.choose(w.find<QComboBox>("Hangs from"), "pouch seam");
    EXPECT_EQ(w.order().decorations[0].placing.school, PlacingSchool::feature);
    EXPECT_EQ(w.order().decorations[0].placing.landmark, "pouch seam");
    w.type(w.find<QLineEdit>("At the base size"), "30");
    const std::string base = w.order().decorations[0].sizing.base_size;
    EXPECT_EQ(find_size(w.room().plan().decorations.at(0), base)->below, "pouch seam");
    EXPECT_NEAR(find_size(w.room().plan().decorations.at(0), base)->ink_to_below, 30, 1e-6);
    w.type(w.find<QLineEdit>("Grows"), "0");
    for (const SizeFit& s : w.room().plan().decorations.at(0).sizes) EXPECT_NEAR(s.ink_to_below, 30, 1e-6) << s.size;
}

TEST(FitBench, DesignsOnOnePanelKeepTheDistanceThatIsTyped) {
    FitWindow w;
    Order order = w.order();
    order.decorations.push_back(new_decoration(order, order.decorations[0].run, Location::right_hem, order.art[0]));
    w.room().edit(QStringLiteral("a second design"), order);
    Selection s = w.room().selection();
    s.decoration = order.decorations[1].id;
    w.room().select(s);
    w.page("Size");
    w.type(w.find<QLineEdit>("Base width"), "400");
    w.page("Place");
    const auto gap = [&] {
        const Rect a = w.size("L").ink, b = find_size(w.room().plan().decorations.at(1), "L")->ink;
        return std::hypot(std::max({0.0, a.x0 - b.x1, b.x0 - a.x1}), std::max({0.0, a.y0 - b.y1, b.y0 - a.y1}));
    };
    w.type(w.find<QLineEdit>("From other designs"), "10");
    const double near = gap();
    w.type(w.find<QLineEdit>("From other designs"), "90");
    EXPECT_GE(gap(), near);
    EXPECT_EQ(w.order().decorations[1].apart.mm(), 90);
    w.type(w.find<QLineEdit>("From other designs"), "9 m");
    EXPECT_EQ(w.order().decorations[1].apart.mm(), 90) << "that is no distance on a garment";
}

TEST(FitBench, ThePressPageSaysHowEachSizeIsLoaded) {
    FitWindow w;
    w.choose("XL");
    w.page("Press");
    const auto says = [&](const QString& words) {
        for (auto* label : w.window().findChildren<QLabel*>())
            if (label->isVisible() && label->text().contains(words)) return true;
        return false;
    };
    const Press& press = *find_press(w.order(), w.d().press);
    EXPECT_TRUE(says(QString::fromStdString(press.platens.front().name)));
    // larger than any platen: allowed, it is pressed in several
    w.page("Size");
    w.type(w.find<QLineEdit>("Base width"), "460");
    EXPECT_EQ(binding_text(w.size("XL").limit_by), "platen");
    w.page("Press");
    w.click(w.find<QCheckBox>("Past the platen"));
    EXPECT_TRUE(w.d().sizing.past_platen);
    EXPECT_NE(binding_text(w.size("XL").limit_by), "platen");
    if (w.size("XL").platen.way == PlatenWay::several) EXPECT_TRUE(says("fields on the"));
    w.undo();
    EXPECT_FALSE(w.d().sizing.past_platen);
}

TEST(FitBench, TheStripsAgreeWithThePlan) {
    FitWindow w;
    // with growth in full proportion the top of ink keeps its share of the length, fixed it does not
    w.page("Place");
    w.type(w.find<QLineEdit>("Grows"), "100");
    EXPECT_NEAR(*drift_of(w.fit(), PlacingSchool::collar_drop), 0, 0.02);
    w.type(w.find<QLineEdit>("Grows"), "0");
    EXPECT_GT(*drift_of(w.fit(), PlacingSchool::collar_drop), 0.005);
    // the curve falls, and the bands that are chosen cost what it says
    const std::vector<Shortfall> curve = shortfall_curve(w.d(), w.fit());
    ASSERT_EQ(curve.size(), w.fit().sizes.size());
    for (std::size_t k = 1; k < curve.size(); ++k) EXPECT_LE(curve[k].worst, curve[k - 1].worst + 1e-12);
    double worst = 0, lack = 0, squares = 0, pieces = 0;
    for (const SizeFit& s : w.fit().sizes) {
        worst = std::max(worst, (s.ideal - s.width) / s.ideal);
        lack += s.quantity * (s.ideal - s.width) / s.ideal;
        squares += s.quantity * s.width * s.width;
        pieces += s.quantity;
    }
    const Shortfall& chosen = curve[w.fit().bands.size() - 1];
    EXPECT_NEAR(chosen.worst, worst, 1e-9);
    EXPECT_NEAR(chosen.mean, lack / pieces, 1e-9);
    EXPECT_NEAR(chosen.squares, squares, 1e-6);
    // film by what pieces usually fill of it, ink by the design's area, and each width kept apart
    const ArtFacts& facts = w.room().facts().at(w.d().art);
    const Medium& film = *find_medium(w.order(), w.d().medium);
    const BandsCost cost = bands_cost(w.order(), w.d(), w.fit(), facts, squares, 3);
    EXPECT_NEAR(cost.film, film.price * squares * w.fit().aspect / 0.6 / film.width.mm() / 1000, 1e-9);
    EXPECT_NEAR(cost.sorting, 3 * bands_cost(w.order(), w.d(), w.fit(), facts, squares, 1).sorting, 1e-9);
    for (const char* strip : {"Strip/bands", "Strip/drift", "Strip/ladder"}) {
        w.click(w.find<QPushButton>(strip));
        EXPECT_FALSE(w.bench<FitBench>("fit")->strip()->grab().isNull());
    }
}

TEST(Wall, FortySizesStandWithoutOverlap) {
    const Order order = test::ladder_order(40, 8);
    const ArtFactsById facts = facts_of(load_all_art(order, test::small_art(), nullptr));
    const FitPlan plan = fit(order, facts);
    for (const auto& [width, height] : {std::pair{890.0, 480.0}, std::pair{1500.0, 760.0}, std::pair{640.0, 300.0}}) {
        const Wall wall = wall_of({{&order.decorations[0], &plan.decorations[0]}}, width, height);
        ASSERT_EQ(wall.stands.size(), 40u);
        std::vector<Rect> boxes;
        for (const WallSlot& s : wall.stands) {
            const Rect box = bounds(mapped(plan.decorations[0].ground->sizes[std::size_t(s.size)].panel.outline, s.map));
            EXPECT_GE(box.x0, -0.5);
            EXPECT_LE(box.x1, width + 0.5);
            EXPECT_GE(box.y0, s.cell.y0 - 0.5);
            for (const Rect& o : boxes) EXPECT_FALSE(o.grown(-0.5).meets(box.grown(-0.5)));
            boxes.push_back(box);
        }
        // every band's rail covers its sizes once
        std::map<int, int> ends;
        for (const WallRail& r : wall.rails) {
            EXPECT_LT(r.x0, r.x1);
            ends[r.band] += (r.begins ? 1 : 0) + (r.ends ? 1 : 0);
        }
        for (std::size_t b = 0; b < plan.decorations[0].bands.size(); ++b) EXPECT_EQ(ends[int(b)], 2);
    }
}

TEST(Wall, SaysWhereTheSchoolsDisagree) {
    DecorationFit f;
    SizeFit s;
    s.ink = {-10, 100, 10, 120};
    s.school_tops = {100, 86, 131, std::nullopt};
    f.sizes.push_back(s);
    s.school_tops = {100, 69, 112, std::nullopt};
    f.sizes.push_back(s);
    auto ground = std::make_shared<GroundRun>();
    ground->sizes.resize(2);
    for (Ground& g : ground->sizes) g.panel.pit_y = 100;
    f.ground = ground;
    EXPECT_EQ(schools_disagree(f, PlacingSchool::collar_drop, Unit::mm), "2 pit line 14 to 31 mm higher; 3 body share 12 to 31 mm lower");
}

}  // namespace TESTED
}  // namespace orthema
