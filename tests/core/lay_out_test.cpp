// Laying out a medium: stock and offcuts, groups, fillings, what is kept free, blanks on the sheet.
#include "core/sheets/lay_out.h"

#include "core/supply/supply.h"

#include <algorithm>
#include <map>
#include <set>

#include "core/sheets/by_hand.h"
#include "core/sheets/seam.h"
#include "core/sheets/sheet_drawing.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

/// Plain boxes as transfers, so that every answer can be worked out by hand.
struct Shop {
    Medium medium;
    TransferSet set;
    StockCounts counts;  ///< of sizes that are counted
    Shop() {
        medium.id = "paper";
        medium.name = "paper";
        medium.shape = MediumShape::sheet;
        medium.width = Length::from_mm(210);
        medium.length = Length::from_mm(310);
        medium.margin = Length::from_mm(5);
        medium.gap = Length::from_mm(4);
        medium.price = 10;
    }
    void add(const std::string& id, double along, double across, int count, const std::string& art = "art",
             const std::string& sizes = "M") {
        Transfer t;
        t.id = t.name = id;
        t.medium = medium.id;
        t.art = t.garment = art;
        t.sizes = {{"", {sizes}}};
        t.quantity = count;
        t.contour = box_region({0, 0, along, across})[0];
        t.shape = {t.contour};
        set.transfers.push_back(t);
    }
    [[nodiscard]] LaidOut laid(MediumLayout now = {}, int rounds = 4) const {
        NestOptions o;
        o.rounds = rounds;
        o.seconds = 5;
        now.medium = medium.id;
        const auto out = lay_out(medium, set, now, o, {}, {}, counts);
        EXPECT_TRUE(out) << out.sentence();
        if (!out) return {};
        MediumLayout layout = now;
        layout.copies = out->sheets.copies;
        layout.stock = out->sheets.stock;
        EXPECT_EQ(layout_faults(medium, set, layout, 0), std::vector<std::string>{});
        return *out;
    }
};

StockItem size_of(const std::string& id, double width, double length, double price) {
    return {id, id, Length::from_mm(width), Length::from_mm(length), price, {}, {}};
}

std::map<std::string, int> used(const LaidOut& laid) {
    std::map<std::string, int> out;
    for (int s = 0; s < laid.bins; ++s) ++out[stock_of(laid.sheets.stock, s)];
    return out;
}

TEST(Stock, TheCheapestMixIsTaken) {
    Shop shop;
    shop.add("square", 95, 95, 7);  // six on a whole sheet
    EXPECT_EQ(used(shop.laid()), (std::map<std::string, int>{{"", 2}}));
    shop.medium.laying.stock = {size_of("small", 110, 110, 2)};  // takes one
    const LaidOut mixed = shop.laid();
    EXPECT_EQ(used(mixed), (std::map<std::string, int>{{"", 1}, {"small", 1}}));
    EXPECT_NEAR(mixed.cost, 12, 1e-9);
    shop.medium.laying.stock[0].price = 1.5;  // seven small ones cost 10.5, one whole and one small 11.5
    EXPECT_EQ(used(shop.laid()), (std::map<std::string, int>{{"small", 7}}));
    shop.counts["small"] = 3;  // and with three on hand it is 11.5 after all, or 14.5
    const LaidOut few = shop.laid();
    EXPECT_LE(used(few)["small"], 3);
    EXPECT_NEAR(few.cost, 11.5, 1e-9);
    shop.counts.clear();
    shop.medium.laying.stock = {size_of("large", 320, 420, 11)};  // takes all at once
    EXPECT_EQ(used(shop.laid()), (std::map<std::string, int>{{"large", 1}}));
}

TEST(Stock, OffcutsComeFirstWithTheirTrueShape) {
    Shop shop;
    shop.add("square", 60, 60, 3);
    StockItem offcut = size_of("offcut", 210, 210, 0);
    // an L: its upper right quarter is gone
    offcut.shape = {{0, 0}, {210, 0}, {210, 90}, {90, 90}, {90, 210}, {0, 210}};
    shop.medium.laying.stock = {offcut};
    const LaidOut laid = shop.laid();
    EXPECT_EQ(used(laid), (std::map<std::string, int>{{"offcut", 1}}));
    EXPECT_EQ(laid.cost, 0);
    for (const Rect& r : laid_boxes(shop.medium, shop.set, laid.sheets.copies)) {
        EXPECT_TRUE(r.x1 <= 90 - 5 + 1e-3 || r.y1 <= 90 - 5 + 1e-3) << "within the L and its margin";
        EXPECT_GE(r.x0, 5 - 1e-3);
    }
    shop.set.transfers[0].quantity = 9;  // the L takes five: the rest on a sheet
    const LaidOut more = shop.laid();
    EXPECT_EQ(used(more), (std::map<std::string, int>{{"offcut", 1}, {"", 1}}));
}

TEST(Stock, MoreThanIsOnHandIsAFinding) {
    Shop shop;
    shop.add("square", 95, 95, 2);
    shop.medium.laying.stock = {size_of("small", 110, 110, 2)};
    Order order;
    order.media = {shop.medium};
    order.layouts = {{"paper", {{"square", 0, 0, 0, 6, 6, false}, {"square", 1, 1, 0, 6, 6, false}}}};
    order.layouts[0].stock = {"small", "small"};
    const SheetPlan plan = sheet_plan(order, shop.set);
    EXPECT_TRUE(plan.findings.empty());
    StockEntry counted;
    counted.id = sheets_id("paper", "small");
    counted.kind = StockKind::sheets;
    counted.medium = "paper";
    counted.stock = "small";
    counted.on_hand = 1;
    const auto said = [&] { return supply(order, shop.set, plan, {std::make_shared<const Stock>(Stock{{counted}}), {}, ""}).findings; };
    ASSERT_EQ(said().size(), 1u);
    EXPECT_EQ(said()[0].code, "stock-short");
    counted.on_hand = 2;
    EXPECT_TRUE(said().empty());
    EXPECT_EQ(plan.media[0].cost, 4);
    EXPECT_EQ(plan.media[0].sheets[1].width, 110);
}

TEST(Stock, TheLeftOverIsTheSheetLessItsPieces) {
    Shop shop;
    shop.add("tall", 120, 200, 1);
    Sheet sheet;
    sheet.medium = "paper";
    sheet.length = 310;
    sheet.width = 210;
    sheet.copies = {{"tall", 0, 0, 0, 5, 5, false}};
    const auto left = left_over(shop.medium, shop.set, sheet);
    ASSERT_TRUE(left);
    // beside it 185 − 2 × 210, above and below only slivers
    EXPECT_NEAR(left->length.mm(), 310 - 125 - 2, 0.2);
    EXPECT_NEAR(left->width.mm(), 210, 0.2);
    EXPECT_NEAR(area(Polygon{left->shape, left->holes}), 183 * 210, 200) << "its corners are a little round";
    // and what is laid out on it fits
    left_over(shop.medium, shop.set, sheet);
    Shop next;
    next.add("small", 80, 80, 2);
    next.medium.laying.stock = {*left};
    next.medium.laying.stock[0].id = "offcut";
    EXPECT_EQ(used(next.laid()), (std::map<std::string, int>{{"offcut", 1}}));
    sheet.copies.push_back({"tall", 0, 0, 0, 130, 5, false});
    shop.set.transfers[0].contour = box_region({0, 0, 270, 200})[0];
    sheet.copies = {{"tall", 0, 0, 0, 20, 5, false}};
    EXPECT_FALSE(left_over(shop.medium, shop.set, sheet)) << "20 mm is a sliver";
}

TEST(Groups, LieOneAfterTheOtherSoThatAStraightCutPartsThem) {
    for (const Together together : {Together::designs, Together::garments, Together::sizes}) {
        Shop shop;
        shop.medium.shape = MediumShape::roll;
        shop.medium.length = Length::from_mm(3000);
        shop.medium.laying.together = together;
        for (int i = 0; i < 6; ++i)
            shop.add("t" + std::to_string(i), 30 + 7 * i, 25 + 5 * i, 4, i % 2 == 0 ? "kite" : "crest", i < 3 ? "S M" : "L");
        const LaidOut laid = shop.laid();
        EXPECT_EQ(laid.bins, 1);
        const auto boxes = laid_boxes(shop.medium, shop.set, laid.sheets.copies);
        std::map<std::string, Rect> groups;
        for (std::size_t i = 0; i < boxes.size(); ++i) {
            const Transfer& t = *find_transfer(shop.set, laid.sheets.copies[i].transfer);
            const std::string group = together == Together::sizes ? sizes_text(t) : t.art;
            Rect& all = groups.emplace(group, boxes[i]).first->second;
            all = united(all, boxes[i]);
        }
        ASSERT_EQ(groups.size(), 2u);
        const Rect &a = groups.begin()->second, &b = groups.rbegin()->second;
        EXPECT_GE(std::max(b.x0 - a.x1, a.x0 - b.x1), 4 - 1e-3);
        MediumLayout layout{shop.medium.id, laid.sheets.copies};
        EXPECT_TRUE(groups_parted(shop.medium, shop.set, layout));
        // a piece of the first group moved past the last of the second
        const auto first = std::min_element(boxes.begin(), boxes.end(), [](const Rect& p, const Rect& q) { return p.x0 < q.x0; });
        PlacedCopy& moved = layout.copies[std::size_t(first - boxes.begin())];
        moved.x += std::max(a.x1, b.x1) + 50;
        EXPECT_FALSE(groups_parted(shop.medium, shop.set, layout));
        Order order;
        order.media = {shop.medium};
        order.layouts = {layout};
        EXPECT_TRUE(sheet_plan(order, shop.set).media.at(0).mixed);
        moved.locked = true;
        EXPECT_TRUE(groups_parted(shop.medium, shop.set, layout)) << "that was the artist's own wish";
    }
}

TEST(Groups, EveryLayoutHandedOutIsWholePartedAndBetterThanTheOneBefore) {
    Shop shop;
    shop.medium.shape = MediumShape::roll;
    shop.medium.length = Length::from_mm(400);  // several runs, and a group that does not fit on what is left of one
    shop.medium.laying.together = Together::sizes;
    for (int i = 0; i < 12; ++i)
        shop.add("t" + std::to_string(i), 41 + 6.5 * (i % 5), 33 + 4.5 * (i % 7), 3 + i % 3, "art", std::to_string(i % 4));
    NestOptions o;
    o.rounds = 12;
    std::vector<LaidOut> handed;
    const auto last = lay_out(shop.medium, shop.set, {shop.medium.id, {}}, o, {}, [&](const LaidOut& l) { handed.push_back(l); });
    ASSERT_TRUE(last) << last.sentence();
    ASSERT_FALSE(handed.empty());
    for (std::size_t i = 0; i < handed.size(); ++i) {
        const MediumLayout layout{shop.medium.id, handed[i].sheets.copies, handed[i].sheets.stock};
        EXPECT_TRUE(layout_faults(shop.medium, shop.set, layout, 0).empty());
        EXPECT_EQ(layout.copies.size(), 48u);
        EXPECT_GT(sheet_count(layout.copies), 1);
        EXPECT_TRUE(groups_parted(shop.medium, shop.set, layout));
        EXPECT_TRUE(i == 0 || beats(shop.medium, handed[i], handed[i - 1]));
    }
    EXPECT_EQ(handed.back().sheets.copies, last->sheets.copies);
}

TEST(Fill, TakesWhatIsWorthMostAndOnlyWhereThereIsRoom) {
    Shop shop;
    shop.add("ordered", 145, 200, 1);
    shop.add("dear", 70, 95, 0);
    shop.add("cheap", 70, 95, 0);
    MediumLayout layout = {"paper", {{"ordered", 0, 0, 0, 5, 5, false}}};
    layout.fill = {{"dear", 5, 0}, {"cheap", 1, 0}};
    const MediumLayout full = filled(shop.medium, shop.set, layout);
    // beside it 151 × 200 mm are free: two by two of 70 × 95
    EXPECT_EQ(full.copies.size(), 5u);
    EXPECT_EQ(full.fill[0].copies, 4) << "the dear ones";
    EXPECT_EQ(layout_faults(shop.medium, shop.set, full, 0), std::vector<std::string>{});
    MediumLayout other = full;
    other.fill = {{"dear", 0, 4}, {"cheap", 1, 0}};
    const MediumLayout again = filled(shop.medium, shop.set, other);
    EXPECT_EQ(again.fill[0].copies, 0);
    EXPECT_EQ(again.fill[1].copies, 4) << "fillings before are taken out first";
    shop.medium.laying.cutting = Cutting::trimmer;
    const MediumLayout trimmed = filled(shop.medium, shop.set, layout);
    EXPECT_GT(trimmed.copies.size(), 2u);
    EXPECT_EQ(layout_faults(shop.medium, shop.set, trimmed, 0), std::vector<std::string>{}) << "and can be parted";
}

TEST(Fill, EqualsExhaustiveChoiceOnASmallSheet) {
    // one row of places along the feed: which sets fit is a sum of lengths
    Shop shop;
    shop.medium.width = Length::from_mm(64);
    shop.medium.length = Length::from_mm(212);
    shop.medium.quarter_turns = false;
    const double lengths[] = {61, 47, 33};
    const double values[] = {6.3, 4.5, 3.0};
    shop.add("kept", 20, 50, 1);
    MediumLayout layout{"paper", {{"kept", 0, 0, 0, 5, 5, false}}};
    for (int i = 0; i < 3; ++i) {
        shop.add("f" + std::to_string(i), lengths[i], 50, 0);
        layout.fill.push_back({"f" + std::to_string(i), values[i], 0});
    }
    double best = 0;
    for (int a = 0; a < 4; ++a)
        for (int b = 0; b < 5; ++b)
            for (int c = 0; c < 6; ++c)
                if (a * (lengths[0] + 4) + b * (lengths[1] + 4) + c * (lengths[2] + 4) <= 200 - 20)
                    best = std::max(best, a * values[0] + b * values[1] + c * values[2]);
    const MediumLayout full = filled(shop.medium, shop.set, layout);
    double worth = 0;
    for (int i = 0; i < 3; ++i) worth += full.fill[std::size_t(i)].copies * values[i];
    EXPECT_LE(worth, best + 1e-9);
    EXPECT_GE(worth, 0.9 * best);
}

TEST(Locked, SheetsThatHoldOneStayWhereCutsGoFromEdgeToEdge) {
    Shop shop;
    shop.medium.laying.cutting = Cutting::trimmer;
    shop.medium.width = Length::from_mm(110);
    shop.medium.length = Length::from_mm(110);
    shop.add("a", 45, 45, 9);
    const LaidOut first = shop.laid();
    ASSERT_EQ(first.bins, 3);
    MediumLayout now{"paper", first.sheets.copies};
    for (PlacedCopy& c : now.copies)
        if (c.sheet == 1) {
            c.locked = true;
            break;
        }
    const LaidOut again = shop.laid(now);
    EXPECT_EQ(again.bins, 3);
    int kept = 0;
    for (const PlacedCopy& c : again.sheets.copies)
        for (const PlacedCopy& was : now.copies)
            kept +=
                was.sheet == 1 && c.transfer == was.transfer && c.copy == was.copy && c.sheet == 0 && c.x == was.x && c.y == was.y ? 1 : 0;
    EXPECT_EQ(kept, 4);
}

TEST(KeptFree, NothingLiesOnExclusionsAndRegisterMarks) {
    Shop shop;
    shop.medium.laying.registers = true;
    shop.medium.laying.excluded = {{"clamp", Length::from_mm(130), Length::from_mm(0), Length::from_mm(50), Length::from_mm(60)}};
    shop.add("a", 46, 38, 14);
    for (const Cutting cutting : {Cutting::contour, Cutting::trimmer}) {
        shop.medium.laying.cutting = cutting;
        const LaidOut laid = shop.laid();
        const auto boxes = laid_boxes(shop.medium, shop.set, laid.sheets.copies);
        const auto marks = register_marks(shop.medium, 310);
        ASSERT_EQ(marks.size(), cutting == Cutting::contour ? 4u : 0u) << "a trimmer has no eye";
        for (const Rect& r : boxes) {
            EXPECT_FALSE(r.grown(3.9).meets({130, 0, 180, 60}));
            for (const Point& p : marks) EXPECT_GT(std::sqrt(distance2(r, p)), register_radius + 2);
        }
    }
    shop.medium.laying.cutting = Cutting::contour;
    Order order;
    order.media = {shop.medium};
    Sheet sheet;
    sheet.medium = "paper";
    sheet.length = 310;
    sheet.width = 210;
    EXPECT_EQ(page_registers(shop.medium, sheet).size(), 4u);
    EXPECT_NE(sheet_title(order, sheet).find("trim the marks off"), std::string::npos);
    // the words and the arrow lie beside the marks
    const Drawing page = sheet_page(order, sheet, shop.set);
    for (const Mark& m : page.marks)
        if (const auto* text = std::get_if<TextMark>(&m))
            for (const Point& p : page_registers(shop.medium, sheet))
                if (p.x < 105) EXPECT_GT(text->at.x, p.x + register_radius + 1);
}

TEST(OnSheet, BlanksKeepRoomForTapeAndFingers) {
    Shop shop;
    shop.medium.laying.cutting = Cutting::on_sheet;
    shop.medium.laying.fingers = Length::from_mm(15);
    shop.add("coaster", 60, 60, 6);
    Transfer& t = shop.set.transfers[0];
    t.blanks = {Polygon{disc({30, 30}, 44, 64), {}}};  // the blank stands out past the ink
    const LaidOut laid = shop.laid();
    ASSERT_EQ(laid.bins, 1);
    std::vector<Polygon> blanks;
    for (const PlacedCopy& c : laid.sheets.copies) {
        blanks.push_back(mapped(t.blanks[0], copy_map(c)));
        const Rect box = bounds(blanks.back().outer);
        EXPECT_TRUE(box.x0 > 4.9 && box.y0 > 4.9 && box.x1 < 305.1 && box.y1 < 205.1);
    }
    for (std::size_t i = 0; i < blanks.size(); ++i)
        for (std::size_t j = 0; j < i; ++j) EXPECT_GT(distance(blanks[i], blanks[j]), 15 - 0.2);
}

TEST(LayOut, NamesThePieceThatFitsOnNothing) {
    Shop shop;
    shop.add("flag@1500", 500, 300, 1);
    shop.set.transfers[0].name = "Kite flag 150";
    for (const Cutting cutting : {Cutting::contour, Cutting::trimmer, Cutting::on_sheet}) {
        shop.medium.laying.cutting = cutting;
        const auto laid = lay_out(shop.medium, shop.set, {"paper", {}}, {});
        ASSERT_FALSE(laid);
        EXPECT_NE(laid.sentence().find("“Kite flag 150” (500 mm × 300 mm) is larger than the medium"), std::string::npos)
            << laid.sentence();
    }
}

TEST(Grain, HalfTurnsOnly) {
    Shop shop;
    shop.medium.quarter_turns = false;
    shop.medium.laying.grain = true;
    shop.add("a", 90, 20, 20);
    std::set<int> turns;
    for (const PlacedCopy& c : shop.laid().sheets.copies) turns.insert(c.turn);
    for (const int t : turns) EXPECT_EQ(t % 180, 0);
}

TEST(Groups, OnSheetsOneThatDoesNotFitBeginsANewSheet) {
    Shop shop;
    shop.medium.laying.together = Together::designs;
    shop.add("a", 90, 95, 4, "one");      // two by two: the sheet's first 190 mm
    shop.add("b", 90, 95, 2, "two");      // fits behind them
    shop.add("c", 140, 180, 1, "three");  // does not
    shop.medium.quarter_turns = false;
    const LaidOut laid = shop.laid();
    std::map<std::string, std::set<int>> sheets;
    for (const PlacedCopy& c : laid.sheets.copies) sheets[c.transfer].insert(c.sheet);
    EXPECT_EQ(sheets["a"], std::set<int>{0});
    EXPECT_EQ(sheets["b"], std::set<int>{0});
    EXPECT_EQ(sheets["c"], std::set<int>{1});
}

TEST(Stock, TheCheapestWidthOfRollIsTaken) {
    Shop shop;
    shop.medium.shape = MediumShape::roll;
    shop.medium.width = Length::from_mm(300);
    shop.medium.length = Length::from_mm(5000);
    shop.medium.price = 6;
    shop.medium.quarter_turns = false;
    shop.add("badge", 100, 190, 8);  // one across on 300 mm, two on 400
    StockItem wide = size_of("wide", 400, 5000, 8);
    shop.medium.laying.stock = {wide};
    const LaidOut laid = shop.laid();
    EXPECT_EQ(used(laid), (std::map<std::string, int>{{"wide", 1}}));
    EXPECT_NEAR(laid.cost, 8 * (4 * 104 - 4 + 10) / 1000.0, 0.01);
    shop.medium.laying.stock[0].price = 13;  // 8 × 104 mm at 6 a metre is dearer than 4 × 104 at 8, and cheaper than at 13
    EXPECT_EQ(used(shop.laid()), (std::map<std::string, int>{{"", 1}}));
}

TEST(Stock, AnOffcutsHolesStayFree) {
    Shop shop;
    shop.add("square", 40, 40, 6);
    StockItem offcut = size_of("offcut", 200, 200, 0);
    offcut.shape = box_region({0, 0, 200, 200})[0].outer;
    Ring hole = box_region({70, 70, 130, 130})[0].outer;
    std::reverse(hole.begin(), hole.end());
    offcut.holes = {hole};
    shop.medium.laying.stock = {offcut};
    const LaidOut laid = shop.laid();
    EXPECT_EQ(used(laid)["offcut"], 1);
    for (std::size_t i = 0; i < laid.sheets.copies.size(); ++i) {
        if (laid.sheets.copies[i].sheet != 0) continue;
        const Rect r = laid_boxes(shop.medium, shop.set, laid.sheets.copies)[i];
        EXPECT_FALSE(r.grown(4.99).meets({70, 70, 130, 130})) << "and the margin is kept from it";
    }
}

TEST(Stock, SheetsWithALockedCopyKeepTheirStock) {
    Shop shop;
    shop.add("square", 95, 95, 3);
    shop.medium.laying.stock = {size_of("small", 110, 110, 9)};
    MediumLayout now{"paper", {{"square", 1, 0, 0, 7, 8, true}}};
    now.stock = {"small"};
    const LaidOut laid = shop.laid(now);
    EXPECT_EQ(stock_of(laid.sheets.stock, 0), "small") << "dearer, and held";
    const auto held = std::find_if(laid.sheets.copies.begin(), laid.sheets.copies.end(), [](const PlacedCopy& c) { return c.copy == 1; });
    ASSERT_NE(held, laid.sheets.copies.end());
    EXPECT_EQ(held->x, 7);
    EXPECT_EQ(held->sheet, 0);
}

TEST(LayOut, AnOffcutTakesPartAndASheetPlanSaysSo) {
    Shop shop;
    shop.add("square", 60, 60, 9);
    StockItem offcut = size_of("offcut", 210, 90, 0);
    offcut.shape = {{0, 0}, {90, 0}, {90, 210}, {0, 210}};
    offcut.length = Length::from_mm(90);
    offcut.width = Length::from_mm(210);
    shop.medium.laying.stock = {offcut};
    const LaidOut laid = shop.laid();
    Order order;
    order.media = {shop.medium};
    order = with_layout(order, "paper", laid.sheets);
    const SheetPlan plan = sheet_plan(order, shop.set);
    ASSERT_EQ(plan.media.size(), 1u);
    EXPECT_TRUE(plan.findings.empty());
    EXPECT_EQ(plan.media[0].sheets[0].stock, "offcut");
    EXPECT_EQ(plan.media[0].sheets[0].length, 90);
    EXPECT_NEAR(plan.media[0].cost, 10, 1e-9) << "the offcut is paid for";
    EXPECT_EQ(plan.media[0].placed, 9);
    // a copy that is asked and not there makes it stale
    Order less = order;
    less.layouts[0].copies.pop_back();
    EXPECT_TRUE(sheet_plan(less, shop.set).media[0].stale);
    less = order;
    less.layouts[0].copies.push_back(less.layouts[0].copies.front());
    EXPECT_TRUE(sheet_plan(less, shop.set).media[0].stale) << "placed twice";
}

/// Two sheets taped in the middle, 8 mm of lap to either side.
Shop taped_shop() {
    Shop shop;
    shop.medium.length = Length::from_mm(420);
    shop.medium.taped_at = Length::from_mm(210);
    shop.medium.taped_lap = Length::from_mm(8);
    return shop;
}

TEST(Seam, OnlyWhatIsTooLongLiesOnIt) {
    std::mt19937 random(31);
    const auto between = [&](int a, int b) { return a + static_cast<int>(random() % static_cast<unsigned>(b - a + 1)); };
    for (int k = 0; k < 12; ++k) {
        Shop shop = taped_shop();
        const bool turns = shop.medium.quarter_turns = k % 2 == 0;
        const int longs = between(1, 3);
        for (int i = 0; i < longs; ++i) shop.add("long" + std::to_string(i), between(205, 380), between(20, 80), 1);
        for (int i = 0; i < 4; ++i) shop.add("short" + std::to_string(i), between(30, 180), between(20, 90), between(1, 4));
        const LaidOut laid = shop.laid({}, 2);
        for (const PlacedCopy& c : laid.sheets.copies) {
            const Transfer& t = *find_transfer(shop.set, c.transfer);
            const Rect box = bounds(mapped(t.contour.outer, copy_map(c)));
            const bool off = box.x1 <= 210 - 8 - 4 + 1e-6 || box.x0 >= 210 + 8 + 4 - 1e-6;
            if (t.id.starts_with("short")) EXPECT_TRUE(off) << t.id << " " << c.x;
            if (t.id.starts_with("long") && (!turns || bounds(t.contour.outer).width() > 200)) EXPECT_FALSE(off) << t.id;
        }
        EXPECT_EQ(crossing_seam(shop.medium, shop.set, laid.sheets.copies), longs);
    }
}

TEST(Seam, InkOnItIsTheAreaThere) {
    std::mt19937 random(32);
    const auto unit = [&] { return static_cast<double>(random()) / 4294967296.0; };
    const Shop shop = taped_shop();
    for (int k = 0; k < 200; ++k) {
        Transfer t;
        Ring ring;
        const int corners = 3 + static_cast<int>(random() % 9);
        for (int i = 0; i < corners; ++i) {
            const double a = 2 * M_PI * i / corners, r = 20 + 180 * unit();
            ring.push_back({150 + r * std::cos(a), 100 + r * std::sin(a)});
        }
        if (k % 3 == 0) std::reverse(ring.begin(), ring.end());
        t.shape = {{ring, {disc({150, 100}, 12, 24)}}};
        PlacedCopy c;
        c.x = 300 * unit() - 100;
        const Region there = intersect(mapped(t.shape, copy_map(c)), box_region({202, -1000, 218, 1000}));
        double independent = 0;
        for (const Polygon& p : there) independent += area(p);
        EXPECT_NEAR(ink_on_seam(shop.medium, t, c), independent, 0.05 + 1e-4 * independent);
    }
}

TEST(Seam, AFoldIsLaidOnIt) {
    Shop shop = taped_shop();
    shop.add("flag", 390, 80, 1);
    shop.set.transfers[0].shape = box_region({5, 5, 180, 75});  // front and back of a flag, 20 mm bare where it folds
    for (const Polygon& p : box_region({200, 5, 385, 75})) shop.set.transfers[0].shape.push_back(p);
    shop.add("small", 60, 60, 3);
    const LaidOut laid = shop.laid();
    ASSERT_EQ(laid.bins, 1);
    EXPECT_EQ(crossing_seam(shop.medium, shop.set, laid.sheets.copies), 0);
    // with no gap in it, it cannot: said
    shop.set.transfers[0].shape = box_region({5, 5, 385, 75});
    EXPECT_EQ(crossing_seam(shop.medium, shop.set, shop.laid().sheets.copies), 1);
    // by hand the small ones stop at the seam, the long one does not
    MediumLayout layout{shop.medium.id, {}};
    layout.copies = laid.sheets.copies;
    HandLayout hand(shop.medium, shop.set, layout);
    for (std::size_t i = 0; i < layout.copies.size(); ++i) {
        const PlacedCopy& c = layout.copies[i];
        PlacedCopy there = c;
        there.sheet = 1;  // nothing else lies there
        const Rect box = bounds(mapped(find_transfer(shop.set, c.transfer)->contour.outer, copy_map(c)));
        there.x += (c.transfer == "flag" ? 15 : 190) - box.x0;
        EXPECT_EQ(hand.lies_free(static_cast<int>(i), there), c.transfer == "flag");
    }
}

}  // namespace TESTED
}  // namespace orthema
