// Typefaces read, words set in them as pictures, and the order that carries both.
#include <filesystem>

#include "core/order/edit.h"
#include "core/order/intake.h"
#include "core/order/roster.h"
#include "core/order/rules.h"
#include "files/lettering.h"
#include "files/list.h"
#include "files/order_file.h"
#include "files/reader_process.h"
#include "files/safe_file.h"

namespace orthema::TESTED {

namespace {

/// The team that ships: its order, read from the file.
const OrderPackage& team() {
    static const OrderPackage all = [] {
        auto opened = open_order(test::source("demo/kite-race.orthema"));
        return opened ? std::move(*opened) : OrderPackage{};
    }();
    return all;
}

double advance_of(const ShapedWord& w) { return w.letters.back().at + w.letters.back().advance; }

}  // namespace

TEST(Typeface, ShapesWithKerningAndCapitalsOneHigh) {
    for (const Typeface& face : shipped_typefaces()) {
        const auto words = shaped_words(face.file, face.name, {"H", "AV", "A", "V", "ne", "x\u65e5y", "\u00d8"}, false);
        ASSERT_TRUE(words) << words.sentence();
        EXPECT_NEAR(bounds((*words)[0].letters[0].outline).height(), 1, 0.002) << face.name;
        EXPECT_LT(advance_of((*words)[1]), advance_of((*words)[2]) + advance_of((*words)[3]) - 0.01) << face.name << ": kerned";
        EXPECT_EQ((*words)[5].missing, std::vector<std::string>{"\u65e5"}) << "the face has no such letter";
        EXPECT_EQ((*words)[5].letters.size(), 2u);
        EXPECT_TRUE((*words)[6].missing.empty()) << face.name;
        const auto upper = shaped_words(face.file, face.name, {"n\u00f8", "N\u00d8"}, true);
        ASSERT_TRUE(upper);
        EXPECT_NEAR(area((*upper)[0].letters[1].outline), area((*upper)[1].letters[1].outline), 1e-9);
    }
    // an O has its hole, an i its dot
    const auto round = shaped_words(shipped_typefaces()[0].file, "face", {"O", "i"}, false);
    ASSERT_EQ((*round)[0].letters[0].outline.size(), 1u);
    EXPECT_EQ((*round)[0].letters[0].outline[0].holes.size(), 1u);
    EXPECT_EQ((*round)[1].letters[0].outline.size(), 2u);
}

TEST(Typeface, WhatIsNoneOrIsCutShortGetsASentence) {
    const std::string whole = *shipped_typefaces()[0].file;
    for (const std::string& bytes :
         {std::string("OTTO"), std::string("\0\1\0\0 no face at all", 20), whole.substr(0, 300), std::string(5000, 'x')}) {
        const auto words = shaped_words(std::make_shared<const std::string>(bytes), "odd.ttf", {"A"}, true);
        if (words) {
            EXPECT_TRUE((*words)[0].letters.empty() || (*words)[0].letters[0].outline.empty()) << "nothing is drawn of what is not there";
        } else {
            EXPECT_NE(words.sentence().find("odd.ttf"), std::string::npos);
        }
    }
    std::mt19937 dice(4);
    for (int round = 0; round < test::rounds(40, 1000); ++round) {  // damaged here and there: an answer or a sentence, in any case an end
        std::string bytes = whole;
        for (int k = 0; k < 30; ++k) bytes[dice() % bytes.size()] = char(dice());
        const auto words = shaped_words(std::make_shared<const std::string>(bytes), "odd.ttf", {"Kestrel 7"}, true);
        if (!words) EXPECT_FALSE(words.sentence().empty());
    }
}

TEST(LetteredArt, WhatIsDrawnIsWhatTheFactsSay) {
    const auto art = load_all_art(team().order, team().art, nullptr);
    int words = 0;
    for (const auto& [id, loaded] : art) {
        if (word_in(id).empty()) continue;
        ++words;
        const ArtFacts& f = loaded->facts;
        ASSERT_TRUE(f.lettered) << id;
        // its bytes, read by another library, are the same shape
        const auto again = load_art(loaded->bytes, "word.svg");
        ASSERT_TRUE(again) << again.sentence();
        EXPECT_NEAR((*again)->facts.aspect, f.aspect, 0.01) << id;
        EXPECT_NEAR(area((*again)->facts.outline), area(f.outline), 0.03 * area(f.outline)) << id << ": its pixels are half a pixel fatter";
        EXPECT_NEAR(bounds(f.outline).width(), 1, 1e-6);
        EXPECT_NEAR(bounds(f.outline).height(), f.aspect, 1e-6);
        const ArtFacts& field = art.at(art_of_word(id))->facts;
        EXPECT_GE(f.lettered->in_field.x0, -1e-3);
        EXPECT_LE(f.lettered->in_field.x1, 1 + 1e-3);
        EXPECT_GE(f.lettered->in_field.y0, -1e-6);
        EXPECT_LE(f.lettered->in_field.y1, field.aspect + 1e-3);
        if (words > 12) break;
    }
    EXPECT_GT(words, 12);
    EXPECT_FALSE(art.at(word_art("back-name", "Featherstonehaugh"))->facts.lettered->scale == 1);
}

TEST(LetteredArt, TheOrderCarriesItsTypefaces) {
    const test::Folder folder;
    Order o = test::small_order();
    ArtBytes bytes = test::small_art();
    const auto& faces = shipped_typefaces();
    Lettering l;
    l.words = "{number} {name}";
    l.rims = {{{1, 0, 0, 1}, 0.06}, {{0, 0, 1, 1}, 0.02}};
    l.arch = -12;
    l.squeeze = l.digits = true;
    l.capitals = false;
    const std::string id = enrol_lettering(o, bytes, l, faces[2], &faces[1], "Names");
    o = with_person(o, 0, "\u00d8stergaard", "14");
    ASSERT_TRUE(save_order(folder / "team.orthema", o, bytes));
    const auto back = open_order(folder / "team.orthema");
    ASSERT_TRUE(back) << back.sentence();
    EXPECT_EQ(back->order, o);
    const Art& art = *find_art(back->order, id);
    EXPECT_EQ(*back->art.at(art.hash), *faces[2].file);
    EXPECT_EQ(*back->art.at(art.lettering->narrow), *faces[1].file);
    EXPECT_EQ(find_art(o, word_art(id, "anybody")), find_art(o, id)) << "a word is of its lettering";
    EXPECT_EQ(test::run("unzip -l " + folder / "team.orthema" + " | grep -c 'art/.*\\.\\(ttf\\|face\\)$'").out.substr(0, 1), "2");
    // without the narrower one's file it is not opened, and not saved
    bytes.erase(art.lettering->narrow);
    EXPECT_FALSE(save_order(folder / "less.orthema", o, bytes));
    Findings faults;
    bytes.erase(art.hash);
    load_all_art(o, bytes, &faults);
    EXPECT_TRUE(std::any_of(faults.begin(), faults.end(), [&](const Finding& f) { return f.about.art == id; }));
}

TEST(LetteredArt, AListBringsTheTeam) {
    const auto tables = read_list(test::slurp(test::source("demo/kite-race-team.csv")));
    ASSERT_TRUE(tables);
    const Table& table = tables->front().table;
    const auto columns = guess_columns(table, team().order.styles.all());
    EXPECT_EQ(columns, (std::vector<Column>{Column::person, Column::number, Column::size, Column::blank, Column::colour}));
    const LineImport in = import_lines(table, columns, team().order.styles.all());
    EXPECT_TRUE(in.bad.empty());
    ASSERT_EQ(in.lines.size(), 14u);
    EXPECT_EQ(in.lines[9].name, "\u00d8stergaard");
    EXPECT_EQ(in.lines[9].number, "14");
    EXPECT_EQ(in.garments, 14);
    // a newer list changes one number and brings a rider more; nobody stands there twice
    Order o = team().order;
    std::vector<OrderLine> newer = in.lines;
    newer.push_back(newer.front());
    newer.back().name = "Late";
    newer.back().number = "99";
    o = with_list(o, newer, Intake::update);
    EXPECT_EQ(garments_in(o, run_of(newer.front())), 15);
    // quantities stay quantities where a list has both
    const auto shop = read_list("Name,Size,Item,Qty,No.\nAnn,M,Adult tee,2,1001\nBob,L,Adult tee,1,1002\nCyd,L,Adult tee,1,1003\n");
    const auto meant = guess_columns(shop->front().table, team().order.styles.all());
    EXPECT_EQ(meant[3], Column::quantity);
}

TEST(LetteredArt, PiecesSheetsAndPagesSayWhoseEachIs) {
    const test::Folder folder;
    const test::Answer made =
        test::run(std::string(ORTHEMA_CLI) + " export " + test::source("demo/kite-race.orthema") + " --out " + folder.path());
    ASSERT_EQ(made.code, 0) << made.out;
    const auto text_of = [&](const std::string& page) {
        return test::run("pdftotext -layout " + folder / ("kite-race-team_" + page + ".pdf") + " -").out;
    };
    const auto pieces = parse_table(test::slurp(folder / "kite-race-team_pieces.csv"));
    ASSERT_TRUE(pieces);
    std::map<std::string, std::map<std::string, int>> worn;  // design, word
    for (const auto& row : pieces->rows) {
        const std::string id = row[3];
        ++worn[row[5]][id.substr(id.find('~') + 1)];
    }
    const std::string ticket = text_of("job-ticket"), approval = text_of("approval"), run = text_of("run-sheet"),
                      cards = text_of("guide-cards"), film = text_of("film-roll-559_sheet-1");
    int on_film = 0;
    for (const OrderLine& l : team().order.lines) {
        if (l.name.empty()) continue;  // the caps
        EXPECT_EQ(worn["Back name"][l.name], 1) << l.name;
        EXPECT_EQ(worn["Back number"][l.number], 1) << l.number;
        for (const std::string& page : {ticket, approval, run}) EXPECT_NE(page.find(l.number), std::string::npos) << person_text(l);
        const std::string last = l.name.substr(l.name.rfind(' ') + 1);
        for (const std::string& page : {ticket, approval, run, cards}) EXPECT_NE(page.find(last), std::string::npos) << last;
        on_film += film.find(last) != std::string::npos ? 1 : 0;
    }
    EXPECT_GE(on_film, 12) << "beside the contours, but where there is no room";
}

}  // namespace orthema::TESTED
