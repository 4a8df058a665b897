// Moving, turning and locking pieces of a layout by hand: a piece never comes to lie on another or off the medium.
#pragma once

#include <optional>
#include <vector>

#include "core/nesting/sheets.h"

namespace orthema {

/// The layout's outlines where they lie, for hit tests and collisions; one for each copy, in the copies' order. A copy
/// whose transfer is unknown has an empty outline.
std::vector<Polygon> lying_outlines(const TransferSet& set, const std::vector<PlacedCopy>& copies);

/// Index of the topmost copy of `sheet` whose contour holds the point (strip frame, mm), or -1. A point in a hole
/// belongs to what lies in the hole.
int copy_at(const std::vector<Polygon>& outlines, const std::vector<PlacedCopy>& copies, int sheet, Point p);

/// Whether copy `index` would lie soundly at `there`: inside the margins and a gap away from its neighbours.
bool lies_free(const Medium& medium, const TransferSet& set, const std::vector<PlacedCopy>& copies, const std::vector<Polygon>& outlines,
               int index, const PlacedCopy& there);

/// Copy `index` moved towards (x, y): there when that is free, else as far as it slides along its neighbours, first
/// along the feed and then across. Locked copies stay.
PlacedCopy moved_copy(const Medium& medium, const TransferSet& set, const std::vector<PlacedCopy>& copies,
                      const std::vector<Polygon>& outlines, int index, double x, double y);

/// Copy `index` turned a quarter about its box's middle, or, where that is not free, about as near to it as there is
/// room within 60 mm. Nothing when there is none, when it is locked, or when the medium forbids turning.
std::optional<PlacedCopy> turned_copy(const Medium& medium, const TransferSet& set, const std::vector<PlacedCopy>& copies,
                                      const std::vector<Polygon>& outlines, int index);

}  // namespace orthema
