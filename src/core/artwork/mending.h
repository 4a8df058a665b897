// Mendings: what is done to a picture instead of being complained about. Never to its file: an art keeps a list of them, and the
// picture is made anew from the file by that list, always in the order of the kinds below.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/length.h"
#include "core/geometry/geometry.h"

namespace orthema {

/// In the order in which they are done, whatever was asked for first.
enum class MendKind { straighten, crop, background, clean, open, thicken, harden, dots };
constexpr int mend_kinds = 8;

// What the figures of a mending may be.
constexpr double most_straightened = 45;  ///< degrees
constexpr double least_kept = 0.01;       ///< of the canvas, either way
constexpr double most_tolerance = 0.5;
constexpr double most_held = 10;  ///< mm
constexpr double least_dots_dpi = 72, most_dots_dpi = 1200;

struct Mending {
    MendKind kind = MendKind::background;
    double degrees = 0;                   ///< straighten: clockwise
    Rect keep{0, 0, 1, 1};                ///< crop: of the canvas, in shares of its width and height
    double tolerance = 0.05;              ///< background: what is so near to its colour belongs to it; 1 is from black to white
    bool counters = false;                ///< background: closed places of that colour too
    Length least = Length::from_mm(0.4);  ///< clean, open, thicken, dots: the smallest thing that is to hold
    Length at = Length::from_mm(250);     ///< … where the ink is so wide
    double threshold = 0.5;               ///< harden: ink from this cover on
    double dpi = 300;                     ///< dots: of the print
    Length apart = Length::from_mm(1.2);  ///< dots: from the middle of one to the next
    bool operator==(const Mending&) const = default;
};

const char* mend_key(MendKind kind);  ///< as the order's file has it
/// "background 0.05", short and the same for the same figures: by it a mended picture is known again. Empty: as the file is.
std::string mending_words(const std::vector<Mending>& mendings);
const Mending* find_mending(const std::vector<Mending>& mendings, MendKind kind);
/// With this one, in place of one of its kind.
std::vector<Mending> with_mending(std::vector<Mending> mendings, const Mending& mending);
std::vector<Mending> without_mending(std::vector<Mending> mendings, MendKind kind);

}  // namespace orthema
