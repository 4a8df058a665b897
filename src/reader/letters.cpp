// Words in a typeface, shaped: kerning, ligatures and writing direction are the face's own. Method: HarfBuzz, which reads a face's
// outlines too.
#include <glib.h>
#include <hb-ot.h>
#include <hb.h>

#include <cmath>
#include <map>
#include <memory>

#include "core/base/utf8.h"
#include "reader/reader.h"

namespace orthema::reader {

namespace {

constexpr std::size_t most_letters = 400;  ///< of one word
constexpr int curve_steps = 10;

template <auto destroy>
struct Destroy {
    template <class T>
    void operator()(T* t) const {
        destroy(t);
    }
};
using Blob = std::unique_ptr<hb_blob_t, Destroy<hb_blob_destroy>>;
using Face = std::unique_ptr<hb_face_t, Destroy<hb_face_destroy>>;
using Font = std::unique_ptr<hb_font_t, Destroy<hb_font_destroy>>;
using Buffer = std::unique_ptr<hb_buffer_t, Destroy<hb_buffer_destroy>>;
using Draw = std::unique_ptr<hb_draw_funcs_t, Destroy<hb_draw_funcs_destroy>>;

/// A glyph's rings while they are drawn, in the face's units.
struct Rings {
    std::vector<Ring> done;
    Ring now;
    Point pen;
    void end() {
        if (now.size() > 2) done.push_back(std::move(now));
        now.clear();
    }
};

Rings& rings_in(void* data) { return *static_cast<Rings*>(data); }

Draw draw_funcs() {
    Draw d(hb_draw_funcs_create());
    hb_draw_funcs_set_move_to_func(
        d.get(),
        [](hb_draw_funcs_t*, void* data, hb_draw_state_t*, float x, float y, void*) {
            Rings& r = rings_in(data);
            r.end();
            r.now.push_back(r.pen = {x, y});
        },
        nullptr, nullptr);
    hb_draw_funcs_set_line_to_func(
        d.get(),
        [](hb_draw_funcs_t*, void* data, hb_draw_state_t*, float x, float y, void*) {
            rings_in(data).now.push_back(rings_in(data).pen = {x, y});
        },
        nullptr, nullptr);
    hb_draw_funcs_set_cubic_to_func(
        d.get(),
        [](hb_draw_funcs_t*, void* data, hb_draw_state_t*, float ax, float ay, float bx, float by, float x, float y, void*) {
            Rings& r = rings_in(data);
            curve_to(r.now, {ax, ay}, {bx, by}, {x, y}, curve_steps);
            r.pen = {x, y};
        },
        nullptr, nullptr);
    hb_draw_funcs_set_quadratic_to_func(
        d.get(),
        [](hb_draw_funcs_t*, void* data, hb_draw_state_t*, float cx, float cy, float x, float y, void*) {
            Rings& r = rings_in(data);
            const Point c{cx, cy}, to{x, y};
            curve_to(r.now, r.pen + (c - r.pen) * (2.0 / 3), to + (c - to) * (2.0 / 3), to, curve_steps);
            r.pen = to;
        },
        nullptr, nullptr);
    hb_draw_funcs_set_close_path_func(
        d.get(), [](hb_draw_funcs_t*, void* data, hb_draw_state_t*, void*) { rings_in(data).end(); }, nullptr, nullptr);
    hb_draw_funcs_make_immutable(d.get());
    return d;
}

/// Rings that go the way of most are ink, the others holes; those of a glyph that overlap stay ink.
Region wound(const std::vector<Ring>& rings, double unit) {
    std::vector<const Ring*> largest_first;
    double all = 0;  // of which way round ink lies: faces differ
    for (const Ring& ring : rings) {
        largest_first.push_back(&ring);
        all += signed_area(ring);
    }
    std::sort(largest_first.begin(), largest_first.end(),
              [](const Ring* a, const Ring* b) { return std::abs(signed_area(*a)) > std::abs(signed_area(*b)); });
    Region out;
    for (const Ring* ring : largest_first)
        out = signed_area(*ring) * all > 0 ? unite(out, filled({*ring})) : subtract(out, filled({*ring}));
    return mapped(out, Affine::scale(1 / unit, -1 / unit));
}

std::string upper(const std::string& text) {
    const std::unique_ptr<char, Destroy<g_free>> up(g_utf8_strup(text.c_str(), static_cast<gssize>(text.size())));
    return up ? std::string(up.get()) : text;
}

/// Outlines of glyphs that were drawn before: a roster has each letter many times.
using Known = std::map<hb_codepoint_t, Region>;

ShapedWord shaped(hb_font_t* font, hb_draw_funcs_t* draw, const std::string& text, double capital, Known& known) {
    ShapedWord out;
    const Buffer buffer(hb_buffer_create());
    hb_buffer_add_utf8(buffer.get(), text.data(), static_cast<int>(text.size()), 0, static_cast<int>(text.size()));
    hb_buffer_guess_segment_properties(buffer.get());
    hb_shape(font, buffer.get(), nullptr, 0);
    unsigned int count = 0;
    const hb_glyph_info_t* info = hb_buffer_get_glyph_infos(buffer.get(), &count);
    const hb_glyph_position_t* place = hb_buffer_get_glyph_positions(buffer.get(), &count);
    double pen = 0;
    for (unsigned int i = 0; i < count && i < most_letters; ++i) {
        if (info[i].codepoint == 0) {  // the face's own sign for what it lacks
            const char* from = text.data() + std::min<std::size_t>(info[i].cluster, text.size());
            const char* next = from < text.data() + text.size() ? g_utf8_next_char(from) : from;
            out.missing.emplace_back(from, static_cast<std::size_t>(std::min(next, text.data() + text.size()) - from));
            continue;
        }
        const auto [outline, fresh] = known.try_emplace(info[i].codepoint);
        if (fresh) {
            Rings rings;
            hb_font_get_glyph_shape(font, info[i].codepoint, draw, &rings);
            rings.end();
            outline->second = wound(rings.done, capital);
        }
        ShapedLetter letter;
        letter.outline = mapped(outline->second, Affine::shift(0, -place[i].y_offset / capital));
        letter.at = (pen + place[i].x_offset) / capital;
        letter.advance = place[i].x_advance / capital;
        pen += place[i].x_advance;
        out.letters.push_back(std::move(letter));
    }
    return out;
}

}  // namespace

Result<std::vector<ShapedWord>> shape(const std::string& bytes, const std::string& name, const std::vector<std::string>& words,
                                      bool capitals) {
    const Blob blob(hb_blob_create(bytes.data(), static_cast<unsigned int>(bytes.size()), HB_MEMORY_MODE_READONLY, nullptr, nullptr));
    const Face face(hb_face_create(blob.get(), 0));
    if (hb_face_get_glyph_count(face.get()) == 0 || hb_face_get_upem(face.get()) == 0)
        return Error{"{name} is not a typeface that can be used: bring in a whole TTF or OTF file.", {{"name", name}}};
    const Font font(hb_font_create(face.get()));
    const Draw draw = draw_funcs();
    hb_position_t tall = 0;
    hb_ot_metrics_get_position(font.get(), HB_OT_METRICS_TAG_CAP_HEIGHT, &tall);
    hb_codepoint_t glyph = 0;
    hb_glyph_extents_t extents{};
    for (const char c : {'H', '0'})  // what stands there counts, not what the file says of itself
        if (hb_font_get_nominal_glyph(font.get(), static_cast<hb_codepoint_t>(c), &glyph) != 0 &&
            hb_font_get_glyph_extents(font.get(), glyph, &extents) != 0 && extents.y_bearing > 0) {
            tall = extents.y_bearing;
            break;
        }
    if (tall <= 0) tall = static_cast<hb_position_t>(hb_face_get_upem(face.get()) * 0.7);
    std::vector<ShapedWord> out;
    out.reserve(words.size());
    Known known;
    for (const std::string& word : words) {
        const std::string text = whole_utf8(word);
        out.push_back(shaped(font.get(), draw.get(), capitals ? upper(text) : text, tall, known));
    }
    return out;
}

}  // namespace orthema::reader
