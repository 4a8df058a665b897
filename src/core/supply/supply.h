// Supply: what an order wants of blanks, film and sheets against what the shop has and has promised to others. Says what is lacking
// before it is looked for.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "core/records/press_record.h"
#include "core/shop/shop.h"
#include "core/supply/film.h"
#include "core/supply/shelf.h"

namespace orthema {

/// What the order wants in all: blanks by its lines, film by its runs (the clamp's waste included), sheets by their number, supplies by the
/// ink's area. A layout that is not settled wants film by the area of its pieces.
std::vector<Want> wants_of(const Order& order, const TransferSet& set, const SheetPlan& sheets, const Stock& stock);
/// Ink of one sheet's pieces, dm².
double inked(const TransferSet& set, const std::vector<PlacedCopy>& copies);

/// Orders that stand for themselves: those that lie in an open gang are in what it wants.
std::vector<const OpenOrder*> standing_alone(const std::vector<OpenOrder>& open);

/// How one thing that an order wants stands.
struct Standby {
    Want want;
    bool counted = false;  ///< the shop keeps count of it
    double taken = 0;      ///< of the want
    double there = 0;      ///< on hand and not promised to an order that comes before; as much of it as is wanted
    double lacking = 0;
};
/// Orders come in the order in which they are due; what several want goes to the first. `own` in place of what is known of the order.
std::vector<Standby> standby(const Order& order, const std::vector<Want>& own, const Shop& shop);

/// Of every open order by its id, each want as far as it is counted and something of it is lacking.
std::map<std::string, std::vector<Standby>> lacking_of_all(const Shop& shop);

struct Supply {
    std::vector<Standby> wants;
    std::vector<ShelfOffer> offers;
    Findings findings;
};
Supply supply(const Order& order, const TransferSet& set, const SheetPlan& sheets, const Shop& shop);

/// A row of what is to be bought for all open orders together.
struct ToBuy {
    std::string item, name;
    StockKind kind = StockKind::blanks;
    double asked = 0;  ///< by the orders, still
    double spare = 0;  ///< by what is usually spoiled
    double on_hand = 0;
    double lacking = 0;               ///< to buy; whole pieces and sheets
    std::vector<std::string> orders;  ///< their names
};
/// `spoiled`: share of a blank style that is spoiled, by its id. Rows that lack something first, then by name. What is not counted is
/// left out.
std::vector<ToBuy> to_buy(const Stock& stock, const std::vector<OpenOrder>& open, const std::map<std::string, double>& spoiled = {});
/// Share of each blank style that was spoiled, from at least so many pieces.
constexpr int spoilage_from = 20;
std::map<std::string, double> spoilage(const std::vector<PressRecord>& records);

/// One change of a count. Of one id the latest amount holds: the same deed is never counted twice, and is undone by an amount of 0.
struct StockMove {
    std::string id, item;
    double amount = 0;  ///< added; negative: taken
    std::string at;     ///< ISO
    std::string why;    ///< "printed", "pressed", "spoiled", "counted in"
    std::string job;    ///< that took it; may be empty
    bool operator==(const StockMove&) const = default;
};
/// What printing so much of a sheet takes: film from its roll (or from the emptiest that has enough), a sheet, powder and ink. Ids begin
/// with `deed`, which tells this printing from every other.
std::vector<StockMove> taken_by_printing(const Order& order, const TransferSet& set, const Sheet& sheet, double printed_length,
                                         const Stock& stock, const std::string& deed, const std::string& at);
/// What these records took in all: blanks by their pieces, those that were spoiled besides, and promised transfers from the shelf. Set anew
/// whenever there are more records.
std::vector<StockMove> taken_by_pressing(const Order& order, const TransferSet& set, const std::vector<PressRecord>& records,
                                         const Stock& stock, bool rehearsals, const std::string& at);

}  // namespace orthema
