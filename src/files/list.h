// Lists of order lines, as web shops, clubs and committees make them: which column means what, what comes in, what is kept
// out and why, and what the shop has learned that a wording means.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "core/order/order.h"
#include "core/shop/shop_words.h"
#include "files/csv.h"

namespace orthema {

const char* column_name(Column column);

/// One sheet of a spreadsheet, or a text list: rows that are not empty, with their numbers in the file.
struct SheetRows {
    std::string name;
    std::vector<std::vector<std::string>> rows;
    std::vector<int> lines;
};
/// The sheets of an XLSX or ODS file. Fails with a sentence on what is damaged, or unpacks to more than a list does.
Result<std::vector<SheetRows>> read_spreadsheet(const std::string& bytes);

/// The tables of a list by its content, whatever it is called: one of a text list, one for each sheet of a spreadsheet that has
/// rows. Fails where none has.
struct NamedTable {
    std::string name;  ///< of the sheet; empty of a text list
    Table table;
};
Result<std::vector<NamedTable>> read_list(const std::string& bytes);

/// A wording as the shop's words keep it: without case and outer space.
std::string said_as(const std::string& wording);

/// Which column means what, by header first and content second.
std::vector<Column> guess_columns(const Table& table, const std::vector<BlankStyle>& styles);

struct BadRow {
    enum class Lacks { nothing, blank, size, quantity };
    int row = 0;  ///< as a spreadsheet counts it
    std::string text;
    Error reason;
    Lacks lacks = Lacks::nothing;  ///< what has to be chosen for it to come in
    std::string wording = {};      ///< that is not understood
    std::string style = {};        ///< where that is known already
};

/// A row that gives a sum of rows above it.
struct TotalRow {
    int row = 0, says = 0;
    int sum = 0;  ///< of what came in: since the last such row, or of all where that is nearer
};

struct LineImport {
    std::vector<OrderLine> lines;
    std::vector<BadRow> bad;
    std::vector<TotalRow> totals;
    int garments = 0;
    int filled = 0;  ///< rows that take their blank from above, as a merged cell leaves them
};

/// What was chosen or typed for single rows, by number, in place of what they say.
struct RowMends {
    std::map<int, int> quantities;
    std::map<int, std::string> sizes, blanks;  ///< size codes; style ids
    bool operator==(const RowMends&) const = default;
};

/// Reads order lines. Blanks are matched by id, name or words ("Youth Tee - Navy" finds the youth tee), sizes are
/// normalised, unknown colours are kept as they are written. A row that cannot be read whole is listed with its
/// reason and kept out. No size is meant where the blank comes in one only.
LineImport import_lines(const Table& table, const std::vector<Column>& columns, const std::vector<BlankStyle>& styles,
                        const ShopWords& words = {}, const RowMends& mends = {});

/// What the order remembers of the rows that did not come in: the first of them, and why, as it was said to whoever read the list.
std::vector<KeptOut> kept_out(const LineImport& list, Reading reading = {});

/// The style that a shop's words mean: exact id or name, else the one whose words all appear, with the size's age
/// group as a tie-break. Null when none or several fit.
const BlankStyle* match_style(const std::string& words, const SizeName* size, const std::vector<BlankStyle>& styles);

}  // namespace orthema
