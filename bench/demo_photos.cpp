// The photographs that ship with the demo, by the simulated camera: a tee, a tote and a tag of the kite fair with their cards.
// usage: demo_photos DEMO-FOLDER FOLDER
#include <cstdio>
#include <filesystem>

#include <jpeglib.h>

#include "devices/camera.h"
#include "files/order_file.h"

using namespace orthema;

namespace {

void write_jpeg(const Photo& photo, const std::string& path) {
    FILE* file = std::fopen(path.c_str(), "wb");
    if (file == nullptr) return;
    jpeg_compress_struct c;
    jpeg_error_mgr errors;
    c.err = jpeg_std_error(&errors);
    jpeg_create_compress(&c);
    jpeg_stdio_dest(&c, file);
    c.image_width = static_cast<JDIMENSION>(photo.image.width);
    c.image_height = static_cast<JDIMENSION>(photo.image.height);
    c.input_components = 3;
    c.in_color_space = JCS_RGB;
    jpeg_set_defaults(&c);
    jpeg_set_quality(&c, 88, 1);
    jpeg_start_compress(&c, 1);
    std::vector<unsigned char> row(3 * static_cast<std::size_t>(photo.image.width));
    for (int y = 0; y < photo.image.height; ++y) {
        for (int x = 0; x < photo.image.width; ++x)
            for (std::size_t k = 0; k < 3; ++k) row[3 * static_cast<std::size_t>(x) + k] = photo.image.at(x, y)[k];
        unsigned char* rows[] = {row.data()};
        jpeg_write_scanlines(&c, rows, 1);
    }
    jpeg_finish_compress(&c);
    jpeg_destroy_compress(&c);
    std::fclose(file);
}

}  // namespace

int main(int argc, char** argv) {
    if (argc < 3) {
        std::fprintf(stderr, "usage: demo_photos DEMO-FOLDER FOLDER\n");
        return 2;
    }
    const auto package = open_order(argv[1]);
    if (!package) {
        std::fprintf(stderr, "%s\n", package.sentence().c_str());
        return 1;
    }
    struct Taken {
        Family family;
        const char* file;
        unsigned seed;
        int cards;
        int width;
        double larger;
    };
    for (const Taken& t : {Taken{Family::adult_tee, "crew-tee.jpg", 11, 1, 3264, 1.018},
                           Taken{Family::infant_bodysuit, "stall-bodysuit.jpg", 6, 1, 2600, 0.985},
                           Taken{Family::hooded_fleece, "marshal-fleece.jpg", 26, 4, 3600, 1.012}}) {
        const BlankStyle* style = nullptr;
        for (const BlankStyle& s : package->order.styles)
            if (s.family == t.family && style == nullptr) style = &s;
        if (style == nullptr) continue;
        const std::string size = usual_base_size(*style);
        Measures truth = style->chart.at(size);
        for (auto& [m, f] : truth) f.value = f.value * t.larger;
        Scene scene = usual_scene(t.family, family_faces(t.family).front(), truth, t.seed, t.cards);
        const double k = static_cast<double>(t.width) / scene.lens.width;
        scene.lens.width = t.width;
        scene.lens.height = t.width * 3 / 4;
        scene.lens.focal *= k;
        write_jpeg(simulated_photo(scene, t.seed), (std::filesystem::path(argv[2]) / t.file).string());
        std::printf("%s: %s, size %s, %.1f %% larger than its chart\n", t.file, style->name.c_str(), size.c_str(), 100 * (t.larger - 1));
    }
    return 0;
}
