// Reading and writing lengths as people do: 3 1/16 in, 78 mm, 7.8cm, 3.06".
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/base/words.h"
#include "core/base/length.h"
#include "core/base/result.h"

namespace orthema {

/// Where a figure is rounded to: a limit down, so that it is never passed; what must be done up, so that it is enough.
enum class Rounding { nearest, down, up };

/// A length as a tailor's tape reads: inches in sixteenths ("3 1/16"), or millimetres in tenths ("78", "238.5"). Negative
/// lengths carry a minus sign. `with_unit` adds " in" or " mm".
std::string length_text(Length length, Reading reading, bool with_unit = true, Rounding rounding = Rounding::nearest);

/// A length as it is stored, for fields: millimetres to the hundredth, inches as the fraction that it is, to 1/64, or as a
/// decimal to the thousandth. What was typed comes back.
std::string stored_text(Length length, Reading reading);

/// "S M L": the items with this between them.
std::string joined(const std::vector<std::string>& items, const std::string& between = " ");
/// "€ 4.20"; without a currency the figure alone.
std::string money_text(double amount, const std::string& currency, const Reading& reading = {});
/// With a capital at its beginning, where that is a plain letter.
std::string capitalised(std::string text);

/// A figure with up to `digits` decimals and no trailing zeros, as it is written where it is read.
std::string figure_text(double value, int digits, const Reading& reading);
/// The same with as many decimals as asked for.
std::string fixed_text(double value, int digits, const Reading& reading);
/// Whether so many of a thing take the singular.
bool is_one(long n, const Reading& reading);

/// Millimetres with up to `digits` decimals and no trailing zeros, for files and drawings.
std::string mm_text(double mm, int digits = 2);

/// Reads "3 1/16", "3-1/16 in", "3.06in", "1/2", "7.8cm", "78 mm", "0.5 m", "2 ft"; a bare number is in `unit`.
/// A decimal comma is read as a point. Fails with a sentence on anything else, on a zero denominator and on
/// lengths past 100 m.
Result<Length> parse_length(std::string_view text, Unit unit);

}  // namespace orthema
