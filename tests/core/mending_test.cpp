// Mending: pictures whose true cover is known, spoiled and mended; what is asked for is there afterwards, and nothing else is touched.
#include "core/artwork/mend.h"

#include <cmath>
#include <random>

#include "core/artwork/background.h"
#include "core/artwork/edges.h"
#include "core/artwork/strokes.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

using Inside = std::function<bool(double, double)>;

/// How much of each pixel lies inside, by `fine` × `fine` samples.
std::vector<double> cover_of(int w, int h, const Inside& inside, int fine = 8) {
    std::vector<double> out(static_cast<std::size_t>(w * h));
    for (int y = 0; y < h; ++y)
        for (int x = 0; x < w; ++x) {
            int n = 0;
            for (int k = 0; k < fine * fine; ++k) n += inside(x + (k % fine + 0.5) / fine, y + (k / fine + 0.5) / fine) ? 1 : 0;
            out[static_cast<std::size_t>(y * w + x)] = n / double(fine * fine);
        }
    return out;
}

/// A subject against a background, with hairs of two pixels standing off it.
struct Composite {
    PixelImage picture;
    std::vector<double> cover;
    std::vector<std::size_t> on_hair;  ///< pixels wholly within a hair
};

Composite composite(unsigned seed) {
    std::mt19937 rng(seed);
    const auto real = [&](double a, double b) { return std::uniform_real_distribution<>(a, b)(rng); };
    constexpr int w = 220, h = 180;
    const double cx = real(90, 130), cy = real(80, 100), r = real(35, 55), waves = std::floor(real(2, 9)), deep = real(0, 12);
    struct Hair {
        Point from, along;
        double length;
    };
    std::vector<Hair> hairs;
    for (int k = 0; k < 6; ++k) {
        const double t = real(0, 2 * M_PI), bend = t + real(-0.5, 0.5);
        hairs.push_back({{cx + (r - 14) * std::cos(t), cy + (r - 14) * std::sin(t)}, {std::cos(bend), std::sin(bend)}, real(25, 38)});
    }
    const auto off_hair = [&](const Hair& hair, double x, double y) {
        const Point d{x - hair.from.x, y - hair.from.y};
        const double s = dot(d, hair.along);
        return s < 0 || s > hair.length ? 99.0 : norm(d - hair.along * s);
    };
    const Inside body = [&](double x, double y) {
        const double a = std::atan2(y - cy, x - cx);
        return std::hypot(x - cx, y - cy) < r + deep * std::sin(waves * a);
    };
    const Inside inside = [&](double x, double y) {
        if (body(x, y)) return true;
        return std::any_of(hairs.begin(), hairs.end(), [&](const Hair& q) { return off_hair(q, x, y) < 1; });
    };
    Composite c{{w, h, {}}, cover_of(w, h, inside, 5), {}};
    double ground[3], ink[3], other[3], slope = real(0, 18);
    for (double& v : ground) v = real(20, 235);
    do
        for (int k = 0; k < 3; ++k) {
            ink[k] = real(0, 255);
            other[k] = std::clamp(ink[k] + real(-40, 40), 0.0, 255.0);
        }
    while (std::hypot(ink[0] - ground[0], ink[1] - ground[1], ink[2] - ground[2]) < 110 ||
           std::hypot(other[0] - ground[0], other[1] - ground[1], other[2] - ground[2]) < 110);
    std::normal_distribution<> grain(0, seed % 3 == 0 ? 2.0 : 0.7);
    c.picture.rgba.resize(4 * c.picture.count());
    for (int y = 0; y < h; ++y)
        for (int x = 0; x < w; ++x) {
            const double a = c.cover[c.picture.index(x, y)];
            std::uint8_t* p = c.picture.at(x, y);
            const double part = 0.5 + 0.5 * std::sin(x / 17.0);
            for (int k = 0; k < 3; ++k) {
                const double back = ground[k] + slope * (x / double(w) - 0.5) + slope * 0.6 * (y / double(h)) * (y / double(h));
                const double own = ink[k] * part + other[k] * (1 - part);
                p[k] = static_cast<std::uint8_t>(std::lround(std::clamp(a * own + (1 - a) * back + grain(rng), 0.0, 255.0)));
            }
            p[3] = 255;
            if (!body(x + 0.5, y + 0.5) && a == 1) c.on_hair.push_back(c.picture.index(x, y));
        }
    return c;
}

TEST(Background, RimsOfFortyKnownCompositesAreTrueAndHairsAreKept) {
    double worst = 0, sum = 0;
    std::size_t hair = 0, kept = 0;
    for (unsigned seed = 1; seed <= 40; ++seed) {
        Composite c = composite(seed);
        ASSERT_TRUE(take_background_out(c.picture, Mending{}.tolerance, true)) << seed;  // hairs that cross close places in
        double off = 0;
        int rim = 0, wrong = 0;
        for (std::size_t i = 0; i < c.cover.size(); ++i) {
            const double is = c.picture.rgba[4 * i + 3] / 255.0;
            if (c.cover[i] <= 0 || c.cover[i] >= 1) {
                wrong += std::abs(is - c.cover[i]) > 0.45 ? 1 : 0;
                if (std::abs(is - c.cover[i]) < 0.02) continue;
            }
            off += std::abs(is - c.cover[i]);
            ++rim;
        }
        EXPECT_LE(wrong, 12) << seed << ": all but a glint between hairs that cross";
        worst = std::max(worst, off / rim);
        sum += off / rim;
        for (const std::size_t i : c.on_hair) {
            ++hair;
            kept += c.picture.rgba[4 * i + 3] > 200 ? 1 : 0;
        }
    }
    EXPECT_LE(sum / 40, 0.03);
    EXPECT_LE(worst, 0.045);
    ASSERT_GT(hair, 1000U);
    EXPECT_GE(double(kept), 0.99 * double(hair));
}

TEST(Background, TheRimLosesTheColourItWasSeenAgainst) {
    // a dark red disc on white: no pinkish rim once it lies on black
    test::Canvas c(100, 100);
    const auto cover = cover_of(100, 100, [](double x, double y) { return std::hypot(x - 50, y - 50) < 31; });
    PixelImage p{100, 100, {}};
    for (const double a : cover)
        for (const double v : {140 * a + 255 * (1 - a), 20 * a + 255 * (1 - a), 30 * a + 255 * (1 - a), 255.0})
            p.rgba.push_back(static_cast<std::uint8_t>(std::lround(v)));
    ASSERT_TRUE(take_background_out(p, 0.05, false));
    for (std::size_t i = 0; i < cover.size(); ++i) {
        const std::uint8_t* q = &p.rgba[4 * i];
        if (q[3] > 20) EXPECT_LE(q[1], 60) << "alpha " << int(q[3]);
        EXPECT_NEAR(q[3] / 255.0, cover[i], 0.04);
    }
}

TEST(Background, ClosedPlacesGoOnlyWhereAsked) {
    const auto ring = [] {
        PixelImage p{120, 120, std::vector<std::uint8_t>(120 * 120 * 4, 255)};
        for (int y = 0; y < 120; ++y)
            for (int x = 0; x < 120; ++x)
                if (const double r = std::hypot(x - 59.5, y - 59.5); r < 50 && r > 20) p.at(x, y)[0] = p.at(x, y)[1] = 30;
        return p;
    };
    PixelImage p = ring();
    ASSERT_TRUE(take_background_out(p, 0.05, false));
    EXPECT_EQ(p.at(60, 60)[3], 255);
    EXPECT_EQ(p.at(2, 2)[3], 0);
    p = ring();
    ASSERT_TRUE(take_background_out(p, 0.05, true));
    EXPECT_EQ(p.at(60, 60)[3], 0);
    EXPECT_EQ(p.at(60, 25)[3], 255);
    PixelImage noise{40, 40, {}};
    std::mt19937 rng(4);
    for (int k = 0; k < 40 * 40 * 4; ++k) noise.rgba.push_back(static_cast<std::uint8_t>(k % 4 == 3 ? 255 : rng() % 256));
    EXPECT_FALSE(take_background_out(noise, 0.05, false)) << "it has no background";
}

PixelImage soft_blobs(unsigned seed, int w = 160, int h = 120) {
    std::mt19937 rng(seed);
    const auto real = [&](double a, double b) { return std::uniform_real_distribution<>(a, b)(rng); };
    std::vector<std::array<double, 4>> blobs;
    for (int k = 0; k < 5; ++k) blobs.push_back({real(20, w - 20.0), real(20, h - 20.0), real(6, 26), real(1, 14)});
    PixelImage p{w, h, std::vector<std::uint8_t>(static_cast<std::size_t>(w * h * 4), 90)};
    for (int y = 0; y < h; ++y)
        for (int x = 0; x < w; ++x) {
            double a = 0;
            for (const auto& [cx, cy, r, soft] : blobs)
                a = std::max(a, std::clamp((r - std::hypot(x - cx, y - cy)) / soft + 0.5, 0.0, 1.0));
            p.at(x, y)[3] = static_cast<std::uint8_t>(std::lround(255 * a));
        }
    return p;
}

TEST(Harden, NothingIsHalfTransparentAndTheEdgeIsWhereItWasAsked) {
    for (unsigned seed = 1; seed <= 60; ++seed) {
        const PixelImage was = soft_blobs(seed);
        PixelImage p = was;
        const double at = 0.2 + 0.01 * (seed % 60);
        harden(p, at);
        EXPECT_EQ(look_at(p.view(), false).half_transparent, 0) << seed;
        for (std::size_t i = 0; i < p.count(); ++i) {
            const double before = was.rgba[4 * i + 3] / 255.0;
            if (before > at + 0.55) EXPECT_GE(p.rgba[4 * i + 3], 128);
            if (before < at - 0.55 || before == 0) EXPECT_LT(p.rgba[4 * i + 3], 128);
        }
    }
}

TEST(Dots, CoverStaysAndEachIsSolidOrClear) {
    for (const double tone : {0.15, 0.3, 0.5, 0.7, 0.85}) {
        PixelImage p{600, 600, std::vector<std::uint8_t>(600 * 600 * 4, static_cast<std::uint8_t>(std::lround(255 * tone)))};
        break_into_dots(p, 14, 4);
        double sum = 0;
        for (std::size_t i = 0; i < p.count(); ++i) {
            EXPECT_TRUE(p.rgba[4 * i + 3] == 0 || p.rgba[4 * i + 3] == 255);
            sum += p.rgba[4 * i + 3] / 255.0;
        }
        EXPECT_NEAR(sum / double(p.count()), tone, 0.012) << tone;
        // and the grid repeats by whole pixels, so that it makes no second pattern
        for (int y = 0; y + 20 < 600; y += 7)
            for (int x = 0; x + 20 < 600; x += 7) EXPECT_EQ(p.at(x, y)[3], p.at(x + 20, y)[3]);
        const double least = tone < 0.5 ? 3.5 : 0;  // no dot smaller than what holds
        for (const Rect& s : specks(p.view(), least))
            EXPECT_TRUE(s.x0 == 0 || s.y0 == 0 || s.x1 == 600 || s.y1 == 600) << tone << ": " << s.width() << " × " << s.height();
    }
}

TEST(Dots, SolidInkAndItsEdgesStay) {
    PixelImage p{80, 80, std::vector<std::uint8_t>(80 * 80 * 4, 0)};
    const auto cover = cover_of(80, 80, [](double x, double y) { return std::hypot(x - 40, y - 40) < 30; });
    for (std::size_t i = 0; i < cover.size(); ++i) p.rgba[4 * i + 3] = static_cast<std::uint8_t>(std::lround(255 * cover[i]));
    const PixelImage was = p;
    break_into_dots(p, 10, 3);
    std::size_t unlike = 0;
    for (std::size_t i = 0; i < p.rgba.size(); ++i) unlike += p.rgba[i] != was.rgba[i] ? 1 : 0;
    EXPECT_LE(unlike, 40U) << "but for a corner pixel here and there";
}

/// Bars of given width at any angle beside a solid block.
PixelImage bars(std::mt19937& rng, bool gaps) {
    constexpr int w = 420, h = 320;
    const auto real = [&](double a, double b) { return std::uniform_real_distribution<>(a, b)(rng); };
    const double wide = real(2, 7), t = real(0, M_PI), other = real(2, 9);
    const Point n{-std::sin(t), std::cos(t)}, along{std::cos(t), std::sin(t)};
    const auto cover = cover_of(
        w, h,
        [&](double x, double y) {
            const Point p{x - 210, y - 160};
            const bool thin = std::abs(dot(p, n)) < wide / 2 && std::abs(dot(p, along)) < 140;
            const bool second = std::abs(dot(p, n) - 40) < other / 2 && std::abs(dot(p, along)) < 110;
            const bool block = norm(p) < 30;
            if (gaps) return norm(p) < 150 && !(thin && !block) && !second;
            return thin || second || block;
        },
        4);
    PixelImage p{w, h, {}};
    for (const double a : cover)
        for (const int v : {40, 90, 160, int(std::lround(255 * a))}) p.rgba.push_back(static_cast<std::uint8_t>(v));
    return p;
}

TEST(Thicken, WhatIsTooThinIsThickAfterwardsAndNothingElseIsTouched) {
    std::mt19937 rng(11);
    for (int k = 0; k < 14; ++k) {
        const bool gaps = k % 2 == 1;
        PixelImage p = bars(rng, gaps);
        const PixelImage was = p;
        Mending m;
        m.kind = gaps ? MendKind::open : MendKind::thicken;
        m.least = Length::from_mm(1);
        m.at = Length::from_mm(ink_box(p.view()).width() / 10);  // ten pixels
        const Rect ink = ink_box(p.view());
        const StrokeWidths before = stroke_widths(p.view(), ink);
        const auto strips = mend_thin_parts(p, m);
        const StrokeWidths after = stroke_widths(p.view(), ink_box(p.view()));
        const double is = gaps ? after.gap_px : after.stroke_px, had = gaps ? before.gap_px : before.stroke_px;
        EXPECT_TRUE(is == 0 || is >= least_px(m, ink)) << k << ": " << had << " became " << is;
        EXPECT_GT(had, 0) << k;
        EXPECT_FALSE(strips.empty());
        Region reach;
        for (const MendStrip& s : strips) reach = unite(reach, strip_area(s));
        reach = offset(reach, 2);
        for (int y = 0; y < p.height; y += 2)
            for (int x = 0; x < p.width; x += 2) {
                const int now = p.at(x, y)[3], then = was.at(x, y)[3];
                if (gaps)
                    EXPECT_LE(now, then);
                else
                    EXPECT_GE(now, then);
                if (now != then) EXPECT_TRUE(inside(reach, {x + 0.5, y + 0.5})) << k;
            }
    }
}

TEST(Clean, EqualsAFloodOnRandomSpecks) {
    std::mt19937 rng(5);
    for (int k = 0; k < 40; ++k) {
        PixelImage p{60, 50, std::vector<std::uint8_t>(60 * 50 * 4, 200)};
        for (std::size_t i = 0; i < p.count(); ++i) p.rgba[4 * i + 3] = rng() % 100 < 34 ? 255 : 0;
        const PixelImage was = p;
        const double least = 2 + k % 6;
        clean_specks(p, least);
        std::vector<int> seen(p.count(), 0);
        for (std::size_t i = 0; i < p.count(); ++i) {
            if (seen[i] != 0 || was.rgba[4 * i + 3] == 0) continue;
            std::vector<std::size_t> piece{i};
            seen[i] = 1;
            int x0 = 99, x1 = -1, y0 = 99, y1 = -1;
            for (std::size_t n = 0; n < piece.size(); ++n) {
                const int x = int(piece[n] % 60), y = int(piece[n] / 60);
                x0 = std::min(x0, x), x1 = std::max(x1, x), y0 = std::min(y0, y), y1 = std::max(y1, y);
                for (int v = std::max(0, y - 1); v <= std::min(49, y + 1); ++v)
                    for (int u = std::max(0, x - 1); u <= std::min(59, x + 1); ++u)
                        if (const std::size_t q = was.index(u, v); seen[q] == 0 && was.rgba[4 * q + 3] != 0) {
                            seen[q] = 1;
                            piece.push_back(q);
                        }
            }
            const bool gone = std::max(x1 - x0, y1 - y0) + 1 < least;
            for (const std::size_t q : piece) EXPECT_EQ(p.rgba[4 * q + 3], gone ? 0 : 255);
        }
    }
}

TEST(Mend, StraightenedAndCroppedPlacesAreFoundAgain) {
    std::mt19937 rng(8);
    const auto real = [&](double a, double b) { return std::uniform_real_distribution<>(a, b)(rng); };
    for (int k = 0; k < 12; ++k) {
        PixelImage p{200, 140, std::vector<std::uint8_t>(200 * 140 * 4, 255)};
        const int cx = int(real(60, 140)), cy = int(real(50, 90));
        for (int y = cy - 3; y < cy + 3; ++y)
            for (int x = cx - 3; x < cx + 3; ++x) p.at(x, y)[0] = p.at(x, y)[1] = 0;
        Mending turn, crop;
        turn.kind = MendKind::straighten;
        turn.degrees = real(-40, 40);
        crop.kind = MendKind::crop;
        crop.keep = {real(0, 0.15), real(0, 0.15), real(0.85, 1), real(0.85, 1)};
        const auto done = mend(p, with_mending({crop}, turn), 10'000'000);
        ASSERT_TRUE(done);
        double sx = 0, sy = 0, all = 0;
        for (int y = 0; y < done->picture.height; ++y)
            for (int x = 0; x < done->picture.width; ++x) {
                const std::uint8_t* q = done->picture.at(x, y);
                const double dark = q[3] > 200 ? 255 - q[0] : 0;
                sx += dark * (x + 0.5);
                sy += dark * (y + 0.5);
                all += dark;
            }
        const Point is = done->from_file({double(cx), double(cy)});
        ASSERT_GT(all, 0);
        EXPECT_NEAR(sx / all, is.x, 0.2) << k;
        EXPECT_NEAR(sy / all, is.y, 0.2) << k;
    }
}

TEST(Mend, OneOfAKindInTheOrderOfTheKinds) {
    Mending a, b, c;
    a.kind = MendKind::dots;
    b.kind = MendKind::crop;
    c.kind = MendKind::background;
    auto all = with_mending(with_mending(with_mending({}, a), b), c);
    ASSERT_EQ(all.size(), 3U);
    EXPECT_EQ(all[0].kind, MendKind::crop);
    EXPECT_EQ(all[2].kind, MendKind::dots);
    const std::string words = mending_words(all);
    c.tolerance = 0.1;
    all = with_mending(all, c);
    EXPECT_EQ(all.size(), 3U);
    EXPECT_NE(mending_words(all), words);
    EXPECT_EQ(without_mending(all, MendKind::crop).size(), 2U);
    PixelImage p{20, 20, std::vector<std::uint8_t>(1600, 255)};
    EXPECT_FALSE(mend(p, {c}, 1000)) << "nothing of it is left";
}

}  // namespace TESTED
}  // namespace orthema
