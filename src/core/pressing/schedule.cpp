#include "core/pressing/schedule.h"

#include <algorithm>
#include <array>
#include <chrono>
#include <cmath>
#include <map>
#include <numeric>
#include <random>
#include <tuple>

#include "core/pressing/placer.h"

namespace orthema {

namespace {

constexpr double late_weighs = 1000;  ///< a second late, against a second of the plan's end

double late_in_all(const Workshop& shop, const Schedule& s) {
    if (shop.dues.empty()) return 0;
    double sum = 0;
    for (const double late : lateness(shop, s)) sum += late;
    return sum;
}

/// Lateness first, the end second. Of a plan that is not whole never more than of what goes on from it.
double judged(const Workshop& shop, const Schedule& s) { return late_weighs * late_in_all(shop, s) + s.end; }

double cost(const Workshop& shop, const Schedule& s) {
    double sum = 0;
    for (const Slot& slot : s.places) sum += slot.end;
    return judged(shop, s) + 1e-4 * sum / static_cast<double>(std::max<std::size_t>(1, s.places.size()));
}

/// Every order of the tasks and every choice of press, with a bound; for small problems.
class Exhaust {
public:
    Exhaust(const Workshop& shop, const Progress* progress, Schedule best, double bound)
        : shop_(shop), best_(std::move(best)), bound_(bound), best_at_(judged(shop, best_)), start_(shop, progress) {}
    Schedule go() {
        walk(start_);
        return best_;
    }

private:
    const Workshop& shop_;
    Schedule best_;
    double bound_;
    double best_at_;
    Placer start_;
    [[nodiscard]] bool promising(const Placer& p) const { return judged(shop_, p.plan()) < best_at_ - blink; }
    void walk(const Placer& so_far) {
        bool all = true;
        for (int i = 0; i < static_cast<int>(shop_.tasks.size()); ++i) {
            if (so_far.is_placed(i)) continue;
            all = false;
            if (!so_far.can_follow(i) || best_at_ <= bound_ + blink) continue;
            const auto& machines = shop_.tasks[static_cast<std::size_t>(i)].machines;
            for (std::size_t m = 0; m < std::max<std::size_t>(1, machines.size()); ++m) {
                const int choice = machines.empty() ? -1 : machines[m];
                Placer next = so_far;  // what is tied to it may come later in its window, after others
                if (next.place_alone(i, choice) && promising(next)) walk(next);
                if (!so_far.has_tied(i)) continue;
                next = so_far;
                next.place(i, choice);
                if (promising(next)) walk(next);
            }
        }
        if (!all || !promising(so_far)) return;
        best_ = so_far.plan();
        best_at_ = judged(shop_, best_);
    }
};

/// The first task of each stage; null where a number has none.
std::vector<const ShopTask*> first_of_stages(const Workshop& shop) {
    std::vector<const ShopTask*> first;
    for (const ShopTask& t : shop.tasks) {
        const auto s = static_cast<std::size_t>(t.stage);
        if (first.size() <= s) first.resize(s + 1, nullptr);
        if (first[s] == nullptr) first[s] = &t;
    }
    return first;
}

/// Stages of the same work on the same press get a head start together: their group by number.
std::vector<int> groups_of(const std::vector<const ShopTask*>& first) {
    std::map<Likeness, int> known;
    std::vector<int> out;
    out.reserve(first.size());
    for (const ShopTask* t : first)
        out.push_back(t == nullptr ? -1 : known.try_emplace(likeness_of(*t), static_cast<int>(known.size())).first->second);
    return out;
}

/// Other turns, a step from those given.
class Steps {
public:
    Steps(const Workshop& shop, unsigned seed)
        : first_(first_of_stages(shop)),
          group_(groups_of(first_)),
          machines_(shop.machines.size()),
          dues_(shop.dues.size()),
          random_(seed * 7919U + 17) {
        for (const int g : group_) groups_ = std::max(groups_, g + 1);
    }
    Turns from(const Turns& now) {
        static constexpr std::array<double, 5> some{5, 15, 40, 120, 400};
        static constexpr std::array<double, 6> keeps{0, 30, 100, 300, 1000, 3000};
        static constexpr std::array<double, 6> fills{0, 1, 2, 5, 10, 20};
        Turns next = now;
        next.ahead.resize(first_.size(), 0);
        next.keep.resize(machines_, 0);
        next.choice.resize(first_.size(), -1);
        const double by = some[below(some.size())] * (below(2) == 0 ? 1 : -1);
        const auto each = [&](const auto& which, const auto& act) {
            for (std::size_t s = 0; s < first_.size(); ++s)
                if (first_[s] != nullptr && which(s)) act(next.ahead[s]);
        };
        const auto add = [&](double& ahead) { ahead = std::clamp(ahead + by, -most_ahead, most_ahead); };
        switch (below(dues_ > 1 ? 11 : 9)) {
        case 0:
        case 1: {
            const int g = static_cast<int>(below(static_cast<std::size_t>(groups_)));
            each([&](std::size_t s) { return group_[s] == g; }, add);
            break;
        }
        case 2: {  // all on one press, or all by hand
            const std::size_t m = below(machines_ + 1);
            each(
                [&](std::size_t s) {
                    return first_[s]->machines.empty() ? m == machines_ : static_cast<std::size_t>(first_[s]->machines.front()) == m;
                },
                add);
            break;
        }
        case 3: {
            const int g = static_cast<int>(below(static_cast<std::size_t>(groups_)));
            each([&](std::size_t s) { return group_[s] == g; }, [](double& ahead) { ahead = 0; });
            break;
        }
        case 4:
            if (machines_ > 0) next.keep[below(machines_)] = keeps[below(keeps.size())];
            break;
        case 5: {
            const std::size_t s = below(first_.size());
            if (first_[s] == nullptr || first_[s]->machines.size() < 2) {
                add(next.ahead[s]);
                break;
            }
            const std::size_t k = below(first_[s]->machines.size() + 1);
            next.choice[s] = k == 0 ? -1 : first_[s]->machines[k - 1];
            break;
        }
        case 6: next.fill = fills[below(fills.size())]; break;
        case 9:
        case 10: {  // all that one due time waits for
            const int due = static_cast<int>(below(dues_));
            each([&](std::size_t s) { return std::find(first_[s]->dues.begin(), first_[s]->dues.end(), due) != first_[s]->dues.end(); },
                 add);
            break;
        }
        default: add(next.ahead[below(first_.size())]);
        }
        return next;
    }

private:
    std::vector<const ShopTask*> first_;
    std::vector<int> group_;
    int groups_ = 1;
    std::size_t machines_, dues_;
    std::mt19937 random_;
    std::size_t below(std::size_t n) { return static_cast<std::size_t>(random_() % static_cast<unsigned>(n)); }
};

}  // namespace

double change_by_hand(const Machine& m, const PressState& from, const PressState& to) {
    return (from.platen != to.platen ? m.platen_seconds : 0) + (from.pressure != to.pressure ? m.pressure_seconds : 0);
}

double change_seconds(const Machine& m, const PressState& from, const PressState& to) {
    const double by = to.celsius - from.celsius;
    return std::max(by > 0 ? by / m.heat_rate : -by / m.cool_rate, change_by_hand(m, from, to));
}

std::vector<double> lateness(const Workshop& shop, const Schedule& plan) {
    std::vector<double> out(shop.dues.size(), 0);
    for (std::size_t i = 0; i < shop.tasks.size() && i < plan.places.size(); ++i)
        for (const int due : shop.tasks[i].dues) {
            const auto d = static_cast<std::size_t>(due);
            out[d] = std::max(out[d], plan.places[i].end - shop.dues[d]);
        }
    return out;
}

Schedule schedule(const Workshop& shop, const ScheduleOptions& options, const Task& task,
                  const std::function<void(const Schedule&)>& better, const Progress* progress) {
    const auto begun = std::chrono::steady_clock::now();
    const auto elapsed = [&] { return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count(); };
    int stages = 0;
    for (const ShopTask& t : shop.tasks) stages = std::max(stages, t.stage + 1);
    Turns turns = options.turns;
    const bool begun_with = turns.order.size() == static_cast<std::size_t>(stages);
    if (!begun_with) {
        turns = {};
        turns.order.resize(static_cast<std::size_t>(stages));
        std::iota(turns.order.begin(), turns.order.end(), 0);
    }
    Schedule best = *put(shop, turns, progress);
    if (better) better(best);
    if (shop.tasks.empty()) return best;
    double best_cost = cost(shop, best), best_at = judged(shop, best);
    const auto offer = [&](const Turns& t, double limit) {
        const auto s = put(shop, t, progress, limit);
        if (!s) return 1e15;
        const double c = cost(shop, *s);
        if (c < best_cost) {
            best = *s;
            best_cost = c;
            best_at = judged(shop, best);
            if (better) better(best);
        }
        return c;
    };
    double now = best_cost;
    const auto begin_with = [&](const Turns& t) {
        if (const double c = offer(t, 1e15); c < now) {
            now = c;
            turns = t;
        }
    };
    if (!turns.woven || !begun_with) {
        Turns t;
        t.order = turns.order;
        t.choice = turns.choice;
        t.woven = true;
        if (!turns.woven) now = 1e15;                 // the search goes on from woven turns
        const bool large = shop.tasks.size() > 3000;  // a plan at once, also there
        for (const double fill : large ? std::vector{0.0, 2.0} : std::vector{0.0, 2.0, 10.0})
            for (const double keep : large ? std::vector{0.0, 1000.0} : std::vector{0.0, 100.0, 1000.0}) {
                t.fill = fill;
                t.keep.assign(shop.machines.size(), keep);
                begin_with(t);
            }
        if (shop.dues.size() > 1) {  // what is due first goes first
            t = turns;
            t.woven = true;
            t.keep.assign(shop.machines.size(), 100);
            const auto first = first_of_stages(shop);
            const double last = *std::max_element(shop.dues.begin(), shop.dues.end());
            for (const double share : {0.1, 1.0}) {
                t.ahead.assign(first.size(), 0);
                for (std::size_t s = 0; s < first.size(); ++s)
                    for (const int due : first[s] == nullptr ? std::vector<int>{} : first[s]->dues)
                        t.ahead[s] = std::max(t.ahead[s], share * (last - shop.dues[static_cast<std::size_t>(due)]));
                begin_with(t);
            }
        }
    }
    const bool any_fixed = std::any_of(shop.tasks.begin(), shop.tasks.end(), [](const ShopTask& t) { return t.fixed.has_value(); });
    const bool small = shop.tasks.size() <= 7 && !any_fixed;
    if (!small && options.tries == 0) return best;
    const double bound = progress != nullptr ? 0 : lower_bound(shop) + late_weighs * least_lateness(shop);
    if (small) return Exhaust(shop, progress, best, bound).go();
    Steps steps(shop, options.seed);
    std::vector<double> late(20, now);  // late acceptance: as good as some tries ago is good enough
    for (long tries = 0; stages > 1 && best_at > bound + blink && !task.stopped(); ++tries) {
        if (options.tries >= 0 ? tries >= options.tries : elapsed() >= options.seconds) break;
        double& before = late[static_cast<std::size_t>(tries) % late.size()];
        Turns next = steps.from(turns);
        if (const double c = offer(next, std::max(now, before)); c <= now || c <= before) {
            turns = std::move(next);
            now = c;
        }
        before = now;
    }
    return best;
}

}  // namespace orthema
