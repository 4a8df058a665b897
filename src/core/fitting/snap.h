// Snapping: where ink that is being moved by hand would come to lie on a line that an eye sees: the centre line, equal
// margins, the edge or middle of a design beside it.
#pragma once

#include <string>
#include <vector>

#include "core/fitting/fit.h"

namespace orthema {

/// A line that the ink was put on, in panel mm.
struct SnapLine {
    bool upright = false;  ///< at this x, else at this y
    double at = 0;
    std::string to;  ///< "the centre line", "the top of Crescent badge"
};

struct Snapped {
    double right = 0, down = 0;   ///< how far the ink has to go, mm
    std::vector<SnapLine> lines;  ///< at most one each way
};

/// What lies beside it on the same panel.
struct Beside {
    Rect ink;
    std::string name;
};
std::vector<Beside> beside(const Order& order, const FitPlan& plan, const Decoration& decoration, const std::string& size);

/// The nearest line within `reach` mm, each way by itself. `line` is the x that the design's anchor lies on, measured in its
/// ink: the middle of its ink, or its optical or marked centre; `anchor` where that would be on the centre line.
Snapped snapped(const Rect& ink, double line, double anchor, const Panel& panel, const std::vector<Beside>& others, double reach,
                const Reading& reading = {});

}  // namespace orthema
