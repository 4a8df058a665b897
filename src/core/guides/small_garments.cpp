#include "core/guides/small_garments.h"

#include <algorithm>
#include <map>

#include "core/guides/panel_drawing.h"

namespace orthema {

Side main_side(const Order& order, const RunKey& run) {
    std::map<Side, int> designs;
    for (const Decoration& d : order.decorations)
        if (d.run == run) ++designs[side_of(d.location)];
    const std::vector<Face> faces = family_faces(family_of(order, run));
    Side out{faces.empty() ? Face::front : faces.front()};
    for (const auto& [side, n] : designs)
        if (n > designs[out]) out = side;
    return out;
}

double draw_small_garment(Drawing& to, const Order& order, const FitPlan& plan, const RunKey& run, const std::string& size,
                          const Side& side, const Rect& box, double hair) {
    const BlankStyle* style = find_style(order, run.style);
    if (style == nullptr || style_fault(*style) || !style->chart.contains(size)) return 0;
    const Panel panel = panel_of(*style, size, side.face);
    const Rect all = drawn_box(panel);
    if (all.width() <= 0 || all.height() <= 0) return 0;
    const double k = std::min(box.width() / all.width(), box.height() / all.height());
    const Affine map{k, 0, 0, k, box.centre().x - k * all.centre().x, box.centre().y - k * all.centre().y};
    draw_panel(to, panel, map, cloth_of(order, run, side), hair);
    for (const Decoration& d : order.decorations) {
        if (d.run != run || side_of(d.location) != side) continue;
        const DecorationFit* fit = find_fit(plan, d.id);
        const SizeFit* s = fit == nullptr ? nullptr : find_size(*fit, size);
        if (s != nullptr) draw_pressed_design(to, panel, d, *s, map);
    }
    return k;
}

Drawing small_garments(const Order& order, const FitPlan& plan, double width, double height) {
    Drawing out;
    out.width = width;
    out.height = height;
    out.rect({0, 0, width, height}, palette::light);
    std::vector<RunKey> runs = runs_of(order);
    std::stable_sort(runs.begin(), runs.end(),
                     [&](const RunKey& a, const RunKey& b) { return garments_in(order, a) > garments_in(order, b); });
    const auto most = static_cast<std::size_t>(std::max(1.0, width / (height * 0.9)));
    if (runs.size() > most) runs.resize(most);
    const double cell = height * 0.9;
    for (std::size_t i = 0; i < runs.size(); ++i) {
        const auto counts = counts_of(order, runs[i]);
        if (counts.empty()) continue;
        const double x = static_cast<double>(i) * cell;
        draw_small_garment(out, order, plan, runs[i], counts[counts.size() / 2].size, main_side(order, runs[i]),
                           {x + 3, 3, x + cell - 3, height - 3});
    }
    return out;
}

}  // namespace orthema
