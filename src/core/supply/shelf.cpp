#include "core/supply/shelf.h"

#include <algorithm>
#include <cmath>

#include "core/base/dates.h"
#include "core/order/art_words.h"
#include "core/order/gang.h"
#include "core/order/roster.h"

namespace orthema {

namespace {

/// Id of the order, or of the job of a gang, that a share is for.
std::string holder(const Order& order, const std::string& job) { return job.empty() ? order.job : job; }

/// The layout that a transfer lies in, not copied: it may hold thousands of copies, and every transfer asks.
const MediumLayout& lying_in(const Order& order, const Transfer& t) {
    static const MediumLayout none;
    const MediumLayout* layout = find_layout(order, t.medium);
    return layout == nullptr ? none : *layout;
}

/// Copies of each job that stand neither printed nor promised; what fills is nobody's.
std::vector<CopyOwner> wanting(const Transfer& t, const MediumLayout& layout) {
    std::vector<CopyOwner> out = copy_owners(t, layout);
    out.pop_back();
    return out;
}

/// Copies that are not asked for any more leave the sheets: the last of each transfer.
void drop_what_is_too_many(MediumLayout& layout, const TransferSet& set) {
    const auto known = transfers_by_id(set);
    std::map<std::string, int> asked;
    std::erase_if(layout.copies, [&](const PlacedCopy& c) {
        const auto t = known.find(c.transfer);
        if (t == known.end()) return false;
        const auto [n, fresh] = asked.try_emplace(c.transfer, 0);
        if (fresh) n->second = copies_asked(*t->second, layout);
        return c.copy >= n->second;
    });
    if (layout.stock.size() > static_cast<std::size_t>(sheet_count(layout.copies)))
        layout.stock.resize(static_cast<std::size_t>(sheet_count(layout.copies)));
}

}  // namespace

TransferMark mark_of(const Order& order, const Transfer& t) {
    TransferMark m;
    const Art* art = find_art(order, t.art);
    if (art != nullptr) {
        m.art = art->hash;
        if (art->clip) m.shape = clip_words(*art->clip);
        if (!art->mendings.empty()) m.shape += (m.shape.empty() ? "" : ", ") + mending_words(art->mendings);
        m.shape += composed_words(order, *art);
        if (art->lettering) m.shape = set_words(*art->lettering, word_in(t.art));
    }
    if (!t.piece.empty()) m.shape += (m.shape.empty() ? "" : ", ") + t.piece;
    if (!t.printed) {
        const auto part = [](double c) { return std::to_string(std::lround(c * 255)); };
        m.shape += " in " + part(t.tint.r) + " " + part(t.tint.g) + " " + part(t.tint.b);
    }
    m.medium = t.medium;
    m.mirrored = t.mirrored;
    m.width = std::round(t.width * 10) / 10;
    m.height = std::round(t.height * 10) / 10;
    m.ink_area = std::round(area(t.shape));
    m.white_area = std::round(area(t.white));
    return m;
}

int keeps_days(const Order& order, const Transfer& t) {
    const Medium* medium = find_medium(order, t.medium);
    const Method* method = medium == nullptr ? nullptr : find_method(order, medium->method);
    return method == nullptr || t.board > 0 ? 0 : method->keeps_days;
}

std::vector<ShelfOffer> shelf_offers(const Order& order, const TransferSet& set, const Stock& stock, const std::string& today) {
    std::vector<const StockEntry*> bags;
    for (const StockEntry& e : stock.entries)
        if (e.kind == StockKind::transfers && e.on_hand > 0 && !is_past(e, today)) bags.push_back(&e);
    std::sort(bags.begin(), bags.end(), [](const StockEntry* a, const StockEntry* b) {
        return std::tie(a->printed, a->on_hand, a->id) < std::tie(b->printed, b->on_hand, b->id);
    });
    // what the order itself has of a bag is spoken for, for whichever of its transfers
    std::map<std::string, int> left;
    for (const StockEntry* e : bags) {
        double others = e->on_hand;
        for (const StockShare& s : e->shares)
            if (s.job != order.job && find_job(order, s.job) == nullptr) others -= std::max(0.0, s.held - s.taken);
        left[e->id] = static_cast<int>(std::floor(others));
    }
    for (const MediumLayout& l : order.layouts.all())
        for (const PrintedCopies& p : l.printed)
            if (const auto at = left.find(p.bag); at != left.end()) {
                const StockEntry* e = find_entry(stock, p.bag);
                double taken = 0;
                if (const StockShare* s = share_of(*e, holder(order, p.job))) taken = s->taken;
                at->second -= std::max(0, p.copies - static_cast<int>(taken));
            }
    std::vector<ShelfOffer> exact, near;
    if (bags.empty()) return exact;
    for (const Transfer& t : set.transfers) {
        if (keeps_days(order, t) == 0) continue;
        int open = 0;
        for (const CopyOwner& o : wanting(t, lying_in(order, t))) open += o.copies;
        const TransferMark asked = mark_of(order, t);
        for (const StockEntry* e : bags) {
            int& there = left[e->id];
            double narrower = 0;
            if (there <= 0) continue;
            if (alike(e->mark, asked)) {
                const int use = std::min(open, there);
                if (use > 0) exact.push_back({t.id, e->id, there, use, 0});
                open -= use;
                there -= use;
            } else if (open > 0 && alike_but_size(e->mark, asked, narrower) && std::abs(narrower) <= near_width) {
                near.push_back({t.id, e->id, there, std::min(open, there), narrower});
            }
        }
    }
    exact.insert(exact.end(), near.begin(), near.end());
    return exact;
}

Order with_from_shelf(const Order& order, const TransferSet& set, const ShelfOffer& offer) {
    const Transfer* t = find_transfer(set, offer.transfer);
    if (t == nullptr || offer.use <= 0 || offer.narrower != 0) return order;
    MediumLayout layout = layout_of(order, t->medium);
    int left = offer.use;
    for (const CopyOwner& o : wanting(*t, layout)) {
        const int here = std::min(left, o.copies);
        if (here == 0) continue;
        left -= here;
        const auto at = std::find_if(layout.printed.begin(), layout.printed.end(),
                                     [&](const PrintedCopies& p) { return p.transfer == t->id && p.job == o.job && p.bag == offer.bag; });
        if (at != layout.printed.end())
            at->copies += here;
        else
            layout.printed.push_back({t->id, here, o.job, offer.bag});
    }
    layout.kept.reset();
    drop_what_is_too_many(layout, set);
    return with_layout(order, std::move(layout));
}

Order with_width_of(const Order& order, const TransferSet& set, const ShelfOffer& offer, const Stock& stock) {
    const Transfer* t = find_transfer(set, offer.transfer);
    const StockEntry* bag = find_entry(stock, offer.bag);
    if (t == nullptr || bag == nullptr) return order;
    Order out = order;
    for (const MakingOf& making : set.makings) {
        Decoration* d = making.made == t->made ? find_decoration(out, making.decoration) : nullptr;
        if (d == nullptr) continue;
        for (const std::string& size : making.sizes) {
            SizePin* pin = find_pin(*d, size);
            if (pin == nullptr) {
                d->pins.push_back({size, std::nullopt, std::nullopt, std::nullopt});
                pin = &d->pins.back();
            }
            pin->width = Length::from_mm(bag->mark.width);
        }
    }
    return out;
}

Order with_shelf_used(const Order& order, const TransferSet& set, const Stock& stock, const std::string& today) {
    Order out = order;
    for (const ShelfOffer& o : shelf_offers(order, set, stock, today))
        if (o.narrower == 0) out = with_from_shelf(out, set, o);
    return out;
}

Order without_from_shelf(const Order& order, const std::string& bag) {
    Order out = order;
    for (const MediumLayout& l : order.layouts.all()) {
        MediumLayout layout = l;
        if (std::erase_if(layout.printed, [&](const PrintedCopies& p) { return p.bag == bag; }) > 0) out = with_layout(out, layout);
    }
    return out;
}

std::vector<FromShelf> from_shelf(const Order& order, const TransferSet& set) {
    std::vector<FromShelf> out;
    for (const MediumLayout& l : order.layouts.all())
        for (const PrintedCopies& p : l.printed)
            if (!p.bag.empty() && p.copies > 0 && find_transfer(set, p.transfer) != nullptr)
                out.push_back({p.bag, holder(order, p.job), p.transfer, p.copies});
    return out;
}

std::vector<LeftOver> left_over_transfers(const Order& order, const TransferSet& set) {
    std::vector<LeftOver> out;
    const auto add = [&](const std::string& transfer, const std::string& job, int copies) {
        if (copies > 0) out.push_back({transfer, job, copies});
    };
    for (const Transfer& t : set.transfers) {
        if (keeps_days(order, t) == 0) continue;
        int filling = 0;
        for (const FillWish& f : lying_in(order, t).fill)
            if (f.transfer == t.id) filling += f.copies;
        const int own = std::max(0, t.spares - t.spoiled);
        if (!is_gang(order)) {
            add(t.id, {}, own + filling);
            continue;
        }
        for (const JobShare& s : t.shares) add(t.id, s.job, std::max(0, s.spares - s.spoiled));
        add(t.id, {}, t.shares.empty() ? own + filling : filling);
    }
    return out;
}

PressedCopies::PressedCopies(const std::vector<PressRecord>& records, const std::set<std::string>& jobs, bool rehearsals) {
    for (const PressRecord& r : records)
        if (jobs.contains(r.job) && (!r.rehearsal || rehearsals)) by_design_[{r.job, r.design}][r.size] += r.pieces;
}

int PressedCopies::of(const TransferSet& set, const Transfer& t, const std::string& job) const {
    int out = 0;
    const auto count = [&](const std::string& design) {
        const auto sizes = by_design_.find({job, design});
        if (sizes == by_design_.end()) return;
        for (const auto& [size, n] : sizes->second) {
            const MakingOf* making = find_making(set, design, size);
            if (making != nullptr && making->made == t.made) out += n;
        }
    };
    count(t.decoration);
    for (const std::string& other : t.also)
        if (other != t.decoration) count(other);
    return out;
}

std::vector<LeftOver> called_off(const Order& order, const TransferSet& set, const std::string& job,
                                 const std::vector<PressRecord>& records) {
    std::vector<LeftOver> out;
    const std::vector<std::string> ids = job_ids(order);
    const std::set<std::string> jobs = job.empty() ? std::set<std::string>(ids.begin(), ids.end()) : std::set<std::string>{job};
    const PressedCopies pressed(records, jobs, false);
    for (const Transfer& t : set.transfers) {
        if (keeps_days(order, t) == 0) continue;
        int n = 0;
        if (t.shares.empty() || job.empty() || job == order.job)
            n = t.count();
        else
            for (const JobShare& s : t.shares)
                if (s.job == job) n += s.count();
        for (const PrintedCopies& p : lying_in(order, t).printed)  // what would have come from the shelf lies there
            if (p.transfer == t.id && !p.bag.empty() && (job.empty() || holder(order, p.job) == job)) n -= p.copies;
        for (const std::string& j : jobs) n -= pressed.of(set, t, j);
        if (n > 0) out.push_back({t.id, job, n});
    }
    return out;
}

StockEntry bag_of(const Order& order, const Transfer& t, const LeftOver& left, const std::string& today) {
    StockEntry e;
    e.id = "bag/" + holder(order, left.job) + "/" + t.id;
    e.kind = StockKind::transfers;
    e.name = t.name;
    e.medium = t.medium;
    e.mark = mark_of(order, t);
    e.printed = today;
    if (const auto day = day_number(today)) e.until = iso_day(*day + keeps_days(order, t));
    const Job* job = find_job(order, left.job);
    e.from = job != nullptr ? job->name : order.name;
    e.on_hand = left.copies;
    return e;
}

}  // namespace orthema
