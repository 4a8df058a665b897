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

Error of_art(const Art& art, const Error& why) { return Error{"{name}: {why}", {{"name", art.name}, {"why", why.said()}}}; }

Result<Region> clip_shape(const Order& order, const ArtClip& clip) {
    if (!clip.word.empty()) {
        Region letters = letter_shapes(clip.word, clip.bold);
        if (area(letters) <= 0) return Error{"“{word}” has no letters that the font can draw.", {{"word", clip.word}}};
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
    if (whole->facts.empty()) return Error{"{name} has no visible ink to clip.", {{"name", art.name}}};
    const auto shape = clip_shape(order, *art.clip);
    if (!shape) return of_art(art, shape.error());
    const auto fit = clip_fit(*shape, whole->facts.aspect, art.subject);
    if (!fit) return of_art(art, fit.error());
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
        return Error{"{name} is smaller than its shape: only {width} × {height} pixels of it would show. Bring in a larger picture.",
                     {{"name", art.name}, {"width", canvas.width}, {"height", canvas.height}}};
    auto out = read_clipped(whole, clip, canvas.width, canvas.height, art.name);
    if (out && (*out)->facts.empty()) return of_art(art, "nothing of it lies in the shape. Move the subject's marks.");
    return out;
}

}  // namespace orthema
