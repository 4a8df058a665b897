#include "core/blanks/location.h"

#include <algorithm>
#include <cmath>

namespace orthema {

namespace {

struct LocationText {
    const char* key;
    const char* name;
};
constexpr std::array<LocationText, 5> texts = {{
    {"full_front", "full front"},
    {"left_chest", "left chest (wearer's left)"},
    {"right_chest", "right chest (wearer's right)"},
    {"full_back", "full back"},
    {"upper_back", "upper back"},
}};

constexpr double seam_clearance = 25;   // side and armhole seams, full locations
constexpr double chest_clearance = 13;  // armhole seam and centre line, chest marks
constexpr double collar_clearance = 13;
constexpr double hem_clearance = 45;  // the hem's own seam lies about 18 mm up

const LocationText& text(Location l) { return texts[static_cast<std::size_t>(l)]; }

}  // namespace

const char* location_key(Location l) { return text(l).key; }
const char* location_name(Location l) { return text(l).name; }

std::optional<Location> location_from_key(const std::string& key) {
    for (const Location l : all_locations)
        if (key == location_key(l)) return l;
    return std::nullopt;
}

Side location_side(Location l) { return l == Location::full_back || l == Location::upper_back ? Side::back : Side::front; }

bool is_chest(Location l) { return l == Location::left_chest || l == Location::right_chest; }

double anchor_x(Location l, const Garment& g) {
    if (!is_chest(l)) return 0;
    const double x = (g.hps.x + g.shoulder_point.x) / 2;
    return l == Location::left_chest ? x : -x;
}

double default_offset(Location l, PlacingSchool school, AgeGroup group) {
    const double grow = group == AgeGroup::infant ? 0.45 : group == AgeGroup::toddler ? 0.55 : group == AgeGroup::youth ? 0.75 : 1.0;
    if (school == PlacingSchool::body_fraction) {
        switch (l) {
        case Location::full_front: return 0.46;
        case Location::full_back: return 0.42;
        case Location::upper_back: return 0.16;
        default: return 0.28;
        }
    }
    if (school == PlacingSchool::collar_drop) {
        switch (l) {
        case Location::full_front: return 76 * grow;
        case Location::full_back: return 102 * grow;
        case Location::upper_back: return 51 * grow;
        default: return 89 * grow;
        }
    }
    switch (l) {  // top of ink above the pit line
    case Location::full_front: return 38 * grow;
    case Location::full_back: return 102 * grow;
    case Location::upper_back: return 165 * grow;
    default: return 32 * grow;
    }
}

double default_width(Location l) {
    switch (l) {
    case Location::full_front: return 290;
    case Location::full_back: return 310;
    case Location::upper_back: return 120;
    default: return 95;
    }
}

std::vector<Clash> clashes(Location l, const Garment& g, const Rect& ink) {
    std::vector<Clash> out;
    const auto note = [&](const std::string& with, double short_by) {
        if (short_by > 1e-9) out.push_back({with, short_by});
    };
    // Sides: the narrowest body edge along the ink's height; the edge is straight between its vertices.
    const double keep = is_chest(l) ? chest_clearance : seam_clearance;
    const double reach = std::max(ink.x1, -ink.x0);
    double above = 0, below = 0;
    const auto look = [&](double y) {
        if (y < g.shoulder_point.y || y > g.hem_y) return;
        const double lack = reach + keep - body_half_width(g, y);
        (y < g.pit_y ? above : below) = std::max(y < g.pit_y ? above : below, lack);
    };
    look(ink.y0);
    look(ink.y1);
    for (const Point& p : g.body_edge)
        if (p.y > ink.y0 && p.y < ink.y1) look(p.y);
    note("armhole seam", above);
    note("side seam", below);
    // Collar and shoulders: lowest where the ink is nearest to the centre fold, and at its corners.
    const double inner = ink.x0 <= 0 && ink.x1 >= 0 ? 0 : std::min(std::abs(ink.x0), std::abs(ink.x1));
    double line = std::max({neckline_y(g, inner), neckline_y(g, ink.x0), neckline_y(g, ink.x1)});
    note("collar seam", line + collar_clearance - ink.y0);
    note("hem", ink.y1 + hem_clearance - g.hem_y);
    if (l == Location::left_chest) note("centre line", chest_clearance - ink.x0);
    if (l == Location::right_chest) note("centre line", ink.x1 + chest_clearance);
    for (const Feature& f : g.features) {
        if (!f.blocks) continue;
        const double apart = distance(f.place, box_region(ink));
        // Overlapping: how far the ink's lower edge would have to rise.
        note(f.name, apart > 0 ? f.clearance_mm - apart : ink.y1 - bounds(f.place).y0 + f.clearance_mm);
    }
    return out;
}

}  // namespace orthema
