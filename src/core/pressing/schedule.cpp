#include "core/pressing/schedule.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <map>
#include <numeric>
#include <random>
#include <set>
#include <tuple>

namespace orthema {

namespace {

constexpr double never = 1e15;
constexpr double hair = 1e-6;

struct Busy {
    double from, to;
};

/// The first busy stretch that meets [from, to), or nothing.
const Busy* meeting(const std::vector<Busy>& line, double from, double to) {
    const auto it = std::upper_bound(line.begin(), line.end(), from + hair, [](double t, const Busy& b) { return t < b.to; });
    return it != line.end() && it->from < to - hair ? &*it : nullptr;
}

void take(std::vector<Busy>& line, double from, double to) {
    line.insert(std::upper_bound(line.begin(), line.end(), from, [](double t, const Busy& b) { return t < b.from; }), {from, to});
}

void give_back(std::vector<Busy>& line, double from) {
    const auto it = std::find_if(line.begin(), line.end(), [&](const Busy& b) { return b.from == from; });
    if (it != line.end()) line.erase(it);
}

struct Stay {
    double start, end;
    PressState state;
};

/// Puts tasks into a plan one by one.
class Placer {
public:
    Placer(const Workshop& shop, const Progress* progress)
        : shop_(&shop),
          stays_(shop.machines.size()),
          hands_(static_cast<std::size_t>(std::max(1, shop.hands))),
          tied_(shop.tasks.size()),
          placed_(shop.tasks.size(), false) {
        plan_.places.resize(shop.tasks.size());
        for (std::size_t i = 0; i < shop.tasks.size(); ++i)
            for (const After& a : shop.tasks[i].after)
                if (a.most) tied_[static_cast<std::size_t>(a.task)].push_back(static_cast<int>(i));
        if (progress == nullptr) return;
        now_ = progress->now;
        for (std::size_t i = 0; i < progress->done.size() && i < shop.tasks.size(); ++i)
            if (progress->done[i]) commit(static_cast<int>(i), *progress->done[i]);
    }

    /// One task alone, without what is tied to it; false where a window is missed.
    bool place_alone(int task, int choice) {
        const Job& job = shop_->tasks[at(task)];
        double ready = std::max(now_, job.release), until = never;
        for (const After& a : job.after) {
            ready = std::max(ready, plan_.places[at(a.task)].end + a.least);
            if (a.most) until = std::min(until, plan_.places[at(a.task)].end + *a.most);
        }
        const Slot slot = best_slot(job, ready, choice);
        if (slot.start > until + hair) return false;
        commit(task, slot);
        return true;
    }
    [[nodiscard]] bool has_tied(int task) const { return !tied_[at(task)].empty(); }

    void place(int task, int choice) {
        if (placed_[at(task)]) return;
        const Job& job = shop_->tasks[at(task)];
        for (const After& a : job.after) place(a.task, -1);
        if (placed_[at(task)]) return;  // came along with what it is tied to
        double ready = std::max(now_, job.release);
        for (const After& a : job.after) ready = std::max(ready, plan_.places[at(a.task)].end + a.least);
        if (job.fixed) ready = std::max(ready, *job.fixed);
        for (int tries = 0;; ++tries) {
            const Slot slot = best_slot(job, ready, choice);
            commit(task, slot);
            double late = 0;
            std::vector<int> with;
            if (tries < 1000)
                for (const int j : tied_[at(task)]) {
                    if (placed_[at(j)]) continue;
                    const After& a = tie(j, task);
                    const Slot s = best_slot(shop_->tasks[at(j)], slot.end + a.least, -1);
                    late = std::max(late, s.start - (slot.end + *a.most));
                    if (late > hair) break;
                    commit(j, s);
                    with.push_back(j);
                }
            if (late <= hair) return;
            for (const int j : with) undo(j);
            undo(task);
            ready = slot.start + late;
        }
    }

    [[nodiscard]] bool can_follow(int task) const {
        const Job& job = shop_->tasks[at(task)];
        return !placed_[at(task)] && std::all_of(job.after.begin(), job.after.end(), [&](const After& a) { return placed_[at(a.task)]; });
    }
    [[nodiscard]] bool is_placed(int task) const { return placed_[at(task)]; }
    [[nodiscard]] const Schedule& plan() const { return plan_; }

private:
    static std::size_t at(int i) { return static_cast<std::size_t>(i); }
    const Workshop* shop_;
    std::vector<std::vector<Stay>> stays_;
    std::vector<std::vector<Busy>> hands_;
    std::vector<std::vector<int>> tied_;
    std::vector<bool> placed_;
    Schedule plan_;
    double now_ = 0;

    [[nodiscard]] const After& tie(int task, int to) const {
        const Job& job = shop_->tasks[at(task)];
        return *std::find_if(job.after.begin(), job.after.end(), [&](const After& a) { return a.task == to; });
    }

    [[nodiscard]] int free_hand(double from, double to) const {
        for (std::size_t h = 0; h < hands_.size(); ++h)
            if (meeting(hands_[h], from, to) == nullptr) return static_cast<int>(h);
        return -1;
    }
    /// When one of the hands that are in the way is free again.
    [[nodiscard]] double hand_free_from(double from, double to) const {
        double next = never;
        for (const auto& line : hands_) next = std::min(next, meeting(line, from, to)->to);
        return next;
    }

    /// The earliest start in [from, until] at which hands are there for every phase; `never` where there is none.
    double with_hands(const Job& job, double change_by_hand, double from, double until, Slot& slot) const {
        double t = from;
        const double whole = job.seconds();
        for (;;) {
            if (t > until + hair) return never;
            double next = t;
            for (const Pause& p : shop_->pauses)  // a pause meets nothing that runs on a press, and no hand
                if (t - change_by_hand < p.to - hair && t + whole > p.from + hair) next = std::max(next, p.to + change_by_hand);
            if (next > t) {
                t = next;
                continue;
            }
            slot.hands.assign(job.phases.size(), -1);
            slot.change_hand = -1;
            slot.change_hand_seconds = change_by_hand;
            if (change_by_hand > 0) {
                slot.change_hand = free_hand(t - change_by_hand, t);
                if (slot.change_hand < 0) {
                    t = hand_free_from(t - change_by_hand, t) + change_by_hand;
                    continue;
                }
            }
            double offset = 0;
            bool all = true;
            for (std::size_t k = 0; k < job.phases.size(); ++k) {
                const Phase& p = job.phases[k];
                if (p.hand && p.seconds > 0) {
                    slot.hands[k] = free_hand(t + offset, t + offset + p.seconds);
                    if (slot.hands[k] < 0) {
                        t = hand_free_from(t + offset, t + offset + p.seconds) - offset;
                        all = false;
                        break;
                    }
                }
                offset += p.seconds;
            }
            if (!all) continue;
            slot.start = t;
            slot.end = t + whole;
            return t;
        }
    }

    [[nodiscard]] Slot slot_on(const Job& job, int machine, double ready) const {
        Slot slot;
        slot.machine = machine;
        const Machine& m = shop_->machines[at(machine)];
        const auto& line = stays_[at(machine)];
        const double whole = job.seconds();
        const PressState state = job.state_on(machine);
        // into a gap where nothing need change
        auto next = std::upper_bound(line.begin(), line.end(), ready, [](double t, const Stay& v) { return t < v.start; });
        for (; next != line.end(); ++next) {
            const PressState& before = next == line.begin() ? m.now : (next - 1)->state;
            if (before != state || next->state != state) continue;
            const double from = std::max(ready, next == line.begin() ? 0 : (next - 1)->end), until = next->start - whole;
            if (from <= until + hair && with_hands(job, 0, from, until, slot) < never) return slot;
        }
        const PressState& before = line.empty() ? m.now : line.back().state;
        const double end = line.empty() ? now_ : line.back().end;
        slot.change = change_seconds(m, before, state);
        with_hands(job, change_by_hand(m, before, state), std::max(ready, end + slot.change), never / 2, slot);
        return slot;
    }

    [[nodiscard]] Slot best_slot(const Job& job, double ready, int choice) const {
        Slot best;
        if (job.machines.empty()) {
            with_hands(job, 0, ready, never / 2, best);
            return best;
        }
        best.end = never;
        for (const int m : job.machines) {
            if (choice >= 0 && m != choice && std::find(job.machines.begin(), job.machines.end(), choice) != job.machines.end()) continue;
            Slot s = slot_on(job, m, ready);
            if (s.end < best.end - hair) best = std::move(s);
        }
        return best;
    }

    void commit(int task, const Slot& slot) {
        const Job& job = shop_->tasks[at(task)];
        plan_.places[at(task)] = slot;
        plan_.end = std::max(plan_.end, slot.end);
        placed_[at(task)] = true;
        if (slot.machine >= 0) {
            auto& line = stays_[at(slot.machine)];
            line.insert(std::upper_bound(line.begin(), line.end(), slot.start, [](double t, const Stay& v) { return t < v.start; }),
                        {slot.start, slot.end, job.state_on(slot.machine)});
        }
        each_hand(job, slot, [&](int hand, double from, double to) { take(hands_[at(hand)], from, to); });
    }

    void undo(int task) {
        const Job& job = shop_->tasks[at(task)];
        const Slot& slot = plan_.places[at(task)];
        placed_[at(task)] = false;
        if (slot.machine >= 0) {
            auto& line = stays_[at(slot.machine)];
            line.erase(std::find_if(line.begin(), line.end(), [&](const Stay& v) { return v.start == slot.start; }));
        }
        each_hand(job, slot, [&](int hand, double from, double) { give_back(hands_[at(hand)], from); });
        plan_.end = 0;
        for (std::size_t i = 0; i < placed_.size(); ++i)
            if (placed_[i]) plan_.end = std::max(plan_.end, plan_.places[i].end);
    }

    template <class Use>
    void each_hand(const Job& job, const Slot& slot, Use use) const {
        if (slot.change_hand >= 0) use(slot.change_hand, slot.start - slot.change_hand_seconds, slot.start);
        double t = slot.start;
        for (std::size_t k = 0; k < job.phases.size() && k < slot.hands.size(); ++k) {
            if (slot.hands[k] >= 0) use(slot.hands[k], t, t + job.phases[k].seconds);
            t += job.phases[k].seconds;
        }
    }
};

double cost(const Schedule& s) {
    double sum = 0;
    for (const Slot& slot : s.places) sum += slot.end;
    return s.end + 1e-4 * sum / static_cast<double>(std::max<std::size_t>(1, s.places.size()));
}

/// Every order of the tasks and every choice of press, with a bound; for small problems.
class Exhaust {
public:
    Exhaust(const Workshop& shop, const Progress* progress, Schedule best, double bound)
        : shop_(shop), best_(std::move(best)), bound_(bound), start_(shop, progress) {}
    Schedule go() {
        walk(start_);
        return best_;
    }

private:
    const Workshop& shop_;
    Schedule best_;
    double bound_;
    Placer start_;
    void walk(const Placer& so_far) {
        bool all = true;
        for (int i = 0; i < static_cast<int>(shop_.tasks.size()); ++i) {
            if (so_far.is_placed(i)) continue;
            all = false;
            if (!so_far.can_follow(i) || best_.end <= bound_ + hair) continue;
            const auto& machines = shop_.tasks[static_cast<std::size_t>(i)].machines;
            for (std::size_t m = 0; m < std::max<std::size_t>(1, machines.size()); ++m) {
                const int choice = machines.empty() ? -1 : machines[m];
                Placer next = so_far;  // what is tied to it may come later in its window, after others
                if (next.place_alone(i, choice) && next.plan().end < best_.end - hair) walk(next);
                if (!so_far.has_tied(i)) continue;
                next = so_far;
                next.place(i, choice);
                if (next.plan().end < best_.end - hair) walk(next);
            }
        }
        if (all && so_far.plan().end < best_.end - hair) best_ = so_far.plan();
    }
};

}  // namespace

double change_by_hand(const Machine& m, const PressState& from, const PressState& to) {
    return (from.platen != to.platen ? m.platen_seconds : 0) + (from.pressure != to.pressure ? m.pressure_seconds : 0);
}

double change_seconds(const Machine& m, const PressState& from, const PressState& to) {
    const double by = to.celsius - from.celsius;
    return std::max(by > 0 ? by / m.heat_rate : -by / m.cool_rate, change_by_hand(m, from, to));
}

Schedule put(const Workshop& shop, const std::vector<int>& stage_order, const std::vector<int>& choice, const Progress* progress) {
    Placer placer(shop, progress);
    std::vector<std::vector<int>> of_stage;
    for (std::size_t i = 0; i < shop.tasks.size(); ++i) {
        const auto s = static_cast<std::size_t>(shop.tasks[i].stage);
        if (of_stage.size() <= s) of_stage.resize(s + 1);
        of_stage[s].push_back(static_cast<int>(i));
    }
    const auto machine = [&](std::size_t stage) { return stage < choice.size() ? choice[stage] : -1; };
    // what has its time comes first, or others would be in its place
    std::vector<int> fixed;
    for (std::size_t i = 0; i < shop.tasks.size(); ++i)
        if (shop.tasks[i].fixed) fixed.push_back(static_cast<int>(i));
    std::stable_sort(fixed.begin(), fixed.end(), [&](int a, int b) {
        return *shop.tasks[static_cast<std::size_t>(a)].fixed < *shop.tasks[static_cast<std::size_t>(b)].fixed;
    });
    for (const int i : fixed) placer.place(i, machine(static_cast<std::size_t>(shop.tasks[static_cast<std::size_t>(i)].stage)));
    for (const int stage : stage_order)
        if (const auto s = static_cast<std::size_t>(stage); s < of_stage.size())
            for (const int i : of_stage[s]) placer.place(i, machine(s));
    for (std::size_t i = 0; i < shop.tasks.size(); ++i) placer.place(static_cast<int>(i), -1);  // stages that the list lacks
    Schedule out = placer.plan();
    out.order = stage_order;
    out.choice = choice;
    return out;
}

Schedule schedule(const Workshop& shop, const ScheduleOptions& options, const Task& task,
                  const std::function<void(const Schedule&)>& better, const Progress* progress) {
    const auto begun = std::chrono::steady_clock::now();
    const auto elapsed = [&] { return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count(); };
    int stages = 0;
    for (const Job& t : shop.tasks) stages = std::max(stages, t.stage + 1);
    std::vector<int> order(static_cast<std::size_t>(stages)), choice(static_cast<std::size_t>(stages), -1);
    std::iota(order.begin(), order.end(), 0);
    if (options.order.size() == order.size()) order = options.order;
    if (options.choice.size() == choice.size()) choice = options.choice;
    Schedule best = put(shop, order, choice, progress);
    if (better) better(best);
    if (shop.tasks.empty()) return best;
    std::vector<const Job*> first(static_cast<std::size_t>(stages), nullptr);
    for (const Job& t : shop.tasks)
        if (first[static_cast<std::size_t>(t.stage)] == nullptr) first[static_cast<std::size_t>(t.stage)] = &t;
    const auto offer = [&](Schedule s) {
        if (cost(s) >= cost(best)) return false;
        best = std::move(s);
        if (better) better(best);
        return true;
    };
    // equal states together: cool to hot, and hot to cool
    for (const double way : {1.0, -1.0}) {
        std::vector<int> sorted = order;
        std::stable_sort(sorted.begin(), sorted.end(), [&](int a, int b) {
            const Job *p = first[static_cast<std::size_t>(a)], *q = first[static_cast<std::size_t>(b)];
            if (p == nullptr || q == nullptr || p->machines.empty() || q->machines.empty()) return false;
            return std::tuple(way * p->state.celsius, p->state.platen, p->state.pressure) <
                   std::tuple(way * q->state.celsius, q->state.platen, q->state.pressure);
        });
        if (Schedule s = put(shop, sorted, choice, progress); cost(s) < cost(best)) {
            offer(std::move(s));
            order = sorted;
        }
    }
    const double bound = progress == nullptr ? lower_bound(shop) : 0;
    const bool any_fixed = std::any_of(shop.tasks.begin(), shop.tasks.end(), [](const Job& t) { return t.fixed.has_value(); });
    if (shop.tasks.size() <= 7 && !any_fixed) return Exhaust(shop, progress, best, bound).go();
    std::mt19937 random(options.seed * 7919U + 17);
    const auto below = [&](std::size_t n) { return static_cast<std::size_t>(random() % static_cast<unsigned>(n)); };
    double now = cost(best);
    std::vector<double> late(30, now);  // late acceptance: as good as some tries ago is good enough
    for (long tries = 0; stages > 1 && best.end > bound + hair && !task.stopped(); ++tries) {
        if (options.tries >= 0 ? tries >= options.tries : elapsed() >= options.seconds) break;
        std::vector<int> next = order, pick = choice;
        const std::size_t a = below(next.size()), b = below(next.size());
        const unsigned move = random() % 4;
        if (move == 0) {
            std::swap(next[a], next[b]);
        } else if (move < 3) {  // one stage, or a few in a row, elsewhere
            const std::size_t count = move == 1 ? 1 : 1 + below(std::min<std::size_t>(6, next.size() - a));
            std::vector<int> moved(next.begin() + static_cast<std::ptrdiff_t>(a), next.begin() + static_cast<std::ptrdiff_t>(a + count));
            next.erase(next.begin() + static_cast<std::ptrdiff_t>(a), next.begin() + static_cast<std::ptrdiff_t>(a + count));
            next.insert(next.begin() + static_cast<std::ptrdiff_t>(std::min(b, next.size())), moved.begin(), moved.end());
        } else {
            const auto stage = static_cast<std::size_t>(next[a]);
            if (first[stage] == nullptr || first[stage]->machines.size() < 2) continue;
            const std::size_t k = below(first[stage]->machines.size() + 1);
            pick[stage] = k == 0 ? -1 : first[stage]->machines[k - 1];
        }
        Schedule s = put(shop, next, pick, progress);
        const double c = cost(s);
        double& before = late[static_cast<std::size_t>(tries) % late.size()];
        if (c <= now || c <= before) {
            order = std::move(next);
            choice = std::move(pick);
            now = c;
            offer(std::move(s));
        }
        before = now;
    }
    return best;
}

double lower_bound(const Workshop& shop) {
    const std::size_t n = shop.tasks.size();
    // longest ways to and from each task
    std::vector<double> head(n, 0), tail(n, 0);
    const auto least_change = [&](const Job& t) {
        double least = t.machines.empty() ? 0 : never;
        for (const int m : t.machines)
            least = std::min(
                least, change_seconds(shop.machines[static_cast<std::size_t>(m)], shop.machines[static_cast<std::size_t>(m)].now, t.state));
        return least;
    };
    // heating is on the way to every state that is not the press's own: a lower bound on the first change alone
    double longest = 0;
    const auto on_presses = std::count_if(shop.tasks.begin(), shop.tasks.end(), [](const Job& t) { return !t.machines.empty(); });
    for (std::size_t i = 0; i < n; ++i) {
        const Job& t = shop.tasks[i];
        head[i] = t.release;
        for (const After& a : t.after) {
            const auto k = static_cast<std::size_t>(a.task);
            head[i] = std::max(head[i], head[k] + shop.tasks[k].seconds() + a.least);
        }
        double warm = 0;  // heat alone: no order of tasks reaches a temperature sooner than going straight to it
        if (!t.machines.empty()) {
            warm = never;
            for (const int m : t.machines) {
                const Machine& machine = shop.machines[static_cast<std::size_t>(m)];
                const double by = t.state.celsius - machine.now.celsius;
                warm = std::min(warm, by > 0 ? by / machine.heat_rate : -by / machine.cool_rate);
            }
        }
        head[i] = std::max(head[i], on_presses > 1 ? warm : least_change(t));
        longest = std::max(longest, head[i] + t.seconds());
    }
    for (std::size_t i = n; i-- > 0;)
        for (const After& a : shop.tasks[i].after) {
            const auto k = static_cast<std::size_t>(a.task);
            tail[k] = std::max(tail[k], a.least + shop.tasks[i].seconds() + tail[i]);
        }
    double bound = longest;
    // each set of presses has the work that only it can do
    const std::size_t machines = std::min<std::size_t>(shop.machines.size(), 10);
    for (unsigned set = 1; set < (1U << machines); ++set) {
        double work = 0, least_head = never, least_tail = never, low = never, high = -never;
        std::set<int> platens;
        int size = 0;
        for (std::size_t m = 0; m < machines; ++m) size += (set >> m) & 1U ? 1 : 0;
        for (std::size_t i = 0; i < n; ++i) {
            const Job& t = shop.tasks[i];
            if (t.machines.empty() || !std::all_of(t.machines.begin(), t.machines.end(), [&](int m) {
                    return static_cast<std::size_t>(m) < machines && ((set >> static_cast<unsigned>(m)) & 1U) != 0;
                }))
                continue;
            work += t.seconds();
            least_head = std::min(least_head, head[i]);
            least_tail = std::min(least_tail, tail[i]);
            low = std::min(low, t.state.celsius);
            high = std::max(high, t.state.celsius);
            for (const int m : t.machines) platens.insert(t.state_on(m).platen);
        }
        if (work <= 0) continue;
        bound = std::max(bound, least_head + work / size + least_tail);
        if (size > 1) continue;
        std::size_t only = 0;
        while (((set >> only) & 1U) == 0) ++only;
        const Machine& m = shop.machines[only];
        const auto to = [&](double a, double b) { return b > a ? (b - a) / m.heat_rate : (a - b) / m.cool_rate; };
        const double heat = std::min(to(m.now.celsius, low) + to(low, high), to(m.now.celsius, high) + to(high, low));
        const double by_hand = static_cast<double>(platens.size() - platens.count(m.now.platen)) * m.platen_seconds;
        bound = std::max(bound, work + std::max(heat, by_hand) + least_tail);
    }
    double hands = 0, first_hand = never, last_hand = never;
    for (std::size_t i = 0; i < n; ++i) {
        double before = 0, after = 0, own = 0;
        for (const Phase& p : shop.tasks[i].phases) {
            if (p.hand) {
                own += p.seconds;
                after = 0;
            } else {
                (own > 0 ? after : before) += p.seconds;
            }
        }
        if (own <= 0) continue;
        hands += own;
        first_hand = std::min(first_hand, head[i] + before);
        last_hand = std::min(last_hand, after + tail[i]);
    }
    // changes by hand may come before the first task, so only their time counts, not the way there
    if (hands > 0) bound = std::max(bound, first_hand + hands / std::max(1, shop.hands) + last_hand);
    return bound;
}

double one_by_one(const Workshop& shop, const std::vector<int>& task_order) {
    std::vector<PressState> state;
    for (const Machine& m : shop.machines) state.push_back(m.now);
    std::vector<double> end(shop.tasks.size(), 0);
    double t = 0;
    for (const int i : task_order) {
        const Job& job = shop.tasks[static_cast<std::size_t>(i)];
        for (const After& a : job.after) t = std::max(t, end[static_cast<std::size_t>(a.task)] + a.least);
        if (!job.machines.empty()) {
            const auto m = static_cast<std::size_t>(job.machines.front());
            t += change_seconds(shop.machines[m], state[m], job.state_on(job.machines.front()));
            state[m] = job.state_on(job.machines.front());
        }
        for (const Pause& p : shop.pauses)
            if (t < p.to && t + job.seconds() > p.from) t = p.to;
        t += job.seconds();
        end[static_cast<std::size_t>(i)] = t;
    }
    return t;
}

std::vector<std::string> schedule_faults(const Workshop& shop, const Schedule& plan) {
    std::vector<std::string> out;
    if (plan.places.size() != shop.tasks.size()) return {"the plan lacks tasks"};
    constexpr double slack = 1e-3;
    std::vector<std::vector<std::pair<double, double>>> hands(static_cast<std::size_t>(std::max(1, shop.hands)));
    std::vector<std::vector<std::size_t>> on(shop.machines.size());
    for (std::size_t i = 0; i < shop.tasks.size(); ++i) {
        const Job& job = shop.tasks[i];
        const Slot& s = plan.places[i];
        const std::string name = "task " + std::to_string(i);
        if (std::abs(s.end - s.start - job.seconds()) > slack) out.push_back(name + " has another length");
        if (s.start < job.release - slack) out.push_back(name + " begins before it may");
        for (const After& a : job.after) {
            const double gap = s.start - plan.places[static_cast<std::size_t>(a.task)].end;
            if (gap < a.least - slack) out.push_back(name + " begins " + std::to_string(a.least - gap) + " s too soon");
            if (a.most && gap > *a.most + slack) out.push_back(name + " begins " + std::to_string(gap - *a.most) + " s too late");
        }
        for (const Pause& p : shop.pauses)
            if (s.start < p.to - slack && s.end > p.from + slack) out.push_back(name + " runs into a pause");
        if (job.machines.empty() != (s.machine < 0) ||
            (s.machine >= 0 && std::find(job.machines.begin(), job.machines.end(), s.machine) == job.machines.end()))
            out.push_back(name + " is on a press that cannot do it");
        else if (s.machine >= 0)
            on[static_cast<std::size_t>(s.machine)].push_back(i);
        double t = s.start;
        for (std::size_t k = 0; k < job.phases.size(); ++k) {
            if (job.phases[k].hand && job.phases[k].seconds > 0) {
                if (k >= s.hands.size() || s.hands[k] < 0 || s.hands[k] >= shop.hands)
                    out.push_back(name + " lacks a hand");
                else
                    hands[static_cast<std::size_t>(s.hands[k])].emplace_back(t, t + job.phases[k].seconds);
            }
            t += job.phases[k].seconds;
        }
    }
    for (std::size_t m = 0; m < on.size(); ++m) {
        std::sort(on[m].begin(), on[m].end(), [&](std::size_t a, std::size_t b) { return plan.places[a].start < plan.places[b].start; });
        PressState state = shop.machines[m].now;
        double end = 0;
        for (const std::size_t i : on[m]) {
            const PressState wanted = shop.tasks[i].state_on(static_cast<int>(m));
            const double change = change_seconds(shop.machines[m], state, wanted);
            if (plan.places[i].start < end + change - slack)
                out.push_back("task " + std::to_string(i) + " begins before " + shop.machines[m].name + " is ready");
            if (const double by = change_by_hand(shop.machines[m], state, wanted); by > 0) {
                if (plan.places[i].change_hand < 0)
                    out.push_back("task " + std::to_string(i) + " lacks a hand for the change");
                else
                    hands[static_cast<std::size_t>(plan.places[i].change_hand)].emplace_back(plan.places[i].start - by,
                                                                                             plan.places[i].start);
            }
            state = wanted;
            end = plan.places[i].end;
        }
    }
    for (auto& line : hands) {
        std::sort(line.begin(), line.end());
        for (std::size_t k = 1; k < line.size(); ++k)
            if (line[k].first < line[k - 1].second - slack)
                out.push_back("a hand is used twice at " + std::to_string(line[k].first) + " s");
    }
    return out;
}

}  // namespace orthema
