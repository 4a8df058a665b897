#include <fontconfig/fontconfig.h>
#include <librsvg/rsvg.h>
#include <poppler.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstring>
#include <list>
#include <mutex>
#include <set>
#include <stdexcept>

#include "core/base/utf8.h"
#include "files/art_pixels.h"
#include "reader/flat_shapes.h"
#include "reader/pixels.h"
#include "reader/reader.h"

namespace orthema::reader {

namespace {

constexpr double vector_side = 2048;              ///< pixels along the longer side when vector art is looked at
constexpr std::size_t most_decoded = 512u << 20;  ///< bytes of pixels that lie in memory between two drawings

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

/// Premultiplied pixels as cairo has them, over the bytes that were decoded.
struct Raster {
    std::vector<std::uint8_t> bytes;
    cairo_surface_t* surface = nullptr;
    Raster(std::vector<std::uint8_t> rgba, int width, int height) : bytes(std::move(rgba)) {
        for (std::size_t i = 0; i + 3 < bytes.size(); i += 4) {
            const std::uint32_t alpha = bytes[i + 3];
            const auto mul = [alpha](std::uint32_t c) { return (c * alpha + 127) / 255; };
            const std::uint32_t word = alpha << 24 | mul(bytes[i]) << 16 | mul(bytes[i + 1]) << 8 | mul(bytes[i + 2]);
            std::memcpy(&bytes[i], &word, 4);
        }
        surface = cairo_image_surface_create_for_data(bytes.data(), CAIRO_FORMAT_ARGB32, width, height, width * 4);
    }
    ~Raster() { cairo_surface_destroy(surface); }
    Raster(const Raster&) = delete;
    Raster& operator=(const Raster&) = delete;
};

class FileArt;

/// Which pictures are decoded, those drawn last in front; what does not fit is decoded again when it is wanted.
class Decoded {
public:
    void touch(const FileArt* art, std::size_t size);
    void gone(const FileArt* art) {
        const std::scoped_lock lock(guard_);
        forget(art);
    }

private:
    void forget(const FileArt* art) {
        for (auto it = held_.begin(); it != held_.end(); ++it)
            if (it->first == art) {
                total_ -= it->second;
                held_.erase(it);
                return;
            }
    }
    std::mutex guard_;
    std::list<std::pair<const FileArt*, std::size_t>> held_;
    std::size_t total_ = 0;
};

Decoded& decoded() {
    static auto* all = new Decoded;  // outlives every picture
    return *all;
}

/// A picture with what its library needs to draw it.
class FileArt final : public LoadedArt {
public:
    FileArt() = default;
    ~FileArt() override { decoded().gone(this); }
    FileArt(const FileArt&) = delete;
    FileArt& operator=(const FileArt&) = delete;
    void draw(cairo_t* cr) const override;
    [[nodiscard]] cairo_surface_t* reusable_surface() const override;
    [[nodiscard]] std::optional<std::vector<FlatShape>> flat_shapes() const override {
        if (!is_vector()) return std::nullopt;
        return flat_shapes_of(facts.width_px, facts.height_px, [this](cairo_t* cr) { draw(cr); });
    }
    [[nodiscard]] bool is_vector() const { return kind == ArtKind::svg || kind == ArtKind::pdf; }
    /// Lets its pixels go if nobody draws them.
    bool let_go() const {
        const std::unique_lock lock(guard_, std::try_to_lock);
        if (lock.owns_lock()) raster_ = nullptr;
        return lock.owns_lock();
    }
    void hold(std::shared_ptr<Raster> raster) const { raster_ = std::move(raster); }

    mutable std::unique_ptr<Vector> vector;
    mutable bool turned = false;  ///< not as the file's pixels lie

private:
    [[nodiscard]] std::shared_ptr<Raster> raster() const;
    mutable std::mutex guard_;  ///< librsvg and poppler draw one at a time
    mutable std::shared_ptr<Raster> raster_;
};

void Decoded::touch(const FileArt* art, std::size_t size) {
    const std::scoped_lock lock(guard_);
    forget(art);
    held_.emplace_front(art, size);
    total_ += size;
    while (total_ > most_decoded && held_.size() > 1) {
        if (!held_.back().first->let_go()) return;
        total_ -= held_.back().second;
        held_.pop_back();
    }
}

Result<std::unique_ptr<Vector>> open_vector(ArtKind kind, const std::string& bytes, const std::string& name, double& w, double& h) {
    auto v = std::make_unique<Vector>();
    GError* error = nullptr;
    if (kind == ArtKind::svg) {
        if (bytes.size() > 50'000'000) return Error{"{name} is over 50 MB of drawing: simplify it.", {{"name", name}}};
        v->svg = rsvg_handle_new_from_data(reinterpret_cast<const guint8*>(bytes.data()), bytes.size(), &error);
        if (v->svg == nullptr) {
            g_clear_error(&error);
            return Error{"{name} is not a whole SVG drawing: it may be cut short; export it again.", {{"name", name}}};
        }
        if (rsvg_handle_get_intrinsic_size_in_pixels(v->svg, &w, &h) == 0) {
            gboolean has_w = 0, has_h = 0, has_box = 0;
            RsvgLength lw, lh;
            RsvgRectangle box{0, 0, 0, 0};
            rsvg_handle_get_intrinsic_dimensions(v->svg, &has_w, &lw, &has_h, &lh, &has_box, &box);
            w = has_box != 0 ? box.width : 512;
            h = has_box != 0 ? box.height : 512;
        }
    } else {
        GBytes* held = g_bytes_new_static(bytes.data(), bytes.size());  // the picture keeps them
        v->document = poppler_document_new_from_bytes(held, nullptr, &error);
        g_bytes_unref(held);
        if (v->document == nullptr || poppler_document_get_n_pages(v->document) < 1) {
            g_clear_error(&error);
            return Error{"{name} is not a whole PDF, or is locked: export it again without a password.", {{"name", name}}};
        }
        v->page = poppler_document_get_page(v->document, 0);
        if (v->page == nullptr) return Error{"{name} is not a whole PDF: export it again.", {{"name", name}}};
        poppler_page_get_size(v->page, &w, &h);
    }
    if (!(w > 0) || !(h > 0) || !(w < 1e7) || !(h < 1e7) || w / h > 500 || h / w > 500)
        return Error{"{name} has an absurd size: give its page or view box a usual one.", {{"name", name}}};
    v->scale = vector_side / std::max(w, h);
    return v;
}

std::shared_ptr<Raster> FileArt::raster() const {
    if (!raster_) {
        auto pixels = decode_pixels(kind, *bytes, "a picture");
        if (!pixels || pixels->width != facts.width_px || pixels->height != facts.height_px)
            throw std::runtime_error("a picture is no longer what it was");
        turned = pixels->turned;
        raster_ = std::make_shared<Raster>(std::move(pixels->rgba), pixels->width, pixels->height);
    }
    return raster_;
}

void FileArt::draw(cairo_t* cr) const {
    const std::scoped_lock lock(guard_);
    cairo_save(cr);
    if (!is_vector()) {
        const auto held = raster();
        cairo_set_source_surface(cr, held->surface, 0, 0);
        cairo_pattern_set_filter(cairo_get_source(cr), CAIRO_FILTER_GOOD);
        cairo_paint(cr);
        decoded().touch(this, held->bytes.size());
    } else {
        double w = 0, h = 0;
        if (!vector)
            if (auto opened = open_vector(kind, *bytes, "a picture", w, h)) vector = std::move(*opened);
        if (vector && vector->svg != nullptr) {
            const RsvgRectangle view{0, 0, static_cast<double>(facts.width_px), static_cast<double>(facts.height_px)};
            if (rsvg_handle_render_document(vector->svg, cr, &view, nullptr) == 0)
                throw std::runtime_error("a drawing has more parts than can be drawn");
        } else if (vector && vector->page != nullptr) {
            cairo_scale(cr, vector->scale, vector->scale);
            poppler_page_render(vector->page, cr);
        }
    }
    cairo_restore(cr);
}

cairo_surface_t* FileArt::reusable_surface() const {
    if (is_vector()) return LoadedArt::reusable_surface();
    const std::scoped_lock lock(guard_);
    const auto held = raster();
    // the pixels stay as long as the surface does
    cairo_surface_t* surface =
        cairo_image_surface_create_for_data(held->bytes.data(), CAIRO_FORMAT_ARGB32, facts.width_px, facts.height_px, facts.width_px * 4);
    static const cairo_user_data_key_t key{};
    cairo_surface_set_user_data(surface, &key, new std::shared_ptr<Raster>(held),
                                [](void* p) { delete static_cast<std::shared_ptr<Raster>*>(p); });
    if (kind == ArtKind::jpeg && !turned) {  // the PDF keeps the JPEG's own bytes
        auto* file = new Bytes(bytes);
        cairo_surface_set_mime_data(
            surface, CAIRO_MIME_TYPE_JPEG, reinterpret_cast<const unsigned char*>(bytes->data()), bytes->size(),
            [](void* p) { delete static_cast<Bytes*>(p); }, file);
    }
    return surface;
}

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

}  // namespace

Result<LoadedArtPtr> look(const Bytes& bytes, const std::string& name, std::optional<Pixels> known) {
    const auto kind = kind_of(*bytes);
    if (!kind) return no_picture(name);
    auto art = std::make_shared<FileArt>();
    art->kind = *kind;
    art->bytes = bytes;
    if (!art->is_vector()) {
        auto pixels = known ? Result<Pixels>(std::move(*known)) : decode_pixels(*kind, *bytes, name);
        if (!pixels) return pixels.error();
        art->facts = look_at({pixels->rgba.data(), pixels->width, pixels->height}, false);
        art->turned = pixels->turned;
        art->hold(std::make_shared<Raster>(std::move(pixels->rgba), pixels->width, pixels->height));
    } else {
        double w = 0, h = 0;
        auto opened = open_vector(*kind, *bytes, name, w, h);
        if (!opened) return opened.error();
        art->vector = std::move(*opened);
        art->facts.width_px = std::max(1, static_cast<int>(std::lround(w * art->vector->scale)));
        art->facts.height_px = std::max(1, static_cast<int>(std::lround(h * art->vector->scale)));
        const int width = art->facts.width_px, height = art->facts.height_px;
        const auto rgba = drawn_pixels(*art, width, height);
        art->facts = look_at({rgba.data(), width, height}, true);
        if (*kind == ArtKind::svg) art->facts.missing_fonts = missing_fonts(*bytes);
    }
    art->screen = screen_levels(*art);
    (void)art->let_go();  // the answer needs room, and a page may never ask for them
    return LoadedArtPtr(std::move(art));
}

LoadedArtPtr drawable(const Bytes& bytes, const std::string& hash, ArtFacts facts) {
    auto art = std::make_shared<FileArt>();
    art->kind = kind_of(*bytes).value_or(ArtKind::png);
    art->bytes = bytes;
    art->hash = hash;
    art->facts = std::move(facts);
    return art;
}

}  // namespace orthema::reader
