// Without eyes or without a mouse: the drawn views as lists that are walked through the accessibility interface, names and roles on
// every bench, the order of the keys, and colours that can be read.
#include <QAccessible>

#include "app/benches/blanks/blanks_bench.h"
#include "app/benches/blanks/tape_drawing.h"
#include "app/benches/fit/fit_bench.h"
#include "app/benches/fit/fit_wall.h"
#include "app/benches/order/order_bench.h"
#include "app/benches/order/run_picture.h"
#include "app/benches/press/lanes_view.h"
#include "app/benches/press/press_bench.h"
#include "app/benches/press/step_card.h"
#include "app/benches/records/plot_view.h"
#include "app/benches/records/records_bench.h"
#include "app/benches/sheets/ribbon.h"
#include "app/benches/sheets/sheets_bench.h"
#include "app/widgets/figures.h"
#include "core/drawing/drawing.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::Window;

QAccessibleInterface* heard(QWidget* widget) { return QAccessible::queryAccessibleInterface(widget); }

/// Walks a drawn view: every item has a name and a place on it, is found again where it lies, and knows its parent.
std::vector<QString> walked(Canvas& canvas) {
    std::vector<QString> names;
    QAccessibleInterface* list = heard(&canvas);
    EXPECT_EQ(list->role(), QAccessible::List);
    for (int i = 0; i < list->childCount(); ++i) {
        QAccessibleInterface* item = list->child(i);
        if (item == nullptr) {
            ADD_FAILURE() << "no item " << i;
            continue;
        }
        EXPECT_EQ(list->indexOfChild(item), i);
        EXPECT_EQ(item->parent(), list);
        EXPECT_TRUE(item->isValid());
        EXPECT_FALSE(item->text(QAccessible::Name).isEmpty()) << i;
        names.push_back(item->text(QAccessible::Name));
    }
    return names;
}

/// Chooses an item as a screen reader does.
void press(Canvas& canvas, int index) {
    QAccessibleInterface* item = heard(&canvas)->child(index);
    ASSERT_NE(item, nullptr);
    ASSERT_NE(item->actionInterface(), nullptr);
    item->actionInterface()->doAction(QAccessibleActionInterface::pressAction());
}

TEST(Access, TheDrawnViewsAreListsThatAreWalkedAndChosenFrom) {
    Window w;
    w.open(test::source("demo/marrow-hill"));
    w.go(1);
    auto* run = w.bench<OrderBench>("order")->picture();
    std::vector<QString> names = walked(*run);
    int garments = 0;
    for (const QString& n : names) garments += n.section(": ", -1).section(' ', 0, 0).toInt();
    EXPECT_EQ(garments, garments_in(w.order())) << "what is heard adds up to the order";
    press(*run, 3);
    EXPECT_TRUE(names[3].contains(QString::fromStdString(w.room().selection().size)));

    w.go(2);
    auto* tape = w.bench<BlanksBench>("blanks")->drawing();
    names = walked(*tape);
    EXPECT_GE(names.size(), 5u);
    press(*tape, 2);
    EXPECT_TRUE(names[2].startsWith(measure_name(*tape->chosen())));

    w.go(4);
    FitWall* wall = w.bench<FitBench>("fit")->wall();
    names = walked(*wall);
    ASSERT_EQ(names.size(), wall->wall().stands.size());
    QAccessibleInterface* list = heard(wall);
    for (int i = 0; i < list->childCount(); ++i)
        EXPECT_EQ(list->childAt(list->child(i)->rect().center().x(), list->child(i)->rect().center().y()), list->child(i));
    // by the keys: what has them is what is chosen
    press(*wall, 1);
    wall->setFocus();
    ASSERT_TRUE(wall->hasFocus());
    w.key(wall, Qt::Key_PageDown);
    EXPECT_EQ(list->focusChild(), list->child(2));
    EXPECT_TRUE(list->child(2)->state().selected);
    EXPECT_FALSE(list->child(1)->state().selected);

    w.go(5);
    Ribbon* ribbon = w.bench<SheetsBench>("sheets")->ribbon();
    names = walked(*ribbon);
    ASSERT_GT(names.size(), 10u);
    press(*ribbon, 7);
    EXPECT_EQ(ribbon->chosen(), 7);

    w.go(7);
    LanesView* lanes = w.bench<PressBench>("press")->lanes();
    names = walked(*lanes);
    ASSERT_EQ(names.size(), w.room().press_plan().loads.size());
    press(*lanes, 4);
    EXPECT_EQ(lanes->chosen(), 4);

    w.go(8);
    w.wait();
    PlotView* target = w.bench<RecordsBench>("records")->plot();
    QTRY_VERIFY(!target->dots().empty());
    names = walked(*target);
    const int first_dot = int(names.size() - target->dots().size());
    EXPECT_TRUE(names[std::size_t(first_dot)].contains("202"));
    press(*target, first_dot);
    EXPECT_TRUE(heard(target)->child(first_dot)->state().selected);
}

TEST(Access, EveryPartOfEveryBenchHasANameAndARole) {
    Window w;
    w.open(test::source("demo/marrow-hill"));
    int parts = 0;
    for (int stage = 1; stage <= 8; ++stage) {
        w.go(stage);
        for (QWidget* part : w.window().findChildren<QWidget*>()) {
            if (!part->isVisible() || part->focusPolicy() == Qt::NoFocus || part->objectName().startsWith("qt_")) continue;
            if (qobject_cast<QScrollBar*>(part) != nullptr) continue;
            QAccessibleInterface* a = heard(part);
            ASSERT_NE(a, nullptr);
            EXPECT_NE(a->role(), QAccessible::NoRole) << part->objectName().toStdString();
            const bool area = qobject_cast<QScrollArea*>(part) != nullptr;
            if (!area)
                EXPECT_FALSE(a->text(QAccessible::Name).isEmpty())
                    << stage << " " << part->metaObject()->className() << " " << part->objectName().toStdString();
            ++parts;
        }
    }
    EXPECT_GT(parts, 150);
}

TEST(Access, TabGoesThroughTheFiguresAsTheyStand) {
    Window w;
    w.open(test::source("demo/marrow-hill"));
    for (int stage = 1; stage <= 8; ++stage) {
        w.go(stage);
        QWidget* figures = w.window().bench(QString::fromLatin1(stages()[std::size_t(stage - 1)].key))->figures();
        std::vector<QWidget*> order;
        QWidget* at = figures;
        do {
            at = at->nextInFocusChain();
            if (at->isVisible() && at->isEnabled() && (at->focusPolicy() & Qt::TabFocus) != 0 && figures->isAncestorOf(at) &&
                qobject_cast<QScrollArea*>(at) == nullptr)
                order.push_back(at);
        } while (at != figures);
        for (std::size_t i = 1; i < order.size(); ++i) {
            const QPoint a = order[i - 1]->mapTo(figures, QPoint(0, 0)), b = order[i]->mapTo(figures, QPoint(0, 0));
            const bool on = b.y() > a.y() - 6;
            EXPECT_TRUE(on) << "bench " << stage << ": from " << order[i - 1]->accessibleName().toStdString() << " (" << a.y() << ") up to "
                            << order[i]->accessibleName().toStdString() << " (" << b.y() << ")";
        }
    }
}

/// As the guidelines for reading on screens have it: lightness by the eye, the lighter over the darker.
double contrast(Colour a, Colour b) {
    const auto light = [](Colour c) {
        const auto lin = [](double v) { return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
        return 0.2126 * lin(c.r) + 0.7152 * lin(c.g) + 0.0722 * lin(c.b);
    };
    const double x = light(a) + 0.05, y = light(b) + 0.05;
    return std::max(x, y) / std::min(x, y);
}

TEST(Access, TheStepCardIsReadInTheDark) {
    Window w;
    w.open(test::source("demo/neighbours/quay-bakery.orthema"));
    Liked liked = w.room().settings().liked();
    liked.dark_card = true;
    EXPECT_FALSE(w.room().settings().like(liked));
    w.go(7);
    w.wait();
    w.click(w.find<QPushButton>("Begin the shift"));
    w.wait();
    StepCard* card = w.bench<PressBench>("press")->card();
    ASSERT_TRUE(card->isVisible());
    const Drawing d = card->shown();
    const auto* ground = std::get_if<PathMark>(&d.marks.front());
    ASSERT_TRUE(ground != nullptr && ground->fill);
    EXPECT_LT(ground->fill->g, 0.2);
    int words = 0;
    for (const Mark& m : d.marks)
        if (const auto* t = std::get_if<TextMark>(&m); t != nullptr && t->at.x < 0.5 * card->width()) {
            EXPECT_GE(contrast(t->colour, *ground->fill), 4.5) << t->text;
            ++words;
        }
    EXPECT_GT(words, 4);
}

TEST(Access, WordsStandOutFromWhatTheyStandOn) {
    using namespace palette;
    for (const Colour& ground : {paper, light, white})
        for (const Colour& words : {ink, quiet, brick_text, verdigris_text, ochre_text, carmine}) EXPECT_GE(contrast(words, ground), 4.5);
    for (const Colour& ground : {verdigris, ink, carmine}) EXPECT_GE(contrast(white, ground), 4.5);
    // marks that are no words
    for (const Colour& mark : {verdigris, brick, moss, plum, carmine}) EXPECT_GE(contrast(mark, paper), 3.0);
    // every word that is drawn, on the plate or band that it stands on, at any size
    Window w;
    w.open(test::source("demo/marrow-hill"));
    for (int stage = 1; stage <= 8; ++stage) {
        w.go(stage);
        for (Canvas* c : w.window().findChildren<Canvas*>()) {
            if (!c->isVisible()) continue;
            for (const Mark& m : c->shown().marks)
                if (const auto* t = std::get_if<TextMark>(&m); t != nullptr && t->colour.a > 0.9)
                    EXPECT_TRUE(contrast(t->colour, white) >= 4.5 || contrast(t->colour, ink) >= 4.5 ||
                                contrast(t->colour, verdigris) >= 4.5)
                        << stage << ": " << t->text << " " << t->colour.r << " " << t->colour.g << " " << t->colour.b;
        }
    }
}

}  // namespace TESTED
}  // namespace orthema
