#include "core/blanks/location.h"

#include <algorithm>
#include <cmath>

namespace orthema {

namespace {

struct LocationText {
    const char* key;
    const char* name;
    Face face;
    bool small;
    double width_share;
    PlacingSchool school;
};

using S = PlacingSchool;
constexpr std::array<LocationText, location_count> location_texts = {{
    {"full_front", "full front", Face::front, false, 0.53, S::collar_drop},
    {"centre_chest", "centre chest", Face::front, true, 0.33, S::collar_drop},
    {"left_chest", "left chest (wearer's left)", Face::front, true, 0.17, S::collar_drop},
    {"right_chest", "right chest (wearer's right)", Face::front, true, 0.17, S::collar_drop},
    {"pocket", "on the pocket", Face::front, true, 0.14, S::feature},
    {"full_back", "full back", Face::back, false, 0.56, S::collar_drop},
    {"upper_back", "upper back (nape)", Face::back, false, 0.22, S::collar_drop},
    {"lower_back", "lower back", Face::back, false, 0.4, S::feature},
    {"left_sleeve", "left sleeve (wearer's left)", Face::left_sleeve, true, 0.5, S::feature},
    {"right_sleeve", "right sleeve (wearer's right)", Face::right_sleeve, true, 0.5, S::feature},
    {"left_long_sleeve", "down the left sleeve (wearer's left)", Face::left_sleeve, true, 0.6, S::feature},
    {"right_long_sleeve", "down the right sleeve (wearer's right)", Face::right_sleeve, true, 0.6, S::feature},
    {"left_hem", "left hem (wearer's left)", Face::front, true, 0.15, S::feature},
    {"right_hem", "right hem (wearer's right)", Face::front, true, 0.15, S::feature},
    {"left_leg", "left leg (wearer's left)", Face::left_leg, true, 0.4, S::body_fraction},
    {"right_leg", "right leg (wearer's right)", Face::right_leg, true, 0.4, S::body_fraction},
    {"hood", "hood", Face::hood, true, 0.45, S::body_fraction},
    {"cap_front", "cap front", Face::cap_front, true, 0.62, S::feature},
    {"cap_left", "cap side (wearer's left)", Face::cap_left, true, 0.42, S::body_fraction},
    {"cap_right", "cap side (wearer's right)", Face::cap_right, true, 0.42, S::body_fraction},
    {"cap_back", "cap back, above the closure", Face::cap_back, true, 0.45, S::feature},
    {"bill", "bill", Face::bill, true, 0.4, S::body_fraction},
    {"wrap_full", "full wrap", Face::wrap, false, 0.96, S::body_fraction},
    {"wrap_front", "front, handle right", Face::wrap, false, 0.34, S::body_fraction},
    {"wrap_rear", "front, handle left", Face::wrap, false, 0.34, S::body_fraction},
    {"wrap_opposite", "opposite the handle", Face::wrap, false, 0.34, S::body_fraction},
    {"whole_front", "whole surface, front", Face::front, true, 0.8, S::body_fraction},
    {"whole_back", "whole surface, back", Face::back, true, 0.8, S::body_fraction},
    {"reverse_front", "full front, other colour out", Face::front, false, 0.53, S::collar_drop},
    {"reverse_back", "full back, other colour out", Face::back, false, 0.56, S::collar_drop},
}};

const LocationText& text(Location l) { return location_texts[static_cast<std::size_t>(l)]; }

}  // namespace

const char* location_key(Location l) { return text(l).key; }
const char* location_name(Location l) { return text(l).name; }
const char* location_name(Location l, Family on) {
    const std::vector<Measure> measures = family_measures(on);
    const bool handle = std::find(measures.begin(), measures.end(), Measure::handle_gap) != measures.end();
    if (handle || (l != Location::wrap_front && l != Location::wrap_rear)) return location_name(l);
    return l == Location::wrap_front ? "front of the wall" : "back of the wall";
}
Face location_face(Location l) { return text(l).face; }
bool is_small(Location l) { return text(l).small; }
double usual_width_share(Location l) { return text(l).width_share; }
PlacingSchool usual_school(Location l) { return text(l).school; }

std::optional<Location> location_from_key(const std::string& key) {
    for (int i = 0; i < location_count; ++i)
        if (key == location_texts[static_cast<std::size_t>(i)].key) return static_cast<Location>(i);
    return std::nullopt;
}

bool is_sided(Location l) {
    return l == Location::left_chest || l == Location::right_chest || l == Location::left_hem || l == Location::right_hem;
}

std::vector<Location> locations_of(const BlankStyle& style) {
    using L = Location;
    std::vector<L> out;
    const Family f = style.family;
    switch (family_build(f)) {
    case Build::upper_body:
        // nothing is pressed across a zip
        if (f != Family::zip_hooded_fleece) out = {L::full_front, L::centre_chest};
        out.insert(out.end(), {L::left_chest, L::right_chest});
        for (const StyleFeature& s : style.features)
            if (s.kind == FeatureKind::pocket && s.face == Face::front) {
                out.push_back(L::pocket);
                break;
            }
        out.insert(out.end(), {L::full_back, L::upper_back, L::lower_back});
        if (has_sleeves(f)) out.insert(out.end(), {L::left_sleeve, L::right_sleeve});
        if (is_long_sleeved(f)) out.insert(out.end(), {L::left_long_sleeve, L::right_long_sleeve});
        // a pouch, or leg openings, leave no room beside the hem
        if (!has_hood(f) && f != Family::infant_bodysuit) out.insert(out.end(), {L::left_hem, L::right_hem});
        if (has_hood(f)) out.push_back(L::hood);
        if (f == Family::reversible_jersey) out.insert(out.end(), {L::reverse_front, L::reverse_back});
        break;
    case Build::trousers: out = {L::left_leg, L::right_leg}; break;
    case Build::apron:
        out = {L::full_front, L::centre_chest};
        for (const StyleFeature& s : style.features)
            if (s.kind == FeatureKind::pocket) {
                out.push_back(L::pocket);
                break;
            }
        break;
    case Build::bag: out = {L::full_front, L::full_back}; break;
    case Build::cap: out = {L::cap_front, L::cap_left, L::cap_right, L::cap_back, L::bill}; break;
    case Build::flat:
        out = {L::whole_front};
        if (family_faces(f).size() > 1) out.push_back(L::whole_back);
        break;
    case Build::wrap: {
        out = {L::wrap_full, L::wrap_front, L::wrap_rear, L::wrap_opposite};
        // a printable field lies about the centre line alone
        const bool field = std::any_of(style.chart.begin(), style.chart.end(),
                                       [](const auto& row) { return measure_mm(row.second, Measure::patch_width) > 0; });
        if (field) out = {L::wrap_full, L::wrap_opposite};
        break;
    }
    }
    return out;
}

double anchor_x(Location l, const Panel& p) {
    switch (l) {
    case Location::left_chest:
    case Location::right_chest: {
        double x = (p.hps.x + p.shoulder_point.x) / 2;
        if (const Feature* armholes = find_feature(p, "armhole seam"))  // on narrow shoulders not into it
            for (const Polygon& part : armholes->place)
                if (bounds(part.outer).x0 > 0) x = std::min(x, 0.74 * bounds(part.outer).x0);
        return l == Location::left_chest ? x : -x;
    }
    case Location::left_hem: return p.width * 0.28;
    case Location::right_hem: return -p.width * 0.28;
    case Location::pocket: {
        const Landmark* pocket = find_landmark(p, "pocket centre");
        return pocket != nullptr ? pocket->at : 0;
    }
    // Unrolled with the handle at both ends: held in the right hand, the handle is at the viewer's right.
    case Location::wrap_front: return -p.width / 4;
    case Location::wrap_rear: return p.width / 4;
    default: return 0;
    }
}

std::string school_name(PlacingSchool school, const Panel& p) {
    switch (school) {
    case PlacingSchool::collar_drop: return p.top_name == "collar seam" ? "collar drop" : p.top_name + " drop";
    case PlacingSchool::pit_line: return "pit line";
    case PlacingSchool::body_fraction: return p.pit_y ? "body share" : "height share";
    case PlacingSchool::feature: return "feature";
    }
    return "";
}

bool school_applies(PlacingSchool school, const Panel& p) { return school != PlacingSchool::pit_line || p.pit_y.has_value(); }

std::string usual_landmark(Location l, const Panel& p) {
    const auto first = [&](std::initializer_list<const char*> names) -> std::string {
        for (const char* name : names)
            if (find_landmark(p, name) != nullptr) return name;
        return "";
    };
    switch (l) {
    case Location::pocket: return first({"pocket edge"});
    case Location::left_chest:
    case Location::right_chest: return first({"pocket top", "placket end", "collar seam"});
    case Location::full_front: return first({"pouch seam", "placket end", "collar seam", "pocket top", "rim", "bib edge", "top edge"});
    case Location::centre_chest: return first({"placket end", "collar seam", "bib edge"});
    case Location::full_back:
    case Location::upper_back: return first({"hood edge", "collar seam", "top edge"});
    case Location::lower_back:
    case Location::left_hem:
    case Location::right_hem: return first({"hem"});
    case Location::left_sleeve:
    case Location::right_sleeve: return first({"sleeve hem", "armhole seam"});
    case Location::left_long_sleeve:
    case Location::right_long_sleeve: return first({"cuff seam", "sleeve hem"});
    case Location::left_leg:
    case Location::right_leg: return first({"leg hem"});
    case Location::cap_front: return first({"bill seam"});
    case Location::cap_left:
    case Location::cap_right: return first({"sweatband edge"});
    case Location::cap_back: return first({"closure arch"});
    case Location::whole_front:
    case Location::whole_back: return first({"notch", "hole", "bottom edge"});
    case Location::wrap_full:
    case Location::wrap_front:
    case Location::wrap_rear:
    case Location::wrap_opposite: return first({"rim"});
    default: return first({p.bottom_name.c_str()});
    }
}

std::vector<std::string> hanging_landmarks(const Panel& p) {
    std::vector<std::string> out;
    for (const Landmark& l : p.landmarks)
        if (l.level && std::find(out.begin(), out.end(), l.name) == out.end()) out.push_back(l.name);
    return out;
}

double usual_offset(Location l, PlacingSchool school, AgeGroup group, const Panel& p) {
    const double grow = group == AgeGroup::infant ? 0.45 : group == AgeGroup::toddler ? 0.55 : group == AgeGroup::youth ? 0.75 : 1.0;
    using L = Location;
    switch (school) {
    case PlacingSchool::body_fraction:
        switch (l) {
        case L::full_front:
        case L::reverse_front: return p.pit_y ? 0.46 : 0.5;
        case L::full_back:
        case L::reverse_back: return p.pit_y ? 0.42 : 0.5;
        case L::upper_back: return 0.16;
        case L::lower_back: return 0.78;
        case L::left_chest:
        case L::right_chest:
        case L::centre_chest: return 0.28;
        case L::left_hem:
        case L::right_hem: return 0.85;
        case L::left_leg:
        case L::right_leg: return 0.35;
        case L::cap_left:
        case L::cap_right: return 0.62;
        case L::bill: return 0.6;
        case L::pocket: return 0.36;
        default: return 0.5;
        }
    case PlacingSchool::collar_drop:
        switch (l) {
        case L::full_front:
        case L::reverse_front: return p.pit_y ? 76 * grow : 0.18 * p.length;
        case L::full_back:
        case L::reverse_back: return p.pit_y ? 102 * grow : 0.18 * p.length;
        case L::upper_back: return 51 * grow;
        case L::lower_back: return 0.6 * p.length;
        case L::left_chest:
        case L::right_chest: return 89 * grow;
        case L::centre_chest: return 64 * grow;
        case L::left_hem:
        case L::right_hem: return 0.66 * p.length;
        case L::pocket: return 0.3 * p.length;
        case L::left_sleeve:
        case L::right_sleeve: return std::min(100.0, 0.4 * p.length);
        default: return 0.25 * p.length;
        }
    case PlacingSchool::pit_line:  // top of ink above it
        switch (l) {
        case L::full_front:
        case L::reverse_front: return 38 * grow;
        case L::full_back:
        case L::reverse_back: return 102 * grow;
        case L::upper_back: return 165 * grow;
        case L::lower_back: return -0.35 * p.length;
        case L::left_hem:
        case L::right_hem: return -0.4 * p.length;
        default: return 32 * grow;
        }
    case PlacingSchool::feature:
        switch (l) {
        case L::full_front: return usual_landmark(l, p) == "pouch seam" ? 38 * grow : 76 * grow;
        case L::full_back: return usual_landmark(l, p) == "hood edge" ? 25 : 102 * grow;
        case L::upper_back: return usual_landmark(l, p) == "hood edge" ? 15 : 51 * grow;
        case L::lower_back: return 90;
        case L::left_chest:
        case L::right_chest: return usual_landmark(l, p) == "pocket top" ? 15 : 89 * grow;
        case L::pocket: return 18;
        case L::left_hem:
        case L::right_hem: {
            const Feature* hem = find_feature(p, "hem");  // a rib's is deeper than a turned hem's
            return std::max(60.0, hem == nullptr ? 0 : hem->small_mm + 10);
        }
        case L::left_sleeve:
        case L::right_sleeve: return usual_landmark(l, p) == "sleeve hem" ? std::max(15.0, 20 * grow) : 90;
        case L::left_long_sleeve:
        case L::right_long_sleeve: return 50;
        case L::left_leg:
        case L::right_leg: return 0.55 * p.length;
        case L::cap_front: return 12;
        case L::cap_left:
        case L::cap_right: return 14;
        case L::cap_back: return 10;
        default: return 15;
        }
    }
    return 0;
}

std::vector<Feature> keepouts(Location l, const Panel& p) {
    std::vector<Feature> out;
    const Feature* pocket = l == Location::pocket ? find_feature(p, "pocket") : nullptr;
    for (const Feature& f : p.features) {
        if (f.kind == Feature::Kind::cover || f.kind == Feature::Kind::loose || &f == pocket) continue;
        out.push_back(f);
        if (is_small(l)) out.back().clearance_mm = f.small_mm;
    }
    if (pocket != nullptr) {
        // on the pocket itself: its own seam goes all round
        const Region outside = subtract(box_region(bounds(pocket->place).grown(1000)), pocket->place);
        out.push_back({"pocket edge", outside, pocket->height_mm, pocket->clearance_mm, pocket->small_mm, Feature::Kind::edge});
    }
    if (l == Location::left_chest || l == Location::left_hem)
        out.push_back({"centre line", box_region({-far_out, -far_out, 0, far_out}), 0, 13, 13, Feature::Kind::edge});
    if (l == Location::right_chest || l == Location::right_hem)
        out.push_back({"centre line", box_region({0, -far_out, far_out, far_out}), 0, 13, 13, Feature::Kind::edge});
    return out;
}

}  // namespace orthema
