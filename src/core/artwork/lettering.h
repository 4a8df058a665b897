// Lettering: words and numbers that differ from garment to garment, set in a typeface that the order carries. What is fitted is a *field*:
// as wide as the widest word may be, as tall as its letters; every word is set inside it.
#pragma once

#include <string>
#include <vector>

#include "core/base/colour.h"
#include "core/geometry/geometry.h"

namespace orthema {

/// A further colour round the letters, printed with them.
struct LetterRim {
    Colour colour{0, 0, 0, 1};
    double width = 0.04;  ///< in letter heights
    bool operator==(const LetterRim&) const = default;
};

/// Letters are at least and at most so tall, in widths of their field.
constexpr double least_letters = 0.02, most_letters = 4;

struct Lettering {
    std::string words = "{name}";  ///< fields in braces: name, number, initials, note
    std::string typeface;          ///< name of the face, for people; its file is the art's own
    std::string narrow;            ///< SHA-256 of a narrower face's file, for long words; empty: none
    std::string narrow_name = {};  ///< for people
    double height = 0.22;          ///< of the letters, in field widths
    double spacing = 0;            ///< added between letters, in letter heights
    double least_gap = 0.03;       ///< long words close up until ink is this near, in letter heights
    double arch = 0;               ///< degrees that the field's width spans on the base line's arc; above 0 the middle is highest
    bool capitals = true;
    bool squeeze = false;  ///< what is still too wide is made narrower and keeps its height; else it gets smaller
    bool digits = false;   ///< numbers are put together at the press from single digits
    Colour colour{1, 1, 1, 1};
    std::vector<LetterRim> rims;  ///< innermost first
    bool operator==(const Lettering&) const = default;
};

/// A letter as the typeface has it; unit: the height of its capitals, base line at y = 0, y down.
struct ShapedLetter {
    Region outline;
    double at = 0;       ///< of its origin, along the base line; kerning is in it
    double advance = 0;  ///< to where the next one would stand
};

/// A word in one face.
struct ShapedWord {
    std::vector<ShapedLetter> letters;
    std::vector<std::string> missing;  ///< letters that the face cannot draw
};

/// Words are set in fields of this width, fine enough for the geometry's own grid.
constexpr double field_side = 2048;

/// A word as it is set in its field: x from 0 to `field_side`, base line at y = 0, y down.
struct SetWord {
    Region letters;             ///< centred by their ink
    std::vector<double> lefts;  ///< where each letter begins with its outlines, in a straight word
    bool narrow = false;
    double closed = 0;    ///< by how much letters moved together in all, in letter heights
    double scale = 1;     ///< of its height
    double squeezed = 1;  ///< of its width alone
};

/// Sets a word. Digits alone are spaced by eye: gaps of equal area. Who is too wide closes up until ink is `least_gap` apart, then takes
/// the narrower face (null: there is none), then closes up there, then gets smaller, or narrower alone where that is asked; numbers of
/// single digits stay as large as those and may reach past the field. Numbers keep their natural gap where they fit. Rims count as ink.
/// Method: gaps between neighbours from their facing profiles, the closing found by bisection.
SetWord set_word(const Lettering& lettering, const ShapedWord& wide, const ShapedWord* narrow, bool number);

/// Where each letter of a word stands when all have closed up to `gap`, by their facing profiles; letter heights.
std::vector<double> closed_up(const ShapedWord& word, double gap);

/// What is printed of a word, outermost rim first, letters last; same unit.
struct LetterInk {
    Colour colour;
    Region area;
};
std::vector<LetterInk> letter_inks(const Lettering& lettering, const SetWord& word);

/// The word within its field, and how it came to lie there: what the fit needs of it.
struct Lettered {
    Rect in_field;  ///< its ink box; unit: the field's width, from the field's top left
    bool narrow = false;
    double closed = 0, scale = 1, squeezed = 1;
    std::vector<std::string> missing;
    std::vector<double> lefts = {};  ///< of the letters of a straight word, in field widths from the field's left
    bool operator==(const Lettered&) const = default;
};

/// How wide a word would be if nothing had given way for its field, in field widths: by this the hardest are found.
double width_by_nature(const Lettering& lettering, const Lettered& word);

}  // namespace orthema
