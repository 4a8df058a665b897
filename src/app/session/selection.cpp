#include "app/session/selection.h"

#include <algorithm>

#include "core/order/roster.h"

namespace orthema::app {

std::vector<RunKey> runs_shown(const Order& order, const Selection& selection) {
    std::vector<RunKey> out = runs_of(order);
    std::erase_if(out, [&](const RunKey& run) { return !selection.shows(run.job); });
    return out;
}

Selection tidied(Selection s, const Order& order, const TransferSet& set) {
    if (find_job(order, s.job) == nullptr) s.job.clear();
    const auto runs = runs_shown(order, s);
    if (const Decoration* d = find_decoration(order, s.decoration); d != nullptr && d->run != s.run) {
        if (std::find(runs.begin(), runs.end(), s.run) == runs.end()) s.run = d->run;
    }
    if (std::find(runs.begin(), runs.end(), s.run) == runs.end()) {
        s.run = runs.empty() ? RunKey{} : runs.front();
        if (!runs.empty()) s.style = s.run.style;
    }
    const Decoration* d = find_decoration(order, s.decoration);
    if (d == nullptr || d->run != s.run) {
        s.decoration.clear();
        for (const Decoration& other : order.decorations)
            if (other.run == s.run) {
                s.decoration = other.id;
                break;
            }
    }
    if (find_style(order, s.style) == nullptr)
        s.style = !s.run.style.empty() ? s.run.style : order.styles.empty() ? "" : order.styles.front().id;
    const BlankStyle* style = find_style(order, s.run.style);
    if (style == nullptr) style = find_style(order, s.style);
    if (style != nullptr && size_index(*style, s.size) < 0) {
        const auto counts = counts_of(order, s.run);
        s.size = !counts.empty() ? counts[counts.size() / 2].size : style->sizes.empty() ? "" : style->sizes[style->sizes.size() / 2];
    }
    if (style != nullptr) std::erase_if(s.also, [&](const std::string& size) { return size == s.size || size_index(*style, size) < 0; });
    if (const auto& lines = order.lines.all(); s.person >= 0) {
        const auto at = static_cast<std::size_t>(s.person);
        if (at >= lines.size() || !is_person(lines[at]) || run_of(lines[at]) != s.run) s.person = -1;
    }
    if (find_art(order, s.art) == nullptr) s.art = order.art.empty() ? "" : order.art.front().id;
    const auto used = [&](const std::string& medium) {
        return std::any_of(set.transfers.begin(), set.transfers.end(), [&](const Transfer& t) { return t.medium == medium; });
    };
    if (!used(s.medium)) {
        for (const Transfer& t : set.transfers)
            if (find_medium(order, t.medium) != nullptr) {
                s.medium = t.medium;
                break;
            }
        if (find_medium(order, s.medium) == nullptr) s.medium = order.media.empty() ? "" : order.media.front().id;
    }
    return s;
}

}  // namespace orthema::app
