// By how much photographs come out long or short against the tape: a card printed a little off, a lens that is not as it says.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/blanks/style.h"
#include "core/records/statistics.h"

namespace orthema {

struct PhotoScale {
    double by = 0;         ///< per cent that photographed figures are longer than taped ones
    Interval sure;         ///< 95 % of it
    int sizes = 0;         ///< of blanks that were measured both ways: what it rests on
    int figures = 0;       ///< of those
    bool differs = false;  ///< from nought by more than chance would have it, and by enough to be worth a change
};

/// From all figures that have readings of both kinds and were measured after `since` (ISO; empty: all); nothing where fewer than two sizes
/// have any. Method: of each size the mean over its figures, long ones counting more (what a reading is off by in mm is much the same for
/// all); then the t interval of those means, since all figures of a picture share its scale and all of a piece its cut.
std::optional<PhotoScale> photo_scale(const std::vector<BlankStyle>& styles, const std::string& since);

}  // namespace orthema
