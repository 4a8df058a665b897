// Gang sheets: layouts in the order, moves by hand, and the page that is printed.
#include "core/sheets/sheets.h"

#include <set>

#include "core/sheets/by_hand.h"
#include "core/sheets/cut_path.h"
#include "core/sheets/sheet_drawing.h"
#include "support/laid_order.h"

namespace orthema {
namespace TESTED {

struct Laid : test::LaidOrder {
    Laid() : LaidOrder("film-559") {}
    [[nodiscard]] const std::vector<PlacedCopy>& copies() const { return order.layouts[0].copies; }
    [[nodiscard]] HandLayout hand(std::vector<PlacedCopy> copies) const { return {medium(), set, {medium_id, std::move(copies)}}; }
    [[nodiscard]] std::vector<std::string> faults(const std::vector<PlacedCopy>& copies) const {
        const NestProblem p = sheet_problem({medium(), {}}, set, {});
        return nest_faults(p, to_placements(p, copies), 0.01);
    }
};

/// One copy moved towards a place.
PlacedCopy moved_to(const HandLayout& hand, int i, double x, double y) {
    const PlacedCopy& c = hand.copies()[static_cast<std::size_t>(i)];
    return hand.moved({i}, x - c.x, y - c.y)[0];
}

TEST(Sheets, APlanFromTheLayoutMeasuresWhatIsThere) {
    const Laid l;
    const SheetPlan plan = sheet_plan(l.order, l.set);
    ASSERT_EQ(plan.media.size(), 1u);
    const MediumPlan& m = plan.media[0];
    EXPECT_FALSE(m.stale);
    EXPECT_EQ(m.placed, garments_in(l.order));
    EXPECT_EQ(m.asked, m.placed);
    double end = 0, used = 0, cut = 0;
    for (const PlacedCopy& c : l.copies()) {
        const Polygon at = mapped(find_transfer(l.set, c.transfer)->contour, copy_map(c));
        end = std::max(end, bounds(at.outer).x1);
        used += area(at);
        cut += perimeter({at});
    }
    EXPECT_NEAR(m.length, end + l.medium().margin.mm(), 1e-6);
    EXPECT_NEAR(m.density, used / (m.length * l.medium().width.mm()), 1e-9);
    EXPECT_NEAR(m.sheets[0].cut_length, cut, 1e-6);
    EXPECT_NEAR(m.cost, m.length / 1000 * l.medium().price, 1e-9);
}

TEST(Sheets, AChangedFitMakesTheLayoutStaleAndSaysSo) {
    Laid l;
    l.order.decorations[0].sizing.base_width = Length::from_mm(150);
    const TransferSet now = transfers(l.order, fit(l.order, l.facts), l.facts);
    const SheetPlan plan = sheet_plan(l.order, now);
    ASSERT_FALSE(plan.findings.empty());
    EXPECT_TRUE(plan.findings[0].code == "sheet-stale" || plan.findings[0].code == "sheet-empty");
    l.order.layouts.clear();
    EXPECT_EQ(sheet_plan(l.order, l.set).findings.at(0).code, "sheet-empty");
}

TEST(Sheets, CutSheetsAreCountedAndPaidWhole) {
    Laid l;
    Medium& paper =
        *std::find_if(l.order.media.begin(), l.order.media.end(), [](const Medium& m) { return m.shape == MediumShape::sheet; });
    l.order.decorations[0].medium = paper.id;
    const TransferSet set = transfers(l.order, fit(l.order, l.facts), l.facts);
    const NestProblem p = sheet_problem({paper, {}}, set, {});
    NestOptions options;
    options.rounds = 1;
    const auto s = nest(p, options);
    ASSERT_TRUE(s) << s.sentence();
    const SheetPlan plan = sheet_plan(with_layout(l.order, paper.id, to_copies(p, s->placements)), set);
    const MediumPlan& m = plan.media.at(0);
    EXPECT_GT(m.sheets.size(), 1u);
    EXPECT_NEAR(m.cost, paper.price * static_cast<double>(m.sheets.size()), 1e-9);
    for (const Sheet& sheet : m.sheets) EXPECT_EQ(sheet.length, paper.length.mm());
}

TEST(Sheets, ThePageMapPutsTheFeedDownThePage) {
    const Laid l;
    const Sheet sheet = sheet_plan(l.order, l.set).media[0].sheets[0];
    const Affine page = page_map(sheet);
    EXPECT_NEAR(page.determinant(), 1, 1e-12) << "a turn, not a mirror";
    EXPECT_EQ(page({0, 0}), (Point{sheet.width, 0}));
    EXPECT_EQ(page({sheet.length, sheet.width}), (Point{0, sheet.length}));
    const Drawing d = sheet_page(l.order, sheet, l.set);
    EXPECT_EQ(d.width, sheet.width);
    EXPECT_EQ(d.height, sheet.length);
    int art = 0;
    for (const Mark& m : d.marks)
        if (const auto* a = std::get_if<ArtMark>(&m)) {
            ++art;
            EXPECT_LT(a->place.determinant(), 0) << "mirrored exactly once, by the transfer";
        }
    EXPECT_EQ(art, garments_in(l.order));
    EXPECT_EQ(cut_contours(sheet, l.set).size(), static_cast<std::size_t>(art));
    EXPECT_NE(sheet_title(l.order, sheet).find("mirrored here"), std::string::npos);
}

TEST(ByHand, AMovedPieceNeverComesToLieOnAnother) {
    Laid l;
    std::mt19937 random(31);
    std::uniform_real_distribution<double> x(-50, 900), y(-50, 600);
    std::vector<PlacedCopy> copies = l.copies();
    int moved = 0;
    for (int k = 0; k < 120; ++k) {
        const int i = k % static_cast<int>(copies.size());
        const PlacedCopy next = moved_to(l.hand(copies), i, x(random), y(random));
        moved += next == copies[std::size_t(i)] ? 0 : 1;
        copies[std::size_t(i)] = next;
    }
    EXPECT_GT(moved, 15);
    EXPECT_TRUE(l.faults(copies).empty()) << l.faults(copies).front();
}

TEST(ByHand, SlidesUpToItsNeighbourAndStops) {
    Laid l;
    const Transfer& t = l.set.transfers[0];
    const Rect box = bounds(t.contour.outer);
    const double gap = l.medium().gap.mm();
    std::vector<PlacedCopy> two{{t.id, 0, 0, 0, 10, 10, false}, {t.id, 1, 0, 0, 10 + box.width() + 60, 10, false}};
    const PlacedCopy next = moved_to(l.hand(two), 0, two[1].x - 20, 10);
    EXPECT_GT(next.x, 10 + 30);
    EXPECT_GE(distance(mapped(t.contour, copy_map(next)), mapped(t.contour, copy_map(two[1]))), gap - 1e-3);
    EXPECT_LE(distance(mapped(t.contour, copy_map(next)), mapped(t.contour, copy_map(two[1]))), gap + 0.1);
}

TEST(ByHand, StaysInsideTheMarginsAndLockedPiecesStay) {
    Laid l;
    const Transfer& t = l.set.transfers[0];
    std::vector<PlacedCopy> one{{t.id, 0, 0, 0, 100, 100, false}};
    const PlacedCopy out = moved_to(l.hand(one), 0, -500, 9000);
    const Rect box = bounds(mapped(t.contour, copy_map(out)).outer);
    EXPECT_NEAR(box.x0, l.medium().margin.mm(), 1e-6);
    EXPECT_NEAR(box.y1, l.medium().width.mm() - l.medium().margin.mm(), 1e-6);
    one[0].locked = true;
    EXPECT_EQ(moved_to(l.hand(one), 0, 200, 200), one[0]);
    EXPECT_FALSE(l.hand(one).turned(0));
}

TEST(ByHand, TurnsAboutItsMiddleWhereThereIsRoom) {
    Laid l;
    const Transfer& t = l.set.transfers[0];
    std::vector<PlacedCopy> one{{t.id, 0, 0, 0, 180, 160, false}};
    const auto next = l.hand(one).turned(0);
    ASSERT_TRUE(next);
    EXPECT_EQ(next->turn, 90);
    const Point before = bounds(mapped(t.contour, copy_map(one[0])).outer).centre(),
                after = bounds(mapped(t.contour, copy_map(*next)).outer).centre();
    EXPECT_NEAR(norm(before - after), 0, 1e-6);
    PlacedCopy round = one[0];
    for (int k = 0; k < 4; ++k) round = *l.hand({round}).turned(0);
    EXPECT_EQ(round.turn, 0);
    EXPECT_NEAR(round.x, one[0].x, 1e-6);
    Medium grain = l.medium();
    grain.quarter_turns = false;
    const MediumLayout layout{grain.id, one};
    EXPECT_FALSE(HandLayout(grain, l.set, layout).turned(0));
    grain.laying.grain = true;  // half turns lie along it
    EXPECT_EQ(HandLayout(grain, l.set, layout).turned(0)->turn, 180);
}

TEST(ByHand, APointInABayBelongsToWhatLiesThere) {
    Laid l;
    const Transfer& t = l.set.transfers[0];  // an L: its bay is free
    std::vector<PlacedCopy> one{{t.id, 0, 0, 0, 50, 50, false}};
    const HandLayout hand = l.hand(one);
    const Polygon& outline = hand.outlines()[0];
    const Rect box = bounds(outline.outer);
    int inside_count = 0;
    for (int i = 0; i < 30; ++i)
        for (int j = 0; j < 30; ++j) {
            const Point p{box.x0 + box.width() * (i + 0.5) / 30, box.y0 + box.height() * (j + 0.5) / 30};
            const bool hit = hand.at(0, p) == 0;
            EXPECT_EQ(hit, test::winds_around(outline, p));
            inside_count += hit ? 1 : 0;
        }
    EXPECT_GT(inside_count, 200);
    EXPECT_LT(inside_count, 700);
    EXPECT_EQ(hand.at(1, box.centre()), -1);
}

TEST(ByHand, ChosenPiecesMoveTogetherAndKeepApart) {
    Laid l;
    const Transfer& t = l.set.transfers[0];
    const Rect box = bounds(t.contour.outer);
    const double step = box.width() + 30;
    std::vector<PlacedCopy> row;
    for (int i = 0; i < 3; ++i) row.push_back({t.id, i, 0, 0, 10 + i * step, 20, false});
    row.push_back({t.id, 3, 0, 0, 10 + 3 * step + 40, 20, false});
    const auto next = l.hand(row).moved({0, 1, 2}, 500, 0);
    ASSERT_EQ(next.size(), 3u);
    const double by = next[0].x - row[0].x;
    EXPECT_GT(by, 30) << "the third meets the fourth";
    for (int i = 0; i < 3; ++i) {
        EXPECT_NEAR(next[std::size_t(i)].x - row[std::size_t(i)].x, by, 1e-9);
        row[std::size_t(i)] = next[std::size_t(i)];
    }
    EXPECT_TRUE(l.hand(row).lies_free(2, row[2]));
    row[1].locked = true;
    EXPECT_EQ(l.hand(row).moved({0, 1}, 0, 50)[0], row[0]) << "none goes where one must stay";
}

TEST(ByHand, SwapsAndSendsToAnotherSheet) {
    Laid l;
    std::vector<PlacedCopy> copies = l.copies();
    // two kinds, far apart
    int other = 1;
    while (copies[std::size_t(other)].transfer == copies[0].transfer) ++other;
    const std::vector<Rect> boxes = laid_boxes(l.medium(), l.set, copies);
    const auto swapped = l.hand({copies[0], copies[std::size_t(other)]}).swapped(0, 1);
    ASSERT_TRUE(swapped);
    const auto after = laid_boxes(l.medium(), l.set, {swapped->first, swapped->second});
    EXPECT_LT(norm(after[0].centre() - boxes[std::size_t(other)].centre()), 60.1);
    EXPECT_LT(norm(after[1].centre() - boxes[0].centre()), 60.1);
    EXPECT_TRUE(l.hand({swapped->first, swapped->second}).lies_free(0, swapped->first));

    const auto sent = l.hand(copies).sent({0, 1, 2}, 1);
    ASSERT_TRUE(sent);
    for (int i = 0; i < 3; ++i) {
        EXPECT_EQ((*sent)[std::size_t(i)].sheet, 1);
        copies[std::size_t(i)] = (*sent)[std::size_t(i)];
    }
    EXPECT_TRUE(l.faults(copies).empty()) << l.faults(copies).front();
    const auto back = l.hand(copies).sent({1}, 0);
    ASSERT_TRUE(back);
    copies[1] = (*back)[0];
    EXPECT_TRUE(l.faults(copies).empty()) << l.faults(copies).front();
    copies[2].locked = true;
    EXPECT_FALSE(l.hand(copies).sent({2}, 0));
    EXPECT_FALSE(l.hand(copies).swapped(2, 3));
}

TEST(Labels, EveryPieceHasItsOwnBesideItAndNoneTouchesAnything) {
    const Laid l;
    const SheetPlan plan = sheet_plan(l.order, l.set);
    const Sheet& sheet = plan.media[0].sheets[0];
    const SheetLabels labels = sheet_labels(l.order, sheet, l.set);
    EXPECT_EQ(labels.labels.size() + static_cast<std::size_t>(labels.without), sheet.copies.size());
    EXPECT_GT(labels.labels.size(), sheet.copies.size() * 9 / 10);
    std::vector<Polygon> lying;
    for (const PlacedCopy& c : sheet.copies)
        lying.push_back(mapped(find_transfer(l.set, c.transfer)->contour, page_map(sheet).after(copy_map(c))));
    std::set<std::size_t> copies;
    for (const SheetLabel& label : labels.labels) {
        EXPECT_TRUE(copies.insert(label.copy).second) << "one for each";
        EXPECT_GE(label.box.x0, 0);
        EXPECT_LE(label.box.x1, sheet.width);
        EXPECT_LE(label.box.y1, sheet.length);
        const Polygon box = box_region(label.box)[0];
        for (const Polygon& p : lying) EXPECT_GT(distance(box, p), 0.3) << label.text;
        EXPECT_LT(distance(box, lying[label.copy]), 9);
        EXPECT_LT(norm(label.from - nearest_points(lying[label.copy],
                                                   box_region(Rect{label.from.x, label.from.y, label.from.x, label.from.y}.grown(1e-3))[0])
                                        .first),
                  0.01)
            << "the tick begins at its own contour";
        for (const SheetLabel& other : labels.labels)
            if (&other != &label) EXPECT_FALSE(other.box.meets(label.box));
        const Transfer* t = find_transfer(l.set, sheet.copies[label.copy].transfer);
        const auto number = std::to_string(t - l.set.transfers.data() + 1);
        EXPECT_EQ(label.text.rfind(number, 0), 0u) << "the number of the piece list comes first";
    }
    int words = 0;
    for (const Mark& m : sheet_page(l.order, sheet, l.set, labels).marks) words += std::holds_alternative<TextMark>(m) ? 1 : 0;
    EXPECT_EQ(words, static_cast<int>(labels.labels.size()) + 1) << "and the sheet's title";
}

TEST(CutPath, InnerRingsComeFirstAndTravelIsNearTheLeast) {
    std::mt19937 random(12);
    const auto share = [&] { return static_cast<double>(random()) / 4294967296.0; };
    double ours = 0, least_sum = 0;
    for (int round = 0; round < 12; ++round) {
        std::vector<Polygon> contours;
        for (int i = 0; i < 6; ++i) {
            const Point at{150.0 * (i % 3) + 20 * share(), 150.0 * (i / 3) + 20 * share()};  // apart from each other
            Polygon p{disc(at, 10, 12), {}};
            if (i == 0) {  // with a hole, and a piece in it
                p = {disc(at, 60, 24), {disc(at, 40, 20)}};
                contours.push_back({disc(at, 8, 9), {}});
            }
            contours.push_back(p);
        }
        const auto path = cut_path(contours);
        ASSERT_EQ(path.size(), 8u);
        for (std::size_t i = 0; i < path.size(); ++i)
            for (std::size_t j = i + 1; j < path.size(); ++j)
                EXPECT_FALSE(bounds(path[i].ring).width() > bounds(path[j].ring).width() + 1 && inside(path[i].ring, path[j].ring[0]))
                    << "what lies inside is cut before";
        // every order, by middles: a bound that corners may better by a diameter a step
        std::vector<std::size_t> order(path.size());
        for (std::size_t i = 0; i < order.size(); ++i) order[i] = i;
        double least = 1e9;
        do {
            double way = 0;
            Point at;
            for (const std::size_t i : order) {
                std::size_t best = 0;
                for (std::size_t k = 0; k < path[i].ring.size(); ++k)
                    if (norm(path[i].ring[k] - at) < norm(path[i].ring[best] - at)) best = k;
                way += norm(path[i].ring[best] - at);
                at = path[i].ring[best];
                if (way > least) break;
            }
            least = std::min(least, way);
        } while (std::next_permutation(order.begin(), order.end()));
        ours += idle_travel(path);
        least_sum += least;
        EXPECT_LE(idle_travel(path), 1.8 * least + 1) << round;
    }
    EXPECT_LE(ours, 1.25 * least_sum) << "with the inner rings first, which the bound need not keep";
}

}  // namespace TESTED
}  // namespace orthema
