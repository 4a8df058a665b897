#include "core/records/of_load.h"

#include <cmath>
#include <numbers>

#include "core/order/pieces.h"

namespace orthema {

PressRecord record_of(const Order& order, const FitPlan& fit, const PressPlan& plan, const Load& load) {
    PressRecord r;
    r.order = order.name;
    r.job = order.job;
    r.load = load.id;
    r.design = load.decoration;
    r.size = load.size;
    r.pieces = std::max(1, load.pieces);
    r.trial = load.trial;
    const Decoration* d = find_decoration(order, load.decoration);
    if (d == nullptr) return r;
    if (!d->run.job.empty()) r.job = d->run.job;  // of a gang whose it is
    r.style = d->run.style;
    r.colour = d->run.colour;
    if (const BlankStyle* style = find_style(order, d->run.style)) {
        r.fabric = style->fabric;
        r.box = style->batch;
    }
    if (const Method* method = method_of(order, *d)) r.method = method->id;
    r.medium = d->medium;
    if (const Medium* medium = find_medium(order, d->medium)) r.batch = medium->batch;
    r.press = d->press;
    if (!load.parts.empty()) {
        const std::vector<int> numbers = piece_numbers(order, d->run, load.size);
        const auto first = static_cast<std::size_t>(load.parts.front().first);
        if (first < numbers.size()) r.first = numbers[first];
    }
    for (const int t : load.tasks) {  // the press that it went to, and by hand what it was planned to take
        const auto task = static_cast<std::size_t>(t);
        if (task < plan.schedule.places.size())
            if (const int m = plan.schedule.places[task].machine; m >= 0) r.press = plan.presses[static_cast<std::size_t>(m)];
    }
    const DecorationFit* of = find_fit(fit, d->id);
    const SizeFit* size = of == nullptr ? nullptr : find_size(*of, load.size);
    if (const Press* press = find_press(order, r.press); press != nullptr && size != nullptr) {
        if (size->platen.platen >= 0 && size->platen.platen < static_cast<int>(press->platens.size()))
            r.platen = press->platens[static_cast<std::size_t>(size->platen.platen)].name;
        if (size->platen.pad >= 0 && size->platen.pad < static_cast<int>(press->pads.size()))
            r.pad = press->pads[static_cast<std::size_t>(size->platen.pad)].name;
    }
    for (const PlannedStep& s : load.steps)
        r.acts.push_back({s.step.kind, s.step.celsius, 0, s.step.seconds, s.step.pressure, s.step.peel});
    return r;
}

double price_of_loss(const Order& order, const FitPlan& fit, const PressRecord& r) {
    const bool blank_too = r.mended == Mended::spoiled;
    if (!blank_too && r.mended != Mended::printed_again) return 0;
    double out = 0;
    const Decoration* d = find_decoration(order, r.design);
    const DecorationFit* of = d == nullptr ? nullptr : find_fit(fit, d->id);
    const SizeFit* size = of == nullptr ? nullptr : find_size(*of, r.size);
    const Method* method = d == nullptr ? nullptr : method_of(order, *d);
    const Medium* medium = d == nullptr ? nullptr : find_medium(order, d->medium);
    if (size != nullptr && method != nullptr && medium != nullptr) out += material_price(*method, *medium) * size->width * size->height;
    if (const BlankStyle* style = find_style(order, r.style); blank_too && style != nullptr) out += style->price;
    return out;
}

double minutes_lost(const PressRecord& r) {
    if (r.outcome == Outcome::good || r.mended == Mended::nothing || r.mended == Mended::second_quality) return 0;
    double seconds = r.took > 0 ? r.took : r.planned;
    for (const ActDone& a : r.acts) seconds += a.seconds;
    return seconds / 60;
}

std::vector<TapeAsk> tape_asks(const Decoration& d, const DecorationFit& fit, const SizeFit& s, const Reading& reading) {
    std::vector<TapeAsk> out;
    const Ground* ground = find_ground(fit, s.size);
    if (ground == nullptr) return out;
    const Exactness exact = exactness_of(slack_of(*ground, fit, s));
    const Panel& p = ground->panel;
    if (d.making.cover && p.face == Face::wrap) {
        out.push_back({TapeAt::gap, "Gap at the seam; a lap as less than nought", 0, 1, true});
        return out;
    }
    out.push_back(
        {TapeAt::top, capitalised(phrase("card-top-to-ink", reading, {{"top", Term{p.top_name}}})), s.top_to_ink, exact.level, true});
    const std::string& side = side_name_at(p, margin_height(p, s.ink));
    out.push_back({TapeAt::left, phrase("card-ink-to-left", reading, {{"side", Term{side}}}), s.left_margin, exact.sideways, true});
    out.push_back({TapeAt::right, phrase("card-ink-to-right", reading, {{"side", Term{side}}}), s.right_margin, exact.sideways, true});
    out.push_back({TapeAt::left_edge, "Ink's left edge lower than planned by", 0, 0, false});
    out.push_back({TapeAt::right_edge, "Ink's right edge lower than planned by", 0, 0, false});
    out.push_back({TapeAt::width, phrase("card-width", reading), s.width, 0, false});
    return out;
}

bool Taped::any() const {
    for (const auto& v : mm)
        if (v) return true;
    return false;
}

Landing landing_of(const Taped& t, const SizeFit& s, const std::vector<TapeAsk>& asks) {
    Landing out;
    if (t[TapeAt::top]) out.down = *t[TapeAt::top] - s.top_to_ink;
    const auto& left = t[TapeAt::left];
    const auto& right = t[TapeAt::right];
    if (left && right)
        out.aside = ((*left - s.left_margin) - (*right - s.right_margin)) / 2;
    else if (left)
        out.aside = *left - s.left_margin;
    else if (right)
        out.aside = s.right_margin - *right;
    if (t[TapeAt::left_edge] && t[TapeAt::right_edge] && s.width > 0)
        out.tilt = std::atan2(*t[TapeAt::right_edge] - *t[TapeAt::left_edge], s.width) * 180 / std::numbers::pi;
    if (t[TapeAt::width] && s.width > 0) out.wider = (*t[TapeAt::width] / s.width - 1) * 100;
    if (t[TapeAt::gap]) out.gap = *t[TapeAt::gap];
    for (const TapeAsk& a : asks) {
        if (a.at == TapeAt::top) out.along = a.allowed;
        if (a.at == TapeAt::left || a.at == TapeAt::gap) out.across = a.allowed;
    }
    return out;
}

Taped taped_of(const Landing& l, const SizeFit& s, const std::vector<TapeAsk>& asks) {
    Taped out;
    for (const TapeAsk& a : asks) {
        if (a.at == TapeAt::top && l.down) out[a.at] = s.top_to_ink + *l.down;
        if (a.at == TapeAt::left && l.aside) out[a.at] = s.left_margin + *l.aside;
        if (a.at == TapeAt::right && l.aside) out[a.at] = s.right_margin - *l.aside;
        if (a.at == TapeAt::gap && l.gap) out[a.at] = *l.gap;
    }
    return out;
}

Taped taped_on(const Panel& p, const Rect& ink, double turned) {
    Taped out;
    out[TapeAt::top] = ink.y0 - p.top_y;
    const double y = margin_height(p, ink);
    out[TapeAt::left] = ink.x0 - left_edge_x(p, y);
    out[TapeAt::right] = right_edge_x(p, y) - ink.x1;
    const double lower = ink.width() / 2 * std::tan(turned);
    out[TapeAt::left_edge] = -lower;
    out[TapeAt::right_edge] = lower;
    out[TapeAt::width] = ink.width();
    return out;
}

}  // namespace orthema
