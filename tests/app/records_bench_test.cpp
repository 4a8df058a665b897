// Records through mouse and keys: a shift writes what was pressed, measured pieces are typed, a proposal is taken, the next order begins
// with it, and undo takes it back.
#include "app/benches/press/measure_card.h"
#include "app/benches/press/press_bench.h"
#include "app/benches/press/step_card.h"
#include "app/benches/records/plot_view.h"
#include "app/benches/records/records_bench.h"
#include "app/widgets/figures.h"
#include "core/guides/platen_map.h"
#include "devices/hand.h"
#include "files/record_book.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::SmallWindow;
using test::Window;

struct RecordsWindow : SmallWindow {
    RecordsWindow() : SmallWindow(7) {}
    PressBench* press() { return bench<PressBench>("press"); }
    RecordsBench* records() { return bench<RecordsBench>("records"); }
    ShiftRecorder& recorder() { return press()->desk().recorder(); }
    void pieces(int count) {
        Order next = order();
        next.lines.resize(1);
        next.lines[0].quantity = count;
        next.press_run.trials = false;
        room().edit("some", next);
        wait();
    }
    /// Presses space until something is to be measured; false when all is over.
    bool to_a_piece() {
        QElapsedTimer timer;
        timer.start();
        while (timer.elapsed() < 60000 && press()->desk().running()) {
            if (recorder().wanted() != nullptr) return true;
            if (press()->desk().shift().over()) return false;
            key(press()->card(), Qt::Key_Space);
            QTest::qWait(2);
        }
        return false;
    }
    /// Types what a tape reads on a piece that landed so.
    void tape(double aside, double down) {
        const PieceToMeasure now = *recorder().wanted();
        const DecorationFit* fit = find_fit(room().plan(), now.record.design);
        Landing l;
        l.aside = aside;
        l.down = down;
        const Taped read = taped_of(l, *find_size(*fit, now.record.size), now.asks);
        for (const TapeAt at : {TapeAt::top, TapeAt::left, TapeAt::right})
            type(press()->measure()->field(at), QString::number(*read[at], 'f', 1) + " mm");
    }
    const PressRecord* record_of_piece(const std::string& id) {
        for (const PressRecord& r : room().records().all())
            if (r.id == id) return &r;
        return nullptr;
    }
};

/// The platen map's first words that name moved marks.
std::string marks_on_map(Window& w) {
    const Decoration& d = w.order().decorations[0];
    const DecorationFit* fit = find_fit(w.room().plan(), d.id);
    const SizeFit& s = fit->sizes[0];
    const auto map = platen_map(w.order(), d, s, *find_ground(*fit, s.size));
    for (const MapLine& l : map->lines)
        if (l.what.find("moved") != std::string::npos) return l.what;
    return {};
}

int marks_proposed(RecordsWindow& w) {
    return static_cast<int>(std::count_if(w.records()->proposed().begin(), w.records()->proposed().end(),
                                          [](const Correction& c) { return c.kind == CorrectionKind::loading_marks; }));
}

TEST(RecordsBench, AShiftIsRecordedMeasuredProposedTakenAndUndone) {
    RecordsWindow w;
    w.pieces(14);
    ASSERT_TRUE(w.room().records().opened());
    EXPECT_EQ(marks_on_map(w), "");
    w.type(w.find<QLineEdit>("Hands"), "MK");
    w.choose(w.find<QComboBox>("Measured pieces"), "every piece");
    w.press()->desk().begin(600, false);  // presses by hand: nothing of it is rehearsed
    w.click(w.find<QPushButton>("Press view/step card"));
    HandSetup setup;
    setup.seed = 12;
    setup.aside = 6;
    setup.spread = 2;
    Hand hand(setup);
    int typed = 0;
    while (w.to_a_piece()) {
        PressRecord landed = w.recorder().wanted()->record;
        hand.press(landed);
        w.tape(*landed.landing->aside, *landed.landing->down);
        QTRY_VERIFY_WITH_TIMEOUT(w.recorder().wanted() == nullptr || w.recorder().wanted()->record.id != landed.id, 2000);
        const PressRecord* kept = w.record_of_piece(landed.id);
        ASSERT_NE(kept, nullptr);
        ASSERT_TRUE(kept->landing.has_value());
        EXPECT_NEAR(*kept->landing->aside, *landed.landing->aside, 0.11);
        EXPECT_NEAR(*kept->landing->down, *landed.landing->down, 0.11);
        EXPECT_EQ(kept->hands, "MK");
        EXPECT_FALSE(kept->acts.empty());
        ++typed;
    }
    EXPECT_EQ(typed, 14);
    w.press()->desk().end();
    w.wait();

    w.go(8);
    w.wait();
    ASSERT_EQ(w.records()->which().size(), 14u);
    // how long the hand took is the machine's here, and may be proposed too
    ASSERT_EQ(marks_proposed(w), 1);
    const Correction proposal = w.records()->proposed()[0];
    EXPECT_EQ(proposal.kind, CorrectionKind::loading_marks);
    EXPECT_NEAR(proposal.aside, 6, 2);
    // a dot leads to its record
    QTRY_VERIFY(!w.records()->plot()->dots().empty());
    const auto [at, index] = w.records()->plot()->dots()[3];
    w.click(w.records()->plot(), QPoint(int(at.x), int(at.y)));
    w.type(w.find<QLineEdit>("Remark"), "collar was stretched");
    w.wait();
    EXPECT_TRUE(std::any_of(w.room().records().all().begin(), w.room().records().all().end(),
                            [](const PressRecord& r) { return r.remark == "collar was stretched"; }));

    w.click(w.find<QPushButton>("Records view/lessons"));
    w.click(w.find<QPushButton>("Take it"));
    w.wait();
    ASSERT_EQ(w.order().corrections.size(), 1u);
    EXPECT_NE(marks_on_map(w).find("to your right"), std::string::npos);
    EXPECT_EQ(marks_proposed(w), 0);
    ASSERT_EQ(w.room().records().lessons().size(), 1u);
    EXPECT_EQ(w.room().records().lessons()[0].state, LessonState::taken);
    {  // the next order begins with it, in a program that is started anew
        w.room().records().flush();
        Window next(&w);
        next.wait();
        next.room().keeper().start_new();
        ASSERT_EQ(next.order().corrections.size(), 1u);
        EXPECT_EQ(next.order().corrections[0].aside, proposal.aside);
        EXPECT_EQ(next.room().records().all().size(), 14u);
    }
    w.undo();
    w.wait();
    EXPECT_TRUE(w.order().corrections.empty());
    EXPECT_EQ(marks_on_map(w), "");
    EXPECT_EQ(w.room().records().lessons()[0].state, LessonState::taken_back);
    EXPECT_TRUE(w.room().records().standing().empty());
}

TEST(RecordsBench, ARunThatLeavesItsPlaceIsSaidWhileItRuns) {
    RecordsWindow w;
    w.pieces(40);
    w.choose(w.find<QComboBox>("Measured pieces"), "every piece");
    w.press()->desk().begin(600, false);
    w.click(w.find<QPushButton>("Press view/step card"));
    HandSetup setup;
    setup.seed = 5;
    setup.spread = 2;
    setup.slips_at = 16;
    setup.slip = 8;
    Hand hand(setup);
    int typed = 0, said_at = 0;
    while (said_at == 0 && w.to_a_piece()) {
        PressRecord landed = w.recorder().wanted()->record;
        hand.press(landed);
        w.tape(*landed.landing->aside, *landed.landing->down);
        QTRY_VERIFY_WITH_TIMEOUT(w.recorder().wanted() == nullptr || w.recorder().wanted()->record.id != landed.id, 2000);
        ++typed;
        if (!w.recorder().warning().isEmpty()) said_at = typed;
    }
    EXPECT_GT(said_at, 16);
    EXPECT_LE(said_at, 24);
    EXPECT_TRUE(w.find<QLabel>("Run warning")->text().contains("to your right"));
    w.click(w.find<QPushButton>("Looked at it"));
    EXPECT_TRUE(w.recorder().warning().isEmpty());
}

TEST(RecordsBench, ARehearsalShowsTheWholeLoopAndTeachesTheShopNothing) {
    RecordsWindow w;
    w.pieces(12);
    w.choose(w.find<QComboBox>("Measured pieces"), "every piece");
    w.choose(w.find<QComboBox>("Hand"), "lands aside");
    auto* speed = w.find<QComboBox>("Speed");
    speed->addItem("test", "600");
    speed->setCurrentIndex(speed->count() - 1);
    w.click(w.find<QPushButton>("Begin the shift"));
    while (w.to_a_piece()) {
        w.wait();
        const std::string id = w.recorder().wanted()->record.id;
        w.click(w.find<QPushButton>("Keep"));  // what the rehearsal's own tape reads
        QTRY_VERIFY_WITH_TIMEOUT(w.recorder().wanted() == nullptr || w.recorder().wanted()->record.id != id, 2000);
    }
    w.press()->desk().end();
    w.wait();
    w.go(8);
    w.wait();
    EXPECT_TRUE(w.find<QCheckBox>("rehearsals")->isChecked());  // there is nothing else to show
    ASSERT_GE(w.records()->which().size(), 12u);
    ASSERT_FALSE(w.records()->proposed().empty());
    w.click(w.find<QPushButton>("Records view/lessons"));
    w.click(w.find<QPushButton>("Take it"));
    w.wait();
    EXPECT_EQ(w.order().corrections.size(), 1u);
    EXPECT_TRUE(w.room().records().standing().empty());
    w.undo();
    w.click(w.find<QCheckBox>("rehearsals"));
    w.wait();
    EXPECT_TRUE(w.records()->which().empty());
}

TEST(RecordsBench, InALowWindowAPieceIsMeasuredInOneLineAndTheBatchIsKept) {
    RecordsWindow w;
    w.pieces(3);
    w.go(2);
    w.click(w.find<QPushButton>("Blank page/Style"));
    w.type(w.find<QLineEdit>("Batch"), "A7");
    w.type(w.find<QLineEdit>("Price of one"), "4.20");
    w.wait();
    EXPECT_EQ(w.order().styles[0].batch, "A7");
    EXPECT_EQ(w.order().styles[0].price, 4.2);
    w.window().resize(1024, 700);
    w.go(7);
    w.choose(w.find<QComboBox>("Measured pieces"), "every piece");
    w.press()->desk().begin(600, false);
    w.click(w.find<QPushButton>("Press view/step card"));
    int typed = 0;
    while (w.to_a_piece()) {
        const std::string id = w.recorder().wanted()->record.id;
        EXPECT_LT(w.press()->measure()->height(), 110);
        w.tape(3, 1);
        QTRY_VERIFY_WITH_TIMEOUT(w.recorder().wanted() == nullptr || w.recorder().wanted()->record.id != id, 2000);
        const PressRecord* kept = w.record_of_piece(id);
        ASSERT_NE(kept, nullptr);
        ASSERT_TRUE(kept->landing);
        EXPECT_NEAR(*kept->landing->aside, 3, 0.11);
        EXPECT_EQ(kept->box, "A7");
        ++typed;
    }
    EXPECT_EQ(typed, 3) << "the keys went back to the step card after each";
}

TEST(RecordsBench, RecordsGoWithTheirOrder) {
    const test::Folder folder;
    const std::string path = folder / "kept.orthema";
    PressRecord r;
    {
        RecordsWindow w;
        r.id = "a record";
        r.at = "2027-06-12T09:00:00";
        r.job = w.order().job;
        r.design = w.order().decorations[0].id;
        r.landing = Landing{};
        r.landing->aside = 2.5;
        w.room().records().add({r});
        w.room().keeper().save(QString::fromStdString(path));
        w.wait();
    }
    const auto package = open_order(path);
    ASSERT_TRUE(package) << package.sentence();
    ASSERT_EQ(package->records.records.size(), 1u);
    EXPECT_EQ(package->records.records[0], r);
    Window other;  // another shop
    other.open(path);
    ASSERT_EQ(other.room().records().all().size(), 1u);
    other.open(path);  // and once more: by its id it is the same
    EXPECT_EQ(other.room().records().all().size(), 1u);
}

TEST(RecordsBench, FiltersAndFindsByTheCodeOfACard) {
    RecordsWindow w;
    std::vector<PressRecord> some;
    for (int i = 0; i < 20; ++i) {
        PressRecord r;
        r.id = "r" + std::to_string(i);
        r.at = "2027-06-12T09:00:" + std::to_string(10 + i);
        r.press = i % 2 == 0 ? "one" : "two";
        r.design = i % 5 == 0 ? "badge" : "kite";
        r.size = i % 4 == 0 ? "M" : "L";
        r.rehearsal = i == 7;
        if (i == 3) r.remark = "narrower rim";
        if (i == 4 || i == 6) r.box = "A7";
        some.push_back(std::move(r));
    }
    w.room().records().add(some);
    w.go(8);
    w.wait();
    EXPECT_EQ(w.records()->which().size(), 19u);
    w.choose(w.find<QComboBox>("Filter press"), "two");
    EXPECT_EQ(w.records()->which().size(), 9u);
    w.choose(w.find<QComboBox>("Filter press"), "any press");
    auto* find = w.find<QLineEdit>("Find records");
    find->setText("orthema:kite/M/7KQ2MA");
    EXPECT_EQ(w.records()->which().size(), 4u);
    find->setText("A7");
    EXPECT_EQ(w.records()->which().size(), 2u);
    find->setText("narrower");
    EXPECT_EQ(w.records()->which().size(), 1u);
    find->setText("");
    for (const char* view : {"run", "recipes", "spoilage", "lessons", "history", "target"}) {
        w.click(w.find<QPushButton>(QString("Records view/") + view));
        w.wait();
    }
    w.click(w.find<QPushButton>("Records view/lessons"));
    w.choose(w.find<QComboBox>("Filter press"), "two");
    w.type(w.find<QLineEdit>("New lesson"), "tape along the lap");
    w.wait();
    ASSERT_EQ(w.room().records().lessons().size(), 1u);
    EXPECT_EQ(w.room().records().lessons()[0].correction.press, "two");
    EXPECT_EQ(proposal_words(w.room().records().lessons()[0].correction, w.order()), "two: tape along the lap");
    EXPECT_EQ(w.room().records().lessons()[0].state, LessonState::open);
}

}  // namespace TESTED
}  // namespace orthema
