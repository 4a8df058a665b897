// Place: whether pieces land off their place by more than chance, by how much, and what does it: press, hands, blank or size.
#pragma once

#include <array>
#include <string>
#include <vector>

#include "core/records/mixed.h"
#include "core/records/press_record.h"

namespace orthema {

enum class Cause { all, press, hands, blank, size };
constexpr int cause_count = 5;

/// Which quantity of the landing.
enum class Axis { aside, down };

/// One cause that stands out.
struct Displaced {
    Axis axis = Axis::aside;
    Cause cause = Cause::all;
    std::string press, hands, style, size;  ///< what it is about; as far as its cause goes
    double by = 0;                          ///< mm
    Interval sure;                          ///< 95 %
    int pieces = 0;                         ///< measured, that it rests on
    std::vector<Cause> or_else;             ///< what it cannot be told apart from
    std::vector<std::string> records;       ///< ids
};

/// A shift below this is not worth a change, mm.
constexpr double worth_moving = 1.5;
/// So many measured pieces are the fewest that anything is proposed from.
constexpr int least_pieces = 8;

/// What is seen in these records, of a few hundred at most; those without a landing say nothing. Records of one press and its
/// platen are one cause. Empty: nothing that chance does not explain.
std::vector<Displaced> displaced(const std::vector<const PressRecord*>& records);

/// Whether presses or hands seem to differ, with too few pieces to say which of them: more have to be measured on each.
bool undecided(const std::vector<const PressRecord*>& records);

}  // namespace orthema
