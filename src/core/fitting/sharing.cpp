#include "core/fitting/sharing.h"

#include <algorithm>

#include "core/order/edit.h"

namespace orthema {

namespace {

double shortfall(const DecorationFit& fit, const BandFit& band, double width) {
    double sum = 0;
    for (int i = band.first; i <= band.last; ++i) {
        const SizeFit& s = fit.sizes[static_cast<std::size_t>(i)];
        const double lack = (s.ideal - width) / s.ideal;
        if (s.band >= 0) sum += s.quantity * lack * lack;
    }
    return sum;
}

}  // namespace

std::vector<SharingProposal> sharing_proposals(const Order& order, const FitPlan& plan) {
    std::vector<SharingProposal> out;
    for (const DecorationFit& fit : plan.decorations) {
        const Decoration* d = find_decoration(order, fit.decoration);
        if (d == nullptr || d->sizing.school == SizingSchool::graded) continue;
        for (std::size_t b = 0; b < fit.bands.size(); ++b) {
            const BandFit& band = fit.bands[b];
            SharingProposal best;
            bool shares_already = false;
            for (const DecorationFit& other : plan.decorations) {
                const Decoration* e = find_decoration(order, other.decoration);
                if (e == nullptr || e->art != d->art || e->medium != d->medium || e->run == d->run) continue;
                for (const BandFit& theirs : other.bands) {
                    if (std::abs(theirs.width - band.width) < 0.05) shares_already = true;
                    if (theirs.width >= band.width || theirs.width < band.width * 0.8) continue;
                    const double cost = shortfall(fit, band, theirs.width) - shortfall(fit, band, band.width);
                    if (cost >= d->sizing.price || (!best.with.empty() && cost >= best.cost)) continue;
                    best = {d->id, static_cast<int>(b), e->id, band.width, theirs.width, band.quantity, cost, d->sizing.price};
                }
            }
            if (!best.with.empty() && !shares_already) out.push_back(best);
        }
    }
    std::stable_sort(out.begin(), out.end(), [](const auto& x, const auto& y) { return x.cost < y.cost; });
    return out;
}

Order with_sharing(const Order& order, const FitPlan& plan, const SharingProposal& p) {
    const Decoration* d = find_decoration(order, p.decoration);
    const DecorationFit* fit = find_fit(plan, p.decoration);
    if (d == nullptr || fit == nullptr || p.band < 0 || p.band >= static_cast<int>(fit->bands.size())) return order;
    Decoration next = *d;
    const auto first_of = [&](const BandFit& b) { return fit->sizes[static_cast<std::size_t>(b.first)].size; };
    if (next.sizing.school == SizingSchool::bands) {
        next.sizing.band_starts.clear();
        for (std::size_t b = 1; b < fit->bands.size(); ++b) next.sizing.band_starts.push_back(first_of(fit->bands[b]));
        if (next.sizing.band_starts.empty()) next.sizing.band_starts.push_back(first_of(fit->bands[0]));
    }
    const std::string first = first_of(fit->bands[static_cast<std::size_t>(p.band)]);
    std::erase_if(next.sizing.shared, [&](const SharedWidth& w) { return w.first == first; });
    next.sizing.shared.push_back({first, Length::from_mm(p.to)});
    return with_decoration(order, next);
}

}  // namespace orthema
