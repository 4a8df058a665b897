// Comma, semicolon or tab separated tables, and the import of order lines from what a web shop exports.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/fitting/fit.h"
#include "core/sheets/sheets.h"
#include "core/order/order.h"

namespace orthema {

struct Table {
    std::vector<std::string> header;
    std::vector<std::vector<std::string>> rows;
    char separator = ',';
};

/// Reads RFC 4180 with the separator guessed (comma, semicolon, tab), quotes, CRLF, a byte order mark. Latin-1 bytes
/// are read as such when the text is not UTF-8. Fails on an empty file or one without a second line.
Result<Table> parse_table(const std::string& text);

/// A field quoted where it must be. Fields that a spreadsheet would run as a formula get a leading apostrophe.
std::string csv_field(const std::string& text);

enum class Column { none, blank, colour, size, quantity, note };
const char* column_name(Column column);

/// Which column means what, by header first and content second.
std::vector<Column> guess_columns(const Table& table, const std::vector<BlankStyle>& styles);

struct BadRow {
    int row = 0;  ///< as a spreadsheet counts, the header being 1
    std::string text;
    std::string reason;
};

struct LineImport {
    std::vector<OrderLine> lines;
    std::vector<BadRow> bad;
    int garments = 0;
};

/// Reads order lines. Blanks are matched by id, name or words ("Youth Tee - Navy" finds the youth tee), sizes are
/// normalised, unknown colours are kept as they are written. A row that cannot be read whole is listed with its
/// reason and kept out.
LineImport import_lines(const Table& table, const std::vector<Column>& columns, const std::vector<BlankStyle>& styles);

/// The style that a shop's words mean: exact id or name, else the one whose words all appear, with the size's age
/// group as a tie-break. Null when none or several fit.
const BlankStyle* match_style(const std::string& words, const SizeName* size, const std::vector<BlankStyle>& styles);

std::string lines_csv(const Order& order);
std::string fit_csv(const Order& order, const FitPlan& plan);
std::string pieces_csv(const Order& order, const TransferSet& transfers, const SheetPlan& sheets);

/// A trimmer's cuts in order: of which part, how the blade lies, the fence, what it leaves.
std::string cuts_csv(const TransferSet& set, const Sheet& sheet, const TrimPlan& plan);

}  // namespace orthema
