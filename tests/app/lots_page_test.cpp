// One design on many lots, from the window: put on, changed, parted, taken off, kept in the file.
#include <QCheckBox>
#include <QMenu>
#include <QTimer>

#include "app/benches/fit/fit_bench.h"
#include "app/benches/fit/fit_wall.h"
#include "app/benches/fit/lot_ticks.h"
#include "app/benches/fit/lots_page.h"
#include "app/widgets/figures.h"
#include "core/order/rules.h"
#include "files/order_file.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::SmallWindow;

struct LotsWindow : SmallWindow {
    RunKey ash{"adult-tee", "ash"}, navy{"adult-tee", "navy"}, sun{"adult-tank", "sun"}, mug{"mug", "white"};
    LotsWindow() : SmallWindow(3) {
        Order next = order();
        next.decorations.clear();
        for (const RunKey& run : {navy, sun})
            for (const char* size : {"M", "L", "XL"}) next.lines.push_back({run.style, run.colour, size, 4, ""});
        next.lines.push_back({mug.style, mug.colour, "325 ml", 6, ""});
        room().edit("more lots", next);
        wait();
        choose(find<QComboBox>("Location"), QString::fromLatin1(location_name(Location::full_front)));
        click(find<QPushButton>("Put it on all that can take it"));
        wait();
    }
    FitBench* fit() { return bench<FitBench>("fit"); }
    void page(const char* name) { click(find<QPushButton>(QStringLiteral("Figures page/") + QLatin1String(name))); }
    const Decoration* on(const RunKey& run) {
        for (const Decoration& d : order().decorations)
            if (d.run == run) return &d;
        return nullptr;
    }
    void tick(const RunKey& run) {
        click(fit()->lots_page()->ticks(), fit()->lots_page()->ticks()->tick_at(run));
        wait();
    }
};

TEST(LotsPage, OneActionPutsADesignOnAllThatCanTakeIt) {
    LotsWindow w;
    EXPECT_EQ(w.order().rules.size(), 1U);
    EXPECT_EQ(w.order().decorations.size(), 3U);
    EXPECT_EQ(w.on(w.mug), nullptr);
    EXPECT_NE(w.notice().find("has no full front"), std::string::npos) << w.notice();
    EXPECT_EQ(find_size(*find_fit(w.room().plan(), w.on(w.ash)->id), "M")->width,
              find_size(*find_fit(w.room().plan(), w.on(w.navy)->id), "M")->width);
    w.undo();
    EXPECT_TRUE(w.order().decorations.empty());
}

TEST(LotsPage, TicksPutItOnAndTakeItOff) {
    LotsWindow w;
    w.page("Lots");
    w.tick(w.navy);
    EXPECT_EQ(w.on(w.navy), nullptr);
    w.tick(w.mug);
    EXPECT_EQ(w.on(w.mug), nullptr) << "what cannot be is not done";
    w.tick(w.navy);
    ASSERT_NE(w.on(w.navy), nullptr);
    EXPECT_EQ(w.on(w.navy)->rule, w.on(w.ash)->rule);
    // by keys: the caret stands on what was clicked last
    w.key(w.fit()->lots_page()->ticks(), Qt::Key_Space);
    EXPECT_EQ(w.on(w.navy), nullptr);
    w.key(w.fit()->lots_page()->ticks(), Qt::Key_Down);
    w.key(w.fit()->lots_page()->ticks(), Qt::Key_Space);
    EXPECT_EQ(w.on(w.sun), nullptr);
    w.click(w.find<QPushButton>("Same class"));
    w.wait();
    EXPECT_EQ(w.order().decorations.size(), 3U);
    w.undo();
    w.click(w.find<QPushButton>("Same kind"));
    w.wait();
    EXPECT_NE(w.on(w.navy), nullptr);
    EXPECT_EQ(w.on(w.sun), nullptr);
}

TEST(LotsPage, ALotPartsFromTheRuleAndComesBackAndTheFileKeepsIt) {
    LotsWindow w;
    w.page("Lots");
    w.type(w.find<LengthField>("Adult, width"), QStringLiteral("221"));
    w.wait();
    for (const RunKey& run : {w.ash, w.navy, w.sun}) EXPECT_EQ(w.on(run)->sizing.base_width.mm(), 221);
    w.click(w.find<QCheckBox>("Figures of its own on this lot"));
    w.wait();
    ASSERT_TRUE(w.on(w.ash)->departs);
    w.page("Size");
    w.type(w.find<LengthField>("Base width"), QStringLiteral("150"));
    w.wait();
    EXPECT_EQ(w.on(w.ash)->sizing.base_width.mm(), 150);
    EXPECT_EQ(w.on(w.navy)->sizing.base_width.mm(), 221);
    const std::string file = w.data("lots.orthema");
    w.room().keeper().save(QString::fromStdString(file));
    w.wait();
    const auto kept = open_order(file);
    ASSERT_TRUE(kept) << kept.sentence();
    EXPECT_EQ(kept->order.rules, w.order().rules);
    EXPECT_EQ(kept->order.decorations, w.order().decorations);
    w.page("Lots");
    w.click(w.find<QCheckBox>("Figures of its own on this lot"));
    w.wait();
    EXPECT_EQ(w.on(w.ash)->sizing, w.on(w.navy)->sizing);
}

TEST(LotsPage, AllLotsStandOnTheWallAndADragOnAnyMovesAll) {
    LotsWindow w;
    FitWall* wall = w.fit()->wall();
    w.key(wall, Qt::Key_L);
    w.wait();
    wall->repaint();
    ASSERT_EQ(wall->lots().size(), 3U);
    EXPECT_TRUE(w.find<QPushButton>("all lots")->isChecked());
    std::set<int> rows;
    for (const WallSlot& s : wall->wall().stands) rows.insert(s.row);
    EXPECT_EQ(rows.size(), 3U);
    // take hold of the second lot's M
    const std::string navy = w.on(w.navy)->id;
    const WallSlot* slot = nullptr;
    for (const WallSlot& s : wall->wall().stands)
        if (wall->lots()[std::size_t(s.lot)] == navy && slot == nullptr) slot = &s;
    ASSERT_NE(slot, nullptr);
    const Point at = slot->map(find_fit(w.room().plan(), navy)->sizes[0].ink.centre());
    const Length offset = w.on(w.ash)->placing.offset;
    w.drag(wall, QPoint(int(at.x), int(at.y)), QPoint(int(at.x), int(at.y) + 9));
    w.wait();
    EXPECT_EQ(w.room().selection().decoration, navy);
    EXPECT_GT(w.on(w.navy)->placing.offset, offset);
    for (const RunKey& run : {w.ash, w.sun}) EXPECT_EQ(w.on(run)->placing, w.on(w.navy)->placing);
    // Delete takes the chosen design off its lot, and off no other
    w.key(wall, Qt::Key_Delete);
    w.wait();
    EXPECT_EQ(w.on(w.navy), nullptr);
    EXPECT_EQ(w.order().decorations.size(), 2U);
    w.undo();
    EXPECT_NE(w.on(w.navy), nullptr);
}

TEST(LotsPage, TheMenuTakesItOffOneLotOrAll) {
    LotsWindow w;
    QMenu menu;
    w.fit()->lots_page()->fill(menu);
    const auto named = [&](const QString& part) -> QAction* {
        for (QAction* a : menu.actions())
            if (a->text().contains(part)) return a;
        return nullptr;
    };
    ASSERT_NE(named(QStringLiteral("off all 3 lots")), nullptr);
    const RunKey shown = w.room().decoration()->run;
    named(QStringLiteral("off ") + QString::fromStdString(run_name(w.order(), shown)))->trigger();
    w.wait();
    EXPECT_EQ(w.on(shown), nullptr);
    EXPECT_EQ(w.order().decorations.size(), 2U);
    w.undo();
    named(QStringLiteral("off all 3 lots"))->trigger();
    w.wait();
    EXPECT_TRUE(w.order().decorations.empty());
    EXPECT_TRUE(w.order().rules.empty());
}

}  // namespace TESTED
}  // namespace orthema
