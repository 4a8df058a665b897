// The one painter: a Drawing through cairo, on to the screen's image, a PDF page or a PNG band alike.
#pragma once

#include <cairo.h>

#include <string>

#include "core/drawing/drawing.h"

namespace orthema {

/// A filled part of vector art as outlines alone, so that it can be bent.
struct FlatShape {
    struct Area {
        std::vector<Ring> rings;
        bool even_odd = false;  ///< else by winding
    };
    Area area;
    Colour colour;
    std::vector<Area> clips;  ///< it shows only within all of these
};

/// Where the painter gets pictures from.
class ArtSource {
public:
    virtual ~ArtSource() = default;
    /// Paints the picture; user space is its unit frame (origin at the ink box's top left, unit the ink's width).
    virtual void paint_art(cairo_t* cr, const std::string& art_id, double opacity) = 0;
    /// The picture as flat shapes in its unit frame, from the bottom up; null where it is not made of these alone.
    virtual const std::vector<FlatShape>* flat_shapes(const std::string& /*art_id*/) { return nullptr; }
    /// Height of its ink in ink widths; 0 where there is no such picture.
    [[nodiscard]] virtual double aspect_of(const std::string& art_id) const = 0;
};

/// Paints every mark. `art` may be null: pictures are then left out.
void paint(const Drawing& drawing, cairo_t* cr, ArtSource* art);

/// A picture bent on to a ring sector: its pixels, as fine as the target's, are looked up backwards through the sector.
/// On pages that keep vectors, flat vector art stays outlines, bent point by point; the rest becomes a picture of 600
/// pixels to the inch.
void paint_bent(cairo_t* cr, const ArtMark& mark, ArtSource& art);

/// The outlines of a line of text in the shipped font, flattened; outer rings and holes run opposite ways. The base line
/// begins at the origin.
std::vector<Ring> text_outlines(const std::string& text, double size, bool bold);

/// Width of a line of text in the shipped font, in the unit of `size`.
double text_width(const std::string& text, double size, bool bold = false);

/// The bytes of a shipped font file.
std::string_view font_bytes(bool bold);

}  // namespace orthema
