// A panel: one face of a blank lying flat before the viewer, generated from its points of measure, with its outline,
// edges, features and landmarks. Millimetres; x from the panel's centre line to the viewer's right, y down. The origin
// lies at HPS level on upper bodies, at the top edge on all other blanks.
#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/blanks/style.h"
#include "core/geometry/geometry.h"
#include "core/geometry/ring_sector.h"

namespace orthema {

/// What ink keeps away from: an edge of the panel (as the area beyond it), a raised part, or what hides the ink.
struct Feature {
    std::string name;  ///< "side seam", "pouch seam", "snap tabs", "hood"
    Region place;
    double height_mm = 0;     ///< by which it stands above the cloth: it lifts a platen when pressed
    double clearance_mm = 0;  ///< large designs keep this far
    double small_mm = 0;      ///< small ones (chest, sleeve, pocket) keep this far
    /// A cover only hides ink (a hood lying on the back); what is loose can be laid aside (a drawcord).
    enum class Kind { edge, raised, cover, loose } kind = Kind::raised;
};

/// A line that a design can hang from, or that a mark in the design must meet.
struct Landmark {
    std::string name;   ///< "collar seam", "pocket top", "closure arch", "centre line"
    bool level = true;  ///< level at y = at; else upright at x = at
    double at = 0;
    bool ink_above = false;  ///< ink that hangs from it lies above: its lower edge is measured
};

/// Where a measure is taken: from `from` to `to`, as a tape would lie. A round measure lies as half its length or as
/// the drawing shows it; `share` is what lies on the drawing of the whole.
struct TapeLine {
    Measure measure;
    Point from, to;
    double share = 1;
};

struct Panel {
    Face face = Face::front;
    Region outline;             ///< the whole silhouette, sleeves and hood included
    Region rib;                 ///< collar rib, for drawing
    std::vector<Ring> seams;    ///< open lines for drawing: armholes, cuffs, hems
    std::vector<Ring> details;  ///< open lines: drawcords, snaps, stitches
    std::vector<Feature> features;
    std::vector<Landmark> landmarks;
    std::vector<TapeLine> tapes;
    std::string top_name = "collar seam";  ///< what a drop is measured from
    double top_y = 0;                      ///< at the centre line
    std::optional<double> pit_y;
    std::string bottom_name = "hem";
    double bottom_y = 0;
    std::string side_name = "side seam";
    /// Where the side edge is called otherwise: from this height down, from the top down; upper bodies only.
    std::vector<std::pair<double, std::string>> side_parts;
    double width = 0;      ///< the measure that its designs are usually sized from, laid flat
    double length = 0;     ///< heights may be a share of this, from y = 0
    Point hps;             ///< on the viewer's right; upper bodies only
    Point shoulder_point;  ///< on the viewer's right; upper bodies only
    Ring right_edge;       ///< the panel's edge on the viewer's right, from the top down
    Ring left_edge;
    Ring neck_edge;  ///< collar seam from the centre line out to HPS, viewer's right; empty without a collar
};

/// The panel of these measures. Pre: style_fault() found nothing for them, and the family has the face. `other_side`: a
/// hoist with its grommets lies on the other side, a notch or hole at the other end.
Panel family_panel(Family family, const Measures& measures, Face face, bool other_side = false);

/// The same with the style's own features on it, placed for that size.
Panel panel_of(const BlankStyle& style, const std::string& size, Face face);

/// The wall of a cup, by its diameters or by its circumference; nothing for what has none.
std::optional<CupWall> wall_of(Family family, const Measures& measures);

/// What a design is fitted on: the panel itself, but for a tapered wall the wall's own frame, in which rows lie level and
/// the printable band is a rectangle. Its widths are those at half the slant.
Panel fitting_panel(const BlankStyle& style, const std::string& size, Face face);

/// The box of what can be printed of a panel: of a wall its band or its patch, else the outline's.
Rect printable_box(const Panel& panel, const Measures& measures);

/// How much a cap's front is domed: 1/R of the ball that bends as much, per mm. From two tapes, the panel's width over its curve at half
/// its height and flat at the bill, and its height: rows of a ball are cos(height/R) as wide as its widest. Nothing where it was not taped.
std::optional<double> crown_bend(const Measures& measures);
/// … of a round crown on a usual head, where it was not taped.
constexpr double usual_crown_bend = 1 / 92.0;

/// x of the panel's edge on the viewer's right or left at height y (negative on the left); 0 where it has none there.
double right_edge_x(const Panel& panel, double y);
double left_edge_x(const Panel& panel, double y);

/// Where the side margins of this ink are taken: at its middle, but not past the ends of the panel's edge.
double margin_height(const Panel& panel, const Rect& ink);
/// What the panel's edge is called at that height: "armhole seam" above the pit line.
const std::string& side_name_at(const Panel& panel, double y);

/// Of all that is drawn: the outline, and what stands out from it (straps, ties, loops).
Rect drawn_box(const Panel& panel);

const Feature* find_feature(const Panel& panel, const std::string& name);
const Landmark* find_landmark(const Panel& panel, const std::string& name);

// For the generators.
void add_edge(Panel& panel, const std::string& name, Ring beyond, double clearance, double small, double height = 0);
void add_side_edges(Panel& panel, const std::string& name, const Ring& right, double clearance, double small, double height = 0);
Ring mirrored_ring(const Ring& right);
Ring reversed_mirror(const Ring& right);
void both_sides(std::vector<Ring>& lines, const Ring& right);
Ring disc_ring(Point centre, double radius);
constexpr double far_out = 4000;  ///< how far the area beyond an edge reaches, mm

Panel upper_body_panel(Family family, const Measures& measures, Face face);
Panel trousers_panel(const Measures& measures, Face face);
Panel apron_panel(const Measures& measures);
Panel bag_panel(const Measures& measures, Face face);
Panel cap_panel(const Measures& measures, Face face);
Panel flat_panel(Family family, const Measures& measures, Face face, bool other_side);
Panel wrap_panel(Family family, const Measures& measures);
/// Whether the family has anything that can lie on the other side.
bool has_sides(Family family);

}  // namespace orthema
