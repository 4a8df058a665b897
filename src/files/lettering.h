// Letterings as pictures: every word set in its typeface, as outlines, in its field.
#pragma once

#include "files/art_file.h"

namespace orthema {

/// A typeface to set words in.
struct Typeface {
    std::string name;
    Bytes file;
    std::string hash;  ///< of the file
};
Typeface typeface(std::string name, std::string file);
/// Those that the program ships: the usual one, the narrow one, and the one of its own words.
const std::vector<Typeface>& shipped_typefaces();

/// The pictures of a lettering: of each word under its own id (core/order/roster.h), and under the art's id the field with its widest
/// word. They are drawn from outlines; their bytes are SVG. Fails with a sentence where the typeface is not there or cannot be read, or
/// none of its words has ink.
Result<LoadedArtById> lettered_art(const Order& order, const Art& art, const ArtBytes& bytes);

/// A lettering with the usual figures, in a typeface that was read; its files go into `bytes`. The new art's id.
std::string enrol_lettering(Order& order, ArtBytes& bytes, const Lettering& lettering, const Typeface& face, const Typeface* narrow,
                            const std::string& name);

}  // namespace orthema
