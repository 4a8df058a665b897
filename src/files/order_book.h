// Order book: the orders that a shop has and where they are kept, in the shop library's database. What it knows is a copy: the orders
// are the files.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/pipeline/order_card.h"

struct sqlite3;

namespace orthema {

struct KnownOrder {
    OrderCard card;
    std::string path;
    bool away = false;    ///< put away: done
    std::string picture;  ///< PNG of its garments; may be empty
    bool operator==(const KnownOrder&) const = default;
};

/// Those that are not put away.
std::vector<OpenOrder> open_orders(const std::vector<KnownOrder>& known);

class OrderBook {
public:
    /// On the database of a shop library, which Library::open has brought to the newest version before.
    static Result<std::unique_ptr<OrderBook>> open(const std::string& library_path);
    ~OrderBook();
    OrderBook(const OrderBook&) = delete;
    OrderBook& operator=(const OrderBook&) = delete;

    /// Adds or replaces by the card's job. Without a picture the one that is there stays.
    Result<Done> put(const KnownOrder& order);
    Result<Done> put_away(const std::string& job, bool away);
    /// No longer known; its file stays.
    Result<Done> forget(const std::string& job);
    /// All of them. A row that cannot be read is left out.
    Result<std::vector<KnownOrder>> all() const;

private:
    explicit OrderBook(sqlite3* db) : db_(db) {}
    sqlite3* db_;
};

}  // namespace orthema
