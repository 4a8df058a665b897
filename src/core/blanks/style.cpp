#include "core/blanks/style.h"

#include <algorithm>
#include <cmath>
#include <array>
#include <numeric>

namespace orthema {

namespace {

struct FaceText {
    const char* key;
    const char* name;
};
constexpr std::array<FaceText, face_count> face_texts = {{
    {"front", "front"},
    {"back", "back"},
    {"left_sleeve", "left sleeve (wearer's left)"},
    {"right_sleeve", "right sleeve (wearer's right)"},
    {"left_leg", "left leg (wearer's left)"},
    {"right_leg", "right leg (wearer's right)"},
    {"hood", "hood"},
    {"cap_front", "front panel"},
    {"cap_left", "left side (wearer's left)"},
    {"cap_right", "right side (wearer's right)"},
    {"cap_back", "back panel"},
    {"bill", "bill"},
    {"wrap", "unrolled wall"},
}};

Figure& figure_of(BlankStyle& style, const std::string& size, Measure m) { return style.chart[size][m]; }

Length published_of(const Figure& f) { return f.published.value_or(f.value); }

/// Grades one measure along the run: between two measured sizes by the published proportion.
void grade(BlankStyle& style, Measure m) {
    std::vector<std::size_t> measured;
    for (std::size_t i = 0; i < style.sizes.size(); ++i) {
        Figure& f = figure_of(style, style.sizes[i], m);
        if (f.source == Source::measured) {
            measured.push_back(i);
        } else if (f.source == Source::graded) {
            f.value = published_of(f);
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
            const double span = (published_of(fb) - published_of(fa)).mm();
            const double t =
                span != 0 ? (published_of(f) - published_of(fa)).mm() / span : static_cast<double>(i - a) / static_cast<double>(b - a);
            f.published = published_of(f);
            f.value = fa.value + (fb.value - fa.value) * t;
            f.source = Source::graded;
        }
    }
}

std::string lower(std::string s) {
    std::transform(s.begin(), s.end(), s.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return s;
}

using M = Measure;

/// What the figures of one size contradict; nothing where they hold together.
std::optional<std::string> contradiction(Family family, const Measures& row) {
    const auto mm = [&](Measure m) { return measure_mm(row, m); };
    switch (family_build(family)) {
    case Build::upper_body:
        if (mm(M::armhole_depth) >= mm(M::body_length) || mm(M::front_neck_drop) >= mm(M::armhole_depth) ||
            mm(M::neck_width) >= mm(M::across_shoulder) || mm(M::shoulder_slope) >= mm(M::armhole_depth))
            return "neck inside shoulders, armhole inside body";
        if (mm(M::hem_curve) >= mm(M::body_length) - mm(M::armhole_depth)) return "the hem curve stays below the pit line";
        break;
    case Build::trousers:
        if (mm(M::hip_depth) >= mm(M::outseam) || mm(M::leg_opening) * 2 > mm(M::hip_width) * 1.2) return "hip depth inside the outseam";
        break;
    case Build::apron:
        if (mm(M::bib_height) >= mm(M::height) || mm(M::top_width) > mm(M::width)) return "bib inside the skirt";
        break;
    case Build::bag:
        if (mm(M::handle_spacing) >= mm(M::width)) return "handles inside the width";
        break;
    case Build::cap:
        if (mm(M::arch_height) >= mm(M::back_height) || mm(M::arch_width) >= mm(M::back_width)) return "arch inside the back panel";
        if (mm(M::crown_middle) > 0 && mm(M::crown_middle) < mm(M::crown_width) / 2)
            return "the crown at half height is at least half as wide as at the bill";
        break;
    case Build::flat:
        if (mm(M::corner_radius) > std::min(mm(M::width), mm(M::height)) / 2 + 0.01) return "corner radius at most half the shorter side";
        if (mm(M::hole_inset) * 2 > std::max(mm(M::width), mm(M::height)) ||
            (mm(M::hole_inset) > 0 && mm(M::hole_diameter) / 2 >= mm(M::hole_inset)))
            return "hole inside the edge";
        if (mm(M::notch_width) >= mm(M::width) || mm(M::notch_depth) >= mm(M::height) / 2) return "notch inside the edge";
        break;
    case Build::wrap: {
        const double around = is_tapered(family) ? mm(M::bottom_diameter) * 3.14159 : mm(M::circumference);
        if (mm(M::rim_margin) + mm(M::base_margin) >= mm(M::wall_height) - 5 || ends_gap(row) >= around - 20)
            return "margins inside the wall, handle and clip inside the circumference";
        if ((mm(M::patch_width) > 0) != (mm(M::patch_height) > 0)) return "a patch has a width and a height";
        if (mm(M::patch_top) + mm(M::patch_height) > mm(M::wall_height) || mm(M::patch_width) > around) return "patch inside the wall";
        break;
    }
    }
    return std::nullopt;
}

}  // namespace

const char* face_key(Face f) { return face_texts[static_cast<std::size_t>(f)].key; }
const char* face_name(Face f) { return face_texts[static_cast<std::size_t>(f)].name; }

std::string side_words(Family family, Face face, const Reading& reading) {
    std::string out = said(reading, face_name(face));
    if (is_worn(family) && face == Face::front) out += said(reading, ": the wearer's left is on your right");
    if (is_worn(family) && face == Face::back) out += said(reading, ": the wearer's left is on your left");
    return out;
}

std::vector<Face> family_faces(Family f) {
    switch (family_build(f)) {
    case Build::upper_body: {
        std::vector<Face> out{Face::front, Face::back};
        if (has_sleeves(f)) out.insert(out.end(), {Face::left_sleeve, Face::right_sleeve});
        if (has_hood(f)) out.push_back(Face::hood);
        return out;
    }
    case Build::trousers: return {Face::front, Face::left_leg, Face::right_leg};
    case Build::cap: return {Face::cap_front, Face::cap_left, Face::cap_right, Face::cap_back, Face::bill};
    case Build::wrap: return {Face::wrap};
    case Build::apron: return {Face::front};
    case Build::bag:
    case Build::flat:
        return f == Family::patch || f == Family::face_covering ? std::vector{Face::front} : std::vector{Face::front, Face::back};
    }
    return {};
}

const char* feature_kind_name(FeatureKind kind) {
    static constexpr std::array<const char*, feature_kind_count> names = {"pocket", "placket", "zip", "snaps", "tag", "seam"};
    return names[static_cast<std::size_t>(kind)];
}

StyleFeature usual_feature(FeatureKind kind, Face face, double w, double l, bool upper) {
    const auto mm = [](double v) { return Length::from_mm(std::round(v)); };
    StyleFeature f;
    f.kind = kind;
    f.face = face;
    f.clearance = mm(10);
    f.raised = mm(2);
    switch (kind) {
    case FeatureKind::pocket:
        f.across = mm(upper ? w * 0.19 : 0);
        f.down = mm(l * (upper ? 0.3 : 0.45));
        f.width = mm(upper ? w * 0.22 : w * 0.4);
        f.height = mm(upper ? w * 0.24 : w * 0.28);
        break;
    case FeatureKind::placket:
        f.down = mm(l * (upper ? 0.11 : 0));
        f.width = mm(32);
        f.height = mm(l * 0.2);
        f.raised = mm(3);
        break;
    case FeatureKind::zip:
        f.width = mm(20);
        f.height = mm(l);
        f.raised = mm(4);
        f.growth = 1;
        break;
    case FeatureKind::snaps:
        f.down = mm(l * 0.9);
        f.width = mm(w * 0.35);
        f.height = mm(22);
        f.raised = mm(5);
        break;
    case FeatureKind::tag:
        f.down = mm(l * 0.88);
        f.across = mm(w * 0.38);
        f.width = mm(25);
        f.height = mm(30);
        f.raised = mm(1.0);
        f.clearance = mm(6);
        break;
    case FeatureKind::seam:
        f.down = mm(l * 0.5);
        f.width = mm(w);
        f.height = mm(4);
        f.raised = mm(2);
        f.growth = 1;
        break;
    }
    return f;
}

BlankStyle with_feature(const BlankStyle& style, StyleFeature feature) {
    BlankStyle out = style;
    for (StyleFeature& other : out.features) {
        if (other.kind != feature.kind || other.face != feature.face) continue;
        if (other.across == Length{}) other.across = other.width * -0.56;
        feature = other;
        feature.across = other.across * -1.0;
        break;
    }
    out.features.push_back(feature);
    return out;
}

int size_index(const BlankStyle& style, const std::string& size) {
    const auto at = std::find(style.sizes.begin(), style.sizes.end(), size);
    return at == style.sizes.end() ? -1 : static_cast<int>(at - style.sizes.begin());
}

std::string usual_base_size(const BlankStyle& style) {
    if (size_index(style, "M") >= 0) return "M";
    return style.sizes.empty() ? std::string() : style.sizes[style.sizes.size() / 2];
}

std::string sample_size(const BlankStyle& style) {
    if (size_index(style, style.sample_size) >= 0) return style.sample_size;
    return style.sizes.empty() ? std::string() : style.sizes[style.sizes.size() / 2];
}

bool holds_when_pressed(const BlankStyle& style, const Figure& figure) { return !style.shrinks || figure.preshrunk; }

bool of_other_batch(const BlankStyle& style, const Figure& figure) {
    return figure.source == Source::measured && !style.batch.empty() && !figure.batch.empty() && style.batch != figure.batch;
}

BlankStyle with_reading(const BlankStyle& style, const std::string& size, Measure m, Length value, const std::string& date, Length error) {
    const Figure& before = style.chart.at(size).at(m);
    const bool of_these = holds_when_pressed(style, before) && !of_other_batch(style, before);
    std::vector<Length> readings = of_these ? before.readings : std::vector<Length>{};
    readings.push_back(value);
    BlankStyle out = with_readings(style, size, m, std::move(readings), date);
    Figure& f = figure_of(out, size, m);
    if (!of_these) f.errors.clear();
    if (error.mm() > 0) {
        f.errors.resize(f.readings.size());
        f.errors.back() = error;
    }
    return out;
}

BlankStyle with_readings(const BlankStyle& style, const std::string& size, Measure m, std::vector<Length> readings,
                         const std::string& date) {
    BlankStyle out = style;
    Figure& f = figure_of(out, size, m);
    const Length published = published_of(f);
    if (readings.empty()) {
        f = Figure{published, Source::published, std::nullopt, {}, {}, {}, false, {}};
    } else {
        f.published = published;
        f.value = std::accumulate(readings.begin(), readings.end(), Length{}) / static_cast<double>(readings.size());
        f.source = Source::measured;
        f.readings = std::move(readings);
        if (f.errors.size() > f.readings.size()) f.errors.resize(f.readings.size());
        f.date = date;
        f.preshrunk = style.shrinks;
        f.batch = style.batch;
    }
    grade(out, m);
    return out;
}

BlankStyle with_published(const BlankStyle& style, const std::string& size, Measure m, Length value) {
    BlankStyle out = style;
    Figure& f = figure_of(out, size, m);
    if (f.source == Source::published)
        f.value = value;
    else
        f.published = value;
    grade(out, m);
    return out;
}

BlankStyle completed(BlankStyle style) {
    for (const std::string& size : style.sizes)
        for (const Measure m : family_measures(style.family))
            if (may_be_zero(m)) style.chart[size].try_emplace(m);
    return style;
}

BlankStyle new_style(const BlankStyle& pattern, const std::string& id, const std::string& name, const std::vector<std::string>& sizes) {
    BlankStyle out = pattern;
    out.id = id;
    out.name = name;
    out.sizes = sizes;
    out.tags.clear();
    out.archived = false;
    out.chart.clear();
    if (pattern.sizes.empty()) return out;
    const auto published = [&](std::size_t i, Measure m) { return published_of(pattern.chart.at(pattern.sizes[i]).at(m)); };
    // A size of the pattern's own run takes its figures. The others follow in order: between two known ones they share
    // the span, past the last they go on by the step between the pattern's last two, before the first likewise.
    std::vector<double> place;  // index into the pattern's run, fractions between
    place.reserve(sizes.size());
    const auto n = static_cast<double>(pattern.sizes.size());
    for (const std::string& s : sizes) place.push_back(size_index(pattern, s));
    bool any = false;
    for (const double p : place) any = any || p >= 0;
    if (!any)
        for (std::size_t i = 0; i < place.size(); ++i)
            place[i] = std::max(0.0, std::floor((n - static_cast<double>(place.size())) / 2)) + static_cast<double>(i);
    for (std::size_t i = 0; i < place.size(); ++i) {
        if (place[i] >= 0) continue;
        std::size_t after = i;
        while (after < place.size() && place[after] < 0) ++after;
        if (i == 0)
            place[i] = place[after] - static_cast<double>(after);  // may lie before the run
        else if (after == place.size())
            place[i] = place[i - 1] + 1;
        else
            place[i] = place[i - 1] + (place[after] - place[i - 1]) / static_cast<double>(after - i + 1);
    }
    for (std::size_t i = 0; i < sizes.size(); ++i)
        for (const Measure m : family_measures(pattern.family)) {
            double mm = 0;
            if (pattern.sizes.size() == 1) {
                mm = published(0, m).mm();
            } else {
                const double at = std::clamp(std::floor(place[i]), 0.0, n - 2);
                const auto low = static_cast<std::size_t>(at);
                mm = published(low, m).mm() + (published(low + 1, m) - published(low, m)).mm() * (place[i] - at);
            }
            out.chart[sizes[i]][m].value = Length::from_mm(std::max(may_be_zero(m) ? 0.0 : 5.0, mm));
        }
    if (size_index(out, out.sample_size) < 0) out.sample_size.clear();
    return out;
}

BlankStyle with_sizes(const BlankStyle& style, const std::vector<std::string>& sizes) {
    BlankStyle out = new_style(style, style.id, style.name, sizes);
    out.tags = style.tags;
    out.archived = style.archived;
    for (const std::string& s : sizes)
        if (const auto at = style.chart.find(s); at != style.chart.end()) out.chart[s] = at->second;
    return out;
}

bool matches(const BlankStyle& style, const std::string& words) {
    std::string all = style.name + " " + family_name(style.family) + " " + style.fabric;
    for (const std::string& tag : style.tags) all += " " + tag;
    for (const BlankColour& c : style.colours) all += " " + c.name;
    all = lower(all);
    std::string word;
    for (const char c : lower(words) + " ") {
        if (c != ' ') {
            word += c;
            continue;
        }
        if (!word.empty() && all.find(word) == std::string::npos) return false;
        word.clear();
    }
    return true;
}

const BlankColour* find_colour(const BlankStyle& style, const std::string& name) {
    const auto at = std::find_if(style.colours.begin(), style.colours.end(), [&](const BlankColour& c) { return c.name == name; });
    return at == style.colours.end() ? nullptr : &*at;
}

std::optional<Error> style_fault(const BlankStyle& style) {
    if (style.sizes.empty()) return Error{"“{blank}” has no sizes: add at least one.", {{"blank", style.name}}};
    for (const std::string& size : style.sizes) {
        const auto row = style.chart.find(size);
        const auto mm = [&](Measure m) { return row == style.chart.end() ? 0.0 : measure_mm(row->second, m); };
        for (const Measure m : family_measures(style.family)) {
            // A hole or a rib is small; everything else of a blank is at least a finger wide.
            const double least = may_be_zero(m) ? 0.0 : m == Measure::hole_diameter || m == Measure::hole_inset ? 1.0 : 5.0;
            if (!(mm(m) <= 3000 && mm(m) >= least))
                return Error{"“{blank}”, size {size}: {measure} is missing or absurd; type it between 5 mm and 3 m.",
                             {{"blank", style.name}, {"size", size}, {"measure", measure_name(m)}}};
        }
        if (const auto what = contradiction(style.family, row->second))
            return Error{"“{blank}”, size {size}: the figures contradict each other ({what}); check them.",
                         {{"blank", style.name}, {"size", size}, {"what", Term{*what}}}};
        const double width = mm(main_measure(style.family));
        for (const StyleFeature& f : style.features)
            if (f.width.mm() < 1 || f.height.mm() < 1 || f.width.mm() > 3 * std::max(100.0, width) || f.height.mm() > 3000 ||
                std::abs(f.across.mm()) > 3000 || std::abs(f.down.mm()) > 3000 || f.clearance.mm() < 0 || f.clearance.mm() > 200 ||
                f.raised.mm() < 0 || f.raised.mm() > 100)
                return Error{"“{blank}”: an absurd figure of its {feature}; check its place and size.",
                             {{"blank", style.name}, {"feature", feature_kind_name(f.kind)}}};
    }
    return std::nullopt;
}

}  // namespace orthema
