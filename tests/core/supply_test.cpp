// What the shop has, promises and lacks: shelf, rolls, blanks and what is to be bought, against answers worked out another way.
#include "core/supply/supply.h"

#include <cmath>
#include <numeric>
#include <random>

#include "core/order/edit.h"
#include "core/pipeline/gang.h"
#include "support/laid_order.h"
#include "support/random_case.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

using test::Case;
using test::LaidOrder;

const std::string day = "2027-06-12";

/// The bags that an order leaves on the shelf, of all its transfers, so many of each.
Stock shelf_of(const Order& order, const TransferSet& set, int copies) {
    Stock out;
    for (const Transfer& t : set.transfers)
        if (keeps_days(order, t) > 0) {
            out.entries.push_back(bag_of(order, t, {t.id, {}, copies}, day));
            out.entries.back().on_hand = copies;
        }
    return out;
}

Work laid_work(const Case& c) {
    Order o = c.order;
    const Work w = work(o, {}, c.art);
    test::lay_anyhow(o, w.transfer_set(), 2);
    return work(o, {}, c.art, &w);
}

TEST(Shelf, AnotherOrderWithTheSameDesignTakesWhatLiesThereAndNoMore) {
    int taken_at_all = 0;
    for (unsigned seed = 0; seed < 20; ++seed) {
        const Case first = test::random_case(seed);
        Case next = first;
        next.order.job = "another";
        next.order.layouts.clear();
        const Work w = work(next.order, {}, next.art);
        const TransferSet& set = w.transfer_set();
        const Stock stock = shelf_of(first.order, set, 1 + static_cast<int>(seed % 4));
        const Order used = with_shelf_used(next.order, set, stock, day);
        std::map<std::string, int> from;
        for (const FromShelf& f : from_shelf(used, set)) {
            EXPECT_EQ(f.job, "another");
            from[f.bag] += f.copies;
        }
        for (const StockEntry& e : stock.entries) EXPECT_LE(from[e.id], e.on_hand);
        for (const Transfer& t : set.transfers) {
            int here = 0;
            for (const FromShelf& f : from_shelf(used, set)) here += f.transfer == t.id ? f.copies : 0;
            taken_at_all += here;
            EXPECT_EQ(copies_asked(t, layout_of(used, t.medium)) + here, t.count()) << "each is printed or taken, never both";
            if (here < t.count())
                for (const StockEntry& e : stock.entries)
                    if (alike(e.mark, mark_of(used, t))) EXPECT_EQ(from[e.id], e.on_hand) << "all of it, before anything is printed";
        }
        Order back = used;
        for (const StockEntry& e : stock.entries) back = without_from_shelf(back, e.id);
        for (const Transfer& t : set.transfers) EXPECT_EQ(copies_asked(t, layout_of(back, t.medium)), t.count());
    }
    EXPECT_GT(taken_at_all, 50);
}

TEST(Shelf, TheOldestGoesFirstAndNothingPastItsTimeOrWithOtherArt) {
    LaidOrder job("film-559");
    job.order.layouts.clear();
    ASSERT_FALSE(job.set.transfers.empty());
    const Transfer& t = job.set.transfers.front();
    Stock stock;
    const auto bag = [&](const std::string& id, const std::string& printed, int n) -> StockEntry& {
        StockEntry e = bag_of(job.order, t, {t.id, {}, n}, printed);
        e.id = id;
        e.on_hand = n;
        stock.entries.push_back(e);
        return stock.entries.back();
    };
    bag("new", "2027-06-01", 1);
    bag("old", "2027-02-01", 1);
    bag("past", "2026-01-01", 50);
    bag("other art", "2027-01-01", 50).mark.art = std::string(64, 'f');
    bag("mirrored", "2027-01-01", 50).mark.mirrored = !t.mirrored;
    bag("near", "2027-01-01", 7).mark.width = std::round(t.width * 9.7) / 10;
    StockEntry& near = stock.entries.back();
    const double k = near.mark.width / mark_of(job.order, t).width;
    near.mark.height *= k;
    near.mark.ink_area *= k * k;
    near.mark.white_area *= k * k;
    const auto offers = shelf_offers(job.order, job.set, stock, day);
    ASSERT_EQ(offers.size(), 3u);
    EXPECT_EQ(offers[0].bag, "old");
    EXPECT_EQ(offers[1].bag, "new");
    EXPECT_EQ(offers[2].bag, "near");
    EXPECT_NEAR(offers[2].narrower, 0.03, 0.002);
    EXPECT_EQ(with_from_shelf(job.order, job.set, offers[2]), job.order) << "another width is not the same print";
    stock.entries[1].shares = {{"somebody", 1, 0}};
    EXPECT_EQ(shelf_offers(job.order, job.set, stock, day)[0].bag, "new") << "promised to somebody else";
    stock.entries[1].shares = {{"somebody", 1, 1}};
    EXPECT_EQ(shelf_offers(job.order, job.set, stock, day)[0].bag, "old") << "theirs are taken: what lies there is free";
}

TEST(Shelf, WhatWasPromisedAndIsNotThereAnyMoreIsSaid) {
    LaidOrder job("film-559");
    job.order.layouts.clear();
    const Transfer& t = job.set.transfers.front();
    Stock stock = shelf_of(job.order, job.set, 2);
    const Order used = with_shelf_used(job.order, job.set, stock, day);
    const auto said = [&](const Stock& s, const std::string& today) {
        const Supply all = supply(used, job.set, sheet_plan(used, job.set), {std::make_shared<const Stock>(s), {}, today});
        for (const Finding& f : all.findings)
            if (f.code == "shelf-gone") return finding_text(f, Unit::mm);
        return std::string();
    };
    EXPECT_EQ(said(stock, day), "");
    Stock fewer = stock;
    fewer.entries[0].on_hand = 1;
    EXPECT_NE(said(fewer, day).find("not so many"), std::string::npos);
    EXPECT_NE(said({}, day).find("not so many"), std::string::npos);
    EXPECT_NE(said(stock, "2029-01-01").find("past its time"), std::string::npos);
    Stock other = stock;
    other.entries[0].mark.art = "other";
    EXPECT_NE(said(other, day).find("art has changed"), std::string::npos);
    Stock taken = stock;  // pressed: taken out, and still promised in the order
    taken.entries[0].on_hand = 0;
    taken.entries[0].shares = {{used.job, 2, 2}};
    EXPECT_EQ(said(taken, day), "");
    EXPECT_EQ(t.medium, "film-559");
}

TEST(Shelf, PromisesGoIntoAGangWithTheirJobAndOutAgain) {
    for (unsigned seed = 0; seed < 12; ++seed) {
        Case a = test::random_case(seed), b = test::random_case(seed);
        a.order.job = "job-a";
        b.order.job = "job-b";
        a.order.layouts.clear();
        b.order.layouts.clear();
        const Work wa = work(a.order, {}, a.art);
        a.order = with_shelf_used(a.order, wa.transfer_set(), shelf_of(a.order, wa.transfer_set(), 2), day);
        const Shared<KnownArt> all = gang_art(*ganged({a.order, b.order}, "gang", "Both"), {{"job-a", a.art}, {"job-b", b.art}});
        const Order gang = *ganged_and_laid({a.order, b.order}, "gang", "Both", all);
        const Work wg = work(gang, {}, all);
        int alone = 0, together = 0;
        for (const FromShelf& f : from_shelf(a.order, wa.transfer_set())) alone += f.copies;
        for (const FromShelf& f : from_shelf(gang, wg.transfer_set())) {
            EXPECT_EQ(f.job, "job-a");
            together += f.copies;
        }
        EXPECT_EQ(alone, together);
        const auto out = job_apart(gang, "job-a", wg.transfer_set());
        ASSERT_TRUE(out);
        EXPECT_EQ(out->layouts, a.order.layouts);
    }
}

TEST(Rolls, RunsFitWhereEveryWayIsTriedSaysSo) {
    std::mt19937 random(3);
    int fitted = 0, not_fitted = 0;
    for (int n = 0; n < 400; ++n) {
        std::vector<double> runs;
        std::vector<RollLeft> rolls;
        for (std::size_t k = 0; k < 1 + random() % 5; ++k) runs.push_back(100 + static_cast<double>(random() % 900));
        for (std::size_t k = 0; k < 1 + random() % 3; ++k)
            rolls.push_back({std::string(1, static_cast<char>('a' + k)), static_cast<double>(random() % 2000)});
        bool can = false;  // every roll for every run
        const auto ways = static_cast<std::size_t>(std::pow(rolls.size(), runs.size()));
        for (std::size_t way = 0; way < ways && !can; ++way) {
            std::vector<double> left;
            for (const RollLeft& r : rolls) left.push_back(r.left);
            std::size_t rest = way;
            for (const double run : runs) {
                left[rest % rolls.size()] -= run;
                rest /= rolls.size();
            }
            can = std::all_of(left.begin(), left.end(), [](double l) { return l >= -0.01; });
        }
        const auto found = runs_on_rolls(runs, rolls);
        ASSERT_EQ(found.has_value(), can);
        (can ? fitted : not_fitted)++;
        if (!found) continue;
        for (const RollLeft& r : rolls) {
            double on = 0;
            for (std::size_t k = 0; k < runs.size(); ++k) on += (*found)[k] == r.id ? runs[k] : 0;
            EXPECT_LE(on, r.left + 0.1);
        }
    }
    EXPECT_GT(fitted, 50);
    EXPECT_GT(not_fitted, 50);
}

StockEntry roll(const std::string& id, const std::string& medium, double mm) {
    StockEntry e;
    e.id = id;
    e.kind = StockKind::roll;
    e.name = id;
    e.medium = medium;
    e.on_hand = mm;
    return e;
}

TEST(Rolls, SettlingPartsTheRunsByWhatIsLeftOnThem) {
    LaidOrder job("film-559");
    Order order = job.order;
    for (OrderLine& l : order.lines.own()) l.quantity = 8;
    const TransferSet set = transfers(order, fit(order, job.facts), job.facts);
    Medium medium = job.medium();
    medium.laying.waste = Length::from_mm(30);
    NestOptions quick;
    quick.rounds = 1;
    const auto free = lay_out(medium, set, {medium.id, {}}, quick);
    ASSERT_TRUE(free);
    const double whole = free->last_length + free->others;
    ASSERT_GT(whole, 900) << "long enough to be parted";
    const auto lengths = [&](const LaidSheets& sheets) {
        std::map<std::string, double> out;
        const Order laid = with_layout(order, medium.id, sheets);
        for (const MediumPlan& m : sheet_plan(laid, set).media) {
            EXPECT_FALSE(m.stale);
            EXPECT_EQ(m.placed, m.asked);
            for (const Sheet& s : m.sheets) out[s.stock] += s.length + 30;
        }
        return out;
    };
    // one roll with enough: all of it there
    Stock stock{{roll("long", medium.id, whole + 500), roll("other", "film-330", 1e6)}};
    auto laid = lay_out_on_stock(medium, set, {medium.id, {}}, quick, stock);
    ASSERT_TRUE(laid);
    EXPECT_EQ(lengths(laid->sheets).size(), 1u);
    EXPECT_EQ(lengths(laid->sheets).begin()->first, "long");
    // two rests, neither of which takes it
    stock = {{roll("a", medium.id, whole * 0.7 + 100), roll("b", medium.id, whole * 0.7 + 100)}};
    laid = lay_out_on_stock(medium, set, {medium.id, {}}, quick, stock);
    ASSERT_TRUE(laid);
    const auto on = lengths(laid->sheets);
    EXPECT_FALSE(on.contains("")) << "every run has its roll";
    for (const auto& [id, mm] : on) EXPECT_LE(mm, whole * 0.7 + 100.1) << id;
    // too little in all: laid all the same, and what is short is said in metres
    stock = {{roll("rest", medium.id, 400)}};
    laid = lay_out_on_stock(medium, set, {medium.id, {}}, quick, stock);
    ASSERT_TRUE(laid);
    Order short_of = with_layout(order, medium.id, laid->sheets);
    for (Medium& m : short_of.media)
        if (m.id == medium.id) m = medium;
    const Supply all = supply(short_of, set, sheet_plan(short_of, set), {std::make_shared<const Stock>(stock), {}, day});
    const auto found = std::find_if(all.findings.begin(), all.findings.end(), [](const Finding& f) { return f.code == "film-short"; });
    ASSERT_NE(found, all.findings.end());
    double asked = 0;
    for (const auto& [id, mm] : lengths(laid->sheets)) asked += mm;
    EXPECT_NEAR(figure_of(*found, "short"), (asked - 400) / 1000, 1e-6);
    EXPECT_TRUE(std::any_of(all.wants.begin(), all.wants.end(), [](const Standby& s) { return s.lacking > 0; }));
}

OpenOrder wants_tees(const std::string& job, const std::string& due, double n) {
    return {job, "Order " + job, due, 600, {}, {{"blanks/tee/ash/M", StockKind::blanks, "Tee, ash M", n}}};
}

Stock tees(double on_hand) {
    StockEntry e;
    e.id = "blanks/tee/ash/M";
    e.name = "Tee, ash M";
    e.style = "tee";
    e.colour = "ash";
    e.size = "M";
    e.on_hand = on_hand;
    return {{e}};
}

TEST(Supply, WhatSeveralWantGoesToTheFirstThatIsDue) {
    Shop shop{
        std::make_shared<const Stock>(tees(25)),
        std::vector<OpenOrder>{wants_tees("late", "2027-07-01", 10), wants_tees("soon", "2027-06-01", 20), wants_tees("some day", "", 5)},
        day};
    auto lacking = lacking_of_all(shop);
    EXPECT_FALSE(lacking.contains("soon"));
    EXPECT_EQ(lacking.at("late")[0].lacking, 5);
    EXPECT_EQ(lacking.at("some day")[0].lacking, 5);
    // what an order has taken it does not want again
    Stock taken = tees(13);
    taken.entries[0].shares = {{"soon", 0, 12}};
    shop.stock = std::make_shared<const Stock>(taken);
    lacking = lacking_of_all(shop);
    EXPECT_FALSE(lacking.contains("soon"));
    EXPECT_EQ(lacking.at("late")[0].lacking, 5);
    // what lies in an open gang is wanted once
    shop.stock = std::make_shared<const Stock>(tees(25));
    std::vector<OpenOrder> open = shop.open;
    OpenOrder gang = wants_tees("gang", "2027-06-01", 30);
    gang.jobs = {"late", "soon"};
    open.push_back(gang);
    shop.open = open;
    lacking = lacking_of_all(shop);
    EXPECT_EQ(lacking.size(), 2u);
    EXPECT_EQ(lacking.at("gang")[0].lacking, 5);
    EXPECT_EQ(lacking.at("some day")[0].lacking, 5);
}

TEST(Supply, OneOrderAndAllOfThemAgreeAndNothingIsPromisedTwice) {
    std::mt19937 random(9);
    for (int n = 0; n < 200; ++n) {
        Stock stock = tees(static_cast<double>(random() % 60));
        std::vector<OpenOrder> open;
        for (int k = 0; k < 6; ++k)
            open.push_back(wants_tees("o" + std::to_string(k), random() % 4 == 0 ? "" : "2027-06-0" + std::to_string(1 + random() % 9),
                                      1 + static_cast<double>(random() % 20)));
        if (random() % 2 == 0) stock.entries[0].shares = {{"o" + std::to_string(random() % 6), 0, static_cast<double>(random() % 15)}};
        const Shop shop{std::make_shared<const Stock>(stock), open, day};
        const auto lacking = lacking_of_all(shop);
        double there = 0;
        for (const OpenOrder& o : open) {
            Order order;
            order.job = o.job;
            order.due = o.due;
            order.press_run.due = o.due_at;
            const auto alone = standby(order, o.wants, shop);
            there += alone[0].there;
            const auto at = lacking.find(o.job);
            EXPECT_EQ(alone[0].lacking, at == lacking.end() ? 0 : at->second[0].lacking);
            EXPECT_EQ(alone[0].taken + alone[0].there + alone[0].lacking, o.wants[0].amount);
        }
        EXPECT_LE(there, stock.entries[0].on_hand);
    }
}

TEST(Supply, WhatIsToBeBoughtAddsUpWithSparesByKnownSpoilage) {
    std::vector<PressRecord> records(40);
    for (std::size_t k = 0; k < records.size(); ++k) {
        records[k].style = "tee";
        if (k % 10 == 0) records[k].mended = Mended::spoiled;
    }
    const auto spoiled = spoilage(records);
    EXPECT_NEAR(spoiled.at("tee"), 0.1, 1e-12);
    const std::vector<OpenOrder> open{wants_tees("a", "2027-06-01", 20), wants_tees("b", "", 12)};
    const auto rows = to_buy(tees(30), open, spoiled);
    ASSERT_EQ(rows.size(), 1u);
    EXPECT_EQ(rows[0].asked, 32);
    EXPECT_EQ(rows[0].spare, 4) << "a tenth of 32, whole pieces";
    EXPECT_EQ(rows[0].lacking, 6);
    EXPECT_EQ(rows[0].orders.size(), 2u);
    EXPECT_TRUE(to_buy({}, open).empty()) << "what nobody counts is not asked for";
}

TEST(Supply, PressingTakesEachPieceOnceHoweverManyDesignsItGets) {
    LaidOrder job("film-559");
    job.order.layouts.clear();
    const OrderLine line = job.order.lines.all().front();
    Stock stock = shelf_of(job.order, job.set, 2);
    StockEntry blanks;
    blanks.id = blanks_id(line.style, line.colour, line.size);
    blanks.name = "blanks";
    blanks.on_hand = 100;
    stock.entries.push_back(blanks);
    const Order order = with_shelf_used(job.order, job.set, stock, day);
    std::vector<PressRecord> records;
    const auto pressed = [&](int piece, Mended mended = Mended::nothing) {
        PressRecord r;
        r.id = "r" + std::to_string(records.size());
        r.job = order.job;
        r.design = order.decorations[0].id;
        r.style = line.style;
        r.colour = line.colour;
        r.size = line.size;
        r.first = piece;
        r.mended = mended;
        records.push_back(r);
    };
    pressed(1);
    pressed(1);  // its other side
    pressed(2);
    pressed(3, Mended::spoiled);
    pressed(3);
    records.push_back(records[0]);
    records.back().rehearsal = true;
    records.back().first = 9;
    std::map<std::string, double> amounts;
    for (const StockMove& m : taken_by_pressing(order, job.set, records, stock, false, day)) amounts[m.why + " " + m.item] += m.amount;
    EXPECT_EQ(amounts["pressed " + blanks.id], -3);
    EXPECT_EQ(amounts["spoiled " + blanks.id], -1);
    double bags = 0, promised = 0;
    for (const FromShelf& f : from_shelf(order, job.set)) promised += f.copies;
    for (const auto& [what, n] : amounts)
        if (what.find("bag/") != std::string::npos) bags -= n;
    EXPECT_GT(bags, 0);
    EXPECT_LE(bags, promised);
    for (const StockMove& m : taken_by_pressing(order, job.set, {}, stock, false, day))
        EXPECT_EQ(m.amount, 0) << "nothing pressed, nothing gone";
}

TEST(Supply, PrintingTakesFilmWasteSheetsAndPowder) {
    LaidOrder job("film-559");
    Order order = job.order;
    for (Medium& m : order.media) m.laying.waste = Length::from_mm(25);
    const SheetPlan plan = sheet_plan(order, job.set);
    const Sheet& sheet = plan.media.front().sheets.front();
    StockEntry powder;
    powder.id = powder.name = "powder";
    powder.kind = StockKind::supply;
    powder.method = job.medium().method;
    powder.per_dm2 = 2;
    powder.on_hand = 1000;
    const Stock stock{{roll("short", "film-559", 20), roll("enough", "film-559", 5000), powder}};
    std::map<std::string, double> taken;
    for (const StockMove& m : taken_by_printing(order, job.set, sheet, sheet.length, stock, "print/1", day)) taken[m.item] -= m.amount;
    EXPECT_NEAR(taken["enough"], sheet.length + 25, 1e-9);
    EXPECT_FALSE(taken.contains("short"));
    double ink = 0;
    for (const PlacedCopy& c : sheet.copies) ink += area(find_transfer(job.set, c.transfer)->shape) / 1e4;
    EXPECT_NEAR(taken["powder"], 2 * ink, 1e-6);
    double half = 0;
    for (const StockMove& m : taken_by_printing(order, job.set, sheet, sheet.length / 2, stock, "print/1", day))
        half -= m.item == "enough" ? m.amount : 0;
    EXPECT_NEAR(half, sheet.length / 2 + 25, 1e-9) << "a run that stopped took what it got";
}

}  // namespace TESTED
}  // namespace orthema
