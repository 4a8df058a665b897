#include "core/costing/costs.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>

#include "core/base/units.h"
#include "core/order/gang.h"

namespace orthema {

std::vector<Pence> parted(Pence total, const std::vector<double>& weights) {
    std::vector<Pence> out(weights.size(), 0);
    if (weights.empty()) return out;
    const double sum = std::accumulate(weights.begin(), weights.end(), 0.0);
    if (!(sum > 0)) {
        out.front() = total;
        return out;
    }
    std::vector<std::pair<double, std::size_t>> rest;
    Pence given = 0;
    for (std::size_t i = 0; i < weights.size(); ++i) {
        const double exact = static_cast<double>(total) * (weights[i] / sum);
        out[i] = static_cast<Pence>(std::floor(exact));
        given += out[i];
        rest.emplace_back(std::floor(exact) - exact, i);  // the largest remainder first, then in their order
    }
    std::sort(rest.begin(), rest.end());
    for (std::size_t k = 0; given < total; ++k, ++given) ++out[rest[k % rest.size()].second];
    for (std::size_t k = rest.size(); given > total; --given) --out[rest[--k % rest.size()].second];
    return out;
}

std::string pence_text(Pence pence, const std::string& currency, const Reading& reading) {
    return money_text(static_cast<double>(pence) / 100, currency, reading);
}

void each_copy_cost(const Medium& medium, const MediumPlan& plan, const std::map<std::string, const Transfer*>& transfers,
                    const std::function<void(const PlacedCopy& copy, double area, double cost)>& see) {
    for (const Sheet& s : plan.sheets) {
        const double price = price_of(bed_of(medium, s.stock), s.length);
        std::vector<std::pair<const PlacedCopy*, double>> areas;
        double all = 0;
        for (const PlacedCopy& c : s.copies) {
            const auto t = transfers.find(c.transfer);
            if (t == transfers.end()) continue;
            areas.emplace_back(&c, area(t->second->contour));
            all += areas.back().second;
        }
        for (const auto& [copy, a] : areas) see(*copy, a, all > 0 ? price * a / all : 0);
    }
}

Costs costs_of(const Order& order, const TransferSet& set, const SheetPlan& sheets, const PressPlan& plan) {
    Costs out;
    std::map<std::string, std::size_t> at;
    const auto of = [&](const std::string& job) -> JobCost& {
        const auto [found, fresh] = at.try_emplace(job, out.jobs.size());
        if (fresh) out.jobs.push_back({job});
        return out.jobs[found->second];
    };
    for (const Job& j : order.jobs.all()) of(j.id);
    if (!is_gang(order)) of("");
    std::map<std::string, double> blanks;
    for (const OrderLine& l : order.lines.all()) {
        of(l.job).pieces += l.quantity;
        if (const BlankStyle* style = find_style(order, l.style)) blanks[l.job] += style->price * l.quantity;
    }
    for (const auto& [job, sum] : blanks) {
        of(job).blanks = std::llround(100 * sum);
        out.blanks += of(job).blanks;
    }
    const auto transfers = transfers_by_id(set);
    for (const MediumPlan& m : sheets.media) {
        const CopyJobs whose(set, layout_of(order, m.medium));
        const Medium* medium = find_medium(order, m.medium);
        if (medium == nullptr) continue;
        std::map<std::string, double> share;  // of the medium's price, each sheet parted by area
        each_copy_cost(*medium, m, transfers, [&](const PlacedCopy& c, double a, double cost) {
            const std::string& job = whose.of(c.transfer, c.copy);
            of(job).film_area += a;
            share[job] += cost;
        });
        std::vector<std::string> jobs;
        std::vector<double> weights;
        for (const auto& [job, w] : share) {
            jobs.push_back(job);
            weights.push_back(w);
        }
        if (jobs.empty()) continue;
        const Pence total = std::llround(100 * m.cost);
        out.film += total;
        const std::vector<Pence> parts = parted(total, weights);
        for (std::size_t i = 0; i < jobs.size(); ++i) of(jobs[i]).film += parts[i];
    }
    for (const Load& load : plan.loads) {
        double seconds = 0;
        for (const int t : load.tasks) seconds += plan.shop.tasks[static_cast<std::size_t>(t)].seconds();
        std::map<std::string, int> pieces;
        int all = 0;
        for (const LoadPart& p : load.parts)
            if (const Decoration* d = find_decoration(order, p.decoration)) {
                pieces[d->run.job] += p.pieces;
                all += p.pieces;
            }
        for (const auto& [job, n] : pieces) of(job).seconds += seconds * n / all;
    }
    std::vector<double> weights;
    weights.reserve(out.jobs.size());
    for (const JobCost& j : out.jobs) weights.push_back(j.seconds);
    out.work = std::llround(100 * order.hourly * plan.shop.hands * plan.schedule.end / 3600);
    const std::vector<Pence> parts = parted(out.work, weights);
    for (std::size_t i = 0; i < out.jobs.size(); ++i) out.jobs[i].work = parts[i];
    return out;
}

}  // namespace orthema
