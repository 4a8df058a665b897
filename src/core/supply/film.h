// Film: runs of a roll medium on the rolls that the shop has, and settling on what is there.
#pragma once

#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "core/shop/stock.h"
#include "core/sheets/lay_out.h"

namespace orthema {

/// A roll with what is left on it, mm.
struct RollLeft {
    std::string id;
    double left = 0;
    bool operator==(const RollLeft&) const = default;
};
/// Those of a medium that are counted, the emptiest first; empty ones left out.
std::vector<RollLeft> rolls_of(const Stock& stock, const std::string& medium);
/// Whether rolls of it are counted at all.
bool counts_rolls(const Stock& stock, const std::string& medium);

/// Which roll each run is printed from, by its place in the list; nothing where they do not all fit. Lengths with what the clamp wastes.
/// Method: the longest first, each on the roll that it leaves least on; where that fails, every way within a bound of 200,000 steps.
std::optional<std::vector<std::string>> runs_on_rolls(const std::vector<double>& lengths, const std::vector<RollLeft>& rolls);

/// The layout with a roll for each of its runs; nothing where no rolls are counted or the runs do not fit on them.
std::optional<LaidSheets> with_rolls(const Medium& medium, const TransferSet& set, LaidSheets sheets, const Stock& stock);

/// Lays out as lay_out() does, on what is on hand: counted sheets, and of a roll medium each run on a roll that takes it, shorter ones
/// where no roll has enough left. Where there is not enough in all it is laid as though there were: the supply says what is short.
Result<LaidOut> lay_out_on_stock(const Medium& medium, const TransferSet& set, const MediumLayout& now, const NestOptions& options,
                                 const Stock& stock, const Task& task = {}, const std::function<void(const LaidOut&)>& better = {});

}  // namespace orthema
