#include "core/papers/snip_pages.h"

#include "core/papers/flow.h"
#include "core/transfers/making_drawing.h"

namespace orthema {

std::vector<GuidePage> snip_pages(const Order& order, const TransferSet& set) {
    Flow f(order, phrase("page-snips", order.unit), date_line(order));
    bool any = false;
    for (const Transfer& t : set.transfers) {
        if (t.snips.empty()) continue;
        if (!any) {
            f.say(phrase("page-snipped", order.unit));
            f.y += 3;
            calibration_bar(f.on(), {Flow::left, f.y + 4}, 50, "50 mm");
            f.y += 12;
        }
        any = true;
        const double k = print_correction(order.guide_setup);
        const Rect box = bounds(t.contour.outer);
        const bool across = box.width() * k > f.width();
        const double wide = k * (across ? box.height() : box.width()), tall = k * (across ? box.width() : box.height());
        f.need(tall + 24);
        f.on().text({Flow::left, f.y + 4}, t.name + ", " + sizes_text(t), 4, palette::ink, Align::left, true);
        f.y += 11;
        const double x = Flow::left + std::max(0.0, (f.width() - wide) / 2);
        const Affine own = Affine::scale(k, k).after(Affine::shift(-box.x0, -box.y0));
        const Affine map = across ? Affine::shift(x + wide, f.y).after(Affine::turn(90)).after(own) : Affine::shift(x, f.y).after(own);
        Drawing& page = f.on();
        page.region(mapped(t.shape, map), Colour{0.87, 0.86, 0.83, 1}, {});
        page.region(mapped(Region{t.contour}, map), {}, Stroke{palette::ink, 0.3, {}});
        for (const Ring& snip : t.snips) {
            const Ring line = mapped(snip, map);
            page.line(line, {palette::brick, 0.5, {}});
            const Point out = (line[0] - line[1]) * (1 / std::max(0.01, norm(line[0] - line[1])));
            const Point at = line[0] + out * (across ? 6.5 : out.y < 0 ? 1.6 : 4.2);
            page.text(at, length_text(Length::from_mm(norm(snip[1] - snip[0])), order.unit, false), 2.8, palette::brick_text,
                      Align::centre);
        }
        f.y += tall + 12;
    }
    return any ? f.pages() : std::vector<GuidePage>{};
}

}  // namespace orthema
