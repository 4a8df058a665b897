// An order's garments in small, side by side: what a card of it shows.
#pragma once

#include "core/drawing/drawing.h"
#include "core/fitting/fit.h"

namespace orthema {

/// At most so many runs as stand beside one another, each in its middle size with the designs of the face that has most of them.
Drawing small_garments(const Order& order, const FitPlan& plan, double width, double height);

}  // namespace orthema
