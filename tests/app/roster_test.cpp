// A team from the window: persons pasted and typed, letterings set, put on, looked at person by person, settled, saved and opened again.
#include <QClipboard>
#include <QTableWidget>

#include "app/benches/art/art_bench.h"
#include "app/benches/fit/fit_bench.h"
#include "app/benches/order/order_bench.h"
#include "app/benches/order/roster_view.h"
#include "app/benches/press/press_bench.h"
#include "app/widgets/figures.h"
#include "core/order/edit.h"
#include "core/order/roster.h"
#include "files/lettering.h"
#include "files/order_file.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::SmallWindow;

struct TeamWindow : SmallWindow {
    RunKey ash{"adult-tee", "ash"};
    TeamWindow() : SmallWindow(1) {
        Order next = order();
        next.lines.clear();
        next.decorations.clear();
        next.rules.clear();
        next = with_quantity(with_quantity(next, ash, "M", 3), ash, "L", 1);
        room().edit("a team", next);
        wait();
        click(find<QPushButton>("Seen/by person"));
    }
    RosterView* roster() { return bench<OrderBench>("order")->roster(); }
    /// Types into a cell as a hand does.
    void cell(int row, int column, const QString& text) {
        QTableWidget* grid = roster()->grid();
        grid->setCurrentCell(row, column);
        QTest::keyClick(grid, Qt::Key_F2);
        auto* editor = grid->findChild<QLineEdit*>();
        ASSERT_NE(editor, nullptr);
        editor->selectAll();
        QTest::keyClicks(editor, text);
        QTest::keyClick(editor, Qt::Key_Return);
        wait();
    }
    /// "number name size" of every piece.
    std::multiset<std::string> persons() const {
        std::multiset<std::string> out;
        for (const OrderLine& l : order().lines)
            for (int i = 0; i < l.quantity; ++i) out.insert(person_text(l) + " " + l.size);
        return out;
    }
    const Lettering& lettering() const { return *order().art.back().lettering; }
};

TEST(Roster, PersonsArePastedAndTypedAndUndone) {
    TeamWindow w;
    QApplication::clipboard()->setText("Kestrel\t7\tM\nWren\t12\tM\nNobody at all\t\tXS\n");
    w.roster()->grid()->setFocus();
    QTest::keyClick(w.roster()->grid(), Qt::Key_V, Qt::ControlModifier);
    w.wait();
    EXPECT_EQ(w.persons(), (std::multiset<std::string>{"7 Kestrel M", "12 Wren M", " M", " L", "Nobody at all XS"}));
    ASSERT_EQ(w.roster()->grid()->rowCount(), 5);
    EXPECT_EQ(w.roster()->grid()->item(0, 0)->text(), "XS") << "in the order of the sizes";
    // typed: the nameless M is somebody's, then in another size
    w.cell(3, 3, "Ives");
    w.cell(3, 2, "12");
    EXPECT_TRUE(w.persons().contains("12 Ives M"));
    const auto twice = [&] {
        const auto findings = w.room().findings();
        return std::any_of(findings.begin(), findings.end(), [](const Finding& f) { return f.code == "roster-twice"; });
    };
    EXPECT_TRUE(twice());
    EXPECT_TRUE(w.roster()->grid()->item(3, 2)->foreground().color().red() > 100) << "a number that stands twice is marked";
    w.cell(3, 2, "13");
    EXPECT_FALSE(twice());
    w.cell(3, 0, "3XL");
    EXPECT_TRUE(w.persons().contains("13 Ives 3XL"));
    w.cell(4, 0, "no size");
    EXPECT_NE(w.notice().find("no size"), std::string::npos) << w.notice();
    EXPECT_TRUE(w.persons().contains("13 Ives 3XL"));
    for (int i = 0; i < 5; ++i) w.undo();
    EXPECT_EQ(w.persons(), (std::multiset<std::string>{" M", " M", " M", " L"}));
}

TEST(Roster, ALetteringIsSetPutOnLookedAtSettledSavedAndOpened) {
    TeamWindow w;
    w.roster()->take_text("Kestrel;7;M\nFeatherstonehaugh;12;M\nØrn;1;M\nIves;88;L");
    w.wait();
    w.go(3);
    w.click(w.find<QPushButton>("Add a lettering"));
    w.wait();
    ASSERT_TRUE(w.order().art.back().lettering);
    const std::string id = w.order().art.back().id;
    for (const OrderLine& l : w.order().lines) EXPECT_TRUE(w.room().art().contains(word_art(id, l.name))) << l.name;
    // its figures
    w.type(w.find<LengthField>("Letter height"), "60");
    w.wait();
    EXPECT_NEAR(w.lettering().height, 60.0 / 280, 1e-6);
    w.choose(w.find<QComboBox>("Outline"), "brick");
    w.wait();
    ASSERT_EQ(w.lettering().rims.size(), 1u);
    const double before = w.room().facts().at(word_art(id, "Ives")).lettered->in_field.height();
    w.type(w.find<LengthField>("Outline's width"), "6");
    w.wait();
    EXPECT_GT(w.room().facts().at(word_art(id, "Ives")).lettered->in_field.height(), before);
    w.click(w.find<QPushButton>("Words/number"));
    w.wait();
    EXPECT_TRUE(w.room().art().contains(word_art(id, "88")));
    EXPECT_FALSE(w.room().art().contains(word_art(id, "Ives"))) << "what nobody wears is forgotten";
    w.undo();
    w.wait();
    EXPECT_TRUE(w.room().art().contains(word_art(id, "Ives")));
    // on the garment
    w.choose(w.find<QComboBox>("Location"), QString::fromLatin1(location_name(Location::full_back)));
    w.click(w.find<QPushButton>("Put it on"));
    w.wait();
    ASSERT_EQ(w.order().decorations.size(), 1u);
    const DecorationFit& fit = w.room().plan().decorations.front();
    EXPECT_EQ(word_in(find_size(fit, "M")->word), "Featherstonehaugh") << "the hardest first";
    w.click(w.find<QPushButton>(QStringLiteral("next ›")));
    EXPECT_EQ(w.order().lines.all()[std::size_t(w.room().selection().person)].name, "Featherstonehaugh");
    w.click(w.find<QPushButton>(QStringLiteral("next ›")));
    const OrderLine& shown = w.order().lines.all()[std::size_t(w.room().selection().person)];
    EXPECT_EQ(shown.name, "Kestrel");
    EXPECT_EQ(w.room().selection().size, "M");
    // every garment's own piece, settled
    const TransferSet& set = w.room().transfer_set();
    EXPECT_EQ(set.transfers.size(), 4u);
    w.go(5);
    w.room().settler().settle_all(1);
    w.wait();
    std::set<std::string> laid;
    for (const MediumPlan& m : w.room().work().sheet_plan().media)
        for (const Sheet& s : m.sheets)
            for (const PlacedCopy& c : s.copies) laid.insert(word_in(find_transfer(set, c.transfer)->art));
    EXPECT_EQ(laid, (std::set<std::string>{"Kestrel", "Featherstonehaugh", "Ørn", "Ives"}));
    // one more jersey, one more name: its piece comes by itself
    const std::string file = w.data("team.orthema");
    w.room().keeper().save(QString::fromStdString(file));
    w.wait();
    const Order saved = w.order();
    w.open(file);
    w.wait();
    EXPECT_EQ(w.order(), saved);
    EXPECT_TRUE(w.room().art().contains(word_art(id, "Kestrel")));
    w.room().edit("late", with_person(with_quantity(w.order(), w.ash, "L", 2), w.order().lines.size(), "Late", "99"));
    w.wait();
    EXPECT_TRUE(w.room().art().contains(word_art(id, "Late")));
    EXPECT_EQ(w.room().transfer_set().transfers.size(), 5u);
}

TEST(Roster, ATypefaceThatIsDroppedBecomesALettering) {
    TeamWindow w;
    const std::string face = w.data("Hill Race.otf");
    test::spill(face, *shipped_typefaces()[0].file);
    test::spill(w.data("broken.ttf"), std::string("\0\1\0\0 nothing", 12));
    const std::size_t before = w.order().art.size();
    w.go(3);
    w.drop({face});
    w.wait();
    ASSERT_EQ(w.order().art.size(), before + 1);
    EXPECT_EQ(w.lettering().typeface, "Hill Race");
    EXPECT_TRUE(w.room().art().contains(word_art(w.order().art.back().id, "Name"))) << "where nobody is named, a sample";
    w.drop({w.data("broken.ttf")});
    w.wait();
    EXPECT_EQ(w.order().art.size(), before + 1);
    EXPECT_NE(w.notice().find("broken.ttf"), std::string::npos) << w.notice();
}

}  // namespace TESTED
}  // namespace orthema
