#include "files/heavy/heavy.h"

#include <cairo-pdf.h>
#include <png.h>
#include <tiffio.h>
#include <unistd.h>

#include <cmath>
#include <condition_variable>
#include <csetjmp>
#include <array>
#include <cstring>
#include <memory>
#include <mutex>
#include <thread>

#include "files/heavy/pdf_tidy.h"
#include "files/safe_file.h"

namespace orthema {

namespace {

const Error stopped{"Stopped: nothing was written."};

}  // namespace

Result<Done> heavy::write_pdf(const std::string& path, const std::vector<const Drawing*>& pages, const LoadedArtById& art,
                              const std::string& title, const Task& task) {
    constexpr double points = 72 / 25.4;
    if (const SafeFile probe(path); !probe.open()) return probe.fault();
    std::string drawn;
    cairo_surface_t* surface = cairo_pdf_surface_create_for_stream(
        [](void* to, const unsigned char* data, unsigned int size) {
            static_cast<std::string*>(to)->append(reinterpret_cast<const char*>(data), size);
            return CAIRO_STATUS_SUCCESS;
        },
        &drawn, 100, 100);
    cairo_pdf_surface_set_metadata(surface, CAIRO_PDF_METADATA_TITLE, title.c_str());
    cairo_pdf_surface_set_metadata(surface, CAIRO_PDF_METADATA_CREATOR, "Orthema");
    cairo_status_t status = CAIRO_STATUS_SUCCESS;
    bool given_up = false;
    {
        PrintArt source(art, true);
        cairo_t* cr = nullptr;
        for (std::size_t i = 0; i < pages.size() && !given_up; ++i) {
            const Drawing& page = *pages[i];
            cairo_pdf_surface_set_size(surface, page.width * points, page.height * points);
            if (cr == nullptr) cr = cairo_create(surface);
            cairo_save(cr);
            cairo_scale(cr, points, points);
            paint(page, cr, &source);
            cairo_restore(cr);
            cairo_show_page(cr);
            task.say(static_cast<double>(i + 1) / static_cast<double>(pages.size()), title);
            given_up = task.stopped();
        }
        if (cr != nullptr) {
            status = cairo_status(cr);
            cairo_destroy(cr);
        }
        cairo_surface_finish(surface);
        if (status == CAIRO_STATUS_SUCCESS) status = cairo_surface_status(surface);
        cairo_surface_destroy(surface);
    }
    if (given_up) return stopped;
    if (status != CAIRO_STATUS_SUCCESS) return Error{"“" + path + "” could not be drawn: " + cairo_status_to_string(status) + "."};
    return write_file(path, heavy::tidied(drawn));
}

namespace {

/// One band under way between the thread that draws and the one that uses it.
struct Band {
    std::vector<std::uint32_t> pixels;
    int first = 0, rows = 0;
    bool full = false;
};

void draw_band(Band& band, int width, const Drawing& page, double scale, const LoadedArtById& loaded, ArtSource& art) {
    band.pixels.assign(static_cast<std::size_t>(width) * static_cast<std::size_t>(band.rows), 0);
    cairo_surface_t* surface = cairo_image_surface_create_for_data(reinterpret_cast<unsigned char*>(band.pixels.data()),
                                                                   CAIRO_FORMAT_ARGB32, width, band.rows, width * 4);
    cairo_t* cr = cairo_create(surface);
    cairo_translate(cr, 0, -band.first);
    cairo_scale(cr, scale, scale);
    // Only marks that reach into the band are drawn: pictures are dear.
    const Rect window{0, band.first / scale, page.width, (band.first + band.rows) / scale};
    Drawing part;
    for (const Mark& mark : page.marks) {
        if (const auto* picture = std::get_if<ArtMark>(&mark)) {
            const auto at = loaded.find(picture->art);
            const double tall = at == loaded.end() ? 1 : at->second->facts.aspect;
            if (!art_box(*picture, tall).grown(1).meets(window)) continue;
        }
        part.marks.push_back(mark);
    }
    paint(part, cr, &art);
    cairo_destroy(cr);
    cairo_surface_destroy(surface);
}

/// Premultiplied native words to straight RGBA bytes, in place over a row buffer.
void to_rgba(const std::uint32_t* from, std::uint8_t* to, int n) {
    for (int i = 0; i < n; ++i, to += 4) {
        const std::uint32_t p = from[i];
        const std::uint32_t a = p >> 24;
        if (a == 0) {
            std::memset(to, 0, 4);
        } else {
            std::uint32_t r = (p >> 16) & 255, g = (p >> 8) & 255, b = p & 255;
            if (a != 255) {
                r = std::min(255u, (r * 255 + a / 2) / a);
                g = std::min(255u, (g * 255 + a / 2) / a);
                b = std::min(255u, (b * 255 + a / 2) / a);
            }
            to[0] = static_cast<std::uint8_t>(r);
            to[1] = static_cast<std::uint8_t>(g);
            to[2] = static_cast<std::uint8_t>(b);
            to[3] = static_cast<std::uint8_t>(a);
        }
    }
}

struct PngState {
    png_structp png = nullptr;
    png_infop info = nullptr;
    ~PngState() { png_destroy_write_struct(&png, &info); }
};

/// The C part: libpng leaves by longjmp, so nothing here needs destroying on the way.
bool png_begin(PngState& s, SafeFile& file, int width, int height, double dpi) {
    if (setjmp(png_jmpbuf(s.png)) != 0) return false;
    png_set_write_fn(
        s.png, &file,
        [](png_structp png, png_bytep data, png_size_t size) {
            if (!static_cast<SafeFile*>(png_get_io_ptr(png))->write(data, size)) png_error(png, "write");
        },
        [](png_structp) {});
    // one filter and a short search: about a third of the time, for files some four tenths larger
    png_set_filter(s.png, PNG_FILTER_TYPE_BASE, PNG_FILTER_UP);
    png_set_compression_level(s.png, 3);
    png_set_user_limits(s.png, 0x7fffffff, 0x7fffffff);
    png_set_IHDR(s.png, s.info, static_cast<png_uint_32>(width), static_cast<png_uint_32>(height), 8, PNG_COLOR_TYPE_RGB_ALPHA,
                 PNG_INTERLACE_NONE, PNG_COMPRESSION_TYPE_DEFAULT, PNG_FILTER_TYPE_DEFAULT);
    const auto per_metre = static_cast<png_uint_32>(std::lround(dpi / 0.0254));
    png_set_pHYs(s.png, s.info, per_metre, per_metre, PNG_RESOLUTION_METER);
    png_write_info(s.png, s.info);
    return true;
}

bool png_rows(PngState& s, const PixelBand& band, std::uint8_t* row) {
    if (setjmp(png_jmpbuf(s.png)) != 0) return false;
    for (int y = 0; y < band.rows; ++y) {
        to_rgba(band.pixels + static_cast<std::size_t>(y) * static_cast<std::size_t>(band.width), row, band.width);
        png_write_row(s.png, row);
    }
    return true;
}

bool png_finish(PngState& s) {
    if (setjmp(png_jmpbuf(s.png)) != 0) return false;
    png_write_end(s.png, nullptr);
    return true;
}

}  // namespace

namespace {

struct PixelSize {
    int width = 0, height = 0;
};

Result<PixelSize> pixel_size(const Drawing& page, double dpi) {
    const double w = page.width * dpi / 25.4, h = page.height * dpi / 25.4;
    if (!(w >= 1) || !(h >= 1) || w > 200000 || h > 20000000) return Error{"The sheet has no size that a picture can have."};
    return PixelSize{static_cast<int>(std::lround(w)), static_cast<int>(std::lround(h))};
}

}  // namespace

Result<Done> heavy::draw_rows(const Drawing& page, const LoadedArtById& art, double dpi, const PixelRows& take, const Task& task) {
    const auto size = pixel_size(page, dpi);
    if (!size) return size.error();
    const auto [width, height] = *size;
    // Two bands of at most 32 MB: one is drawn while the other is used.
    const int rows = std::clamp(static_cast<int>((8 << 20) / width), 1, height);
    std::array<Band, 2> bands;
    std::mutex guard;
    std::condition_variable turn;
    bool quit = false;
    std::thread drawer([&, w = width, h = height] {
        PrintArt source(art, false);
        int index = 0;
        for (int first = 0; first < h; first += rows, index ^= 1) {
            Band& band = bands[static_cast<std::size_t>(index)];
            std::unique_lock lock(guard);
            turn.wait(lock, [&] { return !band.full || quit; });
            if (quit) return;
            lock.unlock();
            band.first = first;
            band.rows = std::min(rows, h - first);
            draw_band(band, w, page, dpi / 25.4, art, source);
            lock.lock();
            band.full = true;
            turn.notify_all();
        }
    });
    bool more = true, given_up = false;
    int index = 0;
    for (int first = 0; first < height && more && !given_up; first += rows, index ^= 1) {
        Band& band = bands[static_cast<std::size_t>(index)];
        std::unique_lock lock(guard);
        turn.wait(lock, [&] { return band.full; });
        lock.unlock();
        more = take({band.pixels.data(), width, band.first, band.rows});
        lock.lock();
        band.full = false;
        turn.notify_all();
        lock.unlock();
        task.say(static_cast<double>(std::min(height, first + rows)) / height, "writing pixels");
        given_up = task.stopped();
    }
    {
        const std::scoped_lock lock(guard);
        quit = true;
        turn.notify_all();
    }
    drawer.join();
    if (given_up) return stopped;
    return Done{};
}

Result<Done> heavy::write_png(const std::string& path, const Drawing& page, const LoadedArtById& art, double dpi, const Task& task) {
    const auto size = pixel_size(page, dpi);
    if (!size) return size.error();
    SafeFile file(path);
    if (!file.open()) return file.fault();
    PngState png;
    png.png = png_create_write_struct(
        PNG_LIBPNG_VER_STRING, nullptr, [](png_structp p, png_const_charp) { longjmp(png_jmpbuf(p), 1); },
        [](png_structp, png_const_charp) {});
    png.info = png_create_info_struct(png.png);
    if (!png_begin(png, file, size->width, size->height, dpi)) return file.fault();
    std::vector<std::uint8_t> row(static_cast<std::size_t>(size->width) * 4);
    bool fine = true;
    auto drawn = heavy::draw_rows(
        page, art, dpi, [&](const PixelBand& band) { return fine = png_rows(png, band, row.data()); }, task);
    if (!drawn) return drawn;
    if (!fine || !png_finish(png)) return file.fault();
    return file.commit();
}

Result<Done> heavy::write_tiff(const std::string& path, const Drawing& page, const LoadedArtById& art, double dpi, const Task& task) {
    const auto size = pixel_size(page, dpi);
    if (!size) return size.error();
    SafeFile file(path);
    if (!file.open()) return file.fault();
    TIFFSetWarningHandler(nullptr);
    TIFFSetErrorHandler(nullptr);
    // past 4 GB only the large kind can point; what compresses that far is not known before
    const bool large = 4.0 * size->width * size->height > 3.5e9;
    const int handle = ::dup(::fileno(file.handle()));
    std::unique_ptr<TIFF, decltype(&TIFFClose)> tiff(handle < 0 ? nullptr : TIFFFdOpen(handle, path.c_str(), large ? "w8" : "w"),
                                                     &TIFFClose);
    if (!tiff) return file.fault();
    const std::uint16_t straight = EXTRASAMPLE_UNASSALPHA;
    TIFFSetField(tiff.get(), TIFFTAG_IMAGEWIDTH, static_cast<std::uint32_t>(size->width));
    TIFFSetField(tiff.get(), TIFFTAG_IMAGELENGTH, static_cast<std::uint32_t>(size->height));
    TIFFSetField(tiff.get(), TIFFTAG_BITSPERSAMPLE, 8);
    TIFFSetField(tiff.get(), TIFFTAG_SAMPLESPERPIXEL, 4);
    TIFFSetField(tiff.get(), TIFFTAG_EXTRASAMPLES, 1, &straight);
    TIFFSetField(tiff.get(), TIFFTAG_PHOTOMETRIC, PHOTOMETRIC_RGB);
    TIFFSetField(tiff.get(), TIFFTAG_PLANARCONFIG, PLANARCONFIG_CONTIG);
    TIFFSetField(tiff.get(), TIFFTAG_COMPRESSION, COMPRESSION_ADOBE_DEFLATE);
    TIFFSetField(tiff.get(), TIFFTAG_PREDICTOR, PREDICTOR_HORIZONTAL);
    TIFFSetField(tiff.get(), TIFFTAG_ROWSPERSTRIP, static_cast<std::uint32_t>(64));
    TIFFSetField(tiff.get(), TIFFTAG_RESOLUTIONUNIT, RESUNIT_INCH);
    TIFFSetField(tiff.get(), TIFFTAG_XRESOLUTION, dpi);
    TIFFSetField(tiff.get(), TIFFTAG_YRESOLUTION, dpi);
    TIFFSetField(tiff.get(), TIFFTAG_SOFTWARE, "Orthema");
    std::vector<std::uint8_t> row(static_cast<std::size_t>(size->width) * 4);
    bool fine = true;
    auto drawn = heavy::draw_rows(
        page, art, dpi,
        [&](const PixelBand& band) {
            for (int y = 0; y < band.rows && fine; ++y) {
                to_rgba(band.pixels + static_cast<std::size_t>(y) * static_cast<std::size_t>(band.width), row.data(), band.width);
                fine = TIFFWriteScanline(tiff.get(), row.data(), static_cast<std::uint32_t>(band.first + y), 0) == 1;
            }
            return fine;
        },
        task);
    if (!drawn) return drawn;
    if (!fine || TIFFFlush(tiff.get()) != 1) return file.fault();
    tiff.reset();
    return file.commit();
}

}  // namespace orthema
