#include "core/guides/making_sheet.h"

#include <algorithm>
#include <utility>

#include "core/base/dates.h"
#include "core/order/recipes.h"

namespace orthema {

std::vector<std::string> making_words(const Order& order, const Medium& medium) {
    std::vector<std::string> out;
    const Method* method = find_method(order, medium.method);
    if (method == nullptr) return out;
    const bool printed = prints_alone(*method) && method->ink_cost > 0;
    const auto add = [&](const char* code, Arguments args = {}) { out.push_back(phrase(code, order.unit, std::move(args))); };
    if (method->read_through) add(medium.mirror == MirrorBy::printer_software ? "make-mirror-software" : "make-mirror-here");
    if (method->powder) {
        add("make-colour-then-white");
        add("make-powder");
        add("make-cure");
    } else if (printed) {
        add("make-print-and-dry");
    }
    if (medium.laying.cutting == Cutting::trimmer)
        add("make-trimmer");
    else if (medium.laying.cutting == Cutting::contour)
        add(method->handling == Handling::weeded ? "make-cut-and-weed" : "make-cut-out");
    else
        add("make-tape");
    if (method->handling == Handling::trimmed && !marries(*method)) add("make-trim-close");
    if (method->keeps_days > 0) {
        const auto due = day_number(order.due);
        if (due)
            add("make-keeps-due", {{"n", method->keeps_days}, {"from", day_text(iso_day(*due - method->keeps_days), order.unit)}});
        else
            add("make-keeps", {{"n", method->keeps_days}});
    } else {
        add("make-press-soon");
    }
    return out;
}

std::vector<GuidePage> making_sheet(const Order& order) {
    const PaperSize paper = paper_size(order.paper);
    constexpr double left = 14, foot = 18, words = 3.4;
    const double right = paper.width - left;
    std::vector<GuidePage> pages;
    double y = 0;
    const auto page = [&] {
        GuidePage p;
        p.title = phrase("page-making", order.unit);
        p.drawing.width = paper.width;
        p.drawing.height = paper.height;
        p.drawing.text({left, 20}, p.title, 7, palette::ink, Align::left, true);
        p.drawing.text({right, 20}, date_line(order), 3.6, palette::quiet, Align::right);
        y = 32;
        pages.push_back(std::move(p));
    };
    for (const MediumLayout& layout : order.layouts) {
        const Medium* medium = find_medium(order, layout.medium);
        if (medium == nullptr || layout.copies.empty()) continue;
        const Method* method = find_method(order, medium->method);
        int sheets = 0;
        for (const PlacedCopy& c : layout.copies) sheets = std::max(sheets, c.sheet + 1);
        std::vector<std::string> lines = making_words(order, *medium);
        if (method == nullptr || lines.empty()) continue;
        if (pages.empty() || y + 12 + 6.5 * static_cast<double>(lines.size() + 2) > paper.height - foot) page();
        Drawing& d = pages.back().drawing;
        d.text({left, y}, medium->name, 4.6, palette::ink, Align::left, true);
        d.text({right, y},
               phrase(medium->shape == MediumShape::roll ? "make-runs" : "make-sheets", order.unit,
                      {{"n", sheets}, {"pieces", static_cast<int>(layout.copies.size())}}),
               words, palette::quiet, Align::right);
        y += 6.5;
        for (std::size_t i = 0; i < lines.size(); ++i) {
            d.text({left + 2, y}, std::to_string(i + 1), words, palette::quiet);
            y = wrapped(d, {left + 9, y}, lines[i], words, right - left - 9, palette::ink) + 1;
        }
        if (method->powder && method->care.find("powder") == std::string::npos)
            y = wrapped(d, {left + 9, y}, phrase("caution-adhesive-powder-mask-and-gloves", order.unit), 3.2, right - left - 9,
                        palette::carmine) +
                0.6;
        if (!method->care.empty())
            y = wrapped(d, {left + 9, y}, said(order.unit, method->care), 3.2, right - left - 9, palette::carmine) + 0.6;
        y += 5;
    }
    for (GuidePage& p : pages)
        wrapped(p.drawing, {left, paper.height - 12}, phrase("caution-the-supplier-s-sheet-for", order.unit), 3, right - left - 24,
                palette::quiet);
    number_pages(pages, paper, right, order.unit);
    return pages;
}

}  // namespace orthema
