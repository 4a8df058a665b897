// Puts tasks of a workshop into a plan one by one, each at its earliest fitting time among what is there already.
#pragma once

#include <tuple>
#include <utility>
#include <vector>

#include "core/pressing/schedule.h"

namespace orthema {

inline constexpr double end_of_time = 1e15;  ///< seconds
inline constexpr double blink = 1e-6;

/// The phases of a task in order: by hand above 0, the others below.
std::vector<double> signed_phases(const ShopTask& job);

/// Tasks for which this is equal can stand in for one another: machines, platens on them, heat, pressure, phases.
using Likeness = std::tuple<std::vector<int>, std::vector<int>, double, int, std::vector<double>>;
Likeness likeness_of(const ShopTask& job);

/// Where a task could begin.
struct Start {
    int machine = -1;
    double at = 0, end = 0;
    double change = 0, change_by_hand = 0;  ///< seconds before `at`
    bool in_gap = false;                    ///< between others on its press
};

class Placer {
public:
    Placer(const Workshop& shop, const Progress* progress);

    /// With all that it follows, and what is tied to it by a window; `choice` narrows it to one machine (-1: any).
    void place(int task, int choice);
    /// One task alone, without what is tied to it; false where a window is missed.
    bool place_alone(int task, int choice);

    /// When all that it follows, which must have its place, is over.
    [[nodiscard]] double ready(int task) const;
    /// The earliest start at or after `from`; gaps of its presses before `gaps_from` are not looked at.
    [[nodiscard]] Start earliest(int task, double from, double gaps_from, int choice) const;

    /// Seconds by hand of a task that would lie before others of that hand.
    [[nodiscard]] double between(int task, const Start& start) const;
    [[nodiscard]] bool has_tied(int task) const { return !tied_[at(task)].empty(); }
    [[nodiscard]] bool can_follow(int task) const;  ///< all that it follows has its place, and it has none
    [[nodiscard]] bool is_placed(int task) const { return placed_[at(task)]; }
    [[nodiscard]] const Schedule& plan() const { return plan_; }
    /// How a press is left by the last task on it so far.
    [[nodiscard]] const PressState& left(int machine) const;
    /// When the last task on a press ends so far.
    [[nodiscard]] double free_from(int machine) const;
    /// Tasks that got their place since this was last asked.
    [[nodiscard]] std::vector<int> fresh() { return std::exchange(fresh_, {}); }

private:
    struct Busy {
        double from, to;
    };
    struct Stay {
        double start, end;
        PressState state;
    };
    struct HandWork {
        double offset, seconds;
        int phase;
    };
    static std::size_t at(int i) { return static_cast<std::size_t>(i); }
    const Workshop* shop_;
    std::vector<std::vector<Stay>> stays_;
    std::vector<std::vector<Stay>> gaps_;   ///< of each press, in which it stands as before and after, and a task could fit
    std::vector<double> shortest_;          ///< task on each press
    std::vector<std::vector<Busy>> hands_;  ///< what meets is one stretch
    std::vector<std::vector<int>> tied_;
    std::vector<std::vector<HandWork>> work_;
    std::vector<double> whole_;
    std::vector<char> placed_;
    std::vector<int> fresh_;
    Schedule plan_;
    double now_ = 0;

    static const Busy* meeting(const std::vector<Busy>& line, double from, double to);
    static void take(std::vector<Busy>& line, double from, double to);
    static void give_back(std::vector<Busy>& line, double from, double to);
    [[nodiscard]] int free_hand(double from, double to) const;
    [[nodiscard]] double hand_free_from(double from, double to) const;
    [[nodiscard]] double with_hands(int task, double change_by_hand, double from, double until) const;
    [[nodiscard]] Start on_press(int task, int machine, double from, double gaps_from) const;
    [[nodiscard]] Slot slot_at(int task, const Start& start) const;
    void mind_gaps(int machine, double from, double to);
    [[nodiscard]] const After& tie(int task, int to) const;
    void commit(int task, const Slot& slot);
    void undo(int task);
    template <class Use>
    void each_hand(const ShopTask& job, const Slot& slot, Use use) const;
};

}  // namespace orthema
