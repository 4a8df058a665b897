// Transfers: counts, mirrors and contours.
#include "core/transfers/transfers.h"

#include <random>

#include "core/sheets/sheet_drawing.h"
#include "files/order_file.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

struct Made {
    Order order;
    ArtFactsById facts;
    FitPlan plan;
    TransferSet set;
    explicit Made(Order o)
        : order(std::move(o)),
          facts(facts_of(load_all_art(order, test::small_art(), nullptr))),
          plan(fit(order, facts)),
          set(transfers(order, plan, facts)) {}
};

/// The picture in a transfer, as it is printed.
ArtMark transfer_art(const Transfer& t) {
    for (const Mark& m : t.picture)
        if (const auto* art = std::get_if<ArtMark>(&m)) return *art;
    ADD_FAILURE() << "no picture in " << t.id;
    return {};
}

TEST(Transfers, OneForEachDistinctWidthAndNoneLost) {
    Order order = test::small_order();
    order.decorations[0].sizing.band_count = 3;
    order.decorations[0].spares = 2;
    const Made m(order);
    ASSERT_EQ(m.set.transfers.size(), 3u);
    int total = 0;
    std::set<double> widths;
    for (const Transfer& t : m.set.transfers) {
        total += t.quantity;
        widths.insert(t.width);
        EXPECT_EQ(t.count(), t.quantity + 2);
        EXPECT_EQ(find_transfer(m.set, t.id), &t);
        EXPECT_FALSE(t.sizes.empty());
    }
    EXPECT_EQ(total, garments_in(order));
    EXPECT_EQ(widths.size(), 3u);
}

TEST(Transfers, PinnedSizesOfTheSameWidthShareATransfer) {
    Order order = test::small_order();
    for (const char* size : {"S", "M", "L", "XL", "3XL"}) order.decorations[0].pins.push_back({size, Length::from_mm(180), {}, {}});
    const Made m(order);
    ASSERT_EQ(m.set.transfers.size(), 1u);
    EXPECT_EQ(sizes_text(m.set.transfers[0]), "S M L XL 3XL");
}

TEST(Transfers, TheContourKeepsItsMarginFromAllInk) {
    for (const MirrorBy mirror : {MirrorBy::program, MirrorBy::nobody}) {
        Order order = test::small_order();
        for (Medium& medium : order.media) medium.mirror = mirror;
        const Made m(order);
        for (const Transfer& t : m.set.transfers) {
            const Rect box = bounds(t.contour.outer);
            EXPECT_NEAR(box.x0, 0, 1e-9);
            EXPECT_NEAR(box.y0, 0, 1e-9);
            EXPECT_EQ(t.mirrored, mirror == MirrorBy::program);
            // the traced ink, placed by the same map as the art is drawn with
            const Region ink = mapped(m.facts.at("corner").outline, transfer_art(t).place);
            EXPECT_NEAR(bounds(ink).x0, t.ink.x0, 1e-6);
            EXPECT_NEAR(bounds(ink).x1, t.ink.x1, 1e-6);
            for (const Polygon& p : ink)
                for (const Point& q : p.outer) {
                    EXPECT_TRUE(inside(t.contour, q));
                    const Polygon dot{{q, q + Point{1e-7, 0}, q + Point{0, 1e-7}}, {}};
                    double near = 1e9;
                    for (std::size_t i = 0; i < t.contour.outer.size(); ++i) {
                        const Polygon edge{
                            {t.contour.outer[i], t.contour.outer[(i + 1) % t.contour.outer.size()], t.contour.outer[i] + Point{1e-9, 1e-9}},
                            {}};
                        near = std::min(near, distance(dot, edge));
                    }
                    EXPECT_GE(near, Medium{}.cut_offset.mm() - 0.1);
                }
        }
    }
}

TEST(Transfers, MirroredMeansMirroredOnce) {
    Order order = test::small_order();
    const auto one = [&](MirrorBy by) {
        for (Medium& medium : order.media) medium.mirror = by;
        return Made(order).set.transfers.at(0);
    };
    const Transfer plain = one(MirrorBy::nobody), mirrored = one(MirrorBy::program), printer = one(MirrorBy::printer_software);
    EXPECT_GT(transfer_art(plain).place.determinant(), 0);
    EXPECT_LT(transfer_art(mirrored).place.determinant(), 0);
    EXPECT_GT(transfer_art(printer).place.determinant(), 0);
    const Rect box = bounds(plain.contour.outer);
    // the mirrored contour is the plain one seen from behind
    for (const Point& p : plain.contour.outer) EXPECT_TRUE(inside(offset({mirrored.contour}, 0.3), {box.x1 - p.x, p.y}));
    EXPECT_NEAR(area(mirrored.contour), area(plain.contour), area(plain.contour) * 0.002);
}

TEST(Transfers, TheArtsOwnLeftLandsRightWhenMirrored) {
    const Made m(test::small_order());
    for (const Transfer& t : m.set.transfers) {
        const Affine place = transfer_art(t).place;
        const Point left = place({0, 0}), right = place({1, 0});
        EXPECT_NEAR(std::abs(left.x - right.x), t.width, 1e-9);
        EXPECT_EQ(left.x > right.x, t.mirrored);
    }
}

TEST(Contour, JoinsIslandsAndDropsSmallHoles) {
    Region scattered = box_region({0, 0, 20, 20});
    for (const Polygon& p : box_region({45, 3, 60, 16})) scattered.push_back(p);
    const Polygon one = cutting_contour(scattered, 2);
    for (const Polygon& p : scattered)
        for (const Point& q : p.outer) EXPECT_TRUE(inside(one, q));
    Region holed = box_region({0, 0, 100, 100});
    holed[0].holes.push_back({{10, 10}, {10, 20}, {20, 20}, {20, 10}});
    holed[0].holes.push_back({{30, 30}, {30, 90}, {90, 90}, {90, 30}});
    const Polygon ring = cutting_contour(holed, 2);
    ASSERT_EQ(ring.holes.size(), 1u);
    const Rect hole = bounds(ring.holes[0]);
    EXPECT_GE(hole.x0, 32 - 0.1);
    EXPECT_LE(hole.width(), 56 + 0.2);
}

TEST(Contour, OneClosedPieceForAnyScatter) {
    std::mt19937 random(13);
    std::uniform_real_distribution<double> any(0, 160);
    for (int round = 0; round < 25; ++round) {
        Region scatter;
        for (int i = 0; i < 6; ++i) scatter.push_back(mapped(test::random_star(random, 14, 8), Affine::shift(any(random), any(random))));
        Region merged;
        for (const Polygon& p : scatter) merged = unite(merged, {p});
        const Polygon piece = cutting_contour(merged, 2);
        ASSERT_GE(piece.outer.size(), 3u);
        for (const Polygon& p : merged)
            for (const Point& q : p.outer) EXPECT_TRUE(inside(piece, q)) << round;
    }
}

TEST(Transfers, TakenOverContoursAreTheSame) {
    const Made m(test::small_order());
    const TransferSet again = transfers(m.order, m.plan, m.facts, &m.set);
    ASSERT_EQ(again.transfers.size(), m.set.transfers.size());
    for (std::size_t i = 0; i < again.transfers.size(); ++i) {
        EXPECT_EQ(again.transfers[i].contour.outer, m.set.transfers[i].contour.outer);
        EXPECT_EQ(again.transfers[i].ink, m.set.transfers[i].ink);
    }
}

}  // namespace TESTED
}  // namespace orthema
