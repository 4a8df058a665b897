// The loads of an order and what is done to each, in tasks: what a schedule is made of.
#include <algorithm>
#include <map>
#include <set>
#include <tuple>

#include "core/base/dates.h"
#include "core/order/pieces.h"
#include "core/pressing/film_making.h"
#include "core/pressing/press_plan.h"

namespace orthema {

namespace {

/// Peels that the hand waits for beside the press rather than carry the blank away.
constexpr double wait_on_press = 5;
constexpr double again_at_platen = 6;  ///< to shift a blank for the next place of the platen

struct Building {
    const Order& order;
    const FitPlan& plan;
    const TransferSet& set;
    PressPlan out;
    std::map<std::tuple<RunKey, std::string, int>, int> last_task;             ///< run, size, piece -> the task it left last
    std::set<std::tuple<RunKey, std::string, int>> inside_out;                 ///< pieces that lie so since then
    std::map<std::tuple<std::string, std::string, std::string>, int> checked;  ///< method, style, press -> the trial's check
    std::map<std::string, int> stages;
    std::map<std::tuple<std::string, std::string, int>, int> married;  ///< decoration, size, piece -> the task that ends its marrying
    FilmReady film;
};

int stage_named(Building& b, const std::string& key) { return b.stages.try_emplace(key, static_cast<int>(b.stages.size())).first->second; }

int place_count(const SizeFit& size) { return std::max(1, static_cast<int>(size.platen.presses.size())); }

/// The tasks of one load: visits to a press, and what is done by hand between them.
class LoadTasks {
public:
    LoadTasks(Building& b, Load load, std::vector<int> machines, std::vector<int> platens, const HandTimes& times, int places,
              const std::string& stage)
        : b_(b),
          load_(std::move(load)),
          machines_(std::move(machines)),
          platens_(std::move(platens)),
          times_(times),
          places_(places),
          stage_(stage) {}

    /// `turned`: so many of its pieces are first turned inside out, or back.
    void go(const std::vector<PlannedStep>& steps, std::vector<int> before, int turned = 0) {
        before_ = std::move(before);
        load_.steps = steps;
        if (turned > 0) by_hand({ActKind::inside_out, {}}, times_.turn * turned, {}, 0);
        for (std::size_t i = 0; i < steps.size(); ++i) {
            const PlannedStep& p = steps[i];
            const RecipeStep& s = p.step;
            const bool more_heat = std::any_of(steps.begin() + static_cast<std::ptrdiff_t>(i) + 1, steps.end(),
                                               [](const PlannedStep& q) { return applies(q.step); });
            switch (s.kind) {
            case StepKind::marry: {
                visit(s);
                press(p);
                const bool peeled_there =
                    i + 1 < steps.size() && steps[i + 1].step.kind == StepKind::peel && steps[i + 1].step.peel == Peel::hot;
                if (!peeled_there) leave();
                break;
            }
            case StepKind::trim: by_hand({ActKind::trim, s}, times_.trim * load_.pieces, {}, 0); break;
            case StepKind::wait:
                if (open_ && s.seconds <= wait_on_press)
                    phase({ActKind::wait, s}, s.seconds, false);
                else
                    away(s.seconds);
                break;
            case StepKind::turn:
                visit(s);
                phase({ActKind::turn, s}, times_.turn * load_.pieces, true);
                break;
            case StepKind::peel:
                if (open_ && (s.peel == Peel::hot || (s.peel == Peel::warm && more_heat))) {
                    if (s.seconds > 0) phase({ActKind::wait, s}, s.seconds, false);
                    phase({ActKind::peel, s, p.layer, p.part}, times_.peel * load_.pieces, true);
                } else {
                    leave();
                    const PeelWindow w = peel_window(s);
                    by_hand({ActKind::peel, s, p.layer, p.part}, times_.peel * load_.pieces, w.most, w.least);
                }
                break;
            default:
                visit(s);
                if (p.layer >= 0) phase({ActKind::place, s, p.layer, p.part}, times_.place * load_.pieces, true);
                press(p);
            }
        }
        leave();
        if (load_.trial) {
            by_hand({ActKind::check, {}}, times_.check, {}, 0);
        }
        b_.out.loads.push_back(std::move(load_));
    }
    [[nodiscard]] int last() const { return last_; }

private:
    Building& b_;
    Load load_;
    std::vector<int> machines_, platens_;
    const HandTimes& times_;
    int places_;
    std::string stage_;
    std::vector<int> before_;
    bool open_ = false;
    bool been_ = false;
    ShopTask job_;
    TaskInfo info_;
    int last_ = -1;
    double lag_ = 0;

    void phase(ActInfo act, double seconds, bool hand) {
        job_.phases.push_back({seconds, hand, static_cast<int>(info_.acts.size())});
        info_.acts.push_back(std::move(act));
    }
    /// On a press that stands so; another temperature or pressure is another visit.
    void visit(const RecipeStep& s) {
        const bool other = open_ && s.celsius > 0 && !prepares(s) && job_.state.celsius > 0 && pressed_ &&
                           (s.celsius != job_.state.celsius || static_cast<int>(s.pressure) != job_.state.pressure);
        if (other) leave();
        if (!open_) {
            job_ = {};
            info_ = {};
            job_.machines = machines_;
            job_.platens = platens_;
            job_.state = {s.celsius, static_cast<int>(s.pressure), platens_.empty() ? 0 : platens_.front()};
            pressed_ = false;
            open_ = true;
            phase({ActKind::load, s}, (been_ ? times_.load_again : times_.load) * load_.pieces, true);
            been_ = true;
        }
        if (s.celsius > 0 && !prepares(s)) {  // a pre-press goes with the pressure of what follows it
            job_.state.celsius = s.celsius;
            job_.state.pressure = static_cast<int>(s.pressure);
            pressed_ = true;
        }
    }
    void press(const PlannedStep& p) {
        const int times = prepares(p.step) || p.step.kind == StepKind::marry ? 1 : places_;
        for (int k = 0; k < times; ++k) {
            if (k > 0) phase({ActKind::turn, p.step, p.layer, p.part, k, times}, again_at_platen, true);
            phase({ActKind::press, p.step, p.layer, p.part, k, times}, p.step.seconds, false);
        }
    }
    void leave() {
        if (!open_) return;
        phase({ActKind::unload, {}}, times_.unload * load_.pieces, true);
        open_ = false;
        add({}, 0);
    }
    void away(double seconds) {
        leave();
        lag_ += seconds;
    }
    void by_hand(ActInfo act, double seconds, std::optional<double> most, double least) {
        leave();
        job_ = {};
        info_ = {};
        phase(std::move(act), seconds, true);
        add(most, least);
    }
    void add(std::optional<double> most, double least) {
        const auto id = static_cast<int>(b_.out.shop.tasks.size());
        if (last_ >= 0) {
            const double lag = least + lag_;
            job_.after.push_back({last_, lag, most ? std::optional(*most + lag_) : std::nullopt});
        } else {
            for (const int t : before_) job_.after.push_back({t, 0, {}});
        }
        lag_ = 0;
        job_.stage = stage_named(b_, stage_ + "/" + std::to_string(load_.tasks.size()));
        info_.load = static_cast<int>(b_.out.loads.size());
        load_.tasks.push_back(id);
        b_.out.alone.push_back(id);
        b_.out.shop.tasks.push_back(std::move(job_));
        b_.out.tasks.push_back(std::move(info_));
        last_ = id;
    }
    bool pressed_ = false;
};

/// Machines that can take a size of a decoration, with the platen on each.
void machines_for(const Building& b, const Decoration& dec, const SizeFit& size, const Ground* ground, std::vector<int>& machines,
                  std::vector<int>& platens) {
    const Press* own = find_press(b.order, dec.press);
    for (std::size_t m = 0; m < b.out.presses.size(); ++m) {
        const Press& press = *find_press(b.order, b.out.presses[m]);
        if (press.id == dec.press) {
            machines.insert(machines.begin(), static_cast<int>(m));
            platens.insert(platens.begin(), std::max(0, size.platen.platen));
        } else if (b.order.press_run.share_presses && own != nullptr && press.kind == own->kind && ground != nullptr &&
                   size.platen.presses.size() <= 1) {
            const PlatenFit fit = press.kind == PressKind::flat ? platen_fit(press, size.ink, ground->raised) : PlatenFit{};
            if (fit.way == PlatenWay::none || fit.way == PlatenWay::several) continue;
            machines.push_back(static_cast<int>(m));
            platens.push_back(std::max(0, fit.platen));
        }
    }
}

/// How many pieces lie under the press together. Blanks that are taped to their sheet are pressed as that sheet, as far as the
/// platen reaches.
int pieces_at_once(const Order& order, const Decoration& dec, const SizeFit& size, const Ground* ground) {
    const BlankStyle* style = find_style(order, dec.run.style);
    const Press* press = find_press(order, dec.press);
    if (style == nullptr || press == nullptr) return 1;
    if (press->kind == PressKind::oven || press->kind == PressKind::wrap) return std::max(1, press->pieces);
    const Medium* medium = find_medium(order, dec.medium);
    const bool taped = medium != nullptr && medium->laying.cutting == Cutting::on_sheet && family_build(style->family) == Build::flat;
    if ((!is_hard(style->family) && !taped) || press->kind != PressKind::flat || ground == nullptr || press->platens.empty()) return 1;
    if (const Jig* jig = find_jig(order, dec.making.jig)) return std::max(1, jig->rows * jig->columns);
    const Rect box = bounds(ground->panel.outline);
    Platen platen =
        press->platens[static_cast<std::size_t>(std::clamp(size.platen.platen, 0, static_cast<int>(press->platens.size()) - 1))];
    if (!taped) return platen_grid(platen, press->margin.mm(), box.width(), box.height(), 6).count();
    const double gap = std::max(6.0, medium->laying.fingers.mm());
    const auto within = [&](Length across, Length along) {
        Platen both = platen;
        both.width = std::min(platen.width, across);
        both.height = std::min(platen.height, along);
        return platen_grid(both, press->margin.mm(), box.width(), box.height(), gap).count();
    };
    return std::max({1, within(medium->width, medium->length), within(medium->length, medium->width)});
}

/// One design on one size of a lot, as it goes to its press.
struct Visit {
    RunKey run;
    std::size_t turn = 0;  ///< place among the designs on one garment
    const Decoration* dec = nullptr;
    const SizeFit* size = nullptr;
    std::vector<int> machines, platens;
    std::string method;
    std::vector<RecipeStep> recipe;
    std::vector<PlannedStep> steps;
    std::vector<PlannedStep> apart;  ///< what is done to its transfers beforehand, off the blank
    HandTimes times;
    int at_once = 1, extra = 0;
    std::vector<int> numbers;  ///< of its pieces
    bool tried = false, done = false;
};

/// Whether pieces of two lots can lie under one press together.
bool lie_together(const Visit& a, const Visit& b) {
    return a.at_once > 1 && a.at_once == b.at_once && a.turn == b.turn && a.run.style == b.run.style && a.size->size == b.size->size &&
           a.machines == b.machines && a.platens == b.platens && a.method == b.method && a.recipe == b.recipe &&
           a.steps.size() == b.steps.size() && a.dec->location == b.dec->location && a.dec->making.jig == b.dec->making.jig &&
           a.size->platen.presses.size() == b.size->platen.presses.size();
}

/// Makes the loads of lots that lie together, in the order of the lots.
void make_loads(Building& b, const std::vector<Visit*>& together) {
    const Order& order = b.order;
    const Visit& v = *together.front();
    const auto tried_key = std::tuple(v.method, v.run.style, v.dec->press);
    const auto make = [&](std::vector<LoadPart> parts, bool trial, bool replacement) {
        Load load;
        load.decoration = parts.front().decoration;
        load.size = parts.front().size;
        load.trial = trial;
        load.replacement = replacement;
        const std::vector<int>& numbers =
            (*std::find_if(together.begin(), together.end(), [&](const Visit* w) { return w->dec->id == load.decoration; }))->numbers;
        const auto ordinal = static_cast<std::size_t>(parts.front().first);
        load.id = load.decoration + "/" + load.size + "/" +
                  (ordinal < numbers.size() ? std::to_string(numbers[ordinal]) : "again " + std::to_string(ordinal + 1 - numbers.size()));
        load.pieces = 0;
        std::vector<int> before;
        if (const auto check = b.checked.find(tried_key); check != b.checked.end()) before.push_back(check->second);
        const auto wait_for = [&](int task) {
            if (std::find(before.begin(), before.end(), task) == before.end()) before.push_back(task);
        };
        const auto each_piece = [&](const auto& act) {
            for (const LoadPart& p : parts)
                for (int piece = p.first; piece < p.first + p.pieces; ++piece)
                    act(std::tuple(find_decoration(order, p.decoration)->run, p.size, piece));
        };
        each_piece([&](const auto& piece) {
            ++load.pieces;
            if (const auto it = b.last_task.find(piece); it != b.last_task.end()) wait_for(it->second);
        });
        for (const LoadPart& p : parts)
            if (const auto it = b.film.find({p.decoration, p.size}); it != b.film.end()) wait_for(it->second);
        std::vector<PlannedStep> steps = v.steps;
        if (replacement)
            steps.insert(steps.begin(), v.apart.begin(), v.apart.end());
        else
            for (const LoadPart& p : parts)
                for (int piece = p.first; piece < p.first + p.pieces; ++piece)
                    if (const auto it = b.married.find({p.decoration, p.size, piece}); it != b.married.end()) wait_for(it->second);
        std::vector<int> on = v.machines, with = v.platens;
        std::optional<double> fixed;
        for (const LoadPin& pin : order.press_run.pins)
            if (pin.load == load.id) {
                if (pin.start >= 0) fixed = pin.start;
                for (std::size_t m = 0; m < v.machines.size(); ++m)
                    if (!pin.press.empty() && b.out.presses[static_cast<std::size_t>(v.machines[m])] == pin.press) {
                        on = {v.machines[m]};
                        with = {v.platens[m]};
                    }
            }
        load.parts = parts;
        const std::string stage = load.decoration + "/" + (trial ? "trial" : load.size);
        LoadTasks tasks(b, std::move(load), on, with, v.times, place_count(*v.size), stage);
        const bool inside_out = side_of(v.dec->location).inside_out;
        int turned = 0;
        each_piece([&](const auto& piece) {
            if (b.inside_out.contains(piece) == inside_out) return;
            ++turned;
            inside_out ? void(b.inside_out.insert(piece)) : void(b.inside_out.erase(piece));
        });
        tasks.go(steps, std::move(before), turned);
        if (fixed) b.out.shop.tasks[static_cast<std::size_t>(b.out.loads.back().tasks.front())].fixed = fixed;
        if (trial) b.checked[tried_key] = tasks.last();
        each_piece([&](const auto& piece) { b.last_task[piece] = tasks.last(); });
    };
    std::vector<LoadPart> parts;
    int lying = 0;
    const auto close = [&] {
        if (!parts.empty()) make(parts, false, false);
        parts.clear();
        lying = 0;
    };
    for (const Visit* w : together) {
        for (int first = 0; first < w->size->quantity;) {
            if (order.press_run.trials && !w->tried && !b.checked.contains(tried_key)) {
                make({{w->dec->id, w->size->size, first, 1}}, true, false);
                ++first;
                continue;
            }
            const int pieces = std::min(w->at_once - lying, w->size->quantity - first);
            parts.push_back({w->dec->id, w->size->size, first, pieces});
            lying += pieces;
            first += pieces;
            if (lying == w->at_once) close();
        }
    }
    close();
    for (const Visit* w : together)
        for (int first = w->size->quantity; first < w->size->quantity + w->extra;) {
            const int pieces = std::min(w->at_once, w->size->quantity + w->extra - first);
            make({{w->dec->id, w->size->size, first, pieces}}, false, true);
            first += pieces;
        }
}

/// What is done to a transfer before it meets its blank: from where its sheets are married to the first step that needs one.
void set_apart(Visit& v) {
    const auto marry = std::find_if(v.steps.begin(), v.steps.end(), [](const PlannedStep& s) { return s.step.kind == StepKind::marry; });
    if (marry == v.steps.end()) return;
    const auto end =
        std::find_if(marry + 1, v.steps.end(), [](const PlannedStep& s) { return heats(s.step) || s.step.kind == StepKind::turn; });
    v.apart.assign(marry, end);
    v.steps.erase(marry, end);
}

/// Marries the transfers of all designs that are married alike, as many as the platen takes at once.
void marry_all(Building& b, const std::vector<Visit>& visits) {
    constexpr double gap = 6, trim = 10;  // mm between sheets; what stands round the ink until it is trimmed
    std::vector<char> done(visits.size(), 0);
    for (std::size_t i = 0; i < visits.size(); ++i) {
        if (done[i] != 0 || visits[i].apart.empty()) continue;
        const Visit& first = visits[i];
        const auto alike = [&](const Visit& v) {
            return v.machines == first.machines && v.apart.size() == first.apart.size() &&
                   std::equal(v.apart.begin(), v.apart.end(), first.apart.begin(),
                              [](const PlannedStep& a, const PlannedStep& c) { return a.step == c.step; });
        };
        const Press* press = find_press(b.order, first.dec->press);
        Load load;
        double filled = 0;  // of the platen
        const auto close = [&] {
            if (load.parts.empty()) return;
            load.apart = true;
            load.pieces = 0;
            for (const LoadPart& p : load.parts) load.pieces += p.pieces;
            load.decoration = load.parts.front().decoration;
            load.size = load.parts.front().size;
            load.id = load.decoration + "/" + load.size + "/married " + std::to_string(load.parts.front().first + 1);
            const std::vector<LoadPart> parts = load.parts;
            const HandTimes times = slower(hand_times_apart(), handling_factor(b.order.corrections));
            LoadTasks tasks(b, std::move(load), first.machines, first.platens, times, 1, parts.front().decoration + "/married");
            tasks.go(first.apart, {});
            for (const LoadPart& p : parts)
                for (int piece = p.first; piece < p.first + p.pieces; ++piece) b.married[{p.decoration, p.size, piece}] = tasks.last();
            load = {};
            filled = 0;
        };
        for (std::size_t k = i; k < visits.size(); ++k) {
            const Visit& v = visits[k];
            if (done[k] != 0 || v.apart.empty() || !alike(v)) continue;
            done[k] = 1;
            const auto platen = static_cast<std::size_t>(v.platens.empty() ? 0 : v.platens.front());
            int fit = 1;
            if (press != nullptr && platen < press->platens.size())
                fit = std::max(
                    1, platen_grid(press->platens[platen], press->margin.mm(), v.size->width + trim, v.size->height + trim, gap).count());
            for (int piece = 0; piece < v.size->quantity; ++piece) {
                if (filled + 1.0 / fit > 1 + 1e-9) close();
                filled += 1.0 / fit;
                if (load.parts.empty() || load.parts.back().decoration != v.dec->id || load.parts.back().size != v.size->size)
                    load.parts.push_back({v.dec->id, v.size->size, piece, 1});
                else
                    ++load.parts.back().pieces;
            }
        }
        close();
    }
}

}  // namespace

HandTimes hand_times_apart() {
    HandTimes t;
    t.load = 8;
    t.load_again = 5;
    t.place = 5;
    t.unload = 2;
    t.peel = 5;
    return t;
}

HandTimes slower(HandTimes times, double factor) {
    for (double* t : {&times.load, &times.load_again, &times.place, &times.unload, &times.peel, &times.turn, &times.trim}) *t *= factor;
    return times;
}

HandTimes hand_times(Family family) {
    HandTimes t;
    t.load = usual_load_seconds(family);
    if (is_hard(family)) {
        t.place = 3;
        t.unload = 2;
        t.peel = 3;
        t.load_again = 4;
    }
    return t;
}

namespace {

/// In a gang each job's tasks know when they are due.
void set_dues(PressPlan& plan, const Order& order) {
    const auto today = day_number(order.due);
    if (!today) return;
    std::map<std::string, int> number;
    for (const Job& j : order.jobs.all())
        if (const auto day = day_number(j.due)) {
            number[j.id] = static_cast<int>(plan.shop.dues.size());
            plan.shop.dues.push_back(86400.0 * static_cast<double>(*day - *today) + 60.0 * (j.due_at - order.press_run.start));
            plan.jobs.push_back({j.id, plan.shop.dues.back(), 0});
        }
    for (const Load& load : plan.loads) {
        std::set<int> dues;
        for (const LoadPart& p : load.parts)
            if (const Decoration* d = find_decoration(order, p.decoration))
                if (const auto due = number.find(d->run.job); due != number.end()) dues.insert(due->second);
        for (const int t : load.tasks) plan.shop.tasks[static_cast<std::size_t>(t)].dues.assign(dues.begin(), dues.end());
    }
}

}  // namespace

PressPlan press_problem(const Order& order, const FitPlan& plan, const TransferSet& set) {
    Building b{order, plan, set, {}, {}, {}, {}, {}, {}, {}};
    b.out.shop.hands = std::max(1, order.press_run.hands);
    const double handling = handling_factor(order.corrections);
    for (const PressBreak& p : order.press_run.breaks)
        if (p.to > order.press_run.start)
            b.out.shop.pauses.push_back({std::max(0.0, 60.0 * (p.from - order.press_run.start)), 60.0 * (p.to - order.press_run.start)});
    for (const Press& p : order.presses) {
        Machine m;
        m.name = p.name;
        m.heat_rate = std::max(0.01, p.heat_rate / 60);
        m.cool_rate = std::max(0.01, p.cool_rate / 60);
        m.platen_seconds = p.platen_seconds;
        m.pressure_seconds = p.pressure_seconds;
        m.now.pressure = static_cast<int>(Pressure::medium);
        b.out.shop.machines.push_back(std::move(m));
        b.out.presses.push_back(p.id);
    }
    const auto lacks = [&](const Decoration& d, const char* code) {
        b.out.findings.push_back(
            finding("not-in-press-plan", subject_of("press", d), {{"design", d.name}, {"why", Phrases{{{code, {}}}}}}));
    };
    std::vector<Visit> visits;
    for (const RunKey& run : runs_of(order)) {
        const std::vector<PressTurn> turns = press_turns(order, plan, set, run);
        for (std::size_t t = 0; t < turns.size(); ++t) {
            const Decoration& dec = *turns[t].decoration;
            const DecorationFit* fit = find_fit(plan, dec.id);
            const BlankStyle* style = find_style(order, run.style);
            const Method* method = method_of(order, dec);
            if (find_press(order, dec.press) == nullptr) {
                lacks(dec, "press-unset");
                continue;
            }
            const ChosenRecipe recipe = recipe_for(order, dec);
            if (method == nullptr || recipe.steps.empty()) {
                lacks(dec, "recipe-none");
                continue;
            }
            for (const SizeFit& size : fit->sizes) {
                const Ground* ground = find_ground(*fit, size.size);
                Visit v;
                v.run = run;
                v.turn = t;
                v.dec = &dec;
                v.size = &size;
                machines_for(b, dec, size, ground, v.machines, v.platens);
                const Stack stack = stack_of(dec, set, size.size);
                v.method = method->id;
                v.recipe = recipe.steps;
                v.steps = planned_steps(recipe.steps, stack.layers, stack.parts, method->bears_seconds);
                if (t > 0)  // once for each garment
                    std::erase_if(v.steps, [](const PlannedStep& s) { return s.step.kind == StepKind::pre_shrink; });
                set_apart(v);
                v.times = slower(hand_times(style->family), handling);
                v.at_once = pieces_at_once(order, dec, size, ground);
                v.tried = recipe.tried;
                v.numbers = piece_numbers(order, run, size.size);
                for (const Reprint& r : order.reprints)
                    if (r.decoration == dec.id && r.size == size.size) v.extra += r.copies;
                visits.push_back(std::move(v));
            }
        }
    }
    b.film = make_film(b.out, b.stages, order, set);
    marry_all(b, visits);
    for (std::size_t i = 0; i < visits.size(); ++i) {
        if (visits[i].done) continue;
        std::vector<Visit*> together{&visits[i]};
        // a later lot comes along where what is pressed on its garments before this is in the plan already
        for (std::size_t k = i + 1; k < visits.size() && visits[i].at_once > 1; ++k) {
            Visit& w = visits[k];
            if (w.done || !lie_together(visits[i], w)) continue;
            const bool ready = std::none_of(visits.begin(), visits.end(), [&](const Visit& o) {
                return o.run == w.run && o.size->size == w.size->size && o.turn < w.turn && !o.done;
            });
            if (ready) together.push_back(&w);
        }
        make_loads(b, together);
        for (Visit* v : together) v->done = true;
    }
    b.out.stages.resize(b.stages.size());
    for (const auto& [name, number] : b.stages) b.out.stages[static_cast<std::size_t>(number)] = name;
    set_dues(b.out, order);
    return std::move(b.out);
}

}  // namespace orthema
