#include "drawing/painter.h"

#include <cairo-ft.h>

#include <cmath>
#include <string_view>

extern "C" {
extern const char orthema_font_regular[];
extern const char orthema_font_regular_end[];
extern const char orthema_font_bold[];
extern const char orthema_font_bold_end[];
}

namespace orthema {

std::string_view font_bytes(bool bold) {
    if (bold) return {orthema_font_bold, static_cast<std::size_t>(orthema_font_bold_end - orthema_font_bold)};
    return {orthema_font_regular, static_cast<std::size_t>(orthema_font_regular_end - orthema_font_regular)};
}

namespace {

/// FreeType faces are not shared between threads: each has its own.
struct Fonts {
    FT_Library library = nullptr;
    FT_Face faces[2] = {nullptr, nullptr};
    cairo_font_face_t* fonts[2] = {nullptr, nullptr};
    Fonts() {
        FT_Init_FreeType(&library);
        for (const int bold : {0, 1}) {
            const auto bytes = font_bytes(bold != 0);
            FT_New_Memory_Face(library, reinterpret_cast<const FT_Byte*>(bytes.data()), static_cast<FT_Long>(bytes.size()), 0,
                               &faces[bold]);
            fonts[bold] = cairo_ft_font_face_create_for_ft_face(faces[bold], 0);
        }
    }
    Fonts(const Fonts&) = delete;
    Fonts& operator=(const Fonts&) = delete;
    // cairo keeps scaled fonts in a cache past the last use, and they keep the face: so the faces stay.
    ~Fonts() = default;
};

cairo_font_face_t* font(bool bold) {
    thread_local Fonts* fonts = new Fonts;
    return fonts->fonts[bold ? 1 : 0];
}

void set_colour(cairo_t* cr, Colour c) { cairo_set_source_rgba(cr, c.r, c.g, c.b, c.a); }

void add_rings(cairo_t* cr, const std::vector<Ring>& rings, bool closed) {
    for (const Ring& ring : rings) {
        if (ring.empty()) continue;
        cairo_move_to(cr, ring[0].x, ring[0].y);
        for (std::size_t i = 1; i < ring.size(); ++i) cairo_line_to(cr, ring[i].x, ring[i].y);
        if (closed) cairo_close_path(cr);
    }
}

cairo_matrix_t to_matrix(const Affine& m) {
    cairo_matrix_t out;
    cairo_matrix_init(&out, m.a, m.b, m.c, m.d, m.tx, m.ty);
    return out;
}

struct PaintMark {
    cairo_t* cr;
    ArtSource* art;
    void operator()(const PathMark& m) const {
        cairo_new_path(cr);
        add_rings(cr, m.rings, m.closed);
        if (m.fill) {
            set_colour(cr, *m.fill);
            cairo_set_fill_rule(cr, CAIRO_FILL_RULE_EVEN_ODD);
            cairo_fill_preserve(cr);
        }
        if (m.stroke) {
            set_colour(cr, m.stroke->colour);
            cairo_set_line_width(cr, m.stroke->width);
            cairo_set_dash(cr, m.stroke->dash.data(), static_cast<int>(m.stroke->dash.size()), 0);
            cairo_stroke_preserve(cr);
        }
        cairo_new_path(cr);
    }
    void operator()(const TextMark& m) const {
        cairo_save(cr);
        cairo_set_font_face(cr, font(m.bold));
        cairo_set_font_size(cr, m.size);
        double shift = 0;
        if (m.align != Align::left) {
            cairo_text_extents_t e;
            cairo_text_extents(cr, m.text.c_str(), &e);
            shift = m.align == Align::centre ? -e.x_advance / 2 : -e.x_advance;
        }
        cairo_translate(cr, m.at.x, m.at.y);
        if (m.degrees != 0) cairo_rotate(cr, m.degrees * M_PI / 180);
        cairo_move_to(cr, shift, 0);
        set_colour(cr, m.colour);
        cairo_show_text(cr, m.text.c_str());
        cairo_restore(cr);
    }
    void operator()(const ArtMark& m) const {
        if (art == nullptr) return;
        if (m.bend && !m.bend->straight()) return paint_bent(cr, m, *art);
        cairo_save(cr);
        const cairo_matrix_t to = to_matrix(m.bend ? m.bent.after(m.place) : m.place);
        cairo_transform(cr, &to);
        art->paint_art(cr, m.art, m.opacity);
        cairo_restore(cr);
    }
    void operator()(const ClipMark& m) const {
        if (m.to.empty()) {
            cairo_restore(cr);
            return;
        }
        cairo_save(cr);
        cairo_new_path(cr);
        add_rings(cr, m.to, true);
        cairo_set_fill_rule(cr, CAIRO_FILL_RULE_EVEN_ODD);
        cairo_clip(cr);
    }
};

}  // namespace

void paint(const Drawing& drawing, cairo_t* cr, ArtSource* art) {
    cairo_set_line_cap(cr, CAIRO_LINE_CAP_BUTT);
    cairo_set_line_join(cr, CAIRO_LINE_JOIN_ROUND);
    for (const Mark& mark : drawing.marks) std::visit(PaintMark{cr, art}, mark);
}

std::vector<Ring> text_outlines(const std::string& text, double size, bool bold) {
    cairo_surface_t* surface = cairo_recording_surface_create(CAIRO_CONTENT_ALPHA, nullptr);
    cairo_t* cr = cairo_create(surface);
    cairo_surface_destroy(surface);
    cairo_set_font_face(cr, font(bold));
    cairo_set_font_size(cr, size);
    cairo_set_tolerance(cr, size / 4000);
    cairo_move_to(cr, 0, 0);
    cairo_text_path(cr, text.c_str());
    cairo_path_t* path = cairo_copy_path_flat(cr);
    std::vector<Ring> rings;
    for (int i = 0; i < path->num_data; i += path->data[i].header.length) {
        const cairo_path_data_t* d = &path->data[i];
        if (d->header.type == CAIRO_PATH_MOVE_TO) rings.emplace_back();
        if (d->header.type == CAIRO_PATH_MOVE_TO || d->header.type == CAIRO_PATH_LINE_TO)
            rings.back().push_back({d[1].point.x, d[1].point.y});
    }
    cairo_path_destroy(path);
    cairo_destroy(cr);
    std::erase_if(rings, [](const Ring& r) { return r.size() < 3; });
    return rings;
}

double text_width(const std::string& text, double size, bool bold) {
    thread_local cairo_t* cr = [] {
        cairo_surface_t* s = cairo_image_surface_create(CAIRO_FORMAT_A8, 1, 1);
        cairo_t* c = cairo_create(s);
        cairo_surface_destroy(s);
        return c;
    }();
    cairo_set_font_face(cr, font(bold));
    cairo_set_font_size(cr, size);
    cairo_text_extents_t e;
    cairo_text_extents(cr, text.c_str(), &e);
    return e.x_advance;
}

}  // namespace orthema
