// An order's garments in small, side by side: what a card of it shows.
#pragma once

#include "core/drawing/drawing.h"
#include "core/fitting/fit.h"

namespace orthema {

/// The side of a run that carries most designs; the family's first where none does.
Side main_side(const Order& order, const RunKey& run);

/// One run in one size with all its designs of one side, as large as the box takes it; nothing where the blank cannot be drawn. `hair` is
/// the width of its outline. How many units of the drawing a millimetre takes.
double draw_small_garment(Drawing& to, const Order& order, const FitPlan& plan, const RunKey& run, const std::string& size,
                          const Side& side, const Rect& box, double hair = 0.8);

/// At most so many runs as stand beside one another, each in its middle size with the designs of the side that has most of them.
Drawing small_garments(const Order& order, const FitPlan& plan, double width, double height);

}  // namespace orthema
