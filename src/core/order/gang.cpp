#include "core/order/gang.h"

#include <algorithm>
#include <map>
#include <set>

#include "core/order/pieces.h"
#include "core/order/rules.h"

namespace orthema {

namespace {

using Names = std::map<std::string, std::string>;
using Used = std::set<std::string>[id_kind_count];

constexpr std::size_t at(IdKind kind) { return static_cast<std::size_t>(kind); }

template <class J>
auto& brought(J& job, IdKind kind) {
    return job.*brought_lists[at(kind)].list;
}

/// What an order's lines and designs need of each kind.
void gather_used(const Order& o, Used& used) {
    const auto use = [&](IdKind kind, const std::string& id) {
        if (!id.empty()) used[at(kind)].insert(id);
    };
    for (const OrderLine& l : o.lines) {
        use(IdKind::style, l.style);
        use(IdKind::lot, l.lot);
    }
    for (const Decoration& d : o.decorations) {
        use(IdKind::decoration, d.id);
        use(IdKind::art, d.art);
        use(IdKind::style, d.run.style);
        use(IdKind::lot, d.run.lot);
        use(IdKind::medium, d.medium);
        use(IdKind::press, d.press);
        use(IdKind::rule, d.rule);
        use(IdKind::jig, d.making.jig);
        for (const Layer& l : d.making.layers) use(IdKind::medium, l.medium);
    }
    for (const DesignRule& r : o.rules)
        if (used[at(IdKind::rule)].contains(r.id)) use(IdKind::art, r.art);
    for (const Art& a : o.art)
        if (a.clip && used[at(IdKind::art)].contains(a.id)) use(IdKind::style, a.clip->style);
    for (const Medium& m : o.media)
        if (used[at(IdKind::medium)].contains(m.id)) use(IdKind::method, m.method);
}

template <class List>
bool has_id(const List& list, const std::string& id) {
    return std::any_of(std::begin(list), std::end(list), [&](const auto& i) { return i.id == id; });
}

/// The fields that hold things with ids, each with its kind. `see(kind, list of a, list of b)`.
template <class A, class B, class See>
void each_list(A& a, B& b, See see) {
    see(IdKind::method, a.methods, b.methods);
    see(IdKind::medium, a.media, b.media);
    see(IdKind::press, a.presses, b.presses);
    see(IdKind::style, a.styles, b.styles);
    see(IdKind::art, a.art, b.art);
    see(IdKind::jig, a.jigs, b.jigs);
    see(IdKind::lot, a.lots, b.lots);
    see(IdKind::rule, a.rules, b.rules);
    see(IdKind::decoration, a.decorations, b.decorations);
}

/// Lots, rules and designs are of one job; the rest is there once where it is alike.
bool of_one_job(IdKind kind) { return kind == IdKind::lot || kind == IdKind::rule || kind == IdKind::decoration; }

template <class T>
const std::vector<T>& plain(const std::vector<T>& list) {
    return list;
}
template <class T>
const std::vector<T>& plain(const SharedList<T>& list) {
    return list.all();
}

/// The item as it reads in the gang, its own id apart, by the names that are known so far.
template <class Item>
Item read_in_gang(const Item& item, const JobNames& names) {
    Order one;
    if constexpr (std::is_same_v<Item, Medium>) {
        one.media.push_back(item);
        return with_names(std::move(one), names.to_gang).media.all().front();
    } else if constexpr (std::is_same_v<Item, Art>) {
        one.art.push_back(item);
        return with_names(std::move(one), names.to_gang).art.front();
    } else {
        return item;
    }
}

/// Brings one job, an order that is no gang, into the gang.
void bring_in(Order& gang, const Order& other) {
    Job job;
    job.id = other.job;
    job.name = other.name;
    job.customer = other.customer;
    job.note = other.note;
    job.due = other.due;
    job.due_at = other.press_run.due;
    Order own = other;
    own.lines.clear();
    own.reprints.clear();
    own.guide_setup.printed.clear();
    Used used;
    gather_used(other, used);
    JobNames names;
    Order mine = other;  // what goes in, named as in the gang at the end
    std::set<std::string> fresh_ids[id_kind_count];
    each_list(gang, other, [&](IdKind kind, auto& there, const auto& list) {
        using Item = typename std::remove_cvref_t<decltype(plain(list))>::value_type;
        std::set<std::string> taken;  // one thing of the gang is one thing of the job
        for (const Item& item : plain(list)) {
            Item as = read_in_gang(item, names);
            std::string is;
            bool alone = of_one_job(kind);
            if constexpr (std::is_same_v<Item, Jig>) alone = !item.assigned.empty();  // names designs of this job
            if (!alone)
                for (const bool same_id : {true, false}) {
                    for (const auto& have : plain(there)) {
                        if (!is.empty() || taken.contains(have.id) || (have.id == item.id) != same_id) continue;
                        as.id = have.id;
                        if (as == have) is = have.id;
                    }
                }
            const bool there_already = !is.empty();
            const bool free = !has_id(plain(there), item.id);
            // pictures always: their files lie with the gang's
            if (is.empty() && (free || of_one_job(kind) || kind == IdKind::art || used[at(kind)].contains(item.id)))
                is = free ? item.id : fresh_id(item.id, plain(there));
            brought(job, kind).push_back({item.id, is});
            if (is.empty()) continue;  // not used, and another of that name is there
            taken.insert(is);
            names.to_gang[at(kind)][item.id] = is;
            if (!there_already) {  // keeps its place; its other names follow below
                Item fresh = item;
                fresh.id = is;
                fresh_ids[at(kind)].insert(is);
                there.push_back(std::move(fresh));
            }
        }
    });
    // what came in is named and signed; what was there before stays as it is
    mine = with_names(std::move(mine), names.to_gang);
    for (Decoration& d : mine.decorations) d.run.job = job.id;
    each_list(gang, mine, [&](IdKind kind, auto& there, const auto& list) {
        for (const auto& item : plain(list))
            for (std::size_t i = 0; fresh_ids[at(kind)].contains(item.id) && i < there.size(); ++i)
                if (plain(there)[i].id == item.id) there[i] = item;
    });
    for (OrderLine l : mine.lines.all()) {
        l.job = job.id;
        gang.lines.push_back(std::move(l));
    }
    const auto add_new = [](auto& list, const auto& more) {
        for (const auto& item : plain(more))
            if (std::find(plain(list).begin(), plain(list).end(), item) == plain(list).end()) list.push_back(item);
    };
    add_new(gang.trials, mine.trials);
    add_new(gang.corrections, mine.corrections);
    gang.reprints.insert(gang.reprints.end(), mine.reprints.begin(), mine.reprints.end());
    auto& printed = gang.guide_setup.printed;
    printed.insert(printed.end(), mine.guide_setup.printed.begin(), mine.guide_setup.printed.end());
    auto& turn = gang.press_run.order;
    turn.insert(turn.end(), mine.press_run.order.begin(), mine.press_run.order.end());
    // the job keeps what stayed out
    each_list(own, own, [&](IdKind kind, auto& list, auto&) {
        erase_if(list, [&](const auto& item) { return names.to_gang[at(kind)].contains(item.id); });
    });
    job.own = std::make_shared<const Order>(std::move(own));
    gang.jobs.push_back(std::move(job));
}

/// The settings of a gang that begins with this order.
Order gang_like(const Order& first, const std::string& id, const std::string& name) {
    Order gang;
    gang.name = name;
    gang.job = id;
    gang.unit = first.unit;
    gang.paper = first.paper;
    gang.currency = first.currency;
    gang.hourly = first.hourly;
    gang.press_run = first.press_run;
    gang.press_run.pins.clear();
    gang.press_run.order.clear();
    gang.press_run.accepted = {};
    gang.guide_setup = first.guide_setup;
    gang.guide_setup.printed.clear();
    gang.pricing = first.pricing;
    return gang;
}

/// What the whole gang is due by: the earliest of its jobs.
void find_due(Order& gang) {
    const Job* first = nullptr;
    for (const Job& j : gang.jobs.all())
        if (!j.due.empty() && (first == nullptr || std::tie(j.due, j.due_at) < std::tie(first->due, first->due_at))) first = &j;
    gang.due = first == nullptr ? "" : first->due;
    if (first != nullptr) gang.press_run.due = first->due_at;
}

}  // namespace

std::vector<std::string> job_ids(const Order& order) {
    std::vector<std::string> out{order.job};
    for (const Job& j : order.jobs.all()) out.push_back(j.id);
    return out;
}

std::vector<std::string> jobs_apart(const Order& order) {
    if (!is_gang(order)) return {std::string()};
    std::vector<std::string> out = job_ids(order);
    out.erase(out.begin());
    return out;
}

JobNames names_of(const Job& job) {
    JobNames out;
    for (int k = 0; k < id_kind_count; ++k)
        for (const Brought& b : brought(job, static_cast<IdKind>(k)))
            if (!b.is.empty()) {
                out.to_gang[k][b.was] = b.is;
                out.to_job[k][b.is] = b.was;
            }
    return out;
}

Order with_names(Order order, const Names (&names)[id_kind_count]) {
    each_id(order, [&](IdKind kind, std::string& id) {
        const auto& map = names[at(kind)];
        if (const auto found = map.find(id); found != map.end()) id = found->second;
    });
    return order;
}

namespace {

/// An order, or a gang's jobs one by one; a sentence where one is there already.
std::optional<Error> bring_all_in(Order& gang, const Order& other) {
    std::vector<Order> coming;
    for (const Job& j : other.jobs.all()) coming.push_back(*job_taken_out(other, j.id));
    if (coming.empty()) coming.push_back(other);
    for (const Order& one : coming) {
        if (find_job(gang, one.job) != nullptr) return Error{"“{order}” is among these orders already.", {{"order", one.name}}};
        bring_in(gang, one);
    }
    find_due(gang);
    return std::nullopt;
}

}  // namespace

Result<Order> ganged(const std::vector<Order>& orders, const std::string& id, const std::string& name) {
    if (orders.empty()) return Error{"Choose the orders that are made together."};
    const bool going_on = is_gang(orders.front());  // its own settings and layouts stay
    Order gang = going_on ? orders.front() : gang_like(orders.front(), id, name);
    for (std::size_t i = going_on ? 1 : 0; i < orders.size(); ++i)
        if (auto fault = bring_all_in(gang, orders[i])) return *fault;
    gang.job = id;
    gang.name = name;
    return gang;
}

namespace {

/// Trials or corrections that a job came with, by the gang's names.
template <class List>
List learned(const Job& job, List Order::*member) {
    if (!job.own) return {};
    Order theirs;
    theirs.*member = (*job.own).*member;
    return with_names(std::move(theirs), names_of(job).to_gang).*member;
}

template <class List>
void leave_out(List& list, const List& these) {
    erase_if(list, [&](const auto& item) { return std::find(plain(these).begin(), plain(these).end(), item) != plain(these).end(); });
}

}  // namespace

std::optional<Order> job_taken_out(const Order& gang, const std::string& id) {
    const Job* job = find_job(gang, id);
    if (job == nullptr) return std::nullopt;
    Order mine;
    for (OrderLine l : gang.lines.all())
        if (l.job == id) {
            l.job.clear();
            mine.lines.push_back(std::move(l));
        }
    std::set<std::string> designs;
    for (Decoration d : gang.decorations)
        if (d.run.job == id) {
            designs.insert(d.id);
            d.run.job.clear();
            mine.decorations.push_back(std::move(d));
        }
    for (const Reprint& r : gang.reprints)
        if (designs.contains(r.decoration)) mine.reprints.push_back(r);
    for (const PrintedGuide& g : gang.guide_setup.printed)
        if (designs.contains(g.decoration)) mine.guide_setup.printed.push_back(g);
    Used used;
    {
        Order probe = mine;
        probe.media = gang.media;
        probe.art = gang.art;
        probe.rules = gang.rules;
        gather_used(probe, used);
    }
    JobNames names = names_of(*job);
    const Order own = job->own ? *job->own : Order{};
    // of each kind what it brought and is still there, in its order, then what it uses besides
    std::vector<std::string> sequence[id_kind_count];  // by the names of the job; left-outs too
    each_list(mine, gang, [&](IdKind kind, auto& list, const auto& all) {
        if (kind == IdKind::decoration) return;
        std::set<std::string> known, theirs;
        for (const Brought& b : brought(*job, kind)) {
            sequence[at(kind)].push_back(b.was);
            theirs.insert(b.was);
            if (b.is.empty()) continue;
            known.insert(b.is);
            for (const auto& item : plain(all))
                if (item.id == b.is) list.push_back(item);
        }
        for (const auto& item : plain(all))
            if (!known.contains(item.id) && used[at(kind)].contains(item.id)) {
                const std::string as =
                    theirs.contains(item.id) ? fresh_id(item.id, std::vector<std::string>(theirs.begin(), theirs.end())) : item.id;
                theirs.insert(as);
                names.to_job[at(kind)][item.id] = as;
                sequence[at(kind)].push_back(as);
                list.push_back(item);
            }
    });
    // trials and corrections of since then
    const auto later = [&](auto member) {
        auto out = gang.*member;
        for (const Job& j : gang.jobs.all()) leave_out(out, learned(j, member));
        return out;
    };
    mine.trials = later(&Order::trials);
    mine.corrections = later(&Order::corrections);
    mine = with_names(std::move(mine), names.to_job);

    Order out = own;
    out.name = job->name;
    out.job = job->id;
    out.customer = job->customer;
    out.note = job->note;
    out.due = job->due;
    out.press_run.due = job->due_at;
    out.lines = mine.lines;
    out.decorations = mine.decorations;
    each_list(out, mine, [&](IdKind kind, auto& list, const auto& came) {
        if (kind == IdKind::decoration) return;
        std::remove_cvref_t<decltype(plain(list))> in_order;
        for (const std::string& was : sequence[at(kind)])
            for (const auto* from : {&plain(came), &plain(list)}) {
                const auto found = std::find_if(from->begin(), from->end(), [&](const auto& i) { return i.id == was; });
                if (found == from->end()) continue;
                in_order.push_back(*found);
                break;
            }
        list = in_order;
    });
    for (const Trial& t : mine.trials.all()) out.trials.push_back(t);
    for (const Correction& c : mine.corrections.all()) out.corrections.push_back(c);
    out.reprints = mine.reprints;
    out.guide_setup.printed = mine.guide_setup.printed;
    return followed(std::move(out));
}

Order without_job(const Order& gang, const std::string& id) {
    const Job* found = find_job(gang, id);
    if (found == nullptr) return gang;
    const Job job = *found;
    Order out = gang;
    erase_if(out.jobs, [&](const Job& j) { return j.id == id; });
    erase_if(out.lines, [&](const OrderLine& l) { return l.job == id; });
    std::set<std::string> designs;
    for (const Decoration& d : gang.decorations)
        if (d.run.job == id) designs.insert(d.id);
    std::erase_if(out.decorations, [&](const Decoration& d) { return designs.contains(d.id); });
    std::erase_if(out.reprints, [&](const Reprint& r) { return designs.contains(r.decoration); });
    std::erase_if(out.guide_setup.printed, [&](const PrintedGuide& g) { return designs.contains(g.decoration); });
    const auto forget = [&](auto member) {  // what it alone had learned
        auto only = learned(job, member);
        for (const Job& j : out.jobs.all()) leave_out(only, learned(j, member));
        leave_out(out.*member, only);
    };
    forget(&Order::trials);
    forget(&Order::corrections);
    std::erase_if(out.press_run.order, [&](const std::string& d) { return designs.contains(d); });
    Used used;
    gather_used(out, used);
    for (const Job& j : out.jobs.all())
        for (int k = 0; k < id_kind_count; ++k)
            for (const Brought& b : brought(j, static_cast<IdKind>(k))) used[k].insert(b.is);
    each_list(out, out, [&](IdKind kind, auto& list, auto&) {
        erase_if(list, [&](const auto& item) {
            const auto& ids = brought(job, kind);
            return !used[at(kind)].contains(item.id) &&
                   std::any_of(ids.begin(), ids.end(), [&](const Brought& b) { return b.is == item.id; });
        });
    });
    find_due(out);
    return followed(std::move(out));
}

std::vector<UnlikeCopies> unlike_copies(const Order& gang) {
    std::vector<UnlikeCopies> out;
    for (const Job& job : gang.jobs.all())
        each_list(gang, gang, [&](IdKind kind, const auto& list, const auto&) {
            if (of_one_job(kind) || kind == IdKind::art) return;
            for (const Brought& b : brought(job, kind)) {
                if (b.is.empty() || b.was == b.is || !has_id(plain(list), b.was)) continue;
                for (const auto& item : plain(list))
                    if (item.id == b.is)
                        if constexpr (requires { item.name; }) out.push_back({kind, b.was, b.is, item.name, job.id});
            }
        });
    return out;
}

Order with_one_copy(const Order& gang, IdKind kind, const std::string& keep, const std::string& drop) {
    Order out = gang;
    for (const Job& j : gang.jobs.all()) {  // a job that had both needs both
        const auto& ids = brought(j, kind);
        const auto has = [&](const std::string& id) {
            return std::any_of(ids.begin(), ids.end(), [&](const Brought& b) { return b.is == id; });
        };
        if (has(keep) && has(drop)) return gang;
    }
    each_list(out, out, [&](IdKind of, auto& list, auto&) {
        if (of == kind) erase_if(list, [&](const auto& item) { return item.id == drop; });
    });
    Names names[id_kind_count];
    names[at(kind)][drop] = keep;
    out = with_names(std::move(out), names);
    if (kind == IdKind::medium) {  // two layouts of one medium: they are laid out anew
        bool met = false;
        erase_if(out.layouts, [&](const MediumLayout& l) { return l.medium == keep && std::exchange(met, true); });
    }
    for (Job& j : out.jobs.own())
        for (Brought& b : brought(j, kind))
            if (b.is == drop) b.is = keep;
    return followed(numbered(std::move(out)));
}

Order with_job_said(const Order& gang, const Job& job) {
    Order out = gang;
    for (Job& j : out.jobs.own())
        if (j.id == job.id) {
            j.name = job.name;
            j.customer = job.customer;
            j.due = job.due;
            j.due_at = job.due_at;
            j.note = job.note;
        }
    find_due(out);
    return out;
}

Findings gang_findings(const Order& gang) {
    Findings out;
    for (const UnlikeCopies& u : unlike_copies(gang)) {
        const Job* job = find_job(gang, u.job);
        Subject about;
        about.job = u.job;
        out.push_back(finding("copies-unlike", about, {{"what", u.name}, {"job", job == nullptr ? u.job : job->name}}));
    }
    int without = 0;
    for (const OrderLine& l : gang.lines.all())
        if (is_gang(gang) && find_job(gang, l.job) == nullptr) ++without;
    if (without > 0) out.push_back(finding("lines-without-job", {}, {{"n", without}}));
    return out;
}

}  // namespace orthema
