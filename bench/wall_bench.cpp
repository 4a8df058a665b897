// A drag on the size wall: refit, lay out, draw and paint, as one mouse move does it.
#include <benchmark/benchmark.h>

#include "app/benches/fit/wall.h"
#include "app/widgets/canvas.h"
#include "core/fitting/adjust.h"
#include "core/order/edit.h"
#include "files/order_file.h"
#include "support/support.h"

namespace {

using namespace orthema;

struct Scene {
    Order order;
    LoadedArtById art;
    ArtFactsById facts;
    FitPlan plan;
    explicit Scene(int sizes)
        : order(test::ladder_order(sizes, 8)),
          art(load_all_art(order, test::small_art(), nullptr)),
          facts(facts_of(art)),
          plan(fit(order, facts)) {}
    [[nodiscard]] std::vector<app::WallLot> lots() const { return {{order.decorations.data(), plan.decorations.data()}}; }
};

void drag_step(benchmark::State& state) {
    Scene s(static_cast<int>(state.range(0)));
    QImage image, back;
    const app::Wall stands = app::wall_of(s.lots(), 892, 478);
    app::paint_image(back, app::wall_backdrop(s.order, s.lots(), stands, 892, 478), s.art, 892, 478, 1);
    double by = 0.25;
    for (auto _ : state) {
        by = -by;
        const Decoration next =
            moved(s.order.decorations[0], s.plan.decorations[0].sizes[0], Length{}, Length::from_mm(by), Reach::every_size);
        const Order before = s.order;
        s.order = with_decoration(s.order, next);
        s.plan = refit(s.order, s.facts, before, s.plan);
        const app::Wall wall = app::wall_of(s.lots(), 892, 478);
        app::WallLook look;
        look.chosen = s.plan.decorations[0].sizes[0].size;
        const Drawing d = app::wall_drawing(s.order, s.plan, s.lots(), wall, look, 892, 478);
        app::paint_image(image, d, s.art, 892, 478, 1, &back);
        benchmark::DoNotOptimize(image.bits());
    }
    state.counters["frames_a_second"] = benchmark::Counter(static_cast<double>(state.iterations()), benchmark::Counter::kIsRate);
}
BENCHMARK(drag_step)->Arg(6)->Arg(40)->Unit(benchmark::kMillisecond);

void refit_only(benchmark::State& state) {
    Scene s(static_cast<int>(state.range(0)));
    for (auto _ : state) {
        auto f = fit_decoration(s.order, s.order.decorations[0], s.facts.begin()->second);
        benchmark::DoNotOptimize(f);
    }
}
BENCHMARK(refit_only)->Arg(6)->Arg(40)->Unit(benchmark::kMillisecond);

/// 200 sizes, four decorations that keep apart on one panel, all four rules changed at once; then with the blank's own
/// figures changed, so that every panel and clear area is made anew.
void refit_200x4(benchmark::State& state) {
    Scene s(200);
    Decoration d = s.order.decorations[0];
    const Location places[] = {Location::left_chest, Location::right_hem, Location::centre_chest};
    for (const Location l : places) {
        Decoration other = new_decoration(s.order, d.run, l, s.order.art[0]);
        other.sizing.base_size = d.sizing.base_size;
        s.order.decorations.push_back(other);
    }
    s.plan = fit(s.order, s.facts);
    const bool chart = state.range(0) == 1;
    double by = 0.25;
    for (auto _ : state) {
        state.PauseTiming();  // the edit itself
        by = -by;
        Order next = s.order;
        for (Decoration& one : next.decorations) {
            one.placing.offset += Length::from_mm(by);
            one.sizing.base_width += Length::from_mm(by);
        }
        if (chart)
            for (BlankStyle& style : next.styles)
                if (style.id == d.run.style)
                    for (auto& [size, row] : style.chart) row[Measure::chest].value += Length::from_mm(by);
        state.ResumeTiming();
        s.plan = refit(next, s.facts, s.order, s.plan);
        state.PauseTiming();
        s.order = std::move(next);
        state.ResumeTiming();
        benchmark::DoNotOptimize(s.plan);
    }
}
BENCHMARK(refit_200x4)->ArgName("new_chart")->Arg(0)->Arg(1)->Unit(benchmark::kMillisecond);

void paint_only(benchmark::State& state) {
    Scene s(static_cast<int>(state.range(0)));
    const app::Wall wall = app::wall_of(s.lots(), 892, 478);
    QImage image, back;
    app::paint_image(back, app::wall_backdrop(s.order, s.lots(), wall, 892, 478), s.art, 892, 478, 1);
    for (auto _ : state) {
        const Drawing d = app::wall_drawing(s.order, s.plan, s.lots(), wall, {}, 892, 478);
        app::paint_image(image, d, s.art, 892, 478, 1, &back);
        benchmark::DoNotOptimize(image.bits());
    }
}
BENCHMARK(paint_only)->Arg(6)->Arg(40)->Unit(benchmark::kMillisecond);

}  // namespace

BENCHMARK_MAIN();
