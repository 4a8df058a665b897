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
/// drawing.
struct ArtMark {
    std::string art;
    Affine place;
    double opacity = 1;
};

struct ClipMark {
    std::optional<Rect> to;  ///< nothing: ends the last clip
};

using Mark = std::variant<PathMark, TextMark, ArtMark, ClipMark>;

struct Drawing {
    double width = 0, height = 0;
    std::vector<Mark> marks;

    void fill(std::vector<Ring> rings, Colour colour) { marks.emplace_back(PathMark{std::move(rings), true, colour, {}}); }
    void region(const Region& region, std::optional<Colour> fill, std::optional<Stroke> stroke) {
        PathMark mark{{}, true, fill, std::move(stroke)};
        for (const Polygon& p : region) {
            mark.rings.push_back(p.outer);
            mark.rings.insert(mark.rings.end(), p.holes.begin(), p.holes.end());
        }
        marks.emplace_back(std::move(mark));
    }
    void rect(const Rect& r, std::optional<Colour> fill, std::optional<Stroke> stroke = {}) {
        marks.emplace_back(PathMark{{{{r.x0, r.y0}, {r.x1, r.y0}, {r.x1, r.y1}, {r.x0, r.y1}}}, true, fill, std::move(stroke)});
    }
    void line(Ring points, Stroke stroke) { marks.emplace_back(PathMark{{std::move(points)}, false, {}, std::move(stroke)}); }
    void text(Point at, std::string words, double size, Colour colour, Align align = Align::left, bool bold = false, double degrees = 0) {
        marks.emplace_back(TextMark{at, std::move(words), size, colour, align, bold, degrees});
    }
    void clip(const Rect& to) { marks.emplace_back(ClipMark{to}); }
    void unclip() { marks.emplace_back(ClipMark{}); }
};

/// A mark through a map of uniform scale: lengths of strokes, dashes and letters scale with it.
inline Mark mapped(const Mark& mark, const Affine& by) {
    Mark out = mark;
    if (auto* path = std::get_if<PathMark>(&out)) {
        for (Ring& ring : path->rings) ring = mapped(ring, by);
        if (path->stroke) {
            path->stroke->width *= by.a;
            for (double& dash : path->stroke->dash) dash *= by.a;
        }
    } else if (auto* text = std::get_if<TextMark>(&out)) {
        text->at = by(text->at);
        text->size *= by.a;
    } else if (auto* art = std::get_if<ArtMark>(&out)) {
        art->place = by.after(art->place);
    } else if (auto* clip = std::get_if<ClipMark>(&out); clip->to) {
        const Point a = by({clip->to->x0, clip->to->y0});
        const Point b = by({clip->to->x1, clip->to->y1});
        clip->to = Rect{a.x, a.y, b.x, b.y};
    }
    return out;
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
