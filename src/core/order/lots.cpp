#include "core/order/lots.h"

#include <algorithm>

#include "core/order/edit.h"
#include "core/order/pieces.h"
#include "core/order/rules.h"

namespace orthema {

namespace {

/// Lines that were parted and have become alike stand together again.
void join_alike(Order& order) {
    std::vector<OrderLine> out;
    for (const OrderLine& l : order.lines.all()) {
        const auto same = std::find_if(out.begin(), out.end(), [&](const OrderLine& o) {
            return run_of(o) == run_of(l) && o.size == l.size && o.note == l.note &&
                   (o.first + o.quantity == l.first || l.first + l.quantity == o.first);
        });
        if (same != out.end() && l.lot.empty()) {
            same->first = std::min(same->first, l.first);
            same->quantity += l.quantity;
        } else
            out.push_back(l);
    }
    order.lines = std::move(out);
}

}  // namespace

Order with_lot_parted(const Order& given, const RunKey& run, const Parting& parting, RunKey* made) {
    const Order order = numbered(given);
    Order out = order;
    Lot lot;
    lot.id = fresh_id(parting.name.empty() ? "lot" : parting.name, order.lots);
    lot.name = parting.name.empty() ? "lot " + std::to_string(order.lots.size() + 2) : parting.name;
    std::vector<OrderLine> lines;
    int moved = 0;
    std::vector<SizeCount> wanted = parting.pieces;
    for (const OrderLine& line : order.lines.all()) {
        OrderLine stays = line;
        if (run_of(line) == run && (parting.note.empty() || line.note == parting.note))
            for (SizeCount& w : wanted) {
                if (w.size != line.size || w.quantity <= 0) continue;
                OrderLine goes = line;
                goes.quantity = std::min(w.quantity, stays.quantity);
                goes.lot = lot.id;
                stays.quantity -= goes.quantity;
                w.quantity -= goes.quantity;
                goes.first = stays.first + stays.quantity;
                moved += goes.quantity;
                if (goes.quantity > 0) lines.push_back(std::move(goes));
            }
        if (stays.quantity > 0 || line.quantity <= 0) lines.push_back(std::move(stays));
    }
    if (moved == 0 || moved == garments_in(order, run)) return given;
    out.lines = std::move(lines);
    out.lots.push_back(lot);
    const RunKey key{run.style, run.colour, lot.id, run.job};
    for (const Decoration& d : order.decorations) {
        if (d.run != run) continue;
        Decoration copy = d;
        copy.id = fresh_id(d.id + " " + lot.id, out.decorations);
        copy.run = key;
        out.decorations.push_back(std::move(copy));
    }
    if (made != nullptr) *made = key;
    return out;
}

Order with_lots_by_note(const Order& order, const RunKey& run) {
    std::vector<std::string> notes;
    for (const OrderLine& l : order.lines.all())
        if (run_of(l) == run && !l.note.empty() && std::find(notes.begin(), notes.end(), l.note) == notes.end()) notes.push_back(l.note);
    Order out = order;
    const bool unnamed = std::any_of(order.lines.all().begin(), order.lines.all().end(),
                                     [&](const OrderLine& l) { return run_of(l) == run && l.note.empty(); });
    for (std::size_t i = unnamed ? 0 : 1; i < notes.size(); ++i) out = with_lot_parted(out, run, {notes[i], counts_of(out, run), notes[i]});
    return out;
}

Order with_lots_by_piece(const Order& order, const RunKey& run) {
    Order out = order;
    int number = 2;
    while (garments_in(out, run) > 1)
        // the first piece stays; the last size goes first so that it is that of the smallest size
        out = with_lot_parted(out, run, {std::to_string(number++), {{counts_of(out, run).back().size, 1}}});
    return out;
}

Order with_lot_joined(const Order& order, const RunKey& run) {
    if (run.lot.empty()) return order;
    Order out = numbered(order);
    for (OrderLine& l : out.lines.own())
        if (run_of(l) == run) l.lot.clear();
    std::erase_if(out.decorations, [&](const Decoration& d) { return d.run == run; });
    std::erase_if(out.lots, [&](const Lot& l) { return l.id == run.lot; });
    join_alike(out);
    return followed(std::move(out));
}

Order with_lot_named(const Order& order, const std::string& lot, const std::string& name) {
    Order out = order;
    for (Lot& l : out.lots)
        if (l.id == lot) l.name = name;
    return out;
}

}  // namespace orthema
