// Taking over from an earlier plan: after any row of edits the answer is that of a fresh fit.
#include <random>

#include "core/fitting/fit.h"
#include "core/order/edit.h"
#include "core/order/rules.h"
#include "files/library.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

ArtFacts star_facts(unsigned seed) {
    std::mt19937 random(seed);
    ArtFacts f;
    f.width_px = f.height_px = 1000;
    f.vector = true;
    Polygon p = test::random_star(random, 0.5, 11);
    const Rect box = bounds(p.outer);
    for (Point& v : p.outer) v = {(v.x - box.x0) / box.width(), (v.y - box.y0) / box.width()};
    f.aspect = box.height() / box.width();
    f.ink_px = {0, 0, 1000, 1000 * f.aspect};
    f.outline = {p};
    f.optical_centre = {0.5, f.aspect / 2};
    return f;
}

/// Everything that a plan says, in words, so that two can be compared whole.
std::string told(const FitPlan& plan) {
    std::string out;
    const auto add = [&](double v) { out += std::to_string(v) + " "; };
    for (const DecorationFit& d : plan.decorations) {
        out += "\n" + d.decoration + ": ";
        for (const SizeFit& s : d.sizes) {
            out += "\n  " + s.size + " " + binding_text(s.limited_by) + " " + binding_text(s.limit_by) + " " + s.below + " ";
            for (const double v :
                 {s.width, s.height, s.ideal, s.limit, s.ink.x0, s.ink.y0, s.top_to_ink, s.left_margin, s.right_margin, s.balance,
                  s.platen.shift.x, s.platen.shift.y, static_cast<double>(s.platen.way), static_cast<double>(s.band)})
                add(v);
            for (const auto& top : s.school_tops) add(top.value_or(-1));
        }
    }
    for (const Finding& f : plan.findings)
        out += "\n" + f.code + " " + f.about.decoration + " " + f.about.size + " " + finding_text(f, Unit::mm);
    return out;
}

TEST(Refit, AnyRowOfEditsGivesWhatAFreshFitGives) {
    std::mt19937 random(17);
    const auto pick = [&](std::size_t n) { return static_cast<std::size_t>(random() % n); };
    Order order = test::small_order();
    order.styles = starting_library().styles;
    ArtFactsById facts{{order.art[0].id, star_facts(1)}};
    Art second = order.art[0];
    second.id = second.name = "second";
    order.art.push_back(second);
    facts["second"] = star_facts(2);
    for (const char* size : {"M", "L", "XL"}) order.lines.push_back({"crew-fleece", "", size, 3, ""});
    const RunKey tee = order.decorations[0].run, fleece{"crew-fleece", ""};
    for (const Location l : {Location::left_chest, Location::right_hem, Location::upper_back})
        order.decorations.push_back(new_decoration(order, tee, l, second));
    order.decorations.push_back(new_decoration(order, fleece, Location::full_front, second));
    order.decorations.push_back(new_decoration(order, fleece, Location::centre_chest, order.art[0]));
    FitPlan plan = fit(order, facts);
    ASSERT_EQ(plan.decorations.size(), 6u);
    for (int round = 0; round < 60; ++round) {
        Order next = order;
        Decoration& d = next.decorations[pick(next.decorations.size())];
        const auto mm = [&](double low, double high) {
            return Length::from_mm(low + (high - low) * static_cast<double>(random() % 1000) / 1000);
        };
        switch (random() % 9) {
        case 0: d.placing.offset = mm(20, 160); break;
        case 1: d.sizing.base_width = mm(40, 330); break;
        case 2: d.sizing.school = static_cast<SizingSchool>(pick(3)); break;
        case 3: d.placing.across = mm(-60, 60); break;
        case 4: next.lines[pick(next.lines.size())].quantity = static_cast<int>(pick(9)); break;
        case 5: {
            BlankStyle& style =
                *std::find_if(next.styles.begin(), next.styles.end(), [&](const BlankStyle& s) { return s.id == d.run.style; });
            style.chart[style.sizes[pick(style.sizes.size())]][Measure::chest].value += mm(-6, 6);
            break;
        }
        case 6: std::swap(next.decorations[pick(next.decorations.size())], next.decorations[pick(next.decorations.size())]); break;
        case 7: d.apart = mm(0, 40); break;
        default: d.location = pick(2) == 0 ? Location::full_front : Location::full_back; break;
        }
        plan = refit(next, facts, order, plan);
        order = next;
        ASSERT_EQ(told(plan), told(fit(order, facts))) << "after edit " << round;
    }
}

TEST(Refit, UnderRulesToo) {
    std::mt19937 random(29);
    const auto pick = [&](std::size_t n) { return static_cast<std::size_t>(random() % n); };
    Order order = test::small_order();
    order.styles = starting_library().styles;
    order.decorations.clear();
    ArtFactsById facts{{order.art[0].id, star_facts(3)}};
    Art second = order.art[0];
    second.id = second.name = "second";
    order.art.push_back(second);
    facts["second"] = star_facts(4);
    for (const char* colour : {"navy", "white"})
        for (const char* size : {"S", "M", "XL"}) order.lines.push_back({"adult-tee", colour, size, 2 + static_cast<int>(pick(5)), ""});
    for (const char* size : {"M", "L"}) order.lines.push_back({"crew-fleece", "moss", size, 3, ""});
    for (const char* size : {"S", "L"}) order.lines.push_back({"youth-tee", "ash", size, 3, ""});
    const auto runs = runs_of(order);
    for (const Location l : {Location::full_front, Location::left_chest, Location::upper_back}) {
        std::string id;
        order = with_new_design(order, runs[pick(runs.size())], l, order.art[pick(2)], &id);
        order = with_design_on(order, id, runs);
    }
    ASSERT_EQ(order.decorations.size(), 3 * runs.size());
    FitPlan plan = fit(order, facts);
    for (int round = 0; round < test::rounds(60, 1000); ++round) {
        Order next = order;
        const Decoration chosen = order.decorations[pick(order.decorations.size())];
        Decoration d = chosen;
        switch (random() % 9) {
        case 0: d.sizing.base_width = Length::from_mm(40 + static_cast<double>(pick(260))); break;
        case 1: d.placing.offset = Length::from_mm(20 + static_cast<double>(pick(120))); break;
        case 2: d.sizing.school = static_cast<SizingSchool>(pick(3)); break;
        case 3: d.pins = {{counts_of(order, d.run).front().size, Length::from_mm(60 + static_cast<double>(pick(90))), {}, {}}}; break;
        case 4: next = with_quantity(order, d.run, "M", static_cast<int>(pick(9))); break;
        case 5: next = d.departs ? with_return(order, d.id) : with_departure(order, d.id); break;
        case 6: next = with_design_off(order, d.id, {d.run}); break;
        case 7: next = with_design_on(order, d.id, runs); break;
        default: std::swap(next.decorations.front(), next.decorations[pick(next.decorations.size())]); break;
        }
        if (d != chosen) next = with_decoration(order, d);
        if (next.decorations.size() < 4) next = with_design_on(next, next.decorations.front().id, runs);
        plan = refit(next, facts, order, plan);
        order = next;
        ASSERT_EQ(told(plan), told(fit(order, facts))) << "after edit " << round;
    }
}

}  // namespace TESTED
}  // namespace orthema
