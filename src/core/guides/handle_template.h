// The paper that sits over a mug's handle, so that every copy of a wrap lies in the same place.
#pragma once

#include <optional>

#include "core/drawing/drawing.h"
#include "core/blanks/panel.h"

namespace orthema {

/// A page of its own size, mm, 1:1: the wall around the handle, unrolled, with the slot that is cut out for it and a line
/// on each side where the sheet's ends lie. Nothing for walls without a handle.
std::optional<Drawing> handle_template(const BlankStyle& style, const std::string& size, const std::string& title, const Reading& reading);

}  // namespace orthema
