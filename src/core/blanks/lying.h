// How a blank lies on a table, where that is not as it is drawn: sleeves swing.
#pragma once

#include "core/blanks/panel.h"

namespace orthema {

/// By how much each sleeve lies lower than it is drawn, radians; negative: higher. The viewer's right and left.
struct Lying {
    double right_sleeve = 0, left_sleeve = 0;
};

/// The panel as family_panel(), lying so.
Panel lying_panel(Family family, const Measures& measures, Face face, bool other_side, const Lying& lying);

}  // namespace orthema
