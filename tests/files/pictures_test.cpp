// Pictures of every kind: the same ink whatever the file, and a sentence for what is broken.
#include <cairo-pdf.h>
#include <cairo.h>
#include <tiffio.h>
#include <webp/encode.h>
// jpeglib wants stdio first
#include <cstdio>
#include <jpeglib.h>

#include <cmath>
#include <cstring>

#include "files/art_file.h"
#include "reader/pixels.h"
#include "reader/reader.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

using test::Canvas;
using test::Folder;

Canvas badge() {
    Canvas c(160, 120);
    c.fill([](double x, double y) { return std::hypot(x - 80, y - 60) < 45 && std::hypot(x - 95, y - 52) > 30; }, 30, 120, 110);
    c.fill([](double x, double y) { return x > 20 && x < 30 && y > 10 && y < 100; }, 190, 60, 40);
    return c;
}

Result<LoadedArtPtr> load(const std::string& bytes, const std::string& name = "picture") {
    return load_art(std::make_shared<const std::string>(bytes), name);
}

std::string tiff_bytes(const Canvas& c, const std::string& path) {
    TIFF* t = TIFFOpen(path.c_str(), "w");
    TIFFSetField(t, TIFFTAG_IMAGEWIDTH, c.width);
    TIFFSetField(t, TIFFTAG_IMAGELENGTH, c.height);
    TIFFSetField(t, TIFFTAG_SAMPLESPERPIXEL, 4);
    TIFFSetField(t, TIFFTAG_BITSPERSAMPLE, 8);
    TIFFSetField(t, TIFFTAG_PHOTOMETRIC, PHOTOMETRIC_RGB);
    TIFFSetField(t, TIFFTAG_PLANARCONFIG, PLANARCONFIG_CONTIG);
    const std::uint16_t extra = EXTRASAMPLE_UNASSALPHA;
    TIFFSetField(t, TIFFTAG_EXTRASAMPLES, 1, &extra);
    for (int y = 0; y < c.height; ++y) TIFFWriteScanline(t, const_cast<std::uint8_t*>(c.at(0, y)), static_cast<std::uint32_t>(y), 0);
    TIFFClose(t);
    return test::slurp(path);
}

std::string webp_bytes(const Canvas& c) {
    std::uint8_t* out = nullptr;
    const std::size_t n = WebPEncodeLosslessRGBA(c.rgba.data(), c.width, c.height, c.width * 4, &out);
    std::string bytes(reinterpret_cast<char*>(out), n);
    WebPFree(out);
    return bytes;
}

std::string jpeg_bytes(const Canvas& c) {
    jpeg_compress_struct j;
    jpeg_error_mgr e;
    j.err = jpeg_std_error(&e);
    jpeg_create_compress(&j);
    unsigned char* out = nullptr;
    unsigned long size = 0;
    jpeg_mem_dest(&j, &out, &size);
    j.image_width = static_cast<JDIMENSION>(c.width);
    j.image_height = static_cast<JDIMENSION>(c.height);
    j.input_components = 3;
    j.in_color_space = JCS_RGB;
    jpeg_set_defaults(&j);
    jpeg_set_quality(&j, 95, TRUE);
    jpeg_start_compress(&j, TRUE);
    for (int y = 0; y < c.height; ++y) {
        std::vector<std::uint8_t> row;
        for (int x = 0; x < c.width; ++x) row.insert(row.end(), c.at(x, y), c.at(x, y) + 3);
        JSAMPROW rows[1] = {row.data()};
        jpeg_write_scanlines(&j, rows, 1);
    }
    jpeg_finish_compress(&j);
    std::string bytes(reinterpret_cast<char*>(out), size);
    jpeg_destroy_compress(&j);
    std::free(out);
    return bytes;
}

TEST(Pictures, LosslessKindsGiveTheSamePixelsAndFacts) {
    const Folder folder;
    const Canvas c = badge();
    const std::pair<ArtKind, std::string> files[] = {
        {ArtKind::png, test::png_bytes(c)}, {ArtKind::tiff, tiff_bytes(c, folder / "t")}, {ArtKind::webp, webp_bytes(c)}};
    const ArtFacts plain = look_at(c.view(), false);
    for (const auto& [kind, bytes] : files) {
        SCOPED_TRACE(kind_key(kind));
        EXPECT_EQ(kind_of(bytes), kind);
        const auto pixels = reader::decode_pixels(kind, bytes, "p");
        ASSERT_TRUE(pixels);
        for (std::size_t i = 0; i < c.rgba.size(); i += 4) {
            ASSERT_EQ(pixels->rgba[i + 3], c.rgba[i + 3]);
            if (c.rgba[i + 3] != 0) ASSERT_EQ(std::memcmp(&pixels->rgba[i], &c.rgba[i], 3), 0);
        }
        const auto art = load(bytes);
        ASSERT_TRUE(art);
        EXPECT_EQ((*art)->facts.ink_px, plain.ink_px);
        EXPECT_NEAR(area((*art)->facts.outline), area(plain.outline), 1e-12);
        EXPECT_FALSE((*art)->screen.empty());
    }
}

TEST(Pictures, JpegHasNoAlphaSoItsBackgroundIsSeen) {
    Canvas c(80, 60);
    c.fill([](double, double) { return true; }, 255, 255, 255);
    c.fill([](double x, double y) { return std::hypot(x - 40, y - 30) < 20; }, 20, 60, 120);
    const auto art = load(jpeg_bytes(c));
    ASSERT_TRUE(art) << art.sentence();
    EXPECT_EQ((*art)->kind, ArtKind::jpeg);
    EXPECT_TRUE((*art)->facts.flat_background);
    EXPECT_EQ((*art)->facts.ink_px, (Rect{0, 0, 80, 60}));
}

TEST(Pictures, SvgComesOutAsLibrsvgDrawsIt) {
    const Folder folder;
    const std::string svg =
        "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 200 160' width='200' height='160'><defs>"
        "<linearGradient id='g'><stop offset='0' stop-color='#d02020'/><stop offset='1' stop-color='#2020d0' "
        "stop-opacity='0.4'/></linearGradient>"
        "<clipPath id='c'><circle cx='80' cy='80' r='60'/></clipPath>"
        "<mask id='m'><rect width='200' height='160' fill='white'/><circle cx='100' cy='80' r='20' fill='black'/></mask></defs>"
        "<g clip-path='url(#c)' mask='url(#m)'><rect x='10' y='10' width='180' height='140' fill='url(#g)'/></g>"
        "<text x='120' y='40' font-family='sans-serif' font-size='24'>Kite</text></svg>";
    test::spill(folder / "a.svg", svg);
    const auto art = reader::look(std::make_shared<const std::string>(svg), "drawing");
    ASSERT_TRUE(art) << art.sentence();
    const ArtFacts& f = (*art)->facts;
    EXPECT_TRUE(f.vector);
    ASSERT_EQ(test::run("rsvg-convert -w " + std::to_string(f.width_px) + " -h " + std::to_string(f.height_px) + " '" + (folder / "a.svg") +
                        "' -o '" + (folder / "a.png") + "'")
                  .code,
              0);
    const Canvas theirs = test::read_png(folder / "a.png");
    ASSERT_EQ(theirs.width, f.width_px);
    // drawn here through cairo and compared pixel by pixel
    cairo_surface_t* s = cairo_image_surface_create(CAIRO_FORMAT_ARGB32, f.width_px, f.height_px);
    cairo_t* cr = cairo_create(s);
    (*art)->draw(cr);
    cairo_destroy(cr);
    cairo_surface_flush(s);
    long off = 0;
    for (int y = 0; y < f.height_px; ++y) {
        const auto* row = reinterpret_cast<const std::uint32_t*>(cairo_image_surface_get_data(s) + y * cairo_image_surface_get_stride(s));
        for (int x = 0; x < f.width_px; ++x) off += std::abs(int(row[x] >> 24) - int(theirs.at(x, y)[3])) > 48 ? 1 : 0;
    }
    cairo_surface_destroy(s);
    EXPECT_LT(off, long(f.width_px) * f.height_px / 2000);
    const ArtFacts exact = look_at(theirs.view(), true);
    EXPECT_EQ(f.ink_px, exact.ink_px);
    EXPECT_EQ(f.outline.size(), exact.outline.size());
}

TEST(Pictures, PdfStaysVectorAndHasItsInkWhereItWasDrawn) {
    const Folder folder;
    cairo_surface_t* s = cairo_pdf_surface_create((folder / "a.pdf").c_str(), 200, 100);
    cairo_t* cr = cairo_create(s);
    cairo_rectangle(cr, 50, 20, 100, 40);
    cairo_fill(cr);
    cairo_destroy(cr);
    cairo_surface_destroy(s);
    const auto art = load(test::slurp(folder / "a.pdf"));
    ASSERT_TRUE(art) << art.sentence();
    const ArtFacts& f = (*art)->facts;
    EXPECT_TRUE(f.vector);
    const double k = f.width_px / 200.0;
    EXPECT_NEAR(f.ink_px.x0, 50 * k, 1);
    EXPECT_NEAR(f.ink_px.x1, 150 * k, 1);
    EXPECT_NEAR(f.ink_px.y0, 20 * k, 1);
    EXPECT_NEAR(f.aspect, 0.4, 0.003);
}

TEST(Pictures, AreKnownByContentNotByName) {
    EXPECT_TRUE(load(test::png_bytes(badge()), "lying.pdf"));
    EXPECT_FALSE(load("just some words", "words.png"));
    EXPECT_FALSE(load("", "empty.svg"));
    EXPECT_FALSE(load("MZ\x90 a program", "x.tiff"));
    for (const ArtKind kind : {ArtKind::png, ArtKind::jpeg, ArtKind::tiff, ArtKind::webp, ArtKind::svg, ArtKind::pdf})
        EXPECT_EQ(kind_from_key(kind_key(kind)), kind);
}

TEST(Pictures, TruncatedOnesAreRefusedWithASentence) {
    const Folder folder;
    const Canvas c = badge();
    for (const std::string& bytes :
         {test::png_bytes(c), tiff_bytes(c, folder / "t"), webp_bytes(c), jpeg_bytes(c), std::string(test::corner_svg)})
        for (const double share : {0.15, 0.5, 0.9}) {
            const auto art = load(bytes.substr(0, static_cast<std::size_t>(double(bytes.size()) * share)), "cut");
            ASSERT_FALSE(art) << bytes.substr(0, 4) << share;
            EXPECT_EQ(art.sentence().rfind("cut", 0), 0u) << art.sentence();
        }
}

TEST(Pictures, DamagedBytesNeverCrash) {
    const Folder folder;
    const Canvas c = badge();
    int refused = 0;
    for (const std::string& bytes : {test::png_bytes(c), tiff_bytes(c, folder / "t"), webp_bytes(c), jpeg_bytes(c),
                                     test::slurp(test::source("demo/src/wind-rose.svg"))})
        for (std::size_t at = 8; at < bytes.size(); at += 1 + bytes.size() / 40) {
            std::string spoiled = bytes;
            spoiled[at] = static_cast<char>(~spoiled[at]);
            const auto art = load(spoiled, "spoiled");
            refused += art ? 0 : 1;
            if (!art) EXPECT_FALSE(art.sentence().empty());
        }
    EXPECT_GT(refused, 30);
}

TEST(Pictures, HugeDimensionsAreRefusedBeforeTheyAreRead) {
    // a PNG header that promises 100,000 × 100,000 pixels, its checksum made right by libpng's own crc
    std::string png = test::png_bytes(Canvas(4, 4));
    const auto put = [&](std::size_t at, std::uint32_t v) {
        for (int k = 0; k < 4; ++k) png[at + std::size_t(k)] = static_cast<char>(v >> (24 - 8 * k));
    };
    put(16, 100000);
    put(20, 100000);
    std::uint32_t crc = 0xffffffffu;
    for (std::size_t i = 12; i < 29; ++i) {
        crc ^= static_cast<unsigned char>(png[i]);
        for (int k = 0; k < 8; ++k) crc = crc & 1 ? 0xedb88320u ^ (crc >> 1) : crc >> 1;
    }
    put(29, ~crc);
    const auto art = load(png, "huge.png");
    ASSERT_FALSE(art);
    EXPECT_NE(art.sentence().find("100000"), std::string::npos) << art.sentence();
    EXPECT_FALSE(load("<svg xmlns='http://www.w3.org/2000/svg' width='1e12' height='1e12'/>", "vast.svg"));
    EXPECT_FALSE(load("<svg xmlns='http://www.w3.org/2000/svg' width='100000' height='1'/>", "thread.svg"));
}

TEST(Pictures, AMissingFontIsSaid) {
    const auto art = load(
        "<svg xmlns='http://www.w3.org/2000/svg' width='200' height='60'><text x='5' y='40' font-family='Nowhere Grotesk 9000' "
        "font-size='30'>Fair</text></svg>");
    ASSERT_TRUE(art);
    EXPECT_EQ((*art)->facts.missing_fonts, (std::vector<std::string>{"Nowhere Grotesk 9000"}));
    const auto endless = load("<svg xmlns='http://www.w3.org/2000/svg' width='200' height='60'><text x='5' y='40' font-family='" +
                                  std::string(200000, 'f') + "'>kite</text></svg>",
                              "endless.svg");
    EXPECT_TRUE(endless || !endless.sentence().empty()) << "a name without end is no reason to fall over";
    const Findings said = art_findings((*art)->facts, "a", "A", std::nullopt);
    EXPECT_TRUE(std::any_of(said.begin(), said.end(), [](const Finding& f) { return f.code == "art-font-missing"; }));
}

}  // namespace TESTED
}  // namespace orthema
