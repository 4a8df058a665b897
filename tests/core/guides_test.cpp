// Guides: the figures on a card, and the tiles of a template.
#include "core/guides/guides.h"

#include <cmath>
#include <set>

#include "files/order_file.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

struct Guided {
    Order order = test::small_order();
    ArtFactsById facts;
    FitPlan plan;
    explicit Guided(Unit unit = Unit::mm, Paper paper = Paper::a4) {
        order.unit = unit;
        order.paper = paper;
        facts = facts_of(load_all_art(order, test::small_art(), nullptr));
        plan = fit(order, facts);
    }
};

std::vector<std::string> words(const Drawing& d) {
    std::vector<std::string> out;
    for (const Mark& m : d.marks)
        if (const auto* t = std::get_if<TextMark>(&m)) out.push_back(t->text);
    return out;
}

/// Where a tile begins on the whole template, by its name at the end of its title: "B2" is the second row's second.
Point begin_of(const GuidePage& tile, const TemplateLayout& l) {
    const std::string name = tile.title.substr(tile.title.rfind(' ') + 1);
    return {l.area.x0 + (std::stoi(name.substr(1)) - 1) * l.step_x, l.area.y0 + (name[0] - 'A') * l.step_y};
}

bool has(const std::vector<std::string>& words, const std::string& text) {
    return std::any_of(words.begin(), words.end(), [&](const std::string& w) { return w.find(text) != std::string::npos; });
}

TEST(Guides, OneForEverySizeOfEveryDecoration) {
    const Guided g;
    const GuideSet set = guides(g.order, g.plan, g.facts);
    ASSERT_EQ(set.guides.size(), 5u);
    for (const Guide& guide : set.guides) {
        const SizeFit& s = *find_size(g.plan.decorations[0], guide.size);
        const auto text = words(guide.card.drawing);
        EXPECT_TRUE(has(text, "Adult tee, ash  " + guide.size));
        EXPECT_TRUE(has(text, mm_text(s.top_to_ink, 1) + " mm"));
        EXPECT_TRUE(has(text, mm_text(s.width, 1) + " mm"));
        EXPECT_TRUE(has(text, "wearer's left"));
        EXPECT_TRUE(has(text, "Hot platen"));
        EXPECT_LE(guide.tiles.size(), static_cast<std::size_t>(guide.layout.pages()));
    }
}

TEST(Guides, OnlyWhatIsWornHasAWearerAndOnlyShouldersAreFolded) {
    Guided g;
    const auto card = [&](const char* blank, Location l) {
        const BlankStyle style = test::library_style(blank);
        g.order.lines = {{style.id, style.colours.front().name, style.sizes.front(), 2, ""}};
        g.order.decorations = {new_decoration(g.order, {style.id, style.colours.front().name}, l, g.order.art[0])};
        g.plan = fit(g.order, g.facts);
        return words(guides(g.order, g.plan, g.facts).guides.at(0).card.drawing);
    };
    const auto apron = card("canvas-apron", Location::full_front);
    EXPECT_TRUE(has(apron, "wearer's left"));
    EXPECT_FALSE(has(apron, "shoulder"));
    for (const auto& plain :
         {card("camp-flag", Location::whole_front), card("metal-tag", Location::whole_back), card("cotton-tote", Location::full_back)}) {
        EXPECT_FALSE(has(plain, "wearer"));
        EXPECT_FALSE(has(plain, "shoulder"));
    }
    EXPECT_TRUE(has(card("reversible-jersey", Location::full_back), "Fold shoulder seam"));
}

TEST(Guides, FiguresComeInTheOrdersUnit) {
    const Guided g(Unit::inch);
    const SizeFit& s = g.plan.decorations[0].sizes[1];
    bool found = false;
    for (const CardLine& line : card_lines(g.plan.decorations[0].ground->sizes[1].panel, s, Location::full_front, {6, 3}, Unit::inch)) {
        EXPECT_NE(line.figure.find(" in"), std::string::npos) << line.what;
        found = found || (line.what.find("Collar seam") == 0 && line.figure == length_text(Length::from_mm(s.top_to_ink), Unit::inch));
    }
    EXPECT_TRUE(found);
}

TEST(Guides, PitLineFigureSaysAboveOrBelow) {
    SizeFit s;
    s.ink_to_pit = -12;
    const auto below = card_lines(Panel{}, s, Location::full_front, {6, 3}, Unit::mm);
    EXPECT_TRUE(std::any_of(below.begin(), below.end(),
                            [](const CardLine& l) { return l.what == "Top of ink below the pit line" && l.figure == "12 mm"; }));
}

TEST(Guides, TilesCoverTheWholeTemplateWithTheirOverlap) {
    for (const Paper paper : {Paper::a4, Paper::letter})
        for (double w = 60; w < 900; w += 77)
            for (double h = 80; h < 900; h += 91) {
                const Rect area{-w / 3, 40, w * 2 / 3, 40 + h};
                const TemplateLayout l = tile_layout(area, {paper_size(paper)});
                EXPECT_GE(l.tile_width + (l.columns - 1) * l.step_x, w - 1e-9);
                EXPECT_GE(l.tile_height + (l.rows - 1) * l.step_y, h - 1e-9);
                EXPECT_GT(l.tile_width - l.step_x, 5) << "pages overlap, to be joined";
                // no page too many: one column or row less would not do
                if (l.columns > 1) EXPECT_LT(l.tile_width + (l.columns - 2) * l.step_x, w);
                if (l.rows > 1) EXPECT_LT(l.tile_height + (l.rows - 2) * l.step_y, h);
            }
}

TEST(Guides, LargerPaperIsTakenOnlyWhereFewerSheetsDo) {
    Guided g;
    for (const Paper paper : {Paper::a4, Paper::letter}) {
        g.order.paper = paper;
        g.order.guide_setup.large_paper = true;
        const auto papers = template_papers(g.order);
        ASSERT_GE(papers.size(), 2u);
        std::set<std::string> taken;
        for (double w = 50; w < 800; w += 61)
            for (double h = 50; h < 800; h += 47) {
                const Rect area{0, 0, w, h};
                const TemplateLayout l = tile_layout(area, papers, 1.02);
                taken.insert(paper_name(l.paper));
                for (const PaperSize& other : papers) {
                    const TemplateLayout alone = tile_layout(area, {other}, 1.02);
                    EXPECT_LE(l.pages(), alone.pages());
                    if (alone.pages() == l.pages()) EXPECT_LE(l.paper.width * l.paper.height, other.width * other.height);
                }
            }
        EXPECT_EQ(taken.size(), papers.size()) << "each has its use";
    }
    g.order.guide_setup.large_paper = false;
    EXPECT_EQ(template_papers(g.order).size(), 1u);
}

TEST(Guides, TheTemplateCarriesItsMarksAtTrueLength) {
    const Guided g;
    const Guide guide = guides(g.order, g.plan, g.facts).guides[2];
    bool hundred = false, four = false, pit = false;
    const SizeFit& s = *find_size(g.plan.decorations[0], guide.size);
    const double pit_y = s.ink.y0 + *s.ink_to_pit;
    int corners = 0;
    for (const Mark& m : guide.whole.marks) {
        const auto* path = std::get_if<PathMark>(&m);
        if (path == nullptr) continue;
        for (const Ring& r : path->rings) {
            if (r.size() == 2) {
                const double length = norm(r[1] - r[0]);
                hundred = hundred || std::abs(length - 100) < 1e-9;
                four = four || std::abs(length - 101.6) < 1e-9;
                pit = pit || (std::abs(r[0].y - pit_y) < 1e-9 && std::abs(r[1].y - pit_y) < 1e-9 && length > 100);
            }
            if (r.size() == 3)
                for (const Point corner :
                     {Point{s.ink.x0, s.ink.y0}, Point{s.ink.x1, s.ink.y0}, Point{s.ink.x0, s.ink.y1}, Point{s.ink.x1, s.ink.y1}})
                    if (norm(r[1] - corner) < 1e-9) ++corners;
        }
    }
    EXPECT_TRUE(hundred);
    EXPECT_TRUE(four);
    EXPECT_TRUE(pit);
    EXPECT_EQ(corners, 4) << "ink corner brackets stand on the ink box";
    EXPECT_TRUE(has(words(guide.whole), "centre fold"));
    EXPECT_TRUE(has(words(guide.whole), "cut along the collar seam"));
}

TEST(Guides, TheCentreTickStandsWhereTheTransfersOwnCentreIs) {
    Guided g;
    Decoration& d = g.order.decorations[0];
    d.placing.centre = Centre::optical;
    d.pins = {{"L", {}, {}, Length::from_mm(9)}};
    g.plan = fit(g.order, g.facts);
    for (const Guide& guide : guides(g.order, g.plan, g.facts).guides) {
        const SizeFit& s = *find_size(g.plan.decorations[0], guide.size);
        const double centre = s.ink.x0 + g.facts.at("corner").optical_centre.x * s.width;
        EXPECT_GT(std::abs(centre - s.ink.centre().x), 1) << "the picture is lopsided";
        EXPECT_TRUE(std::any_of(guide.whole.marks.begin(), guide.whole.marks.end(), [&](const Mark& m) {
            const auto* path = std::get_if<PathMark>(&m);
            return path != nullptr && path->rings[0].size() == 2 && norm(path->rings[0][0] - Point{centre, s.ink.y0 - 5}) < 0.01;
        })) << guide.size;
    }
}

TEST(Guides, AShortTemplateIsOneSheetWithCollarCentreAndUpperCorners) {
    Guided g;
    g.order.guide_setup.short_templates = true;
    for (const double width : {100.0, 170.0, 300.0}) {
        g.order.decorations[0].sizing.base_width = Length::from_mm(width);
        g.plan = fit(g.order, g.facts);
        for (const Guide& guide : guides(g.order, g.plan, g.facts).guides) {
            const SizeFit& s = *find_size(g.plan.decorations[0], guide.size);
            EXPECT_EQ(guide.tiles.size(), 1u) << guide.size << " " << width;
            const Rect seen{guide.layout.area.x0, guide.layout.area.y0, guide.layout.area.x0 + guide.layout.tile_width,
                            guide.layout.area.y0 + guide.layout.tile_height};
            EXPECT_TRUE(seen.contains({0, s.ink.y0 - s.top_to_ink})) << "the collar at the centre line";
            EXPECT_TRUE(seen.contains({0, s.ink.y0})) << "the ink's top";
            const bool corners = seen.contains({s.ink.x0, s.ink.y0}) && seen.contains({s.ink.x1, s.ink.y0});
            const bool said = has(words(guide.whole), "The ink's edges lie");
            EXPECT_NE(corners, said) << "corners that the paper does not reach are said";
            EXPECT_EQ(corners, s.width <= 190) << s.width;
        }
    }
}

TEST(Guides, PagesThatShowNothingAreNotMade) {
    Guided g;
    g.order.decorations[0].location = Location::left_chest;
    g.order.decorations[0].sizing.base_width = Length::from_mm(90);
    g.order.decorations[0].placing.offset = Length::from_mm(260);
    g.plan = fit(g.order, g.facts);
    for (const Guide& guide : guides(g.order, g.plan, g.facts).guides) {
        const TemplateLayout& l = guide.layout;
        const SizeFit& s = *find_size(g.plan.decorations[0], guide.size);
        // the ink's corners each stand on a page that was made
        for (const Point corner :
             {Point{s.ink.x0, s.ink.y0}, Point{s.ink.x1, s.ink.y0}, Point{s.ink.x0, s.ink.y1}, Point{s.ink.x1, s.ink.y1}}) {
            bool there = false;
            for (const GuidePage& page : guide.tiles) {
                const Point at = begin_of(page, l);
                there = there || Rect{at.x, at.y, at.x + l.tile_width, at.y + l.tile_height}.contains(corner);
            }
            EXPECT_TRUE(there) << guide.size;
        }
    }
}

TEST(Guides, JoinMarksOfNeighboursMeet) {
    Guided g;
    g.order.decorations[0].sizing.base_width = Length::from_mm(300);
    g.plan = fit(g.order, g.facts);
    const Guide guide = guides(g.order, g.plan, g.facts).guides.back();
    const TemplateLayout& l = guide.layout;
    ASSERT_GT(l.pages(), 1);
    // every join's name stands on exactly two pages, at the same place of the template
    std::map<std::string, std::vector<Point>> joins;
    for (const GuidePage& tile : guide.tiles) {
        const Drawing& page = tile.drawing;
        const Point at = begin_of(tile, l);
        for (const Mark& m : page.marks)
            if (const auto* t = std::get_if<TextMark>(&m); t != nullptr && t->text.find("·") != std::string::npos)
                joins[t->text + (t->at.x > page.width - 40 || t->at.x < 40 ? " side" : " edge")].push_back(t->at + at);
    }
    ASSERT_FALSE(joins.empty());
    for (const auto& [name, places] : joins) {
        ASSERT_EQ(places.size(), 2u) << name;
        EXPECT_NEAR(norm(places[0] - places[1]), 0, 1e-6) << name;
    }
}

TEST(Guides, InfantWearCarriesItsOwnCaution) {
    Guided g;
    g.order.lines = {{"infant-bodysuit", "sky", "6M", 3, ""}};
    g.order.decorations[0].run = {"infant-bodysuit", "sky"};
    g.order.decorations[0].sizing.base_width = Length::from_mm(90);
    g.order.decorations[0].sizing.base_size = "6M";
    g.plan = fit(g.order, g.facts);
    const GuideSet set = guides(g.order, g.plan, g.facts);
    ASSERT_EQ(set.guides.size(), 1u);
    EXPECT_TRUE(has(words(set.guides[0].card.drawing), "Infant wear"));
}

TEST(Guides, ATaperedWallsTemplateIsBentAsTheWallIs) {
    Guided g;
    const BlankStyle style = test::library_style("tapered-tumbler");
    const std::string size = style.sizes.front();
    g.order.lines = {{style.id, style.colours.front().name, size, 2, ""}};
    g.order.decorations = {new_decoration(g.order, {style.id, style.colours.front().name}, Location::wrap_front, g.order.art[0])};
    g.plan = fit(g.order, g.facts);
    const SizeFit& s = *find_size(g.plan.decorations[0], size);
    const RingSector wall = *unrolled(*wall_of(style.family, style.chart.at(size)));
    ASSERT_FALSE(wall.straight());
    const Drawing whole = guides(g.order, g.plan, g.facts).guides.at(0).whole;
    int corners = 0, rim = 0;
    for (const Mark& m : whole.marks) {
        const auto* path = std::get_if<PathMark>(&m);
        if (path == nullptr || path->rings.empty() || !path->stroke) continue;
        const Ring& line = path->rings[0];
        if (path->stroke->colour == palette::verdigris && path->stroke->width == 0.5 && line.size() > 5) {
            ++corners;  // a bracket follows the ink's box on the wall
            for (const Point& q : line) {
                const Point on = wall.unbent(q);
                const double off = std::min({std::abs(on.x - s.ink.x0), std::abs(on.x - s.ink.x1), std::abs(on.y - s.ink.y0),
                                             std::abs(on.y - s.ink.y1), std::abs(on.x - s.ink.centre().x)});
                EXPECT_LT(off, 0.05);
            }
        }
        if (line.size() > 10 && std::all_of(line.begin(), line.end(), [&](const Point& q) { return std::abs(wall.unbent(q).y) < 0.05; }))
            ++rim;
    }
    EXPECT_GE(corners, 4);
    EXPECT_EQ(rim, 1) << "the line to lay on the rim is the rim's arc";
}

}  // namespace TESTED
}  // namespace orthema
