// A print put together: a ground that fills a blank's face, and pictures over it, each with a place and a size of its own. One art, so it
// is fitted, mirrored, split, wrapped and pressed as one.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/colour.h"
#include "core/base/length.h"
#include "core/blanks/location.h"
#include "core/blanks/style.h"
#include "core/geometry/geometry.h"

namespace orthema {

/// What a place is measured from, along one axis of the face.
enum class From { start, middle, end };  ///< left or top edge, middle, right or bottom edge; as the viewer sees it
const char* from_key(From from);

constexpr std::size_t most_over = 40;

/// A picture over the ground.
struct LaidOver {
    std::string picture;                 ///< art id
    Length width = Length::from_mm(60);  ///< of its ink, on the blank that the print is for
    From level = From::middle, upright = From::middle;
    Length across, down;  ///< from that edge inwards, from the middle to the viewer's right and downwards: of its box, turned
    double degrees = 0;
    bool see_through = false;  ///< what lies under it shows inside a firm edge
    double tint = 0.25;        ///< share of its own colour that stays inside
    Length edge = Length::from_mm(1);
    Colour edge_colour{1, 1, 1, 1};
    bool operator==(const LaidOver&) const = default;
};

struct PutTogether {
    std::string style, size;  ///< of the blank that it is made for
    Face face = Face::front;
    Length bleed = Length::from_mm(3);  ///< of the ground past the face; with a minus it stays inside; none on a wall
    std::string ground;                 ///< art id; empty: a colour, or nothing
    std::optional<Colour> plain = {};   ///< a ground of one colour, under the picture
    std::vector<LaidOver> over;         ///< lowest first
    Length clear = Length::from_mm(4);  ///< that what lies over keeps from edges, loops and seams
    bool operator==(const PutTogether&) const = default;
};

/// Whether the blank and its size are there and sound.
bool face_there(const PutTogether& print, const BlankStyle* style);

/// What the ground fills: the face with its bleed, without the blank's holes; of a wall its printable rectangle. Panel frame, mm.
/// Pre: face_there.
Region ground_shape(const PutTogether& print, const BlankStyle& style);
/// The face that places are measured on: without the bleed.
Rect face_box(const PutTogether& print, const BlankStyle& style);

/// From a picture's ink (unit: its width, from its ink box's top left) to the panel. `aspect`: its height.
Affine place_over(const LaidOver& over, double aspect, const Rect& face);

/// The same picture moved by so much, mm to the viewer's right and down: measured as before.
LaidOver moved_over(LaidOver over, Point by);

/// Measured from other edges, it stays where it lies.
LaidOver measured_from(LaidOver over, From level, From upright, double aspect, const Rect& face);

/// For another blank: shares of the face's width and height stay.
PutTogether made_for(const PutTogether& print, const BlankStyle& was, const BlankStyle& style, const std::string& size, Face face);

}  // namespace orthema
