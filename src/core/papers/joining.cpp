#include "core/papers/joining.h"

#include <algorithm>
#include <cmath>

#include "core/order/roster.h"
#include "core/papers/flow.h"

namespace orthema {

std::vector<GuidePage> joining_pages(const Order& order, const FitPlan& plan) {
    constexpr double gap = 8, small = 3;
    constexpr int columns = 3;
    Flow f(order, phrase("page-joining", order.unit), date_line(order));
    const double cell = (f.width() - (columns - 1) * gap) / columns, tall = cell * 0.55;
    bool any = false;
    // every page says how it is read
    const auto room_for = [&](double height) {
        const double before = f.y;
        f.need(height);
        if (any && f.y >= before) return;
        f.say(phrase("page-joined", order.unit, {{"unit", std::string(order.unit == Unit::inch ? "in" : "mm")}}));
        f.y += 2;
        any = true;
    };
    const auto figure = [&](double mm) {
        return length_text(Length::from_mm(std::abs(mm)), order.unit, false) + said(order.unit, mm < 0 ? " left" : " right");
    };
    for (const DecorationFit& fit : plan.decorations) {
        const Decoration* d = find_decoration(order, fit.decoration);
        if (d == nullptr) continue;
        for (const SizeFit& size : fit.sizes) {
            if (size.joinings.empty()) continue;
            for (std::size_t i = 0; i < size.joinings.size(); ++i) {
                if (i % columns == 0) room_for(tall + 22);
                Drawing& page = f.on();
                if (i == 0) {
                    page.text({Flow::left, f.y + 4}, d->name + ", " + run_name(order, d->run) + " " + size.size, 4, palette::ink,
                              Align::left, true);
                    f.y += 8;
                }
                const Joining& j = size.joinings[i];
                const double k = std::min(cell / std::max(size.ink.width(), j.ink.width()), tall / size.ink.height());
                const double x = Flow::left + static_cast<double>(i % columns) * (cell + gap), middle = x + cell / 2,
                             base = f.y + k * size.ink.height();
                const Affine map{k, 0, 0, k, middle - k * size.ink.centre().x, base - k * size.ink.y1};
                page.rect({x, f.y - 2, x + cell, base}, cloth_of(order, *d));  // or light digits would not be seen
                draw_design(page, word_art(d->art, j.number), j.ink, map);
                page.line({{x, base}, {x + cell, base}}, {palette::verdigris, 0.4, {}});
                page.line({{middle, f.y - 2}, {middle, base + 3}}, {palette::brick, 0.3, {2, 1.5}});
                for (std::size_t n = 0; n < j.lefts.size(); ++n) {
                    const double at = middle + k * j.lefts[n];
                    const double under = base + 3 + 3.6 * static_cast<double>(n % 2);
                    page.line({{at, base}, {at, under}}, {palette::ink, 0.25, {}});
                    page.text({at + 0.8, under + 1.6}, j.number.substr(n, 1) + ": " + figure(j.lefts[n]), small, palette::ink);
                }
                if (i % columns == columns - 1 || i + 1 == size.joinings.size()) f.y += k * size.ink.height() + 16;
            }
        }
    }
    return any ? f.pages() : std::vector<GuidePage>{};
}

}  // namespace orthema
