#include "core/fitting/adjust.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace orthema {

namespace {

SizePin& pin_of(Decoration& d, const std::string& size) {
    if (SizePin* pin = find_pin(d, size)) return *pin;
    d.pins.push_back({size, {}, {}, {}});
    return d.pins.back();
}

struct Growth {
    double body = 0;    ///< body length of the size
    double factor = 1;  ///< by which the rule's offset has grown there
};

Growth growth_of(const Order& order, const Decoration& d, const std::string& size) {
    const BlankStyle* style = find_style(order, d.run.style);
    if (style == nullptr || !style->chart.contains(size)) return {};
    const auto body = [&](const std::string& s) { return measure_mm(style->chart.at(s), Measure::body_length); };
    const auto counts = counts_of(order, d.run);
    const std::string base = size_index(*style, d.sizing.base_size) >= 0 ? d.sizing.base_size : counts.empty() ? size : counts.front().size;
    Growth g{body(size), 1};
    if (body(base) > 0 && g.body > 0) g.factor = std::pow(g.body / body(base), d.placing.growth);
    return g;
}

/// Names of the bands' first sizes as they are now, the smallest's left out.
std::set<int> starts_of(const DecorationFit& fit) {
    std::set<int> starts;
    for (const BandFit& b : fit.bands) starts.insert(b.first);
    return starts;
}

Decoration with_starts(const Decoration& decoration, const DecorationFit& fit, const std::set<int>& starts) {
    Decoration d = decoration;
    d.sizing.school = SizingSchool::bands;
    d.sizing.band_starts.clear();
    const int smallest = fit.bands.empty() ? 0 : fit.bands.front().first;
    for (const int s : starts)
        if (s > smallest && s < static_cast<int>(fit.sizes.size()))
            d.sizing.band_starts.push_back(fit.sizes[static_cast<std::size_t>(s)].size);
    // One band for all is a choice too: naming the smallest size alone says so.
    if (d.sizing.band_starts.empty() && !fit.sizes.empty())
        d.sizing.band_starts.push_back(fit.sizes[static_cast<std::size_t>(smallest)].size);
    return d;
}

}  // namespace

Decoration moved(const Order& order, const Decoration& decoration, const SizeFit& on, Length right, Length down, Reach reach) {
    Decoration d = decoration;
    if (reach == Reach::this_size) {
        SizePin& pin = pin_of(d, on.size);
        if (right != Length{}) pin.across = pin.across.value_or(Length{}) + right;
        if (down != Length{}) pin.down = pin.down.value_or(Length{}) + down;
        return d;
    }
    const Growth g = growth_of(order, d, on.size);
    d.placing.across += right;
    switch (d.placing.school) {
    case PlacingSchool::collar_drop: d.placing.offset += down / g.factor; break;
    case PlacingSchool::pit_line: d.placing.offset -= down / g.factor; break;
    case PlacingSchool::body_fraction:
        if (g.body > 0) d.placing.share += down.mm() / g.body;
        break;
    }
    return d;
}

Decoration widened(const Decoration& decoration, const SizeFit& on, Length width, Reach reach) {
    Decoration d = decoration;
    width = std::max(width, Length::from_mm(1));
    if (reach == Reach::this_size) {
        pin_of(d, on.size).width = width;
    } else {
        if (on.ideal > 0) d.sizing.base_width = d.sizing.base_width * (width.mm() / on.ideal);
        if (SizePin* pin = find_pin(d, on.size)) pin->width.reset();  // or the typed width would not show
    }
    return d;
}

Decoration band_ending_at(const Decoration& decoration, const DecorationFit& fit, int band, int last) {
    if (band < 0 || band >= static_cast<int>(fit.bands.size())) return decoration;
    const BandFit& b = fit.bands[static_cast<std::size_t>(band)];
    std::set<int> starts = starts_of(fit);
    last = std::clamp(last, b.first, static_cast<int>(fit.sizes.size()) - 1);
    if (static_cast<std::size_t>(band) + 1 < fit.bands.size()) starts.erase(fit.bands[static_cast<std::size_t>(band) + 1].first);
    std::erase_if(starts, [&](int s) { return s > b.first && s <= last; });
    starts.insert(last + 1);
    return with_starts(decoration, fit, starts);
}

Decoration band_beginning_at(const Decoration& decoration, const DecorationFit& fit, int band, int first) {
    if (band <= 0 || band >= static_cast<int>(fit.bands.size())) return decoration;
    const BandFit& b = fit.bands[static_cast<std::size_t>(band)];
    first = std::clamp(first, fit.bands.front().first, b.last);
    std::set<int> starts = starts_of(fit);
    std::erase_if(starts, [&](int s) { return s == b.first || (s > first && s <= b.first); });
    starts.insert(first);
    return with_starts(decoration, fit, starts);
}

Decoration unpinned(const Decoration& decoration, const std::string& size) {
    Decoration d = decoration;
    std::erase_if(d.pins, [&](const SizePin& p) { return p.size == size; });
    return d;
}

Decoration under_school(const Order& order, const Decoration& decoration, const SizeFit& on, PlacingSchool school) {
    Decoration d = decoration;
    d.placing.school = school;
    const Growth g = growth_of(order, d, on.size);
    const SizePin* pin = find_pin(d, on.size);
    const double pinned = pin != nullptr ? pin->down.value_or(Length{}).mm() : 0.0;
    switch (school) {
    case PlacingSchool::collar_drop: d.placing.offset = Length::from_mm((on.collar_to_ink - pinned) / g.factor); break;
    case PlacingSchool::pit_line: d.placing.offset = Length::from_mm((on.ink_to_pit + pinned) / g.factor); break;
    case PlacingSchool::body_fraction:
        if (g.body > 0) d.placing.share = (on.ink.centre().y - pinned) / g.body;
        break;
    }
    return d;
}

}  // namespace orthema
