// Lists from web shops: tables, columns, rows kept out, and what is written back.
#include "files/list.h"

#include "files/library.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

const std::vector<BlankStyle>& styles() { return starting_library().styles; }

LineImport import_text(const std::string& text) {
    const auto table = parse_table(text);
    EXPECT_TRUE(table) << text;
    return table ? import_lines(*table, guess_columns(*table, styles()), styles()) : LineImport{};
}

TEST(Table, ReadsSeparatorsQuotesAndLineEnds) {
    for (const char separator : {',', ';', '\t'}) {
        std::string text = "a|b|c\r\n1|\"two \"\"2\"\"\"|\"x|y\"\r\n\r\n4|\"line\nbreak\"|\n";
        for (char& c : text)
            if (c == '|') c = separator;
        const auto t = parse_table(text);
        ASSERT_TRUE(t);
        EXPECT_EQ(t->separator, separator);
        EXPECT_EQ(t->header, (std::vector<std::string>{"a", "b", "c"}));
        ASSERT_EQ(t->rows.size(), 2u) << "an empty line is no row";
        EXPECT_EQ(t->rows[0][1], "two \"2\"");
        EXPECT_EQ(t->rows[0][2], std::string("x") + separator + "y");
        EXPECT_EQ(t->rows[1][1], "line\nbreak");
    }
}

TEST(Table, ReadsMarksAndOldEncodings) {
    EXPECT_EQ(parse_table("\xEF\xBB\xBFSize,Qty\nM,1\n")->header[0], "Size");
    EXPECT_EQ(parse_table("Couleur\n\xE9t\xE9\n")->rows[0][0], "été");
    EXPECT_EQ(parse_table("Couleur\nété\n")->rows[0][0], "été");
}

TEST(Table, RefusesWhatIsNoListWithASentence) {
    for (const std::string& bad : {std::string(), std::string("\n\n"), std::string("Size,Qty\n"), std::string("a\0b\nc", 5)}) {
        const auto t = parse_table(bad);
        ASSERT_FALSE(t);
        EXPECT_GT(t.sentence().size(), 12u);
    }
}

TEST(Columns, AreFoundByHeaderAndByContent) {
    const auto t = parse_table("Order,Product,Colour,Size,Qty,Name\n1,Adult Tee,Ash,M,2,x\n");
    EXPECT_EQ(guess_columns(*t, styles()),
              (std::vector<Column>{Column::reference, Column::blank, Column::colour, Column::size, Column::quantity, Column::note}));
    const auto nameless = parse_table("A,B,C,D\nYouth Tee,Yth M,3,navy\nAdult Tee,XXL,4,ash\nHooded Fleece,S,1,moss\n");
    EXPECT_EQ(guess_columns(*nameless, styles()), (std::vector<Column>{Column::blank, Column::size, Column::quantity, Column::colour}));
}

TEST(Import, KeepsBadRowsOutAndSaysWhy) {
    const LineImport in = import_text(
        "Product,Colour,Size,Qty\n"
        "Adult Tee,Ash,XXL,3\n"        // fine
        "Adult Tee,Ash,Jumbo,3\n"      // no such size
        "Cloak,Ash,M,1\n"              // no such blank
        "Adult Tee,Ash,M,\n"           // no quantity
        "Adult Tee,Ash,M,-2\n"         // not a quantity
        "Adult Tee,Ash,M,two\n"        // not a number
        "Adult Tee,Ash,,4\n"           // no size
        "Toddler Tee,White,5XL,1\n"    // not in that run
        "Adult Tee,Ash,M,9999999\n");  // absurd
    ASSERT_EQ(in.lines.size(), 1u);
    EXPECT_EQ(in.lines[0].size, "2XL");
    EXPECT_EQ(in.lines[0].style, "adult-tee");
    EXPECT_EQ(in.lines[0].colour, "ash");
    EXPECT_EQ(in.garments, 3);
    ASSERT_EQ(in.bad.size(), 8u);
    for (std::size_t i = 0; i < in.bad.size(); ++i) {
        EXPECT_EQ(in.bad[i].row, static_cast<int>(i) + 3) << "rows are counted as a spreadsheet does";
        EXPECT_GT(in.bad[i].reason.sentence.size(), 10u);
        EXPECT_NE(in.bad[i].text.find(" | "), std::string::npos);
    }
    EXPECT_NE(in.bad[0].reason.sentence.find("Jumbo"), std::string::npos);
}

TEST(Import, EveryRowIsEitherInOrListed) {
    const auto t = parse_table(test::slurp(test::source("demo/web-shop-lines.csv")));
    ASSERT_TRUE(t);
    const LineImport in = import_lines(*t, guess_columns(*t, styles()), styles());
    EXPECT_EQ(in.lines.size() + in.bad.size(), t->rows.size());
    EXPECT_EQ(in.bad.size(), 2u);
    EXPECT_GE(in.garments, 120);
    int sum = 0;
    for (const OrderLine& l : in.lines) sum += l.quantity;
    EXPECT_EQ(sum, in.garments);
}

TEST(Import, TheSizesAgeGroupHelpsToFindTheBlank) {
    const LineImport in = import_text("Item,Size,Qty\nT-shirt,Yth M,1\nT-shirt,Adult L,2\nTee,4T,3\nBaby bodysuit navy,6-12M,4\n");
    ASSERT_EQ(in.lines.size(), 4u);
    EXPECT_EQ(in.lines[0].style, "youth-tee");
    EXPECT_EQ(in.lines[1].style, "adult-tee");
    EXPECT_EQ(in.lines[2].style, "toddler-tee");
    EXPECT_EQ(in.lines[3].style, "infant-bodysuit");
    EXPECT_EQ(in.lines[3].size, "12M");
}

TEST(Import, WithoutASizeColumnNothingComesIn) {
    const auto t = parse_table("Product,Qty\nAdult Tee,3\n");
    const LineImport in = import_lines(*t, {Column::blank, Column::quantity}, styles());
    EXPECT_TRUE(in.lines.empty());
    ASSERT_EQ(in.bad.size(), 1u);
    EXPECT_NE(in.bad[0].reason.sentence.find("size"), std::string::npos);
}

TEST(Csv, FieldsAreQuotedAndNeverRunAsFormulas) {
    EXPECT_EQ(csv_field("plain"), "plain");
    EXPECT_EQ(csv_field("a,b"), "\"a,b\"");
    EXPECT_EQ(csv_field("say \"hi\""), "\"say \"\"hi\"\"\"");
    EXPECT_EQ(csv_field("=1+1"), "'=1+1");
    EXPECT_EQ(csv_field("-12.5"), "-12.5");
    EXPECT_EQ(csv_field("@x"), "'@x");
    EXPECT_EQ(csv_field("-2+3+cmd|' /C calc'!A0"), "'-2+3+cmd|' /C calc'!A0");
    EXPECT_EQ(csv_field("\t=1+1"), "\"'\t=1+1\"");
    EXPECT_EQ(csv_field("- a dash"), "'- a dash");
    EXPECT_EQ(csv_field("-"), "-");
}

TEST(Csv, ASizeThatOnlyTheBlankHasIsTakenAsItIsWritten) {
    const LineImport in = import_text("blank,colour,size,quantity\nCotton tote,natural,Small,12\nAdult tee,navy,small,2\n");
    ASSERT_EQ(in.lines.size(), 2U);
    EXPECT_EQ(in.lines[0].size, "small");
    EXPECT_EQ(in.lines[1].size, "S");
}

TEST(Csv, LinesWrittenReadBackTheSame) {
    Order order = test::small_order();
    order.lines.push_back({"youth-tee", "sun", "XS", 4, "stall, \"front\""});
    const LineImport in = import_text(lines_csv(order));
    EXPECT_TRUE(in.bad.empty());
    for (OrderLine& l : order.lines.own()) l.first = 0;  // pieces are numbered when the lines come in
    EXPECT_EQ(in.lines, order.lines);
}

}  // namespace TESTED
}  // namespace orthema
