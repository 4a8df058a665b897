// Words inside XML: SVG titles and text.
#pragma once

#include <string>

namespace orthema {

/// Marks that XML reads itself are written as entities; control characters, which it does not take, are left out.
inline std::string xml_escaped(const std::string& text) {
    std::string out;
    for (const char c : text) {
        if (c == '&')
            out += "&amp;";
        else if (c == '<')
            out += "&lt;";
        else if (c == '>')
            out += "&gt;";
        else if (c == '"')
            out += "&quot;";
        else if (static_cast<unsigned char>(c) >= 0x20)
            out += c;
    }
    return out;
}

}  // namespace orthema
