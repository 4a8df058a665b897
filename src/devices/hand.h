// The hand that ships with the simulated press: loads with a bias and a spread, creeps, slips at a moment, burns what is too hot.
// By a seed, so that a rehearsal and a test see the same again.
#pragma once

#include <map>
#include <random>
#include <string>

#include "core/records/press_record.h"

namespace orthema {

struct HandSetup {
    unsigned seed = 1;
    double aside = 0, down = 0;          ///< mm that it lays every piece off its place
    double spread = 3;                   ///< mm, of each piece by itself
    double creep = 0;                    ///< mm down with every piece
    int slips_at = -1;                   ///< the piece from which on the platen lies otherwise; negative: never
    double slip = 0;                     ///< mm aside from then on
    std::map<std::string, double> more;  ///< mm aside besides, by press, by hands or by size
    double scorches_above = 1e9;         ///< °C of the plate
    double ghosts_below = -1e9;          ///< °C: the ink does not go over
    unsigned cold = 0;                   ///< PlateCorner that gets too little heat
    double pace = 1;                     ///< times as long as planned
};

class Hand {
public:
    explicit Hand(HandSetup setup) : setup_(std::move(setup)), dice_(setup_.seed) {}
    [[nodiscard]] const HandSetup& setup() const { return setup_; }
    /// Presses the next piece: fills in where it landed, how it came out, how long it took. What the record says of press, hands, size and
    /// acts stands in it; `marks_aside` and `marks_down` are how far the loading marks were moved, mm.
    void press(PressRecord& record, double marks_aside = 0, double marks_down = 0);
    [[nodiscard]] int pressed() const { return pressed_; }

private:
    HandSetup setup_;
    std::mt19937 dice_;
    int pressed_ = 0;
};

}  // namespace orthema
