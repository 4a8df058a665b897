// Square markers that a camera finds and knows apart: the AprilTag family 36h11, by its own library.
#pragma once

#include <vector>

#include "core/drawing/drawing.h"

namespace orthema {

constexpr int fiducial_cells = 8;    ///< along a side, the dark border counted
constexpr int fiducial_count = 587;  ///< markers in the family

/// Rows of cells from the top, true where dark. Pre: 0 ≤ id < fiducial_count. One more cell all round has to stay white.
std::vector<std::vector<bool>> fiducial(int id);

/// Its dark square with this top left and side, mm.
void draw_fiducial(Drawing& to, int id, Point top_left, double side);

}  // namespace orthema
