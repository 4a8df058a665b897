#include "files/chart_csv.h"

#include <cmath>
#include <cstdio>

#include "core/base/units.h"
#include "core/base/utf8.h"

namespace orthema {

namespace {

std::string lower(std::string s) {
    std::transform(s.begin(), s.end(), s.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return s;
}

std::string number(double mm) {
    char buffer[32];
    std::snprintf(buffer, sizeof buffer, "%.4g", mm);
    return buffer;
}

/// Letters and digits only, words parted by one blank; what stands in brackets is left out.
std::string plain(const std::string& text) {
    std::string out;
    int deep = 0;
    for (const char c : lower(text)) {
        if (c == '(') ++deep;
        if (deep == 0 && std::isalnum(static_cast<unsigned char>(c)) != 0)
            out += c;
        else if (!out.empty() && out.back() != ' ')
            out += ' ';
        if (c == ')') --deep;
    }
    while (!out.empty() && out.back() == ' ') out.pop_back();
    for (const char* unit : {" mm", " cm", " in", " inches", " inch"})
        if (const std::string u = unit; out.size() > u.size() && out.compare(out.size() - u.size(), u.size(), u) == 0)
            out.resize(out.size() - u.size());
    return out;
}

struct Heading {
    Measure measure;
    bool measured = false;
};

std::optional<Heading> heading(const std::string& text, Family family) {
    std::string t = plain(text);
    Heading h{Measure::chest, false};
    for (const char* word : {" measured", " taped"})
        if (const auto at = t.find(word); at != std::string::npos) {
            h.measured = true;
            t.erase(at);
        }
    const auto measures = family_measures(family);
    const auto has = [&](Measure m) { return std::find(measures.begin(), measures.end(), m) != measures.end(); };
    for (const Measure m : measures)
        if (t == plain(measure_name(m)) || t == plain(measure_short(m)) || t == plain(measure_key(m))) {
            h.measure = m;
            return h;
        }
    using M = Measure;
    const std::pair<const char*, M> words[] = {{"half chest", M::chest},
                                               {"1 2 chest", M::chest},
                                               {"chest width", M::chest},
                                               {"body width", M::chest},
                                               {"width", main_measure(family)},
                                               {"pit to pit", M::chest},
                                               {"bust", M::chest},
                                               {"length", length_measure(family)},
                                               {"total length", M::body_length},
                                               {"back length", M::body_length},
                                               {"hem", M::hem_width},
                                               {"bottom width", M::hem_width},
                                               {"neck", M::neck_width},
                                               {"shoulder", M::across_shoulder},
                                               {"shoulders", M::across_shoulder},
                                               {"shoulder width", M::across_shoulder},
                                               {"neck drop", M::front_neck_drop},
                                               {"armhole", M::armhole_depth},
                                               {"sleeve", M::sleeve_length},
                                               {"cuff", M::sleeve_opening},
                                               {"rib", M::rib_height},
                                               {"pocket top", M::pouch_top},
                                               {"height", length_measure(family)},
                                               {"diameter", M::top_diameter},
                                               {"waist", M::waist_width},
                                               {"hip", M::hip_width},
                                               {"rise", M::hip_depth},
                                               {"bib", M::top_width},
                                               {"leg", M::leg_opening},
                                               {"circumference", M::circumference}};
    for (const auto& [word, m] : words)
        if (t == word && has(m)) {
            h.measure = m;
            return h;
        }
    return std::nullopt;
}

/// Millimetres in one of the unit that a heading or a cell names; nothing where it names none.
std::optional<double> named_unit(const std::string& text) {
    const std::string t = lower(text);
    const auto word = [&](const std::string& w) {
        const auto at = t.find(w);
        if (at == std::string::npos) return false;
        const bool before = at == 0 || std::isalpha(static_cast<unsigned char>(t[at - 1])) == 0;
        const bool after = at + w.size() >= t.size() || std::isalpha(static_cast<unsigned char>(t[at + w.size()])) == 0;
        return before && after;
    };
    if (word("mm")) return 1.0;
    if (word("cm")) return 10.0;
    if (word("in") || word("inch") || word("inches") || t.find('"') != std::string::npos || t.find("″") != std::string::npos) return 25.4;
    return std::nullopt;
}

/// "18", "18.5", "18,5", "18 1/2" as a bare number.
std::optional<double> bare(const std::string& text) {
    std::string t;
    for (const char c : text)
        if (std::isdigit(static_cast<unsigned char>(c)) != 0 || c == '.' || c == '/' || c == ' ' || c == '-')
            t += c;
        else if (c == ',')
            t += '.';
    const auto slash = t.find('/');
    double whole = 0, top = 0, bottom = 1;
    if (slash != std::string::npos) {
        const auto begin = t.find_last_of(" -", slash);
        if (begin != std::string::npos && begin > 0) whole = std::atof(t.substr(0, begin).c_str());
        top = std::atof(t.substr(begin == std::string::npos ? 0 : begin + 1, slash).c_str());
        bottom = std::atof(t.substr(slash + 1).c_str());
        if (bottom == 0) return std::nullopt;
        return whole + top / bottom;
    }
    if (t.find_first_of("0123456789") == std::string::npos) return std::nullopt;
    return std::atof(t.c_str());
}

std::string size_code(const std::string& text, const BlankStyle& like) {
    for (const std::string& s : like.sizes)
        if (lower(s) == lower(text)) return s;
    if (const auto n = normalise_size(text)) return n->code;
    return "";
}

}  // namespace

std::string chart_csv(const BlankStyle& style) {
    const auto measures = family_measures(style.family);
    std::string out = "size";
    std::vector<bool> taped;
    for (const Measure m : measures) {
        bool any = false;
        for (const std::string& s : style.sizes) any = any || style.chart.at(s).at(m).source == Source::measured;
        taped.push_back(any);
        out += "," + csv_field(measure_short(m) + " (mm)");
        if (any) out += "," + csv_field(measure_short(m) + " measured (mm)");
    }
    out += "\r\n";
    for (const std::string& s : style.sizes) {
        out += csv_field(s);
        for (std::size_t i = 0; i < measures.size(); ++i) {
            const Figure& f = style.chart.at(s).at(measures[i]);
            out += "," + number(f.published.value_or(f.value).mm());
            if (taped[i]) out += "," + (f.source == Source::measured ? number(f.value.mm()) : std::string());
        }
        out += "\r\n";
    }
    return out;
}

Result<ChartImport> import_chart(const Table& table, const BlankStyle& like) {
    // as rows of cells, the header being the first
    std::vector<std::vector<std::string>> cells{table.header};
    cells.insert(cells.end(), table.rows.begin(), table.rows.end());
    std::size_t wide = 0;
    for (auto& row : cells) wide = std::max(wide, row.size());
    if (wide > 200 || cells.size() > 500)
        return Error{"The size chart is too large: it has {n} {n?row|rows}.", {{"n", static_cast<int>(cells.size())}}};
    for (auto& row : cells) row.resize(wide);
    const auto count = [&](bool down) {
        int n = 0;
        for (std::size_t i = 1; i < (down ? cells.size() : wide); ++i)
            n += heading(down ? cells[i][0] : cells[0][i], like.family).has_value() ? 1 : 0;
        return n;
    };
    if (count(true) > count(false)) {
        std::vector<std::vector<std::string>> turned(wide, std::vector<std::string>(cells.size()));
        for (std::size_t r = 0; r < cells.size(); ++r)
            for (std::size_t c = 0; c < wide; ++c) turned[c][r] = cells[r][c];
        cells = std::move(turned);
        wide = cells[0].size();
    }
    if (count(false) == 0)
        return Error{"The size chart names no measure of its kind ({family}): its first row or column should, as “{measure}”.",
                     {{"family", Term{family_name(like.family)}}, {"measure", measure_short(main_measure(like.family))}}};
    ChartImport out;
    std::vector<std::string> sizes;
    std::vector<std::size_t> rows;
    for (std::size_t r = 1; r < cells.size(); ++r) {
        if (cells[r][0].empty()) continue;
        const std::string code = size_code(cells[r][0], like);
        if (code.empty())
            out.said.push_back({"“{size}” is not a size that is known: its row was left out.", {{"size", first_bytes(cells[r][0], 40)}}});
        else if (std::find(sizes.begin(), sizes.end(), code) != sizes.end())
            out.said.push_back({"Size {size} stands twice: the first row counts.", {{"size", code}}});
        else {
            sizes.push_back(code);
            rows.push_back(r);
        }
    }
    if (sizes.empty()) return Error{"The size chart has no size that is known."};
    out.style = with_sizes(like, sizes);
    std::map<Measure, bool> given;
    for (std::size_t c = 1; c < wide; ++c) {
        if (cells[0][c].empty()) continue;
        const auto h = heading(cells[0][c], like.family);
        if (!h) {
            out.said.push_back(
                {"“{measure}” is not a measure of this family: its figures were left out.", {{"measure", first_bytes(cells[0][c], 40)}}});
            continue;
        }
        // the unit of the column
        std::optional<double> unit = named_unit(cells[0][c]);
        if (!unit) unit = named_unit(cells[0][0]);
        for (std::size_t k = 0; k < rows.size() && !unit; ++k) unit = named_unit(cells[rows[k]][c]);
        std::vector<double> values, expected;
        for (std::size_t k = 0; k < rows.size(); ++k)
            if (const auto v = bare(cells[rows[k]][c]); v && *v > 0) {
                values.push_back(*v);
                expected.push_back(std::max(1.0, measure_mm(out.style.chart.at(sizes[k]), h->measure, 1)));
            }
        if (!unit && !values.empty()) {
            double best = 1e18;
            for (const double u : {1.0, 10.0, 25.4}) {
                double off = 0;
                for (std::size_t k = 0; k < values.size(); ++k) off += std::abs(std::log(values[k] * u / expected[k]));
                if (off < best) {
                    best = off;
                    unit = u;
                }
            }
            out.said.push_back({"{measure}: no unit is given, taken as {unit}.",
                                {{"measure", Term{measure_short(h->measure)}},
                                 {"unit", *unit == 1    ? "mm"
                                          : *unit == 10 ? "cm"
                                                        : "inches"}}});
        }
        for (std::size_t k = 0; k < rows.size(); ++k) {
            const std::string& cell = cells[rows[k]][c];
            if (cell.empty()) continue;
            const auto v = bare(cell);
            if (!v || *v < 0 || *v * unit.value_or(1) > 3000) {
                out.said.push_back({"“{figure}” for {measure} {size} is not a length: it was left out.",
                                    {{"figure", first_bytes(cell, 40)}, {"measure", Term{measure_short(h->measure)}}, {"size", sizes[k]}}});
                continue;
            }
            const Length length = Length::from_mm(*v * unit.value_or(1));
            if (h->measured)
                out.style = with_readings(out.style, sizes[k], h->measure, {length}, "");
            else
                out.style = with_published(out.style, sizes[k], h->measure, length);
            given[h->measure] = true;
        }
    }
    // What the chart does not give follows the pattern in proportion to the main measure.
    const Measure main = main_measure(like.family);
    if (given.contains(main)) {
        const BlankStyle pattern = new_style(like, like.id, like.name, sizes);
        int followed = 0;
        for (const std::string& s : sizes) {
            const double ratio = measure_mm(out.style.chart.at(s), main) / std::max(1.0, measure_mm(pattern.chart.at(s), main));
            for (const Measure m : family_measures(like.family)) {
                if (given.contains(m) || may_be_zero(m)) continue;
                if (out.style.chart.at(s).at(m).source == Source::measured) continue;
                out.style = with_published(out.style, s, m, pattern.chart.at(s).at(m).value * ratio);
                ++followed;
            }
        }
        if (followed > 0) out.said.push_back({"Measures that the chart lacks follow “{blank}” in proportion.", {{"blank", like.name}}});
    }
    if (const auto fault = style_fault(out.style)) return *fault;
    return out;
}

}  // namespace orthema
