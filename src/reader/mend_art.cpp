// Mending a picture's file. What is drawn stays drawn where that can be: the drawing is drawn anew, in its new frame, without what is
// taken out and with what is added.
#include <cairo-svg.h>

#include <cmath>

#include "core/artwork/edges.h"
#include "core/artwork/mend.h"
#include "files/art_pixels.h"
#include "reader/paths.h"
#include "reader/pixels.h"
#include "reader/png_bytes.h"
#include "reader/reader.h"

namespace orthema::reader {

namespace {

constexpr double drawn_side = 4096;  ///< pixels along the longer side of a drawing that becomes pixels

/// A drawing in its new frame, in the file's own canvas units, which are about pixels.
struct Redrawn {
    const LoadedArt& art;
    MendFrame frame;
    std::optional<std::vector<FlatShape>> shapes = {};  ///< where a background was left out: what is left
    Region out = {};                                    ///< in the new frame
    std::vector<MendStrip> strips = {};

    void draw(cairo_t* cr) const {
        cairo_save(cr);
        if (!out.empty()) {
            cairo_rectangle(cr, 0, 0, frame.width, frame.height);
            add(cr, out);
            cairo_set_fill_rule(cr, CAIRO_FILL_RULE_EVEN_ODD);
            cairo_clip(cr);
        }
        const Affine& m = frame.from_file;
        const cairo_matrix_t matrix{m.a, m.b, m.c, m.d, m.tx, m.ty};
        cairo_transform(cr, &matrix);
        if (shapes)
            for (const FlatShape& s : *shapes) paint(cr, s);
        else
            art.draw(cr);
        cairo_restore(cr);
        cairo_set_fill_rule(cr, CAIRO_FILL_RULE_WINDING);
        for (const MendStrip& strip : strips) {
            add(cr, strip_area(strip));
            cairo_set_source_rgb(cr, strip.colour.r, strip.colour.g, strip.colour.b);
            cairo_fill(cr);
        }
    }

    static void paint(cairo_t* cr, const FlatShape& s) {
        cairo_save(cr);
        const auto path = [&](const FlatShape::Area& a) {
            cairo_new_path(cr);
            for (const Ring& ring : a.rings) add(cr, ring);
            cairo_set_fill_rule(cr, a.even_odd ? CAIRO_FILL_RULE_EVEN_ODD : CAIRO_FILL_RULE_WINDING);
        };
        for (const FlatShape::Area& clip : s.clips) {
            path(clip);
            cairo_clip(cr);
        }
        path(s.area);
        cairo_set_source_rgba(cr, s.colour.r, s.colour.g, s.colour.b, s.colour.a);
        cairo_fill(cr);
        cairo_restore(cr);
    }

    [[nodiscard]] PixelImage pixels(double scale) const {
        PixelImage out_px{std::max(1, static_cast<int>(std::ceil(frame.width * scale))),
                          std::max(1, static_cast<int>(std::ceil(frame.height * scale))),
                          {}};
        std::vector<std::uint32_t> words(out_px.count());
        cairo_surface_t* surface = image_over(words, out_px.width, out_px.height);
        cairo_t* cr = cairo_create(surface);
        cairo_scale(cr, scale, scale);
        draw(cr);
        cairo_destroy(cr);
        cairo_surface_destroy(surface);
        out_px.rgba = straight(words);
        return out_px;
    }

    [[nodiscard]] std::string svg() const {
        std::string bytes;
        cairo_surface_t* surface = cairo_svg_surface_create_for_stream(
            [](void* to, const unsigned char* data, unsigned n) {
                static_cast<std::string*>(to)->append(reinterpret_cast<const char*>(data), n);
                return CAIRO_STATUS_SUCCESS;
            },
            &bytes, frame.width, frame.height);
        cairo_svg_surface_set_document_unit(surface, CAIRO_SVG_UNIT_PX);
        cairo_t* cr = cairo_create(surface);
        draw(cr);
        cairo_destroy(cr);
        cairo_surface_finish(surface);
        const bool sound = cairo_surface_status(surface) == CAIRO_STATUS_SUCCESS;
        cairo_surface_destroy(surface);
        if (!sound) throw std::runtime_error("a drawing could not be drawn anew");
        return bytes;
    }
};

/// The shapes above a ground of one colour that covers all the canvas; nothing where there is none.
std::optional<std::vector<FlatShape>> without_ground(const LoadedArt& art) {
    auto shapes = art.flat_shapes();
    if (!shapes) return std::nullopt;
    std::size_t grounds = 0;
    const double w = art.facts.width_px, h = art.facts.height_px, slack = 0.002 * std::max(w, h);
    const auto covers = [&](const FlatShape& s) {
        if (s.colour.a < 0.95 || s.area.rings.size() != 1) return false;
        for (const FlatShape::Area& clip : s.clips)
            if (clip.rings.size() != 1 || !bounds(clip.rings.front()).contains({slack, slack}) ||
                !bounds(clip.rings.front()).contains({w - slack, h - slack}) ||
                std::abs(signed_area(clip.rings.front())) < (w - slack) * (h - slack))
                return false;
        const Ring& ring = s.area.rings.front();
        const Rect box = bounds(ring);
        // a box in full: its corners may lie beyond the canvas
        return box.x0 <= slack && box.y0 <= slack && box.x1 >= w - slack && box.y1 >= h - slack &&
               std::abs(std::abs(signed_area(ring)) - box.width() * box.height()) < 1e-3 * box.width() * box.height();
    };
    while (grounds < shapes->size() && covers((*shapes)[grounds])) ++grounds;
    if (grounds == 0 || grounds == shapes->size()) return std::nullopt;
    shapes->erase(shapes->begin(), shapes->begin() + static_cast<std::ptrdiff_t>(grounds));
    return shapes;
}

bool stays_drawn(MendKind kind) { return kind != MendKind::harden && kind != MendKind::dots; }

/// Nothing where it has to become pixels.
std::optional<MendedFile> redrawn(const LoadedArt& art, const std::vector<Mending>& mendings) {
    for (const Mending& m : mendings)
        if (!stays_drawn(m.kind)) return std::nullopt;
    Redrawn out{art, mend_frame(art.facts.width_px, art.facts.height_px, mendings)};
    if (find_mending(mendings, MendKind::background) != nullptr && !(out.shapes = without_ground(art))) return std::nullopt;
    for (const Mending& m : mendings) {
        if (m.kind != MendKind::clean && m.kind != MendKind::open && m.kind != MendKind::thicken) continue;
        PixelImage seen = out.pixels(1);
        if (m.kind == MendKind::clean) {
            Region boxes;
            for (const Rect& box : specks(seen.view(), least_px(m, ink_box(seen.view()))))
                boxes.push_back(box_region({box.x0 - 1, box.y0 - 1, box.x1 + 1, box.y1 + 1}).front());
            out.out = unite(out.out, boxes);
            continue;
        }
        for (MendStrip& strip : mend_thin_parts(seen, m)) {
            if (m.kind == MendKind::thicken)
                out.strips.push_back(std::move(strip));
            else
                out.out = unite(out.out, strip_area(strip));
        }
    }
    return MendedFile{out.svg(), out.frame.from_file, out.frame.width, out.frame.height};
}

}  // namespace

Result<MendedFile> mended(const Bytes& file, const std::string& name, const std::vector<Mending>& mendings) {
    const auto kind = kind_of(*file);
    if (!kind) return no_picture(name);
    PixelImage picture;
    double scale = 1;
    if (*kind == ArtKind::svg || *kind == ArtKind::pdf) {
        const auto art = look(file, name);
        if (!art) return art.error();
        if (auto drawn = redrawn(**art, mendings)) return std::move(*drawn);
        scale = drawn_side / std::max((*art)->facts.width_px, (*art)->facts.height_px);
        picture = Redrawn{**art, {{}, double((*art)->facts.width_px), double((*art)->facts.height_px)}}.pixels(scale);
    } else {
        auto pixels = decode_pixels(*kind, *file, name);
        if (!pixels) return pixels.error();
        picture = {pixels->width, pixels->height, std::move(pixels->rgba)};
    }
    auto done = mend(std::move(picture), mendings, static_cast<std::size_t>(most_pixels));
    if (!done) return done.error();
    PixelImage& out = done->picture;
    MendedFile made{png_of(out), done->from_file.after(Affine::scale(scale, scale)), double(out.width), double(out.height)};
    made.pixels = Pixels{out.width, out.height, std::move(out.rgba)};
    return made;
}

}  // namespace orthema::reader
