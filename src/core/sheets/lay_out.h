// Laying out one medium as the artist wants it: cut along contours or by trimmer, groups kept together, on the cheapest of the
// stock. The one door to the engines for the window and the command line.
#pragma once

#include <functional>
#include <map>

#include "core/sheets/sheets.h"

namespace orthema {

struct LaidOut {
    LaidSheets sheets;
    int bins = 0;
    double last_length = 0;  ///< of the last sheet or run, mm
    double others = 0;       ///< of all other runs of rolls, added, mm
    double cost = 0;
    double density = 0;
};

/// How many there are of the medium's own size ("") and of its stock items; what is not named is not counted.
using StockCounts = std::map<std::string, int>;

/// Whether one layout is better: cheaper, where there is a choice of stock; of a roll with less film in all; then on fewer sheets; then
/// shorter, the last before the others.
bool beats(const Medium& medium, const LaidOut& a, const LaidOut& b);

/// What a layout costs and uses; its soundness is not looked at.
LaidOut measured(const Medium& medium, const TransferSet& set, LaidSheets sheets);

/// Lays out every copy that is asked, in the time asked. What lies there sound is gone on from: all of it, or what of a group lies by
/// itself on the stock that is looked at. Where there are
/// groups, stock, or cuts by trimmer, sheets that hold a locked copy stay as they are, first, and the others follow. Calls `better` (from
/// any thread, one at a time) with each layout that beats the one before. Fails with a sentence where a piece fits on nothing.
///
/// Stock: offcuts first, the smallest first, each filled by area (fill.h). The rest is laid out on every whole size alone;
/// on the cheapest each sheet's pieces are then tried on cheaper sheets. What is on hand of a size limits it.
/// Groups: one after the other along the feed, so that a straight cut parts them; one that does not fit on what is left of a
/// sheet begins a new one.
Result<LaidOut> lay_out(const Medium& medium, const TransferSet& set, const MediumLayout& now, const NestOptions& options,
                        const Task& task = {}, const std::function<void(const LaidOut&)>& better = {}, const StockCounts& counts = {});

/// The largest part of a sheet that is left when its pieces are cut out: its true shape less slivers under 20 mm, moved so
/// that its box begins at (0, 0). Nothing where less than 40 × 40 mm is left. Of a run of a roll only what lies within its used length.
std::optional<StockItem> left_over(const Medium& medium, const TransferSet& set, const Sheet& sheet);

/// The layout with as many copies of its fill wishes as find room on the sheets that are there, by value; the fillings before
/// are taken out first.
MediumLayout filled(const Medium& medium, const TransferSet& set, const MediumLayout& layout, const Task& task = {});

}  // namespace orthema
