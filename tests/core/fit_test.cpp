// Fitting: sizes, places and what binds them, against figures worked out here from the size chart.
#include "core/fitting/fit.h"

#include <cmath>

#include "core/fitting/adjust.h"
#include "core/order/edit.h"
#include "files/order_file.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

using test::ladder_order;
using test::small_order;

struct Bench {
    Order order = small_order();
    ArtFactsById facts = traced();
    static ArtFactsById traced() {
        static const ArtFactsById once = facts_of(load_all_art(small_order(), test::small_art(), nullptr));
        return once;
    }
    Decoration& d() { return order.decorations.front(); }
    [[nodiscard]] DecorationFit fitted() const { return fit(order, facts).decorations.at(0); }
    [[nodiscard]] const Measures& chart(const std::string& size) const { return find_style(order, "adult-tee")->chart.at(size); }
    [[nodiscard]] double mm(const std::string& size, Measure m) const { return measure_mm(chart(size), m); }
    [[nodiscard]] Panel panel(const std::string& size) const {
        return panel_for(*find_style(order, "adult-tee"), size, order.decorations.front().location);
    }
};

TEST(Fit, IdealWidthFollowsTheMeasureAndExponent) {
    for (const double k : {0.0, 0.5, 1.0}) {
        Bench b;
        b.d().sizing.exponent = k;
        b.d().sizing.base_size = "M";
        for (const SizeFit& s : b.fitted().sizes)
            EXPECT_NEAR(s.ideal, 200 * std::pow(b.mm(s.size, Measure::chest) / b.mm("M", Measure::chest), k), 1e-9) << s.size;
    }
}

TEST(Fit, SchoolsOfSizing) {
    Bench b;
    b.d().sizing.school = SizingSchool::one_size;
    DecorationFit f = b.fitted();
    ASSERT_EQ(f.bands.size(), 1u);
    for (const SizeFit& s : f.sizes) EXPECT_EQ(s.width, rounded_down(std::min(f.sizes[0].ideal, f.sizes[0].limit), 5));
    EXPECT_EQ(binding_text(f.sizes.back().limited_by), "smallest (S)");
    b.d().sizing.school = SizingSchool::graded;
    f = b.fitted();
    EXPECT_EQ(f.bands.size(), f.sizes.size());
    for (const SizeFit& s : f.sizes) EXPECT_NEAR(s.width, rounded_down(std::min(s.ideal, s.limit), 5), 1e-9);
    b.d().sizing.school = SizingSchool::bands;
    for (int count = 1; count <= 5; ++count) {
        b.d().sizing.band_count = count;
        EXPECT_EQ(b.fitted().bands.size(), static_cast<std::size_t>(count));
    }
    b.d().sizing.band_count = 0;
    b.d().sizing.price = 100;
    EXPECT_EQ(b.fitted().bands.size(), 1u);
    b.d().sizing.price = 0;
    EXPECT_GE(b.fitted().bands.size(), 4u);
}

TEST(Fit, SchoolsOfPlacingPutTheInkWhereTheyPromise) {
    Bench b;
    b.d().placing.growth = 0;
    b.d().placing.school = PlacingSchool::collar_drop;
    b.d().placing.offset = Length::from_mm(80);
    for (const SizeFit& s : b.fitted().sizes) {
        EXPECT_NEAR(s.top_to_ink, 80, 1e-9);
        EXPECT_NEAR(s.ink.y0, b.mm(s.size, Measure::front_neck_drop) + 80, 1e-9);
    }
    b.d().placing.school = PlacingSchool::pit_line;
    b.d().placing.offset = Length::from_mm(30);
    for (const SizeFit& s : b.fitted().sizes) EXPECT_NEAR(s.ink.y0, b.mm(s.size, Measure::armhole_depth) - 30, 1e-9);
    b.d().placing.school = PlacingSchool::body_fraction;
    b.d().placing.share = 0.44;
    for (const SizeFit& s : b.fitted().sizes) EXPECT_NEAR(s.ink.centre().y, 0.44 * b.mm(s.size, Measure::body_length), 1e-9);
    b.d().placing.school = PlacingSchool::collar_drop;
    b.d().placing.offset = Length::from_mm(80);
    b.d().placing.growth = 1;
    b.d().sizing.base_size = "M";
    for (const SizeFit& s : b.fitted().sizes)
        EXPECT_NEAR(s.top_to_ink, 80 * b.mm(s.size, Measure::body_length) / b.mm("M", Measure::body_length), 1e-9);
}

TEST(Fit, HandMeasurementsAddUp) {
    Bench b;
    for (const Location l : locations_of(*find_style(b.order, "adult-tee"))) {
        b.d().location = l;
        b.d().sizing.base_width = Length::from_mm(80);
        for (const SizeFit& s : b.fitted().sizes) {
            const Panel g = b.panel(s.size);
            const double y = margin_height(g, s.ink);
            EXPECT_NEAR(s.left_margin + s.width + s.right_margin, right_edge_x(g, y) - left_edge_x(g, y), 1e-9);
            if (g.pit_y) EXPECT_NEAR(s.top_to_ink + *s.ink_to_pit, *g.pit_y - g.top_y, 1e-9);
            EXPECT_NEAR(g.top_y + s.top_to_ink + s.height + s.ink_to_bottom, g.bottom_y, 1e-9);
            EXPECT_NEAR(s.height, s.width * 100 / 80, s.width * 0.002);  // the mark's ink is 80 × 100 units
            if (!is_sided(l)) EXPECT_NEAR(s.left_margin, s.right_margin, 1e-9);
        }
    }
}

TEST(Fit, CentresByInkBoxOpticalAndMarkedCentre) {
    Bench b;
    const double width = b.fitted().sizes[0].width;
    EXPECT_NEAR(b.fitted().sizes[0].ink.centre().x, 0, 1e-9);
    b.d().placing.centre = Centre::optical;
    // an L of 20 × 100 and 60 × 20: by hand its middle lies (2000·10 + 1200·50) / 3200 = 25 of 80 from the left
    const SizeFit optical = b.fitted().sizes[0];
    EXPECT_NEAR(optical.ink.x0 + width * 25 / 80, 0, width * 0.003);
    b.order.art[0].marked_centre = Point{0.75, 0.2};
    b.d().placing.centre = Centre::marked;
    const SizeFit marked = b.fitted().sizes[0];
    EXPECT_NEAR(marked.ink.x0 + width * 0.75, 0, 1e-9);
}

TEST(Fit, TheLimitIsTheLargestThatKeepsClearAndSaysWhatBinds) {
    Bench b;
    b.d().sizing.base_width = Length::from_mm(900);
    b.d().sizing.school = SizingSchool::graded;
    b.d().sizing.step = Length{};
    b.order.presses.clear();
    b.order.media[0].width = Length::from_mm(3000);
    b.d().medium = b.order.media[0].id;
    const DecorationFit f = b.fitted();
    const Region& outline = b.facts.begin()->second.outline;
    for (const SizeFit& s : f.sizes) {
        const Ground& g = *find_ground(f, s.size);
        EXPECT_TRUE(clashes(g.area, placed_outline(outline, s), 0.01).empty()) << s.size << " " << binding_text(s.limited_by);
        SizeFit wider = s;
        wider.width = s.width * 1.004;
        wider.ink = {-wider.width / 2, s.ink.y0, wider.width / 2, s.ink.y0 + wider.width * 1.25};
        const auto hit = clashes(g.area, placed_outline(outline, wider), 0.01);
        ASSERT_FALSE(hit.empty()) << s.size;
        EXPECT_TRUE(std::any_of(hit.begin(), hit.end(), [&](const Clash& c) { return c.with == binding_text(s.limited_by); }))
            << binding_text(s.limited_by);
    }
}

TEST(Fit, PlatenAndMediumLimitToo) {
    Bench b;
    b.d().sizing.base_width = Length::from_mm(900);
    b.d().sizing.school = SizingSchool::graded;
    Press press{"tiny", "Tiny press",       PressKind::flat, {{"tiny platen", Length::from_mm(150), Length::from_mm(400)}},
                {},     Length::from_mm(10)};
    b.order.presses.push_back(press);
    b.d().press = "tiny";
    for (const SizeFit& s : b.fitted().sizes) {
        EXPECT_NEAR(s.limit, 130, 1e-6);
        EXPECT_EQ(binding_text(s.limited_by), "platen");
    }
    Medium& medium = b.order.media[0];
    medium.width = Length::from_mm(100);
    medium.length = Length::from_mm(5000);
    medium.margin = Length::from_mm(6);
    medium.quarter_turns = false;
    b.d().medium = medium.id;
    for (const SizeFit& s : b.fitted().sizes) {
        EXPECT_NEAR(s.limit, 84, 1e-6);
        EXPECT_EQ(binding_text(s.limited_by), "medium width");
    }
    medium.quarter_turns = true;  // turned, its height of 5/4 lies across: as high as 84 and so 67 wide, no gain over 84
    for (const SizeFit& s : b.fitted().sizes) EXPECT_NEAR(s.limit, 84, 1e-6);
}

TEST(Fit, PinsHoldOneSizeAndLeaveTheOthers) {
    Bench b;
    const DecorationFit before = b.fitted();
    b.d().pins.push_back({"L", Length::from_mm(123), Length::from_mm(9), Length::from_mm(-4)});
    const DecorationFit after = b.fitted();
    const SizeFit& l = *find_size(after, "L");
    EXPECT_EQ(l.width, 123);
    EXPECT_EQ(binding_text(l.limited_by), "pinned by hand");
    EXPECT_NEAR(l.top_to_ink, find_size(before, "L")->top_to_ink + 9, 1e-9);
    EXPECT_NEAR(l.ink.centre().x, -4, 1e-9);
    for (const char* size : {"S", "3XL"}) EXPECT_EQ(find_size(after, size)->top_to_ink, find_size(before, size)->top_to_ink);
}

TEST(Fit, RefittingGivesTheSameAnswer) {
    Bench b;
    Order second = with_decoration(b.order, [&] {
        Decoration d = new_decoration(b.order, {"adult-tee", "ash"}, Location::upper_back, b.order.art[0]);
        return d;
    }());
    const FitPlan then = fit(b.order, b.facts);
    const FitPlan one = refit(second, b.facts, b.order, then), all = fit(second, b.facts);
    ASSERT_EQ(one.decorations.size(), 2u);
    for (std::size_t i = 0; i < 2; ++i)
        for (std::size_t k = 0; k < all.decorations[i].sizes.size(); ++k) {
            EXPECT_EQ(one.decorations[i].sizes[k].ink, all.decorations[i].sizes[k].ink);
            EXPECT_EQ(binding_text(one.decorations[i].sizes[k].limited_by), binding_text(all.decorations[i].sizes[k].limited_by));
        }
    EXPECT_EQ(one.findings.size(), all.findings.size());
    // a changed chart touches everything
    const BlankStyle wider = with_reading(*find_style(second, "adult-tee"), "S", Measure::chest, Length::from_mm(380), "");
    const Order third = with_style(second, wider);
    const FitPlan after = refit(third, b.facts, second, one);
    EXPECT_LT(find_size(after.decorations[0], "S")->ideal, find_size(one.decorations[0], "S")->ideal);
}

TEST(Adjust, MovingTheRuleLandsThisSizeExactlyThere) {
    for (const PlacingSchool school :
         {PlacingSchool::collar_drop, PlacingSchool::pit_line, PlacingSchool::body_fraction, PlacingSchool::feature})
        for (const double growth : {0.0, 0.5, 1.0})
            for (const char* size : {"S", "L", "3XL"}) {
                Bench b;
                b.d().placing.school = school;
                b.d().placing.growth = growth;
                const DecorationFit before = b.fitted();
                const SizeFit on = *find_size(before, size);
                b.d() = moved(b.d(), on, Length::from_mm(6), Length::from_mm(17), Reach::every_size);
                const DecorationFit after = b.fitted();
                EXPECT_NEAR(find_size(after, size)->ink.y0, on.ink.y0 + 17, 1e-6);
                EXPECT_NEAR(find_size(after, size)->ink.centre().x, on.ink.centre().x + 6, 1e-6);
                for (const SizeFit& s : after.sizes) EXPECT_GT(s.ink.y0, find_size(before, s.size)->ink.y0 + 8) << "all follow";
                EXPECT_TRUE(b.d().pins.empty());
            }
}

TEST(Adjust, MovingThisSizeOnlyPinsIt) {
    Bench b;
    const DecorationFit before = b.fitted();
    b.d() = moved(b.d(), *find_size(before, "M"), Length::from_mm(-5), Length::from_mm(8), Reach::this_size);
    b.d() = moved(b.d(), *find_size(b.fitted(), "M"), Length::from_mm(1), Length{}, Reach::this_size);
    const DecorationFit after = b.fitted();
    EXPECT_NEAR(find_size(after, "M")->ink.centre().x, -4, 1e-9);
    EXPECT_NEAR(find_size(after, "M")->ink.y0, find_size(before, "M")->ink.y0 + 8, 1e-9);
    EXPECT_EQ(find_size(after, "S")->ink, find_size(before, "S")->ink);
    b.d() = unpinned(b.d(), "M");
    EXPECT_EQ(find_size(b.fitted(), "M")->ink, find_size(before, "M")->ink);
}

TEST(Adjust, WideningSetsTheIdealOrThePin) {
    Bench b;
    const SizeFit on = *find_size(b.fitted(), "L");
    b.d() = widened(b.d(), on, Length::from_mm(240), Reach::every_size);
    EXPECT_NEAR(find_size(b.fitted(), "L")->ideal, 240, 1e-9);
    b.d() = widened(b.d(), on, Length::from_mm(150), Reach::this_size);
    EXPECT_EQ(find_size(b.fitted(), "L")->width, 150);
    EXPECT_NEAR(find_size(b.fitted(), "L")->ideal, 240, 1e-9);
}

TEST(Adjust, ChangingTheSchoolKeepsTheChosenSizeInPlace) {
    for (const PlacingSchool from :
         {PlacingSchool::collar_drop, PlacingSchool::pit_line, PlacingSchool::body_fraction, PlacingSchool::feature})
        for (const PlacingSchool to :
             {PlacingSchool::collar_drop, PlacingSchool::pit_line, PlacingSchool::body_fraction, PlacingSchool::feature}) {
            Bench b;
            b.d().placing.school = from;
            b.d().pins.push_back({"XL", {}, Length::from_mm(5), {}});
            const SizeFit on = *find_size(b.fitted(), "XL");
            b.d() = under_school(b.d(), on, b.panel("XL"), to);
            EXPECT_EQ(b.d().placing.school, to);
            EXPECT_NEAR(find_size(b.fitted(), "XL")->ink.y0, on.ink.y0, 1e-6);
        }
}

std::vector<std::pair<int, int>> spans(const DecorationFit& f) {
    std::vector<std::pair<int, int>> out;
    for (const BandFit& b : f.bands) out.emplace_back(b.first, b.last);
    return out;
}

TEST(Adjust, DraggingABandsEdgeMovesSizesOver) {
    Bench b;
    b.d().sizing.band_starts = {"L"};
    using Spans = std::vector<std::pair<int, int>>;
    DecorationFit f = b.fitted();
    ASSERT_EQ(spans(f), (Spans{{0, 1}, {2, 4}}));
    const auto after = [&](const Decoration& d) {
        Bench c = b;
        c.d() = d;
        return spans(c.fitted());
    };
    EXPECT_EQ(after(band_ending_at(b.d(), f, 0, 2)), (Spans{{0, 2}, {3, 4}}));
    EXPECT_EQ(after(band_ending_at(b.d(), f, 0, 0)), (Spans{{0, 0}, {1, 4}}));
    EXPECT_EQ(after(band_ending_at(b.d(), f, 0, 4)), (Spans{{0, 4}})) << "the second is swallowed whole";
    EXPECT_EQ(after(band_ending_at(b.d(), f, 1, 3)), (Spans{{0, 1}, {2, 3}, {4, 4}})) << "what the last lets go is a band of its own";
    EXPECT_EQ(after(band_beginning_at(b.d(), f, 1, 1)), (Spans{{0, 0}, {1, 4}}));
    EXPECT_EQ(after(band_beginning_at(b.d(), f, 1, 4)), (Spans{{0, 3}, {4, 4}}));
    EXPECT_EQ(after(band_beginning_at(b.d(), f, 1, 0)), (Spans{{0, 4}}));
    EXPECT_EQ(after(band_beginning_at(b.d(), f, 0, 2)), spans(f)) << "the first has nothing before it";
}

TEST(Adjust, EveryDraggedPartitionCoversTheRunOnce) {
    Bench b;
    b.order = ladder_order(9, 20);
    for (int band = 0; band < 4; ++band)
        for (int to = -2; to < 12; ++to)
            for (const bool end : {true, false}) {
                b.d().sizing.band_starts = {"N12", "N14", "N17"};
                const DecorationFit f = b.fitted();
                b.d() = end ? band_ending_at(b.d(), f, band, to) : band_beginning_at(b.d(), f, band, to);
                int next = 0;
                for (const BandFit& span : b.fitted().bands) {
                    EXPECT_EQ(span.first, next);
                    EXPECT_GE(span.last, span.first);
                    next = span.last + 1;
                }
                EXPECT_EQ(next, 9);
            }
}

}  // namespace TESTED
}  // namespace orthema
