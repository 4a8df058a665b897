// How a gang sheet is drawn: the printed page 1:1, and the pieces in the strip's own frame for the bench.
#pragma once

#include "core/drawing/drawing.h"
#include "core/sheets/cut_path.h"
#include "core/sheets/sheet_labels.h"
#include "core/transfers/making_drawing.h"

namespace orthema {

/// The page that is printed, mm, 1:1: art only, mirrored as each transfer says, and in the margin what the sheet is
/// and its reading direction; beside the pieces their labels, where there are any. No cut lines.
Drawing sheet_page(const Order& order, const Sheet& sheet, const TransferSet& set, const SheetLabels& labels = {});

/// The white underbase of a sheet, 1:1 over the page: solid black where white is to be laid; nothing where no piece has
/// one.
std::optional<Drawing> white_page(const Sheet& sheet, const TransferSet& set);

/// Middles of the register marks on a sheet's page; none where its medium has none.
std::vector<Point> page_registers(const Medium& medium, const Sheet& sheet);

/// The words in a sheet's margin.
std::string sheet_title(const Order& order, const Sheet& sheet);

/// Cut contours of a sheet in the page's frame, one polygon a copy, in the order of the copies.
std::vector<Polygon> cut_contours(const Sheet& sheet, const TransferSet& set);

/// Its snips in the same frame.
std::vector<Ring> cut_snips(const Sheet& sheet, const TransferSet& set);

/// The blade's whole way over a sheet.
std::vector<CutStep> sheet_cuts(const Sheet& sheet, const TransferSet& set);

}  // namespace orthema
