// The photo tape: figures of a blank from a photograph with a card in it. Values only, so that the program needs none of the libraries
// until a photograph comes: the module with the work in it is loaded then.
#pragma once

#include <array>
#include <map>
#include <string>
#include <vector>

#include "core/artwork/photo.h"
#include "core/base/result.h"
#include "core/base/task.h"
#include "core/blanks/lying.h"
#include "core/guides/photo_card.h"

namespace orthema {

/// A camera over a table: a point (x, y, −height) of the table's frame (mm, the first card's middle, y down) is turned, moved, and seen
/// at focal · u · (1 + distortion · |u|²) from the middle of the picture.
struct CameraPose {
    double focal = 1;  ///< pixels
    double distortion = 0;
    std::array<double, 3> turn{};  ///< axis times angle
    std::array<double, 3> move{};  ///< mm
    int width = 0, height = 0;     ///< of the picture
};

/// A card found in the picture.
struct CardSeen {
    CardSize size = CardSize::large;
    int card = 1;
    int marks = 0;       ///< of its markers
    Point at;            ///< on the table
    double angle = 0;    ///< radians
    double px_a_mm = 0;  ///< at its middle
};

/// A photograph whose table is known.
struct TableSeen {
    CameraPose camera;
    std::vector<CardSeen> cards;
    double residual_px = 0;          ///< of the markers' corners, root of the mean square
    std::vector<double> covariance;  ///< of focal (its logarithm), distortion, turn, move: 8 × 8, rows
};

/// What is asked of a photograph of a blank.
struct BlankAsked {
    Family family = Family::adult_tee;
    Face face = Face::front;
    bool other_side = false;
    Measures expected;              ///< the chart's figures for that size: where the search begins
    double thickness = 1;           ///< of the cloth, mm
    bool standing = false;          ///< a cup stands before an upright card, and does not lie on its side beside one
    std::vector<Point> on_outline;  ///< points in the picture that somebody put on the outline by hand, pixels
};

struct FigureSeen {
    double mm = 0;
    double error = 0;  ///< 19 of 20 lie within this, mm
    Point from, to;    ///< where a tape would lie, pixels of the picture
};

struct BlankSeen {
    std::map<Measure, FigureSeen> figures;
    Point at;          ///< of the panel's origin, on the table
    double angle = 0;  ///< that it is turned by, radians
    Lying lying;
    std::vector<Ring> outline;  ///< as found, pixels of the picture
    double residual_mm = 0;     ///< of the edges against it, root of the mean square
    double seen = 0;            ///< share of the outline where an edge was found
    std::string refused;        ///< why no figures are given, though there is an outline; empty: they are
};

/// What is asked of a photograph of a pressed piece.
struct DesignAsked {
    PixelImage picture;    ///< the design as it should be read on the blank, its ink box and no more
    Rect planned;          ///< where that box should lie, mm in the panel's frame
    double thickness = 1;  ///< of the cloth, mm
};

/// A design found on a blank. Errors: 19 of 20 lie within them.
struct DesignSeen {
    Point middle;                  ///< of its ink box, mm in the panel's frame
    double angle = 0;              ///< radians, clockwise as seen, against the panel
    double width = 0, height = 0;  ///< mm
    Point middle_error;            ///< mm across and down
    double angle_error = 0, width_error = 0, height_error = 0;
    double match = 0;                 ///< share of what differs from the cloth there that the design explains
    bool mirrored = false;            ///< it is read mirrored
    Ring box, planned;                ///< corners of its ink box as found, and as planned; pixels of the picture
    std::vector<Ring> missing, more;  ///< where ink is missing, and where something lies that is not of the design; pixels
    double missing_share = 0;         ///< of the design's ink
    std::string refused;              ///< why nothing is to be read off, though something was found; empty: it is
};

namespace vision {

/// The cards of a picture and where the camera stood. Fails with a sentence that says what to do better.
Result<TableSeen> find_table(const Photo& photo, const Task& task);
/// The blank's outline and its figures.
Result<BlankSeen> measure_blank(const Photo& photo, const TableSeen& table, const BlankAsked& asked, const Task& task);

/// The design on a blank that was measured.
Result<DesignSeen> find_design(const Photo& photo, const TableSeen& table, const BlankSeen& blank, const DesignAsked& asked,
                               const Task& task);

/// The module's one door.
struct Door {
    decltype(&vision::find_table) find_table;
    decltype(&vision::measure_blank) measure_blank;
    decltype(&vision::find_design) find_design;
};

}  // namespace vision
}  // namespace orthema
