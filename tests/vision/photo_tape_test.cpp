// The photo tape against the simulated camera, whose truth is known.
#include <gtest/gtest.h>

#include <Eigen/Cholesky>
#include <Eigen/Core>
#include <random>
#include <set>

#include "core/drawing/fiducial.h"
#include "scenes.h"
#include "support/support.h"
#include "vision/camera.h"
#include "vision/squares.h"

namespace orthema {
namespace {

TEST(PhotoCard, MarkersAreTheLibrarysAndEachIsOnOneCard) {
    std::set<int> all;
    for (const CardSize size : {CardSize::large, CardSize::small})
        for (int card = 1; card <= cards_of_a_size; ++card)
            for (const CardMark& m : card_marks(size)) {
                const int id = mark_id(size, card, m.place);
                EXPECT_TRUE(id < fiducial_count && all.insert(id).second);
                const auto of = mark_of(id);
                ASSERT_TRUE(of);
                EXPECT_TRUE(of->size == size && of->card == card && of->place == m.place);
            }
    EXPECT_FALSE(mark_of(static_cast<int>(all.size())));
    for (const auto& row : {fiducial(0).front(), fiducial(7).back()})
        for (const bool dark : row) EXPECT_TRUE(dark);
}

TEST(Markers, CornersLieWithinATenthOfAPixel) {
    double square = 0;
    int n = 0;
    for (unsigned seed = 1; seed <= 3; ++seed) {
        const Scene s = small_picture(usual_scene(Family::adult_tee, Face::front, tee(), seed, 1), 2000);
        const auto found = vision::find_markers(vision::grey_of(simulated_photo(s, seed).image), 2);
        EXPECT_GE(found.size(), 18u);
        const auto marks = card_marks(s.cards[0].size);
        for (const vision::MarkerSeen& m : found) {
            EXPECT_EQ(m.of.card, s.cards[0].card);
            const Rect& b = marks[static_cast<std::size_t>(m.of.place)].box;
            const std::array<Point, 4> own{Point{b.x0, b.y0}, Point{b.x1, b.y0}, Point{b.x1, b.y1}, Point{b.x0, b.y1}};
            for (std::size_t k = 0; k < 4; ++k) {
                const Point off = m.corners[k] - seen_at(s.lens, on_table(s.cards[0].at, own[k]));
                square += dot(off, off) / 2;
                ++n;
                EXPECT_LT(norm(off), 1.0);
            }
        }
    }
    EXPECT_LT(std::sqrt(square / n), 0.1);
}

TEST(Camera, LengthsFarFromTheCardComeOutTrue) {
    for (unsigned seed = 1; seed <= 4; ++seed) {
        const Scene s = small_picture(usual_scene(Family::adult_tee, Face::front, tee(), seed, seed % 2 == 0 ? 4 : 1), 2000);
        const auto table = vision::find_table(simulated_photo(s, seed), {});
        ASSERT_TRUE(table) << table.sentence();
        EXPECT_EQ(table->cards.size(), s.cards.size());
        const Eigen::Map<const Eigen::Matrix<double, 8, 8>> cov(table->covariance.data());
        EXPECT_GT(cov.llt().matrixLLT().diagonal().minCoeff(), 0) << "a covariance";
        for (const auto& [a, b] : {std::pair{Point{-270, 250}, Point{270, 250}}, std::pair{Point{0, -350}, Point{0, 350}}}) {
            const double length =
                norm(vision::on_table(table->camera, seen_at(s.lens, a)) - vision::on_table(table->camera, seen_at(s.lens, b)));
            EXPECT_NEAR(length, norm(b - a), s.cards.size() == 1 ? 1.5 : 0.5) << seed;
        }
    }
}

TEST(Camera, ThereAndBackIsTheSamePoint) {
    std::mt19937 random(5);
    const auto between = [&](double a, double b) { return a + (b - a) * static_cast<double>(random()) / 4294967296.0; };
    for (int k = 0; k < 200; ++k) {
        const CameraPose c{between(1500, 4000),
                           between(-0.08, 0.08),
                           {between(-0.4, 0.4), between(-0.4, 0.4), between(-3, 3)},
                           {between(-100, 100), between(-100, 100), between(700, 1500)},
                           4000,
                           3000};
        const Point p{between(-300, 300), between(-300, 300)};
        const double height = between(0, 5);
        EXPECT_LT(norm(vision::on_table(c, vision::seen_at(c, p, height), height) - p), 1e-6);
    }
}

TEST(LeastSquares, FindsALineThroughWrongPoints) {
    // y = 2 + 3 x, a fifth of the points far off: the answer of the others, by the normal equations in closed form
    std::vector<std::pair<double, double>> points;
    for (int i = 0; i < 40; ++i) points.emplace_back(i * 0.1, 2 + 0.3 * i + 0.01 * ((i * 7) % 5 - 2) + (i % 5 == 0 ? 50 : 0));
    const vision::Residuals off = [&](const Eigen::VectorXd& v, Eigen::VectorXd& out) {
        out.resize(static_cast<long>(points.size()));
        for (std::size_t i = 0; i < points.size(); ++i)
            out[static_cast<long>(i)] = (v[0] + v[1] * points[i].first - points[i].second) / 0.02;
    };
    const auto solved = vision::least_squares(off, Eigen::Vector2d(0, 0), static_cast<int>(points.size()), 2);
    EXPECT_NEAR(solved.figures[0], 2, 0.05);
    EXPECT_NEAR(solved.figures[1], 3, 0.03);
    // the Jacobian of a linear thing is its matrix
    const Eigen::MatrixXd j = vision::jacobian(off, solved.figures);
    for (std::size_t i = 0; i < points.size(); ++i) {
        EXPECT_NEAR(j(static_cast<long>(i), 0), 50, 1e-5);
        EXPECT_NEAR(j(static_cast<long>(i), 1), 50 * points[i].first, 1e-5);
    }
}

TEST(PhotoTape, FiguresLieWithinTwoMillimetres) {
    int figures = 0, within = 0, covered = 0;
    for (unsigned seed = 1; seed <= 5; ++seed) {
        const Scene s = small_picture(usual_scene(Family::adult_tee, Face::front, tee(), seed, 1), 2000);
        const Photo photo = simulated_photo(s, seed);
        const auto table = vision::find_table(photo, {});
        ASSERT_TRUE(table) << table.sentence();
        const auto blank = vision::measure_blank(photo, *table, asked_for(s, 0.03), {});
        ASSERT_TRUE(blank) << seed << ": " << blank.sentence();
        EXPECT_TRUE(blank->figures.contains(Measure::chest) && blank->figures.contains(Measure::body_length));
        for (const auto& [m, f] : blank->figures) {
            const double off = std::abs(f.mm - measure_mm(s.measures, m));
            ++figures;
            within += off <= std::max(2.0, 0.005 * measure_mm(s.measures, m)) ? 1 : 0;
            covered += off <= f.error ? 1 : 0;
            EXPECT_LT(off, 6) << seed << " " << measure_key(m);
            // a tape laid between the two points on the table is as long as the figure says
            const Point a = vision::on_table(table->camera, f.from, 1), b = vision::on_table(table->camera, f.to, 1);
            if (m == Measure::chest) EXPECT_NEAR(norm(b - a), f.mm, 0.1);
        }
    }
    EXPECT_GE(figures, 40);
    EXPECT_GE(within, 0.94 * figures);
    EXPECT_GE(covered, 0.88 * figures);
}

TEST(PhotoTape, ASleeveAcrossTheBodyDoesNotEndBothAtTheCuffsSeam) {
    const BlankStyle fleece = test::library_style("crew-fleece");
    const Measures& middle = fleece.chart.at(fleece.sizes[fleece.sizes.size() / 2]);
    Scene s = small_picture(usual_scene(Family::crew_fleece, Face::front, middle, 1, 1), 1600);
    s.lying.left_sleeve = 0.24;  // its cuff beside the hem's rib
    const Photo photo = simulated_photo(s, 1);
    const auto table = vision::find_table(photo, {});
    ASSERT_TRUE(table) << table.sentence();
    BlankAsked asked = asked_for(s, 0);
    const double truth = measure_mm(s.measures, Measure::sleeve_length);
    asked.expected[Measure::sleeve_length].value = Length::from_mm(0.95 * truth);
    const auto blank = vision::measure_blank(photo, *table, asked, {});
    ASSERT_TRUE(blank) << blank.sentence();
    EXPECT_TRUE(blank->refused.empty()) << blank->refused;
    ASSERT_TRUE(blank->figures.contains(Measure::sleeve_length));
    EXPECT_NEAR(blank->figures.at(Measure::sleeve_length).mm, truth, 0.005 * truth);  // with the shorter one it was 62 mm off
}

TEST(PhotoTape, AThumbAFoldOrAShadowOnTheCardIsNoMatter) {
    for (int fault = 0; fault < 4; ++fault) {
        Scene s = small_picture(usual_scene(Family::adult_tee, Face::front, tee(), 3, 1), 2000);
        CardOnTable& card = s.cards[0];
        if (fault == 0)  // a third of it hidden
            for (const double y : {-120.0, -40.0, 40.0, 120.0}) s.thumbs.push_back({on_table(card.at, {75, y}), 48});
        if (fault == 1) s.thumbs.push_back({on_table(card.at, {-80, 120}), 30});
        if (fault == 2) card.fold = Fold{0, 0.015};  // lies 1.5 mm off the table at its far edge
        if (fault == 3) card.dusk = Dusk{10, 0.55};
        const Photo photo = simulated_photo(s, 3);
        const auto table = vision::find_table(photo, {});
        ASSERT_TRUE(table) << fault << ": " << table.sentence();
        EXPECT_LE(table->cards[0].marks, fault < 2 ? 19 : 20);
        const auto blank = vision::measure_blank(photo, *table, asked_for(s, 0.02), {});
        ASSERT_TRUE(blank) << fault << ": " << blank.sentence();
        ASSERT_EQ(blank->refused, "") << fault;
        for (const Measure m : {Measure::chest, Measure::body_length})
            EXPECT_NEAR(blank->figures.at(m).mm, measure_mm(s.measures, m), std::max(3.0, 0.008 * measure_mm(s.measures, m))) << fault;
    }
}

TEST(PhotoTape, WhatCannotBeDoneIsRefused) {
    Scene s = small_picture(usual_scene(Family::adult_tee, Face::front, tee(), 2, 1), 1600);
    const auto says = [&](const Scene& scene, const BlankAsked& asked) -> std::string {
        const Photo photo = simulated_photo(scene, 1);
        const auto table = vision::find_table(photo, {});
        if (!table) return table.sentence();
        const auto blank = vision::measure_blank(photo, *table, asked, {});
        return blank ? blank->refused : blank.sentence();
    };
    const BlankAsked asked = asked_for(s, 0.01);
    Scene none = s;
    none.cards.clear();
    EXPECT_NE(says(none, asked).find("No photo card"), std::string::npos);
    Scene two = s;
    two.cards.push_back(two.cards[0]);
    two.cards[1].at.y += 330;
    two.lens.distance *= 1.35;
    EXPECT_NE(says(two, asked).find("same number"), std::string::npos);
    Scene far = s;
    far.lens.distance *= 2.2;
    EXPECT_NE(says(far, asked).find("too small"), std::string::npos);
    Scene side = s;
    side.lens.tilt = 1.0;
    EXPECT_NE(says(side, asked), "");
    Scene alike = s;
    alike.cloth = alike.table;
    alike.shadow = 0;
    alike.creases = 0;
    EXPECT_NE(says(alike, asked), "") << "cloth of the table's own colour";
    BlankAsked other = asked;
    other.family = Family::tote;
    other.expected = {};
    other.expected[Measure::width].value = Length::from_mm(560);
    other.expected[Measure::height].value = Length::from_mm(700);
    other.expected[Measure::handle_spacing].value = Length::from_mm(150);
    EXPECT_NE(says(s, other), "") << "a tee is no tote";
    // a printed photograph of a blank lies on the table: it has not the size of one
    Scene small = s;
    for (auto& [m, f] : small.measures) f.value = f.value * 0.25;
    EXPECT_NE(says(small, asked), "");
}

}  // namespace
}  // namespace orthema
