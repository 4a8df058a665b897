#include "core/guides/handle_template.h"

#include "core/base/units.h"

namespace orthema {

std::optional<Drawing> handle_template(const BlankStyle& style, const std::string& size, const std::string& title, const Reading& reading) {
    const Measures& m = style.chart.at(size);
    const auto wall = wall_of(style.family, m);
    const double gap = measure_mm(m, Measure::handle_gap);
    if (!wall || gap <= 0) return std::nullopt;
    const auto sector = unrolled(*wall);
    if (!sector) return std::nullopt;
    constexpr double wing = 35, edge = 12;
    const double tall = sector->slant, half = gap / 2 + wing;
    const Region sheet = sector->bent(box_region({-half, 0, half, tall}));
    // open at the base, so that the paper slides over the handle from above
    const Region slot = sector->bent(box_region({-gap * 0.3, tall * 0.12, gap * 0.3, tall + 1}));
    const Rect box = bounds(sheet);
    const Affine to = Affine::shift(edge - box.x0, edge + 10 - box.y0);
    Drawing d;
    d.width = box.width() + 2 * edge;
    d.height = box.height() + 2 * edge + 10;
    const Stroke cut{palette::ink, 0.3, {}}, line{palette::brick, 0.4, {2, 1.5}};
    d.region(mapped(subtract(sheet, slot), to), {}, cut);
    for (const double u : {-gap / 2, gap / 2}) {
        d.line({to(sector->bent({u, 0})), to(sector->bent({u, tall}))}, line);
        d.text(to(sector->bent({u + (u < 0 ? -2 : 2), tall / 2})), phrase("page-print-ends-here", reading), 3, palette::brick_text,
               u < 0 ? Align::right : Align::left);
    }
    d.text(to(sector->bent({0, 5})), phrase("page-top-rim-along-this-edge", reading), 3, palette::ink, Align::centre, true);
    d.text({edge, edge + 4}, title, 3.4, palette::ink, Align::left, true);
    d.text({edge, edge + 8.5}, phrase("page-slide-the-slot", reading, {{"gap", Number{gap, 1}}}), 2.8, palette::quiet);
    return d;
}

}  // namespace orthema
