// Drawing: what to draw, as a value. The same drawing goes to the screen, to PDF and to PNG through one painter.
// Units are the maker's (mm on a page, pixels on a bench); y down.
#pragma once

#include <optional>
#include <string>
#include <utility>
#include <variant>
#include <vector>

#include "core/base/colour.h"
#include "core/geometry/geometry.h"
#include "core/geometry/ring_sector.h"

namespace orthema {

struct Stroke {
    Colour colour;
    double width = 1;
    std::vector<double> dash;
};

/// Rings or open lines, filled even-odd.
struct PathMark {
    std::vector<Ring> rings;
    bool closed = true;
    std::optional<Colour> fill;
    std::optional<Stroke> stroke;
};

enum class Align { left, centre, right };

/// `at` is the base line's start, middle or end.
struct TextMark {
    Point at;
    std::string text;
    double size = 10;
    Colour colour;
    Align align = Align::left;
    bool bold = false;
    double degrees = 0;
};

/// A picture by art id. `place` maps its unit frame (origin at the ink box's top left, unit the ink's width) to the
/// drawing; with a bend, first to the wall that the sector unrolls, and from the sector to the drawing by `bent`.
struct ArtMark {
    std::string art;
    Affine place;
    double opacity = 1;
    std::optional<RingSector> bend = {};
    Affine bent = {};
};

struct ClipMark {
    std::vector<Ring> to;  ///< even-odd; empty: ends the last clip
};

inline std::vector<Ring> rings_of(const Region& region) {
    std::vector<Ring> rings;
    for (const Polygon& p : region) {
        rings.push_back(p.outer);
        rings.insert(rings.end(), p.holes.begin(), p.holes.end());
    }
    return rings;
}

using Mark = std::variant<PathMark, TextMark, ArtMark, ClipMark>;

struct Drawing {
    double width = 0, height = 0;
    std::vector<Mark> marks;

    void fill(std::vector<Ring> rings, Colour colour) { marks.emplace_back(PathMark{std::move(rings), true, colour, {}}); }
    void region(const Region& region, std::optional<Colour> fill, std::optional<Stroke> stroke) {
        marks.emplace_back(PathMark{rings_of(region), true, fill, std::move(stroke)});
    }
    void rect(const Rect& r, std::optional<Colour> fill, std::optional<Stroke> stroke = {}) {
        marks.emplace_back(PathMark{{{{r.x0, r.y0}, {r.x1, r.y0}, {r.x1, r.y1}, {r.x0, r.y1}}}, true, fill, std::move(stroke)});
    }
    void line(Ring points, Stroke stroke) { marks.emplace_back(PathMark{{std::move(points)}, false, {}, std::move(stroke)}); }
    void text(Point at, std::string words, double size, Colour colour, Align align = Align::left, bool bold = false, double degrees = 0) {
        marks.emplace_back(TextMark{at, std::move(words), size, colour, align, bold, degrees});
    }
    void clip(const Rect& to) { marks.emplace_back(ClipMark{{box_region(to)[0].outer}}); }
    void clip(const Region& to) { marks.emplace_back(ClipMark{rings_of(to)}); }
    void unclip() { marks.emplace_back(ClipMark{}); }
};

/// A mark through a map without shear or stretch: lengths of strokes, dashes and letters scale with it. Where the map
/// mirrors, words keep their place and still read.
inline Mark mapped(const Mark& mark, const Affine& by) {
    Mark out = mark;
    const double scale = std::sqrt(std::abs(by.determinant()));
    if (auto* path = std::get_if<PathMark>(&out)) {
        for (Ring& ring : path->rings) ring = mapped(ring, by);
        if (path->stroke) {
            path->stroke->width *= scale;
            for (double& dash : path->stroke->dash) dash *= scale;
        }
    } else if (auto* text = std::get_if<TextMark>(&out)) {
        const double t = text->degrees * M_PI / 180;
        const Point along = by(text->at + Point{std::cos(t), std::sin(t)}) - by(text->at);
        const double back = by.determinant() < 0 ? -1 : 1;
        if (back < 0 && text->align != Align::centre) text->align = text->align == Align::left ? Align::right : Align::left;
        text->degrees = std::atan2(back * along.y, back * along.x) * 180 / M_PI;
        text->at = by(text->at);
        text->size *= scale;
    } else if (auto* art = std::get_if<ArtMark>(&out)) {
        (art->bend ? art->bent : art->place) = by.after(art->bend ? art->bent : art->place);
    } else if (auto* clip = std::get_if<ClipMark>(&out)) {
        for (Ring& ring : clip->to) ring = mapped(ring, by);
    }
    return out;
}

/// A picture in its ink box.
inline ArtMark art_in(const std::string& art, const Rect& ink) { return {art, {ink.width(), 0, 0, ink.width(), ink.x0, ink.y0}, 1}; }

/// The box that an ArtMark covers in the drawing, for a picture `aspect` ink widths tall.
inline Rect art_box(const ArtMark& art, double aspect) {
    Ring frame;  // along its edges closely enough for a bent one
    for (int i = 0; i < 16; ++i) frame.push_back({i / 16.0, 0});
    for (int i = 0; i < 16; ++i) frame.push_back({1, aspect * i / 16});
    for (int i = 0; i < 16; ++i) frame.push_back({1 - i / 16.0, aspect});
    for (int i = 0; i < 16; ++i) frame.push_back({0, aspect * (1 - i / 16.0)});
    frame = mapped(frame, art.place);
    if (art.bend) frame = mapped(art.bend->bent(frame), art.bent);
    return bounds(frame);
}

/// A rectangle with round corners; a radius of half the height makes a pill.
inline Ring round_rect(const Rect& r, double radius) {
    radius = std::min({radius, r.width() / 2, r.height() / 2});
    Ring ring;
    const Point centres[4] = {
        {r.x1 - radius, r.y0 + radius}, {r.x1 - radius, r.y1 - radius}, {r.x0 + radius, r.y1 - radius}, {r.x0 + radius, r.y0 + radius}};
    for (int q = 0; q < 4; ++q)
        for (int i = 0; i <= 6; ++i) {
            const double t = (q - 1 + i / 6.0) * M_PI / 2;
            ring.push_back(centres[q] + Point{std::cos(t), std::sin(t)} * radius);
        }
    return ring;
}

inline Ring disc(Point centre, double radius, int steps = 24) {
    Ring ring;
    for (int i = 0; i < steps; ++i) {
        const double t = 2 * M_PI * i / steps;
        ring.push_back(centre + Point{std::cos(t), std::sin(t)} * radius);
    }
    return ring;
}

namespace palette {
constexpr Colour paper{0.957, 0.945, 0.918, 1};
constexpr Colour light{0.984, 0.980, 0.965, 1};
constexpr Colour ink{0.133, 0.188, 0.235, 1};
constexpr Colour quiet{0.357, 0.404, 0.439, 1};
constexpr Colour rule{0.855, 0.835, 0.784, 1};
constexpr Colour verdigris{0.184, 0.498, 0.475, 1};
constexpr Colour brick{0.710, 0.333, 0.235, 1};
constexpr Colour brick_text{0.694, 0.318, 0.231, 1};  // as text on paper
constexpr Colour verdigris_text{0.176, 0.475, 0.451, 1};
constexpr Colour ochre{0.773, 0.545, 0.106, 1};
constexpr Colour ochre_text{0.545, 0.373, 0.02, 1};  // dark enough to read on paper
constexpr Colour carmine{0.639, 0.125, 0.208, 1};
constexpr Colour moss{0.373, 0.498, 0.231, 1};
constexpr Colour plum{0.482, 0.392, 0.631, 1};
constexpr Colour olive{0.541, 0.478, 0.235, 1};
constexpr Colour white{1, 1, 1, 1};
constexpr Colour black{0, 0, 0, 1};
}  // namespace palette

}  // namespace orthema
