// The strips under the size wall, as values: the ladder of widths, what each number of bands is short by, and how each placing
// school's relative position drifts over the run.
#pragma once

#include "core/drawing/drawing.h"
#include "core/fitting/fit.h"

namespace orthema::app {

Drawing ladder_drawing(const Order& order, const Decoration& decoration, const DecorationFit& fit, const std::string& chosen, double width,
                       double height);

/// For each number of bands the most that a size is short of its ideal by, the mean over all pieces, and what it costs;
/// `facts` may be null where the picture is not there.
Drawing bands_drawing(const Order& order, const Decoration& decoration, const DecorationFit& fit, const ArtFacts* facts, double width,
                      double height);
/// The number of bands whose column of `columns` lies under x, or 0.
int bands_at(std::size_t columns, double x, double width);

/// Top of ink as a share of the panel's length, for each school, over the sizes.
Drawing drift_drawing(const Decoration& decoration, const DecorationFit& fit, double width, double height);

/// By how much a school's relative position changes over the run, 0 … 1; nothing where it does not apply.
std::optional<double> drift_of(const DecorationFit& fit, PlacingSchool school);

}  // namespace orthema::app
