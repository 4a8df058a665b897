// From turns to a plan. Woven: of the tasks that can come next, one of each stage, the one that can begin soonest gets its
// place. Stages of like tasks are looked at together; where a kind can begin is worked out again only when it comes up, since what
// is placed between makes it later, never sooner, unless a press was left in another state.
#include <algorithm>
#include <map>
#include <queue>
#include <set>
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
        std::map<std::pair<Likeness, int>, int> known;  // and choice
        for (std::size_t s = 0; s < stages_.size(); ++s) {
            Look& l = look_[s];
            l.ahead = at_or(turns.ahead, s, 0.0);
            l.choice = at_or(turns.choice, s, -1);
            if (stages_[s].empty()) continue;
            const ShopTask& job = shop.tasks[at(stages_[s].front())];
            const auto [it, fresh] = known.try_emplace({likeness_of(job), l.choice}, static_cast<int>(kinds_.size()));
            if (fresh) {
                kinds_.emplace_back();
                for (const int m : job.machines) on_[at(m)].push_back(it->second);
            }
            l.kind = it->second;
        }
    }

    bool go() {
        for (std::size_t s = 0; s < stages_.size(); ++s) offer(static_cast<int>(s));
        for (std::size_t k = 0; k < kinds_.size(); ++k) look_at(static_cast<int>(k));
        std::vector<PressState> was(shop_.machines.size());
        std::vector<int> kinds, woken;
        while (!next_.empty()) {
            const Coming c = next_.top();
            next_.pop();
            if (c.version != kinds_[at(c.kind)].version) continue;
            const Best best = best_of(c.kind);
            if (best.stage < 0) continue;
            if (!next_.empty() && best.key > c.key + blink && best.key > next_.top().key + blink) {
                next_.push({best.key, look_[at(best.stage)].rank, c.kind, c.version});
                continue;
            }
            const int task = stages_[at(best.stage)][look_[at(best.stage)].next];
            for (std::size_t m = 0; m < was.size(); ++m) was[m] = placer_.left(static_cast<int>(m));
            placer_.place(task, look_[at(best.stage)].choice);
            if (placer_.plan().end > limit_) return false;
            if (const int m = placer_.plan().places[at(task)].machine; m >= 0) last_[at(m)] = best.stage;
            woken.assign(1, best.stage);
            for (const int t : placer_.fresh()) {
                woken.insert(woken.end(), waiting_[at(t)].begin(), waiting_[at(t)].end());
                waiting_[at(t)].clear();
                woken.push_back(shop_.tasks[at(t)].stage);
            }
            std::sort(woken.begin(), woken.end());
            woken.erase(std::unique(woken.begin(), woken.end()), woken.end());
            kinds.assign(1, c.kind);
            for (const int s : woken) {
                offer(s);
                kinds.push_back(look_[at(s)].kind);
            }
            for (std::size_t m = 0; m < was.size(); ++m)
                if (was[m] != placer_.left(static_cast<int>(m))) kinds.insert(kinds.end(), on_[m].begin(), on_[m].end());
            std::sort(kinds.begin(), kinds.end());
            kinds.erase(std::unique(kinds.begin(), kinds.end()), kinds.end());
            for (const int k : kinds) look_at(k);
        }
        return true;
    }

private:
    /// A stage, and what is known of its next task.
    struct Look {
        std::size_t next = 0;
        unsigned version = 0;
        int rank = 0, kind = -1, choice = -1;
        double ahead = 0, ready = 0;
        bool waits = false;  ///< among those of its kind that could begin whenever there is a place
    };
    struct Later {
        double key = 0;  ///< no sooner
        int rank = 0, stage = 0;
        unsigned version = 0;
        bool operator<(const Later& o) const { return std::tie(key, rank, stage) > std::tie(o.key, o.rank, o.stage); }
    };
    /// Stages whose tasks are alike: all that are ready begin at the same time, whichever is taken.
    struct Kind {
        std::set<std::tuple<double, int, int>> waiting;  ///< (less its head start, rank, stage)
        std::priority_queue<Later> later;
        unsigned version = 0;
        double ready = -1, none_before = 0;  ///< for one that was ready then there is no place before
    };
    struct Coming {
        double key = 0;
        int rank = 0, kind = 0;
        unsigned version = 0;
        bool operator<(const Coming& o) const { return std::tie(key, rank, kind) > std::tie(o.key, o.rank, o.kind); }
    };
    struct Best {
        double key = 0;
        int stage = -1;
    };
    static std::size_t at(int i) { return static_cast<std::size_t>(i); }
    const Workshop& shop_;
    const Turns& turns_;
    Placer& placer_;
    double limit_;
    Stages stages_;
    std::vector<Look> look_;
    std::vector<Kind> kinds_;
    std::vector<std::vector<int>> waiting_;  ///< stages, by the task that their next one waits for
    std::vector<std::vector<int>> on_;       ///< kinds of each machine
    std::vector<int> last_;                  ///< stage on each machine
    std::priority_queue<Coming> next_;

    /// A stage's next task among those of its kind, or where it waits for another.
    void offer(int stage) {
        Look& l = look_[at(stage)];
        if (l.kind < 0) return;
        const std::vector<int>& tasks = stages_[at(stage)];
        Kind& kind = kinds_[at(l.kind)];
        ++l.version;
        if (std::exchange(l.waits, false)) kind.waiting.erase({-l.ahead, l.rank, stage});
        while (l.next < tasks.size() && placer_.is_placed(tasks[l.next])) ++l.next;
        if (l.next == tasks.size()) return;
        const int task = tasks[l.next];
        for (const After& a : shop_.tasks[at(task)].after)
            if (!placer_.is_placed(a.task)) {
                waiting_[at(a.task)].push_back(stage);
                return;
            }
        l.ready = placer_.ready(task);
        kind.later.push({l.ready - l.ahead - goes_on, l.rank, stage, l.version});
    }

    void look_at(int k) {
        Kind& kind = kinds_[at(k)];
        ++kind.version;
        if (const Best best = best_of(k); best.stage >= 0) next_.push({best.key, look_[at(best.stage)].rank, k, kind.version});
    }

    Best best_of(int k) {
        Kind& kind = kinds_[at(k)];
        Best best;
        double begins_at = 0;
        const auto among_waiting = [&] {
            if (kind.waiting.empty()) return;
            int stage = std::get<2>(*kind.waiting.begin());
            for (const int l : last_)
                if (l >= 0 && look_[at(l)].kind == k && look_[at(l)].waits && look_[at(l)].ahead + goes_on > look_[at(stage)].ahead)
                    stage = l;
            if (stage == best.stage) return;
            best = {key_of(stage, begins_at), stage};
        };
        among_waiting();
        while (!kind.later.empty()) {
            const Later l = kind.later.top();
            Look& look = look_[at(l.stage)];
            if (l.version != look.version) {
                kind.later.pop();
                continue;
            }
            if (best.stage >= 0 && l.key >= best.key) break;
            kind.later.pop();
            if (best.stage >= 0 && look.ready <= begins_at) {  // could begin there as well
                look.waits = true;
                kind.waiting.insert({-look.ahead, look.rank, l.stage});
                among_waiting();
                continue;
            }
            double begins = 0;
            const double key = key_of(l.stage, begins);
            if (best.stage < 0) {
                look.waits = true;
                kind.waiting.insert({-look.ahead, look.rank, l.stage});
                begins_at = begins;
                best = {key, l.stage};
                continue;
            }
            kind.later.push({key, l.rank, l.stage, l.version});
            if (key <= l.key + blink) {
                if (key < best.key) best = {key, l.stage};
                break;
            }
        }
        return best;
    }

    double key_of(int stage, double& begins) {
        const Look& l = look_[at(stage)];
        Kind& kind = kinds_[at(l.kind)];
        const int task = stages_[at(stage)][l.next];
        const ShopTask& job = shop_.tasks[at(task)];
        const double none_before = kind.ready >= 0 && l.ready >= kind.ready ? std::max(l.ready, kind.none_before) : l.ready;
        const bool by_hand = job.machines.empty();
        const Start s = placer_.earliest(task, by_hand ? none_before : l.ready, none_before, l.choice);
        // gaps between tasks only fill up; what may yet be appended can come sooner when a press is left otherwise
        kind.ready = l.ready;
        kind.none_before = by_hand || s.in_gap ? s.at : none_before;
        if (!by_hand && !s.in_gap && job.machines.size() == 1)
            kind.none_before = std::max(none_before, placer_.free_from(job.machines.front()));
        begins = s.at;
        double key = s.at - l.ahead;
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

Schedule follow(const Workshop& shop, const Schedule& before, const Progress& progress, const std::vector<int>& first) {
    const std::size_t n = shop.tasks.size();
    std::vector<std::pair<double, int>> order;  // when it began
    for (std::size_t i = 0; i < n; ++i) {
        double when = i < before.places.size() ? before.places[i].start : end_of_time;
        if (const auto it = std::find(first.begin(), first.end(), shop.tasks[i].stage); it != first.end())
            when = -end_of_time + static_cast<double>(it - first.begin());
        if (shop.tasks[i].fixed) when = -end_of_time;
        order.emplace_back(when, static_cast<int>(i));
    }
    std::stable_sort(order.begin(), order.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    Placer placer(shop, &progress);
    for (const auto& [when, task] : order) {
        const auto i = static_cast<std::size_t>(task);
        placer.place(task, i < before.places.size() ? before.places[i].machine : -1);
    }
    Schedule out = placer.plan();
    out.turns = before.turns;
    std::vector<char> there;
    const auto mark = [&](int stage) {
        const auto s = static_cast<std::size_t>(stage);
        if (there.size() <= s) there.resize(s + 1, 0);
        return std::exchange(there[s], 1) == 0;
    };
    for (const int s : out.turns.order) (void)mark(s);
    for (const ShopTask& t : shop.tasks)
        if (mark(t.stage)) out.turns.order.push_back(t.stage);
    return out;
}

}  // namespace orthema
