#include "core/sheets/sheet_drawing.h"

#include "core/drawing/code2d.h"

namespace orthema {

std::string sheet_title(const Order& order, const Sheet& sheet) {
    const Medium* medium = find_medium(order, sheet.medium);
    return order.name + "   " + (medium != nullptr ? medium->name : sheet.medium) + said(order.unit, ", sheet ") +
           std::to_string(sheet.number + 1) + "   " + (medium != nullptr ? said(order.unit, reading_direction(*medium)) : "") +
           (medium != nullptr && !register_marks(*medium, sheet.length).empty() ? said(order.unit, "   trim the marks off before pressing")
                                                                                : "");
}

std::vector<Point> page_registers(const Medium& medium, const Sheet& sheet) {
    std::vector<Point> out;
    if (!bed_of(medium, sheet.stock).shape.outer.empty()) return out;  // an offcut has no corners to mark
    for (const Point& p : register_marks(bed_of(medium, sheet.stock).medium, sheet.length)) out.push_back(page_map(sheet)(p));
    return out;
}

Drawing sheet_page(const Order& order, const Sheet& sheet, const TransferSet& set, const SheetLabels& labels) {
    Drawing d;
    d.width = sheet.width;
    d.height = sheet.length;
    const Affine page = page_map(sheet);
    for (const PlacedCopy& c : sheet.copies) {
        const Transfer* t = find_transfer(set, c.transfer);
        if (t == nullptr) continue;
        draw_transfer(d, *t, page.after(copy_map(c)), order.unit);
    }
    for (const SheetLabel& l : labels.labels) {
        const double base = l.size * 0.3;  // from the words' middle to their base line
        Point c = l.box.centre();
        if (!l.code.empty()) {
            draw_code(d, l.code, {l.box.x0, l.box.y0}, label_code_side);
            c.x += label_code_side / 2;
        }
        d.text(l.upright ? Point{c.x + base, c.y} : Point{c.x, c.y + base}, l.text, l.size, palette::ink, Align::centre, false,
               l.upright ? -90 : 0);
        d.line({l.from, l.to}, Stroke{palette::ink, 0.15, {}});
    }
    const Medium* medium = find_medium(order, sheet.medium);
    if (medium == nullptr) return d;
    for (const Point& p : page_registers(*medium, sheet)) {
        const Stroke fine{palette::black, 0.25, {}};
        d.line({{p.x - register_radius, p.y}, {p.x + register_radius, p.y}}, fine);
        d.line({{p.x, p.y - register_radius}, {p.x, p.y + register_radius}}, fine);
        d.region({{disc(p, register_radius, 48), {}}}, {}, fine);
    }
    if (medium->margin.mm() < 5) return d;
    // In the margin, which is trimmed off: the sheet's name and an arrow along the reading direction.
    // close to the pieces, and no taller than leaves the outer edge free, which printers do not reach
    const double y = medium->margin.mm() - (medium->margin.mm() < 6 ? 0.5 : 0.8),
                 tall = std::clamp((y - unprintable_edge) / 0.74, 1.8, 2.8);
    const bool mirrored = program_mirrors(*medium);
    double x = medium->margin.mm();
    for (const Point& p : page_registers(*medium, sheet))  // beside the first of them
        if (p.x < sheet.width / 2) x = std::max(x, p.x + register_radius + 2);
    const Stroke line{palette::ink, 0.4, {}};
    const double tail = mirrored ? x + 16 : x, tip = mirrored ? x : x + 16;
    const double back = mirrored ? 2 : -2;
    d.line({{tail, y - 1}, {tip, y - 1}}, line);
    d.line({{tip + back, y - 1.9}, {tip, y - 1}, {tip + back, y - 0.1}}, line);
    d.text({x + 19, y}, sheet_title(order, sheet), tall, palette::ink);
    return d;
}

std::optional<Drawing> white_page(const Sheet& sheet, const TransferSet& set) {
    Drawing d;
    d.width = sheet.width;
    d.height = sheet.length;
    const Affine page = page_map(sheet);
    for (const PlacedCopy& c : sheet.copies)
        if (const Transfer* t = find_transfer(set, c.transfer); t != nullptr && !t->white.empty())
            d.region(mapped(t->white, page.after(copy_map(c))), palette::black, {});
    if (d.marks.empty()) return std::nullopt;
    return d;
}

std::vector<Polygon> cut_contours(const Sheet& sheet, const TransferSet& set) {
    std::vector<Polygon> out;
    const Affine page = page_map(sheet);
    for (const PlacedCopy& c : sheet.copies)
        if (const Transfer* t = find_transfer(set, c.transfer)) {
            const Affine map = page.after(copy_map(c));
            if (t->cut.empty()) out.push_back(mapped(t->contour, map));
            for (const Polygon& p : t->cut) out.push_back(mapped(p, map));
        }
    return out;
}

std::vector<Ring> cut_snips(const Sheet& sheet, const TransferSet& set) {
    std::vector<Ring> out;
    const Affine page = page_map(sheet);
    for (const PlacedCopy& c : sheet.copies)
        if (const Transfer* t = find_transfer(set, c.transfer))
            for (const Ring& snip : t->snips) out.push_back(mapped(snip, page.after(copy_map(c))));
    return out;
}

std::vector<CutStep> sheet_cuts(const Sheet& sheet, const TransferSet& set) {
    return with_snips(cut_path(cut_contours(sheet, set)), cut_snips(sheet, set));
}

}  // namespace orthema
