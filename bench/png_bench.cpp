// PNG of a long film against libpng writing the same pixels from memory; each in a process of its own, for its peak.
// usage: png_bench ORDER [METRES [FOLDER]]
#include <png.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <filesystem>
#include <functional>
#include <vector>

#include "core/sheets/sheet_drawing.h"
#include "files/order_file.h"
#include "files/page_export.h"

namespace {

using namespace orthema;
using Clock = std::chrono::steady_clock;

struct Measured {
    double seconds = 0;
    double peak_mib = 0;
};

/// Runs `work` in a child; it returns the seconds that count.
Measured in_child(const std::function<double()>& work) {
    int pipe_ends[2];
    if (pipe(pipe_ends) != 0) return {};
    const pid_t child = fork();
    if (child == 0) {
        const double seconds = work();
        (void)!write(pipe_ends[1], &seconds, sizeof seconds);
        _exit(0);
    }
    Measured m;
    (void)!read(pipe_ends[0], &m.seconds, sizeof m.seconds);
    rusage usage{};
    int status = 0;
    wait4(child, &status, 0, &usage);
    close(pipe_ends[0]);
    close(pipe_ends[1]);
    m.peak_mib = static_cast<double>(usage.ru_maxrss) / 1024;
    return m;
}

double since(Clock::time_point t) { return std::chrono::duration<double>(Clock::now() - t).count(); }

/// So many metres of the order's own film: the pieces of its first three metres again and again.
Drawing film(const OrderPackage& package, const LoadedArtById& art, double metres) {
    constexpr double block = 3000;
    const ArtFactsById facts = facts_of(art);
    const TransferSet set = transfers(package.order, fit(package.order, facts), facts);
    const SheetPlan plan = sheet_plan(package.order, set);
    Sheet sheet = plan.media.at(0).sheets.at(0);
    const std::vector<PlacedCopy> all = sheet.copies;
    sheet.copies.clear();
    sheet.length = metres * 1000;
    for (double from = 0; from < sheet.length; from += block)
        for (PlacedCopy c : all) {
            const double end = bounds(mapped(find_transfer(set, c.transfer)->contour.outer, copy_map(c))).x1;
            if (end > block - 6 || from + end > sheet.length - 6) continue;
            c.x += from;
            sheet.copies.push_back(c);
        }
    return sheet_page(package.order, sheet, set);
}

}  // namespace

int main(int argc, char** argv) {
    if (argc < 2) return 2;
    const double metres = argc > 2 ? std::atof(argv[2]) : 10;
    const std::string folder = argc > 3 ? argv[3] : "/tmp";
    const std::string ours = folder + "/orthema-film.png", theirs = folder + "/orthema-reference.png";
    const std::string order = argv[1];
    const auto load = [&] { return open_order(order).value(); };
    const Measured mine = in_child([&] {
        const OrderPackage package = load();
        const LoadedArtById art = load_all_art(package.order, package.art, nullptr);
        const Drawing page = film(package, art, metres);
        const auto t = Clock::now();
        if (!write_png(ours, page, art, 300)) std::fprintf(stderr, "failed\n");
        return since(t);
    });
    const Measured reference = in_child([&] {
        png_image image;
        std::memset(&image, 0, sizeof image);
        image.version = PNG_IMAGE_VERSION;
        if (png_image_begin_read_from_file(&image, ours.c_str()) == 0) return 0.0;
        image.format = PNG_FORMAT_RGBA;
        std::vector<png_byte> pixels(PNG_IMAGE_SIZE(image));
        png_image_finish_read(&image, nullptr, pixels.data(), 0, nullptr);
        const auto t = Clock::now();
        std::FILE* file = std::fopen(theirs.c_str(), "wb");
        png_structp png = png_create_write_struct(PNG_LIBPNG_VER_STRING, nullptr, nullptr, nullptr);
        png_infop info = png_create_info_struct(png);
        png_init_io(png, file);
        png_set_user_limits(png, 0x7fffffff, 0x7fffffff);
        png_set_IHDR(png, info, image.width, image.height, 8, PNG_COLOR_TYPE_RGB_ALPHA, PNG_INTERLACE_NONE, PNG_COMPRESSION_TYPE_DEFAULT,
                     PNG_FILTER_TYPE_DEFAULT);
        png_write_info(png, info);
        for (png_uint_32 y = 0; y < image.height; ++y) png_write_row(png, pixels.data() + static_cast<std::size_t>(y) * image.width * 4);
        png_write_end(png, nullptr);
        png_destroy_write_struct(&png, &info);
        std::fclose(file);
        return since(t);
    });
    std::error_code error;
    const double size =
        static_cast<double>(std::filesystem::file_size(ours, error)) / static_cast<double>(std::filesystem::file_size(theirs, error));
    std::printf(
        "film 558.8 mm x %.0f m at 300 dpi: %.2f s, peak %.0f MiB beside the reader; libpng with the same pixels: %.2f s; ratio %.2f, of "
        "size %.2f\n",
        metres, mine.seconds, mine.peak_mib, reference.seconds, mine.seconds / reference.seconds, size);
    std::remove(ours.c_str());
    std::remove(theirs.c_str());
    return 0;
}
