// From a photograph to figures.
#include "vision/panel_fit.h"
#include "vision/wall_fit.h"

namespace orthema::vision {

Result<TableSeen> find_table(const Photo& photo, const Task& task) {
    (void)task;
    if (photo.image.width < 300 || photo.image.height < 300)
        return Error{"The picture is too small to measure from: take it with at least two million pixels."};
    return table_of(find_markers(grey_of(photo.image), 2), photo.image.width, photo.image.height, photo.focal_px);
}

Result<BlankSeen> measure_blank(const Photo& photo, const TableSeen& table, const BlankAsked& asked, const Task& task) {
    if (family_build(asked.family) == Build::wrap) return measure_wall(photo, table, asked, task);
    const auto cells = silhouette(photo, table, asked.thickness, seen_area(asked));
    if (!cells) return Error{cells.sentence()};
    // from where it lies best, then with a wider look about, then from where it lies nearly as well
    std::optional<Result<BlankSeen>> best;
    for (const CoarseFit& coarse : coarse_fits(*cells, asked))
        for (const double wide : {1.0, 1.7}) {
            if (coarse.overlap < 0.72 || task.stopped()) continue;
            auto found = fine_fit(photo, table, *cells, asked, coarse.guess, wide, task);
            if (found && found->refused.empty()) return found;
            if (!best || (!*best && found)) best = std::move(found);
        }
    if (best) return *best;
    return Error{"What lies there has not the shape of this kind of blank: smooth it, choose its kind, or take other things away."};
}

}  // namespace orthema::vision
