// Points of measure and the figures of a size chart, each with where it came from.
#pragma once

#include <array>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/base/length.h"

namespace orthema {

/// Points of measure, the blank lying flat. Neck width and drops go to the seam that joins rib and body; the rib
/// stands above it. HPS is the high point of the shoulder. Wraps are measured with a tape round them.
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
    hem_curve,  ///< by which the hem rises at the side seams; 0 for a straight one
    width,      ///< of a bag, flag, tag, tile, covering, or of an apron's skirt
    height,
    top_width,   ///< of an apron's bib
    bib_height,  ///< top edge to where the bib has widened to the skirt
    corner_radius,
    hole_diameter,   ///< of a tag's hole or a grommet
    hole_inset,      ///< edge to the middle of the hole
    notch_width,     ///< of a tile's notch, at the middle of its lower edge
    notch_depth,     ///< 0 for none
    handle_spacing,  ///< middle to middle of a bag's handles
    crown_width,     ///< front panel of a cap along the bill seam
    crown_height,    ///< bill seam to the top of the front panel
    side_width,
    side_height,
    back_width,
    back_height,
    arch_width,  ///< the opening above a cap's closure
    arch_height,
    bill_width,
    bill_depth,
    circumference,    ///< by tape
    top_diameter,     ///< of a tapered wall
    bottom_diameter,  ///< of a tapered wall
    wall_height,      ///< rim to base
    handle_gap,       ///< of the circumference that the handle takes
    rim_margin,       ///< above the printable band
    base_margin,      ///< below it
    waist_width,
    hip_width,
    hip_depth,  ///< waist to the line where the legs part
    outseam,
    leg_opening,
    crown_middle,  ///< across a cap's front panel at half its height, over its curve; 0: not taped
    clip_gap,      ///< of the circumference that the clip of a wrap takes in the oven
    patch_top,     ///< of a wall's printable field, from the rim
    patch_width,   ///< 0: all of the wall is printable
    patch_height,
};
constexpr int measure_count = static_cast<int>(Measure::patch_height) + 1;

const char* measure_name(Measure m);   ///< as people read it: "Chest, pit to pit"
std::string measure_short(Measure m);  ///< its first words: "Chest"
const char* measure_key(Measure m);    ///< as files have it: "chest"
std::optional<Measure> measure_from_key(const std::string& key);

/// True for what a blank may lack: it then counts as 0.
bool may_be_zero(Measure m);

enum class Source { published, measured, graded };
const char* source_name(Source source);

/// One figure of a size chart. A measured one keeps what was published, so that the difference can be shown.
struct Figure {
    Length value;  ///< the mean, when several pieces were measured
    Source source = Source::published;
    std::optional<Length> published;
    std::vector<Length> readings;  ///< one for each piece that was measured
    std::vector<Length> errors;    ///< of each reading from a photograph: 19 of 20 lie within; 0, or none, where a tape was laid on
    std::string date;              ///< when last measured, ISO
    bool preshrunk = false;        ///< measured on pieces that had been pressed
    std::string batch;             ///< of the pieces that were measured; empty: not said
    bool operator==(const Figure&) const = default;
};

/// Largest less smallest reading.
Length spread(const Figure& figure);

/// Whether any of its readings is from a photograph.
bool photographed(const Figure& figure);

using Measures = std::map<Measure, Figure>;

/// The figure's length in mm, or `fallback` where the chart lacks it.
double measure_mm(const Measures& measures, Measure m, double fallback = 0);

/// What of a wall the ends of a print keep apart: its handle, or the clip of the wrap that it is heated in. mm.
double ends_gap(const Measures& measures);

}  // namespace orthema
