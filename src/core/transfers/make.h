// Making one transfer: from a placed design to the pieces that are printed or cut, layer by layer and part by part.
// Everything here is in reading frame: as the eye sees it on the blank, never mirrored. Mirroring is the last step and
// has one place (transfers.cpp). Millimetres; the origin is the ink box's top left, on walls and blanks the panel's own.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/fitting/fit.h"
#include "core/transfers/layers.h"
#include "core/transfers/separation.h"
#include "core/transfers/split.h"

namespace orthema {

/// Everything that the pieces of one transfer depend on.
struct MakeInput {
    std::string art;
    Shared<AlphaMap> alpha;  ///< every pixel of it
    double width = 0;
    Making making;
    Medium medium;
    Method method;
    std::vector<Medium> layer_media;  ///< one for each of making.layers
    Press press;
    double bend = 0;  ///< of a domed blank, per mm (crown_bend); 0: it lies flat
    // What lies on a blank (walls, whole surfaces, two sides) depends on it and on where; the rest does not.
    bool on_blank = false;
    BlankStyle style = {};
    std::string size = {};
    Location location = Location::full_front;
    Rect ink = {};
    bool operator==(const MakeInput&) const = default;
};

/// One thing that is cut out of one medium.
struct Piece {
    std::string suffix;  ///< to the transfer's id: "", "/backing", "#2"
    std::string name;    ///< for people: "", "backing", "part 2 of 4"
    std::string medium;  ///< medium id
    bool printed = true;
    Colour tint{1, 1, 1, 1};    ///< of an unprinted sheet
    Polygon contour;            ///< around everything; what nesting keeps apart
    std::vector<Mark> picture;  ///< what is printed, or the flat shape
    Region shape;               ///< the ink, or the flat shape
    Region cut;                 ///< what a blade follows, when it is not the contour
    Region white;               ///< the underbase, when there is one
    std::vector<Ring> snips;    ///< open lines from the edge inwards, cut before the contour
    Rect ink;                   ///< of the design in this frame
};

struct Made {
    MakeInput input;
    std::vector<Piece> pieces;   ///< bottom layer last, parts in press order
    std::vector<Region> layers;  ///< whole shapes, top first
    std::optional<SplitPlan> split;
    std::optional<RingSector> sector;  ///< where it lies on a wall
    Region bare;                       ///< of a covered blank: where some shift up to the worst leaves it bare; panel frame
    double spare = 0;                  ///< how far a hand may miss before a rim is bare
    Findings findings;                 ///< without subject and name; transfers() adds them
};

Made make(const MakeInput& input, const ArtFacts& facts);

/// A single-ply blank's front with its back beside it across a fold.
struct FoldedSheet {
    double fold = 0;  ///< x of the fold line, in the panel's frame
    Rect sheet;       ///< what is cut out of the medium
};
FoldedSheet folded_sheet(const Panel& panel, const Making& making, const Medium& medium);

/// The flat shape as a region of the plane that a reflection about an upright line lays on the back, and what differs
/// from it: 0 where front and back fall together. mm².
double fold_difference(const Region& front, const Region& back, double fold_x);

/// The single closed contour around an outline, grown by `margin_mm`; islands are joined by closing wider and wider
/// gaps until one piece remains, so that scissors follow a single line. Holes smaller than 25 mm across are not cut.
Polygon cutting_contour(const Region& outline, double margin_mm);

/// What the whole-wall sheet of a wrap spans: from one end to the other along the wall.
struct WrapSpan {
    double from = 0, to = 0;
};
WrapSpan wrap_span(const BlankStyle& style, const std::string& size, const Making& making);

}  // namespace orthema
