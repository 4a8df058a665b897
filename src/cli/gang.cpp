#include "cli/gang.h"

#include <iostream>

#include "core/base/units.h"
#include "core/costing/costs.h"
#include "core/pipeline/gang.h"
#include "files/json_in.h"
#include "files/order_file.h"

namespace orthema {

namespace {

int refuse(const std::string& sentence) {
    std::cerr << "orthema-cli: " << sentence << "\n";
    return 2;
}

Shared<KnownArt> art_of(const Order& order, const ArtBytes& bytes) {
    auto known = std::make_shared<KnownArt>();
    known->facts = facts_of(load_all_art(order, bytes, &known->faults));
    return Shared<KnownArt>(std::move(known));
}

double film_of(const SheetPlan& plan) {
    double mm = 0;
    for (const MediumPlan& m : plan.media) mm += m.length;
    return mm;
}

}  // namespace

int gang_orders(const std::vector<std::string>& paths, const std::string& out, const std::string& name, bool as_json) {
    std::vector<Order> orders;
    OrderPackage all;
    for (const std::string& path : paths) {
        auto package = open_order(path);
        if (!package) return refuse(package.sentence());
        orders.push_back(package->order);
        all.art.insert(package->art.begin(), package->art.end());
        auto& records = all.records;
        records.records.insert(records.records.end(), package->records.records.begin(), package->records.records.end());
        records.lessons.insert(records.lessons.end(), package->records.lessons.begin(), package->records.lessons.end());
    }
    const std::string id = new_job_id(),
                      called = name.empty() ? orders.front().name + " and " + std::to_string(orders.size() - 1) + " more" : name;
    const auto first = ganged(orders, id, called);
    if (!first) return refuse(first.sentence());
    const Shared<KnownArt> art = art_of(*first, all.art);
    const auto gang = ganged_and_laid(orders, id, called, art);
    if (!gang) return refuse(gang.sentence());
    if (auto saved = save_order(out, *gang, all.art, all.records); !saved) return refuse(saved.sentence());
    const std::vector<UnlikeCopies> unlike = unlike_copies(*gang);
    if (as_json) {
        json jobs = json::array(), differ = json::array();
        for (const Job& j : gang->jobs.all()) jobs.push_back({{"id", j.id}, {"name", j.name}, {"customer", j.customer}, {"due", j.due}});
        for (const UnlikeCopies& u : unlike) differ.push_back({{"first", u.first}, {"second", u.second}, {"job", u.job}});
        std::cout << json_text(json{{"garments", garments_in(*gang)}, {"jobs", jobs}, {"not_alike", differ}}, 1) << "\n";
    } else {
        std::cout << gang->jobs.size() << " jobs, " << garments_in(*gang) << " garments\n";
        for (const Job& j : gang->jobs.all())
            std::cout << "  " << j.id << "  " << j.name << (j.due.empty() ? "" : ", due " + j.due) << "\n";
        if (!unlike.empty()) std::cout << unlike.size() << " things are not alike; both copies stay\n";
    }
    return 0;
}

int take_job_out(const std::string& path, const std::string& job, const std::string& out, const std::string& rest, bool as_json) {
    auto package = open_order(path);
    if (!package) return refuse(package.sentence());
    if (find_job(package->order, job) == nullptr) return refuse("There is no job “" + job + "” in it.");
    const Work w = work(package->order, {}, art_of(package->order, package->art));
    const auto apart = job_apart(package->order, job, w.transfer_set());
    OrderRecords mine, others;
    for (const PressRecord& r : package->records.records) (r.job == job ? mine : others).records.push_back(r);
    for (const Lesson& l : package->records.lessons) (l.job == job ? mine : others).lessons.push_back(l);
    if (auto saved = save_order(out, *apart, package->art, mine); !saved) return refuse(saved.sentence());
    if (!rest.empty())
        if (auto saved = save_order(rest, gang_without(package->order, job, w.transfer_set()), package->art, others); !saved)
            return refuse(saved.sentence());
    if (as_json)
        std::cout << json_text(json{{"name", apart->name}, {"garments", garments_in(*apart)}}, 1) << "\n";
    else
        std::cout << apart->name << ": " << garments_in(*apart) << " garments\n";
    return 0;
}

int print_costs(const std::string& path, bool as_json) {
    auto package = open_order(path);
    if (!package) return refuse(package.sentence());
    const Order& order = package->order;
    const Work w = work(order, {}, art_of(order, package->art));
    const Costs costs = costs_of(order, w.transfer_set(), w.sheet_plan(), w.press_plan());
    const auto money = [](Pence p) { return static_cast<double>(p) / 100; };
    const auto name = [&](const JobCost& c) {
        const Job* job = find_job(order, c.job);
        if (job != nullptr) return job->name;
        return order.jobs.empty() ? order.name : std::string(c.pieces > 0 ? "in no job" : "for the shelf");
    };
    if (as_json) {
        json jobs = json::array();
        for (const JobCost& c : costs.jobs)
            jobs.push_back({{"job", c.job},
                            {"name", name(c)},
                            {"garments", c.pieces},
                            {"film", money(c.film)},
                            {"blanks", money(c.blanks)},
                            {"work", money(c.work)},
                            {"total", money(c.total())},
                            {"film_mm2", std::round(c.film_area)},
                            {"seconds", std::round(c.seconds)}});
        std::cout << json_text(json{{"film_m", std::round(film_of(w.sheet_plan())) / 1000},
                                    {"film", money(costs.film)},
                                    {"blanks", money(costs.blanks)},
                                    {"work", money(costs.work)},
                                    {"total", money(costs.total())},
                                    {"jobs", jobs}},
                               1)
                  << "\n";
        return 0;
    }
    for (const JobCost& c : costs.jobs)
        std::cout << name(c) << ": " << c.pieces << " garments, film " << pence_text(c.film, order.currency) << ", blanks "
                  << pence_text(c.blanks, order.currency) << ", work " << pence_text(c.work, order.currency) << ", together "
                  << pence_text(c.total(), order.currency) << "\n";
    return 0;
}

}  // namespace orthema
