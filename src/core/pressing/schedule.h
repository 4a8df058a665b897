// Scheduling: tasks on presses and by hands, with waits and windows between them, in the least time. Knows nothing of
// orders. Method: tasks are put at their earliest fitting times, the next always being the one that can begin soonest; head
// starts and the choice of press are bettered by local search; small problems are searched through with a bound.
#pragma once

#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "core/base/task.h"

namespace orthema {

/// How a press stands: what must be the same for a task to follow without a change.
struct PressState {
    double celsius = 20;
    int pressure = 0;
    int platen = 0;
    bool operator==(const PressState&) const = default;
};

struct Machine {
    std::string name;
    PressState now;                                    ///< as it stands at time 0
    double heat_rate = 1.0 / 3, cool_rate = 1.0 / 15;  ///< °C a second
    double platen_seconds = 300, pressure_seconds = 20;
};

/// Seconds that a change takes; heat and hand go on side by side.
double change_seconds(const Machine& machine, const PressState& from, const PressState& to);
/// Of them those in which a hand works on the press, at the end.
double change_by_hand(const Machine& machine, const PressState& from, const PressState& to);

struct Phase {
    double seconds = 0;
    bool hand = false;
    int what = 0;  ///< the maker's own mark
};

struct After {
    int task = 0;                ///< an earlier task
    double least = 0;            ///< seconds after its end
    std::optional<double> most;  ///< and no later; only for tasks by hand after one task
};

struct ShopTask {
    std::vector<int> machines;  ///< that can do it; empty: by hand alone
    PressState state;
    std::vector<int> platens;  ///< on each of `machines`, where they differ; empty: as in `state`
    std::vector<Phase> phases;
    std::vector<After> after;
    int stage = 0;                ///< tasks of a stage are put in a row
    std::optional<double> fixed;  ///< starts at this time and no other
    double release = 0;           ///< not before
    std::vector<int> dues = {};   ///< of the workshop's, those that wait for it
    [[nodiscard]] double seconds() const {
        double sum = 0;
        for (const Phase& p : phases) sum += p.seconds;
        return sum;
    }
    [[nodiscard]] PressState state_on(int machine) const {
        PressState s = state;
        for (std::size_t k = 0; k < platens.size() && k < machines.size(); ++k)
            if (machines[k] == machine) s.platen = platens[k];
        return s;
    }
};

struct Pause {
    double from = 0, to = 0;
};

struct Workshop {
    std::vector<Machine> machines;
    int hands = 1;
    std::vector<Pause> pauses;      ///< no hand works; no press is closed
    std::vector<ShopTask> tasks;    ///< each after those that it follows
    std::vector<double> dues = {};  ///< seconds; when the last task that names one ends after it, the plan is late by so much
};

struct Slot {
    int machine = -1;
    double start = 0, end = 0;
    double change = 0;       ///< seconds before the start in which the press changes
    std::vector<int> hands;  ///< of each phase; -1 where none works
    int change_hand = -1;    ///< works on the change, just before the start
    double change_hand_seconds = 0;
};

/// Seconds, at most, of a head start.
constexpr double most_ahead = 1e6;

/// What a plan is put by. As a list, stages follow one another as they stand in `order`. Woven, the task that can begin soonest is
/// always the next, less its stage's head start.
struct Turns {
    std::vector<int> order;   ///< of stages; woven: of those that could begin at one time
    std::vector<int> choice;  ///< of each stage its machine (-1: any; then the one that ends it first)
    bool woven = false;
    std::vector<double> ahead;  ///< woven: of each stage, seconds; none: 0
    double fill = 0;            ///< woven: seconds of head start for each second by hand that lies between what is done already
    std::vector<double> keep;   ///< woven: of each machine, seconds by which a task that changes it comes later; none: 0
    bool operator==(const Turns&) const = default;
};

struct Schedule {
    std::vector<Slot> places;  ///< one for each task
    double end = 0;            ///< of the last task
    Turns turns;               ///< that it was put by
};

/// What stays as it was in planning anew: tasks that are done or begun.
struct Progress {
    double now = 0;
    std::vector<std::optional<Slot>> done;  ///< by task
};

/// One plan, by its turns, each task as early as it fits. Nothing where it would end after `limit`.
std::optional<Schedule> put(const Workshop& shop, const Turns& turns, const Progress* progress = nullptr, double limit = 1e15);

/// What is not done yet in the order in which `before` began it, tasks of the stages in `first` before all others, each as early
/// as it fits now: whoever works by the plan finds it again. Tasks that `before` lacks come last.
Schedule follow(const Workshop& shop, const Schedule& before, const Progress& progress, const std::vector<int>& first = {});

struct ScheduleOptions {
    double seconds = 1;  ///< of searching
    long tries = -1;     ///< when not negative: so many instead, repeatable
    unsigned seed = 1;
    Turns turns;  ///< to begin with, from an earlier plan; empty: as the stages stand
};
/// A good plan at once, better with time; `better` is told of each.
Schedule schedule(const Workshop& shop, const ScheduleOptions& options, const Task& task = {},
                  const std::function<void(const Schedule&)>& better = {}, const Progress* progress = nullptr);

/// No plan can be shorter: the most of what each set of presses, the hands and the longest chain need.
double lower_bound(const Workshop& shop);

/// Seconds by which the tasks of each due time end after it; never negative. Their sum is what a plan is judged by first, its end second.
std::vector<double> lateness(const Workshop& shop, const Schedule& plan);
/// No plan is late by less in all. Method: the tasks that are due by a time need at least so long.
double least_lateness(const Workshop& shop);

/// Everything one after the other, each task when all that is before it in the list is over: how an order is pressed
/// without a plan.
double one_by_one(const Workshop& shop, const std::vector<int>& task_order);

/// Sentences on what is wrong with a plan: a press or hand used twice, a wait or window not kept, a change too short.
std::vector<std::string> schedule_faults(const Workshop& shop, const Schedule& plan);

}  // namespace orthema
