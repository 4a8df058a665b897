// The photographs that ship with the demo, by the simulated camera: three blanks of the kite fair with their cards, and a pressed tee.
// usage: demo_photos DEMO-FOLDER FOLDER
#include <cstdio>
#include <filesystem>

#include <jpeglib.h>

#include "core/pipeline/work.h"
#include "devices/camera.h"
#include "files/design_picture.h"
#include "files/order_file.h"
#include "files/photo_tape.h"

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

/// The tee of a record in the demo's history, its design some millimetres off its place and a corner of it left on the film.
void write_pressed(const OrderPackage& package, const std::string& path) {
    auto known = std::make_shared<KnownArt>();
    const LoadedArtById art = load_all_art(package.order, package.art, &known->faults);
    known->facts = facts_of(art);
    const Work w = work(package.order, Shop{}, Shared<KnownArt>(known));
    for (const PressRecord& r : package.records.records) {
        const BlankStyle* style = find_style(package.order, r.style);
        const Decoration* d = find_decoration(package.order, r.design);
        const DecorationFit* fit = d == nullptr ? nullptr : find_fit(w.plan(), d->id);
        const SizeFit* size = fit == nullptr ? nullptr : find_size(*fit, r.size);
        const Ground* ground = size == nullptr ? nullptr : find_ground(*fit, r.size);
        if (ground == nullptr || style == nullptr || style->family != Family::adult_tee || ground->panel.face != Face::front ||
            size->width < 150)
            continue;
        Measures truth = style->chart.at(r.size);
        for (auto& [m, f] : truth) f.value = f.value * 1.008;
        Scene scene = usual_scene(style->family, Face::front, truth, 6, 1);
        scene.cloth = cloth_of(package.order, *d);
        scene.lens = with_width(scene.lens, 3000);
        PressedOn on;
        on.picture = design_picture(*d, *size, art, 700 / shown_ink(*size).width());
        for (int y = on.picture.height * 9 / 10; y < on.picture.height; ++y)
            for (int x = 0; x < on.picture.width / 5; ++x) on.picture.at(x, y)[3] = 0;
        const double middle = size->ink.centre().x + 4,
                     top = family_panel(style->family, truth, Face::front).top_y + size->top_to_ink + 6.5;
        on.box = {middle - size->width / 2, top, middle + size->width / 2, top + size->height};
        on.angle = 0.018;
        scene.pressed = {on};
        const Photo photo = simulated_photo(scene, 6);
        write_jpeg(photo, path);
        BlankAsked asked;
        asked.family = style->family;
        asked.expected = style->chart.at(r.size);
        const auto table = find_table(photo);
        const auto blank = table ? measure_blank(photo, *table, asked) : Result<BlankSeen>(Error{table.sentence()});
        if (!blank || !blank->refused.empty())
            std::fprintf(stderr, "it cannot be measured: %s\n", !blank ? blank.sentence().c_str() : blank->refused.c_str());
        std::printf("%s: %s on %s, %s, record of %s: 4 mm to the right, 6.5 mm low, 1 degree clockwise\n", path.c_str(), d->name.c_str(),
                    style->name.c_str(), r.size.c_str(), r.at.c_str());
        return;
    }
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
    for (const Taken& t :
         {Taken{Family::adult_tee, "crew-tee.jpg", 11, 1, 3264, 1.018},
          Taken{Family::infant_bodysuit, "stall-bodysuit.jpg", 6, 1, 2600, 0.985},
          Taken{Family::hooded_fleece, "marshal-fleece.jpg", 26, 4, 3600, 1.012}, Taken{Family::mug, "stall-mug.jpg", 10, 1, 2400, 1.01}}) {
        const BlankStyle* style = nullptr;
        for (const BlankStyle& s : package->order.styles)
            if (s.family == t.family && style == nullptr) style = &s;
        if (style == nullptr) continue;
        const std::string size = usual_base_size(*style);
        Measures truth = style->chart.at(size);
        for (auto& [m, f] : truth) f.value = f.value * t.larger;
        Scene scene = usual_scene(t.family, family_faces(t.family).front(), truth, t.seed, t.cards);
        scene.lens = with_width(scene.lens, t.width);
        write_jpeg(simulated_photo(scene, t.seed), (std::filesystem::path(argv[2]) / t.file).string());
        std::printf("%s: %s, size %s, %.1f %% larger than its chart\n", t.file, style->name.c_str(), size.c_str(), 100 * (t.larger - 1));
    }
    write_pressed(*package, (std::filesystem::path(argv[2]) / "pressed-tee.jpg").string());
    return 0;
}
