#include "core/supply/supply.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "core/order/gang.h"

namespace orthema {

namespace {

constexpr double usual_density = 0.6;  ///< of film on which pieces are not settled yet
constexpr double little = 1e-6;

double counted_film(const MediumPlan& m, const Medium& medium, const TransferSet& set, const MediumLayout& layout) {
    if (!m.stale && m.placed > 0) {
        double out = 0;
        for (const Sheet& s : m.sheets) out += s.length + medium.laying.waste.mm();
        return out;
    }
    double ink = 0;
    for (const Transfer& t : set.transfers)
        if (t.medium == medium.id) ink += area(t.contour) * copies_asked(t, layout);
    return ink / usual_density / std::max(1.0, medium.width.mm());
}

/// The entries that each want is met from: the one of its id, or the rolls of its film.
using EntriesByWant = std::map<std::string, std::vector<const StockEntry*>>;
EntriesByWant entries_by_want(const Stock& stock) {
    EntriesByWant out;
    for (const StockEntry& e : stock.entries) out[e.kind == StockKind::roll ? film_id(e.medium) : e.id].push_back(&e);
    return out;
}

double taken_by(const std::vector<const StockEntry*>& entries, const std::set<std::string>& jobs) {
    double out = 0;
    for (const StockEntry* e : entries)
        for (const StockShare& s : e->shares)
            if (jobs.contains(s.job)) out += s.taken;
    return out;
}

std::set<std::string> jobs_of(const Order& order) {
    const std::vector<std::string> ids = job_ids(order);
    return {ids.begin(), ids.end()};
}
std::set<std::string> jobs_of(const OpenOrder& order) {
    std::set<std::string> out{order.job};
    out.insert(order.jobs.begin(), order.jobs.end());
    return out;
}

/// Whether the one gets first what both want.
bool comes_before(const OpenOrder& a, const OpenOrder& b) {
    const auto day = [](const OpenOrder& o) { return o.due.empty() ? std::string("9999") : o.due; };
    return std::tuple(day(a), a.due_at, a.job) < std::tuple(day(b), b.due_at, b.job);
}

/// What is still wanted of a thing by an order.
double still_wanted(const OpenOrder& order, const Want& want, const std::vector<const StockEntry*>& entries) {
    return std::max(0.0, want.amount - taken_by(entries, jobs_of(order)));
}

/// The promises of the order from the shelf that do not hold any more.
void say_gone(const Order& order, const TransferSet& set, const Shop& shop, Findings& out) {
    const Stock& stock = stock_in(shop);
    std::map<std::string, double> held;  // by bag and job, over all transfers
    for (const FromShelf& f : from_shelf(order, set)) held[f.bag + "\n" + f.job] += f.copies;
    for (const FromShelf& f : from_shelf(order, set)) {
        const Transfer& t = *find_transfer(set, f.transfer);
        const StockEntry* e = find_entry(stock, f.bag);
        double there = 0, narrower = 0;
        if (e != nullptr) {
            const StockShare* own = share_of(*e, f.job);
            there = free_for(*e, f.job) + (own == nullptr ? 0 : own->taken);
        }
        const TransferMark asked = mark_of(order, t);
        const char* why = e == nullptr || there + little < held[f.bag + "\n" + f.job] ? "shelf-why-few"
                          : is_past(*e, shop.today)                                   ? "shelf-why-past"
                          : alike(e->mark, asked)                                     ? nullptr
                          : alike_but_size(e->mark, asked, narrower)                  ? "shelf-why-size"
                                                                                      : "shelf-why-art";
        if (why == nullptr) continue;
        Subject about;
        about.stage = "sheets";
        about.medium = t.medium;
        about.decoration = t.decoration;
        out.push_back(finding("shelf-gone", about, {{"n", f.copies}, {"design", t.name}, {"why", Phrases{{Words{why, {}}}}}}));
    }
}

void say_offers(const std::vector<ShelfOffer>& offers, const TransferSet& set, const Stock& stock, Findings& out) {
    for (const ShelfOffer& o : offers) {
        const Transfer& t = *find_transfer(set, o.transfer);
        Subject about;
        about.stage = "sheets";
        about.medium = t.medium;
        about.decoration = t.decoration;
        if (o.narrower == 0)
            out.push_back(finding("shelf-has", about, {{"n", o.use}, {"design", t.name}}));
        else
            out.push_back(finding("shelf-near", about,
                                  {{"n", o.free},
                                   {"design", t.name},
                                   {"have", Length::from_mm(find_entry(stock, o.bag)->mark.width)},
                                   {"asked", Length::from_mm(t.width)}}));
    }
}

void say_lacking(const Order& order, const std::vector<Standby>& wants, const Stock& stock, Findings& out) {
    std::map<std::pair<std::string, std::string>, std::pair<int, std::string>> blanks;  // of a style and colour: how many, of which sizes
    for (const Standby& s : wants) {
        if (!s.counted || s.lacking <= little) continue;
        Subject about;
        about.stage = "sheets";
        if (s.want.kind == StockKind::blanks) {
            for (const OrderLine& l : order.lines.all())
                if (blanks_id(l.style, l.colour, l.size) == s.want.item) {
                    auto& [n, sizes] = blanks[{l.style, l.colour}];
                    n += static_cast<int>(std::lround(s.lacking));
                    sizes += (sizes.empty() ? "" : ", ") + std::to_string(std::lround(s.lacking)) + " " + l.size;
                    break;
                }
        } else if (s.want.kind == StockKind::roll) {
            for (const Medium& m : order.media.all())
                if (film_id(m.id) == s.want.item) about.medium = m.id;
            out.push_back(finding("film-short", about,
                                  {{"medium", s.want.name},
                                   {"short", Number{s.lacking / 1000, 1}},
                                   {"asked", Number{(s.want.amount - s.taken) / 1000, 1}},
                                   {"left", Number{s.there / 1000, 1}}}));
        } else if (s.want.kind == StockKind::sheets) {
            const StockEntry* e = find_entry(stock, s.want.item);
            const Medium* medium = e == nullptr ? nullptr : find_medium(order, e->medium);
            if (medium == nullptr) continue;
            about.medium = medium->id;
            out.push_back(finding("stock-short", about,
                                  {{"medium", medium->name},
                                   {"stock", s.want.name},
                                   {"laid", static_cast<int>(std::lround(s.want.amount - s.taken))},
                                   {"held", static_cast<int>(std::lround(s.there))}}));
        } else {
            const StockEntry* e = find_entry(stock, s.want.item);
            out.push_back(finding("supply-short", about,
                                  {{"what", s.want.name}, {"short", Number{s.lacking, 0}}, {"unit", e == nullptr ? "" : e->unit}}));
        }
    }
    for (const auto& [of, lacking] : blanks) {
        Subject about;
        about.stage = "blanks";
        about.style = of.first;
        about.colour = of.second;
        const BlankStyle* style = find_style(order, of.first);
        out.push_back(finding(
            "blanks-lacking", about,
            {{"n", lacking.first}, {"blank", (style == nullptr ? of.first : style->name) + ", " + of.second}, {"sizes", lacking.second}}));
    }
}

}  // namespace

std::vector<const OpenOrder*> standing_alone(const std::vector<OpenOrder>& open) {
    std::set<std::string> ganged;
    for (const OpenOrder& o : open) ganged.insert(o.jobs.begin(), o.jobs.end());
    std::vector<const OpenOrder*> out;
    for (const OpenOrder& o : open)
        if (!ganged.contains(o.job)) out.push_back(&o);
    return out;
}

double inked(const TransferSet& set, const std::vector<PlacedCopy>& copies) {
    std::map<std::string, double> areas;
    for (const Transfer& t : set.transfers)
        if (t.printed) areas[t.id] = area(t.shape) / 1e4;
    double out = 0;
    for (const PlacedCopy& c : copies) out += areas[c.transfer];
    return out;
}

std::vector<Want> wants_of(const Order& order, const TransferSet& set, const SheetPlan& sheets, const Stock& stock) {
    std::vector<Want> out;
    const auto add = [&](const std::string& item, StockKind kind, const std::string& name, double amount) {
        if (amount <= 0) return;
        const auto at = std::find_if(out.begin(), out.end(), [&](const Want& w) { return w.item == item; });
        if (at == out.end())
            out.push_back({item, kind, name, amount});
        else
            at->amount += amount;
    };
    for (const OrderLine& l : order.lines.all()) {
        const BlankStyle* style = find_style(order, l.style);
        add(blanks_id(l.style, l.colour, l.size), StockKind::blanks,
            (style == nullptr ? l.style : style->name) + ", " + l.colour + " " + l.size, l.quantity);
    }
    for (const MediumPlan& m : sheets.media) {
        const Medium* medium = find_medium(order, m.medium);
        if (medium == nullptr) continue;
        if (medium->shape == MediumShape::roll) {
            add(film_id(medium->id), StockKind::roll, medium->name, counted_film(m, *medium, set, layout_of(order, m.medium)));
        } else {
            for (const Sheet& s : m.sheets) {
                std::string name = medium->name;
                for (const StockItem& item : medium->laying.stock)
                    if (item.id == s.stock) name = item.name;
                add(sheets_id(medium->id, s.stock), StockKind::sheets, name, 1);
            }
        }
        for (const StockEntry& e : stock.entries) {
            if (e.kind != StockKind::supply || e.method != medium->method) continue;
            double ink = 0;
            for (const Sheet& s : m.sheets) ink += inked(set, s.copies);
            add(e.id, StockKind::supply, e.name, ink * e.per_dm2);
        }
    }
    return out;
}

std::vector<Standby> standby(const Order& order, const std::vector<Want>& own, const Shop& shop) {
    const EntriesByWant by_want = entries_by_want(stock_in(shop));
    OpenOrder self{order.job, order.name, order.due, order.press_run.due, {}, own};
    const std::set<std::string> mine = jobs_of(order);
    std::vector<const OpenOrder*> earlier;
    for (const OpenOrder* o : standing_alone(shop.open))
        if (!mine.contains(o->job) && comes_before(*o, self)) earlier.push_back(o);
    std::vector<Standby> out;
    for (const Want& w : own) {
        Standby s{w, false, 0, 0, 0};
        if (const auto met = by_want.find(w.item); met != by_want.end()) {
            const auto& entries = met->second;
            s.counted = true;
            double there = 0;
            for (const StockEntry* e : entries) there += e->on_hand;
            for (const OpenOrder* o : earlier)
                for (const Want& other : o->wants)
                    if (other.item == w.item) there -= still_wanted(*o, other, entries);
            s.taken = std::min(w.amount, taken_by(entries, mine));
            const double still = w.amount - s.taken;
            s.there = std::clamp(there, 0.0, still);
            s.lacking = still - s.there;
        }
        out.push_back(std::move(s));
    }
    return out;
}

std::map<std::string, std::vector<Standby>> lacking_of_all(const Shop& shop) {
    std::map<std::string, std::vector<Standby>> out;
    std::vector<const OpenOrder*> open = standing_alone(shop.open);
    std::sort(open.begin(), open.end(), [](const OpenOrder* a, const OpenOrder* b) { return comes_before(*a, *b); });
    const EntriesByWant entries = entries_by_want(stock_in(shop));
    std::map<std::string, double> left;
    for (const auto& [item, all] : entries)
        for (const StockEntry* e : all) left[item] += e->on_hand;
    for (const OpenOrder* o : open)
        for (const Want& w : o->wants) {
            const auto at = entries.find(w.item);
            if (at == entries.end()) continue;
            Standby s{w, true, 0, 0, 0};
            const double still = still_wanted(*o, w, at->second);
            s.taken = w.amount - still;
            s.there = std::clamp(left[w.item], 0.0, still);
            s.lacking = still - s.there;
            left[w.item] -= still;
            if (s.lacking > little) out[o->job].push_back(std::move(s));
        }
    return out;
}

Supply supply(const Order& order, const TransferSet& set, const SheetPlan& sheets, const Shop& shop) {
    Supply out;
    const Stock& stock = stock_in(shop);
    out.wants = standby(order, wants_of(order, set, sheets, stock), shop);
    out.offers = shelf_offers(order, set, stock, shop.today);
    say_lacking(order, out.wants, stock, out.findings);
    say_offers(out.offers, set, stock, out.findings);
    say_gone(order, set, shop, out.findings);
    return out;
}

std::map<std::string, double> spoilage(const std::vector<PressRecord>& records) {
    std::map<std::string, std::pair<int, int>> counts;  // pieces, of them spoiled
    for (const PressRecord& r : records) {
        if (r.rehearsal) continue;
        auto& [all, lost] = counts[r.style];
        all += r.pieces;
        if (r.mended == Mended::spoiled) lost += r.pieces;
    }
    std::map<std::string, double> out;
    for (const auto& [style, n] : counts)
        if (n.first >= spoilage_from && n.second > 0) out[style] = static_cast<double>(n.second) / n.first;
    return out;
}

std::vector<ToBuy> to_buy(const Stock& stock, const std::vector<OpenOrder>& open, const std::map<std::string, double>& spoiled) {
    std::vector<ToBuy> out;
    const EntriesByWant by_want = entries_by_want(stock);
    std::map<std::string, std::size_t> at;
    for (const OpenOrder* o : standing_alone(open))
        for (const Want& w : o->wants) {
            const auto met = by_want.find(w.item);
            if (met == by_want.end()) continue;
            const auto& entries = met->second;
            const double still = still_wanted(*o, w, entries);
            if (still <= little) continue;
            const auto [found, fresh] = at.try_emplace(w.item, out.size());
            if (fresh) {
                ToBuy row{w.item, w.name, w.kind, 0, 0, 0, 0, {}};
                for (const StockEntry* e : entries) row.on_hand += e->on_hand;
                out.push_back(std::move(row));
            }
            ToBuy& row = out[found->second];
            row.asked += still;
            row.orders.push_back(o->name);
            if (w.kind == StockKind::blanks)
                if (const auto share = spoiled.find(entries.front()->style); share != spoiled.end())
                    row.spare = std::ceil(row.asked * share->second - little);
        }
    for (ToBuy& row : out) row.lacking = std::max(0.0, row.asked + row.spare - row.on_hand);
    std::stable_sort(out.begin(), out.end(), [](const ToBuy& a, const ToBuy& b) {
        return std::tuple(a.lacking <= little, static_cast<int>(a.kind), a.name) <
               std::tuple(b.lacking <= little, static_cast<int>(b.kind), b.name);
    });
    return out;
}

std::vector<StockMove> taken_by_printing(const Order& order, const TransferSet& set, const Sheet& sheet, double printed_length,
                                         const Stock& stock, const std::string& deed, const std::string& at) {
    std::vector<StockMove> out;
    const Medium* medium = find_medium(order, sheet.medium);
    if (medium == nullptr) return out;
    const auto take = [&](const std::string& item, double amount) {
        out.push_back({deed + "/" + item, item, -amount, at, "printed", order.job});
    };
    if (medium->shape == MediumShape::roll) {
        const double length = printed_length + medium->laying.waste.mm();
        const StockEntry* roll = find_entry(stock, sheet.stock);
        if (roll == nullptr || roll->kind != StockKind::roll) roll = nullptr;
        double gone = 0;
        if (roll == nullptr)
            for (const RollLeft& r : rolls_of(stock, medium->id))
                if (roll == nullptr && r.left + little >= length) roll = find_entry(stock, r.id);
        if (roll != nullptr) {  // a roll that was counted too short is empty now
            gone = std::min(length, roll->on_hand);
            take(roll->id, gone);
        }
    } else if (const StockEntry* e = find_entry(stock, sheets_id(medium->id, sheet.stock)); e != nullptr && e->on_hand >= 1) {
        take(e->id, 1);
    }
    const double share = sheet.length > 0 ? std::clamp(printed_length / sheet.length, 0.0, 1.0) : 1;
    for (const StockEntry& e : stock.entries)
        if (e.kind == StockKind::supply && e.method == medium->method)
            if (const double used = std::min(e.on_hand, inked(set, sheet.copies) * share * e.per_dm2); used > 0) take(e.id, used);
    return out;
}

std::vector<StockMove> taken_by_pressing(const Order& order, const TransferSet& set, const std::vector<PressRecord>& records,
                                         const Stock& stock, bool rehearsals, const std::string& at) {
    std::vector<StockMove> out;
    const std::set<std::string> mine = jobs_of(order);
    struct Used {
        std::set<int> pieces;
        int unnumbered = 0, spoiled = 0;
    };
    std::map<std::pair<std::string, std::string>, Used> blanks;  // by entry and job
    const PressedCopies pressed(records, mine, rehearsals);
    for (const PressRecord& r : records) {
        if (!mine.contains(r.job) || (r.rehearsal && !rehearsals)) continue;
        const bool lost = r.mended == Mended::spoiled, again = r.mended == Mended::printed_again;
        Used& used = blanks[{blanks_id(r.style, r.colour, r.size), r.job}];
        if (lost)
            used.spoiled += r.pieces;
        else if (again)
            ;  // its blank goes on
        else if (r.first > 0)
            for (int k = 0; k < r.pieces; ++k) used.pieces.insert(r.first + k);
        else
            used.unnumbered += r.pieces;
    }
    for (const auto& [of, used] : blanks) {
        const StockEntry* e = find_entry(stock, of.first);
        if (e == nullptr) continue;
        const StockShare* before = share_of(*e, of.second);
        const double most = e->on_hand + (before == nullptr ? 0 : before->taken);  // what is counted too few is gone now
        const double n = std::min<double>(most, static_cast<double>(used.pieces.size()) + used.unnumbered);
        const double spoiled = std::min<double>(most - n, used.spoiled);
        out.push_back({"pressed/" + of.second + "/" + e->id, e->id, -n, at, "pressed", of.second});
        if (used.spoiled > 0) out.push_back({"spoiled/" + of.second + "/" + e->id, e->id, -spoiled, at, "spoiled", of.second});
    }
    // the shelf first: what was pressed came from there as far as it was promised
    std::map<std::pair<std::string, std::string>, double> bags;
    const std::vector<FromShelf> promised = from_shelf(order, set);
    std::map<std::pair<std::string, std::string>, int> left;  // pressed of a promised transfer for a job
    for (const FromShelf& f : promised) {
        const auto [counted, fresh] = left.try_emplace({f.transfer, f.job}, 0);
        if (fresh) counted->second = pressed.of(set, *find_transfer(set, f.transfer), f.job);
    }
    for (const FromShelf& f : promised) {
        int& there = left[{f.transfer, f.job}];
        const int n = std::min(f.copies, there);
        there -= n;
        bags[{f.bag, f.job}] += n;
    }
    for (const auto& [of, n] : bags)
        if (find_entry(stock, of.first) != nullptr)
            out.push_back({"pressed/" + of.second + "/" + of.first, of.first, -n, at, "pressed", of.second});
    return out;
}

}  // namespace orthema
