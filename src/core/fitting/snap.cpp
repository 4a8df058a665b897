#include "core/fitting/snap.h"

#include <cmath>

#include "core/base/catalogue.h"
#include "core/blanks/panel.h"

namespace orthema {

std::vector<Beside> beside(const Order& order, const FitPlan& plan, const Decoration& decoration, const std::string& size) {
    std::vector<Beside> out;
    for (const Decoration& o : order.decorations) {
        if (o.id == decoration.id || !on_one_panel(o, decoration)) continue;
        const DecorationFit* fit = find_fit(plan, o.id);
        const SizeFit* s = fit == nullptr ? nullptr : find_size(*fit, size);
        if (s != nullptr) out.push_back({s->ink, o.name});
    }
    return out;
}

Snapped snapped(const Rect& ink, double line, double anchor, const Panel& panel, const std::vector<Beside>& others, double reach,
                const Reading& reading) {
    Snapped out;
    struct Near {
        double off = 0;
        SnapLine line;
    };
    std::optional<Near> across, down;
    // the first of equals stays: the centre line before all else
    const auto offer = [&](std::optional<Near>& best, bool upright, double from, double to, std::string words) {
        const double off = to - from;
        if (std::abs(off) <= reach && (!best || std::abs(off) < std::abs(best->off) - 1e-9)) best = {off, {upright, to, std::move(words)}};
    };
    offer(across, true, line, anchor, phrase("snap-centre-line", reading));
    const double y = margin_height(panel, ink);
    offer(across, true, ink.centre().x, (left_edge_x(panel, y) + right_edge_x(panel, y)) / 2, phrase("snap-equal-margins", reading));
    for (const Beside& o : others) {
        const auto of = [&](const char* code) { return phrase(code, reading, {{"design", o.name}}); };
        offer(across, true, ink.centre().x, o.ink.centre().x, of("snap-middle-of"));
        offer(across, true, ink.x0, o.ink.x0, of("snap-edge-of"));
        offer(across, true, ink.x1, o.ink.x1, of("snap-edge-of"));
        offer(down, false, ink.y0, o.ink.y0, of("snap-top-of"));
        offer(down, false, ink.y1, o.ink.y1, of("snap-bottom-of"));
        offer(down, false, ink.centre().y, o.ink.centre().y, of("snap-middle-of"));
    }
    if (across) {
        out.right = across->off;
        out.lines.push_back(across->line);
    }
    if (down) {
        out.down = down->off;
        out.lines.push_back(down->line);
    }
    return out;
}

}  // namespace orthema
