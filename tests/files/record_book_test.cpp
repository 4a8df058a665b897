// Records and lessons on disk: what was kept is read back, twice is once, and nothing that is no record comes in.
#include "files/record_book.h"

#include <sqlite3.h>

#include <nlohmann/json.hpp>
#include <thread>

#include "core/pipeline/work.h"
#include "files/library.h"
#include "files/order_file.h"
#include "files/record_columns.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

using namespace test;

namespace {

/// With every field filled, by chance.
PressRecord any_record(std::mt19937& dice, int number) {
    PressRecord r;
    r.at = "2027-06-" + std::to_string(10 + number % 20) + "T09:00:" + std::to_string(10 + number % 50);
    for (const RecordColumn& c : record_columns()) {
        const std::string name = c.name;
        if (name == "at") continue;
        if (name == "version")
            r.version = 1;
        else if (c.number)
            EXPECT_TRUE(c.set(r, Cell(static_cast<double>(1 + dice() % 7)))) << name;
        else if (name == "acts")
            r.acts = {{StepKind::pre_press, 150, 148.25, 4, Pressure::firm, Peel::hot},
                      {StepKind::second_press, 150, 0, 5, Pressure::light, Peel::cool}};
        else if (name == "result")
            r.outcome = static_cast<Outcome>(dice() % outcome_count);
        else if (name == "done_about_it")
            r.mended = static_cast<Mended>(dice() % mended_count);
        else if (name == "proof")
            r.proof = static_cast<Proof>(dice() % proof_count);
        else
            EXPECT_TRUE(c.set(r, Cell(name + " =, \"" + std::to_string(dice() % 1000) + "\" öß\n"))) << name;
    }
    r.id = "record-" + std::to_string(number);
    return r;
}

std::vector<PressRecord> some(int count) {
    std::mt19937 dice(4);
    std::vector<PressRecord> out;
    for (int i = 0; i < count; ++i) out.push_back(any_record(dice, i));
    std::stable_sort(out.begin(), out.end(), [](const PressRecord& a, const PressRecord& b) { return a.at < b.at; });
    return out;
}

std::unique_ptr<RecordBook> book_in(const std::string& path) {
    EXPECT_TRUE(Library::open(path));
    auto book = RecordBook::open(path);
    EXPECT_TRUE(book) << book.sentence();
    return std::move(*book);
}

Lesson some_lesson() {
    Lesson l;
    l.correction.id = "loading-marks/large#1";
    l.correction.kind = CorrectionKind::loading_marks;
    l.correction.press = "large";
    l.correction.hands = "MK";
    l.correction.aside = -4;
    l.correction.low = -5.5;
    l.correction.high = -2.5;
    l.correction.pieces = 18;
    l.correction.records = {"record-1", "record-2"};
    l.at = "2027-06-12T17:00:00";
    return l;
}

}  // namespace

TEST(RecordBook, KeepsWhatItIsGivenOnce) {
    const Folder folder;
    const auto records = some(60);
    {
        const auto book = book_in(folder / "shop.sqlite");
        ASSERT_TRUE(book->add(records));
        ASSERT_TRUE(book->add(records));  // the same again is the same
        ASSERT_TRUE(book->add(some_lesson()));
    }
    const auto book = book_in(folder / "shop.sqlite");
    const auto back = book->records();
    ASSERT_TRUE(back) << back.sentence();
    EXPECT_EQ(*back, records);
    PressRecord washed = records[5];
    washed.version = 2;
    washed.remark = "edge lifts after five";
    ASSERT_TRUE(book->add({washed}));
    const auto later = book->records();
    ASSERT_TRUE(later);
    EXPECT_EQ(later->size(), records.size());
    EXPECT_EQ(std::count(later->begin(), later->end(), washed), 1);
    Lesson taken = some_lesson();
    taken.version = 2;
    taken.state = LessonState::taken;
    ASSERT_TRUE(book->add(taken));
    const auto lessons = book->lessons();
    ASSERT_TRUE(lessons);
    ASSERT_EQ(lessons->size(), 1u);
    EXPECT_EQ(lessons->front(), taken);
    EXPECT_FALSE(book->add({PressRecord{}}));  // without an id or a date
}

TEST(RecordBook, HandsAreForgottenEverywhere) {
    const Folder folder;
    const auto book = book_in(folder / "shop.sqlite");
    auto records = some(12);
    for (std::size_t i = 0; i < records.size(); ++i) records[i].hands = i % 2 == 0 ? "MK" : "TS";
    ASSERT_TRUE(book->add(records));
    ASSERT_TRUE(book->add(some_lesson()));
    ASSERT_TRUE(book->forget_hands("MK"));
    const auto left = book->records();
    for (const PressRecord& r : *left) EXPECT_NE(r.hands, "MK");
    EXPECT_EQ(book->lessons()->front().correction.hands, "");
    EXPECT_EQ(slurp(folder / "shop.sqlite").find("\"hands\":\"MK\""), std::string::npos);
}

TEST(RecordBook, TwoProgramsWriteAtOnce) {
    const Folder folder;
    const std::string path = folder / "shop.sqlite";
    const auto records = some(80);
    (void)book_in(path);
    std::vector<std::thread> programs;
    for (const std::size_t part : {0u, 1u})
        programs.emplace_back([&, part] {
            const auto book = RecordBook::open(path);
            ASSERT_TRUE(book);
            for (std::size_t i = part; i < records.size(); i += 2) ASSERT_TRUE((*book)->add({records[i]}));
        });
    for (std::thread& t : programs) t.join();
    EXPECT_EQ((*RecordBook::open(path))->records()->size(), records.size());
}

TEST(RecordBook, TextFilesReadBack) {
    const auto records = some(40);
    const OrderRecords all{records, {some_lesson()}};
    const auto json = records_from_json(records_json(all));
    ASSERT_TRUE(json) << json.sentence();
    EXPECT_EQ(*json, all);
    const auto csv = records_from_csv(records_csv(records));
    ASSERT_TRUE(csv) << csv.sentence();
    EXPECT_EQ(*csv, records);
    const auto lesson = lesson_from_json(lesson_json(some_lesson()));
    ASSERT_TRUE(lesson) << lesson.sentence();
    EXPECT_EQ(*lesson, some_lesson());
}

TEST(RecordBook, TheCommandLineListsAndReports) {
    const Folder folder;
    const std::string demo = source("demo/marrow-hill");
    const Answer report = run(std::string(ORTHEMA_CLI) + " report " + demo + " --rehearsals --json");
    ASSERT_EQ(report.code, 0) << report.out;
    const auto j = nlohmann::json::parse(report.out);
    const auto package = open_order(demo);
    ASSERT_TRUE(package);
    EXPECT_EQ(j["records"], package->records.records.size());
    double sum = 0;
    for (const PressRecord& r : package->records.records) sum += *r.landing->aside;
    EXPECT_NEAR(j["mean"]["aside_mm"].get<double>(), sum / static_cast<double>(package->records.records.size()), 1e-6);
    const Answer list =
        run(std::string(ORTHEMA_CLI) + " records " + demo + " --rehearsals --press press-small --out " + (folder / "out.csv"));
    ASSERT_EQ(list.code, 0) << list.out;
    const auto rows = records_from_csv(slurp(folder / "out.csv"));
    ASSERT_TRUE(rows) << rows.sentence();
    EXPECT_EQ(static_cast<std::size_t>(std::count_if(package->records.records.begin(), package->records.records.end(),
                                                     [](const PressRecord& r) { return r.press == "press-small"; })),
              rows->size());
    EXPECT_NE(run(std::string(ORTHEMA_CLI) + " report " + (folder / "nothing.sqlite.txt")).code, 0);
}

TEST(RecordBook, WhatIsNoRecordIsSaid) {
    EXPECT_FALSE(records_from_json("{}"));
    EXPECT_FALSE(records_from_json(R"({"format":"orthema-records","version":2,"records":[]})"));
    EXPECT_FALSE(records_from_json(R"({"format":"orthema-records","version":1,"records":[{"id":"a"}]})"));
    EXPECT_FALSE(records_from_json(R"({"format":"orthema-records","version":1,"records":[{"id":"a","at":"yesterday"}]})"));
    EXPECT_FALSE(records_from_json(R"({"format":"orthema-records","version":1,"records":[{"id":"a","at":"2027-06-12","result":"fine"}]})"));
    EXPECT_FALSE(records_from_json(R"({"format":"orthema-records","version":1,"records":[{"id":"a","at":"2027-06-12","aside_mm":1e99}]})"));
    EXPECT_FALSE(records_from_csv("at,aside_mm\n2027-06-12,four\n"));
    EXPECT_FALSE(records_from_csv("when,aside_mm\n2027-06-12,4\n"));
    const auto typed = records_from_csv("at;press;aside_mm;remark\n2027-06-12;large;4.5;=2+3\n2027-06-12;large;-1;\n");
    ASSERT_TRUE(typed) << typed.sentence();
    ASSERT_EQ(typed->size(), 2u);
    EXPECT_NE((*typed)[0].id, (*typed)[1].id);
    EXPECT_EQ((*typed)[0].landing->aside, 4.5);
    const std::string written = records_csv(*typed);
    EXPECT_NE(written.find("'=2+3"), std::string::npos);  // no spreadsheet runs it
    // a damaged base says so
    const Folder folder;
    (void)book_in(folder / "shop.sqlite");
    sqlite3* db = nullptr;
    ASSERT_EQ(sqlite3_open((folder / "shop.sqlite").c_str(), &db), SQLITE_OK);
    ASSERT_EQ(sqlite3_exec(db, "INSERT INTO record(id, version, at, result) VALUES('x', 1, '2027-06-12', 7)", nullptr, nullptr, nullptr),
              SQLITE_OK);
    sqlite3_close(db);
    EXPECT_FALSE((*RecordBook::open(folder / "shop.sqlite"))->records());
}

}  // namespace TESTED
}  // namespace orthema
