// Lists as people make them: titles, totals, gaps, sizes in columns, spreadsheets; wordings learned; lists brought up to date.
#include "files/list.h"

#include <random>

#include "core/order/intake.h"
#include "core/order/lots.h"
#include "files/library.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

const std::vector<BlankStyle>& blanks() { return starting_library().styles; }

LineImport taken(const Table& t, const ShopWords& words = {}, const RowMends& mends = {}) {
    return import_lines(t, guess_columns(t, blanks()), blanks(), words, mends);
}
LineImport taken(const std::string& text) { return taken(read_list(text).value().front().table); }

/// A spreadsheet written by other code than reads it.
std::string sheet(const std::string& ending, const std::string& rows) {
    const test::Folder folder;
    test::spill(folder / "rows.json", rows);
    const std::string path = folder / ("list." + ending);
    const auto made =
        test::run("python3 '" + test::source("tests/support/make_sheet.py") + "' '" + path + "' < '" + (folder / "rows.json") + "'");
    EXPECT_EQ(made.code, 0) << made.out;
    return test::slurp(path);
}

TEST(List, TitlesBlankLinesGapsAndTotalsAreWhatTheyAre) {
    const LineImport in = taken(
        "Kite choir, spring order\n\n"
        "No.,Garment,Colour,Size,Qty,For\n"
        "1,Adult tee,ash,M,3,altos\n"
        "2,,,L,4,altos\n\n"
        "3,Youth tee,sun,S,2,children\n"
        "Subtotal,,,,9,\n"
        "4,Adult tee,navy,XL,5,basses\n"
        "5,Adult tee,navy,Jumbo,1,basses\n"
        ",,,,,\n"
        "Total,,,,15,\n");
    ASSERT_EQ(in.lines.size(), 4U);
    EXPECT_EQ(in.lines[1].style, "adult-tee");
    EXPECT_EQ(in.lines[1].colour, "ash");
    EXPECT_EQ(in.lines[1].ref, "2");
    EXPECT_EQ(in.lines[1].note, "altos");
    EXPECT_EQ(in.filled, 1);
    ASSERT_EQ(in.totals.size(), 2U);
    EXPECT_EQ(in.totals[0].sum, in.totals[0].says);
    EXPECT_EQ(in.totals[1].says, 15);
    EXPECT_EQ(in.totals[1].sum, 14) << "one row was kept out, and the sum tells";
    ASSERT_EQ(in.bad.size(), 1U);
    EXPECT_EQ(in.bad[0].row, 10) << "blank lines count as rows of the file";
}

TEST(List, OneSizeNeedsNoNameAndAnEmptySizeIsChosenForItsRow) {
    const Table t =
        parse_table("no;what;colour;size;how many\n1;Square coaster;white;;8\n2;Mug;white;;9\n3;Camp flag;white;small;6\n4;;;;2\n").value();
    EXPECT_EQ(guess_columns(t, blanks()),
              (std::vector<Column>{Column::reference, Column::blank, Column::colour, Column::size, Column::quantity}));
    LineImport in = taken(t);
    ASSERT_EQ(in.lines.size(), 2U);
    EXPECT_EQ(in.lines[0].style, "square-coaster");
    EXPECT_EQ(in.lines[0].quantity, 8);
    ASSERT_EQ(in.bad.size(), 2U);
    EXPECT_EQ(in.bad[0].lacks, BadRow::Lacks::size);
    ASSERT_EQ(in.bad[0].style, "mug");
    RowMends mends;
    mends.sizes[in.bad[0].row] = "325 ml";
    in = taken(t, {}, mends);
    ASSERT_EQ(in.lines.size(), 3U);
    EXPECT_EQ(in.lines[1].size, "325 ml");
    EXPECT_EQ(in.garments, 23);
    // without headings that tell, a column of row numbers is no quantity
    const Table plain = parse_table("a,b,c,d\n1,Adult tee,M,4\n2,Adult tee,L,2\n3,Adult tee,S,9\n").value();
    EXPECT_EQ(guess_columns(plain, blanks())[3], Column::quantity);
    EXPECT_EQ(guess_columns(plain, blanks())[0], Column::none);
}

TEST(List, AWordThatOnlyOneBlankHasMeansItAndItsSizeCanBeChosen) {
    const Table t =
        parse_table("who,shirt,colour,size,how many\nAda,Tee,black,M,2\nFern,Tote,natural,,4\nEke,Cap,navy,adult,1\nBo,Pod,navy,,1\n")
            .value();
    LineImport in = taken(t);
    ASSERT_EQ(in.lines.size(), 2U);
    EXPECT_EQ(in.lines[0].style, "adult-tee") << "by its size, though many are tees";
    EXPECT_EQ(in.lines[1].style, "panel-cap");
    ASSERT_EQ(in.bad.size(), 2U);
    EXPECT_EQ(in.bad[0].lacks, BadRow::Lacks::size);
    EXPECT_EQ(in.bad[0].style, "cotton-tote");
    EXPECT_EQ(in.bad[1].lacks, BadRow::Lacks::blank) << "which sizes there are says the blank";
    RowMends mends;
    mends.sizes[in.bad[0].row] = "large";
    in = taken(t, {}, mends);
    ASSERT_EQ(in.lines.size(), 3U);
    EXPECT_EQ(in.lines[1].size, "large");
}

TEST(List, EveryRowKeptOutIsCounted) {
    std::string text = "Garment,Colour,Size,Qty\n";
    for (int i = 0; i < 1400; ++i) text += "Adult tee,ash,Jumbo,1\n";
    EXPECT_EQ(kept_out(taken(text)).size(), 1400U);
}

TEST(List, QuantitiesMayStandInAColumnForEachSize) {
    const LineImport in = taken(
        "Garment;Colour;Yth S;Yth M;S;M;XXL;Total\n"
        "Youth tee;sun;2;;;;;2\n"
        "Adult tee;navy;;;3;-;1;4\n"
        "Total;;2;0;3;0;1;6\n");
    EXPECT_TRUE(in.bad.empty());
    ASSERT_EQ(in.lines.size(), 3U);
    EXPECT_EQ(in.lines[0].style, "youth-tee");
    EXPECT_EQ(in.lines[2].size, "2XL");
    ASSERT_EQ(in.totals.size(), 1U);
    EXPECT_EQ(in.totals[0].says, 6);
    EXPECT_EQ(in.totals[0].sum, 6);
}

TEST(List, AWordingIsLearnedOnceAndAQuantityIsTypedForItsRow) {
    const Table t = parse_table("Garment,Colour,Size,Qty\nThe long one,ash,M,2\nThe long one,ash,Roomy,3\nAdult tee,ash,M,some\n").value();
    LineImport in = taken(t);
    ASSERT_EQ(in.bad.size(), 3U);
    EXPECT_EQ(in.bad[0].lacks, BadRow::Lacks::blank);
    EXPECT_EQ(in.bad[2].lacks, BadRow::Lacks::quantity);
    ShopWords words;
    words.blanks[said_as(in.bad[0].wording)] = "long-sleeve-tee";
    in = taken(t, words, {{{4, 7}}, {}, {}});
    ASSERT_EQ(in.bad.size(), 1U);
    EXPECT_EQ(in.bad[0].lacks, BadRow::Lacks::size);
    ASSERT_EQ(in.bad[0].style, "long-sleeve-tee") << "so that its sizes can be offered";
    words.sizes[said_as(in.bad[0].wording)] = "XL";
    in = taken(t, words, {{{4, 7}}, {}, {}});
    EXPECT_TRUE(in.bad.empty());
    EXPECT_EQ(in.garments, 12);
    EXPECT_EQ(in.lines[1].size, "XL");
    // and the shop keeps it
    const test::Folder folder;
    LibraryContent more;
    more.words = words;
    ASSERT_TRUE((*Library::open(folder / "shop.sqlite"))->merge(more));
    EXPECT_EQ((*Library::open(folder / "shop.sqlite"))->content()->words, words);
    EXPECT_EQ(library_from_json(library_json(more))->words, words);
}

TEST(List, SpreadsheetsSayWhatTheirTextWouldSay) {
    const std::string rows = R"J({"Notes": [["Call Ana"]], "List": [["Spring order"], [], ["No.", "Garment", "Colour", "Size", "Qty"],
        [1, "Adult tee", "ash", "M", 3], [2, null, null, "L", 4], [],
        ["Total", null, null, null, {"formula": "SUM(E4:E5)", "value": 7}]]
})J";
    const LineImport text = taken("Spring order\n\nNo.,Garment,Colour,Size,Qty\n1,Adult tee,ash,M,3\n2,,,L,4\n\nTotal,,,,7\n");
    for (const char* ending : {"xlsx", "ods"}) {
        const auto tables = read_list(sheet(ending, rows));
        ASSERT_TRUE(tables) << ending << ": " << tables.sentence();
        ASSERT_EQ(tables->size(), 1U) << "the sheet of notes has no lines";
        EXPECT_EQ(tables->front().name, "List");
        const LineImport in = taken(tables->front().table);
        EXPECT_EQ(in.lines, text.lines) << ending;
        ASSERT_EQ(in.totals.size(), 1U);
        EXPECT_EQ(in.totals[0].row, 7);
        EXPECT_EQ(in.totals[0].says, 7);
    }
}

TEST(List, WhatIsNoSpreadsheetOrUnpacksToTooMuchIsASentence) {
    const std::string good = sheet("xlsx", R"({"A": [["Garment", "Size", "Qty"], ["Adult tee", "M", 1]]})");
    ASSERT_TRUE(read_list(good));
    std::mt19937 random(9);
    for (int round = 0; round < test::rounds(40, 2000); ++round) {
        std::string bad = good;
        if (round % 2 == 0)
            bad.resize(4 + random() % (bad.size() - 4));
        else
            for (int k = 0; k < 6; ++k) bad[2 + random() % (bad.size() - 2)] = static_cast<char>(random());
        const auto tables = read_list(bad);
        if (!tables) EXPECT_GT(tables.sentence().size(), 20U);
    }
    const test::Folder folder;
    ASSERT_EQ(test::run("cd '" + folder.path() +
                        "' && python3 -c \"import zipfile; z = zipfile.ZipFile('b.zip', 'w', 8); "
                        "z.writestr('xl/worksheets/sheet1.xml', b' ' * (70 << 20))\"")
                  .code,
              0);
    const auto bomb = read_list(test::slurp(folder / "b.zip"));
    ASSERT_FALSE(bomb);
    EXPECT_NE(bomb.sentence().find("unpacks"), std::string::npos);
}

std::vector<OrderLine> random_list(std::mt19937& random) {
    std::vector<OrderLine> out;
    const char* sizes[] = {"S", "M", "L"};
    for (int number = 1; number < 9; ++number)
        for (const char* size : sizes)
            if (random() % 3 == 0) {
                OrderLine l{"adult-tee", random() % 2 == 0 ? "ash" : "navy", size, 1 + static_cast<int>(random() % 5),
                            "for " + std::to_string(number)};
                l.ref = std::to_string(number);
                out.push_back(l);
            }
    return out;
}

TEST(Intake, AListBroughtUpToDateIsTheNewerListAndWhatStaysKeepsItsLot) {
    std::mt19937 random(21);
    for (int round = 0; round < 60; ++round) {
        Order order = test::small_order();
        order.lines.own().clear();
        const auto first = random_list(random), second = random_list(random);
        const auto counts = [](const std::vector<OrderLine>& lines) {
            std::map<std::string, int> out;
            for (const OrderLine& l : lines) out[l.ref + "/" + l.colour + "/" + l.size] += l.quantity;
            return out;
        };
        order = with_list(order, first, Intake::add);
        EXPECT_EQ(counts(order.lines), counts(first));
        order.lines.push_back({"adult-tee", "ash", "M", 3, "typed by hand"});
        Order updated = with_list(order, second, Intake::update);
        auto wanted = counts(second);
        wanted["/ash/M"] += 3;
        EXPECT_EQ(counts(updated.lines), wanted) << "and what no list brought stays";
        EXPECT_TRUE(list_changes(updated, with_list(updated, second, Intake::update)).empty()) << "twice changes nothing more";
        EXPECT_EQ(counts(with_list(order, second, Intake::replace).lines), counts(second));
        for (const CountChange& c : list_changes(order, updated)) {
            const auto of = [&](const Order& o) {
                int n = 0;
                for (const OrderLine& l : o.lines.all())
                    if (l.colour == c.run.colour && l.size == c.size) n += l.quantity;
                return n;
            };
            EXPECT_EQ(of(order), c.before);
            EXPECT_EQ(of(updated), c.after);
        }
    }
    Order order = test::small_order();
    order.lines.own().clear();
    std::vector<OrderLine> list{{"adult-tee", "ash", "M", 4, "crew"}};
    list[0].ref = "12";
    order = with_lot_parted(with_list(order, list, Intake::add), {"adult-tee", "ash"}, {"Pilots", {{"M", 2}}});
    ASSERT_EQ(order.lines.size(), 2U);
    list[0].quantity = 6;
    const Order more = with_list(order, list, Intake::update);
    EXPECT_EQ(garments_in(more), 6);
    EXPECT_TRUE(std::any_of(more.lines.begin(), more.lines.end(), [](const OrderLine& l) { return !l.lot.empty(); }));
}

}  // namespace TESTED
}  // namespace orthema
