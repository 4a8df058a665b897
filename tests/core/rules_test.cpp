// Design rules: the same design on many lots is one thing, until somebody wants it otherwise.
#include "core/order/rules.h"

#include <limits>
#include <random>
#include <set>

#include "core/fitting/cutting.h"
#include "core/order/edit.h"
#include "core/order/lots.h"
#include "core/order/pieces.h"
#include "core/transfers/choices.h"
#include "files/library.h"
#include "files/order_file.h"
#include "files/order_json.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

/// Tees in two colours of which other sizes are ordered, a tank, youth tees, and things that lack most locations.
struct Many {
    Order order = test::small_order();
    ArtFactsById facts;
    RunKey navy{"adult-tee", "navy"}, ash{"adult-tee", "ash"}, tank{"adult-tank", ""}, youth{"youth-tee", ""}, mug{"mug", ""},
        hood{"hooded-fleece", ""};
    Many() {
        order.styles = starting_library().styles;
        order.presses = starting_library().presses;
        order.decorations.clear();
        order.lines = {{"adult-tee", "navy", "S", 9, ""}, {"adult-tee", "navy", "M", 9, ""},  {"adult-tee", "navy", "3XL", 1, ""},
                       {"adult-tee", "ash", "XL", 5, ""}, {"adult-tee", "ash", "2XL", 5, ""}, {"adult-tee", "ash", "M", 1, ""},
                       {"adult-tank", "", "M", 4, ""},    {"adult-tank", "", "L", 4, ""},     {"youth-tee", "", "S", 6, ""},
                       {"youth-tee", "", "L", 6, ""},     {"mug", "", "325 ml", 3, ""},       {"hooded-fleece", "", "L", 3, ""}};
        order = numbered(order);
        facts[order.art[0].id] = test::plain_facts(0.6);
        Art second = order.art[0];
        second.id = second.name = "second";
        order.art.push_back(second);
        facts["second"] = test::plain_facts(0.6);
    }
    [[nodiscard]] const Decoration* on(const Order& o, const RunKey& run) const {
        for (const Decoration& d : o.decorations)
            if (d.run == run) return &d;
        return nullptr;
    }
    [[nodiscard]] double width(const Order& o, const RunKey& run, const std::string& size) const {
        const FitPlan plan = fit(o, facts);
        return find_size(*find_fit(plan, on(o, run)->id), size)->width;
    }
};

bool says(const Findings& all, const char* code) {
    return std::any_of(all.begin(), all.end(), [&](const Finding& f) { return f.code == code; });
}

TEST(Rules, TheSameDesignOnTheSameBlankIsTheSameInEveryColour) {
    Many m;
    Order o = with_new_design(m.order, m.navy, Location::full_front, m.order.art[0]);
    o = with_new_design(o, m.ash, Location::full_front, m.order.art[0]);
    ASSERT_EQ(o.rules.size(), 1U);
    EXPECT_EQ(m.on(o, m.navy)->sizing.base_size, m.on(o, m.ash)->sizing.base_size);
    EXPECT_DOUBLE_EQ(m.width(o, m.navy, "M"), m.width(o, m.ash, "M"));
    EXPECT_FALSE(says(fit(o, m.facts).findings, "same-differs"));
    // what is ordered has no say in it
    const double before = m.on(o, m.navy)->sizing.base_width.mm();
    o = with_quantity(o, m.navy, "4XL", 30);
    EXPECT_EQ(m.on(o, m.navy)->sizing.base_width.mm(), before);
    EXPECT_DOUBLE_EQ(m.width(o, m.navy, "M"), m.width(o, m.ash, "M"));
}

TEST(Rules, ADifferenceThatNobodyAskedForIsNamedWithItsFigure) {
    Many m;
    Order o = m.order;
    for (const RunKey& run : {m.navy, m.ash}) {
        Decoration d = new_decoration(o, run, Location::full_front, o.art[0]);
        d.sizing.school = SizingSchool::graded;
        d.sizing.base_width = Length::from_mm(run == m.navy ? 200 : 180);
        o.decorations.push_back(d);
    }
    const FitPlan plan = fit(o, m.facts);
    ASSERT_TRUE(says(plan.findings, "same-differs"));
    for (const Finding& f : plan.findings)
        if (f.code == "same-differs")
            EXPECT_NE(finding_text(f, Unit::mm).find("is 180 mm wide, and 200 mm"), std::string::npos) << finding_text(f, Unit::mm);
    // asked for, it is no news
    Order asked = o;
    asked.decorations[1].pins = {{"M", Length::from_mm(180), {}, {}}};
    EXPECT_FALSE(says(fit(asked, m.facts).findings, "same-differs"));
    const Order one = with_one_rule(o, o.decorations[0].id);
    EXPECT_FALSE(says(fit(one, m.facts).findings, "same-differs"));
    EXPECT_EQ(m.width(one, m.ash, "M"), 200);
}

TEST(Rules, PutOnManyAtOnceAndWhatCannotTakeItIsSaid) {
    Many m;
    std::string id;
    Order o = with_new_design(m.order, m.navy, Location::left_sleeve, m.order.art[0], &id);
    std::vector<PassedOver> passed;
    o = with_design_on(o, id, runs_of(o), &passed);
    EXPECT_EQ(o.rules.size(), 1U);
    std::set<RunKey> carry;
    for (const Decoration& d : o.decorations) carry.insert(d.run);
    EXPECT_EQ(carry, (std::set<RunKey>{m.navy, m.ash, m.youth, m.hood}));
    ASSERT_EQ(passed.size(), 2U);
    for (const PassedOver& p : passed)
        EXPECT_NE(worded(p.why, Unit::mm).find("has no left sleeve"), std::string::npos) << worded(p.why, Unit::mm);
    // a class of its own, in proportion: smaller on the young
    EXPECT_LT(m.on(o, m.youth)->sizing.base_width, m.on(o, m.navy)->sizing.base_width);
    EXPECT_EQ(o.rules[0].bases.size(), 2U);
    // again changes nothing, and off is off
    EXPECT_EQ(with_design_on(o, id, runs_of(o)), o);
    const Order off = with_design_off(o, id, {m.ash, m.hood});
    EXPECT_EQ(off.decorations.size(), 2U);
    EXPECT_EQ(with_design_off(o, id, runs_of(o)).rules.size(), 0U);
}

TEST(Rules, AChangeOnAnyGarmentMovesAllAndALotMayPartAndComeBack) {
    Many m;
    std::string id;
    Order o = with_new_design(m.order, m.navy, Location::full_front, m.order.art[0], &id);
    o = with_design_on(o, id, {m.ash, m.tank, m.youth});
    const double youth = m.on(o, m.youth)->sizing.base_width.mm();
    Decoration d = *m.on(o, m.ash);
    d.sizing.base_width = Length::from_mm(231);
    d.placing.offset = Length::from_mm(63);
    o = with_decoration(o, d);
    for (const RunKey& run : {m.navy, m.ash, m.tank}) {
        EXPECT_EQ(m.on(o, run)->sizing.base_width.mm(), 231);
        EXPECT_EQ(m.on(o, run)->placing.offset.mm(), 63);
    }
    EXPECT_EQ(m.on(o, m.youth)->sizing.base_width.mm(), youth) << "another class keeps its base figures";
    d = *m.on(o, m.youth);
    d.sizing.school = SizingSchool::graded;
    d.placing.growth = 0.25;
    o = with_decoration(o, d);
    EXPECT_EQ(m.on(o, m.navy)->sizing.school, SizingSchool::graded) << "schools hold for all";
    EXPECT_EQ(m.on(o, m.navy)->placing.growth, 0.25);

    const Order together = o;
    o = with_departure(o, m.on(o, m.ash)->id);
    d = *m.on(o, m.ash);
    d.sizing.base_width = Length::from_mm(120);
    o = with_decoration(o, d);
    EXPECT_EQ(m.on(o, m.ash)->sizing.base_width.mm(), 120);
    EXPECT_EQ(m.on(o, m.navy)->sizing.base_width.mm(), 231);
    EXPECT_EQ(with_return(o, d.id), together);
}

TEST(Rules, APictureIsChangedEverywhereOrOnOneLotAlone) {
    Many m;
    std::string id;
    Order o = with_new_design(m.order, m.navy, Location::full_front, m.order.art[0], &id);
    o = with_design_on(o, id, {m.ash, m.tank});
    const Art& second = m.order.art[1];
    const Order all = with_picture(o, id, second, true);
    for (const Decoration& d : all.decorations) EXPECT_EQ(d.art, "second");
    const Order alone = with_picture(o, m.on(o, m.ash)->id, second, false);
    EXPECT_EQ(alone.rules.size(), 2U);
    EXPECT_EQ(m.on(alone, m.ash)->art, "second");
    EXPECT_EQ(m.on(alone, m.navy)->art, o.art[0].id);
    EXPECT_EQ(m.on(alone, m.ash)->sizing, m.on(alone, m.navy)->sizing) << "the figures stay";
    // the next lot with that picture comes under the same rule
    const Order two = with_picture(alone, m.on(alone, m.tank)->id, second, false);
    EXPECT_EQ(two.rules.size(), 2U);
}

TEST(Rules, MovedToAnotherPlaceWhatLacksItStays) {
    Many m;
    std::string id;
    Order o = with_new_design(m.order, m.navy, Location::full_front, m.order.art[0], &id);
    o = with_design_on(o, id, {m.ash, m.tank});
    std::vector<PassedOver> passed;
    o = with_design_moved(o, id, Location::left_sleeve, &passed);
    EXPECT_EQ(m.on(o, m.navy)->location, Location::left_sleeve);
    EXPECT_EQ(m.on(o, m.ash)->location, Location::left_sleeve);
    EXPECT_EQ(m.on(o, m.tank)->location, Location::full_front);
    EXPECT_LT(m.on(o, m.navy)->sizing.base_width.mm(), 0.75 * m.on(o, m.tank)->sizing.base_width.mm()) << "a sleeve takes less";
    ASSERT_EQ(passed.size(), 1U);
    EXPECT_EQ(passed[0].run, m.tank);
    EXPECT_EQ(followed(o), o);
}

TEST(Rules, AfterAnyRowOfEditsEveryFollowerHasItsRulesFiguresAndTheFileSaysTheSame) {
    std::mt19937 random(23);
    const auto pick = [&](std::size_t n) { return static_cast<std::size_t>(random() % n); };
    Many m;
    std::string id;
    Order o = with_new_design(m.order, m.navy, Location::full_front, m.order.art[0], &id);
    for (int round = 0; round < test::rounds(200, 5000); ++round) {
        const auto runs = runs_of(o);
        const RunKey run = runs[pick(runs.size())];
        if (o.decorations.empty()) o = with_new_design(o, m.navy, Location::full_front, o.art[0]);
        const Decoration d = o.decorations[pick(o.decorations.size())];
        Decoration next = d;
        switch (random() % 12) {
        case 0: next.sizing.base_width = Length::from_mm(40 + static_cast<double>(pick(300))); break;
        case 1: next.placing.offset = Length::from_mm(static_cast<double>(pick(150))); break;
        case 2: next.placing.school = static_cast<PlacingSchool>(pick(placing_school_count)); break;
        case 3: next.sizing.base_size = find_style(o, d.run.style)->sizes[pick(find_style(o, d.run.style)->sizes.size())]; break;
        case 4: next.sizing.measure = static_cast<Measure>(pick(6)); break;
        case 5: o = with_design_on(o, d.id, {run, runs[pick(runs.size())]}); break;
        case 6: o = with_design_off(o, d.id, {run}); break;
        case 7: o = with_departure(o, d.id); break;
        case 8: o = with_return(o, d.id); break;
        case 9: o = with_picture(o, d.id, o.art[pick(2)], random() % 2 == 0); break;
        case 10: o = with_new_design(o, run, locations_of(*find_style(o, run.style)).front(), o.art[pick(2)]); break;
        default: {
            const auto where = locations_of(*find_style(o, d.run.style));
            o = with_design_moved(o, d.id, where[pick(where.size())]);
        }
        }
        if (next != d) o = with_decoration(o, next);
        ASSERT_EQ(followed(o), o) << "after edit " << round;
        const auto read = order_from_json(to_json(o));
        ASSERT_TRUE(read.ok()) << read.error().sentence;
        ASSERT_EQ(*read, o) << "after edit " << round;
        std::set<std::string> ids;
        for (const Decoration& one : o.decorations) EXPECT_TRUE(ids.insert(one.id).second);
    }
}

TEST(Rules, BaseFiguresAreOfAClassAndOfABaseSizeThatCanBeChosen) {
    Many m;
    std::string id;
    Order o = with_new_design(m.order, m.navy, Location::full_front, m.order.art[0], &id);
    o = with_design_on(o, id, {m.ash, m.tank, m.youth});
    ClassBase adult = *find_base(o.rules[0], {AgeGroup::adult, {}});
    adult.width = Length::from_mm(240);
    o = with_class_base(o, o.rules[0].id, adult);
    for (const RunKey& run : {m.navy, m.ash, m.tank}) EXPECT_EQ(m.on(o, run)->sizing.base_width.mm(), 240);
    EXPECT_NE(m.on(o, m.youth)->sizing.base_width.mm(), 240);
    // another base size for tees: for both colours, and not for the tank
    Decoration d = *m.on(o, m.ash);
    d.sizing.base_size = "XL";
    o = with_decoration(o, d);
    EXPECT_EQ(m.on(o, m.navy)->sizing.base_size, "XL");
    EXPECT_EQ(m.on(o, m.tank)->sizing.base_size, "M");
    d.sizing.base_size = "M";
    o = with_decoration(o, d);
    EXPECT_TRUE(o.rules[0].base_sizes.empty()) << "the usual one needs no entry";
}

TEST(Rules, WhatALotCannotHangFromIsSaidAndItHangsAsUsual) {
    Many m;
    std::string id;
    Order o = with_new_design(m.order, m.hood, Location::full_front, m.order.art[0], &id);
    Decoration d = *m.on(o, m.hood);
    d.placing.school = PlacingSchool::feature;
    d.placing.landmark = "pouch seam";
    d.placing.offset = Length::from_mm(40);
    o = with_decoration(o, d);
    o = with_design_on(o, id, {m.navy});
    EXPECT_EQ(m.on(o, m.navy)->placing.school, PlacingSchool::collar_drop);
    EXPECT_TRUE(says(rule_findings(o), "rule-hangs-otherwise"));
    // dragged there, it has figures of its own: the fleece stays where it is
    d = *m.on(o, m.navy);
    d.placing.offset = Length::from_mm(99);
    o = with_decoration(o, d);
    EXPECT_TRUE(m.on(o, m.navy)->departs);
    EXPECT_EQ(m.on(o, m.navy)->placing.offset.mm(), 99);
    EXPECT_EQ(m.on(o, m.hood)->placing.landmark, "pouch seam");
    EXPECT_FALSE(says(rule_findings(o), "rule-hangs-otherwise"));
}

TEST(Rules, PinsAreOfOneLotAndStayWhenTheRuleChanges) {
    Many m;
    std::string id;
    Order o = with_new_design(m.order, m.navy, Location::full_front, m.order.art[0], &id);
    o = with_design_on(o, id, {m.ash});
    Decoration d = *m.on(o, m.ash);
    d.pins = {{"M", Length::from_mm(111), {}, {}}};
    o = with_decoration(o, d);
    EXPECT_TRUE(m.on(o, m.navy)->pins.empty());
    d = *m.on(o, m.navy);
    d.sizing.base_width = Length::from_mm(222);
    o = with_decoration(o, d);
    EXPECT_EQ(m.on(o, m.ash)->sizing.base_width.mm(), 222);
    ASSERT_EQ(m.on(o, m.ash)->pins.size(), 1U);
    EXPECT_EQ(m.width(o, m.ash, "M"), 111);
    EXPECT_NE(m.width(o, m.navy, "M"), 111);
    EXPECT_FALSE(says(fit(o, m.facts).findings, "same-differs")) << "it was asked for";
}

TEST(Rules, ARuleGoesWithItsLastDesignAndAPartedLotKeepsIt) {
    Many m;
    std::string id;
    Order o = with_new_design(m.order, m.navy, Location::full_front, m.order.art[0], &id);
    RunKey made;
    o = with_lot_parted(o, m.navy, {"late", {{"M", 2}}}, &made);
    ASSERT_NE(m.on(o, made), nullptr);
    EXPECT_EQ(m.on(o, made)->rule, m.on(o, m.navy)->rule);
    EXPECT_EQ(m.width(o, made, "M"), m.width(o, m.navy, "M"));
    o = without_decoration(o, m.on(o, m.navy)->id);
    EXPECT_EQ(o.rules.size(), 1U);
    EXPECT_TRUE(with_lot_joined(o, made).rules.empty());
    EXPECT_TRUE(without_art(o, o.art[0].id).rules.empty());
    EXPECT_TRUE(without_run(o, made).rules.empty());
}

/// Two blanks with these ideals and no limit within reach.
struct TwoBlanks {
    BlankStyle tee, tank;
    Decoration rule;
    DecorationFit fits[2];
    TwoBlanks(const std::vector<double>& a, const std::vector<double>& b) {
        tee.id = tee.name = "tee";
        tank.id = tank.name = "tank";
        const auto fill = [](BlankStyle& style, DecorationFit& fit, const std::vector<double>& ideals) {
            for (const double ideal : ideals) {
                style.sizes.push_back("s" + std::to_string(style.sizes.size()));
                SizeFit s;
                s.size = style.sizes.back();
                s.quantity = 5;
                s.ideal = ideal;
                s.limit = 900;
                fit.sizes.push_back(s);
            }
        };
        fill(tee, fits[0], a);
        fill(tank, fits[1], b);
        rule.sizing.step = Length::from_mm(1);
    }
    void cut() { cut_widths({{&rule, &tee, &fits[0]}, {&rule, &tank, &fits[1]}}); }
    [[nodiscard]] std::vector<double> widths(int which) const {
        std::vector<double> out;
        for (const SizeFit& s : fits[which].sizes) out.push_back(s.width);
        return out;
    }
};

TEST(Rules, OneSizeIsTheSmallestOfAllAndGradedKeepsEachItsOwn) {
    TwoBlanks one({200, 220, 240}, {180, 230});
    one.rule.sizing.school = SizingSchool::one_size;
    one.cut();
    EXPECT_EQ(one.widths(0), (std::vector<double>{180, 180, 180}));
    EXPECT_EQ(one.widths(1), (std::vector<double>{180, 180}));
    EXPECT_EQ(binding_text(one.fits[0].sizes[0].limited_by), "smallest (tank s0)");
    TwoBlanks graded({200, 220, 240}, {180, 230});
    graded.rule.sizing.school = SizingSchool::graded;
    graded.cut();
    EXPECT_EQ(graded.widths(0), (std::vector<double>{200, 220, 240}));
    EXPECT_EQ(graded.fits[0].cut.widths, 5);
}

TEST(Rules, CutByHandTheNamedSizesPartTheBandsOnEveryBlank) {
    TwoBlanks t({200, 220, 240}, {195, 223, 238});
    t.rule.sizing.band_starts = {"s2"};
    t.cut();
    EXPECT_EQ(t.widths(0), (std::vector<double>{195, 195, 238}));
    EXPECT_EQ(t.widths(1), (std::vector<double>{195, 195, 238}));
    EXPECT_EQ(t.fits[0].bands.size(), 2U);
    EXPECT_EQ(t.fits[1].bands[0].last, 1);
}

TEST(Rules, SoManyBandsAreSoManyWidthsForAllTogether) {
    TwoBlanks t({200, 220, 240}, {201, 222, 239});
    t.rule.sizing.band_count = 2;
    t.cut();
    std::set<double> widths;
    for (int k = 0; k < 2; ++k)
        for (const double w : t.widths(k)) widths.insert(w);
    EXPECT_EQ(widths.size(), 2U);
    EXPECT_TRUE(t.fits[0].cut.together);
    EXPECT_EQ(t.fits[0].cut.widths_apart, 4);
}

/// Every contiguous partition of the members in the order of their ideals.
double cheapest(const std::vector<BandMember>& of, double step, double price) {
    const auto n = static_cast<unsigned>(of.size());
    double best = std::numeric_limits<double>::infinity();
    for (unsigned cuts = 0; cuts < 1U << (n - 1); ++cuts) {
        double total = 0;
        std::set<long> widths;
        for (unsigned first = 0; first < n;) {
            unsigned last = first + 1;
            while (last < n && (cuts >> (last - 1) & 1U) == 0) ++last;
            double width = std::numeric_limits<double>::infinity();
            for (unsigned i = first; i < last; ++i) width = std::min({width, of[i].ideal_mm, of[i].limit_mm});
            width = rounded_down(width, step);
            total += price;
            for (unsigned i = first; i < last; ++i) total += of[i].quantity * std::pow((of[i].ideal_mm - width) / of[i].ideal_mm, 2);
            first = last;
        }
        best = std::min(best, total);
    }
    return best;
}

TEST(Rules, BandsOverAllLotsOfAClassAreWhatBruteForceFinds) {
    std::mt19937 random(11);
    int together = 0;
    for (int round = 0; round < test::rounds(150, 3000); ++round) {
        // two blanks of up to six sizes each, in one to three lots
        BlankStyle styles[2];
        for (int s = 0; s < 2; ++s) {
            styles[s].id = styles[s].name = s == 0 ? "tee" : "tank";
            for (unsigned i = 0; i < 2 + random() % 5; ++i) styles[s].sizes.push_back("s" + std::to_string(i));
        }
        Decoration rule;
        rule.sizing.price = 0.02 + 0.02 * static_cast<double>(random() % 5);
        std::vector<DecorationFit> fits(2 + random() % 2);
        std::vector<CutLot> lots;
        std::map<std::string, BandMember> members;
        std::vector<double> shift(2);
        for (double& v : shift) v = static_cast<double>(random() % 12);
        for (std::size_t l = 0; l < fits.size(); ++l) {
            const std::size_t s = l % 2;
            for (std::size_t i = 0; i < styles[s].sizes.size(); ++i) {
                SizeFit one;
                one.size = styles[s].sizes[i];
                one.quantity = 1 + static_cast<int>(random() % 9);
                one.ideal = 150 + shift[s] + 17 * static_cast<double>(i);
                one.limit = one.ideal + static_cast<double>(random() % 60) - 8;
                fits[l].sizes.push_back(one);
                BandMember& m = members.try_emplace(styles[s].id + one.size, BandMember{one.ideal, one.limit, 0}).first->second;
                m.limit_mm = std::min(m.limit_mm, one.limit);
                m.quantity += one.quantity;
            }
            lots.push_back({&rule, &styles[s], &fits[l]});
        }
        cut_widths(lots);
        const WidthReport& report = fits[0].cut;
        std::vector<BandMember> all;
        for (const auto& [key, m] : members) all.push_back(m);
        std::sort(all.begin(), all.end(), [](const BandMember& a, const BandMember& b) {
            return std::pair(a.ideal_mm, a.limit_mm) < std::pair(b.ideal_mm, b.limit_mm);
        });
        ASSERT_LE(all.size(), 12U);
        std::set<long> widths;
        double cost = 0;
        std::map<std::string, double> of_size;
        for (std::size_t l = 0; l < fits.size(); ++l)
            for (const SizeFit& s : fits[l].sizes) {
                EXPECT_LE(s.width, std::min(s.ideal, s.limit) + 1e-9);
                widths.insert(std::lround(s.width * 10));
                cost += s.quantity * std::pow((s.ideal - s.width) / s.ideal, 2);
                // one blank, one size: one width in every lot
                const auto [at, fresh] = of_size.try_emplace(lots[l].style->id + s.size, s.width);
                EXPECT_EQ(at->second, s.width);
            }
        EXPECT_EQ(report.widths, static_cast<int>(widths.size()));
        EXPECT_NEAR(report.cost, cost, 1e-9);
        if (!report.together) continue;
        ++together;
        EXPECT_LE(report.widths, report.widths_apart);
        EXPECT_NEAR(report.cost + rule.sizing.price * report.widths, cheapest(all, rule.sizing.step.mm(), rule.sizing.price), 1e-9);
    }
    EXPECT_GT(together, 30);
    EXPECT_LT(together, test::rounds(150, 3000));
}

TEST(Rules, WhatIsPutOnAnotherLotBeginsOnAMediumForItsCloth) {
    Order order = test::small_order();
    adopt_library(order, starting_library());
    order.lines.push_back({"adult-tee", "navy", "M", 4, {}});
    order.decorations[0] = with_medium(order, order.decorations[0], "paper-a3");  // for light cloth
    const ArtFactsById facts = facts_of(load_all_art(order, test::small_art(), nullptr));
    const RunKey navy{"adult-tee", "navy"};
    const Order put = with_design_on(order, order.decorations[0].id, {navy});
    ASSERT_EQ(put.decorations.size(), 2U);
    EXPECT_EQ(find_medium(put, put.decorations[1].medium)->method, "transfer paper, light");
    const Order suited = with_new_ones_suited(put, order, facts);
    EXPECT_EQ(suited.decorations[0], put.decorations[0]) << "what was there stays";
    const Decoration& d = suited.decorations[1];
    const auto fit = fit_decoration(suited, d, facts.at(d.art));
    ASSERT_TRUE(fit);
    EXPECT_TRUE(against(*method_of(suited, d), method_case(suited, d, facts.at(d.art), *fit)).empty()) << d.medium;
}

}  // namespace TESTED
}  // namespace orthema
