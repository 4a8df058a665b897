// Adjusting a decoration by hand: what a drag, a nudge or a typed figure on one garment means for its rule, or for a
// pin of that size alone. Values in, value out; nothing is fitted here.
#pragma once

#include "core/fitting/fit.h"

namespace orthema {

/// Whom a change by hand is for: the rule and so every size, or the one size it was made on.
enum class Reach { every_size, this_size };

/// The decoration after its ink moved by (right, down) on the size that `on` describes. For every size the rule's
/// offset or share and its place across change, so that this size lands exactly there and the others follow the rule;
/// for this size its pin takes the move.
Decoration moved(const Decoration& decoration, const SizeFit& on, Length right, Length down, Reach reach);

/// The decoration after its ink on `on` was made `width` wide. For every size the base width changes in proportion, so
/// that this size's ideal is `width`; for this size the width is pinned. Widths below 1 mm count as 1 mm.
Decoration widened(const Decoration& decoration, const SizeFit& on, Length width, Reach reach);

/// The decoration with band `band` of its fit ending at size index `last` (into fit.sizes): the bands become set by
/// hand. Sizes let go join the next band, or form a new one behind the last; a band that is swallowed whole is gone.
Decoration band_ending_at(const Decoration& decoration, const DecorationFit& fit, int band, int last);

/// The same for a band's first size.
Decoration band_beginning_at(const Decoration& decoration, const DecorationFit& fit, int band, int first);

/// Without what was fixed by hand for one size.
Decoration unpinned(const Decoration& decoration, const std::string& size);

/// Under another placing school, its figure chosen so that the ink stays where it is on the size `on`, which lies on
/// `panel`. The feature school hangs from `landmark`, or from the usual one of the location where that is empty.
Decoration under_school(const Decoration& decoration, const SizeFit& on, const Panel& panel, PlacingSchool school,
                        const std::string& landmark = {});

/// Moved so that the mark meets its landmark on the size `on`, for every size by the rule.
Decoration brought_together(const Order& order, const Decoration& decoration, const SizeFit& on, const Panel& panel,
                            const Meeting& meeting);

}  // namespace orthema
