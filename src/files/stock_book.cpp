#include "files/stock_book.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>

#include "files/json_in.h"
#include "files/order_json.h"
#include "files/sqlite.h"

namespace orthema {

const char* const stock_tables =
    "CREATE TABLE stock(id TEXT PRIMARY KEY, kind TEXT NOT NULL, json TEXT NOT NULL, picture BLOB, on_hand REAL NOT NULL DEFAULT 0 "
    "CHECK(on_hand >= 0));"
    "CREATE TABLE stock_move(id TEXT PRIMARY KEY, item TEXT NOT NULL, amount REAL NOT NULL, at TEXT NOT NULL, why TEXT NOT NULL, "
    "job TEXT NOT NULL);"
    "CREATE INDEX stock_move_item ON stock_move(item);"
    "CREATE TABLE stock_hold(item TEXT NOT NULL, job TEXT NOT NULL, amount REAL NOT NULL CHECK(amount >= 0), PRIMARY KEY(item, job));"
    // what lay in a medium as its count
    "INSERT OR IGNORE INTO stock(id, kind, json, on_hand) "
    "SELECT 'sheets/' || item.id || '/' || json_extract(s.value, '$.id'), 'sheets', "
    "json_object('name', json_extract(s.value, '$.name'), 'medium', item.id, 'stock', json_extract(s.value, '$.id')), "
    "max(0, json_extract(s.value, '$.on_hand')) "
    "FROM item, json_each(item.json, '$.laying.stock') AS s WHERE item.kind = 'medium' AND json_extract(s.value, '$.on_hand') IS NOT NULL "
    "AND json_extract(s.value, '$.id') IS NOT NULL;"
    "INSERT INTO stock_move(id, item, amount, at, why, job) SELECT 'moved over/' || id, id, on_hand, '', 'counted in', '' FROM stock;";

namespace {

constexpr double little = 1e-6;
constexpr double most_of_one = 1e9;

Error not_read() { return Error{"The stock in the shop library cannot be read."}; }
Result<Done> ended(int code) {
    if (code == SQLITE_DONE || code == SQLITE_ROW) return Done{};
    return Error{code == SQLITE_FULL ? "The disk is full: the stock was not changed." : "The stock cannot be written to the shop library."};
}

json mark_json(const TransferMark& m) {
    return {{"art", m.art},        {"shape", m.shape},      {"medium", m.medium},    {"mirrored", m.mirrored},
            {"width_mm", m.width}, {"height_mm", m.height}, {"ink_mm2", m.ink_area}, {"white_mm2", m.white_area}};
}

TransferMark read_mark(const In& in) {
    TransferMark m;
    m.art = in["art"].text();
    m.shape = in["shape"].text();
    m.medium = in["medium"].text();
    m.mirrored = in["mirrored"].flag();
    m.width = in["width_mm"].number(0, 1e5);
    m.height = in["height_mm"].number(0, 1e5);
    m.ink_area = in["ink_mm2"].number(0, 1e10);
    m.white_area = in["white_mm2"].number(0, 1e10);
    return m;
}

/// The texts of an entry by their names in files.
struct EntryText {
    const char* key;
    std::string StockEntry::*part;
};
constexpr EntryText entry_texts[] = {{"name", &StockEntry::name},     {"place", &StockEntry::place},     {"code", &StockEntry::code},
                                     {"blank", &StockEntry::style},   {"colour", &StockEntry::colour},   {"size", &StockEntry::size},
                                     {"medium", &StockEntry::medium}, {"stock", &StockEntry::stock},     {"method", &StockEntry::method},
                                     {"unit", &StockEntry::unit},     {"printed", &StockEntry::printed}, {"until", &StockEntry::until},
                                     {"from", &StockEntry::from}};

std::string entry_json(const StockEntry& e) {
    json j = json::object();
    for (const EntryText& t : entry_texts)
        if (!(e.*t.part).empty()) j[t.key] = e.*t.part;
    if (e.per_dm2 > 0) j["per_dm2"] = e.per_dm2;
    if (e.kind == StockKind::transfers) j["mark"] = mark_json(e.mark);
    return json_text(j);
}

Result<StockEntry> entry_from(const std::string& text, const std::string& kind) {
    const auto parsed = parse_json(text, "An entry of the stock");
    if (!parsed) return parsed.error();
    return guarded([&] {
        const In in{*parsed, ""};
        StockEntry e;
        const json kinds(kind);
        e.kind = In{kinds, "kind"}.one_of<StockKind>(stock_kind_count, stock_kind_key);
        for (const EntryText& t : entry_texts)
            if (in.has(t.key)) e.*t.part = in[t.key].text();
        if (in.has("per_dm2")) e.per_dm2 = in["per_dm2"].number(0, 1e6);
        if (in.has("mark")) e.mark = read_mark(in["mark"]);
        return e;
    });
}

}  // namespace

StockBook::~StockBook() { sqlite3_close(db_); }

Result<std::unique_ptr<StockBook>> StockBook::open(const std::string& path) {
    sqlite3* db = open_database(path);
    if (db == nullptr) return not_read();
    std::unique_ptr<StockBook> book(new StockBook(db));
    if (!Statement(db, "SELECT id, kind, json, picture, on_hand FROM stock LIMIT 0").ok ||
        !Statement(db, "SELECT id, item, amount, at, why, job FROM stock_move LIMIT 0").ok ||
        !Statement(db, "SELECT item, job, amount FROM stock_hold LIMIT 0").ok)
        return not_read();
    return book;
}

Result<Done> StockBook::whole(const std::function<Result<Done>()>& what) {
    const auto run = [&](const char* sql) -> Result<Done> {
        const int code = sqlite3_exec(db_, sql, nullptr, nullptr, nullptr);
        return ended(code == SQLITE_OK ? SQLITE_DONE : code);
    };
    if (auto begun = run("BEGIN IMMEDIATE;"); !begun) return begun;
    auto done = what();
    if (done) done = run("COMMIT;");
    if (!done) (void)run("ROLLBACK;");
    return done;
}

Result<Stock> StockBook::all() const {
    Stock out;
    std::map<std::string, std::size_t> at;
    // one reading transaction: counts, takings and promises are of one moment
    if (sqlite3_exec(db_, "BEGIN;", nullptr, nullptr, nullptr) != SQLITE_OK) return not_read();
    struct End {
        sqlite3* db;
        ~End() { sqlite3_exec(db, "COMMIT;", nullptr, nullptr, nullptr); }
    } end{db_};
    const Statement entries(db_, "SELECT id, kind, json, picture, on_hand FROM stock ORDER BY rowid");
    if (!entries.ok) return not_read();
    int code = SQLITE_ROW;
    while ((code = sqlite3_step(entries.s)) == SQLITE_ROW) {
        auto e = entry_from(entries.text(2), entries.text(1));
        if (!e) return not_read();
        e->id = entries.text(0);
        e->picture = entries.text(3);
        e->on_hand = entries.number(4);
        at[e->id] = out.entries.size();
        out.entries.push_back(std::move(*e));
    }
    if (code != SQLITE_DONE) return not_read();
    const auto share = [&](const std::string& item, const std::string& job) -> StockShare* {
        const auto found = at.find(item);
        if (found == at.end()) return nullptr;
        auto& shares = out.entries[found->second].shares;
        for (StockShare& s : shares)
            if (s.job == job) return &s;
        shares.push_back({job, 0, 0});
        return &shares.back();
    };
    const Statement taken(db_, "SELECT item, job, why, sum(amount) FROM stock_move GROUP BY item, job, why");
    if (!taken.ok) return not_read();
    while ((code = sqlite3_step(taken.s)) == SQLITE_ROW) {
        if (taken.text(2) == "spoiled") {
            if (const auto found = at.find(taken.text(0)); found != at.end()) out.entries[found->second].spoiled -= taken.number(3);
        } else if (!taken.text(1).empty()) {
            if (StockShare* s = share(taken.text(0), taken.text(1))) s->taken -= taken.number(3);
        }
    }
    if (code != SQLITE_DONE) return not_read();
    const Statement held(db_, "SELECT item, job, amount FROM stock_hold");
    if (!held.ok) return not_read();
    while ((code = sqlite3_step(held.s)) == SQLITE_ROW)
        if (StockShare* s = share(held.text(0), held.text(1))) s->held = held.number(2);
    if (code != SQLITE_DONE) return not_read();
    return out;
}

Result<Done> StockBook::put_entry(const StockEntry& e) {
    if (e.id.empty() || e.name.empty()) return Error{"What is counted needs a name."};
    const Statement put(db_,
                        "INSERT INTO stock(id, kind, json, picture) VALUES(?, ?, ?, ?) ON CONFLICT(id) DO UPDATE SET kind = excluded.kind, "
                        "json = excluded.json, picture = coalesce(excluded.picture, picture)");
    if (!put.ok) return ended(SQLITE_ERROR);
    put.bind(1, e.id);
    put.bind(2, std::string(stock_kind_key(e.kind)));
    put.bind(3, entry_json(e));
    if (e.picture.empty())
        put.bind_nothing(4);
    else
        put.bind_bytes(4, e.picture);
    return ended(sqlite3_step(put.s));
}

/// Within a transaction.
Result<Done> StockBook::put_move(const StockMove& m) {
    if (!std::isfinite(m.amount) || std::abs(m.amount) > most_of_one) return Error{"So many cannot be counted."};
    double before = 0, on_hand = 0;
    std::string name;
    {
        const Statement was(db_, "SELECT amount, item FROM stock_move WHERE id = ?");
        if (!was.ok) return ended(SQLITE_ERROR);
        was.bind(1, m.id);
        if (sqlite3_step(was.s) == SQLITE_ROW) {
            if (was.text(1) != m.item) return Error{"The same deed cannot be counted on two things."};
            before = was.number(0);
        }
    }
    {
        const Statement now(db_, "SELECT on_hand, coalesce(json_extract(json, '$.name'), id) FROM stock WHERE id = ?");
        if (!now.ok) return ended(SQLITE_ERROR);
        now.bind(1, m.item);
        if (sqlite3_step(now.s) != SQLITE_ROW) return Error{"What is to be counted is not in the stock any more."};
        on_hand = now.number(0);
        name = now.text(1);
    }
    double after = on_hand + m.amount - before;
    if (std::abs(after) < little) after = 0;
    if (after < 0) return Error{"There are not so many of “{name}” on hand.", {{"name", name}}};
    const Statement put(db_, m.amount == 0 ? "DELETE FROM stock_move WHERE id = ?1"
                                           : "INSERT INTO stock_move(id, item, amount, at, why, job) VALUES(?1, ?2, ?3, ?4, ?5, ?6) ON "
                                             "CONFLICT(id) DO UPDATE SET amount = excluded.amount, at = excluded.at, why = excluded.why, "
                                             "job = excluded.job");
    if (!put.ok) return ended(SQLITE_ERROR);
    put.bind(1, m.id);
    if (m.amount != 0) {
        put.bind(2, m.item);
        put.bind(3, m.amount);
        put.bind(4, m.at);
        put.bind(5, m.why);
        put.bind(6, m.job);
    }
    if (auto done = ended(sqlite3_step(put.s)); !done) return done;
    const Statement set(db_, "UPDATE stock SET on_hand = ? WHERE id = ?");
    if (!set.ok) return ended(SQLITE_ERROR);
    set.bind(1, after);
    set.bind(2, m.item);
    if (auto done = ended(sqlite3_step(set.s)); !done) return done;
    // what is promised and not taken yet must still be there
    const Statement open(db_,
                         "SELECT sum(max(0, h.amount + coalesce((SELECT sum(m.amount) FROM stock_move m WHERE m.item = h.item AND m.job = "
                         "h.job AND m.why <> 'spoiled'), 0))) FROM stock_hold h WHERE h.item = ?");
    if (!open.ok) return ended(SQLITE_ERROR);
    open.bind(1, m.item);
    if (sqlite3_step(open.s) == SQLITE_ROW && after < on_hand && open.number(0) > after + little)
        return Error{"“{name}” is promised to an order: put it back there first.", {{"name", name}}};
    return Done{};
}

Result<Done> StockBook::put(const StockEntry& entry) {
    return whole([&] { return put_entry(entry); });
}

Result<Done> StockBook::change(const std::string& id, const std::function<void(StockEntry&)>& how) {
    return whole([&]() -> Result<Done> {
        StockEntry e;
        {
            const Statement is(db_, "SELECT json, kind FROM stock WHERE id = ?");
            if (!is.ok) return ended(SQLITE_ERROR);
            is.bind(1, id);
            if (sqlite3_step(is.s) != SQLITE_ROW) return Error{"What was to be changed is not in the stock any more."};
            auto read = entry_from(is.text(0), is.text(1));
            if (!read) return not_read();
            e = std::move(*read);
        }
        how(e);
        e.id = id;
        return put_entry(e);
    });
}

Result<Done> StockBook::count(const std::vector<Counted>& counted, const std::string& at) {
    return whole([&]() -> Result<Done> {
        for (const Counted& c : counted) {
            if (!(c.on_hand >= 0) || c.on_hand > most_of_one)
                return Error{"“{name}”: so many cannot be on hand.", {{"name", c.entry.name}}};
            {  // what it is called and where it lies may have been changed meanwhile: only what is new is described
                const Statement there(db_, "SELECT 1 FROM stock WHERE id = ?");
                there.bind(1, c.entry.id);
                if (!there.ok) return ended(SQLITE_ERROR);
                if (sqlite3_step(there.s) != SQLITE_ROW)
                    if (auto done = put_entry(c.entry); !done) return done;
            }
            double now = 0;
            long long next = 0;
            {
                const Statement is(db_, "SELECT on_hand FROM stock WHERE id = ?");
                is.bind(1, c.entry.id);
                if (!is.ok || sqlite3_step(is.s) != SQLITE_ROW) return ended(SQLITE_ERROR);
                now = is.number(0);
                const Statement number(db_, "SELECT coalesce(max(rowid), 0) + 1 FROM stock_move");
                if (!number.ok || sqlite3_step(number.s) != SQLITE_ROW) return ended(SQLITE_ERROR);
                next = static_cast<long long>(number.number(0));
            }
            if (std::abs(now - c.on_hand) < little) continue;
            // deeds before it may have been deleted: the number alone could come twice
            std::string id;
            for (;; ++next) {
                id = "counted/" + std::to_string(next) + "/" + c.entry.id;
                const Statement there(db_, "SELECT 1 FROM stock_move WHERE id = ?");
                there.bind(1, id);
                if (sqlite3_step(there.s) != SQLITE_ROW) break;
            }
            if (auto done = put_move({id, c.entry.id, c.on_hand - now, at, "counted in", {}}); !done) return done;
        }
        return Done{};
    });
}

Result<Done> StockBook::move(const std::vector<StockMove>& moves) {
    return whole([&]() -> Result<Done> {
        for (const StockMove& m : moves)
            if (auto done = put_move(m); !done) return done;
        return Done{};
    });
}

Result<std::vector<Hold>> StockBook::hold(const std::vector<std::string>& jobs, const std::vector<Hold>& wanted) {
    std::vector<Hold> granted;
    const auto done = whole([&]() -> Result<Done> {
        for (const std::string& job : jobs) {
            const Statement clear(db_, "DELETE FROM stock_hold WHERE job = ?");
            if (!clear.ok) return ended(SQLITE_ERROR);
            clear.bind(1, job);
            if (auto d = ended(sqlite3_step(clear.s)); !d) return d;
        }
        for (const Hold& h : wanted) {
            if (std::find(jobs.begin(), jobs.end(), h.job) == jobs.end()) return Error{"A promise is for one of the order's own jobs."};
            const Statement left(
                db_,
                "SELECT s.on_hand - coalesce((SELECT sum(max(0, h.amount + coalesce((SELECT sum(m.amount) FROM stock_move m "
                "WHERE m.item = h.item AND m.job = h.job AND m.why <> 'spoiled'), 0))) FROM stock_hold h WHERE h.item = s.id "
                "AND h.job <> ?2), 0), coalesce((SELECT -sum(m.amount) FROM stock_move m WHERE m.item = s.id AND m.job = ?2 "
                "AND m.why <> 'spoiled'), 0), coalesce((SELECT amount FROM stock_hold WHERE item = s.id AND job = ?2), 0) "
                "FROM stock s WHERE s.id = ?1 AND s.kind = 'transfers'");
            if (!left.ok) return ended(SQLITE_ERROR);
            left.bind(1, h.item);
            left.bind(2, h.job);
            Hold got = h;
            got.amount = 0;
            if (sqlite3_step(left.s) == SQLITE_ROW) {
                // in all: what it has taken, and what is still there for it
                const double most = std::max(0.0, left.number(0)) + left.number(1), has = left.number(2);
                got.amount = std::clamp(h.amount, 0.0, std::max(0.0, most - has));
                const Statement put(
                    db_,
                    "INSERT INTO stock_hold(item, job, amount) VALUES(?, ?, ?) ON CONFLICT(item, job) DO UPDATE SET amount = "
                    "amount + excluded.amount");
                if (!put.ok) return ended(SQLITE_ERROR);
                put.bind(1, h.item);
                put.bind(2, h.job);
                put.bind(3, got.amount);
                if (auto d = ended(sqlite3_step(put.s)); !d) return d;
            }
            granted.push_back(std::move(got));
        }
        return Done{};
    });
    if (!done) return done.error();
    return granted;
}

Result<Done> StockBook::remove(const std::string& id) {
    return whole([&]() -> Result<Done> {
        {
            const Statement held(db_, "SELECT 1 FROM stock_hold WHERE item = ? AND amount > 0");
            held.bind(1, id);
            if (!held.ok) return ended(SQLITE_ERROR);
            if (sqlite3_step(held.s) == SQLITE_ROW) return Error{"Some of it is promised to an order: put it back there first."};
        }
        for (const char* sql :
             {"DELETE FROM stock_hold WHERE item = ?", "DELETE FROM stock_move WHERE item = ?", "DELETE FROM stock WHERE id = ?"}) {
            const Statement drop(db_, sql);
            if (!drop.ok) return ended(SQLITE_ERROR);
            drop.bind(1, id);
            if (auto done = ended(sqlite3_step(drop.s)); !done) return done;
        }
        return Done{};
    });
}

Result<std::vector<StockMove>> StockBook::moves(const std::string& item) const {
    const Statement all(db_, "SELECT id, item, amount, at, why, job FROM stock_move WHERE item = ? ORDER BY rowid DESC");
    if (!all.ok) return not_read();
    all.bind(1, item);
    std::vector<StockMove> out;
    int code = SQLITE_ROW;
    while ((code = sqlite3_step(all.s)) == SQLITE_ROW)
        out.push_back({all.text(0), all.text(1), all.number(2), all.text(3), all.text(4), all.text(5)});
    if (code != SQLITE_DONE) return not_read();
    return out;
}

}  // namespace orthema
