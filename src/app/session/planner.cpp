#include "app/session/planner.h"

#include "app/widgets/figures.h"

namespace orthema::app {

void Planner::better(double seconds) {
    if (running_ || chain_.catching_up() || chain_.work().press_plan().shop.tasks.empty()) return;
    running_ = true;
    stop_ = std::make_shared<std::atomic<bool>>(false);
    jobs_.background(
        [this, seconds, plan = chain_.work().press.out, stop = stop_, seed = ++seed_,
         order = document_.order()]() -> std::function<void()> {
            ScheduleOptions options;
            options.seconds = seconds;
            options.seed = seed;
            begin_like(options, *plan, *plan);
            const auto show = [&](Schedule s) {
                auto next = std::make_shared<PressPlan>(*plan);
                next->schedule = std::move(s);
                next->bettered = true;
                std::erase_if(next->findings, [](const Finding& f) { return f.code == "press-late"; });
                for (Finding& f : plan_findings(order, *next)) next->findings.push_back(std::move(f));
                return next;
            };
            double told = plan->schedule.end;
            Schedule best = schedule(plan->shop, options, Task{{}, stop.get()}, [&](const Schedule& s) {
                if (s.end > told - 1) return;  // a second or more
                told = s.end;
                QMetaObject::invokeMethod(
                    this,
                    [this, stop, next = show(s)] {
                        if (*stop || !running_) return;
                        chain_.better(next);
                        emit changed();
                    },
                    Qt::QueuedConnection);
            });
            auto last = show(std::move(best));
            return [this, stop, last, before = plan->schedule.end] {
                if (stop_ != stop) return;
                running_ = false;
                if (last->schedule.end <= before + 1e-6) chain_.better(last);
                emit changed();
            };
        },
        [this] { stop(); });
    emit changed();
}

void Planner::stop() {
    if (stop_) *stop_ = true;
    stop_ = nullptr;
    running_ = false;
}

}  // namespace orthema::app
