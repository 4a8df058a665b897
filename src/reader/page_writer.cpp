#include "reader/reader.h"

#include <cairo-pdf.h>
#include <libdeflate.h>
#include <tiffio.h>
#include <unistd.h>

#include <cmath>
#include <condition_variable>
#include <array>
#include <cstring>
#include <memory>
#include <mutex>
#include <thread>

#include "reader/deflate_blocks.h"
#include "reader/png_bytes.h"
#include "reader/pdf_tidy.h"

namespace orthema::reader {

namespace {

const Error stopped{"Stopped: nothing was written."};
const Error file_fault{""};  // the file says itself what it is

}  // namespace

bool PageFile::write(const void* data, std::size_t size) {
    const char* at = static_cast<const char*>(data);
    while (size > 0 && error_ == 0) {
        const ssize_t put = ::write(fd_, at, size);
        if (put < 0 && errno == EINTR) continue;
        if (put <= 0) {
            fail(errno);
            break;
        }
        at += put;
        size -= static_cast<std::size_t>(put);
    }
    return error_ == 0;
}

Result<Done> write_pdf(PageFile& file, const std::vector<Drawing>& pages, const LoadedArtById& art, const std::string& title,
                       const Task& task) {
    constexpr double points = 72 / 25.4;
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
            const Drawing& page = pages[i];
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
    if (status != CAIRO_STATUS_SUCCESS)
        return Error{"“{page}” could not be drawn: {why}.", {{"page", title}, {"why", std::string(cairo_status_to_string(status))}}};
    const std::string tidy = tidied(drawn);
    if (!file.write(tidy.data(), tidy.size())) return file_fault;
    return Done{};
}

namespace {

constexpr int strip_rows = 64;  ///< of a TIFF

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

Result<Done> draw_rows(const Drawing& page, const LoadedArtById& art, double dpi, const PixelRows& take, const Task& task) {
    const auto size = pixel_size(page, dpi);
    if (!size) return size.error();
    const auto [width, height] = *size;
    // Two bands of at most 32 MB: one is drawn while the other is used.
    // whole strips of a TIFF
    const int rows = std::min(height, std::max(1, static_cast<int>((8 << 20) / width) / strip_rows) * strip_rows);
    std::array<Band, 2> bands;
    std::mutex guard;
    std::condition_variable turn;
    bool quit = false;
    std::exception_ptr fault;
    const auto drawn = [&](Band& band, int w, ArtSource& source) {
        try {
            draw_band(band, w, page, dpi / 25.4, art, source);
        } catch (...) {
            fault = std::current_exception();
        }
    };
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
            drawn(band, w, source);
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
        if (fault) break;
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
    if (fault) std::rethrow_exception(fault);
    if (given_up) return stopped;
    return Done{};
}

namespace {

/// Rows as a PNG file has them, filtered by themselves: the first of a block does not look at the block above. `each` takes
/// for each row the filter that leaves the least (the sum of what is left, taken as signed).
enum class Filter : std::uint8_t { none = 0, sub = 1, up = 2, each = 255 };

std::size_t left_over(const std::uint8_t* row, std::size_t n) {
    std::size_t sum = 0;
    for (std::size_t k = 0; k < n; ++k) sum += static_cast<std::size_t>(std::min<int>(row[k], 256 - row[k]));
    return sum;
}

void filtered(const std::uint32_t* pixels, int width, int n, Filter filter, std::string& out) {
    const std::size_t stride = 4 * static_cast<std::size_t>(width);
    out.resize((stride + 1) * static_cast<std::size_t>(n));
    auto* to = reinterpret_cast<std::uint8_t*>(out.data());
    std::vector<std::uint8_t> row(filter == Filter::none ? 0 : stride), above(row.size()), tried(filter == Filter::each ? stride : 0);
    const auto sub = [&](std::uint8_t* at) {
        std::memcpy(at, row.data(), 4);
        for (std::size_t k = 4; k < stride; ++k) at[k] = static_cast<std::uint8_t>(row[k] - row[k - 4]);
    };
    const auto up = [&](std::uint8_t* at) {
        for (std::size_t k = 0; k < stride; ++k) at[k] = static_cast<std::uint8_t>(row[k] - above[k]);
    };
    for (int y = 0; y < n; ++y, to += stride + 1, pixels += width) {
        if (filter == Filter::none) {
            to[0] = 0;
            to_rgba(pixels, to + 1, width);
            continue;
        }
        to_rgba(pixels, row.data(), width);
        Filter own = filter == Filter::up && y > 0 ? Filter::up : Filter::sub;
        if (filter == Filter::each && y > 0) {
            sub(to + 1);
            up(tried.data());
            const std::size_t across = left_over(to + 1, stride), down = left_over(tried.data(), stride),
                              plain = left_over(row.data(), stride);
            own = plain <= std::min(across, down) ? Filter::none : down < across ? Filter::up : Filter::sub;
            if (own != Filter::sub) std::memcpy(to + 1, own == Filter::up ? tried.data() : row.data(), stride);
        } else {
            own == Filter::up ? up(to + 1) : sub(to + 1);
        }
        to[0] = static_cast<std::uint8_t>(own);
        row.swap(above);
    }
}

/// Flat art is smallest as it is, photographs after a filter: tried on some rows from the middle.
Filter best_filter(const std::uint32_t* pixels, int width, int n, Packer& packer, std::string& sample) {
    constexpr std::size_t tried = 64 << 10;
    const int some = std::clamp(static_cast<int>(tried / (4 * static_cast<std::size_t>(width))), 1, n);
    const std::uint32_t* from = pixels + static_cast<std::size_t>(width) * static_cast<std::size_t>((n - some) / 2);
    std::size_t least = 0;
    Filter best = Filter::none;
    for (const Filter f : {Filter::none, Filter::up, Filter::sub, Filter::each}) {
        if (f == Filter::sub && least < sample.size() / 4) break;  // no photograph
        filtered(from, width, some, f, sample);
        const std::size_t size = packer.guess(sample);
        if (f != Filter::none && size >= least) continue;
        least = size;
        best = f;
    }
    return best;
}

bool blank(const std::uint32_t* pixels, std::size_t n) {
    return n == 0 || (pixels[0] == 0 && std::memcmp(pixels, pixels + 1, 4 * (n - 1)) == 0);
}

}  // namespace

Result<Done> write_png(PageFile& file, const Drawing& page, const LoadedArtById& art, double dpi, const Task& task) {
    const auto size = pixel_size(page, dpi);
    if (!size) return size.error();
    constexpr std::size_t block_bytes = 1 << 20;
    std::string head = png_head(size->width, size->height), part;
    const auto per_metre = static_cast<std::uint32_t>(std::lround(dpi / 0.0254));
    put_number(part, per_metre);
    put_number(part, per_metre);
    part += '\x01';
    head += png_chunk("sRGB", std::string(1, '\0'));  // what its colours are meant in
    head += png_chunk("pHYs", part);
    if (!file.write(head.data(), head.size())) return file_fault;
    Packers packers;
    const int rows = std::max(1, static_cast<int>(block_bytes / (4 * static_cast<std::size_t>(size->width) + 1)));
    std::map<int, Packed> clear;  // blocks of nothing, by their rows
    std::mutex guard;
    std::uint32_t adler = 1;
    bool begun = false;
    const auto pack = [&](Packer& packer, const std::uint32_t* pixels, int width, int n) {
        const std::size_t count = static_cast<std::size_t>(width) * static_cast<std::size_t>(n);
        thread_local std::string raw;
        if (blank(pixels, count)) {
            {
                const std::scoped_lock lock(guard);
                if (const auto it = clear.find(n); it != clear.end()) return it->second;
            }
            raw.assign((4 * static_cast<std::size_t>(width) + 1) * static_cast<std::size_t>(n), '\0');
            Packed packed = packer.part(raw);
            const std::scoped_lock lock(guard);
            return clear[n] = std::move(packed);
        }
        const Filter filter = best_filter(pixels, width, n, packer, raw);
        filtered(pixels, width, n, filter, raw);
        return packer.part(raw);
    };
    auto drawn = reader::draw_rows(
        page, art, dpi,
        [&](const PixelBand& band) {
            const auto n = static_cast<std::size_t>((band.rows + rows - 1) / rows);
            std::vector<Packed> parts(n);
            packers.each(n, [&](Packer& packer, std::size_t i) {
                const int first = static_cast<int>(i) * rows;
                parts[i] = pack(packer, band.pixels + static_cast<std::size_t>(first) * static_cast<std::size_t>(band.width), band.width,
                                std::min(rows, band.rows - first));
            });
            std::string data = begun ? std::string() : std::string("\x78\x9c");
            begun = true;
            for (const Packed& p : parts) {
                data += p.bytes;
                adler = adler_of(adler, p.adler, p.size);
            }
            const std::string chunk = png_chunk("IDAT", data);
            return file.write(chunk.data(), chunk.size());
        },
        task);
    if (!drawn) return drawn;
    const std::string end = png_chunk("IDAT", stream_end(adler)) + png_chunk("IEND", {});
    if (!file.write(end.data(), end.size())) return file_fault;
    return Done{};
}

Result<Done> write_tiff(PageFile& file, const Drawing& page, const LoadedArtById& art, double dpi, const Task& task) {
    const auto size = pixel_size(page, dpi);
    if (!size) return size.error();
    TIFFSetWarningHandler(nullptr);
    TIFFSetErrorHandler(nullptr);
    // past 4 GB only the large kind can point; what compresses that far is not known before
    const bool large = 4.0 * size->width * size->height > 3.5e9;
    const int handle = ::dup(file.fd());
    std::unique_ptr<TIFF, decltype(&TIFFClose)> tiff(handle < 0 ? nullptr : TIFFFdOpen(handle, "page", large ? "w8" : "w"), &TIFFClose);
    const auto not_written = [&] {
        file.fail(errno);
        return file_fault;
    };
    if (!tiff) return not_written();
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
    TIFFSetField(tiff.get(), TIFFTAG_ROWSPERSTRIP, static_cast<std::uint32_t>(strip_rows));
    TIFFSetField(tiff.get(), TIFFTAG_RESOLUTIONUNIT, RESUNIT_INCH);
    TIFFSetField(tiff.get(), TIFFTAG_XRESOLUTION, dpi);
    TIFFSetField(tiff.get(), TIFFTAG_YRESOLUTION, dpi);
    TIFFSetField(tiff.get(), TIFFTAG_SOFTWARE, "Orthema");
    Packers packers;
    bool fine = true;
    auto drawn = reader::draw_rows(
        page, art, dpi,
        [&](const PixelBand& band) {
            const auto n = static_cast<std::size_t>((band.rows + strip_rows - 1) / strip_rows);
            std::vector<std::string> strips(n);
            packers.each(n, [&](Packer& packer, std::size_t i) {
                const int first = static_cast<int>(i) * strip_rows, rows = std::min(strip_rows, band.rows - first);
                const std::size_t stride = 4 * static_cast<std::size_t>(band.width);
                std::string raw(stride * static_cast<std::size_t>(rows), '\0');
                auto* to = reinterpret_cast<std::uint8_t*>(raw.data());
                to_rgba(band.pixels + static_cast<std::size_t>(first) * static_cast<std::size_t>(band.width), to, band.width * rows);
                for (int y = 0; y < rows; ++y, to += stride)  // each sample less the one to its left
                    for (std::size_t k = stride - 1; k >= 4; --k) to[k] = static_cast<std::uint8_t>(to[k] - to[k - 4]);
                strips[i] = packer.whole(raw);
            });
            for (std::size_t i = 0; i < n && fine; ++i)
                fine = TIFFWriteRawStrip(tiff.get(), static_cast<std::uint32_t>(band.first / strip_rows) + static_cast<std::uint32_t>(i),
                                         strips[i].data(), static_cast<tmsize_t>(strips[i].size())) > 0;
            return fine;
        },
        task);
    if (!drawn) return drawn;
    if (!fine || TIFFFlush(tiff.get()) != 1) return not_written();
    return Done{};
}

}  // namespace orthema::reader
