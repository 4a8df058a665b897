// Pictures of every kind: the same ink whatever the file, and a sentence for what is broken.
#include <cairo-pdf.h>
#include <cairo.h>
#include <tiffio.h>
#include <webp/encode.h>
#include <zlib.h>
#include <lcms2.h>
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

std::string profile_bytes(cmsHPROFILE profile) {
    cmsUInt32Number size = 0;
    cmsSaveProfileToMem(profile, nullptr, &size);
    std::string out(size, '\0');
    cmsSaveProfileToMem(profile, out.data(), &size);
    cmsCloseProfile(profile);
    return out;
}

/// Colours of sRGB whose figures are of light itself.
std::string linear_profile() {
    const cmsCIExyY white{0.3127, 0.3290, 1};
    const cmsCIExyYTRIPLE primaries{{0.64, 0.33, 1}, {0.30, 0.60, 1}, {0.15, 0.06, 1}};
    cmsToneCurve* straight = cmsBuildGamma(nullptr, 1.0);
    cmsToneCurve* const curves[3] = {straight, straight, straight};
    const std::string out = profile_bytes(cmsCreateRGBProfile(&white, &primaries, curves));
    cmsFreeToneCurve(straight);
    return out;
}

std::string with_chunk_after_head(const std::string& png, const std::string& name, const std::string& data) {
    const auto number = [](std::uint32_t v) { return std::string{char(v >> 24), char(v >> 16), char(v >> 8), char(v)}; };
    const std::string body = name + data;
    const auto crc = static_cast<std::uint32_t>(::crc32(0, reinterpret_cast<const Bytef*>(body.data()), static_cast<uInt>(body.size())));
    return png.substr(0, 33) + number(static_cast<std::uint32_t>(data.size())) + body + number(crc) + png.substr(33);
}

TEST(Pictures, ColoursComeOutAsTheirProfileMeansThem) {
    Canvas c(40, 30);
    c.fill([](double, double) { return true; }, 55, 128, 13, 200);
    const std::string profile = linear_profile();
    std::string packed(compressBound(profile.size()), '\0');
    uLongf size = packed.size();
    ASSERT_EQ(compress(reinterpret_cast<Bytef*>(packed.data()), &size, reinterpret_cast<const Bytef*>(profile.data()), profile.size()),
              Z_OK);
    const std::string chunk = std::string("light\0\0", 7) + packed.substr(0, size);
    // by hand: 255 · (1.055 · (v / 255)^(1 / 2.4) − 0.055)
    const auto hand = [](int v) { return std::round(255 * (1.055 * std::pow(v / 255.0, 1 / 2.4) - 0.055)); };
    const auto png = reader::decode_pixels(ArtKind::png, with_chunk_after_head(test::png_bytes(c), "iCCP", chunk), "it");
    ASSERT_TRUE(png) << png.sentence();
    for (const auto& [k, v] : {std::pair{0, 55}, {1, 128}, {2, 13}}) EXPECT_NEAR(png->rgba[std::size_t(k)], hand(v), 1) << v;
    EXPECT_EQ(png->rgba[3], 200) << "alpha stays";
    // the same in a JPEG, in two parts
    const std::string jpeg = jpeg_bytes(c);
    const auto segment = [](int n, const std::string& part) {
        const std::size_t length = part.size() + 16;
        return std::string("\xff\xe2") + char(length >> 8) + char(length & 255) + std::string("ICC_PROFILE\0", 12) + char(n) + char(2) +
               part;
    };
    const std::string both = segment(1, profile.substr(0, 100)) + segment(2, profile.substr(100));
    const auto held = reader::decode_pixels(ArtKind::jpeg, jpeg.substr(0, 2) + both + jpeg.substr(2), "it");
    ASSERT_TRUE(held) << held.sentence();
    for (const auto& [k, v] : {std::pair{0, 55}, {1, 128}, {2, 13}}) EXPECT_NEAR(held->rgba[std::size_t(k)], hand(v), 4) << v;
    EXPECT_TRUE(held->turned) << "a PDF must not hold the file's own bytes";
    // a profile that is sRGB, cut short, or of nothing changes nothing
    for (const std::string& other : {profile_bytes(cmsCreate_sRGBProfile()), profile.substr(0, 90), std::string("nothing")}) {
        const auto plain = reader::decode_pixels(ArtKind::jpeg, jpeg.substr(0, 2) + segment(1, other) + jpeg.substr(2), "it");
        ASSERT_TRUE(plain) << plain.sentence();
        EXPECT_NEAR(plain->rgba[1], 128, 3);
        EXPECT_FALSE(plain->turned);
    }
}

TEST(Pictures, FourInksComeOutAsTheirProfileMeansThem) {
    // a press whose inks are paler than the plain rule has them: a table of its corners, as CIELAB
    cmsHPROFILE inks = cmsCreateProfilePlaceholder(nullptr);
    cmsSetProfileVersion(inks, 2.1);
    cmsSetDeviceClass(inks, cmsSigOutputClass);
    cmsSetColorSpace(inks, cmsSigCmykData);
    cmsSetPCS(inks, cmsSigLabData);
    cmsPipeline* table = cmsPipelineAlloc(nullptr, 4, 3);
    cmsStage* corners = cmsStageAllocCLut16bit(nullptr, 2, 4, 3, nullptr);
    cmsStageSampleCLut16bit(
        corners,
        [](const cmsUInt16Number in[], cmsUInt16Number out[], void*) -> cmsInt32Number {
            // lightness 100 without ink, 40 with black alone; cyan takes it to 70 and to −30 of a*
            const double c = in[0] / 65535.0, k = in[3] / 65535.0;
            cmsCIELab lab{(100 - 30 * c) * (1 - 0.6 * k), -30 * c * (1 - k), 0};
            cmsFloat2LabEncodedV2(out, &lab);
            return 1;
        },
        nullptr, 0);
    cmsPipelineInsertStage(table, cmsAT_END, corners);
    ASSERT_TRUE(cmsWriteTag(inks, cmsSigAToB0Tag, table));
    ASSERT_TRUE(cmsWriteTag(inks, cmsSigMediaWhitePointTag, cmsD50_XYZ()));
    cmsPipelineFree(table);
    const std::string profile = profile_bytes(inks);
    const auto tiff = [&](int c, int k, const std::string& icc) {
        const Folder folder;
        TIFF* t = TIFFOpen((folder / "a.tif").c_str(), "w");
        TIFFSetField(t, TIFFTAG_IMAGEWIDTH, 8);
        TIFFSetField(t, TIFFTAG_IMAGELENGTH, 8);
        TIFFSetField(t, TIFFTAG_SAMPLESPERPIXEL, 4);
        TIFFSetField(t, TIFFTAG_BITSPERSAMPLE, 8);
        TIFFSetField(t, TIFFTAG_PHOTOMETRIC, PHOTOMETRIC_SEPARATED);
        TIFFSetField(t, TIFFTAG_PLANARCONFIG, PLANARCONFIG_CONTIG);
        if (!icc.empty()) TIFFSetField(t, TIFFTAG_ICCPROFILE, static_cast<std::uint32_t>(icc.size()), icc.data());
        std::vector<std::uint8_t> row;
        for (int x = 0; x < 8; ++x) row.insert(row.end(), {std::uint8_t(c), 0, 0, std::uint8_t(k)});
        for (std::uint32_t y = 0; y < 8; ++y) TIFFWriteScanline(t, row.data(), y);
        TIFFClose(t);
        const auto pixels = reader::decode_pixels(ArtKind::tiff, test::slurp(folder / "a.tif"), "it");
        EXPECT_TRUE(pixels) << (pixels ? "" : pixels.sentence());
        return pixels ? std::vector<int>{pixels->rgba[0], pixels->rgba[1], pixels->rgba[2], pixels->rgba[3]} : std::vector<int>(4);
    };
    const auto paper = tiff(0, 0, profile), cyan = tiff(255, 0, profile), plain = tiff(255, 0, {});
    for (int k = 0; k < 3; ++k) EXPECT_GE(paper[std::size_t(k)], 252);
    EXPECT_EQ(plain, (std::vector<int>{0, 255, 255, 255})) << "by the plain rule";
    // lightness 70, a* −30: green of some 184, red well below it
    EXPECT_NEAR(cyan[1], 184, 8);
    EXPECT_LT(cyan[0], cyan[1] - 40);
    EXPECT_EQ(cyan[3], 255);
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
