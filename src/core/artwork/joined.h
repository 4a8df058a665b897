// Which pixels of a picture hang together, corners included.
#pragma once

#include <algorithm>
#include <vector>

#include "core/geometry/geometry.h"

namespace orthema {

/// What is joined, by runs in rows: the box of each and its runs.
struct Joined {
    struct Run {
        int y, from, to;
        std::size_t piece;
    };
    std::vector<Run> runs;
    std::vector<Rect> boxes;  ///< by piece; those that another took in are empty
};

template <class Has>
Joined joined_pixels(int width, int height, Has has) {
    Joined out;
    std::vector<std::size_t> parent;
    const auto root = [&](std::size_t k) {
        while (parent[k] != k) k = parent[k] = parent[parent[k]];
        return k;
    };
    std::size_t before = 0, row = 0;
    for (int y = 0; y < height; ++y) {
        const std::size_t upper = before;
        before = out.runs.size();
        row = upper;
        for (int x = 0; x < width; ++x) {
            if (!has(x, y)) continue;
            int to = x;
            while (to < width && has(to, y)) ++to;
            const std::size_t own = parent.size();
            parent.push_back(own);
            out.runs.push_back({y, x, to, own});
            while (row < before && out.runs[row].to < x) ++row;
            for (std::size_t k = row; k < before && out.runs[k].y == y - 1 && out.runs[k].from <= to; ++k)
                parent[root(out.runs[k].piece)] = root(own);
            x = to;
        }
    }
    out.boxes.assign(parent.size(), Rect{1e9, 1e9, -1e9, -1e9});
    for (Joined::Run& r : out.runs) {
        r.piece = root(r.piece);
        Rect& b = out.boxes[r.piece];
        b = {std::min(b.x0, double(r.from)), std::min(b.y0, double(r.y)), std::max(b.x1, double(r.to)), std::max(b.y1, double(r.y + 1))};
    }
    return out;
}

}  // namespace orthema
