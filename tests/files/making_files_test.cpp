// What making writes: order files, clipped pictures, mirror through to the pixels, wraps bent, white apart.
#include <gtest/gtest.h>

#include <cmath>

#include "reader/reader.h"
#include "core/sheets/sheet_drawing.h"
#include "core/transfers/choices.h"
#include "files/export_order.h"
#include "files/library.h"
#include "files/order_file.h"
#include "files/order_json.h"
#include "files/page_export.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

using test::Canvas;
using test::Folder;

TEST(MakingFiles, EverythingAboutMakingComesBackFromJson) {
    Order order = test::small_order();
    adopt_library(order, starting_library());
    Making& m = order.decorations[0].making;
    m.layers = {{"print", "", true, {}, palette::white, {}},
                {"navy", "vinyl-navy", false, Colour{0.2, 0.4, 0.6, 1}, Colour{0, 0, 1, 1}, Length::from_mm(-0.5)}};
    m.corner = Corner::square;
    m.fill_holes = Length::from_mm(3);
    m.bridges = m.split = m.two_sided = m.cover = true;
    m.overlap = Length::from_mm(0.7);
    m.white = Length::from_mm(0.25);
    m.shrink = 1.5;
    m.split_join = Join::butt;
    m.seam_points = {{false, 1, {0.25, 0.75}}};
    m.wrap_join = Join::lap;
    m.wrap_lap = Length::from_mm(-2);
    m.seam_at = Length::from_mm(12);
    m.bleed = Length::from_mm(5);
    m.jig = "jig-coasters";
    order.jigs[0].assigned = {"", order.decorations[0].id};
    order.art[0].clip = ArtClip{"HILL", false, {}, {}, Face::front, {}};
    order.art[0].subject = {{0.25, 0.5}, {0.5, 0.75}};
    const auto back = order_from_json(to_json(order));
    ASSERT_TRUE(back) << back.sentence();
    EXPECT_EQ(back->decorations[0].making.layers, m.layers);
    EXPECT_EQ(*back, order);
    auto wrong = to_json(order);
    wrong["decorations"][0]["making"]["split_join"] = "glue";
    EXPECT_NE(order_from_json(wrong).sentence().find("making.split_join"), std::string::npos);
    wrong = to_json(order);
    wrong["jigs"][0]["rows"] = 0;
    EXPECT_FALSE(order_from_json(wrong));
}

/// Laid out on its medium, and exported; the first sheet's pixels.
Canvas sheet_pixels(const Folder& folder, Order order, const std::string& medium) {
    order.decorations[0] = with_medium(order, order.decorations[0], medium);
    order.decorations[0].making.layers.clear();
    order.decorations[0].sizing.school = SizingSchool::one_size;
    order.decorations[0].sizing.base_width = Length::from_mm(120);
    order.lines = {{"adult-tee", "ash", "M", 1, {}}};
    const LoadedArtById art = load_all_art(order, test::small_art(), nullptr);
    const ArtFactsById facts = facts_of(art);
    const FitPlan plan = fit(order, facts);
    const TransferSet set = transfers(order, plan, facts);
    EXPECT_EQ(set.transfers.size(), 1u);
    Sheet sheet;
    sheet.medium = medium;
    sheet.width = 200;
    sheet.length = 200;
    sheet.copies = {{set.transfers[0].id, 0, 0, 270, 20, 180, false}};  // upright on the page
    Drawing page = sheet_page(order, sheet, set);
    std::erase_if(page.marks, [](const Mark& m) { return !std::holds_alternative<ArtMark>(m); });
    const std::string path = folder / "sheet.png";
    EXPECT_TRUE(write_png(path, page, art, 40, {}));
    return test::read_png(path);
}

TEST(MakingFiles, MirrorParityHoldsThroughToThePixels) {
    // The mark is an L: its upright stroke is on the left where it reads, on the right where it is mirrored.
    Order order = test::small_order();
    adopt_library(order, starting_library());
    for (const Medium& medium : order.media) {
        const Method& method = *find_method(order, medium.method);
        if (method.flat_colours) continue;  // cut, not printed
        const Folder folder;
        const Canvas c = sheet_pixels(folder, order, medium.id);
        int x0 = c.width, x1 = 0;
        long left = 0, right = 0;
        for (int y = 0; y < c.height; ++y)
            for (int x = 0; x < c.width; ++x)
                if (c.at(x, y)[3] > 127) {
                    x0 = std::min(x0, x);
                    x1 = std::max(x1, x);
                }
        for (int y = 0; y < c.height; ++y)
            for (int x = x0; x <= x1; ++x)
                if (c.at(x, y)[3] > 127) ++(2 * x < x0 + x1 ? left : right);
        ASSERT_GT(left + right, 500) << medium.name;
        const int in_file = right > left ? 1 : 0;
        const int by_software = medium.mirror == MirrorBy::printer_software ? 1 : 0;
        const int through = method.read_through ? 1 : 0;
        EXPECT_EQ((in_file + by_software + through) % 2, 0) << medium.name << " would come out mirrored";
    }
}

TEST(MakingFiles, ABentPictureLiesWhereTheSectorSays) {
    // four dots in the corners of a picture, bent on to a sector and looked up in the pixels
    Canvas c(200, 100);
    const auto dots = std::vector<Point>{{20, 20}, {180, 20}, {20, 80}, {180, 80}};
    c.fill([&](double x, double y) {
        for (const Point& d : dots)
            if (std::hypot(x - d.x, y - d.y) < 8) return true;
        return x < 1 || x > 199 || y < 1 || y > 99;  // the ink box is the whole canvas
    });
    Order order;
    Art art;
    art.id = "dots";
    const auto loaded = load_art(std::make_shared<const std::string>(test::png_bytes(c)), "dots.png");
    ASSERT_TRUE(loaded);
    const LoadedArtById all{{"dots", *loaded}};
    const auto sector = unrolled({62, 73, 170});
    ASSERT_TRUE(sector);
    Drawing page;
    page.width = 260;
    page.height = 220;
    ArtMark mark{"dots", {150, 0, 0, 150, -75, 40}, 1};
    mark.bend = *sector;
    mark.bent = Affine::shift(130, 20);
    page.marks.emplace_back(mark);
    const Folder folder;
    const double dpi = 254;  // 10 pixels to the mm
    for (const bool pdf : {false, true}) {
        if (pdf)
            ASSERT_TRUE(write_pdf(folder / "p.pdf", {&page}, all, "t"));
        else
            ASSERT_TRUE(write_png(folder / "p.png", page, all, dpi));
        const Canvas out = pdf ? test::render_pdf(folder / "p.pdf", 1, dpi) : test::read_png(folder / "p.png");
        for (const Point& d : dots) {
            const Point wall{-75 + d.x / 200 * 150, 40 + d.y / 200 * 150};
            const Point want = (sector->bent(wall) + Point{130, 20}) * 10;
            double sum = 0, sx = 0, sy = 0;
            for (int y = static_cast<int>(want.y) - 90; y < want.y + 90; ++y)
                for (int x = static_cast<int>(want.x) - 90; x < want.x + 90; ++x) {
                    const auto* p = out.at(x, y);
                    const double ink = pdf ? (255 - p[1]) : p[3];
                    sum += ink;
                    sx += ink * (x + 0.5);
                    sy += ink * (y + 0.5);
                }
            ASSERT_GT(sum, 0);
            EXPECT_NEAR(sx / sum, want.x, 1.6) << "a tenth of a millimetre and a half";
            EXPECT_NEAR(sy / sum, want.y, 1.6);
        }
    }
}

TEST(MakingFiles, FlatVectorArtStaysOutlinesOnATaperedWall) {
    // strokes of each cap, a curve, a hole, a clip and a letter-like use; against the same art as pixels
    const std::string flat = R"svg(<svg xmlns="http://www.w3.org/2000/svg" width="300" height="150">
      <defs><clipPath id="c"><circle cx="230" cy="75" r="40"/></clipPath></defs>
      <rect width="300" height="150" fill="#e8e0c8"/>
      <path d="M20 20 C 90 -30 120 120 150 75" fill="none" stroke="#aa3322" stroke-width="9" stroke-linecap="round"/>
      <path d="M20 130 L80 100 L140 130" fill="none" stroke="#224488" stroke-width="7" transform="translate(4 -2) scale(1.1)"/>
      <path fill-rule="evenodd" fill="#2f7f79" d="M160 20h40v40h-40zM170 30v20h20v-20z"/>
      <g clip-path="url(#c)"><rect x="200" y="60" width="90" height="80" fill="#113355"/></g></svg>)svg";
    const std::string shaded = R"svg(<svg xmlns="http://www.w3.org/2000/svg" width="300" height="150">
      <linearGradient id="g"><stop offset="0" stop-color="#fff"/><stop offset="1" stop-color="#000"/></linearGradient>
      <rect width="300" height="150" fill="url(#g)"/></svg>)svg";
    const auto sector = unrolled({62, 73, 170});
    ASSERT_TRUE(sector);
    Drawing page;
    page.width = 260;
    page.height = 220;
    ArtMark mark{"art", {150, 0, 0, 150, -75, 40}, 1};
    mark.bend = *sector;
    mark.bent = Affine::shift(130, 20);
    page.marks.emplace_back(mark);
    const Folder folder;
    for (const bool plain : {true, false}) {
        const auto loaded = load_art(std::make_shared<const std::string>(plain ? flat : shaded), "art.svg");
        ASSERT_TRUE(loaded) << loaded.sentence();
        EXPECT_EQ((*reader::look((*loaded)->bytes, "art.svg"))->flat_shapes().has_value(), plain);
        const LoadedArtById all{{"art", *loaded}};
        ASSERT_TRUE(write_pdf(folder / "p.pdf", {&page}, all, "t"));
        EXPECT_EQ(test::run("pdfimages -list '" + (folder / "p.pdf") + "' | tail -n +3").out.empty(), plain);
        ASSERT_TRUE(write_png(folder / "p.png", page, all, 150));
        const Canvas vector = test::render_pdf(folder / "p.pdf", 1, 150), pixels = test::read_png(folder / "p.png");
        int differ = 0, inked = 0;
        for (int y = 0; y < std::min(vector.height, pixels.height); ++y)
            for (int x = 0; x < std::min(vector.width, pixels.width); ++x) {
                const auto *v = vector.at(x, y), *p = pixels.at(x, y);
                inked += p[3] > 127 ? 1 : 0;
                for (int k = 0; k < 3; ++k)
                    if (std::abs(v[k] - (p[k] * p[3] + 255 * (255 - p[3])) / 255) > 90) {
                        ++differ;
                        break;
                    }
            }
        ASSERT_GT(inked, 100000);
        EXPECT_LT(differ, inked / 200) << "only pixels on edges may differ";
    }
}

TEST(MakingFiles, LettersAreFilledWithThePictureUnstretched) {
    // a picture with a round subject off its middle
    Canvas c(600, 400);
    c.fill([](double, double) { return true; }, 90, 140, 190);
    c.fill([](double x, double y) { return std::hypot(x - 400, y - 150) < 20; }, 200, 60, 40);
    Order order;
    Art art;
    art.id = art.name = "photo";
    const auto whole = load_art(std::make_shared<const std::string>(test::png_bytes(c)), "photo.png");
    ASSERT_TRUE(whole);
    art.clip = ArtClip{"O", true, {}, {}, Face::front, {}};
    const Region o = letter_shapes("O", true);
    ASSERT_EQ(o.size(), 1u);
    ASSERT_EQ(o[0].holes.size(), 1u);
    EXPECT_NEAR(bounds(letter_shapes("H", true)).height(), 1, 1e-6) << "the unit is the cap height";
    const auto clipped = clipped_art(order, art, *whole);
    ASSERT_TRUE(clipped) << clipped.sentence();
    const ArtFacts& f = (*clipped)->facts;
    EXPECT_NEAR(f.aspect, bounds(o).height() / bounds(o).width(), 0.02);
    ASSERT_EQ(f.outline.size(), 1u);
    EXPECT_EQ(f.outline[0].holes.size(), 1u) << "the letter's counter stays open";
    // a subject is kept inside, and round things stay round
    art.clip->word = "I";
    art.subject = {{375.0 / 600, 150.0 / 600}, {425.0 / 600, 150.0 / 600}, {400.0 / 600, 125.0 / 600}, {400.0 / 600, 175.0 / 600}};
    const auto in_i = clipped_art(order, art, *whole);
    ASSERT_TRUE(in_i) << in_i.sentence();
    Drawing page;
    page.width = 60;
    page.height = 60 * (*in_i)->facts.aspect;
    page.marks.emplace_back(ArtMark{"photo", {60, 0, 0, 60, 0, 0}, 1});
    const Folder folder;
    const LoadedArtById all{{"photo", *in_i}};
    ASSERT_TRUE(write_png(folder / "i.png", page, all, 200));
    const Canvas out = test::read_png(folder / "i.png");
    int x0 = out.width, x1 = -1, y0 = out.height, y1 = -1;
    for (int y = 0; y < out.height; ++y)
        for (int x = 0; x < out.width; ++x)
            if (out.at(x, y)[3] > 200 && out.at(x, y)[0] > 170 && out.at(x, y)[1] < 100) {
                x0 = std::min(x0, x);
                x1 = std::max(x1, x);
                y0 = std::min(y0, y);
                y1 = std::max(y1, y);
            }
    ASSERT_GT(x1, x0) << "the subject shows";
    EXPECT_NEAR(x1 - x0, y1 - y0, 4) << "and is as wide as it is tall";
    // what cannot be is a sentence
    art.subject = {{0, 0}, {1, 0.66}};
    EXPECT_FALSE(clipped_art(order, art, *whole));
    art.subject.clear();
    art.clip->word = " ";
    EXPECT_NE(clipped_art(order, art, *whole).sentence().find("no letters"), std::string::npos);
    Canvas dot(3, 3);
    dot.fill([](double, double) { return true; });
    const auto tiny = load_art(std::make_shared<const std::string>(test::png_bytes(dot)), "dot.png");
    art.clip->word = "WWWWW";
    EXPECT_NE(clipped_art(order, art, *tiny).sentence().find("smaller than its shape"), std::string::npos);
}

TEST(MakingFiles, TheWhiteIsAPictureOfItsOwnAndHandlesHaveTemplates) {
    const Folder folder;
    Order order = test::small_order();
    adopt_library(order, starting_library());
    order.decorations[0].medium = "film-330";
    order.decorations[0].making.white = Length::from_mm(0.4);
    Decoration mug = order.decorations[0];
    mug.id = "mug";
    mug.run = {"enamel-mug", "white"};
    mug.location = Location::wrap_full;
    mug.making = {};
    order.lines.push_back({"enamel-mug", "white", "350 ml", 2, {}});
    mug = new_decoration(order, mug.run, Location::wrap_full, order.art[0]);
    mug.medium = "sublimation-a3";
    order.decorations.push_back(mug);
    const std::string path = folder / "o.orthema";
    ASSERT_TRUE(save_order(path, order, test::small_art()));
    const auto settled = test::run(std::string("'") + ORTHEMA_CLI + "' settle '" + path + "' --out '" + path + "' --seconds 0");
    ASSERT_EQ(settled.code, 0) << settled.out;
    const auto package = open_order(path);
    ASSERT_TRUE(package);
    ExportChoice choice;
    choice.dpi = 50;
    choice.tables = choice.cut_lines = false;
    const auto report = export_order(folder / "out", package->order, Shop{}, load_all_art(package->order, package->art, nullptr), choice);
    ASSERT_TRUE(report) << report.sentence();
    const auto written = [&](const std::string& part) {
        return std::any_of(report->files.begin(), report->files.end(),
                           [&](const std::string& f) { return f.find(part) != std::string::npos; });
    };
    std::string names;
    for (const std::string& f : report->files) names += f + "\n";
    EXPECT_TRUE(written("film-roll-330") && written("_white.png") && written("_white.pdf") && written("handle-templates.pdf")) << names;
    const Canvas art = test::read_png(folder / "out/small-order_film-roll-330_sheet-1.png"),
                 white = test::read_png(folder / "out/small-order_film-roll-330_sheet-1_white.png");
    ASSERT_EQ(art.width, white.width);
    ASSERT_EQ(art.height, white.height);
    EXPECT_LT(white.count(128), art.count(128));
    EXPECT_GT(white.count(128), art.count(128) / 2);
    EXPECT_EQ(test::run("qpdf --check '" + (folder / "out/small-order_handle-templates.pdf") + "'").code, 0);
}

}  // namespace TESTED
}  // namespace orthema
