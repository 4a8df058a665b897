// Panels from their measures: what a tape laid on the drawing would read.
#include "core/blanks/panel.h"

#include "core/fitting/clear_area.h"
#include "files/library.h"

namespace orthema {
namespace TESTED {

template <class F>
void on_every_panel(F check) {
    for (const BlankStyle& style : starting_library().styles)
        for (const std::string& size : style.sizes)
            for (const Face face : family_faces(style.family)) {
                SCOPED_TRACE(style.name + " " + size + " " + face_name(face));
                check(style, style.chart.at(size), panel_of(style, size, face));
            }
}

TEST(Library, HasEveryFamilyWithAWholeRun) {
    std::map<Family, std::vector<std::string>> runs;
    for (const BlankStyle& s : starting_library().styles) {
        if (runs[s.family].empty()) runs[s.family] = s.sizes;
        EXPECT_FALSE(style_fault(s)) << s.name;
        for (const std::string& size : s.sizes)
            for (const Measure m : family_measures(s.family))
                EXPECT_TRUE(s.chart.at(size).contains(m)) << s.name << size << measure_name(m);
    }
    EXPECT_EQ(runs.size(), static_cast<std::size_t>(family_count));
    EXPECT_EQ(runs[Family::infant_bodysuit], (std::vector<std::string>{"NB", "3M", "6M", "12M", "18M", "24M"}));
    EXPECT_EQ(runs[Family::adult_tee], (std::vector<std::string>{"XS", "S", "M", "L", "XL", "2XL", "3XL", "4XL", "5XL"}));
    EXPECT_EQ(runs[Family::cap], (std::vector<std::string>{"youth", "adult"}));
    for (int i = 0; i < family_count; ++i) EXPECT_EQ(family_from_key(family_key(static_cast<Family>(i))), static_cast<Family>(i));
}

TEST(Library, RunsGrowFromSizeToSize) {
    for (const BlankStyle& s : starting_library().styles)
        for (std::size_t i = 1; i < s.sizes.size(); ++i)
            for (const Measure m : {main_measure(s.family), length_measure(s.family)}) {
                if (s.family == Family::tag) continue;  // its sizes are shapes
                EXPECT_GE(measure_mm(s.chart.at(s.sizes[i]), m), measure_mm(s.chart.at(s.sizes[i - 1]), m)) << s.name << s.sizes[i];
            }
}

TEST(Panel, IsOnePieceAndTheSameOnBothSidesOfItsCentreLine) {
    on_every_panel([](const BlankStyle& style, const Measures&, const Panel& p) {
        ASSERT_EQ(p.outline.size(), 1u);
        const Rect box = bounds(p.outline);
        EXPECT_NEAR(box.x0, -box.x1, 1e-3);
        EXPECT_GT(area(p.outline), 100);
        const bool hoisted = style.family == Family::flag || style.family == Family::pennant;  // grommets on one side only
        if (!hoisted)
            EXPECT_NEAR(area(intersect(p.outline, box_region({0, box.y0, box.x1, box.y1}))), area(p.outline) / 2,
                        1 + area(p.outline) * 1e-4);
        EXPECT_GT(p.width, 0);
        EXPECT_GT(p.length, 0);
        EXPECT_LT(p.top_y, p.bottom_y);
        // edges run downwards and lie on both sides
        ASSERT_GE(p.right_edge.size(), 2u);
        const double y = (p.pit_y.value_or(p.right_edge.front().y) + p.right_edge.back().y) / 2;
        EXPECT_GT(right_edge_x(p, y), 0);
        EXPECT_LT(left_edge_x(p, y), 0);
    });
}

TEST(Panel, WhatIsMadeTheOtherWayRoundIsItsMirrorImage) {
    int seen = 0;
    for (BlankStyle style : starting_library().styles) {
        if (!has_sides(style.family)) continue;
        for (const Face face : family_faces(style.family)) {
            const std::string& size = style.sizes.back();
            style.other_side = false;
            const Panel as_usual = panel_of(style, size, face);
            style.other_side = true;
            const Panel other = panel_of(style, size, face);
            const bool hoist = style.family == Family::flag || style.family == Family::pennant;
            const Affine mirror = hoist ? Affine::scale(-1, 1) : Affine::shift(0, as_usual.bottom_y).after(Affine::scale(1, -1));
            const auto apart = [&](const Region& a, const Region& b) {
                const Region m = mapped(a, mirror);
                return area(subtract(m, b)) + area(subtract(b, m));
            };
            EXPECT_LT(apart(as_usual.outline, other.outline), 0.5) << style.name;
            ASSERT_EQ(as_usual.features.size(), other.features.size());
            for (std::size_t i = 0; i < other.features.size(); ++i) {
                const Feature& f = as_usual.features[i];
                if (f.kind != Feature::Kind::raised) continue;
                ++seen;
                EXPECT_TRUE(std::any_of(other.features.begin(), other.features.end(),
                                        [&](const Feature& o) { return o.name == f.name && apart(f.place, o.place) < 0.5; }))
                    << style.name << " " << f.name;
            }
        }
    }
    EXPECT_GT(seen, 4);
}

TEST(Panel, EveryLocationHasSomewhereClearToBeginWith) {
    for (const BlankStyle& style : starting_library().styles)
        for (const Location l : locations_of(style)) {
            const std::string size = sample_size(style);
            const Panel p = panel_of(style, size, location_face(l));
            SCOPED_TRACE(style.name + " " + location_name(l));
            EXPECT_EQ(location_from_key(location_key(l)), l);
            const auto faces = family_faces(style.family);
            EXPECT_TRUE(std::find(faces.begin(), faces.end(), location_face(l)) != faces.end());
            // a grid over the panel finds a free spot on the anchor's upright
            const ClearArea area = clear_area(l, p);
            bool free = false;
            for (double y = p.top_y; y < p.bottom_y && !free; y += (p.bottom_y - p.top_y) / 60) {
                const Point at{anchor_x(l, p), y};
                bool hit = false;
                for (const Obstacle& o : area) {
                    int rings = 0;
                    for (const Ring& r : o.grown) rings += inside(r, at) ? 1 : 0;
                    hit = hit || rings % 2 == 1;
                }
                free = !hit;
            }
            // a full zip leaves no middle, and an apron's pocket may fill it: all else does
            if (style.family != Family::zip_hooded_fleece) EXPECT_TRUE(free);
        }
}

TEST(Panel, UpperBodiesReachTheLandmarksThatTheirMeasuresName) {
    on_every_panel([](const BlankStyle& style, const Measures& m, const Panel& g) {
        if (family_build(style.family) != Build::upper_body || (g.face != Face::front && g.face != Face::back)) return;
        const auto mm = [&](Measure which) { return measure_mm(m, which); };
        EXPECT_DOUBLE_EQ(*g.pit_y, mm(Measure::armhole_depth));
        EXPECT_DOUBLE_EQ(g.bottom_y, mm(Measure::body_length));
        EXPECT_DOUBLE_EQ(g.top_y, mm(g.face == Face::front ? Measure::front_neck_drop : Measure::back_neck_drop));
        EXPECT_DOUBLE_EQ(g.hps.x, mm(Measure::neck_width) / 2);
        EXPECT_DOUBLE_EQ(g.shoulder_point.x, mm(Measure::across_shoulder) / 2);
        EXPECT_NEAR(right_edge_x(g, *g.pit_y), mm(Measure::chest) / 2, 1e-6);
        EXPECT_NEAR(bounds(g.outline).y1, mm(Measure::body_length), 0.5);
        // just inside the side seam there is cloth
        const double y = *g.pit_y + (g.right_edge.back().y - *g.pit_y) * 0.55;
        EXPECT_TRUE(inside(g.outline, {right_edge_x(g, y) - 2, y}));
    });
}

TEST(Panel, ATaperedWallUnrollsToTheSectorThatGeometryGives) {
    BlankStyle style;
    for (const BlankStyle& s : starting_library().styles)
        if (s.id == "tapered-glass") style = s;
    // by hand: D = 88, d = 61, h = 148: s = √(148² + 13.5²) = 148.614, R = s·D/(D − d) = 484.374, angle = π·D/R = 0.570760
    const Panel p = panel_of(style, "500 ml", Face::wrap);
    EXPECT_NEAR(p.length, 148.614, 1e-3);
    const double R = 484.374, angle = 0.570760;
    EXPECT_NEAR(bounds(p.outline).width(), 2 * R * std::sin(angle / 2), 0.01);
    EXPECT_NEAR(area(p.outline), angle / 2 * (R * R - (R - 148.614) * (R - 148.614)), area(p.outline) * 2e-4);
    // the printable band keeps off rim and base: a point just inside each is free, just outside is not
    const ClearArea area = clear_area(Location::wrap_full, p);
    const auto blocked = [&](Point at) {
        for (const Obstacle& o : area) {
            int rings = 0;
            for (const Ring& r : o.grown) rings += inside(r, at) ? 1 : 0;
            if (rings % 2 == 1) return true;
        }
        return false;
    };
    EXPECT_TRUE(blocked({0, 13.9}));
    EXPECT_FALSE(blocked({0, 14.1}));
    EXPECT_FALSE(blocked({0, 148.614 - 10.1}));
    EXPECT_TRUE(blocked({0, 148.614 - 9.9}));
    // off the middle the rim bends away with the radius
    const double t = angle * 0.4;
    EXPECT_TRUE(blocked(Point{(R - 13.5) * std::sin(t), R - (R - 13.5) * std::cos(t)}));
    EXPECT_FALSE(blocked(Point{(R - 14.5) * std::sin(t), R - (R - 14.5) * std::cos(t)}));
}

TEST(Panel, ATapeLineIsAsLongAsItsFigure) {
    for (const BlankStyle& style : starting_library().styles)
        for (const std::string& size : style.sizes) {
            std::set<Measure> seen;
            for (const Face face : family_faces(style.family))
                for (const TapeLine& t : panel_of(style, size, face).tapes) {
                    seen.insert(t.measure);
                    const double figure = measure_mm(style.chart.at(size), t.measure);
                    EXPECT_NEAR(norm(t.to - t.from), figure * t.share, 1e-6) << style.name << size << measure_name(t.measure);
                }
            for (const Measure m : family_measures(style.family))
                if (measure_mm(style.chart.at(size), m) > 0) EXPECT_TRUE(seen.contains(m)) << style.name << measure_name(m);
        }
}

TEST(Panel, ChangingAMeasureReshapesIt) {
    const BlankStyle& style = starting_library().styles.front();
    const std::string size = style.sizes.front();
    const double before = measure_mm(style.chart.at(size), Measure::chest);
    const BlankStyle wider = with_reading(style, size, Measure::chest, Length::from_mm(before + 40), "2026-11-25");
    const Panel g = panel_of(wider, size, Face::front);
    EXPECT_NEAR(right_edge_x(g, *g.pit_y), before / 2 + 20, 1e-6);
    // a curved hem rises at the sides and stays at the middle
    const BlankStyle tunic = with_published(style, size, Measure::hem_curve, Length::from_mm(90));
    const Panel curved = panel_of(tunic, size, Face::front);
    EXPECT_NEAR(curved.right_edge.back().y, curved.bottom_y - 90, 1e-9);
    EXPECT_TRUE(inside(curved.outline, {0, curved.bottom_y - 1}));
    EXPECT_FALSE(inside(curved.outline, {curved.right_edge.back().x - 2, curved.bottom_y - 60}));
}

TEST(Panel, FleeceHasAPouchInFrontAndAHoodBehind) {
    for (const BlankStyle& style : starting_library().styles) {
        if (style.family != Family::hooded_fleece) continue;
        const Measures& m = style.chart.at("L");
        const auto find = [](const Panel& g, const std::string& name) -> const Feature* {
            for (const Feature& f : g.features)
                if (f.name == name) return &f;
            return nullptr;
        };
        const Panel front = panel_of(style, "L", Face::front), back = panel_of(style, "L", Face::back);
        ASSERT_NE(find(front, "pouch seam"), nullptr);
        EXPECT_EQ(find(back, "pouch seam"), nullptr);
        ASSERT_NE(find(back, "hood"), nullptr);
        EXPECT_EQ(find(back, "hood")->kind, Feature::Kind::cover);
        EXPECT_NEAR(bounds(find(front, "pouch seam")->place).y0, measure_mm(m, Measure::pouch_top), 1e-6);
        EXPECT_NEAR(bounds(find(front, "pouch seam")->place).width(), measure_mm(m, Measure::pouch_width), 1e-6);
    }
}

TEST(Panel, AFeatureFollowsTheSizeFromItsSampleSize) {
    BlankStyle style = starting_library().styles.front();
    style.sample_size = "M";
    StyleFeature pocket = usual_feature(FeatureKind::pocket, Face::front, 500, 700, true);
    pocket.across = Length::from_mm(100);
    pocket.down = Length::from_mm(200);
    pocket.width = Length::from_mm(110);
    pocket.height = Length::from_mm(120);
    style.features = {pocket};
    for (const double growth : {0.0, 1.0}) {
        style.features[0].growth = growth;
        for (const std::string& size : style.sizes) {
            const Panel p = panel_of(style, size, Face::front), sample = panel_of(style, "M", Face::front);
            const double kx = p.width / sample.width, ky = p.length / sample.length;
            const auto at = std::find_if(p.features.begin(), p.features.end(), [](const Feature& f) { return f.name == "pocket"; });
            ASSERT_NE(at, p.features.end());
            const Rect r = bounds(at->place);
            EXPECT_NEAR(r.centre().x, 100 * kx, 1e-3);
            EXPECT_NEAR(r.y0, 200 * ky, 1e-3);
            EXPECT_NEAR(r.width(), 110 * std::pow(kx, growth), 1e-3);
            EXPECT_NEAR(find_landmark(p, "pocket top")->at, 200 * ky, 1e-9);
        }
        EXPECT_TRUE(panel_of(style, "M", Face::back).features.size() + 1 < panel_of(style, "M", Face::front).features.size() + 2);
    }
    const auto places = locations_of(style);
    EXPECT_TRUE(std::find(places.begin(), places.end(), Location::pocket) != places.end());
}

BlankStyle tee() {
    for (const BlankStyle& s : starting_library().styles)
        if (s.family == Family::adult_tee) return s;
    return {};
}

TEST(Measuring, GradesBetweenTwoTapedSizesByThePublishedProportion) {
    const BlankStyle style = tee();
    const auto published = [&](const char* size) { return measure_mm(style.chart.at(size), Measure::sleeve_length); };
    BlankStyle taped = with_reading(style, "S", Measure::sleeve_length, Length::from_mm(published("S") + 4), "2026-11-25");
    taped = with_reading(taped, "S", Measure::sleeve_length, Length::from_mm(published("S") + 8), "2026-11-25");
    taped = with_reading(taped, "XL", Measure::sleeve_length, Length::from_mm(published("XL") - 3), "2026-11-25");
    for (const char* size : {"M", "L"}) {
        const Figure& f = taped.chart.at(size).at(Measure::sleeve_length);
        EXPECT_EQ(f.source, Source::graded);
        // by hand: the same share of the way between the two taped figures as between the published ones
        const double t = (published(size) - published("S")) / (published("XL") - published("S"));
        EXPECT_NEAR(f.value.mm(), published("S") + 6 + t * (published("XL") - 3 - published("S") - 6), 1e-9);
        EXPECT_NEAR(f.published->mm(), published(size), 1e-9);
    }
    EXPECT_EQ(taped.chart.at("2XL").at(Measure::sleeve_length).source, Source::published);
    const Figure& two = taped.chart.at("S").at(Measure::sleeve_length);
    EXPECT_EQ(two.readings.size(), 2u);
    EXPECT_NEAR(two.value.mm(), published("S") + 6, 1e-9) << "the mean of 4 and 8 above";
    EXPECT_NEAR(spread(two).mm(), 4, 1e-9);
    // taking one back undoes the grading as well
    const BlankStyle back = with_readings(with_readings(taped, "S", Measure::sleeve_length, {}, ""), "XL", Measure::sleeve_length, {}, "");
    for (const std::string& size : style.sizes)
        EXPECT_EQ(back.chart.at(size).at(Measure::sleeve_length).value, style.chart.at(size).at(Measure::sleeve_length).value) << size;
}

TEST(Measuring, RefusesFiguresThatContradictEachOther) {
    BlankStyle style = tee();
    style.chart["L"][Measure::neck_width].value = Length::from_mm(900);
    ASSERT_TRUE(style_fault(style));
    EXPECT_NE(style_fault(style)->sentence.find("contradict"), std::string::npos);
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
    const Panel g = panel_of(style, "M", Face::front);
    EXPECT_GT(anchor_x(Location::left_chest, g), 0);
    EXPECT_EQ(anchor_x(Location::right_chest, g), -anchor_x(Location::left_chest, g));
    EXPECT_EQ(anchor_x(Location::full_front, g), 0);
    for (int i = 0; i < location_count; ++i) {
        const std::string name = location_name(static_cast<Location>(i)), key = location_key(static_cast<Location>(i));
        if (key.rfind("left", 0) == 0 || key == "cap_left") EXPECT_NE(name.find("wearer's left"), std::string::npos) << name;
        if (key.rfind("right", 0) == 0 || key == "cap_right") EXPECT_NE(name.find("wearer's right"), std::string::npos) << name;
    }
}

TEST(Location, ClashesNameWhatIsTooClose) {
    const BlankStyle style = tee();
    const Panel g = panel_of(style, "M", Face::front);
    const auto with = [&](Location l, const Rect& ink) {
        std::set<std::string> out;
        for (const Clash& c : clashes(clear_area(l, g), box_region(ink))) out.insert(c.with);
        return out;
    };
    const double y = *g.pit_y + 20;
    EXPECT_TRUE(with(Location::full_front, {-100, y, 100, y + 200}).empty());
    EXPECT_TRUE(with(Location::full_front, {-g.width / 2, y, g.width / 2, y + 50}).contains("side seam"));
    EXPECT_TRUE(with(Location::full_front, {-50, g.top_y + 2, 50, y}).contains("collar seam"));
    EXPECT_TRUE(with(Location::full_front, {-50, y, 50, g.bottom_y - 5}).contains("hem"));
    EXPECT_TRUE(with(Location::left_chest, {2, y, 60, y + 50}).contains("centre line"));
    EXPECT_FALSE(with(Location::full_front, {2, y, 60, y + 50}).contains("centre line"));
}

TEST(Location, AClashSaysByHowMuchAndWhetherItLiesOver) {
    const BlankStyle style = tee();
    const Panel g = panel_of(style, "M", Face::front);
    const double y0 = *g.pit_y + 40, y1 = y0 + 60;
    const double edge = std::min(right_edge_x(g, y0), right_edge_x(g, y1));
    for (const double reach : {edge - 20, edge - 5, edge + 10}) {
        Clash said;
        for (const Clash& c : clashes(clear_area(Location::full_front, g), box_region({-reach, y0, reach, y1})))
            if (c.with == "side seam") said = c;
        EXPECT_NEAR(said.short_by, reach + 25 - edge, 0.05);  // 25 mm is the clearance of full locations
        EXPECT_EQ(said.over, reach > edge);
    }
}

}  // namespace TESTED
}  // namespace orthema
