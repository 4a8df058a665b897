// Art clipped to letters or to a blank's outline, drawn from its whole.
#include "files/art_pixels.h"
#include "reader/paths.h"
#include "reader/png_bytes.h"
#include "reader/reader.h"

namespace orthema::reader {

namespace {

class ClippedArt final : public LoadedArt {
public:
    void draw(cairo_t* cr) const override {
        cairo_save(cr);
        cairo_new_path(cr);
        add(cr, clip->shape);
        cairo_set_fill_rule(cr, CAIRO_FILL_RULE_EVEN_ODD);
        cairo_clip(cr);
        cairo_translate(cr, clip->at.x, clip->at.y);
        if (clip->degrees != 0) {
            const double mx = clip->unit / 2, my = mx * clip->whole_ink.height() / clip->whole_ink.width();
            cairo_translate(cr, mx, my);
            cairo_rotate(cr, clip->degrees * M_PI / 180);
            cairo_translate(cr, -mx, -my);
        }
        const double k = clip->unit / clip->whole_ink.width();
        cairo_scale(cr, k, k);
        cairo_translate(cr, -clip->whole_ink.x0, -clip->whole_ink.y0);
        whole->draw(cr);
        cairo_restore(cr);
    }

    [[nodiscard]] std::optional<std::vector<FlatShape>> flat_shapes() const override {
        auto shapes = whole->flat_shapes();
        if (!shapes) return shapes;
        const double k = clip->unit / clip->whole_ink.width();
        map_shapes(*shapes, Affine::shift(clip->at.x, clip->at.y)
                                .after(Affine::scale(k, k))
                                .after(Affine::shift(-clip->whole_ink.x0, -clip->whole_ink.y0)));
        for (FlatShape& s : *shapes) s.clips.push_back({rings_of(clip->shape), true});
        return shapes;
    }
};

}  // namespace

LoadedArtPtr cut_from(LoadedArtPtr whole, const ClipOf& clip, ArtFacts facts) {
    auto out = std::make_shared<ClippedArt>();
    out->kind = whole->kind;
    out->hash = whole->hash;
    out->facts = std::move(facts);
    out->clip = clip;
    out->whole = std::move(whole);
    return out;
}

MendedFile composed(const LoadedArtById& pictures, const std::vector<Filling>& fillings, int width, int height) {
    PixelImage out{width, height, {}};
    {
        std::vector<std::uint32_t> words(out.count());
        cairo_surface_t* surface = image_over(words, width, height);
        cairo_t* cr = cairo_create(surface);
        for (const Filling& f : fillings) {
            const auto whole = pictures.find(f.picture);
            if (f.picture.empty()) {
                cairo_new_path(cr);
                add(cr, f.clip.shape);
                cairo_set_fill_rule(cr, CAIRO_FILL_RULE_EVEN_ODD);
                cairo_set_source_rgba(cr, f.plain.r, f.plain.g, f.plain.b, f.opacity);
                cairo_fill(cr);
            } else if (whole != pictures.end()) {
                if (f.opacity < 1) cairo_push_group(cr);
                cut_from(whole->second, f.clip, {})->draw(cr);
                if (f.opacity < 1) {
                    cairo_pop_group_to_source(cr);
                    cairo_paint_with_alpha(cr, f.opacity);
                }
            }
        }
        cairo_destroy(cr);
        cairo_surface_destroy(surface);
        out.rgba = straight(words);
    }
    MendedFile made{png_of(out), {}, double(width), double(height)};
    made.pixels = Pixels{width, height, std::move(out.rgba)};
    return made;
}

Result<LoadedArtPtr> look_clipped(LoadedArtPtr whole, const ClipOf& clip, int width, int height) {
    auto out = std::make_shared<ClippedArt>();
    out->kind = whole->kind;
    out->clip = clip;
    out->whole = std::move(whole);
    out->facts.width_px = width;
    out->facts.height_px = height;
    const auto rgba = drawn_pixels(*out, width, height);
    out->facts = look_at({rgba.data(), width, height}, out->whole->facts.vector);
    if (!out->facts.empty()) out->screen = screen_levels(*out);
    return LoadedArtPtr(std::move(out));
}

}  // namespace orthema::reader
