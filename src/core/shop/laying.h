// Laying: how the pieces of one medium are laid and cut, what is kept free, and which sizes of it are on the shelf. The
// artist's decisions; layouts that follow them come from core/nesting.
#pragma once

#include <string>
#include <vector>

#include "core/base/length.h"
#include "core/geometry/geometry.h"

namespace orthema {

/// What will part the pieces decides how they are laid.
enum class Cutting {
    contour,   ///< scissors or a cutter, along true shapes
    trimmer,   ///< a guillotine: every cut goes from edge to edge
    on_sheet,  ///< not cut: blanks are taped to the sheet and pressed together
};

/// What stays side by side, so that it is cut off and counted as one.
enum class Together { nothing, designs, garments, sizes, jobs };
constexpr int together_count = 5;

/// Kept free on every sheet: a clamp, a scratch, a label. From the start of the feed and from the near edge.
struct Exclusion {
    std::string name;
    Length along, across;  ///< where it begins
    Length length, breadth;
    bool operator==(const Exclusion&) const = default;
};

/// One size that the medium is bought in, or an offcut that was kept. How many there are is in the shop's stock.
struct StockItem {
    std::string id;
    std::string name;
    Length width, length;     ///< a roll's width and what is left on it; a sheet's width and height
    double price = 0;         ///< a metre of roll, or a sheet; an offcut is paid for
    Ring shape;               ///< an offcut's true shape, x along the feed, y across; empty: the whole size
    std::vector<Ring> holes;  ///< in an offcut
    bool operator==(const StockItem&) const = default;
};

struct Laying {
    Cutting cutting = Cutting::contour;
    int stages = 0;                        ///< of a trimmer, how often the direction of the cuts may change; 0: freely
    bool grain = false;                    ///< grain or nap along the feed: half turns at most
    Length fingers = Length::from_mm(12);  ///< on-sheet: between two blanks, for tape and fingers
    Together together = Together::nothing;
    bool registers = false;  ///< marks that a cutter's eye finds the sheet by
    std::vector<Exclusion> excluded;
    Length waste;                  ///< of a roll: lost at the clamp and the knife with every run
    std::vector<StockItem> stock;  ///< besides the medium's own size
    bool operator==(const Laying&) const = default;
};

}  // namespace orthema
