// Print locations: which face they lie on, what the design hangs from, what it keeps clear of, and the usual starting
// values.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "core/blanks/panel.h"

namespace orthema {

enum class Location {
    full_front,
    centre_chest,
    left_chest,
    right_chest,
    pocket,
    full_back,
    upper_back,
    lower_back,
    left_sleeve,
    right_sleeve,
    left_long_sleeve,
    right_long_sleeve,
    left_hem,
    right_hem,
    left_leg,
    right_leg,
    hood,
    cap_front,
    cap_left,
    cap_right,
    cap_back,
    bill,
    wrap_full,
    wrap_front,
    wrap_rear,
    wrap_opposite,
    whole_front,
    whole_back,
    reverse_front,
    reverse_back,
};
constexpr int location_count = static_cast<int>(Location::reverse_back) + 1;

enum class PlacingSchool {
    collar_drop,    ///< top of ink a distance below the collar seam, or below what the panel has at its top
    pit_line,       ///< top of ink above the line between the armpits
    body_fraction,  ///< middle of ink at a share of the body
    feature,        ///< top or bottom of ink a distance from a named landmark
};
constexpr int placing_school_count = 4;

const char* location_key(Location location);
std::optional<Location> location_from_key(const std::string& key);
/// In words, with the side as the wearer has it: "left chest (wearer's left)".
const char* location_name(Location location);
/// The same on this kind of blank: on a wall without a handle no side is named for it.
const char* location_name(Location location, Family on);
Face location_face(Location location);

/// A side that is looked at: a face, of a reversible with one layer out or the other.
struct Side {
    Face face = Face::front;
    bool inside_out = false;
    auto operator<=>(const Side&) const = default;
};
inline Side side_of(Location location) {
    return {location_face(location), location == Location::reverse_front || location == Location::reverse_back};
}
/// Small designs keep the small clearances, and are measured from the centre line.
bool is_small(Location location);
/// To the wearer's left or right of the centre line.
bool is_sided(Location location);

/// The locations that a style has: by its family's faces and by its features.
std::vector<Location> locations_of(const BlankStyle& style);

/// x in mm that the design is centred on: the centre fold, under the middle of the shoulder seam for a chest mark, the
/// middle of the pocket. The wearer's left is the viewer's right on the front.
double anchor_x(Location location, const Panel& panel);

/// The name of what a drop is measured from: "collar drop", "rim drop".
std::string school_name(PlacingSchool school, const Panel& panel);
/// Whether a school has a meaning on this panel: without armholes there is no pit line.
bool school_applies(PlacingSchool school, const Panel& panel);
/// The school that is usual for a location, and the landmark that the feature school hangs from there (empty: none).
PlacingSchool usual_school(Location location);
std::string usual_landmark(Location location, const Panel& panel);
/// The landmarks that a design can hang from.
std::vector<std::string> hanging_landmarks(const Panel& panel);

/// Starting values of a placing school: offset in mm for collar drop, pit line and feature, share of the length for
/// body fraction. Typical of the trade; to be edited.
double usual_offset(Location location, PlacingSchool school, AgeGroup group, const Panel& panel);

/// A usual width as a share of the panel's width.
double usual_width_share(Location location);

/// What ink at this location keeps clear of, each with the clearance that holds for it there: the panel's edges and
/// raised parts, the centre line for a chest mark, all but the pocket for a pocket print. Covers are left out.
std::vector<Feature> keepouts(Location location, const Panel& panel);

}  // namespace orthema
