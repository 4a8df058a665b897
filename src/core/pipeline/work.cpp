#include "core/pipeline/work.h"

#include <algorithm>
#include <utility>

#include "core/fitting/fit_findings.h"
#include "core/guides/guides.h"
#include "core/order/rules.h"
#include "core/papers/approval.h"

namespace orthema {

namespace {

/// What no stage but the guides reads: how things are shown and printed.
Order without_showing(Order order) {
    order.name.clear();
    order.job.clear();
    order.customer.clear();
    order.note.clear();
    order.hourly = 0;
    order.unit = {};
    order.paper = {};
    order.guide_setup = {};
    order.pricing = {};
    order.approval = {};
    order.rules.clear();  // decorations hold what follows from them
    return order;
}

Order for_transfers(const Order& order) {
    Order o = without_showing(order);
    o.due.clear();
    o.layouts.clear();
    o.trials.clear();
    o.corrections.clear();
    o.press_run = {};
    return o;
}

Order for_fit(const Order& order) {
    Order o = for_transfers(order);
    o.reprints.clear();
    o.kept_out.clear();
    o.methods.clear();
    o.jigs.clear();
    return o;
}

Order for_sheets(const Order& order) {
    Order o;
    o.media = order.media;
    o.layouts = order.layouts;
    return o;
}

Order for_supply(const Order& order) {
    Order o;
    o.name = order.name;
    o.job = order.job;
    o.due = order.due;
    o.press_run.due = order.press_run.due;
    o.jobs = order.jobs;
    o.lines = order.lines;
    o.art = order.art;
    o.styles = order.styles;
    o.media = order.media;
    o.methods = order.methods;
    o.layouts = order.layouts;
    return o;
}

Order for_press(const Order& order) {
    Order o = without_showing(order);
    if (!o.press_run.makes_film) o.layouts.clear();  // which pieces lie on which film
    return o;
}

Order for_guides(const Order& order) {
    Order o = order;
    o.layouts.clear();
    o.rules.clear();
    o.pricing = {};
    o.approval = {};
    return o;
}

/// The kept result where its input is that of now, else a new one.
template <class In, class Out, class Make>
Kept<In, Out> kept_or(const Kept<In, Out>* before, In in, Make make) {
    if (before != nullptr && before->made && before->in == in) return *before;
    auto out = std::make_shared<const Out>(make(in));
    return {std::move(in), std::move(out), true};
}

void gather(const Order& order, const Shared<KnownArt>& art, Work& w) {
    w.findings = order_findings(order);
    append(w.findings, rule_findings(order));
    append(w.findings, approval_findings(order, w.plan()));
    if (art) append(w.findings, art->faults);
    append(w.findings, w.plan().findings);
    append(w.findings, w.transfer_set().findings);
    append(w.findings, w.sheet_plan().findings);
    append(w.findings, w.supplies().findings);
    append(w.findings, w.press_plan().findings);
    append(w.findings, *w.guides.out);
    std::stable_sort(w.findings.begin(), w.findings.end(), [](const Finding& a, const Finding& b) { return a.severity > b.severity; });
}

const ArtFactsById& facts_in(const Shared<KnownArt>& art) {
    static const ArtFactsById none;
    return art ? art->facts : none;
}

}  // namespace

Work work(const Order& order, const Shop& shop, const Shared<KnownArt>& art, const Work* before, const Task&, HowFar through) {
    Work w;
    const bool same_art = before != nullptr && before->fit.made && before->fit.in.art == art;
    w.fit = kept_or(before == nullptr ? nullptr : &before->fit, FitInput{for_fit(order), art}, [&](const FitInput& in) {
        return same_art ? refit(in.order, facts_in(in.art), before->fit.in.order, before->plan()) : fit(in.order, facts_in(in.art));
    });
    if (through == HowFar::fit) {
        if (before != nullptr) {
            w.transfers = before->transfers;
            w.sheets = before->sheets;
            w.press = before->press;
            w.guides = before->guides;
            w.supply = before->supply;
        }
        w.behind = true;
        gather(order, art, w);
        return w;
    }
    w.transfers = kept_or(before == nullptr ? nullptr : &before->transfers, TransferInput{for_transfers(order), art, w.fit.out},
                          [&](const TransferInput& in) {
                              return transfers(in.order, *in.fit, facts_in(in.art), before == nullptr ? nullptr : &before->transfer_set());
                          });
    w.sheets = kept_or(before == nullptr ? nullptr : &before->sheets, SheetInput{for_sheets(order), w.transfers.out},
                       [](const SheetInput& in) { return sheet_plan(in.order, *in.transfers); });
    w.supply = kept_or(before == nullptr ? nullptr : &before->supply, SupplyInput{for_supply(order), w.transfers.out, w.sheets.out, shop},
                       [](const SupplyInput& in) { return supply(in.order, *in.transfers, *in.sheets, in.shop); });
    w.press = kept_or(before == nullptr ? nullptr : &before->press, PressInput{for_press(order), w.fit.out, w.transfers.out},
                      [](const PressInput& in) {
                          ScheduleOptions quick;
                          quick.tries = 0;
                          return press_plan(in.order, *in.fit, *in.transfers, quick);
                      });
    w.guides = kept_or(before == nullptr ? nullptr : &before->guides, GuideInput{for_guides(order), w.fit.out},
                       [](const GuideInput& in) { return stale_guides(in.order, *in.fit); });
    gather(order, art, w);
    return w;
}

Work with_press_plan(Work w, const Order& order, std::shared_ptr<const PressPlan> plan) {
    w.press.out = std::move(plan);
    gather(order, w.fit.in.art, w);
    return w;
}

const std::vector<Stage>& stages() {
    const auto no_lines = [](const Order& o, const Work&) { return o.lines.empty(); };
    const auto no_fit = [](const Order&, const Work& w) { return w.plan().decorations.empty(); };
    static const std::vector<Stage> table = {
        {"order", "Order", false, no_lines},
        {"blanks", "Blanks", false, no_lines},
        {"art", "Art", false, [](const Order& o, const Work&) { return o.art.empty(); }},
        {"fit", "Fit", false, no_fit},
        {"sheets", "Sheets", true, [](const Order&, const Work& w) { return w.sheet_plan().media.empty(); }},
        {"guides", "Guides", false, no_fit},
        {"press", "Press", true, [](const Order&, const Work& w) { return w.press_plan().shop.tasks.empty(); }},
        {"records", "Records", false, no_lines, false},
    };
    return table;
}

int stage_index(const std::string& key) {
    for (std::size_t i = 0; i < stages().size(); ++i)
        if (key == stages()[i].key) return static_cast<int>(i);
    return -1;
}

StageState stage_state(const Stage& stage, const Order& order, const Work& work, bool catching_up) {
    StageState out;
    out.standing = standing_of(work.findings, stage.key);
    out.waiting = stage.empty(order, work) || (stage.follows && catching_up);
    for (const Finding& f : work.findings)
        if (f.about.stage == stage.key && f.severity != Severity::note) ++out.count;
    return out;
}

}  // namespace orthema
