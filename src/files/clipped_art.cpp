// Art clipped to letters or to a blank's outline, as a picture of its own: measured, fitted and printed like any other.
#include <cmath>

#include "core/artwork/clip_fit.h"
#include "core/blanks/panel.h"
#include "files/art_file.h"
#include "files/reader_process.h"

namespace orthema {

namespace {

constexpr double most_side = 9000;  ///< pixels of a clipped picture
constexpr double vector_side = 2048;

Result<Region> clip_shape(const Order& order, const ArtClip& clip) {
    if (!clip.word.empty()) {
        Region letters = letter_shapes(clip.word, clip.bold);
        if (area(letters) <= 0) return Error{"“" + clip.word + "” has no letters that the font can draw."};
        return letters;
    }
    const BlankStyle* style = find_style(order, clip.style);
    if (style == nullptr || size_index(*style, clip.size) < 0 || style_fault(*style))
        return Error{"The blank that it is clipped to is no longer there: choose another."};
    Region out;  // a hole in the blank needs none in the picture
    for (const Polygon& p : offset(panel_of(*style, clip.size, clip.face).outline, clip.bleed.mm())) out.push_back({p.outer, {}});
    return out;
}

}  // namespace

Result<LoadedArtPtr> clipped_art(const Order& order, const Art& art, const LoadedArtPtr& whole) {
    if (!art.clip) return whole;
    if (whole->facts.empty()) return Error{art.name + " has no visible ink to clip."};
    const auto shape = clip_shape(order, *art.clip);
    if (!shape) return Error{art.name + ": " + shape.sentence()};
    const auto fit = clip_fit(*shape, whole->facts.aspect, art.subject);
    if (!fit) return Error{art.name + ": " + fit.sentence()};
    const Rect box = bounds(*shape);
    // as many pixels to the shape as the picture has there
    const double own = whole->facts.vector ? vector_side / std::max(box.width(), box.height()) : whole->facts.ink_px.width() / fit->scale;
    const double k = std::min(own, most_side / std::max(box.width(), box.height()));
    constexpr double rim = 2;
    ClipOf clip;
    clip.shape = mapped(*shape, Affine::shift(rim, rim).after(Affine::scale(k, k)).after(Affine::shift(-box.x0, -box.y0)));
    clip.unit = fit->scale * k;
    clip.at = {(fit->at.x - box.x0) * k + rim, (fit->at.y - box.y0) * k + rim};
    clip.whole_ink = whole->facts.ink_px;
    const int w = static_cast<int>(std::ceil(box.width() * k + 2 * rim)), h = static_cast<int>(std::ceil(box.height() * k + 2 * rim));
    if (w < 8 || h < 8)
        return Error{art.name + " is smaller than its shape: only " + std::to_string(w) + " × " + std::to_string(h) +
                     " pixels of it would show. Bring in a larger picture."};
    auto out = read_clipped(whole, clip, w, h, art.name);
    if (out && (*out)->facts.empty()) return Error{art.name + ": nothing of it lies in the shape. Move the subject's marks."};
    return out;
}

}  // namespace orthema
