#include "core/blanks/family.h"

namespace orthema {

namespace {

/// What a family is, once for all who ask: guides, presses, cautions.
enum Trait : unsigned {
    hood = 1,
    sleeves = 2,
    long_sleeves = 4,
    worn = 8,           ///< by somebody, whose left and right are then said
    hard = 16,          ///< ceramic, glass or board that breaks or burns
    infant_wear = 32,   ///< local rules on small parts, snaps, labels and inks
    double_layer = 64,  ///< one layer is pressed over a board
    tapered = 128,      ///< the wall unrolls to a ring sector
};

struct Traits {
    const char* key;
    const char* name;
    AgeGroup group;
    Build build;
    double load_seconds;  ///< to dress a press with one; a starting value
    unsigned traits;
};

constexpr std::array<Traits, family_count> table = {{
    {"infant_bodysuit", "Infant bodysuit", AgeGroup::infant, Build::upper_body, 15, sleeves | worn | infant_wear},
    {"toddler_tee", "Toddler tee", AgeGroup::toddler, Build::upper_body, 15, sleeves | worn | infant_wear},
    {"youth_tee", "Youth tee", AgeGroup::youth, Build::upper_body, 15, sleeves | worn},
    {"adult_tee", "Adult tee", AgeGroup::adult, Build::upper_body, 15, sleeves | worn},
    {"hooded_fleece", "Hooded fleece", AgeGroup::adult, Build::upper_body, 22, sleeves | long_sleeves | hood | worn},
    {"tank", "Tank", AgeGroup::adult, Build::upper_body, 15, worn},
    {"reversible_jersey", "Reversible jersey", AgeGroup::adult, Build::upper_body, 15, worn | double_layer},
    {"crew_fleece", "Crew fleece", AgeGroup::adult, Build::upper_body, 15, sleeves | long_sleeves | worn},
    {"zip_hooded_fleece", "Zip hooded fleece", AgeGroup::adult, Build::upper_body, 22, sleeves | long_sleeves | hood | worn},
    {"long_sleeve", "Long sleeve", AgeGroup::adult, Build::upper_body, 15, sleeves | long_sleeves | worn},
    {"jogger", "Fleece trousers", AgeGroup::adult, Build::trousers, 15, worn},
    {"apron", "Apron", AgeGroup::adult, Build::apron, 15, worn},
    {"tote", "Tote", AgeGroup::any, Build::bag, 15, 0},
    {"cap", "Cap", AgeGroup::any, Build::cap, 12, worn},
    {"flag", "Flag", AgeGroup::any, Build::flat, 12, 0},
    {"pennant", "Pennant", AgeGroup::any, Build::flat, 12, 0},
    {"face_covering", "Face covering", AgeGroup::any, Build::flat, 12, worn},
    {"tag", "Tag", AgeGroup::any, Build::flat, 4, hard},
    {"coaster", "Coaster", AgeGroup::any, Build::flat, 4, hard},
    {"tile", "Tile", AgeGroup::any, Build::flat, 4, hard},
    {"patch", "Patch", AgeGroup::any, Build::flat, 12, 0},
    {"mug", "Mug", AgeGroup::any, Build::wrap, 8, hard},
    {"straight_tumbler", "Straight tumbler", AgeGroup::any, Build::wrap, 8, hard},
    {"can_sleeve", "Can sleeve", AgeGroup::any, Build::wrap, 8, 0},
    {"tapered_tumbler", "Tapered tumbler", AgeGroup::any, Build::wrap, 8, hard | tapered},
}};

const Traits& of(Family f) { return table[static_cast<std::size_t>(f)]; }
bool has(Family f, Trait trait) { return (of(f).traits & trait) != 0; }

}  // namespace

const char* family_key(Family f) { return of(f).key; }
const char* family_name(Family f) { return of(f).name; }
AgeGroup family_group(Family f) { return of(f).group; }
Build family_build(Family f) { return of(f).build; }

std::optional<Family> family_from_key(const std::string& key) {
    for (std::size_t i = 0; i < table.size(); ++i)
        if (key == table[i].key) return static_cast<Family>(i);
    return std::nullopt;
}

bool has_hood(Family f) { return has(f, hood); }
bool has_sleeves(Family f) { return has(f, sleeves); }
bool is_long_sleeved(Family f) { return has(f, long_sleeves); }
bool is_worn(Family f) { return has(f, worn); }
bool is_hard(Family f) { return has(f, hard); }
bool is_infant_wear(Family f) { return has(f, infant_wear); }
bool is_double_layer(Family f) { return has(f, double_layer); }
bool is_tapered(Family f) { return has(f, tapered); }
double usual_load_seconds(Family f) { return of(f).load_seconds; }

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
        return {M::crown_width, M::crown_height, M::crown_middle, M::side_width, M::side_height, M::back_width,
                M::back_height, M::arch_width,   M::arch_height,  M::bill_width, M::bill_depth};
    case Build::flat:
        switch (f) {
        case Family::flag:
        case Family::pennant:
        case Family::tag: return {M::width, M::height, M::corner_radius, M::hole_diameter, M::hole_inset};
        case Family::tile:
        case Family::coaster: return {M::width, M::height, M::corner_radius, M::notch_width, M::notch_depth};
        default: return {M::width, M::height, M::corner_radius};
        }
    case Build::wrap: {
        std::vector<M> out{M::circumference};
        if (is_tapered(f)) out = {M::top_diameter, M::bottom_diameter};
        out.push_back(M::wall_height);
        if (is_tapered(f) || f == Family::mug) out.push_back(M::handle_gap);
        out.insert(out.end(), {M::rim_margin, M::base_margin, M::clip_gap, M::patch_top, M::patch_width, M::patch_height});
        return out;
    }
    }
    return {};
}

Measure main_measure(Family f) {
    switch (family_build(f)) {
    case Build::upper_body: return Measure::chest;
    case Build::trousers: return Measure::hip_width;
    case Build::cap: return Measure::crown_width;
    case Build::wrap: return is_tapered(f) ? Measure::top_diameter : Measure::circumference;
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
