#include "core/guides/run_guides.h"

#include <algorithm>
#include <tuple>
#include <cmath>

#include "core/drawing/code2d.h"
#include "core/guides/panel_drawing.h"
#include "core/order/recipes.h"

namespace orthema {

namespace {

constexpr double margin = 14;

void page_head(Drawing& d, const Order& order, const std::string& title, const std::string& under) {
    d.text({margin, 19}, title, 6.5, palette::ink, Align::left, true);
    d.text({margin, 26}, under, 3.8, palette::quiet);
    d.text({d.width - margin, 19}, date_line(order), 3.2, palette::quiet, Align::right);
}

}  // namespace

std::vector<GuidePage> platen_map_pages(const Order& order, const FitPlan& plan, const Decoration& dec) {
    std::vector<GuidePage> pages;
    const DecorationFit* fit = find_fit(plan, dec.id);
    if (fit == nullptr) return pages;
    const PaperSize paper = paper_size(order.paper);
    struct Cell {
        const SizeFit* size;
        const Ground* ground;
        PlatenMap map;
    };
    std::vector<Cell> cells;
    for (const SizeFit& s : fit->sizes)
        if (const Ground* ground = find_ground(*fit, s.size))
            for (int field = 0; field < std::max<int>(1, static_cast<int>(s.platen.presses.size())); ++field)
                if (auto map = platen_map(order, dec, s, *ground, {}, field)) cells.push_back({&s, ground, std::move(*map)});
    const auto count = static_cast<int>(cells.size());  // as large as the page takes them
    const int columns = count == 1 ? 1 : 2, rows = std::clamp((count + columns - 1) / columns, 1, 3);
    const double cell_w = (paper.width - 2 * margin - 6) / columns, cell_h = (paper.height - 34 - 14) / rows;
    int on_page = 0;
    for (const auto& [size, ground, map] : cells) {
        if (pages.empty() || on_page == columns * rows) {
            GuidePage p;
            p.title = dec.name + said(order.unit, ", platen maps");
            p.drawing.width = paper.width;
            p.drawing.height = paper.height;
            page_head(p.drawing, order, phrase("page-platen-map", order.unit, {{"design", dec.name}}),
                      phrase("page-on-the-press", order.unit, {{"run", run_name(order, dec.run)}, {"press", map.press}}));
            p.drawing.text({margin, paper.height - 8}, phrase("page-load-every-garment-of-a", order.unit), 3, palette::carmine);
            pages.push_back(std::move(p));
            on_page = 0;
        }
        pages.back().sizes.push_back(size->size);
        Drawing& d = pages.back().drawing;
        const int down = on_page / columns;
        const double x = margin + (on_page % columns) * (cell_w + 6), y = 32 + down * cell_h;
        d.text({x, y + 5}, size->size, 5.4, palette::ink, Align::left, true);
        d.text({x + std::max(16.0, text_width_guess(size->size, 5.4) + 5), y + 5},
               map.platen_name + said(order.unit, ", revision ") + guide_revision(order, dec, *size), 3, palette::quiet);
        const double words = 4.2 * static_cast<double>(map.lines.size()) + 2;
        draw_platen_map(d, order, dec, *size, *ground, map, {x, y + 8, x + cell_w, y + cell_h - words - 4}, 0.3, 3.4);
        double line = y + cell_h - words;
        for (const MapLine& l : map.lines) {
            const std::string says = map_words(l, order.unit);
            d.text({x, line}, says, fitted_size(says, 3.2, cell_w), palette::ink);
            line += 4.2;
        }
        ++on_page;
    }
    return pages;
}

std::vector<MasterTemplate> master_templates(const Order& order, const FitPlan& plan, const Decoration& dec, const Region& outline) {
    std::vector<MasterTemplate> out;
    const DecorationFit* fit = find_fit(plan, dec.id);
    if (fit == nullptr) return out;
    static constexpr Colour lines[] = {palette::ink, palette::brick, palette::verdigris, palette::plum, palette::olive, palette::carmine};
    for (std::size_t b = 0; b < fit->bands.size(); ++b) {
        MasterTemplate m;
        std::vector<const SizeFit*> sizes;
        for (const SizeFit& s : fit->sizes)
            if (s.band == static_cast<int>(b)) sizes.push_back(&s);
        if (sizes.empty()) continue;
        const double width = sizes.front()->width, height = sizes.front()->height;
        Drawing& d = m.whole;
        const Rect ink{0, 0, width, height};
        double top = 0, bottom = height, left = 0, right = width, words_at = 0, pit_column = 0;
        std::vector<Point> pits;  // where their words end
        for (std::size_t i = 0; i < sizes.size(); ++i) {
            const SizeFit& s = *sizes[i];
            m.sizes.push_back(s.size);
            const Ground* ground = find_ground(*fit, s.size);
            if (ground == nullptr) continue;
            const Panel& p = ground->panel;
            const Affine to_ink = Affine::shift(-s.ink.x0, -s.ink.y0);
            const Colour colour = lines[i % std::size(lines)];
            const Stroke stroke{colour, 0.35, {}};
            const double collar = to_ink({0, p.top_y}).y;
            m.collar.emplace_back(s.size, -collar);
            const double middle = to_ink({0, 0}).x;
            if (p.neck_edge.empty()) {
                d.line({{middle - 40, collar}, {middle + 40, collar}}, stroke);
            } else {
                for (const double way : {1.0, -1.0}) {
                    Ring seam;
                    for (const Point& q : p.neck_edge)
                        if (q.y > p.top_y - 55) seam.push_back(to_ink({way * q.x, q.y}));
                    d.line(seam, stroke);
                }
            }
            if (i == 0) words_at = middle;
            d.text({words_at + 3, collar - 1.2}, s.size, 4, colour, Align::left, true);
            words_at += std::max(11.0, text_width_guess(s.size, 4) + 3);
            if (p.pit_y) {
                if (pits.empty()) pit_column = middle + 31;
                const double pit = to_ink({0, *p.pit_y}).y;
                d.line({{middle - 30, pit}, {middle + 30, pit}}, {colour, 0.3, {3, 2}});
                const std::string says = s.size + said(order.unit, " pit line");  // beside those of sizes whose line lies near
                double pit_at = pit_column;
                while (std::any_of(pits.begin(), pits.end(), [&](const Point& o) { return std::abs(o.y - pit) < 3.4 && o.x > pit_at; }))
                    pit_at += text_width_guess(says, 3) + 3;
                d.text({pit_at, pit + 1.2}, says, 3, colour);
                pits.push_back({pit_at + text_width_guess(says, 3), pit});
                right = std::max(right, pits.back().x + 2);
                bottom = std::max(bottom, pit + 4);
            }
            d.line({{middle, collar - 6}, {middle, height + 8}}, {colour, 0.2, {4, 2}});
            top = std::min(top, collar - 12);
            left = std::min(left, middle - 45);
            right = std::max(right, middle + 75);
        }
        d.region(mapped(outline, Affine{width, 0, 0, width, 0, 0}), {}, Stroke{palette::quiet, 0.2, {}});
        d.rect(ink, {}, Stroke{palette::verdigris, 0.4, {5, 2}});
        wrapped(d, {0, height + 13}, dec.name + ", " + run_name(order, dec.run) + said(order.unit, ", master for ") + joined(m.sizes), 4.2,
                84, palette::ink, true);
        d.text({0, height + 26}, phrase("page-lay-the-size-s-own", order.unit), 3.2, palette::quiet);
        calibration_bar(d, {0, height + 32}, 100, "100 mm");
        const Rect area{left - 4, top, std::max(right + 4, 104.0), std::max(bottom, height + 36)};
        m.layout = tile_layout(area, template_papers(order), print_correction(order.guide_setup));
        m.tiles = template_tiles(d, m.layout, dec.name + said(order.unit, ", master ") + joined(m.sizes),
                                 dec.name + said(order.unit, ", master for ") + joined(m.sizes), order.unit);
        out.push_back(std::move(m));
    }
    return out;
}

std::vector<MasterTemplate> masters_that_serve(std::vector<MasterTemplate> masters, const GuideSet& guides, const std::string& decoration) {
    std::erase_if(masters, [&](const MasterTemplate& m) {
        std::size_t alone = 0;
        for (const Guide& g : guides.guides)
            if (g.decoration == decoration && std::find(m.sizes.begin(), m.sizes.end(), g.size) != m.sizes.end()) alone += g.tiles.size();
        return m.collar.size() < 2 || m.tiles.size() >= alone;
    });
    return masters;
}

GuidePage wall_chart(const Order& order, const FitPlan& plan, const RunKey& run) {
    GuidePage page;
    Drawing& d = page.drawing;
    const PaperSize paper = paper_size(order.paper);
    page.title = phrase("page-wall-chart", order.unit, {{"run", run_name(order, run)}});
    const std::vector<SizeCount> counts = counts_of(order, run);
    std::vector<const DecorationFit*> fits;
    for (const Decoration& dec : order.decorations)
        if (dec.run == run)
            if (const DecorationFit* f = find_fit(plan, dec.id); f != nullptr && f->ground != nullptr) fits.push_back(f);
    // garments on one floor line for each design, or on several, all at one scale: as large as the paper allows
    const double label = 38, top = 32, words = 17;
    std::size_t in_line = 1, lines = 1;
    double each = 0, row = 0, scale = 0;
    d.width = paper.height;  // across, unless upright shows them larger
    d.height = paper.width;
    for (const bool upright : {false, true})
        for (std::size_t n = 1; !fits.empty() && n <= std::min<std::size_t>(4, counts.size()); ++n) {
            const double w = upright ? paper.width : paper.height, h = upright ? paper.height : paper.width;
            const std::size_t most = (counts.size() + n - 1) / n;
            const double wide = (w - 2 * margin - label) / static_cast<double>(most);
            const double high = (h - top - 14) / static_cast<double>(n * fits.size());
            double k = 1e9;
            for (const DecorationFit* f : fits)
                for (const Ground& g : f->ground->sizes) {
                    const Rect box = drawn_box(g.panel);
                    k = std::min({k, (wide - 4) / box.width(), (high - words - 6) / box.height()});
                }
            if (wide < 22 || k < scale * 1.05) continue;
            std::tie(d.width, d.height, in_line, lines, each, row, scale) = std::tuple(w, h, most, n, wide, high, k);
        }
    page_head(d, order, run_name(order, run), phrase("page-pieces", order.unit, {{"n", garments_in(order, run)}}));
    if (scale <= 0) return page;
    const auto text = [&](double mm) { return length_text(Length::from_mm(mm), order.unit); };
    for (std::size_t k = 0; k < fits.size(); ++k) {
        const Decoration& dec = *find_decoration(order, fits[k]->decoration);
        const double y = top + static_cast<double>(k * lines) * row;
        wrapped(d, {margin, y + 8}, dec.name, 4.2, label - 4, palette::ink, true, 1.2);
        d.text({margin, y + 20}, said(order.unit, location_name(dec.location, family_of(order, dec.run))), 3.2, palette::quiet);
        for (std::size_t l = 0; l < lines; ++l) {
            const double floor = y + static_cast<double>(l + 1) * row - words;
            d.line({{margin + label, floor}, {d.width - margin, floor}}, {palette::rule, 0.3, {}});
            d.text({margin, floor + 8.4}, phrase("page-top-of-ink", order.unit), 3, palette::brick_text);
            d.text({margin, floor + 12.2}, said(order.unit, "ink"), 3, palette::verdigris_text);
        }
        for (std::size_t i = 0; i < counts.size(); ++i) {
            const SizeFit* s = find_size(*fits[k], counts[i].size);
            const Ground* g = find_ground(*fits[k], counts[i].size);
            const std::size_t line = i / in_line;
            const double floor = y + static_cast<double>(line + 1) * row - words;
            const double middle = margin + label + (static_cast<double>(i % in_line) + 0.5) * each;
            d.text({middle, floor + 4}, counts[i].size + "  ×" + std::to_string(counts[i].quantity), 3.4, palette::ink, Align::centre,
                   true);
            if (s == nullptr || g == nullptr) continue;
            const Rect box = drawn_box(g->panel);
            const Affine map{scale, 0, 0, scale, middle - scale * box.centre().x, floor - scale * box.y1};
            draw_panel(d, g->panel, map, cloth_of(order, dec), 0.2);
            draw_pressed_design(d, g->panel, dec, *s, map);
            d.text({middle, floor + 8.4}, text(s->top_to_ink) + said(order.unit, " below"), 3, palette::brick_text, Align::centre);
            d.text({middle, floor + 12.2}, text(s->width) + said(order.unit, " wide"), 3, palette::verdigris_text, Align::centre);
        }
    }
    d.text({margin, d.height - 6},
           phrase("page-chart-foot", order.unit,
                  {{"scale", Number{1 / scale, 1}}, {"top", Term{fits.front()->ground->sizes.front().panel.top_name}}}),
           3, palette::quiet);
    return page;
}

}  // namespace orthema
