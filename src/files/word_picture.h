// Word pictures: where every picture lies in its letter, and all of them as one picture.
#pragma once

#include "core/artwork/word_picture.h"
#include "files/lettering.h"

namespace orthema {

/// A picture in one place of a word, or in its part of a shared one.
struct WordPartLaid {
    std::size_t place = 0;
    bool second = false;
    Region shape;         ///< letter heights
    Rect box;             ///< of its place
    std::string picture;  ///< art id; empty: none
    double aspect = 1;    ///< of the picture
    FilledPart filled;
};
/// A word as it is laid out: letters are one tall, the base line is y = 0, y down.
struct WordLaid {
    std::vector<WordPartLaid> parts;
    Rect box;
};

/// The picture of a word picture, and its layout (LoadedArt::word). Fails with a sentence where the typeface or a picture cannot be read,
/// or no place has a picture yet.
Result<LoadedArtPtr> word_picture_art(const Order& order, const Art& art, const ArtBytes& bytes);

/// How its parts would be filled with these pictures: parts in the order of the layout, pictures by their art ids.
struct WordSuits {
    std::vector<std::string> pictures;
    std::vector<std::vector<Suit>> suits;
    std::vector<int> best;
};
WordSuits word_suits(const WordLaid& laid, const Order& order, const LoadedArtById& art, const std::vector<std::string>& pictures,
                     double rim);

/// A word picture in a typeface that was read; its file goes into `bytes`. The new art's id.
std::string enrol_word_picture(Order& order, ArtBytes& bytes, const WordPicture& word, const Typeface& face, const std::string& name);

}  // namespace orthema
