// Line drawings as SVG in millimetres: templates for those who cut or engrave them. Pictures are left out.
#pragma once

#include <string>

#include "core/drawing/drawing.h"

namespace orthema {

/// `area` of the drawing, mm, 1:1. Letters stay text in the family that the program ships.
std::string drawing_svg(const Drawing& drawing, const Rect& area, const std::string& title);

}  // namespace orthema
