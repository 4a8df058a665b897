// Rectangles on a strip: a packer of their own, since edges that fall together exactly are worth more there than any
// search for places. Method: the lowest stretch of the skyline takes the rectangle that fits it best, by a short score and
// else by a sequence (Leung, Zhang, Sim 2011); the sequence is improved by swaps.
#pragma once

#include <cstdint>
#include <functional>
#include <vector>

namespace orthema {

struct StripRect {
    std::int64_t across = 0, along = 0;  ///< grid units, gap included
    bool may_turn = true;                ///< by a quarter
};

struct StripPlace {
    std::int64_t x = 0, y = 0;  ///< along and across the strip
    bool turned = false;
};

struct StripPacking {
    std::vector<StripPlace> places;  ///< one for each rectangle
    std::int64_t length = 0;
};

/// Packs in the order of `sequence`, where the score leaves a choice; `strict`: by the sequence alone. Pre: every
/// rectangle fits across in some way.
StripPacking pack_skyline(const std::vector<StripRect>& rects, const std::vector<int>& sequence, std::int64_t width, bool strict = false);

/// Improves by swaps until `stop` says so (asked every few packings) or after `packings`, when that is not negative.
/// `better` is called with each shorter one. The outcome depends on the seed and the number of packings alone.
void pack_rects(const std::vector<StripRect>& rects, std::int64_t width, std::uint64_t seed, long packings,
                const std::function<bool()>& stop, const std::function<void(const StripPacking&)>& better);

}  // namespace orthema
