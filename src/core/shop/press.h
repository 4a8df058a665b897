// Presses: platens, pads, and how fast they heat and change.
#pragma once

#include <string>
#include <vector>

#include "core/base/length.h"
#include "core/blanks/location.h"

namespace orthema {

struct Platen {
    std::string name;
    Length width, height;
    bool operator==(const Platen&) const = default;
};

/// A pillow or pad that lifts the ink above seams and closures.
struct Pad {
    std::string name;
    Length width, height;
    Length thickness;
    bool operator==(const Pad&) const = default;
};

enum class PressKind { flat, cap, wrap, oven };

struct Press {
    std::string id;
    std::string name;
    PressKind kind = PressKind::flat;
    std::vector<Platen> platens;  ///< the first is the one that is mounted
    std::vector<Pad> pads;
    Length margin;                         ///< ink keeps this far inside the platen
    double heat_rate = 20, cool_rate = 4;  ///< °C a minute
    double platen_seconds = 300;           ///< to change the platen, by hand
    double pressure_seconds = 20;          ///< to change the pressure, by hand
    int pieces = 1;                        ///< that an oven or a wrap press takes at once
    bool operator==(const Press&) const = default;
};

/// The largest ink, upright, that any one platen of the press takes.
Platen largest_platen(const Press& press);
/// Whether a press of this kind takes such a face.
bool takes(PressKind kind, Face face);

}  // namespace orthema
