#include "core/sheets/ganged.h"

#include <algorithm>
#include <map>
#include <set>

#include "core/order/gang.h"

namespace orthema {

namespace {

/// Where the copies of one job's share are among those of the transfer.
struct Span {
    const Transfer* transfer = nullptr;
    std::string as;  ///< the transfer's id where the job is alone, by the gang's names
    int from = 0, copies = 0;
    int fill_from = 0;  ///< of what fills
};

std::vector<Span> spans_of(const TransferSet& set, const MediumLayout& layout, const std::string& job) {
    std::vector<Span> out;
    for (const Transfer& t : set.transfers) {
        if (t.medium != layout.medium) continue;
        const std::vector<CopyOwner> owners = copy_owners(t, layout);
        Span span{&t, {}, 0, 0, 0};
        int at = 0;
        bool has = false;
        for (std::size_t i = 0; i < t.shares.size(); ++i) {
            if (t.shares[i].job == job) {
                has = true;
                span.as = t.shares[i].as;
                span.from = at;
                span.copies = owners[i].copies;
            }
            at += owners[i].copies;
        }
        span.fill_from = at;
        if (has) out.push_back(span);
    }
    return out;
}

/// With sheets that hold nothing taken out.
void close_up(MediumLayout& layout) {
    std::set<int> used;
    for (const PlacedCopy& c : layout.copies) used.insert(c.sheet);
    std::vector<std::string> stock;
    bool any = false;
    for (const int s : used) {
        stock.push_back(stock_of(layout.stock, s));
        any = any || !stock.back().empty();
    }
    for (PlacedCopy& c : layout.copies) c.sheet = static_cast<int>(std::distance(used.begin(), used.find(c.sheet)));
    layout.stock = any ? stock : std::vector<std::string>{};
}

/// A layout by other names.
MediumLayout named(const MediumLayout& layout, const std::map<std::string, std::string> (&names)[id_kind_count]) {
    Order one;
    one.layouts.push_back(layout);
    return with_names(std::move(one), names).layouts.all().front();
}

bool lies_before(const PlacedCopy& a, const PlacedCopy& b) { return std::tie(a.transfer, a.copy) < std::tie(b.transfer, b.copy); }

}  // namespace

Order with_job_laid(const Order& gang, const TransferSet& set, const std::string& id) {
    const Job* job = find_job(gang, id);
    if (job == nullptr || !job->own) return gang;
    const JobNames names = names_of(*job);
    Order out = gang;
    for (const MediumLayout& own : job->own->layouts.all()) {
        const MediumLayout theirs = named(own, names.to_gang);
        MediumLayout layout = layout_of(out, theirs.medium);
        const int first_sheet = sheet_count(layout.copies);
        std::map<std::string, const Transfer*> known;
        for (const Transfer& t : set.transfers)
            for (const JobShare& s : t.shares)
                if (s.job == id && t.medium == theirs.medium) known[s.as] = &t;
        MediumLayout after = layout;
        for (const PrintedCopies& p : theirs.printed)
            if (const auto t = known.find(p.transfer); t != known.end()) after.printed.push_back({t->second->id, p.copies, id, p.bag});
        // what fills comes behind the new share
        std::map<std::string, int> fills_before;
        for (const FillWish& f : layout.fill) fills_before[f.transfer] += f.copies;
        for (const Span& span : spans_of(set, after, id))
            for (PlacedCopy& c : after.copies)
                if (c.transfer == span.transfer->id && c.copy >= span.from && fills_before[c.transfer] > 0) c.copy += span.copies;
        for (const FillWish& f : theirs.fill)
            if (const auto t = known.find(f.transfer); t != known.end()) {
                const auto same =
                    std::find_if(after.fill.begin(), after.fill.end(), [&](const FillWish& w) { return w.transfer == t->second->id; });
                if (same != after.fill.end())
                    same->copies += f.copies;
                else
                    after.fill.push_back({t->second->id, f.value, f.copies});
            }
        std::map<std::string, Span> spans;
        for (const Span& span : spans_of(set, after, id)) spans[span.as] = span;
        for (PlacedCopy c : theirs.copies) {
            const auto span = spans.find(c.transfer);
            if (span == spans.end()) continue;
            const Span& s = span->second;
            c.copy = c.copy < s.copies ? s.from + c.copy : s.fill_from + fills_before[s.transfer->id] + c.copy - s.copies;
            c.transfer = s.transfer->id;
            c.sheet += first_sheet;
            after.copies.push_back(std::move(c));
        }
        if (!theirs.stock.empty()) {
            after.stock.resize(static_cast<std::size_t>(first_sheet));
            after.stock.insert(after.stock.end(), theirs.stock.begin(), theirs.stock.end());
        }
        out = with_layout(out, std::move(after));
    }
    return out;
}

std::vector<MediumLayout> layouts_of_job(const Order& gang, const TransferSet& set, const std::string& id) {
    std::vector<MediumLayout> out;
    const Job* job = find_job(gang, id);
    if (job == nullptr) return out;
    const JobNames names = names_of(*job);
    // in the order in which the job had them, then what it has besides
    std::vector<std::pair<std::string, const MediumLayout*>> media;  // by the gang's name, with the one that it came with
    if (job->own)
        for (const MediumLayout& l : job->own->layouts.all()) media.emplace_back(named(l, names.to_gang).medium, &l);
    for (const MediumLayout& l : gang.layouts.all()) media.emplace_back(l.medium, nullptr);
    std::set<std::string> seen;
    for (const auto& [medium, had] : media) {
        if (!seen.insert(medium).second) continue;
        const MediumLayout layout = layout_of(gang, medium);
        MediumLayout mine{medium, {}};
        mine.stock = layout.stock;
        std::map<std::string, int> counts;  // copies of each transfer that is there, by the job's own ids
        for (const Span& span : spans_of(set, layout, id)) {
            counts[named({medium, {{span.as, 0, 0, 0, 0, 0, false}}}, names.to_job).copies.front().transfer] = span.copies;
            for (PlacedCopy c : layout.copies)
                if (c.transfer == span.transfer->id && c.copy >= span.from && c.copy < span.from + span.copies) {
                    c.transfer = span.as;
                    c.copy -= span.from;
                    mine.copies.push_back(std::move(c));
                }
            for (const PrintedCopies& p : layout.printed)
                if (p.transfer == span.transfer->id && p.job == id) mine.printed.push_back({span.as, p.copies, {}, p.bag});
        }
        close_up(mine);
        mine = named(mine, names.to_job);
        if (had != nullptr) {
            // as it came, where what still can lie does so where it lay
            MediumLayout was = *had;
            std::erase_if(was.copies, [&](const PlacedCopy& c) { return !counts.contains(c.transfer) || c.copy >= counts.at(c.transfer); });
            std::erase_if(was.printed, [&](const PrintedCopies& p) { return !counts.contains(p.transfer); });
            close_up(was);
            MediumLayout is = mine;
            std::sort(is.copies.begin(), is.copies.end(), lies_before);
            std::sort(was.copies.begin(), was.copies.end(), lies_before);
            const auto by_transfer = [](const PrintedCopies& a, const PrintedCopies& b) {
                return std::tie(a.transfer, a.bag) < std::tie(b.transfer, b.bag);
            };
            std::sort(is.printed.begin(), is.printed.end(), by_transfer);
            std::sort(was.printed.begin(), was.printed.end(), by_transfer);
            if (is.copies == was.copies && is.printed == was.printed && is.stock == was.stock) mine = *had;
        }
        if (had != nullptr || !mine.copies.empty() || !mine.printed.empty()) out.push_back(std::move(mine));
    }
    return out;
}

Order without_copies_of(const Order& gang, const TransferSet& set, const std::string& id) {
    Order out = gang;
    for (const MediumLayout& layout : gang.layouts.all()) {
        MediumLayout rest = layout;
        for (const Span& span : spans_of(set, layout, id)) {
            const Transfer& t = *span.transfer;
            const auto other = std::find_if(t.shares.begin(), t.shares.end(), [&](const JobShare& s) { return s.job != id; });
            const std::string as = other == t.shares.end() ? "" : t.shares.front().job == id ? other->as : t.id;
            std::erase_if(rest.copies, [&](const PlacedCopy& c) {
                return c.transfer == t.id && (as.empty() || (c.copy >= span.from && c.copy < span.from + span.copies));
            });
            std::erase_if(rest.printed, [&](const PrintedCopies& p) { return p.transfer == t.id && (as.empty() || p.job == id); });
            std::erase_if(rest.fill, [&](const FillWish& f) { return f.transfer == t.id && as.empty(); });
            for (PlacedCopy& c : rest.copies)
                if (c.transfer == t.id) {
                    if (c.copy >= span.from) c.copy -= span.copies;
                    c.transfer = as;
                }
            for (PrintedCopies& p : rest.printed)
                if (p.transfer == t.id) p.transfer = as;
            for (FillWish& f : rest.fill)
                if (f.transfer == t.id) f.transfer = as;
        }
        rest.kept.reset();
        close_up(rest);
        out = with_layout(out, std::move(rest));
    }
    return out;
}

}  // namespace orthema
