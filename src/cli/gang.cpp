#include "cli/gang.h"

#include <iostream>

#include "cli/run.h"
#include "core/base/units.h"
#include "core/costing/costs.h"
#include "core/pipeline/gang.h"
#include "files/json_in.h"

namespace orthema {

namespace {

double film_of(const SheetPlan& plan) {
    double mm = 0;
    for (const MediumPlan& m : plan.media) mm += m.length;
    return mm;
}

}  // namespace

int gang_orders(const std::vector<std::string>& paths, const std::string& out, const std::string& name, bool as_json) {
    std::vector<OrderPackage> packages;
    for (const std::string& path : paths) {
        auto package = open_order(path);
        if (!package) return complain(package.sentence());
        packages.push_back(std::move(*package));
    }
    const std::string more = packages.front().order.name + " and " + std::to_string(packages.size() - 1) + " more";
    const auto laid = gang_packages(packages, new_job_id(), name.empty() ? more : name);
    if (!laid) return complain(laid.sentence());
    const auto& [order, art, records, fault] = laid->package;
    if (auto saved = save_order(out, order, art, records); !saved) return unwritten(saved.sentence());
    const std::vector<UnlikeCopies> unlike = unlike_copies(order);
    if (as_json) {
        json jobs = json::array(), differ = json::array();
        for (const Job& j : order.jobs.all()) jobs.push_back({{"id", j.id}, {"name", j.name}, {"customer", j.customer}, {"due", j.due}});
        for (const UnlikeCopies& u : unlike) differ.push_back({{"first", u.first}, {"second", u.second}, {"job", u.job}});
        std::cout << json_text(json{{"garments", garments_in(order)}, {"jobs", jobs}, {"not_alike", differ}}, 1) << "\n";
    } else {
        std::cout << order.jobs.size() << " jobs, " << garments_in(order) << " garments\n";
        for (const Job& j : order.jobs.all())
            std::cout << "  " << j.id << "  " << j.name << (j.due.empty() ? "" : ", due " + j.due) << "\n";
        if (!unlike.empty()) std::cout << unlike.size() << " things are not alike; both copies stay\n";
    }
    return 0;
}

int take_job_out(const std::string& path, const std::string& job, const std::string& out, const std::string& rest, bool as_json) {
    const auto run = run_order(path);
    if (!run) return complain(run.sentence());
    const OrderPackage& package = run->package;
    const auto apart = job_apart(package.order, job, run->work.transfer_set());
    if (!apart) return complain("There is no job “" + job + "” in it.");
    OrderRecords mine, others;
    for (const PressRecord& r : package.records.records) (r.job == job ? mine : others).records.push_back(r);
    for (const Lesson& l : package.records.lessons) (l.job == job ? mine : others).lessons.push_back(l);
    if (auto saved = save_order(out, *apart, package.art, mine); !saved) return unwritten(saved.sentence());
    if (!rest.empty())
        if (auto saved = save_order(rest, gang_without(package.order, job, run->work.transfer_set()), package.art, others); !saved)
            return unwritten(saved.sentence());
    if (as_json)
        std::cout << json_text(json{{"name", apart->name}, {"garments", garments_in(*apart)}}, 1) << "\n";
    else
        std::cout << apart->name << ": " << garments_in(*apart) << " garments\n";
    return 0;
}

int print_costs(const std::string& path, bool as_json) {
    const auto run = run_order(path);
    if (!run) return complain(run.sentence());
    const Order& order = run->package.order;
    const Work& w = run->work;
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
