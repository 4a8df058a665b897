// Pages and pixels, judged by other programs: pdfinfo, qpdf, pdftoppm, libpng, an XML parser.
#include "files/page_export.h"

#include <tiffio.h>

#include <atomic>
#include <cmath>
#include <cstring>
#include <regex>

#include "core/sheets/sheet_drawing.h"
#include "support/laid_order.h"

namespace orthema {
namespace TESTED {

using test::Canvas;
using test::Folder;

struct Laid : test::LaidOrder {
    SheetPlan plan;
    explicit Laid(MirrorBy mirror = MirrorBy::program) : LaidOrder("film-330", mirror), plan(sheet_plan(order, set)) {}
    [[nodiscard]] const Sheet& sheet() const { return plan.media.at(0).sheets.at(0); }
    [[nodiscard]] Drawing page() const { return sheet_page(order, sheet(), set); }
};

std::pair<double, double> page_size_mm(const std::string& pdf, int page = 1) {
    const std::string said = test::run("pdfinfo -f " + std::to_string(page) + " -l " + std::to_string(page) + " '" + pdf + "'").out;
    std::smatch m;
    if (!std::regex_search(said, m, std::regex("Page +[0-9]+ size: +([0-9.]+) x ([0-9.]+)")) &&
        !std::regex_search(said, m, std::regex("Page size: +([0-9.]+) x ([0-9.]+)")))
        return {};
    return {std::stod(m[1]) / 72 * 25.4, std::stod(m[2]) / 72 * 25.4};
}

/// The ink that a sheet should show, made from contours of the art's own paths: 80 × 100 units of an L.
bool should_be_ink(const Laid& l, Point page_mm) {
    const Polygon mark{{{0, 0}, {0.25, 0}, {0.25, 1}, {1, 1}, {1, 1.25}, {0, 1.25}}, {}};
    for (const PlacedCopy& c : l.sheet().copies) {
        const Transfer* t = find_transfer(l.set, c.transfer);
        // by hand: mirrored about the ink box's own middle, then turned, moved, and laid on the page
        Ring ring = mark.outer;
        for (Point& p : ring) {
            const double x = t->mirrored ? t->ink.x1 - p.x * t->width : t->ink.x0 + p.x * t->width;
            Point q{x, t->ink.y0 + p.y * t->width};
            for (int k = 0; k < c.turn / 90; ++k) q = {-q.y, q.x};
            q = q + Point{c.x, c.y};
            p = {l.sheet().width - q.y, q.x};
        }
        if (test::winds_around({ring, {}}, page_mm)) return true;
    }
    return false;
}

double share_that_agrees(const Laid& l, const Canvas& c, double dpi, const std::function<bool(const std::uint8_t*)>& is_ink) {
    long same = 0, all = 0;
    const double margin = find_medium(l.order, "film-330")->margin.mm();
    for (int y = int(margin / 25.4 * dpi) + 1; y < c.height; y += 3)
        for (int x = 0; x < c.width; x += 3) {
            ++all;
            same += is_ink(c.at(x, y)) == should_be_ink(l, {(x + 0.5) * 25.4 / dpi, (y + 0.5) * 25.4 / dpi}) ? 1 : 0;
        }
    return double(same) / double(all);
}

bool dark(const std::uint8_t* p) { return p[0] + p[1] + p[2] < 450; }

TEST(Pdf, IsCleanAndOfTheSheetsSize) {
    const Folder folder;
    const Laid l;
    const Drawing page = l.page();
    const std::string path = folder / "sheet.pdf";
    ASSERT_TRUE(write_pdf(path, {&page}, l.art, "Sheet"));
    const auto check = test::run("qpdf --check '" + path + "'");
    EXPECT_EQ(check.code, 0) << check.out;
    EXPECT_EQ(check.out.find("WARNING"), std::string::npos) << check.out;
    const auto [w, h] = page_size_mm(path);
    EXPECT_NEAR(w, l.sheet().width, 0.1);
    EXPECT_NEAR(h, l.sheet().length, 0.1);
}

TEST(Pdf, TheRenderedPageMatchesThePlacementMirroredOrNot) {
    for (const MirrorBy mirror : {MirrorBy::program, MirrorBy::nobody}) {
        const Folder folder;
        const Laid l(mirror);
        const Drawing page = l.page();
        ASSERT_TRUE(write_pdf(folder / "s.pdf", {&page}, l.art, "Sheet"));
        const Canvas shown = test::render_pdf(folder / "s.pdf", 1, 50);
        EXPECT_GT(share_that_agrees(l, shown, 50, dark), 0.985);
        // and would not, were it mirrored once more or once less
        const Laid wrong(mirror == MirrorBy::program ? MirrorBy::nobody : MirrorBy::program);
        EXPECT_LT(share_that_agrees(wrong, shown, 50, dark), 0.97);
    }
}

TEST(Pdf, VectorArtStaysVectorAndRepeatedArtIsStoredOnce) {
    const Folder folder;
    const Laid l;
    const Drawing page = l.page();
    ASSERT_TRUE(write_pdf(folder / "s.pdf", {&page}, l.art, "Sheet"));
    EXPECT_EQ(test::run("pdfimages -list '" + (folder / "s.pdf") + "' | tail -n +3").out, "") << "no pixels in it";
    // twenty copies more of the same drawing add only their placements
    Order raster = l.order;
    Canvas c(400, 400);
    std::mt19937 random(1);
    c.fill([](double x, double y) { return std::hypot(x - 200, y - 200) < 190; });
    for (std::size_t i = 0; i < c.rgba.size(); i += 4) c.rgba[i] = static_cast<std::uint8_t>(random());
    const auto loaded = load_art(std::make_shared<const std::string>(test::png_bytes(c)), "noise");
    const LoadedArtById art{{"noise", *loaded}};
    const auto pages = [&](int copies) {
        Drawing d;
        d.width = d.height = 500;
        for (int i = 0; i < copies; ++i)
            d.marks.emplace_back(ArtMark{"noise", {80, 0, 0, 80, 10.0 + 20 * (i % 5), 10.0 + 30 * (i / 5)}, 1});
        EXPECT_TRUE(write_pdf(folder / "n.pdf", {&d}, art, "Noise"));
        return std::filesystem::file_size(folder / "n.pdf");
    };
    const auto one = pages(1), twenty = pages(20);
    EXPECT_LT(twenty, one + one / 20);
    EXPECT_EQ(test::run("qpdf --check '" + (folder / "n.pdf") + "'").code, 0);
}

TEST(Pdf, StoppingLeavesNoFile) {
    const Folder folder;
    const Laid l;
    const Drawing page = l.page();
    const std::atomic<bool> cancelled = true;
    EXPECT_FALSE(write_pdf(folder / "s.pdf", {&page}, l.art, "Sheet", Task{{}, &cancelled}));
    EXPECT_FALSE(write_png(folder / "s.png", page, l.art, 100, Task{{}, &cancelled}));
    EXPECT_TRUE(std::filesystem::is_empty(folder.path()));
}

TEST(Pdf, AFolderThatIsNotThereIsSaid) {
    const Laid l;
    const Drawing page = l.page();
    const auto done = write_pdf("/no/such/folder/s.pdf", {&page}, l.art, "Sheet");
    ASSERT_FALSE(done);
    EXPECT_NE(done.sentence().find("cannot be written"), std::string::npos);
    EXPECT_FALSE(write_png("/no/such/folder/s.png", page, l.art, 100));
}

TEST(Png, HasItsSizeResolutionAndAlpha) {
    const Folder folder;
    const Laid l;
    ASSERT_TRUE(write_png(folder / "s.png", l.page(), l.art, 90));
    EXPECT_NEAR(test::png_dpi(folder / "s.png"), 90, 0.02);
    const Canvas c = test::read_png(folder / "s.png");
    EXPECT_EQ(c.width, std::lround(l.sheet().width / 25.4 * 90));
    EXPECT_EQ(c.height, std::lround(l.sheet().length / 25.4 * 90));
    EXPECT_GT(share_that_agrees(l, c, 90, [](const std::uint8_t* p) { return p[3] > 127; }), 0.995);
    EXPECT_EQ(c.at(c.width / 2, c.height - 3)[3], 0) << "film without ink is clear";
}

TEST(Tiff, HoldsTheSamePixelsAsThePng) {
    const Folder folder;
    const Laid l;
    ASSERT_TRUE(write_png(folder / "s.png", l.page(), l.art, 120));
    ASSERT_TRUE(write_tiff(folder / "s.tif", l.page(), l.art, 120));
    const Canvas c = test::read_png(folder / "s.png");
    TIFF* tiff = TIFFOpen((folder / "s.tif").c_str(), "r");
    ASSERT_NE(tiff, nullptr);
    std::uint32_t width = 0, height = 0;
    float dpi = 0;
    std::uint16_t extras = 0, *kind = nullptr;
    TIFFGetField(tiff, TIFFTAG_IMAGEWIDTH, &width);
    TIFFGetField(tiff, TIFFTAG_IMAGELENGTH, &height);
    TIFFGetField(tiff, TIFFTAG_XRESOLUTION, &dpi);
    TIFFGetField(tiff, TIFFTAG_EXTRASAMPLES, &extras, &kind);
    EXPECT_EQ(int(width), c.width);
    EXPECT_EQ(int(height), c.height);
    EXPECT_NEAR(dpi, 120, 1e-3);
    ASSERT_EQ(extras, 1);
    EXPECT_EQ(kind[0], EXTRASAMPLE_UNASSALPHA);
    std::vector<std::uint8_t> row(static_cast<std::size_t>(TIFFScanlineSize(tiff)));
    ASSERT_EQ(row.size(), static_cast<std::size_t>(c.width) * 4);
    long off = 0;
    for (int y = 0; y < c.height; ++y) {
        ASSERT_EQ(TIFFReadScanline(tiff, row.data(), static_cast<std::uint32_t>(y)), 1);
        off += std::memcmp(row.data(), c.at(0, y), row.size()) != 0;
    }
    EXPECT_EQ(off, 0);
    TIFFClose(tiff);
    std::atomic<bool> cancelled = true;
    EXPECT_FALSE(write_tiff(folder / "stopped.tif", l.page(), l.art, 120, Task{{}, &cancelled}));
    EXPECT_FALSE(std::filesystem::exists(folder / "stopped.tif"));
    EXPECT_FALSE(write_tiff("/no/such/folder/s.tif", l.page(), l.art, 120));
}

TEST(Png, BandsJoinWithoutASeam) {
    // tall enough for several bands: what is drawn must equal one drawing of the whole, line by line
    const Folder folder;
    Drawing d;
    d.width = 500;
    d.height = 700;
    for (int i = 0; i < 40; ++i) d.fill({disc({250 + 180 * std::cos(i * 0.7), 10.0 + 17 * i}, 30, 40)}, {0.2, 0.4, 0.6, 1});
    d.line({{0, 0}, {500, 700}}, {palette::ink, 2, {}});
    ASSERT_TRUE(write_png(folder / "tall.png", d, {}, 300));
    const Canvas tall = test::read_png(folder / "tall.png");
    EXPECT_GT(long(tall.width) * tall.height, 3l * (8 << 20)) << "or it is no test of bands";
    cairo_surface_t* s = cairo_image_surface_create(CAIRO_FORMAT_ARGB32, tall.width, tall.height);
    cairo_t* cr = cairo_create(s);
    cairo_scale(cr, 300 / 25.4, 300 / 25.4);
    paint(d, cr, nullptr);
    cairo_destroy(cr);
    cairo_surface_flush(s);
    long off = 0;
    for (int y = 0; y < tall.height; ++y) {
        const auto* row =
            reinterpret_cast<const std::uint32_t*>(cairo_image_surface_get_data(s) + std::ptrdiff_t(y) * cairo_image_surface_get_stride(s));
        for (int x = 0; x < tall.width; ++x) off += std::abs(int(row[x] >> 24) - int(tall.at(x, y)[3])) > 3 ? 1 : 0;
    }
    cairo_surface_destroy(s);
    EXPECT_EQ(off, 0);
}

TEST(CutLines, SvgIsWellFormedAndDxfHasTheSameContours) {
    const Folder folder;
    const Laid l;
    const Drawing page = l.page();
    const auto cuts = cut_path(cut_contours(l.sheet(), l.set));
    ASSERT_TRUE(write_cut_svg(folder / "c.svg", cuts, page.width, page.height, "A <b> & \"c\"", {{7, 7}, {50, 7}}));
    ASSERT_TRUE(write_cut_dxf(folder / "c.dxf", cuts, page.height, {{7, 7}}));
    ASSERT_TRUE(write_cut_plt(folder / "c.plt", cuts, page.height));
    EXPECT_EQ(test::run("xmllint --noout '" + (folder / "c.svg") + "'").code, 0);
    const std::string svg = test::slurp(folder / "c.svg"), dxf = test::slurp(folder / "c.dxf");
    EXPECT_NE(svg.find("mm\" height=\""), std::string::npos);
    // vertices of both, in order
    std::vector<Point> from_svg, from_dxf, from_plt;
    const std::regex step("[ML](-?[0-9.]+) (-?[0-9.]+)");
    const std::string cut_part = svg.substr(0, svg.find("class=\"register\""));
    for (std::sregex_iterator i(cut_part.begin(), cut_part.end(), step), end; i != end; ++i)
        from_svg.push_back({std::stod((*i)[1]), std::stod((*i)[2])});
    const std::regex vertex("VERTEX\n8\nCUT_(?:IN|OUT)SIDE\n10\n(-?[0-9.]+)\n20\n(-?[0-9.]+)");
    for (std::sregex_iterator i(dxf.begin(), dxf.end(), vertex), end; i != end; ++i)
        from_dxf.push_back({std::stod((*i)[1]), page.height - std::stod((*i)[2])});
    std::vector<Point> asked;
    for (const CutStep& c : cuts) asked.insert(asked.end(), c.ring.begin(), c.ring.end());
    // each ring ends where the blade came down: the point that PU went to comes again at the end
    const std::string plt = test::slurp(folder / "c.plt");
    const std::regex pair("(-?[0-9]+),(-?[0-9]+)(;PU;)?");
    for (std::sregex_iterator i(plt.begin(), plt.end(), pair), end; i != end; ++i)
        if (!(*i)[3].matched) from_plt.push_back({std::stod((*i)[1]) / 40, page.height - std::stod((*i)[2]) / 40});
    ASSERT_EQ(from_plt.size(), asked.size());
    ASSERT_EQ(from_svg.size(), asked.size());
    ASSERT_EQ(from_dxf.size(), asked.size());
    for (std::size_t i = 0; i < asked.size(); ++i) {
        EXPECT_NEAR(norm(from_svg[i] - asked[i]), 0, 0.002);
        EXPECT_NEAR(norm(from_dxf[i] - asked[i]), 0, 0.002);
        EXPECT_NEAR(norm(from_plt[i] - asked[i]), 0, 0.02) << "half of 1/40 mm either way";
    }
    EXPECT_NE(svg.find("<circle class=\"register\" cx=\"50\" cy=\"7\" r=\"3\"/>"), std::string::npos);
    EXPECT_NE(dxf.find("CIRCLE\n8\nREGISTER\n10\n7\n20\n" + mm_text(page.height - 7, 4)), std::string::npos);
    EXPECT_NE(dxf.find("$INSUNITS\n70\n4"), std::string::npos) << "the DXF says that it is in millimetres";
    EXPECT_EQ(dxf.substr(dxf.size() - 6), "0\nEOF\n");
}

TEST(CutLines, StayClearOfTheInkOnThePage) {
    const Laid l;
    for (const Polygon& p : cut_contours(l.sheet(), l.set))
        for (std::size_t i = 0; i < p.outer.size(); ++i)
            EXPECT_FALSE(should_be_ink(l, (p.outer[i] + p.outer[(i + 1) % p.outer.size()]) * 0.5));
}

}  // namespace TESTED
}  // namespace orthema
