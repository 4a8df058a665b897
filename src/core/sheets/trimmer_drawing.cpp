#include "core/sheets/trimmer_drawing.h"

#include "core/base/units.h"
#include "core/sheets/sheet_drawing.h"

namespace orthema {

std::string cut_direction(const TrimCut& cut, const Reading& reading) { return phrase(cut.across ? "cut-across" : "cut-along", reading); }

std::string part_name(const TrimPlan& plan, int part, const Sheet& sheet, const TransferSet& set, const Reading& reading) {
    const TrimPart& p = plan.parts[static_cast<std::size_t>(part)];
    if (part == 0) return said(reading, "sheet");
    if (p.waste) return said(reading, "waste");
    if (p.piece < 0) return phrase("cut-part", reading, {{"n", part}});
    const PlacedCopy& c = sheet.copies[static_cast<std::size_t>(p.piece)];
    const Transfer* t = find_transfer(set, c.transfer);
    return (t != nullptr ? t->name : c.transfer) + " (" + std::to_string(c.copy + 1) + ")";
}

std::vector<Drawing> trimmer_pages(const Order& order, const Sheet& sheet, const TransferSet& set, const TrimPlan& plan) {
    const double width = order.paper == Paper::a4 ? 210 : 215.9, height = order.paper == Paper::a4 ? 297 : 279.4;
    constexpr double edge = 14, row = 5.2;
    std::vector<Drawing> pages;
    const auto begin_page = [&](double& y) -> Drawing& {
        Drawing d;
        d.width = width;
        d.height = height;
        d.text({edge, edge + 3}, phrase("page-cut-list", order.unit), 5.5, palette::ink, Align::left, true);
        d.text({width - edge, edge + 3}, std::to_string(pages.size() + 1), 3.6, palette::quiet, Align::right);
        d.text({edge, edge + 9}, sheet_title(order, sheet), 3.2, palette::quiet);
        pages.push_back(std::move(d));
        y = edge + 15;
        return pages.back();
    };
    double y = 0;
    Drawing* page = &begin_page(y);
    page->text({edge, y}, phrase("page-the-fence-is-measured-from", order.unit), 3, palette::quiet);
    page->text({edge, y + 4.5}, phrase("page-keep-fingers-and-sleeves-clear", order.unit), 3, palette::quiet);
    y += 10;
    // the sheet lies along the page's width, the feed to the right
    const double k = std::min((width - 2 * edge) / sheet.length, 95 / sheet.width);
    const Affine map{k, 0, 0, k, edge, y};
    const auto box = [&](const Rect& r) {
        const Point a = map({r.x0, r.y0}), b = map({r.x1, r.y1});
        return Rect{a.x, a.y, b.x, b.y};
    };
    page->rect(box({0, 0, sheet.length, sheet.width}), palette::light, Stroke{palette::ink, 0.3, {}});
    for (const PlacedCopy& c : sheet.copies)
        if (const Transfer* t = find_transfer(set, c.transfer)) draw_transfer(*page, *t, map.after(copy_map(c)), order.unit);
    for (std::size_t i = 0; i < plan.cuts.size(); ++i) {
        const TrimCut& c = plan.cuts[i];
        const Rect r = box(plan.parts[static_cast<std::size_t>(c.part)].box);
        const Point at = map({c.at, c.at});
        const Ring line = c.across ? Ring{{at.x, r.y0}, {at.x, r.y1}} : Ring{{r.x0, at.y}, {r.x1, at.y}};
        page->line(line, {palette::brick, c.stage <= 1 ? 0.35 : 0.2, {}});
        const Point number = (line[0] + line[1]) * 0.5;
        if (plan.cuts.size() > 160) continue;  // they would hide the pieces
        const std::string text = std::to_string(i + 1);
        const double half = 0.9 + 0.7 * static_cast<double>(text.size());
        page->fill({round_rect({number.x - half, number.y - 1.5, number.x + half, number.y + 1.5}, 1)}, palette::white);
        page->text({number.x, number.y + 0.9}, text, 2.6, palette::brick_text, Align::centre, true);
    }
    y += sheet.width * k + 8;
    const double columns[] = {edge, edge + 12, edge + 58, edge + 88, edge + 112, edge + 152};
    const auto heads = [&] {
        const char* const names[] = {"Cut", "Of", "Blade lies", "Fence", "Leaves, near", "and far"};
        for (int i = 0; i < 6; ++i) page->text({columns[i], y}, said(order.unit, names[i]), 3, palette::quiet, Align::left, true);
        page->line({{edge, y + 1.6}, {width - edge, y + 1.6}}, {palette::rule, 0.3, {}});
        y += row + 0.6;
    };
    heads();
    const auto shown = [](const std::string& text, std::size_t most) { return text.size() > most ? text.substr(0, most - 1) + "." : text; };
    for (std::size_t i = 0; i < plan.cuts.size(); ++i) {
        if (y > height - edge) {
            page = &begin_page(y);
            heads();
        }
        const TrimCut& c = plan.cuts[i];
        page->text({columns[0], y}, std::to_string(i + 1), 3.2, palette::ink, Align::left, true);
        page->text({columns[1], y}, shown(part_name(plan, c.part, sheet, set, order.unit), 28), 3, palette::ink);
        page->text({columns[2], y}, cut_direction(c, order.unit), 3, palette::ink);
        page->text({columns[3], y}, length_text(Length::from_mm(c.fence), order.unit), 3.2, palette::ink, Align::left, true);
        page->text({columns[4], y}, shown(part_name(plan, c.near, sheet, set, order.unit), 28), 2.7, palette::ink);
        page->text({columns[5], y}, shown(part_name(plan, c.far, sheet, set, order.unit), 30), 2.7, palette::ink);
        y += row;
    }
    return pages;
}

}  // namespace orthema
