// Where a design landed on a pressed piece, against the simulated camera, whose truth is known.
#include <gtest/gtest.h>

#include <numbers>

#include "core/records/of_load.h"
#include "scenes.h"

namespace orthema {
namespace {

constexpr double degree = std::numbers::pi / 180;

/// A kite with a bar at its foot and a knot to one side: it reads differently every way round.
PixelImage kite(std::array<int, 3> sail, std::array<int, 3> bar) {
    PixelImage out;
    out.width = 300;
    out.height = 360;
    out.rgba.assign(out.count() * 4, 0);
    for (int y = 0; y < out.height; ++y)
        for (int x = 0; x < out.width; ++x) {
            const bool in_sail = std::abs(x - 150) / 150.0 + std::abs(y - 150) / 150.0 < 1;
            const bool in_bar = y >= 330, in_knot = std::hypot(x - 240, y - 270) < 28;
            if (!in_sail && !in_bar && !in_knot) continue;
            const auto& c = in_sail ? sail : bar;
            std::uint8_t* p = out.at(x, y);
            for (std::size_t k = 0; k < 3; ++k) p[k] = static_cast<std::uint8_t>(c[k]);
            p[3] = 255;
        }
    return out;
}

struct Piece {
    Scene scene;
    DesignAsked asked;
    Rect lies;
    double turned = 0;
    explicit Piece(unsigned seed, int cards = 1)
        : scene(small_picture(usual_scene(Family::adult_tee, Face::front, tee(), seed, cards), 1700)) {
        const bool light = scene.cloth.r + scene.cloth.g + scene.cloth.b > 1.5;
        asked.picture = light ? kite({170, 40, 60}, {20, 60, 90}) : kite({240, 220, 60}, {230, 235, 240});
        const Panel panel = family_panel(Family::adult_tee, tee(), Face::front);
        asked.planned = {-110, panel.top_y + 70, 110, panel.top_y + 70 + 264};
        lies = asked.planned;
    }
    void press(Point slip, double turn, double grown = 1) {
        const Point middle = asked.planned.centre() + slip, half{asked.planned.width() / 2 * grown, asked.planned.height() / 2 * grown};
        lies = {middle.x - half.x, middle.y - half.y, middle.x + half.x, middle.y + half.y};
        turned = turn;
        scene.pressed = {{asked.picture, lies, turn}};
    }
    [[nodiscard]] Result<DesignSeen> found(unsigned seed = 1) const {
        const Photo photo = simulated_photo(scene, seed);
        const auto table = vision::find_table(photo, {});
        if (!table) return Error{table.sentence()};
        const auto blank = vision::measure_blank(photo, *table, asked_for(scene, 0.02), {});
        if (!blank) return Error{blank.sentence()};
        return vision::find_design(photo, *table, *blank, asked, {});
    }
};

TEST(Pressed, PlaceTurnAndSizeAreReadOff) {
    int covered = 0, figures = 0;
    for (unsigned seed = 1; seed <= 4; ++seed) {
        Piece piece(seed, seed % 2 == 0 ? 4 : 1);
        piece.press({6.0 - 3.0 * seed, 4.0 * seed - 10}, (seed - 3.0) * 1.4 * degree, 1 - 0.004 * seed);
        const auto seen = piece.found(seed);
        ASSERT_TRUE(seen) << seed << ": " << seen.sentence();
        EXPECT_EQ(seen->refused, "");
        EXPECT_FALSE(seen->mirrored);
        const Point off = seen->middle - piece.lies.centre();
        EXPECT_NEAR(off.x, 0, 1.5) << seed;
        EXPECT_NEAR(off.y, 0, 1.5) << seed;
        EXPECT_NEAR(seen->angle, piece.turned, 0.3 * degree) << seed;
        EXPECT_NEAR(seen->width, piece.lies.width(), 1.5) << seed;
        EXPECT_NEAR(seen->height, piece.lies.height(), 1.5) << seed;
        EXPECT_GT(seen->match, 0.8);
        EXPECT_TRUE(seen->missing.empty() && seen->more.empty()) << seed;
        for (const auto& [by, error] :
             {std::pair(off.x, seen->middle_error.x), std::pair(off.y, seen->middle_error.y),
              std::pair(seen->angle - piece.turned, seen->angle_error), std::pair(seen->width - piece.lies.width(), seen->width_error),
              std::pair(seen->height - piece.lies.height(), seen->height_error)}) {
            ++figures;
            covered += std::abs(by) <= error ? 1 : 0;
            EXPECT_LT(error, 3) << "an error that says nothing";
        }
    }
    EXPECT_GE(covered, 0.85 * figures);
}

TEST(Pressed, MirroredAndUpsideDownAreNoticed) {
    Piece piece(3);
    piece.press({2, 3}, 0);
    for (int y = 0; y < piece.scene.pressed[0].picture.height; ++y) {  // printed the wrong way round
        PixelImage& p = piece.scene.pressed[0].picture;
        for (int x = 0; x < p.width / 2; ++x)
            for (int k = 0; k < 4; ++k) std::swap(p.at(x, y)[k], p.at(p.width - 1 - x, y)[k]);
    }
    auto seen = piece.found();
    ASSERT_TRUE(seen) << seen.sentence();
    EXPECT_TRUE(seen->mirrored);
    EXPECT_LT(std::abs(seen->angle), 1);
    piece.press({2, 3}, 181 * degree);
    seen = piece.found();
    ASSERT_TRUE(seen) << seen.sentence();
    EXPECT_FALSE(seen->mirrored);
    EXPECT_NEAR(std::remainder(seen->angle - piece.turned, 2 * std::numbers::pi), 0, 0.3 * degree);
}

TEST(Pressed, WhatIsMissingAndWhatIsMoreIsShownWhereItIs) {
    Piece piece(2);
    piece.press({3, -2}, 1 * degree);
    PixelImage& p = piece.scene.pressed[0].picture;
    for (int y = 120; y < 160; ++y)  // a patch of the sail stayed on its film
        for (int x = 60; x < 110; ++x) p.at(x, y)[3] = 0;
    const double k = piece.lies.width() / p.width;
    piece.scene.pressed.push_back({p, {piece.lies.x0 + 10, piece.lies.y1 + 8, piece.lies.x0 + 22, piece.lies.y1 + 16}, 0});  // a scrap
    const auto seen = piece.found();
    ASSERT_TRUE(seen) << seen.sentence();
    EXPECT_EQ(seen->refused, "");
    ASSERT_EQ(seen->missing.size(), 1U);
    ASSERT_GE(seen->more.size(), 1U);
    // the middle of what is missing, where the camera sees it
    const Point upright = Point{(85 - 150) * k, (140 - 180) * k}, c{std::cos(piece.turned), std::sin(piece.turned)};
    const Point on_panel = piece.lies.centre() + Point{c.x * upright.x - c.y * upright.y, c.y * upright.x + c.x * upright.y};
    const Point wanted = seen_at(piece.scene.lens, on_table(piece.scene.blank, on_panel), piece.scene.thickness);
    EXPECT_LT(norm(bounds(seen->missing[0]).centre() - wanted), 8);
    EXPECT_NEAR(seen->missing_share, 40.0 * 50 / (150 * 300 + 30 * 300 + std::numbers::pi * 28 * 28), 0.012);
}

TEST(Pressed, AnotherDesignAndBareClothAreRefused) {
    Piece piece(4);
    const auto bare = piece.found();
    EXPECT_FALSE(bare && bare->refused.empty()) << "nothing was pressed";
    piece.press({0, 0}, 0);
    PixelImage other = piece.asked.picture;  // stripes of the same colours
    for (int y = 0; y < other.height; ++y)
        for (int x = 0; x < other.width; ++x) {
            std::uint8_t* q = other.at(x, y);
            std::copy_n(piece.asked.picture.at(150, y / 40 % 2 == 0 ? 150 : 345), 4, q);
            q[3] = x / 30 % 2 == 0 ? 255 : 0;
        }
    piece.scene.pressed[0].picture = other;
    const auto wrong = piece.found();
    EXPECT_FALSE(wrong && wrong->refused.empty()) << (wrong ? wrong->match : 0);
    DesignAsked tiny = piece.asked;
    tiny.planned = {0, 0, 2, 2};
    piece.asked = tiny;
    EXPECT_FALSE(piece.found());
}

TEST(Pressed, TheTapeReadsWhatLanded) {
    // by hand: a tee's panel as it is, ink 12 to the right and 7 low, turned by 2 degrees
    const Panel panel = family_panel(Family::adult_tee, tee(), Face::front);
    const Rect planned{-100, panel.top_y + 60, 100, panel.top_y + 260};
    SizeFit size;
    size.width = 200;
    size.top_to_ink = 60;
    const Taped as_planned = taped_on(panel, planned, 0);
    size.left_margin = *as_planned[TapeAt::left];
    size.right_margin = *as_planned[TapeAt::right];
    const Rect ink{planned.x0 + 12, planned.y0 + 7, planned.x1 + 12, planned.y1 + 7};
    const Landing l = landing_of(taped_on(panel, ink, 2 * degree), size, {});
    EXPECT_NEAR(*l.aside, 12, 1e-9);
    EXPECT_NEAR(*l.down, 7, 1e-9);
    EXPECT_NEAR(*l.tilt, 2, 1e-9);
    EXPECT_NEAR(*l.wider, 0, 1e-9);
}

}  // namespace
}  // namespace orthema
