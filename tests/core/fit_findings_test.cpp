// Every finding of the fit: what raises it, what does not, and that it says what to do.
#include <cmath>

#include "core/fitting/adjust.h"
#include "core/fitting/fit.h"
#include "core/fitting/sharing.h"
#include "core/order/edit.h"
#include "files/order_file.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

struct Scene {
    Order order = test::small_order();
    ArtFactsById facts = facts_of(load_all_art(order, test::small_art(), nullptr));
    Decoration& d() { return order.decorations.front(); }
    ArtFacts& art() { return facts.begin()->second; }
    [[nodiscard]] std::vector<Finding> said(const std::string& code) const {
        std::vector<Finding> out;
        for (const Finding& f : fit(order, facts).findings)
            if (f.code == code) out.push_back(f);
        return out;
    }
    /// Puts the design on another blank, at a location, with the usual figures.
    void put(const std::string& style, const std::string& colour, const std::vector<std::string>& sizes, Location location) {
        order.lines.clear();
        for (const std::string& s : sizes) order.lines.push_back({style, colour, s, 2, ""});
        const Decoration next = new_decoration(order, {style, colour}, location, order.art.front());
        order.decorations = {next};
    }
};

void says_what_to_do(const std::vector<Finding>& said) {
    for (const Finding& f : said) {
        const std::string text = finding_text(f, Unit::mm);
        EXPECT_EQ(text.find('{'), std::string::npos) << text;
        EXPECT_EQ(text.back(), '.') << text;
        EXPECT_GT(text.size(), 30u) << text;
    }
}

TEST(FitFindings, NoneOnAPlainOrderButNotes) {
    const Scene s;
    for (const Finding& f : fit(s.order, s.facts).findings)
        EXPECT_EQ(f.severity, Severity::note) << f.code << ": " << finding_text(f, Unit::mm);
}

TEST(FitFindings, InkOverASeamAndTooCloseToOne) {
    Scene s;
    EXPECT_TRUE(s.said("ink-over").empty());
    EXPECT_TRUE(s.said("ink-too-close").empty());
    s.d().pins = {{"S", Length::from_mm(600), {}, {}}};
    const auto over = s.said("ink-over");
    ASSERT_FALSE(over.empty());
    EXPECT_EQ(over[0].severity, Severity::stop);
    EXPECT_EQ(over[0].about.size, "S");
    says_what_to_do(over);
    // within the clearance but on the cloth
    const SizeFit l = *find_size(fit(s.order, s.facts).decorations[0], "L");
    s.d().pins = {{"L", Length::from_mm(l.width), {}, Length::from_mm(l.right_margin - 12)}};
    const auto close = s.said("ink-too-close");
    ASSERT_EQ(close.size(), 1u);
    EXPECT_EQ(close[0].severity, Severity::caution);
    EXPECT_NEAR(figure_of(close[0], "short"), 25 - 12, 2.5) << "the side seam slants a little";
    says_what_to_do(close);
}

TEST(FitFindings, HiddenUnderTheHood) {
    Scene s;
    s.put("hooded-fleece", "moss", {"L"}, Location::upper_back);
    EXPECT_FALSE(s.said("ink-hidden").empty());
    says_what_to_do(s.said("ink-hidden"));
    s.put("hooded-fleece", "moss", {"L"}, Location::lower_back);
    EXPECT_TRUE(s.said("ink-hidden").empty());
}

TEST(FitFindings, OffThePlatenSeveralPressesAndPressesThatDoNotSuit) {
    Scene s;
    EXPECT_TRUE(s.said("platen-several").empty());
    EXPECT_TRUE(s.said("off-platen").empty());
    s.d().pins = {{"3XL", Length::from_mm(450), {}, {}}};
    EXPECT_FALSE(s.said("platen-several").empty());
    says_what_to_do(s.said("platen-several"));
    for (Press& p : s.order.presses)
        if (p.id == s.d().press) p.platens = {{"tiny platen", Length::from_mm(25), Length::from_mm(25)}};
    EXPECT_FALSE(s.said("off-platen").empty()) << "more presses than anyone makes";
    EXPECT_TRUE(s.said("press-unsuited").empty());
    s.d().press = "press-wrap";
    EXPECT_FALSE(s.said("press-unsuited").empty());
    says_what_to_do(s.said("press-unsuited"));
    // a cap's panel that is larger than the cap press takes
    s.put("panel-cap", "navy", {"adult"}, Location::cap_front);
    EXPECT_TRUE(s.said("off-platen").empty());
    s.d().pins = {{"adult", Length::from_mm(160), {}, {}}};
    EXPECT_FALSE(s.said("off-platen").empty());
}

TEST(FitFindings, ThePlatenIsShiftedChangedOrPadded) {
    Scene s;
    s.d().placing.offset = Length::from_mm(20);  // just below the collar
    s.d().sizing.base_width = Length::from_mm(120);
    auto said = s.said("platen-shifted");
    ASSERT_FALSE(said.empty());
    EXPECT_NE(finding_text(said[0], Unit::mm).find("hangs off"), std::string::npos) << finding_text(said[0], Unit::mm);
    says_what_to_do(said);
    s.put("youth-tee", "sun", {"XS"}, Location::left_chest);
    s.d().press = "press-large";
    const PlatenWay way = fit(s.order, s.facts).decorations[0].sizes[0].platen.way;
    EXPECT_TRUE(way == PlatenWay::pad || way == PlatenWay::other_platen);
    EXPECT_FALSE(s.said(way == PlatenWay::pad ? "platen-pad" : "platen-other").empty());
    // neither platen nor pad
    for (Press& p : s.order.presses) {
        p.pads.clear();
        p.platens.resize(1);
    }
    EXPECT_FALSE(s.said("platen-none").empty());
    says_what_to_do(s.said("platen-none"));
    s.put("square-coaster", "white", {"OS"}, Location::whole_front);
    for (const char* code : {"platen-none", "platen-shifted", "platen-other", "platen-pad"}) EXPECT_TRUE(s.said(code).empty()) << code;
}

TEST(FitFindings, FarShortOfItsIdeal) {
    Scene s;
    EXPECT_TRUE(s.said("short-of-ideal").empty());
    s.d().sizing.base_width = Length::from_mm(700);
    EXPECT_FALSE(s.said("short-of-ideal").empty());
    says_what_to_do(s.said("short-of-ideal"));
}

TEST(FitFindings, StrokesAndGapsAgainstTheMedium) {
    Scene s;
    EXPECT_TRUE(s.said("thin-stroke").empty());
    EXPECT_TRUE(s.said("narrow-gap").empty());
    s.art().thin_stroke = s.art().narrow_gap = 0.002;  // at the smallest width of 195 mm: 0.39 mm
    EXPECT_EQ(s.said("thin-stroke").size(), 1u);
    EXPECT_EQ(s.said("narrow-gap").size(), 1u);
    says_what_to_do(s.said("thin-stroke"));
    s.art().thin_stroke = s.art().narrow_gap = 0.004;
    EXPECT_TRUE(s.said("thin-stroke").empty());
    EXPECT_TRUE(s.said("narrow-gap").empty());
}

TEST(FitFindings, InkThatVanishesOnTheCloth) {
    Scene s;
    EXPECT_TRUE(s.said("art-contrast").empty());
    s.art().inks = {{{0.86, 0.84, 0.80, 1}, 0.6}, {{0.1, 0.2, 0.4, 1}, 0.4}};  // ash on ash
    const auto said = s.said("art-contrast");
    ASSERT_EQ(said.size(), 1u);
    EXPECT_NEAR(figure_of(said[0], "share"), 0.6, 1e-9);
    says_what_to_do(said);
    EXPECT_EQ(vanishing_share(s.art(), {0.1, 0.2, 0.4, 1}), 0.4);
    // black on navy is as good as gone, and a white backing is what its ink lies on, not the cloth
    s.art().inks = {{{0, 0, 0, 1}, 1}};
    EXPECT_EQ(vanishing_share(s.art(), {0.17, 0.21, 0.31, 1}), 1);
    EXPECT_EQ(vanishing_share(s.art(), {0.7, 0.1, 0.1, 1}), 0);
    s.art().inks = {{{0.86, 0.84, 0.80, 1}, 1}};
    s.d().making.layers = {{"print", "", true, {}, {}, {}}, {"backing", "", false, {}, {0.1, 0.1, 0.2, 1}, Length::from_mm(1.5)}};
    EXPECT_TRUE(s.said("art-contrast").empty());
    EXPECT_LT(colour_difference({1, 1, 1, 1}, {1, 1, 1, 1}), 1e-9);
    EXPECT_NEAR(colour_difference({0, 0, 0, 1}, {1, 1, 1, 1}), 100, 0.1);  // L* from 0 to 100
}

TEST(FitFindings, MarksThatMissTheirLine) {
    Scene s;
    s.order.art[0].marks = {{"gap", {0.6, 0.5}}};
    s.d().meetings = {{"gap", "centre line"}};
    const auto said = s.said("mark-missed");
    ASSERT_EQ(said.size(), 5u);
    const SizeFit on = *find_size(fit(s.order, s.facts).decorations[0], "M");
    EXPECT_NEAR(figure_of(said[1], "off"), 0.1 * on.width, 1e-9);
    EXPECT_NE(finding_text(said[1], Unit::mm).find("to your left"), std::string::npos);
    says_what_to_do(said);
    const DecorationFit f = fit(s.order, s.facts).decorations[0];
    s.d() = brought_together(s.order, s.d(), *find_size(f, "M"), find_ground(f, "M")->panel, s.d().meetings[0]);
    for (const Finding& left : s.said("mark-missed")) EXPECT_NE(left.about.size, "M");
    s.d().placing.across = Length{};
    s.d().placing.centre = Centre::marked;
    s.order.art[0].marked_centre = Point{0.6, 0.5};
    EXPECT_TRUE(s.said("mark-missed").empty()) << "the mark is the centre, on every size";
    s.d().meetings = {{"nose", "centre line"}};
    EXPECT_FALSE(s.said("mark-unknown").empty());
    says_what_to_do(s.said("mark-unknown"));
}

TEST(FitFindings, DesignsOnOnePanelKeepApart) {
    Scene s;
    Decoration chest = new_decoration(s.order, s.d().run, Location::left_chest, s.order.art[0]);
    chest.id = "chest";
    s.order.decorations.push_back(chest);
    const FitPlan plan = fit(s.order, s.facts);
    const DecorationFit& second = plan.decorations[1];
    // whatever the width, it keeps its 15 mm, or it says that it cannot
    for (const SizeFit& at : second.sizes) {
        const SizeFit& first = *find_size(plan.decorations[0], at.size);
        const double apart = distance(placed_outline(s.art().outline, first), placed_outline(s.art().outline, at));
        const bool said = std::any_of(second.findings.begin(), second.findings.end(), [&](const Finding& f) {
            return f.about.size == at.size && finding_text(f, Unit::mm).find("design “Corner”") != std::string::npos;
        });
        EXPECT_TRUE(apart >= 14.4 || said) << at.size << " " << apart;
    }
    // far below, nothing is said, and moving the first does not touch what lies on the back
    s.order.decorations[1].location = Location::full_back;
    const FitPlan before = fit(s.order, s.facts);
    for (const Finding& f : before.decorations[1].findings) EXPECT_EQ(finding_text(f, Unit::mm).find("design “"), std::string::npos);
    Order moved_on = s.order;
    moved_on.decorations[0].placing.offset += Length::from_mm(30);
    const FitPlan after = refit(moved_on, s.facts, s.order, before);
    EXPECT_EQ(after.decorations[1].sizes[0].ink, before.decorations[1].sizes[0].ink);
}

TEST(FitFindings, WhatLiesAheadIsFittedAnew) {
    Scene s;
    Decoration chest = new_decoration(s.order, s.d().run, Location::left_chest, s.order.art[0]);
    chest.id = "chest";
    s.d().sizing.base_width = Length::from_mm(60);
    s.order.decorations.push_back(chest);
    const FitPlan before = fit(s.order, s.facts);
    Order next = s.order;
    next.decorations[0].sizing.base_width = Length::from_mm(260);
    const FitPlan quick = refit(next, s.facts, s.order, before), whole = fit(next, s.facts);
    for (std::size_t i = 0; i < 2; ++i)
        for (std::size_t k = 0; k < whole.decorations[i].sizes.size(); ++k)
            EXPECT_EQ(quick.decorations[i].sizes[k].limit, whole.decorations[i].sizes[k].limit);
}

TEST(Sharing, IsProposedWhereItCostsLittleAndThenPrintedOnce) {
    Scene s;
    for (const char* size : {"S", "M", "L", "XL"}) s.order.lines.push_back({"long-sleeve-tee", "ash", size, 3, ""});
    Decoration twin = new_decoration(s.order, {"long-sleeve-tee", "ash"}, Location::full_front, s.order.art[0]);
    twin.id = "twin";
    twin.sizing = s.d().sizing;
    twin.sizing.school = s.d().sizing.school = SizingSchool::one_size;
    twin.sizing.price = s.d().sizing.price = 1;
    twin.sizing.base_width = s.d().sizing.base_width + Length::from_mm(10);
    s.order.decorations.push_back(twin);
    const FitPlan plan = fit(s.order, s.facts);
    const double a = plan.decorations[0].bands[0].width, b = plan.decorations[1].bands[0].width;
    ASSERT_GT(b, a);
    const auto list = sharing_proposals(s.order, plan);
    ASSERT_EQ(list.size(), 1u);
    EXPECT_EQ(list[0].decoration, "twin");
    EXPECT_EQ(list[0].with, "front");
    // by hand: Σ q ((ideal − to)/ideal)² − Σ q ((ideal − from)/ideal)²
    double cost = 0;
    for (const SizeFit& z : plan.decorations[1].sizes)
        cost += z.quantity * (std::pow((z.ideal - a) / z.ideal, 2) - std::pow((z.ideal - b) / z.ideal, 2));
    EXPECT_NEAR(list[0].cost, cost, 1e-9);
    const Order shared = with_sharing(s.order, plan, list[0]);
    const FitPlan then = fit(shared, s.facts);
    EXPECT_EQ(then.decorations[1].bands[0].width, a);
    EXPECT_TRUE(then.decorations[1].bands[0].shared);
    EXPECT_TRUE(sharing_proposals(shared, then).empty());
    s.d().sizing.price = 0;
    s.order.decorations[1].sizing.price = 0;
    EXPECT_TRUE(sharing_proposals(s.order, fit(s.order, s.facts)).empty()) << "a transfer that costs nothing is not worth sharing";
}

}  // namespace TESTED
}  // namespace orthema
