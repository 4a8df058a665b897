// Making pieces: layers, parts, wraps, backs and jigs, through to what is printed.
#include <gtest/gtest.h>

#include "core/guides/handle_template.h"
#include "core/sheets/sheet_drawing.h"
#include "core/transfers/choices.h"
#include "core/transfers/making_drawing.h"
#include "files/library.h"
#include "files/order_file.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

struct Shop {
    Order order = test::small_order();
    ArtFactsById facts;
    FitPlan plan;
    TransferSet set;
    Shop() { adopt_library(order, starting_library()); }
    Decoration& d() { return order.decorations[0]; }
    void make() {
        facts = facts_of(load_all_art(order, test::small_art(), nullptr));
        plan = fit(order, facts);
        set = transfers(order, plan, facts);
    }
    /// One decoration on some blank of the library.
    void put(const char* style, const char* size, int quantity, Location location, const char* medium, const char* press) {
        order.lines = {{style, find_style(order, style)->colours[0].name, size, quantity, {}}};
        Decoration one = new_decoration(order, runs_of(order)[0], location, order.art[0]);
        one.id = "one";
        one.medium = medium;
        one.press = press;
        order.decorations = {one};
    }
    [[nodiscard]] bool says(const std::string& code) const {
        return std::any_of(set.findings.begin(), set.findings.end(), [&](const Finding& f) { return f.code == code; });
    }
};

TEST(Making, ALayerIsItsOwnPieceOnItsOwnMediumWithSharedMarks) {
    Shop s;
    s.d() = with_medium(s.order, s.d(), "vinyl-navy");
    s.d() = with_backing(s.order, s.d(), Length::from_mm(1.5));
    s.d().sizing.school = SizingSchool::one_size;
    s.make();
    ASSERT_EQ(s.set.transfers.size(), 2u);
    const Transfer &cut = s.set.transfers[0], &backing = s.set.transfers[1];
    EXPECT_EQ(cut.medium, "vinyl-navy");
    EXPECT_EQ(backing.medium, "vinyl-white");
    EXPECT_EQ(cut.count(), backing.count());
    EXPECT_FALSE(cut.printed);
    // the backing reaches 1.5 mm past the cut layer, but for the shrinking that both are cut larger by
    EXPECT_GT(area(backing.shape), area(cut.shape));
    EXPECT_NEAR(bounds(backing.shape).width() - bounds(cut.shape).width(), 3 * shrink_factor(0.5), 0.1);
    // the two marks lie at the same places of the design in both layers
    const auto marks = [](const Transfer& t) {
        std::vector<Point> out;
        for (const Polygon& p : t.cut)
            if (bounds(p.outer).width() < 3.2) out.push_back(bounds(p.outer).centre() - Point{t.ink.x0, t.ink.y0});
        return out;
    };
    ASSERT_EQ(marks(cut).size(), 2u);
    ASSERT_EQ(marks(backing).size(), 2u);
    for (const std::size_t i : {0u, 1u}) EXPECT_LT(norm(marks(cut)[i] - marks(backing)[i]), 1e-3);
    for (const Transfer* t : {&cut, &backing})
        for (const Polygon& p : t->cut)
            for (const Point& q : p.outer) EXPECT_TRUE(inside(t->contour, q)) << "the sheet holds all that is cut";
}

TEST(Making, WhatMustReachPastTheInkSaysWhenItDoesNot) {
    Shop s;
    s.d() = with_medium(s.order, s.d(), "dark-letter");
    s.d().sizing.school = SizingSchool::one_size;
    s.d().making.layers = find_method(s.order, "two-part paper, dark")->layers;
    s.make();
    EXPECT_FALSE(s.says("layer-short"));
    EXPECT_TRUE(s.says("layers-married"));
    s.d().making.layers[1].grow = Length::from_mm(-1.2);
    s.make();
    EXPECT_TRUE(s.says("layer-short"));
    EXPECT_FALSE(s.says("layers-married"));
    for (const Finding& f : s.set.findings)
        if (f.code == "layer-short") EXPECT_NE(finding_text(f, Unit::mm).find("1.2"), std::string::npos) << finding_text(f, Unit::mm);

    s.d() = with_medium(s.order, s.d(), "foil-copper");
    s.d().making.layers = find_method(s.order, "foil over adhesive")->layers;
    s.make();
    EXPECT_FALSE(s.says("foil-short"));
    s.d().making.layers[1].grow = Length::from_mm(1);
    s.make();
    EXPECT_TRUE(s.says("foil-short"));
}

TEST(Making, FoilIsShownOnlyWhereSomethingHoldsIt) {
    Shop s;
    s.make();
    MakeInput in;
    in.art = "corner";
    in.width = 120;
    in.method = *find_method(s.order, "foil over print");
    in.making.layers = in.method.layers;
    in.medium = *find_medium(s.order, "foil-copper");
    for (const Layer& l : in.making.layers) in.layer_media.push_back(*find_medium(s.order, l.medium));
    const Made made = make(in, s.facts.at("corner"));
    ASSERT_EQ(made.layers.size(), 2U);
    EXPECT_GT(area(made.layers[0]), area(made.layers[1]) + 100) << "it is cut past the print";
    Drawing d;
    draw_pressed(d, made, {0.1, 0.1, 0.1, 1}, Affine{}, 0.1, Unit::mm);
    Region foil;
    for (const Mark& m : d.marks)
        if (const auto* p = std::get_if<PathMark>(&m); p != nullptr && p->fill == in.making.layers[0].tint)
            for (const Ring& r : p->rings) foil.push_back({r, {}});
    EXPECT_NEAR(area(foil), area(made.layers[1]), 1);
}

TEST(Making, WhatIsCutLargerForShrinkingStillFitsTheCutter) {
    Shop s;
    s.d() = with_medium(s.order, s.d(), "vinyl-navy");
    s.d().sizing.base_width = Length::from_mm(280);
    for (Medium& m : s.order.media)
        if (m.id == "vinyl-navy") m.cut_width = m.cut_length = Length::from_mm(180);
    for (Method& m : s.order.methods) m.shrink = 8;
    s.make();
    ASSERT_FALSE(s.set.transfers.empty());
    double widest = 0;
    for (const Transfer& t : s.set.transfers) {
        const Rect box = bounds(t.cut);
        widest = std::max({widest, box.width(), box.height()});
    }
    EXPECT_LE(widest, 180);
    EXPECT_GT(widest, 165) << "and uses it, but for the rounding";
}

TEST(Making, AnOversizeDesignComesInPartsThatFitTheMedium) {
    Shop s;
    s.d().medium = "film-330";
    s.d().press = "press-square";
    s.d().sizing.school = SizingSchool::one_size;
    s.d().sizing.base_width = Length::from_mm(420);
    for (const char* size : {"S", "M", "L", "XL", "2XL", "3XL"}) s.d().pins.push_back({size, Length::from_mm(500), {}, {}});
    s.make();
    EXPECT_EQ(s.set.transfers.size(), 1u);
    s.d().making.split = true;
    s.make();
    ASSERT_GE(s.set.transfers.size(), 2u);
    const Medium& film = *find_medium(s.order, "film-330");
    for (const Transfer& t : s.set.transfers) {
        const Rect box = bounds(t.contour.outer);
        EXPECT_LE(std::min(box.width(), box.height()), film.width.mm() - 2 * film.margin.mm() + 0.5);
        EXPECT_NE(t.piece.find("part "), std::string::npos);
    }
    // together they hold all the ink, and only the lap twice
    ASSERT_TRUE(s.set.makings[0].made->split);
    Region all;
    for (const Piece& p : s.set.makings[0].made->pieces) all = unite(all, p.shape);
    EXPECT_NEAR(area(all), area(mapped(s.facts.begin()->second.outline, Affine::scale(500, 500))), 1);
}

TEST(Making, AWrapsSheetIsItsWallAndItsPictureStaysOnIt) {
    for (const auto& [style, size] : {std::pair{"tapered-bottle", "500 ml"}, std::pair{"enamel-mug", "350 ml"}}) {
        Shop s;
        s.put(style, size, 8, Location::wrap_full, "sublimation-a3", "press-wrap");
        s.make();
        ASSERT_EQ(s.set.transfers.size(), 1u) << style;
        const Transfer& t = s.set.transfers[0];
        const BlankStyle& blank = *find_style(s.order, style);
        const CupWall wall = *wall_of(blank.family, blank.chart.at(size));
        const double share = 1 - measure_mm(blank.chart.at(size), Measure::handle_gap) / wall.middle_circumference();
        // the wall's own sheet, and a tab past the rim for its tick and TOP
        const double past_rim = area(Region{t.contour}) - wall.middle_circumference() * wall.slant() * share;
        EXPECT_GT(past_rim, 22 * 9 - 30);
        EXPECT_LT(past_rim, 22 * 9 + 20);
        EXPECT_TRUE(t.mirrored);
        for (const Polygon& p : t.shape)
            for (const Point& q : p.outer)
                EXPECT_TRUE(inside(Region{t.contour}, q) ||
                            distance({t.contour}, {Polygon{{q, q + Point{1e-6, 0}, q + Point{0, 1e-6}}, {}}}) < 0.05);
        EXPECT_EQ(handle_template(blank, size, "t", {}).has_value(), share < 1);
    }
}

TEST(Making, AStackWithItsGrowthAndMarksStaysWithinTheCuttersArea) {
    std::mt19937 random(14);
    std::uniform_real_distribution<double> area_of(180, 320), grow(0, 8);
    for (int round = 0; round < 8; ++round) {
        Shop s;
        s.d() = with_backing(s.order, with_medium(s.order, s.d(), "vinyl-navy"), Length::from_mm(grow(random)));
        s.d().sizing.school = SizingSchool::one_size;
        s.d().sizing.step = Length::from_mm(0);
        s.d().sizing.base_width = Length::from_mm(450);
        s.d().sizing.past_platen = true;
        const double across = area_of(random), along = area_of(random);
        for (Medium& m : s.order.media.own())
            if (m.method == "cut vinyl") {
                m.cut_width = Length::from_mm(across);
                m.cut_length = Length::from_mm(along);
            }
        s.make();
        ASSERT_GE(s.set.transfers.size(), 2U);
        for (const Transfer& t : s.set.transfers) {
            const Rect box = bounds(t.contour.outer);
            const double small = std::min(box.width(), box.height()), large = std::max(box.width(), box.height());
            EXPECT_LE(small, std::min(across, along) + 0.1) << t.name;
            EXPECT_LE(large, std::max(across, along) + 0.1) << t.name;
        }
    }
}

/// A picture that fills its box, on a wall without a handle.
struct Wrap : Shop {
    ArtFacts photo;
    Wrap() {
        put("straight-tumbler", find_style(order, "straight-tumbler")->sizes[0].c_str(), 4, Location::wrap_full, "sublimation-a3",
            "press-wrap");
        d().sizing.step = Length::from_mm(5);
        photo.width_px = photo.height_px = 4000;
        photo.aspect = 0.4;
        photo.ink_px = {0, 0, 4000, 1600};
        photo.outline = {Polygon{{{0, 0}, {1, 0}, {1, 0.4}, {0, 0.4}}, {}}};
    }
    void tape(double around) {
        for (BlankStyle& s : order.styles)
            if (s.id == "straight-tumbler")
                for (auto& [size, measures] : s.chart) measures.at(Measure::circumference).value = Length::from_mm(around);
    }
    DecorationFit fitted() { return fit_decoration(order, d(), photo).value(); }
};

TEST(Making, APictureRightRoundMeetsItselfWhateverTheWallWasTapedAt) {
    std::mt19937 random(3);
    std::uniform_real_distribution<double> taped(225, 250), lap(-2, 6);
    for (int round = 0; round < 12; ++round) {
        Wrap w;
        const double around = taped(random);
        w.tape(around);
        w.d().making.cover = true;
        w.d().making.wrap_join = round % 2 == 0 ? Join::butt : Join::lap;
        w.d().making.wrap_lap = Length::from_mm(round % 2 == 0 ? 0 : std::abs(lap(random)));
        w.d().making.seam_at = Length::from_mm(20 * lap(random));
        const DecorationFit fit = w.fitted();
        EXPECT_TRUE(fit.findings.empty() || fit.findings.front().code != "wrap-bare");
        const FitPlan plan{{fit}, {}};
        const TransferSet set = transfers(w.order, plan, {{w.d().art, w.photo}});
        ASSERT_EQ(set.transfers.size(), 1u);
        const Piece& p = set.makings[0].made->pieces[0];
        const Rect ink = bounds(p.shape), sheet = bounds(p.contour.outer);
        EXPECT_NEAR(ink.width(), sheet.width(), 1e-6) << "ink from end to end of the sheet";
        EXPECT_NEAR(area(p.shape), ink.width() * ink.height(), 0.5) << "and no bare line within it";
        EXPECT_GE(ink.width(), around - 0.01);
    }
}

TEST(Making, AnEndThatStaysBareIsSaidWithItsFigure) {
    Wrap w;
    w.d().sizing.step = Length::from_mm(1);
    w.d().sizing.base_width = Length::from_mm(236);
    w.tape(236);
    const auto bare = [&] {
        Findings out;
        for (const Finding& f : w.fitted().findings)
            if (f.code == "wrap-bare") out.push_back(f);
        return out;
    };
    EXPECT_TRUE(bare().empty());
    w.tape(238.5);
    ASSERT_EQ(bare().size(), 1u);
    EXPECT_EQ(bare()[0].severity, Severity::stop);
    EXPECT_NEAR(figure_of(bare()[0], "gap"), 2.5, 1e-9);
    w.d().sizing.base_width = Length::from_mm(150);
    EXPECT_TRUE(bare().empty()) << "a motif is not meant to meet itself";
}

TEST(Making, APieceForAWallCarriesItsTickAndTopPastTheRim) {
    for (const char* blank : {"enamel-mug", "tapered-bottle"}) {
        Shop s;
        s.put(blank, find_style(s.order, blank)->sizes[0].c_str(), 2, Location::wrap_front, "sublimation-a3", "press-wrap");
        s.make();
        ASSERT_EQ(s.set.transfers.size(), 1u);
        const Made& made = *s.set.makings[0].made;
        const Piece& p = made.pieces[0];
        int tops = 0;
        for (const Mark& m : p.picture)
            if (const auto* t = std::get_if<TextMark>(&m); t != nullptr && t->text == "TOP") {
                ++tops;
                EXPECT_LT(made.sector->unbent(t->at).y, 0) << "off the wall, or it would be pressed on";
                EXPECT_TRUE(inside({p.contour}, t->at));
            }
        EXPECT_EQ(tops, 1) << blank;
    }
}

TEST(Making, ATwoSidedFlagFoldsOnToItselfHolesAndAll) {
    Shop s;
    s.put("camp-flag", "small", 5, Location::whole_front, "film-559", "press-large");
    s.d().making.two_sided = true;
    s.make();
    ASSERT_EQ(s.set.transfers.size(), 1u);
    EXPECT_FALSE(s.says("back-differs"));
    const Made& made = *s.set.makings[0].made;
    const Panel front = panel_of(*find_style(s.order, "camp-flag"), "small", Face::front);
    const double fold = bounds(front.outline).x1 + 20;
    // what the sheet holds, folded over, covers itself
    EXPECT_LT(fold_difference(made.pieces[0].shape, made.pieces[0].shape, fold), 0.5);
    EXPECT_GT(area(made.pieces[0].shape),
              1.99 * area(mapped(s.facts.begin()->second.outline, Affine::scale(made.input.width, made.input.width))));
    // a back whose grommets sit on the other side does not
    EXPECT_GT(fold_difference(front.outline, front.outline, 0), 20) << "its grommets are on one side";
}

TEST(Making, EveryFrontOfAJigMeetsItsOwnBack) {
    for (const int columns : {1, 2, 5}) {
        Shop s;
        s.put("metal-tag", "round 32", 23, Location::whole_front, "sublimation-a3", "press-small");
        Decoration back = s.d();
        back.id = "two";
        back.location = Location::whole_back;
        s.order.decorations.push_back(back);
        for (Decoration& d : s.order.decorations) d.making.jig = "jig-tags-round";
        for (Jig& j : s.order.jigs) j.columns = columns;
        s.make();
        const Jig& jig = *find_jig(s.order, "jig-tags-round");
        ASSERT_FALSE(s.set.jigs.empty());
        int filled = 0;
        for (const JigSheet& sheet : s.set.jigs) {
            const auto pairs = folded_pairs(jig, sheet);
            for (std::size_t i = 0; i < pairs.size(); ++i) {
                EXPECT_EQ(pairs[i], static_cast<int>(i));
                EXPECT_EQ(sheet.front[i].decoration.empty(), sheet.back[i].decoration.empty());
                filled += sheet.front[i].decoration.empty() ? 0 : sheet.count;
            }
            // by the ink itself: fold the fronts over and each meets ink of a back
            const Region ink = sheet.piece.shape;
            Region left, right;
            for (const Polygon& p : ink) (bounds(p.outer).centre().x < sheet.fold ? left : right).push_back(p);
            const Region folded = mapped(left, Affine{-1, 0, 0, 1, 2 * sheet.fold, 0});
            for (const Polygon& p : folded) {
                bool met = false;
                for (const Polygon& q : right) met = met || norm(bounds(p.outer).centre() - bounds(q.outer).centre()) < 12;
                EXPECT_TRUE(met);
            }
        }
        EXPECT_EQ(filled, 23) << "every tag has a slot";
        EXPECT_EQ(s.set.transfers.back().mirrored, true);
    }
}

TEST(Making, ABoardIsDrawnWhileItsJigAndBlankAreEdited) {
    Shop s;
    s.put("metal-tag", "round 32", 9, Location::whole_front, "sublimation-a3", "press-small");
    s.d().making.jig = "jig-tags-round";
    s.make();
    ASSERT_FALSE(s.set.jigs.empty());
    // the sheet is still that of before: more slots than it has, and a size that is gone
    Order next = s.order;
    for (Jig& j : next.jigs) j.columns += 3;
    for (const bool without_size : {false, true}) {
        if (without_size)
            for (BlankStyle& b : next.styles) b.chart.erase("round 32");
        for (const bool back : {false, true}) {
            Drawing d;
            draw_board_pressed(d, next, s.plan, s.set.jigs[0], back, Affine{}, 0.3);
            EXPECT_FALSE(d.marks.empty());
        }
    }
}

TEST(Making, ASlotHasItsOwnEdgeOrThatOfItsBlankTurnedOverAtTheBack) {
    Jig jig;
    EXPECT_TRUE(slot_edge(jig, nullptr, {0, 0}).empty()) << "neither is known";
    Panel tag;  // 40 × 60 with its top right corner cut off by 10 mm
    tag.outline = {{{{0, 0}, {30, 0}, {40, 10}, {40, 60}, {0, 60}}, {}}};
    const auto front = slot_edge(jig, &tag, {100, 50}), back = slot_edge(jig, &tag, {100, 50}, true);
    const Polygon at_front{front.at(0), {}}, at_back{back.at(0), {}};
    EXPECT_NEAR(area(at_front), 2350, 1e-9);
    EXPECT_NEAR(area(at_back), 2350, 1e-9);
    const Rect box = bounds(at_front.outer);
    EXPECT_NEAR(box.x0, 80, 1e-9);
    EXPECT_NEAR(box.y1, 80, 1e-9);
    EXPECT_FALSE(inside(at_front, {119, 21})) << "the cut corner";
    EXPECT_TRUE(inside(at_front, {81, 21}));
    EXPECT_TRUE(inside(at_back, {119, 21}));
    EXPECT_FALSE(inside(at_back, {81, 21})) << "it faces the other way";
    jig.slot_width = Length::from_mm(44);
    jig.slot_height = Length::from_mm(64);
    jig.slot_corner = Length::from_mm(4);
    const Polygon own{slot_edge(jig, &tag, {100, 50}).at(0), {}};
    EXPECT_NEAR(bounds(own.outer).width(), 44, 1e-6);
    EXPECT_NEAR(area(own), 44 * 64 - (4 - M_PI) * 16, 1) << "four round corners";
}

TEST(Making, AJigThatCannotBeIsASentence) {
    Shop s;
    s.put("metal-tag", "round 32", 4, Location::whole_front, "sublimation-a3", "press-small");
    s.d().making.jig = "jig-tags-round";
    for (Jig& j : s.order.jigs) j.backer_width = Length::from_mm(120);
    s.make();
    EXPECT_TRUE(s.says("jig-impossible"));
    EXPECT_TRUE(s.set.transfers.empty());
    Jig tight = starting_library().jigs[0];
    tight.pitch_x = Length::from_mm(20);
    EXPECT_EQ(jig_fault(tight, 32, 32)->code, "jig-overlap");
    tight.slot_width = tight.slot_height = Length::from_mm(10);
    EXPECT_NE(worded(*jig_fault(tight, 32, 32), Unit::inch).find("smaller than the blank (1.26 in"), std::string::npos)
        << "in the reader's unit";
    EXPECT_FALSE(jig_fault(starting_library().jigs[0], 32, 32));
}

TEST(Making, ACoveredBlankIsSizedToCoverItAndTheProofSaysBy) {
    Shop s;
    s.put("round-coaster", "OS", 6, Location::whole_front, "sublimation-a3", "press-small");
    s.order.art[0].clip = std::nullopt;
    s.d().making.cover = true;
    s.d().making.bleed = Length::from_mm(4);
    s.make();
    ASSERT_FALSE(s.set.makings.empty());
    const Made& made = *s.set.makings[0].made;
    const DecorationFit& fitted = s.plan.decorations[0];
    EXPECT_EQ(binding_text(fitted.sizes[0].limited_by), "covering the blank");
    // the L-shaped mark covers nothing near its notch: the proof sees it, at any size
    const Region blank = panel_of(*find_style(s.order, "round-coaster"), "OS", Face::front).outline;
    const Region ink = made.pieces[0].shape;
    bool bare = false;
    const Region within = offset(blank, -0.5);
    for (const Point& q : within[0].outer) bare = bare || !inside(ink, q);
    EXPECT_EQ(bare, made.spare < -0.4);
    EXPECT_EQ(s.says("rim-bare"), !made.bare.empty());
}

TEST(Making, WhatIsReadThroughIsMirroredOnceWhoeverDoesIt) {
    for (const Method& method : starting_library().methods)
        for (const Medium& medium : starting_library().media) {
            if (medium.method != method.id) continue;
            EXPECT_EQ(times_mirrored(medium, method) % 2, 0) << medium.name;
            Shop s;
            s.order.decorations[0] = with_medium(s.order, s.d(), medium.id);
            s.make();
            EXPECT_FALSE(s.says("mirror-parity")) << medium.name;
            // the mark is an L: its upright stroke lies on the left where it reads, on the right where it is mirrored
            for (const Transfer& t : s.set.transfers) {
                const Rect box = bounds(t.shape);
                const double left = area(intersect(t.shape, box_region({box.x0, box.y0, box.centre().x, box.y1})));
                EXPECT_EQ(left < area(t.shape) / 2, program_mirrors(*find_medium(s.order, t.medium))) << medium.name;
                Sheet sheet;
                sheet.medium = t.medium;
                sheet.width = sheet.length = 600;
                sheet.copies = {{t.id, 0, 0, 270, 100, 500, false}};  // upright on the page
                if (t.cut.empty()) continue;
                const auto cuts = cut_contours(sheet, s.set);
                Region lines;
                for (const Polygon& p : cuts)
                    if (bounds(p.outer).width() > 5) lines.push_back(p);  // without the register marks
                const Rect on_page = bounds(lines);
                const double half = area(intersect(lines, box_region({on_page.x0, on_page.y0, on_page.centre().x, on_page.y1})));
                EXPECT_EQ(half < area(lines) / 2, t.mirrored) << "the blade's lines are mirrored as the piece is, " << medium.name;
            }
            for (const Transfer& t : s.set.transfers)
                for (const Mark& m : t.picture)
                    if (const auto* art = std::get_if<ArtMark>(&m))
                        EXPECT_EQ(art->place.determinant() < 0, program_mirrors(*find_medium(s.order, t.medium)));
        }
    Shop wrong;
    for (Medium& m : wrong.order.media) m.mirror = MirrorBy::nobody;
    wrong.make();
    EXPECT_TRUE(wrong.says("mirror-parity"));
}

TEST(Making, MethodsSayWhyTheyDoNotSuit) {
    Shop s;
    s.order.lines = {{"adult-tee", "navy", "M", 5, {}}};
    s.d().run = {"adult-tee", "navy"};
    s.make();
    const auto choices = method_choices(s.order, s.d(), s.facts.begin()->second, s.plan.decorations.at(0));
    ASSERT_EQ(choices.size(), s.order.methods.size());
    for (std::size_t i = 0; i + 1 < choices.size(); ++i)
        if (choices[i + 1].against.empty()) {
            EXPECT_TRUE(choices[i].against.empty()) << "those that suit come first";
            EXPECT_LE(choices[i].cost, choices[i + 1].cost);
        }
    for (const MethodChoice& c : choices) {
        if (c.method == "sublimation") EXPECT_EQ(c.against.size(), 3u) << "cotton twice over, and dark";
        if (c.method == "direct-to-film") EXPECT_TRUE(c.against.empty());
    }
    s.d() = with_medium(s.order, s.d(), "sublimation-a3");
    s.make();
    EXPECT_TRUE(s.says("method-unsuited"));
}

TEST(Making, ATapedSeamIsKeptFree) {
    Shop s;
    s.d() = with_medium(s.order, s.d(), "sublimation-super-taped");
    s.d().sizing.school = SizingSchool::one_size;
    s.d().sizing.base_width = Length::from_mm(150);
    s.make();
    const Medium& medium = *find_medium(s.order, "sublimation-super-taped");
    const NestProblem problem = sheet_problem({medium, {}}, s.set, {});
    ASSERT_EQ(problem.seams.size(), 1u);
    NestOptions options;
    options.rounds = 2;
    const auto solution = nest(problem, options);
    ASSERT_TRUE(solution) << solution.sentence();
    for (const NestPlacement& p : solution->placements) {
        const Rect box = bounds(placed_outline(problem, p).outer);
        EXPECT_TRUE(box.x1 <= 478.5 - 8 || box.x0 >= 478.5 + 8);
    }
    EXPECT_TRUE(nest_faults(problem, solution->placements).empty());
}

TEST(Making, AnUnchangedMakingIsTakenOver) {
    Shop s;
    s.make();
    const TransferSet again = transfers(s.order, s.plan, s.facts, &s.set);
    ASSERT_EQ(again.makings.size(), s.set.makings.size());
    for (std::size_t i = 0; i < again.makings.size(); ++i) EXPECT_EQ(again.makings[i].made, s.set.makings[i].made);
    s.d().making.white = Length::from_mm(0.3);
    const TransferSet changed = transfers(s.order, s.plan, s.facts, &s.set);
    EXPECT_NE(changed.makings[0].made, s.set.makings[0].made);
    EXPECT_FALSE(changed.transfers[0].white.empty());
    EXPECT_LT(area(changed.transfers[0].white), area(changed.transfers[0].shape));
    EXPECT_EQ(area(subtract(changed.transfers[0].white, changed.transfers[0].shape)), 0);
}

}  // namespace TESTED
}  // namespace orthema
