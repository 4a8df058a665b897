#include "core/drawing/text_width.h"

#include <algorithm>
#include <array>

namespace orthema {

namespace {

/// Advances in thousandths of the size: U+0020 to U+007E, then U+00A0 to U+00FF, as the tables of the shipped fonts have them.
using Widths = std::array<short, 191>;
constexpr Widths regular{{256, 269, 370, 580, 580, 802, 712, 204, 267, 267, 425, 580,  227, 372, 236, 452, 580, 580, 580, 580, 580, 580,
                          580, 580, 580, 580, 250, 262, 580, 580, 580, 448, 836, 677,  646, 668, 760, 578, 566, 730, 764, 280, 422, 662,
                          514, 928, 764, 800, 600, 800, 626, 542, 590, 736, 677, 1036, 649, 624, 602, 306, 452, 306, 580, 459, 400, 497,
                          560, 478, 560, 528, 350, 520, 558, 240, 240, 508, 236, 822,  558, 567, 560, 560, 364, 433, 358, 558, 516, 786,
                          498, 516, 452, 301, 250, 301, 580, 256, 252, 580, 580, 580,  580, 254, 495, 400, 832, 368, 429, 580, 372, 832,
                          400, 414, 580, 334, 334, 400, 650, 700, 260, 400, 334, 402,  430, 734, 726, 742, 440, 677, 677, 677, 677, 677,
                          677, 930, 668, 578, 578, 578, 578, 280, 280, 280, 280, 768,  764, 800, 800, 800, 800, 800, 580, 800, 736, 736,
                          736, 736, 624, 598, 580, 497, 497, 497, 497, 497, 497, 805,  478, 528, 528, 528, 528, 240, 240, 240, 240, 566,
                          558, 567, 567, 567, 567, 567, 580, 566, 558, 558, 558, 558,  516, 560, 516}};
constexpr Widths heavy{{243, 281, 396, 580, 580, 820, 724, 212, 274, 274, 425, 580,  234, 373, 238, 466, 580, 580, 580, 580, 580, 580,
                        580, 580, 580, 580, 258, 270, 580, 580, 580, 460, 844, 694,  658, 662, 760, 575, 566, 726, 770, 296, 430, 686,
                        520, 945, 770, 808, 619, 808, 643, 548, 600, 742, 694, 1051, 670, 648, 606, 314, 466, 314, 580, 466, 400, 508,
                        568, 482, 568, 534, 358, 528, 564, 254, 254, 534, 248, 838,  564, 574, 568, 568, 373, 440, 372, 564, 528, 802,
                        522, 528, 460, 306, 261, 306, 580, 243, 270, 580, 580, 580,  580, 264, 504, 400, 824, 367, 456, 580, 373, 824,
                        400, 416, 580, 334, 334, 400, 660, 737, 274, 400, 334, 400,  456, 743, 736, 750, 455, 694, 694, 694, 694, 694,
                        694, 933, 662, 575, 575, 575, 575, 296, 296, 296, 296, 770,  770, 808, 808, 808, 808, 808, 580, 808, 742, 742,
                        742, 742, 648, 616, 602, 508, 508, 508, 508, 508, 508, 810,  483, 534, 534, 534, 534, 254, 254, 254, 254, 570,
                        564, 574, 574, 574, 574, 574, 580, 574, 564, 564, 564, 564,  528, 568, 528}};

double advance(char32_t letter, bool bold) {
    const Widths& of = bold ? heavy : regular;
    if (letter >= 0x20 && letter <= 0x7E) return of[letter - 0x20];
    if (letter >= 0xA0 && letter <= 0xFF) return of[letter - 0xA0 + 95];
    switch (letter) {
    case U'\u2018':
    case U'\u2019':
    case U'\u202F': return 250;
    case U'\u201C':
    case U'\u201D': return 386;
    case U'\u2026': return 772;
    case U'\u0153': return 876;
    case U'\u2190':
    case U'\u2192': return 1000;
    default: return 600;
    }
}

}  // namespace

double text_width_guess(const std::string& text, double size, bool bold) {
    double sum = 0;
    for (std::size_t i = 0; i < text.size();) {
        const auto first = static_cast<unsigned char>(text[i++]);
        char32_t letter = first < 0x80 ? first : first < 0xE0 ? first & 0x1FU : first < 0xF0 ? first & 0x0FU : first & 0x07U;
        for (; i < text.size() && (static_cast<unsigned char>(text[i]) & 0xC0) == 0x80; ++i)
            letter = letter << 6 | (static_cast<unsigned char>(text[i]) & 0x3FU);
        sum += advance(letter, bold);
    }
    return sum * size / 1000;
}

double fitted_size(const std::string& text, double size, double width) {
    return size * std::min(1.0, width / text_width_guess(text, size));
}

std::string shortened(const std::string& text, double width, double size) {
    if (text_width_guess(text, size) <= width) return text;
    std::string out = text;
    while (!out.empty() && text_width_guess(out + "…", size) > width) {
        unsigned char gone = 0;
        do {  // a letter's last bytes, and then its first
            gone = static_cast<unsigned char>(out.back());
            out.pop_back();
        } while ((gone & 0xC0) == 0x80 && !out.empty());
    }
    return out + "…";
}

}  // namespace orthema
