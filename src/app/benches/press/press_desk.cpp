#include "app/benches/press/press_desk.h"

#include <QApplication>
#include <QDateTime>

#include <cmath>
#include <utility>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "files/program_part.h"

namespace orthema::app {

namespace {

constexpr double late_by = 20;    ///< seconds off the plan before the rest is planned anew
constexpr double silent_for = 6;  ///< seconds of the real clock without a word

std::string trial_note(const std::string& load) { return spoken("trial of ") + load; }

QString press_program() { return qt(program_part("orthema-press")); }

}  // namespace

PressDesk::PressDesk(Workroom& room) : room_(room), recorder_(new ShiftRecorder(room, this)) {
    timer_.setInterval(50);
    connect(&timer_, &QTimer::timeout, this, &PressDesk::tick);
    const auto seen = [this] { shown_ = shift_ ? shift_->card() : std::nullopt; };
    connect(this, &PressDesk::card_changed, seen);
    connect(this, &PressDesk::ticked, seen);
    keeper_.setMaxThreadCount(1);
    connect(&room_, &Workroom::updated, this, [this] {
        if (!running() && looked_for_ != kept_name()) look_for_kept();
    });
    if (!room_.order().name.empty()) look_for_kept();  // the bench may be made when the order is open already
}

PressDesk::~PressDesk() {
    end();
    keeper_.waitForDone();
}

double PressDesk::now() const {
    if (stopped_at_ >= 0) return stopped_at_;
    return double(clock_.elapsed()) / 1000 * speed_ - lost_;
}

void PressDesk::begin(double speed, bool simulated, const std::optional<HandSetup>& hand) {
    const PressPlan plan = room_.press_plan();
    hand_ = hand;
    room_.planner().accept();  // what is pressed by is what was agreed to
    begin_on(plan, speed, simulated);
}

void PressDesk::go_on() {
    if (running() || !kept_) return;
    with_plan_as_begun(kept_->trials, [this, kept = *kept_](PressPlan plan) {
        if (!running()) begin_on(std::move(plan), kept.speed, kept.rehearsal, &kept.record, kept.id);
    });
}

void PressDesk::with_plan_as_begun(const std::vector<std::string>& trials, std::function<void(PressPlan)> then) {
    Order order = room_.order();
    erase_if(order.trials, [&](const Trial& t) {
        return t.result == TrialResult::released_clean &&
               std::any_of(trials.begin(), trials.end(), [&](const std::string& id) { return t.note == trial_note(id); });
    });
    room_.jobs().background([order, then = std::move(then), shop = room_.chain().shop(), known = room_.pictures().known(),
                             before = room_.work()]() -> std::function<void()> {
        return [then, plan = work(order, shop, known, &before).press_plan()] { then(plan); };
    });
}

int PressDesk::waiting() const { return shift_ ? int(shift_->missing(room_.press_plan()).size()) : 0; }

void PressDesk::take_in() {
    if (!shift_ || shift_->bring_in(room_.press_plan(), now()) == 0) return;
    keep();
    emit card_changed();
}

void PressDesk::begin_on(PressPlan plan, double speed, bool simulated, const ShiftRecord* from, std::string id) {
    end();
    if (plan.shop.tasks.empty()) return;
    ++shift_number_;
    speed_ = speed;
    simulated_ = simulated;
    lost_ = from != nullptr ? -from->at : 0;
    stopped_at_ = -1;
    counting_ = 0;
    said_unkept_ = false;
    order_ = room_.order().name;
    kept_as_ = kept_name();
    kept_.reset();
    shift_.emplace(std::move(plan), room_.order().press_run.fahrenheit);
    if (from != nullptr)
        for (const std::string& sentence : shift_->restore(*from, room_.order().unit)) room_.say({qt(sentence), false, {}, {}});
    if (id.empty()) id = QDateTime::currentDateTime().toString(QStringLiteral("yyyyMMdd-hhmmss-zzz")).toStdString();
    id_ = std::move(id);
    recorder_->begin(id_, simulated, hand_);
    const std::size_t machines = shift_->plan().shop.machines.size();
    lines_.resize(machines);
    if (simulated) {
        sockets_ = std::make_unique<QTemporaryDir>(QDir::tempPath() + QStringLiteral("/press-XXXXXX"));
        std::vector<bool> used(machines, false);
        for (const Slot& s : shift_->plan().schedule.places)
            if (s.machine >= 0) used[std::size_t(s.machine)] = true;
        for (std::size_t m = 0; m < machines; ++m) {
            if (!used[m]) continue;
            Line& l = lines_[m];
            shift_->reading(int(m), 20, 0);  // cold until it says otherwise
            l.socket = sockets_->filePath(QStringLiteral("%1").arg(m));
            l.process = std::make_unique<QProcess>();
            const Machine& machine = shift_->plan().shop.machines[m];
            l.process->start(press_program(), {l.socket, QStringLiteral("--speed"), QString::number(speed), QStringLiteral("--heat-rate"),
                                               QString::number(machine.heat_rate * 60), QStringLiteral("--cool-rate"),
                                               QString::number(machine.cool_rate * 60)});
        }
    }
    clock_.start();
    timer_.start();
    keep();
    emit card_changed();
}

void PressDesk::end() {
    timer_.stop();
    keep();
    for (Line& l : lines_) {
        if (l.line) l.line->send("BYE");
        l.line.reset();
        if (l.process) {
            l.process->terminate();
            if (!l.process->waitForFinished(300)) l.process->kill();
            l.process->waitForFinished(300);
        }
    }
    lines_.clear();
    sockets_.reset();
    if (!shift_) return;
    shift_.reset();
    look_for_kept();
    emit card_changed();
}

bool PressDesk::connected() const {
    return std::all_of(lines_.begin(), lines_.end(), [](const Line& l) { return !l.process || (l.line && l.line->alive()); });
}

void PressDesk::talk(int machine) {
    Line& l = lines_[std::size_t(machine)];
    if (!l.process || l.cut) return;
    const double real = double(clock_.elapsed()) / 1000;
    if (!l.line) {
        if (auto line = connect_press(l.socket.toStdString())) {
            l.line = std::move(*line);
            l.heard_at = real;
            l.set = 0;
            l.line->send("HELLO");
        } else if (real - l.heard_at > silent_for) {
            shift_->lost(machine, now());
        }
        return;
    }
    while (const auto answer = l.line->receive()) {
        l.heard_at = real;
        if (const auto reading = reading_from(*answer)) shift_->reading(machine, reading->celsius, now());
    }
    if (!l.line->alive()) {
        l.line.reset();
        shift_->lost(machine, now());
        return;
    }
    if (real - l.heard_at > std::max(1.5, silent_for / 2)) shift_->lost(machine, now());
    // what it is wanted for next, as soon as nothing lies under it
    for (const Countdown& c : shift_->counting())
        if (c.machine == machine && !l.closed) {
            l.line->send("LOAD 1");
            l.line->send("CLOSE");
            l.closed = true;
            l.closed_task = c.task;
        }
    const auto card = shift_->card();
    const bool counting =
        std::any_of(shift_->counting().begin(), shift_->counting().end(), [&](const Countdown& c) { return c.machine == machine; });
    if (l.closed && !counting) {
        l.line->send("OPEN");
        l.line->send("LOAD 0");
        l.closed = false;
    }
    double wanted = 0;
    if (counting) {
        for (const Countdown& c : shift_->counting())
            if (c.machine == machine) wanted = shift_->plan().shop.tasks[std::size_t(c.task)].state.celsius;
    } else if (const auto next = card && card->machine == machine ? card : shift_->next_on(machine)) {
        wanted = shift_->asked(*next);
    }
    if (wanted > 0 && wanted != l.set) {
        l.line->send("SET " + std::to_string(wanted));
        l.set = wanted;
    }
    if (real - l.read_at > 0.2) {
        l.line->send("READ");
        l.read_at = real;
    }
}

void PressDesk::tick() {
    if (!shift_) return;
    const auto before = shift_->card();
    for (std::size_t m = 0; m < lines_.size(); ++m) talk(int(m));
    if (stopped_at_ < 0) shift_->tick(now());
    if (shift_->counting().size() < counting_) {
        if (room_.settings().liked().sound) QApplication::beep();
        card_since_ = now();
        recorder_->look(*shift_);
        keep();
        emit counted_down();
    }
    counting_ = shift_->counting().size();
    if (stopped_at_ < 0 && std::abs(shift_->behind(now())) > late_by) plan_anew();
    const auto after = shift_->card();
    if (before.has_value() != after.has_value() || (before && after && (before->task != after->task || before->phase != after->phase)))
        emit card_changed();
    emit ticked();
}

void PressDesk::plan_anew() {
    if (planning_ || !shift_ || shift_->over()) return;
    planning_ = true;
    room_.jobs().background(
        [this, plan = shift_->plan(), progress = shift_->progress(now()), number = shift_number_]() -> std::function<void()> {
            ScheduleOptions options;
            options.tries = plan.shop.tasks.size() > 5000 ? 0 : 4;  // a tenth of a second
            begin_like(options, plan, accepted_from(plan));
            // who works by the plan finds it again, unless another is worth the change
            Schedule s = follow(plan.shop, plan.schedule, progress);
            if (Schedule other = schedule(plan.shop, options, {}, {}, &progress); other.end < s.end - 120) s = std::move(other);
            return [this, s = std::move(s), number, tasks = plan.shop.tasks.size()] {
                planning_ = false;
                // a report may have added tasks in between: the next tick plans again
                if (!shift_ || number != shift_number_ || shift_->plan().shop.tasks.size() != tasks) return;
                shift_->take(s);
                emit card_changed();
            };
        });
}

void PressDesk::next() {
    if (!shift_) return;
    shift_->tick(now());
    const auto card = shift_->card();
    if (card && (!shown_ || shown_->task != card->task || shown_->phase != card->phase)) {
        emit card_changed();  // a count ended under the hand: what comes after it is shown before it is done
        return;
    }
    if (!shift_->next(now())) {
        emit ticked();
        return;
    }
    if (card) recorder_->handled(*shift_, *card, now() - card_since_);
    if (card && card->kind == ActKind::press && card->machine >= 0 && shift_->reading_of(card->machine).known)
        recorder_->closed(load_of(shift_->plan(), card->task), shift_->reading_of(card->machine).celsius);
    card_since_ = now();
    counting_ = shift_->counting().size();
    if (card && card->kind == ActKind::check) {
        const Load& load = load_of(shift_->plan(), card->task);
        keep_trial(load, TrialResult::released_clean);
    }
    recorder_->look(*shift_);
    keep();
    emit card_changed();
}

void PressDesk::skip() {
    if (!shift_) return;
    shift_->skip(now());
    counting_ = shift_->counting().size();
    keep();
    emit card_changed();
}

void PressDesk::again() {
    if (!shift_) return;
    (void)shift_->again();
    counting_ = shift_->counting().size();
    keep();
    emit card_changed();
}

void PressDesk::pause() {
    if (!shift_) return;
    if (shift_->paused()) {
        lost_ += double(clock_.elapsed()) / 1000 * speed_ - lost_ - stopped_at_;
        stopped_at_ = -1;
        shift_->resume(now());
    } else {
        // under heat nothing waits: counting presses are opened first
        if (!shift_->counting().empty()) {
            room_.say({tr("A press is closed: open it first, then pause."), false, {}, {}});
            return;
        }
        stopped_at_ = now();
        shift_->pause(stopped_at_);
    }
    emit card_changed();
}

void PressDesk::report(PressFault fault, std::size_t part) {
    if (!shift_) return;
    if (const Load* load = shift_->in_question(); load == nullptr || load->makes_film()) return;
    std::string load_id;
    const Load questioned = *shift_->in_question();
    const std::vector<Reprint> lost = shift_->report(fault, room_.order(), now(), part);
    recorder_->fault(*shift_, questioned, fault, !lost.empty());
    if (!shift_->notes().empty()) load_id = shift_->notes().back().load;
    counting_ = shift_->counting().size();
    for (const Load& l : shift_->plan().loads)
        if (l.id == load_id && l.trial) keep_trial(l, trial_result(fault));
    if (!lost.empty()) {
        // whoever presses has printed: only what was spoiled is laid out again
        Order next = all_printed(room_.order(), room_.transfer_set(), room_.work().sheet_plan());
        for (const Reprint& r : lost) {
            const auto same = std::find_if(next.reprints.begin(), next.reprints.end(), [&](const Reprint& o) {
                return o.decoration == r.decoration && o.size == r.size && o.cause == r.cause && o.word == r.word;
            });
            if (same == next.reprints.end())
                next.reprints.push_back(r);
            else
                same->copies += r.copies;
        }
        room_.edit(tr("spoiled at the press"), std::move(next));
        room_.say({tr("%1 is noted: %2 to be printed again with the next sheet. Once it is there, take it into the shift.")
                       .arg(said(press_fault_name(fault)))
                       .arg(lost.size() == 1 ? tr("one transfer") : tr("%1 transfers").arg(lost.size())),
                   false,
                   {},
                   {}});
    }
    keep();
    emit card_changed();
}

std::vector<NextTry> PressDesk::tries_for(const HeldRun& held) const {
    const Load* load = shift_ ? find_load(shift_->plan(), held.trial) : nullptr;
    const Decoration* d = load == nullptr ? nullptr : find_decoration(room_.order(), load->decoration);
    if (d == nullptr) return {};
    const ChosenRecipe recipe = recipe_for(room_.order(), *d);
    std::vector<RecipeStep> pressed = recipe.steps;
    for (const Trial& t : room_.order().trials)  // the figures that failed, not what they fell back to
        if (t.note == trial_note(load->id)) pressed = t.steps;
    return next_tries(pressed, trial_result(held.fault), recipe.most_celsius, room_.order().press_run.fahrenheit);
}

void PressDesk::try_again(const std::string& trial, const NextTry& with) {
    if (!shift_ || planning_) return;
    if (!shift_->counting().empty()) {
        room_.say({tr("A press is closed: open it first, then try again."), false, {}, {}});
        return;
    }
    std::vector<std::string> trials;
    const Decoration* d = nullptr;
    for (const Load& l : shift_->plan().loads) {
        if (!l.trial) continue;
        if (l.id == trial)
            d = find_decoration(room_.order(), l.decoration);
        else
            trials.push_back(l.id);
    }
    auto next_trial = d == nullptr ? std::nullopt : trial_of(room_.order(), *d, with.steps, TrialResult::to_try);
    if (!next_trial) return;
    Order next = room_.order();
    next.trials.push_back(std::move(*next_trial));
    room_.edit(tr("try another figure"), std::move(next));
    planning_ = true;
    with_plan_as_begun(trials, [this, trial, number = shift_number_](PressPlan plan) {
        planning_ = false;
        if (!shift_ || number != shift_number_) return;
        const ShiftRecord record = shift_->record_to_try_again(trial, now());
        if (plan.presses != shift_->plan().presses) {
            begin_on(std::move(plan), speed_, simulated_, &record, id_);
            return;
        }
        shift_.emplace(std::move(plan), room_.order().press_run.fahrenheit);  // the presses stay as they are
        ++shift_number_;
        for (const std::string& sentence : shift_->restore(record, room_.order().unit)) room_.say({qt(sentence), false, {}, {}});
        counting_ = 0;
        room_.say({tr("The trial stands in the plan again. Take a spare transfer, and the spoiled piece or a scrap of its cloth."),
                   false,
                   {},
                   {}});
        keep();
        emit card_changed();
    });
}

void PressDesk::go_on_knowingly(const std::string& trial) {
    if (!shift_) return;
    shift_->go_on_knowingly(trial, now());
    keep();
    emit card_changed();
}

void PressDesk::keep_trial(const Load& load, TrialResult result) {
    const Decoration* d = find_decoration(room_.order(), load.decoration);
    if (d == nullptr) return;
    auto trial = trial_of(room_.order(), *d, recipe_for(room_.order(), *d).steps, result);
    if (!trial) return;
    trial->date = QDate::currentDate().toString(Qt::ISODate).toStdString();
    trial->note = trial_note(load.id);
    Order next = room_.order();
    if (result == TrialResult::released_clean && !simulated_) {  // the next order begins with it
        LibraryContent learned;
        learned.trials.push_back(*trial);
        room_.library().keep(learned, tr("The shop knows this recipe now."));
    }
    next.trials.push_back(std::move(*trial));
    room_.edit(tr("trial"), std::move(next));
}

void PressDesk::trouble(int machine, const QString& which) {
    if (machine < 0 || machine >= int(lines_.size()) || !lines_[std::size_t(machine)].line) return;
    lines_[std::size_t(machine)].line->send("FAULT " + which.toStdString());
}

void PressDesk::cut_line(int machine) {
    if (machine < 0 || machine >= int(lines_.size())) return;
    Line& l = lines_[std::size_t(machine)];
    l.line.reset();
    l.cut = true;
    shift_->lost(machine, now());
    emit ticked();
}

void PressDesk::connect_line(int machine) {
    if (machine < 0 || machine >= int(lines_.size())) return;
    Line& l = lines_[std::size_t(machine)];
    l.cut = false;
    l.heard_at = double(clock_.elapsed()) / 1000;
}

QString PressDesk::says() const {
    if (!shift_) return {};
    if (const std::string fault = shift_->press_fault(now(), room_.order().unit); !fault.empty()) return qt(fault);
    return qt(shift_->waits_for(now(), room_.order().unit));
}

}  // namespace orthema::app
