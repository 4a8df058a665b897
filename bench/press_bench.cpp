// How good a press plan is and how long it takes: the loads in bench/kite-fair.workshop, which stay as they are; what a plan of the
// order in a folder saves; 300 and 10,000 garments with two designs each, planned and planned anew half way.
// press_bench ORDER [SECONDS [SEEDS]]
#include <chrono>
#include <cstdio>
#include <cstdlib>

#include "core/pressing/press_plan.h"
#include "files/order_file.h"
#include "support/workshop_file.h"

using namespace orthema;

namespace {

double since(std::chrono::steady_clock::time_point then) {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - then).count();
}

/// Over the bound, seed by seed.
void kept_figures(double seconds, int seeds) {
    Workshop shop = test::kept_workshop("bench/kite-fair.workshop");
    for (const int hands : {2, 1}) {
        shop.hands = hands;
        const double bound = lower_bound(shop);
        std::printf("kept loads, hands %d: no plan below %.3f h; after %.1f s", hands, bound / 3600, seconds);
        double sum = 0, worst = 0;
        for (int seed = 1; seed <= seeds; ++seed) {
            ScheduleOptions options;
            options.seconds = seconds;
            options.seed = static_cast<unsigned>(seed);
            const Schedule s = schedule(shop, options);
            const double over = s.end / bound;
            sum += over;
            worst = std::max(worst, over);
            std::printf(" %.3f%s", over, schedule_faults(shop, s).empty() ? "" : " (faults)");
        }
        std::printf(" times that; mean %.3f, worst %.3f\n", sum / seeds, worst);
    }
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
    again.tries = 0;
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
    const double seconds = argc > 2 ? std::atof(argv[2]) : 5;
    kept_figures(seconds, argc > 3 ? std::atoi(argv[3]) : 3);
    Order order = package->order;
    const ArtFactsById facts = facts_of(load_all_art(order, package->art, nullptr));
    const FitPlan fitted = fit(order, facts);
    figures("the order", order, fitted, transfers(order, fitted, facts), seconds);
    order.press_run.hands = 1;
    figures("with one pair of hands", order, fitted, transfers(order, fitted, facts), seconds);
    // the first run alone, grown
    const RunKey run = runs_of(order).front();
    erase_if(order.lines, [&](const OrderLine& l) { return RunKey{l.style, l.colour} != run; });
    order.press_run.hands = 2;
    for (const int garments : {300, 10000}) {
        for (OrderLine& l : order.lines) l.quantity = garments / static_cast<int>(order.lines.size());
        const FitPlan large = fit(order, facts);
        figures((std::to_string(garments) + " garments").c_str(), order, large, transfers(order, large, facts), seconds);
    }
    return 0;
}
