#include "core/pipeline/order_card.h"

#include <tuple>

#include "core/base/dates.h"

namespace orthema {

OrderCard card_of(const Order& order, const Work& work, const std::string& saved) {
    OrderCard c;
    c.job = order.job;
    c.name = order.name;
    c.customer = order.customer;
    c.due = order.due;
    c.due_at = order.press_run.due;
    c.garments = garments_in(order);
    c.saved = saved;
    for (const Job& j : order.jobs.all()) c.jobs.push_back(j.id);
    for (const Standby& s : work.supplies().wants) c.wants.push_back(s.want);
    for (const Stage& s : stages()) {
        const StageState state = stage_state(s, order, work);
        c.stages.push_back({state.standing, state.waiting, state.count});
        if (!c.next.empty() || !s.prepares) continue;
        // the first stage that holds the order up
        for (const Finding& f : work.findings)
            if (c.next.empty() && f.about.stage == s.key && f.severity != Severity::note)
                c.next = said(order.unit, s.name) + ": " + finding_text(f, order.unit);
        if (c.next.empty() && state.waiting) c.next = phrase("{stage} is to be begun.", order.unit, {{"stage", s.name}});
    }
    if (c.next.empty()) c.next = said(order.unit, "Ready for the press.");
    return c;
}

OpenOrder open_of(const OrderCard& c) { return {c.job, c.name, c.due, c.due_at, c.jobs, c.wants}; }

std::optional<long> days_between(const std::string& from, const std::string& to) {
    const auto a = day_number(from), b = day_number(to);
    if (!a || !b) return std::nullopt;
    return *b - *a;
}

bool lies_before(const OrderCard& a, const OrderCard& b) {
    if (a.due.empty() != b.due.empty()) return b.due.empty();
    return std::tie(a.due, a.due_at, b.saved, a.name) < std::tie(b.due, b.due_at, a.saved, b.name);
}

}  // namespace orthema
