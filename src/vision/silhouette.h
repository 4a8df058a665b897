// The blank told from the table: coarsely, as cells of the table, to know where to begin.
#pragma once

#include <vector>

#include "vision/vision.h"

namespace orthema::vision {

struct Silhouette {
    Rect area;        ///< of the table that is seen, mm
    double cell = 3;  ///< mm
    int width = 0, height = 0;
    std::vector<std::uint8_t> cells;         ///< rows; 1 where the blank lies
    std::array<double, 3> cloth{}, table{};  ///< mean colours, of 255
    [[nodiscard]] std::size_t index(int x, int y) const {
        return static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x);
    }
};

/// What is unlike the table's colour, which is taken from the picture's rim and fitted as a surface of second degree for the light that
/// falls off. `expected` is the blank's area, mm². Fails with a sentence where nothing of that size stands out, or it leaves the picture.
Result<Silhouette> silhouette(const Photo& photo, const TableSeen& table, double height, double expected);

}  // namespace orthema::vision
