#include "files/composing.h"

#include <cmath>

#include "files/reader_process.h"

namespace orthema {

namespace {

constexpr double most_canvas_side = 9000;  ///< pixels
constexpr double canvas_rim = 2;           ///< … left free round what lies on it

}  // namespace

ComposingCanvas composing_canvas(const Rect& box, double sharpest, double most_area) {
    ComposingCanvas c;
    c.k = std::min({sharpest, most_canvas_side / std::max(box.width(), box.height()), std::sqrt(most_area / (box.width() * box.height()))});
    c.to = Affine::shift(canvas_rim, canvas_rim).after(Affine::scale(c.k, c.k)).after(Affine::shift(-box.x0, -box.y0));
    c.width = static_cast<int>(std::ceil(box.width() * c.k + 2 * canvas_rim));
    c.height = static_cast<int>(std::ceil(box.height() * c.k + 2 * canvas_rim));
    return c;
}

Filling filling_of(const ComposingCanvas& canvas, const std::string& picture, const ArtFacts& facts, Region shape, double width,
                   Point middle, double degrees) {
    Filling f;
    f.picture = picture;
    f.clip.shape = std::move(shape);
    f.clip.unit = width * canvas.k;
    f.clip.at = canvas.to(middle) - Point{f.clip.unit / 2, f.clip.unit * facts.aspect / 2};
    f.clip.degrees = degrees;
    f.clip.whole_ink = facts.ink_px;
    return f;
}

Result<std::shared_ptr<LoadedArt>> composed_art(const ComposingCanvas& canvas, const LoadedArtById& pictures,
                                                const std::vector<Filling>& fillings, double coarsest, const std::string& name) {
    auto out = read_composed(pictures, fillings, canvas.width, canvas.height, name);
    if (!out) return out.error();
    auto own = std::const_pointer_cast<LoadedArt>(*out);
    if (coarsest < canvas.k) own->facts.sharpness = coarsest / canvas.k;
    return own;
}

}  // namespace orthema
