#include "app/benches/press/shift_recorder.h"

#include <QDateTime>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "core/records/drift.h"
#include "core/records/statistics.h"

namespace orthema::app {

namespace {

Outcome outcome_of(PressFault f) {
    switch (f) {
    case PressFault::not_released: return Outcome::not_released;
    case PressFault::crooked: return Outcome::crooked;
    case PressFault::scorched: return Outcome::scorched;
    case PressFault::lifted: return Outcome::lifted;
    case PressFault::ghosted: return Outcome::ghosted;
    }
    return Outcome::other;
}

constexpr std::size_t most_waiting = 8;

bool by_hand(ActKind kind) {
    return kind == ActKind::load || kind == ActKind::place || kind == ActKind::peel || kind == ActKind::unload || kind == ActKind::turn ||
           kind == ActKind::inside_out;
}

/// What lies in the films and presses of the plan, not on a garment, is no piece.
bool is_piece(const Load& load) { return load.film.sheet == 0 && !load.apart && !load.parts.empty(); }

}  // namespace

const SizeFit* ShiftRecorder::size_of(const PressRecord& r, const DecorationFit** fit_out) const {
    *fit_out = find_fit(fit(), r.design);
    return *fit_out == nullptr ? nullptr : find_size(**fit_out, r.size);
}

std::string ShiftRecorder::now_text() const { return QDateTime::currentDateTime().toString(Qt::ISODate).toStdString(); }

void ShiftRecorder::begin(const std::string& id, bool rehearsal, const std::optional<HandSetup>& hand) {
    id_ = id;
    order_ = room_.order();
    fit_ = room_.work().fit.out;
    rehearsal_ = rehearsal;
    hand_.reset();
    if (rehearsal && hand) hand_.emplace(*hand);
    heat_.clear();
    planned_.clear();
    took_.clear();
    pieces_.clear();
    wanted_.clear();
    aside_.clear();
    down_.clear();
    warning_.clear();
    known_.clear();
    for (const PressRecord& r : room_.records().all())
        if (r.id.rfind(order_.job + "/" + id_ + "/", 0) == 0) known_.insert(r.id);
    emit changed();
}

std::string ShiftRecorder::id_of(const Load& load) const { return order().job + "/" + id_ + "/" + load.id; }

PressRecord ShiftRecorder::begun_record(const PressPlan& plan, const Load& load) const {
    PressRecord r = record_of(order(), fit(), plan, load);
    r.id = id_of(load);
    r.at = now_text();
    r.hands = hands_;
    r.rehearsal = rehearsal_;
    if (const auto heat = heat_.find(load.id); heat != heat_.end())
        for (ActDone& a : r.acts)
            if (a.asked > 0) a.celsius = std::round(heat->second * 10) / 10;
    return r;
}

void ShiftRecorder::handled(const Shift& shift, const Act& act, double seconds) {
    if (!by_hand(act.kind) || act.phase < 0) return;
    const Load& load = load_of(shift.plan(), act.task);
    const double planned = shift.plan().shop.tasks[static_cast<std::size_t>(act.task)].phases[static_cast<std::size_t>(act.phase)].seconds;
    if (planned <= 0 || seconds > 20 * planned) return;  // somebody was called away
    planned_[load.id] += planned;
    took_[load.id] += seconds;
}

void ShiftRecorder::look(const Shift& shift) {
    const PressPlan& plan = shift.plan();
    std::vector<PressRecord> done;
    for (const Load& load : plan.loads) {
        if (!is_piece(load) || !shift.whole(load) || known_.contains(id_of(load))) continue;
        PressRecord r = begun_record(plan, load);
        known_.insert(r.id);
        r.planned = planned_[load.id];
        r.took = took_[load.id];
        const DecorationFit* fitted = nullptr;
        const SizeFit* size = size_of(r, &fitted);
        std::vector<TapeAsk> asks;
        if (const Decoration* d = find_decoration(order(), r.design); d != nullptr && size != nullptr)
            asks = tape_asks(*d, *fitted, *size, order().unit);
        PressRecord by_hand = r;
        if (hand_) {
            const MarksMoved moved = marks_moved(order().corrections, r.press, r.platen, r.hands);
            hand_->press(by_hand, moved.aside, moved.down);
            r.took = by_hand.took;
            r.outcome = by_hand.outcome;
        }
        pieces_.push_back({r.design, r.size, r.press, r.platen, r.hands});
        SamplingRule rule = rule_;
        rule.last = rule.last && shift.over();
        if (!asks.empty() && to_measure(pieces_, rule, room_.records().spread()).back() != 0)
            wanted_.push_back({r, asks, hand_ ? taped_of(*by_hand.landing, *size, asks) : Taped{}});
        if (wanted_.size() > most_waiting) wanted_.pop_front();
        done.push_back(std::move(r));
    }
    if (done.empty()) return;
    room_.records().add(std::move(done));
    emit changed();
}

void ShiftRecorder::fault(const Shift& shift, const Load& load, PressFault fault, bool lost) {
    if (!is_piece(load)) return;
    PressRecord r = begun_record(shift.plan(), load);
    r.id += "/fault ";
    int number = 1;
    while (known_.contains(r.id + std::to_string(number))) ++number;
    r.id += std::to_string(number);
    known_.insert(r.id);
    r.outcome = outcome_of(fault);
    r.mended = lost ? Mended::spoiled : Mended::pressed_again;  // the garment under a transfer that is lost is lost with it
    r.lost = price_of_loss(order(), fit(), r);
    room_.records().add({std::move(r)});
}

void ShiftRecorder::measured(const Taped& tape) {
    if (wanted_.empty()) return;
    PieceToMeasure now = std::move(wanted_.front());
    wanted_.pop_front();
    const DecorationFit* fitted = nullptr;
    if (const SizeFit* size = size_of(now.record, &fitted); size != nullptr && tape.any()) {
        Landing l = landing_of(tape, *size, now.asks);
        l.piece = now.record.first;
        now.record.landing = l;
        const std::string run = now.record.press + '\n' + now.record.platen;
        if (l.aside) aside_[run].push_back(*l.aside);
        if (l.down) down_[run].push_back(*l.down);
        room_.records().amend(std::move(now.record));
        watch();
    }
    emit changed();
}

void ShiftRecorder::not_this_one() {
    if (!wanted_.empty()) wanted_.pop_front();
    emit changed();
}

void ShiftRecorder::looked_at() {
    warning_.clear();
    aside_.clear();  // the run begins anew
    down_.clear();
    emit changed();
}

void ShiftRecorder::watch() {
    warning_.clear();
    RunBefore before;
    before.spread = room_.records().spread();
    const auto say = [&](const std::map<std::string, std::vector<double>>& runs, const char* more, const char* less) {
        for (const auto& [run, y] : runs) {
            // a centre is known where this press landed measured pieces before this shift
            RunBefore known = before;
            std::vector<double> earlier;
            const std::string press = run.substr(0, run.find('\n'));
            for (const PressRecord& r : room_.records().all())
                if (r.press == press && r.landing && r.rehearsal == rehearsal_ && r.id.find("/" + id_ + "/") == std::string::npos) {
                    const auto& v = &runs == &aside_ ? r.landing->aside : r.landing->down;
                    if (v) earlier.push_back(*v);
                }
            if (earlier.size() >= 16) known.centre = mean_of({earlier.end() - 16, earlier.end()});
            const std::vector<Drift> seen = drifts(y, known);
            if (seen.empty()) continue;
            const Drift& d = seen.back();
            const Press* p = find_press(order(), press);
            warning_ = tr("The last %1 measured on the %2 lie %3 by %4%5: look at the platen and at how it is loaded.")
                           .arg(int(y.size()) - d.began_at)
                           .arg(qt(p == nullptr ? press : p->name), tr(d.by > 0 ? more : less),
                                qt(length_text(Length::from_mm(std::round(std::abs(d.by))), order().unit)),
                                d.creeps ? tr(", a little more each time") : QString());
        }
    };
    say(down_, noted("low"), noted("high"));
    say(aside_, noted("to your right"), noted("to your left"));
}

}  // namespace orthema::app
