// Languages: the table is read as gettext writes it, and sentences, figures and plurals come out in it.
#include "core/base/language.h"

#include <gtest/gtest.h>

#include "core/base/catalogue.h"
#include "core/base/units.h"

namespace orthema {
namespace TESTED {

const std::string table = R"(# a note
msgid ""
msgstr ""
"Language: xx\n"
"X-Name: Hill speech\n"
"X-Decimal: ,\n"
"Plural-Forms: nplurals=2; plural=(n > 1);\n"

#: src/somewhere.cpp
msgid "Close"
msgstr "Shut"

msgid ""
"two lines, "
"with \"quotes\"\tand a \\"
msgstr "deux\nlignes"

msgid "not yet"
msgstr ""

#, fuzzy
msgid "doubtful"
msgstr "unsure"

msgid "hem"
msgstr "foot"

msgid "{n} {n?piece|pieces}"
msgstr "{n} {n?bit|bits}"
)";

Language hill() {
    auto out = read_language(table);
    EXPECT_TRUE(out.ok()) << out.sentence();
    return *out;
}

TEST(Languages, ATableIsReadAsGettextWritesIt) {
    const Language l = hill();
    EXPECT_EQ(l.code, "xx");
    EXPECT_EQ(l.name, "Hill speech");
    EXPECT_EQ(l.decimal, ',');
    EXPECT_TRUE(l.none_is_one);
    EXPECT_EQ(said_in(&l, "Close"), "Shut");
    EXPECT_EQ(said_in(&l, "two lines, with \"quotes\"\tand a \\"), "deux\nlignes");
    for (const char* stays : {"not yet", "doubtful", "never heard", ""}) EXPECT_EQ(said_in(&l, stays), stays);
    EXPECT_EQ(said_in(nullptr, "Close"), "Close");
}

TEST(Languages, WhatIsNoTableIsRefusedAndACutOneNeverSaysAnythingElse) {
    for (const char* bad :
         {"", "msgid \"a\"\nmsgstr \"b\"\n", "{\"json\": true}", "msgid a\nmsgstr b\n", "\"loose\"\n", "msgid \"open\nmsgstr \"\"\n"})
        EXPECT_FALSE(read_language(bad).ok()) << bad;
    const Language whole = hill();
    for (std::size_t n = 0; n < table.size(); ++n) {
        const auto cut = read_language(table.substr(0, n));
        if (!cut) continue;
        for (const auto& [english, other] : cut->sentences) {
            const auto at = whole.sentences.find(english);
            ASSERT_NE(at, whole.sentences.end()) << n;
            EXPECT_EQ(at->second.rfind(other, 0), 0u) << n;
        }
    }
}

TEST(Languages, SentencesFiguresAndPluralsFollowTheReader) {
    const Language l = hill();
    const Reading mm{Unit::mm, &l}, inch{Unit::inch, &l};
    EXPECT_EQ(length_text(Length::from_mm(12.5), mm), "12,5 mm");
    EXPECT_EQ(length_text(Length::from_inches(3.0625), inch), "3 1/16 in");
    EXPECT_EQ(stored_text(Length::from_inches(3.001), inch), "3,001");
    EXPECT_EQ(figure_text(1234.5, 2, mm), "1234,5");
    for (const auto& [n, words] : {std::pair{0, "0 bit"}, {1, "1 bit"}, {2, "2 bits"}})
        EXPECT_EQ(phrase("page-pieces", mm, {{"n", n}}), words);
    EXPECT_EQ(phrase("page-pieces", Unit::mm, {{"n", 0}}), "0 pieces");
    // a word of the program's own is said, what somebody typed is not
    EXPECT_EQ(worded({"lesson-on-run", {{"run", "hem"}}}, mm), " on foot");
    EXPECT_EQ(worded({"lesson-on-run", {{"run", std::string("hem")}}}, mm), " on hem");
}

TEST(Languages, AFigureThatIsShownIsReadBack) {
    const Language l = hill();
    for (const Unit unit : {Unit::mm, Unit::inch})
        for (double mm = -60; mm < 900; mm += 7.3) {
            const auto back = parse_length(length_text(Length::from_mm(mm), {unit, &l}), unit);
            ASSERT_TRUE(back.ok()) << back.sentence();
            EXPECT_NEAR(back->mm(), mm, unit == Unit::mm ? 0.051 : 25.4 / 32 + 1e-9);
        }
}

}  // namespace TESTED
}  // namespace orthema
