// Comma, semicolon or tab separated tables, read and written.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/fitting/fit.h"
#include "core/sheets/sheets.h"
#include "core/order/order.h"

namespace orthema {

/// What a column of an order's list means. `of_size`: the header is a size, and under it stand quantities.
enum class Column { none, blank, colour, size, quantity, note, reference, of_size, person, number };

struct Table {
    std::vector<std::string> header;
    std::vector<std::vector<std::string>> rows;
    std::vector<int> lines;          ///< of the file, on which each row begins; empty: one after the other, the header on the first
    std::vector<std::string> above;  ///< what stood over the header
    char separator = ',';
    /// Of the file, as people count them.
    [[nodiscard]] int line_of(std::size_t row) const { return row < lines.size() ? lines[row] : static_cast<int>(row) + 2; }
};

/// Reads RFC 4180 with the separator guessed (comma, semicolon, tab), quotes, CRLF, a byte order mark. Latin-1 bytes
/// are read as such when the text is not UTF-8. Fails on an empty file or one without a second line.
Result<Table> parse_table(const std::string& text, bool seek_header = false);

/// Rows as they stand in a file, with their numbers. The header is the first row; where it is sought, the row of the first fifteen
/// with most words for the columns of a list.
Result<Table> table_of(std::vector<std::vector<std::string>> rows, std::vector<int> lines, bool seek_header);

/// A field quoted where it must be. Fields that a spreadsheet would run as a formula get a leading apostrophe.
std::string csv_field(const std::string& text);

/// A field as it was before it was escaped so.
std::string csv_plain(std::string field);

/// What a column's header names; none where it names nothing known.
Column heading_of(const std::string& header);

std::string lines_csv(const Order& order);
std::string fit_csv(const Order& order, const FitPlan& plan);
std::string pieces_csv(const Order& order, const TransferSet& transfers, const SheetPlan& sheets);

/// A trimmer's cuts in order: of which part, how the blade lies, the fence, what it leaves.
std::string cuts_csv(const TransferSet& set, const Sheet& sheet, const TrimPlan& plan);

}  // namespace orthema
