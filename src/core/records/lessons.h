// Lessons: what records propose to correct, each at the place where its cause is. Nothing is done here: a proposal is a value.
#pragma once

#include <string>
#include <vector>

#include "core/order/order.h"
#include "core/records/press_record.h"
#include "core/records/tried.h"
#include "core/shop/correction.h"

namespace orthema {

enum class LessonState { open, taken, declined, taken_back };
constexpr int lesson_state_count = 4;
const char* lesson_state_name(LessonState s);

/// A correction and what became of it; a remark that somebody wrote is a lesson too, of the kind `look`.
struct Lesson {
    Correction correction;
    LessonState state = LessonState::open;
    int version = 1;  ///< the highest of an id holds
    std::string at;   ///< ISO: when it came to this
    std::string job;  ///< of the order that took it
    bool operator==(const Lesson&) const = default;
};

/// What goes with an order when it is kept: its own records, and the lessons that it took.
struct OrderRecords {
    std::vector<PressRecord> records;
    std::vector<Lesson> lessons;
    bool operator==(const OrderRecords&) const = default;
};

/// The measured pieces among these that were pressed since what decides their place was last changed.
std::vector<const PressRecord*> landings_as_it_is(const std::vector<PressRecord>& all, const std::vector<std::size_t>& which,
                                                  const std::vector<Lesson>& known);

/// Of very many records the latest are looked at: how it is now.
constexpr std::size_t most_judged = 8000;

/// What the records propose now, the likeliest to help first. What was taken is judged by what came after it alone; what was
/// declined comes again once it rests on twice as many pieces. `order` gives blanks, presses
/// and recipes; empty parts of it make fewer proposals.
std::vector<Correction> proposals(const std::vector<PressRecord>& all, const std::vector<std::size_t>& which,
                                  const std::vector<Lesson>& known, const Order& order);

/// What the ids of lessons begin with that somebody wrote.
constexpr const char* remark_prefix = "remark/";

/// One sentence for whoever decides: what to move, by how much, from how many pieces.
std::string proposal_words(const Correction& c, const Order& order);
/// What it rests on and how sure that is; what else it might be, and what to measure to know.
std::string proposal_reason(const Correction& c, Reading reading);
/// Once it is taken: "platen marks moved 4 mm to your left, 12 June, from 18 pieces".
std::string taken_words(const Correction& c, Reading reading);

/// The order with the correction done where it acts, and listed; the order itself where it has nothing that it could act on.
Order with_correction(Order order, const Correction& c, const std::string& today);

/// How the pieces landed after it was taken, against before.
struct Followed {
    int pieces = 0;
    double before = 0, after = 0;  ///< mm from their place, the means
    bool enough = false;           ///< to say anything
    bool better = false;
};
Followed followed(const Lesson& lesson, const std::vector<PressRecord>& all);

/// The fewest spares that leave `wanted` good ones with 95 % chance, where `spoiled` of `seen` were spoiled so far; spares spoil too.
int spares_for(int wanted, int spoiled, int seen);

}  // namespace orthema
