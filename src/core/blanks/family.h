// Families of blanks: what each is measured by, and how its panels are built. A family is a shape; a style is a
// family with its own figures and features.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/blanks/measures.h"
#include "core/blanks/sizes.h"

namespace orthema {

enum class Family {
    infant_bodysuit,
    toddler_tee,
    youth_tee,
    adult_tee,
    hooded_fleece,
    tank,
    reversible_jersey,
    crew_fleece,
    zip_hooded_fleece,
    long_sleeve,
    jogger,
    apron,
    tote,
    cap,
    flag,
    pennant,
    face_covering,
    tag,
    coaster,
    tile,
    patch,
    mug,
    straight_tumbler,
    can_sleeve,
    tapered_tumbler,
};
constexpr int family_count = static_cast<int>(Family::tapered_tumbler) + 1;

/// Which outline generator draws a family.
enum class Build { upper_body, trousers, apron, bag, cap, flat, wrap };

const char* family_key(Family family);
const char* family_name(Family family);  ///< "Zip hooded fleece"
std::optional<Family> family_from_key(const std::string& key);
AgeGroup family_group(Family family);
Build family_build(Family family);
bool has_hood(Family family);
bool has_sleeves(Family family);
bool is_long_sleeved(Family family);
/// Whether it has a wearer, whose left and right are then said.
bool is_worn(Family family);
/// Ceramic, glass or board that breaks or burns: it needs its own cautions.
bool is_hard(Family family);
/// Worn by infants: local rules on small parts, snaps, labels and inks apply, and guides say so.
bool is_infant_wear(Family family);
/// Of two layers, of which one is pressed over a carry board.
bool is_double_layer(Family family);
/// A wall that unrolls to a ring sector.
bool is_tapered(Family family);
/// Seconds to dress a press with one: a starting value.
double usual_load_seconds(Family family);

/// The measures that this family has, in the order in which a chart lists them.
std::vector<Measure> family_measures(Family family);

/// The measure that designs are sized from: chest, crown width, circumference …
Measure main_measure(Family family);
/// The measure that heights are taken as a share of: body length, height, wall height …
Measure length_measure(Family family);

}  // namespace orthema
