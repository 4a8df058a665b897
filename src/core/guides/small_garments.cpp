#include "core/guides/small_garments.h"

#include <algorithm>
#include <map>

#include "core/guides/panel_drawing.h"

namespace orthema {

namespace {

/// The face of a run that carries most designs; the family's first where none does.
Face main_face(const Order& order, const RunKey& run) {
    std::map<Face, int> designs;
    for (const Decoration& d : order.decorations)
        if (d.run == run) ++designs[location_face(d.location)];
    const std::vector<Face> faces = family_faces(family_of(order, run));
    Face out = faces.empty() ? Face::front : faces.front();
    for (const auto& [face, n] : designs)
        if (n > designs[out]) out = face;
    return out;
}

}  // namespace

double draw_small_garment(Drawing& to, const Order& order, const FitPlan& plan, const RunKey& run, const std::string& size, Face face,
                          const Rect& box, double hair) {
    const BlankStyle* style = find_style(order, run.style);
    if (style == nullptr || style_fault(*style) || !style->chart.contains(size)) return 0;
    const Panel panel = panel_of(*style, size, face);
    const Rect all = drawn_box(panel);
    if (all.width() <= 0 || all.height() <= 0) return 0;
    const double k = std::min(box.width() / all.width(), box.height() / all.height());
    const Affine map{k, 0, 0, k, box.centre().x - k * all.centre().x, box.centre().y - k * all.centre().y};
    draw_panel(to, panel, map, run_colour(order, run), hair);
    for (const Decoration& d : order.decorations) {
        if (d.run != run || location_face(d.location) != face) continue;
        const DecorationFit* fit = find_fit(plan, d.id);
        const SizeFit* s = fit == nullptr ? nullptr : find_size(*fit, size);
        if (s != nullptr) draw_pressed_design(to, panel, d, s->ink, map);
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
        draw_small_garment(out, order, plan, runs[i], counts[counts.size() / 2].size, main_face(order, runs[i]),
                           {x + 3, 3, x + cell - 3, height - 3});
    }
    return out;
}

}  // namespace orthema
