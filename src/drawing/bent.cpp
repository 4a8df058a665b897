// Pictures on tapered walls: bent on to the ring sector that the wall unrolls to.
#include <algorithm>
#include <cmath>

#include "core/artwork/resample.h"
#include "drawing/painter.h"

namespace orthema {

namespace {

constexpr double page_dpi = 600;
constexpr double most_side = 14000;  ///< of the straight picture, pixels

struct Surface {
    std::vector<std::uint32_t> words;
    int width = 0, height = 0;
    cairo_surface_t* surface = nullptr;
    Surface(int w, int h) : words(static_cast<std::size_t>(w) * static_cast<std::size_t>(h)), width(w), height(h) {
        surface = cairo_image_surface_create_for_data(reinterpret_cast<unsigned char*>(words.data()), CAIRO_FORMAT_ARGB32, w, h, w * 4);
    }
    ~Surface() { cairo_surface_destroy(surface); }
    Surface(const Surface&) = delete;
    Surface& operator=(const Surface&) = delete;
};

constexpr double chord_tolerance = 0.01;  ///< mm on the sector

void add_bent(cairo_t* cr, const FlatShape::Area& area, const ArtMark& mark) {
    cairo_new_path(cr);
    for (const Ring& ring : area.rings) {
        const Ring bent = mapped(mark.bend->bent(mapped(ring, mark.place), chord_tolerance), mark.bent);
        for (std::size_t i = 0; i < bent.size(); ++i) (i == 0 ? cairo_move_to : cairo_line_to)(cr, bent[i].x, bent[i].y);
        cairo_close_path(cr);
    }
    cairo_set_fill_rule(cr, area.even_odd ? CAIRO_FILL_RULE_EVEN_ODD : CAIRO_FILL_RULE_WINDING);
}

void paint_shapes(cairo_t* cr, const ArtMark& mark, const std::vector<FlatShape>& shapes) {
    const bool faint = mark.opacity < 1;
    if (faint) cairo_push_group(cr);
    for (const FlatShape& shape : shapes) {
        cairo_save(cr);
        for (const FlatShape::Area& clip : shape.clips) {
            add_bent(cr, clip, mark);
            cairo_clip(cr);
        }
        add_bent(cr, shape.area, mark);
        cairo_set_source_rgba(cr, shape.colour.r, shape.colour.g, shape.colour.b, shape.colour.a);
        cairo_fill(cr);
        cairo_restore(cr);
    }
    if (!faint) return;
    cairo_pop_group_to_source(cr);
    cairo_paint_with_alpha(cr, mark.opacity);
}

}  // namespace

void paint_bent(cairo_t* cr, const ArtMark& mark, ArtSource& art) {
    const double aspect = art.aspect_of(mark.art);
    if (aspect <= 0) return;
    cairo_matrix_t m;
    cairo_get_matrix(cr, &m);
    double device_x = 1, device_y = 1;
    cairo_surface_get_device_scale(cairo_get_target(cr), &device_x, &device_y);
    const auto type = cairo_surface_get_type(cairo_get_target(cr));
    const bool page = type != CAIRO_SURFACE_TYPE_IMAGE;
    if (page)
        if (const auto* shapes = art.flat_shapes(mark.art)) return paint_shapes(cr, mark, *shapes);
    const double fine = page ? page_dpi / 72 : device_x;
    const Affine device = Affine::scale(fine, fine).after({m.xx, m.yx, m.xy, m.yy, m.x0, m.y0});
    // What of it is to be seen, in fine device pixels.
    double x0 = 0, y0 = 0, x1 = 0, y1 = 0;
    cairo_clip_extents(cr, &x0, &y0, &x1, &y1);
    const Rect seen = bounds(mapped(box_region({x0, y0, x1, y1})[0].outer, device));
    const Rect whole = bounds(mapped(box_region(art_box(mark, aspect))[0].outer, device)).grown(1);
    const Rect box{std::floor(std::max(seen.x0, whole.x0)), std::floor(std::max(seen.y0, whole.y0)), std::ceil(std::min(seen.x1, whole.x1)),
                   std::ceil(std::min(seen.y1, whole.y1))};
    if (box.width() < 1 || box.height() < 1 || box.width() > 60000 || box.height() > 60000) return;

    // The straight picture, as fine as the target where the sector is widest, with a clear rim for the sampling.
    const double widest = std::max(mark.bend->rim_radius, mark.bend->base_radius) / mark.bend->middle_radius();
    const double unit = std::sqrt(std::abs(mark.place.determinant()));
    const double scale =
        std::min(unit * widest * std::sqrt(std::abs(device.after(mark.bent).determinant())), most_side / std::max(1.0, aspect));
    constexpr int rim = 2;
    Surface straight(static_cast<int>(std::ceil(scale)) + 2 * rim, static_cast<int>(std::ceil(scale * aspect)) + 2 * rim);
    cairo_t* own = cairo_create(straight.surface);
    cairo_translate(own, rim, rim);
    cairo_scale(own, scale, scale);
    art.paint_art(own, mark.art, 1);
    cairo_destroy(own);
    cairo_surface_flush(straight.surface);

    Surface bent(static_cast<int>(box.width()), static_cast<int>(box.height()));
    const Affine to_flat = inverse(device.after(mark.bent)), to_unit = inverse(mark.place);
    const RingSector& sector = *mark.bend;
    resample({straight.words.data(), straight.width, straight.height}, bent.words.data(), bent.width, bent.height, [&](double x, double y) {
        const Point at = to_unit(sector.unbent(to_flat({x + box.x0, y + box.y0})));
        return Point{at.x * scale + rim, at.y * scale + rim};
    });
    cairo_surface_mark_dirty(bent.surface);
    cairo_save(cr);
    cairo_identity_matrix(cr);
    cairo_scale(cr, 1 / fine, 1 / fine);
    cairo_set_source_surface(cr, bent.surface, box.x0, box.y0);
    cairo_pattern_set_filter(cairo_get_source(cr), page ? CAIRO_FILTER_GOOD : CAIRO_FILTER_NEAREST);
    cairo_paint_with_alpha(cr, mark.opacity);
    cairo_restore(cr);
}

}  // namespace orthema
