#include "files/list.h"

#include <algorithm>
#include <cctype>
#include <set>

#include "core/base/text.h"
#include "core/base/utf8.h"

namespace orthema {

namespace {

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

/// A whole number as a spreadsheet may write it: "7.0".
std::string without_nought(std::string number) {
    if (number.size() > 2 && number.ends_with(".0")) number.resize(number.size() - 2);
    return number;
}

std::optional<int> whole_number(const std::string& text) {
    const std::string t = without_nought(trimmed(text));
    if (t.empty() || t.size() > 6 || !std::all_of(t.begin(), t.end(), [](unsigned char c) { return std::isdigit(c) != 0; }))
        return std::nullopt;
    return std::stoi(t);
}

/// A size in the blank's own words; null where it has none so called.
const std::string* own_size(const BlankStyle& style, const std::string& text) {
    const auto at = std::find_if(style.sizes.begin(), style.sizes.end(), [&](const std::string& s) { return lower(s) == lower(text); });
    return at == style.sizes.end() ? nullptr : &*at;
}

/// Most that a line may ask for.
constexpr int most_pieces = 100000;

/// "-", "–", "x" and the like in a column of numbers.
bool is_nothing(const std::string& text) {
    const std::string t = trimmed(text);
    return t.empty() || t == "-" || t == "–" || t == "—" || t == ".";
}

bool tells_a_total(const std::string& text) {
    const std::string t = lower(trimmed(text));
    for (const char* w : {"total", "sum", "subtotal", "sub-total", "grand total", "in all", "altogether"}) {
        const std::string word = w;
        if (t.rfind(word, 0) == 0 && (t.size() == word.size() || std::isalpha(static_cast<unsigned char>(t[word.size()])) == 0))
            return true;
    }
    return false;
}

/// A header under which the numbers of a team stand, or anything else that is numbered.
bool calls_a_number(const std::string& header) {
    const std::string h = lower(trimmed(header));
    return h == "number" || h == "no." || h == "no" || h == "nr" || h == "nr." || h == "#";
}

/// The last whole number in a text.
std::optional<int> number_in(const std::string& text) {
    std::string digits;
    std::optional<int> out;
    for (const char c : text + " ") {
        if (std::isdigit(static_cast<unsigned char>(c)) != 0) {
            digits += c;
        } else if (!digits.empty()) {
            out = whole_number(digits);
            digits.clear();
        }
    }
    return out;
}

}  // namespace

const char* column_name(Column c) {
    switch (c) {
    case Column::none: return "not used";
    case Column::blank: return "blank";
    case Column::colour: return "colour";
    case Column::size: return "size";
    case Column::quantity: return "quantity";
    case Column::note: return "whose, or a note";
    case Column::person: return "name on it";
    case Column::number: return "number on it";
    case Column::reference: return "order number";
    case Column::of_size: return "pieces of this size";
    }
    return "";
}

Result<std::vector<NamedTable>> read_list(const std::string& bytes) {
    std::vector<NamedTable> out;
    if (bytes.rfind("PK", 0) != 0) {
        auto table = parse_table(bytes, true);
        if (!table) return table.error();
        out.push_back({"", std::move(*table)});
        return out;
    }
    auto sheets = read_spreadsheet(bytes);
    if (!sheets) return sheets.error();
    for (SheetRows& s : *sheets)
        if (auto table = table_of(std::move(s.rows), std::move(s.lines), true)) out.push_back({s.name, std::move(*table)});
    if (out.empty()) return Error{"No sheet of this spreadsheet has a header with lines under it."};
    return out;
}

std::string said_as(const std::string& wording) { return lower(trimmed(wording)); }

std::vector<Column> guess_columns(const Table& table, const std::vector<BlankStyle>& styles) {
    std::vector<Column> out(table.header.size(), Column::none);
    std::set<Column> used;
    // An exact "size" wins over "size chart"; the first of its kind is taken.
    for (std::size_t i = 0; i < out.size(); ++i) {
        const Column c = heading_of(table.header[i]);
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
    const auto claim = [&](Column what, auto good, const std::set<std::size_t>& but = {}) {
        if (used.contains(what)) return;
        std::size_t best = out.size();
        double most = 0.6;
        for (std::size_t i = 0; i < out.size(); ++i)
            if (out[i] == Column::none && !but.contains(i) && share(i, good) > most) {
                most = share(i, good);
                best = i;
            }
        if (best < out.size()) {
            out[best] = what;
            used.insert(what);
        }
    };
    // quantities by size: a column for each size, with numbers or nothing in it
    std::vector<std::size_t> of_size;
    for (std::size_t i = 0; i < out.size(); ++i)
        if (out[i] == Column::none && normalise_size(table.header[i]) &&
            share(i, [](const std::string& s) { return whole_number(s).has_value() || is_nothing(s); }) > 0.99)
            of_size.push_back(i);
    if (of_size.size() > 1 && !used.contains(Column::size)) {
        for (const std::size_t i : of_size) out[i] = Column::of_size;
        used.insert({Column::size, Column::quantity});
    }
    claim(Column::size, [](const std::string& s) { return normalise_size(s).has_value(); });
    // a column that counts its own rows counts no garments, where another may
    const auto counts_rows = [&](std::size_t column) {
        std::optional<int> last;
        std::size_t seen = 0;
        for (std::size_t r = 0; r < sample; ++r) {
            if (column >= table.rows[r].size() || trimmed(table.rows[r][column]).empty()) continue;
            const auto n = whole_number(table.rows[r][column]);
            if (!n || (last && *n != *last + 1)) return false;
            last = n;
            ++seen;
        }
        return seen > 2;
    };
    std::set<std::size_t> row_numbers;
    for (std::size_t i = 0; i < out.size(); ++i)
        if (counts_rows(i)) row_numbers.insert(i);
    const auto counts = [](const std::string& s) { return whole_number(s).has_value(); };
    claim(Column::quantity, counts, row_numbers);
    claim(Column::quantity, counts);
    // "name" and "number" side by side, nearly every number another: a team. Who says how many has a column for that too, or one each.
    const auto at_column = [&](Column c) { return static_cast<std::size_t>(std::find(out.begin(), out.end(), c) - out.begin()); };
    const auto unlike = [&](std::size_t column) {
        std::set<std::string> values;
        std::size_t seen = 0;
        for (std::size_t r = 0; r < sample && column < out.size(); ++r)
            if (column < table.rows[r].size() && whole_number(table.rows[r][column])) {
                values.insert(trimmed(table.rows[r][column]));
                ++seen;
            }
        return seen >= 3 && values.size() * 10 >= seen * 8;
    };
    const std::size_t noted = at_column(Column::note);
    const bool names = noted < out.size() && lower(table.header[noted]).find("name") != std::string::npos;
    for (const Column may : {Column::quantity, Column::reference})
        if (const std::size_t c = at_column(may);
            names && !used.contains(Column::number) && c < out.size() && calls_a_number(table.header[c]) && unlike(c)) {
            out[c] = Column::number;
            out[noted] = Column::person;
            used.erase(may);
            used.insert({Column::number, Column::person});
        }
    if (names && used.contains(Column::number) && !used.contains(Column::person)) out[noted] = Column::person;
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
    if (tie || found != nullptr || have.empty()) return tie ? nullptr : found;
    for (const BlankStyle& s : styles) {  // "tote", where the shop has one
        const std::set<std::string> words = word_set(s.name);
        if (s.archived || !std::includes(words.begin(), words.end(), have.begin(), have.end())) continue;
        if (found != nullptr) return nullptr;
        found = &s;
    }
    return found;
}

namespace {

/// A list while it is read, row by row.
struct Rows {
    const Table& table;
    const std::vector<Column>& columns;
    const std::vector<BlankStyle>& styles;
    const ShopWords& words;
    const RowMends& mends;
    LineImport out;
    std::string blank_above, colour_above;
    int since_total = 0;

    [[nodiscard]] std::optional<std::size_t> column(Column c) const {
        const auto at = std::find(columns.begin(), columns.end(), c);
        return at == columns.end() ? std::nullopt : std::optional(static_cast<std::size_t>(at - columns.begin()));
    }
    [[nodiscard]] std::string cell(std::size_t r, std::optional<std::size_t> c) const {
        return c && *c < table.rows[r].size() ? trimmed(table.rows[r][*c]) : std::string();
    }
    void refuse(std::size_t r, BadRow::Lacks lacks, Error why, const std::string& wording = {}, const std::string& style = {}) {
        std::string joined;
        for (const std::string& f : table.rows[r]) joined += (joined.empty() ? "" : " | ") + f;
        out.bad.push_back({table.line_of(r), first_bytes(joined, 200), std::move(why), lacks, wording, style});
    }
    /// Adds the line, or says why not. An empty quantity is one where no column has it.
    void line(std::size_t r, const std::string& size_text, const std::string& quantity_text, bool counted) {
        const std::string blank_text = blank_of(r);
        const auto learned = words.blanks.find(said_as(blank_text));
        const BlankStyle* style = nullptr;
        const auto chosen = mends.blanks.find(table.line_of(r));
        const std::string* means = chosen != mends.blanks.end()    ? &chosen->second
                                   : learned != words.blanks.end() ? &learned->second
                                                                   : nullptr;
        for (const BlankStyle& s : styles)
            if (means != nullptr && s.id == *means) style = &s;
        auto size = normalise_size(size_text);
        if (const auto typed = mends.sizes.find(table.line_of(r)); typed != mends.sizes.end())
            size = SizeName{typed->second, AgeGroup::any};
        if (const auto known = words.sizes.find(said_as(size_text)); known != words.sizes.end())
            size = SizeName{known->second, AgeGroup::any};
        const BlankStyle* own = size ? nullptr : style != nullptr ? style : match_style(blank_text, nullptr, styles);
        if (own != nullptr) {  // a size that only this blank has: "325 ml", "small square"
            if (const std::string* s = own_size(*own, size_text)) {
                size = SizeName{*s, AgeGroup::any};
                style = own;
            } else if (size_text.empty() && own->sizes.size() == 1) {
                size = SizeName{own->sizes.front(), AgeGroup::any};
                style = own;
            }
        }
        if (!size && own == nullptr && !blank_text.empty())  // which sizes there are says the blank
            return refuse(r, BadRow::Lacks::blank, Error{"“{words}” matches no blank, or more than one", {{"words", blank_text}}},
                          blank_text);
        if (!size)
            return refuse(
                r, BadRow::Lacks::size,
                size_text.empty() ? Error{"the size is empty"} : Error{"“{words}” is not a size that is known", {{"words", size_text}}},
                size_text, own != nullptr ? own->id : "");
        if (style == nullptr) style = match_style(blank_text, &*size, styles);
        if (style == nullptr)
            return refuse(r, BadRow::Lacks::blank,
                          blank_text.empty() ? Error{"the blank is empty"}
                                             : Error{"“{words}” in size {size} matches no blank, or more than one",
                                                     {{"words", blank_text}, {"size", size->code}}},
                          blank_text);
        if (size_index(*style, size->code) < 0)  // a tote's “small” is no S
            if (const std::string* s = own_size(*style, size_text)) size->code = *s;
        if (size_index(*style, size->code) < 0 && size->code == "OS" && style->sizes.size() == 1) size->code = style->sizes.front();
        if (size_index(*style, size->code) < 0)
            return refuse(r, BadRow::Lacks::size, Error{"{style} has no size {size}", {{"style", style->name}, {"size", size->code}}},
                          size_text, style->id);
        std::optional<int> quantity = counted ? whole_number(quantity_text) : std::optional<int>(1);
        if (const auto typed = mends.quantities.find(table.line_of(r)); typed != mends.quantities.end()) quantity = typed->second;
        if (!quantity || *quantity <= 0 || *quantity > most_pieces)
            return refuse(
                r, BadRow::Lacks::quantity,
                quantity_text.empty() ? Error{"the quantity is empty"} : Error{"“{words}” is not a quantity", {{"words", quantity_text}}},
                quantity_text, style->id);
        std::string colour = colour_of(r);
        if (colour.empty()) {  // a shop often writes it into the product's name
            const std::string in = lower(blank_text);
            for (const BlankColour& c : style->colours)
                if (in.find(lower(c.name)) != std::string::npos) colour = c.name;
        }
        for (const BlankColour& c : style->colours)
            if (lower(c.name) == lower(colour)) colour = c.name;
        out.garments += *quantity;
        since_total += *quantity;
        OrderLine made{style->id, colour, size->code, *quantity, cell(r, column(Column::note))};
        made.ref = cell(r, column(Column::reference));
        made.name = cell(r, column(Column::person));
        made.number = without_nought(cell(r, column(Column::number)));
        out.lines.push_back(std::move(made));
    }
    [[nodiscard]] std::string blank_of(std::size_t r) const {
        const std::string own = cell(r, column(Column::blank));
        return own.empty() ? blank_above : own;
    }
    [[nodiscard]] std::string colour_of(std::size_t r) const {
        const std::string own = cell(r, column(Column::colour));
        return own.empty() && cell(r, column(Column::blank)).empty() ? colour_above : own;
    }
    /// A row that only adds up what stands above it.
    bool total(std::size_t r) {
        const auto first =
            std::find_if(table.rows[r].begin(), table.rows[r].end(), [](const std::string& f) { return !trimmed(f).empty(); });
        if (first == table.rows[r].end()) return true;  // a row of separators
        if (!tells_a_total(*first)) return false;
        std::optional<int> says;
        const auto add = [&](std::optional<std::size_t> c) {
            if (const auto n = whole_number(cell(r, c))) says = says.value_or(0) + *n;
        };
        for (std::size_t c = 0; c < columns.size(); ++c)
            if (columns[c] == Column::of_size) add(c);
        if (!says) add(column(Column::quantity));
        for (std::size_t c = table.rows[r].size(); !says && c-- > 0;) says = number_in(table.rows[r][c]);
        if (!says) return false;
        // of all above, or of the part since the last such row: whichever it is meant to be
        const int sum = std::abs(*says - out.garments) <= std::abs(*says - since_total) ? out.garments : since_total;
        out.totals.push_back({table.line_of(r), *says, sum});
        since_total = 0;
        return true;
    }
    void take(std::size_t r) {
        if (total(r)) return;
        const auto size = column(Column::size);
        const bool by_size = column(Column::of_size).has_value();
        if (!size && !by_size) return refuse(r, BadRow::Lacks::nothing, Error{"no column is marked as the size"});
        const std::string own = cell(r, column(Column::blank));
        const auto counted = column(Column::quantity);
        if (own.empty() && column(Column::blank) && !blank_above.empty() && (by_size || !cell(r, size).empty()) &&
            (!counted || !cell(r, counted).empty()))
            ++out.filled;
        else if (own.empty())
            blank_above = colour_above = "";
        else {
            blank_above = own;
            colour_above = cell(r, column(Column::colour));
        }
        if (size) return line(r, cell(r, size), cell(r, counted), counted.has_value());
        bool any = false;
        for (std::size_t c = 0; c < columns.size(); ++c)
            if (columns[c] == Column::of_size && !is_nothing(cell(r, c)) && whole_number(cell(r, c)) != 0) {
                any = true;
                line(r, table.header[c], cell(r, c), true);
            }
        if (!any && !own.empty()) refuse(r, BadRow::Lacks::nothing, Error{"no size has a quantity"});
    }
};

}  // namespace

std::vector<KeptOut> kept_out(const LineImport& list, Reading reading) {
    constexpr std::size_t most = 20000;  // what an order may hold
    std::vector<KeptOut> out;
    for (const BadRow& b : list.bad)
        if (out.size() < most) out.push_back({b.row, b.text, b.reason.said_to(reading)});
    return out;
}

LineImport import_lines(const Table& table, const std::vector<Column>& columns, const std::vector<BlankStyle>& styles,
                        const ShopWords& words, const RowMends& mends) {
    Rows in{table, columns, styles, words, mends, {}, {}, {}, 0};
    for (std::size_t r = 0; r < table.rows.size(); ++r) in.take(r);
    return std::move(in.out);
}

}  // namespace orthema
