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

int new_stage(PressPlan& plan, const std::string& name) {
    plan.stages.push_back(name);
    return static_cast<int>(plan.stages.size()) - 1;
}

}  // namespace

const char* press_fault_name(PressFault f) {
    switch (f) {
    case PressFault::not_released: return "not released";
    case PressFault::crooked: return "crooked";
    case PressFault::scorched: return "scorched";
    case PressFault::lifted: return "lifted";
    case PressFault::ghosted: return "ghosted";
    }
    return "";
}

TrialResult trial_result(PressFault f) {
    switch (f) {
    case PressFault::not_released: return TrialResult::not_released;
    case PressFault::crooked: return TrialResult::crooked;
    case PressFault::scorched: return TrialResult::scorched;
    case PressFault::lifted: return TrialResult::lifted;
    case PressFault::ghosted: return TrialResult::ghosted;
    }
    return TrialResult::crooked;
}

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

void Shift::mark_held() {
    held_tasks_.assign(live_.size(), 0);
    if (held_.empty()) return;
    const auto stops = [&](const After& after) {
        const Load& before = load_of(plan_, after.task);
        return held_tasks_[static_cast<std::size_t>(after.task)] != 0 ||
               (before.trial && std::any_of(held_.begin(), held_.end(), [&](const HeldRun& h) { return h.trial == before.id; }));
    };
    for (bool more = true; more;) {
        more = false;
        for (std::size_t t = 0; t < live_.size(); ++t) {
            if (held_tasks_[t] != 0 || live_[t].done > 0 || live_[t].start >= 0 || live_[t].end >= 0) continue;
            const Load& own = load_of(plan_, static_cast<int>(t));
            if (own.trial && std::any_of(held_.begin(), held_.end(), [&](const HeldRun& h) { return h.trial == own.id; })) continue;
            if (std::none_of(plan_.shop.tasks[t].after.begin(), plan_.shop.tasks[t].after.end(), stops)) continue;
            held_tasks_[t] = 1;
            more = true;
        }
    }
}

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

std::string Shift::waits_for(double now) const {
    if (paused()) return "Paused.";
    const auto a = card();
    if (!a && !held_.empty() && counting_.empty()) return "What is left waits for a trial that did not come out.";
    if (!a) return counting_.empty() ? "All is pressed." : "The last load is still under heat.";
    for (const Countdown& c : counting_)
        if (c.task == a->task) {
            if (c.began < 0) return "It counts once the plate is at " + heat(asked(*a)) + ".";
            return "It opens in " + duration_words(std::max(1.0, std::ceil(left(c, now)))) + ".";
        }
    const int done = live(a->task).done;
    if (a->phase == 0 && done == 0)
        for (const After& after : job(a->task).after) {
            const Live& before = live(after.task);
            if (before.skipped) continue;
            if (const double least = before.end + after.least - now; least > 1e-6)
                return "It cools for " + duration_words(std::max(1.0, std::ceil(least))) + " more.";
        }
    if (a->machine >= 0) {
        const PressReading& r = readings_[static_cast<std::size_t>(a->machine)];
        if (r.known && r.lost && a->kind != ActKind::unload && a->kind != ActKind::peel)
            return plan_.shop.machines[static_cast<std::size_t>(a->machine)].name + " does not answer: see to its power and line.";
        if (heats_up(*a)) return "The plate is at " + heat(r.celsius) + " and must be at " + heat(asked(*a)) + ".";
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
    if (a->kind == ActKind::press || a->kind == ActKind::wait) {
        const bool counts = a->kind == ActKind::wait || hot(a->machine, asked(*a));
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

int Shift::task_in_question() const {
    int task = -1;
    if (const auto a = card()) task = a->task;
    for (std::size_t k = past_.size(); k-- > 0;)
        if (const auto& acts = plan_.tasks[static_cast<std::size_t>(past_[k].first)].acts;
            past_[k].second >= 0 && (acts[static_cast<std::size_t>(past_[k].second)].kind == ActKind::peel ||
                                     acts[static_cast<std::size_t>(past_[k].second)].kind == ActKind::unload)) {
            if (task < 0 || live(task).done == 0) task = past_[k].first;
            break;
        }
    return task;
}

const Load* Shift::in_question() const {
    const int task = task_in_question();
    return task < 0 ? nullptr : &load_of(plan_, task);
}

std::vector<Reprint> Shift::report(PressFault fault, const Order& order, double now, std::size_t part) {
    std::vector<Reprint> out;
    const int task = task_in_question();
    if (task < 0) return out;
    const int at_load = plan_.tasks[static_cast<std::size_t>(task)].load;
    notes_.push_back({now, load_of(plan_, task).id, press_fault_name(fault)});
    if (const Load& on = load_of(plan_, task); on.trial && fault != PressFault::crooked) hold(on, fault, now);
    if (fault == PressFault::not_released) {
        int visit = -1;
        for (const int t : load_of(plan_, task).tasks) {
            if (!job(t).machines.empty()) visit = t;
            if (t == task) break;
        }
        if (visit < 0) return out;
        // under heat for a few seconds more, then peeled again from another corner
        RecipeStep heat;
        for (const ActInfo& a : plan_.tasks[static_cast<std::size_t>(visit)].acts)
            if (a.kind == ActKind::press) heat = a.step;
        heat.kind = StepKind::re_press;
        heat.seconds = 5;
        RecipeStep peel;
        peel.kind = StepKind::peel;
        peel.peel = Peel::warm;
        peel.how = "from another corner, low and rolled back";
        const std::string name = load_of(plan_, task).id + ", once more " + std::to_string(plan_.stages.size());
        const int stage = new_stage(plan_, name), peeled = new_stage(plan_, name + ", peeled");
        const auto first = static_cast<int>(plan_.shop.tasks.size());
        Job again = job(visit);
        again.after = {{task, 0, {}}};
        again.fixed.reset();
        again.stage = stage;
        again.phases = {{8, true, 0}, {heat.seconds, false, 1}, {5, true, 2}};
        Job off;
        off.phases = {{10, true, 0}};
        off.after = {{first, 8, {}}};
        off.stage = peeled;
        for (Job& j : plan_.shop.tasks)
            for (After& a : j.after)
                if (a.task == task) a = {first + 1, 0, {}};
        plan_.shop.tasks.push_back(std::move(again));
        plan_.tasks.push_back({at_load, {{ActKind::load, heat}, {ActKind::press, heat}, {ActKind::unload, heat}}, true});
        plan_.shop.tasks.push_back(std::move(off));
        plan_.tasks.push_back({at_load, {{ActKind::peel, peel}}, true});
        auto& tasks = plan_.loads[static_cast<std::size_t>(at_load)].tasks;
        const auto where = std::find(tasks.begin(), tasks.end(), task);
        tasks.insert(where == tasks.end() ? where : where + 1, {first, first + 1});
        live_.resize(plan_.shop.tasks.size());
        if (Live& l = live(task); l.end < 0) {  // it was in hand: done as far as it goes
            l.done = static_cast<int>(job(task).phases.size());
            l.end = now;
        }
        put_anew({stage, peeled}, now);
        past_.clear();
        return out;
    }
    const Load load = load_of(plan_, task);
    const LoadPart spoiled = load.parts[std::min(part, load.parts.size() - 1)];
    const Decoration* dec = find_decoration(order, spoiled.decoration);
    for (const Load& l : plan_.loads) {
        const bool begun = !l.apart && !l.tasks.empty() && (live(l.tasks.front()).start >= 0 && !live(l.tasks.front()).skipped);
        if (!begun || dec == nullptr) continue;
        for (const LoadPart& p : l.parts) {
            const Decoration* other = find_decoration(order, p.decoration);
            if (other == nullptr || other->run != dec->run || p.size != spoiled.size) continue;
            const int from = std::max(p.first, spoiled.first), to = std::min(p.first + p.pieces, spoiled.first + spoiled.pieces);
            if (to > from) out.push_back({p.decoration, p.size, 1, press_fault_name(fault)});
        }
    }
    if (load.pieces == 1) leave_out(load, now);  // of several at once the others go on
    past_.clear();
    return out;
}

void Shift::hold(const Load& trial, PressFault fault, double now) {
    std::erase_if(held_, [&](const HeldRun& h) { return h.trial == trial.id; });
    held_.push_back({trial.id, fault});
    for (const int t : trial.tasks) {  // nobody asks any more whether it came out
        Live& l = live(t);
        const auto& acts = plan_.tasks[static_cast<std::size_t>(t)].acts;
        if (l.end >= 0 || acts.empty() || acts.front().kind != ActKind::check) continue;
        l.skipped = true;
        l.end = now;
    }
    mark_held();
}

void Shift::go_on_knowingly(const std::string& trial, double now) {
    if (std::erase_if(held_, [&](const HeldRun& h) { return h.trial == trial; }) == 0) return;
    notes_.push_back({now, trial, "gone on with as it is"});
    mark_held();
    past_.clear();
    tick(now);
}

ShiftRecord Shift::record_to_try_again(const std::string& trial, double now) const {
    ShiftRecord r = record(now);
    std::erase_if(r.held, [&](const HeldRun& h) { return h.trial == trial; });
    std::erase_if(r.pieces, [&](const ShiftRecord::Piece& p) { return p.load == trial; });
    r.notes.push_back({now, trial, "tried again"});
    return r;
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

std::string Shift::press_fault(double now) const {
    for (std::size_t m = 0; m < readings_.size(); ++m) {
        const PressReading& r = readings_[m];
        if (!r.known) continue;
        const std::string& name = plan_.shop.machines[m].name;
        if (r.lost) return name + " does not answer. What lies under it: open it by hand, and report the piece if it was too long.";
        for (const Countdown& c : counting_) {
            if (c.machine != static_cast<int>(m)) continue;
            const double want = job(c.task).state.celsius;
            if (r.celsius > want + too_hot_by)
                return name + " is at " + heat(r.celsius) + " and was set to " + heat(want) + ", too hot: open it now.";
            if (c.began < 0 && r.celsius < want && asked_since_[m] >= 0 && now - asked_since_[m] > patience)
                return name + " does not reach " + heat(want) + "; it stands at " + heat(r.celsius) + ": look at its plate and power.";
        }
        if (const auto a = card(); a && a->machine == static_cast<int>(m) && a->kind == ActKind::load) {
            const double want = asked(*a);
            if (r.celsius > want + too_hot_by && asked_since_[m] >= 0 && now - asked_since_[m] > cooling_patience)
                return name + " stays at " + heat(r.celsius) + " and was set to " + heat(want) + ": look at its controller.";
            if (r.celsius < want - reached_within && asked_since_[m] >= 0 && now - asked_since_[m] > heating_patience)
                return name + " does not reach " + heat(want) + "; it stands at " + heat(r.celsius) + ": look at its plate and power.";
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
        const Job& j = plan_.shop.tasks[i];
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
    std::vector<int> stages;
    std::vector<char> there(plan_.stages.size(), 0);
    const auto add = [&](int stage) {
        if (!std::exchange(there[static_cast<std::size_t>(stage)], 1)) stages.push_back(stage);
    };
    for (const int s : first) add(s);
    for (const Act& a : acts_) add(job(a.task).stage);
    for (std::size_t s = 0; s < plan_.stages.size(); ++s) add(static_cast<int>(s));
    mark_held();
    take(put(plan_.shop, stages, {}, &so_far));
}

std::vector<int> Shift::planned_tasks(const Load& load) const {
    std::vector<int> out;
    for (const int t : load.tasks)
        if (!plan_.tasks[static_cast<std::size_t>(t)].once_more) out.push_back(t);
    return out;
}

ShiftRecord Shift::record(double now) const {
    ShiftRecord out;
    out.at = now;
    out.notes = notes_;
    out.held = held_;
    for (const Load& load : plan_.loads) {
        ShiftRecord::Piece piece;
        piece.load = load.id;
        bool begun = false;
        for (const int t : planned_tasks(load)) {
            const Live& l = live(t);
            begun = begun || l.done > 0 || l.start >= 0 || l.end >= 0;
            piece.left_out = piece.left_out || l.skipped;
            piece.done.push_back(l.done);
            piece.ended.push_back(l.end);
        }
        for (const Countdown& c : counting_)
            piece.under_heat = piece.under_heat || (c.machine >= 0 && plan_.tasks[static_cast<std::size_t>(c.task)].load ==
                                                                          static_cast<int>(&load - plan_.loads.data()));
        if (begun) out.pieces.push_back(std::move(piece));
    }
    return out;
}

std::vector<std::string> Shift::restore(const ShiftRecord& record) {
    std::vector<std::string> says;
    notes_ = record.notes;
    held_ = record.held;
    std::erase_if(held_, [&](const HeldRun& h) {  // the order no longer has it
        return std::none_of(plan_.loads.begin(), plan_.loads.end(), [&](const Load& l) { return l.trial && l.id == h.trial; });
    });
    const std::string look = " lay under heat when the shift stopped: look at it, and report it if it had too much.";
    for (const ShiftRecord::Piece& piece : record.pieces) {
        const auto load = std::find_if(plan_.loads.begin(), plan_.loads.end(), [&](const Load& l) { return l.id == piece.load; });
        if (load == plan_.loads.end()) continue;  // the order no longer has it
        const bool whole = std::none_of(piece.ended.begin(), piece.ended.end(), [](double e) { return e < 0; });
        const bool same = piece.done.size() == load->tasks.size() && piece.ended.size() == load->tasks.size();
        if (!same && !whole) {
            says.push_back("“" + piece.load + "” was begun by another recipe: see how far it is; it begins anew.");
            continue;
        }
        for (std::size_t k = 0; k < load->tasks.size(); ++k) {
            Live& l = live(load->tasks[k]);
            const auto phases = static_cast<int>(job(load->tasks[k]).phases.size());
            l.end = same ? piece.ended[k] : record.at;
            l.done = l.end >= 0 ? phases : std::clamp(piece.done[k], 0, phases);
            l.skipped = piece.left_out && l.end >= 0 && (!same || piece.done[k] < phases);
            l.changed = l.done > 0;
            if (l.done > 0 || l.end >= 0) l.start = std::min(record.at, l.end >= 0 ? l.end : record.at);
        }
        if (!piece.under_heat) continue;
        says.push_back("“" + piece.load + "”" + look);
        // it had its heat, and nobody knows how much: not a second time unasked
        for (std::size_t k = 0; k < load->tasks.size(); ++k) {
            Live& l = live(load->tasks[k]);
            const Job& j = job(load->tasks[k]);
            if (l.end >= 0 || l.start < 0 || j.machines.empty()) continue;
            const auto& acts = plan_.tasks[static_cast<std::size_t>(load->tasks[k])].acts;
            if (static_cast<std::size_t>(l.done) < acts.size() && acts[static_cast<std::size_t>(l.done)].kind == ActKind::press) ++l.done;
            finish(load->tasks[k], record.at);
            break;
        }
    }
    put_anew({}, record.at);
    return says;
}

std::vector<std::size_t> Shift::missing(const PressPlan& newer) const {
    std::vector<std::size_t> out;
    if (newer.presses != plan_.presses || newer.shop.machines.size() != plan_.shop.machines.size()) return out;
    for (std::size_t i = 0; i < newer.loads.size(); ++i)
        if (const Load& wanted = newer.loads[i]; std::none_of(plan_.loads.begin(), plan_.loads.end(), [&](const Load& l) {
                return std::any_of(l.parts.begin(), l.parts.end(), [&](const LoadPart& p) {
                    return std::any_of(wanted.parts.begin(), wanted.parts.end(), [&](const LoadPart& w) {
                        return p.decoration == w.decoration && p.size == w.size && p.first < w.first + w.pieces &&
                               w.first < p.first + p.pieces;
                    });
                });
            }))
            out.push_back(i);
    return out;
}

int Shift::bring_in(const PressPlan& newer, double now) {
    const std::vector<std::size_t> loads = missing(newer);
    if (loads.empty()) return 0;
    std::vector<int> at(newer.shop.tasks.size(), -1);
    std::map<int, int> stage;
    for (const std::size_t i : loads) {
        Load load = newer.loads[i];
        for (int& t : load.tasks) {
            const auto from = static_cast<std::size_t>(t);
            t = static_cast<int>(plan_.shop.tasks.size());
            at[from] = t;
            Job j = newer.shop.tasks[from];
            const auto [its, fresh] = stage.try_emplace(j.stage, 0);
            if (fresh)
                its->second =
                    new_stage(plan_, newer.stages[static_cast<std::size_t>(j.stage)] + ", taken in " + std::to_string(plan_.stages.size()));
            j.stage = its->second;
            j.fixed.reset();
            // a trial of its own that is not taken in has been passed
            std::erase_if(j.after, [&](const After& a) { return at[static_cast<std::size_t>(a.task)] < 0; });
            for (After& a : j.after) a.task = at[static_cast<std::size_t>(a.task)];
            plan_.shop.tasks.push_back(std::move(j));
            TaskInfo info = newer.tasks[from];
            info.load = static_cast<int>(plan_.loads.size());
            plan_.tasks.push_back(std::move(info));
            plan_.alone.push_back(t);
        }
        plan_.loads.push_back(std::move(load));
    }
    live_.resize(plan_.shop.tasks.size());
    put_anew({}, now);
    return static_cast<int>(loads.size());
}

int Shift::loads_done() const {
    int n = 0;
    for (const Load& l : plan_.loads) n += !l.tasks.empty() && live(l.tasks.back()).end >= 0 ? 1 : 0;
    return n;
}

}  // namespace orthema
