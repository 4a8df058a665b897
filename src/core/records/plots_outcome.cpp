// Plots of how pieces came out: by heat and time, and by what was lost.
#include <algorithm>
#include <cmath>
#include <map>

#include "core/records/of_load.h"
#include "core/records/plot_marks.h"
#include "core/records/plots.h"
#include "core/records/statistics.h"
#include "core/records/tried.h"

namespace orthema {

Plot tried_plot(const PlotAsk& ask, std::optional<Point> usual, bool fahrenheit) {
    Plot plot = begun(ask);
    Drawing& d = plot.drawing;
    const std::vector<Tried> tried = tried_of(*ask.all, ask.which);
    if (tried.empty()) {
        say_nothing(plot, said(ask.unit, "Nothing was pressed by this yet."),
                    said(ask.unit, "Each heat and time that is tried is a dot here, by how it came out."));
        return plot;
    }
    double c0 = 1e9, c1 = -1e9, s0 = 1e9, s1 = -1e9;
    const auto reach = [&](double c, double s) {
        c0 = std::min(c0, c);
        c1 = std::max(c1, c);
        s0 = std::min(s0, s);
        s1 = std::max(s1, s);
    };
    for (const Tried& t : tried) reach(t.celsius, t.seconds);
    if (usual) reach(usual->x, usual->y);
    c0 -= 8;
    c1 += 8;
    const double pad = std::max(2.0, 0.2 * (s1 - s0));
    s0 = std::max(0.0, s0 - pad);
    s1 += pad;
    const double left = 64, right = d.width - 30, top = 20, foot = d.height - 62;
    const auto at = [&](double c, double s) {
        return Point{left + (right - left) * (c - c0) / (c1 - c0), foot - (foot - top) * (s - s0) / (s1 - s0)};
    };
    for (double c = std::ceil(c0 / 5) * 5; c <= c1; c += 5) {
        d.line({at(c, s0), at(c, s1)}, {palette::rule, 1, {}});
        d.text(at(c, s0) + Point{0, 16}, heat_words(c, fahrenheit), 11.5, palette::quiet, Align::centre);
    }
    const double step = s1 - s0 > 120 ? 30 : s1 - s0 > 30 ? 10 : 2;
    for (double s = std::ceil(s0 / step) * step; s <= s1; s += step) {
        d.line({at(c0, s), at(c1, s)}, {palette::rule, 1, {}});
        d.text(at(c0, s) + Point{-8, 4}, mm_text(s, 0) + " s", 11.5, palette::quiet, Align::right);
    }
    // the region that came out clean: the hull of the points without a fault
    Ring clean;
    for (const Tried& t : tried)
        if (t.clean == t.tries) clean.push_back({t.celsius, t.seconds});
    if (clean.size() >= 3) {
        Ring drawn;
        for (const Point& p : convex_hull({Polygon{clean, {}}})) drawn.push_back(at(p.x, p.y));
        d.marks.emplace_back(PathMark{{drawn}, true, faded(palette::moss, 0.12), Stroke{palette::moss, 1.2, {4, 3}}});
    }
    if (usual) {
        draw_mark(d, at(usual->x, usual->y), 0, palette::ink, 19, false);
        d.text(at(usual->x, usual->y) + Point{0, -24}, said(ask.unit, "the recipe"), 12, palette::ink, Align::centre);
    }
    std::vector<Rect> plates;  // of the words beside the dots
    if (usual)
        plates.push_back(
            {at(usual->x, usual->y).x - 40, at(usual->x, usual->y).y - 38, at(usual->x, usual->y).x + 40, at(usual->x, usual->y).y - 18});
    for (const Tried& t : tried) {
        const Point p = at(t.celsius, t.seconds);
        const double share = static_cast<double>(t.clean) / t.tries;
        const Colour tone = share >= 0.95 ? palette::moss : share >= 0.6 ? palette::ochre : palette::carmine;
        draw_mark(d, p, share >= 0.95 ? 0 : share >= 0.6 ? 2 : 1, tone, 5 + 2.2 * std::log2(1.0 + t.tries), true);
        const std::string share_words =
            mm_text(100 * t.share.low, 0) + said(ask.unit, " to ") + mm_text(100 * t.share.high, 0) + " %" +
            (t.mostly != Outcome::good ? said(ask.unit, ", else ") + said(ask.unit, outcome_name(t.mostly)) : "");
        const double wide = 7.0 * static_cast<double>(share_words.size());
        const double off = 5 + 2.2 * std::log2(1.0 + t.tries) + 8;
        Rect plate{p.x + off, p.y - 14, p.x + off + wide, p.y + 16};
        if (plate.x1 > d.width - 8) plate = {p.x - off - wide, plate.y0, p.x - off, plate.y1};
        while (std::any_of(plates.begin(), plates.end(),
                           [&](const Rect& o) { return plate.x0 < o.x1 && o.x0 < plate.x1 && plate.y0 < o.y1 && o.y0 < plate.y1; })) {
            plate.y0 -= 31;
            plate.y1 -= 31;
        }
        plates.push_back(plate);
        d.text({plate.x0, plate.y0 + 12}, phrase("clean-of", ask.unit, {{"k", t.clean}, {"n", t.tries}}), 12.5, palette::ink, Align::left,
               true);
        d.text({plate.x0, plate.y0 + 26}, share_words, 11.5, palette::quiet);
        plot.dots.emplace_back(p, t.records.front());
    }
    d.text({(left + right) / 2, d.height - 20}, said(ask.unit, "heat of the plate across, seconds up; a larger dot is more tries"), 12,
           palette::quiet, Align::centre);
    return plot;
}

Plot loss_plot(const PlotAsk& ask, LossBy by, const std::string& currency) {
    Plot plot = begun(ask);
    Drawing& d = plot.drawing;
    struct Bar {
        double cost = 0, minutes = 0;
        int pieces = 0;
        std::size_t first = 0;
    };
    std::map<std::string, Bar> bars;
    int pressed = 0;
    for (const std::size_t i : ask.which) {
        const PressRecord& r = (*ask.all)[i];
        pressed += r.pieces;
        if (r.outcome == Outcome::good || r.mended == Mended::nothing) continue;
        std::string key;
        switch (by) {
        case LossBy::cause: key = r.outcome == Outcome::other ? r.cause : outcome_name(r.outcome); break;
        case LossBy::press: key = name_of(ask, r.press, TellApart::press); break;
        case LossBy::blank: {
            const BlankStyle* s = ask.order == nullptr ? nullptr : find_style(*ask.order, r.style);
            key = s == nullptr ? r.style : s->name;
            break;
        }
        case LossBy::method: {
            const Method* m = ask.order == nullptr ? nullptr : find_method(*ask.order, r.method);
            key = m == nullptr ? r.method : m->name;
            break;
        }
        case LossBy::design: {
            const Decoration* dec = ask.order == nullptr ? nullptr : find_decoration(*ask.order, r.design);
            key = dec == nullptr ? r.design : dec->name;
            break;
        }
        case LossBy::month: key = r.at.substr(0, 7); break;
        }
        Bar& b = bars[key];
        if (b.pieces == 0) b.first = i;
        ++b.pieces;
        b.cost += r.lost;
        b.minutes += minutes_lost(r);
    }
    if (bars.empty()) {
        say_nothing(plot, said(ask.unit, pressed == 0 ? "Nothing is recorded yet." : "Nothing was spoiled."),
                    pressed == 0 ? said(ask.unit, "A shift writes it by itself.")
                                 : phrase("of-pressed", ask.unit, {{"n", static_cast<int>(pressed)}}));
        return plot;
    }
    std::vector<std::pair<std::string, Bar>> rows(bars.begin(), bars.end());
    if (by != LossBy::month)
        std::stable_sort(rows.begin(), rows.end(), [](const auto& a, const auto& b) {
            return a.second.cost != b.second.cost ? a.second.cost > b.second.cost : a.second.pieces > b.second.pieces;
        });
    if (rows.size() > 14) rows.resize(14);
    double most = 0;
    const bool priced = std::any_of(rows.begin(), rows.end(), [](const auto& r) { return r.second.cost > 0; });
    for (const auto& [name, b] : rows) most = std::max(most, priced ? b.cost : b.pieces);
    const double left = 190, right = d.width - 300, high = std::min(40.0, (d.height - 60) / static_cast<double>(rows.size()));
    double y = 20;
    for (const auto& [name, b] : rows) {
        const double share = (priced ? b.cost : b.pieces) / std::max(1e-9, most);
        d.text({left - 12, y + high * 0.62}, name, 13.5, palette::ink, Align::right);
        d.rect({left, y + high * 0.18, left + std::max(2.0, (right - left) * share), y + high * 0.82}, faded(palette::brick, 0.8));
        const Interval i = share_interval(b.pieces, std::max(b.pieces, pressed));
        std::string lost;
        if (b.cost > 0) lost = currency + mm_text(b.cost, 2);
        if (b.minutes >= 1) lost += (lost.empty() ? "" : said(ask.unit, " and ")) + mm_text(std::floor(b.minutes), 0) + " min";
        d.text({left + std::max(2.0, (right - left) * share) + 10, y + high * 0.62},
               phrase("page-pieces", ask.unit, {{"n", b.pieces}}) + (lost.empty() ? "" : phrase("lost", ask.unit, {{"what", lost}})) +
                   ", " + figure_text(100 * i.low, 1, ask.unit) + said(ask.unit, " to ") + figure_text(100 * i.high, 1, ask.unit) + " %",
               12.5, palette::ink);
        plot.dots.emplace_back(Point{left + 8, y + high / 2}, b.first);
        y += high;
    }
    d.text({left, d.height - 18}, phrase("of-pressed-shares", ask.unit, {{"n", static_cast<int>(pressed)}}), 12, palette::quiet);
    return plot;
}

}  // namespace orthema
