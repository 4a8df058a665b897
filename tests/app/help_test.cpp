// Finding one's way: what next, the look-up, the keys, the settings, and what is reported when something is wrong.
#include "app/benches/fit/fit_bench.h"
#include "app/session/log.h"
#include "app/widgets/figures.h"
#include "app/window/export_panel.h"
#include "app/window/keys_panel.h"
#include "app/window/look_up.h"
#include "app/window/next_line.h"
#include "app/window/notice_bar.h"
#include "app/window/settings_panel.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::SmallWindow;
using test::Window;

NextLine* next_of(Window& w) { return w.find<NextLine>("What next"); }

/// Types into the look-up and takes what is at the place.
void look_up(Window& w, const QString& typed, int place = 0) {
    w.key(&w.window(), Qt::Key_K, Qt::ControlModifier);
    auto* field = w.find<QLineEdit>("Look up");
    ASSERT_NE(field, nullptr);
    EXPECT_TRUE(field->hasFocus());
    QTest::keyClicks(field, typed);
    for (int i = 0; i < place; ++i) w.key(field, Qt::Key_Down);
    w.key(field, Qt::Key_Return);
    w.wait();
}

TEST(Help, WhatNextLeadsOnAndDoesIt) {
    SmallWindow w(1);
    // nothing lies on film yet
    ASSERT_TRUE(next_of(w)->step());
    EXPECT_EQ(next_of(w)->step()->deed, Deed::settle);
    w.click(next_of(w));
    w.wait();
    EXPECT_EQ(w.window().current(), stage_index("sheets"));
    EXPECT_FALSE(w.order().layouts.empty());
    // an order without lines begins with a list
    w.room().keeper().start_new();
    w.wait();
    EXPECT_EQ(next_of(w)->step()->deed, Deed::list);
    EXPECT_TRUE(next_of(w)->accessibleName().contains("Bring in a list"));
}

TEST(Help, WordsAreLookedUpByTheirBeginnings) {
    EXPECT_TRUE(fitness("ink wi", "Ink width"));
    EXPECT_TRUE(fitness("WIDTH ink", "Ink width"));
    EXPECT_TRUE(fitness("etoile", "Étoile filante"));
    EXPECT_FALSE(fitness("ink height", "Ink width"));
    EXPECT_GT(*fitness("fit", "Fit"), *fitness("fit", "Fit table"));
    EXPECT_GT(*fitness("fit", "Fit table"), *fitness("fit", "Outfit"));
    EXPECT_GT(*fitness("lock", "Lock"), *fitness("lock", "Turn", "lock it"));
    const std::vector<Known> known{{"Outfit", "", "", {}, 9}, {"Fit", "", "", {}, 0}, {"Sheets", "", "", {}, 0}};
    EXPECT_EQ(looked_up("fit", known, 9), (std::vector<std::size_t>{1, 0}));
    EXPECT_EQ(looked_up("", known, 1), (std::vector<std::size_t>{0}));
}

TEST(Help, TheLookUpGoesToBenchFigureDesignSizeAndDeed) {
    SmallWindow w(1);
    look_up(w, "sheets");
    EXPECT_EQ(w.window().current(), stage_index("sheets"));
    // a figure on a page that is not shown
    look_up(w, "rounds down to");
    EXPECT_EQ(w.window().current(), stage_index("fit"));
    ASSERT_NE(QApplication::focusWidget(), nullptr);
    EXPECT_EQ(QApplication::focusWidget()->accessibleName(), "Rounds down to");
    look_up(w, "grows with length");
    EXPECT_TRUE(QApplication::focusWidget()->isVisible());
    // a size
    look_up(w, "adult tee ash 3xl");
    EXPECT_EQ(w.room().selection().size, "3XL");
    // a design, from another bench
    w.go(1);
    look_up(w, QString::fromStdString(w.order().decorations[0].name) + " on");
    EXPECT_EQ(w.window().current(), stage_index("fit"));
    EXPECT_EQ(w.room().selection().decoration, w.order().decorations[0].id);
    // a deed of the window itself
    const Order before = w.order();
    Order next = before;
    next.name = "Another";
    w.room().edit("name", next);
    look_up(w, "undo");
    EXPECT_EQ(w.order().name, before.name);
    // nothing of that name, and Escape gives the keys back
    w.key(&w.window(), Qt::Key_K, Qt::ControlModifier);
    auto* field = w.find<QLineEdit>("Look up");
    QTest::keyClicks(field, "zzzz");
    w.key(field, Qt::Key_Return);
    EXPECT_TRUE(field->isVisible());
    w.key(field, Qt::Key_Escape);
    EXPECT_FALSE(field->isVisible());
}

TEST(Help, EveryPartThatIsOfferedIsShownOrSaysThatItIsNot) {
    SmallWindow w(1);
    for (int stage = 1; stage <= 8; ++stage) w.go(stage);
    w.key(&w.window(), Qt::Key_K, Qt::ControlModifier);
    auto* panel = w.window().findChild<LookUp*>();
    ASSERT_NE(panel, nullptr);
    const std::vector<Known> known = panel->all();
    w.key(panel->field(), Qt::Key_Escape);
    const Order before = w.order();
    int shown = 0, parts = 0, seen = 0;
    for (const Known& k : known) {
        const bool of_bench = std::any_of(stages().begin(), stages().end(), [&](const Stage& s) { return k.where.startsWith(s.name); });
        if (!of_bench || k.text.endsWith("…")) continue;
        if (++seen % test::rounds(12, 1) != 0) continue;
        ++parts;
        w.window().notices()->hide();
        k.go();
        QCoreApplication::processEvents();
        const QWidget* has = QApplication::focusWidget();
        if (has != nullptr && (has->accessibleName().contains(k.text) || (qobject_cast<const QAbstractButton*>(has) != nullptr &&
                                                                          static_cast<const QAbstractButton*>(has)->text() == k.text)))
            ++shown;
    }
    EXPECT_EQ(w.order(), before) << "looking for things changed the order";
    EXPECT_GT(parts, 30);
    EXPECT_GT(shown, parts / 2);
    std::cout << shown << " of " << parts << " parts are there for this order\n";
}

TEST(Help, EveryKeyIsInTheOverview) {
    SmallWindow w(1);
    for (int stage = 1; stage <= 8; ++stage) w.go(stage);
    QString said;
    for (const KeySaid& k : all_keys()) said += ' ' + k.keys + ' ' + k.what + ' ';
    std::set<QString> keys;
    for (const QShortcut* s : w.window().findChildren<QShortcut*>()) keys.insert(s->key().toString());
    for (const QAction* a : w.window().actions())
        if (!a->shortcut().isEmpty()) keys.insert(a->shortcut().toString());
    EXPECT_GE(keys.size(), 20u);
    for (QString key : keys) {
        if (key.startsWith("Ctrl+") && key.size() == 6 && key[5] >= '1' && key[5] <= '8') key = "Ctrl+1 … Ctrl+8";
        if (key == "Return") key = "Enter";
        EXPECT_TRUE(said.contains(key)) << key.toStdString() << " is not in the overview";
    }
    w.go(4);
    w.key(&w.window(), Qt::Key_Question);
    auto* panel = w.find<KeysPanel>("KeysPanel");
    ASSERT_NE(panel, nullptr);
    for (const QLabel* l : panel->findChildren<QLabel*>())
        EXPECT_TRUE(panel->rect().contains(l->geometry().translated(l->parentWidget()->mapTo(panel, QPoint()))));
    w.key(panel, Qt::Key_Escape);
    EXPECT_FALSE(panel->isVisible());
    // in a field it is a letter
    auto* field = w.find<QLineEdit>("Ink width");
    field->setFocus();
    QTest::keyClicks(field, "?");
    EXPECT_FALSE(panel->isVisible());
}

TEST(Help, SettingsAreKeptAndANewOrderBeginsAsIsLiked) {
    Window w;
    w.key(&w.window(), Qt::Key_Comma, Qt::ControlModifier);
    auto* panel = w.find<SettingsPanel>("SettingsPanel");
    ASSERT_NE(panel, nullptr);
    w.click(w.find<QPushButton>("Lengths in/inches"));
    w.click(w.find<QPushButton>("Paper of the office/letter"));
    w.click(w.find<QPushButton>("Heat in/°F"));
    w.type(panel->findChild<QLineEdit*>("Prices in"), "EUR");
    w.type(panel->findChild<QLineEdit*>("An hour costs"), "31.5");
    auto* medium = w.find<QComboBox>("Film or paper");
    const int other = medium->count() - 1;
    w.choose(medium, medium->itemText(other));
    emit medium->activated(other);
    // what is typed above leaves the rows with it
    QTest::keyClicks(w.find<QLineEdit>("Find a setting"), "glid");
    EXPECT_FALSE(panel->findChild<QWidget*>("Prices in")->isVisible());
    w.click(w.find<QCheckBox>("Nothing glides"));
    w.key(panel, Qt::Key_Escape);
    EXPECT_FALSE(panel->isVisible());
    w.close();
    Window again(&w);
    again.wait();
    const Order& order = again.order();
    EXPECT_EQ(order.unit, Unit::inch);
    EXPECT_EQ(order.paper, Paper::letter);
    EXPECT_TRUE(order.press_run.fahrenheit);
    EXPECT_EQ(order.currency, "EUR");
    EXPECT_DOUBLE_EQ(order.hourly, 31.5);
    EXPECT_EQ(order.media[0].id, again.room().settings().liked().medium);
    EXPECT_TRUE(again.room().settings().liked().quiet);
    // a file that is none is as if there were none
    test::spill(w.data("settings.ini"), std::string("\x00\xff[[[", 5) + "order/hour=nonsense\nwindow\\size=-7");
    const Settings odd(QString::fromStdString(w.data("settings.ini")), QString::fromStdString(w.data("orthema.ini")));
    EXPECT_EQ(odd.liked().size_percent, 100);
}

TEST(Help, AnOrderIsComeBackToWhereItWasLeft) {
    SmallWindow w(1);
    Selection s = w.room().selection();
    s.size = "XL";
    w.room().select(s);
    w.go(4);
    w.window().resize(1100, 720);
    w.close();
    Window again(&w);
    EXPECT_EQ(again.window().size(), QSize(1100, 720));
    again.open(w.data("small.orthema"));
    EXPECT_EQ(again.window().current(), stage_index("fit"));
    EXPECT_EQ(again.room().selection().size, "XL");
}

TEST(Help, AnExportIsAsItWasLast) {
    SmallWindow w(1);
    const std::string folder = w.data("somewhere");
    for (const bool again : {false, true}) {
        auto* panel = w.window().show_export();
        auto* into = panel->findChild<QLineEdit*>("Folder");
        auto* tiff = panel->findChild<QCheckBox*>("Gang sheets as TIFF with alpha");
        ASSERT_TRUE(into != nullptr && tiff != nullptr);
        EXPECT_EQ(tiff->isChecked(), again);
        EXPECT_EQ(into->text() == QString::fromStdString(folder), again);
        for (QCheckBox* tick : panel->findChildren<QCheckBox*>()) tick->setChecked(tick == tiff || tick->text().contains("CSV"));
        w.type(into, QString::fromStdString(folder));
        w.click(panel->findChild<QPushButton*>("Write the files"));
        w.wait();
        panel->close();
    }
    EXPECT_TRUE(std::filesystem::exists(folder));
}

TEST(Help, AReportHoldsNothingOfTheOrder) {
    SmallWindow w(1);
    const test::Folder folder;
    begin_log(QString::fromStdString(folder.path()));
    log_workroom(w.room());
    w.room().notices().complain(
        QStringLiteral("“Secret name” could not be written to /home/somebody/My orders/secret.orthema: the disk is full."));
    w.room().keeper().open("/nowhere/at all/secret.orthema");
    w.wait();
    for (QAction* a : w.window().actions())
        if (a->text() == "Copy what to report") a->trigger();
    const std::string text = QGuiApplication::clipboard()->text().toStdString();
    EXPECT_NE(text.find("Orthema "), std::string::npos);
    EXPECT_NE(text.find("could not be written"), std::string::npos);
    EXPECT_NE(text.find("sheet-empty"), std::string::npos) << text;
    std::vector<std::string> secrets{"ecret", "somebody", "nowhere", w.data("")};
    for (const Art& a : w.order().art) secrets.push_back(a.name);
    for (const BlankStyle& b : w.order().styles) secrets.push_back(b.name);
    for (const std::string& secret : secrets) EXPECT_EQ(text.find(secret), std::string::npos) << secret << " in\n" << text;
}

}  // namespace TESTED
}  // namespace orthema
