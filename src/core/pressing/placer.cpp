#include "core/pressing/placer.h"

#include <algorithm>

namespace orthema {

std::vector<double> signed_phases(const ShopTask& job) {
    std::vector<double> out;
    for (const Phase& p : job.phases) out.push_back(p.hand ? p.seconds : -p.seconds);
    return out;
}

Likeness likeness_of(const ShopTask& job) {
    std::vector<int> platens;
    for (const int m : job.machines) platens.push_back(job.state_on(m).platen);
    return {job.machines, std::move(platens), job.state.celsius, job.state.pressure, signed_phases(job)};
}

Placer::Placer(const Workshop& shop, const Progress* progress)
    : shop_(&shop),
      stays_(shop.machines.size()),
      gaps_(shop.machines.size()),
      shortest_(shop.machines.size(), end_of_time),
      hands_(static_cast<std::size_t>(std::max(1, shop.hands))),
      tied_(shop.tasks.size()),
      work_(shop.tasks.size()),
      whole_(shop.tasks.size(), 0),
      placed_(shop.tasks.size(), 0) {
    plan_.places.resize(shop.tasks.size());
    for (std::size_t i = 0; i < shop.tasks.size(); ++i) {
        const ShopTask& job = shop.tasks[i];
        for (const After& a : job.after)
            if (a.most) tied_[at(a.task)].push_back(static_cast<int>(i));
        for (std::size_t k = 0; k < job.phases.size(); ++k) {
            if (job.phases[k].hand && job.phases[k].seconds > 0)
                work_[i].push_back({whole_[i], job.phases[k].seconds, static_cast<int>(k)});
            whole_[i] += job.phases[k].seconds;
        }
        for (const int m : job.machines) shortest_[at(m)] = std::min(shortest_[at(m)], whole_[i]);
    }
    if (progress == nullptr) return;
    now_ = progress->now;
    std::vector<int> done;
    for (std::size_t i = 0; i < progress->done.size() && i < shop.tasks.size(); ++i)
        if (progress->done[i]) done.push_back(static_cast<int>(i));
    std::stable_sort(done.begin(), done.end(), [&](int a, int b) { return progress->done[at(a)]->start < progress->done[at(b)]->start; });
    for (const int i : done) commit(i, *progress->done[at(i)]);
}

bool Placer::place_alone(int task, int choice) {
    double until = end_of_time;
    for (const After& a : shop_->tasks[at(task)].after)
        if (a.most) until = std::min(until, plan_.places[at(a.task)].end + *a.most);
    const double from = ready(task);
    const Start start = earliest(task, from, from, choice);
    if (start.at > until + blink) return false;
    commit(task, slot_at(task, start));
    return true;
}

void Placer::place(int task, int choice) {
    if (placed_[at(task)]) return;
    const ShopTask& job = shop_->tasks[at(task)];
    for (const After& a : job.after) place(a.task, -1);
    if (placed_[at(task)]) return;  // came along with what it is tied to
    double from = ready(task);
    if (job.fixed) from = std::max(from, *job.fixed);
    const double end_before = plan_.end;
    for (int tries = 0;; ++tries) {
        const Start start = earliest(task, from, from, choice);
        commit(task, slot_at(task, start));
        double late = 0;
        std::vector<int> with;
        if (tries < 1000)
            for (const int j : tied_[at(task)]) {
                if (placed_[at(j)]) continue;
                const After& a = tie(j, task);
                const double soonest = start.end + a.least;
                const Start s = earliest(j, soonest, soonest, -1);
                late = std::max(late, s.at - (start.end + *a.most));
                if (late > blink) break;
                commit(j, slot_at(j, s));
                with.push_back(j);
            }
        if (late <= blink) return;
        for (const int j : with) undo(j);
        undo(task);
        plan_.end = end_before;
        from = start.at + late;
    }
}

double Placer::ready(int task) const {
    const ShopTask& job = shop_->tasks[at(task)];
    double ready = std::max(now_, job.release);
    for (const After& a : job.after) ready = std::max(ready, plan_.places[at(a.task)].end + a.least);
    return ready;
}

bool Placer::can_follow(int task) const {
    const ShopTask& job = shop_->tasks[at(task)];
    return !placed_[at(task)] && std::all_of(job.after.begin(), job.after.end(), [&](const After& a) { return placed_[at(a.task)]; });
}

const PressState& Placer::left(int machine) const {
    const auto& line = stays_[at(machine)];
    return line.empty() ? shop_->machines[at(machine)].now : line.back().state;
}

double Placer::free_from(int machine) const {
    const auto& line = stays_[at(machine)];
    return line.empty() ? now_ : line.back().end;
}

const After& Placer::tie(int task, int to) const {
    const ShopTask& job = shop_->tasks[at(task)];
    return *std::find_if(job.after.begin(), job.after.end(), [&](const After& a) { return a.task == to; });
}

/// The first busy stretch that meets [from, to), or nothing.
const Placer::Busy* Placer::meeting(const std::vector<Busy>& line, double from, double to) {
    if (line.empty() || line.back().to <= from + blink) return nullptr;
    const auto it = std::upper_bound(line.begin(), line.end(), from + blink, [](double t, const Busy& b) { return t < b.to; });
    return it != line.end() && it->from < to - blink ? &*it : nullptr;
}

void Placer::take(std::vector<Busy>& line, double from, double to) {
    const auto first = std::lower_bound(line.begin(), line.end(), from - blink, [](const Busy& b, double t) { return b.to < t; });
    auto last = first;
    for (; last != line.end() && last->from <= to + blink; ++last) {
        from = std::min(from, last->from);
        to = std::max(to, last->to);
    }
    if (first == last) {
        line.insert(first, {from, to});
    } else {
        *first = {from, to};
        line.erase(first + 1, last);
    }
}

void Placer::give_back(std::vector<Busy>& line, double from, double to) {
    auto it = std::upper_bound(line.begin(), line.end(), from + blink, [](double t, const Busy& b) { return t < b.to; });
    if (it == line.end()) return;
    const Busy rest{to, it->to};
    const bool before = it->from<from - blink, after = rest.to> to + blink;
    if (before && after) {
        it->to = from;
        line.insert(it + 1, rest);
    } else if (before) {
        it->to = from;
    } else if (after) {
        it->from = to;
    } else {
        line.erase(it);
    }
}

int Placer::free_hand(double from, double to) const {
    for (std::size_t h = 0; h < hands_.size(); ++h)
        if (meeting(hands_[h], from, to) == nullptr) return static_cast<int>(h);
    return -1;
}

/// When one of the hands that are in the way is free again; `from` or before where one is free.
double Placer::hand_free_from(double from, double to) const {
    double next = end_of_time;
    for (const auto& line : hands_) {
        const Busy* in_the_way = meeting(line, from, to);
        if (in_the_way == nullptr) return from;
        next = std::min(next, in_the_way->to);
    }
    return next;
}

/// The earliest start in [from, until] at which hands are there for the change and every phase; `end_of_time` where there is none.
double Placer::with_hands(int task, double change_by_hand, double from, double until) const {
    double t = from;
    const double whole = whole_[at(task)];
    for (;;) {
        if (t > until + blink) return end_of_time;
        double next = t;
        for (const Pause& p : shop_->pauses)  // a pause meets nothing that runs on a press, and no hand
            if (t - change_by_hand < p.to - blink && t + whole > p.from + blink) next = std::max(next, p.to + change_by_hand);
        if (next > t) {
            t = next;
            continue;
        }
        if (change_by_hand > 0) {
            const double free = hand_free_from(t - change_by_hand, t);
            if (free > t - change_by_hand) {
                t = free + change_by_hand;
                continue;
            }
        }
        bool all = true;
        for (const HandWork& w : work_[at(task)]) {
            const double free = hand_free_from(t + w.offset, t + w.offset + w.seconds);
            if (free > t + w.offset) {
                t = free - w.offset;
                all = false;
                break;
            }
        }
        if (all) return t;
    }
}

Start Placer::on_press(int task, int machine, double from, double gaps_from) const {
    Start out;
    out.machine = machine;
    const ShopTask& job = shop_->tasks[at(task)];
    const Machine& m = shop_->machines[at(machine)];
    const double whole = whole_[at(task)];
    const PressState state = job.state_on(machine);
    // into a gap where nothing need change
    auto gap = std::lower_bound(gaps_[at(machine)].begin(), gaps_[at(machine)].end(), gaps_from + whole - blink,
                                [](const Stay& g, double t) { return g.end < t; });
    for (; gap != gaps_[at(machine)].end(); ++gap) {
        if (gap->state != state) continue;
        const double first = std::max(from, gap->start), until = gap->end - whole;
        if (first > until + blink) continue;
        const double t = with_hands(task, 0, first, until);
        if (t == end_of_time) continue;
        out.at = t;
        out.end = t + whole;
        out.in_gap = true;
        return out;
    }
    const PressState& before = left(machine);
    out.change = change_seconds(m, before, state);
    out.change_by_hand = change_by_hand(m, before, state);
    out.at = with_hands(task, out.change_by_hand, std::max(from, free_from(machine) + out.change), end_of_time / 2);
    out.end = out.at + whole;
    return out;
}

Start Placer::earliest(int task, double from, double gaps_from, int choice) const {
    const ShopTask& job = shop_->tasks[at(task)];
    Start best;
    if (job.machines.empty()) {
        best.at = with_hands(task, 0, from, end_of_time / 2);
        best.end = best.at + whole_[at(task)];
        return best;
    }
    best.end = end_of_time;
    const bool narrowed = choice >= 0 && std::find(job.machines.begin(), job.machines.end(), choice) != job.machines.end();
    for (const int m : job.machines) {
        if (narrowed && m != choice) continue;
        const Start s = on_press(task, m, from, gaps_from);
        if (s.end < best.end - blink) best = s;
    }
    return best;
}

double Placer::between(int task, const Start& start) const {
    constexpr double soon = 30;  // what comes later is no hole, but the time before what comes later
    double sum = 0;
    for (const HandWork& w : work_[at(task)]) {
        const double from = start.at + w.offset, to = from + w.seconds;
        const int hand = free_hand(from, to);
        if (hand < 0) continue;
        const auto& line = hands_[at(hand)];
        if (line.empty() || line.back().from <= to - blink) continue;
        const auto next = std::lower_bound(line.begin(), line.end(), to - blink, [](const Busy& b, double t) { return b.from < t; });
        if (next != line.end() && next->from < to + soon) sum += w.seconds;
    }
    return sum;
}

/// With the hands that are free there.
Slot Placer::slot_at(int task, const Start& start) const {
    const ShopTask& job = shop_->tasks[at(task)];
    Slot slot;
    slot.machine = start.machine;
    slot.start = start.at;
    slot.end = start.end;
    slot.change = start.change;
    slot.change_hand_seconds = start.change_by_hand;
    if (start.change_by_hand > 0) slot.change_hand = free_hand(start.at - start.change_by_hand, start.at);
    slot.hands.assign(job.phases.size(), -1);
    for (const HandWork& w : work_[at(task)]) slot.hands[at(w.phase)] = free_hand(start.at + w.offset, start.at + w.offset + w.seconds);
    return slot;
}

/// The gaps of a press anew about a stretch in which a task got its place or lost it.
void Placer::mind_gaps(int machine, double from, double to) {
    const auto& line = stays_[at(machine)];
    auto& gaps = gaps_[at(machine)];
    const auto starts_before = [](const Stay& v, double t) { return v.start < t; };
    const auto first = std::lower_bound(line.begin(), line.end(), from, starts_before);
    const auto last = std::lower_bound(first, line.end(), to - blink, starts_before);
    double end = first == line.begin() ? 0 : (first - 1)->end;
    const double until = last == line.end() ? end_of_time : last->start;
    auto gap = std::lower_bound(gaps.begin(), gaps.end(), end + blink, [](const Stay& g, double t) { return g.end < t; });
    auto gone = gap;
    while (gone != gaps.end() && gone->start < until - blink) ++gone;
    gap = gaps.erase(gap, gone);
    PressState state = first == line.begin() ? shop_->machines[at(machine)].now : (first - 1)->state;
    for (auto v = first; v != (last == line.end() ? last : last + 1); ++v) {
        if (v->state == state && v->start - end >= shortest_[at(machine)] - blink) gap = gaps.insert(gap, {end, v->start, state}) + 1;
        end = v->end;
        state = v->state;
    }
}

void Placer::commit(int task, const Slot& slot) {
    const ShopTask& job = shop_->tasks[at(task)];
    plan_.places[at(task)] = slot;
    plan_.end = std::max(plan_.end, slot.end);
    placed_[at(task)] = 1;
    fresh_.push_back(task);
    if (slot.machine >= 0) {
        auto& line = stays_[at(slot.machine)];
        line.insert(std::upper_bound(line.begin(), line.end(), slot.start, [](double t, const Stay& v) { return t < v.start; }),
                    {slot.start, slot.end, job.state_on(slot.machine)});
        mind_gaps(slot.machine, slot.start, slot.end);
    }
    each_hand(job, slot, [&](int hand, double from, double to) { take(hands_[at(hand)], from, to); });
}

void Placer::undo(int task) {
    const ShopTask& job = shop_->tasks[at(task)];
    const Slot& slot = plan_.places[at(task)];
    placed_[at(task)] = 0;
    fresh_.erase(std::find(fresh_.rbegin(), fresh_.rend(), task).base() - 1);
    if (slot.machine >= 0) {
        auto& line = stays_[at(slot.machine)];
        line.erase(std::lower_bound(line.begin(), line.end(), slot.start, [](const Stay& v, double t) { return v.start < t; }));
        mind_gaps(slot.machine, slot.start, slot.end);
    }
    each_hand(job, slot, [&](int hand, double from, double to) { give_back(hands_[at(hand)], from, to); });
}

template <class Use>
void Placer::each_hand(const ShopTask& job, const Slot& slot, Use use) const {
    if (slot.change_hand >= 0) use(slot.change_hand, slot.start - slot.change_hand_seconds, slot.start);
    double t = slot.start;
    for (std::size_t k = 0; k < job.phases.size() && k < slot.hands.size(); ++k) {
        if (slot.hands[k] >= 0) use(slot.hands[k], t, t + job.phases[k].seconds);
        t += job.phases[k].seconds;
    }
}

}  // namespace orthema
