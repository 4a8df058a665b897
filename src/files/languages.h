// The languages that come with the programs (resources/languages).
#pragma once

#include <string_view>
#include <vector>

#include "core/base/language.h"

namespace orthema {

/// All but English, by code. Read when first asked for; they stay.
const std::vector<Language>& shipped_languages();
/// "de", "de_AT", "de-CH"; null for English and whatever is not spoken.
const Language* shipped_language(std::string_view code);

}  // namespace orthema
