// The picture reader from outside: what it reads, what it may not do, and that nothing which happens in it is more than a sentence.
#include <gtest/gtest.h>
#include <libheif/heif.h>
#include <png.h>
#include <zlib.h>

#include <csignal>
#include <fstream>
#include <random>
#include <thread>

#include "files/page_export.h"
#include "files/reader_process.h"
#include "files/wire.h"
#include "reader/deflate_blocks.h"
#include "reader/pixels.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

using test::Canvas;
using test::Folder;

Result<LoadedArtPtr> read(const std::string& bytes, const std::string& name = "picture") {
    return load_art(std::make_shared<const std::string>(bytes), name);
}

/// A picture of which no corner is like another.
Canvas flag() {
    Canvas c(60, 40);
    c.fill([](double x, double y) { return x < 20 && y < 10; }, 200, 30, 30);
    c.fill([](double x, double y) { return x > 40 && y < 20; }, 30, 200, 30);
    c.fill([](double x, double y) { return x < 10 && y > 30; }, 30, 30, 200);
    c.fill([](double x, double) { return x > 20 && x < 25; }, 90, 90, 90);
    return c;
}

std::string png_of(const Canvas& c) { return test::png_bytes(c); }

std::string base64(const std::string& from) {
    const std::string letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
    std::string out;
    for (std::size_t i = 0; i < from.size(); i += 3) {
        std::uint32_t v = 0;
        for (std::size_t k = 0; k < 3; ++k) v = v << 8 | (i + k < from.size() ? static_cast<std::uint8_t>(from[i + k]) : 0);
        for (std::size_t k = 0; k < 4; ++k) out += i + k <= from.size() ? letters[(v >> (18 - 6 * k)) & 63] : '=';
    }
    return out;
}

std::vector<int> readers() {
    std::vector<int> out;
    for (const auto& entry : std::filesystem::directory_iterator("/proc")) {
        const int pid = std::atoi(entry.path().filename().c_str());
        if (pid <= 0) continue;
        std::ifstream stat(entry.path() / "stat");
        std::string all;
        if (!std::getline(stat, all)) continue;  // it ended while it was looked at
        const std::size_t close = all.rfind(')');
        if (close == std::string::npos || all.find("(orthema-reader)") == std::string::npos) continue;
        char state = 0;
        int parent = 0;
        if (std::sscanf(all.c_str() + close + 1, " %c %d", &state, &parent) == 2 && parent == ::getpid() && state != 'Z')
            out.push_back(pid);
    }
    return out;
}

TEST(Reader, ADrawingWithoutEndIsASentenceAndTheNextPictureIsRead) {
    // every group shows the one before it ten times: 10 to the 9th parts
    std::string endless = "<svg xmlns='http://www.w3.org/2000/svg' width='100' height='100'><defs><rect id='a0' width='9' height='9'/>";
    for (int k = 1; k < 10; ++k) {
        endless += "<g id='a" + std::to_string(k) + "'>";
        for (int n = 0; n < 10; ++n) endless += "<use href='#a" + std::to_string(k - 1) + "' x='" + std::to_string(n) + "'/>";
        endless += "</g>";
    }
    endless += "</defs><use href='#a9'/></svg>";
    const auto art = read(endless, "endless.svg");
    ASSERT_FALSE(art);
    EXPECT_NE(art.sentence().find("endless.svg"), std::string::npos) << art.sentence();
    // a picture within a drawing that is far larger than its file: 20,000 x 20,000 pixels of one colour
    Canvas big(1, 1);
    const int side = 20000;
    std::string rows(static_cast<std::size_t>(side) * (1 + side / 8), '\0'), packed(compressBound(rows.size()), '\0');
    uLongf size = packed.size();
    ASSERT_EQ(compress2(reinterpret_cast<Bytef*>(packed.data()), &size, reinterpret_cast<const Bytef*>(rows.data()), rows.size(), 9), Z_OK);
    const auto chunk = [](const std::string& name, const std::string& data) {
        const auto number = [](std::uint32_t v) { return std::string{char(v >> 24), char(v >> 16), char(v >> 8), char(v)}; };
        const std::string body = name + data;
        return number(static_cast<std::uint32_t>(data.size())) + body +
               number(static_cast<std::uint32_t>(crc32(0, reinterpret_cast<const Bytef*>(body.data()), static_cast<uInt>(body.size()))));
    };
    const auto number = [](std::uint32_t v) { return std::string{char(v >> 24), char(v >> 16), char(v >> 8), char(v)}; };
    const std::string png = std::string("\x89PNG\r\n\x1a\n") +
                            chunk("IHDR", number(side) + number(side) + std::string("\x01\x00\x00\x00\x00", 5)) +
                            chunk("IDAT", packed.substr(0, size)) + chunk("IEND", "");
    set_reader_limits({1ull << 30, 60});
    const std::string within =
        "<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' width='90' height='90'>"
        "<rect width='9' height='9'/><image width='90' height='90' xlink:href='data:image/png;base64," +
        base64(png) + "'/></svg>";
    const auto heavy = read(within, "heavy.svg");  // refused, or the rest of it without the picture: not more memory than allowed
    if (!heavy) EXPECT_NE(heavy.sentence().find("heavy.svg"), std::string::npos) << heavy.sentence();
    set_reader_limits({});
    EXPECT_TRUE(read(png_of(flag()), "flag.png"));
}

TEST(Reader, WhenItIsKilledThePictureIsLostAndNothingElse) {
    const Folder folder;
    const auto art = read(png_of(flag()), "flag.png");
    ASSERT_TRUE(art);
    Drawing page;
    page.width = 300;
    page.height = 900;
    page.marks.emplace_back(ArtMark{"flag", {300, 0, 0, 300, 0, 0}, 1});
    test::spill(folder / "page.png", "what was there");
    int killed = 0;
    for (int round = 0; round < 6; ++round) {
        std::atomic<bool> over{false};
        std::jthread hand([&] {
            std::this_thread::sleep_for(std::chrono::milliseconds(5 + 25 * round));
            for (const int pid : readers()) {
                if (over) return;
                ::kill(pid, SIGKILL);
                ++killed;
            }
        });
        const auto done = write_png(folder / "page.png", page, {{"flag", *art}}, 300);
        over = true;
        hand.join();
        if (done) break;  // it was quicker
        EXPECT_EQ(test::slurp(folder / "page.png"), "what was there");
        EXPECT_NE(done.sentence().find("page.png"), std::string::npos) << done.sentence();
    }
    EXPECT_GT(killed, 0);
    ASSERT_TRUE(write_png(folder / "page.png", page, {{"flag", *art}}, 30)) << "and the next is written";
    EXPECT_EQ(test::read_png(folder / "page.png").width, 354);
    for (const auto& left : std::filesystem::directory_iterator(folder.path())) EXPECT_EQ(left.path().filename(), "page.png");
}

TEST(Reader, OneThatDiedWaitingIsMissedByNobody) {
    ASSERT_TRUE(read(png_of(flag()), "flag.png"));
    std::uint8_t round = 0;
    for (const int wait : {0, 0, 0, 1, 3, 100}) {  // ms: it may be asked while it is dying
        for (const int pid : readers()) ::kill(pid, SIGKILL);
        std::this_thread::sleep_for(std::chrono::milliseconds(wait));
        Canvas other(30, 30);
        other.fill([](double x, double) { return x > 9; }, 1, 2, ++round);  // not one that was looked at before
        const auto art = read(png_of(other), "other.png");
        EXPECT_TRUE(art) << art.sentence();
    }
}

TEST(Reader, StoppedMeansStoppedAtOnce) {
    const Folder folder;
    Drawing page;
    page.width = 2000;
    page.height = 9000;
    page.rect({0, 0, 2000, 9000}, Colour{0.2, 0.4, 0.6, 1});
    std::atomic<bool> cancelled{false};
    Task task;
    task.cancelled = &cancelled;
    std::jthread hand([&] {
        std::this_thread::sleep_for(std::chrono::milliseconds(100));
        cancelled = true;
    });
    const auto done = write_png(folder / "page.png", page, {}, 600, task);
    ASSERT_FALSE(done);
    EXPECT_NE(done.sentence().find("Stopped"), std::string::npos);
    EXPECT_TRUE(std::filesystem::is_empty(folder.path()));
}

TEST(Reader, MayNeitherWriteNorRunNorReachTheNetwork) {
    set_reader_limits({});  // nothing is remembered
    ASSERT_TRUE(read(png_of(flag()), "flag.png"));
    const std::vector<int> all = readers();
    ASSERT_FALSE(all.empty());
    std::ifstream status("/proc/" + std::to_string(all.front()) + "/status");
    std::string line;
    int seen = 0;
    while (std::getline(status, line)) {
        if (line.rfind("NoNewPrivs:", 0) == 0 || line.rfind("Seccomp:", 0) == 0) {
            ++seen;
            EXPECT_NE(line.back(), '0') << line;
        }
    }
    EXPECT_EQ(seen, 2);
    std::ifstream limits("/proc/" + std::to_string(all.front()) + "/limits");
    while (std::getline(limits, line))
        if (line.rfind("Max cpu time", 0) == 0) EXPECT_EQ(line.find("unlimited"), line.rfind("unlimited")) << line;  // the soft one is set
}

TEST(Reader, WhatComesBackDamagedIsRefused) {
    Drawing d;
    d.width = 3;
    d.text({1, 2}, "Wind", 4, palette::ink);
    d.rect({0, 0, 1, 1}, palette::ink, Stroke{palette::ink, 1, {2, 3}});
    ArtMark bent{"a", {1, 2, 3, 4, 5, 6}, 0.5};
    bent.bend = RingSector{10, 5, 5};
    d.marks.emplace_back(bent);
    d.unclip();
    const std::string bytes = wire::packed(d);
    Drawing back;
    ASSERT_TRUE(wire::unpacked(bytes, back));
    EXPECT_EQ(wire::packed(back), bytes);
    std::mt19937 random(4);
    for (int round = 0; round < 20000; ++round) {
        std::string hurt = bytes;
        for (int k = 0; k < 3; ++k) hurt[random() % hurt.size()] = static_cast<char>(random());
        if (round % 3 == 0) hurt.resize(random() % hurt.size());
        Drawing any;
        if (wire::unpacked(hurt, any)) EXPECT_LE(any.marks.size(), hurt.size());
    }
}

TEST(Pictures, CamerasThatWereTurnedAreSeenUpright) {
    const Canvas c = flag();
    reader::Pixels upright{c.width, c.height, {}};
    upright.rgba.assign(c.view().rgba, c.view().rgba + 4 * c.width * c.height);
    // turning by each of the eight and by its opposite gives the picture again
    const int opposite[] = {0, 1, 2, 3, 4, 5, 8, 7, 6};
    for (int turn = 1; turn <= 8; ++turn) {
        const reader::Pixels lies = reader::upright(upright, opposite[turn]);
        EXPECT_EQ(reader::upright(lies, turn).rgba, upright.rgba) << turn;
        EXPECT_EQ(lies.width, turn >= 5 ? c.height : c.width);
    }
    // 6: what is at the top right of the picture lies at the top left of the file
    const reader::Pixels six = reader::upright(upright, 6);
    EXPECT_EQ(six.rgba[4 * (std::size_t(six.width) - 1)], upright.rgba[0]) << "the file's top left is seen at the top right";
    for (const bool big : {false, true}) {
        const auto n = [&](std::uint32_t v, int bytes) {
            std::string out;
            for (int k = 0; k < bytes; ++k) out += char(v >> (8 * (big ? bytes - 1 - k : k)));
            return out;
        };
        const std::string block = (big ? std::string("MM\0*", 4) : std::string("II*\0", 4)) + n(8, 4) + n(2, 2) + n(0x100, 2) + n(3, 2) +
                                  n(1, 4) + n(60, 2) + n(0, 2) + n(0x112, 2) + n(3, 2) + n(1, 4) + n(6, 2) + n(0, 2);
        EXPECT_EQ(reader::exif_turn(block), 6);
        for (std::size_t cut = 0; cut < block.size() - 4; ++cut) EXPECT_EQ(reader::exif_turn(block.substr(0, cut)), 1) << cut;
        // in a PNG
        std::string png = png_of(c);
        const std::string body = "eXIf" + block;
        const auto be = [](std::uint32_t v) { return std::string{char(v >> 24), char(v >> 16), char(v >> 8), char(v)}; };
        png.insert(
            33, be(static_cast<std::uint32_t>(block.size())) + body +
                    be(static_cast<std::uint32_t>(crc32(0, reinterpret_cast<const Bytef*>(body.data()), static_cast<uInt>(body.size())))));
        const auto art = read(png, "turned.png");
        ASSERT_TRUE(art) << art.sentence();
        EXPECT_EQ((*art)->facts.width_px, c.height);
        EXPECT_EQ((*art)->facts.height_px, c.width);
    }
}

TEST(Pictures, APhotographFromATelephoneIsRead) {
    const Canvas c = flag();
    heif_context* context = heif_context_alloc();
    heif_encoder* encoder = nullptr;
    ASSERT_EQ(heif_context_get_encoder_for_format(context, heif_compression_HEVC, &encoder).code, heif_error_Ok);
    heif_encoder_set_lossless(encoder, 1);
    heif_image* image = nullptr;
    heif_image_create(c.width, c.height, heif_colorspace_RGB, heif_chroma_interleaved_RGBA, &image);
    heif_image_add_plane(image, heif_channel_interleaved, c.width, c.height, 8);
    int stride = 0;
    std::uint8_t* plane = heif_image_get_plane(image, heif_channel_interleaved, &stride);
    for (int y = 0; y < c.height; ++y) std::memcpy(plane + std::ptrdiff_t(y) * stride, c.view().at(0, y), std::size_t(4 * c.width));
    ASSERT_EQ(heif_context_encode_image(context, image, encoder, nullptr, nullptr).code, heif_error_Ok);
    const Folder folder;
    ASSERT_EQ(heif_context_write_to_file(context, (folder / "a.heic").c_str()).code, heif_error_Ok);
    heif_image_release(image);
    heif_encoder_release(encoder);
    heif_context_free(context);
    const std::string bytes = test::slurp(folder / "a.heic");
    const auto art = read(bytes, "a.heic");
    ASSERT_TRUE(art) << art.sentence();
    EXPECT_EQ((*art)->kind, ArtKind::heic);
    const ArtFacts plain = look_at(c.view(), false);
    EXPECT_EQ((*art)->facts.ink_px, plain.ink_px);
    EXPECT_FALSE(read(bytes.substr(0, bytes.size() / 2), "half.heic"));
}

TEST(Deflate, PartsThatWerePackedByThemselvesAreOneStream) {
    std::mt19937 random(8);
    reader::Packer packer;
    for (int round = 0; round < 60; ++round) {
        std::string all, stream("\x78\x9c");
        std::uint32_t adler = 1;
        const int parts = 1 + int(random() % 6);
        for (int p = 0; p < parts; ++p) {
            std::string raw(random() % (round % 7 == 0 ? 900000 : 60000), '\0');
            const auto kind = random() % 5;  // blank, noise, runs, a few letters, short
            for (std::size_t i = 0; i < raw.size(); ++i)
                raw[i] = kind == 0   ? '\0'
                         : kind == 1 ? char(random())
                         : kind == 2 ? char(i / 97)
                         : kind == 3 ? char(random() % 5)
                                     : char(i % 251);
            if (kind == 4) raw.resize(std::min<std::size_t>(raw.size(), random() % 40));
            const reader::Packed packed = packer.part(raw);
            stream += packed.bytes;
            adler = reader::adler_of(adler, packed.adler, packed.size);
            all += raw;
        }
        stream += reader::stream_end(adler);
        std::string back(all.size() + 1, '\1');
        uLongf size = back.size();
        ASSERT_EQ(uncompress(reinterpret_cast<Bytef*>(back.data()), &size, reinterpret_cast<const Bytef*>(stream.data()), stream.size()),
                  Z_OK);
        back.resize(size);
        ASSERT_EQ(back, all);
    }
    for (int round = 0; round < 3000; ++round) {  // what is no stream ends
        std::string noise(random() % 300, '\0');
        for (char& c : noise) c = char(random());
        (void)reader::opened(noise);
    }
}

}  // namespace TESTED
}  // namespace orthema
