// What the programs that write demo orders share: an order of the demo's shop with nothing in it yet, and settling it.
#pragma once

#include "core/order/edit.h"
#include "core/sheets/lay_out.h"
#include "core/transfers/transfers.h"

namespace orthema {

/// The demo's blanks, media, presses and methods under another job.
inline Order bare_order(const Order& demo, const std::string& job) {
    Order o = begun_like(demo, job);
    o.lines.clear();
    o.lots.clear();
    o.art.clear();
    o.rules.clear();
    o.decorations.clear();
    o.trials.clear();
    o.corrections.clear();
    o.press_run = {};
    o.press_run.hands = 2;
    return o;
}

/// With each medium settled for so long.
inline Order settled(const Order& order, const TransferSet& set, double seconds) {
    Order out = order;
    for (const Medium& m : order.media) {
        bool any = false;
        for (const Transfer& t : set.transfers) any = any || t.medium == m.id;
        if (!any) continue;
        NestOptions options;
        options.seconds = seconds;
        if (auto laid = lay_out(m, set, layout_of(out, m.id), options)) out = with_layout(out, m.id, laid->sheets);
    }
    return out;
}

}  // namespace orthema
