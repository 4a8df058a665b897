// No plan can be shorter than this: the most of what each set of presses, the hands and the longest chain need.
#include <algorithm>
#include <set>

#include "core/pressing/placer.h"
#include "core/pressing/stood_before.h"

namespace orthema {

namespace {

std::size_t at(int i) { return static_cast<std::size_t>(i); }

/// When so many seconds of work are over that begin at `from` and rest in the pauses.
double over_pauses(const Workshop& shop, double from, double work) {
    std::vector<Pause> pauses = shop.pauses;
    std::sort(pauses.begin(), pauses.end(), [](const Pause& a, const Pause& b) { return a.from < b.from; });
    double t = from;
    for (const Pause& p : pauses) {
        if (p.to <= t) continue;
        const double until = std::max(0.0, p.from - t);
        if (work <= until) break;
        work -= until;
        t = p.to;
    }
    return t + work;
}

/// Seconds on the longest ways to the start of each task and from its end.
struct Ways {
    std::vector<double> head, tail;
};

Ways longest_ways(const Workshop& shop) {
    const std::size_t n = shop.tasks.size();
    Ways w{std::vector<double>(n, 0), std::vector<double>(n, 0)};
    const auto on_presses = std::count_if(shop.tasks.begin(), shop.tasks.end(), [](const ShopTask& t) { return !t.machines.empty(); });
    for (std::size_t i = 0; i < n; ++i) {
        const ShopTask& t = shop.tasks[i];
        w.head[i] = t.release;
        for (const After& a : t.after) w.head[i] = std::max(w.head[i], w.head[at(a.task)] + shop.tasks[at(a.task)].seconds() + a.least);
        if (t.machines.empty()) continue;
        double warm = end_of_time;
        for (const int m : t.machines) {
            const Machine& machine = shop.machines[at(m)];
            // among several tasks heat alone: no order of them reaches a temperature sooner than going straight to it
            PressState state = t.state_on(m);
            if (on_presses > 1) {
                state.pressure = machine.now.pressure;
                state.platen = machine.now.platen;
            }
            warm = std::min(warm, change_seconds(machine, machine.now, state));
        }
        w.head[i] = std::max(w.head[i], warm);
    }
    for (std::size_t i = n; i-- > 0;)
        for (const After& a : shop.tasks[i].after)
            w.tail[at(a.task)] = std::max(w.tail[at(a.task)], a.least + shop.tasks[i].seconds() + w.tail[i]);
    return w;
}

/// The tasks that one machine alone can do, and the changes that cannot be spared there.
struct Alone {
    double work = 0;
    double first_change = end_of_time;  ///< to the first task on it, whichever
    double changes_by_hand = 0;         ///< after the first task
    double heat = 0;                    ///< all the way through its temperatures
    bool all_need_hands = true;         ///< each task that could come first
};

Alone alone_on(const Workshop& shop, int machine) {
    Alone out;
    const Machine& m = shop.machines[at(machine)];
    std::set<int> platens, pressures;
    double low = end_of_time, high = -end_of_time;
    for (const ShopTask& t : shop.tasks) {
        if (std::find(t.machines.begin(), t.machines.end(), machine) == t.machines.end()) continue;
        const PressState state = t.state_on(machine);
        out.first_change = std::min(out.first_change, change_seconds(m, m.now, state));
        out.all_need_hands =
            out.all_need_hands && std::any_of(t.phases.begin(), t.phases.end(), [](const Phase& p) { return p.hand && p.seconds > 0; });
        if (t.machines.size() > 1) continue;
        out.work += t.seconds();
        platens.insert(state.platen);
        pressures.insert(state.pressure);
        low = std::min(low, state.celsius);
        high = std::max(high, state.celsius);
    }
    if (platens.empty()) return out;
    out.changes_by_hand =
        static_cast<double>(platens.size() - 1) * m.platen_seconds + static_cast<double>(pressures.size() - 1) * m.pressure_seconds;
    const auto to = [&](double a, double b) { return b > a ? (b - a) / m.heat_rate : (a - b) / m.cool_rate; };
    out.heat = std::min(to(m.now.celsius, low) + to(low, high), to(m.now.celsius, high) + to(high, low));
    return out;
}

}  // namespace

double lower_bound(const Workshop& shop) {
    const std::size_t n = shop.tasks.size();
    const Ways ways = longest_ways(shop);
    double bound = 0;
    for (std::size_t i = 0; i < n; ++i) bound = std::max(bound, ways.head[i] + shop.tasks[i].seconds() + ways.tail[i]);
    // each set of presses has the work that only it can do
    const std::size_t machines = std::min<std::size_t>(shop.machines.size(), 10);
    std::vector<Alone> alone;
    for (std::size_t m = 0; m < machines; ++m) alone.push_back(alone_on(shop, static_cast<int>(m)));
    for (unsigned set = 1; set < (1U << machines); ++set) {
        double work = 0, least_head = end_of_time, least_tail = end_of_time;
        int size = 0;
        for (std::size_t m = 0; m < machines; ++m) size += (set >> m) & 1U ? 1 : 0;
        for (std::size_t i = 0; i < n; ++i) {
            const ShopTask& t = shop.tasks[i];
            if (t.machines.empty() || !std::all_of(t.machines.begin(), t.machines.end(), [&](int m) {
                    return at(m) < machines && ((set >> static_cast<unsigned>(m)) & 1U) != 0;
                }))
                continue;
            work += t.seconds();
            least_head = std::min(least_head, ways.head[i]);
            least_tail = std::min(least_tail, ways.tail[i]);
        }
        if (work <= 0) continue;
        bound = std::max(bound, over_pauses(shop, least_head, work / size) + least_tail);
        if (size > 1) continue;
        std::size_t only = 0;
        while (((set >> only) & 1U) == 0) ++only;
        const Alone& a = alone[only];
        bound = std::max(bound, a.heat + work + least_tail);  // it may heat in a pause
        bound = std::max(bound, over_pauses(shop, a.first_change, work + a.changes_by_hand) + least_tail);
    }
    double hands = 0, first_hand = end_of_time, last_hand = end_of_time;
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
        first_hand = std::min(first_hand, ways.head[i] + before);
        last_hand = std::min(last_hand, after + ways.tail[i]);
    }
    if (hands <= 0) return bound;
    // the first change of a press may come before all that is done by hand; the others come after its first task
    for (const Alone& a : alone)
        if (a.all_need_hands) hands += a.changes_by_hand;
    if (shop.hands <= 1) hands += stood_before(shop);
    return std::max(bound, over_pauses(shop, first_hand, hands / std::max(1, shop.hands)) + last_hand);
}

double least_lateness(const Workshop& shop) {
    double out = 0;
    for (const double until : shop.dues) {
        // what is due by then, and what that follows, is a workshop of its own
        std::vector<char> wanted(shop.tasks.size(), 0);
        for (std::size_t i = shop.tasks.size(); i-- > 0;) {
            const ShopTask& t = shop.tasks[i];
            if (std::any_of(t.dues.begin(), t.dues.end(), [&](int d) { return shop.dues[at(d)] <= until; })) wanted[i] = 1;
            if (wanted[i] != 0)
                for (const After& a : t.after) wanted[at(a.task)] = 1;
        }
        Workshop part{shop.machines, shop.hands, shop.pauses, {}};
        std::vector<int> number(shop.tasks.size(), -1);
        for (std::size_t i = 0; i < shop.tasks.size(); ++i) {
            if (wanted[i] == 0) continue;
            number[i] = static_cast<int>(part.tasks.size());
            part.tasks.push_back(shop.tasks[i]);
            for (After& a : part.tasks.back().after) a.task = number[at(a.task)];
        }
        if (!part.tasks.empty()) out = std::max(out, lower_bound(part) - until);
    }
    return out;
}

}  // namespace orthema
