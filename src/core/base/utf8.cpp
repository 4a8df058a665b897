#include "core/base/utf8.h"

namespace orthema {

namespace {

struct Step {
    std::size_t length = 1;  ///< bytes of the letter, or of what there is of it
    bool whole = false;
};

/// The letter at `i`, by the table of well-formed sequences (Unicode 15, table 3-7).
Step letter_at(std::string_view s, std::size_t i) {
    const auto byte = [&](std::size_t k) { return static_cast<unsigned>(static_cast<unsigned char>(s[k])); };
    const unsigned first = byte(i);
    if (first < 0x80) return {1, true};
    std::size_t more = 0;
    unsigned low = 0x80, high = 0xBF;  // of the second byte
    if (first >= 0xC2 && first <= 0xDF) {
        more = 1;
    } else if (first >= 0xE0 && first <= 0xEF) {
        more = 2;
        if (first == 0xE0) low = 0xA0;
        if (first == 0xED) high = 0x9F;
    } else if (first >= 0xF0 && first <= 0xF4) {
        more = 3;
        if (first == 0xF0) low = 0x90;
        if (first == 0xF4) high = 0x8F;
    } else {
        return {1, false};
    }
    for (std::size_t k = 1; k <= more; ++k) {
        if (i + k >= s.size() || byte(i + k) < low || byte(i + k) > high) return {k, false};
        low = 0x80;
        high = 0xBF;
    }
    return {more + 1, true};
}

}  // namespace

bool is_utf8(std::string_view text) {
    for (std::size_t i = 0; i < text.size();) {
        const Step s = letter_at(text, i);
        if (!s.whole) return false;
        i += s.length;
    }
    return true;
}

std::string whole_utf8(std::string_view text) {
    std::string out;
    out.reserve(text.size());
    for (std::size_t i = 0; i < text.size();) {
        const Step s = letter_at(text, i);
        if (s.whole)
            out += text.substr(i, s.length);
        else
            out += "\xEF\xBF\xBD";
        i += s.length;
    }
    return out;
}

std::string first_bytes(std::string_view text, std::size_t most) {
    if (text.size() <= most) return std::string(text);
    std::size_t end = most;
    while (end > 0 && (static_cast<unsigned char>(text[end]) & 0xC0) == 0x80) --end;
    return std::string(text.substr(0, end));
}

}  // namespace orthema
