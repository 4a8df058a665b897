// The pieces that panels are made of, and the export panel.
#include "app/widgets/chips.h"
#include "app/window/export_panel.h"
#include "app/widgets/figures.h"
#include "app/widgets/wrapped_label.h"
#include "app/window/notice_bar.h"
#include "files/order_file.h"
#include "window.h"

#include <QHelpEvent>
#include <QToolTip>

namespace orthema {
namespace TESTED {

using namespace app;
using test::Window;

struct Field {
    QWidget host;
    LengthField* field = new LengthField("Width", &host);
    std::vector<double> taken;
    bool ctrl = false;
    Field() {
        field->entered = [this](Length l, bool with_ctrl) -> std::optional<QString> {
            if (l.mm() > 500) return QStringLiteral("Too wide.");
            taken.push_back(l.mm());
            ctrl = with_ctrl;
            return std::nullopt;
        };
        host.show();
        host.activateWindow();
        EXPECT_TRUE(QTest::qWaitForWindowActive(&host));
        field->setFocus();
        field->show_length(Length::from_mm(120), Unit::mm);
    }
    void type(const char* text) {
        field->selectAll();
        QTest::keyClicks(field, text);
    }
};

TEST(LengthField, TakesWhatIsTypedOnEnterOnlyOnce) {
    Field f;
    f.type("12.5cm");
    EXPECT_TRUE(f.taken.empty());
    QTest::keyClick(f.field, Qt::Key_Return);
    QTest::keyClick(f.field, Qt::Key_Return);
    EXPECT_EQ(f.taken, (std::vector<double>{125}));
    EXPECT_FALSE(f.ctrl);
    QTest::keyClick(f.field, Qt::Key_Return, Qt::ControlModifier);
    EXPECT_TRUE(f.ctrl) << "Ctrl asks again, for this size alone";
}

TEST(WrappedLabel, IsAsHighAsAnyLabelWhateverChanges) {
    QWidget host;
    auto* known = new WrappedLabel("", &host);
    auto* other = new QLabel(&host);
    other->setWordWrap(true);
    const auto alike = [&](const char* what) {
        for (int width = 40; width < 400; width += 30)  // more widths than are remembered
            for (int again = 0; again < 2; ++again) EXPECT_EQ(known->heightForWidth(width), other->heightForWidth(width)) << what;
    };
    const auto both = [&](const char* what, const std::function<void(QLabel&)>& change) {
        change(*known);
        change(*other);
        other->ensurePolished();
        alike(what);
    };
    both("text", [](QLabel& l) { l.setText("Collar to ink is measured from the seam, not from the rib's edge."); });
    const int plain = known->heightForWidth(160);
    both("type", [](QLabel& l) {
        QFont large = l.font();
        large.setPixelSize(26);
        l.setFont(large);
    });
    EXPECT_GT(known->heightForWidth(160), plain);
    both("style", [](QLabel& l) { l.setStyleSheet("font-size: 31px; padding: 5px;"); });
    both("margins", [](QLabel& l) { l.setContentsMargins(9, 9, 9, 30); });
    both("lines", [](QLabel& l) { l.setText("<b>one</b><br>two<br>three"); });
}

TEST(LengthField, KeepsWhatCannotBeReadAndSaysWhy) {
    Field f;
    for (const char* bad : {"wide", "900"}) {
        f.type(bad);
        QTest::keyClick(f.field, Qt::Key_Return);
        EXPECT_EQ(f.field->text(), bad);
        EXPECT_TRUE(f.field->property("wrong").toBool());
        EXPECT_FALSE(f.field->toolTip().isEmpty());
    }
    EXPECT_TRUE(f.taken.empty());
    f.field->show_length(Length::from_mm(120), Unit::mm);
    EXPECT_EQ(f.field->text(), "900") << "what is being typed is not overwritten";
    f.type("80");
    QTest::keyClick(f.field, Qt::Key_Return);
    EXPECT_EQ(f.taken, (std::vector<double>{80}));
    EXPECT_FALSE(f.field->property("wrong").toBool());
}

TEST(LengthField, EscapeTakesTypingBack) {
    Field f;
    f.type("77");
    QTest::keyClick(f.field, Qt::Key_Escape);
    EXPECT_EQ(f.field->text(), "120");
    EXPECT_TRUE(f.taken.empty());
}

TEST(LengthField, ReadsBareNumbersInTheUnitThatIsShown) {
    Field f;
    f.field->show_length(Length::from_mm(50.8), Unit::inch);
    EXPECT_EQ(f.field->text(), "2");
    f.type("3 1/2");
    QTest::keyClick(f.field, Qt::Key_Return);
    ASSERT_EQ(f.taken.size(), 1u);
    EXPECT_NEAR(f.taken[0], 88.9, 1e-9);
}

TEST(Chips, WrapAndAreWalkedWithArrows) {
    ChipRow row("Sizes");
    std::vector<Chip> chips;
    for (int i = 0; i < 12; ++i)
        chips.push_back({"s" + std::to_string(i), QStringLiteral("Size %1").arg(i), QStringLiteral("published"), Standing::settled});
    std::string chosen = "s0";
    row.chosen = [&](const std::string& id) {
        chosen = id;
        row.show_chips(chips, id);
    };
    row.resize(300, 40);
    row.show();
    row.show_chips(chips, chosen);
    EXPECT_GT(row.height(), 80) << "they do not fit one line";
    for (int i = 0; i < 12; ++i) {
        const QRect at = row.chip("s" + std::to_string(i))->geometry();
        EXPECT_LE(at.right(), 300);
        for (int j = 0; j < i; ++j) EXPECT_FALSE(at.intersects(row.chip("s" + std::to_string(j))->geometry()));
    }
    QTest::keyClick(&row, Qt::Key_Right);
    QTest::keyClick(&row, Qt::Key_Right);
    EXPECT_EQ(chosen, "s2");
    QTest::keyClick(&row, Qt::Key_Left);
    EXPECT_EQ(chosen, "s1");
    QTest::mouseClick(row.chip("s9"), Qt::LeftButton);
    EXPECT_EQ(chosen, "s9");
    // folded to one row, it is the one with the chosen; the others come back with a click
    row.fold(1);
    row.show_chips(chips, "s0");
    EXPECT_LT(row.height(), 60);
    EXPECT_TRUE(row.chip("s0")->isVisible());
    EXPECT_FALSE(row.chip("s11")->isVisible());
    row.show_chips(chips, "s10");
    EXPECT_TRUE(row.chip("s10")->isVisible());
    EXPECT_FALSE(row.chip("s0")->isVisible());
    auto* all = row.findChild<QPushButton*>("Sizes, all");
    EXPECT_EQ(all->text(), "all 12");
    for (int i = 0; i < 12; ++i)
        if (row.chip("s" + std::to_string(i))->isVisible())
            EXPECT_FALSE(row.chip("s" + std::to_string(i))->geometry().intersects(all->geometry())) << i;
    QTest::mouseClick(all, Qt::LeftButton);
    EXPECT_TRUE(row.chip("s0")->isVisible() && row.chip("s11")->isVisible());
    EXPECT_GT(row.height(), 80);
    chips.resize(3);
    row.show_chips(chips, "s0");
    EXPECT_FALSE(all->isVisible()) << "three fit one row";
    EXPECT_EQ(row.chip("s9"), nullptr);
    EXPECT_TRUE(row.chip("s0")->accessibleName().contains("chosen"));
}

TEST(Notices, WaitBehindOneAnotherWhileSomethingCanBeDone) {
    NoticeBar bar;
    int done = 0;
    bar.show_notice({QStringLiteral("An order was put aside."), false, QStringLiteral("Bring it back"), [&] { ++done; }});
    bar.show_notice({QStringLiteral("That file is broken."), true, {}, {}});
    EXPECT_EQ(bar.text(), "That file is broken.");
    QTest::mouseClick(bar.findChild<QPushButton*>("Put away"), Qt::LeftButton);
    EXPECT_EQ(bar.text(), "An order was put aside.");
    bar.action()->click();
    EXPECT_EQ(done, 1);
    EXPECT_EQ(bar.text(), "");
}

TEST(ExportPanel, CanBeStoppedAndLeavesOnlyWholeFiles) {
    Window w;
    w.open(test::source("demo/marrow-hill"));
    ExportPanel* panel = w.window().show_export();
    const std::string out = w.data("out");
    w.type(panel->findChild<QLineEdit*>("Folder"), QString::fromStdString(out));
    w.click(panel->findChild<QPushButton*>("Write the files"));
    EXPECT_TRUE(w.room().exporter().running());
    // once the long picture is under way
    QElapsedTimer timer;
    timer.start();
    while (!panel->findChild<QLabel*>("Export says")->text().endsWith(".png") && timer.elapsed() < test::patience_ms)
        QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
    w.click(panel->findChild<QPushButton*>("Stop"));
    w.wait();
    EXPECT_FALSE(w.room().exporter().running());
    EXPECT_TRUE(panel->findChild<QLabel*>("Export says")->text().startsWith("Stopped"))
        << panel->findChild<QLabel*>("Export says")->text().toStdString();
    int files = 0;
    for (const auto& e : std::filesystem::directory_iterator(out)) {
        ++files;
        const std::string kind = e.path().extension().string();
        EXPECT_EQ(kind.find("part"), std::string::npos) << "no half file stays: " << e.path();
        if (kind == ".pdf") EXPECT_EQ(test::run("qpdf --check '" + e.path().string() + "'").code, 0);
        if (kind == ".png") EXPECT_NE(test::slurp(e.path().string()).find("IEND"), std::string::npos) << e.path();
    }
    EXPECT_GT(files, 10) << "lists and guides come first";
    EXPECT_TRUE(panel->findChild<QPushButton*>("Write the files")->isEnabled());
}

TEST(ExportPanel, SaysWhereItCannotWrite) {
    Window w;
    ASSERT_TRUE(save_order(w.data("s.orthema"), test::small_order(), test::small_art()));
    w.open(w.data("s.orthema"));
    ExportPanel* panel = w.window().show_export();
    w.type(panel->findChild<QLineEdit*>("Folder"), "/proc/nowhere");
    w.click(panel->findChild<QPushButton*>("Write the files"));
    w.wait();
    EXPECT_TRUE(panel->findChild<QLabel*>("Export says")->text().contains("cannot be made"));
}

TEST(Findings, ThePanelFoldsThemWorstFirstAndLeadsThere) {
    Window w;
    w.open(test::source("demo/marrow-hill"));
    Order changed = w.order();
    changed.decorations.front().art = "gone";  // a stop
    w.room().edit(QStringLiteral("a picture goes"), changed);
    w.wait();
    w.key(&w.window(), Qt::Key_F7);
    auto* list = w.find<QTreeWidget>("Findings list");
    ASSERT_NE(list, nullptr);
    const Findings& all = w.room().findings();
    std::set<int> said;
    Severity last = Severity::stop;
    for (int i = 0; i < list->topLevelItemCount(); ++i) {
        const auto* item = list->topLevelItem(i);
        const Finding& first = all[std::size_t(item->data(0, Qt::UserRole).toInt())];
        EXPECT_LE(first.severity, last) << "the worst first";
        last = first.severity;
        said.insert(item->data(0, Qt::UserRole).toInt());
        for (int k = 0; k < item->childCount(); ++k) {
            said.insert(item->child(k)->data(0, Qt::UserRole).toInt());
            EXPECT_EQ(all[std::size_t(item->child(k)->data(0, Qt::UserRole).toInt())].code, first.code);
        }
    }
    EXPECT_EQ(said.size(), all.size()) << "nothing is left out";
    EXPECT_LT(list->topLevelItemCount(), int(all.size())) << "like ones are folded";
    // notes are put away as seen, stops are not
    const int rows = list->topLevelItemCount();
    list->selectAll();
    w.click(w.find<QPushButton>("Seen"));
    EXPECT_LT(list->topLevelItemCount(), rows);
    for (int i = 0; i < list->topLevelItemCount(); ++i)
        EXPECT_GT(all[std::size_t(list->topLevelItem(i)->data(0, Qt::UserRole).toInt())].severity, Severity::note);
    w.type(w.find<QLineEdit>("Filter findings"), "half-transparent");
    EXPECT_EQ(list->topLevelItemCount(), 1);
    // Enter leads to what it is about, and the panel is out of the way
    list->setFocus();
    w.key(list, Qt::Key_Return);
    EXPECT_FALSE(list->isVisible());
    EXPECT_EQ(w.window().current(), 2) << "the Art bench";
    EXPECT_EQ(w.room().selection().art, "cloud-kite");
    // F8 goes round those that are not put away
    std::set<QString> met;
    for (int k = 0; k < 12; ++k) {
        w.key(&w.window(), Qt::Key_F8);
        met.insert(w.find<QWidget>("Findings")->accessibleDescription());
    }
    std::size_t open = 0;
    for (const Finding& f : all) open += f.severity > Severity::note ? 1 : 0;
    EXPECT_EQ(met.size(), open);
}

TEST(Push, TheTipSaysAllOfWhatIsCutAndNoMoreOfWhatIsNot) {
    QWidget host;
    QPushButton* b = push(QStringLiteral("XS, body length\nsets the width of its band"), QStringLiteral("It decides a width."));
    b->setParent(&host);
    host.resize(600, 100);
    host.show();
    const auto tip = [&](int width) {
        b->setGeometry(0, 0, width, 50);
        QHelpEvent asked(QEvent::ToolTip, QPoint(5, 5), b->mapToGlobal(QPoint(5, 5)));
        QCoreApplication::sendEvent(b, &asked);
        return QToolTip::text();
    };
    const int longest = b->fontMetrics().horizontalAdvance(QStringLiteral("sets the width of its band"));
    EXPECT_EQ(tip(longest + 40), b->toolTip()) << "each line has room, though both in a row have not";
    EXPECT_EQ(tip(longest - 20), b->text() + "\n" + b->toolTip());
}

}  // namespace TESTED
}  // namespace orthema
