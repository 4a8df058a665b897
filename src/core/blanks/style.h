// A blank style: its family, size run, colours and points of measure, each figure with where it came from.
#pragma once

#include <array>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/base/colour.h"
#include "core/base/length.h"
#include "core/blanks/sizes.h"

namespace orthema {

enum class Family { infant_bodysuit, toddler_tee, youth_tee, adult_tee, hooded_fleece };

/// Points of measure, the garment lying flat. Neck width and drops go to the seam that joins rib and body; the rib
/// stands above it. HPS is the high point of the shoulder.
enum class Measure {
    body_length,      ///< HPS to hem (to the crotch on a bodysuit)
    chest,            ///< pit to pit
    hem_width,        ///< at the hem (at the leg line on a bodysuit)
    neck_width,       ///< HPS to HPS
    front_neck_drop,  ///< HPS level to the collar seam at centre front
    back_neck_drop,   ///< the same at centre back
    rib_height,
    across_shoulder,  ///< shoulder point to shoulder point
    shoulder_slope,   ///< HPS level down to the shoulder point
    armhole_depth,    ///< HPS level down to the pit line
    sleeve_length,    ///< shoulder point to sleeve opening
    sleeve_opening,
    pouch_top,    ///< HPS level down to the pouch's top seam
    pouch_width,  ///< at its bottom
    pouch_height,
    hood_height,
    snap_width,  ///< the closure of a bodysuit
    snap_height,
};
constexpr int measure_count = 18;

const char* measure_name(Measure m);  ///< as people read it: "Chest, pit to pit"
const char* measure_key(Measure m);   ///< as files have it: "chest"
std::optional<Measure> measure_from_key(const std::string& key);

enum class Source { published, measured, graded };
const char* source_name(Source source);

/// One figure of a size chart. A measured one keeps what was published, so that the difference can be shown.
struct Figure {
    Length value;
    Source source = Source::published;
    std::optional<Length> published;
    int pieces = 0;    ///< how many were measured
    std::string date;  ///< when measured, ISO
    bool operator==(const Figure&) const = default;
};

using Measures = std::map<Measure, Figure>;

struct BlankColour {
    std::string name;
    Colour ink;
    bool operator==(const BlankColour&) const = default;
};

struct BlankStyle {
    std::string id;
    std::string name;
    Family family = Family::adult_tee;
    std::string fabric;
    Length tolerance = Length::from_mm(13);  ///< by which a measured figure may differ from the published one
    std::vector<std::string> sizes;          ///< the run, smallest first
    std::vector<BlankColour> colours;
    std::map<std::string, Measures> chart;  ///< size code -> figures
    bool operator==(const BlankStyle&) const = default;
};

const char* family_key(Family family);
std::optional<Family> family_from_key(const std::string& key);
AgeGroup family_group(Family family);
/// The measures that this family has, in the order in which a chart lists them.
std::vector<Measure> family_measures(Family family);

/// The figure's length in mm, or `fallback` where the chart lacks it.
double measure_mm(const Measures& measures, Measure m, double fallback = 0);

/// Index of a size in the style's run, or -1.
int size_index(const BlankStyle& style, const std::string& size);

/// Sets what the tape said for one figure and grades the published figures that lie between two measured sizes:
/// each keeps its published place between the two, as an interpolation along the published run.
BlankStyle with_measured(const BlankStyle& style, const std::string& size, Measure m, Length value, int pieces, const std::string& date);
/// Takes a measured figure back to what was published, and grades again.
BlankStyle with_published(const BlankStyle& style, const std::string& size, Measure m);

/// A sentence where the style cannot be drawn (a missing or absurd figure); nothing where it can.
std::optional<std::string> style_fault(const BlankStyle& style);

}  // namespace orthema
