#include "files/csv.h"

#include <algorithm>
#include <set>

#include "core/base/units.h"
#include "core/base/utf8.h"
#include "core/order/gang.h"
#include "core/sheets/trimmer_drawing.h"
#include "core/base/text.h"

namespace orthema {

namespace {

/// A title may stand above the header, but not a whole page.
constexpr std::size_t header_within = 15;

std::string from_latin1(const std::string& s) {
    std::string out;
    for (const char c : s) {
        const auto u = static_cast<unsigned char>(c);
        if (u < 0x80) {
            out += c;
        } else {
            out += static_cast<char>(0xC0 | (u >> 6));
            out += static_cast<char>(0x80 | (u & 0x3F));
        }
    }
    return out;
}

struct Rows {
    std::vector<std::vector<std::string>> rows;
    std::vector<int> lines;  ///< of the text, on which each begins
};

Rows split(const std::string& text, char separator) {
    Rows out;
    std::vector<std::vector<std::string>>& rows = out.rows;
    int line = 1, begins = 1;
    std::vector<std::string> row;
    std::string field;
    bool quoted = false, any = false;
    const auto end_row = [&] {
        row.push_back(field);
        field.clear();
        if (any) {
            rows.push_back(row);
            out.lines.push_back(begins);
        }
        begins = line;
        row.clear();
        any = false;
    };
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        line += c == '\n' ? 1 : 0;
        if (quoted) {
            if (c == '"' && i + 1 < text.size() && text[i + 1] == '"')
                field += text[++i];
            else if (c == '"')
                quoted = false;
            else
                field += c;
        } else if (c == '"' && field.empty()) {
            quoted = any = true;
        } else if (c == separator) {
            row.push_back(field);
            field.clear();
            any = true;
        } else if (c == '\n') {
            end_row();
        } else if (c != '\r') {
            field += c;
            any = any || std::isspace(static_cast<unsigned char>(c)) == 0;
        }
    }
    end_row();
    return out;
}

/// What stands in a header: a word for a column, or a size.
bool is_heading(const std::string& cell) {
    return heading_of(cell) != Column::none || (trimmed(cell).size() <= 12 && normalise_size(cell).has_value());
}

std::string number(double mm) { return mm_text(mm, 2); }

}  // namespace

Column heading_of(const std::string& name) {
    const std::string n = lower(trimmed(name));
    const auto has = [&](const char* w) { return n.find(w) != std::string::npos; };
    if (has("size")) return Column::size;
    if ((has("name") &&
         (has("on shirt") || has("on back") || has("shirt") || has("back") || has("print") || has("jersey") || has("team"))) ||
        n == "lettering" || n == "player" || n == "surname")
        return Column::person;
    if (has("shirt n") || has("jersey n") || has("player n") || has("back n") || has("start n") || has("race n") || has("number on") ||
        n == "jersey" || n == "squad number" || n == "print number")
        return Column::number;
    if (has("qty") || has("quantity") || has("count") || has("how many") || n == "pcs" || n == "pieces" || n == "number")
        return Column::quantity;
    if (has("colour") || has("color")) return Column::colour;
    if (has("style") || has("product") || has("item") || has("garment") || has("blank") || has("title") || has("sku") || n == "what")
        return Column::blank;
    if (n == "order" || n == "ref" || n == "reference" || has("order n") || has("order id") || has("order #") || n == "no." || n == "no" ||
        n == "nr" || n == "nr." || n == "#")
        return Column::reference;
    if (has("note") || has("name") || has("customer") || has("order") || has("comment") || has("who") || n == "for") return Column::note;
    return Column::none;
}

Result<Table> parse_table(const std::string& raw, bool seek_header) {
    if (raw.size() > (64u << 20)) return Error{"The list is over 64 MB: split it."};
    if (raw.find('\0') != std::string::npos) return Error{"This is not a text list: export it as CSV."};
    std::string text = raw.rfind("\xEF\xBB\xBF", 0) == 0 ? raw.substr(3) : raw;
    if (!is_utf8(text)) {
        // a letter or two that broke on the way, or another encoding altogether
        const auto marks = [](const std::string& s) {
            std::size_t n = 0;
            for (std::size_t at = s.find("\xEF\xBF\xBD"); at != std::string::npos; at = s.find("\xEF\xBF\xBD", at + 3)) ++n;
            return n;
        };
        std::string whole = whole_utf8(text);
        const auto letters = static_cast<std::size_t>(
            std::count_if(whole.begin(), whole.end(), [](char c) { return static_cast<unsigned char>(c) >= 0xC2; }));
        text = letters > 2 * marks(whole) ? std::move(whole) : from_latin1(text);
    }
    constexpr std::ptrdiff_t most_cells = 4'000'000;  // each takes forty times a comma's room
    for (const char c : {',', ';', '\t', '\n'})
        if (std::count(text.begin(), text.end(), c) > most_cells) return Error{"The list has over four million cells: split it."};
    Rows best;
    std::size_t widest = 0;
    char separator = ',';
    for (const char c : {',', ';', '\t'}) {
        Rows rows = split(text, c);
        if (rows.rows.size() > 200001) return Error{"The list has over 200,000 rows: split it."};
        std::size_t wide = 0;  // of the rows that a header may be among
        for (std::size_t r = 0; r < std::min(rows.rows.size(), seek_header ? header_within : 1); ++r)
            wide = std::max(wide, rows.rows[r].size());
        if (wide <= widest) continue;
        widest = wide;
        separator = c;
        best = std::move(rows);
    }
    auto table = table_of(std::move(best.rows), std::move(best.lines), seek_header);
    if (table) table->separator = separator;
    return table;
}

Result<Table> table_of(std::vector<std::vector<std::string>> rows, std::vector<int> lines, bool seek_header) {
    Table out;
    if (rows.empty()) return Error{"The list is empty."};
    std::size_t header = 0;
    int most = 1;
    for (std::size_t r = 0; seek_header && r < std::min(rows.size(), header_within); ++r) {
        std::set<std::string> known;
        for (const std::string& cell : rows[r])
            if (is_heading(cell)) known.insert(lower(trimmed(cell)));
        if (static_cast<int>(known.size()) > most) {
            most = static_cast<int>(known.size());
            header = r;
        }
    }
    for (std::size_t r = 0; r < header; ++r)
        for (const std::string& cell : rows[r])
            if (!trimmed(cell).empty()) out.above.push_back(trimmed(cell));
    out.header = std::move(rows[header]);
    for (std::string& h : out.header) h = trimmed(h);
    const auto first = static_cast<std::ptrdiff_t>(header) + 1;
    out.rows.assign(std::make_move_iterator(rows.begin() + first), std::make_move_iterator(rows.end()));
    out.lines.assign(lines.begin() + first, lines.end());
    if (out.rows.empty()) return Error{"The list has a header but no lines under it."};
    return out;
}

std::string csv_plain(std::string field) {
    if (field.size() > 1 && field[0] == '\'') field.erase(0, 1);
    return field;
}

std::string csv_field(const std::string& text) {
    std::string t = text;
    // what a spreadsheet would work out, also after space that it passes over; a number below nothing is none
    const auto first = t.find_first_not_of(" \t\r\n");
    const auto number_after = [&](std::size_t at) {
        return at < t.size() && t.find_first_not_of("0123456789.", at) == std::string::npos && t.find_first_of("0123456789", at) == at;
    };
    if (first != std::string::npos &&
        (t[first] == '=' || t[first] == '+' || t[first] == '@' || (t[first] == '-' && t.size() > first + 1 && !number_after(first + 1))))
        t.insert(t.begin(), '\'');
    if (t.find_first_of(",\"\n\r;\t") == std::string::npos) return t;
    std::string out = "\"";
    for (const char c : t) {
        if (c == '"') out += '"';
        out += c;
    }
    return out + "\"";
}

namespace {
std::string lot_name(const Order& order, const std::string& id) {
    const Lot* lot = find_lot(order, id);
    return lot == nullptr ? id : lot->name;
}
}  // namespace

std::string lines_csv(const Order& order) {
    std::string out = "blank,colour,size,quantity,note,lot,name,number\r\n";
    for (const OrderLine& l : order.lines) {
        const BlankStyle* style = find_style(order, l.style);
        out += csv_field(style != nullptr ? style->name : l.style) + "," + csv_field(l.colour) + "," + csv_field(l.size) + "," +
               std::to_string(l.quantity) + "," + csv_field(l.note) + "," + csv_field(lot_name(order, l.lot)) + "," + csv_field(l.name) +
               "," + csv_field(l.number) + "\r\n";
    }
    return out;
}

std::string fit_csv(const Order& order, const FitPlan& plan) {
    std::string out =
        "decoration,blank,colour,location,size,quantity,width_mm,height_mm,ideal_width_mm,limited_by,band,top_to_ink_mm,"
        "ink_to_pit_line_mm,left_margin_mm,right_margin_mm,ink_to_bottom_mm,lot\r\n";
    for (const DecorationFit& f : plan.decorations) {
        const Decoration* d = find_decoration(order, f.decoration);
        if (d == nullptr) continue;
        const BlankStyle* style = find_style(order, d->run.style);
        for (const SizeFit& s : f.sizes)
            out += csv_field(d->name) + "," + csv_field(style != nullptr ? style->name : d->run.style) + "," + csv_field(d->run.colour) +
                   "," + csv_field(location_name(d->location, family_of(order, d->run))) + "," + csv_field(s.size) + "," +
                   std::to_string(s.quantity) + "," + number(s.width) + "," + number(s.height) + "," + number(s.ideal) + "," +
                   csv_field(binding_text(s.limited_by)) + "," + (s.band >= 0 ? std::to_string(s.band + 1) : "") + "," +
                   number(s.top_to_ink) + "," + (s.ink_to_pit ? number(*s.ink_to_pit) : "") + "," + number(s.left_margin) + "," +
                   number(s.right_margin) + "," + number(s.ink_to_bottom) + "," + csv_field(lot_name(order, d->run.lot)) + "\r\n";
    }
    return out;
}

namespace {

/// Of a gang a field more: whose a copy is.
std::string job_field(const Order& order, const CopyJobs& jobs, const PlacedCopy& copy) {
    if (!is_gang(order)) return "";
    const Job* job = find_job(order, jobs.of(copy.transfer, copy.copy));
    return "," + csv_field(job == nullptr ? "for the shelf" : job->name);
}

}  // namespace

std::string pieces_csv(const Order& order, const TransferSet& set, const SheetPlan& sheets) {
    std::string out = "medium,sheet,number,transfer,copy,decoration,sizes,whose,width_mm,height_mm,x_mm,y_mm,turn_deg,mirrored" +
                      std::string(is_gang(order) ? ",job" : "") + "\r\n";
    for (const MediumPlan& m : sheets.media) {
        const Medium* medium = find_medium(order, m.medium);
        const CopyJobs jobs(set, layout_of(order, m.medium));
        for (const Sheet& s : m.sheets)
            for (const PlacedCopy& c : s.copies) {
                const Transfer* t = find_transfer(set, c.transfer);
                if (t == nullptr) continue;
                const Decoration* d = find_decoration(order, t->decoration);
                const Rect own = t->shape.empty() ? t->ink : bounds(t->shape);  // of this part or layer, not of the whole design
                out += csv_field(medium != nullptr ? medium->name : m.medium) + "," + std::to_string(s.number + 1) + "," +
                       std::to_string(t - set.transfers.data() + 1) + "," + csv_field(t->id) + "," + std::to_string(c.copy + 1) + "," +
                       csv_field(d != nullptr ? d->name : "") + "," + csv_field(sizes_text(*t)) + "," + csv_field(t->whose) + "," +
                       number(own.width()) + "," + number(own.height()) + "," + number(c.x) + "," + number(c.y) + "," +
                       std::to_string(c.turn) + "," + (t->mirrored ? "yes" : "no") + job_field(order, jobs, c) + "\r\n";
            }
    }
    return out;
}

std::string cuts_csv(const TransferSet& set, const Sheet& sheet, const TrimPlan& plan) {
    std::string out = "cut,of,blade,fence_mm,near,far,stage\r\n";
    for (std::size_t i = 0; i < plan.cuts.size(); ++i) {
        const TrimCut& c = plan.cuts[i];
        out += std::to_string(i + 1) + "," + csv_field(part_name(plan, c.part, sheet, set, {})) + "," + cut_direction(c, {}) + "," +
               number(c.fence) + "," + csv_field(part_name(plan, c.near, sheet, set, {})) + "," +
               csv_field(part_name(plan, c.far, sheet, set, {})) + "," + std::to_string(c.stage) + "\r\n";
    }
    return out;
}

}  // namespace orthema
