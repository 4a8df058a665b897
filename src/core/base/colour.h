// Colour: red, green, blue and alpha, 0 to 1, not premultiplied.
#pragma once

namespace orthema {

struct Colour {
    double r = 0, g = 0, b = 0, a = 1;
    bool operator==(const Colour&) const = default;
};

}  // namespace orthema
