// How long the dear steps of making take: the split of a large soft-edged design, and a wrap bent at print resolution.
#include <benchmark/benchmark.h>
#include <cairo.h>

#include <cmath>
#include <cstring>

#include "core/geometry/ring_sector.h"
#include "core/transfers/split.h"
#include "drawing/painter.h"

namespace {

using namespace orthema;

/// 380 × 540 mm at 300 dpi: petals that fade out to all sides.
const AlphaMap& large_design() {
    static const AlphaMap map = [] {
        AlphaMap a{4488, 6378, {}};
        a.ink.reserve(static_cast<std::size_t>(a.width) * static_cast<std::size_t>(a.height));
        for (int y = 0; y < a.height; ++y)
            for (int x = 0; x < a.width; ++x) {
                const double u = (x - a.width / 2.0) / a.width * 2, v = (y - a.height / 2.0) / a.height * 2;
                const double petals = 0.5 + 0.5 * std::sin(9 * std::atan2(v, u) + 8 * std::hypot(u, v));
                a.ink.push_back(static_cast<std::uint8_t>(255 * std::clamp((1.1 - std::hypot(u, v)) * 2.5, 0.0, 1.0) * petals));
            }
        return a;
    }();
    return map;
}

void split_large(benchmark::State& state) {
    const AlphaMap& design = large_design();
    SplitRule rule;
    // a film of 290 mm, turned or not, on a platen of 360 × 360
    rule.limits = {{273, 360}, {360, 273}};
    rule.platen_width = rule.platen_height = 360;
    for (auto _ : state) {
        auto plan = split(design, 380, rule);
        benchmark::DoNotOptimize(plan);
        state.counters["parts"] = static_cast<double>(plan->parts.size());
        state.counters["ink_cut_mm"] = plan->ink_cut;
        double straight = 0;
        for (const Seam& s : plan->seams) straight += s.straight;
        state.counters["straight_mm"] = straight;
    }
}
BENCHMARK(split_large)->Unit(benchmark::kMillisecond);

/// The same pass over memory, to compare with: every byte of the design read once.
void read_large(benchmark::State& state) {
    const AlphaMap& design = large_design();
    for (auto _ : state) {
        long sum = 0;
        for (const std::uint8_t v : design.ink) sum += v;
        benchmark::DoNotOptimize(sum);
    }
}
BENCHMARK(read_large)->Unit(benchmark::kMillisecond);

/// A picture of stripes, painted by cairo as any art is.
class Stripes : public ArtSource {
public:
    void paint_art(cairo_t* cr, const std::string&, double) override {
        for (int i = 0; i < 20; ++i) {
            cairo_rectangle(cr, 0, i * 0.035, 1, 0.02);
            cairo_set_source_rgba(cr, 0.2, 0.3 + i * 0.02, 0.6, 1);
            cairo_fill(cr);
        }
    }
    [[nodiscard]] double aspect_of(const std::string&) const override { return 0.7; }
};

void wrap_page(benchmark::State& state, bool bent) {
    const double k = 300 / 25.4;
    const auto sector = unrolled({88, 61, 148});
    const int w = static_cast<int>(280 * k), h = static_cast<int>(190 * k);
    cairo_surface_t* surface = cairo_image_surface_create(CAIRO_FORMAT_ARGB32, w, h);
    Stripes art;
    Drawing page;
    ArtMark mark{"s", {230, 0, 0, 230, -115, 0}, 1};
    if (bent) mark.bend = *sector;
    if (bent) mark.bent = Affine::shift(140, 5);
    if (!bent) mark.place = Affine::shift(140, 5).after(mark.place);
    page.marks.emplace_back(mark);
    for (auto _ : state) {
        cairo_t* cr = cairo_create(surface);
        cairo_scale(cr, k, k);
        paint(page, cr, &art);
        cairo_destroy(cr);
    }
    cairo_surface_destroy(surface);
    state.SetLabel(bent ? "bent" : "straight");
}
void wrap_bent(benchmark::State& state) { wrap_page(state, true); }
void wrap_straight(benchmark::State& state) { wrap_page(state, false); }
BENCHMARK(wrap_bent)->Unit(benchmark::kMillisecond);
BENCHMARK(wrap_straight)->Unit(benchmark::kMillisecond);

}  // namespace

BENCHMARK_MAIN();
