#include "core/records/sampling.h"

#include <algorithm>
#include <set>

#include "core/records/statistics.h"

namespace orthema {

int pieces_to_see(const SamplingAim& aim, double spread) {
    int n = 2;
    while (n < aim.run && power_of_t(n, aim.sees / std::max(1e-6, spread)) < aim.chance) ++n;
    return n;
}

int every_nth(const SamplingAim& aim, double spread) { return std::max(1, aim.run / pieces_to_see(aim, spread)); }

std::vector<char> to_measure(const std::vector<SamplingPiece>& pieces, const SamplingRule& rule, double spread) {
    std::vector<char> out(pieces.size(), 0);
    if (!rule.on) return out;
    const int every = rule.every > 0 ? rule.every : every_nth(rule.aim, spread);
    std::set<std::string> sizes;
    int since = 0;
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        const SamplingPiece& p = pieces[i];
        // a press's own row of pieces: others pressed between them change nothing on it
        const SamplingPiece* before = nullptr;
        for (std::size_t k = i; k-- > 0 && before == nullptr;)
            if (pieces[k].press == p.press) before = &pieces[k];
        const bool first = sizes.insert(p.design + '\n' + p.size).second;
        const bool changed = before == nullptr || before->platen != p.platen || before->hands != p.hands;
        ++since;
        if ((rule.first_of_size && first) || (rule.after_changes && changed) || since >= every || (rule.last && i + 1 == pieces.size())) {
            out[i] = 1;
            since = 0;
        }
    }
    return out;
}

}  // namespace orthema
