// The shop's list of orders: kept in its database, shared by several programs, and never the only place of anything.
#include "files/order_book.h"

#include <sqlite3.h>

#include <random>
#include <thread>

#include "files/library.h"
#include "files/order_file.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

using test::Folder;

KnownOrder known(int n) {
    KnownOrder k;
    k.card.job = "job-" + std::to_string(n);
    k.card.name = "Order " + std::to_string(n) + " “quoted”";
    k.card.customer = n % 2 == 0 ? "Millrace rowers" : "";
    k.card.due = "2027-06-1" + std::to_string(n % 10);
    k.card.due_at = 600 + n;
    k.card.garments = n;
    k.card.stages = {{Standing::look, false, n}, {Standing::blocked, false, 1}, {Standing::settled, true, 0}};
    k.card.next = "Fit: something";
    k.card.wants = {{"blanks/tee/ash/M", StockKind::blanks, "Tee, ash M", double(n + 1)}, {"film/f", StockKind::roll, "Film", 1234.5}};
    k.card.jobs = {"a", "b"};
    k.card.saved = "2027-06-01T10:00:00";
    k.path = "/somewhere/" + std::to_string(n) + ".orthema";
    k.picture = std::string("\x89PNG\0\xff", 6);
    return k;
}

std::unique_ptr<OrderBook> book_in(const std::string& path) {
    (void)Library::open(path);
    auto book = OrderBook::open(path);
    EXPECT_TRUE(book.ok());
    return std::move(*book);
}

TEST(OrderBook, WhatIsPutInComesOutAgainAndPutAwayAndForgottenStay) {
    const Folder folder;
    const std::string path = folder / "shop.sqlite";
    std::vector<KnownOrder> all;
    {
        const auto book = book_in(path);
        for (int n = 0; n < 5; ++n) {
            all.push_back(known(n));
            ASSERT_TRUE(book->put(all.back()).ok());
        }
        KnownOrder moved = all[1];
        moved.path = "/elsewhere.orthema";
        moved.picture.clear();  // what was drawn before stays
        ASSERT_TRUE(book->put(moved).ok());
        all[1].path = moved.path;
        ASSERT_TRUE(book->put_away("job-2", true).ok());
        all[2].away = true;
        ASSERT_TRUE(book->forget("job-3").ok());
        all.erase(all.begin() + 3);
    }
    const auto again = book_in(path);
    ASSERT_TRUE(again->all().ok());
    EXPECT_EQ(*again->all(), all);
}

TEST(OrderBook, ARowThatCannotBeReadIsLeftOutAndTheRestIsThere) {
    const Folder folder;
    const std::string path = folder / "shop.sqlite";
    const auto book = book_in(path);
    for (int n = 0; n < 4; ++n) ASSERT_TRUE(book->put(known(n)).ok());
    sqlite3* db = nullptr;
    ASSERT_EQ(sqlite3_open(path.c_str(), &db), SQLITE_OK);
    for (const char* sql :
         {"UPDATE known_order SET card = '{' WHERE job = 'job-0'", "UPDATE known_order SET card = x'ff00' WHERE job = 'job-1'",
          "UPDATE known_order SET card = '{\"name\": 5}' WHERE job = 'job-2'"})
        EXPECT_EQ(sqlite3_exec(db, sql, nullptr, nullptr, nullptr), SQLITE_OK);
    sqlite3_close(db);
    ASSERT_TRUE(book->all().ok());
    ASSERT_EQ(book->all()->size(), 1u);
    EXPECT_EQ(book->all()->front(), known(3));
}

TEST(OrderBook, TwoProgramsLoseNothingOfEachOther) {
    const Folder folder;
    const std::string path = folder / "shop.sqlite";
    (void)book_in(path);
    const auto work = [&](int from) {
        const auto book = book_in(path);
        for (int n = from; n < from + 100; ++n) EXPECT_TRUE(book->put(known(n)).ok());
    };
    std::thread one(work, 0), two(work, 1000);
    one.join();
    two.join();
    EXPECT_EQ(book_in(path)->all()->size(), 200u);
}

TEST(OrderCard, SaysWhatComesNextAndLiesWhereItIsDue) {
    Order order = test::small_order();
    order.customer = "Millrace rowers";
    const auto art = std::make_shared<KnownArt>();
    art->facts[order.art[0].id] = test::plain_facts();
    const Work w = work(order, {}, Shared<KnownArt>(art));
    const OrderCard card = card_of(order, w, "2027-06-01T10:00:00");
    EXPECT_EQ(card.garments, garments_in(order));
    ASSERT_EQ(card.stages.size(), stages().size());
    const int sheets = stage_index("sheets");
    EXPECT_NE(card.stages[static_cast<std::size_t>(sheets)].count, 0) << "nothing is laid out yet";
    EXPECT_FALSE(card.next.empty());
    // the cards of a desk: by day and hour, without a day last, of those the last saved first
    std::vector<OrderCard> cards(5, card);
    cards[0].due = "2027-06-12";
    cards[1].due = "2027-06-11";
    cards[2].due = "";
    cards[2].saved = "2027-05-01T10:00:00";
    cards[3].due = "2027-06-12";
    cards[3].due_at = 9 * 60;
    cards[4].due = "";
    for (int n = 0; n < 5; ++n) cards[static_cast<std::size_t>(n)].name = std::to_string(n);
    std::sort(cards.begin(), cards.end(), lies_before);
    std::string in_turn;
    for (const OrderCard& c : cards) in_turn += c.name;
    EXPECT_EQ(in_turn, "13042");
    EXPECT_EQ(days_between("2027-06-01", "2027-06-12"), 11);
    EXPECT_FALSE(days_between("2027-06-01", ""));
}

}  // namespace TESTED
}  // namespace orthema
