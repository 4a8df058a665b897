// The painter, pixel by pixel where it matters.
#include "drawing/painter.h"

#include <cmath>

#include "core/drawing/text_width.h"
#include "files/languages.h"
#include "files/order_file.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

/// Paints on white; returns how dark each pixel is, 0 … 255.
struct Painted {
    int width, height;
    std::vector<int> dark;
    Painted(const Drawing& d, int w, int h, ArtSource* art = nullptr) : width(w), height(h), dark(static_cast<std::size_t>(w * h)) {
        cairo_surface_t* s = cairo_image_surface_create(CAIRO_FORMAT_ARGB32, w, h);
        cairo_t* cr = cairo_create(s);
        paint(d, cr, art);
        cairo_destroy(cr);
        cairo_surface_flush(s);
        for (int y = 0; y < h; ++y)
            for (int x = 0; x < w; ++x)
                dark[static_cast<std::size_t>(y * w + x)] =
                    int(reinterpret_cast<std::uint32_t*>(cairo_image_surface_get_data(s) + y * cairo_image_surface_get_stride(s))[x] >> 24);
        cairo_surface_destroy(s);
    }
    [[nodiscard]] int at(int x, int y) const { return dark[static_cast<std::size_t>(y * width + x)]; }
    [[nodiscard]] int sum(int x0, int y0, int x1, int y1) const {
        int total = 0;
        for (int y = y0; y < y1; ++y)
            for (int x = x0; x < x1; ++x) total += at(x, y);
        return total;
    }
};

TEST(Painter, FillsEvenOddAndClips) {
    Drawing d;
    Region frame = box_region({10, 10, 50, 50});
    frame[0].holes.push_back({{20, 20}, {20, 40}, {40, 40}, {40, 20}});
    d.region(frame, palette::black, {});
    d.clip({60, 0, 70, 100});
    d.rect({55, 10, 95, 50}, palette::black);
    d.unclip();
    d.rect({80, 80, 90, 90}, palette::black);
    const Painted p(d, 100, 100);
    EXPECT_EQ(p.at(15, 15), 255);
    EXPECT_EQ(p.at(30, 30), 0) << "a hole stays open";
    EXPECT_EQ(p.at(57, 30), 0);
    EXPECT_EQ(p.at(65, 30), 255);
    EXPECT_EQ(p.at(75, 30), 0);
    EXPECT_EQ(p.at(85, 85), 255) << "after the clip all is open again";
}

TEST(Painter, AlignsAndTurnsText) {
    const auto box = [](Align align, double degrees) {
        Drawing d;
        d.text({100, 60}, "Kite Fair", 20, palette::black, align, true, degrees);
        const Painted p(d, 200, 120);
        Rect r{1e9, 1e9, -1, -1};
        for (int y = 0; y < 120; ++y)
            for (int x = 0; x < 200; ++x)
                if (p.at(x, y) > 100)
                    r = {std::min(r.x0, double(x)), std::min(r.y0, double(y)), std::max(r.x1, double(x)), std::max(r.y1, double(y))};
        return r;
    };
    const double width = text_width("Kite Fair", 20, true);
    EXPECT_NEAR(box(Align::left, 0).x0, 101, 2.5);
    EXPECT_NEAR(box(Align::right, 0).x1, 99, 2.5);
    EXPECT_NEAR(box(Align::centre, 0).centre().x, 100, 2.5);
    EXPECT_NEAR(box(Align::left, 0).width(), width, 4);
    const Rect upright = box(Align::centre, -90);
    EXPECT_GT(upright.height(), upright.width() * 3);
}

TEST(Painter, FiguresAreTabular) {
    for (const bool bold : {false, true}) {
        const double one = text_width("1111", 12, bold);
        for (const char* digits : {"0000", "4444", "8888", "2759"}) EXPECT_NEAR(text_width(digits, 12, bold), one, 1e-6) << digits;
    }
}

TEST(Painter, WidthsThatPagesAreLaidOutByAreTheFontsOwn) {
    int lines = 0;
    for (const char* code : {"de", "es", "fr"})
        for (const auto& [english, said] : shipped_language(code)->sentences)
            for (const bool bold : {false, true}) {
                // large, or the painter rounds each letter to whole pixels
                const double guess = text_width_guess(said, 100, bold), real = text_width(said, 100, bold);
                ASSERT_GE(guess, 0.98 * real - 30) << said;  // a letter past Latin
                ASSERT_LE(guess, 1.04 * real + 40) << said;  // kerning
                ++lines;
            }
    EXPECT_GT(lines, 20000);
}

TEST(Painter, DashesAndStrokesHaveTheirLength) {
    Drawing d;
    d.line({{10, 20.5}, {110, 20.5}}, {palette::black, 1, {}});
    d.line({{10, 40.5}, {110, 40.5}}, {palette::black, 1, {5, 5}});
    const Painted p(d, 120, 60);
    EXPECT_EQ(p.sum(0, 15, 120, 30), 100 * 255);
    EXPECT_EQ(p.sum(0, 35, 120, 50), 50 * 255);
}

TEST(Painter, ScreenAndPaperShowTheSamePicture) {
    const Order order = test::small_order();
    const LoadedArtById art = load_all_art(order, test::small_art(), nullptr);
    Drawing d;
    d.marks.emplace_back(ArtMark{"corner", {80, 0, 0, 80, 10, 10}, 1});
    d.marks.emplace_back(ArtMark{"corner", {-80, 0, 0, 80, 200, 10}, 1});
    ScreenArt screen(art);
    PrintArt paper(art, true);
    const Painted a(d, 220, 130, &screen), b(d, 220, 130, &paper);
    long off = 0;
    for (std::size_t i = 0; i < a.dark.size(); ++i) off += std::abs(a.dark[i] - b.dark[i]) > 90 ? 1 : 0;
    EXPECT_LT(off, 60);
    EXPECT_EQ(a.at(15, 60), 255) << "the upright of the L";
    EXPECT_EQ(a.at(195, 60), 255) << "and mirrored";
    EXPECT_EQ(a.at(60, 40), 0);
    Drawing missing;
    missing.marks.emplace_back(ArtMark{"gone", {80, 0, 0, 80, 10, 10}, 1});
    EXPECT_EQ(Painted(missing, 100, 100, &screen).sum(0, 0, 100, 100), 0) << "a picture that is not there leaves nothing";
}

}  // namespace TESTED
}  // namespace orthema
