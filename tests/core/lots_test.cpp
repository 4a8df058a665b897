// Lots: two equal blanks with different art.
#include "core/order/lots.h"

#include <random>
#include <set>

#include "core/nesting/nest.h"
#include "core/order/edit.h"
#include "core/order/pieces.h"
#include "core/pipeline/work.h"
#include "core/transfers/jig_sheets.h"
#include "files/library.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

/// So many pieces of one blank, each with a picture of its own on each of these locations.
struct EachItsOwn {
    Order order;
    KnownArt known;
    std::vector<RunKey> lots;
    EachItsOwn(const std::string& blank, const std::string& size, int pieces, const std::vector<Location>& where,
               const std::string& medium) {
        order = test::small_order();
        order.lines = {OrderLine{blank, "", size, pieces, ""}};
        order.decorations.clear();
        order.art.clear();
        order = with_lots_by_piece(order, {blank, ""});
        lots = runs_of(order);
        for (std::size_t i = 0; i < lots.size(); ++i)
            for (const Location l : where) {
                Art a;
                a.id = a.name = std::string(location_key(l)) + std::to_string(i);
                order.art.push_back(a);
                known.facts[a.id] = test::plain_facts();
                Decoration d = new_decoration(order, lots[i], l, a);
                d.medium = medium;
                order.decorations.push_back(d);
            }
    }
    [[nodiscard]] Work work() const { return orthema::work(order, {}, std::make_shared<const KnownArt>(known)); }
};

bool says(const Work& w, const std::string& code) {
    return std::any_of(w.findings.begin(), w.findings.end(), [&](const Finding& f) { return f.code == code; });
}

TEST(Lots, PartingKeepsEveryGarmentAndJoiningBringsTheOrderBack) {
    std::mt19937 random(5);
    for (int round = 0; round < 200; ++round) {
        Order order = test::small_order();
        for (OrderLine& l : order.lines) l.note = random() % 2 == 0 ? "first" : "second";
        const RunKey run{"adult-tee", "ash"};
        const auto before = counts_of(order, run);
        Parting p{"part", {}, random() % 3 == 0 ? "second" : ""};
        for (const SizeCount& c : before)
            if (random() % 2 == 0) p.pieces.push_back({c.size, static_cast<int>(random() % 7)});
        RunKey made;
        const Order parted = with_lot_parted(order, run, p, &made);
        EXPECT_EQ(garments_in(parted), garments_in(order));
        if (parted == order) continue;
        EXPECT_GT(garments_in(parted, made), 0);
        EXPECT_GT(garments_in(parted, run), 0);
        for (const SizeCount& c : before) {
            int together = 0;
            for (const RunKey& r : {run, made})
                for (const SizeCount& now : counts_of(parted, r))
                    if (now.size == c.size) together += now.quantity;
            EXPECT_EQ(together, c.quantity) << c.size;
        }
        ASSERT_EQ(parted.decorations.size(), 2U);
        EXPECT_EQ(parted.decorations[0], order.decorations[0]) << "what is there keeps its id";
        EXPECT_NE(parted.decorations[1].id, parted.decorations[0].id);
        const Order joined = with_lot_joined(parted, made);
        EXPECT_EQ(counts_of(joined, run).size(), before.size());
        EXPECT_EQ(garments_in(joined, run), garments_in(order, run));
        EXPECT_EQ(joined.decorations, order.decorations);
        EXPECT_TRUE(joined.lots.empty());
    }
}

TEST(Lots, APieceKeepsItsNumberWhateverIsDoneToOthers) {
    std::mt19937 random(8);
    Order order = test::small_order();
    const RunKey usual{"adult-tee", "ash"};
    for (int round = 0; round < 300; ++round) {
        const auto runs = runs_of(order);
        const RunKey run = runs[random() % runs.size()];
        const auto before = [&](const RunKey& r) { return piece_numbers(order, r, "M"); };
        Order next = order;
        RunKey made;
        switch (random() % 3) {
        case 0: next = with_quantity(order, run, "M", static_cast<int>(random() % 9)); break;
        case 1:
            next = with_lot_parted(order, run, {"part " + std::to_string(round), {{"M", 1 + static_cast<int>(random() % 2)}}}, &made);
            break;
        default: next = with_lot_joined(order, run); break;
        }
        std::map<int, int> uses;
        for (const RunKey& r : runs_of(next))
            for (const int n : piece_numbers(next, r, "M")) ++uses[n];
        for (const auto& [number, times] : uses) EXPECT_EQ(times, 1) << "piece " << number << " after edit " << round;
        // lots that were not touched have the pieces that they had; of the others none got a number that another had
        for (const RunKey& r : runs)
            if (r != run && r != usual) EXPECT_EQ(piece_numbers(next, r, "M"), before(r)) << "after edit " << round;
        if (!made.lot.empty()) {
            std::set<int> then;
            for (const int n : before(run)) then.insert(n);
            for (const RunKey& r : {run, made})
                for (const int n : piece_numbers(next, r, "M")) EXPECT_TRUE(then.contains(n)) << "parting makes no new pieces";
        }
        order = std::move(next);
        if (garments_in(order) == 0 || order.lots.size() > 12) order = test::small_order();
    }
}

TEST(Lots, AQuantityChangesInItsOwnLotAlone) {
    const RunKey run{"adult-tee", "ash"};
    RunKey made;
    const Order parted = with_lot_parted(test::small_order(), run, {"Pilots", {{"M", 1}}}, &made);
    EXPECT_EQ(run_name(parted, made), "Adult tee, ash · Pilots");
    const Order more = with_quantity(parted, made, "M", 9);
    EXPECT_EQ(garments_in(more, made), 9);
    EXPECT_EQ(garments_in(more, run), garments_in(parted, run));
    const Order gone = without_run(more, made);
    EXPECT_EQ(garments_in(gone), garments_in(more, run));
    EXPECT_EQ(gone.decorations.size(), 1U);
}

TEST(Lots, ByTheListsOwnNames) {
    Order order = test::small_order();
    order.lines = {OrderLine{"adult-tee", "ash", "M", 2, "No. 14"}, OrderLine{"adult-tee", "ash", "L", 1, "No. 15"},
                   OrderLine{"adult-tee", "ash", "M", 3, "No. 15"}, OrderLine{"adult-tee", "ash", "S", 1, "No. 16"}};
    const Order parted = with_lots_by_note(order, {"adult-tee", "ash"});
    const auto runs = runs_of(parted);
    ASSERT_EQ(runs.size(), 3U);
    std::map<std::string, int> garments;
    for (const RunKey& r : runs) garments[r.lot.empty() ? "" : find_lot(parted, r.lot)->name] = garments_in(parted, r);
    EXPECT_EQ(garments, (std::map<std::string, int>{{"", 2}, {"No. 15", 4}, {"No. 16", 1}}));
}

TEST(Lots, PartingAloneMakesNoOtherTransfers) {
    Order order = test::small_order();
    order.decorations[0].sizing.school = SizingSchool::graded;
    KnownArt known;
    known.facts["corner"] = test::plain_facts();
    const auto art = std::make_shared<const KnownArt>(known);
    const auto counted = [&](const Order& o) {
        std::map<long, int> out;
        const Work w = work(o, {}, art);
        for (const Transfer& t : w.transfer_set().transfers) out[std::lround(t.width * 10)] += t.quantity;
        EXPECT_EQ(out.size(), w.transfer_set().transfers.size()) << "equal transfers of different lots are printed as one";
        return out;
    };
    EXPECT_EQ(counted(order), counted(with_lot_parted(order, {"adult-tee", "ash"}, {"part", {{"M", 2}, {"L", 1}}})));
}

TEST(Lots, EightCoastersWithSixteenPicturesInAJig) {
    EachItsOwn job("round-coaster", "OS", 8, {Location::whole_front, Location::whole_back}, "sublimation-a3");
    ASSERT_EQ(job.lots.size(), 8U);
    Jig jig;
    jig.id = jig.name = "eight";
    jig.rows = 2;
    jig.columns = 4;
    jig.pitch_x = jig.pitch_y = Length::from_mm(108);
    jig.backer_width = Length::from_mm(450);
    jig.backer_height = Length::from_mm(230);
    job.order.jigs.push_back(jig);
    for (Decoration& d : job.order.decorations) d.making.jig = "eight";
    const Work w = job.work();
    ASSERT_EQ(w.transfer_set().jigs.size(), 1U);
    const JigSheet& sheet = w.transfer_set().jigs[0];
    EXPECT_EQ(sheet.count, 1);
    std::set<std::string> pictures;
    const auto behind = folded_pairs(jig, sheet);
    for (std::size_t s = 0; s < 8; ++s) {
        const Decoration* front = find_decoration(job.order, sheet.front[s].decoration);
        ASSERT_NE(front, nullptr);
        ASSERT_GE(behind[s], 0);
        const Decoration* back = find_decoration(job.order, sheet.back[static_cast<std::size_t>(behind[s])].decoration);
        ASSERT_NE(back, nullptr);
        EXPECT_EQ(front->run, back->run) << "its own back lies behind it when the sheet is folded";
        pictures.insert({front->art, back->art});
    }
    EXPECT_EQ(pictures.size(), 16U);
    EXPECT_FALSE(says(w, "jig-left"));
    int marks = 0;
    for (const Mark& m : sheet.piece.picture) marks += std::holds_alternative<ArtMark>(m) ? 1 : 0;
    EXPECT_EQ(marks, 16);
    // the board is pressed as one, front and back, whoever its blanks are for
    job.order.press_run.trials = false;
    const Work untried = job.work();
    const PressPlan& plan = untried.press_plan();
    ASSERT_EQ(plan.loads.size(), 2U);
    for (const Load& l : plan.loads) {
        EXPECT_EQ(l.pieces, 8);
        EXPECT_EQ(l.parts.size(), 8U);
    }
    job.order.press_run.trials = true;
    std::map<std::string, int> pressed;
    const Work with_trials = job.work();
    for (const Load& l : with_trials.press_plan().loads)
        for (const LoadPart& p : l.parts) pressed[p.decoration] += p.pieces;
    EXPECT_EQ(pressed.size(), 16U);
    for (const auto& [decoration, pieces] : pressed) EXPECT_EQ(pieces, 1) << decoration;
}

TEST(Lots, EightCoastersWithSixteenPicturesOnATapedSheetAndAsTrimmedSquares) {
    for (const Cutting cutting : {Cutting::on_sheet, Cutting::trimmer}) {
        EachItsOwn job("round-coaster", "OS", 8, {Location::whole_front, Location::whole_back}, "sublimation-super-taped");
        for (Medium& m : job.order.media)
            if (m.id == "sublimation-super-taped") m.laying.cutting = cutting;
        const Work w = job.work();
        std::map<std::string, int> printed;
        for (const Transfer& t : w.transfer_set().transfers) printed[t.art] += t.count();
        EXPECT_EQ(printed.size(), 16U);
        for (const auto& [art, count] : printed) EXPECT_EQ(count, 1) << art;
        // whatever fits on the platen is pressed together, and no blank twice on one side
        std::map<std::string, int> pressed;
        std::size_t loads = 0;
        for (const Load& l : w.press_plan().loads) {
            loads += l.trial ? 0 : 1;
            for (const LoadPart& p : l.parts) pressed[p.decoration] += p.pieces;
        }
        EXPECT_EQ(pressed.size(), 16U);
        for (const auto& [decoration, pieces] : pressed) EXPECT_EQ(pieces, 1) << decoration;
        EXPECT_LE(loads, 6U) << "not one by one";
    }
}

TEST(Lots, FiveFaceCoveringsTakeTheFewestSheets) {
    const BlankStyle style = test::library_style("face-covering");
    const EachItsOwn five(style.id, style.sizes.front(), 5, {locations_of(style).front()}, "sublimation-a3");
    const Work w = five.work();
    const Medium& medium = *find_medium(five.order, "sublimation-a3");
    const NestProblem problem = sheet_problem({medium, {}}, w.transfer_set(), {});
    NestOptions options;
    options.rounds = 4;
    const auto laid = nest(problem, options);
    ASSERT_TRUE(laid) << laid.sentence();
    // counted by hand: rows and columns of the largest piece, upright or across
    double wide = 0, tall = 0;
    for (const Transfer& t : w.transfer_set().transfers) {
        const Rect box = bounds(t.shape);
        wide = std::max(wide, box.width() + medium.gap.mm());
        tall = std::max(tall, box.height() + medium.gap.mm());
    }
    const double along = medium.length.mm() - 2 * medium.margin.mm() + medium.gap.mm(),
                 across = medium.width.mm() - 2 * medium.margin.mm() + medium.gap.mm();
    const auto grid = [](double a, double b, double w1, double h1) { return static_cast<int>(std::floor(a / w1) * std::floor(b / h1)); };
    const int each = std::max({1, grid(along, across, wide, tall), grid(along, across, tall, wide)});
    EXPECT_LE(laid->bins, (5 + each - 1) / each) << each << " on a sheet";
}

TEST(Lots, FiveFaceCoveringsEachWithADesignOfItsOwn) {
    const BlankStyle style = test::library_style("face-covering");
    ASSERT_EQ(style.family, Family::face_covering);
    const EachItsOwn five(style.id, style.sizes.front(), 5, {locations_of(style).front()}, "film-559");
    const Work w = five.work();
    ASSERT_EQ(w.transfer_set().transfers.size(), 5U);
    for (const Transfer& t : w.transfer_set().transfers) EXPECT_EQ(t.count(), 1);
    // every lot is dressed on its own at the press, named by its design
    std::set<std::string> loads;
    int pieces = 0;
    for (const Load& l : w.press_plan().loads) {
        loads.insert(l.id);
        pieces += l.pieces;
    }
    EXPECT_EQ(pieces, 5);
    EXPECT_EQ(loads.size(), w.press_plan().loads.size());
}

}  // namespace TESTED
}  // namespace orthema
