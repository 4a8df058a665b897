// Stock book: what the shop has and what is promised of it, in the shop library's database. Every count is the sum of its moves, kept
// with them in one transaction and never below zero; a move of one id counts once, whoever says it and however often.
#pragma once

#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/supply/supply.h"

struct sqlite3;

namespace orthema {

/// A promise of finished transfers to an order or job.
struct Hold {
    std::string item, job;
    double amount = 0;
    bool operator==(const Hold&) const = default;
};

/// What somebody counted.
struct Counted {
    StockEntry entry;  ///< what it is; its own counts are not looked at
    double on_hand = 0;
};

class StockBook {
public:
    /// On the database of a shop library, which Library::open has brought to the newest version before. Safe beside other programs that
    /// have it open: each change is one transaction, and waits for theirs.
    static Result<std::unique_ptr<StockBook>> open(const std::string& library_path);
    ~StockBook();
    StockBook(const StockBook&) = delete;
    StockBook& operator=(const StockBook&) = delete;

    Result<Stock> all() const;
    /// What it is called, where it lies and so on: adds, or replaces all but the counts.
    Result<Done> put(const StockEntry& entry);
    /// The same of one that is there, whatever others changed of it meanwhile.
    Result<Done> change(const std::string& id, const std::function<void(StockEntry&)>& how);
    /// Sets counts as they were counted, and adds what is new. All or nothing.
    Result<Done> count(const std::vector<Counted>& counted, const std::string& at);
    /// All or nothing. A move to an item that is not there, or that would leave less than nothing or less than is promised, fails with a
    /// sentence that names it.
    Result<Done> move(const std::vector<StockMove>& moves);
    /// These promises in place of all that the jobs have. What is not free any more is promised as far as it goes: what is granted comes
    /// back, in the order of what was asked.
    Result<std::vector<Hold>> hold(const std::vector<std::string>& jobs, const std::vector<Hold>& wanted);
    /// An item with its moves; fails where some of it is promised.
    Result<Done> remove(const std::string& id);
    /// Of one item, the latest first.
    Result<std::vector<StockMove>> moves(const std::string& item) const;

private:
    explicit StockBook(sqlite3* db) : db_(db) {}
    Result<Done> whole(const std::function<Result<Done>()>& what);
    Result<Done> put_entry(const StockEntry& entry);
    Result<Done> put_move(const StockMove& move);
    sqlite3* db_;
};

/// The tables; a step of the library's migration. It moves counts that lay in media over.
extern const char* const stock_tables;

/// Columns kind, blank, colour, size, medium, stock, name, place, code, on hand, unit; one row for each entry that is not in a bag.
std::string stock_csv(const Stock& stock);
/// Reads such a table, or a simpler one of blank, colour, size and count as a delivery note has it; blanks by id or name. The sentence
/// names the first row that cannot be.
Result<std::vector<Counted>> stock_from_csv(const std::string& text, const std::vector<BlankStyle>& styles,
                                            const std::vector<Medium>& media);
std::string to_buy_csv(const std::vector<ToBuy>& rows);

}  // namespace orthema
