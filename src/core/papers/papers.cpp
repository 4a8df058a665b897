#include "core/papers/papers.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/base/dates.h"
#include "core/base/units.h"
#include "core/drawing/code2d.h"
#include "core/guides/run_sheet.h"
#include "core/guides/small_garments.h"
#include "core/order/recipes.h"
#include "core/order/roster.h"
#include "core/papers/flow.h"

namespace orthema {

namespace {

constexpr double hair_line = 0.25;  ///< mm, of garments on paper

/// Whose paper it is, in words.
struct Heading {
    std::string name, customer, due, note, promise;
};

Heading heading_of(const PaperOf& of) {
    const Job* job = find_job(of.order, of.job);
    if (job == nullptr) return {of.order.name, of.order.customer, of.order.due, of.order.note, of.order.pricing.promise};
    return {job->name, job->customer, job->due, job->note, job->own ? job->own->pricing.promise : ""};
}

std::vector<RunKey> runs_in(const PaperOf& of) {
    std::vector<RunKey> out = runs_of(of.order);
    if (!of.job.empty()) std::erase_if(out, [&](const RunKey& r) { return r.job != of.job; });
    return out;
}

std::string run_words(const PaperOf& of, const RunKey& run) {
    RunKey alone = run;
    if (!of.job.empty()) alone.job.clear();  // the paper says whose it is
    return run_name(of.order, alone);
}

/// "S 10, M 20, L 12"
std::string sizes_words(const std::vector<SizeCount>& counts) {
    std::string out;
    for (const SizeCount& c : counts) out += (out.empty() ? "" : ", ") + c.size + " " + std::to_string(c.quantity);
    return out;
}

std::string middle_size(const std::vector<SizeCount>& counts) { return counts.empty() ? "" : counts[counts.size() / 2].size; }

/// Widths of a design by size, equal neighbours together: "S–M 260 mm, L 280 mm".
std::string widths_words(const DecorationFit& fit, Reading reading) {
    std::string out;
    for (std::size_t i = 0; i < fit.sizes.size();) {
        std::size_t k = i;
        while (k + 1 < fit.sizes.size() && std::abs(fit.sizes[k + 1].width - fit.sizes[i].width) < 0.05) ++k;
        const std::string sizes = k == i ? fit.sizes[i].size : fit.sizes[i].size + "–" + fit.sizes[k].size;
        out += (out.empty() ? "" : ", ") + sizes + " " + length_text(Length::from_mm(fit.sizes[i].width), reading);
        i = k + 1;
    }
    return out;
}

void small_row(Flow& f, const PaperOf& of) {
    const std::vector<RunKey> runs = runs_in(of);
    constexpr double cell = 34;
    const auto most = std::min(runs.size(), static_cast<std::size_t>(f.width() / cell));
    for (std::size_t i = 0; i < most; ++i) {
        const double x = Flow::left + cell * static_cast<double>(i);
        draw_small_garment(f.on(), of.order, of.fit, runs[i], middle_size(counts_of(of.order, runs[i])), main_side(of.order, runs[i]),
                           {x, f.y, x + cell - 3, f.y + cell - 3}, hair_line);
    }
    f.y += cell + 2;
}

void to_sign(Flow& f, const std::string& words, const Reading& reading) {
    f.need(26);
    f.y += 14;
    f.on().line({{Flow::left, f.y}, {Flow::left + 80, f.y}}, {palette::ink, 0.3, {}});
    f.on().line({{Flow::left + 95, f.y}, {f.right(), f.y}}, {palette::ink, 0.3, {}});
    f.on().text({Flow::left, f.y + 4}, words, 3, palette::quiet);
    f.on().text({Flow::left + 95, f.y + 4}, phrase("paper-day", reading), 3, palette::quiet);
    f.y += 8;
}

void opening(Flow& f, const Heading& h, const Reading& reading) {
    f.y = wrapped(f.on(), {Flow::left, f.y}, h.name, 4.6, f.width(), palette::ink, true) + 0.6;
    if (!h.customer.empty()) f.say(phrase("paper-for", reading, {{"who", h.customer}}), 3.6);
    if (!h.due.empty()) f.say(phrase("paper-due", reading, {{"day", day_text(h.due, reading)}}), 3.6);
}

/// Who wears what: every name as it is spelled, by size.
void say_roster(Flow& f, const PaperOf& of) {
    const Wearers roster(of.order);
    bool begun = false;
    for (const RunKey& run : runs_in(of)) {
        for (const SizeCount& c : counts_of(of.order, run)) {
            const std::string who = roster.of(run, c.size, 0, c.quantity);
            if (who.empty()) continue;
            if (!begun) f.head(phrase("paper-roster", of.order.unit));
            begun = true;
            f.need(8);
            f.on().text({Flow::left, f.y}, shortened(run_words(of, run) + " " + c.size, 60, 3.4), 3.4, palette::ink, Align::left, true);
            f.y = wrapped(f.on(), {Flow::left + 64, f.y}, who, 3.4, f.width() - 64, palette::ink) + 0.8;
        }
    }
}

}  // namespace

std::vector<GuidePage> quote_pages(const PaperOf& of, const Quote& quote) {
    const Heading h = heading_of(of);
    const std::string& money = of.order.currency;
    Flow f(of.order, phrase("page-quote", of.order.unit), h.customer.empty() ? h.name : h.customer);
    opening(f, h, of.order.unit);
    f.y += 2;
    small_row(f, of);
    f.head(phrase("paper-garments", of.order.unit));
    const double each_at = f.right() - 32, pieces_at = f.right() - 62;
    const auto heads = [&] {
        f.on().text({pieces_at, f.y}, phrase("paper-pieces", of.order.unit), 3, palette::quiet, Align::right);
        f.on().text({each_at, f.y}, phrase("paper-each", of.order.unit), 3, palette::quiet, Align::right);
        f.on().text({f.right(), f.y}, phrase("paper-together", of.order.unit), 3, palette::quiet, Align::right);
        f.y += 5.5;
    };
    heads();
    // sizes of a run at one price stand in one row
    for (std::size_t i = 0; i < quote.lines.size();) {
        std::vector<SizeCount> sizes;
        int pieces = 0;
        Pence total = 0;
        const LinePrice& first = quote.lines[i];
        std::set<std::size_t> here;
        for (std::size_t k = i; k < quote.lines.size(); ++k) {
            const LinePrice& l = quote.lines[k];
            if (l.run != first.run || l.each != first.each) break;
            sizes.push_back({l.size, l.pieces});
            pieces += l.pieces;
            total += l.total();
            here.insert(k);
        }
        const double room = pieces_at - 12 - Flow::left;
        if (i == 0 || quote.lines[i - 1].run != first.run) {  // its name and designs once
            std::string designs;
            for (const Decoration& d : of.order.decorations)
                if (d.run == first.run)
                    designs += (designs.empty() ? "" : "; ") + d.name + ", " + said(of.order.unit, location_name(d.location));
            f.need(20);
            f.y += i == 0 ? 0 : 2;
            f.y = wrapped(f.on(), {Flow::left, f.y}, run_words(of, first.run), 3.6, f.width(), palette::ink, true);
            if (!designs.empty()) f.y = wrapped(f.on(), {Flow::left, f.y}, designs, 2.9, f.width(), palette::quiet);
            f.y += 0.8;
        }
        f.need(7);
        const double top = f.y;
        f.on().text({pieces_at, top}, std::to_string(pieces), 3.4, palette::ink, Align::right);
        f.on().text({each_at, top}, pence_text(first.each, money, of.order.unit), 3.4, palette::ink, Align::right);
        f.on().text({f.right(), top}, pence_text(total, money, of.order.unit), 3.4, palette::ink, Align::right);
        f.y = wrapped(f.on(), {Flow::left + 3, top}, sizes_words(sizes), 3.2, room, palette::ink) + 0.5;
        i += here.size();
    }
    const auto sum = [&](const std::string& words, Pence amount, bool bold = false) {
        f.need(7);
        f.on().text({each_at, f.y}, words, 3.6, bold ? palette::ink : palette::quiet, Align::right, bold);
        f.on().text({f.right(), f.y}, pence_text(amount, money, of.order.unit), 3.6, palette::ink, Align::right, bold);
        f.y += 6;
    };
    f.need(30);
    f.line();
    f.y += 5.5;
    if (quote.set_up > 0) sum(phrase("paper-set-up", of.order.unit, {{"n", quote.designs}}), quote.set_up);
    if (quote.tax > 0) {
        sum(phrase("paper-before-tax", of.order.unit), quote.before_tax());
        sum(phrase("paper-tax", of.order.unit,
                   {{"percent", Number{of.order.pricing.tax, std::floor(of.order.pricing.tax) == of.order.pricing.tax ? 0 : 1}}}),
            quote.tax);
    }
    sum(phrase("paper-total", of.order.unit), quote.total(), true);
    f.y += 2;
    f.say(h.promise, 3.6);
    to_sign(f, phrase("paper-agreed", of.order.unit), of.order.unit);
    return f.pages();
}

std::vector<GuidePage> ticket_pages(const PaperOf& of) {
    const Heading h = heading_of(of);
    const Reading reading = of.order.unit;
    Flow f(of.order, phrase("page-ticket", of.order.unit), date_line(h.name, h.due, of.order.unit));
    opening(f, h, of.order.unit);
    if (!h.note.empty()) f.say(h.note, 3.6, palette::brick_text);
    f.y += 1;
    small_row(f, of);
    f.head(phrase("paper-garments", of.order.unit));
    for (const RunKey& run : runs_in(of)) {
        f.need(8);
        f.on().text({f.right(), f.y}, std::to_string(garments_in(of.order, run)), 3.8, palette::ink, Align::right, true);
        f.on().text({Flow::left, f.y}, shortened(run_words(of, run), 78, 3.4), 3.4, palette::ink, Align::left, true);
        f.y = wrapped(f.on(), {Flow::left + 82, f.y}, sizes_words(counts_of(of.order, run)), 3.4, f.width() - 96, palette::ink) + 0.6;
    }
    say_roster(f, of);
    f.head(phrase("paper-designs", of.order.unit));
    std::map<std::string, std::string> recipes;  // by words, which designs
    std::vector<std::string> in_order;
    for (const RunKey& run : runs_in(of))
        for (const Decoration& d : of.order.decorations) {
            const DecorationFit* fit = d.run == run ? find_fit(of.fit, d.id) : nullptr;
            if (fit == nullptr) continue;
            f.need(10);
            const Medium* medium = find_medium(of.order, d.medium);
            const Press* press = find_press(of.order, d.press);
            f.on().text({Flow::left, f.y}, shortened(d.name, 60, 3.4), 3.4, palette::ink, Align::left, true);
            f.y = wrapped(f.on(), {Flow::left + 64, f.y},
                          run_words(of, run) + ", " + said(of.order.unit, location_name(d.location)) + ": " + widths_words(*fit, reading),
                          3.2, f.width() - 64, palette::ink);
            std::string on = medium == nullptr ? "" : medium->name;
            if (press != nullptr) on += (on.empty() ? "" : "; ") + press->name;
            if (d.spares > 0) on += phrase("paper-spares", of.order.unit, {{"n", d.spares}});
            f.y = wrapped(f.on(), {Flow::left + 64, f.y}, on, 3, f.width() - 64, palette::quiet) + 0.8;
            const std::string words =
                recipe_words(recipe_for(of.order, d).steps, of.order.press_run.fahrenheit, in_oven(of.order, d), of.order.unit);
            if (words.empty()) continue;
            std::string& whose = recipes[words];
            if (whose.empty()) in_order.push_back(words);
            if (whose.find(d.name) == std::string::npos) whose += (whose.empty() ? "" : ", ") + d.name;
        }
    if (!in_order.empty()) f.head(phrase("paper-recipes", of.order.unit));
    for (const std::string& words : in_order) f.say(recipes[words] + ": " + words, 3.1);
    f.head(phrase("paper-material", of.order.unit));
    for (const MediumPlan& m : of.sheets.media) {
        const Medium* medium = find_medium(of.order, m.medium);
        if (medium == nullptr) continue;
        const int sheets = static_cast<int>(m.sheets.size());
        if (m.stale || m.placed == 0)
            f.say(phrase("paper-unsettled", of.order.unit, {{"medium", medium->name}}), 3.4, palette::carmine);
        else if (medium->shape == MediumShape::roll)
            f.say(phrase("paper-runs", of.order.unit,
                         {{"medium", medium->name}, {"n", sheets}, {"metres", Number{m.length / 1000, 2}}, {"pieces", m.placed}}));
        else
            f.say(phrase("paper-sheets", of.order.unit, {{"medium", medium->name}, {"n", sheets}, {"pieces", m.placed}}));
    }
    for (const FromShelf& s : from_shelf(of.order, of.set)) {
        if (!of.job.empty() && s.job != of.job) continue;
        const StockEntry* e = find_entry(of.stock, s.bag);
        f.say(phrase("paper-from-shelf", of.order.unit,
                     {{"n", s.copies},
                      {"design", find_transfer(of.set, s.transfer)->name},
                      {"place", e == nullptr || e->place.empty() ? phrase("paper-the-shelf", of.order.unit) : e->place}}));
    }
    for (const Standby& s : of.supply.wants)
        if (s.lacking > 1e-6 && s.counted)
            f.say(phrase("paper-lacking", of.order.unit,
                         {{"what", s.want.name},
                          {"amount", s.want.kind == StockKind::roll ? Number{s.lacking / 1000, 1} : Number{s.lacking, 0}},
                          {"unit", std::string(s.want.kind == StockKind::roll ? " m" : "")}}),
                  3.4, palette::carmine);
    if (!of.press.loads.empty()) {
        f.head(phrase("paper-press", of.order.unit));
        f.say(phrase("page-run-says", of.order.unit,
                     {{"from", time_of_day(of.order.press_run, 0)},
                      {"to", time_of_day(of.order.press_run, of.press.schedule.end)},
                      {"lasts", duration_words(of.press.schedule.end)},
                      {"alone", duration_words(of.press.one_by_one)},
                      {"n", of.press.shop.hands},
                      {"revision", of.press.revision}}));
        for (const std::string& c : press_cautions(of.order, of.press)) f.say(c, 3, palette::carmine);
    }
    f.need(16);
    f.y += 4;
    // spread over the line, each as wide as it says
    std::vector<std::string> steps;
    for (const char* step :
         {"paper-tick-blanks", "paper-tick-printed", "paper-tick-cut", "paper-tick-pressed", "paper-tick-checked", "paper-tick-packed"})
        steps.push_back(phrase(step, of.order.unit));
    double gap = f.width(), x = Flow::left;
    for (const std::string& s : steps) gap -= 6 + text_width_guess(s, 3.2);
    gap /= static_cast<double>(steps.size() - 1);
    for (const std::string& s : steps) {
        f.on().rect({x, f.y, x + 4.5, f.y + 4.5}, {}, Stroke{palette::ink, 0.3, {}});
        f.on().text({x + 6, f.y + 3.7}, s, 3.2, palette::ink);
        x += 6 + text_width_guess(s, 3.2) + gap;
    }
    return f.pages();
}

std::vector<GuidePage> approval_pages(const PaperOf& of) {
    const Heading h = heading_of(of);
    const Reading reading = of.order.unit;
    Flow f(of.order, phrase("page-approval", of.order.unit), h.customer.empty() ? h.name : h.customer);
    opening(f, h, of.order.unit);
    f.say(phrase("paper-look-closely", of.order.unit), 3.3, palette::quiet);
    f.y += 2;
    for (const RunKey& run : runs_in(of)) {
        const auto counts = counts_of(of.order, run);
        if (counts.empty()) continue;
        std::vector<Side> sides;
        for (const Decoration& d : of.order.decorations)
            if (d.run == run && find_fit(of.fit, d.id) != nullptr &&
                std::find(sides.begin(), sides.end(), side_of(d.location)) == sides.end())
                sides.push_back(side_of(d.location));
        if (sides.empty()) sides.push_back({family_faces(family_of(of.order, run)).front()});
        const std::string size = middle_size(counts);
        for (std::size_t k = 0; k < sides.size(); ++k) {
            constexpr double tall = 74, wide = 74;
            f.need(tall + 6);
            const double top = f.y;
            const double scale = draw_small_garment(f.on(), of.order, of.fit, run, size, sides[k],
                                                    {Flow::left, top, Flow::left + wide, top + tall - 5}, hair_line);
            if (scale > 0)
                f.on().text({Flow::left + wide / 2, top + tall - 1},
                            phrase("paper-shown", of.order.unit,
                                   {{"size", size},
                                    {"face", said(of.order.unit, face_name(sides[k].face)) +
                                                 std::string(sides[k].inside_out ? phrase("paper-inside-out", of.order.unit) : "")},
                                    {"scale", Number{1 / scale, 1}}}),
                            2.8, palette::quiet, Align::centre);
            const double x = Flow::left + wide + 8, room = f.right() - x;
            double y = top + 4;
            y = wrapped(f.on(), {x, y}, run_words(of, run), 4, room, palette::ink, true) + 0.8;
            if (k == 0) y = wrapped(f.on(), {x, y}, sizes_words(counts), 3.4, room, palette::ink) + 1.5;
            for (const Decoration& d : of.order.decorations) {
                const DecorationFit* fit = d.run == run && side_of(d.location) == sides[k] ? find_fit(of.fit, d.id) : nullptr;
                const SizeFit* shown = fit == nullptr ? nullptr : find_size(*fit, size);
                if (shown == nullptr) continue;
                const BlankStyle* style = find_style(of.order, run.style);
                y = wrapped(f.on(), {x, y}, d.name + ", " + said(of.order.unit, location_name(d.location)), 3.4, room, palette::ink, true);
                y = wrapped(f.on(), {x, y}, phrase("paper-wide", of.order.unit, {{"widths", widths_words(*fit, reading)}}), 3.2, room,
                            palette::ink);
                if (style != nullptr && !style_fault(*style))
                    y = wrapped(f.on(), {x, y},
                                phrase("paper-below", reading,
                                       {{"top", Length::from_mm(shown->top_to_ink)},
                                        {"what", Term{panel_for(*style, size, d.location).top_name}},
                                        {"size", size}}),
                                3.2, room, palette::ink);
                const Method* method = method_of(of.order, d);
                if (method != nullptr) y = wrapped(f.on(), {x, y}, method->name, 3, room, palette::quiet);
                y += 1.5;
            }
            f.y = std::max(top + tall, y) + 4;
        }
    }
    say_roster(f, of);
    f.need(44);
    f.line();
    f.y += 6;
    f.say(phrase("paper-colours", of.order.unit), 3.1, palette::quiet);
    f.say(h.promise, 3.6);
    to_sign(f, phrase("paper-approved", of.order.unit), of.order.unit);
    return f.pages();
}

std::string bag_code(const std::string& bag) { return "orthema-bag:" + bag; }

std::optional<std::string> bag_from_code(const std::string& text) {
    constexpr std::string_view head = "orthema-bag:";
    if (text.size() <= head.size() || text.compare(0, head.size(), head) != 0) return std::nullopt;
    return text.substr(head.size());
}

std::vector<GuidePage> shelf_labels(const std::vector<StockEntry>& bags, Paper paper, Reading reading) {
    constexpr std::size_t columns = 3, rows = 8;
    const PaperSize sheet = paper_size(paper);
    const double w = sheet.width / columns, h = sheet.height / rows;
    std::vector<GuidePage> pages;
    for (std::size_t i = 0; i < bags.size(); ++i) {
        const std::size_t at = i % (columns * rows);
        if (at == 0) {
            pages.push_back({{}, phrase("page-labels", reading), {}});
            pages.back().drawing.width = sheet.width;
            pages.back().drawing.height = sheet.height;
        }
        Drawing& d = pages.back().drawing;
        const StockEntry& e = bags[i];
        const auto row = at / columns;
        const double x = w * static_cast<double>(at % columns) + 5, y = h * static_cast<double>(row) + 4;
        constexpr double code = 20;
        draw_code(d, bag_code(e.id), {x, y + 2}, code);
        const double tx = x + code + 2, room = w - code - 10;
        double ty = y + 5;
        ty = wrapped(d, {tx, ty}, shortened(e.name, room * 1.9, 3), 3, room, palette::ink, true) + 0.4;
        d.text({tx, ty}, phrase("paper-bag-size", reading, {{"width", Length::from_mm(e.mark.width)}, {"n", static_cast<int>(e.on_hand)}}),
               2.8, palette::ink);
        ty += 4;
        if (!e.until.empty())
            d.text({tx, ty}, phrase("paper-bag-until", reading, {{"day", day_text(e.until, reading)}}), 2.6, palette::ink);
        ty += 3.6;
        if (e.mark.mirrored) d.text({tx, ty}, phrase("paper-bag-mirrored", reading), 2.6, palette::quiet);
        d.text({x, y + code + 5.5}, shortened(e.from + (e.place.empty() ? "" : " · " + e.place), w - 10, 2.6), 2.6, palette::quiet);
    }
    return pages;
}

}  // namespace orthema
