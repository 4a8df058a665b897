#include "core/records/plot_marks.h"

#include <cmath>
#include <numbers>

namespace orthema {

void draw_mark(Drawing& d, Point at, std::size_t kind, Colour colour, double r, bool filled) {
    Ring ring;
    constexpr double line = 1.3;
    if (filled) r += line / 2;  // as wide as with its line, painted once
    const auto corners = [&](int n, double turn) {
        for (int i = 0; i < n; ++i) {
            const double t = turn + 2 * std::numbers::pi * i / n;
            ring.push_back(at + Point{std::cos(t), std::sin(t)} * (n == 3 ? r * 1.25 : r * 1.1));
        }
    };
    switch (kind % 5) {
    case 0: corners(18, 0); break;
    case 1: corners(4, std::numbers::pi / 4); break;
    case 2: corners(3, -std::numbers::pi / 2); break;
    case 3: corners(4, 0); break;
    default: corners(5, -std::numbers::pi / 2); break;
    }
    d.marks.emplace_back(filled ? PathMark{{ring}, true, colour, std::nullopt}
                                : PathMark{{ring}, true, palette::white, Stroke{colour, line, {}}});
}

std::string name_of(const PlotAsk& ask, const std::string& id, TellApart by) {
    if (by == TellApart::hands) return id.empty() ? "no mark" : id;
    const Press* p = ask.order == nullptr ? nullptr : find_press(*ask.order, id);
    return p == nullptr ? (id.empty() ? "no press" : id) : p->name;
}

void say_nothing(Plot& plot, const std::string& what, const std::string& how) {
    plot.drawing.text({plot.drawing.width / 2, plot.drawing.height / 2 - 10}, what, 18, palette::ink, Align::centre, true);
    plot.drawing.text({plot.drawing.width / 2, plot.drawing.height / 2 + 16}, how, 13.5, palette::quiet, Align::centre);
}

Plot begun(const PlotAsk& ask) {
    Plot plot;
    plot.drawing.width = ask.width;
    plot.drawing.height = ask.height;
    return plot;
}

}  // namespace orthema
