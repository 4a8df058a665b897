#include "cli/plan.h"

#include <cmath>
#include <iostream>

#include "cli/run.h"
#include "core/order/edit.h"
#include "files/json_in.h"

namespace orthema {

namespace {

double tenths(double seconds) { return std::round(seconds * 10) / 10; }

}  // namespace

int print_plan(const std::string& path, const std::string& out, double seconds, int people, bool as_json) {
    auto run = run_order(path);
    if (!run) return complain(run.sentence());
    Order order = run->package.order;
    if (people > 0 && order.press_run.hands != people) {
        order.press_run.hands = people;
        order.press_run.accepted = {};
        run->work = work(order, run->shop, run->pictures.known, &run->work);
    }
    PressPlan plan = run->work.press_plan();
    if (seconds > 0 && !plan.shop.tasks.empty()) {
        ScheduleOptions options;
        options.seconds = seconds;
        begin_like(options, plan, accepted_from(plan));
        Order open = order;  // nothing is agreed to while it is still looked for
        open.press_run.accepted = {};
        Schedule found = schedule(plan.shop, options);
        if (found.end < plan.schedule.end) plan = with_schedule(plan, std::move(found), open);
    }
    if (!out.empty()) {
        order.press_run.accepted = accepted_from(plan);
        if (auto saved = save_order(out, order, run->package.art, run->package.records); !saved) return unwritten(saved.sentence());
    }
    json loads = json::array();
    for (std::size_t t = 0; t < plan.shop.tasks.size(); ++t) {
        const Slot& slot = plan.schedule.places[t];
        const Load& load = load_of(plan, static_cast<int>(t));
        const std::string press = slot.machine < 0 ? "" : plan.presses[static_cast<std::size_t>(slot.machine)];
        loads.push_back({{"load", load.id},
                         {"what", load_words(order, load)},
                         {"press", press},
                         {"from_s", tenths(slot.start)},
                         {"to_s", tenths(slot.end)},
                         {"celsius", plan.shop.tasks[t].state.celsius},
                         {"pieces", load.pieces},
                         {"trial", load.trial}});
    }
    std::sort(loads.begin(), loads.end(), [](const json& a, const json& b) { return a["from_s"] < b["from_s"]; });
    if (as_json) {
        json jobs = json::array();
        for (const JobEnd& j : plan.jobs) jobs.push_back({{"job", j.job}, {"due_s", tenths(j.due)}, {"late_s", tenths(j.late)}});
        std::cout << json_text(json{{"ends_s", tenths(plan.schedule.end)},
                                    {"no_sooner_than_s", tenths(plan.bound)},
                                    {"one_at_a_time_s", tenths(plan.one_by_one)},
                                    {"loads", loads},
                                    {"jobs", jobs}},
                               1)
                  << "\n";
    } else {
        for (const json& l : loads)
            std::cout << time_of_day(order.press_run, l["from_s"]) << "–" << time_of_day(order.press_run, l["to_s"]) << "  "
                      << l["press"].get<std::string>() << "  " << l["what"].get<std::string>() << (l["trial"].get<bool>() ? ", trial" : "")
                      << "\n";
        std::cout << "ends after " << duration_words(plan.schedule.end) << "; no plan sooner than " << duration_words(plan.bound)
                  << "; one at a time " << duration_words(plan.one_by_one) << "\n";
    }
    return has_stop(run->work.findings) ? 1 : 0;
}

}  // namespace orthema
