#include "core/fitting/mendings.h"

#include <algorithm>

namespace orthema {

Mending usual_mending(const Order& order, const FitPlan& plan, const std::string& art, MendKind kind) {
    Mending m;
    m.kind = kind;
    double most = 0, widest = 0;
    for (const DecorationFit& fit : plan.decorations) {
        const Decoration* d = find_decoration(order, fit.decoration);
        if (d == nullptr || d->art != art || fit.sizes.empty()) continue;
        const Medium* medium = find_medium(order, d->medium);
        const Method* method = method_of(order, *d);
        double least = fit.sizes.front().width;
        for (const SizeFit& s : fit.sizes) {
            least = std::min(least, s.width);
            widest = std::max(widest, s.width);
        }
        if (medium == nullptr || least <= 0) continue;
        const bool weeded = method != nullptr && method->handling == Handling::weeded;
        const Length held = kind == MendKind::open              ? medium->min_gap
                            : kind == MendKind::clean && weeded ? method->min_island
                                                                : medium->min_stroke;
        if (held.mm() / least <= most) continue;
        most = held.mm() / least;
        m.least = Length::from_mm(std::clamp(held.mm(), 0.05, most_held));
        m.at = Length::from_mm(std::clamp(least, 1.0, 5000.0));
    }
    if (kind == MendKind::dots && widest > 0) m.at = Length::from_mm(std::clamp(widest, 1.0, 5000.0));
    return m;
}

std::optional<MendingOffer> mending_for(const Order& order, const FitPlan& plan, const Finding& f) {
    static constexpr std::pair<const char*, MendKind> ends[] = {
        {"art-background", MendKind::background}, {"art-half-transparent", MendKind::harden},
        {"thin-stroke", MendKind::thicken},       {"weed-sliver", MendKind::thicken},
        {"narrow-gap", MendKind::open},           {"weed-gap", MendKind::open},
        {"weed-island", MendKind::clean}};
    for (const auto& [code, kind] : ends) {
        if (f.code != code) continue;
        const Decoration* d = find_decoration(order, f.about.decoration);
        const Art* art = find_art(order, d != nullptr ? d->art : f.about.art);
        if (art == nullptr || !is_picture(*art)) return std::nullopt;
        return MendingOffer{art->id, usual_mending(order, plan, art->id, kind)};
    }
    return std::nullopt;
}

}  // namespace orthema
