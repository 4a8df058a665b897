// Spreadsheets as lists of order lines: the cells of every sheet as text, formulas by the result that was saved with them.
// The archive's parts are measured before anything parses them.
#include <zip.h>

#include <orcus/orcus_ods.hpp>
#include <orcus/orcus_xlsx.hpp>
#include <orcus/spreadsheet/import_interface.hpp>

#include <cmath>
#include <deque>
#include <memory>

#include "core/base/units.h"
#include "files/heavy/heavy.h"
#include "core/base/utf8.h"
#include "files/safe_file.h"

namespace orthema::heavy {

namespace {

namespace ss = orcus::spreadsheet;

constexpr zip_int64_t most_parts = 4000;
constexpr zip_uint64_t most_in_part = 64ull << 20, most_in_all = 192ull << 20;
constexpr int most_rows = 200000, most_columns = 400;
constexpr std::size_t most_cells = 4000000, longest_cell = 4000;

/// A number as a list means it: whole where it is whole.
std::string number_text(double value) { return std::isfinite(value) ? mm_text(value, 4) : std::string(); }

class Cells : public ss::iface::import_sheet {
public:
    Cells(std::string name, const std::deque<std::string>& strings, std::size_t& budget)
        : name_(std::move(name)), strings_(strings), budget_(budget), formula_(*this) {}
    void set_auto(ss::row_t row, ss::col_t col, std::string_view s) override { put(row, col, std::string(s)); }
    void set_string(ss::row_t row, ss::col_t col, ss::string_id_t i) override {
        if (i < strings_.size()) put(row, col, strings_[i]);
    }
    void set_value(ss::row_t row, ss::col_t col, double value) override { put(row, col, number_text(value)); }
    void set_bool(ss::row_t row, ss::col_t col, bool value) override { put(row, col, value ? "yes" : "no"); }
    void set_date_time(ss::row_t row, ss::col_t col, int year, int month, int day, int, int, double) override {
        const auto two = [](int n) { return (n < 10 ? "0" : "") + std::to_string(n); };
        put(row, col, std::to_string(year) + "-" + two(month) + "-" + two(day));
    }
    void set_format(ss::row_t, ss::col_t, std::size_t) override {}
    void set_format(ss::row_t, ss::col_t, ss::row_t, ss::col_t, std::size_t) override {}
    void fill_down_cells(ss::row_t row, ss::col_t col, ss::row_t count) override {
        if (row < 0 || col < 0 || static_cast<std::size_t>(row) >= rows_.size()) return;
        const auto& from = rows_[static_cast<std::size_t>(row)];
        if (static_cast<std::size_t>(col) >= from.size()) return;
        const std::string text = from[static_cast<std::size_t>(col)];
        for (ss::row_t k = 1; k <= std::min<ss::row_t>(count, most_rows); ++k) put(row + k, col, text);
    }
    [[nodiscard]] ss::range_size_t get_sheet_size() const override { return {1048576, 16384}; }
    ss::iface::import_formula* get_formula() override { return &formula_; }

    void put(ss::row_t row, ss::col_t col, const std::string& text) {
        if (row < 0 || col < 0 || row >= most_rows || col >= most_columns || text.empty()) return;
        const auto r = static_cast<std::size_t>(row), c = static_cast<std::size_t>(col);
        if (rows_.size() <= r) rows_.resize(r + 1);
        if (rows_[r].size() <= c) {
            const std::size_t more = c + 1 - rows_[r].size();
            if (more > budget_) return;
            budget_ -= more;
            rows_[r].resize(c + 1);
        }
        rows_[r][c] = whole_utf8(first_bytes(text, longest_cell));
    }
    /// Rows that are not empty, with their numbers.
    [[nodiscard]] SheetRows taken() && {
        SheetRows out{std::move(name_), {}, {}};
        for (std::size_t r = 0; r < rows_.size(); ++r) {
            if (rows_[r].empty()) continue;
            out.rows.push_back(std::move(rows_[r]));
            out.lines.push_back(static_cast<int>(r) + 1);
        }
        return out;
    }

private:
    class Formula : public ss::iface::import_formula {
    public:
        explicit Formula(Cells& cells) : cells_(cells) {}
        void set_position(ss::row_t row, ss::col_t col) override {
            row_ = row;
            col_ = col;
        }
        void set_formula(ss::formula_grammar_t, std::string_view) override {}
        void set_shared_formula_index(std::size_t) override {}
        void set_result_string(std::string_view value) override { cells_.put(row_, col_, std::string(value)); }
        void set_result_value(double value) override { cells_.put(row_, col_, number_text(value)); }
        void set_result_bool(bool value) override { cells_.put(row_, col_, value ? "yes" : "no"); }
        void set_result_empty() override {}
        void commit() override {}

    private:
        Cells& cells_;
        ss::row_t row_ = 0;
        ss::col_t col_ = 0;
    };
    std::string name_;
    const std::deque<std::string>& strings_;
    std::size_t& budget_;
    Formula formula_;
    std::vector<std::vector<std::string>> rows_;
};

class Strings : public ss::iface::import_shared_strings {
public:
    std::size_t append(std::string_view s) override {
        all.emplace_back(s.substr(0, longest_cell));
        return all.size() - 1;
    }
    std::size_t add(std::string_view s) override { return append(s); }
    void set_segment_font(std::size_t) override {}
    void set_segment_bold(bool) override {}
    void set_segment_italic(bool) override {}
    void set_segment_font_name(std::string_view) override {}
    void set_segment_font_size(double) override {}
    void set_segment_font_color(ss::color_elem_t, ss::color_elem_t, ss::color_elem_t, ss::color_elem_t) override {}
    void append_segment(std::string_view s) override { segments_ += s; }
    std::size_t commit_segments() override { return append(std::exchange(segments_, {})); }

    std::deque<std::string> all;

private:
    std::string segments_;
};

/// "E4" and "E4:E7", with or without dollar signs; sheets and names are not followed.
class References : public ss::iface::import_reference_resolver {
public:
    ss::src_address_t resolve_address(std::string_view text) override {
        ss::src_address_t out{0, 0, 0};
        for (const char c : text.substr(text.find_last_of('!') == std::string_view::npos ? 0 : text.find_last_of('!') + 1)) {
            if (c >= 'A' && c <= 'Z')
                out.column = std::min(out.column * 26 + (c - 'A' + 1), 1 << 20);
            else if (c >= '0' && c <= '9')
                out.row = std::min(out.row * 10 + (c - '0'), 1 << 24);
        }
        out.row = std::max(0, out.row - 1);
        out.column = std::max(0, out.column - 1);
        return out;
    }
    ss::src_range_t resolve_range(std::string_view text) override {
        const auto colon = text.find(':');
        const auto first = resolve_address(text.substr(0, colon));
        return {first, colon == std::string_view::npos ? first : resolve_address(text.substr(colon + 1))};
    }
};

class Book : public ss::iface::import_factory {
public:
    ss::iface::import_reference_resolver* get_reference_resolver(ss::formula_ref_context_t) override { return &references_; }
    ss::iface::import_shared_strings* get_shared_strings() override { return &strings_; }
    ss::iface::import_sheet* append_sheet(ss::sheet_t, std::string_view name) override {
        sheets_.push_back(std::make_unique<Cells>(whole_utf8(first_bytes(name, 200)), strings_.all, budget_));
        names_.emplace_back(name);
        return sheets_.back().get();
    }
    ss::iface::import_sheet* get_sheet(std::string_view name) override {
        for (std::size_t i = 0; i < names_.size(); ++i)
            if (names_[i] == name) return sheets_[i].get();
        return nullptr;
    }
    ss::iface::import_sheet* get_sheet(ss::sheet_t i) override {
        return i >= 0 && static_cast<std::size_t>(i) < sheets_.size() ? sheets_[static_cast<std::size_t>(i)].get() : nullptr;
    }
    void finalize() override {}
    [[nodiscard]] std::vector<SheetRows> taken() {
        std::vector<SheetRows> out;
        for (auto& s : sheets_) out.push_back(std::move(*s).taken());
        return out;
    }

private:
    Strings strings_;
    References references_;
    std::size_t budget_ = most_cells;
    std::vector<std::unique_ptr<Cells>> sheets_;
    std::vector<std::string> names_;
};

/// Why no parser should see it; empty: it may.
std::string archive_fault(const std::string& bytes) {
    zip_error_t error;
    zip_error_init(&error);
    zip_source_t* source = zip_source_buffer_create(bytes.data(), bytes.size(), 0, &error);
    zip_t* zip = source == nullptr ? nullptr : zip_open_from_source(source, ZIP_RDONLY, &error);
    zip_error_fini(&error);
    if (zip == nullptr) {
        if (source != nullptr) zip_source_free(source);
        return "This spreadsheet is damaged: save it anew, or as CSV.";
    }
    std::string fault;
    const zip_int64_t count = zip_get_num_entries(zip, 0);
    if (count < 1 || count > most_parts) fault = "This spreadsheet has too many parts: save the list alone.";
    zip_uint64_t total = 0;
    for (zip_int64_t i = 0; i < count && fault.empty(); ++i) {
        zip_stat_t stat;
        if (zip_stat_index(zip, static_cast<zip_uint64_t>(i), 0, &stat) != 0 || (stat.valid & ZIP_STAT_SIZE) == 0)
            fault = "This spreadsheet is damaged: save it anew, or as CSV.";
        else if (stat.size > most_in_part || (total += stat.size) > most_in_all)
            fault = "This spreadsheet unpacks to far more than a list: save the list alone.";
    }
    zip_discard(zip);
    return fault;
}

}  // namespace

Result<std::vector<SheetRows>> read_spreadsheet(const std::string& bytes) {
    if (const std::string fault = archive_fault(bytes); !fault.empty()) return Error{fault};
    const auto* blob = reinterpret_cast<const unsigned char*>(bytes.data());
    Book book;
    try {
        if (orcus::orcus_xlsx::detect(blob, bytes.size()))
            orcus::orcus_xlsx(&book).read_stream(bytes);
        else if (orcus::orcus_ods::detect(blob, bytes.size()))
            orcus::orcus_ods(&book).read_stream(bytes);
        else
            return Error{"This is no spreadsheet that can be read: save it as XLSX, ODS or CSV."};
    } catch (const std::exception&) {
        return Error{"This spreadsheet could not be read to its end: save it anew, or as CSV."};
    }
    return book.taken();
}

}  // namespace orthema::heavy
