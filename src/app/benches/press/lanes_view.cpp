#include "app/benches/press/lanes_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QWheelEvent>

#include <cmath>
#include <map>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "core/guides/panel_drawing.h"

namespace orthema::app {

Colour lane_tone(const Order& order, const std::string& decoration) {
    static constexpr Colour tones[] = {{0.36, 0.58, 0.55, 1}, {0.79, 0.55, 0.42, 1}, {0.80, 0.67, 0.33, 1}, {0.50, 0.60, 0.38, 1},
                                       {0.55, 0.49, 0.67, 1}, {0.45, 0.55, 0.68, 1}, {0.72, 0.50, 0.56, 1}, {0.58, 0.55, 0.45, 1}};
    for (std::size_t i = 0; i < order.decorations.size(); ++i)
        if (order.decorations[i].id == decoration) return tones[i % std::size(tones)];
    return palette::quiet;
}

LanesView::LanesView(Workroom& room) : Canvas(room.art()), room_(room) {
    setObjectName(QStringLiteral("Lanes"));
    setAccessibleName(tr("Lanes of time for presses, hands and cooling"));
    setToolTip(
        tr("Click a load to see it; drag it along its lane to pin it to a time. Wheel: nearer and farther. Drag the "
           "ground to move along."));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(false);
}

void LanesView::show_plan(const PressPlan* plan, double now) {
    const double end = plan == nullptr ? 0 : plan->schedule.end;
    if (std::abs(end - shown_end_) > 1e-6 && (shown_end_ == 0 || (from_ <= 0 && span_ >= shown_end_))) {
        from_ = 0;
        span_ = std::max(60.0, end);
    }
    shown_end_ = end;
    plan_ = plan;
    now_ = now;
    if (plan != nullptr && chosen_ >= int(plan->loads.size())) chosen_ = -1;
    std::erase_if(also_, [&](int load) { return plan == nullptr || load >= int(plan->loads.size()); });
    refresh();
}

void LanesView::choose(int load) {
    chosen_ = load;
    refresh();
}

std::vector<int> LanesView::used_machines() const {
    std::vector<int> out;
    if (plan_ == nullptr) return out;
    for (std::size_t m = 0; m < plan_->shop.machines.size(); ++m)
        if (std::any_of(plan_->schedule.places.begin(), plan_->schedule.places.end(), [&](const Slot& s) { return s.machine == int(m); }))
            out.push_back(int(m));
    return out;
}

LanesView::Row LanesView::row(std::size_t index, std::size_t count) const {
    const double each = std::min(118.0, (height() - top - 26) / double(std::max<std::size_t>(1, count)));
    return {top + each * double(index), each - 8};
}

Drawing LanesView::draw(double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    if (plan_ == nullptr || plan_->shop.tasks.empty()) {
        d.text({width / 2, height / 2 - 12}, spoken("Nothing to press yet."), 17, palette::ink, Align::centre, true);
        d.text({width / 2, height / 2 + 14}, spoken("Designs that are fitted and have a press and a method come here by themselves."), 13.5,
               palette::quiet, Align::centre);
        return d;
    }
    const std::vector<int> machines = used_machines();
    const auto hands = std::size_t(std::max(1, plan_->shop.hands));
    const std::size_t rows = machines.size() + hands + 1;
    const double right = width - 14;
    // hours and parts of them
    double step = 60;
    for (const double s : {60.0, 300.0, 600.0, 900.0, 1800.0, 3600.0, 7200.0}) {
        step = s;
        if (s * scale() >= 62) break;
    }
    for (double t = std::ceil(from_ / step) * step; x_of(t) <= right; t += step) {
        d.line({{x_of(t), top - 6}, {x_of(t), row(rows - 1, rows).y + row(rows - 1, rows).height}}, {palette::rule, 1, {}});
        d.text({x_of(t), top - 11}, time_of_day(room_.order().press_run, t), 12, palette::quiet, Align::centre);
    }
    const auto label = [&](const Row& r, const std::string& name, const std::string& under) {
        d.text({4, r.y + r.height / 2 + (under.empty() ? 4 : -2)}, name, 13, palette::ink, Align::left, true);
        if (!under.empty()) d.text({4, r.y + r.height / 2 + 13}, under, 11.5, palette::quiet);
        d.rect({left, r.y, right, r.y + r.height}, palette::light, Stroke{palette::rule, 1, {}});
    };
    std::map<int, std::size_t> lane_of;
    for (std::size_t k = 0; k < machines.size(); ++k) {
        lane_of[machines[k]] = k;
        const auto m = std::size_t(machines[k]);
        double busy = 0;
        for (const Slot& s : plan_->schedule.places) busy += s.machine == machines[k] ? s.end - s.start : 0;
        label(row(k, rows), plan_->shop.machines[m].name,
              std::to_string(std::lround(100 * busy / std::max(1.0, plan_->schedule.end))) + spoken(" % in use"));
    }
    for (std::size_t h = 0; h < hands; ++h)
        label(row(machines.size() + h, rows), hands == 1 ? spoken("By hand") : spoken("Person ") + std::to_string(h + 1), "");
    label(row(rows - 1, rows), spoken("Cooling"), "");
    d.clip(Rect{left, 0, right, height});
    for (const Pause& p : plan_->shop.pauses) {
        const Row a = row(0, rows), b = row(rows - 1, rows);
        const double x0 = std::max(left, x_of(p.from)), x1 = std::min(right, x_of(p.to));
        if (x1 <= x0) continue;
        d.rect({x0, a.y, x1, b.y + b.height}, Colour{0.855, 0.835, 0.784, 0.6});
        d.text({(x0 + x1) / 2, b.y + b.height + 14}, spoken("break"), 12, palette::quiet, Align::centre);
    }
    // visits, those of one design in a row as one band where they are narrow
    const Order& order = room_.order();
    const auto shows = [&](const std::string& dec) {  // of a gang one job may be looked at
        const Decoration* of = find_decoration(order, dec);
        return room_.selection().shows(of == nullptr ? std::string() : of->run.job);
    };
    struct Band {
        double from = 0, to = 0;
        std::string decoration;
    };
    std::map<std::size_t, std::vector<Band>> bands;
    std::vector<std::size_t> by_start(plan_->schedule.places.size());
    for (std::size_t i = 0; i < by_start.size(); ++i) by_start[i] = i;
    std::sort(by_start.begin(), by_start.end(),
              [&](std::size_t a, std::size_t b) { return plan_->schedule.places[a].start < plan_->schedule.places[b].start; });
    const auto tone = [&](const std::string& dec, double opacity) {
        Colour c = lane_tone(order, dec);
        c.a = shows(dec) ? opacity : 0.15;
        return c;
    };
    for (const std::size_t i : by_start) {
        const Slot& s = plan_->schedule.places[i];
        const int load = plan_->tasks[i].load;
        const Load& l = plan_->loads[std::size_t(load)];
        const bool mine = load == chosen_ || also_.contains(load);
        const double shift = dragging_load_ && mine ? drag_ : 0;
        if (s.machine >= 0) {
            const std::size_t lane = lane_of[s.machine];
            const Row r = row(lane, rows);
            if (s.change > 1 && x_of(s.start) > left)
                d.rect({std::max(left, x_of(s.start - s.change)), r.y + r.height * 0.32, x_of(s.start), r.y + r.height * 0.68},
                       Colour{0.773, 0.545, 0.106, 0.35});
            const Rect box{x_of(s.start) + shift, r.y + 2, x_of(s.end) + shift, r.y + r.height - 2};
            if (box.x1 < left || box.x0 > right) continue;
            const bool narrow = box.width() < 4;
            d.rect(
                narrow ? Rect{box.x0, box.y0, std::max(box.x1, box.x0 + 0.7), box.y1} : box, tone(l.decoration, l.trial ? 1 : 0.85),
                narrow && !mine ? std::nullopt : std::optional(Stroke{mine ? palette::verdigris : palette::light, mine ? 2.5 : 0.7, {}}));
            auto& line = bands[lane];
            if (!line.empty() && line.back().decoration == l.decoration && s.start - line.back().to < 90)
                line.back().to = s.end;
            else
                line.push_back({s.start, s.end, l.decoration});
        }
        double t = s.start;
        for (std::size_t k = 0; k < plan_->shop.tasks[i].phases.size() && k < s.hands.size(); ++k) {
            const double till = t + plan_->shop.tasks[i].phases[k].seconds;
            if (s.hands[k] >= 0 && x_of(till) >= left && x_of(t) <= right) {
                const Row r = row(machines.size() + std::size_t(s.hands[k]), rows);
                d.rect({x_of(t), r.y + r.height * 0.25, std::max(x_of(till), x_of(t) + 0.6), r.y + r.height * 0.75},
                       tone(l.decoration, 0.8));
            }
            t = till;
        }
    }
    for (const auto& [lane, line] : bands)
        for (const Band& b : line) {
            const Decoration* dec = find_decoration(order, b.decoration);
            const double x0 = std::max(left, x_of(b.from)), x1 = std::min(right, x_of(b.to));
            if (dec == nullptr || x1 - x0 < 16 || !shows(b.decoration)) continue;
            const Row r = row(lane, rows);
            const double size = 11.5;
            const std::string words = shortened(dec->name, x1 - x0 - 10, size);
            if (words != dec->name && words.size() < 7) continue;  // four letters at least
            const double w = text_width_guess(words, size) + 6;
            d.rect({x0 + 2, r.y + r.height / 2 - 9, x0 + 2 + w, r.y + r.height / 2 + 8}, Colour{0.984, 0.98, 0.965, 0.85});
            d.text({x0 + 5, r.y + r.height / 2 + 4}, words, size, palette::ink);
        }
    // how many pieces cool at a time
    std::map<double, int> cooling;
    for (std::size_t i = 0; i < plan_->shop.tasks.size(); ++i)
        for (const After& a : plan_->shop.tasks[i].after)
            if (a.least > 0 && plan_->tasks[std::size_t(a.task)].load == plan_->tasks[i].load) {
                const Load& load = plan_->loads[std::size_t(plan_->tasks[i].load)];
                const int n = load.makes_film() ? 1 : load.pieces;  // a run of film cools in one
                cooling[plan_->schedule.places[std::size_t(a.task)].end] += n;
                cooling[plan_->schedule.places[i].start] -= n;
            }
    int most = 1, count = 0;
    for (const auto& [t, by] : cooling) most = std::max(most, count += by);
    const Row cool = row(rows - 1, rows);
    Ring area{{x_of(0), cool.y + cool.height}};
    count = 0;
    for (const auto& [t, by] : cooling) {
        area.push_back({x_of(t), cool.y + cool.height - (cool.height - 4) * count / most});
        count += by;
        area.push_back({x_of(t), cool.y + cool.height - (cool.height - 4) * count / most});
    }
    area.push_back({area.back().x, cool.y + cool.height});
    d.fill({area}, Colour{0.45, 0.55, 0.68, 0.55});
    d.unclip();
    d.text({4, cool.y + cool.height / 2 + 17}, spoken("up to ") + std::to_string(most), 11.5, palette::quiet);
    if (now_ >= 0 && x_of(now_) >= left && x_of(now_) <= right) {
        d.line({{x_of(now_), top - 6}, {x_of(now_), cool.y + cool.height}}, {palette::brick, 2, {}});
        d.text({x_of(now_) + 4, cool.y + cool.height + 14}, spoken("now"), 12, palette::brick_text, Align::left, true);
    }
    const auto due_line = [&](double due, const std::string& words, bool bold) {
        if (x_of(due) < left || x_of(due) > right) return;
        d.line({{x_of(due), top - 6}, {x_of(due), cool.y + cool.height}}, {palette::carmine, 1.5, {5, 3}});
        d.text({x_of(due) - 4, cool.y + cool.height + 14}, words, 12, palette::carmine, Align::right, bold);
    };
    if (order.jobs.empty()) due_line(60.0 * (order.press_run.due - order.press_run.start), spoken("due"), true);
    double said_to = left;
    std::vector<JobEnd> dues = plan_->jobs;  // of a gang each job's, with its name where there is room
    std::sort(dues.begin(), dues.end(), [](const JobEnd& a, const JobEnd& b) { return a.due < b.due; });
    for (const JobEnd& j : dues) {
        const Job* job = find_job(order, j.job);
        const std::string words = shortened(job == nullptr ? j.job : job->name, std::max(0.0, x_of(j.due) - said_to - 10), 12);
        due_line(j.due, words.size() < 7 ? "" : words, j.job == room_.selection().job);
        said_to = x_of(j.due);
    }
    return d;
}

int LanesView::load_at(QPointF at) const {
    if (plan_ == nullptr) return -1;
    const std::vector<int> machines = used_machines();
    const std::size_t rows = machines.size() + std::size_t(std::max(1, plan_->shop.hands)) + 1;
    int best = -1;
    double nearest = 5;  // px
    for (std::size_t i = 0; i < plan_->schedule.places.size(); ++i) {
        const Slot& s = plan_->schedule.places[i];
        if (s.machine < 0) continue;
        const auto lane = std::size_t(std::find(machines.begin(), machines.end(), s.machine) - machines.begin());
        const Row r = row(lane, rows);
        if (at.y() < r.y || at.y() > r.y + r.height) continue;
        const double off = std::max({x_of(s.start) - at.x(), at.x() - x_of(s.end), 0.0});
        if (off < nearest) {
            nearest = off;
            best = plan_->tasks[i].load;
        }
    }
    return best;
}

std::vector<CanvasItem> LanesView::items() {
    std::vector<CanvasItem> out;
    if (plan_ == nullptr) return out;
    for (std::size_t i = 0; i < plan_->loads.size(); ++i) {
        const Load& load = plan_->loads[i];
        if (load.tasks.empty()) continue;
        const Slot& slot = plan_->schedule.places[std::size_t(load.tasks.front())];
        const Press* press = slot.machine < 0 ? nullptr : find_press(room_.order(), plan_->presses[std::size_t(slot.machine)]);
        const QPoint at = place_of(int(i));
        out.push_back({tr("%1, %2, begins at %3%4")
                           .arg(qt(load_words(room_.order(), load)), press == nullptr ? tr("by hand") : qt(press->name),
                                qt(time_of_day(room_.order().press_run, slot.start)), load.trial ? tr(", trial") : QString()),
                       QRect(at.x() - 10, at.y() - 8, 20, 16), int(i) == chosen_, [this, i] {
                           choose(int(i));
                           if (picked) picked(int(i));
                       }});
    }
    return out;
}

QPoint LanesView::place_of(int load) const {
    const std::vector<int> machines = used_machines();
    const std::size_t rows = machines.size() + std::size_t(std::max(1, plan_->shop.hands)) + 1;
    const auto task = std::size_t(plan_->loads[std::size_t(load)].tasks.front());
    const Slot& s = plan_->schedule.places[task];
    const auto lane = std::size_t(std::find(machines.begin(), machines.end(), s.machine) - machines.begin());
    const Row r = row(lane, rows);
    return {int((x_of(s.start) + x_of(s.end)) / 2), int(r.y + r.height / 2)};
}

void LanesView::look(double from, double span) {
    const double whole = std::max(60.0, shown_end_);
    span_ = std::clamp(span, 60.0, whole * 1.02);
    from_ = std::clamp(from, 0.0, std::max(0.0, whole * 1.02 - span_));
    refresh();
}

void LanesView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    pressed_ = event->position();
    pressed_from_ = from_;
    drag_ = 0;
    const int load = load_at(pressed_);
    panning_ = load < 0;
    if (panning_) also_.clear();
    if (load >= 0 && event->modifiers().testFlag(Qt::ShiftModifier) && chosen_ >= 0) {
        if (load == chosen_ || also_.erase(load) > 0) return refresh();
        also_.insert(chosen_);
    } else if (load >= 0 && !also_.contains(load) && load != chosen_) {
        also_.clear();
    }
    if (load >= 0) {
        if (also_.erase(load) > 0) also_.insert(chosen_);
        chosen_ = load;
        if (picked) picked(load);
    }
    refresh();
}

std::set<int> LanesView::in_hand() const {
    std::set<int> out = also_;
    if (chosen_ >= 0) out.insert(chosen_);
    return out;
}

void LanesView::mouseMoveEvent(QMouseEvent* event) {
    const double by = event->position().x() - pressed_.x();
    if (panning_) {
        look(pressed_from_ - by / scale(), span_);
    } else if (std::abs(by) > 4 || dragging_load_) {
        dragging_load_ = true;
        drag_ = by;
        refresh();
    }
}

void LanesView::mouseReleaseEvent(QMouseEvent* /*event*/) {
    if (dragging_load_ && plan_ != nullptr && chosen_ >= 0 && moved) {
        std::map<int, double> starts;
        for (const int load : in_hand()) {
            const auto task = std::size_t(plan_->loads[std::size_t(load)].tasks.front());
            starts[load] = std::round(std::max(0.0, plan_->schedule.places[task].start + drag_ / scale()));
        }
        dragging_load_ = false;
        drag_ = 0;
        moved(starts);
    }
    dragging_load_ = false;
    panning_ = false;
    drag_ = 0;
    refresh();
}

void LanesView::mouseDoubleClickEvent(QMouseEvent* /*event*/) { look(0, shown_end_); }

void LanesView::wheelEvent(QWheelEvent* event) {
    const double k = std::pow(0.8, event->angleDelta().y() / 120.0);
    const double at = from_ + (event->position().x() - left) / scale();
    look(at - (at - from_) * k, span_ * k);
}

void LanesView::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
    case Qt::Key_Plus:
    case Qt::Key_Equal: return look(from_ + span_ * 0.1, span_ * 0.8);
    case Qt::Key_Minus: return look(from_ - span_ * 0.125, span_ * 1.25);
    case Qt::Key_Left: return look(from_ - span_ * 0.1, span_);
    case Qt::Key_Right: return look(from_ + span_ * 0.1, span_);
    case Qt::Key_Home: return look(0, shown_end_);
    case Qt::Key_Up:
    case Qt::Key_Down:
        if (plan_ == nullptr || plan_->loads.empty()) return;
        if (!event->modifiers().testFlag(Qt::ShiftModifier))
            also_.clear();
        else if (chosen_ >= 0)
            also_.insert(chosen_);
        chosen_ = std::clamp(chosen_ + (event->key() == Qt::Key_Down ? 1 : -1), 0, int(plan_->loads.size()) - 1);
        also_.erase(chosen_);
        if (picked) picked(chosen_);
        return refresh();
    default: Canvas::keyPressEvent(event);
    }
}

}  // namespace orthema::app
