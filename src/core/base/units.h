// Reading and writing lengths as people do: 3 1/16 in, 78 mm, 7.8cm, 3.06".
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/base/words.h"
#include "core/base/length.h"
#include "core/base/result.h"

namespace orthema {

/// A length as a tailor's tape reads: inches to the nearest 1/16 ("3 1/16"), or millimetres to the nearest whole
/// ("78"). Negative lengths carry a minus sign. `with_unit` adds " in" or " mm".
std::string length_text(Length length, Unit unit, bool with_unit = true);

/// "S M L": the items with this between them.
std::string joined(const std::vector<std::string>& items, const std::string& between = " ");
/// With a capital at its beginning, where that is a plain letter.
std::string capitalised(std::string text);

/// Millimetres with up to `digits` decimals and no trailing zeros, for files and drawings.
std::string mm_text(double mm, int digits = 2);

/// Reads "3 1/16", "3-1/16 in", "3.06in", "1/2", "7.8cm", "78 mm", "0.5 m", "2 ft"; a bare number is in `unit`.
/// A decimal comma is read as a point. Fails with a sentence on anything else, on a zero denominator and on
/// lengths past 100 m.
Result<Length> parse_length(std::string_view text, Unit unit);

}  // namespace orthema
