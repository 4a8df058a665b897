// Mended files: drawings stay drawings where that can be, findings are gone when what they ask for is done, and an order keeps it all.
#include "core/fitting/mendings.h"
#include "core/order/edit.h"
#include "core/pipeline/work.h"
#include "files/order_file.h"
#include "support/support.h"

#include <cmath>
#include <random>

namespace orthema {
namespace TESTED {

Bytes bytes_of(std::string s) { return std::make_shared<const std::string>(std::move(s)); }

Mending mending(MendKind kind, double least = 0.6, double at = 60) {
    Mending m;
    m.kind = kind;
    m.least = Length::from_mm(least);
    m.at = Length::from_mm(at);
    return m;
}

std::string svg(const std::string& inside) {
    return "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 200 160\" width=\"200\" height=\"160\">" + inside + "</svg>";
}

TEST(Mended, ADrawingStaysADrawing) {
    const std::string box = "<rect width=\"200\" height=\"160\" fill=\"#fff\"/>",
                      body = "<circle cx=\"70\" cy=\"80\" r=\"40\" fill=\"#204060\"/>";
    const std::string line = "<path d=\"M110 80 H190\" stroke=\"#a03020\" stroke-width=\"0.9\"/>";
    // a ground is left out, without a rim
    auto art = mended_art(bytes_of(svg(box + body)), "disc", {mending(MendKind::background)});
    ASSERT_TRUE(art) << art.sentence();
    EXPECT_TRUE((*art)->facts.vector);
    EXPECT_FALSE((*art)->facts.flat_background);
    EXPECT_NEAR((*art)->facts.aspect, 1, 0.01);
    // a thin line is thickened where it is thin, in its colour
    art = mended_art(bytes_of(svg(body + line)), "line", {mending(MendKind::thicken, 1, 40)});
    ASSERT_TRUE(art) << art.sentence();
    const ArtFacts& f = (*art)->facts;
    EXPECT_TRUE(f.vector);
    EXPECT_TRUE(f.thin_stroke == 0 || f.thin_stroke >= 1.0 / 40) << f.thin_stroke;
    EXPECT_EQ(f.inks.size(), 2U);
    // turned and cropped: still sharp, and what is outside is gone
    Mending turn = mending(MendKind::straighten), crop = mending(MendKind::crop);
    turn.degrees = 90 - 60;
    crop.keep = {0, 0, 0.5, 1};
    art = mended_art(bytes_of(svg(body + line)), "part", {turn, crop});
    ASSERT_TRUE(art) << art.sentence();
    EXPECT_TRUE((*art)->facts.vector);
    EXPECT_LT((*art)->facts.width_px, (*art)->facts.height_px);
    // soft edges need pixels
    art = mended_art(bytes_of(svg("<circle cx=\"70\" cy=\"80\" r=\"40\" fill=\"#204060\" opacity=\"0.6\"/>" + line)), "soft",
                     {mending(MendKind::harden)});
    ASSERT_TRUE(art) << art.sentence();
    EXPECT_FALSE((*art)->facts.vector);
    EXPECT_EQ((*art)->facts.half_transparent, 0);
}

TEST(Mended, WhatCannotBeDoneIsSaidAndTheFileStays) {
    const Bytes file = bytes_of(test::corner_svg);
    Mending crop = mending(MendKind::crop);
    crop.keep = {0.9, 0, 1, 0.1};  // nothing is there
    const auto art = mended_art(file, "Corner", {crop});
    EXPECT_TRUE(!art || (*art)->facts.empty());
    test::Canvas noise(60, 60);
    std::mt19937 rng(3);
    for (auto& v : noise.rgba) v = static_cast<std::uint8_t>(rng() % 256);
    for (std::size_t i = 3; i < noise.rgba.size(); i += 4) noise.rgba[i] = 255;
    const auto none = mended_art(bytes_of(test::png_bytes(noise)), "Noise", {mending(MendKind::background)});
    ASSERT_FALSE(none);
    EXPECT_NE(none.sentence().find("Noise"), std::string::npos);
    EXPECT_FALSE(mended_art(bytes_of("nothing"), "Text", {crop}));
}

/// An order whose one design is this picture, 90 mm wide at its base size.
struct Case {
    Order order = test::small_order();
    ArtBytes bytes;
    std::string art;
    explicit Case(const Bytes& file, const std::string& name) {
        order.art.clear();
        const auto id = add_art(order, bytes, file, name);
        EXPECT_TRUE(id) << name;
        art = *id;
        for (Decoration& d : order.decorations) {
            d.art = art;
            d.rule.clear();
            d.sizing.base_width = Length::from_mm(90);
        }
    }
    Work worked() { return work(order, {}, read_all_art(order, bytes).known); }
};

void mend_all_that_is_said(Case& c, const std::string& name) {
    std::set<MendKind> done;
    for (int round = 0; round < 6; ++round) {
        const Work w = c.worked();
        std::optional<MendingOffer> offer;
        for (const Finding& f : w.findings)
            if (const auto o = mending_for(c.order, w.plan(), f); o && !done.contains(o->mending.kind)) {
                offer = o;
                break;
            }
        if (!offer) break;
        done.insert(offer->mending.kind);
        const Art* art = find_art(c.order, offer->art);
        c.order = with_mendings(c.order, offer->art, with_mending(art->mendings, offer->mending), {});
        const Work after = c.worked();
        for (const Finding& f : after.findings)
            if (const auto o = mending_for(c.order, after.plan(), f);
                o && o->mending.kind == offer->mending.kind && f.code != "weed-island")
                ADD_FAILURE() << name << ": " << mend_key(offer->mending.kind)
                              << " was done and it is still said: " << finding_text(f, Unit::mm);
    }
}

TEST(Mended, AFindingIsGoneWhenItsMendingIsDone) {
    for (const char* const file : {"crescent-badge.svg", "crossed-kites.svg", "fair-lettering.svg", "hill-kites.svg", "kite-frieze.svg",
                                   "marshal-pennants.svg", "wind-rose.svg", "cloud-kite.png"}) {
        const std::string name = file;
        Case c(bytes_of(test::slurp(test::source("demo/src/" + name))), name);
        for (const double width : {34.0}) {  // small: much is too thin
            for (Decoration& d : c.order.decorations) d.sizing.base_width = Length::from_mm(width);
            mend_all_that_is_said(c, name);
        }
    }
}

TEST(Mended, RandomSpoiledPicturesAreMended) {
    std::mt19937 rng(21);
    const auto real = [&](double a, double b) { return std::uniform_real_distribution<>(a, b)(rng); };
    for (int k = 0; k < 8; ++k) {
        test::Canvas p(420, 360);
        if (k % 2 == 0) p.fill([](double, double) { return true; }, 235, 240, 238);
        const double cx = real(150, 260), cy = real(120, 220);
        p.fill([&](double x, double y) { return std::hypot(x - cx, y - cy) < 90 && std::hypot(x - cx - 30, y - cy) > 40; }, 30, 80, 120);
        const double thin = real(1.2, 3), lean = real(-0.6, 0.6);
        p.fill([&](double x, double y) { return x > 40 && x < 380 && std::abs(y - cy - lean * (x - cx)) < thin; }, 160, 50, 30);
        if (k % 3 == 0)
            p.fill([&](double x, double y) { return std::hypot(x - cx + 60, y - cy - 60) < 70 && std::hypot(x - cx, y - cy) >= 90; }, 20,
                   20, 20, 120);
        Case c(bytes_of(test::png_bytes(p)), "picture " + std::to_string(k));
        mend_all_that_is_said(c, "picture " + std::to_string(k));
        // and the order keeps it
        const test::Folder folder;
        ASSERT_TRUE(save_order(folder / "mended.orthema", c.order, c.bytes));
        const auto back = open_order(folder / "mended.orthema");
        ASSERT_TRUE(back);
        EXPECT_EQ(back->order, c.order);
        EXPECT_EQ(facts_of(read_all_art(back->order, back->art).art), facts_of(read_all_art(c.order, c.bytes).art));
    }
}

TEST(Mended, MarksStayOnWhatTheyWereSetOn) {
    test::Canvas p(300, 200);
    p.fill([](double, double) { return true; }, 250, 250, 250);
    p.fill([](double x, double y) { return x > 100 && x < 200 && y > 60 && y < 160; }, 30, 80, 120);
    const Bytes file = bytes_of(test::png_bytes(p));
    const auto before = load_art(file, "box"), after = mended_art(file, "box", {mending(MendKind::background)});
    ASSERT_TRUE(before && after);
    EXPECT_NEAR((*before)->facts.ink_px.width(), 300, 0.5);
    EXPECT_NEAR((*after)->facts.ink_px.width(), 99, 2);
    // the picture is drawn on paper as it is seen
    Order o = test::small_order();
    o.art.front().marked_centre = Point{0.5, 0.3};
    o.art.front().marks = {{"left", {0.4, 0.2}}};
    const Affine moved{2, 0, 0, 2, -0.5, -0.1};
    const Order next = with_mendings(o, o.art.front().id, {mending(MendKind::background)}, moved);
    EXPECT_EQ(next.art.front().marked_centre, moved({0.5, 0.3}));
    EXPECT_EQ(next.art.front().marks.front().at, moved({0.4, 0.2}));
}

}  // namespace TESTED
}  // namespace orthema
