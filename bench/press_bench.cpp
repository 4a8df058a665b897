// How long a press plan takes: 300 garments with two designs each, planned and planned anew half way; and what a plan of
// the order in a folder saves. press_bench ORDER [SECONDS]
#include <chrono>
#include <cstdio>
#include <cstdlib>

#include "core/pressing/press_plan.h"
#include "files/order_file.h"

using namespace orthema;

namespace {

double since(std::chrono::steady_clock::time_point then) {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - then).count();
}

void figures(const char* name, const Order& order, const FitPlan& fitted, const TransferSet& set, double seconds) {
    ScheduleOptions quick;
    quick.tries = 0;
    auto then = std::chrono::steady_clock::now();
    const PressPlan first = press_plan(order, fitted, set, quick);
    const double at_once = since(then);
    then = std::chrono::steady_clock::now();
    ScheduleOptions more;
    more.seconds = seconds;
    const PressPlan better = press_plan(order, fitted, set, more);
    const double searched = since(then);
    // half way, one load takes half a minute longer
    Progress progress;
    progress.now = better.schedule.end / 2 + 30;
    for (const Slot& s : better.schedule.places)
        progress.done.push_back(s.start < better.schedule.end / 2 ? std::optional(s) : std::nullopt);
    ScheduleOptions again;
    again.tries = 4;
    begin_like(again, better, accepted_from(better));
    then = std::chrono::steady_clock::now();
    const Schedule replanned = schedule(better.shop, again, {}, {}, &progress);
    const double anew = since(then);
    std::printf("%s: %zu loads, %zu tasks\n", name, better.loads.size(), better.shop.tasks.size());
    std::printf("  plan at once %.3f s, replanned half way %.3f s\n", at_once, anew);
    std::printf("  at once %.2f h, after %.1f s %.2f h, no plan below %.2f h, one after the other %.2f h: %.1f %% less\n",
                first.schedule.end / 3600, searched, better.schedule.end / 3600, better.bound / 3600, better.one_by_one / 3600,
                100 * (1 - better.schedule.end / better.one_by_one));
    std::printf("  faults %zu, replanned ends %.2f h\n", schedule_faults(better.shop, better.schedule).size(), replanned.end / 3600);
}

}  // namespace

int main(int argc, char** argv) {
    const auto package = open_order(argc > 1 ? argv[1] : "demo/marrow-hill");
    if (!package) {
        std::fprintf(stderr, "%s\n", package.sentence().c_str());
        return 1;
    }
    const double seconds = argc > 2 ? std::atof(argv[2]) : 8;
    Order order = package->order;
    const ArtFactsById facts = facts_of(load_all_art(order, package->art, nullptr));
    const FitPlan fitted = fit(order, facts);
    figures("the order", order, fitted, transfers(order, fitted, facts), seconds);
    order.press_run.hands = 1;
    figures("with one pair of hands", order, fitted, transfers(order, fitted, facts), seconds);
    // the first run alone, grown to 300 garments
    const RunKey run = runs_of(order).front();
    erase_if(order.lines, [&](const OrderLine& l) { return RunKey{l.style, l.colour} != run; });
    const int each = 300 / static_cast<int>(order.lines.size());
    for (OrderLine& l : order.lines) l.quantity = each;
    order.press_run.hands = 2;
    const FitPlan large = fit(order, facts);
    figures("300 garments", order, large, transfers(order, large, facts), seconds);
    return 0;
}
