// A print put together from the window: begun, grounded, laid over, dragged, enlarged, seen through, put on its blank, undone.
#include <QCheckBox>
#include <QWheelEvent>

#include "app/benches/art/art_bench.h"
#include "app/benches/art/together_view.h"
#include "app/widgets/figures.h"
#include "core/order/edit.h"
#include "files/order_file.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::SmallWindow;

struct TogetherWindow : SmallWindow {
    TogetherWindow() : SmallWindow(3) {
        std::vector<std::string> files;
        for (int k = 0; k < 2; ++k) {
            test::Canvas p(400, 300 - 150 * k);
            p.fill([](double, double) { return true; }, 40 + 150 * k, 90, 200 - 40 * k);
            files.push_back(data("part" + std::to_string(k) + ".png"));
            test::spill(files.back(), test::png_bytes(p));
        }
        drop(files);
        wait();
        Order next = order();  // tiles, whose whole face is printed
        const BlankStyle tile = test::library_style("ceramic-tile");
        next.styles.own().push_back(tile);
        next.lines.own().push_back({tile.id, tile.colours.front().name, tile.sizes.front(), 6, ""});
        room().edit(QStringLiteral("tiles"), next);
        wait();
        click(find<QPushButton>("Put a print together"));
        wait();
    }
    [[nodiscard]] const PutTogether& print() { return *find_art(order(), room().selection().art)->together; }
    TogetherView* view() { return bench<ArtBench>("art")->together_view(); }
    void lay(const QString& name) {
        choose(find<QComboBox>("Picture to lay over"), name);
        click(find<QPushButton>("Lay it over"));
        wait();
    }
    void drag(QPoint from, QPoint to) {
        QTest::mousePress(view(), Qt::LeftButton, {}, from);
        QMouseEvent move(QEvent::MouseMove, to, view()->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, {});
        QApplication::sendEvent(view(), &move);
        QTest::mouseRelease(view(), Qt::LeftButton, {}, to);
        wait();
    }
    bool said(const std::string& code) {
        const auto all = room().findings();
        return std::any_of(all.begin(), all.end(), [&](const Finding& f) { return f.code == code; });
    }
};

TEST(TogetherBench, APrintIsPutTogetherByHandAndPutOnItsBlank) {
    TogetherWindow w;
    EXPECT_EQ(w.print().style, "ceramic-tile") << "the blank whose whole face is printed";
    EXPECT_TRUE(w.said("together-empty"));
    EXPECT_FALSE(w.said("art-empty")) << "once is enough";
    w.choose(w.find<QComboBox>("Ground"), "Part0");
    w.wait();
    EXPECT_FALSE(w.print().ground.empty());
    EXPECT_FALSE(w.said("together-empty"));
    w.lay("Part1");
    ASSERT_EQ(w.print().over.size(), 1U);
    EXPECT_EQ(w.print().over[0].level, From::middle);
    // dragged: it snaps to the middle, and comes away from it
    const QPoint at = w.view()->place_of(0);
    w.drag(at, at + QPoint(90, 3));
    EXPECT_GT(w.print().over[0].across.mm(), 5);
    EXPECT_NEAR(w.print().over[0].down.mm(), 0, 1e-9) << "it snapped to the middle's height";
    const double width = w.print().over[0].width.mm();
    const QPoint corner = w.view()->handle();
    w.drag(corner, corner + QPoint(20, 10));
    EXPECT_GT(w.print().over[0].width.mm(), width * 1.05);
    // typed: from the right edge by so much, and its height from the bottom
    w.choose(w.find<QComboBox>("Across"), "from the right");
    w.wait();
    w.type(w.find<LengthField>("… by"), "8 mm");
    w.wait();
    EXPECT_EQ(w.print().over[0].level, From::end);
    EXPECT_NEAR(w.print().over[0].across.mm(), 8, 1e-9);
    w.type(w.find<LengthField>("Width"), "30 mm");
    w.wait();
    // one sees through it, with a firm edge
    w.click(w.find<QCheckBox>("See through its inside"));
    w.wait();
    w.type(w.find<NumberField>("Own colour, %"), "40");
    w.type(w.find<LengthField>("Edge"), "1.4 mm");
    w.wait();
    EXPECT_TRUE(w.print().over[0].see_through);
    EXPECT_NEAR(w.print().over[0].tint, 0.4, 1e-9);
    EXPECT_NEAR(w.print().over[0].edge.mm(), 1.4, 1e-9);
    const QPointF wheel_at = w.view()->place_of(0);
    QWheelEvent wheel(wheel_at, w.view()->mapToGlobal(wheel_at), {}, {0, 120}, Qt::NoButton, Qt::ShiftModifier, Qt::NoScrollPhase, false);
    QApplication::sendEvent(w.view(), &wheel);
    w.wait();
    EXPECT_NEAR(w.print().over[0].degrees, 2, 1e-9);
    // a second one over it, under it, off again by key
    w.lay("Part0");
    const std::string top = w.print().over[1].picture;
    w.click(w.find<QPushButton>("Under"));
    w.wait();
    EXPECT_EQ(w.print().over[0].picture, top);
    w.key(w.view(), Qt::Key_Delete);
    w.wait();
    ASSERT_EQ(w.print().over.size(), 1U);
    w.undo();
    w.wait();
    EXPECT_EQ(w.print().over.size(), 2U);
    // put on the tiles: it covers them with its bleed
    w.click(w.find<QPushButton>("Art page/Found in it"));
    auto* run = w.find<QComboBox>("Run");
    for (int i = 0; i < run->count(); ++i)
        if (run->itemText(i).contains("tile", Qt::CaseInsensitive)) w.choose(run, run->itemText(i));
    w.click(w.find<QPushButton>("Put it on"));
    w.wait();
    const Decoration d = w.order().decorations.back();
    EXPECT_EQ(d.art, w.room().selection().art);
    EXPECT_TRUE(d.making.cover);
    const std::string path = w.data("together.orthema");
    w.room().keeper().save(QString::fromStdString(path));
    w.wait();
    const auto again = open_order(path);
    ASSERT_TRUE(again) << again.sentence();
    EXPECT_EQ(again->order.art, w.order().art);
    EXPECT_EQ(again->order.decorations, w.order().decorations);
}

}  // namespace TESTED
}  // namespace orthema
