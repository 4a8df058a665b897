#include "app/benches/press/step_card.h"

#include <QMouseEvent>

#include <cmath>

#include "app/widgets/figures.h"
#include "app/benches/press/lanes_view.h"
#include "core/guides/panel_drawing.h"
#include "core/guides/guides.h"
#include "core/guides/platen_map.h"

namespace orthema::app {

namespace {

/// As on cards of paper, with the lines of large letters closer.
double wrapped_lines(Drawing& d, Point at, const std::string& words, double size, double width, Colour colour, bool bold = false) {
    return wrapped(d, at, words, size, width, colour, bold, 1.3);
}

bool in_oven(const Order& order, const Decoration* dec) {
    const Press* press = dec == nullptr ? nullptr : find_press(order, dec->press);
    return press != nullptr && press->kind == PressKind::oven;
}

std::string load_how(const Order& order, const Decoration* dec) {
    const BlankStyle* style = dec == nullptr ? nullptr : find_style(order, dec->run.style);
    switch (style == nullptr ? Build::upper_body : family_build(style->family)) {
    case Build::cap: return "Draw the panel smooth over the form, bill clear of the platen; middle on the form's middle.";
    case Build::wrap: return "Middle of the print opposite the handle or seam, rim up; close it straight.";
    case Build::flat: return "Lay it flat and square; edges as on the map.";
    default: return "Smooth it flat; collar, centre and seams as on the map.";
    }
}

const ActInfo* info_of(const PressPlan& plan, const Act& act) {
    return act.phase < 0 ? nullptr : &plan.tasks[std::size_t(act.task)].acts[std::size_t(act.phase)];
}

}  // namespace

std::string card_words(const PressPlan& plan, const Act& act) {
    const ActInfo* info = info_of(plan, act);
    switch (act.kind) {
    case ActKind::change: return "Change the press";
    case ActKind::load: return "Load";
    case ActKind::place: return "Place the transfer";
    case ActKind::press: {
        const std::string verb = capitalised(info == nullptr ? "press" : step_name(info->step.kind));
        return verb + " " + mm_text(info == nullptr ? 0 : info->step.seconds, 1) + " s";
    }
    case ActKind::wait: return "Wait " + mm_text(info == nullptr ? 0 : info->step.seconds, 0) + " s";
    case ActKind::peel: return std::string("Peel ") + (info == nullptr ? "" : peel_name(info->step.peel));
    case ActKind::turn: return "Turn";
    case ActKind::trim: return "Trim the edges";
    case ActKind::unload: return "Open and take off";
    case ActKind::check: return "Check the trial";
    }
    return "";
}

std::string card_how(const Order& order, const PressPlan& plan, const Act& act) {
    const ActInfo* info = info_of(plan, act);
    const Load& load = load_of(plan, act.task);
    const Decoration* dec = find_decoration(order, load.decoration);
    const PressState want = plan.shop.tasks[std::size_t(act.task)].state;
    switch (act.kind) {
    case ActKind::change: {
        const PressState mounted = plan.shop.tasks[std::size_t(act.task)].state_on(act.machine);
        const Press* press = find_press(order, plan.presses[std::size_t(act.machine)]);
        std::string s = "Set it to " + std::string(pressure_name(Pressure(want.pressure))) + " pressure";
        if (press != nullptr && mounted.platen < int(press->platens.size()))
            s += ", with its " + press->platens[std::size_t(mounted.platen)].name + " on";
        return s + ". It goes to " + heat_words(want.celsius, order.press_run.fahrenheit) + ". Gloves: the platen is hot.";
    }
    case ActKind::load:
        if (info != nullptr && info->step.kind == StepKind::marry)
            return "The sheets of the transfer on one another, marks on marks, between two cover sheets. No blank yet.";
        if (in_oven(order, dec)) return "Upright on the tray, standing apart, so that the air goes round each.";
        return load.pieces > 1 ? "Fill the platen about its middle, for even pressure." : load_how(order, dec);
    case ActKind::place: {
        const BlankStyle* style = dec == nullptr ? nullptr : find_style(order, dec->run.style);
        const bool creased = style != nullptr && family_build(style->family) == Build::upper_body;
        std::string s = std::string("Centre tick on the ") + (creased ? "crease" : "middle mark") + ", reading side as on the card.";
        if (info->layer > 0) s = "Lay the next layer on the one below.";
        if (info->part > 0) s = "Lay part " + std::to_string(info->part + 1) + " against the last, tick to tick.";
        return s;
    }
    case ActKind::press: return step_words(info->step, order.press_run.fahrenheit) + ".";
    case ActKind::peel: {
        std::string s = "Low and rolled back, not upward.";
        if (!info->step.how.empty() && info->step.how != "low and rolled back") s = "Peel " + info->step.how + ".";
        return s + " Not released? Report it: it goes back for a few seconds.";
    }
    case ActKind::turn:
        if (info == nullptr || info->step.kind != StepKind::turn) return "To the other place, as on the map.";
        return "Turn the blank over" + (info->step.how.empty() ? std::string(".") : ": " + info->step.how + ".");
    case ActKind::unload: return "Onto the cooling place, flat; nothing on top of it.";
    case ActKind::check: return "Edges down, colour right, no ghost, straight: going on keeps this recipe for this blank and press.";
    case ActKind::wait: return "Leave it where it is.";
    case ActKind::trim: return dec != nullptr ? "Cut close to the ink; no carrier may be left." : "";
    }
    return "";
}

std::string step_caution(const Order& order, const Load& load, ActKind kind) {
    const Decoration* d = find_decoration(order, load.decoration);
    const BlankStyle* style = d == nullptr ? nullptr : find_style(order, d->run.style);
    const bool hard = style != nullptr && is_hard(style->family);
    switch (kind) {
    case ActKind::press:
        if (in_oven(order, d)) return "An oven that was used for this never cooks food again. Ventilate; stay with it.";
        return hard && style->fabric.find("ceramic") != std::string::npos ? "Ceramic cracks under uneven pressure. Stay with it; ventilate."
                                                                          : "Never leave a press closed unattended. Ventilate.";
    case ActKind::unload:
    case ActKind::turn: return hard ? "Hot metal and ceramic: gloves, a heat-proof rest." : "Hot platen: gloves.";
    case ActKind::peel: return hard ? "It is still hot: gloves." : "";
    case ActKind::load:
        return style != nullptr && is_infant_wear(style->family) ? "Infant wear: snaps off the platen; local rules apply." : "";
    default: return "";
    }
}

StepCard::StepCard(Workroom& room, const PressDesk& desk) : Canvas(room.art()), room_(room), desk_(desk) {
    setObjectName(QStringLiteral("Step card"));
    setAccessibleName(QStringLiteral("What to do now"));
    setFocusPolicy(Qt::StrongFocus);
}

void StepCard::draw_counts(Drawing& d, double x, double y, double width) {
    const Shift& shift = desk_.shift();
    const double now = desk_.now();
    for (const Countdown& c : shift.counting()) {
        const double left = std::max(0.0, Shift::left(c, now));
        const auto& machine = c.machine >= 0 ? shift.plan().shop.machines[std::size_t(c.machine)].name : std::string("Waiting");
        const bool counts = c.began >= 0;
        d.rect({x, y, x + width, y + 74}, palette::light, Stroke{counts ? palette::brick : palette::ochre, 2, {}});
        d.text({x + 14, y + 54}, counts ? std::to_string(int(std::ceil(left))) : "–", 52, counts ? palette::brick : palette::ochre_text,
               Align::left, true);
        d.text({x + 108, y + 30}, machine, 17, palette::ink, Align::left, true);
        d.text({x + 108, y + 54}, counts ? "seconds left under heat" : "counts once the plate is hot", 15, palette::quiet);
        if (counts) d.rect({x, y + 70, x + width * (1 - left / std::max(1e-6, c.seconds)), y + 74}, palette::brick);
        y += 84;
    }
}

Drawing StepCard::draw(double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    const Order& order = room_.order();
    if (!desk_.running()) {
        d.text({width / 2, height / 2 - 12}, "No shift is running.", 19, palette::ink, Align::centre, true);
        d.text({width / 2, height / 2 + 16}, "Begin one above: a rehearsal runs against the simulated press, ten times as fast.", 14,
               palette::quiet, Align::centre);
        return d;
    }
    const Shift& shift = desk_.shift();
    const auto card = shift.card();
    if (!card) {
        d.text({width / 2, height / 2 - 12}, shift.over() ? "All is pressed." : "The last load is under heat.", 28, palette::moss,
               Align::centre, true);
        d.text({width / 2, height / 2 + 22},
               std::to_string(shift.loads_done()) + " loads, ended at " + time_of_day(order.press_run, desk_.now()), 16, palette::quiet,
               Align::centre);
        draw_counts(d, 24, height - 100, width / 2 - 40);
        return d;
    }
    const PressPlan& plan = shift.plan();
    const Load& load = load_of(plan, card->task);
    const bool f = order.press_run.fahrenheit;
    const double split = width * 0.56;
    const Colour tone = lane_tone(order, load.decoration);
    d.rect({0, 0, 10, height}, tone);
    double y = 44;
    std::string where = card->machine >= 0 ? plan.shop.machines[std::size_t(card->machine)].name : "At the table";
    if (plan.shop.hands > 1 && card->hand >= 0) where += ", hands " + std::to_string(card->hand + 1);
    d.text({28, y - 14}, where, 18, palette::quiet, Align::left, true);
    y = wrapped_lines(d, {28, y + 34}, card_words(plan, *card), 46, split - 40, palette::ink, true) - 8;
    y = wrapped_lines(d, {28, y + 4}, load_words(order, load), 21, split - 40, palette::ink);
    y = wrapped_lines(d, {28, y + 6}, card_how(order, plan, *card), 17, split - 40, palette::quiet);
    const std::string says = desk_.says().toStdString();
    const bool fault = !shift.press_fault(desk_.now()).empty();
    if (!says.empty()) {
        y += 6;
        d.rect({28, y - 4, split - 12, y + (says.size() > 62 ? 52 : 30)},
               fault ? Colour{0.639, 0.125, 0.208, 0.1} : Colour{0.773, 0.545, 0.106, 0.14},
               Stroke{fault ? palette::carmine : palette::ochre, 1.2, {}});
        y = wrapped_lines(d, {38, y + 18}, says, 17, split - 60, fault ? palette::carmine : palette::ochre_text, true) + 4;
    }
    if (card->machine >= 0) {
        const PressReading& r = shift.reading_of(card->machine);
        const double asked = shift.asked(*card);
        y += 10;
        d.text({28, y + 16}, "Plate", 16, palette::quiet);
        d.text({90, y + 18}, r.known && !r.lost ? heat_words(r.celsius, f) : "–", 26,
               r.known && std::abs(r.celsius - asked) <= reached_within ? palette::moss : palette::ochre_text, Align::left, true);
        d.text({200, y + 16}, "asked " + heat_words(asked, f), 16, palette::quiet);
        y += 34;
    }
    draw_counts(d, 28, y + 6, split - 44);
    y += 84.0 * double(shift.counting().size());
    const std::string caution = step_caution(order, load, card->kind);
    if (!caution.empty()) wrapped_lines(d, {28, std::max(y + 26, height - 118)}, caution, 16, split - 40, palette::carmine, true);
    // what comes
    double at = height - 80;
    d.text({28, at}, "then", 13, palette::quiet);
    for (const Act& a : shift.coming(3)) {
        const Load& l = load_of(plan, a.task);
        at += 20;
        d.rect({28, at - 10, 36, at + 1}, lane_tone(order, l.decoration));
        const std::string words = card_words(plan, a) + ": " + load_words(order, l);
        d.text({44, at}, shortened(words, split - 60, 14.5), 14.5, palette::ink);
    }
    // the map beside it
    const Decoration* dec = find_decoration(order, load.decoration);
    const DecorationFit* fit = find_fit(room_.plan(), load.decoration);
    const SizeFit* size = fit == nullptr ? nullptr : find_size(*fit, load.size);
    const Ground* ground = fit == nullptr ? nullptr : find_ground(*fit, load.size);
    const Rect box{split + 8, 36, width - 16, height - 96};
    d.rect({split - 2, 0, width, height}, palette::paper);
    if (dec == nullptr || size == nullptr || ground == nullptr) return d;
    if (const auto map = platen_map(order, *dec, *size, *ground)) {
        d.text({split + 12, 24}, map->platen_name + " of the " + map->press, 15, palette::ink, Align::left, true);
        draw_platen_map(d, order, *dec, *size, *ground, *map, box, 1, 15);
        double line = height - 78;
        for (const MapLine& l : map->lines) {
            if (line > height - 6) break;
            d.text({split + 12, line}, map_words(l, order.unit), 14.5, palette::ink);
            line += 18.5;
        }
    } else {
        const Rect all = drawn_box(ground->panel);
        const double k = std::min(box.width() / all.width(), box.height() / all.height()) * 0.92;
        const Affine to{k, 0, 0, k, box.centre().x - k * all.centre().x, box.centre().y - k * all.centre().y};
        d.text({split + 12, 24}, side_words(find_style(order, dec->run.style)->family, ground->panel.face), 15, palette::ink, Align::left,
               true);
        draw_panel(d, ground->panel, to, run_colour(order, dec->run), 1);
        draw_design(d, dec->art, size->ink, to);
        d.text(
            {split + 12, height - 78},
            "top of ink " + length_text(Length::from_mm(std::abs(size->top_to_ink)), order.unit) + " below the " + ground->panel.top_name,
            14.5, palette::ink);
    }
    return d;
}

void StepCard::mousePressEvent(QMouseEvent* /*event*/) { setFocus(); }

}  // namespace orthema::app
