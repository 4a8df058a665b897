// A word picture: a word whose letters are places for pictures, each its own; a letter may be a shape instead, and two pictures may share
// one along a line.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/artwork/lettering.h"

namespace orthema {

enum class PlaceShape { letter, heart, star, circle, square, drop, kite, outline };
constexpr int place_shapes = 8;
const char* place_key(PlaceShape shape);   ///< as the order's file has it
const char* place_name(PlaceShape shape);  ///< for people

/// A picture put in its place by hand.
struct PictureAt {
    double width = 1;  ///< of the picture's ink, in letter heights
    Point middle;      ///< of its ink box, from the middle of its place's box, in letter heights
    double degrees = 0;
    bool operator==(const PictureAt&) const = default;
};

struct PlacePart {
    std::string picture;          ///< art id; empty: none yet
    std::optional<PictureAt> at;  ///< none: as large as keeps its subject inside
    bool operator==(const PlacePart&) const = default;
};

constexpr double most_apart = 0.5;  ///< of letters, in letter heights
constexpr double most_rim = 0.2;    ///< that subjects keep from the edge, in letter heights
constexpr std::size_t most_places = 40;

/// Where the line lies along which two pictures share a place: through a point of its box, turned.
struct SharingLine {
    Point through{0.5, 0.5};  ///< in shares of the place's box
    double degrees = 90;      ///< clockwise from level; the first picture lies on its left hand, looking along it
    bool operator==(const SharingLine&) const = default;
};

struct WordPlace {
    PlaceShape shape = PlaceShape::letter;
    std::string outline;  ///< art id whose outline it is, for that shape
    PlacePart first, second;
    bool shared = false;
    SharingLine line;
    bool operator==(const WordPlace&) const = default;
};

struct WordPicture {
    std::string word = "KITES";
    std::string typeface;           ///< name of the face, for people; its file is the art's own
    double apart = 0.04;            ///< that letters close up to, in letter heights
    double rim = 0.03;              ///< that subjects keep from their letter's edge, in letter heights
    std::vector<WordPlace> places;  ///< one for each letter that is no space
    bool operator==(const WordPicture&) const = default;
};

/// With as many places as the word has letters: those that are there stay as they are.
WordPicture with_places(WordPicture word);

/// A shape one letter height tall on the base line, its left at x = 0; nothing for letters and outlines.
Region place_shape(PlaceShape shape);

/// The places of the word, side by side, on the base line y = 0, y down; unit: the letters' height. Letters stand as near as `apart` by
/// their facing profiles, a space stays a part of what it is. `outlines` are those of arts by id, at any size: they are made as tall as the
/// letters. Fails with a sentence where the face has none of the letters.
Result<std::vector<Region>> word_shapes(const WordPicture& word, const ShapedWord& shaped, const std::map<std::string, Region>& outlines);

/// The two parts of a place along its line: together they are the place, and they share nothing but the line.
std::pair<Region, Region> parted(const Region& shape, const SharingLine& line);

/// What is known of a picture for a word.
struct WordFill {
    double aspect = 1;           ///< ink height in ink widths
    std::vector<Point> subject;  ///< that must stay inside; unit: the ink's width
};

/// Where a picture lies in a part, by its own place or as large as keeps its subject inside with the rim; where that cannot be, it covers
/// the part, nearest to its middle, and `whole` is false. The place is from the middle of `box`, which is the whole place's.
struct FilledPart {
    PictureAt at;
    bool whole = true;  ///< all of the subject lies inside, and the part is covered
};
FilledPart fill_part(const Region& part, const Rect& box, const WordFill& picture, const PlacePart& wish, double rim);

/// Whether so placed the picture covers the part and keeps its subject inside with the rim.
bool holds(const Region& part, const Rect& box, const WordFill& picture, const PictureAt& at, double rim);

/// How well each picture suits each part: the share of the largest width that it could have in any of them; none where its subject does not
/// go in, with the reason.
struct Suit {
    double share = 0;
    std::string why_not;
    bool operator==(const Suit&) const = default;
};
/// [part][picture]. Runs on all cores.
std::vector<std::vector<Suit>> suits(const std::vector<Region>& parts, const std::vector<WordFill>& pictures, double rim);

/// Which picture goes into which part so that as many parts as can be are filled, and the shares add up to the most: for each part a
/// picture, or −1. Exact. Method: shortest augmenting paths (Hungarian method).
std::vector<int> best_assignment(const std::vector<std::vector<Suit>>& suits);

}  // namespace orthema
