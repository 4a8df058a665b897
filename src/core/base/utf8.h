// Text made whole: what comes from lists, file names and foreign files need not be UTF-8, all that is kept is.
#pragma once

#include <string>
#include <string_view>

namespace orthema {

/// Whether it is UTF-8 as RFC 3629 has it: no surrogates, no overlong forms, nothing past U+10FFFF, no cut letter.
bool is_utf8(std::string_view text);

/// The text with U+FFFD for each part that is no letter (of a cut one for as much as there is of it, as the Unicode
/// standard recommends); text that is whole comes back as it is.
std::string whole_utf8(std::string_view text);

/// At most so many bytes from its beginning, never a part of a letter.
std::string first_bytes(std::string_view text, std::size_t most);

}  // namespace orthema
