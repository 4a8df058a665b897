// A word picture from the window: added, suggested, moved, turned, shared, swapped, marked, undone.
#include <QCheckBox>
#include <QWheelEvent>

#include "app/benches/art/art_bench.h"
#include "app/benches/art/art_view.h"
#include "app/benches/art/word_view.h"
#include "app/widgets/figures.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::SmallWindow;

struct WordWindow : SmallWindow {
    WordWindow() : SmallWindow(3) {
        std::vector<std::string> files;
        for (int k = 0; k < 4; ++k) {
            test::Canvas p(400, 300);
            p.fill([](double, double) { return true; }, 40 * k, 90, 200 - 40 * k);
            files.push_back(data("scene" + std::to_string(k) + ".png"));
            test::spill(files.back(), test::png_bytes(p));
        }
        drop(files);
        wait();
        click(find<QPushButton>("Add a word picture"));
        wait();
        type(find<ValueField>("Word of pictures"), "TOT");
        wait();
    }
    [[nodiscard]] const WordPicture& word() const { return *find_art(order(), room_selected())->word_picture; }
    [[nodiscard]] std::string room_selected() const { return const_cast<WordWindow*>(this)->room().selection().art; }
    WordView* view() { return bench<ArtBench>("art")->word_view(); }
    [[nodiscard]] std::set<std::string> used() const {
        std::set<std::string> out;
        for (const WordPlace& p : word().places) {
            out.insert(p.first.picture);
            if (p.shared) out.insert(p.second.picture);
        }
        out.erase("");
        return out;
    }
    void drag(QPoint from, QPoint to, Qt::KeyboardModifiers how = {}) {
        QTest::mousePress(view(), Qt::LeftButton, how, from);
        QMouseEvent move(QEvent::MouseMove, to, view()->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, how);
        QApplication::sendEvent(view(), &move);
        QTest::mouseRelease(view(), Qt::LeftButton, how, to);
        wait();
    }
};

TEST(WordBench, PicturesAreSuggestedMovedTurnedSwappedAndUndone) {
    WordWindow w;
    ASSERT_EQ(w.word().places.size(), 3U);
    EXPECT_TRUE(w.used().empty());
    w.click(w.find<QPushButton>("Suggest pictures"));
    w.wait();
    EXPECT_EQ(w.used().size(), 3U) << "each place has its own";
    // moved in its letter
    const QPoint t = w.view()->place_of(0);
    w.drag(t, t + QPoint(18, -7));
    ASSERT_TRUE(w.word().places[0].first.at);
    const PictureAt moved = *w.word().places[0].first.at;
    EXPECT_GT(moved.middle.x, 0.01);
    EXPECT_LT(moved.middle.y, 0);
    // larger with the wheel, turned with Shift
    const QPointF at = w.view()->place_of(0);
    for (const auto how : {Qt::KeyboardModifiers{}, Qt::KeyboardModifiers{Qt::ShiftModifier}}) {
        QWheelEvent wheel(at, w.view()->mapToGlobal(at), {}, {0, 120}, Qt::NoButton, how, Qt::NoScrollPhase, false);
        QApplication::sendEvent(w.view(), &wheel);
        w.wait();
    }
    EXPECT_NEAR(w.word().places[0].first.at->width, 1.04 * moved.width, 1e-9);
    EXPECT_NEAR(w.word().places[0].first.at->degrees, 2, 1e-9);
    // swapped: each by itself again
    const std::string first = w.word().places[0].first.picture, last = w.word().places[2].first.picture;
    w.drag(w.view()->place_of(0), w.view()->place_of(2), Qt::ControlModifier);
    EXPECT_EQ(w.word().places[0].first.picture, last);
    EXPECT_EQ(w.word().places[2].first.picture, first);
    EXPECT_FALSE(w.word().places[0].first.at);
    for (int k = 0; k < 5; ++k) w.undo();
    w.wait();
    EXPECT_TRUE(w.used().empty());
}

TEST(WordBench, ALetterIsSharedReplacedAndItsSubjectMarked) {
    WordWindow w;
    w.click(w.find<QPushButton>("Suggest pictures"));
    w.wait();
    w.key(w.view(), Qt::Key_PageDown);
    EXPECT_EQ(w.view()->chosen(), 1U);
    w.choose(w.find<QComboBox>("Shape"), "a heart");
    w.wait();
    EXPECT_EQ(w.word().places[1].shape, PlaceShape::heart);
    w.click(w.find<QCheckBox>("Two pictures share it"));
    w.wait();
    ASSERT_TRUE(w.word().places[1].shared);
    const auto said = [&](const std::string& code) {
        const auto all = w.room().findings();
        return std::any_of(all.begin(), all.end(), [&](const Finding& f) { return f.code == code; });
    };
    EXPECT_TRUE(said("word-place-empty"));
    auto* other = w.find<QComboBox>("The other");
    w.choose(other, other->itemText(other->count() - 1));
    w.wait();
    EXPECT_FALSE(said("word-place-empty"));
    // the line is turned and moved under the hand
    w.drag(w.view()->line_of(1, true), w.view()->line_of(1, false) + QPoint(120, 0));
    EXPECT_NEAR(w.word().places[1].line.degrees, 0, 1e-6) << "it snaps level";
    const QPoint mid = w.view()->line_of(1, false);
    w.drag(mid, mid + QPoint(0, 20));
    EXPECT_GT(w.word().places[1].line.through.y, 0.51);
    // who matters is marked in the picture itself
    const std::string picture = w.word().places[1].first.picture;
    w.click(w.find<QPushButton>("Mark who matters"));
    w.wait();
    ArtView* whole = w.bench<ArtBench>("art")->view();
    ASSERT_TRUE(whole->isVisible());
    for (const Point& p : {Point{0.3, 0.3}, Point{0.6, 0.4}}) QTest::mouseClick(whole, Qt::LeftButton, {}, whole->place_of(p));
    w.wait();
    ASSERT_EQ(find_art(w.order(), picture)->subject.size(), 2U);
    EXPECT_NEAR(find_art(w.order(), picture)->subject[1].x, 0.6, 0.01);
    w.click(w.find<QPushButton>("Mark who matters"));
    w.wait();
    EXPECT_TRUE(w.view()->isVisible());
    // put on a garment like any picture
    w.click(w.find<QPushButton>("Put it on"));
    w.wait();
    EXPECT_EQ(w.order().decorations.back().art, w.room_selected());
}

}  // namespace TESTED
}  // namespace orthema
