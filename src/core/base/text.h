// Text as lists have it: without case, without outer space.
#pragma once

#include <cctype>
#include <string>

namespace orthema {

inline std::string lower(std::string text) {
    for (char& c : text) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    return text;
}

inline std::string trimmed(const std::string& text) {
    const auto a = text.find_first_not_of(" \t\r\n");
    if (a == std::string::npos) return "";
    return text.substr(a, text.find_last_not_of(" \t\r\n") - a + 1);
}

}  // namespace orthema
