// A family's own panel fitted to what is seen of a blank: its measures are the figures.
#pragma once

#include "vision/camera.h"
#include "vision/silhouette.h"

namespace orthema::vision {

/// The panel on the table: where, how it lies, and by which measures.
struct PanelGuess {
    Point at;
    double angle = 0;
    Lying lying;
    Measures measures;
};

/// What of a panel is seen against the table, mm in the panel's frame: closed rings, holes too. Of an upper body's front the back shows
/// in the collar's opening.
std::vector<Ring> seen_outline(const BlankAsked& asked, const Measures& measures, const Lying& lying);

/// Where the panel lies best on the cells, sizes as the chart has them but for one factor. `overlap` is the shared area over that of both.
struct CoarseFit {
    PanelGuess guess;
    double overlap = 0;
};
/// The best first, up to three that lie unlike.
std::vector<CoarseFit> coarse_fits(const Silhouette& cells, const BlankAsked& asked);

/// The panel drawn to the edges of the picture, nearer and nearer; at first `wide` times as far about as is usual.
Result<BlankSeen> fine_fit(const Photo& photo, const TableSeen& table, const Silhouette& cells, const BlankAsked& asked, PanelGuess guess,
                           double wide, const Task& task);

}  // namespace orthema::vision
