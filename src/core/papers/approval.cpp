#include "core/papers/approval.h"

#include <cmath>
#include <map>
#include <set>

#include "core/blanks/location.h"
#include "core/drawing/code2d.h"

namespace orthema {

std::string seen_revision(const Order& order, const Decoration& d, const SizeFit& s) {
    const Art* art = find_art(order, d.art);
    std::string all =
        (art == nullptr ? d.art : art->hash) + "|" + d.run.style + "|" + d.run.colour + "|" + s.size + "|" + location_key(d.location);
    if (art != nullptr && art->clip) all += "|" + art->clip->word + "|" + art->clip->style;
    for (const double mm : {s.width, s.height, s.ink.x0, s.ink.y0}) all += "|" + std::to_string(std::lround(mm));
    const Colour cloth = run_colour(order, d.run);
    for (const double c : {cloth.r, cloth.g, cloth.b}) all += "|" + std::to_string(std::lround(c * 255));
    for (const Layer& l : d.making.layers)
        for (const double c : {l.tint.r, l.tint.g, l.tint.b}) all += "|" + std::to_string(std::lround(c * 255));
    return revision_of(all);
}

std::string list_revision(const Order& order) {
    std::set<std::string> rows;  // in whatever order they stand
    for (const RunKey& run : runs_of(order))
        for (const SizeCount& c : counts_of(order, run))
            rows.insert(run.job + "|" + run.style + "|" + run.colour + "|" + run.lot + "|" + c.size + "|" + std::to_string(c.quantity));
    std::string all;
    for (const std::string& r : rows) all += r + "\n";
    return revision_of(all);
}

Order with_approval(Order order, const FitPlan& plan, const std::string& by, const std::string& at) {
    order.approval = {};
    if (by.empty()) return order;
    order.approval.by = by;
    order.approval.at = at;
    order.approval.lines = list_revision(order);
    for (const DecorationFit& fit : plan.decorations)
        if (const Decoration* d = find_decoration(order, fit.decoration))
            for (const SizeFit& s : fit.sizes) order.approval.designs.push_back({d->id, s.size, seen_revision(order, *d, s)});
    return order;
}

ApprovalState approval_state(const Order& order, const FitPlan& plan) {
    ApprovalState out;
    const Approval& a = order.approval;
    out.given = !a.by.empty();
    if (!out.given) return out;
    out.list_changed = a.lines != list_revision(order);
    std::set<std::string> there;
    std::map<std::pair<std::string, std::string>, std::string> seen;  // revisions by design and size
    for (const PrintedGuide& p : a.designs) seen[{p.decoration, p.size}] = p.revision;
    for (const DecorationFit& fit : plan.decorations) {
        const Decoration* d = find_decoration(order, fit.decoration);
        if (d == nullptr) continue;
        there.insert(d->id);
        std::string sizes;
        for (const SizeFit& s : fit.sizes) {
            const auto was = seen.find({d->id, s.size});
            if (was == seen.end() || was->second != seen_revision(order, *d, s)) sizes += (sizes.empty() ? "" : ", ") + s.size;
        }
        if (!sizes.empty()) out.changed.emplace_back(d->id, sizes);
    }
    std::set<std::string> gone;
    for (const PrintedGuide& p : a.designs)
        if (!there.contains(p.decoration)) gone.insert(p.decoration);
    out.gone = static_cast<int>(gone.size());
    return out;
}

Findings approval_findings(const Order& order, const FitPlan& plan) {
    Findings out;
    const ApprovalState state = approval_state(order, plan);
    if (!state.given) return out;
    for (const auto& [decoration, sizes] : state.changed) {
        const Decoration* d = find_decoration(order, decoration);
        out.push_back(
            finding("approval-design", subject_of("order", *d), {{"design", d->name}, {"sizes", sizes}, {"who", order.approval.by}}));
    }
    Subject about;
    about.stage = "order";
    if (state.list_changed) out.push_back(finding("approval-list", about, {{"who", order.approval.by}}));
    if (state.gone > 0) out.push_back(finding("approval-gone", about, {{"n", state.gone}, {"who", order.approval.by}}));
    return out;
}

}  // namespace orthema
