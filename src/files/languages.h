// The languages that come with the programs (resources/languages).
#pragma once

#include <array>
#include <string_view>

#include "core/base/language.h"

namespace orthema {

struct ShippedLanguage {
    const char* code;  ///< ISO 639-1
    const char* name;  ///< as its speakers call it
};
/// All but English.
inline constexpr std::array shipped_languages{ShippedLanguage{"de", "Deutsch"}, ShippedLanguage{"es", "Español"},
                                              ShippedLanguage{"fr", "Français"}};
/// "de", "de_AT", "de-CH"; null for English and whatever is not spoken. Its table is read when it is first asked for, and stays.
const Language* shipped_language(std::string_view code);

}  // namespace orthema
