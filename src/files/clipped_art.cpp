// Art clipped to letters or to a blank's outline, as a picture of its own: measured, fitted and printed like any other.
#include <cmath>

#include "core/artwork/clip_fit.h"
#include "core/blanks/panel.h"
#include "files/art_pixels.h"

namespace orthema {

namespace {

constexpr double most_side = 9000;  ///< pixels of a clipped picture
constexpr double vector_side = 2048;

class ClippedArt final : public LoadedArt {
public:
    Region shape;     ///< canvas pixels
    double unit = 1;  ///< canvas pixels of the whole picture's ink width
    Point at;         ///< of its ink box's top left

    void draw(cairo_t* cr) const override {
        cairo_save(cr);
        cairo_new_path(cr);
        for (const Polygon& p : shape) {
            add(cr, p.outer);
            for (const Ring& hole : p.holes) add(cr, hole);
        }
        cairo_set_fill_rule(cr, CAIRO_FILL_RULE_EVEN_ODD);
        cairo_clip(cr);
        cairo_translate(cr, at.x, at.y);
        const double k = unit / whole->facts.ink_px.width();
        cairo_scale(cr, k, k);
        cairo_translate(cr, -whole->facts.ink_px.x0, -whole->facts.ink_px.y0);
        whole->draw(cr);
        cairo_restore(cr);
    }

    [[nodiscard]] std::optional<std::vector<FlatShape>> flat_shapes() const override {
        auto shapes = whole->flat_shapes();
        if (!shapes) return shapes;
        const double k = unit / whole->facts.ink_px.width();
        map_shapes(
            *shapes,
            Affine::shift(at.x, at.y).after(Affine::scale(k, k)).after(Affine::shift(-whole->facts.ink_px.x0, -whole->facts.ink_px.y0)));
        for (FlatShape& s : *shapes) s.clips.push_back({rings_of(shape), true});
        return shapes;
    }

private:
    static void add(cairo_t* cr, const Ring& ring) {
        for (std::size_t i = 0; i < ring.size(); ++i) (i == 0 ? cairo_move_to : cairo_line_to)(cr, ring[i].x, ring[i].y);
        cairo_close_path(cr);
    }
};

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
    auto out = std::make_shared<ClippedArt>();
    out->kind = whole->kind;
    out->hash = whole->hash;
    out->whole = whole;
    // as many pixels to the shape as the picture has there
    const double own = whole->facts.vector ? vector_side / std::max(box.width(), box.height()) : whole->facts.ink_px.width() / fit->scale;
    const double k = std::min(own, most_side / std::max(box.width(), box.height()));
    constexpr double rim = 2;
    out->shape = mapped(*shape, Affine::shift(rim, rim).after(Affine::scale(k, k)).after(Affine::shift(-box.x0, -box.y0)));
    out->unit = fit->scale * k;
    out->at = {(fit->at.x - box.x0) * k + rim, (fit->at.y - box.y0) * k + rim};
    const int w = static_cast<int>(std::ceil(box.width() * k + 2 * rim)), h = static_cast<int>(std::ceil(box.height() * k + 2 * rim));
    if (w < 8 || h < 8)
        return Error{art.name + " is smaller than its shape: only " + std::to_string(w) + " × " + std::to_string(h) +
                     " pixels of it would show. Bring in a larger picture."};
    out->facts.width_px = w;
    out->facts.height_px = h;
    std::vector<std::uint32_t> canvas(static_cast<std::size_t>(w) * static_cast<std::size_t>(h));
    cairo_surface_t* surface = image_over(canvas, w, h);
    cairo_t* cr = cairo_create(surface);
    out->draw(cr);
    cairo_destroy(cr);
    cairo_surface_destroy(surface);
    const auto rgba = straight(canvas);
    const auto missing = whole->facts.missing_fonts;
    out->facts = look_at({rgba.data(), w, h}, whole->facts.vector);
    out->facts.missing_fonts = missing;
    if (out->facts.empty()) return Error{art.name + ": nothing of it lies in the shape. Move the subject's marks."};
    out->screen = screen_levels(*out);
    return LoadedArtPtr(std::move(out));
}

}  // namespace orthema
