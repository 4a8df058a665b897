// What is wrong with a plan, and what an order takes without one: both read a plan and know nothing of how it was found.
#include <algorithm>
#include <cmath>

#include "core/pressing/schedule.h"

namespace orthema {

double one_by_one(const Workshop& shop, const std::vector<int>& task_order) {
    std::vector<PressState> state;
    for (const Machine& m : shop.machines) state.push_back(m.now);
    std::vector<double> end(shop.tasks.size(), 0);
    double t = 0;
    for (const int i : task_order) {
        const ShopTask& job = shop.tasks[static_cast<std::size_t>(i)];
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
        const ShopTask& job = shop.tasks[i];
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
