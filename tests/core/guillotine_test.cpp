// Trimmer layouts against exhaustive search and known optima, and their cut lists against a simulated trimmer.
#include <gtest/gtest.h>

#include <map>
#include <random>

#include "core/nesting/guillotine.h"
#include "core/nesting/trimmer.h"

namespace orthema {
namespace {

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
    const NestSolution s = solved(p, 0, 500);
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

}  // namespace
}  // namespace orthema
