#include "core/nesting/fill.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <random>

#include "core/nesting/trimmer.h"

namespace orthema {

std::vector<NestPlacement> fitted_in(const NestProblem& problem, const std::vector<Copy>& wanted, int bins, const Task& task) {
    const double cell = std::clamp(problem.width / 280.0, 0.5, 4.0);
    auto placed = GridPacker(problem, cell).pack(wanted, task, static_cast<std::size_t>(std::max(0, bins)));
    if (placed.size() < problem.locked.size()) return {};  // stopped
    std::vector<NestPlacement> out(placed.begin() + static_cast<std::ptrdiff_t>(problem.locked.size()), placed.end());
    // the grid over-covers, so this hardly ever finds anything; the last word is the exact check's
    std::vector<NestPlacement> sound = problem.locked;
    const std::size_t before = nest_faults(problem, sound, 0, false).size();
    std::vector<NestPlacement> all = sound;
    all.insert(all.end(), out.begin(), out.end());
    if (nest_faults(problem, all, 0, false).size() == before) return out;
    std::vector<NestPlacement> kept;
    for (const NestPlacement& p : out) {
        sound.push_back(p);
        if (nest_faults(problem, sound, 0, false).size() == before)
            kept.push_back(p);
        else
            sound.pop_back();
    }
    return kept;
}

std::vector<NestPlacement> fill_rest(const NestProblem& problem, const std::vector<FillOffer>& offers, int bins, bool edge_to_edge,
                                     int tries, const Task& task) {
    std::map<int, const FillOffer*> of;
    std::vector<Copy> all;
    for (const FillOffer& o : offers) {
        of[o.piece] = &o;
        for (int c = 0; c < o.most; ++c) all.push_back({o.piece, o.first_copy + c});
    }
    const auto size = [&](const Copy& c) { return area(problem.pieces[static_cast<std::size_t>(c.piece)].outline); };
    const auto worth = [&](const Copy& c) { return of.at(c.piece)->value; };
    std::mt19937 random(1);
    std::vector<NestPlacement> best;
    double most = 0;
    for (int k = 0; k < tries && !task.stopped(); ++k) {
        std::vector<Copy> order = all;
        if (k == 1)
            std::stable_sort(order.begin(), order.end(), [&](const Copy& a, const Copy& b) { return size(a) > size(b); });
        else if (k == 2)
            std::stable_sort(order.begin(), order.end(), [&](const Copy& a, const Copy& b) { return worth(a) > worth(b); });
        else {  // by worth for the area, more and more at random
            std::vector<std::pair<double, Copy>> keyed;
            keyed.reserve(order.size());
            std::map<int, double> luck;
            for (const FillOffer& o : offers)
                luck[o.piece] = k == 0 ? 1 : std::exp(1.2 * (static_cast<double>(random()) / 4294967296.0 - 0.5));
            for (const Copy& c : order) keyed.emplace_back(worth(c) / size(c) * luck[c.piece] * (k == 0 ? 1 : std::pow(size(c), 0.3)), c);
            std::stable_sort(keyed.begin(), keyed.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
            for (std::size_t i = 0; i < order.size(); ++i) order[i] = keyed[i].second;
        }
        std::vector<NestPlacement> found = fitted_in(problem, order, bins, task);
        if (edge_to_edge) {
            std::vector<NestPlacement> sound = problem.locked;
            std::vector<NestPlacement> kept;
            for (const NestPlacement& p : found) {
                sound.push_back(p);
                if (trimmable(problem, sound, 0))
                    kept.push_back(p);
                else
                    sound.pop_back();
            }
            found = std::move(kept);
        }
        double value = 0;
        for (const NestPlacement& p : found) value += of.at(p.piece)->value;
        if (value > most + 1e-12) {
            most = value;
            best = std::move(found);
        }
        if (best.size() == all.size()) break;  // there is room for all of it
    }
    // numbered on, whichever copies found room
    std::map<int, int> next;
    for (NestPlacement& p : best) p.copy = of.at(p.piece)->first_copy + next[p.piece]++;
    return best;
}

}  // namespace orthema
