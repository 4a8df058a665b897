// Garments from their measures: what a tape laid on the drawing would read.
#include "core/blanks/garment.h"

#include "core/blanks/location.h"
#include "files/library.h"

namespace orthema {
namespace {

template <class F>
void on_every_garment(F check) {
    for (const BlankStyle& style : starting_library().styles)
        for (const std::string& size : style.sizes)
            for (const Side side : {Side::front, Side::back}) {
                SCOPED_TRACE(style.name + " " + size + (side == Side::front ? " front" : " back"));
                check(style, style.chart.at(size), garment_of(style.family, style.chart.at(size), side), side);
            }
}

TEST(Library, ShipsFiveFamiliesWithWholeRuns) {
    std::map<Family, std::vector<std::string>> runs;
    for (const BlankStyle& s : starting_library().styles) {
        runs[s.family] = s.sizes;
        EXPECT_FALSE(style_fault(s)) << s.name;
        for (const std::string& size : s.sizes)
            for (const Measure m : family_measures(s.family))
                EXPECT_TRUE(s.chart.at(size).contains(m)) << s.name << size << measure_name(m);
    }
    EXPECT_EQ(runs[Family::infant_bodysuit], (std::vector<std::string>{"NB", "3M", "6M", "12M", "18M", "24M"}));
    EXPECT_EQ(runs[Family::toddler_tee], (std::vector<std::string>{"2T", "3T", "4T", "5T"}));
    EXPECT_EQ(runs[Family::youth_tee], (std::vector<std::string>{"XS", "S", "M", "L", "XL"}));
    EXPECT_EQ(runs[Family::adult_tee], (std::vector<std::string>{"XS", "S", "M", "L", "XL", "2XL", "3XL", "4XL", "5XL"}));
    EXPECT_EQ(runs[Family::hooded_fleece], (std::vector<std::string>{"S", "M", "L", "XL", "2XL", "3XL"}));
}

TEST(Library, RunsGrowFromSizeToSize) {
    for (const BlankStyle& s : starting_library().styles)
        for (std::size_t i = 1; i < s.sizes.size(); ++i)
            for (const Measure m : {Measure::chest, Measure::body_length, Measure::across_shoulder})
                EXPECT_GT(measure_mm(s.chart.at(s.sizes[i]), m), measure_mm(s.chart.at(s.sizes[i - 1]), m)) << s.name << s.sizes[i];
}

TEST(Garment, OutlineIsOnePieceAndTheSameOnBothSides) {
    on_every_garment([](const BlankStyle&, const Measures&, const Garment& g, Side) {
        ASSERT_EQ(g.outline.size(), 1u);
        const Rect box = bounds(g.outline);
        EXPECT_NEAR(box.x0, -box.x1, 1e-3);
        EXPECT_NEAR(area(intersect(g.outline, box_region({0, box.y0, box.x1, box.y1}))), area(g.outline) / 2, 1);
    });
}

TEST(Garment, ReachesTheLandmarksThatItsMeasuresName) {
    on_every_garment([](const BlankStyle&, const Measures& m, const Garment& g, Side side) {
        const auto mm = [&](Measure which) { return measure_mm(m, which); };
        EXPECT_DOUBLE_EQ(g.pit_y, mm(Measure::armhole_depth));
        EXPECT_DOUBLE_EQ(g.hem_y, mm(Measure::body_length));
        EXPECT_DOUBLE_EQ(g.collar_seam_y, mm(side == Side::front ? Measure::front_neck_drop : Measure::back_neck_drop));
        EXPECT_DOUBLE_EQ(g.hps.x, mm(Measure::neck_width) / 2);
        EXPECT_DOUBLE_EQ(g.shoulder_point.x, mm(Measure::across_shoulder) / 2);
        EXPECT_NEAR(body_half_width(g, g.pit_y), mm(Measure::chest) / 2, 1e-6);
        EXPECT_NEAR(bounds(g.outline).y1, mm(Measure::body_length), 0.5);
        // just inside the side seam there is cloth, just outside below the sleeve there is none
        const double y = g.pit_y + (g.hem_y - g.pit_y) * 0.55;
        EXPECT_TRUE(inside(g.outline, {body_half_width(g, y) - 2, y}));
        EXPECT_NEAR(neckline_y(g, 0), g.collar_seam_y, 1e-9);
        EXPECT_NEAR(neckline_y(g, g.hps.x), 0, 1e-9);
    });
}

TEST(Garment, ATapeLineIsAsLongAsItsFigure) {
    for (const BlankStyle& style : starting_library().styles)
        for (const std::string& size : style.sizes) {
            std::set<Measure> seen;
            for (const Side side : {Side::front, Side::back})
                for (const TapeLine& t : tape_lines(style.family, style.chart.at(size), side)) {
                    seen.insert(t.measure);
                    const double figure = measure_mm(style.chart.at(size), t.measure);
                    // a slope and a hood are measured straight down; the hood lies folded to two thirds
                    const double lies = t.measure == Measure::hood_height ? figure * 0.66 : figure;
                    EXPECT_NEAR(norm(t.to - t.from), lies, 1e-6) << style.name << size << measure_name(t.measure);
                }
            for (const Measure m : family_measures(style.family)) EXPECT_TRUE(seen.contains(m)) << style.name << measure_name(m);
        }
}

TEST(Garment, ChangingAMeasureReshapesIt) {
    const BlankStyle& style = starting_library().styles.front();
    const std::string size = style.sizes.front();
    const double before = measure_mm(style.chart.at(size), Measure::chest);
    const BlankStyle wider = with_measured(style, size, Measure::chest, Length::from_mm(before + 40), 1, "2026-11-25");
    const Garment g = garment_of(wider.family, wider.chart.at(size), Side::front);
    EXPECT_NEAR(body_half_width(g, g.pit_y), before / 2 + 20, 1e-6);
}

TEST(Garment, FleeceHasAPouchInFrontAndAHoodBehind) {
    for (const BlankStyle& style : starting_library().styles) {
        if (style.family != Family::hooded_fleece) continue;
        const Measures& m = style.chart.at("L");
        const auto has = [](const Garment& g, const std::string& name) {
            return std::any_of(g.features.begin(), g.features.end(), [&](const Feature& f) { return f.name == name; });
        };
        const Garment front = garment_of(style.family, m, Side::front), back = garment_of(style.family, m, Side::back);
        EXPECT_TRUE(has(front, "pouch seam"));
        EXPECT_FALSE(has(back, "pouch seam"));
        EXPECT_TRUE(has(back, "hood"));
        for (const Feature& f : front.features)
            if (f.name == "pouch seam") {
                EXPECT_NEAR(bounds(f.place).y0, measure_mm(m, Measure::pouch_top), 1e-6);
                EXPECT_NEAR(bounds(f.place).width(), measure_mm(m, Measure::pouch_width), 1e-6);
            }
    }
}

BlankStyle tee() {
    for (const BlankStyle& s : starting_library().styles)
        if (s.family == Family::adult_tee) return s;
    return {};
}

TEST(Measuring, GradesBetweenTwoTapedSizesByThePublishedProportion) {
    const BlankStyle style = tee();
    const auto published = [&](const char* size) { return measure_mm(style.chart.at(size), Measure::sleeve_length); };
    BlankStyle taped = with_measured(style, "S", Measure::sleeve_length, Length::from_mm(published("S") + 6), 2, "2026-11-25");
    taped = with_measured(taped, "XL", Measure::sleeve_length, Length::from_mm(published("XL") - 3), 1, "2026-11-25");
    for (const char* size : {"M", "L"}) {
        const Figure& f = taped.chart.at(size).at(Measure::sleeve_length);
        EXPECT_EQ(f.source, Source::graded);
        // by hand: the same share of the way between the two taped figures as between the published ones
        const double t = (published(size) - published("S")) / (published("XL") - published("S"));
        EXPECT_NEAR(f.value.mm(), published("S") + 6 + t * (published("XL") - 3 - published("S") - 6), 1e-9);
        EXPECT_NEAR(f.published->mm(), published(size), 1e-9);
    }
    EXPECT_EQ(taped.chart.at("2XL").at(Measure::sleeve_length).source, Source::published);
    EXPECT_EQ(taped.chart.at("S").at(Measure::sleeve_length).pieces, 2);
    // taking one back undoes the grading as well
    const BlankStyle back = with_published(with_published(taped, "S", Measure::sleeve_length), "XL", Measure::sleeve_length);
    for (const std::string& size : style.sizes)
        EXPECT_EQ(back.chart.at(size).at(Measure::sleeve_length).value, style.chart.at(size).at(Measure::sleeve_length).value) << size;
}

TEST(Measuring, RefusesFiguresThatContradictEachOther) {
    BlankStyle style = tee();
    style.chart["L"][Measure::neck_width].value = Length::from_mm(900);
    ASSERT_TRUE(style_fault(style));
    EXPECT_NE(style_fault(style)->find("contradict"), std::string::npos);
    style = tee();
    style.chart["L"][Measure::chest].value = Length::from_mm(56000);
    EXPECT_TRUE(style_fault(style));
    style = tee();
    style.chart["M"].erase(Measure::chest);
    EXPECT_TRUE(style_fault(style));
    style = tee();
    style.sizes.clear();
    EXPECT_TRUE(style_fault(style));
}

TEST(Location, TheWearersLeftIsTheViewersRight) {
    const BlankStyle style = tee();
    const Garment g = garment_of(style.family, style.chart.at("M"), Side::front);
    EXPECT_GT(anchor_x(Location::left_chest, g), 0);
    EXPECT_EQ(anchor_x(Location::right_chest, g), -anchor_x(Location::left_chest, g));
    EXPECT_EQ(anchor_x(Location::full_front, g), 0);
    EXPECT_NE(std::string(location_name(Location::left_chest)).find("wearer's left"), std::string::npos);
    for (const Location l : all_locations) EXPECT_EQ(location_from_key(location_key(l)), l);
}

TEST(Location, ClashesNameWhatIsTooClose) {
    const BlankStyle style = tee();
    const Garment g = garment_of(style.family, style.chart.at("M"), Side::front);
    const auto with = [&](Location l, const Rect& ink) {
        std::set<std::string> out;
        for (const Clash& c : clashes(l, g, ink)) out.insert(c.with);
        return out;
    };
    const double y = g.pit_y + 20;
    EXPECT_TRUE(with(Location::full_front, {-100, y, 100, y + 200}).empty());
    EXPECT_TRUE(with(Location::full_front, {-g.chest / 2, y, g.chest / 2, y + 50}).contains("side seam"));
    EXPECT_TRUE(with(Location::full_front, {-50, g.collar_seam_y + 2, 50, y}).contains("collar seam"));
    EXPECT_TRUE(with(Location::full_front, {-50, y, 50, g.hem_y - 5}).contains("hem"));
    EXPECT_TRUE(with(Location::left_chest, {2, y, 60, y + 50}).contains("centre line"));
    EXPECT_FALSE(with(Location::full_front, {2, y, 60, y + 50}).contains("centre line"));
}

TEST(Location, AClashSaysByHowMuch) {
    const BlankStyle style = tee();
    const Garment g = garment_of(style.family, style.chart.at("M"), Side::front);
    const double y0 = g.pit_y + 40, y1 = y0 + 60;
    const double edge = std::min(body_half_width(g, y0), body_half_width(g, y1));
    for (const double reach : {edge - 20, edge - 5, edge + 10}) {
        double said = 0;
        for (const Clash& c : clashes(Location::full_front, g, {-reach, y0, reach, y1}))
            if (c.with == "side seam") said = c.short_by;
        EXPECT_NEAR(said, reach + 25 - edge, 1e-6);  // 25 mm is the clearance of full locations
    }
}

}  // namespace
}  // namespace orthema
