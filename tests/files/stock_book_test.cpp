// The shop's counts: two programs at once, a kill in between, hostile tables, and libraries of before; against a model kept beside.
#include "files/stock_book.h"

#include <sqlite3.h>
#include <sys/wait.h>
#include <unistd.h>

#include <csignal>
#include <filesystem>
#include <random>
#include <thread>

#include "files/library.h"
#include "files/order_book.h"
#include "files/order_file.h"
#include "files/shop_backup.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

using test::Folder;

std::unique_ptr<StockBook> book_in(const std::string& path) {
    EXPECT_TRUE(Library::open(path).ok());
    auto book = StockBook::open(path);
    EXPECT_TRUE(book.ok());
    return std::move(*book);
}

StockEntry entry(int n, StockKind kind = StockKind::transfers) {
    StockEntry e;
    e.id = "item " + std::to_string(n);
    e.kind = kind;
    e.name = "Kite “" + std::to_string(n) + "”";
    e.place = "shelf " + std::to_string(n);
    e.medium = "film-559";
    e.from = "Order";
    e.printed = "2027-01-02";
    e.until = "2027-07-01";
    if (kind == StockKind::transfers) e.mark = {std::string(64, 'a'), "backing", "film-559", true, 215.5, 100.1, 12345, 99};
    e.picture = std::string("\x89PNG\0\xff", 6);
    return e;
}

/// What holds whatever was done: counts are their moves' sums, nothing below zero, no more promised than is there.
void look_through(const StockBook& book) {
    const auto all = book.all();
    ASSERT_TRUE(all.ok());
    for (const StockEntry& e : all->entries) {
        const auto moves = book.moves(e.id);
        ASSERT_TRUE(moves.ok());
        double sum = 0;
        for (const StockMove& m : *moves) sum += m.amount;
        EXPECT_NEAR(sum, e.on_hand, 1e-6) << e.id;
        EXPECT_GE(e.on_hand, 0);
        double promised = 0;
        for (const StockShare& s : e.shares) promised += std::max(0.0, s.held - s.taken);
        EXPECT_LE(promised, e.on_hand + 1e-6) << e.id;
    }
}

TEST(StockBook, WhatWasCountedComesBack) {
    const Folder folder;
    const auto book = book_in(folder / "shop.sqlite");
    StockEntry bag = entry(1), blanks = entry(2, StockKind::blanks);
    blanks.style = "tee";
    blanks.colour = "ash";
    blanks.size = "M";
    ASSERT_TRUE(book->count({{bag, 12}, {blanks, 40}}, "2027-06-01").ok());
    bag.on_hand = 12;
    blanks.on_hand = 40;
    ASSERT_TRUE(book->all().ok());
    EXPECT_EQ(book->all()->entries, (std::vector<StockEntry>{bag, blanks}));
    ASSERT_TRUE(book->count({{blanks, 35}}, "2027-06-02").ok());
    ASSERT_TRUE(book->count({{blanks, 35}}, "2027-06-02").ok()) << "counted again, the same";
    EXPECT_EQ(book->moves(blanks.id)->size(), 2u);
    ASSERT_TRUE(book->move({{"spoiled/1", blanks.id, -2, "2027-06-03", "spoiled", "job"}}).ok());
    EXPECT_EQ(book->all()->entries[1].on_hand, 33);
    EXPECT_EQ(book->all()->entries[1].spoiled, 2);
    EXPECT_FALSE(book->count({{blanks, 50}, {bag, -1}}, "2027-06-04").ok());
    EXPECT_EQ(book->all()->entries[1].on_hand, 33) << "all or nothing";
    ASSERT_TRUE(book->change(blanks.id, [](StockEntry& e) { e.place = "box 4"; }).ok());
    ASSERT_TRUE(book->change(blanks.id, [](StockEntry& e) { e.code = "400"; }).ok());
    ASSERT_TRUE(book->count({{blanks, 33}}, "2027-06-05").ok());
    EXPECT_EQ(book->all()->entries[1].place, "box 4") << "one change does not undo the other";
    EXPECT_EQ(book->all()->entries[1].on_hand, 33);
    EXPECT_FALSE(book->change("gone", [](StockEntry&) {}).ok());
    ASSERT_TRUE(book->remove(bag.id).ok());
    EXPECT_EQ(book->all()->entries.size(), 1u);
}

TEST(StockBook, OneDeedCountsOnceAndIsUndone) {
    const Folder folder;
    const auto book = book_in(folder / "shop.sqlite");
    ASSERT_TRUE(book->count({{entry(1), 10}}, "").ok());
    const StockMove pressed{"pressed/job/item 1", "item 1", -4, "2027-06-01", "pressed", "job"};
    for (int n = 0; n < 3; ++n) ASSERT_TRUE(book->move({pressed}).ok());
    EXPECT_EQ(book->all()->entries[0].on_hand, 6);
    StockMove more = pressed;
    more.amount = -7;  // it is seven now, in all
    ASSERT_TRUE(book->move({more}).ok());
    EXPECT_EQ(book->all()->entries[0].on_hand, 3);
    EXPECT_EQ(book->all()->entries[0].shares[0].taken, 7);
    more.amount = -11;
    const auto refused = book->move({more});
    EXPECT_FALSE(refused.ok());
    EXPECT_NE(refused.sentence().find("Kite"), std::string::npos);
    more.amount = 0;
    ASSERT_TRUE(book->move({more}).ok());
    EXPECT_EQ(book->all()->entries[0].on_hand, 10);
    EXPECT_FALSE(book->move({{"x", "nothing", -1, "", "", ""}}).ok());
    EXPECT_FALSE(book->move({{"x", "item 1", std::nan(""), "", "", ""}}).ok());
}

TEST(StockBook, NothingIsPromisedTwice) {
    const Folder folder;
    const auto book = book_in(folder / "shop.sqlite");
    ASSERT_TRUE(book->count({{entry(1), 10}, {entry(2, StockKind::blanks), 10}}, "").ok());
    auto got = book->hold({"a"}, {{"item 1", "a", 7}});
    ASSERT_TRUE(got.ok());
    EXPECT_EQ((*got)[0].amount, 7);
    got = book->hold({"b"}, {{"item 1", "b", 7}, {"item 2", "b", 1}, {"gone", "b", 1}});
    ASSERT_TRUE(got.ok());
    EXPECT_EQ((*got)[0].amount, 3);
    EXPECT_EQ((*got)[1].amount, 0) << "blanks are not promised piece by piece";
    EXPECT_EQ((*got)[2].amount, 0);
    // taken: the promise stands, and is used up
    ASSERT_TRUE(book->move({{"pressed/a", "item 1", -7, "", "pressed", "a"}}).ok());
    look_through(*book);
    EXPECT_FALSE(book->move({{"pressed/c", "item 1", -1, "", "pressed", "c"}}).ok()) << "the rest is b's";
    EXPECT_FALSE(book->count({{entry(1), 2}}, "").ok());
    EXPECT_FALSE(book->remove("item 1").ok());
    ASSERT_TRUE(book->hold({"b"}, {}).ok());
    got = book->hold({"a"}, {{"item 1", "a", 9}});
    EXPECT_EQ((*got)[0].amount, 9) << "seven that it has, two more of three";
    EXPECT_FALSE(book->hold({"a"}, {{"item 1", "b", 1}}).ok());
    look_through(*book);
}

/// Random deeds of one program; every one either holds or is refused.
void work_at(const std::string& path, unsigned seed, int deeds, bool forever = false) {
    auto opened = StockBook::open(path);
    if (!opened) return;
    std::mt19937 random(seed);
    for (int n = 0; n < deeds || forever; ++n) {
        const std::string item = "item " + std::to_string(random() % 4), job = "job " + std::to_string(random() % 5);
        const double amount = static_cast<double>(random() % 9);
        switch (random() % 5) {
        case 0: (void)(*opened)->count({{entry(static_cast<int>(random() % 4)), amount * 3}}, "t"); break;
        case 1: (void)(*opened)->hold({job}, {{item, job, amount}, {"item 0", job, 1}}); break;
        case 2: (void)(*opened)->move({{"pressed/" + job + "/" + item, item, -amount, "t", "pressed", job}}); break;
        case 3:
            (void)(*opened)->move({{"deed " + std::to_string(seed) + " " + std::to_string(n), item, amount - 3, "t", "spoiled", ""}});
            break;
        default: (void)(*opened)->all();
        }
    }
}

TEST(StockBook, TwoProgramsAndAThousandDeedsLoseNone) {
    const Folder folder;
    const std::string path = folder / "shop.sqlite";
    {
        const auto book = book_in(path);
        std::vector<Counted> all;
        for (int n = 0; n < 4; ++n) all.push_back({entry(n), 20});
        ASSERT_TRUE(book->count(all, "").ok());
        ASSERT_TRUE(book->put(entry(100, StockKind::supply)).ok());
    }
    // beside the random deeds each program counts up one item of its own by one: none of these may be missing
    const auto counting = [&](unsigned seed) {
        auto book = StockBook::open(path);
        ASSERT_TRUE(book.ok());
        for (int n = 0; n < 100; ++n) {
            const auto done =
                (*book)->move({{"one " + std::to_string(seed) + "/" + std::to_string(n), "item 100", 1, "t", "counted in", ""}});
            EXPECT_TRUE(done.ok()) << done.sentence();
            work_at(path, seed * 1000 + static_cast<unsigned>(n), 4);
        }
    };
    std::thread one(counting, 1), two(counting, 2);
    one.join();
    two.join();
    const auto book = book_in(path);
    look_through(*book);
    EXPECT_EQ(find_entry(*book->all(), "item 100")->on_hand, 200);
}

TEST(StockBook, AKillInBetweenLeavesNoHalfDeed) {
    const Folder folder;
    const std::string path = folder / "shop.sqlite";
    {
        const auto book = book_in(path);
        std::vector<Counted> all;
        for (int n = 0; n < 4; ++n) all.push_back({entry(n), 20});
        ASSERT_TRUE(book->count(all, "").ok());
    }
    for (unsigned round = 0; round < 12; ++round) {
        const pid_t child = fork();
        if (child == 0) {
            work_at(path, round, 0, true);
            _exit(0);
        }
        usleep(3000 + 1500 * round);
        kill(child, SIGKILL);
        waitpid(child, nullptr, 0);
        const auto book = book_in(path);
        look_through(*book);
    }
}

TEST(StockBook, WhatLayInAMediumIsMovedOver) {
    const Folder folder;
    const std::string path = folder / "shop.sqlite";
    (void)Library::open(path);
    sqlite3* db = nullptr;
    ASSERT_EQ(sqlite3_open(path.c_str(), &db), SQLITE_OK);
    for (const char* sql :
         {"DROP TABLE stock", "DROP TABLE stock_move", "DROP TABLE stock_hold", "PRAGMA user_version = 8",
          "UPDATE item SET json = json_set(json, '$.laying', json('{\"cutting\":\"contour\",\"fingers_mm\":12,\"stock\":[{\"id\":\"great\","
          "\"name\":\"Great "
          "sheet\",\"width_mm\":300,\"length_mm\":500,\"price\":1,\"on_hand\":7},{\"id\":\"free\",\"name\":\"x\",\"width_mm\":300,"
          "\"length_mm\":500,\"price\":1},{\"id\":\"great\",\"name\":\"twice\",\"width_mm\":300,\"length_mm\":500,\"price\":1,\"on_hand\":"
          "3}]}')) "
          "WHERE kind = 'medium' AND id = 'paper-a3'"})
        ASSERT_EQ(sqlite3_exec(db, sql, nullptr, nullptr, nullptr), SQLITE_OK) << sql;
    sqlite3_close(db);
    const auto library = Library::open(path);
    ASSERT_TRUE(library.ok()) << library.sentence();
    EXPECT_EQ((*library)->version(), Library::newest_version);
    const auto book = book_in(path);
    ASSERT_EQ(book->all()->entries.size(), 1u);
    const StockEntry e = book->all()->entries[0];
    EXPECT_EQ(e.id, sheets_id("paper-a3", "great"));
    EXPECT_EQ(e.kind, StockKind::sheets);
    EXPECT_EQ(e.name, "Great sheet");
    EXPECT_EQ(e.on_hand, 7);
    look_through(*book);
    const auto content = (*library)->content();
    ASSERT_TRUE(content.ok());
    for (const Medium& m : content->media)
        if (m.id == "paper-a3") EXPECT_EQ(m.laying.stock.size(), 3u);
}

TEST(StockBook, TablesGoOutAndComeInAgain) {
    const LibraryContent& shop = starting_library();
    const BlankStyle& tee = shop.styles.front();
    const Medium& film = shop.media.front();
    Stock stock;
    StockEntry blanks;
    blanks.kind = StockKind::blanks;
    blanks.style = tee.id;
    blanks.colour = tee.colours[0].name;
    blanks.size = tee.sizes[0];
    blanks.id = blanks_id(blanks.style, blanks.colour, blanks.size);
    blanks.name = tee.name + ", " + blanks.colour + " " + blanks.size;
    blanks.place = "=1+1";
    blanks.on_hand = 12;
    StockEntry roll;
    roll.kind = StockKind::roll;
    roll.medium = film.id;
    roll.name = "Roll, the second";
    roll.id = "roll/2";
    roll.on_hand = 12345.5;
    stock.entries = {blanks, roll};
    const auto back = stock_from_csv(stock_csv(stock), shop.styles, shop.media);
    ASSERT_TRUE(back.ok()) << back.sentence();
    ASSERT_EQ(back->size(), 2u);
    EXPECT_EQ((*back)[0].on_hand, 12);
    EXPECT_NEAR((*back)[1].on_hand, 12345.5, 1);
    for (std::size_t k = 0; k < 2; ++k) {
        StockEntry was = stock.entries[k];
        was.on_hand = 0;
        EXPECT_EQ((*back)[k].entry, was);
    }
    const auto note =
        stock_from_csv("Item;Colour;Size;Qty\n" + tee.name + ";" + blanks.colour + ";" + blanks.size + ";24\n", shop.styles, shop.media);
    ASSERT_TRUE(note.ok()) << note.sentence();
    EXPECT_EQ((*note)[0].entry.id, blanks.id);
    EXPECT_EQ((*note)[0].on_hand, 24);
    for (const char* bad : {"", "blank,colour\nx,y\n", "blank,colour,size,count\nnothing,ash,M,3\n", "kind,count\nmoonbeams,3\n",
                            "kind,medium,count\nroll,nothing,3\n", "kind,medium,name,count\nroll,film-559,x,-1\n",
                            "kind,medium,count\nroll,film-559,1e300\n", "kind,id,medium,name,count\nroll,bag/x,film-559,x,1\n"})
        EXPECT_FALSE(stock_from_csv(bad, shop.styles, shop.media).ok()) << bad;
    const auto half =
        stock_from_csv("blank,colour,size,count\n" + tee.id + "," + blanks.colour + "," + blanks.size + ",2.5\n", shop.styles, shop.media);
    EXPECT_NE(half.sentence().find("Row 2"), std::string::npos) << half.sentence();
}

TEST(StockBook, ADamagedTableIsASentence) {
    const Folder folder;
    const std::string path = folder / "shop.sqlite";
    const auto book = book_in(path);
    ASSERT_TRUE(book->count({{entry(1), 3}}, "").ok());
    sqlite3* db = nullptr;
    ASSERT_EQ(sqlite3_open(path.c_str(), &db), SQLITE_OK);
    for (const char* sql :
         {"UPDATE stock SET json = '{'", "UPDATE stock SET json = x'ff00'", "UPDATE stock SET json = '{}', kind = 'moonbeams'",
          "UPDATE stock SET kind = 'transfers', json = '{\"mark\": 5}'"}) {
        EXPECT_EQ(sqlite3_exec(db, sql, nullptr, nullptr, nullptr), SQLITE_OK);
        EXPECT_FALSE(book->all().ok());
        EXPECT_FALSE(book->all().sentence().empty());
    }
    EXPECT_NE(sqlite3_exec(db, "UPDATE stock SET on_hand = -1", nullptr, nullptr, nullptr), SQLITE_OK);
    sqlite3_close(db);
}

TEST(StockBook, AWholeShopGoesIntoAFileAndComesOutWhole) {
    const Folder folder;
    const std::string path = folder / "shop.sqlite", packed = folder / "kites.orthema";
    const auto book = book_in(path);
    ASSERT_TRUE(book->count({{entry(1), 12}}, "2027-06-01").ok());
    ASSERT_TRUE(save_order(packed, test::small_order(), test::small_art(), {}).ok());
    const auto orders = OrderBook::open(path);
    ASSERT_TRUE(orders.ok());
    for (const auto& [job, at] : {std::pair("job-1", packed), {"job-2", folder / "gone.orthema"}}) {
        KnownOrder k;
        k.card.job = k.card.name = job;
        k.path = at;
        ASSERT_TRUE((*orders)->put(k).ok());
    }
    const auto done = back_up_shop(path, folder / "whole");
    ASSERT_TRUE(done.ok()) << done.sentence();
    EXPECT_EQ(done->orders, 1);
    EXPECT_EQ(done->missing, std::vector<std::string>{folder / "gone.orthema"});
    EXPECT_EQ(test::slurp(folder / "whole").find(std::string(folder / "kites")), std::string::npos) << "says nothing of this machine";
    for (int n = 0; n < 2; ++n) {  // a second time nothing is doubled
        const auto back = restore_shop(folder / "whole", folder / "other/shop.sqlite", folder / "other/orders");
        ASSERT_TRUE(back.ok()) << back.sentence();
        EXPECT_EQ(back->orders, 1);
        EXPECT_EQ(back->before.empty(), n == 0);
    }
    EXPECT_EQ(test::slurp(folder / "other/orders/kites.orthema"), test::slurp(packed));
    EXPECT_FALSE(std::filesystem::exists(folder / "other/orders/kites-2.orthema"));
    EXPECT_EQ(book_in(folder / "other/shop.sqlite")->all()->entries, book->all()->entries);
    // cut anywhere, or of another kind: refused, and what is there stays
    const std::string whole = test::slurp(folder / "whole"), there = test::slurp(folder / "other/shop.sqlite");
    for (const std::size_t length : {std::size_t{0}, std::size_t{100}, whole.size() / 3, whole.size() - 5000}) {
        test::spill(folder / "cut", whole.substr(0, length));
        EXPECT_FALSE(restore_shop(folder / "cut", folder / "other/shop.sqlite", folder / "other/orders").ok()) << length;
        EXPECT_EQ(test::slurp(folder / "other/shop.sqlite"), there);
    }
    EXPECT_FALSE(restore_shop(path, folder / "other/shop.sqlite", folder / "other/orders").ok()) << "a library is no whole shop";
}

}  // namespace TESTED
}  // namespace orthema
