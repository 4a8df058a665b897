// A garment's outline with its landmarks, seams and features, generated from the points of measure.
// Millimetres; origin on the centre line at HPS level; x to the viewer's right, y down.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/blanks/style.h"
#include "core/geometry/geometry.h"

namespace orthema {

enum class Side { front, back };

/// A raised or soft part of the garment: where it is, what it does to a print.
struct Feature {
    std::string name;  ///< "pouch seam", "snap tabs", "hood"
    Region place;
    double height_mm = 0;     ///< by which it stands above the cloth
    double clearance_mm = 0;  ///< ink keeps this far
    bool blocks = true;       ///< false: it only hides ink (a hood lying on the back)
};

struct Garment {
    Side side = Side::front;
    Region outline;             ///< the whole silhouette, sleeves and hood included
    Region rib;                 ///< collar rib, for drawing
    std::vector<Ring> seams;    ///< open lines for drawing: armholes, cuffs, hems
    std::vector<Ring> details;  ///< open lines: drawcords, snaps
    std::vector<Feature> features;
    double collar_seam_y = 0;  ///< at the centre line
    double pit_y = 0;
    double hem_y = 0;
    double body_length = 0;
    double chest = 0;
    Point hps;             ///< on the viewer's right
    Point shoulder_point;  ///< on the viewer's right
    Ring body_edge;        ///< from shoulder point down armhole and side seam to the hem, viewer's right
    Ring neck_edge;        ///< collar seam from the centre line out to HPS, viewer's right
};

/// The garment of these measures seen from one side.
/// Pre: style_fault() found nothing for them.
Garment garment_of(Family family, const Measures& measures, Side side);

/// Where a measure is taken on the garment: from `from` to `to`, as a tape would lie. Nothing for a measure that is not
/// taken on this side.
struct TapeLine {
    Measure measure;
    Point from, to;
};
std::vector<TapeLine> tape_lines(Family family, const Measures& measures, Side side);

/// x of the body's edge (armhole seam above the pit line, side seam below) at height y on the viewer's right;
/// 0 above the shoulder or below the hem.
double body_half_width(const Garment& garment, double y);

/// y of the collar seam or shoulder line above which there is no body at this x (either side of the centre).
double neckline_y(const Garment& garment, double x);

}  // namespace orthema
