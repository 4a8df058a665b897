#include "core/blanks/family.h"

namespace orthema {

namespace {

struct FamilyText {
    const char* key;
    const char* name;
    AgeGroup group;
    Build build;
};

constexpr std::array<FamilyText, family_count> texts = {{
    {"infant_bodysuit", "Infant bodysuit", AgeGroup::infant, Build::upper_body},
    {"toddler_tee", "Toddler tee", AgeGroup::toddler, Build::upper_body},
    {"youth_tee", "Youth tee", AgeGroup::youth, Build::upper_body},
    {"adult_tee", "Adult tee", AgeGroup::adult, Build::upper_body},
    {"hooded_fleece", "Hooded fleece", AgeGroup::adult, Build::upper_body},
    {"tank", "Tank", AgeGroup::adult, Build::upper_body},
    {"reversible_jersey", "Reversible jersey", AgeGroup::adult, Build::upper_body},
    {"crew_fleece", "Crew fleece", AgeGroup::adult, Build::upper_body},
    {"zip_hooded_fleece", "Zip hooded fleece", AgeGroup::adult, Build::upper_body},
    {"long_sleeve", "Long sleeve", AgeGroup::adult, Build::upper_body},
    {"jogger", "Fleece trousers", AgeGroup::adult, Build::trousers},
    {"apron", "Apron", AgeGroup::adult, Build::apron},
    {"tote", "Tote", AgeGroup::any, Build::bag},
    {"cap", "Cap", AgeGroup::any, Build::cap},
    {"flag", "Flag", AgeGroup::any, Build::flat},
    {"pennant", "Pennant", AgeGroup::any, Build::flat},
    {"face_covering", "Face covering", AgeGroup::any, Build::flat},
    {"tag", "Tag", AgeGroup::any, Build::flat},
    {"coaster", "Coaster", AgeGroup::any, Build::flat},
    {"tile", "Tile", AgeGroup::any, Build::flat},
    {"patch", "Patch", AgeGroup::any, Build::flat},
    {"mug", "Mug", AgeGroup::any, Build::wrap},
    {"straight_tumbler", "Straight tumbler", AgeGroup::any, Build::wrap},
    {"can_sleeve", "Can sleeve", AgeGroup::any, Build::wrap},
    {"tapered_tumbler", "Tapered tumbler", AgeGroup::any, Build::wrap},
}};

const FamilyText& text(Family f) { return texts[static_cast<std::size_t>(f)]; }

}  // namespace

const char* family_key(Family f) { return text(f).key; }
const char* family_name(Family f) { return text(f).name; }
AgeGroup family_group(Family f) { return text(f).group; }
Build family_build(Family f) { return text(f).build; }

std::optional<Family> family_from_key(const std::string& key) {
    for (std::size_t i = 0; i < texts.size(); ++i)
        if (key == texts[i].key) return static_cast<Family>(i);
    return std::nullopt;
}

bool has_hood(Family f) { return f == Family::hooded_fleece || f == Family::zip_hooded_fleece; }
bool has_sleeves(Family f) { return family_build(f) == Build::upper_body && f != Family::tank && f != Family::reversible_jersey; }
bool is_long_sleeved(Family f) { return has_hood(f) || f == Family::crew_fleece || f == Family::long_sleeve; }
bool is_worn(Family f) {
    const Build b = family_build(f);
    return b == Build::upper_body || b == Build::trousers || b == Build::apron || b == Build::cap || f == Family::face_covering;
}
bool is_hard(Family f) {
    return f == Family::tag || f == Family::coaster || f == Family::tile || (family_build(f) == Build::wrap && f != Family::can_sleeve);
}

std::vector<Measure> family_measures(Family f) {
    using M = Measure;
    switch (family_build(f)) {
    case Build::upper_body: {
        std::vector<M> out;
        for (int i = 0; i <= static_cast<int>(has_sleeves(f) ? M::sleeve_opening : M::armhole_depth); ++i) out.push_back(static_cast<M>(i));
        if (f == Family::hooded_fleece) out.insert(out.end(), {M::pouch_top, M::pouch_width, M::pouch_height});
        if (has_hood(f)) out.push_back(M::hood_height);
        if (f == Family::infant_bodysuit)
            out.insert(out.end(), {M::snap_width, M::snap_height});
        else
            out.push_back(M::hem_curve);
        return out;
    }
    case Build::trousers: return {M::waist_width, M::hip_width, M::hip_depth, M::outseam, M::leg_opening, M::rib_height};
    case Build::apron: return {M::width, M::height, M::top_width, M::bib_height, M::hem_curve};
    case Build::bag: return {M::width, M::height, M::handle_spacing};
    case Build::cap:
        return {M::crown_width, M::crown_height, M::side_width,  M::side_height, M::back_width,
                M::back_height, M::arch_width,   M::arch_height, M::bill_width,  M::bill_depth};
    case Build::flat:
        switch (f) {
        case Family::flag:
        case Family::pennant:
        case Family::tag: return {M::width, M::height, M::corner_radius, M::hole_diameter, M::hole_inset};
        case Family::tile:
        case Family::coaster: return {M::width, M::height, M::corner_radius, M::notch_width, M::notch_depth};
        default: return {M::width, M::height, M::corner_radius};
        }
    case Build::wrap:
        if (f == Family::tapered_tumbler)
            return {M::top_diameter, M::bottom_diameter, M::wall_height, M::handle_gap, M::rim_margin, M::base_margin};
        if (f == Family::mug) return {M::circumference, M::wall_height, M::handle_gap, M::rim_margin, M::base_margin};
        return {M::circumference, M::wall_height, M::rim_margin, M::base_margin};
    }
    return {};
}

Measure main_measure(Family f) {
    switch (family_build(f)) {
    case Build::upper_body: return Measure::chest;
    case Build::trousers: return Measure::hip_width;
    case Build::cap: return Measure::crown_width;
    case Build::wrap: return f == Family::tapered_tumbler ? Measure::top_diameter : Measure::circumference;
    default: return Measure::width;
    }
}

Measure length_measure(Family f) {
    switch (family_build(f)) {
    case Build::upper_body: return Measure::body_length;
    case Build::trousers: return Measure::outseam;
    case Build::cap: return Measure::crown_height;
    case Build::wrap: return Measure::wall_height;
    default: return Measure::height;
    }
}

}  // namespace orthema
