// Shift: a press plan as it is carried out. What is in hand, what counts down, what waits for heat; a step goes on only
// when it may, and faults change the plan. A value with a clock handed in; nothing here reads the time.
#pragma once

#include <string>
#include <vector>

#include "core/pressing/press_plan.h"

namespace orthema {

/// The plate may differ from what is asked by this and counts as reached, °C.
constexpr double reached_within = 3;
/// From this much above it is too hot to go on.
constexpr double too_hot_by = 8;

struct Countdown {
    int task = 0, phase = 0, machine = -1;
    double seconds = 0;
    double began = -1;  ///< negative: it counts once the plate is hot
};

enum class PressFault { not_released, crooked, scorched, lifted, ghosted };
constexpr int press_fault_count = 5;
const char* press_fault_name(PressFault f);
/// How a trial came out that was reported so.
TrialResult trial_result(PressFault f);

/// A trial that did not come out: what waits for it is not pressed by the same figures unless it is told to.
struct HeldRun {
    std::string trial;  ///< its load
    PressFault fault = PressFault::scorched;
    bool operator==(const HeldRun&) const = default;
};

/// What a press last said of itself.
struct PressReading {
    bool known = false;
    bool lost = false;  ///< no word from it any more
    double celsius = 0;
    double at = 0;
};

struct ShiftNote {
    double at = 0;
    std::string load, what;
};

/// How far a shift has come, by loads that keep their name while the order does: what is kept of it on disk.
struct ShiftRecord {
    struct Piece {
        std::string load;
        bool left_out = false;
        bool under_heat = false;    ///< when it was written
        std::vector<int> done;      ///< phases, of each task of the load that the plan has
        std::vector<double> ended;  ///< when each task was over; negative: it is not
    };
    double at = 0;  ///< seconds of the shift
    std::vector<Piece> pieces;
    std::vector<ShiftNote> notes;
    std::vector<HeldRun> held;
};

class Shift {
public:
    explicit Shift(PressPlan plan, bool fahrenheit = false);
    /// Goes on where a record stops; the plan is split into loads as the record's was. Returns a sentence on each load that needs a look:
    /// what lay under heat, and what was begun by another recipe and begins anew.
    std::vector<std::string> restore(const ShiftRecord& record, const Reading& reading = {});
    [[nodiscard]] ShiftRecord record(double now) const;

    [[nodiscard]] const PressPlan& plan() const { return plan_; }
    /// What to do now; nothing when all is done.
    [[nodiscard]] std::optional<Act> card() const;
    /// The acts after it, in time order.
    [[nodiscard]] std::vector<Act> coming(std::size_t most) const;
    /// What a press does next, or is in the middle of.
    [[nodiscard]] std::optional<Act> next_on(int machine) const;
    /// Why it cannot go on yet, as a short sentence; empty: it can.
    [[nodiscard]] std::string waits_for(double now, const Reading& reading = {}) const;
    /// The temperature that the card's press is asked for; 0: none.
    [[nodiscard]] double asked(const Act& act) const;

    /// Does what the card says; false where it must wait.
    bool next(double now);
    /// Leaves the load of the card out.
    void skip(double now);
    /// Takes the last act back.
    bool again();
    void pause(double now);
    void resume(double now);
    [[nodiscard]] bool paused() const { return paused_at_ >= 0; }

    /// The piece in hand went wrong. Not released: it goes under heat once more and is peeled again. Else the piece is
    /// lost: what is left of its load is left out, and the designs that were on it are to be printed again.
    /// Which that is: the piece in hand once it is begun, else the one that was handled last; null before the first.
    [[nodiscard]] const Load* in_question() const;
    std::vector<Reprint> report(PressFault fault, const Order& order, double now, std::size_t part = 0);

    /// Trials that did not come out, and hold what waits for them.
    [[nodiscard]] const std::vector<HeldRun>& held() const { return held_; }
    /// Goes on by the same figures all the same.
    void go_on_knowingly(const std::string& trial, double now);
    /// As it stands, but with this trial still to be made.
    [[nodiscard]] ShiftRecord record_to_try_again(const std::string& trial, double now) const;

    void reading(int machine, double celsius, double now);
    void lost(int machine, double now);
    [[nodiscard]] const PressReading& reading_of(int machine) const { return readings_[static_cast<std::size_t>(machine)]; }
    /// A sentence where a press is too hot, does not get there, or is not heard of.
    [[nodiscard]] std::string press_fault(double now, const Reading& reading = {}) const;

    /// Lets time pass: counts that are over end their steps.
    void tick(double now);
    [[nodiscard]] const std::vector<Countdown>& counting() const { return counting_; }
    [[nodiscard]] static double left(const Countdown& c, double now) { return c.began < 0 ? c.seconds : c.began + c.seconds - now; }

    /// Seconds by which the card is later than planned.
    [[nodiscard]] double behind(double now) const;
    /// For planning the rest anew, and the new plan for it.
    [[nodiscard]] Progress progress(double now) const;
    void take(Schedule schedule);
    /// The loads of a newer plan whose pieces are in none of this one: replacements, or lines added since.
    [[nodiscard]] std::vector<std::size_t> missing(const PressPlan& newer) const;
    /// Takes them in after what is left; how many.
    int bring_in(const PressPlan& newer, double now);

    [[nodiscard]] bool over() const { return !card().has_value() && counting_.empty() && held_.empty(); }
    [[nodiscard]] int loads_done() const;
    /// Whether all of it is over, and nothing of it was left out.
    [[nodiscard]] bool whole(const Load& load) const;
    [[nodiscard]] const std::vector<ShiftNote>& notes() const { return notes_; }

private:
    /// As the reader has it.
    [[nodiscard]] std::string heat(double celsius) const { return heat_words(celsius, fahrenheit_); }
    struct Live {
        int done = 0;  ///< phases
        bool changed = false, skipped = false;
        double start = -1, end = -1;
    };
    PressPlan plan_;
    bool fahrenheit_;
    std::vector<Act> acts_;
    std::vector<Live> live_;
    std::vector<Countdown> counting_;
    std::vector<PressReading> readings_;
    std::vector<double> asked_since_;  ///< by machine: since when the card waits for its heat
    std::vector<std::pair<int, int>> past_;
    std::vector<ShiftNote> notes_;
    std::vector<HeldRun> held_;
    std::vector<char> held_tasks_;  ///< by task: it waits for one of these
    double paused_at_ = -1;

    [[nodiscard]] bool runs(int task, int phase) const;
    [[nodiscard]] bool is_done(const Act& act) const;
    /// Something else that is still to be done stands before it: that is offered first.
    [[nodiscard]] bool blocked(const Act& act, bool in_order) const;
    [[nodiscard]] std::optional<Act> first_open(bool in_order) const;
    [[nodiscard]] bool heats_up(const Act& act) const;  ///< a load that waits for its plate
    [[nodiscard]] bool hot(int machine, double celsius) const;
    void finish(int task, double now);
    [[nodiscard]] int task_in_question() const;
    [[nodiscard]] bool is_held(int task) const { return !held_.empty() && held_tasks_[static_cast<std::size_t>(task)] != 0; }
    void mark_held();
    void hold(const Load& trial, PressFault fault, double now);
    void leave_out(const Load& load, double now);  ///< what is left of it
    std::vector<int> planned_tasks(const Load& load) const;
    void put_anew(const std::vector<int>& first, double now);  ///< these stages first, the others as they stand
    [[nodiscard]] const ShopTask& job(int task) const { return plan_.shop.tasks[static_cast<std::size_t>(task)]; }
    [[nodiscard]] Live& live(int task) { return live_[static_cast<std::size_t>(task)]; }
    [[nodiscard]] const Live& live(int task) const { return live_[static_cast<std::size_t>(task)]; }
};

}  // namespace orthema
