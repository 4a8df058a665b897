#include "core/costing/price.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <tuple>

#include "core/order/rules.h"
#include "core/transfers/choices.h"

namespace orthema {

namespace {

/// What one copy of each transfer costs in film, laid as it is; by the medium's price and the usual fill where it is not laid.
std::map<std::string, double> film_of_copies(const Order& order, const TransferSet& set, const SheetPlan& sheets) {
    std::map<std::string, double> sum, out;
    std::map<std::string, int> laid;
    const auto known = transfers_by_id(set);
    for (const MediumPlan& m : sheets.media) {
        const Medium* medium = find_medium(order, m.medium);
        if (medium == nullptr || m.stale) continue;
        each_copy_cost(*medium, m, known, [&](const PlacedCopy& c, double, double cost) {
            sum[c.transfer] += cost;
            ++laid[c.transfer];
        });
    }
    for (const Transfer& t : set.transfers) {
        if (laid[t.id] > 0) {
            out[t.id] = sum[t.id] / laid[t.id];
        } else if (const Medium* medium = find_medium(order, t.medium)) {
            out[t.id] = area_price(*medium) * area(t.contour) / usual_fill;
        }
    }
    return out;
}

double ink_of(const Order& order, const Transfer& t) {
    const Medium* medium = find_medium(order, t.medium);
    const Method* method = medium == nullptr ? nullptr : find_method(order, medium->method);
    return method == nullptr || !t.printed ? 0 : method->ink_cost * area(t.shape) / 1e4;
}

/// The transfers that one piece of this size takes for a decoration.
std::vector<const Transfer*> transfers_for(const TransferSet& set, const Decoration& d, const std::string& size) {
    const MakingOf* making = find_making(set, d.id, size);
    return making == nullptr ? std::vector<const Transfer*>{} : pieces_of(set, *making);
}

double step_off(const Pricing& pricing, int pieces) {
    int best = 0;
    double off = 0;
    for (const QuantityStep& s : pricing.steps)
        if (pieces >= s.from && s.from >= best) {
            best = s.from;
            off = s.off;
        }
    return off / 100;
}

/// The price of one by the shop's own steps.
double by_steps(const Order& order, const Pricing& pricing, const LinePrice& line, const PieceCost& prints_alone, int of_all) {
    double out = line.cost.blank * (1 + pricing.on_blank / 100);
    bool unnamed = false;
    for (const Decoration& d : order.decorations) {
        if (d.run != line.run) continue;
        const auto price =
            std::find_if(pricing.prints.begin(), pricing.prints.end(), [&](const LocationPrice& p) { return p.location == d.location; });
        if (price == pricing.prints.end())
            unnamed = true;
        else
            out += price->price;
    }
    if (unnamed) out += prints_alone.total() / std::max(0.05, 1 - pricing.margin / 100);
    return out * (1 - step_off(pricing, of_all));
}

}  // namespace

Pence Quote::before_tax() const {
    Pence out = set_up;
    for (const LinePrice& l : lines) out += l.total();
    return out;
}

int Quote::pieces() const {
    int n = 0;
    for (const LinePrice& l : lines) n += l.pieces;
    return n;
}

double Quote::margin() const {
    const double price = static_cast<double>(before_tax()) / 100;
    return price > 0 ? (price - cost) / price : 0;
}

Quote quote_of(const Order& order, const TransferSet& set, const SheetPlan& sheets, const PressPlan& plan,
               const std::map<std::string, double>& spoiled, const std::string& job) {
    Quote out;
    const Job* of_gang = find_job(order, job);
    const Pricing& pricing = of_gang != nullptr && of_gang->own ? of_gang->own->pricing : order.pricing;
    const auto film = film_of_copies(order, set, sheets);
    // seconds by hand at the loads of each design and size, for one piece; and what the whole run takes beside
    std::map<std::pair<std::string, std::string>, std::pair<double, int>> hand;
    double by_hand = 0;
    for (const Load& load : plan.loads) {
        double seconds = 0;
        int pieces = 0;
        for (const int t : load.tasks)
            for (const Phase& p : plan.shop.tasks[static_cast<std::size_t>(t)].phases) seconds += p.hand ? p.seconds : 0;
        for (const LoadPart& p : load.parts) pieces += p.pieces;
        by_hand += seconds;
        for (const LoadPart& p : load.parts) {
            auto& [sum, n] = hand[{p.decoration, p.size}];
            sum += seconds * p.pieces / std::max(1, pieces);
            n += p.pieces;
        }
    }
    const double second = order.hourly / 3600;
    const double beside = std::max(0.0, plan.shop.hands * plan.schedule.end - by_hand) * second;
    int all_prints = 0;  // pieces × designs, of all jobs
    for (const auto& [of, sum] : hand) all_prints += sum.second;
    std::set<std::string> arts;
    int of_all = 0;
    for (const OrderLine& l : order.lines.all()) {
        if (!job.empty() && l.job != job) continue;
        of_all += l.quantity;
        const RunKey run = run_of(l);
        const auto same =
            std::find_if(out.lines.begin(), out.lines.end(), [&](const LinePrice& p) { return p.run == run && p.size == l.size; });
        if (same != out.lines.end()) {
            same->pieces += l.quantity;
            continue;
        }
        LinePrice line{run, l.size, l.quantity, {}, 0};
        if (const BlankStyle* style = find_style(order, l.style)) line.cost.blank = style->price;
        if (const auto share = spoiled.find(l.style); share != spoiled.end()) line.cost.spoilage += share->second * line.cost.blank;
        out.lines.push_back(std::move(line));
    }
    for (LinePrice& line : out.lines) {
        for (const Decoration& d : order.decorations) {
            if (d.run != line.run) continue;
            arts.insert(d.art);
            for (const Transfer* t : transfers_for(set, d, line.size)) {
                const auto laid = film.find(t->id);
                const double one = laid == film.end() ? 0 : laid->second, ink = ink_of(order, *t);
                line.cost.film += one;
                line.cost.ink += ink;
                if (t->quantity > 0) line.cost.spoilage += (one + ink) * t->spares / t->quantity;
            }
            if (const auto h = hand.find({d.id, line.size}); h != hand.end() && h->second.second > 0) {
                line.cost.work += h->second.first / h->second.second * second;
                if (all_prints > 0) line.cost.set_up += beside / all_prints;
            }
        }
        PieceCost prints = line.cost;
        prints.blank = 0;
        const double price = pricing.by_steps ? by_steps(order, pricing, line, prints, of_all)
                                              : line.cost.total() / std::max(0.05, 1 - pricing.margin / 100);
        line.each = std::llround(100 * price);
        out.cost += line.cost.total() * line.pieces;
    }
    out.designs = static_cast<int>(arts.size());
    out.set_up = std::llround(100 * pricing.set_up) * out.designs;
    out.tax = std::llround(static_cast<double>(out.before_tax()) * pricing.tax / 100);
    return out;
}

std::vector<Otherwise> otherwise(const Order& order, const FitPlan& plan, const ArtFactsById& facts) {
    std::vector<Otherwise> out;
    Order plain = order;
    plain.layouts.clear();
    plain.reprints.clear();
    out.push_back({"as it is", plain});
    const auto add = [&](const std::string& name, Order other) {
        other.press_run.accepted = {};
        other.press_run.pins.clear();
        if (!(other == plain)) out.push_back({name, std::move(other)});
    };
    const std::pair<SizingSchool, const char*> schools[] = {{SizingSchool::one_size, "one width for all sizes"},
                                                            {SizingSchool::bands, "bands"},
                                                            {SizingSchool::graded, "each size its own width"}};
    for (const auto& [school, name] : schools) {
        Order other = plain;
        for (DesignRule& r : other.rules) r.sizing.school = school;
        for (Decoration& d : other.decorations) {
            d.sizing.school = school;
            d.sizing.band_count = 0;
            d.sizing.band_starts.clear();
            d.sizing.shared.clear();
        }
        if (std::any_of(order.decorations.begin(), order.decorations.end(),
                        [s = school](const Decoration& d) { return d.sizing.school != s; }))
            add(name, std::move(other));
    }
    // the other media that every design on the busiest one may lie on
    std::map<std::string, int> busy;
    for (const Decoration& d : order.decorations) ++busy[d.medium];
    if (!busy.empty()) {
        const std::string from =
            std::max_element(busy.begin(), busy.end(), [](const auto& a, const auto& b) { return a.second < b.second; })->first;
        for (const Medium& medium : order.media.all()) {
            if (medium.id == from) continue;
            Order other = plain;
            int moved = 0;
            for (Decoration& d : other.decorations) {
                if (d.medium != from) continue;
                const auto art = facts.find(d.art);
                const DecorationFit* fit = find_fit(plan, d.id);
                const Method* method = find_method(order, medium.method);
                if (art == facts.end() || fit == nullptr || method == nullptr) continue;
                const bool same_method = method_of(order, d) == method;
                if (!same_method && !against(*method, method_case(order, d, art->second, *fit)).empty()) continue;
                if (fit->sizes.empty() || std::any_of(fit->sizes.begin(), fit->sizes.end(), [&](const SizeFit& s) {
                        return s.width > medium.width.mm() - 2 * medium.margin.mm();
                    }))
                    continue;
                d = with_medium(order, d, medium.id);
                ++moved;
            }
            if (moved == busy[from]) add("on " + medium.name, std::move(other));
        }
    }
    Order twice = plain, half = plain;
    for (OrderLine& l : twice.lines.own()) l.quantity *= 2;
    for (OrderLine& l : half.lines.own()) l.quantity = (l.quantity + 1) / 2;
    add("twice as many", std::move(twice));
    add("half as many", std::move(half));
    return out;
}

}  // namespace orthema
