#include "app/benches/sheets/whole_roll.h"

#include <QMouseEvent>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "core/guides/panel_drawing.h"
#include "core/sheets/sheet_drawing.h"

namespace orthema::app {

WholeRoll::WholeRoll(Workroom& room, Ribbon& ribbon, QWidget* parent) : Canvas(room.art(), parent), room_(room), ribbon_(ribbon) {
    setFixedHeight(104);
    setFocusPolicy(Qt::NoFocus);
    setObjectName(QStringLiteral("Whole roll"));
    setAccessibleName(tr("The whole roll in small, and the share of film used over time"));
    connect(&ribbon, &Ribbon::moved_view, this, [this] { refresh(); });
}

namespace {

constexpr double curve_room = 190;

/// Where the roll lies in small: its place, its scale, its height and its upper edge.
struct Small {
    Rect strip;
    double k, h, y0;
};
Small small(double width, double height, const RibbonSheets& all) {
    const Rect strip{12, 30, width - curve_room - 24, height - 12};
    const double k = std::min(strip.height() / std::max(1.0, all.width), strip.width() / std::max(1.0, all.total));
    return {strip, k, all.width * k, strip.y0 + (strip.height() - all.width * k) / 2};
}

}  // namespace

/// Changes when any piece, or what it looks like, does.
std::string WholeRoll::backdrop_key() {
    std::size_t mix = 1469598103934665603ull;
    const auto stir = [&](std::size_t v) { mix = (mix ^ v) * 1099511628211ull; };
    for (const PlacedCopy& c : copies_of(room_)) {
        stir(std::hash<std::string>{}(c.transfer));
        for (const double v : {c.x, c.y, double(c.turn), double(c.sheet)}) stir(std::hash<double>{}(v));
    }
    stir(room_.transfer_set().transfers.size());
    return room_.selection().medium + std::to_string(mix);
}

Drawing WholeRoll::draw_backdrop(double width, double height) {
    Drawing d;
    const Rect card{0.5, 0.5, width - 0.5, height - 0.5};
    d.marks.emplace_back(PathMark{{round_rect(card, 6)}, true, palette::light, Stroke{palette::rule, 1, {}}});
    const RibbonSheets all = ribbon_sheets(room_);
    const TransferIndex index(room_.transfer_set());
    const auto [strip, k, h, y0] = small(width, height, all);
    for (std::size_t i = 0; i < all.starts.size(); ++i)
        d.rect({strip.x0 + all.starts[i] * k, y0, strip.x0 + (all.starts[i] + all.lengths[i]) * k, y0 + h}, film,
               Stroke{palette::rule, 1, {}});
    const bool many = copies_of(room_).size() > 800;
    for (const PlacedCopy& c : copies_of(room_)) {
        const Transfer* t = index.find(c.transfer);
        if (t == nullptr || std::size_t(c.sheet) >= all.starts.size()) continue;
        const Affine map = Affine{k, 0, 0, k, strip.x0 + all.starts[std::size_t(c.sheet)] * k, y0}.after(copy_map(c));
        if (many)  // too small to see anything of
            d.region(mapped(Region{{box_region(bounds(t->contour.outer))[0].outer, {}}}, map), Colour{0.72, 0.74, 0.72, 1}, {});
        else
            draw_transfer(d, *t, map, reading_in());
    }
    return d;
}

Drawing WholeRoll::draw(double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    const Medium* m = medium_of(room_);
    const MediumPlan* plan = plan_of(room_);
    if (m == nullptr) return d;
    const RibbonSheets all = ribbon_sheets(room_);
    const std::string name = m->shape == MediumShape::roll ? spoken("Whole roll") : spoken("All sheets");
    d.text({12, 19}, name, 13.5, palette::ink, Align::left, true);
    if (plan != nullptr) {
        std::string text = plan->length > 0
                               ? film_text(plan->length, room_.order().unit).toStdString() + spoken(" of film")
                               : std::to_string(plan->sheets.size()) + (plan->sheets.size() == 1 ? spoken(" sheet") : spoken(" sheets"));
        text += spoken(" for ") + std::to_string(plan->placed) + (plan->placed == 1 ? spoken(" piece") : spoken(" pieces"));
        const double from = 12 + text_width_guess(name, 13.5, true) + 12;
        if (plan->sheets.size() > 1 && plan->length > 0) {
            const std::string runs = spoken(" in ") + std::to_string(plan->sheets.size()) + spoken(" runs of the roll");
            if (from + text_width_guess(text + runs, 12) < width - curve_room - 12) text += runs;
        }
        d.text({from, 19}, text, 12, palette::quiet);
    }
    const auto [strip, k, h, y0] = small(width, height, all);
    const double a = strip.x0 + std::max(0.0, ribbon_.first_mm()) * k, b = strip.x0 + std::min(all.total, ribbon_.last_mm()) * k;
    d.marks.emplace_back(
        PathMark{{round_rect({a, y0 - 3, std::max(a + 6, b), y0 + h + 3}, 3)}, true, {}, Stroke{palette::verdigris, 2, {}}});
    // the curve of film used over the time of the last settling
    const Rect plot{width - curve_room, 34, width - 54, height - 22};
    d.text({plot.x0, 19}, spoken("film used"), 12, palette::quiet);
    d.line({{plot.x0, plot.y1}, {plot.x1, plot.y1}}, {palette::rule, 1, {}});
    const auto& curve = room_.settler().curve();
    if (curve.size() >= 2) {
        double low = 1, high = 0;
        for (const SettlePoint& p : curve) {
            low = std::min(low, p.density);
            high = std::max(high, p.density);
        }
        if (high - low < 0.01) low = high - 0.01;
        const double end = std::max(0.1, curve.back().seconds);
        Ring line;
        double y = 0;
        for (const SettlePoint& p : curve) {
            const double x = plot.x0 + p.seconds / end * plot.width();
            if (!line.empty()) line.push_back({x, y});  // it stays as it was until it is better
            y = plot.y1 - (p.density - low) / (high - low) * plot.height();
            line.push_back({x, y});
        }
        d.line(line, {palette::verdigris, 2, {}});
        d.text({plot.x1 + 6, y + 4}, mm_text(std::round(100 * high), 0) + " %", 12.5, palette::verdigris_text, Align::left, true);
        d.text({plot.x0, height - 7}, "0 s", 11, palette::quiet);
        d.text({plot.x1, height - 7}, figure_text(end, 1, reading_in()) + " s", 11, palette::quiet, Align::right);
    } else {
        d.text({plot.x0, (plot.y0 + plot.y1) / 2}, spoken("shown while settling"), 11.5, palette::quiet);
    }
    return d;
}

void WholeRoll::go(double x) {
    const RibbonSheets all = ribbon_sheets(room_);
    const auto [strip, k, h, y0] = small(width(), height(), all);
    ribbon_.show_from((x - strip.x0) / k - (ribbon_.last_mm() - ribbon_.first_mm()) / 2);
}

void WholeRoll::mousePressEvent(QMouseEvent* event) { go(event->position().x()); }
void WholeRoll::mouseMoveEvent(QMouseEvent* event) { go(event->position().x()); }

}  // namespace orthema::app
