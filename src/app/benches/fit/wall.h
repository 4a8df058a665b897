// The size wall as values: where every blank of a run stands, and how the wall is drawn. No widget here: the bench shows it, and what
// measures its speed runs it bare.
#pragma once

#include "core/drawing/drawing.h"
#include "core/guides/panel_drawing.h"
#include "core/fitting/fit.h"

namespace orthema::app {

/// What stands on the wall: one lot, or several that follow one rule.
struct WallLot {
    const Decoration* decoration = nullptr;
    const DecorationFit* fit = nullptr;
};

struct WallSlot {
    int lot = 0;   ///< index into the lots
    int size = 0;  ///< index into the lot's sizes
    int row = 0;
    Rect cell;   ///< pixels
    Rect pill;   ///< the size's name
    Affine map;  ///< garment mm to pixels
};

struct WallRail {
    int lot = 0;
    int band = 0;
    double x0 = 0, x1 = 0, y = 0;
    bool begins = true, ends = true;  ///< false where the band goes on in the row before or after
};

struct Wall {
    double scale = 1;  ///< pixels a mm, one for all
    std::vector<WallSlot> stands;
    std::vector<WallRail> rails;
    std::vector<Point> names;  ///< where each lot's name begins, where several stand
};

/// Stands the panels of a fit on as many floor lines as give the largest scale; several lots one below the other, a floor line
/// for each.
Wall wall_of(const std::vector<WallLot>& lots, double width, double height);

/// The wall seen from nearer: `zoom` times as large, the garments moved by `pan` pixels. Names and rails keep their size.
Wall seen_nearer(Wall wall, double zoom, Point pan);
/// How near, and where from, one of its stands fills the view.
std::pair<double, Point> filling(const Wall& wall, const Rect& garment, const WallSlot& slot, double width, double height);

struct WallLook {
    std::string chosen;                   ///< size whose hand measurements are shown
    std::set<std::string> also;           ///< sizes that are in hand with it
    int chosen_lot = 0;                   ///< on this lot
    bool ghosts = false;                  ///< where the other schools' usual figures would put it
    bool platen = false;                  ///< how the platen lies under it
    bool balance = false;                 ///< the optical centre against the middle of the ink
    const OrderLine* person = nullptr;    ///< of the roster: whose garment is shown on its size
    const ArtFactsById* words = nullptr;  ///< pictures of the words
    int hot_rail = -1;                    ///< band whose rail is being dragged
};

/// The panels on their floor lines: what a drag leaves as it is.
Drawing wall_backdrop(const Order& order, const std::vector<WallLot>& lots, const Wall& wall, double width, double height);

/// Designs, figures, names and rails, over the backdrop.
Drawing wall_drawing(const Order& order, const FitPlan& plan, const std::vector<WallLot>& lots, const Wall& wall, const WallLook& look,
                     double width, double height);

Colour band_colour(int band);
Colour school_colour(PlacingSchool school);

/// "pit line would sit 14 to 31 mm higher": where the other schools' usual figures disagree, over the sizes.
std::string schools_disagree(const DecorationFit& fit, PlacingSchool school, Reading reading);

}  // namespace orthema::app
