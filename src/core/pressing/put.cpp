// From turns to a plan. Woven: of the tasks that can come next, one of each stage, the one that can begin soonest gets its
// place; where it begins is worked out again only when it comes up, since what is placed between makes it later, never sooner,
// unless a press was left in another state.
#include <algorithm>
#include <queue>
#include <tuple>

#include "core/pressing/placer.h"

namespace orthema {

namespace {

constexpr double goes_on = 5;  ///< seconds of head start for the stage that a press is at

using Stages = std::vector<std::vector<int>>;

Stages stages_of(const Workshop& shop) {
    Stages out;
    for (std::size_t i = 0; i < shop.tasks.size(); ++i) {
        const auto s = static_cast<std::size_t>(shop.tasks[i].stage);
        if (out.size() <= s) out.resize(s + 1);
        out[s].push_back(static_cast<int>(i));
    }
    return out;
}

template <class T>
T at_or(const std::vector<T>& list, std::size_t i, T otherwise) {
    return i < list.size() ? list[i] : otherwise;
}

bool same_phases(const Job& a, const Job& b) {
    return a.phases.size() == b.phases.size() &&
           std::equal(a.phases.begin(), a.phases.end(), b.phases.begin(),
                      [](const Phase& p, const Phase& q) { return p.seconds == q.seconds && p.hand == q.hand; });
}

class Weave {
public:
    Weave(const Workshop& shop, const Turns& turns, Placer& placer, double limit)
        : shop_(shop),
          turns_(turns),
          placer_(placer),
          limit_(limit),
          stages_(stages_of(shop)),
          look_(stages_.size()),
          waiting_(shop.tasks.size()),
          on_(shop.machines.size()),
          last_(shop.machines.size(), -1) {
        int rank = 0;
        for (Look& l : look_) l.rank = static_cast<int>(look_.size());
        for (const int s : turns.order)
            if (at(s) < look_.size()) look_[at(s)].rank = rank++;
        for (std::size_t s = 0; s < stages_.size(); ++s)
            if (!stages_[s].empty())
                for (const int m : shop.tasks[at(stages_[s].front())].machines) on_[at(m)].push_back(static_cast<int>(s));
    }

    bool go() {
        for (std::size_t s = 0; s < stages_.size(); ++s) offer(static_cast<int>(s));
        std::vector<PressState> was(shop_.machines.size());
        std::vector<int> woken;
        while (!next_.empty()) {
            const Coming c = next_.top();
            next_.pop();
            Look& l = look_[at(c.stage)];
            if (c.version != l.version) continue;
            const int task = stages_[at(c.stage)][l.next];
            const double key = begins(c.stage, task);
            if (!next_.empty() && key > c.key + blink && key > next_.top().key + blink) {
                next_.push({key, c.rank, c.stage, c.version});
                continue;
            }
            for (std::size_t m = 0; m < was.size(); ++m) was[m] = placer_.left(static_cast<int>(m));
            placer_.place(task, at_or(turns_.choice, at(c.stage), -1));
            if (placer_.plan().end > limit_) return false;
            if (const int m = placer_.plan().places[at(task)].machine; m >= 0) last_[at(m)] = c.stage;
            woken.assign(1, c.stage);
            for (const int t : placer_.fresh()) {
                woken.insert(woken.end(), waiting_[at(t)].begin(), waiting_[at(t)].end());
                waiting_[at(t)].clear();
                if (shop_.tasks[at(t)].stage != c.stage) woken.push_back(shop_.tasks[at(t)].stage);
            }
            for (std::size_t m = 0; m < was.size(); ++m)
                if (was[m] != placer_.left(static_cast<int>(m))) woken.insert(woken.end(), on_[m].begin(), on_[m].end());
            std::sort(woken.begin(), woken.end());
            woken.erase(std::unique(woken.begin(), woken.end()), woken.end());
            for (const int s : woken) offer(s);
        }
        return true;
    }

private:
    /// What is known of a stage's next task.
    struct Look {
        std::size_t next = 0;
        unsigned version = 0;
        int rank = 0;
        int seen = -1;                      ///< the task that was last looked at,
        double ready = 0, none_before = 0;  ///< when it was ready, and until where there is no place for one like it
    };
    struct Coming {
        double key = 0;
        int rank = 0, stage = 0;
        unsigned version = 0;
        bool operator<(const Coming& o) const { return std::tie(key, rank, stage) > std::tie(o.key, o.rank, o.stage); }
    };
    static std::size_t at(int i) { return static_cast<std::size_t>(i); }
    const Workshop& shop_;
    const Turns& turns_;
    Placer& placer_;
    double limit_;
    Stages stages_;
    std::vector<Look> look_;
    std::vector<std::vector<int>> waiting_;  ///< stages, by the task that their next one waits for
    std::vector<std::vector<int>> on_;       ///< stages of each machine
    std::vector<int> last_;                  ///< stage on each machine
    std::priority_queue<Coming> next_;

    void offer(int stage) {
        Look& l = look_[at(stage)];
        const std::vector<int>& tasks = stages_[at(stage)];
        ++l.version;
        while (l.next < tasks.size() && placer_.is_placed(tasks[l.next])) ++l.next;
        if (l.next == tasks.size()) return;
        const int task = tasks[l.next];
        for (const After& a : shop_.tasks[at(task)].after)
            if (!placer_.is_placed(a.task)) {
                waiting_[at(a.task)].push_back(stage);
                return;
            }
        next_.push({begins(stage, task), l.rank, stage, l.version});
    }

    double begins(int stage, int task) {
        Look& l = look_[at(stage)];
        const Job& job = shop_.tasks[at(task)];
        const double ready = placer_.ready(task);
        double none_before = ready;
        if (l.seen >= 0 && ready >= l.ready && (l.seen == task || same_phases(job, shop_.tasks[at(l.seen)])))
            none_before = std::max(ready, l.none_before);
        const bool by_hand = job.machines.empty();
        const Start s = placer_.earliest(task, by_hand ? none_before : ready, none_before, at_or(turns_.choice, at(stage), -1));
        l.seen = task;
        l.ready = ready;
        // gaps between tasks only fill up; what may yet be appended can come sooner when a press is left otherwise
        l.none_before = by_hand || s.in_gap ? s.at : none_before;
        if (!by_hand && !s.in_gap && job.machines.size() == 1)
            l.none_before = std::max(none_before, placer_.free_from(job.machines.front()));
        double key = s.at - at_or(turns_.ahead, at(stage), 0.0);
        // a run of like loads goes on: other marks on the platen would cost the hands more than these seconds
        if (s.machine >= 0 && last_[at(s.machine)] == stage) key -= goes_on;
        if (turns_.fill > 0) key -= turns_.fill * placer_.between(task, s);
        if (s.change > 0) key += at_or(turns_.keep, at(s.machine), 0.0);
        return key;
    }
};

}  // namespace

std::optional<Schedule> put(const Workshop& shop, const Turns& turns, const Progress* progress, double limit) {
    Placer placer(shop, progress);
    const auto machine = [&](int task) {
        return at_or(turns.choice, static_cast<std::size_t>(shop.tasks[static_cast<std::size_t>(task)].stage), -1);
    };
    // what has its time comes first, or others would be in its place
    std::vector<int> fixed;
    for (std::size_t i = 0; i < shop.tasks.size(); ++i)
        if (shop.tasks[i].fixed) fixed.push_back(static_cast<int>(i));
    std::stable_sort(fixed.begin(), fixed.end(), [&](int a, int b) {
        return *shop.tasks[static_cast<std::size_t>(a)].fixed < *shop.tasks[static_cast<std::size_t>(b)].fixed;
    });
    for (const int i : fixed) placer.place(i, machine(i));
    if (turns.woven) {
        (void)placer.fresh();
        if (!Weave(shop, turns, placer, limit).go()) return std::nullopt;
    } else {
        const Stages stages = stages_of(shop);
        for (const int stage : turns.order)
            if (const auto s = static_cast<std::size_t>(stage); s < stages.size())
                for (const int i : stages[s]) placer.place(i, machine(i));
        for (std::size_t i = 0; i < shop.tasks.size(); ++i) placer.place(static_cast<int>(i), -1);  // stages that the list lacks
    }
    if (placer.plan().end > limit) return std::nullopt;
    Schedule out = placer.plan();
    out.turns = turns;
    return out;
}

}  // namespace orthema
