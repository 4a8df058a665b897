// A word picture of large photographs: suggested, composed, and drawn as it is while one is dragged. Each picture is read as a file of its
// own. usage: word_bench PHOTOGRAPH.jpg [COUNT [WORD]]
#include <sys/resource.h>

#include <chrono>
#include <cstdio>

#include "core/order/edit.h"
#include "files/order_file.h"
#include "files/safe_file.h"
#include "files/word_picture.h"

using namespace orthema;

int main(int argc, char** argv) {
    if (argc < 2) return 2;
    const auto file = read_file(argv[1]);
    if (!file) return std::fprintf(stderr, "%s\n", file.sentence().c_str()), 1;
    const int count = argc > 2 ? std::atoi(argv[2]) : 12;
    auto from = std::chrono::steady_clock::now();
    const auto lap = [&](const char* what) {
        const auto now = std::chrono::steady_clock::now();
        std::printf("%-28s %8.1f ms\n", what, std::chrono::duration<double, std::milli>(now - from).count());
        from = std::chrono::steady_clock::now();
    };
    Order o;
    ArtBytes bytes;
    std::vector<std::string> pictures;
    for (int k = 0; k < count; ++k) {
        const auto id = add_art(o, bytes, std::make_shared<const std::string>(*file + std::string(static_cast<std::size_t>(k) + 1, '\0')),
                                "picture " + std::to_string(k) + ".jpg");
        if (!id) return std::fprintf(stderr, "%s\n", id.sentence().c_str()), 1;
        const double x = 0.2 + 0.05 * (k % 8), y = 0.15 + 0.03 * (k % 5);
        o = with_subject(o, *id, {{x, y}, {x + 0.15, y + 0.1}, {x + 0.05, y + 0.22}});
        pictures.push_back(*id);
    }
    lap("read the pictures");
    WordPicture word;
    word.word = argc > 3 ? argv[3] : "KITEFAIR";
    word = with_places(word);
    const std::string id = enrol_word_picture(o, bytes, word, shipped_typefaces().back(), "Word");
    const auto empty = pictures_of(o, *find_art(o, id), bytes);
    if (!empty) return std::fprintf(stderr, "%s\n", empty.sentence().c_str()), 1;
    lap("lay the empty word");
    LoadedArtById art = read_all_art(o, bytes).art;
    lap("pictures again, from memory");
    const WordLaid laid = *empty->at(id)->word;
    const WordSuits found = word_suits(laid, o, art, pictures, word.rim);
    lap("suggest");
    word.typeface = find_art(o, id)->word_picture->typeface;
    for (std::size_t k = 0; k < laid.parts.size(); ++k)
        if (found.best[k] >= 0) word.places[laid.parts[k].place].first.picture = found.pictures[static_cast<std::size_t>(found.best[k])];
    o = with_word_picture(o, id, word);
    const auto made = pictures_of(o, *find_art(o, id), bytes);
    if (!made) return std::fprintf(stderr, "%s\n", made.sentence().c_str()), 1;
    lap("compose");
    const LoadedArtPtr whole = made->at(id);
    std::printf("%d x %d pixels\n", whole->facts.width_px, whole->facts.height_px);
    // as the view draws it
    constexpr int width = 890, height = 640;
    cairo_surface_t* surface = cairo_image_surface_create(CAIRO_FORMAT_ARGB32, width, height);
    double most = 0;
    for (int step = 0; step < 20; ++step) {
        from = std::chrono::steady_clock::now();
        Drawing d;
        d.width = width;
        d.height = height;
        const double k = width / whole->word->box.width();
        const Affine m = Affine::scale(k, k).after(Affine::shift(-whole->word->box.x0, -whole->word->box.y0));
        for (const WordPartLaid& p : whole->word->parts) {
            const PictureAt& at = p.filled.at;
            d.clip(mapped(p.shape, m));
            d.marks.emplace_back(
                ArtMark{p.picture,
                        m.after(Affine::shift(p.box.centre().x + at.middle.x + 0.001 * step, p.box.centre().y + at.middle.y))
                            .after(Affine::scale(at.width, at.width))
                            .after(Affine::shift(-0.5, -p.aspect / 2)),
                        1});
            d.unclip();
        }
        cairo_t* cr = cairo_create(surface);
        ScreenArt screen(art);
        paint(d, cr, &screen);
        cairo_destroy(cr);
        most = std::max(most, std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - from).count());
    }
    std::printf("%-28s %8.1f ms at most\n", "draw a step of a drag", most);
    cairo_surface_destroy(surface);
    rusage own{}, readers{};
    getrusage(RUSAGE_SELF, &own);
    getrusage(RUSAGE_CHILDREN, &readers);
    std::printf("memory %ld MB here\n", own.ru_maxrss / 1024);
    return 0;
}
