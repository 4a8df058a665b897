#include "app/session/planner.h"

#include <utility>

#include "app/widgets/speech.h"
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
            begin_like(options, *plan, accepted_from(*plan));
            Order open = order;  // nothing is agreed to while it is still looked for
            open.press_run.accepted = {};
            const auto show = [&](Schedule s) { return std::make_shared<const PressPlan>(with_schedule(*plan, std::move(s), open)); };
            double told = plan->schedule.end;
            Schedule best = schedule(plan->shop, options, Task{{}, stop.get()}, [&](const Schedule& s) {
                if (s.end > told - 1) return;  // a second or more
                told = s.end;
                QMetaObject::invokeMethod(
                    this,
                    [this, stop, next = show(s)] {
                        if (*stop || !running_) return;
                        found_ = next;
                        chain_.better(next);
                        emit changed();
                    },
                    Qt::QueuedConnection);
            });
            auto last = show(std::move(best));
            return [this, stop, last, before = plan->schedule.end] {
                if (stop_ != stop) return;
                running_ = false;
                found_ = nullptr;
                if (last->schedule.end <= before + 1e-6) {
                    chain_.better(last);
                    accept();
                }
                emit changed();
            };
        },
        [this] { stop(); });
    emit changed();
}

void Planner::accept() {
    const PressPlan& plan = chain_.work().press_plan();
    if (chain_.catching_up() || plan.shop.tasks.empty()) return;
    AcceptedPlan agreed = accepted_from(plan);
    if (agreed == document_.order().press_run.accepted) return;
    Order next = document_.order();
    next.press_run.accepted = std::move(agreed);
    document_.edit(tr("press plan"), std::move(next), tr("press plan"));
    document_.end_gesture();
}

void Planner::stop() {
    if (stop_) *stop_ = true;
    stop_ = nullptr;
    running_ = false;
    if (const auto found = std::exchange(found_, nullptr)) {
        // what was found by then is kept, also where an edit ended the search: its turns hold for all that is still pressed
        Order next = document_.order();
        next.press_run.accepted = accepted_from(*found);
        document_.edit(tr("press plan"), std::move(next));
    }
}

}  // namespace orthema::app
