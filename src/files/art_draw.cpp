// What is asked of pictures without reading them: their kinds, and drawing what has been read.
#include <array>
#include <cmath>

#include "files/art_file.h"

namespace orthema {

namespace {

constexpr std::array<const char*, 9> kind_keys = {"png", "jpeg", "tiff", "webp", "heic", "svg", "pdf", "ttf", "otf"};

/// To be painted from, never on to; the caller destroys it and keeps the image.
cairo_surface_t* surface_over(const ScreenImage& image) {
    auto* pixels = reinterpret_cast<unsigned char*>(const_cast<std::uint32_t*>(image.pixels.data()));
    return cairo_image_surface_create_for_data(pixels, CAIRO_FORMAT_ARGB32, image.width, image.height, image.width * 4);
}

}  // namespace

const char* kind_key(ArtKind kind) { return kind_keys[static_cast<std::size_t>(kind)]; }

std::optional<ArtKind> kind_from_key(const std::string& key) {
    for (std::size_t i = 0; i < kind_keys.size(); ++i)
        if (key == kind_keys[i]) return static_cast<ArtKind>(i);
    return std::nullopt;
}

std::optional<ArtKind> kind_of(const std::string& b) {
    if (b.rfind("\x89PNG", 0) == 0) return ArtKind::png;
    if (b.rfind("\xff\xd8\xff", 0) == 0) return ArtKind::jpeg;
    if (b.rfind(std::string("II*\0", 4), 0) == 0 || b.rfind(std::string("MM\0*", 4), 0) == 0) return ArtKind::tiff;
    if (b.rfind("RIFF", 0) == 0 && b.size() > 12 && b.compare(8, 4, "WEBP") == 0) return ArtKind::webp;
    if (b.size() > 12 && b.compare(4, 4, "ftyp") == 0)
        for (const char* brand : {"heic", "heix", "heim", "heis", "mif1"})
            if (b.compare(8, 4, brand) == 0) return ArtKind::heic;
    if (b.rfind("%PDF", 0) == 0) return ArtKind::pdf;
    if (b.rfind(std::string("\0\1\0\0", 4), 0) == 0 || b.rfind("true", 0) == 0) return ArtKind::ttf;
    if (b.rfind("OTTO", 0) == 0) return ArtKind::otf;
    if (b.substr(0, 4096).find("<svg") != std::string::npos) return ArtKind::svg;
    return std::nullopt;
}

void LoadedArt::draw(cairo_t* cr) const {
    if (screen.empty()) return;
    const ScreenImage& image = screen.front();
    cairo_surface_t* surface = surface_over(image);
    cairo_save(cr);
    cairo_translate(cr, facts.ink_px.x0, facts.ink_px.y0);
    cairo_scale(cr, facts.ink_px.width() / image.width, facts.ink_px.height() / image.height);
    cairo_set_source_surface(cr, surface, 0, 0);
    cairo_paint(cr);
    cairo_restore(cr);
    cairo_surface_destroy(surface);
}

Error no_picture(const std::string& name) {
    return Error{"{name} is not a picture that can be used: bring in PNG, JPEG, TIFF, WebP, HEIC, SVG or PDF.", {{"name", name}}};
}

Error of_picture(const std::string& name, const Error& why) { return Error{"{name}: {why}.", {{"name", name}, {"why", why.said()}}}; }

cairo_surface_t* LoadedArt::reusable_surface() const {
    const cairo_rectangle_t extents{0, 0, static_cast<double>(facts.width_px), static_cast<double>(facts.height_px)};
    cairo_surface_t* surface = cairo_recording_surface_create(CAIRO_CONTENT_COLOR_ALPHA, &extents);
    cairo_t* cr = cairo_create(surface);
    draw(cr);
    cairo_destroy(cr);
    return surface;
}

Region letter_shapes(const std::string& word, bool bold) {
    constexpr double size = 1000;
    const Rect cap = bounds(filled(text_outlines("H", size, bold)));
    if (cap.height() <= 0) return {};
    return mapped(filled(text_outlines(word, size, bold)), Affine::scale(1 / cap.height(), 1 / cap.height()));
}

PrintArt::~PrintArt() {
    for (auto& [id, surface] : surfaces_) cairo_surface_destroy(surface);
}

void PrintArt::paint_art(cairo_t* cr, const std::string& art_id, double opacity) {
    const auto at = art_.find(art_id);
    if (at == art_.end() || at->second->facts.empty()) return;
    const LoadedArt& art = *at->second;
    const Rect& ink = art.facts.ink_px;
    cairo_scale(cr, 1 / ink.width(), 1 / ink.width());
    cairo_translate(cr, -ink.x0, -ink.y0);
    if (!stored_once_) {
        art.draw(cr);
        return;
    }
    cairo_surface_t*& surface = surfaces_[art_id];
    if (surface == nullptr) surface = art.reusable_surface();
    cairo_set_source_surface(cr, surface, 0, 0);
    cairo_pattern_set_filter(cairo_get_source(cr), CAIRO_FILTER_GOOD);
    cairo_paint_with_alpha(cr, opacity);  // paints as without alpha when there is none
}

void map_shapes(std::vector<FlatShape>& shapes, const Affine& by) {
    const auto map = [&](FlatShape::Area& area) {
        for (Ring& ring : area.rings) ring = mapped(ring, by);
    };
    for (FlatShape& shape : shapes) {
        map(shape.area);
        for (FlatShape::Area& clip : shape.clips) map(clip);
    }
}

const std::vector<FlatShape>* PrintArt::flat_shapes(const std::string& art_id) {
    const auto at = art_.find(art_id);
    if (at == art_.end() || at->second->facts.empty()) return nullptr;
    const auto [kept, fresh] = shapes_.try_emplace(art_id);
    if (fresh) {
        const Rect& ink = at->second->facts.ink_px;
        kept->second = at->second->flat_shapes();
        if (kept->second) map_shapes(*kept->second, Affine::scale(1 / ink.width(), 1 / ink.width()).after(Affine::shift(-ink.x0, -ink.y0)));
    }
    return kept->second ? &*kept->second : nullptr;
}

void ScreenArt::paint_art(cairo_t* cr, const std::string& art_id, double opacity) {
    const auto at = art_.find(art_id);
    if (at == art_.end() || at->second->screen.empty()) return;
    const auto& levels = at->second->screen;
    double dx = 1, dy = 0;
    cairo_user_to_device_distance(cr, &dx, &dy);
    double device_x = 1, device_y = 1;
    cairo_surface_get_device_scale(cairo_get_target(cr), &device_x, &device_y);
    const double want = std::hypot(dx, dy) * device_x;
    std::size_t level = 0;
    while (level + 1 < levels.size() && levels[level + 1].width >= want) ++level;
    const ScreenImage& image = levels[level];
    cairo_surface_t* surface = surface_over(image);
    const double unit = 1.0 / image.width;
    cairo_scale(cr, unit, at->second->facts.aspect / image.height);
    cairo_set_source_surface(cr, surface, 0, 0);
    cairo_pattern_set_filter(cairo_get_source(cr), CAIRO_FILTER_BILINEAR);
    cairo_paint_with_alpha(cr, opacity);  // paints as without alpha when there is none
    cairo_surface_destroy(surface);
}

}  // namespace orthema
