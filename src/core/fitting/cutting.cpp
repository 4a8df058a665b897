#include "core/fitting/cutting.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <numeric>
#include <set>

namespace orthema {

namespace {

struct Use {
    std::size_t lot = 0, size = 0;
};

/// One size of one blank, in all lots that have it.
struct Member {
    std::size_t blank = 0;
    int rank = 0;  ///< in the blank's run
    std::string size;
    BandMember figures;
    std::vector<Use> uses;
};

using Band = std::vector<std::size_t>;  ///< of members

struct Cut {
    std::vector<Band> bands;
    std::vector<std::size_t> order;  ///< of the members, as they were cut
};

class BandCutter {
public:
    explicit BandCutter(const std::vector<CutLot>& lots) : lots_(lots), rule_(lots.front().decoration->sizing), step_(rule_.step.mm()) {
        for (std::size_t l = 0; l < lots.size(); ++l) {
            const std::string& id = lots[l].style->id;
            const auto at = std::find(blanks_.begin(), blanks_.end(), id);
            const auto blank = static_cast<std::size_t>(at - blanks_.begin());
            if (at == blanks_.end()) {
                blanks_.push_back(id);
                names_.push_back(lots[l].style->name);
                ranks_.emplace_back();
                for (std::size_t k = 0; k < lots[l].style->sizes.size(); ++k) ranks_.back()[lots[l].style->sizes[k]] = static_cast<int>(k);
            }
            for (std::size_t i = 0; i < lots[l].fit->sizes.size(); ++i) take_in(l, i, blank);
        }
        std::sort(members_.begin(), members_.end(),
                  [](const Member& a, const Member& b) { return std::pair(a.blank, a.rank) < std::pair(b.blank, b.rank); });
    }

    void run() {
        if (members_.empty()) return;
        const Cut apart = blank_by_blank();
        WidthReport report{
            static_cast<int>(lots_.size()), static_cast<int>(blanks_.size()), widths(apart), widths(apart), cost(apart), cost(apart)};
        if (blanks_.size() < 2 || rule_.school == SizingSchool::graded) return assign(apart, report, false);
        const Cut together = all_together();
        report.widths = widths(together);
        report.cost = cost(together);
        const bool by_price = rule_.school == SizingSchool::bands && rule_.band_count == 0 && rule_.band_starts.empty();
        const auto dear = [&](double cost, int widths) { return cost + rule_.price * widths; };
        const double gain = dear(report.cost_apart, report.widths_apart) - dear(report.cost, report.widths);
        const bool fewer =
            by_price && rule_.within <= 0 ? report.widths <= report.widths_apart && gain > 1e-9 : report.widths < report.widths_apart;
        if (!fewer && rule_.school != SizingSchool::one_size) {
            report.widths = report.widths_apart;
            report.cost = report.cost_apart;
            return assign(apart, report, false);
        }
        report.together = true;
        assign(together, report, true);
    }

private:
    void take_in(std::size_t lot, std::size_t i, std::size_t blank) {
        SizeFit& s = lots_[lot].fit->sizes[i];
        const SizePin* pin = find_pin(*lots_[lot].decoration, s.size);
        if (pin != nullptr && pin->width) {
            s.width = pin->width->mm();
            s.limited_by = {Binding::pinned};
            return;
        }
        const auto [at, fresh] = known_.try_emplace({blank, s.size}, members_.size());
        if (fresh) {
            members_.push_back({blank, ranks_[blank].at(s.size), s.size, {s.ideal, s.limit, s.quantity}, {{lot, i}}});
            return;
        }
        Member& m = members_[at->second];
        m.figures.limit_mm = std::min(m.figures.limit_mm, s.limit);
        m.figures.quantity += s.quantity;
        m.uses.push_back({lot, i});
    }

    [[nodiscard]] std::vector<BandMember> figures(const std::vector<std::size_t>& of) const {
        std::vector<BandMember> out;
        out.reserve(of.size());
        for (const std::size_t m : of) out.push_back(members_[m].figures);
        return out;
    }

    [[nodiscard]] double width(const Band& band) const {
        double least = std::numeric_limits<double>::infinity();
        for (const std::size_t m : band) least = std::min({least, members_[m].figures.ideal_mm, members_[m].figures.limit_mm});
        return rounded_down(least, step_);
    }

    [[nodiscard]] int widths(const Cut& cut) const {
        std::set<long> out;
        for (const Band& b : cut.bands) out.insert(std::lround(width(b) * 10));
        return static_cast<int>(out.size());
    }

    [[nodiscard]] double cost(const Cut& cut) const {
        double sum = 0;
        for (const Band& b : cut.bands)
            for (const std::size_t m : b) {
                const double lack = (members_[m].figures.ideal_mm - width(b)) / members_[m].figures.ideal_mm;
                sum += members_[m].figures.quantity * lack * lack;
            }
        return sum;
    }

    /// Contiguous bands of the members in that order.
    void cut_in(const std::vector<std::size_t>& order, Cut& into) const {
        const int n = static_cast<int>(order.size());
        std::vector<int> starts;
        if (rule_.school == SizingSchool::one_size) {
            starts = {0};
        } else if (rule_.school == SizingSchool::graded) {
            starts.resize(order.size());
            std::iota(starts.begin(), starts.end(), 0);
        } else {
            const BandCosts costs(figures(order), step_);
            starts = rule_.band_count > 0 ? optimal_partitions(costs, std::min(rule_.band_count, n)).back().starts
                     : rule_.within > 0   ? within_partition(costs, rule_.within).starts
                                          : best_partition(costs, rule_.price).starts;
        }
        for (std::size_t b = 0; b < starts.size(); ++b) {
            const int last = b + 1 < starts.size() ? starts[b + 1] : n;
            into.bands.emplace_back(order.begin() + starts[b], order.begin() + last);
        }
        into.order.insert(into.order.end(), order.begin(), order.end());
    }

    /// Members whose nearest named size at or below them is the same are one band; what a blank lacks is passed over.
    [[nodiscard]] Cut by_hand(const std::vector<std::size_t>& order) const {
        std::vector<std::string> keys;
        Cut out;
        out.order = order;
        for (const std::size_t m : order) {
            const BlankStyle& style = *lots_[members_[m].uses.front().lot].style;
            std::string key;
            int nearest = -1;
            for (const std::string& start : rule_.band_starts)
                if (const int at = size_index(style, start); at <= members_[m].rank && at > nearest) {
                    nearest = at;
                    key = start;
                }
            // naming the smallest size alone says that there is one band for all
            if (nearest == 0) key.clear();
            const auto known = std::find(keys.begin(), keys.end(), key);
            if (known == keys.end()) {
                keys.push_back(key);
                out.bands.push_back({m});
            } else {
                out.bands[static_cast<std::size_t>(known - keys.begin())].push_back(m);
            }
        }
        return out;
    }

    [[nodiscard]] bool hand_cut() const { return rule_.school == SizingSchool::bands && !rule_.band_starts.empty(); }

    [[nodiscard]] Cut blank_by_blank() const {
        Cut out;
        for (std::size_t b = 0; b < blanks_.size(); ++b) {
            std::vector<std::size_t> order;
            for (std::size_t m = 0; m < members_.size(); ++m)
                if (members_[m].blank == b) order.push_back(m);
            if (order.empty()) continue;
            if (hand_cut()) {
                const Cut one = by_hand(order);
                out.bands.insert(out.bands.end(), one.bands.begin(), one.bands.end());
                out.order.insert(out.order.end(), order.begin(), order.end());
            } else {
                cut_in(order, out);
            }
        }
        return out;
    }

    [[nodiscard]] Cut all_together() const {
        std::vector<std::size_t> order(members_.size());
        std::iota(order.begin(), order.end(), 0);
        std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
            const BandMember &x = members_[a].figures, &y = members_[b].figures;
            return std::pair(x.ideal_mm, x.limit_mm) < std::pair(y.ideal_mm, y.limit_mm);
        });
        if (hand_cut()) return by_hand(order);
        Cut out;
        cut_in(order, out);
        return out;
    }

    void assign(const Cut& cut, const WidthReport& report, bool together) {
        // bands of each lot in the order of its sizes
        std::vector<std::vector<std::size_t>> band_at(lots_.size());
        for (std::size_t l = 0; l < lots_.size(); ++l) band_at[l].assign(lots_[l].fit->sizes.size(), cut.bands.size());
        for (std::size_t b = 0; b < cut.bands.size(); ++b)
            for (const std::size_t m : cut.bands[b])
                for (const Use& u : members_[m].uses) band_at[u.lot][u.size] = b;
        for (std::size_t l = 0; l < lots_.size(); ++l) {
            DecorationFit& fit = *lots_[l].fit;
            fit.cut = report;
            for (const std::size_t m : cut.order)
                if (together || blanks_[members_[m].blank] == lots_[l].style->id) fit.cut_from.push_back(members_[m].figures);
            std::size_t last_band = cut.bands.size();
            for (std::size_t i = 0; i < fit.sizes.size(); ++i) {
                const std::size_t b = band_at[l][i];
                if (b == cut.bands.size()) continue;  // pinned
                if (b != last_band) {
                    fit.bands.push_back(begun(cut.bands[b], static_cast<int>(i), fit.sizes[i].size, together));
                    last_band = b;
                }
                fit.bands.back().last = static_cast<int>(i);
                fit.bands.back().quantity += fit.sizes[i].quantity;
                say_width(fit.sizes[i], fit.bands.back(), static_cast<int>(fit.bands.size()) - 1);
            }
        }
    }

    [[nodiscard]] BandFit begun(const Band& band, int at, const std::string& size, bool together) const {
        BandFit out;
        out.first = at;
        out.width = width(band);
        double least = std::numeric_limits<double>::infinity();
        for (const std::size_t m : band) {
            const double cap = std::min(members_[m].figures.ideal_mm, members_[m].figures.limit_mm);
            if (cap >= least) continue;
            least = cap;
            out.set_by = members_[m].size;
            if (together) out.set_by_blank = names_[members_[m].blank];
        }
        for (const SharedWidth& w : rule_.shared)
            if (w.first == size && w.width.mm() <= out.width + 1e-9) {
                out.shared = w.width.mm() < out.width - 1e-9;
                out.width = w.width.mm();
            }
        return out;
    }

    void say_width(SizeFit& s, const BandFit& band, int index) const {
        s.band = index;
        s.width = band.width;
        const double own = rounded_down(std::min(s.ideal, s.limit), step_);
        if (band.shared)
            s.limited_by = {Binding::shared};
        else if (own > s.width + 1e-9)
            s.limited_by = {rule_.school == SizingSchool::one_size ? Binding::smallest : Binding::band,
                            (band.set_by_blank.empty() ? "" : band.set_by_blank + " ") + band.set_by};
        else
            s.limited_by = s.ideal <= s.limit ? Bound{Binding::ideal} : s.limit_by;
    }

    const std::vector<CutLot>& lots_;
    const SizingRule& rule_;
    double step_;
    std::vector<std::string> blanks_, names_;
    std::vector<std::map<std::string, int>> ranks_;  ///< of each blank's sizes
    std::map<std::pair<std::size_t, std::string>, std::size_t> known_;
    std::vector<Member> members_;
};

}  // namespace

void cut_widths(const std::vector<CutLot>& lots) {
    if (!lots.empty()) BandCutter(lots).run();
}

}  // namespace orthema
