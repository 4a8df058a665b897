// A print put together, as a picture: ground to the bleed, pictures where they were laid, letters that one can see through, all of it one.
#include "files/put_together.h"

#include <cmath>

#include "core/artwork/put_together.h"
#include "core/order/art_words.h"
#include "core/order/edit.h"
#include "core/order/rules.h"
#include "core/pipeline/work.h"
#include "core/transfers/choices.h"
#include "files/order_file.h"
#include "files/page_export.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

Bytes block(int r, int g, int b, int w = 600, int h = 600) {
    test::Canvas c(w, h);
    c.fill([](double, double) { return true; }, r, g, b);
    return std::make_shared<const std::string>(test::png_bytes(c));
}

/// A ring, 400 pixels across and 100 wide.
Bytes ring() {
    test::Canvas c(400, 400);
    c.fill([](double x, double y) { return std::abs(std::hypot(x - 200, y - 200) - 150) < 50; }, 20, 20, 220);
    return std::make_shared<const std::string>(test::png_bytes(c));
}

struct Case {
    Order order = test::small_order();
    ArtBytes bytes = test::small_art();
    std::string green, red, hoop, id;
    BlankStyle tile;
    Case() {
        green = *add_art(order, bytes, block(30, 160, 40, 900, 600), "green.png");
        red = *add_art(order, bytes, block(200, 30, 30, 300, 150), "red.png");
        hoop = *add_art(order, bytes, ring(), "hoop.png");
        tile = test::library_style("ceramic-tile");
        order.styles.own().push_back(tile);
        PutTogether p;
        p.style = tile.id;
        p.size = tile.sizes.front();
        p.face = Face::front;
        p.ground = green;
        p.over = {over(red, 40), over(hoop, 30)};
        p.over[0].level = From::start;
        p.over[0].upright = From::end;
        p.over[0].across = Length::from_mm(10);
        p.over[0].down = Length::from_mm(12);
        p.over[1].see_through = true;
        p.over[1].tint = 0;
        p.over[1].edge = Length::from_mm(2);
        p.over[1].edge_colour = {1, 1, 1, 1};
        id = enrol_together(order, p, "Together");
    }
    static LaidOver over(const std::string& picture, double width) {
        LaidOver o;
        o.picture = picture;
        o.width = Length::from_mm(width);
        return o;
    }
    PutTogether& print() {
        for (Art& a : order.art)
            if (a.id == id) return *a.together;
        throw std::logic_error("it is there");
    }
    LoadedArtPtr picture() {
        const auto made = pictures_of(order, *find_art(order, id), bytes);
        EXPECT_TRUE(made) << (made ? "" : made.sentence());
        return made ? made->at(id) : nullptr;
    }
};

TEST(PutTogether, EveryPointShowsWhatLiesTopmostThere) {
    Case c;
    const LoadedArtPtr art = c.picture();
    ASSERT_TRUE(art && art->together);
    const Rect face = art->together->face, box = bounds(art->together->ground);
    EXPECT_NEAR(box.width(), face.width() + 6, 0.1) << "3 mm of bleed on each side";
    // printed at its own size, ten pixels to the millimetre
    const test::Folder folder;
    Drawing page;
    page.width = box.width() + 10;
    page.height = box.height() + 10;
    page.marks.emplace_back(ArtMark{"it", Affine{box.width(), 0, 0, box.width(), 5, 5}, 1});
    ASSERT_TRUE(write_png(folder / "page.png", page, {{"it", art}}, 254));
    const test::Canvas seen = test::read_png(folder / "page.png");
    const auto is = [&](Point p, int r, int g, int b) {
        const std::uint8_t* px = seen.at(int(50 + (p.x - box.x0) * 10), int(50 + (p.y - box.y0) * 10));
        return px[3] > 250 && std::abs(px[0] - r) < 12 && std::abs(px[1] - g) < 12 && std::abs(px[2] - b) < 12;
    };
    const Rect red{face.x0 + 10, face.y1 - 12 - 20, face.x0 + 50, face.y1 - 12};
    int looked = 0;
    for (double y = box.y0 + 1; y < box.y1 - 1; y += 0.7)
        for (double x = box.x0 + 1; x < box.x1 - 1; x += 0.7) {
            const Point p{x, y};
            if (!inside(offset(art->together->ground, -0.4), p)) continue;
            const double from_middle = norm(p - face.centre());  // the hoop: 30 mm across, 7.5 wide
            const bool in_hoop = from_middle < 15 && from_middle > 7.5;
            const bool at_edge = in_hoop && (from_middle > 13 || from_middle < 9.5);
            const auto near = [&](double v) { return std::abs(from_middle - v) < 0.4; };
            if (near(15) || near(13) || near(9.5) || near(7.5) || (red.grown(0.4).contains(p) && !red.grown(-0.4).contains(p))) continue;
            ++looked;
            if (at_edge)
                EXPECT_TRUE(is(p, 255, 255, 255)) << x << " " << y << ": the firm edge";
            else if (red.contains(p))
                EXPECT_TRUE(is(p, 200, 30, 30)) << x << " " << y;
            else
                EXPECT_TRUE(is(p, 30, 160, 40)) << x << " " << y << (in_hoop ? ": one sees through" : "");
        }
    EXPECT_GT(looked, 10000);
}

TEST(PutTogether, APlaceIsMeasuredFromItsEdge) {
    const Rect face{-50, 0, 50, 80};
    for (const From level : {From::start, From::middle, From::end})
        for (const From upright : {From::start, From::middle, From::end})
            for (const double degrees : {0.0, 90.0, 33.0}) {
                LaidOver o = Case::over("x", 30);
                o.level = level;
                o.upright = upright;
                o.across = Length::from_mm(7);
                o.down = Length::from_mm(4);
                o.degrees = degrees;
                const Rect box = bounds(mapped(box_region({0, 0, 1, 0.5}), place_over(o, 0.5, face)));
                const double x = level == From::start ? box.x0 + 50 : level == From::end ? 50 - box.x1 : box.centre().x;
                const double y = upright == From::start ? box.y0 : upright == From::end ? 80 - box.y1 : box.centre().y - 40;
                EXPECT_NEAR(x, 7, 1e-9);
                EXPECT_NEAR(y, 4, 1e-9);
                // measured from elsewhere it stays, and moved it is where it was moved to
                const LaidOver other = measured_from(o, From::end, From::start, 0.5, face);
                const Rect same = bounds(mapped(box_region({0, 0, 1, 0.5}), place_over(other, 0.5, face)));
                EXPECT_NEAR(norm(same.centre() - box.centre()), 0, 1e-9);
                const Rect moved = bounds(mapped(box_region({0, 0, 1, 0.5}), place_over(moved_over(o, {3, -2}), 0.5, face)));
                EXPECT_NEAR(norm(moved.centre() - box.centre() - Point{3, -2}), 0, 1e-9);
            }
}

TEST(PutTogether, IsFittedCoveredAndSavedAsOneAndKnowsWhatItShows) {
    Case c;
    const RunKey run{c.tile.id, c.tile.colours.front().name};
    c.order.lines.own().push_back({run.style, run.colour, c.print().size, 4, ""});
    const Shared<KnownArt> known = read_all_art(c.order, c.bytes).known;
    std::string made;
    Order next = with_new_design(c.order, run, Location::whole_front, *find_art(c.order, c.id), &made);
    next = with_new_ones_suited(next, c.order, known->facts);
    const Work w = work(next, {}, known);
    const SizeFit* fit = find_size(*find_fit(w.plan(), made), c.print().size);
    ASSERT_NE(fit, nullptr);
    const Rect box = bounds(ground_shape(c.print(), c.tile));
    EXPECT_NEAR(fit->width, box.width(), 0.35) << "the face and its bleed";
    for (const Finding& f : w.findings) EXPECT_NE(f.code, "rim-bare") << finding_text(f, Unit::mm);
    EXPECT_EQ(std::count_if(w.findings.begin(), w.findings.end(), [](const Finding& f) { return f.code == "designs-overlap"; }), 0)
        << "one print: what lies over the ground is not pressed over it";

    const test::Folder folder;
    ASSERT_TRUE(save_order(folder / "it.orthema", next, c.bytes));
    const auto again = open_order(folder / "it.orthema");
    ASSERT_TRUE(again) << again.sentence();
    EXPECT_EQ(again->order.art, next.art);
    EXPECT_EQ(again->order.decorations, next.decorations);

    const std::string words = composed_words(next, *find_art(next, c.id));
    Order other = next;
    for (Art& a : other.art)
        if (a.id == c.id) a.together->over[1].edge = Length::from_mm(2.5);
    EXPECT_NE(composed_words(other, *find_art(other, c.id)), words) << "it looks otherwise";
}

TEST(PutTogether, SaysWhatReachesPastTheFaceAndWhatIsTooNear) {
    Case c;
    const auto said = [&](const std::string& code) {
        const Work w = work(c.order, {}, read_all_art(c.order, c.bytes).known);
        return std::count_if(w.findings.begin(), w.findings.end(), [&](const Finding& f) { return f.code == code && f.about.art == c.id; });
    };
    EXPECT_EQ(said("together-near") + said("together-off") + said("together-gone"), 0);
    LaidOver& red = c.print().over[0];
    red.across = Length::from_mm(1);
    EXPECT_EQ(said("together-near"), 1) << "4 mm are kept";
    red.across = Length::from_mm(-1);
    EXPECT_EQ(said("together-off"), 1);
    red.across = Length::from_mm(-8);
    EXPECT_EQ(said("together-off"), 0) << "with the ground past the bleed: on purpose";
    red.across = Length::from_mm(20);
    c.order = without_art(c.order, c.hoop);
    EXPECT_EQ(said("together-gone"), 1);
    EXPECT_FALSE(pictures_of(c.order, *find_art(c.order, c.id), c.bytes)) << "and it is not drawn without";
}

TEST(PutTogether, FollowsToAnotherBlankAndFillsAPatchOnAWall) {
    Case c;
    BlankStyle glass = test::library_style("tapered-tumbler");
    glass.id = "glass-with-a-field";
    for (const std::string& size : glass.sizes) {
        Measures& m = glass.chart[size];
        m[Measure::patch_width].value = Length::from_mm(70);
        m[Measure::patch_height].value = Length::from_mm(50);
        m[Measure::patch_top].value = Length::from_mm(35);
        m[Measure::clip_gap].value = Length::from_mm(25);
    }
    ASSERT_FALSE(style_fault(glass)) << style_fault(glass)->sentence;
    c.order.styles.own().push_back(glass);
    const PutTogether was = c.print();
    const Rect tile = face_box(was, c.tile);
    c.print() = made_for(was, c.tile, glass, glass.sizes.front(), Face::wrap);
    const Rect face = face_box(c.print(), glass);
    EXPECT_NEAR(face.width(), 70, 1e-9);
    EXPECT_NEAR(face.height(), 50, 1e-9);
    EXPECT_NEAR(face.y0, 35, 1e-9);
    EXPECT_NEAR(c.print().over[0].width.mm(), 40 * std::min(70 / tile.width(), 50 / tile.height()), 0.01) << "shares stay";
    // put on the wall it is as large as the patch, and where the patch is
    const RunKey run{glass.id, glass.colours.front().name};
    c.order.lines.own().push_back({run.style, run.colour, c.print().size, 2, ""});
    const Shared<KnownArt> known = read_all_art(c.order, c.bytes).known;
    std::string made;
    Order next = with_new_design(c.order, run, Location::wrap_full, *find_art(c.order, c.id), &made);
    next = with_new_ones_suited(next, c.order, known->facts);
    const Work w = work(next, {}, known);
    const SizeFit* fit = find_size(*find_fit(w.plan(), made), c.print().size);
    ASSERT_NE(fit, nullptr);
    EXPECT_NEAR(fit->width, 70, 0.3);
    EXPECT_NEAR(fit->ink.y0, 35, 0.4);
    EXPECT_NEAR(fit->ink.y1, 85, 0.4);
    // the clip's gap is kept free of a print right round
    EXPECT_EQ(fitting_panel(glass, c.print().size, Face::wrap).side_name, "clip");
    const WrapSpan span = wrap_span(glass, c.print().size, {});
    const double around = wall_of(glass.family, glass.chart.at(c.print().size))->middle_circumference();
    EXPECT_NEAR(around - (span.to - span.from), 25 * around / (M_PI * 86), 0.01) << "taped where the wall is widest";
}

}  // namespace TESTED
}  // namespace orthema
