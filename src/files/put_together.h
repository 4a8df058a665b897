// A print put together, as one picture.
#pragma once

#include "core/artwork/clip_fit.h"
#include "files/art_file.h"

namespace orthema {

/// How it lies, mm, in its panel's frame.
struct TogetherLaid {
    Region ground;                   ///< shape that is filled
    Rect face;                       ///< that places are measured on
    Region keep;                     ///< outline of the blank there; of a wall its printable rectangle
    Region raised;                   ///< loops, wires and seams that a print keeps clear of
    std::vector<Ring> lines;         ///< that the blank is drawn with
    std::optional<ClipFit> picture;  ///< of the ground's picture
};

/// The picture of a print put together, and its layout (LoadedArt::together): its ink is the ground's shape where there is a ground. Fails
/// with a sentence where the blank or a picture is not there, or nothing is put together yet.
Result<LoadedArtPtr> together_art(const Order& order, const Art& art, const ArtBytes& bytes);

/// A print put together for a blank; the new art's id.
std::string enrol_together(Order& order, const PutTogether& print, const std::string& name);

}  // namespace orthema
