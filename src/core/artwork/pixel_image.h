// A picture in memory that can be changed.
#pragma once

#include "core/artwork/art_facts.h"

namespace orthema {

/// Rows of straight RGBA, as in PixelView.
struct PixelImage {
    int width = 0, height = 0;
    std::vector<std::uint8_t> rgba;
    [[nodiscard]] PixelView view() const { return {rgba.data(), width, height}; }
    [[nodiscard]] std::size_t index(int x, int y) const {
        return static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x);
    }
    [[nodiscard]] std::size_t count() const { return static_cast<std::size_t>(width) * static_cast<std::size_t>(height); }
    [[nodiscard]] std::uint8_t* at(int x, int y) { return rgba.data() + 4 * index(x, y); }
    [[nodiscard]] const std::uint8_t* at(int x, int y) const { return rgba.data() + 4 * index(x, y); }
};

/// Tight box of visible ink in whole pixels; empty where there is none.
Rect ink_box(const PixelView& pixels);

}  // namespace orthema
