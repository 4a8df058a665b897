#include "app/press/press_desk.h"

#include <QApplication>
#include <QDate>
#include <QDir>
#include <QFileInfo>

#include <cmath>

#include "app/shell/figures.h"

namespace orthema::app {

namespace {

constexpr double late_by = 20;    ///< seconds off the plan before the rest is planned anew
constexpr double silent_for = 6;  ///< seconds of the real clock without a word

/// The simulated press lies beside this program, or one folder up where tests run.
QString press_program() {
    const QString here = QApplication::applicationDirPath();
    for (const QString& at : {here + "/orthema-press", here + "/../orthema-press"})
        if (QFileInfo::exists(at)) return at;
    return QStringLiteral("orthema-press");
}

}  // namespace

PressDesk::PressDesk(Workroom& room) : room_(room) {
    timer_.setInterval(50);
    connect(&timer_, &QTimer::timeout, this, &PressDesk::tick);
}

PressDesk::~PressDesk() { end(); }

double PressDesk::now() const {
    if (stopped_at_ >= 0) return stopped_at_;
    return double(clock_.elapsed()) / 1000 * speed_ - lost_;
}

void PressDesk::begin(double speed, bool simulated) {
    end();
    if (room_.press_plan().shop.tasks.empty()) return;
    ++shift_number_;
    speed_ = speed;
    simulated_ = simulated;
    lost_ = 0;
    stopped_at_ = -1;
    counting_ = 0;
    shift_.emplace(room_.press_plan());
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
    emit card_changed();
}

void PressDesk::end() {
    timer_.stop();
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
    const bool was = shift_.has_value();
    shift_.reset();
    if (was) emit card_changed();
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
    } else if (card && card->machine == machine) {
        wanted = shift_->asked(*card);
    } else {
        for (const Act& a : shift_->coming(4000))
            if (a.machine == machine) {
                wanted = shift_->asked(a);
                break;
            }
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
        QApplication::beep();
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
    room_.background([this, plan = shift_->plan(), progress = shift_->progress(now()), number = shift_number_]() -> std::function<void()> {
        ScheduleOptions options;
        options.tries = 4;
        begin_like(options, plan, plan);
        Schedule s = schedule(plan.shop, options, {}, {}, &progress);
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
    const auto card = shift_->card();
    if (!shift_->next(now())) {
        emit ticked();
        return;
    }
    counting_ = shift_->counting().size();
    if (card && card->kind == ActKind::check) {
        const Load& load = shift_->plan().loads[std::size_t(shift_->plan().tasks[std::size_t(card->task)].load)];
        keep_trial(load, TrialResult::released_clean);
    }
    emit card_changed();
}

void PressDesk::skip() {
    if (!shift_) return;
    shift_->skip(now());
    counting_ = shift_->counting().size();
    emit card_changed();
}

void PressDesk::again() {
    if (!shift_) return;
    (void)shift_->again();
    counting_ = shift_->counting().size();
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
            room_.say({QStringLiteral("A press is closed: open it first, then pause."), false, {}, {}});
            return;
        }
        stopped_at_ = now();
        shift_->pause(stopped_at_);
    }
    emit card_changed();
}

void PressDesk::report(PressFault fault) {
    if (!shift_) return;
    std::string load_id;
    const std::vector<Reprint> lost = shift_->report(fault, room_.order(), now());
    if (!shift_->notes().empty()) load_id = shift_->notes().back().load;
    counting_ = shift_->counting().size();
    for (const Load& l : shift_->plan().loads)
        if (l.id == load_id && l.trial && fault != PressFault::not_released)
            keep_trial(l, fault == PressFault::scorched ? TrialResult::scorched
                          : fault == PressFault::lifted ? TrialResult::lifted
                                                        : TrialResult::crooked);
    if (!lost.empty()) {
        Order next = room_.order();
        for (const Reprint& r : lost) {
            const auto same = std::find_if(next.reprints.begin(), next.reprints.end(), [&](const Reprint& o) {
                return o.decoration == r.decoration && o.size == r.size && o.cause == r.cause;
            });
            if (same == next.reprints.end())
                next.reprints.push_back(r);
            else
                same->copies += r.copies;
        }
        room_.edit(QStringLiteral("spoiled at the press"), std::move(next));
        room_.say({QStringLiteral("%1 is noted: %2 to be printed again with the next sheet.")
                       .arg(qt(press_fault_name(fault)))
                       .arg(lost.size() == 1 ? QStringLiteral("one transfer") : QStringLiteral("%1 transfers").arg(lost.size())),
                   false,
                   {},
                   {}});
    }
    emit card_changed();
}

void PressDesk::keep_trial(const Load& load, TrialResult result) {
    const Decoration* d = find_decoration(room_.order(), load.decoration);
    const Medium* medium = d == nullptr ? nullptr : find_medium(room_.order(), d->medium);
    if (medium == nullptr) return;
    Order next = room_.order();
    next.trials.push_back({medium->method, d->run.style, d->press, recipe_for(next, *d).steps, result,
                           QDate::currentDate().toString(Qt::ISODate).toStdString(), "trial of " + load.id});
    room_.edit(QStringLiteral("trial"), std::move(next));
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
    if (const std::string fault = shift_->press_fault(now()); !fault.empty()) return qt(fault);
    return qt(shift_->waits_for(now()));
}

}  // namespace orthema::app
