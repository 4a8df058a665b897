// Art clipped to letters or to a blank's outline, as a picture of its own: measured, fitted and printed like any other.
#include <limits>

#include "core/artwork/clip_fit.h"
#include "core/blanks/panel.h"
#include "files/art_file.h"
#include "files/composing.h"
#include "files/reader_process.h"

namespace orthema {

namespace {

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
    const ComposingCanvas canvas = composing_canvas(box, own, std::numeric_limits<double>::infinity());
    ClipOf clip;
    clip.shape = mapped(*shape, canvas.to);
    clip.unit = fit->scale * canvas.k;
    clip.at = canvas.to(fit->at);
    clip.whole_ink = whole->facts.ink_px;
    if (canvas.width < 8 || canvas.height < 8)
        return Error{art.name + " is smaller than its shape: only " + std::to_string(canvas.width) + " × " + std::to_string(canvas.height) +
                     " pixels of it would show. Bring in a larger picture."};
    auto out = read_clipped(whole, clip, canvas.width, canvas.height, art.name);
    if (out && (*out)->facts.empty()) return Error{art.name + ": nothing of it lies in the shape. Move the subject's marks."};
    return out;
}

}  // namespace orthema
