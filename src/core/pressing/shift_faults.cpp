// What goes wrong in a shift: which piece is meant, what is done about it, and what waits for a trial that did not come out.
#include <algorithm>
#include <utility>

#include "core/order/roster.h"
#include "core/pressing/shift.h"

namespace orthema {

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
    if (task < 0 || load_of(plan_, task).makes_film())
        return out;  // what is wrong with film is seen, and printed again, before it is pressed
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
        const int stage = add_stage(plan_, name), peeled = add_stage(plan_, name + ", peeled");
        const auto first = static_cast<int>(plan_.shop.tasks.size());
        ShopTask again = job(visit);
        again.after = {{task, 0, {}}};
        again.fixed.reset();
        again.stage = stage;
        again.phases = {{8, true, 0}, {heat.seconds, false, 1}, {5, true, 2}};
        ShopTask off;
        off.phases = {{10, true, 0}};
        off.after = {{first, 8, {}}};
        off.stage = peeled;
        for (ShopTask& j : plan_.shop.tasks)
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
            if (to > from) out.push_back({p.decoration, p.size, 1, press_fault_name(fault), word_on(order, *other, p.size, from)});
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

}  // namespace orthema
