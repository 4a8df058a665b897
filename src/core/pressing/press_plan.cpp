#include "core/pressing/press_plan.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/base/units.h"
#include "core/drawing/code2d.h"
#include "core/order/roster.h"

namespace orthema {

const char* act_name(ActKind kind) {
    switch (kind) {
    case ActKind::change: return "change";
    case ActKind::load: return "load";
    case ActKind::place: return "place";
    case ActKind::press: return "press";
    case ActKind::wait: return "wait";
    case ActKind::peel: return "peel";
    case ActKind::turn: return "turn";
    case ActKind::inside_out: return "turn inside out";
    case ActKind::trim: return "trim";
    case ActKind::unload: return "unload";
    case ActKind::check: return "check the trial";
    case ActKind::print: return "print";
    case ActKind::powder: return "powder";
    case ActKind::cure: return "cure";
    case ActKind::cut: return "cut apart";
    }
    return "";
}

const Load* find_load(const PressPlan& plan, const std::string& id) {
    const auto it = std::find_if(plan.loads.begin(), plan.loads.end(), [&](const Load& l) { return l.id == id; });
    return it == plan.loads.end() ? nullptr : &*it;
}

int add_stage(PressPlan& plan, const std::string& name) {
    plan.stages.push_back(name);
    return static_cast<int>(plan.stages.size()) - 1;
}

bool begin_like(ScheduleOptions& options, const PressPlan& plan, const AcceptedPlan& accepted) {
    if (accepted.turns.empty()) return false;
    std::map<std::string, int> number;
    for (std::size_t i = 0; i < plan.stages.size(); ++i) number[plan.stages[i]] = static_cast<int>(i);
    std::vector<char> there(plan.stages.size(), 0);
    Turns& turns = options.turns;
    turns = {};
    turns.woven = accepted.woven;
    turns.fill = accepted.fill;
    turns.ahead.assign(plan.stages.size(), 0);
    turns.keep.assign(plan.presses.size(), 0);
    turns.choice.assign(plan.stages.size(), -1);
    for (const PlanKeep& k : accepted.keep)
        if (const auto press = std::find(plan.presses.begin(), plan.presses.end(), k.press); press != plan.presses.end())
            turns.keep[static_cast<std::size_t>(press - plan.presses.begin())] = k.seconds;
    for (const PlanTurn& turn : accepted.turns) {
        const auto it = number.find(turn.stage);
        if (it == number.end() || there[static_cast<std::size_t>(it->second)] != 0) continue;
        const auto now = static_cast<std::size_t>(it->second);
        there[now] = 1;
        turns.order.push_back(it->second);
        turns.ahead[now] = turn.ahead;
        const auto press = std::find(plan.presses.begin(), plan.presses.end(), turn.press);
        if (press != plan.presses.end()) turns.choice[now] = static_cast<int>(press - plan.presses.begin());
    }
    const bool all_known = turns.order.size() == there.size();
    for (std::size_t i = 0; i < there.size(); ++i)
        if (there[i] == 0) turns.order.push_back(static_cast<int>(i));
    return all_known;
}

AcceptedPlan accepted_from(const PressPlan& plan) {
    AcceptedPlan out;
    out.revision = plan.revision;
    const Turns& turns = plan.schedule.turns;
    out.woven = turns.woven;
    out.fill = turns.fill;
    for (std::size_t m = 0; m < turns.keep.size(); ++m)
        if (turns.keep[m] > 0) out.keep.push_back({plan.presses[m], turns.keep[m]});
    for (const int stage : turns.order) {
        const auto at = static_cast<std::size_t>(stage);
        const int machine = at < turns.choice.size() ? turns.choice[at] : -1;
        out.turns.push_back({plan.stages[at], machine >= 0 ? plan.presses[static_cast<std::size_t>(machine)] : std::string(),
                             at < turns.ahead.size() ? turns.ahead[at] : 0});
    }
    return out;
}

namespace {

/// From what is done when and where, to the second.
std::string revision_of_plan(const PressPlan& plan) {
    std::string all;
    for (const Load& load : plan.loads) {
        all += load.id;
        for (const int task : load.tasks) {
            const Slot& s = plan.schedule.places[static_cast<std::size_t>(task)];
            all += "|" + std::to_string(std::lround(s.start)) + " " + std::to_string(std::lround(s.end)) + " " + std::to_string(s.machine);
        }
        for (const PlannedStep& p : load.steps) all += "|" + step_words(p.step);
    }
    return all.empty() ? "" : revision_of(all);
}

}  // namespace

PressPlan with_schedule(PressPlan plan, Schedule schedule, const Order& order) {
    plan.schedule = std::move(schedule);
    plan.revision = revision_of_plan(plan);
    std::erase_if(plan.findings, [](const Finding& f) {
        return f.code == "press-late" || f.code == "press-plan-other" || f.code == "job-late" || f.code == "jobs-cannot-all";
    });
    const std::vector<double> late = lateness(plan.shop, plan.schedule);
    for (std::size_t i = 0; i < plan.jobs.size() && i < late.size(); ++i) plan.jobs[i].late = late[i];
    const double due = 60.0 * (order.press_run.due - order.press_run.start);
    if (plan.shop.tasks.empty()) return plan;
    for (const JobEnd& j : plan.jobs) {
        if (j.late < 1) continue;
        const Job* job = find_job(order, j.job);
        Subject about;
        about.job = j.job;
        plan.findings.push_back(finding("job-late", about,
                                        {{"job", job == nullptr ? j.job : job->name},
                                         {"ends", time_of_day(order.press_run, j.due + j.late)},
                                         {"late", duration_words(j.late)}}));
    }
    if (std::any_of(plan.jobs.begin(), plan.jobs.end(), [](const JobEnd& j) { return j.late >= 1; }))
        if (const double least = least_lateness(plan.shop); least >= 1)
            plan.findings.push_back(finding("jobs-cannot-all", {}, {{"least", duration_words(least)}}));
    if (plan.jobs.empty() && plan.schedule.end > due)
        plan.findings.push_back(finding("press-late", {},
                                        {{"ends", time_of_day(order.press_run, plan.schedule.end)},
                                         {"late", duration_words(plan.schedule.end - due)},
                                         {"late_seconds", Number{plan.schedule.end - due}}}));
    const std::string& agreed = order.press_run.accepted.revision;
    if (!agreed.empty() && agreed != plan.revision)
        plan.findings.push_back(finding("press-plan-other", {}, {{"agreed", agreed}, {"revision", plan.revision}}));
    return plan;
}

PressPlan press_plan(const Order& order, const FitPlan& fit, const TransferSet& set, const ScheduleOptions& asked, const Task& task) {
    PressPlan plan = press_problem(order, fit, set);
    ScheduleOptions options = asked;
    const bool agreed = begin_like(options, plan, order.press_run.accepted) && options.tries == 0;
    plan.bound = lower_bound(plan.shop);
    plan.one_by_one = one_by_one(plan.shop, plan.alone);
    for (Finding& f : heat_findings(order, fit, set)) plan.findings.push_back(std::move(f));
    Schedule best = agreed ? *put(plan.shop, options.turns) : schedule(plan.shop, options, task);
    return with_schedule(std::move(plan), std::move(best), order);
}

std::vector<Act> acts_of(const PressPlan& plan, const Schedule& schedule) {
    std::vector<Act> out;
    for (std::size_t i = 0; i < plan.shop.tasks.size() && i < schedule.places.size(); ++i) {
        const Slot& s = schedule.places[i];
        const ShopTask& job = plan.shop.tasks[i];
        if (s.change > 1e-9)
            out.push_back({static_cast<int>(i), -1, ActKind::change, s.machine, s.change_hand, s.start - s.change, s.start});
        double t = s.start;
        for (std::size_t k = 0; k < job.phases.size(); ++k) {
            out.push_back({static_cast<int>(i), static_cast<int>(k), plan.tasks[i].acts[k].kind, s.machine,
                           k < s.hands.size() ? s.hands[k] : -1, t, t + job.phases[k].seconds});
            t += job.phases[k].seconds;
        }
    }
    std::stable_sort(out.begin(), out.end(), [](const Act& a, const Act& b) { return a.start < b.start; });
    return out;
}

std::string time_of_day(const PressRun& run, double seconds) {
    const long minutes = run.start + std::lround(seconds / 60);
    const long day = minutes / (24 * 60), m = minutes % (24 * 60);
    char text[32];
    std::snprintf(text, sizeof text, "%ld:%02ld", m / 60, m % 60);
    return text + (day > 0 ? std::string(" (+") + std::to_string(day) + " d)" : std::string());
}

std::string duration_words(double seconds) {
    const long s = std::lround(seconds);
    if (s < 60) return std::to_string(s) + " s";
    if (s < 600) return std::to_string(s / 60) + " min" + (s % 60 != 0 ? " " + std::to_string(s % 60) + " s" : "");
    const long minutes = std::lround(seconds / 60);  // as the time of day is rounded, so that they add up
    if (minutes < 60) return std::to_string(minutes) + " min";
    return std::to_string(minutes / 60) + " h" + (minutes % 60 != 0 ? " " + std::to_string(minutes % 60) + " min" : "");
}

std::string load_words(const Order& order, const Load& load) {
    if (load.makes_film()) {
        const Medium* m = find_medium(order, load.film.medium);
        return phrase(m != nullptr && m->shape == MediumShape::sheet ? "film-sheet" : "film-run", order.unit,
                      {{"medium", m == nullptr ? load.film.medium : m->name}, {"n", load.film.sheet}, {"pieces", load.pieces}});
    }
    const Decoration* d = find_decoration(order, load.decoration);
    if (d == nullptr) return load.id;
    std::string out = d->name;
    std::set<std::string> others;
    for (const LoadPart& p : load.parts)
        if (const Decoration* o = find_decoration(order, p.decoration); o != nullptr && o->name != d->name) others.insert(o->name);
    if (load.parts.size() == 1) {
        const LoadPart& p = load.parts.front();
        out += ", " + run_name(order, d->run) + " " + load.size;
        out += p.pieces == 1 ? phrase("load-piece", order.unit, {{"n", p.first + 1}})
                             : phrase("load-pieces", order.unit, {{"first", p.first + 1}, {"last", p.first + p.pieces}});
        if (const std::string who = wearers(order, d->run, p.size, p.first, p.pieces); !who.empty()) out += ": " + who;
    } else {
        if (!others.empty()) out += phrase("load-more-designs", order.unit, {{"n", static_cast<int>(others.size())}});
        const BlankStyle* style = find_style(order, d->run.style);
        out += ", " + (style == nullptr ? d->run.style : style->name) + " " + load.size +
               phrase("load-count", order.unit, {{"n", load.pieces}});
    }
    if (load.apart) {
        std::set<std::string> designs, sizes;
        for (const LoadPart& p : load.parts) {
            designs.insert(p.decoration);
            sizes.insert(p.size);
        }
        out = phrase("load-marry", order.unit, {{"n", load.pieces}, {"design", d->name}});
        if (designs.size() > 1) out += phrase("load-more", order.unit, {{"n", static_cast<int>(designs.size()) - 1}});
        if (designs.size() == 1 && sizes.size() == 1) out += ", " + load.size;
        return out;
    }
    if (load.trial) out += phrase("load-trial", order.unit);
    if (load.replacement) out += phrase("load-again", order.unit);
    return out;
}

}  // namespace orthema
