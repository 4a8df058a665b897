// An order's garments in small, side by side: what a card of it shows.
#pragma once

#include "core/drawing/drawing.h"
#include "core/fitting/fit.h"

namespace orthema {

/// At most so many runs as stand beside one another, each in its middle size with the designs of the face that has most of them.
Drawing small_garments(const Order& order, const FitPlan& plan, double width, double height);

/// One run in one size, all designs of one face on it, within a box of the drawing. Nothing where the blank cannot be drawn.
void draw_small_garment(Drawing& to, const Order& order, const FitPlan& plan, const RunKey& run, const std::string& size, Face face,
                        const Rect& box);

/// The face of a run that carries most designs; the family's first where none does.
Face main_face(const Order& order, const RunKey& run);

}  // namespace orthema
