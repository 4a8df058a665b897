// Softness against pictures blurred by a known figure, and colours against the inks' own corners.
#include "core/artwork/print_colours.h"

#include <cmath>

#include "core/artwork/soft_edges.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

/// Upright bars whose edges are the integral of a bell of this width.
test::Canvas bars(double sigma, int contrast) {
    test::Canvas c(600, 200);
    for (int y = 0; y < c.height; ++y)
        for (int x = 0; x < c.width; ++x) {
            double v = 0;
            for (int edge = 30, way = 1; edge < c.width; edge += 60, way = -way)
                v += way * 0.5 * (1 + std::erf((x + 0.5 - edge) / (std::sqrt(2.0) * sigma)));
            const auto grey = static_cast<std::uint8_t>(std::lround(60 + contrast * v));
            std::uint8_t* p = &c.rgba[(std::size_t(y) * std::size_t(c.width) + std::size_t(x)) * 4];
            p[0] = p[1] = p[2] = grey;
            p[3] = 255;
        }
    return c;
}

TEST(SoftEdges, AreAsWideAsABlurMadeThem) {
    EXPECT_NEAR(sharpest_edges(bars(0.05, 180).view()), 1, 0.01) << "a step";
    for (const double sigma : {1.0, 2.0, 4.0, 7.0}) {
        const double width = sigma * std::sqrt(2 * M_PI);  // contrast by the bell's own height
        EXPECT_NEAR(sharpest_edges(bars(sigma, 180).view()), width, 0.12 * width) << sigma;
    }
    EXPECT_EQ(sharpest_edges(bars(0.5, 30).view()), 0) << "hardly any contrast: too little to tell";
}

TEST(SoftEdges, AreSaidWhereTheyShow) {
    ArtFacts f = look_at(bars(6, 180).view(), false);
    const auto said = [&](double mm) {
        const Findings all = art_findings(f, "a", "Bars", Length::from_mm(mm));
        return std::any_of(all.begin(), all.end(), [](const Finding& one) { return one.code == "art-soft"; });
    };
    EXPECT_TRUE(said(90));
    EXPECT_FALSE(said(12)) << "so small nobody sees it";
    f = look_at(bars(0.05, 180).view(), false);
    EXPECT_FALSE(said(90));
}

TEST(PrintColours, WhatInksReachIsNotSaidAndScreenColoursAre) {
    EXPECT_EQ(beyond_inks({0.5, 0.5, 0.5, 1}), 0);
    for (const Colour& dull : {Colour{0.55, 0.3, 0.25, 1}, Colour{0.3, 0.4, 0.3, 1}, Colour{0.2, 0.25, 0.4, 1}, Colour{0.9, 0.85, 0.7, 1}})
        EXPECT_LT(beyond_inks(dull), 5) << dull.r << " " << dull.g << " " << dull.b;
    EXPECT_GT(beyond_inks({0, 0, 1, 1}), 40) << "a screen's blue";
    EXPECT_GT(beyond_inks({0, 1, 0, 1}), 30) << "and its green";
    // nearer to grey a colour is never further outside
    for (const Colour& c : {Colour{0, 0, 1, 1}, Colour{0, 1, 0, 1}, Colour{1, 0, 1, 1}, Colour{0, 1, 1, 1}}) {
        const double grey = std::pow((std::pow(lab_lightness(c) / 100 * 1.16 + 0.0, 3)), 1 / 2.2);
        double before = 1e9;
        for (const double t : {0.0, 0.25, 0.5, 0.75, 1.0}) {
            const double now = beyond_inks({c.r + (grey - c.r) * t, c.g + (grey - c.g) * t, c.b + (grey - c.b) * t, 1});
            EXPECT_LE(now, before + 1e-9);
            before = now;
        }
        EXPECT_LT(before, 1);
    }
    ArtFacts f;
    f.inks = {{{0, 0, 1, 1}, 0.5}, {{0.05, 0.95, 0.1, 1}, 0.3}, {{1, 0, 1, 1}, 0.01}, {{0.5, 0.4, 0.3, 1}, 0.19}};
    EXPECT_EQ(dulled_hues(f), std::string(hue_name({0, 0, 1, 1})) + " and green");
}

}  // namespace TESTED
}  // namespace orthema
