// The simulated printer and cutter on sheets as they are exported.
#include <cmath>

#include "core/sheets/cut_path.h"
#include "core/sheets/sheet_drawing.h"
#include "devices/cutter.h"
#include "devices/printer.h"
#include "files/page_export.h"
#include "support/laid_order.h"

namespace orthema {
namespace TESTED {

struct Printed : test::LaidOrder {
    explicit Printed(MirrorBy mirror = MirrorBy::program) : LaidOrder("film-330", mirror) {}
    [[nodiscard]] Sheet sheet() const { return sheet_plan(order, set).media.at(0).sheets.at(0); }
    [[nodiscard]] PrintReport print(const PrinterSetup& setup, double dpi = 75) const {
        SimulatedPrinter printer(setup);
        const Sheet s = sheet();
        const auto refused = printer.begin(print_job(order, set, s, dpi));
        EXPECT_FALSE(refused) << *refused;
        const auto drawn = draw_rows(sheet_page(order, s, set), art, dpi,
                                     [&](const PixelBand& b) { return printer.rows(b.pixels, b.width, b.first, b.rows); });
        EXPECT_TRUE(drawn);
        return printer.end();
    }
    [[nodiscard]] std::optional<std::string> refused(const PrinterSetup& setup) const {
        return SimulatedPrinter(setup).begin(print_job(order, set, sheet(), 300));
    }
};

TEST(Printer, TimeAndInkAreWhatTheSheetHolds) {
    const Printed p;
    const PrintReport r = p.print({});
    EXPECT_TRUE(r.finished);
    EXPECT_NEAR(r.printed_length, p.sheet().length, 0.4);
    double ink = 0;
    for (const PlacedCopy& c : p.sheet().copies) ink += area(find_transfer(p.set, c.transfer)->shape);
    const PrinterSetup setup;
    EXPECT_NEAR(r.ink_ml, ink / 1e4 * setup.ink_ml_a_dm2, 0.06 * r.ink_ml) << "the sheet's name in the margin besides";
    EXPECT_NEAR(r.seconds, r.printed_length / (setup.mm_a_second * 300 / 75), 1e-6);
    EXPECT_EQ(r.outside_mm2, 0);
    EXPECT_EQ(std::count(r.survives.begin(), r.survives.end(), 1), static_cast<std::ptrdiff_t>(p.sheet().copies.size()));
}

TEST(Printer, RefusesWhatWouldComeOutWrong) {
    const Printed p;
    PrinterSetup setup;
    EXPECT_FALSE(p.refused(setup));
    setup.widest = Length::from_mm(300);
    EXPECT_NE(p.refused(setup)->find("up to 300 mm"), std::string::npos);
    setup = {};
    setup.edge = Length::from_mm(20);
    EXPECT_NE(p.refused(setup)->find("outer 20 mm"), std::string::npos);
    setup = {};
    setup.mirrors = true;
    EXPECT_NE(p.refused(setup)->find("mirrored already"), std::string::npos);
    EXPECT_NE(Printed(MirrorBy::printer_software).refused({})->find("expects the printer's software"), std::string::npos);
    EXPECT_FALSE(Printed(MirrorBy::printer_software).refused(setup));
    EXPECT_NE(Printed(MirrorBy::nobody).refused(setup)->find("as it reads"), std::string::npos);
}

TEST(Printer, AfterAFailureOnlyTheRestIsLaidOutAgain) {
    Printed p;
    const Sheet whole = p.sheet();
    PrinterSetup setup;
    setup.fails_after = Length::from_mm(whole.length * 0.55);
    const PrintReport r = p.print(setup);
    EXPECT_FALSE(r.finished);
    EXPECT_LE(r.printed_length, whole.length * 0.55);
    int survivors = 0;
    for (std::size_t i = 0; i < whole.copies.size(); ++i) {
        const PlacedCopy& c = whole.copies[i];
        const double end = bounds(mapped(find_transfer(p.set, c.transfer)->contour.outer, copy_map(c))).x1;
        EXPECT_EQ(r.survives[i] != 0, end <= r.printed_length + 1e-6);
        survivors += r.survives[i];
    }
    ASSERT_GT(survivors, 0);
    ASSERT_LT(survivors, static_cast<int>(whole.copies.size()));
    p.order = with_layout(p.order, after_print(layout_of(p.order, p.medium_id), p.set, whole, r.survives));
    EXPECT_EQ(sheet_plan(p.order, p.set).media.at(0).asked, static_cast<int>(whole.copies.size()) - survivors);
    EXPECT_EQ(sheet_plan(p.order, p.set).media.at(0).printed, survivors);
    p.settle();
    const MediumPlan plan = sheet_plan(p.order, p.set).media.at(0);
    EXPECT_FALSE(plan.stale);
    EXPECT_EQ(plan.placed, static_cast<int>(whole.copies.size()) - survivors);
    EXPECT_LT(plan.length, whole.length);
}

TEST(Cutter, FollowsThePathAndFindsALineThroughInk) {
    const Printed p;
    const Sheet s = p.sheet();
    const auto steps = cut_path(cut_contours(s, p.set));
    const Region ink = printed_ink(p.set, s);
    SimulatedCutter cutter({});
    const auto report = cutter.cut(cut_plt(steps, s.length), s.width, s.length, ink);
    ASSERT_TRUE(report) << report.sentence();
    double way = 0;
    for (const CutStep& c : steps)
        for (std::size_t i = 0; i < c.ring.size(); ++i) way += norm(c.ring[(i + 1) % c.ring.size()] - c.ring[i]);
    EXPECT_NEAR(report->cut_mm, way, 0.01 * way);
    EXPECT_EQ(report->contours, static_cast<int>(steps.size()));
    EXPECT_TRUE(report->crossings.empty()) << worded(report->says, Unit::mm);
    // ink moved by more than its margin is cut through
    const auto moved = cutter.cut(cut_plt(steps, s.length), s.width, s.length, mapped(ink, Affine::shift(4, 0)));
    ASSERT_TRUE(moved);
    EXPECT_FALSE(moved->crossings.empty());
    EXPECT_NE(worded(moved->says, Unit::mm).find("cross ink"), std::string::npos);
    EXPECT_NE(cutter.cut(cut_plt(steps, s.length), s.width, s.length / 3, ink).sentence().find("leaves the sheet"), std::string::npos);
    for (const char* broken : {"PD12", "IN;XX1,2;", "PU1,2,3;", "PDx,y;", ";;P"})
        EXPECT_NE(cutter.cut(broken, 100, 100, {}).sentence().find("cannot read"), std::string::npos) << broken;
}

}  // namespace TESTED
}  // namespace orthema
