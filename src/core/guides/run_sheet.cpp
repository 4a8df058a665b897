#include "core/guides/run_sheet.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <set>

#include "core/guides/panel_drawing.h"
#include "core/order/recipes.h"
#include "core/order/roster.h"

namespace orthema {

namespace {

/// When a load begins and ends, and on which machine.
struct Begin {
    double start, end;
    int load, machine;
    int task;            ///< its first
    bool again = false;  ///< a trial that comes back
};

PickRow begun_row(const Order& order, const Wearers& roster, const FitPlan& fit, const PressPlan& plan, const Begin& b,
                  const LoadPart& part, const Decoration& dec) {
    const Load& load = plan.loads[static_cast<std::size_t>(b.load)];
    PickRow row;
    row.start = b.start;
    row.end = b.end;
    row.press = b.machine >= 0 ? plan.shop.machines[static_cast<std::size_t>(b.machine)].name : "table";
    row.decoration = part.decoration;
    row.size = part.size;
    row.blank = run_name(order, dec.run) + " " + part.size;
    row.transfer = dec.name;
    row.pieces = part.pieces;
    row.loads = 1;
    row.trial = load.trial;
    row.load_ids = {b.load};
    row.again = b.again;
    if (!load.apart) row.who = roster.of(dec.run, part.size, part.first, part.pieces);
    if (b.again) row.pieces = row.loads = 0;
    const DecorationFit* f = find_fit(fit, part.decoration);
    const SizeFit* s = f == nullptr ? nullptr : find_size(*f, part.size);
    if (s == nullptr) return row;
    row.transfer += ", " + length_text(Length::from_mm(s->width), order.unit);
    if (b.machine < 0) return row;
    if (const Press* press = find_press(order, plan.presses[static_cast<std::size_t>(b.machine)])) {
        const PressState state = plan.shop.tasks[static_cast<std::size_t>(b.task)].state_on(b.machine);
        if (const auto p = static_cast<std::size_t>(state.platen); p < press->platens.size()) row.platen = press->platens[p].name;
    }
    return row;
}

}  // namespace

std::vector<PickRow> pick_rows(const Order& order, const FitPlan& fit, const PressPlan& plan) {
    const Wearers roster(order);
    std::vector<Begin> begins;
    for (std::size_t i = 0; i < plan.loads.size(); ++i) {
        const Load& l = plan.loads[i];
        if (l.tasks.empty() || plan.schedule.places.size() <= static_cast<std::size_t>(l.tasks.back())) continue;
        const Slot& first = plan.schedule.places[static_cast<std::size_t>(l.tasks.front())];
        double end = first.end;  // when it leaves the press; a trial is finished when there is time, each visit for itself
        for (const int t : l.tasks) {
            const Slot& s = plan.schedule.places[static_cast<std::size_t>(t)];
            if (l.makes_film() || (s.machine >= 0 && !l.trial)) end = std::max(end, s.end);
            if (l.trial && s.machine >= 0 && t != l.tasks.front())
                begins.push_back({s.start, s.end, static_cast<int>(i), s.machine, t, true});
        }
        begins.push_back({first.start, end, static_cast<int>(i), first.machine, l.tasks.front()});
    }
    std::stable_sort(begins.begin(), begins.end(), [](const Begin& a, const Begin& b) { return a.start < b.start; });
    std::vector<PickRow> rows;
    std::map<int, std::size_t> open;  // by machine: the row that goes on, of loads of one part
    for (const Begin& b : begins) {
        const Load& load = plan.loads[static_cast<std::size_t>(b.load)];
        const bool one = load.parts.size() == 1 && !load.apart;
        if (const auto it = open.find(b.machine); one && it != open.end() && !b.again) {
            PickRow& row = rows[it->second];
            if (row.decoration == load.decoration && row.size == load.size && row.trial == load.trial) {
                row.pieces += load.pieces;
                ++row.loads;
                row.end = std::max(row.end, b.end);
                row.load_ids.push_back(b.load);
                if (const Decoration* dec = find_decoration(order, load.decoration); dec != nullptr && !load.parts.empty())
                    if (const std::string who = roster.of(dec->run, load.size, load.parts.front().first, load.pieces); !who.empty())
                        row.who += (row.who.empty() ? "" : ", ") + who;
                continue;
            }
        }
        if (!one || b.again) open.erase(b.machine);
        if (load.apart) {  // one row for all of it
            const Decoration* dec = find_decoration(order, load.decoration);
            if (dec == nullptr) continue;
            const LoadPart all{load.decoration, load.size, 0, load.pieces};
            PickRow row = begun_row(order, roster, fit, plan, b, load.parts.empty() ? all : load.parts.front(), *dec);
            row.blank = phrase("page-off-the-blank", order.unit);
            row.transfer = load_words(order, load);
            row.pieces = load.pieces;
            rows.push_back(std::move(row));
            continue;
        }
        for (const LoadPart& part : load.parts) {
            const Decoration* dec = find_decoration(order, part.decoration);
            if (dec == nullptr) continue;
            if (one && !b.again) open[b.machine] = rows.size();
            rows.push_back(begun_row(order, roster, fit, plan, b, part, *dec));
        }
    }
    return rows;
}

std::vector<std::string> press_cautions(const Order& order, const PressPlan& plan) {
    std::vector<std::string> out{phrase("caution-hot-platens-and-hot-goods", order.unit),
                                 phrase("caution-the-supplier-s-sheet-for", order.unit)};
    bool powder = false, breaks = false, oven = false, infant = false;
    for (const Load& l : plan.loads) {
        const Decoration* d = find_decoration(order, l.decoration);
        const BlankStyle* style = d == nullptr ? nullptr : find_style(order, d->run.style);
        const Press* press = d == nullptr ? nullptr : find_press(order, d->press);
        if (style == nullptr) continue;
        const Method* method = method_of(order, *d);
        powder = powder || (method != nullptr && method->powder);
        breaks = breaks || style->fabric.find("ceramic") != std::string::npos || style->fabric.find("glass") != std::string::npos;
        oven = oven || (press != nullptr && press->kind == PressKind::oven);
        infant = infant || is_infant_wear(style->family);
    }
    if (powder) out.emplace_back(phrase("caution-adhesive-powder-mask-and-gloves", order.unit));
    if (breaks) out.emplace_back(phrase("caution-ceramic-and-glass-crack-under", order.unit));
    if (oven) out.emplace_back(phrase("caution-an-oven-that-was-used", order.unit));
    if (infant) out.emplace_back(phrase("caution-infant-wear-local-rules-on", order.unit));
    return out;
}

std::vector<GuidePage> run_sheet(const Order& order, const FitPlan& fit, const PressPlan& plan) {
    const PaperSize paper = paper_size(order.paper);
    const std::vector<PickRow> rows = pick_rows(order, fit, plan);
    std::vector<GuidePage> pages;
    constexpr double left = 14, foot = 16;
    const double right = paper.width - left;
    double y = 0;
    // the columns of words share what the figures leave of the page, by what they have to say; what is longer takes more lines
    constexpr double size_of_words = 3.2, gap = 4, first = left + 28, pieces_wide = 14;
    const auto cells = [&](const PickRow& r) {
        return std::array{r.press + (r.platen.empty() ? "" : ", " + r.platen), r.blank,
                          (r.again   ? said(order.unit, "TRIAL, again: ")
                           : r.trial ? said(order.unit, "TRIAL ")
                                     : "") +
                              r.transfer + (r.who.empty() ? "" : ": " + r.who)};
    };
    std::array<double, 3> wide{20, 20, 20};
    for (const PickRow& r : rows)
        for (std::size_t k = 0; k < 3; ++k) wide[k] = std::max(wide[k], text_width_guess(cells(r)[k], size_of_words));
    const double room = right - first - pieces_wide - 2 * gap;
    while (wide[0] + wide[1] + wide[2] > room) *std::max_element(wide.begin(), wide.end()) -= 0.5;
    const double blank_at = first + wide[0] + gap, pieces_at = blank_at + wide[1] + pieces_wide - 2, transfer_at = pieces_at + gap;
    const auto page = [&] {
        GuidePage p;
        p.title = phrase("page-run-sheet", order.unit);
        p.drawing.width = paper.width;
        p.drawing.height = paper.height;
        Drawing& d = p.drawing;
        d.text({left, 20}, phrase("page-run-sheet", order.unit), 7, palette::ink, Align::left, true);
        d.text({right, 20}, date_line(order), 3.6, palette::quiet, Align::right);
        y = 26;
        if (pages.empty()) {
            d.text({left, 27},
                   phrase("page-run-says", order.unit,
                          {{"from", time_of_day(order.press_run, 0)},
                           {"to", time_of_day(order.press_run, plan.schedule.end)},
                           {"lasts", duration_words(plan.schedule.end)},
                           {"alone", duration_words(plan.one_by_one)},
                           {"n", plan.shop.hands},
                           {"revision", plan.revision}}),
                   3.6, palette::ink);
            y = 32;
            for (const std::string& c : press_cautions(order, plan)) {
                d.text({left, y + 2}, c, 3, palette::carmine);
                y += 4.6;
            }
        }
        y += 5;
        const auto head = [&](double x, const char* words, Align align = Align::left) {
            d.text({x, y}, said(order.unit, words), 3, palette::quiet, align);
        };
        head(left, "from");
        head(left + 14, "to");
        head(first, "press and platen");
        head(blank_at, "blank");
        head(pieces_at, "pieces", Align::right);
        head(transfer_at, "transfer");
        y += 1.5;
        d.line({{left, y}, {right, y}}, {palette::rule, 0.3, {}});
        y += 5;
        pages.push_back(std::move(p));
    };
    page();
    std::map<std::string, std::string> recipes;  // each recipe once, at its first row
    for (const PickRow& r : rows) {
        std::vector<RecipeStep> steps;  // as they are planned, not as the method has them
        for (const PlannedStep& p : plan.loads[static_cast<std::size_t>(r.load_ids.front())].steps) steps.push_back(p.step);
        const Decoration* dec = find_decoration(order, r.decoration);
        const bool oven = dec != nullptr && in_oven(order, *dec);
        const std::string words = recipe_words(steps, order.press_run.fahrenheit, oven, order.unit);
        const bool say = recipes[r.decoration] != words;
        const auto texts = cells(r);
        const std::array<double, 3> at{first, blank_at, transfer_at};
        double lines = 1;
        for (std::size_t k = 0; k < 3; ++k) lines = std::max(lines, std::ceil(text_width_guess(texts[k], size_of_words) / wide[k]));
        if (y > paper.height - foot - 4.2 * lines - (say ? 8 : 2)) page();
        recipes[r.decoration] = words;
        Drawing& d = pages.back().drawing;
        d.text({left, y}, time_of_day(order.press_run, r.start), 3.6, palette::ink, Align::left, true);
        d.text({left + 14, y}, time_of_day(order.press_run, r.end), 3.6, palette::ink);
        d.text({pieces_at, y}, r.again ? "–" : std::to_string(r.pieces), 3.8, palette::ink, Align::right, true);
        double below = y;
        for (std::size_t k = 0; k < 3; ++k)
            below = std::max(below,
                             wrapped(d, {at[k], y}, texts[k], size_of_words, wide[k], k == 2 && r.trial ? palette::brick : palette::ink));
        y = below + 0.9;
        if (!say) continue;
        // the recipe on as many lines as it takes
        std::string line;
        const auto flush = [&] {
            d.text({left + 28, y - 0.6}, line, 2.9, palette::quiet);
            y += 4;
            line.clear();
        };
        for (const RecipeStep& s : steps) {
            const std::string part = step_words(s, order.press_run.fahrenheit, oven, order.unit);
            if (!line.empty() && text_width_guess(line + " · " + part, 2.9) > right - left - 28) flush();
            line += (line.empty() ? "" : " · ") + part;
        }
        if (!line.empty()) flush();
        y += 1.2;
    }
    number_pages(pages, paper, right, order.unit);
    return pages;
}

}  // namespace orthema
