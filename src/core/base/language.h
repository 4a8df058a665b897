// A language that the program speaks: what each of its English sentences becomes, and how figures are written in it. English itself
// stands in the source and needs none.
#pragma once

#include <map>
#include <string>
#include <string_view>

#include "core/base/result.h"

namespace orthema {

struct Language {
    std::string code;          ///< ISO 639-1
    std::string name;          ///< as its speakers call it
    char decimal = '.';        ///< between whole and part
    bool none_is_one = false;  ///< 0 takes the singular
    std::map<std::string, std::string, std::less<>> sentences;
};

/// What `english` becomes; itself where there is no language, or it does not know the sentence.
std::string_view said_in(const Language* language, std::string_view english);

/// Reads a table of sentences as gettext writes them (PO): msgid and msgstr, each of one or several quoted lines; the empty msgid's
/// header gives Language, X-Name and X-Decimal. Entries without a translation and those marked fuzzy are left out. Fails with the
/// number of the line that is not like that.
Result<Language> read_language(std::string_view po);

}  // namespace orthema
