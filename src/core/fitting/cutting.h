// Cutting bands: the widths of one design over all lots that follow its rule. A blank has the same width on a size in every lot;
// blanks of one class are cut together where that prints fewer widths for less.
#pragma once

#include "core/fitting/fit.h"

namespace orthema {

/// A lot with ideal and limit on each of its sizes; it gets bands and widths.
struct CutLot {
    const Decoration* decoration = nullptr;
    const BlankStyle* style = nullptr;
    DecorationFit* fit = nullptr;
};

/// All lots have the same sizing rule but for its base size; sizes with a pinned width keep out of the bands.
/// Method: members of one blank in the order of its run, of several blanks in the order of their ideal widths; cut by hand at the
/// named sizes, or by exact dynamic programming (bands.h) with the rule's price or count. Together and blank by blank are both cut;
/// together is taken where it prints fewer widths;
/// where the price decides, where it prints no more of them and is the cheaper of the two.
void cut_widths(const std::vector<CutLot>& lots);

}  // namespace orthema
