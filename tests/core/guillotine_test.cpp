// Trimmer layouts against exhaustive search and known optima, and their cut lists against a simulated trimmer.
#include <gtest/gtest.h>

#include <algorithm>
#include <map>
#include <random>

#include "core/nesting/guillotine.h"
#include "core/nesting/trimmer.h"

namespace orthema {
namespace TESTED {

NestPiece box_piece(const std::string& id, double along, double across, int count, bool turns) {
    return {id, count, turns ? std::vector<double>{0, 90} : std::vector<double>{0}, box_region({0, 0, along, across})[0]};
}

double side(std::mt19937& random, int from, int to) { return from + static_cast<double>(random() % static_cast<unsigned>(to - from)); }

NestSolution solved(const NestProblem& p, int stages, int rounds) {
    GuillotineOptions o;
    o.stages = stages;
    o.nest.rounds = rounds;
    const auto s = nest_guillotine(p, o);
    EXPECT_TRUE(s) << s.sentence();
    return s ? *s : NestSolution{};
}

/// Every size that a set of boxes can be cut from, by building all sets from all pairs of smaller ones.
double shortest_by_hand(const std::vector<std::pair<double, double>>& boxes, double width, bool turns) {
    const std::size_t sets = std::size_t{1} << boxes.size();
    std::vector<std::map<double, double>> least(sets);  // across -> along
    const auto keep = [&](std::size_t set, double across, double along) {
        if (across > width + 1e-9) return;
        const auto [at, fresh] = least[set].emplace(across, along);
        if (!fresh) at->second = std::min(at->second, along);
    };
    for (std::size_t set = 1; set < sets; ++set) {
        for (std::size_t i = 0; i < boxes.size(); ++i)
            if (set == std::size_t{1} << i) {
                keep(set, boxes[i].second, boxes[i].first);
                if (turns) keep(set, boxes[i].first, boxes[i].second);
            }
        for (std::size_t part = (set - 1) & set; part > 0; part = (part - 1) & set)
            for (const auto& [a, la] : least[part])
                for (const auto& [b, lb] : least[set ^ part]) {
                    keep(set, a + b, std::max(la, lb));
                    keep(set, std::max(a, b), la + lb);
                }
    }
    double out = 1e18;
    for (const auto& [across, along] : least[sets - 1]) out = std::min(out, along);
    return out;
}

/// Cuts a sheet by the list alone, as a hand would: a part, a direction, a fence. Returns what is left, by part number.
std::map<int, Rect> cut_by_list(const TrimPlan& plan, const Rect& sheet) {
    std::map<int, Rect> lying{{0, sheet}};
    for (const TrimCut& c : plan.cuts) {
        const auto part = lying.find(c.part);
        if (part == lying.end()) {
            ADD_FAILURE() << "a part is cut that is not there";
            return {};
        }
        const Rect box = part->second;
        lying.erase(part);
        Rect near = box, far = box;
        (c.across ? near.x1 : near.y1) = (c.across ? box.x0 : box.y0) + c.fence;
        (c.across ? far.x0 : far.y0) = (c.across ? box.x0 : box.y0) + c.fence;
        EXPECT_GT(c.fence, 0);
        EXPECT_LT(c.fence, c.across ? box.width() : box.height());
        EXPECT_TRUE(lying.emplace(c.near, near).second);
        EXPECT_TRUE(lying.emplace(c.far, far).second);
    }
    return lying;
}

/// The list parts every box from every other, and no cut goes through one.
void expect_cut_out(const std::vector<Rect>& boxes, const Rect& sheet, double clearance, int stages) {
    const auto plan = trim_plan(boxes, sheet, clearance);
    ASSERT_TRUE(plan) << plan.sentence();
    if (stages > 0) {
        EXPECT_LE(plan->stages, stages);
    }
    const auto left = cut_by_list(*plan, sheet);
    std::vector<int> found(boxes.size(), 0);
    for (const auto& [number, box] : left) {
        const TrimPart& said = plan->parts[static_cast<std::size_t>(number)];
        EXPECT_NE(said.waste, said.piece >= 0);
        for (std::size_t i = 0; i < boxes.size(); ++i) {
            const bool meets =
                box.x0 < boxes[i].x1 - 1e-6 && box.x1 > boxes[i].x0 + 1e-6 && box.y0 < boxes[i].y1 - 1e-6 && box.y1 > boxes[i].y0 + 1e-6;
            EXPECT_EQ(meets, said.piece == static_cast<int>(i));
            if (!meets) continue;
            ++found[i];
            for (const double room : {boxes[i].x0 - box.x0, boxes[i].y0 - box.y0, box.x1 - boxes[i].x1, box.y1 - boxes[i].y1}) {
                EXPECT_GT(room, clearance - 0.001);
                EXPECT_LT(room, clearance + 0.03);
            }
        }
    }
    for (const int n : found) EXPECT_EQ(n, 1);
}

void expect_sound(const NestProblem& p, const NestSolution& s, int stages) {
    EXPECT_EQ(nest_faults(p, s.placements, 0), std::vector<std::string>{});
    for (int bin = 0; bin < s.bins; ++bin) {
        std::vector<Rect> boxes;
        double end = 0;
        for (const NestPlacement& at : s.placements)
            if (at.bin == bin) {
                boxes.push_back(bounds(placed_outline(p, at).outer));
                end = std::max(end, boxes.back().x1);
            }
        expect_cut_out(boxes, {0, 0, std::isfinite(p.max_length) ? p.max_length : end + p.margin, p.width}, p.gap / 2, stages);
    }
}

TEST(Guillotine, EqualsExhaustiveSearchOnSmallOrders) {
    std::mt19937 random(7);
    int equal = 0;
    constexpr int cases = 40;
    for (int k = 0; k < cases; ++k) {
        const bool turns = k % 2 == 0;
        NestProblem p;
        p.width = 60.01;  // sides are rounded up to the grid
        std::vector<std::pair<double, double>> boxes;
        const int n = 3 + k % 4;
        for (int i = 0; i < n; ++i) {
            boxes.emplace_back(side(random, 8, 50), side(random, 8, 50));
            p.pieces.push_back(box_piece("p" + std::to_string(i), boxes.back().first, boxes.back().second, 1, turns));
        }
        const double best = shortest_by_hand(boxes, p.width, turns);
        const NestSolution s = solved(p, 0, 40);
        expect_sound(p, s, 0);
        EXPECT_GE(s.length, best - 0.01) << "shorter than the shortest";
        equal += s.length < best + 0.01 ? 1 : 0;
    }
    EXPECT_EQ(equal, cases);
}

TEST(Guillotine, KeepsGapMarginTurnsAndStagesOnSeveralSheets) {
    std::mt19937 random(11);
    for (const int stages : {2, 3, 0}) {
        NestProblem p;
        p.width = 210;
        p.max_length = 297;
        p.gap = 4;
        p.margin = 6;
        for (int i = 0; i < 14; ++i)
            p.pieces.push_back(box_piece("p" + std::to_string(i), side(random, 20, 110), side(random, 20, 90), 1 + i % 4, i % 3 != 0));
        const NestSolution s = solved(p, stages, 12);
        expect_sound(p, s, stages);
        double area_of_all = 0;
        for (const NestPiece& piece : p.pieces) area_of_all += piece.count * area(piece.outline);
        EXPECT_LE(s.bins, static_cast<int>(std::ceil(1.5 * area_of_all / (210.0 * 297))));
    }
}

TEST(Guillotine, FindsWhatASheetWasCutInto) {
    // a sheet cut again and again at random: nothing is wasted in the best layout
    std::mt19937 random(3);
    std::vector<Rect> parts{{0, 0, 240, 160}};
    while (parts.size() < 9) {
        const std::size_t i = random() % parts.size();
        const Rect r = parts[i];
        const bool across = r.width() > r.height();
        const double span = across ? r.width() : r.height();
        if (span < 30) continue;
        const double at = std::floor(span * (0.3 + side(random, 0, 100) * 0.004));
        Rect a = r, b = r;
        (across ? a.x1 : a.y1) = (across ? r.x0 : r.y0) + at;
        (across ? b.x0 : b.y0) = (across ? r.x0 : r.y0) + at;
        parts[i] = a;
        parts.push_back(b);
    }
    NestProblem p;
    p.width = 160.01;  // sides are rounded up to the grid
    for (std::size_t i = 0; i < parts.size(); ++i)
        p.pieces.push_back(box_piece("p" + std::to_string(i), parts[i].width(), parts[i].height(), 1, true));
    const NestSolution s = solved(p, 0, 1000);
    expect_sound(p, s, 0);
    EXPECT_NEAR(s.length, 240, 0.02);
}

TEST(Trimmer, SaysWhereNoLineParts) {
    // five boxes around a middle one: no cut from edge to edge is free
    const std::vector<Rect> wheel{{0, 0, 20, 10}, {20, 0, 30, 20}, {10, 20, 30, 30}, {0, 10, 10, 30}, {10, 10, 20, 20}};
    const auto plan = trim_plan(wheel, {0, 0, 30, 30}, 0);
    ASSERT_FALSE(plan);
    EXPECT_NE(plan.sentence().find("edge to edge"), std::string::npos);
    expect_cut_out({{0, 0, 20, 10}, {20, 0, 30, 10}}, {0, 0, 30, 10}, 0, 1);
}

/// The shortest two-stage layout of a few boxes, none turned: every way to part them into shelves, whatever lies in each.
double shortest_in_shelves(const std::vector<std::pair<double, double>>& boxes, double width) {
    const std::size_t sets = std::size_t{1} << boxes.size();
    std::vector<double> shelf(sets, 1e18), least(sets, 1e18);
    for (std::size_t set = 1; set < sets; ++set) {
        double across = 0, along = 0;
        for (std::size_t i = 0; i < boxes.size(); ++i)
            if ((set >> i & 1) != 0) {
                across += boxes[i].second;
                along = std::max(along, boxes[i].first);
            }
        if (across <= width) shelf[set] = along;
    }
    least[0] = 0;
    for (std::size_t set = 1; set < sets; ++set)
        for (std::size_t part = set; part > 0; part = (part - 1) & set) least[set] = std::min(least[set], shelf[part] + least[set ^ part]);
    return least[sets - 1];
}

TEST(Guillotine, TwoStagesAreNeverLongerThanTheBestShelves) {
    std::mt19937 random(23);
    for (int k = 0; k < 20; ++k) {
        NestProblem p;
        p.width = 70.01;
        std::vector<std::pair<double, double>> boxes;
        for (int i = 0; i < 6; ++i) {
            boxes.emplace_back(side(random, 10, 45), side(random, 10, 45));
            p.pieces.push_back(box_piece("p" + std::to_string(i), boxes.back().first, boxes.back().second, 1, false));
        }
        const NestSolution two = solved(p, 2, 30), free = solved(p, 0, 30);
        expect_sound(p, two, 2);
        // stages may also begin along the feed, so it can only be shorter than shelves across it
        EXPECT_LE(two.length, shortest_in_shelves(boxes, 70) + 0.01);
        EXPECT_LE(free.length, two.length + 0.01);
        EXPECT_GE(free.length, shortest_by_hand(boxes, 70, false) - 0.01);
    }
}

TEST(Guillotine, TheSameSeedAndRoundsGiveTheSameLayout) {
    NestProblem p;
    p.width = 200;
    std::mt19937 random(5);
    for (int i = 0; i < 12; ++i)
        p.pieces.push_back(box_piece("p" + std::to_string(i), side(random, 20, 80), side(random, 20, 80), 2, true));
    const NestSolution a = solved(p, 0, 3), b = solved(p, 0, 3);
    ASSERT_EQ(a.placements.size(), b.placements.size());
    for (std::size_t i = 0; i < a.placements.size(); ++i) {
        EXPECT_EQ(a.placements[i].x, b.placements[i].x);
        EXPECT_EQ(a.placements[i].y, b.placements[i].y);
        EXPECT_EQ(a.placements[i].rotation, b.placements[i].rotation);
    }
}

TEST(Guillotine, GoesOnFromALayoutAndSaysWhatCannotBe) {
    NestProblem p;
    p.width = 100.01;
    p.pieces = {box_piece("a", 50, 50, 4, false)};
    p.start = solved(p, 0, 2).placements;
    const NestSolution again = solved(p, 0, 1);
    EXPECT_NEAR(again.length, 100, 0.01);
    p.start[0].x += 30;  // worse: it is left behind
    EXPECT_NEAR(solved(p, 0, 1).length, 100, 0.01);
    p.pieces[0].rotations = {45};
    EXPECT_NE(nest_guillotine(p, {}).sentence().find("no turn that a trimmer can part"), std::string::npos);
    p.pieces = {box_piece("b", 30, 200, 1, false)};
    EXPECT_NE(nest_guillotine(p, {}).sentence().find("larger than the medium"), std::string::npos);
    p.pieces = {box_piece("c", 200, 30, 1, true)};
    p.max_length = 90;
    EXPECT_NE(nest_guillotine(p, {}).sentence().find("larger than the medium"), std::string::npos);
    p.margin = 60;
    EXPECT_NE(nest_guillotine(p, {}).sentence().find("not usable"), std::string::npos);
    p.margin = 0;
    p.pieces.clear();
    EXPECT_EQ(solved(p, 0, 1).bins, 0);
}

TEST(Guillotine, BlockedAreasLeaveTheLargestFreeBox) {
    NestProblem p;
    p.width = 100;
    p.max_length = 200;
    p.blocked = {box_region({40, 0, 50, 30})[0], box_region({120, 60, 130, 100})[0]};
    p.pieces = {box_piece("a", 20, 20, 12, false)};
    const NestSolution s = solved(p, 0, 2);
    EXPECT_EQ(nest_faults(p, s.placements, 0), std::vector<std::string>{});
    // by hand: 150 × 60 behind the first and before the second; 120 × 70 above, 70 × 100 between them are smaller
    for (const NestPlacement& at : s.placements) {
        const Rect r = bounds(placed_outline(p, at).outer);
        EXPECT_TRUE(r.x0 >= 49.999 && r.y1 <= 60.001) << r.x0 << " " << r.y0;
    }
}

TEST(Trimmer, PartsWhateverWasCutUpInAsManyStages) {
    std::mt19937 random(41);
    for (int k = 0; k < 60; ++k) {
        // strips across, each into pieces along: two stages, with waste at the ends
        std::vector<Rect> boxes;
        double x = 4;
        for (int strip = 0; strip < 2 + k % 4; ++strip) {
            const double along = side(random, 12, 40);
            double y = 4;
            while (y < 120) {
                const double across = side(random, 12, 40);
                boxes.push_back({x, y, x + along - side(random, 0, 4), y + across});
                y += across + 3;
            }
            x += along + 3;
        }
        std::shuffle(boxes.begin(), boxes.end(), random);
        expect_cut_out(boxes, {0, 0, x + 5, 170}, 1.5, k % 4 == 0 && boxes.size() < 3 ? 0 : 2);
    }
}

/// Whether straight cuts part them, by trying every line between two boxes on every set of them.
bool parted_by_hand(const std::vector<Rect>& boxes) {
    if (boxes.size() < 2) return true;
    for (const bool across : {true, false})
        for (const Rect& edge : boxes) {
            const double at = across ? edge.x1 : edge.y1;
            std::vector<Rect> near, far;
            bool hits = false;
            for (const Rect& b : boxes) {
                const double from = across ? b.x0 : b.y0, to = across ? b.x1 : b.y1;
                hits = hits || (from < at && to > at);
                (to <= at ? near : far).push_back(b);
            }
            // a part that can be parted stays so when one of its own is taken out, so the first line decides nothing wrongly
            if (!hits && !near.empty() && !far.empty()) return parted_by_hand(near) && parted_by_hand(far);
        }
    return false;
}

TEST(Trimmer, TellsWhatCanBePartedAsTryingEveryLineDoes) {
    std::mt19937 random(77);
    int can = 0, cannot = 0;
    for (int round = 0; round < 12000; ++round) {
        // boxes between the lines of a coarse grid that do not overlap
        NestProblem p;
        p.width = 100;
        std::vector<Rect> boxes;
        std::vector<NestPlacement> placements;
        for (int tries = 0; tries < 40 && boxes.size() < 9; ++tries) {
            const Rect r{side(random, 0, 4) * 10, side(random, 0, 4) * 10, 0, 0};
            const Rect b{r.x0, r.y0, r.x0 + 10 * side(random, 1, 4), r.y0 + 10 * side(random, 1, 4)};
            if (std::any_of(boxes.begin(), boxes.end(),
                            [&](const Rect& o) { return b.x0 < o.x1 && o.x0 < b.x1 && b.y0 < o.y1 && o.y0 < b.y1; }))
                continue;
            p.pieces.push_back(box_piece(std::to_string(boxes.size()), b.width(), b.height(), 1, false));
            placements.push_back({static_cast<int>(boxes.size()), 0, 0, 0, b.x0, b.y0, false});
            boxes.push_back(b);
        }
        const bool by_hand = parted_by_hand(boxes);
        EXPECT_EQ(trimmable(p, placements, 0), by_hand) << round;
        ++(by_hand ? can : cannot);
    }
    EXPECT_GT(can, 1000);
    EXPECT_GT(cannot, 150);
}

}  // namespace TESTED
}  // namespace orthema
