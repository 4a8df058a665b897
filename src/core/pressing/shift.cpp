#include "core/pressing/shift.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <utility>

#include "core/base/units.h"

namespace orthema {

namespace {

/// Longer than this to reach its heat, beyond what the press usually takes: something is wrong.
constexpr double patience = 240;
constexpr double heating_patience = 1200, cooling_patience = 3600;
/// Acts that are looked at for something to do while a press heats.
constexpr std::size_t look_ahead = 60;

}  // namespace

Shift::Shift(PressPlan plan, bool fahrenheit) : plan_(std::move(plan)), fahrenheit_(fahrenheit) {
    live_.resize(plan_.shop.tasks.size());
    readings_.resize(plan_.shop.machines.size());
    asked_since_.assign(plan_.shop.machines.size(), -1);
    acts_ = acts_of(plan_, plan_.schedule);
}

bool Shift::runs(int task, int phase) const {
    return std::any_of(counting_.begin(), counting_.end(), [&](const Countdown& c) { return c.task == task && c.phase == phase; });
}

bool Shift::is_done(const Act& a) const {
    const Live& l = live(a.task);
    if (a.phase < 0 && a.hand < 0) return true;  // heat alone: the press sees to it, and a load waits for it
    return l.skipped || (a.phase < 0 ? l.changed || l.done > 0 : a.phase < l.done) || runs(a.task, a.phase);
}

bool Shift::heats_up(const Act& a) const { return a.kind == ActKind::load && !hot(a.machine, asked(a)); }

bool Shift::blocked(const Act& a, bool in_order) const {
    if (is_held(a.task)) return true;
    const Live& l = live(a.task);
    const bool counts = std::any_of(counting_.begin(), counting_.end(), [&](const Countdown& c) { return c.task == a.task; });
    if (a.phase > l.done + (counts ? 1 : 0)) return true;  // a task's phases in their order
    if (l.done > 0 || counts) return false;
    if (a.phase >= 0)
        for (const After& after : job(a.task).after)
            if (live(after.task).end < 0 && !live(after.task).skipped) return true;
    if (a.machine < 0) return false;
    for (std::size_t t = 0; t < live_.size() && t < plan_.schedule.places.size(); ++t) {  // something else lies on that press
        const Live& other = live_[t];
        if (static_cast<int>(t) == a.task || plan_.schedule.places[t].machine != a.machine || other.end >= 0 || other.skipped) continue;
        if (other.start >= 0) return true;
        // what was planned there before it finds the press as it was planned
        if (in_order && !is_held(static_cast<int>(t)) &&
            plan_.schedule.places[t].start < plan_.schedule.places[static_cast<std::size_t>(a.task)].start - 1e-9)
            return true;
    }
    return false;
}

std::optional<Act> Shift::card() const {
    // each press in its planned order; where nothing can be done so (a step was taken back, say), whatever can be
    const auto next = first_open(true);
    return next ? next : first_open(false);
}

std::optional<Act> Shift::first_open(bool in_order) const {
    std::optional<Act> cold;
    std::size_t seen = 0;
    for (const Act& a : acts_) {
        // a press may be changed for a task before what that task waits for is over: then that comes first
        if (is_done(a) || blocked(a, in_order)) continue;
        if (!cold && !heats_up(a)) return a;
        if (!cold) {  // while that press heats, another may be ready for what comes soon
            cold = a;
            continue;
        }
        if (++seen > look_ahead) break;
        if (a.task != cold->task && !heats_up(a)) return a;
    }
    return cold;
}

std::optional<Act> Shift::next_on(int machine) const {
    for (const Act& a : acts_)
        if (a.machine == machine && !is_done(a) && !is_held(a.task)) return a;
    return std::nullopt;
}

std::vector<Act> Shift::coming(std::size_t most) const {
    std::vector<Act> out;
    const auto now = card();
    for (const Act& a : acts_) {
        if (out.size() >= most) break;
        if (!is_done(a) && !is_held(a.task) && !(now && now->task == a.task && now->phase == a.phase)) out.push_back(a);
    }
    return out;
}

double Shift::asked(const Act& a) const { return a.machine < 0 ? 0 : job(a.task).state.celsius; }

bool Shift::hot(int machine, double celsius) const {
    const PressReading& r = readings_[static_cast<std::size_t>(machine)];
    return !r.known || (!r.lost && std::abs(r.celsius - celsius) <= reached_within);
}

std::string Shift::waits_for(double now, const Reading& reading) const {
    if (paused()) return said(reading, "Paused.");
    const auto a = card();
    if (!a && !held_.empty() && counting_.empty()) return said(reading, "What is left waits for a trial that did not come out.");
    if (!a) return said(reading, counting_.empty() ? "All is pressed." : "The last load is still under heat.");
    for (const Countdown& c : counting_)
        if (c.task == a->task) {
            if (c.began < 0) return phrase("It counts once the plate is at {heat}.", reading, {{"heat", heat(asked(*a))}});
            return phrase("It opens in {time}.", reading, {{"time", duration_words(std::max(1.0, std::ceil(left(c, now))))}});
        }
    const int done = live(a->task).done;
    if (a->phase == 0 && done == 0)
        for (const After& after : job(a->task).after) {
            const Live& before = live(after.task);
            if (before.skipped) continue;
            if (const double least = before.end + after.least - now; least > 1e-6)
                return phrase("It cools for {time} more.", reading, {{"time", duration_words(std::max(1.0, std::ceil(least)))}});
        }
    if (a->machine >= 0) {
        const PressReading& r = readings_[static_cast<std::size_t>(a->machine)];
        if (r.known && r.lost && a->kind != ActKind::unload && a->kind != ActKind::peel)
            return phrase("{press} does not answer: see to its power and line.", reading,
                          {{"press", plan_.shop.machines[static_cast<std::size_t>(a->machine)].name}});
        if (heats_up(*a))
            return phrase("The plate is at {is} and must be at {heat}.", reading, {{"is", heat(r.celsius)}, {"heat", heat(asked(*a))}});
    }
    return "";
}

void Shift::finish(int task, double now) {
    Live& l = live(task);
    if (l.done < static_cast<int>(job(task).phases.size())) return;
    l.end = now;
    const Load& load = load_of(plan_, task);
    if (!load.tasks.empty() && load.tasks.back() == task) notes_.push_back({now, load.id, "pressed"});
}

bool Shift::next(double now) {
    tick(now);
    const auto a = card();
    if (!a || !waits_for(now).empty()) return false;
    Live& l = live(a->task);
    past_.emplace_back(a->task, a->phase);
    if (a->phase < 0) {
        l.changed = true;
        return true;
    }
    if (l.done == 0) l.start = now;
    const Phase& phase = job(a->task).phases[static_cast<std::size_t>(a->phase)];
    if (a->kind == ActKind::press || a->kind == ActKind::wait || a->kind == ActKind::cure) {
        const bool counts = a->kind != ActKind::press || hot(a->machine, asked(*a));
        counting_.push_back({a->task, a->phase, a->machine, phase.seconds, counts ? now : -1});
        return true;
    }
    l.done = a->phase + 1;
    finish(a->task, now);
    return true;
}

void Shift::skip(double now) {
    const auto a = card();
    if (!a) return;
    const Load& load = load_of(plan_, a->task);
    leave_out(load, now);
    notes_.push_back({now, load.id, "left out"});
    past_.clear();
}

void Shift::leave_out(const Load& load, double now) {
    for (const int t : load.tasks) {
        Live& l = live(t);
        if (l.end >= 0) continue;
        l.skipped = true;
        l.end = now;
        std::erase_if(counting_, [&](const Countdown& c) { return c.task == t; });
    }
}

bool Shift::again() {
    if (past_.empty()) return false;
    const auto [task, phase] = past_.back();
    past_.pop_back();
    Live& l = live(task);
    if (phase < 0) {
        l.changed = false;
        return true;
    }
    if (runs(task, phase)) {
        std::erase_if(counting_, [t = task, p = phase](const Countdown& c) { return c.task == t && c.phase == p; });
        return true;
    }
    l.done = phase;
    l.end = -1;
    if (phase == 0) l.start = -1;
    return true;
}

void Shift::pause(double now) {
    if (!paused()) paused_at_ = now;
}

void Shift::resume(double now) {
    if (!paused()) return;
    // a closed press does not pause: what counts goes on counting, only the plan moves
    paused_at_ = -1;
    tick(now);
}

void Shift::reading(int machine, double celsius, double now) {
    PressReading& r = readings_[static_cast<std::size_t>(machine)];
    r = {true, false, celsius, now};
    tick(now);
}

void Shift::lost(int machine, double now) {
    PressReading& r = readings_[static_cast<std::size_t>(machine)];
    r.known = true;
    r.lost = true;
    r.at = now;
}

std::string Shift::press_fault(double now, const Reading& reading) const {
    for (std::size_t m = 0; m < readings_.size(); ++m) {
        const PressReading& r = readings_[m];
        if (!r.known) continue;
        const auto fault = [&](const char* sentence, double want = 0) {
            return phrase(sentence, reading, {{"press", plan_.shop.machines[m].name}, {"is", heat(r.celsius)}, {"heat", heat(want)}});
        };
        constexpr const char* never = "{press} does not reach {heat}; it stands at {is}: look at its plate and power.";
        if (r.lost) return fault("{press} does not answer. What lies under it: open it by hand, and report the piece if it was too long.");
        for (const Countdown& c : counting_) {
            if (c.machine != static_cast<int>(m)) continue;
            const double want = job(c.task).state.celsius;
            if (r.celsius > want + too_hot_by) return fault("{press} is at {is} and was set to {heat}, too hot: open it now.", want);
            if (c.began < 0 && r.celsius < want && asked_since_[m] >= 0 && now - asked_since_[m] > patience) return fault(never, want);
        }
        if (const auto a = card(); a && a->machine == static_cast<int>(m) && a->kind == ActKind::load) {
            const double want = asked(*a);
            if (r.celsius > want + too_hot_by && asked_since_[m] >= 0 && now - asked_since_[m] > cooling_patience)
                return fault("{press} stays at {is} and was set to {heat}: look at its controller.", want);
            if (r.celsius < want - reached_within && asked_since_[m] >= 0 && now - asked_since_[m] > heating_patience)
                return fault(never, want);
        }
    }
    return "";
}

void Shift::tick(double now) {
    for (Countdown& c : counting_)
        if (c.began < 0 && hot(c.machine, job(c.task).state.celsius)) c.began = now;
    for (std::size_t k = 0; k < counting_.size();) {
        const Countdown c = counting_[k];
        if (c.began < 0 || left(c, now) > 1e-9) {
            ++k;
            continue;
        }
        counting_.erase(counting_.begin() + static_cast<std::ptrdiff_t>(k));
        live(c.task).done = std::max(live(c.task).done, c.phase + 1);
        finish(c.task, c.began + c.seconds);
    }
    // since when each press is waited for
    std::vector<bool> wanted(asked_since_.size(), false);
    for (const Countdown& c : counting_)
        if (c.began < 0 && c.machine >= 0) wanted[static_cast<std::size_t>(c.machine)] = true;
    if (const auto a = card(); a && heats_up(*a)) wanted[static_cast<std::size_t>(a->machine)] = true;
    for (std::size_t m = 0; m < wanted.size(); ++m) asked_since_[m] = !wanted[m] ? -1 : asked_since_[m] < 0 ? now : asked_since_[m];
}

double Shift::behind(double now) const {
    const auto a = card();
    return a ? now - a->start : 0;
}

Progress Shift::progress(double now) const {
    Progress p;
    p.now = now;
    p.done.resize(live_.size());
    for (std::size_t i = 0; i < live_.size(); ++i) {
        const Live& l = live_[i];
        const ShopTask& j = plan_.shop.tasks[i];
        Slot s = i < plan_.schedule.places.size() ? plan_.schedule.places[i] : Slot{};
        s.change = 0;
        s.change_hand = -1;
        if (l.end >= 0) {
            if (l.skipped) s = {};
            s.end = l.end;
            s.start = s.end - j.seconds();
            s.hands.assign(j.phases.size(), -1);  // over: no hand is bound
            p.done[i] = s;
        } else if (l.start >= 0 || l.changed) {
            double left_over = 0;
            for (std::size_t k = static_cast<std::size_t>(l.done); k < j.phases.size(); ++k) left_over += j.phases[k].seconds;
            for (const Countdown& c : counting_)
                if (c.task == static_cast<int>(i)) left_over -= c.seconds - std::max(0.0, left(c, now));
            s.end = now + left_over;
            s.start = s.end - j.seconds();
            p.done[i] = s;
        }
    }
    return p;
}

void Shift::take(Schedule schedule) {
    plan_.schedule = std::move(schedule);
    acts_ = acts_of(plan_, plan_.schedule);
}

void Shift::put_anew(const std::vector<int>& first, double now) {
    const Progress so_far = progress(now);
    mark_held();
    take(follow(plan_.shop, plan_.schedule, so_far, first));
}

bool Shift::whole(const Load& load) const {
    return !load.tasks.empty() &&
           std::all_of(load.tasks.begin(), load.tasks.end(), [&](int t) { return live(t).end >= 0 && !live(t).skipped; });
}

int Shift::loads_done() const {
    int n = 0;
    for (const Load& l : plan_.loads) n += !l.tasks.empty() && live(l.tasks.back()).end >= 0 ? 1 : 0;
    return n;
}

}  // namespace orthema
