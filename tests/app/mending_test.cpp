// A picture mended from the window: what a finding asks for, a box and a line that are drawn, taken back, saved, opened and printed.
#include <QCheckBox>
#include <QToolButton>

#include "app/benches/art/art_bench.h"
#include "app/benches/art/art_view.h"
#include "app/widgets/figures.h"
#include "core/artwork/mend.h"
#include "files/order_file.h"
#include "files/page_export.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::SmallWindow;

struct MendingWindow : SmallWindow {
    std::string id;
    MendingWindow() : SmallWindow(3) {
        test::Canvas p(360, 240);
        p.fill([](double, double) { return true; }, 238, 236, 230);
        p.fill([](double x, double y) { return std::hypot(x - 180, y - 120) < 70; }, 40, 90, 130);
        p.fill([](double x, double y) { return x > 60 && x < 300 && std::abs(y - 120) < 1.2; }, 40, 90, 130);
        test::spill(data("disc.png"), test::png_bytes(p));
        drop({data("disc.png")});
        wait();
        id = order().art.back().id;
        Order next = order();
        for (Decoration& d : next.decorations) d.art = id;
        for (DesignRule& r : next.rules) r.art = id;
        room().edit("the disc on the tee", next);
        wait();
        click(find<QPushButton>("Art page/Mend it"));
        wait();
    }
    [[nodiscard]] const std::vector<Mending>& mendings() const { return find_art(order(), id)->mendings; }
    [[nodiscard]] bool said(const std::string& code) {
        const auto all = room().findings();
        return std::any_of(all.begin(), all.end(), [&](const Finding& f) { return f.code == code; });
    }
    void tick(const QString& name) {
        click(find<QCheckBox>(name));
        wait();
    }
    [[nodiscard]] const ArtFacts& facts() { return room().facts().at(id); }
    void drag(Point from, Point to) {
        ArtView* view = bench<ArtBench>("art")->view();
        const QPoint a = view->drawing_place_of(from), b = view->drawing_place_of(to);
        QTest::mousePress(view, Qt::LeftButton, {}, a);
        QTest::mouseMove(view, (a + b) / 2);
        QTest::mouseRelease(view, Qt::LeftButton, {}, b);
        wait();
    }
};

TEST(Mending, WhatAFindingAsksForIsDoneAndTheFindingIsGone) {
    MendingWindow w;
    ASSERT_TRUE(w.said("art-background"));
    for (const char* code : {"art-background", "thin-stroke"}) {
        for (int k = 0; k < 40; ++k) {
            const auto all = w.room().findings();
            const auto* strip = w.find<QWidget>("Findings");
            if (w.said(code) &&
                strip->accessibleDescription().toStdString() ==
                    finding_text(*std::find_if(all.begin(), all.end(), [&](const Finding& f) { return f.code == code; }), w.order().unit))
                break;
            w.key(w.find<QWidget>("Findings"), Qt::Key_Right);
        }
        ASSERT_TRUE(w.said(code)) << code;
        auto* mend = w.find<QToolButton>("Mend it");  // found where it is visible
        ASSERT_NE(mend, nullptr) << code;
        w.click(mend);
        w.wait();
        EXPECT_FALSE(w.said(code)) << code;
    }
    EXPECT_TRUE(w.find<QCheckBox>("Take the background out")->isChecked());
    EXPECT_TRUE(w.find<QCheckBox>("Thicken strokes")->isChecked());
    EXPECT_EQ(w.mendings().size(), 2U);
    // taken back singly
    w.tick("Take the background out");
    EXPECT_TRUE(w.said("art-background"));
    EXPECT_EQ(w.mendings().size(), 1U);
    w.undo();
    w.wait();
    EXPECT_EQ(w.mendings().size(), 2U);
    EXPECT_FALSE(w.said("art-background"));
    w.undo();
    w.undo();
    w.wait();
    EXPECT_TRUE(w.mendings().empty());
    EXPECT_TRUE(w.said("art-background"));
    EXPECT_NEAR(w.facts().ink_px.width(), 360, 0.5);
}

TEST(Mending, ABoxAndALineAreDrawnAndMarksStayInPlace) {
    MendingWindow w;
    Order marked = w.order();
    for (Art& a : marked.art)
        if (a.id == w.id) a.marked_centre = Point{0.5, 1.0 / 3};  // the disc's middle
    w.room().edit("mark", marked);
    w.click(w.find<QPushButton>("Draw the box"));
    w.drag({0.25, 0}, {1, 1});
    ASSERT_EQ(w.mendings().size(), 1U);
    const Mending& crop = w.mendings().front();
    EXPECT_EQ(crop.kind, MendKind::crop);
    EXPECT_NEAR(crop.keep.x0, 0.25, 0.01);
    EXPECT_NEAR(w.facts().ink_px.width(), 270, 4);
    const Point mark = *find_art(w.order(), w.id)->marked_centre;
    EXPECT_NEAR(mark.x * w.facts().ink_px.width() + w.facts().ink_px.x0, 90, 2.5) << "still the disc's middle";
    w.click(w.find<QPushButton>("Draw a line"));
    w.drag({0.2, 0.4}, {0.8, 0.6});
    const Mending* turn = find_mending(w.mendings(), MendKind::straighten);
    ASSERT_NE(turn, nullptr);
    EXPECT_NEAR(turn->degrees, -std::atan2(0.2 * 240, 0.6 * 360) * 180 / M_PI, 0.6);
    EXPECT_EQ(w.mendings().front().kind, MendKind::straighten) << "in working order";
    w.type(w.find<NumberField>("Degrees"), "0");
    w.wait();
    EXPECT_EQ(find_mending(w.mendings(), MendKind::straighten)->degrees, 0);
    // a click draws nothing, and a mending that cannot be done is refused
    w.click(w.find<QPushButton>("Draw the box"));
    w.drag({0.5, 0.5}, {0.5, 0.5});
    EXPECT_NEAR(find_mending(w.mendings(), MendKind::crop)->keep.x0, 0.25, 0.01);
}

TEST(Mending, ItIsSavedOpenedAndPrinted) {
    MendingWindow w;
    w.tick("Take the background out");
    w.type(w.find<NumberField>("Within, %"), "8");
    w.wait();
    EXPECT_NEAR(w.mendings().front().tolerance, 0.08, 1e-9);
    const ArtFacts shown = w.facts();
    const std::string path = w.data("mended.orthema");
    w.room().keeper().save(QString::fromStdString(path));
    w.wait();
    const auto back = open_order(path);
    ASSERT_TRUE(back) << back.sentence();
    const ReadArt pictures = read_all_art(back->order, back->art);
    EXPECT_EQ(pictures.art.at(w.id)->facts, shown);
    EXPECT_EQ(content_hash(*back->art.at(find_art(back->order, w.id)->hash)), find_art(back->order, w.id)->hash) << "the file is as it was";
    // on paper and film: no box about the disc
    Drawing page;
    page.width = 60;
    page.height = 60;
    page.marks.emplace_back(ArtMark{w.id, Affine{50, 0, 0, 50, 5, 5}, 1});
    ASSERT_TRUE(write_png(w.data("page.png"), page, pictures.art, 150));
    const test::Canvas seen = test::read_png(w.data("page.png"));
    const auto at = [&](double x, double y) { return int(seen.at(int(x / 25.4 * 150), int(y / 25.4 * 150))[3]); };
    EXPECT_EQ(at(7, 7), 0);
    EXPECT_EQ(at(30, 5 + 25 * shown.aspect), 255);
}

}  // namespace TESTED
}  // namespace orthema
