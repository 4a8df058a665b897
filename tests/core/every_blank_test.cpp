// Every blank of the starting library at every location it has: what must hold whatever the shape.
#include <cmath>
#include <random>
#include <set>

#include "core/fitting/exactness.h"
#include "core/fitting/fit.h"
#include "core/guides/guides.h"
#include "files/library.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

struct Case {
    Order order;
    ArtFacts facts;
    const BlankStyle& style() const { return order.styles.front(); }
    const Decoration& d() const { return order.decorations.front(); }
    Decoration& d() { return order.decorations.front(); }
};

/// One style in all its sizes, with a wedge of a design that is neither square nor symmetric.
Case case_of(const BlankStyle& style, Location l) {
    Case c;
    c.order.styles = {style};
    c.order.media = starting_library().media;
    c.order.presses = starting_library().presses;
    const std::string colour = style.colours.empty() ? "" : style.colours.front().name;
    int n = 1;
    for (const std::string& size : style.sizes) c.order.lines.push_back({style.id, colour, size, n++, ""});
    Art art;
    art.id = art.name = "wedge";
    c.order.art = {art};
    c.facts.width_px = c.facts.height_px = 1000;
    c.facts.vector = true;
    c.facts.ink_px = {0, 0, 1000, 700};
    c.facts.aspect = 0.7;
    c.facts.outline = {Polygon{{{0, 0}, {1, 0.2}, {0.8, 0.7}, {0.1, 0.6}}, {}}};
    c.facts.optical_centre = {0.45, 0.38};
    c.order.decorations = {new_decoration(c.order, {style.id, colour}, l, art)};
    return c;
}

template <class F>
void each_case(F judge) {
    int judged = 0;
    for (const BlankStyle& style : starting_library().styles)
        for (const Location l : locations_of(style)) {
            SCOPED_TRACE(style.id + " " + location_key(l));
            Case c = case_of(style, l);
            judge(c);
            ++judged;
        }
    EXPECT_GT(judged, 120);
}

TEST(EveryBlank, BeginsWithADesignThatFitsAndAPressThatTakesIt) {
    each_case([](const Case& c) {
        const auto fit = fit_decoration(c.order, c.d(), c.facts);
        ASSERT_TRUE(fit);
        ASSERT_EQ(fit->sizes.size(), c.style().sizes.size());
        const Press* press = find_press(c.order, c.d().press);
        ASSERT_NE(press, nullptr);
        EXPECT_TRUE(takes(press->kind, location_face(c.d().location)));
        for (const SizeFit& s : fit->sizes) {
            EXPECT_GT(s.width, 1) << s.size;
            EXPECT_LE(s.width, s.limit + 1e-6) << s.size;
            EXPECT_TRUE(clashes(find_ground(*fit, s.size)->area, placed_outline(c.facts.outline, s), 0.06).empty()) << s.size;
        }
    });
}

TEST(EveryBlank, HandMeasurementsAddUpToThePanel) {
    each_case([](const Case& c) {
        const auto fit = fit_decoration(c.order, c.d(), c.facts);
        ASSERT_TRUE(fit);
        for (const SizeFit& s : fit->sizes) {
            const Panel& p = find_ground(*fit, s.size)->panel;
            EXPECT_NEAR(s.top_to_ink + s.height + s.ink_to_bottom, p.bottom_y - p.top_y, 1e-6) << s.size;
            EXPECT_EQ(s.ink_to_pit.has_value(), p.pit_y.has_value());
        }
    });
}

/// The first edge or seam that a tape meets from a point to the viewer's right: every drawn line that runs down the panel's
/// side, crossed by hand. Knows nothing of the panel's own edge.
double tape_to_the_right(const Panel& p, const Measures& m, Family family, Point from) {
    double nearest = 1e9;
    const auto cross = [&](Point a, Point b) {
        if ((a.y > from.y) == (b.y > from.y)) return;
        const double x = a.x + (b.x - a.x) * (from.y - a.y) / (b.y - a.y);
        if (x >= from.x - 1e-6) nearest = std::min(nearest, x - from.x);
    };
    for (const Polygon& part : p.outline)
        for (std::size_t i = 0; i < part.outer.size(); ++i) cross(part.outer[i], part.outer[(i + 1) % part.outer.size()]);
    for (const Ring& seam : p.seams) {
        const Rect box = bounds(seam);
        const bool armhole = p.pit_y && std::abs(box.y1 - *p.pit_y) < 1e-6 && box.x1 > 0;
        const bool wall_end = p.face == Face::wrap && box.width() < 1e-6;
        if (!armhole && !wall_end) continue;
        for (std::size_t i = 0; i + 1 < seam.size(); ++i) cross(seam[i], seam[i + 1]);
    }
    // a sleeve hides the upper end of the side seam, which runs straight from the pit to the hem
    if (p.pit_y && family != Family::infant_bodysuit)
        cross({measure_mm(m, Measure::chest) / 2, *p.pit_y},
              {measure_mm(m, Measure::hem_width) / 2, measure_mm(m, Measure::body_length) - measure_mm(m, Measure::hem_curve)});
    return nearest;
}

TEST(EveryBlank, WhatTheHandMeasuresOnTheCardIsThereOnTheGarment) {
    std::mt19937 random(44);
    std::uniform_real_distribution<double> small(0.25, 0.8), offset(-30, 140);
    int judged = 0;
    each_case([&](Case& c) {
        if (c.style().family == Family::pennant) return;  // a pennant's edges are aslant: its margins are taken at its hoist
        for (int round = 0; round < 2; ++round) {
            c.d().sizing.base_width = c.d().sizing.base_width * small(random);
            c.d().placing.offset = Length::from_mm(std::max(2.0, c.d().placing.offset.mm() + offset(random)));
            const auto fit = fit_decoration(c.order, c.d(), c.facts);
            ASSERT_TRUE(fit);
            const SizeFit& s = fit->sizes[random() % fit->sizes.size()];
            const Panel& p = find_ground(*fit, s.size)->panel;
            if (s.ink.centre().y < p.right_edge.front().y || s.ink.centre().y > p.right_edge.back().y) continue;
            if (!inside(p.outline, {s.ink.x1, s.ink.centre().y})) continue;  // over an edge: nothing to measure to
            ++judged;
            const auto lines = card_lines(p, s, c.d().location, {}, Unit::mm);
            const auto of = [&](const std::string& what) {
                for (const CardLine& l : lines)
                    if (l.what.find(what) != std::string::npos) return parse_length(l.figure, Unit::mm)->mm();
                return -1e9;
            };
            EXPECT_NEAR(of("your right"), tape_to_the_right(p, c.style().chart.at(s.size), c.style().family, {s.ink.x1, s.ink.centre().y}),
                        0.5)
                << s.size << " " << lines[2].what;
            const Rect box = bounds(Ring{{s.ink.x0, s.ink.y0}, {s.ink.x1, s.ink.y1}});
            EXPECT_NEAR(of("to top of ink") > -1e8 ? of("to top of ink") : -of("Top of ink above the " + p.top_name), box.y0 - p.top_y,
                        0.5);
            if (p.pit_y) EXPECT_NEAR(std::max(of("above the pit line"), of("below the pit line")), std::abs(*p.pit_y - box.y0), 0.5);
        }
    });
    EXPECT_GT(judged, 200);
}

TEST(EveryBlank, AGhostLiesWhereItsSchoolPutsTheDesign) {
    each_case([](Case& c) {
        const auto before = fit_decoration(c.order, c.d(), c.facts);
        ASSERT_TRUE(before);
        const Ground* base = find_ground(*before, c.d().sizing.base_size);
        ASSERT_NE(base, nullptr);
        const Decoration was = c.d();
        for (std::size_t k = 0; k < placing_school_count; ++k) {
            const auto school = static_cast<PlacingSchool>(k);
            if (school == was.placing.school || !find_size(*before, was.sizing.base_size)->school_tops[k]) continue;
            c.d() = with_usual_place(was, base->panel, family_group(c.style().family), school);
            c.d().placing.growth = 0;
            // the width may change with the place: hung from the top the ghost says the top, else it scales with the height
            c.d().pins.clear();
            for (const SizeFit& s : before->sizes) c.d().pins.push_back({s.size, Length::from_mm(s.width), {}, {}});
            const auto after = fit_decoration(c.order, c.d(), c.facts);
            ASSERT_TRUE(after);
            const SizeFit& at = *find_size(*after, was.sizing.base_size);
            EXPECT_NEAR(at.ink.y0, *find_size(*before, was.sizing.base_size)->school_tops[k], 0.51) << "offsets are whole millimetres";
        }
    });
}

TEST(EveryBlank, GuidesSayFiguresThatCanBeReadAndHowExactTheyAre) {
    each_case([](const Case& c) {
        FitPlan plan;
        plan.decorations.push_back(*fit_decoration(c.order, c.d(), c.facts));
        const GuideSet set = guides(c.order, plan, {{"wedge", c.facts}});
        ASSERT_EQ(set.guides.size(), c.style().sizes.size());
        const DecorationFit& fit = plan.decorations[0];
        for (const SizeFit& s : fit.sizes) {
            const Panel& p = find_ground(fit, s.size)->panel;
            const Exactness exact = exactness_of(slack_of(*find_ground(fit, s.size), fit, s));
            EXPECT_GT(exact.level, 0);
            EXPECT_GT(exact.sideways, 0);
            for (const Unit unit : {Unit::mm, Unit::inch}) {
                const auto lines = card_lines(p, s, c.d().location, exact, unit);
                EXPECT_GE(lines.size(), 4u);
                for (const CardLine& line : lines) {
                    EXPECT_FALSE(line.what.empty());
                    EXPECT_EQ(line.figure.find("nan"), std::string::npos);
                    EXPECT_EQ(line.figure.find("inf"), std::string::npos);
                    EXPECT_NE(line.figure.find(unit == Unit::mm ? "mm" : "in"), std::string::npos) << line.what << ": " << line.figure;
                }
            }
        }
    });
}

TEST(EveryBlank, SidesAreTheWearersAndStandInTheName) {
    std::set<std::string> keys, names;
    for (int i = 0; i < location_count; ++i) {
        const auto l = static_cast<Location>(i);
        const std::string key = location_key(l), name = location_name(l);
        EXPECT_EQ(location_from_key(key), l);
        EXPECT_TRUE(keys.insert(key).second) << key;
        EXPECT_TRUE(names.insert(name).second) << name;
        const bool left = key.find("left_") != std::string::npos || key.find("_left") != std::string::npos;
        const bool right = key.find("right_") != std::string::npos || key.find("_right") != std::string::npos;
        EXPECT_EQ(name.find("wearer's left") != std::string::npos, left) << name;
        EXPECT_EQ(name.find("wearer's right") != std::string::npos, right) << name;
    }
    EXPECT_FALSE(location_from_key("left"));
    each_case([](const Case& c) {
        const Location l = c.d().location;
        if (!is_sided(l)) return;
        const Panel p = panel_for(c.style(), c.style().sizes.front(), l);
        const bool left = std::string(location_name(l)).find("wearer's left") != std::string::npos;
        EXPECT_EQ(anchor_x(l, p) > 0, left) << "on the viewer's right";
    });
}

TEST(EveryBlank, OneMillimetreSmallerAlwaysFitsToo) {
    std::mt19937 random(3);
    each_case([&](const Case& c) {
        const auto fit = fit_decoration(c.order, c.d(), c.facts);
        ASSERT_TRUE(fit);
        const SizeFit& s = fit->sizes[random() % fit->sizes.size()];
        Case small = c;
        for (const double share : {0.9, 0.5, 0.2}) {
            small.d().pins = {{s.size, Length::from_mm(std::max(1.0, s.limit * share)), {}, {}}};
            const auto again = fit_decoration(small.order, small.d(), c.facts);
            ASSERT_TRUE(again);
            for (const Finding& f : again->findings)
                EXPECT_FALSE(f.about.size == s.size && (f.code == "ink-over" || f.code == "ink-too-close"))
                    << finding_text(f, Unit::mm) << " at " << share;
        }
    });
}

}  // namespace TESTED
}  // namespace orthema
