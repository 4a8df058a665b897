// Two sheets taped together: where the seam lies, who has to cross it, and how ink is kept off it.
#pragma once

#include "core/sheets/sheets.h"

namespace orthema {

/// Where the sheets are taped, with the lap on either side; none where it is one sheet.
std::vector<Polygon> taped_seams(const Bed& bed);

/// Whether an outline (mm, unturned) is too long to lie beside the seam at any turn it may have.
bool must_cross_seam(const Medium& medium, const Polygon& outline);

/// Ink of a copy on the seam, mm²; 0 where there is none.
double ink_on_seam(const Medium& medium, const Transfer& transfer, const PlacedCopy& copy);

/// Of the copies on one sheet: how many have ink across the seam.
int crossing_seam(const Medium& medium, const TransferSet& set, const std::vector<PlacedCopy>& copies);

/// The layout with those that must cross the seam moved along the feed, and turned about where they may be, to where the least of
/// their ink lies on it: a fold or a gap in the ink. The others stay, and so do locked ones.
MediumLayout off_the_seam(const Medium& medium, const TransferSet& set, const MediumLayout& layout);

}  // namespace orthema
