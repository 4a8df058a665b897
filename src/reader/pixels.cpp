#include "reader/pixels.h"

#include "reader/colour_profile.h"

#include <csetjmp>
#include <cstdio>
#include <cstring>

#include <memory>

#include <jpeglib.h>
#include <libheif/heif.h>
#include <png.h>
#include <tiffio.h>
#include <webp/decode.h>

namespace orthema::reader {

namespace {

std::optional<Error> size_fault(long width, long height, const std::string& name) {
    if (width <= 0 || height <= 0) return Error{"{name} has no pixels: it may be damaged; export it again.", {{"name", name}}};
    if (width > longest_side || height > longest_side || width * height > most_pixels)
        return Error{"{name} is {width} × {height} pixels, more than can be used (30,000 a side, 120 million in all): export it smaller.",
                     {{"name", name}, {"width", std::to_string(width)}, {"height", std::to_string(height)}}};
    return std::nullopt;
}

Error damaged(const std::string& name, const std::string& kind) {
    return Error{"{name} is not a whole {kind} picture: it may be cut short or damaged; export it again.",
                 {{"name", name}, {"kind", kind}}};
}

Result<Pixels> from_png(const std::string& bytes, const std::string& name) {
    png_image image;
    std::memset(&image, 0, sizeof image);
    image.version = PNG_IMAGE_VERSION;
    if (png_image_begin_read_from_memory(&image, bytes.data(), bytes.size()) == 0) return damaged(name, "PNG");
    if (auto fault = size_fault(image.width, image.height, name)) {
        png_image_free(&image);
        return *fault;
    }
    image.format = PNG_FORMAT_RGBA;
    Pixels out{static_cast<int>(image.width), static_cast<int>(image.height), {}};
    out.rgba.resize(PNG_IMAGE_SIZE(image));
    if (png_image_finish_read(&image, nullptr, out.rgba.data(), 0, nullptr) == 0) {
        png_image_free(&image);
        return damaged(name, "PNG");
    }
    return out;
}

struct JpegFault {
    jpeg_error_mgr base;
    jmp_buf back;
    bool warned;
};

Result<Pixels> from_jpeg(const std::string& bytes, const std::string& name) {
    jpeg_decompress_struct in;
    JpegFault fault;
    in.err = jpeg_std_error(&fault.base);
    fault.warned = false;
    fault.base.error_exit = [](j_common_ptr c) { longjmp(reinterpret_cast<JpegFault*>(c->err)->back, 1); };
    fault.base.emit_message = [](j_common_ptr c, int level) {
        if (level < 0) reinterpret_cast<JpegFault*>(c->err)->warned = true;
    };
    Pixels out;
    std::vector<std::uint8_t> row;
    if (setjmp(fault.back) != 0) {
        jpeg_destroy_decompress(&in);
        return damaged(name, "JPEG");
    }
    jpeg_create_decompress(&in);
    jpeg_mem_src(&in, reinterpret_cast<const unsigned char*>(bytes.data()), bytes.size());
    jpeg_read_header(&in, TRUE);
    if (auto too_big = size_fault(in.image_width, in.image_height, name)) {
        jpeg_destroy_decompress(&in);
        return *too_big;
    }
    const bool four = in.num_components == 4;
    in.out_color_space = four ? JCS_CMYK : JCS_RGB;
    jpeg_start_decompress(&in);
    out.width = static_cast<int>(in.output_width);
    out.height = static_cast<int>(in.output_height);
    out.rgba.resize(static_cast<std::size_t>(out.width) * static_cast<std::size_t>(out.height) * 4);
    row.resize(static_cast<std::size_t>(out.width) * 4);
    std::uint8_t* to = out.rgba.data();
    while (in.output_scanline < in.output_height) {
        JSAMPROW rows[1] = {row.data()};
        jpeg_read_scanlines(&in, rows, 1);
        const std::uint8_t* from = row.data();
        for (int x = 0; x < out.width; ++x, to += 4) {
            if (four) {
                std::memcpy(to, from, 4);
                from += 4;
            } else {
                std::memcpy(to, from, 3);
                from += 3;
                to[3] = 255;
            }
        }
    }
    jpeg_finish_decompress(&in);
    jpeg_destroy_decompress(&in);
    if (fault.warned) return damaged(name, "JPEG");
    if (four) {  // files in four inks are kept inverted by custom
        inks_to_srgb(out, embedded_profile(ArtKind::jpeg, bytes), true);
        out.turned = true;
    }
    return out;
}

struct TiffBytes {
    const std::string* bytes;
    toff_t at = 0;
};

Result<Pixels> from_tiff(const std::string& bytes, const std::string& name) {
    TIFFSetErrorHandler(nullptr);
    TIFFSetWarningHandler(nullptr);
    TiffBytes source{&bytes};
    TIFF* tiff = TIFFClientOpen(
        "memory", "rm", &source,
        [](thandle_t h, void* to, tmsize_t n) -> tmsize_t {
            auto* s = static_cast<TiffBytes*>(h);
            if (s->at >= s->bytes->size()) return 0;
            const auto got = std::min<std::size_t>(static_cast<std::size_t>(n), s->bytes->size() - s->at);
            std::memcpy(to, s->bytes->data() + s->at, got);
            s->at += got;
            return static_cast<tmsize_t>(got);
        },
        [](thandle_t, void*, tmsize_t) -> tmsize_t { return 0; },
        [](thandle_t h, toff_t off, int whence) -> toff_t {
            auto* s = static_cast<TiffBytes*>(h);
            if (whence == SEEK_SET)
                s->at = off;
            else if (whence == SEEK_CUR)
                s->at += off;
            else
                s->at = s->bytes->size() + off;
            return s->at;
        },
        [](thandle_t) -> int { return 0; }, [](thandle_t h) -> toff_t { return static_cast<TiffBytes*>(h)->bytes->size(); }, nullptr,
        nullptr);
    if (tiff == nullptr) return damaged(name, "TIFF");
    std::uint32_t w = 0, h = 0;
    TIFFGetField(tiff, TIFFTAG_IMAGEWIDTH, &w);
    TIFFGetField(tiff, TIFFTAG_IMAGELENGTH, &h);
    if (auto fault = size_fault(w, h, name)) {
        TIFFClose(tiff);
        return *fault;
    }
    std::string profile;
    std::uint32_t length = 0;
    void* icc = nullptr;
    if (TIFFGetField(tiff, TIFFTAG_ICCPROFILE, &length, &icc) != 0 && icc != nullptr && length <= most_profile)
        profile.assign(static_cast<const char*>(icc), length);
    std::uint16_t meaning = 0, samples = 0, bits = 0, planes = 0;
    TIFFGetFieldDefaulted(tiff, TIFFTAG_PHOTOMETRIC, &meaning);
    TIFFGetFieldDefaulted(tiff, TIFFTAG_SAMPLESPERPIXEL, &samples);
    TIFFGetFieldDefaulted(tiff, TIFFTAG_BITSPERSAMPLE, &bits);
    TIFFGetFieldDefaulted(tiff, TIFFTAG_PLANARCONFIG, &planes);
    const bool four =
        meaning == PHOTOMETRIC_SEPARATED && samples == 4 && bits == 8 && planes == PLANARCONFIG_CONTIG && TIFFIsTiled(tiff) == 0;
    std::uint16_t turn = ORIENTATION_TOPLEFT;
    TIFFGetFieldDefaulted(tiff, TIFFTAG_ORIENTATION, &turn);
    if (turn < 1 || turn > 8) turn = ORIENTATION_TOPLEFT;
    if (four) {
        Pixels out{static_cast<int>(w), static_cast<int>(h), {}};
        out.rgba.resize(static_cast<std::size_t>(w) * h * 4);
        bool sound = TIFFScanlineSize(tiff) == static_cast<tmsize_t>(w) * 4;
        for (std::uint32_t y = 0; sound && y < h; ++y)
            sound = TIFFReadScanline(tiff, &out.rgba[static_cast<std::size_t>(y) * w * 4], y) == 1;
        TIFFClose(tiff);
        if (!sound) return damaged(name, "TIFF");
        inks_to_srgb(out, profile, false);
        return upright(std::move(out), turn);
    }
    std::vector<std::uint32_t> raster(static_cast<std::size_t>(w) * h);
    // as it lies in the file: the library turns only half of the eight ways
    const bool whole = TIFFReadRGBAImageOriented(tiff, w, h, raster.data(), turn, 1) != 0;
    TIFFClose(tiff);
    if (!whole) return damaged(name, "TIFF");
    Pixels out{static_cast<int>(w), static_cast<int>(h), {}};
    out.rgba.resize(raster.size() * 4);
    for (std::size_t i = 0; i < raster.size(); ++i) {
        const std::uint32_t p = raster[i];
        const std::uint32_t a = TIFFGetA(p);
        std::uint8_t* to = &out.rgba[i * 4];
        // the library gives premultiplied colours
        const auto straight = [a](std::uint32_t c) { return static_cast<std::uint8_t>(a == 0 ? 0 : std::min(255u, c * 255 / a)); };
        to[0] = straight(TIFFGetR(p));
        to[1] = straight(TIFFGetG(p));
        to[2] = straight(TIFFGetB(p));
        to[3] = static_cast<std::uint8_t>(a);
    }
    to_srgb(out, profile);
    return upright(std::move(out), turn);
}

/// Turned by the library, as the file says.
Result<Pixels> from_heic(const std::string& bytes, const std::string& name) {
    const std::unique_ptr<heif_context, decltype(&heif_context_free)> context(heif_context_alloc(), &heif_context_free);
    heif_context_set_max_decoding_threads(context.get(), 2);
    heif_context_set_maximum_image_size_limit(context.get(), longest_side);
    if (heif_context_read_from_memory_without_copy(context.get(), bytes.data(), bytes.size(), nullptr).code != heif_error_Ok)
        return damaged(name, "HEIC");
    heif_image_handle* first = nullptr;
    if (heif_context_get_primary_image_handle(context.get(), &first).code != heif_error_Ok) return damaged(name, "HEIC");
    const std::unique_ptr<heif_image_handle, void (*)(heif_image_handle*)> handle(
        first, [](heif_image_handle* h) { heif_image_handle_release(h); });
    if (auto fault = size_fault(heif_image_handle_get_width(first), heif_image_handle_get_height(first), name)) return *fault;
    heif_image* decoded = nullptr;
    if (heif_decode_image(first, &decoded, heif_colorspace_RGB, heif_chroma_interleaved_RGBA, nullptr).code != heif_error_Ok)
        return damaged(name, "HEIC");
    const std::unique_ptr<heif_image, void (*)(heif_image*)> image(decoded, [](heif_image* i) { heif_image_release(i); });
    int stride = 0;
    const std::uint8_t* from = heif_image_get_plane_readonly(decoded, heif_channel_interleaved, &stride);
    Pixels out{heif_image_get_primary_width(decoded), heif_image_get_primary_height(decoded), {}};
    if (from == nullptr || stride < 4 * out.width || size_fault(out.width, out.height, name)) return damaged(name, "HEIC");
    out.rgba.resize(static_cast<std::size_t>(out.width) * static_cast<std::size_t>(out.height) * 4);
    for (int y = 0; y < out.height; ++y)
        std::memcpy(&out.rgba[static_cast<std::size_t>(y) * static_cast<std::size_t>(out.width) * 4],
                    from + static_cast<std::ptrdiff_t>(y) * stride, static_cast<std::size_t>(out.width) * 4);
    const std::size_t length = heif_image_handle_get_raw_color_profile_size(first);
    if (length > 0 && length <= most_profile) {
        std::string profile(length, '\0');
        if (heif_image_handle_get_raw_color_profile(first, profile.data()).code == heif_error_Ok) to_srgb(out, profile);
    }
    return out;
}

Result<Pixels> from_webp(const std::string& bytes, const std::string& name) {
    int w = 0, h = 0;
    const auto* data = reinterpret_cast<const std::uint8_t*>(bytes.data());
    if (WebPGetInfo(data, bytes.size(), &w, &h) == 0) return damaged(name, "WebP");
    if (auto fault = size_fault(w, h, name)) return *fault;
    Pixels out{w, h, {}};
    out.rgba.resize(static_cast<std::size_t>(w) * static_cast<std::size_t>(h) * 4);
    if (WebPDecodeRGBAInto(data, bytes.size(), out.rgba.data(), out.rgba.size(), w * 4) == nullptr) return damaged(name, "WebP");
    return out;
}

}  // namespace

namespace {

/// A number of up to four bytes; 0 where they are not there.
std::uint32_t number_at(std::string_view b, std::size_t at, std::size_t bytes, bool little) {
    if (at > b.size() || bytes > b.size() - at) return 0;
    std::uint32_t v = 0;
    for (std::size_t k = 0; k < bytes; ++k) v = v << 8 | static_cast<std::uint8_t>(b[little ? at + bytes - 1 - k : at + k]);
    return v;
}

/// A value of the block's directory, or of the directory that one of its entries leads to; 0 where it is not there.
std::uint32_t exif_value(std::string_view b, std::uint32_t tag, std::uint32_t within = 0) {
    const bool little = b.substr(0, 4) == std::string_view("II*\0", 4), big = b.substr(0, 4) == std::string_view("MM\0*", 4);
    if (!little && !big) return 0;
    const auto number = [&](std::size_t at, std::size_t bytes) { return number_at(b, at, bytes, little); };
    const auto look = [&](std::size_t first, std::uint32_t wanted) -> std::uint32_t {
        const std::uint32_t entries = std::min(number(first, 2), 200u);
        for (std::uint32_t i = 0; i < entries; ++i) {
            const std::size_t at = first + 2 + 12 * static_cast<std::size_t>(i);
            if (number(at, 2) == wanted) return number(at + 2, 2) == 3 ? number(at + 8, 2) : number(at + 8, 4);
        }
        return 0;
    };
    const std::uint32_t first = number(4, 4);
    if (within == 0) return look(first, tag);
    const std::uint32_t there = look(first, within);
    return there == 0 ? 0 : look(there, tag);
}

}  // namespace

int exif_turn(std::string_view b) {
    const std::uint32_t turn = exif_value(b, 0x0112);
    return turn >= 1 && turn <= 8 ? static_cast<int>(turn) : 1;
}

Pixels upright(Pixels from, int turn) {
    if (turn <= 1 || turn > 8) return from;
    const bool across = turn >= 5;
    Pixels out{across ? from.height : from.width, across ? from.width : from.height, {}, true};
    out.rgba.resize(from.rgba.size());
    for (int y = 0; y < out.height; ++y)
        for (int x = 0; x < out.width; ++x) {
            int u = across ? y : x, v = across ? x : y;  // 5: about the diagonal
            if (turn == 2 || turn == 3 || turn == 7 || turn == 8) u = from.width - 1 - u;
            if (turn == 3 || turn == 4 || turn == 6 || turn == 7) v = from.height - 1 - v;
            std::memcpy(&out.rgba[4 * (static_cast<std::size_t>(y) * static_cast<std::size_t>(out.width) + static_cast<std::size_t>(x))],
                        &from.rgba[4 * (static_cast<std::size_t>(v) * static_cast<std::size_t>(from.width) + static_cast<std::size_t>(u))],
                        4);
        }
    return out;
}

namespace {

/// The block in which a file says how it was held; empty where it has none.
std::string_view exif_block(ArtKind kind, const std::string& bytes) {
    const std::string_view b = bytes;
    const auto number = [&](std::size_t at, std::size_t n, bool little) -> std::size_t { return number_at(b, at, n, little); };
    if (kind == ArtKind::jpeg)
        for (std::size_t at = 2; at + 4 < b.size() && static_cast<std::uint8_t>(b[at]) == 0xff;) {
            const auto marker = static_cast<std::uint8_t>(b[at + 1]);
            const std::size_t size = number(at + 2, 2, false);
            if (marker == 0xda || size < 2) break;
            if (marker == 0xe1 && b.substr(at + 4, 6) == std::string_view("Exif\0\0", 6)) return b.substr(at + 10, size - 8);
            at += 2 + size;
        }
    if (kind == ArtKind::png)
        for (std::size_t at = 8; at + 12 <= b.size();) {
            const std::size_t size = number(at, 4, false);
            if (size > b.size()) break;
            if (b.substr(at + 4, 4) == "eXIf") return b.substr(at + 8, size);
            at += 12 + size;
        }
    if (kind == ArtKind::webp)
        for (std::size_t at = 12; at + 8 <= b.size();) {
            const std::size_t size = number(at + 4, 4, true);
            if (b.substr(at, 4) == "EXIF") {
                const std::string_view block = b.substr(at + 8, size);
                return block.substr(0, 6) == std::string_view("Exif\0\0", 6) ? block.substr(6) : block;
            }
            at += 8 + size + size % 2;
        }
    return {};
}

}  // namespace

double exif_focal(ArtKind kind, const std::string& bytes) {
    const std::uint32_t mm = exif_value(exif_block(kind, bytes), 0xA405, 0x8769);
    return mm >= 8 && mm <= 400 ? mm : 0;
}

Result<Pixels> decode_pixels(ArtKind kind, const std::string& bytes, const std::string& name) {
    const auto held = [&](Result<Pixels> pixels) -> Result<Pixels> {
        if (!pixels) return pixels;
        const bool changed = to_srgb(*pixels, embedded_profile(kind, bytes)) || pixels->turned;
        Pixels up = upright(std::move(*pixels), exif_turn(exif_block(kind, bytes)));
        up.turned = up.turned || changed;
        return up;
    };
    switch (kind) {
    case ArtKind::png: return held(from_png(bytes, name));
    case ArtKind::jpeg: return held(from_jpeg(bytes, name));
    case ArtKind::tiff: return held(from_tiff(bytes, name));
    case ArtKind::webp: return held(from_webp(bytes, name));
    case ArtKind::heic: return from_heic(bytes, name);
    case ArtKind::svg:
    case ArtKind::pdf:
    case ArtKind::ttf:
    case ArtKind::otf: break;
    }
    return Error{"{name} is not a picture made of pixels.", {{"name", name}}};
}

}  // namespace orthema::reader
