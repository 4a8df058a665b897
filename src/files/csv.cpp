#include "files/csv.h"

#include <algorithm>
#include <cctype>
#include <set>

#include "core/base/units.h"
#include "core/sheets/trimmer_drawing.h"

namespace orthema {

namespace {

std::string lower(std::string text) {
    for (char& c : text) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    return text;
}

std::string trimmed(const std::string& text) {
    const auto a = text.find_first_not_of(" \t\r\n");
    if (a == std::string::npos) return "";
    return text.substr(a, text.find_last_not_of(" \t\r\n") - a + 1);
}

bool is_utf8(const std::string& s) {
    for (std::size_t i = 0; i < s.size();) {
        const auto c = static_cast<unsigned char>(s[i]);
        const std::size_t more = c < 0x80 ? 0 : (c >> 5) == 6 ? 1 : (c >> 4) == 14 ? 2 : (c >> 3) == 30 ? 3 : 9;
        if (more == 9 || i + more >= s.size() + (more == 0 ? 1 : 0)) return false;
        for (std::size_t k = 1; k <= more; ++k)
            if ((static_cast<unsigned char>(s[i + k]) >> 6) != 2) return false;
        i += more + 1;
    }
    return true;
}

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

std::vector<std::vector<std::string>> split(const std::string& text, char separator) {
    std::vector<std::vector<std::string>> rows;
    std::vector<std::string> row;
    std::string field;
    bool quoted = false, any = false;
    const auto end_row = [&] {
        row.push_back(field);
        field.clear();
        if (any) rows.push_back(row);
        row.clear();
        any = false;
    };
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
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
    return rows;
}

std::vector<std::string> words(const std::string& text) {
    std::vector<std::string> out;
    std::string now;
    for (const char c : lower(text) + " ") {
        if (std::isalnum(static_cast<unsigned char>(c)) != 0)
            now += c;
        else if (!now.empty()) {
            out.push_back(now);
            now.clear();
        }
    }
    return out;
}

/// "tees", "t-shirt", "bodysuits", "hoodie" as a style's own name has them.
std::string plain_word(const std::string& w) {
    static const std::map<std::string, std::string> same = {
        {"tees", "tee"},           {"tshirt", "tee"},      {"tshirts", "tee"},      {"shirt", "tee"},         {"shirts", "tee"},
        {"bodysuits", "bodysuit"}, {"romper", "bodysuit"}, {"creeper", "bodysuit"}, {"baby", "infant"},       {"kids", "youth"},
        {"kid", "youth"},          {"child", "youth"},     {"yth", "youth"},        {"hoodie", "hooded"},     {"hoodies", "hooded"},
        {"hoody", "hooded"},       {"mens", "adult"},      {"unisex", "adult"},     {"sweatshirt", "fleece"}, {"pullover", "fleece"}};
    const auto at = same.find(w);
    return at == same.end() ? w : at->second;
}

std::set<std::string> word_set(const std::string& text) {
    std::set<std::string> out;
    for (const std::string& w : words(text)) out.insert(plain_word(w));
    return out;
}

std::optional<int> whole_number(const std::string& text) {
    std::string t = trimmed(text);
    if (t.size() > 2 && t.substr(t.size() - 2) == ".0") t.resize(t.size() - 2);
    if (t.empty() || t.size() > 6 || !std::all_of(t.begin(), t.end(), [](unsigned char c) { return std::isdigit(c) != 0; }))
        return std::nullopt;
    return std::stoi(t);
}

Column by_header(const std::string& name) {
    const std::string n = lower(trimmed(name));
    const auto has = [&](const char* w) { return n.find(w) != std::string::npos; };
    if (has("size")) return Column::size;
    if (has("qty") || has("quantity") || has("count") || n == "pcs" || n == "pieces" || n == "number") return Column::quantity;
    if (has("colour") || has("color")) return Column::colour;
    if (has("style") || has("product") || has("item") || has("garment") || has("blank") || has("title") || has("sku")) return Column::blank;
    if (has("note") || has("name") || has("customer") || has("order") || has("comment") || has("who")) return Column::note;
    return Column::none;
}

std::string number(double mm) { return mm_text(mm, 2); }

}  // namespace

const char* column_name(Column c) {
    switch (c) {
    case Column::none: return "not used";
    case Column::blank: return "blank";
    case Column::colour: return "colour";
    case Column::size: return "size";
    case Column::quantity: return "quantity";
    case Column::note: return "note";
    }
    return "";
}

Result<Table> parse_table(const std::string& raw) {
    if (raw.size() > (64u << 20)) return Error{"The list is over 64 MB: split it."};
    if (raw.find('\0') != std::string::npos) return Error{"This is not a text list: export it as CSV."};
    std::string text = raw.rfind("\xEF\xBB\xBF", 0) == 0 ? raw.substr(3) : raw;
    if (!is_utf8(text)) text = from_latin1(text);
    Table best;
    for (const char separator : {',', ';', '\t'}) {
        auto rows = split(text, separator);
        if (rows.empty()) continue;
        if (rows.size() > 200001) return Error{"The list has over 200,000 rows: split it."};
        if (best.header.empty() || rows[0].size() > best.header.size()) {
            best.header = rows[0];
            best.rows.assign(rows.begin() + 1, rows.end());
            best.separator = separator;
        }
    }
    if (best.header.empty()) return Error{"The list is empty."};
    if (best.rows.empty()) return Error{"The list has a header but no lines under it."};
    for (std::string& h : best.header) h = trimmed(h);
    return best;
}

std::string csv_field(const std::string& text) {
    std::string t = text;
    if (!t.empty() &&
        (t[0] == '=' || t[0] == '+' || t[0] == '@' || (t[0] == '-' && t.size() > 1 && std::isalpha(static_cast<unsigned char>(t[1])) != 0)))
        t.insert(t.begin(), '\'');
    if (t.find_first_of(",\"\n\r;\t") == std::string::npos) return t;
    std::string out = "\"";
    for (const char c : t) {
        if (c == '"') out += '"';
        out += c;
    }
    return out + "\"";
}

std::vector<Column> guess_columns(const Table& table, const std::vector<BlankStyle>& styles) {
    std::vector<Column> out(table.header.size(), Column::none);
    std::set<Column> used;
    // An exact "size" wins over "size chart"; the first of its kind is taken.
    for (std::size_t i = 0; i < out.size(); ++i) {
        const Column c = by_header(table.header[i]);
        if (c == Column::none || used.contains(c)) continue;
        out[i] = c;
        used.insert(c);
    }
    const std::size_t sample = std::min<std::size_t>(table.rows.size(), 50);
    const auto share = [&](std::size_t column, auto good) {
        std::size_t hits = 0, seen = 0;
        for (std::size_t r = 0; r < sample; ++r) {
            if (column >= table.rows[r].size() || trimmed(table.rows[r][column]).empty()) continue;
            ++seen;
            if (good(table.rows[r][column])) ++hits;
        }
        return seen == 0 ? 0.0 : static_cast<double>(hits) / static_cast<double>(seen);
    };
    const auto claim = [&](Column what, auto good) {
        if (used.contains(what)) return;
        std::size_t best = out.size();
        double most = 0.6;
        for (std::size_t i = 0; i < out.size(); ++i)
            if (out[i] == Column::none && share(i, good) > most) {
                most = share(i, good);
                best = i;
            }
        if (best < out.size()) {
            out[best] = what;
            used.insert(what);
        }
    };
    claim(Column::size, [](const std::string& s) { return normalise_size(s).has_value(); });
    claim(Column::quantity, [](const std::string& s) { return whole_number(s).has_value(); });
    claim(Column::blank, [&](const std::string& s) { return match_style(s, nullptr, styles) != nullptr; });
    claim(Column::colour, [&](const std::string& s) {
        const std::string t = lower(trimmed(s));
        return std::any_of(styles.begin(), styles.end(), [&](const BlankStyle& b) {
            return std::any_of(b.colours.begin(), b.colours.end(), [&](const BlankColour& c) { return lower(c.name) == t; });
        });
    });
    return out;
}

const BlankStyle* match_style(const std::string& text, const SizeName* size, const std::vector<BlankStyle>& styles) {
    const std::string wanted = lower(trimmed(text));
    if (wanted.empty()) return nullptr;
    for (const BlankStyle& s : styles)
        if (wanted == lower(s.id) || wanted == lower(s.name)) return &s;
    static const std::set<std::string> group_words = {"adult", "youth", "toddler", "infant"};
    const std::set<std::string> have = word_set(text);
    const BlankStyle* found = nullptr;
    std::size_t most = 0;
    bool tie = false;
    for (const BlankStyle& s : styles) {
        const std::set<std::string> need = word_set(s.name);
        std::size_t hits = 0;
        for (const std::string& w : need) hits += have.contains(w) ? 1 : 0;
        if (s.archived) continue;
        const AgeGroup group = family_group(s.family);
        const bool group_fits = size != nullptr && size->group == group;
        const bool group_clashes = size != nullptr && size->group != AgeGroup::any && group != AgeGroup::any && size->group != group;
        const bool has_size = size == nullptr || size_index(s, size->code) >= 0;
        if (hits == 0 || group_clashes || !has_size) continue;
        // A style is meant when all its words are there, or all but the age group that the size itself tells.
        const std::size_t score = hits * 2 + (group_fits ? 3 : 0) + (hits == need.size() ? 1 : 0);
        const bool only_group_unsaid =
            std::all_of(need.begin(), need.end(), [&](const std::string& w) { return have.contains(w) || group_words.contains(w); });
        if (hits < need.size() && !(only_group_unsaid && (group_fits || group == AgeGroup::adult))) continue;
        if (score > most) {
            most = score;
            found = &s;
            tie = false;
        } else if (score == most) {
            tie = true;
        }
    }
    return tie ? nullptr : found;
}

namespace {
/// A size in the blank's own words; null where it has none so called.
const std::string* own_size(const BlankStyle& style, const std::string& text) {
    const auto at = std::find_if(style.sizes.begin(), style.sizes.end(), [&](const std::string& s) { return lower(s) == lower(text); });
    return at == style.sizes.end() ? nullptr : &*at;
}
}  // namespace

LineImport import_lines(const Table& table, const std::vector<Column>& columns, const std::vector<BlankStyle>& styles) {
    LineImport out;
    const auto column = [&](Column c) { return std::find(columns.begin(), columns.end(), c) - columns.begin(); };
    const auto count = static_cast<std::ptrdiff_t>(columns.size());
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
        const auto& row = table.rows[r];
        const auto field = [&](Column c) {
            const auto i = column(c);
            return i < count && static_cast<std::size_t>(i) < row.size() ? trimmed(row[static_cast<std::size_t>(i)]) : std::string();
        };
        std::string joined;
        for (const std::string& f : row) joined += (joined.empty() ? "" : " | ") + f;
        const auto refuse = [&](const std::string& why) { out.bad.push_back({static_cast<int>(r) + 2, joined.substr(0, 200), why}); };
        if (column(Column::size) >= count) {
            refuse("no column is marked as the size");
            continue;
        }
        const std::string size_text = field(Column::size);
        auto size = normalise_size(size_text);
        const std::string blank_text = field(Column::blank);
        const BlankStyle* style = nullptr;
        if (!size) {  // a size that only this blank has: "325 ml", "small square"
            if (const BlankStyle* own = match_style(blank_text, nullptr, styles))
                if (const std::string* s = own_size(*own, size_text)) {
                    size = SizeName{*s, AgeGroup::any};
                    style = own;
                }
        }
        if (!size) {
            refuse(size_text.empty() ? "the size is empty" : "“" + size_text + "” is not a size that is known");
            continue;
        }
        if (style == nullptr) style = match_style(blank_text, &*size, styles);
        if (style == nullptr) {
            refuse(blank_text.empty() ? "the blank is empty"
                                      : "“" + blank_text + "” in size " + size->code + " matches no blank, or more than one");
            continue;
        }
        if (size_index(*style, size->code) < 0)  // a tote's “small” is no S
            if (const std::string* s = own_size(*style, size_text)) size->code = *s;
        if (size_index(*style, size->code) < 0) {
            refuse(style->name + " has no size " + size->code);
            continue;
        }
        const std::string quantity_text = field(Column::quantity);
        const auto quantity = column(Column::quantity) >= count ? std::optional<int>(1) : whole_number(quantity_text);
        if (!quantity || *quantity <= 0 || *quantity > 100000) {
            refuse(quantity_text.empty() ? "the quantity is empty" : "“" + quantity_text + "” is not a quantity");
            continue;
        }
        std::string colour = field(Column::colour);
        if (colour.empty()) {  // a shop often writes it into the product's name
            const std::string in = lower(blank_text);
            for (const BlankColour& c : style->colours)
                if (in.find(lower(c.name)) != std::string::npos) colour = c.name;
        }
        for (const BlankColour& c : style->colours)
            if (lower(c.name) == lower(colour)) colour = c.name;
        OrderLine line{style->id, colour, size->code, *quantity, field(Column::note)};
        out.garments += *quantity;
        out.lines.push_back(std::move(line));
    }
    return out;
}

namespace {
std::string lot_name(const Order& order, const std::string& id) {
    const Lot* lot = find_lot(order, id);
    return lot == nullptr ? id : lot->name;
}
}  // namespace

std::string lines_csv(const Order& order) {
    std::string out = "blank,colour,size,quantity,note,lot\r\n";
    for (const OrderLine& l : order.lines) {
        const BlankStyle* style = find_style(order, l.style);
        out += csv_field(style != nullptr ? style->name : l.style) + "," + csv_field(l.colour) + "," + csv_field(l.size) + "," +
               std::to_string(l.quantity) + "," + csv_field(l.note) + "," + csv_field(lot_name(order, l.lot)) + "\r\n";
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
                   "," + csv_field(location_name(d->location)) + "," + csv_field(s.size) + "," + std::to_string(s.quantity) + "," +
                   number(s.width) + "," + number(s.height) + "," + number(s.ideal) + "," + csv_field(binding_text(s.limited_by)) + "," +
                   (s.band >= 0 ? std::to_string(s.band + 1) : "") + "," + number(s.top_to_ink) + "," +
                   (s.ink_to_pit ? number(*s.ink_to_pit) : "") + "," + number(s.left_margin) + "," + number(s.right_margin) + "," +
                   number(s.ink_to_bottom) + "," + csv_field(lot_name(order, d->run.lot)) + "\r\n";
    }
    return out;
}

std::string pieces_csv(const Order& order, const TransferSet& set, const SheetPlan& sheets) {
    std::string out = "medium,sheet,number,transfer,copy,decoration,sizes,width_mm,height_mm,x_mm,y_mm,turn_deg,mirrored\r\n";
    for (const MediumPlan& m : sheets.media) {
        const Medium* medium = find_medium(order, m.medium);
        for (const Sheet& s : m.sheets)
            for (const PlacedCopy& c : s.copies) {
                const Transfer* t = find_transfer(set, c.transfer);
                if (t == nullptr) continue;
                const Decoration* d = find_decoration(order, t->decoration);
                out += csv_field(medium != nullptr ? medium->name : m.medium) + "," + std::to_string(s.number + 1) + "," +
                       std::to_string(t - set.transfers.data() + 1) + "," + csv_field(t->id) + "," + std::to_string(c.copy + 1) + "," +
                       csv_field(d != nullptr ? d->name : "") + "," + csv_field(sizes_text(*t)) + "," + number(t->width) + "," +
                       number(t->height) + "," + number(c.x) + "," + number(c.y) + "," + std::to_string(c.turn) + "," +
                       (t->mirrored ? "yes" : "no") + "\r\n";
            }
    }
    return out;
}

std::string cuts_csv(const TransferSet& set, const Sheet& sheet, const TrimPlan& plan) {
    std::string out = "cut,of,blade,fence_mm,near,far,stage\r\n";
    for (std::size_t i = 0; i < plan.cuts.size(); ++i) {
        const TrimCut& c = plan.cuts[i];
        out += std::to_string(i + 1) + "," + csv_field(part_name(plan, c.part, sheet, set)) + "," + cut_direction(c) + "," +
               number(c.fence) + "," + csv_field(part_name(plan, c.near, sheet, set)) + "," +
               csv_field(part_name(plan, c.far, sheet, set)) + "," + std::to_string(c.stage) + "\r\n";
    }
    return out;
}

}  // namespace orthema
