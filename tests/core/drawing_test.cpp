// Drawings as values: maps of marks, panels and dimensions as they are drawn.
#include "core/drawing/drawing.h"

#include "core/guides/panel_drawing.h"
#include "files/library.h"

namespace orthema {
namespace TESTED {

Panel tee(Face face = Face::front) {
    const BlankStyle& style = starting_library().styles.front();
    return panel_of(style, "M", face);
}

TEST(Drawing, MappingAMarkScalesEverythingAboutIt) {
    const Affine twice{2, 0, 0, 2, 10, -5};
    const Mark line = mapped(Mark{PathMark{{{{1, 2}, {3, 4}}}, false, {}, Stroke{palette::ink, 0.5, {1, 3}}}}, twice);
    const auto& path = std::get<PathMark>(line);
    EXPECT_EQ(path.rings[0], (Ring{{12, -1}, {16, 3}}));
    EXPECT_EQ(path.stroke->width, 1);
    EXPECT_EQ(path.stroke->dash, (std::vector<double>{2, 6}));
    const auto text = std::get<TextMark>(mapped(Mark{TextMark{{1, 1}, "x", 4, palette::ink}}, twice));
    EXPECT_EQ(text.at, (Point{12, -3}));
    EXPECT_EQ(text.size, 8);
    const auto art = std::get<ArtMark>(mapped(Mark{ArtMark{"a", Affine::scale(3, 3), 1}}, twice));
    EXPECT_EQ(art.place(Point{1, 1}), (Point{16, 1}));
    const auto clip = std::get<ClipMark>(mapped(Mark{ClipMark{{{{0, 0}, {1, 0}, {1, 1}, {0, 1}}}}}, twice));
    EXPECT_EQ(bounds(clip.to[0]), (Rect{10, -5, 12, -3}));
    EXPECT_TRUE(std::get<ClipMark>(mapped(Mark{ClipMark{}}, twice)).to.empty());
    // mirrored, words keep their place and still read: what began at the left now ends at the right
    const auto turned = std::get<TextMark>(mapped(Mark{TextMark{{1, 1}, "x", 4, palette::ink}}, Affine{-1, 0, 0, 1, 20, 0}));
    EXPECT_EQ(turned.at, (Point{19, 1}));
    EXPECT_EQ(turned.align, Align::right);
    EXPECT_NEAR(turned.degrees, 0, 1e-9);
}

TEST(Drawing, RoundRectanglesAndDiscsStayInTheirBounds) {
    for (const double radius : {0.0, 3.0, 100.0}) {
        const Ring r = round_rect({5, 6, 45, 26}, radius);
        EXPECT_EQ(bounds(r), (Rect{5, 6, 45, 26}));
        EXPECT_GT(std::abs(signed_area(r)), 40 * 20 * 0.78);
    }
    EXPECT_NEAR(std::abs(signed_area(disc({0, 0}, 10, 200))), M_PI * 100, 0.1);
}

TEST(PanelDrawing, ADarkClothGetsALighterLine) {
    for (const Colour cloth : {Colour{0.1, 0.12, 0.2, 1}, Colour{0.9, 0.9, 0.88, 1}}) {
        Drawing d;
        draw_panel(d, tee(), Affine{}, cloth, 1);
        const auto& outline = std::get<PathMark>(d.marks.front());
        EXPECT_EQ(*outline.fill, cloth);
        if (cloth.r < 0.5)
            EXPECT_GT(outline.stroke->colour.r, cloth.r);
        else
            EXPECT_LT(outline.stroke->colour.r, cloth.r);
    }
}

TEST(PanelDrawing, HandMeasurementsStandBetweenWhatTheyMeasure) {
    const Panel g = tee();
    SizeFit s;
    s.width = 200;
    s.height = 150;
    s.ink = {-100, g.top_y + 80, 100, g.top_y + 230};
    s.top_to_ink = 80;
    s.left_margin = s.right_margin = 149.6;
    Drawing d;
    draw_hand_measurements(d, g, s, Affine{}, Unit::mm, {});
    std::vector<std::string> figures;
    for (const Mark& m : d.marks)
        if (const auto* t = std::get_if<TextMark>(&m)) figures.push_back(t->text);
    EXPECT_EQ(figures, (std::vector<std::string>{"80", "149.6", "149.6", "200"}));
    // the first dimension runs from the collar seam to the top of ink
    const auto& first = std::get<PathMark>(d.marks.front());
    EXPECT_EQ(first.rings[0], (Ring{{0, g.top_y}, {0, g.top_y + 80}}));
}

TEST(PanelDrawing, AShortDimensionPutsItsFigureAside) {
    const auto plate_of = [](Point a, Point b) {
        Drawing d;
        draw_dimension(d, a, b, "123", {});
        for (const Mark& m : d.marks)
            if (const auto* t = std::get_if<TextMark>(&m)) return t->at;
        return Point{};
    };
    EXPECT_NEAR(plate_of({0, 0}, {200, 0}).x, 100, 1e-9);
    EXPECT_LT(plate_of({0, 0}, {10, 0}).y, -5) << "above a short level one";
    EXPECT_GT(plate_of({0, 0}, {0, 6}).x, 8) << "beside a short upright one";
    Drawing nothing;
    draw_dimension(nothing, {3, 3}, {3, 3}, "0", {});
    EXPECT_TRUE(nothing.marks.empty());
}

}  // namespace TESTED
}  // namespace orthema
