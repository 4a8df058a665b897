// Press plan: FitPlan and TransferSet -> loads of every press in the least time, with the waits, peels and second presses
// between them, the trial pieces, breaks and the due time.
#pragma once

#include <string>
#include <vector>

#include "core/pressing/heat.h"
#include "core/pressing/schedule.h"

namespace orthema {

/// What is done to a load in one phase.
enum class ActKind { change, load, place, press, wait, peel, turn, inside_out, trim, unload, check, print, powder, cure, cut };
const char* act_name(ActKind kind);

struct ActInfo {
    ActKind kind = ActKind::load;
    RecipeStep step;  ///< of what is pressed, peeled or turned
    int layer = -1, part = -1;
    int field = 0, fields = 1;  ///< of a design larger than the platen: which of its fields, from 0
};

/// Neighbouring pieces of one design on one size of a lot.
struct LoadPart {
    std::string decoration, size;
    int first = 0, pieces = 1;  ///< of that size of the lot, counted from 0
};

/// A sheet of film that is made in the run.
struct FilmOf {
    std::string medium;  ///< id
    int sheet = 0;       ///< from 1; 0: none
};

/// Pieces that go through the same presses together: of one lot, or of several whose blanks lie side by side.
struct Load {
    std::string id;                ///< "crew-kite/M/3", by the number of its first piece: lasts; of a replacement "crew-kite/M/again 1"
    std::string decoration, size;  ///< of its first part
    int pieces = 1;                ///< of all its parts
    std::vector<LoadPart> parts;
    std::vector<PlannedStep> steps;  ///< all that is done to it, in order: what plan, cards and run sheet speak from
    bool trial = false;
    bool replacement = false;
    bool apart = false;      ///< transfers alone, off the blank: sheets that are married for many pieces at once
    FilmOf film;             ///< that it is the making of; it has no parts then
    std::vector<int> tasks;  ///< in order
    /// It is a run of film that is printed in the shift, not something that is pressed.
    [[nodiscard]] bool makes_film() const { return film.sheet > 0; }
};

struct TaskInfo {
    int load = 0;
    std::vector<ActInfo> acts;  ///< one for each phase of the task
    bool once_more = false;     ///< put in at the press after a fault, not of the plan
};

/// When a job of a gang is done.
struct JobEnd {
    std::string job;  ///< id
    double due = 0;   ///< seconds from the run's start
    double late = 0;  ///< seconds after it; 0: in time
};

struct PressPlan {
    Workshop shop;
    std::vector<std::string> presses;  ///< ids of the shop's machines
    std::vector<Load> loads;
    std::vector<TaskInfo> tasks;      ///< beside shop.tasks
    std::vector<std::string> stages;  ///< names, by number
    std::vector<JobEnd> jobs;         ///< of a gang, beside shop.dues
    std::vector<int> alone;           ///< the tasks as they would follow without a plan
    Schedule schedule;
    std::string revision;   ///< of what is pressed when and where
    double bound = 0;       ///< seconds: no plan is shorter
    double one_by_one = 0;  ///< seconds, each load from load to last peel before the next
    Findings findings;
};

inline const Load& load_of(const PressPlan& plan, int task) {
    return plan.loads[static_cast<std::size_t>(plan.tasks[static_cast<std::size_t>(task)].load)];
}

/// Null where the plan has no load of that name.
const Load* find_load(const PressPlan& plan, const std::string& id);
/// A stage more, with its name; its number.
int add_stage(PressPlan& plan, const std::string& name);

/// Seconds that a pair of hands takes; starting values.
struct HandTimes {
    double load = 15, load_again = 8, place = 10, unload = 5, peel = 7, turn = 8, trim = 20, check = 60;
};
HandTimes hand_times(Family family);
/// The same for hands that take so many times as long, checks apart.
HandTimes slower(HandTimes times, double factor);
/// For a transfer that is married off the blank.
HandTimes hand_times_apart();

/// The loads and their tasks, without a schedule. Decorations without fit, press, method or recipe are left out, with a
/// finding.
PressPlan press_problem(const Order& order, const FitPlan& plan, const TransferSet& set);

/// The same with a schedule, found in the time given and beginning with the accepted one, and the findings on heat and due
/// time.
PressPlan press_plan(const Order& order, const FitPlan& plan, const TransferSet& set, const ScheduleOptions& options,
                     const Task& task = {});
/// The plan with this schedule, its revision, and what is to be said of it.
PressPlan with_schedule(PressPlan plan, Schedule schedule, const Order& order);
/// The turns of an accepted plan for this one's stages; new stages come where they stand. Whether there were none new.
bool begin_like(ScheduleOptions& options, const PressPlan& plan, const AcceptedPlan& accepted);
/// What a plan is accepted by: put by it without a search it comes out the same.
AcceptedPlan accepted_from(const PressPlan& plan);

/// What happens, in time order: each phase of each task, and the changes of presses before them.
struct Act {
    int task = 0, phase = -1;  ///< phase −1: a change of the press
    ActKind kind = ActKind::load;
    int machine = -1, hand = -1;
    double start = 0, end = 0;
};
std::vector<Act> acts_of(const PressPlan& plan, const Schedule& schedule);

/// Minutes and seconds from the run's start as a time of day, "14:05".
std::string time_of_day(const PressRun& run, double seconds);
/// "1 h 12 min", "48 s".
std::string duration_words(double seconds);
/// "Kite on wind, Adult tee ash M, piece 3"; of several designs "Kite on wind and 7 more designs, Round coaster OS, 8 pieces".
std::string load_words(const Order& order, const Load& load);

}  // namespace orthema
