// The platen solver against an exhaustive grid of shifts, and the order in which it tries things.
#include "core/fitting/platen.h"

#include "support/support.h"

#include <cmath>
#include <random>

namespace orthema {
namespace TESTED {

Platen platen(const char* name, double w, double h) { return {name, Length::from_mm(w), Length::from_mm(h)}; }
Pad pad(const char* name, double w, double h, double t) { return {name, Length::from_mm(w), Length::from_mm(h), Length::from_mm(t)}; }

bool under(const Rect& r, const std::vector<RaisedBox>& boxes) {
    return std::any_of(boxes.begin(), boxes.end(), [&](const RaisedBox& b) {
        return b.box.x0 < r.x1 - 1e-6 && r.x0 < b.box.x1 - 1e-6 && b.box.y0 < r.y1 - 1e-6 && r.y0 < b.box.y1 - 1e-6;
    });
}

TEST(PlatenFit, LeastShiftAgainstEveryShiftOnAGrid) {
    std::mt19937 random(11);
    std::uniform_int_distribution<int> at(-180, 180), side(4, 90), ink_side(20, 160);
    int solved = 0, refused = 0;
    for (int round = 0; round < 150; ++round) {
        const double w = ink_side(random), h = ink_side(random);
        const Rect ink{-w / 2, -h / 2, w / 2, h / 2};
        const Point size{220, 260};
        std::vector<RaisedBox> boxes;
        for (int i = 0; i < 3; ++i) {
            const double x = at(random), y = at(random);
            boxes.push_back({"box", {x, y, x + side(random), y + side(random)}, 3});
        }
        const auto found = least_shift(ink, 10, size, boxes);
        // whole millimetres: every edge above is whole or a half, so that the best lies within a step of the grid
        double best = 1e9;
        const int sx = static_cast<int>(std::floor((size.x - w) / 2 - 10)), sy = static_cast<int>(std::floor((size.y - h) / 2 - 10));
        for (int x = -sx; x <= sx; ++x)
            for (int y = -sy; y <= sy; ++y) {
                if (std::hypot(x, y) >= best) continue;
                const Rect r{x - size.x / 2, y - size.y / 2, x + size.x / 2, y + size.y / 2};
                if (!under(r, boxes)) best = std::hypot(x, y);
            }
        if (best < 1e8) {
            ASSERT_TRUE(found) << round;
            EXPECT_LE(norm(*found), best + 1e-9);
            EXPECT_GE(norm(*found), best - 1.5);
            ++solved;
        } else {
            ++refused;
        }
        if (found) {
            const Rect r{found->x - size.x / 2, found->y - size.y / 2, found->x + size.x / 2, found->y + size.y / 2};
            EXPECT_FALSE(under(r, boxes));
            EXPECT_LE(r.x0, ink.x0 - 10 + 1e-6);
            EXPECT_GE(r.x1, ink.x1 + 10 - 1e-6);
            EXPECT_LE(r.y0, ink.y0 - 10 + 1e-6);
            EXPECT_GE(r.y1, ink.y1 + 10 - 1e-6);
        }
    }
    EXPECT_GT(solved, 40);
    EXPECT_GT(refused, 10);
}

TEST(PlatenFit, TriesInTheTradesOrder) {
    Press press{"p",
                "Press",
                PressKind::flat,
                {platen("large", 400, 500), platen("small", 180, 180)},
                {pad("pillow", 130, 130, 8)},
                Length::from_mm(10)};
    const Rect ink{-50, 100, 50, 200};
    EXPECT_EQ(platen_fit(press, ink, {}).way, PlatenWay::as_is);
    // a collar 120 mm above the ink's middle: the platen's upper edge, 250 above, goes down until it is clear
    const std::vector<RaisedBox> collar{{"collar seam", {-90, -400, 90, 30}, 3}};
    const PlatenFit shifted = platen_fit(press, ink, collar);
    EXPECT_EQ(shifted.way, PlatenWay::shifted);
    EXPECT_EQ(shifted.because, "collar seam");
    EXPECT_NEAR(shifted.shift.y, 130, 1e-9);  // by hand: 150 + 30 − 250 = −70 … the edge lies at −100, the seam at 30
    EXPECT_NEAR(shifted.shift.x, 0, 1e-9);
    EXPECT_NEAR(shifted.presses.at(0).y0, 30, 1e-9);
    EXPECT_NE(worded(platen_words(shifted, press), Unit::mm).find("lower by 130 mm"), std::string::npos);
    // shut in between two seams: the small platen goes between them
    std::vector<RaisedBox> between{{"armhole seam", {-400, -400, -100, 700}, 2}, {"armhole seam", {100, -400, 400, 700}, 2}};
    const PlatenFit other = platen_fit(press, ink, between);
    EXPECT_EQ(other.way, PlatenWay::other_platen);
    EXPECT_EQ(other.platen, 1);
    // nearer still: a pillow lifts it
    for (RaisedBox& b : between) b.box = b.box.x0 < 0 ? Rect{-400, -400, -70, 700} : Rect{70, -400, 400, 700};
    const PlatenFit lifted = platen_fit(press, ink, between);
    EXPECT_EQ(lifted.way, PlatenWay::pad);
    ASSERT_TRUE(lifted.pad_place);
    EXPECT_FALSE(under(*lifted.pad_place, between));
    // thinner than the seam is high: no pad helps
    for (RaisedBox& b : between) b.height = 9;
    EXPECT_EQ(platen_fit(press, ink, between).way, PlatenWay::none);
    EXPECT_NE(platen_fit(press, ink, between).because, "size");
}

TEST(PlatenFit, LargeDesignsGetPressesThatCoverAllOfThemAndOverlap) {
    const Press press{"p", "Press", PressKind::flat, {platen("square", 380, 380)}, {}, Length::from_mm(10)};
    for (const auto& [w, h] : {std::pair{420.0, 300.0}, {300.0, 900.0}, {700.0, 700.0}}) {
        const Rect ink{-w / 2, 50, w / 2, 50 + h};
        const PlatenFit plan = platen_fit(press, ink, {});
        ASSERT_EQ(plan.way, PlatenWay::several) << w << " " << h;
        for (double x = ink.x0; x <= ink.x1; x += 7)
            for (double y = ink.y0; y <= ink.y1; y += 7)
                EXPECT_TRUE(std::any_of(plan.presses.begin(), plan.presses.end(), [&](const Rect& r) {
                    return r.grown(-10).contains({x, y});
                }));
        const int across = static_cast<int>(std::ceil((w - 10) / 350)), down = static_cast<int>(std::ceil((h - 10) / 350));
        EXPECT_EQ(plan.presses.size(), static_cast<std::size_t>(across * down));
        for (std::size_t i = 1; i < plan.presses.size(); ++i)
            EXPECT_TRUE(plan.presses[i].grown(-10).meets(plan.presses[i - 1].grown(-10))) << "each lies against the last";
    }
}

TEST(PlatenFit, FieldsLeaveNoInkOfAnyOutlineOutAndNoneIsIdle) {
    std::mt19937 rng(31);
    const auto real = [&](double a, double b) { return std::uniform_real_distribution<>(a, b)(rng); };
    const int cases = test::rounds(300, 10000);
    int fewer = 0;
    for (int k = 0; k < cases; ++k) {
        Region outline;
        for (int n = 1 + int(rng() % 4); n > 0; --n) {
            Ring ring;
            const double cx = real(-200, 200), cy = real(50, 500), r = real(20, 220);
            for (int i = 0; i < 14; ++i)
                ring.push_back({cx + r * real(0.4, 1) * std::cos(i * M_PI / 7), cy + r * real(0.4, 1) * std::sin(i * M_PI / 7)});
            outline = unite(outline, {{ring, {}}});
        }
        const Press press{
            "p", "Hand press", PressKind::flat, {platen("hand", real(120, 240), real(120, 240))}, {}, Length::from_mm(real(2, 12))};
        const Rect ink = bounds(outline);
        const PlatenFit plan = platen_fit(press, ink, {}, &outline);
        if (plan.way != PlatenWay::several) continue;
        Region bare = outline;
        for (const Rect& field : plan.presses) bare = subtract(bare, box_region(field.grown(-press.margin.mm())));
        EXPECT_LT(area(bare), 1e-2) << k;
        for (std::size_t i = 0; i < plan.presses.size(); ++i) {
            Region without = outline;
            for (std::size_t o = 0; o < plan.presses.size(); ++o)
                if (o != i) without = subtract(without, box_region(plan.presses[o].grown(-press.margin.mm())));
            EXPECT_GT(area(without), 0) << k << ": field " << i << " is not needed";
        }
        fewer += plan.presses.size() < platen_fit(press, ink, {}).presses.size() ? 1 : 0;
        // the ink that lies in most fields, against a grid
        int most = 1;
        for (double x = ink.x0 + 0.5; x < ink.x1; x += 3)
            for (double y = ink.y0 + 0.5; y < ink.y1; y += 3)
                most = std::max(most, int(std::count_if(plan.presses.begin(), plan.presses.end(), [&](const Rect& f) {
                                    return f.contains({x, y});
                                })));
        EXPECT_GE(most_fields_over(plan.presses, ink), most) << k;
        EXPECT_LE(most_fields_over(plan.presses, ink), 9) << k;
    }
    EXPECT_GT(fewer, cases / 20) << "where the outline leaves corners free, fields are saved";
}

}  // namespace TESTED
}  // namespace orthema
