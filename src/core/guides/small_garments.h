// An order's garments in small, side by side: what a card of it shows.
#pragma once

#include "core/drawing/drawing.h"
#include "core/fitting/fit.h"

namespace orthema {

/// One run in one size with all its designs of one face, as large as the box takes it; nothing where the blank cannot be drawn. `hair` is
/// the width of its outline. How many units of the drawing a millimetre takes.
double draw_small_garment(Drawing& to, const Order& order, const FitPlan& plan, const RunKey& run, const std::string& size, Face face,
                          const Rect& box, double hair = 0.8);

/// At most so many runs as stand beside one another, each in its middle size with the designs of the face that has most of them.
Drawing small_garments(const Order& order, const FitPlan& plan, double width, double height);

}  // namespace orthema
