// What one pair of hands cannot use. A task touches its press by hand, leaves it closed for a while, and touches it again at a
// given second; only touches of other tasks that lie wholly between fill that while. Two tasks can lie beside each other in time
// only by such shifts at which none of their touches meet: whether one's touch can lie in the other's wait at all, and whether two
// waits can ever run at once, is worked out pair by pair. Waits of which no two run at once add up; each is filled by what fits
// at best, rare touches at a price, so that they do not count as filling every wait.
#include "core/pressing/stood_before.h"

#include <algorithm>
#include <functional>
#include <map>
#include <set>
#include <tuple>

#include "core/pressing/placer.h"

namespace orthema {

namespace {

constexpr std::size_t most_kinds = 120;  // of tasks; with more there is no answer in reasonable time

struct Span {
    double from = 0, to = 0;
    [[nodiscard]] double length() const { return to - from; }
};

/// Tasks of the same phases on the same presses.
struct Kind {
    std::vector<int> machines;
    double whole = 0;
    int count = 0;
    std::vector<Span> touches, waits;  ///< from its start; waits only between two touches
};

std::vector<Kind> kinds_of(const Workshop& shop) {
    std::map<std::pair<std::vector<int>, std::vector<double>>, std::size_t> known;
    std::vector<Kind> out;
    for (const ShopTask& t : shop.tasks) {
        const auto [it, fresh] = known.try_emplace({t.machines, signed_phases(t)}, out.size());
        if (!fresh) {
            ++out[it->second].count;
            continue;
        }
        Kind k{t.machines, t.seconds(), 1, {}, {}};
        double at = 0;
        for (const Phase& p : t.phases) {
            if (p.hand && p.seconds > 0) {
                if (!k.touches.empty() && k.touches.back().to >= at - blink)
                    k.touches.back().to = at + p.seconds;
                else
                    k.touches.push_back({at, at + p.seconds});
            }
            at += p.seconds;
        }
        for (std::size_t i = 1; i < k.touches.size(); ++i) k.waits.push_back({k.touches[i - 1].to, k.touches[i].from});
        out.push_back(std::move(k));
    }
    return out;
}

/// Whether there is a shift in [from, to] by which `b` can begin after `a`.
bool any_shift(const Kind& a, const Kind& b, double from, double to) {
    const bool one_press = a.machines.size() == 1 && a.machines == b.machines;
    for (double shift = from; shift <= to + blink;) {
        double next = shift;
        if (one_press && shift > -b.whole + blink && shift < a.whole - blink) next = a.whole;
        for (const Span& s : a.touches)
            for (const Span& t : b.touches)
                if (next > s.from - t.to + blink && next < s.to - t.from - blink) next = s.to - t.from;
        if (next <= shift) return true;
        shift = next;
    }
    return false;
}

/// Seconds by hand of the shortest change that may be wanted of a press.
double shortest_change(const Workshop& shop) {
    double least = end_of_time;
    for (std::size_t m = 0; m < shop.machines.size(); ++m) {
        const Machine& machine = shop.machines[m];
        bool platen = false, pressure = false;
        for (const ShopTask& t : shop.tasks) {
            if (std::find(t.machines.begin(), t.machines.end(), static_cast<int>(m)) == t.machines.end()) continue;
            const PressState state = t.state_on(static_cast<int>(m));
            platen = platen || state.platen != machine.now.platen;
            pressure = pressure || state.pressure != machine.now.pressure;
        }
        if (platen && machine.platen_seconds > 0) least = std::min(least, machine.platen_seconds);
        if (pressure && machine.pressure_seconds > 0) least = std::min(least, machine.pressure_seconds);
    }
    return least;
}

/// Every way to fill a wait with touches of these lengths to which none can be added: how often each.
std::vector<std::vector<int>> fillings(const std::vector<double>& lengths, double wait) {
    std::vector<std::vector<int>> out;
    std::vector<int> now(lengths.size(), 0);
    const std::function<void(std::size_t, double)> add = [&](std::size_t k, double left) {
        if (k == lengths.size()) {
            if (std::none_of(lengths.begin(), lengths.end(), [&](double l) { return l <= left + blink; })) out.push_back(now);
            return;
        }
        for (now[k] = 0;; ++now[k]) {
            const double rest = left - now[k] * lengths[k];
            if (rest < -blink) break;
            add(k + 1, rest);
        }
        now[k] = 0;
    };
    add(0, wait);
    return out;
}

}  // namespace

double stood_before(const Workshop& shop) {
    const std::vector<Kind> kinds = kinds_of(shop);
    if (kinds.size() > most_kinds) return 0;
    const double change = shortest_change(shop);  // longer than any wait that is looked at
    struct Wait {
        std::size_t kind;
        Span span;
        std::vector<double> lengths;                    ///< of touches that can lie in it
        std::vector<std::vector<std::size_t>> fillers;  ///< the touches of each length
        std::vector<std::vector<int>> ways;
    };
    struct Touch {
        std::size_t kind;
        Span span;
        double price = 0;  ///< what one is taken off for; it fills its length less this
    };
    std::vector<Touch> touches;
    std::vector<Wait> candidates, waits;
    for (std::size_t k = 0; k < kinds.size(); ++k) {
        for (const Span& t : kinds[k].touches) touches.push_back({k, t});
        for (const Span& w : kinds[k].waits)
            if (w.length() < change - blink) candidates.push_back({k, w, {}, {}, {}});
    }
    // the most frequent first; long ones, which run at the same time as most others, last
    std::stable_sort(candidates.begin(), candidates.end(), [&](const Wait& a, const Wait& b) {
        return std::pair(-kinds[a.kind].count, a.span.length()) < std::pair(-kinds[b.kind].count, b.span.length());
    });
    const auto at_once = [&](const Wait& a, const Wait& b) {
        constexpr double a_moment = 1e-4;
        if (a.kind == b.kind && kinds[a.kind].count < 2) return false;
        return any_shift(kinds[a.kind], kinds[b.kind], a.span.from - b.span.to + a_moment, a.span.to - b.span.from - a_moment);
    };
    for (const Wait& w : candidates)
        if (!at_once(w, w) && std::none_of(waits.begin(), waits.end(), [&](const Wait& o) { return at_once(w, o); })) waits.push_back(w);
    for (Wait& w : waits) {
        std::map<double, std::vector<std::size_t>> by_length;
        for (std::size_t i = 0; i < touches.size(); ++i) {
            const Touch& t = touches[i];
            if (t.span.length() > w.span.length() + blink || (t.kind == w.kind && kinds[w.kind].count < 2)) continue;
            if (any_shift(kinds[w.kind], kinds[t.kind], w.span.from - t.span.from, w.span.to - t.span.to))
                by_length[t.span.length()].push_back(i);
        }
        for (auto& [length, fillers] : by_length) {
            w.lengths.push_back(length);
            w.fillers.push_back(std::move(fillers));
        }
        // touches far shorter than the wait fill it one way or another
        if (!w.lengths.empty() && w.span.length() < 12 * w.lengths.front()) w.ways = fillings(w.lengths, w.span.length());
    }
    // By weak duality every set of prices gives a bound: a touch is taken off at its price as often as there is one, and fills a
    // wait for the rest of its length as often as the wait would have it.
    // Prices are found by going along the difference of the two, as far as it takes to what may be hoped for.
    std::vector<double> wanted(touches.size());
    const auto stood_at_these_prices = [&] {
        double stood = 0;
        std::fill(wanted.begin(), wanted.end(), 0);
        for (const Touch& t : touches) stood -= t.price * kinds[t.kind].count;
        for (const Wait& w : waits) {
            if (w.ways.empty() && !w.lengths.empty()) continue;
            std::vector<std::size_t> cheapest;
            std::vector<double> worth;
            for (std::size_t k = 0; k < w.lengths.size(); ++k) {
                cheapest.push_back(*std::min_element(w.fillers[k].begin(), w.fillers[k].end(),
                                                     [&](std::size_t a, std::size_t b) { return touches[a].price < touches[b].price; }));
                worth.push_back(std::max(0.0, w.lengths[k] - touches[cheapest.back()].price));
            }
            double filled = 0;
            const std::vector<int>* best = nullptr;
            for (const auto& way : w.ways) {
                double sum = 0;
                for (std::size_t k = 0; k < way.size(); ++k) sum += way[k] * worth[k];
                if (sum <= filled) continue;
                filled = sum;
                best = &way;
            }
            stood += (w.span.length() - filled) * kinds[w.kind].count;
            for (std::size_t k = 0; best != nullptr && k < best->size(); ++k)
                if (worth[k] > 0) wanted[cheapest[k]] += (*best)[k] * kinds[w.kind].count;
        }
        return stood;
    };
    double hope = 0, found = 0;
    for (const Wait& w : waits) hope += w.span.length() * kinds[w.kind].count;
    int since = 0;
    for (int step = 0; step < 800 && hope > 1; ++step) {
        const double now = stood_at_these_prices();
        if (now > found + 0.1 * hope) since = 0;
        found = std::max(found, now);
        if (++since > 20) {  // too much was hoped for
            hope /= 2;
            since = 0;
        }
        double far = 0;
        for (std::size_t i = 0; i < touches.size(); ++i) {
            wanted[i] -= kinds[touches[i].kind].count;
            far += wanted[i] * wanted[i];
        }
        if (far < blink) break;
        const double by = (found + hope - now) / far;
        for (std::size_t i = 0; i < touches.size(); ++i)
            touches[i].price = std::clamp(touches[i].price + by * wanted[i], 0.0, touches[i].span.length());
    }
    return found;
}

}  // namespace orthema
