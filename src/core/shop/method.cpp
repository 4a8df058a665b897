#include "core/shop/method.h"

#include <algorithm>

#include "core/artwork/art_facts.h"
#include "core/base/units.h"
#include "core/shop/medium.h"

namespace orthema {

bool is_foil(const Method& m) { return m.layers.size() > 1 && !m.layers[0].printed && m.layers[0].grow.mm() > 0; }
bool prints_alone(const Method& m) { return m.handling != Handling::weeded || !m.flat_colours; }

namespace {

bool is_among(const std::string& fabric, const std::vector<std::string>& words) {
    return std::any_of(words.begin(), words.end(), [&](const std::string& w) { return fabric.find(w) != std::string::npos; });
}

}  // namespace

std::vector<Words> against(const Method& m, const MethodCase& c) {
    std::vector<Words> why;
    if (!m.fabrics.empty() && !is_among(c.fabric, m.fabrics)) {
        std::string takes;
        for (const std::string& f : m.fabrics) takes += (takes.empty() ? "" : ", ") + f;
        why.push_back({"why-fabric", {{"fabric", c.fabric.empty() ? "this blank" : c.fabric}, {"takes", takes}}});
    }
    if (!m.never.empty() && is_among(c.fabric, m.never)) why.push_back({"why-never", {{"fabric", c.fabric}}});
    if (m.lightest > 0 && lab_lightness(c.cloth) < m.lightest) why.push_back({"why-dark", {}});
    if (m.flat_colours && c.colours > 6)
        why.push_back({"why-tones", {}});
    else if (m.flat_colours && c.half_transparent > 0.02)
        why.push_back({"why-half", {}});
    const auto fine = [&](const char* code, double is, Length least) {
        if (is > 0 && is < least.mm()) why.push_back({code, {{"is", Fine{is}}, {"least", Fine{least.mm()}}}});
    };
    fine("why-stroke", c.thin_stroke, m.min_stroke);
    fine("why-gap", c.narrow_gap, m.min_gap);
    if (!m.stretches && (c.fabric.find("rib") != std::string::npos || c.fabric.find("knit") != std::string::npos))
        why.push_back({"why-knit", {}});
    return why;
}

double area_price(const Medium& medium) {
    return medium.shape == MediumShape::roll ? medium.price / 1000 / medium.width.mm()
                                             : medium.price / (medium.width.mm() * medium.length.mm());
}

double material_price(const Method& m, const Medium& medium) {
    return area_price(medium) * static_cast<double>(std::max<std::size_t>(1, m.layers.size()));
}

double piece_cost(const Method& m, const Medium& medium, const MethodCase& c, double minute) {
    return material_price(m, medium) * c.box_area + m.ink_cost * c.ink_area / 10000 + m.minutes * minute;
}

}  // namespace orthema
