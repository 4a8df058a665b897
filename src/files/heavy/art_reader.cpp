#include "files/heavy/heavy.h"

#include <fontconfig/fontconfig.h>
#include <librsvg/rsvg.h>
#include <poppler.h>

#include <array>
#include <cmath>
#include <cstring>
#include <mutex>
#include <set>

#include "files/art_pixels.h"
#include "files/heavy/flat_shapes.h"
#include "files/heavy/pixels.h"
#include "core/base/utf8.h"

namespace orthema {

namespace {

constexpr double vector_side = 2048;  ///< pixels along the longer side when vector art is looked at

}  // namespace

namespace {

struct Vector {
    RsvgHandle* svg = nullptr;
    PopplerDocument* document = nullptr;
    PopplerPage* page = nullptr;
    double scale = 1;  ///< from the page's points to canvas pixels
    ~Vector() {
        if (svg != nullptr) g_object_unref(svg);
        if (page != nullptr) g_object_unref(page);
        if (document != nullptr) g_object_unref(document);
    }
};

/// A picture with what its library needs to draw it.
class FileArt final : public LoadedArt {
public:
    FileArt() = default;
    ~FileArt() override {
        if (raster != nullptr) cairo_surface_destroy(raster);
    }
    FileArt(const FileArt&) = delete;
    FileArt& operator=(const FileArt&) = delete;
    void draw(cairo_t* cr) const override;
    [[nodiscard]] cairo_surface_t* reusable_surface() const override;
    [[nodiscard]] std::optional<std::vector<FlatShape>> flat_shapes() const override {
        if (!vector) return std::nullopt;
        return flat_shapes_of(facts.width_px, facts.height_px, [this](cairo_t* cr) { draw(cr); });
    }

    std::unique_ptr<Vector> vector;
    Bytes bytes;
    cairo_surface_t* raster = nullptr;
    std::vector<std::uint32_t> raster_pixels;

private:
    mutable std::mutex guard_;  ///< librsvg and poppler draw one at a time
};

}  // namespace

void FileArt::draw(cairo_t* cr) const {
    const std::scoped_lock lock(guard_);
    cairo_save(cr);
    if (raster != nullptr) {
        cairo_set_source_surface(cr, raster, 0, 0);
        cairo_pattern_set_filter(cairo_get_source(cr), CAIRO_FILTER_GOOD);
        cairo_paint(cr);
    } else if (vector && vector->svg != nullptr) {
        const RsvgRectangle view{0, 0, static_cast<double>(facts.width_px), static_cast<double>(facts.height_px)};
        rsvg_handle_render_document(vector->svg, cr, &view, nullptr);
    } else if (vector && vector->page != nullptr) {
        cairo_scale(cr, vector->scale, vector->scale);
        poppler_page_render(vector->page, cr);
    }
    cairo_restore(cr);
}

cairo_surface_t* FileArt::reusable_surface() const {
    if (raster != nullptr) {
        if (kind == ArtKind::jpeg) {  // the PDF keeps the JPEG's own bytes
            auto* held = new Bytes(bytes);
            cairo_surface_set_mime_data(
                raster, CAIRO_MIME_TYPE_JPEG, reinterpret_cast<const unsigned char*>(bytes->data()), bytes->size(),
                [](void* p) { delete static_cast<Bytes*>(p); }, held);
        }
        return cairo_surface_reference(raster);
    }
    return LoadedArt::reusable_surface();
}

namespace {

/// Font families that an SVG asks for by name and that this machine does not have.
std::vector<std::string> missing_fonts(const std::string& svg) {
    constexpr std::size_t longest = 200, most = 100;  // no family's name is longer, no picture needs more
    std::set<std::string> asked;
    if (svg.find("<text") == std::string::npos) return {};
    static const std::string key = "font-family";
    const auto space = [&](std::size_t at) { return at < svg.size() && std::isspace(static_cast<unsigned char>(svg[at])) != 0; };
    for (std::size_t at = svg.find(key); at != std::string::npos && asked.size() < most; at = svg.find(key, at)) {
        at += key.size();
        while (space(at)) ++at;
        if (at >= svg.size() || (svg[at] != ':' && svg[at] != '=')) continue;
        ++at;
        while (space(at)) ++at;
        if (at < svg.size() && (svg[at] == '"' || svg[at] == '\'')) ++at;
        while (space(at)) ++at;
        const std::size_t end = std::min(svg.find_first_of(";\"'>,", at), svg.size());
        std::string name = svg.substr(at, std::min(end - at, longest));
        at = end;
        while (!name.empty() && std::isspace(static_cast<unsigned char>(name.back())) != 0) name.pop_back();
        static const std::set<std::string> generic = {"serif", "sans-serif", "monospace", "cursive", "fantasy", "inherit"};
        if (!name.empty() && !generic.contains(name)) asked.insert(whole_utf8(name));
    }
    std::vector<std::string> missing;
    for (const std::string& name : asked) {
        FcPattern* pattern = FcPatternCreate();
        FcPatternAddString(pattern, FC_FAMILY, reinterpret_cast<const FcChar8*>(name.c_str()));
        FcObjectSet* objects = FcObjectSetBuild(FC_FAMILY, nullptr);
        FcFontSet* found = FcFontList(nullptr, pattern, objects);
        if (found == nullptr || found->nfont == 0) missing.push_back(name);
        if (found != nullptr) FcFontSetDestroy(found);
        FcObjectSetDestroy(objects);
        FcPatternDestroy(pattern);
    }
    return missing;
}

/// What was found in the pictures that were looked at last, by their content: an order that is opened again, or a picture that
/// comes in twice, is not looked at twice. Looking is two thirds of what opening takes.
class Known {
public:
    std::optional<ArtFacts> find(const std::string& hash) {
        const std::scoped_lock lock(guard_);
        const auto it = std::find_if(seen_.begin(), seen_.end(), [&](const auto& s) { return s.first == hash; });
        if (it == seen_.end()) return std::nullopt;
        std::rotate(seen_.begin(), it, it + 1);
        return seen_.front().second;
    }
    void keep(const std::string& hash, const ArtFacts& facts) {
        const std::scoped_lock lock(guard_);
        seen_.insert(seen_.begin(), {hash, facts});
        if (seen_.size() > most) seen_.pop_back();
    }

private:
    static constexpr std::size_t most = 64;
    std::mutex guard_;
    std::vector<std::pair<std::string, ArtFacts>> seen_;
};

Known& known() {
    static Known all;
    return all;
}

std::uint32_t premultiplied(const std::uint8_t* p) {
    const std::uint32_t a = p[3];
    const auto mul = [a](std::uint32_t c) { return (c * a + 127) / 255; };
    return a << 24 | mul(p[0]) << 16 | mul(p[1]) << 8 | mul(p[2]);
}

}  // namespace

Result<LoadedArtPtr> heavy::load_art(const Bytes& bytes, const std::string& name) {
    if (!bytes || bytes->empty()) return Error{name + " is empty."};
    const auto kind = kind_of(*bytes);
    if (!kind) return Error{name + " is not a picture that can be used: bring in PNG, JPEG, TIFF, WebP, SVG or PDF."};
    auto art = std::make_shared<FileArt>();
    art->kind = *kind;
    art->bytes = bytes;
    art->hash = content_hash(*bytes);
    const bool is_vector = *kind == ArtKind::svg || *kind == ArtKind::pdf;
    const std::optional<ArtFacts> before = known().find(art->hash);
    std::vector<std::uint8_t> rgba;
    if (!is_vector) {
        auto pixels = decode_pixels(*kind, *bytes, name);
        if (!pixels) return pixels.error();
        art->facts.width_px = pixels->width;
        art->facts.height_px = pixels->height;
        rgba = std::move(pixels->rgba);
        art->raster_pixels.resize(rgba.size() / 4);
        for (std::size_t i = 0; i < art->raster_pixels.size(); ++i) art->raster_pixels[i] = premultiplied(&rgba[i * 4]);
        art->raster = image_over(art->raster_pixels, pixels->width, pixels->height);
    } else {
        art->vector = std::make_unique<Vector>();
        Vector& v = *art->vector;
        double w = 0, h = 0;
        GError* error = nullptr;
        if (*kind == ArtKind::svg) {
            if (bytes->size() > 50'000'000) return Error{name + " is over 50 MB of drawing: simplify it."};
            v.svg = rsvg_handle_new_from_data(reinterpret_cast<const guint8*>(bytes->data()), bytes->size(), &error);
            if (v.svg == nullptr) {
                g_clear_error(&error);
                return Error{name + " is not a whole SVG drawing: it may be cut short; export it again."};
            }
            if (rsvg_handle_get_intrinsic_size_in_pixels(v.svg, &w, &h) == 0) {
                gboolean has_w = 0, has_h = 0, has_box = 0;
                RsvgLength lw, lh;
                RsvgRectangle box{0, 0, 0, 0};
                rsvg_handle_get_intrinsic_dimensions(v.svg, &has_w, &lw, &has_h, &lh, &has_box, &box);
                w = has_box != 0 ? box.width : 512;
                h = has_box != 0 ? box.height : 512;
            }
            art->facts.missing_fonts = missing_fonts(*bytes);
        } else {
            GBytes* held = g_bytes_new(bytes->data(), bytes->size());
            v.document = poppler_document_new_from_bytes(held, nullptr, &error);
            g_bytes_unref(held);
            if (v.document == nullptr || poppler_document_get_n_pages(v.document) < 1) {
                g_clear_error(&error);
                return Error{name + " is not a whole PDF, or is locked: export it again without a password."};
            }
            v.page = poppler_document_get_page(v.document, 0);
            poppler_page_get_size(v.page, &w, &h);
        }
        if (!(w > 0) || !(h > 0) || !(w < 1e7) || !(h < 1e7) || w / h > 500 || h / w > 500)
            return Error{name + " has an absurd size: give its page or view box a usual one."};
        v.scale = vector_side / std::max(w, h);
        art->facts.width_px = std::max(1, static_cast<int>(std::lround(w * v.scale)));
        art->facts.height_px = std::max(1, static_cast<int>(std::lround(h * v.scale)));
        if (before) {
            art->facts = *before;
            art->screen = screen_levels(*art);
            return LoadedArtPtr(std::move(art));
        }
        std::vector<std::uint32_t> canvas(static_cast<std::size_t>(art->facts.width_px) * static_cast<std::size_t>(art->facts.height_px));
        cairo_surface_t* surface = image_over(canvas, art->facts.width_px, art->facts.height_px);
        cairo_t* cr = cairo_create(surface);
        art->draw(cr);
        cairo_destroy(cr);
        cairo_surface_destroy(surface);
        rgba = straight(canvas);
    }
    if (before) {
        art->facts = *before;
    } else {
        const auto missing = art->facts.missing_fonts;
        art->facts = look_at({rgba.data(), art->facts.width_px, art->facts.height_px}, is_vector);
        art->facts.missing_fonts = missing;
        known().keep(art->hash, art->facts);
    }
    art->screen = screen_levels(*art);
    return LoadedArtPtr(std::move(art));
}
}  // namespace orthema
