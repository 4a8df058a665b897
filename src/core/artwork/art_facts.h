// What a picture is once its canvas is forgotten: where the ink is, where the eye sees its middle, what outline it
// has, and what is wrong with it for a transfer. Works on a pixel view; vector art is seen through a fine rendering.
#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/artwork/lettering.h"
#include "core/base/colour.h"
#include "core/base/finding.h"
#include "core/base/length.h"
#include "core/base/shared.h"
#include "core/geometry/geometry.h"

namespace orthema {

/// Rows of straight (not premultiplied) RGBA, 8 bits a channel, top row first, no padding.
struct PixelView {
    const std::uint8_t* rgba = nullptr;
    int width = 0;
    int height = 0;
    [[nodiscard]] const std::uint8_t* at(int x, int y) const {
        return rgba + (static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x)) * 4;
    }
};

/// A pixel counts as ink from this alpha on: fainter is not seen on cloth.
constexpr int ink_alpha = 16;

/// The ink box only, rows from the top: how much ink each pixel has, 0 to 255.
struct AlphaMap {
    int width = 0, height = 0;
    std::vector<std::uint8_t> ink;
    bool operator==(const AlphaMap&) const = default;
    [[nodiscard]] int at(int x, int y) const {
        return ink[static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x)];
    }
};

/// The ink box in straight RGBA, at most `small_side` pixels along its longer side.
struct SmallPicture {
    int width = 0, height = 0;
    std::vector<std::uint8_t> rgba;
    [[nodiscard]] PixelView view() const { return {rgba.data(), width, height}; }
    bool operator==(const SmallPicture&) const = default;
};
constexpr int small_side = 1400;

struct ArtFacts {
    int width_px = 0, height_px = 0;  ///< the canvas that was looked at
    bool vector = false;              ///< scales without loss, so resolution does not apply
    Rect ink_px;                      ///< tight box of visible ink, in whole pixels; empty when there is no ink
    double aspect = 1;                ///< ink height / ink width
    /// Outline with holes; unit is the ink's width, origin the ink box's top left.
    Region outline;
    Point optical_centre{0.5, 0.5};  ///< ink-weighted, in the outline's unit
    double thin_stroke = 0;          ///< width of its thinnest stroke, in ink widths; 0 where none is thin
    double narrow_gap = 0;           ///< width of its narrowest gap
    struct Ink {
        Colour colour;
        double share = 0;
        bool operator==(const Ink&) const = default;
    };
    std::vector<Ink> inks;         ///< the colours that make up most of it, largest share first
    double half_transparent = 0;   ///< share of ink pixels that are neither solid nor clear, edges left out
    bool flat_background = false;  ///< an unbroken opaque border of one colour
    Colour background;
    std::vector<std::string> missing_fonts;
    double edge_px = 0;                ///< width of its sharpest edges (soft_edges.h); 0: vector art, or too few to tell
    double sharpness = 1;              ///< of a word picture: its coarsest picture's resolution, in shares of its own
    std::vector<std::string> cut_off;  ///< … and those of its pictures that lose some of their subject
    std::optional<Lettered> lettered;  ///< of a word: how it is set in its field
    Shared<AlphaMap> alpha;            ///< every pixel, for seams
    Shared<SmallPicture> picture;      ///< for separating colours
    [[nodiscard]] bool empty() const { return ink_px.width() <= 0; }
    bool operator==(const ArtFacts&) const = default;
};

/// Looks at the pixels. `vector` says that they are a rendering of vector art. The outline runs along pixel edges and
/// is then simplified by `tolerance_px`; with 0 its area is exactly the count of ink pixels.
ArtFacts look_at(const PixelView& pixels, bool vector, double tolerance_px = 1.0);

/// The exact outline of all pixels with alpha >= threshold, along pixel edges, in pixels; outer rings and holes.
/// Diagonal neighbours are not joined. Method: crack following.
Region pixel_outline(const PixelView& pixels, int threshold);

/// Edges that take more pixels than this, and are wider than this where they are printed, look soft.
constexpr double soft_edge_px = 3.5, soft_edge_mm = 0.6;

/// By how much fewer pixels a soft picture is worth than it has.
inline double softness(const ArtFacts& facts) { return facts.edge_px > soft_edge_px ? facts.edge_px / 2 : 1; }

/// Pixels to the inch when the ink is `width` wide; nothing for vector art.
std::optional<double> resolution(const ArtFacts& facts, Length width);

/// Share of the ink that is so near to the cloth's colour that it vanishes on it: CIELAB difference (1976) below 16.
double vanishing_share(const ArtFacts& facts, Colour cloth);
double colour_difference(Colour a, Colour b);  ///< CIELAB 1976, D65
std::array<double, 3> lab_of(Colour c);        ///< CIELAB, D65
double lab_lightness(Colour c);                ///< L*, 0 black to 100 white

/// No picture is printed at less than this; below 150 it is worth a look.
constexpr double resolution_floor_dpi = 100;

/// Findings about the picture itself; `width` is the largest width planned, if any is.
Findings art_findings(const ArtFacts& facts, const std::string& art_id, const std::string& name, std::optional<Length> width);

}  // namespace orthema
