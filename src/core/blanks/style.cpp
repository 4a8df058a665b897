#include "core/blanks/style.h"

#include <algorithm>

namespace orthema {

namespace {

struct MeasureText {
    const char* key;
    const char* name;
};

constexpr std::array<MeasureText, measure_count> measure_texts = {{
    {"body_length", "Body length, HPS to hem"},
    {"chest", "Chest, pit to pit"},
    {"hem_width", "Hem width"},
    {"neck_width", "Neck width"},
    {"front_neck_drop", "Front neck drop"},
    {"back_neck_drop", "Back neck drop"},
    {"rib_height", "Rib height"},
    {"across_shoulder", "Across shoulder"},
    {"shoulder_slope", "Shoulder slope"},
    {"armhole_depth", "Armhole depth, HPS to pit line"},
    {"sleeve_length", "Sleeve length"},
    {"sleeve_opening", "Sleeve opening"},
    {"pouch_top", "HPS to pouch top"},
    {"pouch_width", "Pouch width"},
    {"pouch_height", "Pouch height"},
    {"hood_height", "Hood height"},
    {"snap_width", "Snap tab width"},
    {"snap_height", "Snap tab height"},
}};

constexpr std::array<const char*, 5> family_keys = {"infant_bodysuit", "toddler_tee", "youth_tee", "adult_tee", "hooded_fleece"};

Figure& figure_of(BlankStyle& style, const std::string& size, Measure m) { return style.chart[size][m]; }

double published_mm(const Figure& f) { return f.published.value_or(f.value).mm(); }

/// Grades one measure along the run: between two measured sizes by the published proportion.
void grade(BlankStyle& style, Measure m) {
    std::vector<std::size_t> measured;
    for (std::size_t i = 0; i < style.sizes.size(); ++i) {
        Figure& f = figure_of(style, style.sizes[i], m);
        if (f.source == Source::measured) {
            measured.push_back(i);
        } else if (f.source == Source::graded) {
            f.value = f.published.value_or(f.value);
            f.source = Source::published;
            f.published.reset();
        }
    }
    for (std::size_t k = 0; k + 1 < measured.size(); ++k) {
        const std::size_t a = measured[k];
        const std::size_t b = measured[k + 1];
        const Figure fa = figure_of(style, style.sizes[a], m);
        const Figure fb = figure_of(style, style.sizes[b], m);
        for (std::size_t i = a + 1; i < b; ++i) {
            Figure& f = figure_of(style, style.sizes[i], m);
            const double span = published_mm(fb) - published_mm(fa);
            const double t =
                span != 0 ? (published_mm(f) - published_mm(fa)) / span : static_cast<double>(i - a) / static_cast<double>(b - a);
            f.published = f.published.value_or(f.value);
            f.value = fa.value + (fb.value - fa.value) * t;
            f.source = Source::graded;
        }
    }
}

}  // namespace

const char* measure_name(Measure m) { return measure_texts[static_cast<std::size_t>(m)].name; }
const char* measure_key(Measure m) { return measure_texts[static_cast<std::size_t>(m)].key; }

std::optional<Measure> measure_from_key(const std::string& key) {
    for (std::size_t i = 0; i < measure_texts.size(); ++i)
        if (key == measure_texts[i].key) return static_cast<Measure>(i);
    return std::nullopt;
}

const char* source_name(Source source) {
    switch (source) {
    case Source::published: return "published";
    case Source::measured: return "measured";
    case Source::graded: return "graded";
    }
    return "published";
}

const char* family_key(Family family) { return family_keys[static_cast<std::size_t>(family)]; }

std::optional<Family> family_from_key(const std::string& key) {
    for (std::size_t i = 0; i < family_keys.size(); ++i)
        if (key == family_keys[i]) return static_cast<Family>(i);
    return std::nullopt;
}

AgeGroup family_group(Family family) {
    switch (family) {
    case Family::infant_bodysuit: return AgeGroup::infant;
    case Family::toddler_tee: return AgeGroup::toddler;
    case Family::youth_tee: return AgeGroup::youth;
    case Family::adult_tee:
    case Family::hooded_fleece: return AgeGroup::adult;
    }
    return AgeGroup::any;
}

std::vector<Measure> family_measures(Family family) {
    std::vector<Measure> out;
    for (int i = 0; i <= static_cast<int>(Measure::sleeve_opening); ++i) out.push_back(static_cast<Measure>(i));
    if (family == Family::hooded_fleece)
        out.insert(out.end(), {Measure::pouch_top, Measure::pouch_width, Measure::pouch_height, Measure::hood_height});
    if (family == Family::infant_bodysuit) out.insert(out.end(), {Measure::snap_width, Measure::snap_height});
    return out;
}

double measure_mm(const Measures& measures, Measure m, double fallback) {
    const auto at = measures.find(m);
    return at == measures.end() ? fallback : at->second.value.mm();
}

int size_index(const BlankStyle& style, const std::string& size) {
    const auto at = std::find(style.sizes.begin(), style.sizes.end(), size);
    return at == style.sizes.end() ? -1 : static_cast<int>(at - style.sizes.begin());
}

BlankStyle with_measured(const BlankStyle& style, const std::string& size, Measure m, Length value, int pieces, const std::string& date) {
    BlankStyle out = style;
    Figure& f = figure_of(out, size, m);
    f.published = Length::from_mm(published_mm(f));
    f.value = value;
    f.source = Source::measured;
    f.pieces = std::max(1, pieces);
    f.date = date;
    grade(out, m);
    return out;
}

BlankStyle with_published(const BlankStyle& style, const std::string& size, Measure m) {
    BlankStyle out = style;
    Figure& f = figure_of(out, size, m);
    f = Figure{Length::from_mm(published_mm(f)), Source::published, std::nullopt, 0, {}};
    grade(out, m);
    return out;
}

std::optional<std::string> style_fault(const BlankStyle& style) {
    if (style.sizes.empty()) return "“" + style.name + "” has no sizes: add at least one.";
    for (const std::string& size : style.sizes) {
        const auto row = style.chart.find(size);
        const auto mm = [&](Measure m) { return row == style.chart.end() ? 0.0 : measure_mm(row->second, m); };
        for (const Measure m : family_measures(style.family)) {
            const bool may_be_zero = m == Measure::rib_height || m == Measure::shoulder_slope;
            if (mm(m) > 3000 || mm(m) < (may_be_zero ? 0.0 : 5.0))
                return "“" + style.name + "”, size " + size + ": " + measure_name(m) +
                       " is missing or absurd; type it between 5 mm and 3 m.";
        }
        if (mm(Measure::armhole_depth) >= mm(Measure::body_length) || mm(Measure::front_neck_drop) >= mm(Measure::armhole_depth) ||
            mm(Measure::neck_width) >= mm(Measure::across_shoulder))
            return "“" + style.name + "”, size " + size +
                   ": the figures contradict each other (neck inside shoulders, armhole inside body); check them.";
    }
    return std::nullopt;
}

}  // namespace orthema
