#include "core/blanks/measures.h"

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
    {"hem_curve", "Hem curve, rise at the sides"},
    {"width", "Width"},
    {"height", "Height"},
    {"top_width", "Bib width, at the top edge"},
    {"bib_height", "Bib height"},
    {"corner_radius", "Corner radius"},
    {"hole_diameter", "Hole diameter"},
    {"hole_inset", "Hole inset, edge to its middle"},
    {"notch_width", "Notch width"},
    {"notch_depth", "Notch depth"},
    {"handle_spacing", "Handle spacing"},
    {"crown_width", "Crown width, front panel"},
    {"crown_height", "Crown height, front panel"},
    {"side_width", "Side panel width"},
    {"side_height", "Side panel height"},
    {"back_width", "Back panel width"},
    {"back_height", "Back panel height"},
    {"arch_width", "Arch width, above the closure"},
    {"arch_height", "Arch height"},
    {"bill_width", "Bill width"},
    {"bill_depth", "Bill depth"},
    {"circumference", "Circumference, by tape"},
    {"top_diameter", "Top diameter"},
    {"bottom_diameter", "Bottom diameter"},
    {"wall_height", "Wall height, rim to base"},
    {"handle_gap", "Handle gap"},
    {"rim_margin", "Rim margin"},
    {"base_margin", "Base margin"},
    {"waist_width", "Waist width"},
    {"hip_width", "Hip width"},
    {"hip_depth", "Hip depth, waist to crotch"},
    {"outseam", "Outseam"},
    {"leg_opening", "Leg opening"},
    {"crown_middle", "Crown at half height, over its curve"},
    {"clip_gap", "Clip gap, of the wrap it is heated in"},
    {"patch_top", "Patch top, from the rim"},
    {"patch_width", "Patch width, printable field"},
    {"patch_height", "Patch height"},
}};

}  // namespace

const char* measure_name(Measure m) { return measure_texts[static_cast<std::size_t>(m)].name; }
const char* measure_key(Measure m) { return measure_texts[static_cast<std::size_t>(m)].key; }

std::string measure_short(Measure m) {
    const std::string name = measure_name(m);
    return name.substr(0, name.find(','));
}

std::optional<Measure> measure_from_key(const std::string& key) {
    for (std::size_t i = 0; i < measure_texts.size(); ++i)
        if (key == measure_texts[i].key) return static_cast<Measure>(i);
    return std::nullopt;
}

bool may_be_zero(Measure m) {
    switch (m) {
    case Measure::rib_height:
    case Measure::shoulder_slope:
    case Measure::hem_curve:
    case Measure::corner_radius:
    case Measure::notch_width:
    case Measure::notch_depth:
    case Measure::handle_gap:
    case Measure::rim_margin:
    case Measure::base_margin:
    case Measure::crown_middle:
    case Measure::clip_gap:
    case Measure::patch_top:
    case Measure::patch_width:
    case Measure::patch_height: return true;
    default: return false;
    }
}

const char* source_name(Source source) {
    switch (source) {
    case Source::published: return "published";
    case Source::measured: return "measured";
    case Source::graded: return "graded";
    }
    return "published";
}

bool photographed(const Figure& f) {
    return std::any_of(f.errors.begin(), f.errors.end(), [](Length e) { return e.mm() > 0; });
}

Length spread(const Figure& f) {
    if (f.readings.empty()) return {};
    const auto [least, most] = std::minmax_element(f.readings.begin(), f.readings.end());
    return *most - *least;
}

double measure_mm(const Measures& measures, Measure m, double fallback) {
    const auto at = measures.find(m);
    return at == measures.end() ? fallback : at->second.value.mm();
}

double ends_gap(const Measures& m) { return std::max(measure_mm(m, Measure::handle_gap), measure_mm(m, Measure::clip_gap)); }

}  // namespace orthema
