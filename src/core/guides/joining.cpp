#include "core/guides/joining.h"

#include <algorithm>
#include <cmath>

#include "core/guides/panel_drawing.h"
#include "core/order/roster.h"

namespace orthema {

std::vector<GuidePage> joining_pages(const Order& order, const FitPlan& plan) {
    const PaperSize paper = paper_size(order.paper);
    constexpr double left = 16, foot = 18, gap = 8, small = 3, words = 3.4;
    constexpr int columns = 3;
    const double cell = (paper.width - 2 * left - (columns - 1) * gap) / columns, tall = cell * 0.55;
    std::vector<GuidePage> pages;
    double y = 0;
    const auto next_page = [&] {
        GuidePage p;
        p.title = phrase("page-joining");
        p.drawing.width = paper.width;
        p.drawing.height = paper.height;
        p.drawing.text({left, 22}, p.title, 7.5, palette::ink, Align::left, true);
        p.drawing.text({paper.width - left, 22}, date_line(order), 3.6, palette::quiet, Align::right);
        y = wrapped(p.drawing, {left, 30}, phrase("page-joined", {{"unit", std::string(order.unit == Unit::inch ? "in" : "mm")}}), words,
                    paper.width - 2 * left, palette::ink) +
            2;
        pages.push_back(std::move(p));
    };
    const auto figure = [&](double mm) {
        return length_text(Length::from_mm(std::abs(mm)), order.unit, false) + (mm < 0 ? " left" : " right");
    };
    for (const DecorationFit& fit : plan.decorations) {
        const Decoration* d = find_decoration(order, fit.decoration);
        if (d == nullptr) continue;
        for (const SizeFit& size : fit.sizes) {
            if (size.joinings.empty()) continue;
            for (std::size_t i = 0; i < size.joinings.size(); ++i) {
                const bool begins = i % columns == 0;
                if (pages.empty() || (begins && y + tall + 22 > paper.height - foot)) next_page();
                Drawing& page = pages.back().drawing;
                if (i == 0) {
                    page.text({left, y + 4}, d->name + ", " + run_name(order, d->run) + " " + size.size, 4, palette::ink, Align::left,
                              true);
                    y += 8;
                }
                const Joining& j = size.joinings[i];
                const double k = std::min(cell / std::max(size.ink.width(), j.ink.width()), tall / size.ink.height());
                const double x = left + static_cast<double>(i % columns) * (cell + gap), middle = x + cell / 2,
                             base = y + k * size.ink.height();
                const Affine map{k, 0, 0, k, middle - k * size.ink.centre().x, base - k * size.ink.y1};
                page.rect({x, y - 2, x + cell, base}, cloth_of(order, *d));  // or light digits would not be seen
                draw_design(page, word_art(d->art, j.number), j.ink, map);
                page.line({{x, base}, {x + cell, base}}, {palette::verdigris, 0.4, {}});
                page.line({{middle, y - 2}, {middle, base + 3}}, {palette::brick, 0.3, {2, 1.5}});
                for (std::size_t n = 0; n < j.lefts.size(); ++n) {
                    const double at = middle + k * j.lefts[n];
                    const double under = base + 3 + 3.6 * static_cast<double>(n % 2);
                    page.line({{at, base}, {at, under}}, {palette::ink, 0.25, {}});
                    page.text({at + 0.8, under + 1.6}, j.number.substr(n, 1) + ": " + figure(j.lefts[n]), small, palette::ink);
                }
                if (i % columns == columns - 1 || i + 1 == size.joinings.size()) y += k * size.ink.height() + 16;
            }
        }
    }
    number_pages(pages, paper, paper.width - left);
    return pages;
}

}  // namespace orthema
