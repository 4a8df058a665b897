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

Decoration moved(const Decoration& decoration, const SizeFit& on, Length right, Length down, Reach reach) {
    Decoration d = decoration;
    if (reach == Reach::this_size) {
        SizePin& pin = pin_of(d, on.size);
        if (right != Length{}) pin.across = pin.across.value_or(Length{}) + right;
        if (down != Length{}) pin.down = pin.down.value_or(Length{}) + down;
        return d;
    }
    d.placing.across += right;
    switch (d.placing.school) {
    case PlacingSchool::collar_drop: d.placing.offset += down / on.growth; break;
    case PlacingSchool::pit_line: d.placing.offset -= down / on.growth; break;
    case PlacingSchool::body_fraction:
        if (on.length > 0) d.placing.share += down.mm() / on.length;
        break;
    case PlacingSchool::feature: d.placing.offset += down / on.growth * (on.hangs_above ? -1.0 : 1.0); break;
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

Decoration under_school(const Decoration& decoration, const SizeFit& on, const Panel& panel, PlacingSchool school,
                        const std::string& landmark) {
    Decoration d = decoration;
    d.placing.school = school;
    const SizePin* pin = find_pin(d, on.size);
    const double pinned = pin != nullptr ? pin->down.value_or(Length{}).mm() : 0.0;
    const double top = on.ink.y0 - pinned, foot = on.ink.y1 - pinned;
    switch (school) {
    case PlacingSchool::collar_drop: d.placing.offset = Length::from_mm((top - panel.top_y) / on.growth); break;
    case PlacingSchool::pit_line:
        if (panel.pit_y) d.placing.offset = Length::from_mm((*panel.pit_y - top) / on.growth);
        break;
    case PlacingSchool::body_fraction:
        if (on.length > 0) d.placing.share = (top + foot) / 2 / on.length;
        break;
    case PlacingSchool::feature: {
        if (!landmark.empty()) d.placing.landmark = landmark;
        if (find_landmark(panel, d.placing.landmark) == nullptr) d.placing.landmark = usual_landmark(d.location, panel);
        const Landmark* at = find_landmark(panel, d.placing.landmark);
        if (at == nullptr) break;
        const double gap = !at->ink_above ? top - at->at : at->at - (at->name == "pit line" ? top : foot);
        d.placing.offset = Length::from_mm(gap / on.growth);
        break;
    }
    }
    return d;
}

Decoration brought_together(const Order& order, const Decoration& d, const SizeFit& on, const Panel& panel, const Meeting& meeting) {
    const Art* art = find_art(order, d.art);
    const Landmark* line = find_landmark(panel, meeting.landmark);
    if (art == nullptr || line == nullptr) return d;
    for (const NamedMark& mark : art->marks) {
        if (mark.name != meeting.mark) continue;
        const double at = line->level ? on.ink.y0 + mark.at.y * on.width : on.ink.x0 + mark.at.x * on.width;
        const Length by = Length::from_mm(line->at - at);
        return line->level ? moved(d, on, Length{}, by, Reach::every_size) : moved(d, on, by, Length{}, Reach::every_size);
    }
    return d;
}

}  // namespace orthema
