#include "core/papers/approval.h"

#include <cmath>
#include <map>
#include <set>

#include "core/blanks/location.h"
#include "core/drawing/code2d.h"
#include "core/order/art_words.h"
#include "core/order/gang.h"
#include "core/order/roster.h"

namespace orthema {

namespace {

/// Whose things, and by which names they were approved: of a job in a gang by those that it has alone.
struct Whose {
    const Order& order;
    std::string job;
    JobNames names;

    Whose(const Order& o, const std::string& of)
        : order(o), job(of), names(find_job(o, of) == nullptr ? JobNames{} : names_of(*find_job(o, of))) {}
    [[nodiscard]] bool has(const RunKey& run) const { return job.empty() || run.job == job; }
    [[nodiscard]] std::string own(IdKind kind, const std::string& id) const {
        const auto& known = names.to_job[static_cast<int>(kind)];
        const auto found = known.find(id);
        return found == known.end() ? id : found->second;
    }
};

/// What a customer sees of a design on one size, in six letters: picture, place, size, garment and its colour.
std::string seen_revision(const Whose& whose, const Decoration& d, const SizeFit& s) {
    const Order& order = whose.order;
    const Art* art = find_art(order, d.art);
    std::string all = (art == nullptr ? whose.own(IdKind::art, d.art) : art->hash) + "|" + whose.own(IdKind::style, d.run.style) + "|" +
                      d.run.colour + "|" + s.size + "|" + location_key(d.location);
    if (art != nullptr && art->clip) all += "|" + art->clip->word + "|" + whose.own(IdKind::style, art->clip->style);
    if (art != nullptr && !art->mendings.empty()) all += "|" + mending_words(art->mendings);
    if (const std::string composed = art == nullptr ? std::string() : composed_words(order, *art); !composed.empty()) all += "|" + composed;
    if (art != nullptr && art->lettering) all += "|" + lettered_words(order, d, s.size);
    for (const double mm : {s.width, s.height, s.ink.x0, s.ink.y0}) all += "|" + std::to_string(std::lround(mm));
    const Colour cloth = cloth_of(order, d);
    for (const double c : {cloth.r, cloth.g, cloth.b}) all += "|" + std::to_string(std::lround(c * 255));
    for (const Layer& l : d.making.layers)
        for (const double c : {l.tint.r, l.tint.g, l.tint.b}) all += "|" + std::to_string(std::lround(c * 255));
    return revision_of(all);
}

/// What is ordered.
std::string list_revision(const Whose& whose) {
    std::set<std::string> rows;  // in whatever order they stand
    for (const RunKey& run : runs_of(whose.order))
        if (whose.has(run))
            for (const SizeCount& c : counts_of(whose.order, run))
                rows.insert("|" + whose.own(IdKind::style, run.style) + "|" + run.colour + "|" + whose.own(IdKind::lot, run.lot) + "|" +
                            c.size + "|" + std::to_string(c.quantity));
    std::string all;
    for (const std::string& r : rows) all += r + "\n";
    return revision_of(all);
}

Approval approved(const Whose& whose, const FitPlan& plan, const std::string& by, const std::string& at) {
    if (by.empty()) return {};
    Approval a;
    a.by = by;
    a.at = at;
    a.lines = list_revision(whose);
    for (const DecorationFit& fit : plan.decorations)
        if (const Decoration* d = find_decoration(whose.order, fit.decoration); d != nullptr && whose.has(d->run))
            for (const SizeFit& s : fit.sizes)
                a.designs.push_back({whose.own(IdKind::decoration, d->id), s.size, seen_revision(whose, *d, s)});
    return a;
}

}  // namespace

const Approval& approval_of(const Order& order, const std::string& job) {
    static const Approval none;
    if (!is_gang(order)) return order.approval;
    const Job* j = find_job(order, job);
    return j != nullptr && j->own ? j->own->approval : none;
}

Order with_approval(Order order, const FitPlan& plan, const std::string& by, const std::string& at, const std::string& job) {
    if (!is_gang(order)) {
        order.approval = approved(Whose(order, {}), plan, by, at);
        return order;
    }
    for (Job& j : order.jobs.own()) {
        if (!job.empty() && job != j.id) continue;
        auto own = std::make_shared<Order>(j.own ? *j.own : Order{});
        own->approval = approved(Whose(order, j.id), plan, by, at);
        j.own = Shared<Order>(std::move(own));
    }
    return order;
}

ApprovalState approval_state(const Order& order, const FitPlan& plan, const std::string& job) {
    ApprovalState out;
    const Approval& a = approval_of(order, job);
    out.given = !a.by.empty();
    if (!out.given) return out;
    const Whose whose(order, job);
    out.list_changed = a.lines != list_revision(whose);
    std::set<std::string> there;
    std::map<std::pair<std::string, std::string>, std::string> seen;  // revisions by design and size
    for (const PrintedGuide& p : a.designs) seen[{p.decoration, p.size}] = p.revision;
    for (const DecorationFit& fit : plan.decorations) {
        const Decoration* d = find_decoration(order, fit.decoration);
        if (d == nullptr || !whose.has(d->run)) continue;
        const std::string as = whose.own(IdKind::decoration, d->id);
        there.insert(as);
        std::string sizes;
        for (const SizeFit& s : fit.sizes) {
            const auto was = seen.find({as, s.size});
            if (was == seen.end() || was->second != seen_revision(whose, *d, s)) sizes += (sizes.empty() ? "" : ", ") + s.size;
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
    for (const std::string& job : jobs_apart(order)) {
        const ApprovalState state = approval_state(order, plan, job);
        if (!state.given) continue;
        const std::string& who = approval_of(order, job).by;
        for (const auto& [decoration, sizes] : state.changed) {
            const Decoration* d = find_decoration(order, decoration);
            out.push_back(finding("approval-design", subject_of("order", *d), {{"design", d->name}, {"sizes", sizes}, {"who", who}}));
        }
        Subject about;
        about.stage = "order";
        if (state.list_changed) out.push_back(finding("approval-list", about, {{"who", who}}));
        if (state.gone > 0) out.push_back(finding("approval-gone", about, {{"n", state.gone}, {"who", who}}));
    }
    return out;
}

}  // namespace orthema
