// Print locations: which side, what the design hangs from, and the usual starting values.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "core/blanks/garment.h"

namespace orthema {

enum class Location { full_front, left_chest, right_chest, full_back, upper_back };
constexpr std::array<Location, 5> all_locations = {Location::full_front, Location::left_chest, Location::right_chest, Location::full_back,
                                                   Location::upper_back};

enum class PlacingSchool { collar_drop, pit_line, body_fraction };

const char* location_key(Location location);
std::optional<Location> location_from_key(const std::string& key);
/// In words, with the side as the wearer has it: "left chest (wearer's left)".
const char* location_name(Location location);
Side location_side(Location location);
bool is_chest(Location location);

/// x in mm that the design is centred on: the centre fold, or under the middle of the shoulder seam for a chest mark.
/// The wearer's left is the viewer's right on the front.
double anchor_x(Location location, const Garment& garment);

/// Starting values of a placing school for a location and age group: offset in mm for collar drop and pit line,
/// share of the body length for body fraction. Typical of the trade; to be edited.
double default_offset(Location location, PlacingSchool school, AgeGroup group);

/// A usual width in mm for the middle of an adult run.
double default_width(Location location);

/// One thing that the ink must stay clear of.
struct Clash {
    std::string with;     ///< "side seam", "armhole seam", "collar seam", "hem", "centre line", or a feature's name
    double short_by = 0;  ///< mm by which the clearance is not kept
};

/// Everything the ink box comes too close to at this location. Exact for the garment's straight-segment outline.
std::vector<Clash> clashes(Location location, const Garment& garment, const Rect& ink);

}  // namespace orthema
