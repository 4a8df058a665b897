// Sampling: which pieces of a run are measured, so that a shift is seen in time without measuring every piece.
#pragma once

#include <string>
#include <vector>

namespace orthema {

/// What a run must show: a shift of `sees` mm within `run` pieces, with this chance.
struct SamplingAim {
    double sees = 5;
    int run = 30;
    double chance = 0.9;
    bool operator==(const SamplingAim&) const = default;
};

/// The fewest measured pieces that see it at this spread (two-sided, 5 %), and never fewer than two.
int pieces_to_see(const SamplingAim& aim, double spread);
/// So every how many pieces one is measured; at least 1.
int every_nth(const SamplingAim& aim, double spread);

struct SamplingRule {
    bool on = true;  ///< otherwise nobody is asked
    bool first_of_size = true;
    bool after_changes = true;  ///< of platen, press or hands
    bool last = true;
    int every = 0;  ///< 0: worked out from the aim and the spread
    SamplingAim aim;
    bool operator==(const SamplingRule&) const = default;
};

/// What tells one piece of a run from the next.
struct SamplingPiece {
    std::string design, size, press, platen, hands;
};
/// Which of these, in the order of the run, are measured.
std::vector<char> to_measure(const std::vector<SamplingPiece>& pieces, const SamplingRule& rule, double spread);

}  // namespace orthema
