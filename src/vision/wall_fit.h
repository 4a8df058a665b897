// A cup from the side: the outline of its round wall, and the figures that a tape would take of it.
#pragma once

#include "vision/vision.h"

namespace orthema::vision {

/// Height and diameters (or what goes round a straight wall) of a cup that lies on its side on the cards' plane, or stands before it.
/// Method: a round wall's outline is the hull of its rim and its base as they are seen; their figures and where they lie are drawn to the
/// edges in the picture by robust least squares. A handle is passed over.
Result<BlankSeen> measure_wall(const Photo& photo, const TableSeen& table, const BlankAsked& asked, const Task& task);

}  // namespace orthema::vision
