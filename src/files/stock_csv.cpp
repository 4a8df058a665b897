#include <algorithm>
#include <charconv>
#include <cmath>

#include "files/csv.h"
#include "files/stock_book.h"
#include "core/base/text.h"

namespace orthema {

namespace {

std::string plain(const std::string& text) {
    std::string out;
    for (const char c : lower(text))
        if (c != ' ' && c != '_' && c != '-') out += c;
    return out;
}

std::string number_text(double n) {
    char buffer[32];
    const double rounded = std::round(n * 1000) / 1000;
    return {buffer, std::to_chars(buffer, buffer + sizeof buffer, rounded).ptr};
}

enum class StockColumn { none, kind, blank, colour, size, medium, stock, name, place, code, on_hand, id };

StockColumn column_of(const std::string& header) {
    const std::string h = plain(header);
    const std::pair<const char*, StockColumn> known[] = {
        {"kind", StockColumn::kind},      {"blank", StockColumn::blank},    {"style", StockColumn::blank},
        {"item", StockColumn::blank},     {"colour", StockColumn::colour},  {"color", StockColumn::colour},
        {"size", StockColumn::size},      {"medium", StockColumn::medium},  {"stock", StockColumn::stock},
        {"name", StockColumn::name},      {"place", StockColumn::place},    {"code", StockColumn::code},
        {"onhand", StockColumn::on_hand}, {"count", StockColumn::on_hand},  {"quantity", StockColumn::on_hand},
        {"qty", StockColumn::on_hand},    {"pieces", StockColumn::on_hand}, {"metres", StockColumn::on_hand},
        {"id", StockColumn::id}};
    for (const auto& [word, column] : known)
        if (h == word) return column;
    return StockColumn::none;
}

}  // namespace

std::string stock_csv(const Stock& stock) {
    std::string out = "kind,id,blank,colour,size,medium,stock,name,place,code,on_hand,unit\r\n";
    for (const StockEntry& e : stock.entries) {
        if (e.kind == StockKind::transfers) continue;
        const bool roll = e.kind == StockKind::roll;
        for (const std::string& field :
             {std::string(stock_kind_key(e.kind)), e.id, e.style, e.colour, e.size, e.medium, e.stock, e.name, e.place, e.code})
            out += csv_field(field) + ",";
        out += number_text(roll ? e.on_hand / 1000 : e.on_hand) + "," + (roll ? "m" : csv_field(e.unit)) + "\r\n";
    }
    return out;
}

Result<std::vector<Counted>> stock_from_csv(const std::string& text, const std::vector<BlankStyle>& styles,
                                            const std::vector<Medium>& media) {
    const auto table = parse_table(text);
    if (!table) return table.error();
    std::vector<StockColumn> columns;
    for (const std::string& h : table->header) columns.push_back(column_of(h));
    const auto has = [&](StockColumn c) { return std::find(columns.begin(), columns.end(), c) != columns.end(); };
    if (!has(StockColumn::on_hand)) return Error{"The table has no column “on hand” or “count” with how many there are."};
    std::vector<Counted> out;
    for (std::size_t i = 0; i < table->rows.size(); ++i) {
        const int row = table->line_of(i);
        const auto field = [&](StockColumn c) -> std::string {
            for (std::size_t k = 0; k < std::min(columns.size(), table->rows[i].size()); ++k)
                if (columns[k] == c) return csv_plain(table->rows[i][k]);
            return {};
        };
        std::string count = field(StockColumn::on_hand);
        std::replace(count.begin(), count.end(), ',', '.');
        double n = 0;
        const auto [stop, fault] = std::from_chars(count.data(), count.data() + count.size(), n);
        if (fault != std::errc() || stop != count.data() + count.size() || !(n >= 0) || n > 1e7)
            return Error{"Row {row}: “{field}” is no count of 0 or more.", {{"row", row}, {"field", field(StockColumn::on_hand)}}};
        Counted c;
        StockEntry& e = c.entry;
        e.place = field(StockColumn::place);
        e.code = field(StockColumn::code);
        const std::string kind = plain(field(StockColumn::kind));
        if (kind.empty() || kind == "blanks" || kind == "blank") {
            const std::string blank = field(StockColumn::blank), colour = field(StockColumn::colour), size = field(StockColumn::size);
            const auto style = std::find_if(styles.begin(), styles.end(), [&](const BlankStyle& s) {
                return plain(s.id) == plain(blank) || plain(s.name) == plain(blank);
            });
            if (style == styles.end()) return Error{"Row {row}: the shop has no blank “{blank}”.", {{"row", row}, {"blank", blank}}};
            const auto tint = std::find_if(style->colours.begin(), style->colours.end(),
                                           [&](const BlankColour& b) { return plain(b.name) == plain(colour); });
            if (tint == style->colours.end())
                return Error{"Row {row}: {blank} has no colour “{colour}”.", {{"row", row}, {"blank", style->name}, {"colour", colour}}};
            const auto at =
                std::find_if(style->sizes.begin(), style->sizes.end(), [&](const std::string& s) { return plain(s) == plain(size); });
            if (at == style->sizes.end())
                return Error{"Row {row}: {blank} has no size “{size}”.", {{"row", row}, {"blank", style->name}, {"size", size}}};
            if (n != std::floor(n)) return Error{"Row {row}: blanks are counted whole.", {{"row", row}}};
            e.kind = StockKind::blanks;
            e.style = style->id;
            e.colour = tint->name;
            e.size = *at;
            e.id = blanks_id(e.style, e.colour, e.size);
            e.name = style->name + ", " + e.colour + " " + e.size;
            c.on_hand = n;
        } else if (kind == "roll" || kind == "sheets" || kind == "sheet") {
            const std::string wanted = field(StockColumn::medium);
            const auto medium = std::find_if(media.begin(), media.end(), [&](const Medium& m) {
                return plain(m.id) == plain(wanted) || plain(m.name) == plain(wanted);
            });
            if (medium == media.end()) return Error{"Row {row}: the shop has no medium “{medium}”.", {{"row", row}, {"medium", wanted}}};
            e.medium = medium->id;
            e.stock = field(StockColumn::stock);
            e.name = field(StockColumn::name).empty() ? medium->name : field(StockColumn::name);
            if (kind == "roll") {
                e.kind = StockKind::roll;
                e.id = field(StockColumn::id).empty() ? "roll/" + medium->id + "/" + e.name : field(StockColumn::id);
                if (e.id.rfind("roll/", 0) != 0) return Error{"Row {row}: “{id}” is no roll's id.", {{"row", row}, {"id", e.id}}};
                c.on_hand = n * 1000;
            } else {
                e.kind = StockKind::sheets;
                e.id = sheets_id(medium->id, e.stock);
                c.on_hand = std::floor(n);
            }
        } else if (kind == "supply") {
            continue;  // what it is used by is not in a table
        } else {
            return Error{"Row {row}: “{kind}” is not a kind of stock; blanks, roll and sheets are.",
                         {{"row", row}, {"kind", field(StockColumn::kind)}}};
        }
        for (const std::string* t : {&e.name, &e.place, &e.stock, &e.id})
            if (t->size() > 400) return Error{"Row {row} has too long a name.", {{"row", row}}};
        out.push_back(std::move(c));
    }
    return out;
}

std::string to_buy_csv(const std::vector<ToBuy>& rows) {
    std::string out = "kind,name,asked,spare,on_hand,to_buy,unit,orders\r\n";
    for (const ToBuy& r : rows) {
        const double scale = r.kind == StockKind::roll ? 1000 : 1;
        std::string orders;
        for (const std::string& o : r.orders) orders += (orders.empty() ? "" : "; ") + o;
        out += csv_field(r.kind == StockKind::roll ? "film" : stock_kind_key(r.kind)) + "," + csv_field(r.name) + "," +
               number_text(r.asked / scale) + "," + number_text(r.spare / scale) + "," + number_text(r.on_hand / scale) + "," +
               number_text(r.lacking / scale) + "," +
               (r.kind == StockKind::roll     ? "m"
                : r.kind == StockKind::supply ? ""
                                              : "pieces") +
               "," + csv_field(orders) + "\r\n";
    }
    return out;
}

}  // namespace orthema
