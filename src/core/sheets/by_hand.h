// Moving, turning, swapping and sending pieces of a layout by hand: a piece never comes to lie on another, on what is
// kept free, or off its sheet.
#pragma once

#include <optional>
#include <vector>

#include "core/sheets/sheets.h"

namespace orthema {

/// A layout under the hand: its outlines where they lie, one for each copy; empty where a copy's transfer is unknown.
class HandLayout {
public:
    /// Keeps a reference to the set.
    HandLayout(const Medium& medium, const TransferSet& set, const MediumLayout& layout);

    [[nodiscard]] const std::vector<PlacedCopy>& copies() const { return layout_.copies; }
    [[nodiscard]] const std::vector<Polygon>& outlines() const { return outlines_; }

    /// Lays copies elsewhere: soundness is the caller's.
    void put(const std::vector<int>& indices, const std::vector<PlacedCopy>& copies);

    /// Index of the topmost copy of `sheet` whose outline holds the point (strip frame, mm), or -1. A point in a hole
    /// belongs to what lies in the hole.
    [[nodiscard]] int at(int sheet, Point p) const;

    /// Whether copy `index` would lie soundly at `there`: on its bed and a gap away from its neighbours.
    [[nodiscard]] bool lies_free(int index, const PlacedCopy& there) const;

    /// The copies moved together by (dx, dy): there when that is free, else as far as all of them slide along their
    /// neighbours, first along the feed and then across. None moves where one is locked. In the order of `indices`.
    [[nodiscard]] std::vector<PlacedCopy> moved(const std::vector<int>& indices, double dx, double dy) const;

    /// Copy `index` turned a quarter (half, along a grain) about its box's middle, or, where that is not free, about as near to
    /// it as there is room within 60 mm. Nothing when there is none, when it is locked, or when the medium forbids turning.
    [[nodiscard]] std::optional<PlacedCopy> turned(int index) const;

    /// Two copies with their places exchanged: the middles of their boxes, or as near as there is room within 60 mm. Nothing when
    /// one is locked or there is no room.
    [[nodiscard]] std::optional<std::pair<PlacedCopy, PlacedCopy>> swapped(int a, int b) const;

    /// Copies taken to another sheet, each to the first place from its start that is free; nothing when one is locked or they
    /// have no room there together. A sheet past the last is a fresh one.
    [[nodiscard]] std::optional<std::vector<PlacedCopy>> sent(const std::vector<int>& indices, int sheet) const;

private:
    [[nodiscard]] Polygon placed(const PlacedCopy& copy) const;
    [[nodiscard]] const Bed& bed(int sheet) const;
    /// What copy `mover` keeps off on a sheet: all that lies there but `but`, and what is kept free of it.
    [[nodiscard]] std::vector<const Polygon*> neighbours(int mover, const std::vector<int>& but, int sheet) const;
    [[nodiscard]] bool free_there(const std::vector<const Polygon*>& others, const Polygon& outline, int sheet) const;
    [[nodiscard]] std::optional<PlacedCopy> near_middle(PlacedCopy copy, Point middle, const std::vector<const Polygon*>& others) const;
    Medium medium_;
    const TransferSet* set_;
    MediumLayout layout_;
    std::vector<Polygon> outlines_;
    std::vector<Bed> beds_;                        ///< by sheet, and one for those past the last
    std::vector<std::vector<Polygon>> kept_free_;  ///< by bed
    std::vector<std::vector<Polygon>> seams_;      ///< by bed
};

}  // namespace orthema
