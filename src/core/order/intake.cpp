#include "core/order/intake.h"

#include <algorithm>
#include <map>
#include <set>
#include <tuple>

#include "core/order/edit.h"
#include "core/order/roster.h"

namespace orthema {

namespace {

using Key = std::tuple<std::string, std::string, std::string, std::string>;  // number or name, blank, colour, size

std::string whose(const OrderLine& l) {
    const std::string person = is_person(l) ? "person " + l.number + " " + l.name + " " : "";
    return person + (l.ref.empty() ? "name " + l.note : "number " + l.ref);
}
Key key_of(const OrderLine& l) { return {whose(l), l.style, l.colour, l.size}; }

Order brought_up_to_date(const Order& order, const std::vector<OrderLine>& list) {
    std::map<Key, int> wanted;  // a list may have a garment of one order in several rows
    std::map<Key, const OrderLine*> row;
    bool numbered = false;
    for (const OrderLine& l : list) {
        wanted[key_of(l)] += l.quantity;
        row.try_emplace(key_of(l), &l);
        numbered = numbered || !l.ref.empty();
    }
    std::map<Key, int> lacking = wanted;  // what the lines that are there do not have yet; negative: have too much
    for (const OrderLine& l : order.lines.all())
        if (const auto at = lacking.find(key_of(l)); at != lacking.end()) at->second -= l.quantity;
    std::vector<OrderLine> kept, fresh;
    std::set<Key> met;
    for (const OrderLine& l : order.lines.all()) {
        const auto at = wanted.find(key_of(l));
        // a numbered line that the newer list lacks was taken back; what no list brought stays
        if (at != wanted.end() || l.ref.empty() || !numbered) kept.push_back(l);
        if (at == wanted.end()) continue;
        kept.back().note = row.at(at->first)->note;
        if (met.insert(at->first).second && lacking.at(at->first) > 0) kept.back().quantity += lacking.at(at->first);
    }
    for (auto l = kept.rbegin(); l != kept.rend(); ++l)  // of several lots the last gives first
        if (const auto at = lacking.find(key_of(*l)); at != lacking.end() && at->second < 0) {
            const int gives = std::min(l->quantity, -at->second);
            l->quantity -= gives;
            at->second += gives;
        }
    std::erase_if(kept, [](const OrderLine& l) { return l.quantity <= 0; });
    for (const OrderLine& l : list)
        if (met.insert(key_of(l)).second) {
            fresh.push_back(l);
            fresh.back().quantity = wanted.at(key_of(l));
        }
    Order out = order;
    out.lines.own() = std::move(kept);
    return with_lines(out, fresh);
}

}  // namespace

Order with_list(const Order& order, const std::vector<OrderLine>& list, Intake how) {
    switch (how) {
    case Intake::add: return with_lines(order, list);
    case Intake::replace: {
        Order out = order;
        out.lines.own().clear();
        out.lots.clear();
        std::erase_if(out.decorations, [](const Decoration& d) { return !d.run.lot.empty(); });
        return with_lines(out, list);
    }
    case Intake::update: break;
    }
    return brought_up_to_date(order, list);
}

std::vector<CountChange> list_changes(const Order& before, const Order& after) {
    std::map<std::tuple<std::string, std::string, std::string>, std::pair<int, int>> counts;
    for (const OrderLine& l : before.lines.all()) counts[{l.style, l.colour, l.size}].first += l.quantity;
    for (const OrderLine& l : after.lines.all()) counts[{l.style, l.colour, l.size}].second += l.quantity;
    std::vector<CountChange> out;
    for (const auto& [what, n] : counts)
        if (n.first != n.second) out.push_back({{std::get<0>(what), std::get<1>(what)}, std::get<2>(what), n.first, n.second});
    return out;
}

}  // namespace orthema
