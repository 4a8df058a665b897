// A family's own panel fitted to what is seen of a blank: its measures are the figures.
#pragma once

#include "vision/panel_edges.h"

namespace orthema::vision {

/// Where the panel lies best on the cells, sizes as the chart has them but for one factor. `overlap` is the shared area over that of both.
struct CoarseFit {
    PanelGuess guess;
    double overlap = 0;
};
/// The best first, up to three that lie unlike.
std::vector<CoarseFit> coarse_fits(const Silhouette& cells, const BlankAsked& asked);

/// The panel drawn to the edges of the picture, nearer and nearer; at first `wide` times as far about as is usual.
Result<BlankSeen> fine_fit(const Photo& photo, const TableSeen& table, const Silhouette& cells, const BlankAsked& asked,
                           const PanelGuess& guess, double wide, const Task& task);

}  // namespace orthema::vision
