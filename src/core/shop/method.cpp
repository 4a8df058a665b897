#include "core/shop/method.h"

#include <algorithm>

#include "core/artwork/art_facts.h"
#include "core/base/units.h"
#include "core/shop/medium.h"

namespace orthema {

namespace {

bool names(const std::string& fabric, const std::vector<std::string>& words) {
    return std::any_of(words.begin(), words.end(), [&](const std::string& w) { return fabric.find(w) != std::string::npos; });
}

}  // namespace

std::vector<std::string> against(const Method& m, const MethodCase& c) {
    std::vector<std::string> why;
    if (!m.fabrics.empty() && !names(c.fabric, m.fabrics)) {
        std::string takes;
        for (const std::string& f : m.fabrics) takes += (takes.empty() ? "" : ", ") + f;
        why.push_back((c.fabric.empty() ? "this blank" : c.fabric) + " does not take it (" + takes + ")");
    }
    if (!m.never.empty() && names(c.fabric, m.never)) why.push_back("not on " + c.fabric);
    if (m.lightest > 0 && lab_lightness(c.cloth) < m.lightest) why.emplace_back("the cloth is too dark: its ink is transparent");
    if (m.flat_colours && c.colours > 6)
        why.emplace_back("the design has tones: it is cut from sheets of one colour");
    else if (m.flat_colours && c.half_transparent > 0.02)
        why.emplace_back("half-transparent parts cannot be cut");
    if (c.thin_stroke > 0 && c.thin_stroke < m.min_stroke.mm())
        why.push_back("strokes of " + mm_text(c.thin_stroke, 1) + " mm are finer than the " + mm_text(m.min_stroke.mm(), 1) +
                      " mm it holds");
    if (c.narrow_gap > 0 && c.narrow_gap < m.min_gap.mm())
        why.push_back("gaps of " + mm_text(c.narrow_gap, 1) + " mm are narrower than the " + mm_text(m.min_gap.mm(), 1) +
                      " mm it keeps open");
    if (!m.stretches && (c.fabric.find("rib") != std::string::npos || c.fabric.find("knit") != std::string::npos))
        why.emplace_back("it does not give with a stretching knit");
    return why;
}

double piece_cost(const Method& m, const Medium& medium, const MethodCase& c, double minute) {
    const double sheet = medium.shape == MediumShape::roll ? medium.price / 1000 / medium.width.mm()
                                                           : medium.price / (medium.width.mm() * medium.length.mm());
    const double sheets = static_cast<double>(std::max<std::size_t>(1, m.layers.size()));
    return sheet * c.box_area * sheets + m.ink_cost * c.ink_area / 10000 + m.minutes * minute;
}

}  // namespace orthema
