#include "app/benches/press/step_card.h"

#include <QMouseEvent>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "app/benches/press/lanes_view.h"
#include "core/guides/panel_drawing.h"
#include "core/guides/guides.h"
#include "core/guides/making_sheet.h"
#include "core/guides/platen_map.h"
#include "core/order/recipes.h"
#include "core/order/roster.h"
#include "drawing/painter.h"

namespace orthema::app {

namespace {

/// As on cards of paper, with the lines of large letters closer.
double wrapped_lines(Drawing& d, Point at, const std::string& words, double size, double width, Colour colour, bool bold = false) {
    return wrapped(d, at, words, size, width, colour, bold, 1.3);
}

bool in_oven(const Order& order, const Decoration* dec) { return dec != nullptr && orthema::in_oven(order, *dec); }

std::string load_how(const Order& order, const Decoration* dec) {
    const BlankStyle* style = dec == nullptr ? nullptr : find_style(order, dec->run.style);
    switch (style == nullptr ? Build::upper_body : family_build(style->family)) {
    case Build::cap: return spoken("Draw the panel smooth over the form, bill clear of the platen; middle on the form's middle.");
    case Build::wrap: return spoken("Middle of the print opposite the handle or seam, rim up; close it straight.");
    case Build::flat: return spoken("Lay it flat and square; edges as on the map.");
    default: return spoken("Smooth it flat; collar, centre and seams as on the map.");
    }
}

/// What is done to a run of film, at this act.
std::string film_how(const Order& order, const Medium& film, ActKind kind) {
    const Method* method = find_method(order, film.method);
    switch (kind) {
    case ActKind::print:
        return (method == nullptr || !method->read_through  ? std::string()
                : film.mirror == MirrorBy::printer_software ? phrase("make-mirror-software", order.unit) + " "
                                                            : phrase("make-mirror-here", order.unit) + " ") +
               phrase("make-colour-then-white", order.unit);
    case ActKind::powder: return phrase("make-powder", order.unit);
    case ActKind::cure: return phrase("make-cure", order.unit);
    case ActKind::cut:
        return phrase(film.laying.cutting == Cutting::trimmer   ? "make-trimmer"
                      : film.laying.cutting == Cutting::contour ? "make-cut-out"
                                                                : "make-tape",
                      order.unit);
    default: return phrase("make-then-powder", order.unit);
    }
}

const ActInfo* info_of(const PressPlan& plan, const Act& act) {
    return act.phase < 0 ? nullptr : &plan.tasks[std::size_t(act.task)].acts[std::size_t(act.phase)];
}

}  // namespace

std::string card_words(const PressPlan& plan, const Act& act) {
    const ActInfo* info = info_of(plan, act);
    switch (act.kind) {
    case ActKind::change: return spoken("Make the press ready");
    case ActKind::load: return spoken("Load");
    case ActKind::place: return spoken("Place the transfer");
    case ActKind::press: {
        const std::string verb = capitalised(spoken(info == nullptr ? noted("press") : step_name(info->step.kind)));
        const std::string field = info != nullptr && info->fields > 1 ? spoken("field ") + std::to_string(info->field + 1) +
                                                                            spoken(" of ") + std::to_string(info->fields) + ", "
                                                                      : "";
        return verb + " " + field + figure_text(info == nullptr ? 0 : info->step.seconds, 1, reading_in()) + " s";
    }
    case ActKind::print: return spoken("Print the film");
    case ActKind::powder: return spoken("Powder the film");
    case ActKind::cure: return spoken("Cure the film");
    case ActKind::cut: return spoken("Cut apart");
    case ActKind::wait:
        if (load_of(plan, act.task).makes_film()) return spoken("Let it print");
        return spoken("Wait ") + mm_text(info == nullptr ? 0 : info->step.seconds, 0) + " s";
    case ActKind::peel: return std::string(spoken("Peel ")) + (info == nullptr ? "" : spoken(peel_name(info->step.peel)));
    case ActKind::turn: return info != nullptr && info->fields > 1 ? spoken("Next field") : spoken("Turn");
    case ActKind::inside_out: return spoken("Turn inside out");
    case ActKind::trim: return spoken("Trim the edges");
    case ActKind::unload: return spoken("Open and take off");
    case ActKind::check: return spoken("Check the trial");
    }
    return "";
}

std::string card_how(const Order& order, const PressPlan& plan, const Act& act) {
    const ActInfo* info = info_of(plan, act);
    const Load& load = load_of(plan, act.task);
    const Decoration* dec = find_decoration(order, load.decoration);
    const PressState want = plan.shop.tasks[std::size_t(act.task)].state;
    if (const Medium* film = find_medium(order, load.film.medium); load.makes_film() && film != nullptr)
        return film_how(order, *film, act.kind);
    if (load.apart) switch (act.kind) {
        case ActKind::load:
            return spoken("Print sheets on adhesive sheets, marks on marks, side by side between two cover sheets. No blank yet.");
        case ActKind::unload: return spoken("Off the press, flat, still under the cover sheet.");
        case ActKind::peel:
            return spoken("Take the print's backing off ") + spoken(peel_name(info->step.peel)) +
                   (info->step.how.empty() ? spoken(", low and rolled back.") : ", " + info->step.how + ".");
        case ActKind::trim: return spoken("Cut each close to its ink with scissors or knife; then lay them by size.");
        case ActKind::press: return step_words(info->step, order.press_run.fahrenheit, false, order.unit) + ".";
        default: break;
        }
    switch (act.kind) {
    case ActKind::change: {
        const PressState mounted = plan.shop.tasks[std::size_t(act.task)].state_on(act.machine);
        const Press* press = find_press(order, plan.presses[std::size_t(act.machine)]);
        if (in_oven(order, dec))
            return spoken("Set it to ") + heat_words(want.celsius, order.press_run.fahrenheit) +
                   spoken(" and let it come to heat. Gloves: it is hot inside.");
        std::string s = spoken("Set it to ") + spoken(pressure_name(Pressure(want.pressure))) + spoken(" pressure");
        if (press != nullptr && mounted.platen < int(press->platens.size()))
            s += spoken(", with its ") + press->platens[std::size_t(mounted.platen)].name + spoken(" on");
        return s + ". It goes to " + heat_words(want.celsius, order.press_run.fahrenheit) + ". Gloves: the platen is hot.";
    }
    case ActKind::load:
        if (info != nullptr && info->step.kind == StepKind::marry)
            return spoken("The sheets of the transfer on one another, marks on marks, between two cover sheets. No blank yet.");
        if (in_oven(order, dec)) return spoken("Upright on the tray, standing apart, so that the air goes round each.");
        return load.pieces > 1 ? spoken("Fill the platen about its middle, for even pressure.") : load_how(order, dec);
    case ActKind::place: {
        const BlankStyle* style = dec == nullptr ? nullptr : find_style(order, dec->run.style);
        const bool creased = style != nullptr && family_build(style->family) == Build::upper_body;
        std::string s = std::string(spoken("Centre tick on the ")) + (creased ? spoken("crease") : spoken("middle mark")) +
                        spoken(", reading side as on the card.");
        if (info->layer > 0) s = spoken("Lay the next layer on the one below.");
        if (info->part > 0) s = spoken("Lay part ") + std::to_string(info->part + 1) + spoken(" against the last, tick to tick.");
        return s;
    }
    case ActKind::press: return step_words(info->step, order.press_run.fahrenheit, in_oven(order, dec), order.unit) + ".";
    case ActKind::peel: {
        std::string s = spoken("Low and rolled back, not upward.");
        if (!info->step.how.empty() && info->step.how != spoken("low and rolled back")) s = spoken("Peel ") + info->step.how + ".";
        return s + spoken(" Not released? Report it: it goes back for a few seconds.");
    }
    case ActKind::turn:
        if (info == nullptr || info->step.kind != StepKind::turn)
            return info != nullptr && info->fields > 1
                       ? spoken("On to field ") + std::to_string(info->field + 1) +
                             spoken(", as on the map: it laps over the last, and none of the ink is left out.")
                       : spoken("To the other place, as on the map.");
        return spoken("Turn the blank over") + (info->step.how.empty() ? std::string(".") : ": " + info->step.how + ".");
    case ActKind::inside_out:
        return spoken("Cool first. The other layer comes out, seams flat; then the carry board goes between the layers again.");
    case ActKind::unload: return spoken("Onto the cooling place, flat; nothing on top of it.");
    case ActKind::check:
        return spoken("Edges down, colour right, no ghost, straight: going on keeps this recipe for this blank and press.");
    case ActKind::wait: return spoken("Leave it where it is.");
    case ActKind::trim: return dec != nullptr ? spoken("Cut close to the ink; no carrier may be left.") : "";
    case ActKind::print:
    case ActKind::powder:
    case ActKind::cure:
    case ActKind::cut: break;  // of film, above
    }
    return "";
}

std::string step_caution(const Order& order, const Load& load, ActKind kind) {
    const Decoration* d = find_decoration(order, load.decoration);
    const BlankStyle* style = d == nullptr ? nullptr : find_style(order, d->run.style);
    const bool hard = style != nullptr && is_hard(style->family);
    if (kind == ActKind::powder) return phrase("make-dust", order.unit);
    if (kind == ActKind::cure) return phrase("make-fumes", order.unit);
    if (load.apart)
        return kind == ActKind::press || kind == ActKind::unload || kind == ActKind::peel
                   ? spoken("Hot platen and sheets: gloves. Ventilate.")
                   : "";
    switch (kind) {
    case ActKind::press:
        if (in_oven(order, d)) return spoken("An oven that was used for this never cooks food again. Ventilate; stay with it.");
        return hard && style->fabric.find("ceramic") != std::string::npos
                   ? spoken("Ceramic cracks under uneven pressure. Stay with it; ventilate.")
                   : spoken("Never leave a press closed unattended. Ventilate.");
    case ActKind::unload:
    case ActKind::turn: return hard ? spoken("Hot metal and ceramic: gloves, a heat-proof rest.") : spoken("Hot platen: gloves.");
    case ActKind::peel: return hard ? spoken("It is still hot: gloves.") : "";
    case ActKind::load:
        return style != nullptr && is_infant_wear(style->family) ? spoken("Infant wear: snaps off the platen; local rules apply.") : "";
    default: return "";
    }
}

StepCard::StepCard(Workroom& room, const PressDesk& desk) : Canvas(room.art()), room_(room), desk_(desk) {
    setObjectName(QStringLiteral("Step card"));
    setAccessibleName(tr("What to do now"));
    setFocusPolicy(Qt::StrongFocus);
}

/// A countdown of a press or a wait; how tall it was.
double StepCard::draw_count(Drawing& d, const Countdown& c, double x, double y, double width, bool low) {
    const double now = desk_.now(), tall = low ? 46 : 74, number = low ? 32 : 52;
    const double left = std::max(0.0, Shift::left(c, now));
    const PressPlan& plan = desk_.shift().plan();
    const Load& load = load_of(plan, c.task);
    const std::string machine = c.machine >= 0      ? plan.shop.machines[std::size_t(c.machine)].name
                                : load.makes_film() ? load_words(room_.order(), load)
                                                    : std::string(spoken("Waiting"));
    const ActKind kind = plan.tasks[std::size_t(c.task)].acts[std::size_t(c.phase)].kind;
    const bool counts = c.began >= 0;
    const int whole = int(std::ceil(left));
    const bool long_one = whole >= 600;
    const std::string seconds = counts ? std::to_string(long_one ? whole / 60 : whole) : "–";
    const std::string what =
        std::string(long_one ? spoken("minutes") : spoken("seconds")) + (kind == ActKind::press  ? spoken(" left under heat")
                                                                         : kind == ActKind::cure ? spoken(" until it is cured")
                                                                         : load.makes_film()     ? spoken(" until it is printed")
                                                                                                 : spoken(" to wait"));
    d.rect({x, y, x + width, y + tall}, palette::light, Stroke{counts ? palette::brick : palette::ochre, 2, {}});
    d.text({x + 14, y + tall / 2 + number * 0.35}, seconds, number, counts ? palette::brick_text : palette::ochre_text, Align::left, true);
    const double at = x + std::max(low ? 80.0 : 108.0, text_width(seconds, number, true) + 28), room = x + width - at - 8;
    d.text({at, y + tall * 0.42}, fitting(machine, room, low ? 14 : 17, true), low ? 14 : 17, palette::ink, Align::left, true);
    d.text({at, y + tall * 0.42 + (low ? 17 : 24)}, fitting(counts ? what : spoken("counts once the plate is hot"), room, low ? 12.5 : 15),
           low ? 12.5 : 15, palette::quiet);
    if (counts) d.rect({x, y + tall - 4, x + width * (1 - left / std::max(1e-6, c.seconds)), y + tall}, palette::brick);
    return tall;
}

/// What to do, from the top of the left column down; what follows takes what is left at its foot.
void StepCard::draw_deed(Drawing& d, const Act& card, double width, double height) {
    const Order& order = room_.order();
    const Shift& shift = desk_.shift();
    const PressPlan& plan = shift.plan();
    const Load& load = load_of(plan, card.task);
    const bool f = order.press_run.fahrenheit, low = height < 540;
    const double x = 28, room = width - x - 14;
    const double words_size = low ? 18 : 21, how_size = low ? 15 : 17;
    double y = 30;
    std::string where = card.machine >= 0 ? plan.shop.machines[std::size_t(card.machine)].name : spoken("At the table");
    if (plan.shop.hands > 1 && card.hand >= 0) where += spoken(", for person ") + std::to_string(card.hand + 1);
    d.text({x, y}, fitting(where, room, 18, true), 18, palette::quiet, Align::left, true);
    const std::string title = card_words(plan, card);
    const double whole = text_width(title, 46, true), title_size = std::clamp(46 * room / std::max(1.0, whole), 26.0, low ? 38.0 : 46.0);
    y = wrapped_lines(d, {x, y + 8 + title_size}, title, title_size, room, palette::ink, true) - title_size * 0.3;
    y = wrapped_lines(d, {x, y + words_size * 0.6}, load_words(order, load), words_size, room, palette::ink);
    y = wrapped_lines(d, {x, y + 4}, card_how(order, plan, card), how_size, room, palette::quiet) - how_size * 0.6;
    if (const std::string says = desk_.says().toStdString(); !says.empty()) {
        const bool fault = !shift.press_fault(desk_.now()).empty();
        Drawing lines;
        const double end =
            wrapped_lines(lines, {x + 10, y + 30}, says, how_size, room - 20, fault ? palette::carmine : palette::ochre_text, true);
        d.rect({x, y + 10, x + room, end - how_size * 0.8}, fault ? Colour{0.639, 0.125, 0.208, 0.1} : Colour{0.773, 0.545, 0.106, 0.14},
               Stroke{fault ? palette::carmine : palette::ochre, 1.2, {}});
        d.marks.insert(d.marks.end(), lines.marks.begin(), lines.marks.end());
        y = end - how_size * 0.8;
    }
    if (card.machine >= 0) {
        const PressReading& r = shift.reading_of(card.machine);
        const double asked = shift.asked(card);
        y += 32;
        const std::string now = r.known && !r.lost ? heat_words(r.celsius, f) : "–";
        d.text({x, y}, spoken("Plate"), 16, palette::quiet);
        d.text({x + 58, y + 2}, now, 26, r.known && std::abs(r.celsius - asked) <= reached_within ? palette::moss : palette::ochre_text,
               Align::left, true);
        d.text({x + 58 + text_width(now, 26, true) + 16, y}, spoken("set to ") + heat_words(asked, f), 16, palette::quiet);
    }
    y += 14;
    for (const Countdown& c : shift.counting()) y += draw_count(d, c, x, y, room, low || shift.counting().size() > 1) + 8;
    if (const std::string caution = step_caution(order, load, card.kind); !caution.empty())
        y = wrapped_lines(d, {x, y + 14}, caution, low ? 14.5 : 16, room, palette::carmine, true) - 8;
    // what comes, as far as there is room
    const auto after = shift.coming(std::size_t(std::clamp((height - y - 34) / 20, 0.0, 3.0)));
    if (after.empty()) return;
    double at = height - 10 - 20 * double(after.size());
    d.text({x, at}, spoken("then"), 13, palette::quiet);
    for (const Act& a : after) {
        const Load& l = load_of(plan, a.task);
        at += 20;
        d.rect({x, at - 10, x + 8, at + 1}, lane_tone(order, l.decoration));
        d.text({x + 16, at}, fitting(card_words(plan, a) + ": " + load_words(order, l), room - 16, 14.5), 14.5, palette::ink);
    }
}

/// The sheets of transfers that are married, one on the other, as they lie.
void StepCard::draw_sheets(Drawing& d, const Load& load, double x, double room, double height) {
    const Order& order = room_.order();
    double y = 52;
    if (const Medium* film = find_medium(order, load.film.medium); film != nullptr) {
        d.text({x, 24}, fitting(phrase("page-making", order.unit), room, 15, true), 15, palette::ink, Align::left, true);
        int number = 0;
        for (const std::string& words : making_words(order, *film)) {
            d.text({x, y}, std::to_string(++number), 14.5, palette::quiet, Align::left, true);
            y = wrapped_lines(d, {x + 24, y}, words, 14.5, room - 24, palette::ink) + 5;
        }
        return;
    }
    d.text({x, 24}, fitting(spoken("The transfers, without a blank"), room, 15, true), 15, palette::ink, Align::left, true);
    for (const LoadPart& p : load.parts) {
        const Decoration* one = find_decoration(order, p.decoration);
        const DecorationFit* its = find_fit(room_.plan(), p.decoration);
        const SizeFit* s = its == nullptr ? nullptr : find_size(*its, p.size);
        if (one == nullptr || s == nullptr || y > height - 96) break;
        const double tall = 72, wide = std::min(room * 0.42, tall * s->width / std::max(1.0, s->height));
        const Rect print{x + 8, y, x + 8 + wide, y + wide * s->height / s->width};
        d.rect(print.grown(8), Colour{0.94, 0.91, 0.83, 1}, Stroke{palette::rule, 1, {}});
        d.rect(print.grown(5), palette::white, Stroke{palette::quiet, 1, {4, 3}});
        d.marks.emplace_back(art_in(one->art, print));
        const double at = print.x1 + 20;
        d.text({at, y + 18}, fitting(one->name, x + room - at, 15, true), 15, palette::ink, Align::left, true);
        d.text({at, y + 38}, fitting(p.size + ", " + counted(std::size_t(p.pieces), "transfer").toStdString(), x + room - at, 14), 14,
               palette::quiet);
        y = print.y1 + 28;
    }
}

/// How it lies: on its platen, or the garment with its design.
void StepCard::draw_place(Drawing& d, const Act& card, double x, double width, double height) {
    const Order& order = room_.order();
    const Load& load = load_of(desk_.shift().plan(), card.task);
    const Decoration* dec = find_decoration(order, load.decoration);
    const DecorationFit* fit = find_fit(room_.plan(), load.decoration);
    const SizeFit* size = fit == nullptr ? nullptr : find_size(*fit, load.size);
    const Ground* ground = fit == nullptr ? nullptr : find_ground(*fit, load.size);
    if (dec == nullptr || size == nullptr || ground == nullptr) return;
    // of a lettering what this garment gets
    const int first = load.parts.empty() ? 0 : load.parts.front().first;
    const SizeFit shown = with_word(*size, *dec, word_on(order, *dec, load.size, first), room_.facts());
    size = &shown;
    const double room = width - x - 14;
    if (load.apart) return draw_sheets(d, load, x, room, height);
    const auto line = [&](double y, const std::string& words, const std::string& figure) {
        const double wide = figure.empty() ? 0 : text_width(figure, 14.5, true) + 10;
        if (!figure.empty()) d.text({x + room, y}, figure, 14.5, palette::ink, Align::right, true);
        const double small = std::clamp(14.5 * (room - wide) / std::max(1.0, text_width(words, 14.5)), 11.0, 14.5);
        d.text({x, y}, fitting(words, room - wide, small), small, palette::ink);
    };
    const ActInfo* info = info_of(desk_.shift().plan(), card);
    if (const auto map = platen_map(order, *dec, *size, *ground, {}, info == nullptr ? 0 : info->field)) {
        const auto lines = std::min(map->lines.size(), std::size_t(std::max(2.0, (height - 260) / 18.5)));
        const double foot = height - 10 - 18.5 * double(lines);
        d.text({x, 24}, fitting(map->platen_name + spoken(" of the ") + map->press, room, 15, true), 15, palette::ink, Align::left, true);
        draw_platen_map(d, order, *dec, *size, *ground, *map, {x, 36, x + room, foot - 14}, 1, 15);
        for (std::size_t i = 0; i < lines; ++i) {
            const MapLine& l = map->lines[i];
            line(foot + 18.5 * double(i + 1) - 4, l.what, l.mm ? length_text(Length::from_mm(*l.mm), order.unit) : std::string());
        }
        return;
    }
    const Rect box{x, 36, x + room, height - 50}, all = drawn_box(ground->panel);
    const double k = std::min(box.width() / all.width(), box.height() / all.height()) * 0.92;
    const Affine to{k, 0, 0, k, box.centre().x - k * all.centre().x, box.centre().y - k * all.centre().y};
    d.text({x, 24}, fitting(side_words(find_style(order, dec->run.style)->family, ground->panel.face, order.unit), room, 15, true), 15,
           palette::ink, Align::left, true);
    draw_panel(d, ground->panel, to, cloth_of(order, *dec), 1);
    draw_design(d, *dec, *size, to);
    line(height - 18,
         std::string(spoken("top of ink ")) + (size->top_to_ink < 0 ? spoken("above") : spoken("below")) + spoken(" the ") +
             spoken(ground->panel.top_name),
         length_text(Length::from_mm(std::abs(size->top_to_ink)), order.unit));
}

namespace {

constexpr Colour night{0.086, 0.118, 0.149, 1};

/// As it is said in the dark: what is dark on paper becomes light in its own hue, plates become dim ones.
Colour in_the_dark(Colour c) {
    const double light = 0.2126 * c.r + 0.7152 * c.g + 0.0722 * c.b;
    if (light > 0.75) return {0.15 + 0.1 * (1 - light), 0.19 + 0.1 * (1 - light), 0.23 + 0.1 * (1 - light), c.a};
    const double hue = std::max({c.r, c.g, c.b}) - std::min({c.r, c.g, c.b});
    const double share = light < 0.25 ? 0.86 - 0.5 * hue : 0.6;
    return {c.r + (1 - c.r) * share, c.g + (1 - c.g) * share, c.b + (1 - c.b) * share, c.a};
}

void darken(Drawing& d) {
    for (Mark& m : d.marks) {
        if (auto* text = std::get_if<TextMark>(&m)) text->colour = in_the_dark(text->colour);
        if (auto* path = std::get_if<PathMark>(&m)) {
            if (path->fill) path->fill = in_the_dark(*path->fill);
            if (path->stroke) path->stroke->colour = in_the_dark(path->stroke->colour);
        }
    }
}

/// The lowest that anything reaches.
double foot_of(const Drawing& d) {
    double foot = 0;
    for (const Mark& m : d.marks) {
        if (const auto* text = std::get_if<TextMark>(&m)) foot = std::max(foot, text->at.y);
        if (const auto* path = std::get_if<PathMark>(&m))
            for (const Ring& r : path->rings) foot = std::max(foot, bounds(r).y1);
    }
    return foot;
}

}  // namespace

Drawing StepCard::draw(double width, double height) {
    const bool dark = room_.settings().liked().dark_card;
    Drawing d = card(width, height, dark);
    if (!dark) return d;
    Drawing all = d;
    all.marks.clear();
    all.rect({0, 0, width, height}, night);
    all.marks.insert(all.marks.end(), d.marks.begin(), d.marks.end());
    return all;
}

Drawing StepCard::card(double width, double height, bool dark) {
    Drawing d;
    d.width = width;
    d.height = height;
    const Order& order = room_.order();
    const auto middle = [&](double y, const std::string& words, double size, Colour colour, bool bold = false) {
        d.text({width / 2, y}, fitting(words, width - 24, size, bold), size, colour, Align::centre, bold);
    };
    if (!desk_.running()) {
        middle(height / 2 - 12, spoken("No shift is running."), 19, palette::ink, true);
        middle(height / 2 + 16, spoken("Begin one above: a rehearsal runs against the simulated press, ten times as fast."), 14,
               palette::quiet);
        if (dark) darken(d);
        return d;
    }
    const Shift& shift = desk_.shift();
    if (const auto card = shift.card()) {
        const double split = std::round(width * 0.56);
        d.rect({0, 0, 10, height}, lane_tone(order, load_of(shift.plan(), card->task).decoration));
        // where much is to be said in a low window it is said smaller, never cut
        constexpr double smallest = 0.7;
        double size = 1;
        Drawing column;
        for (;; size -= 0.06) {
            column = {};
            draw_deed(column, *card, split / size, height / size);
            if (size <= smallest || foot_of(column) <= height / size - 4) break;
        }
        if (dark) {
            darken(column);
            d.rect({split + 2, 6, width - 6, height - 6}, palette::paper);
        }
        for (const Mark& m : column.marks) d.marks.push_back(mapped(m, Affine{size, 0, 0, size, 0, 0}));
        draw_place(d, *card, split + 10, width, height);
        return d;
    }
    const bool held = !shift.held().empty() && shift.counting().empty();
    middle(height / 2 - 12,
           shift.over() ? spoken("All is pressed.")
           : held       ? spoken("A trial did not come out.")
                        : spoken("The last load is under heat."),
           28, held ? palette::carmine : palette::moss, true);
    middle(height / 2 + 22,
           held ? spoken("What is left waits for it: choose below what to try.")
                : std::to_string(shift.loads_done()) + spoken(" loads, ended at ") + time_of_day(order.press_run, desk_.now()),
           16, palette::quiet);
    double y = height - 84;
    for (const Countdown& c : shift.counting()) y -= draw_count(d, c, 24, y, width / 2 - 40, false) + 8;
    if (dark) darken(d);
    return d;
}

void StepCard::mousePressEvent(QMouseEvent* /*event*/) { setFocus(); }

}  // namespace orthema::app
