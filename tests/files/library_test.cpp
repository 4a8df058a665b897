// The shop library: filled when new, brought up from older versions, left alone when damaged or newer.
#include "files/library.h"

#include <sqlite3.h>

#include <random>

#include "support/support.h"

namespace orthema {
namespace TESTED {

using test::Folder;

void sql(const std::string& path, const std::string& text) {
    sqlite3* db = nullptr;
    ASSERT_EQ(sqlite3_open(path.c_str(), &db), SQLITE_OK);
    char* message = nullptr;
    EXPECT_EQ(sqlite3_exec(db, text.c_str(), nullptr, nullptr, &message), SQLITE_OK) << (message != nullptr ? message : "");
    sqlite3_free(message);
    sqlite3_close(db);
}

TEST(ShopLibrary, ANewOneHoldsTheStartingLibrary) {
    const Folder folder;
    const auto library = Library::open(folder / "shop.sqlite");
    ASSERT_TRUE(library) << library.sentence();
    EXPECT_EQ((*library)->version(), Library::newest_version);
    EXPECT_EQ(*(*library)->content(), starting_library());
}

TEST(ShopLibrary, WhatIsPutStaysOverReopening) {
    const Folder folder;
    BlankStyle style = starting_library().styles[0];
    style = with_reading(style, style.sizes[0], Measure::chest, Length::from_mm(333), "2026-11-25");
    {
        const auto library = Library::open(folder / "shop.sqlite");
        ASSERT_TRUE((*library)->put(style));
        Medium medium = starting_library().media[0];
        medium.id = "film-mine";
        ASSERT_TRUE((*library)->put(medium));
    }
    const auto again = Library::open(folder / "shop.sqlite");
    const auto content = (*again)->content();
    EXPECT_EQ(content->styles.size(), starting_library().styles.size());
    EXPECT_TRUE(std::find(content->styles.begin(), content->styles.end(), style) != content->styles.end());
    EXPECT_EQ(content->media.back().id, "film-mine");
}

TEST(ShopLibrary, ADamagedOneIsSaidOrWholeAndItsCopyTakesItsPlace) {
    const Folder folder;
    const std::string path = folder / "shop.sqlite", copy = folder / "copy.sqlite", broken = folder / "broken.sqlite";
    ASSERT_TRUE(Library::open(path));
    ASSERT_TRUE((*Library::open(path))->back_up(copy));
    const std::string good = test::slurp(path);
    const LibraryContent whole = *(*Library::open(path))->content();
    std::mt19937 random(11);
    int said = 0, kept = 0;
    for (int k = 0; k < 250; ++k) {
        std::string bytes = good;
        if (k % 10 == 0) bytes.resize(random() % bytes.size());
        for (auto n = 1 + random() % 30; n > 0 && !bytes.empty(); --n) {
            const auto at = random() % bytes.size();
            if (random() % 3 == 0)
                for (auto i = at; i < std::min(bytes.size(), at + 700); ++i) bytes[i] = 0;
            else
                bytes[at] = static_cast<char>(random());
        }
        test::spill(broken, bytes);
        const auto library = Library::open(broken);
        const auto content = library ? (*library)->content() : Result<LibraryContent>(library.error());
        if (!content) {
            ++said;
            EXPECT_FALSE(content.sentence().empty());
            continue;
        }
        ++kept;
        if (bytes.empty()) continue;  // a new one
        EXPECT_EQ(content->styles.size(), whole.styles.size()) << k;
        EXPECT_EQ(content->media.size(), whole.media.size()) << k;
        EXPECT_EQ(content->methods.size(), whole.methods.size()) << k;
        EXPECT_EQ(content->presses.size() + content->jigs.size(), whole.presses.size() + whole.jigs.size()) << k;
    }
    EXPECT_GT(said, 200);
    test::spill(path, "SQLite format 3" + std::string(500, 'x'));
    ASSERT_FALSE(Library::open(path));
    const auto beside = Library::put_back(path, copy);
    ASSERT_TRUE(beside) << beside.sentence();
    EXPECT_TRUE(std::filesystem::exists(*beside)) << "nothing is thrown away";
    EXPECT_EQ(*(*Library::open(path))->content(), whole);
}

TEST(ShopLibrary, AnOldOneIsMigratedWithItsContent) {
    const Folder folder;
    const std::string path = folder / "old.sqlite";
    Press press{"p", "Old press", PressKind::flat, {{"platen", Length::from_mm(300), Length::from_mm(300)}}, {}, Length::from_mm(5)};
    sql(path,
        "CREATE TABLE item(kind TEXT NOT NULL, id TEXT NOT NULL, json TEXT NOT NULL, PRIMARY KEY(kind, id));"
        "INSERT INTO item VALUES('press', 'p', '{\"id\":\"p\",\"name\":\"Old "
        "press\",\"platen_width_mm\":300,\"platen_height_mm\":300,\"margin_mm\":5}');"
        "PRAGMA user_version = 1;");
    const auto library = Library::open(path);
    ASSERT_TRUE(library) << library.sentence();
    EXPECT_EQ((*library)->version(), Library::newest_version);
    const auto content = (*library)->content();
    ASSERT_TRUE(content);
    ASSERT_FALSE(content->presses.empty());
    EXPECT_EQ(content->presses.front(), press) << "its own stays as it was";
    EXPECT_EQ(content->styles, starting_library().styles) << "what the program has learned since is added";
    EXPECT_EQ(test::run("sqlite3 -version >/dev/null").code == 0
                  ? test::run("sqlite3 '" + path + "' \"SELECT name FROM item WHERE id = 'p'\"").out
                  : "Old press\n",
              "Old press\n");
}

TEST(ShopLibrary, ANewerOrDamagedOneIsLeftAsItIs) {
    const Folder folder;
    sql(folder / "newer.sqlite", "PRAGMA user_version = 99;");
    const std::string newer = test::slurp(folder / "newer.sqlite");
    const auto refused = Library::open(folder / "newer.sqlite");
    ASSERT_FALSE(refused);
    EXPECT_NE(refused.sentence().find("newer"), std::string::npos);
    EXPECT_EQ(test::slurp(folder / "newer.sqlite"), newer);
    test::spill(folder / "garbage.sqlite", std::string(5000, 'g'));
    ASSERT_FALSE(Library::open(folder / "garbage.sqlite"));
    EXPECT_EQ(test::slurp(folder / "garbage.sqlite"), std::string(5000, 'g'));
    EXPECT_FALSE(Library::open(folder / "no/such/folder/shop.sqlite"));
}

TEST(ShopLibrary, JsonGoesOutAndComesBack) {
    const auto back = library_from_json(library_json(starting_library()));
    ASSERT_TRUE(back) << back.sentence();
    EXPECT_EQ(*back, starting_library());
    EXPECT_FALSE(library_from_json("{}"));
    EXPECT_FALSE(library_from_json("{\"format\":\"orthema-library\",\"blanks\":7}"));
    EXPECT_FALSE(library_from_json("not json"));
}

TEST(ShopLibrary, MergingIsAllOrNothing) {
    const Folder folder;
    const auto library = Library::open(folder / "shop.sqlite");
    LibraryContent more;
    more.media.push_back(starting_library().media[0]);
    more.media[0].name = "Renamed film";
    ASSERT_TRUE((*library)->merge(more));
    EXPECT_EQ((*library)->content()->media[0].name, "Renamed film");
    EXPECT_EQ((*library)->content()->media.size(), starting_library().media.size());
}

TEST(ShopLibrary, AnOrderAdoptsWhatItLacksAndKeepsWhatItHas) {
    Order order;
    BlankStyle own = starting_library().styles[1];
    own.name = "My own";
    order.styles.push_back(own);
    adopt_library(order, starting_library());
    EXPECT_EQ(order.styles.size(), starting_library().styles.size());
    EXPECT_EQ(find_style(order, own.id)->name, "My own");
    const Order once = order;
    adopt_library(order, starting_library());
    EXPECT_EQ(order, once);
}

}  // namespace TESTED
}  // namespace orthema
