#include "files/order_book.h"

#include "files/json_in.h"
#include "files/order_json.h"
#include "files/sqlite.h"

namespace orthema {

namespace {

Error not_read() { return Error{"The list of orders in the shop library cannot be read."}; }
Result<Done> ended(int code) {
    if (code == SQLITE_DONE) return Done{};
    return Error{code == SQLITE_FULL ? "The disk is full: the list of orders was not kept."
                                     : "The list of orders cannot be written to the shop library."};
}

const char* standing_key(Standing s) { return s == Standing::settled ? "settled" : s == Standing::look ? "look" : "blocked"; }

std::string card_json(const OrderCard& c) {
    json j{{"name", c.name}, {"customer", c.customer}, {"due", c.due},   {"due_minutes", c.due_at}, {"garments", c.garments},
           {"next", c.next}, {"saved", c.saved},       {"jobs", c.jobs}, {"stages", json::array()}};
    for (const Want& w : c.wants)
        j["wants"].push_back({{"item", w.item}, {"kind", stock_kind_key(w.kind)}, {"name", w.name}, {"amount", w.amount}});
    for (const StageMark& m : c.stages)
        j["stages"].push_back({{"standing", standing_key(m.standing)}, {"waiting", m.waiting}, {"count", m.count}});
    return json_text(j);
}

Result<OrderCard> card_from(const std::string& text) {
    const auto parsed = parse_json(text, "A card of an order");
    if (!parsed) return parsed.error();
    return guarded([&] {
        const In in{*parsed, ""};
        OrderCard c;
        c.name = in["name"].text();
        c.customer = in["customer"].text();
        c.due = in["due"].text();
        c.due_at = in["due_minutes"].whole(0, 7 * 24 * 60);
        c.garments = in["garments"].whole(0, 2000000000);
        c.next = in["next"].text();
        c.saved = in["saved"].text();
        in["jobs"].each(1000, [&](const In& e) { c.jobs.push_back(e.text()); });
        if (in.has("wants"))
            in["wants"].each(50000, [&](const In& e) {
                c.wants.push_back({e["item"].text(), e["kind"].one_of<StockKind>(stock_kind_count, stock_kind_key), e["name"].text(),
                                   e["amount"].number(0, 1e9)});
            });
        in["stages"].each(100, [&](const In& e) {
            c.stages.push_back({e["standing"].one_of<Standing>(3, standing_key), e["waiting"].flag(), e["count"].whole(0, 1000000)});
        });
        return c;
    });
}

}  // namespace

std::vector<OpenOrder> open_orders(const std::vector<KnownOrder>& known) {
    std::vector<OpenOrder> out;
    for (const KnownOrder& o : known)
        if (!o.away) out.push_back(open_of(o.card));
    return out;
}

OrderBook::~OrderBook() { sqlite3_close(db_); }

Result<std::unique_ptr<OrderBook>> OrderBook::open(const std::string& path) {
    sqlite3* db = open_database(path);
    if (db == nullptr) return not_read();
    std::unique_ptr<OrderBook> book(new OrderBook(db));
    if (!Statement(db, "SELECT job, path, card, picture, away FROM known_order LIMIT 0").ok) return not_read();
    return book;
}

Result<Done> OrderBook::put(const KnownOrder& order) {
    const Statement put(db_,
                        "INSERT INTO known_order(job, path, card, picture, away) VALUES(?, ?, ?, ?, ?) ON CONFLICT(job) DO UPDATE SET "
                        "path = excluded.path, card = excluded.card, picture = coalesce(excluded.picture, picture), away = excluded.away");
    if (!put.ok) return ended(SQLITE_ERROR);
    put.bind(1, order.card.job);
    put.bind(2, order.path);
    put.bind(3, card_json(order.card));
    if (order.picture.empty())
        put.bind_nothing(4);
    else
        put.bind_bytes(4, order.picture);
    put.bind(5, order.away ? 1 : 0);
    return ended(sqlite3_step(put.s));
}

Result<Done> OrderBook::put_away(const std::string& job, bool away) {
    const Statement set(db_, "UPDATE known_order SET away = ? WHERE job = ?");
    if (!set.ok) return ended(SQLITE_ERROR);
    set.bind(1, away ? 1 : 0);
    set.bind(2, job);
    return ended(sqlite3_step(set.s));
}

Result<Done> OrderBook::forget(const std::string& job) {
    const Statement out(db_, "DELETE FROM known_order WHERE job = ?");
    if (!out.ok) return ended(SQLITE_ERROR);
    out.bind(1, job);
    return ended(sqlite3_step(out.s));
}

Result<std::vector<KnownOrder>> OrderBook::all() const {
    const Statement rows(db_, "SELECT job, path, card, picture, away FROM known_order ORDER BY rowid");
    if (!rows.ok) return not_read();
    std::vector<KnownOrder> out;
    int code = SQLITE_ROW;
    while ((code = sqlite3_step(rows.s)) == SQLITE_ROW) {
        auto card = card_from(rows.text(2));
        if (!card) continue;  // the order itself is a file: it is known again when it is saved
        KnownOrder o{std::move(*card), rows.text(1), rows.number(4) != 0, rows.text(3)};
        o.card.job = rows.text(0);
        out.push_back(std::move(o));
    }
    if (code != SQLITE_DONE) return not_read();
    return out;
}

}  // namespace orthema
