// Shelf: finished transfers that lie there against those that an order asks for: what can be used, what was promised, and what an order
// leaves over for the next.
#pragma once

#include <map>
#include <set>
#include <string>
#include <utility>
#include <vector>

#include "core/records/press_record.h"
#include "core/shop/stock.h"
#include "core/sheets/sheets.h"

namespace orthema {

/// By what a transfer is known again on the shelf.
TransferMark mark_of(const Order& order, const Transfer& transfer);
/// Whether it may lie on the shelf at all: its method keeps, and it is no board of a jig. For how many days; 0: not.
int keeps_days(const Order& order, const Transfer& transfer);

/// What lies there for one transfer of the order.
struct ShelfOffer {
    std::string transfer, bag;  ///< ids
    int free = 0;               ///< in the bag, promised to nobody else
    int use = 0;                ///< of them that are asked for and not there yet
    double narrower = 0;        ///< than asked, a share; 0: just as asked
};
/// Widths that differ by no more than this share are offered.
constexpr double near_width = 0.08;
/// Oldest first, and of equal age the smaller bag; those that are just as asked come before the near ones. Nothing that is past its time.
std::vector<ShelfOffer> shelf_offers(const Order& order, const TransferSet& set, const Stock& stock, const std::string& today);

/// The order with so many of a bag in place of printing them, for whom they are wanted first. Copies that were laid out for them go.
Order with_from_shelf(const Order& order, const TransferSet& set, const ShelfOffer& offer);
/// With all that is just as asked.
Order with_shelf_used(const Order& order, const TransferSet& set, const Stock& stock, const std::string& today);
/// The sizes that asked for this transfer at the width of a bag that is near, and the bag used for them.
Order with_width_of(const Order& order, const TransferSet& set, const ShelfOffer& offer, const Stock& stock);
/// What the order takes out of a bag is printed after all.
Order without_from_shelf(const Order& order, const std::string& bag);

/// A promise from the shelf, as the order has it.
struct FromShelf {
    std::string bag, job;  ///< ids; the order's own where it is no gang
    std::string transfer;
    int copies = 0;
};
/// All of them, of transfers that are still asked for: what is to be held.
std::vector<FromShelf> from_shelf(const Order& order, const TransferSet& set);

/// Copies that were printed, or lie settled to be printed, and that nobody ordered: fillings, and spares that no one spoiled.
struct LeftOver {
    std::string transfer;
    std::string job;  ///< whose spares they were; "" where the order is no gang, and of fillings
    int copies = 0;
};
/// Spares that replaced a spoiled piece are used up.
std::vector<LeftOver> left_over_transfers(const Order& order, const TransferSet& set);
/// All copies of a job that is called off, or of the order, but those that were pressed and those that came from the shelf.
std::vector<LeftOver> called_off(const Order& order, const TransferSet& set, const std::string& job,
                                 const std::vector<PressRecord>& records);

/// How many copies of transfers were pressed, for whom.
class PressedCopies {
public:
    /// Of those jobs; rehearsals only where wished.
    PressedCopies(const std::vector<PressRecord>& records, const std::set<std::string>& jobs, bool rehearsals);
    /// Of one transfer, for a job.
    [[nodiscard]] int of(const TransferSet& set, const Transfer& transfer, const std::string& job) const;

private:
    std::map<std::pair<std::string, std::string>, std::map<std::string, int>> by_design_;  ///< by job and decoration, of each size
};

/// The bag that they go into, with its count; the same order and transfer always fill the same one.
StockEntry bag_of(const Order& order, const Transfer& transfer, const LeftOver& left, const std::string& today);

}  // namespace orthema
