// A snipped cap film on its way out: on the cut lines before its contour, never through ink, and on a page at 1:1.
#include <regex>

#include "core/papers/snip_pages.h"
#include "core/pipeline/work.h"
#include "core/sheets/lay_out.h"
#include "core/sheets/sheet_drawing.h"
#include "devices/cutter.h"
#include "files/order_file.h"
#include "files/page_export.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

/// The race team's caps, laid out as the demo has them.
struct Caps {
    OrderPackage package = *open_order(test::source("demo/kite-race.orthema"));
    Work made;
    const Sheet* sheet = nullptr;
    const Transfer* cap = nullptr;
    Caps() {
        made = work(package.order, {}, read_all_art(package.order, package.art).known);
        for (const Transfer& t : made.transfer_set().transfers)
            if (!t.snips.empty()) cap = &t;
        for (const auto& medium : made.sheet_plan().media)
            for (const Sheet& s : medium.sheets)
                for (const PlacedCopy& c : s.copies)
                    if (cap != nullptr && c.transfer == cap->id) sheet = &s;
    }
};

TEST(SnippedFilm, IsCutBeforeItsContourAndNeverThroughInk) {
    const Caps c;
    ASSERT_NE(c.cap, nullptr);
    ASSERT_NE(c.sheet, nullptr) << "it is laid out";
    const auto steps = sheet_cuts(*c.sheet, c.made.transfer_set());
    std::size_t copies = 0, open = 0;
    for (const PlacedCopy& p : c.sheet->copies) copies += p.transfer == c.cap->id ? 1 : 0;
    for (std::size_t i = 0; i < steps.size(); ++i) {
        if (!steps[i].open) continue;
        ++open;
        for (std::size_t k = 0; k < i; ++k) EXPECT_FALSE(!steps[k].open && inside(steps[k].ring, steps[i].ring.back())) << "cut out before";
    }
    EXPECT_EQ(open, copies * c.cap->snips.size());
    const auto report = SimulatedCutter({}).cut(cut_plt(steps, c.sheet->length), c.sheet->width, c.sheet->length,
                                                printed_ink(c.made.transfer_set(), *c.sheet));
    ASSERT_TRUE(report) << report.sentence();
    EXPECT_TRUE(report->crossings.empty()) << worded(report->says, Unit::mm);

    const test::Folder folder;
    ASSERT_TRUE(write_cut_svg(folder / "c.svg", steps, c.sheet->width, c.sheet->length, "caps", {}));
    ASSERT_TRUE(write_cut_dxf(folder / "c.dxf", steps, c.sheet->length, {}));
    const auto count = [](const std::string& text, const std::string& of) {
        const std::regex found(of);
        return static_cast<std::size_t>(std::distance(std::sregex_iterator(text.begin(), text.end(), found), std::sregex_iterator()));
    };
    const std::string svg = test::slurp(folder / "c.svg"), dxf = test::slurp(folder / "c.dxf");
    EXPECT_EQ(count(svg, "class=\"snip\" d=\"M[^L]*L[^LZ]*\"/>"), open) << "open, of two points";
    EXPECT_EQ(count(dxf, "POLYLINE\n8\nSNIP\n66\n1\n70\n0\n"), open);
    EXPECT_EQ(test::run("xmllint --noout '" + (folder / "c.svg") + "'").code, 0);
}

TEST(SnippedFilm, HasAPageThatMeasuresTrue) {
    Caps c;
    const auto pages = snip_pages(c.package.order, c.made.transfer_set());
    ASSERT_EQ(pages.size(), 1U);
    const test::Folder folder;
    ASSERT_TRUE(write_png(folder / "page.png", pages[0].drawing, {}, 254));
    const test::Canvas seen = test::read_png(folder / "page.png");
    // of the snips' own colour only: as many columns of them as there are snips, each as long as its line
    std::vector<int> down(static_cast<std::size_t>(seen.width), 0);
    for (int x = 0; x < seen.width; ++x)
        for (int y = 0; y < seen.height; ++y) {
            const std::uint8_t* p = seen.at(x, y);
            if (std::abs(p[0] - 181) + std::abs(p[1] - 85) + std::abs(p[2] - 60) < 12) ++down[std::size_t(x)];
        }
    for (const Ring& snip : c.cap->snips) {
        const double mm = norm(snip[1] - snip[0]);
        const bool found = std::any_of(down.begin(), down.end(), [&](int n) { return std::abs(n / 10.0 - mm) < 0.3; });
        EXPECT_TRUE(found) << mm << " mm";
    }
}

TEST(InsideOut, EachReversibleIsTurnedOnceAndByHandAsOftenAsItsOrderAsks) {
    Caps c;
    const auto turned = [&](const Order& order) {
        const Work w = work(order, {}, read_all_art(c.package.order, c.package.art).known);
        int pieces = 0;
        std::set<std::string> seen_other;  // pieces whose other layer is out
        for (const Load& load : w.press_plan().loads) {
            const bool other = side_of(find_decoration(order, load.decoration)->location).inside_out;
            for (const int t : load.tasks)
                for (const ActInfo& a : w.press_plan().tasks[std::size_t(t)].acts)
                    pieces += a.kind == ActKind::inside_out ? load.pieces : 0;
            const std::string piece = load.size + load.id.substr(load.id.rfind('/'));
            if (other) seen_other.insert(piece);
        }
        EXPECT_EQ(seen_other.size(), 14U);
        return pieces;
    };
    EXPECT_EQ(turned(c.package.order), 14) << "14 jerseys, once each";
    Order by_hand = c.package.order;
    std::string front, other, back;
    for (const Decoration& d : by_hand.decorations) {
        if (d.location == Location::centre_chest) front = d.id;
        if (d.location == Location::reverse_front) other = d.id;
        if (d.location == Location::full_back) back = d.id;
    }
    by_hand.press_run.order = {front, other, back};
    EXPECT_EQ(turned(by_hand), 28) << "out and back again";
}

}  // namespace TESTED
}  // namespace orthema
